"""An LED at the end of a long cable, or behind a snubbed triac: what leaks to it on AC when it is off; a bleeder."""

import math
from dataclasses import dataclass, replace

import numpy as np

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Capacitor, Circuit, Diode, Element, Resistor, Sine, VoltageSource
from swapglow.core.engine.periodic import SteadyState, steady_state
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.worked import Figure, Judged, Row, Table, Way, Worked, gravest_first, picked
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.led_model import led_model
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.parts.resistor import rating_to_fit, stands_text
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.photometry.visibility import WORDS, Visibility, visibility
from swapglow.core.quantities import (
    AMPERE,
    FARAD,
    HERTZ,
    METRE,
    OHM,
    VOLT,
    WATT,
    InputError,
    Shown,
    show,
    shown,
)
from swapglow.core.values import preferred

VOLTS = Detail("volts", "AC volts of the feed", VOLT, "24V, RMS")
HERTZ_ = Detail("hertz", "Frequency", HERTZ, "50Hz or 60Hz; empty takes 50 Hz")
LENGTH = Detail("length", "Cable beside a live wire", METRE, "60m; empty for none")
PER_METRE = Detail("per_metre", "Its capacitance a metre", FARAD, "100pF; empty takes that")
SNUB = Detail("snub", "Capacitor across the switch or triac", FARAD, "100nF; empty for none")
LED = led_detail()
LED_OHM = Detail("ohm", "Its resistor", OHM, "2k2", none="link")
BRIDGE = Detail("bridge", "Its rectifier", None, "", (
    ("bridge", "A bridge"), ("half", "A diode turned round across it"),
))  # fmt: skip
BLEED = Detail("bleed", "Resistor across it", OHM, "4k7; empty for none", none="absent")

# Two wires side by side in one sheath (from memory: 50 to 150 pF a metre).
_PER_METRE_F = 100e-12
_LEAK_OHM = 1e9
_MOST_FARADS = 10e-6
_HERTZ_BOUNDS = (16.0, 1000.0)
# Volts past which the tool gives no live procedure (IEC 61140: 50 V AC).
_EXTRA_LOW_V = 50.0
# A usual meter on its volts range.
METER_OHM = 10e6


@dataclass(frozen=True)
class Line:
    """What leads to the LED.

    Attributes:
        volts, hertz: of the feed, RMS.
        farads: past the open switch.
        led, ohm: the LED and its resistor.
        bridge: a bridge, else a diode turned round across the LED.
        bleed: across both, Ω; None for none.
    """

    volts: float
    hertz: float
    farads: float
    led: Led
    ohm: float
    bridge: bool
    bleed: float | None


def circuit(n: Line, *, on: bool) -> Circuit:
    """The line with its switch closed or open.

    Args:
        n: what leads to the LED.
        on: whether it is switched on.

    Returns:
        The circuit; the LED's current is that of "Dled".
    """
    parts: list[Element] = [VoltageSource("Vfeed", "feed", "0", Sine(0.0, n.volts * math.sqrt(2), n.hertz))]
    if on:
        parts.append(Resistor("Rswitch", "feed", "line", 0.05))
    else:
        parts += [Capacitor("Cleak", "feed", "line", n.farads), Resistor("Rleak", "feed", "line", _LEAK_OHM)]
    if n.bleed is not None:
        parts.append(Resistor("Rbleed", "line", "0", n.bleed))
    signal = rectifier("signal").chain(1, REFERENCE_C)
    if n.bridge:
        parts += [
            Resistor("Rled", "line", "top", n.ohm),
            Diode("D1", "top", "plus", signal), Diode("D2", "0", "plus", signal),
            Diode("D3", "minus", "top", signal), Diode("D4", "minus", "0", signal),
            Diode("Dled", "plus", "minus", led_model(n.led)),
        ]  # fmt: skip
    else:
        parts += [
            Resistor("Rled", "line", "top", n.ohm), Diode("Dled", "top", "0", led_model(n.led)),
            Diode("Dguard", "0", "top", signal),
        ]  # fmt: skip
    return Circuit(tuple(parts), celsius=REFERENCE_C, title="an LED at the end of a line")


