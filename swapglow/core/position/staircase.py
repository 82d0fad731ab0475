"""The volt staircase: where the rail's volts go, at three rail levels."""

import numpy as np
from numpy.typing import NDArray

from swapglow.core.position.solution import Solution
from swapglow.core.quantities import OHM, Source, show
from swapglow.core.report import AtRails, Stair, Staircase

FloatArray = NDArray[np.float64]

NO_DROP = AtRails(0.0, 0.0, 0.0)


def at_rails(values: FloatArray) -> AtRails:
    """Three levels, (3,), by name."""
    low, usual, high = (float(v) for v in values)
    return AtRails(low, usual, high)


def less(level: AtRails, drop: AtRails) -> AtRails:
    """What is left of each level below a step."""
    return AtRails(level.low - drop.low, level.usual - drop.usual, level.high - drop.high)


def volts_text(value: float) -> str:
    """Volts as a step prints them."""
    return f"{value:.2f}\u00a0V" if abs(value) < 10 else f"{value:.1f}\u00a0V"


def staircase(s: Solution) -> Staircase:
    """Steps from the rail to ground for the typical LED and the resistor's nominal value."""
    return steady(s, np.array(s.position.rail.volts), s.usual, s.volts_led[:, 1, 1])


def steady(s: Solution, rail_v: FloatArray, amps: FloatArray, led_v: FloatArray) -> Staircase:
    """The same at three given levels.

    Args:
        rail_v, amps, led_v: rail, current and volts of one LED at three levels, (3,) each.
    """
    p = s.position
    rail = at_rails(rail_v)
    where = "at the lamp, lit" if p.rail.read_at == "lamp" else "feed"
    stairs = [
        Stair("rail", "rail", "Rail", where, NO_DROP, rail, volts_text(rail.usual), p.rail.usual.source)
    ]
    level = rail
    supply = p.rail.supply
    if supply.source_ohm.value > 0:
        drop = at_rails(amps * supply.source_ohm.value)
        level = less(level, drop)
        stairs.append(
            Stair("source", "source", "Source", f"{show(supply.source_ohm.value, OHM)} behind it", drop,
                  level, volts_text(drop.usual), supply.source_ohm.source)
        )  # fmt: skip
    if p.rail.read_at == "feed":
        drop = AtRails(p.drop_v, p.drop_v, p.drop_v)
        level = less(level, drop)
        stairs.append(
            Stair("driver", "driver", "Driver", "switch or transistor", drop, level,
                  volts_text(p.drop_v), p.driver_drop.source)
        )  # fmt: skip
    lit(s, stairs, level, amps * s.sizing.total_ohm, led_v * p.in_series)
    return Staircase(max(rail.high, rail.usual), tuple(stairs))


def lit(s: Solution, stairs: list[Stair], level: AtRails, across: FloatArray, string_v: FloatArray,
        led_label: str = "") -> None:  # fmt: skip
    """The last steps: resistor, LEDs, ground.

    Args:
        across: volts over all resistor parts at three levels, (3,).
        string_v: volts over the string, (3,).
        led_label: what stands in the LED's place, where it is not the LED that conducts.
    """
    p = s.position
    each = show(s.sizing.each_ohm, OHM)
    string = at_rails(string_v)
    if p.resistor_parts == 2:
        half = at_rails(across / 2)
        places: list[tuple[str, str, AtRails]] = [("resistor", f"{each} in the positive lead", half)]
    else:
        places = [("resistor", each, at_rails(across))]
    for key, detail, drop in places:
        level = less(level, drop)
        stairs.append(
            Stair(key, "resistor", "Resistor", detail, drop, level, volts_text(drop.usual),
                  Source.COMPUTED)
        )  # fmt: skip
    one = at_rails(string_v / p.in_series)
    # A long string is drawn as one step: narrow treads are no picture.
    count = p.in_series if p.in_series <= 3 and not led_label else 1
    for k in range(count):
        drop = one if count == p.in_series else string
        level = less(level, drop)
        label = f"LED {k + 1}" if count > 1 else ("LED" if p.in_series == 1 else "LEDs")
        detail = p.led.label if count == p.in_series else f"{p.in_series} × {p.led.label}"
        stairs.append(
            Stair(f"led{k + 1}", "led", led_label or label, "" if led_label else detail, drop, level,
                  volts_text(drop.usual), p.led_source)
        )  # fmt: skip
    if p.resistor_parts == 2:
        level = less(level, places[0][2])
        stairs.append(
            Stair("resistor2", "resistor", "Resistor", f"{each} in the negative lead",
                  places[0][2], level, volts_text(places[0][2].usual), Source.COMPUTED)
        )  # fmt: skip
    stairs.append(
        Stair("ground", "ground", "Ground", "", NO_DROP, NO_DROP, volts_text(0.0),
              Source.COMPUTED)
    )  # fmt: skip
