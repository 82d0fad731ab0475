"""The volt staircase: where the rail's volts go, at three rail levels."""

from swapglow.core.position.solution import Solution
from swapglow.core.quantities import OHM, Source, show
from swapglow.core.report import Stair, Staircase

Triple = tuple[float, float, float]


def _triple(values: object) -> Triple:
    low, usual, high = (float(v) for v in values)  # type: ignore[attr-defined]
    return low, usual, high


def _less(level: Triple, drop: Triple) -> Triple:
    return level[0] - drop[0], level[1] - drop[1], level[2] - drop[2]


def _volts(value: float) -> str:
    return f"{value:.2f}\u00a0V" if abs(value) < 100 else f"{value:.1f}\u00a0V"


def staircase(s: Solution) -> Staircase:
    """Steps from the rail to ground for the typical LED and the resistor's nominal value."""
    p = s.position
    rail = _triple((p.rail.low.value, p.rail.usual.value, p.rail.high.value))
    where = "at the lamp, lit" if p.rail.read_at == "lamp" else "feed"
    stairs = [
        Stair("rail", "rail", "Rail", where, (0.0, 0.0, 0.0), rail, _volts(rail[1]),
              p.rail.usual.source)
    ]  # fmt: skip
    level = rail
    if p.rail.read_at == "feed":
        drop = (p.drop_v,) * 3
        level = _less(level, drop)
        stairs.append(
            Stair("driver", "driver", "Driver", "switch or transistor", drop, level,
                  _volts(p.drop_v), p.driver_drop.source)
        )  # fmt: skip
    each = show(s.sizing.each_ohm, OHM)
    string = _triple(s.volts_led[:, 1, 1] * p.in_series)
    across = _triple(s.usual * s.sizing.total_ohm)
    if p.resistor_parts == 2:
        half = (across[0] / 2, across[1] / 2, across[2] / 2)
        places: list[tuple[str, str, Triple]] = [("resistor", f"{each} in the positive lead", half)]
    else:
        places = [("resistor", each, across)]
    for key, detail, drop in places:
        level = _less(level, drop)
        stairs.append(
            Stair(key, "resistor", "Resistor", detail, drop, level, _volts(drop[1]),
                  Source.COMPUTED)
        )  # fmt: skip
    one = (string[0] / p.in_series, string[1] / p.in_series, string[2] / p.in_series)
    # A long string is drawn as one step: narrow treads are no picture.
    count = p.in_series if p.in_series <= 3 else 1
    for k in range(count):
        drop = one if count == p.in_series else string
        level = _less(level, drop)
        label = f"LED {k + 1}" if count > 1 else ("LED" if p.in_series == 1 else "LEDs")
        detail = p.led.label if count == p.in_series else f"{p.in_series} × {p.led.label}"
        stairs.append(Stair(f"led{k + 1}", "led", label, detail, drop, level, _volts(drop[1]), p.led_source))
    if p.resistor_parts == 2:
        level = _less(level, places[0][2])
        stairs.append(
            Stair("resistor2", "resistor", "Resistor", f"{each} in the negative lead",
                  places[0][2], level, _volts(places[0][2][1]), Source.COMPUTED)
        )  # fmt: skip
    stairs.append(
        Stair("ground", "ground", "Ground", "", (0.0, 0.0, 0.0), (0.0, 0.0, 0.0), _volts(0.0),
              Source.COMPUTED)
    )  # fmt: skip
    return Staircase(rail[2], tuple(stairs))