@dataclass(frozen=True)
class Lit:
    """The LED over a settled cycle: mean current, highest current, mean light in candela."""

    mean_a: float
    crest_a: float
    candela: float


def lit(n: Line, *, on: bool) -> Lit:
    """Solve the line over its cycle; the eye takes the mean of its light (Talbot-Plateau).

    Args:
        n: what leads to the LED.
        on: whether it is switched on.

    Returns:
        The LED's current and light.

    Raises:
        NotConverged: there is no settled cycle.
    """
    if not on and n.farads == 0:
        return Lit(0.0, 0.0, 0.0)
    cycle: SteadyState = steady_state(circuit(n, on=on))
    amps = np.maximum(cycle.current("Dled"), 0.0)
    light = cycle.average(relative_light(n.led, amps)) * n.led.candela
    return Lit(cycle.average(amps), float(amps.max()), light)


def meter_volts(n: Line) -> float:
    """What a meter of 10 MΩ reads on the open line with no lamp in: V·R/√(R² + 1/(ωC)²), RMS (phasors)."""
    if n.farads == 0:
        return 0.0
    reactance = 1 / (2 * math.pi * n.hertz * n.farads)
    return n.volts * METER_OHM / math.hypot(METER_OHM, reactance)


class CableLamp(FittedKind):
    """Bell and call lines, stair lights, panels fed by triacs: a filament swallowed what leaks."""

    id = "cable"
    order = 20
    label = "LED on a long cable or triac"
    looks = (
        "AC, and it glows when it is off: its wire runs beside a live one for many metres, or a triac or contact with "
        "a capacitor across it switches it. A filament of tens of ohms swallowed that."
    )
    never = (
        "A wire that is off and reads as live may be live. Where it may be mains nobody touches it: qualified people "
        "only, and their tester that loads the line."
    )
    details = (VOLTS, HERTZ_, LENGTH, PER_METRE, SNUB, LED, LED_OHM, BRIDGE, BLEED)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """What leaks, whether it is seen, what a meter makes of it, and the bleeder that darkens it."""
        n = _line(typed)
        off, on = lit(n, on=False), lit(n, on=True)
        seen = visibility(off.candela)
        ways = _ways(n) if n.bleed is None and seen != "dark" else ()
        way = picked(ways, chosen)
        after = None if way is None else replace(n, bleed=way.share.value)
        return Worked(
            line=f"Off, {show(off.mean_a, AMPERE)} leak through the LED: {WORDS[seen]}.",
            figures=_figures(n, after),
            tables=(_table(n, after),),
            ways=ways,
            judged=_judged(n, seen, on),
            spice=write_deck(
                circuit(after or n, on=False), (f".tran {1 / n.hertz / 200:.6g} {40 / n.hertz:.6g}",)
            ),
        )


KIND = CableLamp()


def _line(typed: Details) -> Line:
    volts, ohm = typed.needed(VOLTS, LED_OHM)
    hertz = typed.value(HERTZ_.id) or 50.0
    if not _HERTZ_BOUNDS[0] <= hertz <= _HERTZ_BOUNDS[1]:
        raise InputError(HERTZ_.id, f"{show(hertz, HERTZ)} is no feed's: 16 Hz to 1 kHz.")
    metres, snub = typed.value(LENGTH.id) or 0.0, typed.value(SNUB.id) or 0.0
    if not metres and not snub:
        raise InputError(LENGTH.id, "Type this too: the length of cable, or the capacitor across the switch.")
    farads = metres * (typed.value(PER_METRE.id) or _PER_METRE_F) + snub
    if farads > _MOST_FARADS:
        raise InputError(SNUB.id if snub else PER_METRE.id, f"{show(farads, FARAD)} leaks as no line does: "
                                                            f"{show(_MOST_FARADS, FARAD)} are the most.")  # fmt: skip
    led = catalogue()[typed.choice(LED.id)]
    if volts * math.sqrt(2) <= led.vf_typ:
        raise InputError(VOLTS.id, f"{show(volts, VOLT)} AC do not light an LED of {led.vf_typ:g} V.")
    return Line(volts, hertz, farads, led, ohm, typed.choice(BRIDGE.id) == "bridge", typed.value(BLEED.id))


