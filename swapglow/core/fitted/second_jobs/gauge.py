"""A lamp whose brightness is the reading: light over what it shows, old and new, and two resistors that follow it."""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Circuit, Dc, Diode, Element, Param, Resistor, VoltageSource
from swapglow.core.engine.operating_point import operating_point
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.second_jobs.stairs import stair
from swapglow.core.fitted.worked import (
    BranchStair,
    Figure,
    Judged,
    Picture,
    Row,
    Table,
    Way,
    Worked,
    curve,
    gravest_first,
    picked,
)
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.lamp import LIGHT_EXPONENT, Lamp, own_lamp
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.led_model import led_model
from swapglow.core.parts.resistor import rating_text, rating_to_fit
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.quantities import (
    AMPERE,
    OHM,
    VOLT,
    WATT,
    InputError,
    Shown,
    number_text,
    percent,
    percent_shown,
    show,
    shown,
)
from swapglow.core.values import preferred

FloatArray = NDArray[np.float64]

LOW = Detail("low", "The lowest it must tell", VOLT, "4.2V: flat, or no signal")
USUAL = Detail("usual", "What counts as good", VOLT, "6V")
HIGH = Detail("high", "The highest there is", VOLT, "6.6V; empty takes a tenth more")
LAMP_V = Detail("lamp_volts", "The old lamp's volts", VOLT, "6V, as marked")
LAMP_A = Detail("lamp_amps", "The old lamp's amps", AMPERE, "50mA", at="lamp_volts")
LED = led_detail()
COUNT = Detail("count", "LEDs in series", None, "1; empty takes one")
LED_OHM = Detail("ohm", "Resistor in series", OHM, "680R", none="link")
ACROSS = Detail("across", "Resistor across the LED", OHM, "470R; empty for none", none="absent")

_MOST = 8
_POINTS = 25
# A light that follows within so many octaves tells the same (side by side a fifth is seen, common practice).
FAITHFUL_OCTAVES = 0.5
# Under this share of its light at what counts as good a lamp is dark beside itself (ours: a fiftieth).
_DARK = 0.02


@dataclass(frozen=True)
class Net:
    """The LED and its resistors.

    Attributes:
        led: one LED; ``count`` in series.
        ohm: in series.
        across: across the LEDs, Ω; None for none.
    """

    led: Led
    count: int
    ohm: float
    across: float | None


def circuit(n: Net, volts: Param) -> Circuit:
    """The network on what it tells.

    Args:
        n: LED and resistors.
        volts: what is there.

    Returns:
        The circuit; the LED's current is that of "Dled".
    """
    return _circuit(n, n.ohm, n.across, volts)


def _circuit(n: Net, ohm: Param, across: Param | None, volts: Param) -> Circuit:
    parts: list[Element] = [
        VoltageSource("Vin", "in", "0", Dc(volts)),
        Resistor("Rseries", "in", "led", ohm),
        Diode("Dled", "led", "0", led_model(n.led, n.count)),
    ]
    if across is not None:
        parts.append(Resistor("Racross", "led", "0", across))
    return Circuit(tuple(parts), celsius=REFERENCE_C, title="a lamp that is read by its brightness")


def led_amps(n: Net, volts: FloatArray) -> FloatArray:
    """What the LED carries.

    Args:
        n: LED and resistors.
        volts: what is there, (points,).

    Returns:
        A, never less than nothing, (points,).

    Raises:
        NotConverged: it has no answer.
    """
    return np.maximum(operating_point(circuit(n, volts)).require().current("Dled"), 0.0)


def led_share(n: Net, volts: FloatArray, usual: float) -> FloatArray:
    """The LED's light beside that at what counts as good.

    Args:
        n: LED and resistors.
        volts: what is there, (points,).
        usual: what counts as good, V.

    Returns:
        The shares, (points,).
    """
    light = relative_light(n.led, led_amps(n, np.append(volts, usual)))
    return np.asarray(light[:-1] / light[-1] if light[-1] > 0 else np.zeros(len(volts)))


def off_by(share: FloatArray, old: FloatArray) -> float:
    """What a light is off the old lamp's by; what is dark counts as a fiftieth.

    Args:
        share: the light, (points,).
        old: the old lamp's, (points,).

    Returns:
        Root mean square, octaves.
    """
    logs = np.log2(np.maximum(share, _DARK) / np.maximum(old, _DARK))
    return float(np.sqrt(np.mean(logs**2)))


