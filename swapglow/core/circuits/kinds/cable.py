"""An LED at the end of a long cable, or behind a snubbed triac: what leaks to it on AC when it is off; a bleeder."""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import CircuitResult, Figure, Option, Row, Table
from swapglow.core.circuits.toolkit import asks, values
from swapglow.core.circuits.toolkit.solved import Cycle, solve_cycle
from swapglow.core.circuits.toolkit.wiring import OFF_OHM, Wiring, over_time
from swapglow.core.engine.netlist import Sine
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.photometry.visibility import WORDS, Visibility, visibility
from swapglow.core.quantities import AMPERE, FARAD, METRE, OHM, VOLT, InputError, show, shown

VOLTS = Detail("volts", "AC volts of the feed", VOLT, "24V, RMS")
LENGTH = Detail("length", "Cable beside a live wire", METRE, "60m; empty for none")
PER_METRE = Detail("per_metre", "Its capacitance a metre", FARAD, "100pF; empty takes that")
SNUB = Detail("snub", "Capacitor across the switch or triac", FARAD, "100nF; empty for none")
LED_OHM = asks.led_ohm("2k2")
BRIDGE = Detail(
    "bridge", "Its rectifier", None, "", (("bridge", "A bridge"), ("half", "A diode turned round across it"))
)
BLEED = Detail("bleed", "Resistor across it", OHM, "4k7; empty for none", none="absent")

# Two wires side by side in one sheath (from memory: 50 to 150 pF a metre).
_PER_METRE_F = 100e-12
_MOST_FARADS = 10e-6
# Volts past which the tool gives no live procedure (IEC 61140: 50 V AC).
_EXTRA_LOW_V = 50.0
# A usual meter on its volts range.
METER_OHM = 10e6


@dataclass(frozen=True)
class CableRun:
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


def wired(n: CableRun, *, on: bool) -> Wiring:
    """The line with its switch closed or open; the LED's current is that of "Dled".

    Args:
        n: what leads to the LED.
        on: whether it is switched on.

    Returns:
        The wiring.
    """
    w = Wiring("an LED at the end of a line")
    w.source("Vfeed", "feed", Sine(0.0, n.volts * math.sqrt(2), n.hertz))
    if on:
        w.switch("Rswitch", "feed", "line", True)
    else:
        w.capacitor("Cleak", "feed", "line", n.farads)
        w.resistor("Rleak", "feed", "line", OFF_OHM)
    if n.bleed is not None:
        w.resistor("Rbleed", "line", "0", n.bleed)
    w.resistor("Rled", "line", "top", n.ohm)
    if n.bridge:
        w.bridge("top", "0", "plus", "minus", "signal")
        w.led("Dled", "plus", "minus", n.led)
    else:
        w.led("Dled", "top", "0", n.led)
        w.diode("Dguard", "0", "top", "signal")
    return w


@lru_cache(maxsize=64)
def solve(n: CableRun, *, on: bool) -> Cycle:
    """Its settled cycle."""
    return solve_cycle(wired(n, on=on), "Switched on" if on else "Switched off")


def mean_a(n: CableRun, *, on: bool) -> float:
    """The LED's mean current, A.

    Args:
        n: what leads to the LED.
        on: whether it is switched on.

    Returns:
        A.
    """
    return 0.0 if not on and n.farads == 0 else solve(n, on=on).mean("Dled")


def seen(n: CableRun, *, on: bool) -> Visibility:
    """Where its light is seen: the eye takes the mean of the cycle (Talbot-Plateau).

    Args:
        n: what leads to the LED.
        on: whether it is switched on.

    Returns:
        "dark", "dark_room" or "lit_room".
    """
    if not on and n.farads == 0:
        return "dark"
    cycle = solve(n, on=on)
    amps = np.maximum(cycle.amps("Dled"), 0.0)
    return visibility(cycle.steady.average(relative_light(n.led, amps)) * n.led.candela)


def meter_volts(n: CableRun) -> float:
    """What a meter of 10 MΩ reads on the open line with no lamp in: V·R/√(R² + 1/(ωC)²), RMS (phasors)."""
    if n.farads == 0:
        return 0.0
    reactance = 1 / (2 * math.pi * n.hertz * n.farads)
    return n.volts * METER_OHM / math.hypot(METER_OHM, reactance)


