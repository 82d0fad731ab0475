"""A board whose current is set by a capacitor in its feed, for understanding: solved over its cycle.

Textbook: I = 2π·f·C·V, less what the LEDs' volts take of the crest. The capacitor, a bridge and the string are solved
to their settled cycle; the rule is beside it with its error.
"""

import math
from dataclasses import dataclass
from functools import lru_cache

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import CircuitResult, Fault, Figure
from swapglow.core.circuits.toolkit import asks
from swapglow.core.circuits.toolkit.solved import Cycle, solve_cycle
from swapglow.core.circuits.toolkit.wiring import OFF_OHM, Wiring, over_time
from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Diode, DiodeModel, Sine
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import catalogue
from swapglow.core.quantities import AMPERE, FARAD, HERTZ, OHM, SECOND, VOLT, WATT, InputError, show, shown

VOLTS = Detail("volts", "Volts of the feed", VOLT, "230V or 120V, RMS")
DROP = Detail("drop", "Capacitor in the feed", FARAD, "As marked: 470nF; 474 is 470 nF")
STRING = Detail("string", "Volts of the LED string", VOLT, "LEDs times their volts: 24 × 3V is 72V")
BLEED = Detail("bleed", "Resistor across it", OHM, "470k; it empties the capacitor. Empty: none seen", none="absent")
FUSE = Detail(
    "fuse", "Resistor before it", OHM, "100R; it takes the rush and acts as a fuse. Empty: none seen", none="absent"
)
SMOOTH = Detail("smooth", "Capacitor across the string", FARAD, "10uF; empty where there is none")

# Under this a touch is no danger (IEC 62368-1, from memory: 60 V).
_SAFE_V = 60.0
_INSULATION_OHM = 1e8
# What such boards have and hang on (from memory).
_FARADS, _HERTZ, _SMOOTH = (22e-9, 22e-6), (16.0, 500.0), (0.1e-6, 10e-3)
# Metallised film heals itself and loses some of its area each time (common practice).
_AGED = 0.1
_WHITE = catalogue()["white-3-diffused"]


@dataclass(frozen=True)
class DropperCase:
    """A board.

    Attributes:
        volts, hertz: of the feed, RMS.
        farads: the dropper.
        string: the LEDs' volts.
        bleed, fuse, smooth: resistor across it, resistor before it, capacitor across the string; None for none.
    """

    volts: float
    hertz: float
    farads: float
    string: float
    bleed: float | None
    fuse: float | None
    smooth: float | None

    @property
    def crest(self) -> float:
        """Of the feed, V."""
        return self.volts * math.sqrt(2)

    @property
    def rule_a(self) -> float:
        """By the rule of 2πfCV, A."""
        return 2 * math.pi * self.hertz * self.farads * self.volts


@lru_cache(maxsize=16)
def solve(c: DropperCase) -> Cycle:
    """Its settled cycle. The string has its volts at the current that flows: found in turn with it."""
    mean = c.rule_a
    for _ in range(3):
        found = solve_cycle(_wired(c, mean), "On average")
        mean = found.mean("Dleds")
    return found


def _wired(c: DropperCase, amps: float) -> Wiring:
    """Feed, resistor, capacitor, bridge, string; the string as one junction of so many LEDs."""
    w = Wiring("dropper capacitor")
    w.source("Vmains", "line", Sine(0.0, c.crest, c.hertz), "neutral")
    w.resistor("Rfuse", "line", "before", c.fuse or 0.1)
    w.capacitor("Cdrop", "before", "after", c.farads)
    w.resistor("Rbleed", "before", "after", c.bleed or OFF_OHM)
    w.bridge("after", "neutral", "dc", "0")
    w.resistor("Rinsulation", "neutral", "0", _INSULATION_OHM)
    count = c.string / _WHITE.vf_typ
    junction = _WHITE.junction(2 * _WHITE.vf_typ - float(_WHITE.junction(_WHITE.vf_typ).volts(amps)))
    model = DiodeModel(float(junction.i_s), junction.n * count, junction.r_s * count, nominal_c=REFERENCE_C)
    w.add(Diode("Dleds", "dc", "0", model))
    w.lights.append("Dleds")
    if c.smooth is not None:
        w.capacitor("Csmooth", "dc", "0", c.smooth)
    return w