def follower(n: Net, volts: FloatArray, old: FloatArray, usual: float, amps: float) -> Net | None:
    """Two resistors of E12 with which the LED follows the old lamp best.

    The two stand as one source of V·b/(a + b) behind a ‖ b: a part of the volts pushes the knee up to where the light's
    slope is the lamp's (Thévenin). All pairs that keep the LED's current at what counts as good within a third of
    what it is now are tried.

    Args:
        n: LEDs; their resistors are replaced.
        volts: what it must tell, (points,).
        old: the old lamp's light there beside that at ``usual``.
        usual: what counts as good, V.
        amps: the LED's current there that is wanted, A.

    Returns:
        The network; None where no pair gives that current.
    """
    values = np.array(preferred.values("E12", 10.0, 100e3))
    series, across = (v.ravel() for v in np.meshgrid(values, values, indexing="ij"))
    tried = operating_point(_circuit(n, series, across, usual)).require()
    at_usual = np.maximum(tried.current("Dled"), 0.0)
    near = np.abs(np.log(np.maximum(at_usual, 1e-12) / amps)) < np.log(4 / 3)
    best: tuple[float, Net] | None = None
    for a, b in zip(series[near].tolist(), across[near].tolist(), strict=True):
        net = replace(n, ohm=a, across=b)
        miss = off_by(led_share(net, volts, usual), old)
        if best is None or miss < best[0]:
            best = (miss, net)
    return None if best is None else best[1]


class GaugeLamp(FittedKind):
    """Battery checks, signal and tuning lamps: bright is good, dim is not."""

    id = "gauge"
    order = 19
    label = "Lamp read by its brightness"
    looks = (
        "A lamp that goes from dim to bright with a battery, a signal or a speed, and is judged by that. A filament "
        "fades long before its volts are gone; an LED stays bright until it is dark."
    )
    never = "Trust no battery by an LED alone: its knee says good until it is empty."
    details = (LOW, USUAL, HIGH, LAMP_V, LAMP_A, LED, COUNT, LED_OHM, ACROSS)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """Light over what it tells, old and new, and the two resistors that follow best."""
        low, usual, lamp_v, lamp_a, ohm = typed.needed(LOW, USUAL, LAMP_V, LAMP_A, LED_OHM)
        high = typed.value(HIGH.id) or usual * 1.1
        if not low < usual <= high:
            raise InputError(USUAL.id, f"{show(usual, VOLT)} must lie over the lowest, {show(low, VOLT)}, and not over "
                                       f"the highest, {show(high, VOLT)}.")  # fmt: skip
        lamp = own_lamp(lamp_v, lamp_a, None, "")
        n = Net(catalogue()[typed.choice(LED.id)], typed.count(COUNT.id, _MOST), ohm, typed.value(ACROSS.id))
        volts = np.linspace(low, high, _POINTS)
        old = (volts / usual) ** LIGHT_EXPONENT
        at_good = float(led_amps(n, np.array([usual]))[0])
        if at_good < 1e-6:
            raise InputError(
                COUNT.id, f"{show(usual, VOLT)} do not light {n.count} of {n.led.vf_typ:g} V in series."
            )
        now = led_share(n, volts, usual)
        better = follower(n, volts, old, usual, at_good)
        ways = () if better is None else _ways(better, volts, old, now, usual, high)
        way = picked(ways, chosen) if chosen or off_by(now, old) > FAITHFUL_OCTAVES else None
        after = None if way is None or better is None else better
        return Worked(
            line=_line(volts, old, now, usual),
            figures=_figures(lamp, n, after, (low, usual, high)),
            pictures=(_picture(volts, old, now, None if after is None else led_share(after, volts, usual)),),
            stairs=_stairs(lamp, after or n, usual),
            tables=(_table(n, after, (low, usual, high)),),
            ways=ways,
            judged=_judged(n, volts, old, now, usual, high),
            spice=write_deck(circuit(after or n, usual)),
        )


KIND = GaugeLamp()


def _line(volts: FloatArray, old: FloatArray, now: FloatArray, usual: float) -> str:
    tells = "it tells as it did" if off_by(now, old) <= FAITHFUL_OCTAVES else "it does not tell as it did"
    return (
        f"At {show(float(volts[0]), VOLT)} the old lamp has {percent(old[0])} of its light at {show(usual, VOLT)}, the "
        f"LED {percent(now[0])}: {tells}."
    )


def _share(value: float, origin: str) -> Shown:
    return percent_shown(value, origin)


def _figures(lamp: Lamp, n: Net, after: Net | None, levels: tuple[float, float, float]) -> tuple[Figure, ...]:
    low, usual, high = levels
    ends = np.array([low])
    origin = "beside its own at what counts as good"
    old = _share(float((low / usual) ** LIGHT_EXPONENT), f"light ∝ V^3.5, {origin}")

    def most(net: Net) -> Shown:
        return shown(float(led_amps(net, np.array([high]))[0]), AMPERE, "solved at the highest")

    return (
        Figure("Old lamp at the lowest", old),
        Figure("LED at the lowest", _share(float(led_share(n, ends, usual)[0]), f"solved, {origin}"),
               None if after is None else _share(float(led_share(after, ends, usual)[0]), f"solved, {origin}")),
        Figure("Old lamp's current at what counts as good", shown(lamp.amps_at(usual), AMPERE, "I ∝ V^0.55")),
        Figure("In the LED at the highest", most(n), None if after is None else most(after)),
    )  # fmt: skip