class CableLamp(CircuitKind[CableRun]):
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
    parts = (
        ("Vfeed", "feed", "volts"),
        ("Rswitch", "switch", ""),
        ("Cleak", "across the switch", "snub"),
        ("Rbleed", "bleeder", "bleed"),
        ("Rled", "resistor", "ohm"),
        ("Dled", "LED", "led"),
        ("D", "", "bridge"),
    )
    details = (VOLTS, asks.FREQUENCY, LENGTH, PER_METRE, SNUB, asks.led_detail(), LED_OHM, BRIDGE, BLEED)

    def case(self, typed: Details) -> CableRun:
        """The line as typed."""
        volts, ohm = typed.needed(VOLTS, LED_OHM)
        hertz = asks.read_hertz(typed, "feed")
        metres, snub = typed.value(LENGTH.id) or 0.0, typed.value(SNUB.id) or 0.0
        if not metres and not snub:
            raise InputError(LENGTH.id, "Type this too: the length of cable, or the capacitor across the switch.")
        farads = metres * (typed.value(PER_METRE.id) or _PER_METRE_F) + snub
        if farads > _MOST_FARADS:
            raise InputError(
                SNUB.id if snub else PER_METRE.id,
                f"{show(farads, FARAD)} leaks as no line does: {show(_MOST_FARADS, FARAD)} are the most.",
            )
        led = asks.read_led(typed)
        if volts * math.sqrt(2) <= led.vf_typ:
            raise InputError(VOLTS.id, f"{show(volts, VOLT)} AC do not light an LED of {led.vf_typ:g} V.")
        return CableRun(volts, hertz, farads, led, ohm, typed.choice(BRIDGE.id) == "bridge", typed.value(BLEED.id))

    def states(self, case: CableRun) -> tuple[Cycle, ...]:
        """Switched on and off."""
        return (solve(case, on=True), *((solve(case, on=False),) if case.farads else ()))

    def options(self, now: CableRun, typed: Details, chosen: str) -> list[Option]:
        """The largest bleeder of E12 with which it is dark in a dark room."""
        if now.bleed is not None or seen(now, on=False) == "dark":
            return []
        ohm = values.largest(lambda v: seen(replace(now, bleed=v), on=False) == "dark", 10.0, 1e6)
        if ohm is None:
            return []
        heat = values.body_text(now.volts**2 / ohm, now.volts * math.sqrt(2)).replace(": ", " while it is on: ")
        return [
            Option(
                "bleed",
                f"{show(ohm, OHM)} across LED and resistor",
                f"{heat}. Dark when off.",
                shown(ohm, OHM, "the largest of E12 with which it is dark"),
                "resistance",
                advised=True,
                changes={BLEED.id: show(ohm, OHM)},
            )
        ]

    def report(self, job: Job[CableRun]) -> CircuitResult:
        """What leaks, whether it is seen, what a meter makes of it, and the bleeder that darkens it."""
        n = job.now
        leak = 2 * math.pi * n.hertz * n.farads * n.volts
        origin = "mean over the settled cycle"
        return CircuitResult(
            line=f"Off, {show(mean_a(n, on=False), AMPERE)} leak through the LED: {WORDS[seen(n, on=False)]}.",
            figures=(
                Figure("farads", "Past the open switch", shown(n.farads, FARAD, "cable and capacitor together")),
                Figure("leak", "That lets through at most, RMS", shown(leak, AMPERE, "2πfCV")),
                job.pair("off", "LED, off", lambda x: shown(mean_a(x, on=False), AMPERE, origin)),
                job.pair("on", "LED, on", lambda x: shown(mean_a(x, on=True), AMPERE, origin)),
                Figure("meter", "A meter of 10 MΩ on the open line", shown(meter_volts(n), VOLT, "phasors, lamp out")),
            ),
            tables=(_table(job),),
            findings=_findings(n),
            spice=wired(job.then, on=False).deck(over_time(n.hertz)),
        )


KIND = CableLamp()


def _table(job: Job[CableRun]) -> Table:
    rows = []
    for (id_, label), n in zip((("now", "As it is"), ("after", "With the bleeder")), job.cases, strict=False):
        cells = tuple(shown(mean_a(n, on=on), AMPERE, "mean over the settled cycle") for on in (False, True))
        rows.append(Row(id_, label, cells, f"off: {WORDS[seen(n, on=False)]}; on: {WORDS[seen(n, on=True)]}"))
    return Table("off-on", "Off and on", ("Off", "On"), tuple(rows))


def _findings(n: CableRun) -> tuple[Finding, ...]:
    out = []
    if n.volts > _EXTRA_LOW_V:
        out.append(
            Finding(
                "past-extra-low",
                "stop",
                f"{show(n.volts, VOLT)} AC is past extra-low voltage: nothing is to be done to it here.",
                show(n.volts, VOLT),
                show(_EXTRA_LOW_V, VOLT),
                "Qualified people only; a bleeder there is their choice.",
            )
        )
    if seen(n, on=False) != "dark":
        out.append(
            Finding(
                "glows-off",
                "mind",
                f"Off, it is {WORDS[seen(n, on=False)]}.",
                why="A filament swallowed that. A bleeder across it does.",
            )
        )
    out.append(
        Finding(
            "ghost-volts",
            "note",
            f"With the lamp out a meter reads {show(meter_volts(n), VOLT)} on the open line: a ghost.",
            why="Load it, with the old lamp or some kilohms, and read again: a ghost is gone, a feed is not.",
        )
    )
    return tuple(out)