def _ways(n: Line) -> tuple[Way, ...]:
    """The largest bleeder of E12 with which it is dark in a dark room."""
    values = sorted(float(v) for v in preferred.values("E12", 10.0, 1e6))
    # More ohms leave it more light: the edge is found by halving.
    low, high = 0, len(values) - 1
    if visibility(lit(replace(n, bleed=values[0]), on=False).candela) != "dark":
        return ()
    while low < high:
        middle = (low + high + 1) // 2
        dark = visibility(lit(replace(n, bleed=values[middle]), on=False).candela) == "dark"
        low, high = (middle, high) if dark else (low, middle - 1)
    ohm = values[low]
    watts = n.volts**2 / ohm
    rating = rating_to_fit(watts, n.volts * math.sqrt(2))
    body = stands_text(rating)
    return (Way(
        f"{show(ohm, OHM)} across LED and resistor", f"{show(watts, WATT)} while it is on: {body}. Dark when off.",
        shown(ohm, OHM, "the largest of E12 with which it is dark"), "", "", True, {BLEED.id: show(ohm, OHM)},
    ),)  # fmt: skip


def _figures(n: Line, after: Line | None) -> tuple[Figure, ...]:
    def mean(x: Line, *, on: bool) -> Shown:
        return shown(lit(x, on=on).mean_a, AMPERE, "mean over the settled cycle")

    leak = 2 * math.pi * n.hertz * n.farads * n.volts
    return (
        Figure("Past the open switch", shown(n.farads, FARAD, "cable and capacitor together")),
        Figure("That lets through at most, RMS", shown(leak, AMPERE, "2πfCV")),
        Figure("LED, off", mean(n, on=False), None if after is None else mean(after, on=False)),
        Figure("LED, on", mean(n, on=True), None if after is None else mean(after, on=True)),
        Figure("A meter of 10 MΩ on the open line", shown(meter_volts(n), VOLT, "phasors, lamp out")),
    )  # fmt: skip


def _table(n: Line, after: Line | None) -> Table:
    rows = []
    for label, line in (("As it is", n), ("With the bleeder", after)):
        if line is None:
            continue
        states = [lit(line, on=on) for on in (False, True)]
        words = [WORDS[visibility(s.candela)] for s in states]
        rows.append(Row(label, tuple(shown(s.mean_a, AMPERE, "mean over the settled cycle") for s in states),
                        f"off: {words[0]}; on: {words[1]}"))  # fmt: skip
    return Table("Off and on", ("Off", "On"), tuple(rows))


def _judged(n: Line, seen: Visibility, on: Lit) -> tuple[Judged, ...]:
    out = []
    if n.volts > _EXTRA_LOW_V:
        out.append(Judged("stop", f"{show(n.volts, VOLT)} AC is past extra-low voltage: nothing is to be done to it "
                                  "here.", "Qualified people only; a bleeder there is their choice."))  # fmt: skip
    if seen != "dark":
        out.append(
            Judged(
                "mind", f"Off, it is {WORDS[seen]}.", "A filament swallowed that. A bleeder across it does."
            )
        )
    if on.crest_a > n.led.rated_a:
        out.append(Judged("stop", f"{show(on.crest_a, AMPERE)} at the crest, over its {show(n.led.rated_a, AMPERE)}.",
                          "A larger resistor."))  # fmt: skip
    out.append(Judged(
        "note", f"With the lamp out a meter reads {show(meter_volts(n), VOLT)} on the open line: a ghost.",
        "Load it, with the old lamp or some kilohms, and read again: a ghost is gone, a feed is not.",
    ))  # fmt: skip
    return gravest_first(out)