def _ways(
    better: Net, volts: FloatArray, old: FloatArray, now: FloatArray, usual: float, high: float
) -> tuple[Way, ...]:
    share = led_share(better, volts, usual)
    was, is_ = off_by(now, old), off_by(share, old)
    if better.across is None or is_ >= was:
        return ()
    amps = led_amps(better, np.array([high]))[0]
    drop = high - float(operating_point(circuit(better, high)).require().voltage("led")[0])
    watts = drop**2 / better.ohm
    rating = rating_to_fit(watts, drop)
    body = "" if rating is None else f", {rating_text(rating)}"
    bars = (
        "" if amps <= better.led.rated_a else f"{show(float(amps), AMPERE)} at the highest: over its rating"
    )
    what = (
        f"Off by {number_text(is_)} octaves where it is {number_text(was)} now; {show(watts, WATT)} in the series one "
        f"at the highest{body}; {show(drop / better.ohm, AMPERE)} from what feeds it."
    )
    return (Way(
        f"{show(better.ohm, OHM)} in series and {show(better.across, OHM)} across", what,
        _share(float(share[0]), "light at the lowest, beside that at what counts as good"), "", bars,
        not bars and was > FAITHFUL_OCTAVES, {LED_OHM.id: show(better.ohm, OHM), ACROSS.id: show(better.across, OHM)},
    ),)  # fmt: skip


def _picture(volts: FloatArray, old: FloatArray, now: FloatArray, after: FloatArray | None) -> Picture:
    curves = [curve("Old lamp", "old", volts, 100 * old), curve("LED", "new", volts, 100 * now)]
    if after is not None:
        curves.append(curve("LED with the two resistors", "after", volts, 100 * after))
    return Picture("Light over what it tells", "V", "% of its light when good", tuple(curves))


def _stairs(lamp: Lamp, n: Net, usual: float) -> tuple[BranchStair, ...]:
    """What counts as good: the old lamp has all of it, the LED what its resistor leaves."""
    point = operating_point(circuit(n, usual)).require()
    at_led, amps = float(point.voltage("led")[0]), float(point.current("Dled")[0])
    origin = "solved at what counts as good"
    return (
        stair("Old lamp", (("lamp", usual),), lamp.amps_at(usual), "I ∝ V^0.55", origin),
        stair("LED", (("resistor", usual - at_led), ("LED", at_led)), amps, "in the LED", origin),
    )  # fmt: skip


def _table(n: Net, after: Net | None, levels: tuple[float, float, float]) -> Table:
    usual = levels[1]
    rows = []
    for label, volts in zip(("Lowest", "Good", "Highest"), levels, strict=True):
        at = np.array([volts])
        nets = [n] if after is None else [n, after]
        cells = [_share(float((volts / usual) ** LIGHT_EXPONENT), "light ∝ V^3.5")]
        cells += [_share(float(led_share(x, at, usual)[0]), "solved") for x in nets]
        amps = " and ".join(show(float(led_amps(x, at)[0]), AMPERE) for x in nets)
        rows.append(Row(f"{label}, {show(volts, VOLT)}", tuple(cells), f"{amps} in the LED"))
    heads = ("Old lamp", "LED") if after is None else ("Old lamp", "LED", "Afterwards")
    return Table("Light, of what it is when good", heads, tuple(rows))


def _judged(
    n: Net, volts: FloatArray, old: FloatArray, now: FloatArray, usual: float, high: float
) -> tuple[Judged, ...]:
    out = []
    miss = off_by(now, old)
    if miss > FAITHFUL_OCTAVES:
        out.append(Judged(
            "mind", f"Its light is off the old lamp's by {number_text(miss)} octaves: who knew the lamp misreads it.",
            f"Over {FAITHFUL_OCTAVES:g} (ours). Two resistors that follow, or a meter beside it.",
        ))  # fmt: skip
    amps = float(led_amps(n, np.array([high]))[0])
    if amps > n.led.rated_a:
        out.append(Judged("stop", f"{show(amps, AMPERE)} at the highest, over the LED's {show(n.led.rated_a, AMPERE)}.",
                          "A larger resistor in series."))  # fmt: skip
    dark = volts[now < _DARK]
    if len(dark) and old[len(dark) - 1] >= _DARK:
        out.append(Judged("mind", f"Under {show(float(dark[-1]), VOLT)} the LED is dark where the old lamp still "
                                  "glowed.", "Its knee: fewer LEDs in series, or another colour."))  # fmt: skip
    return gravest_first(out)