class Dropper(CircuitKind[DropperCase]):
    """A film capacitor in the feed, a bridge, a string of LEDs."""

    id = "dropper"
    order = 2
    label = "Dropper capacitor in the feed"
    looks = (
        "A box-shaped film capacitor in one mains wire, often with a resistor of some hundred kiloohms across it, "
        "four diodes or a bridge, perhaps an electrolytic, and no chip."
    )
    never = (
        "Shown for understanding only. Its whole circuit is live on the mains and its capacitor stays charged: "
        "unplugged, discharged, by qualified people only. There is nothing here for anyone else to change."
    )
    parts = (
        ("Vmains", "feed", "volts"),
        ("Rfuse", "resistor before it", "fuse"),
        ("Cdrop", "capacitor in the feed", "drop"),
        ("Rbleed", "bleeder", "bleed"),
        ("Dleds", "LED string", "string"),
        ("Csmooth", "smoothing capacitor", "smooth"),
    )
    details = (VOLTS, asks.FREQUENCY, DROP, STRING, BLEED, FUSE, SMOOTH)

    def case(self, typed: Details) -> DropperCase:
        """The board as typed."""
        volts, farads, string = typed.value(VOLTS.id), typed.value(DROP.id), typed.value(STRING.id)
        if volts is None or farads is None or string is None:
            missing = VOLTS if volts is None else DROP if farads is None else STRING
            raise InputError(missing.id, f"Type this too: {missing.hint}.")
        hertz, smooth = typed.value(asks.FREQUENCY.id) or asks.USUAL_HZ, typed.value(SMOOTH.id)
        for detail, value, unit, (least, most) in (
            (DROP, farads, FARAD, _FARADS),
            (asks.FREQUENCY, hertz, HERTZ, _HERTZ),
            (SMOOTH, smooth, FARAD, _SMOOTH),
        ):
            if value is not None and not least <= value <= most:
                bounds = f"{show(least, unit)} to {show(most, unit)}"
                raise InputError(detail.id, f"{show(value, unit)} is out of range for a dropper: {bounds}.")
        case = DropperCase(volts, hertz, farads, string, typed.value(BLEED.id), typed.value(FUSE.id), smooth)
        if string >= case.crest:
            raise InputError(
                STRING.id, f"{show(string, VOLT)} of LEDs do not light on a crest of {show(case.crest, VOLT)}."
            )
        return case

    def states(self, case: DropperCase) -> tuple[Cycle, ...]:
        """Its settled cycle: the bridge is judged, the LEDs' own rating is not known."""
        return (solve(case),)

    def report(self, job: Job[DropperCase]) -> CircuitResult:
        """What flows, what the rule says, what stays charged."""
        c, cycle = job.now, solve(job.now)
        mean, top = cycle.mean("Dleds"), float(cycle.amps("Dleds").max())
        origin = f"2π × {c.hertz:g} Hz × {show(c.farads, FARAD)} × {show(c.volts, VOLT)}"
        figures = [
            Figure("current", "Through the LEDs", shown(mean, AMPERE, "mean over the settled cycle")),
            Figure("crest", "At the crest", shown(top, AMPERE, "the highest instant of the settled cycle")),
            Figure("rule", "By the rule", shown(c.rule_a, AMPERE, origin)),
        ]
        if c.fuse is not None:
            watts = cycle.rms("Rfuse") ** 2 * c.fuse
            figures.append(
                Figure("fuse-heat", "Heat in the resistor before it", shown(watts, WATT, "I²R, RMS", digits=2))
            )
        return CircuitResult(
            line=f"About {show(mean, AMPERE, 2)} flow; the rule of 2πfCV says {show(c.rule_a, AMPERE, 2)}, "
            f"{(c.rule_a / mean - 1) * 100:+.0f} %.",
            figures=tuple(figures),
            faults=_faults(c),
            findings=_findings(c),
            spice=cycle.wiring.deck(over_time(c.hertz)),
        )


KIND = Dropper()


def _faults(c: DropperCase) -> tuple[Fault, ...]:
    """What a fault does to the others, for understanding (charge; the crest where nothing flows)."""
    count = max(round(c.string / _WHITE.vf_typ), 1)
    out = [
        Fault(
            "dropper-shorted",
            "The dropper is a short",
            "All of the mains stands over LEDs and resistor: one of them ends it.",
        )
    ]
    if count > 1:
        # The string's volts hardly count: I = 4·f·C·(√2·V − Vstring).
        share = (c.crest - c.string * (count - 1) / count) / (c.crest - c.string)
        out.append(
            Fault(
                "led-shorted",
                "An LED is a short",
                f"{share * 100:.0f} % of the current in the others: hardly a change.",
            )
        )
    opened = "All of it is dark; the dropper stays charged."
    if c.smooth is not None:
        opened = (
            f"Dark, and the smoothing capacitor climbs to {show(c.crest, VOLT)}: one that was made for the string's "
            "volts bursts."
        )
    out.append(Fault("led-open", "An LED is open", opened))
    shrunk = f"{(1 - _AGED) * 100:.0f} % of the current: such capacitors shrink with every surge, the light too."
    out.append(Fault("dropper-aged", "The dropper has lost a tenth of itself", shrunk))
    return tuple(out)


def _findings(c: DropperCase) -> tuple[Finding, ...]:
    leave = Finding(
        "leave",
        "stop",
        "Nothing is to be done to it here.",
        why="Live on the mains throughout: qualified people, unplugged, discharged.",
    )
    if c.bleed is None:
        message = f"No resistor empties its capacitor: it may hold {show(c.crest, VOLT)} after unplugging."
        return leave, Finding("stays-charged", "stop", message, why="It may stay charged for days.")
    seconds = c.bleed * c.farads * math.log(c.crest / _SAFE_V) if c.crest > _SAFE_V else 0.0
    told = show(seconds, SECOND, 2)
    return leave, Finding(
        "discharges",
        "mind",
        f"After unplugging its capacitor takes {told} to fall under 60 V.",
        told,
        why="By R·C; a bleeder may be open. Wait, then have it measured.",
    )
