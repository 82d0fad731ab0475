"""An LED behind a dimmer that cuts the phase: what is left of every half-cycle, over the knob's way."""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import CircuitResult, Fault, Option, Row, Table
from swapglow.core.circuits.toolkit import asks, values
from swapglow.core.circuits.toolkit.solved import Sampled, solve_states
from swapglow.core.circuits.toolkit.wiring import Wiring, over_time
from swapglow.core.engine.netlist import Wave
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.kinds.trials import Bounds, tried
from swapglow.core.network.sources import sine
from swapglow.core.parts.lamp import LIGHT_EXPONENT
from swapglow.core.parts.led import MOST_IN_SERIES, Led
from swapglow.core.parts.resistor import rating_to_fit
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.quantities import AMPERE, HERTZ, OHM, VOLT, WATT, InputError, Shown, Source, percent, show, shown
from swapglow.core.values import preferred

FloatArray = NDArray[np.float64]

VOLTS = Detail("volts", "Volts behind it, knob right up", VOLT, "24Vac, RMS, with the lamp on it")
MAINS = Detail("hertz", "Of the supply", HERTZ, "50Hz; empty takes that")
WAY = Detail(
    "way",
    "What rectifies",
    None,
    "",
    (("bridge", "Bridge"), ("half", "One diode"), ("capacitor", "Bridge and capacitor")),
)
SERIES = Detail("series", "LEDs in series", None, "How many; empty: one")
LED_OHM = asks.led_ohm("1k; empty sizes one")
MEAN = Detail("mean", "Mean current wanted, knob right up", AMPERE, "8mA; empty takes half its rating")
LEAST = Detail("least", "Least load of the dimmer", WATT, "20W, as marked on it; empty: not known")
LOAD = Detail("load", "Load resistor beside the string", OHM, "47R; empty for none", none="absent")
STEADY = Detail("steady", "Trial: steady with", OHM, "Largest load resistor beside the string that did: 47R")
UNSTEADY = Detail("unsteady", "Trial: still flickers with", OHM, "Least load resistor that was not enough: 120R")
HOLD = Detail("hold", "Least current its switch holds on by", AMPERE, "25mA, from its data sheet; empty: not known")

# Where only too little was tried, the next larger step of E12.
_A_STEP = 1.2
# Instants of a half-cycle.
_INSTANTS = 400
# What of each half-cycle the knob leaves.
_KNOB = (1.0, 0.75, 0.5, 0.35, 0.25)


@dataclass(frozen=True)
class DimmedString:
    """A string behind a dimmer.

    Attributes:
        crest: of the supply, V.
        hertz: of the supply.
        led, in_series: its LEDs.
        ohm: its resistor, Ω; ``typed_ohm`` whether it was typed.
        bridge: whether both half-cycles light it; else one does.
        mean_a: mean current wanted, knob right up, A.
        load: a resistor across the string and what rectifies it, Ω; None for none.
        least: between which two loads the dimmer works steadily, W; None where nothing is known of it.
    """

    crest: float
    hertz: float
    led: Led
    in_series: int
    ohm: float
    typed_ohm: bool
    bridge: bool
    mean_a: float
    load: float | None = None
    least: Bounds | None = None

    @property
    def rms(self) -> float:
        """Of the supply, V."""
        return self.crest / math.sqrt(2)

    @property
    def takes_w(self) -> float:
        """What the dimmer has to feed, knob right up, W."""
        return over_the_knob(self, 1.0).watts + (0.0 if self.load is None else self.rms**2 / self.load)

    @property
    def load_for_sure(self) -> float | None:
        """The largest load resistor with which it surely works steadily, Ω; None where none is wanted."""
        alone = replace(self, load=None)
        if self.least is None or self.least.covers(alone.takes_w):
            return None
        return preferred.prefer(self.rms**2 / (self.least.enough - alone.takes_w), "E12", "down")

    @property
    def sized(self) -> float | None:
        """The next higher value at which its mean is what is wanted, knob right up, Ω; None where none gives it."""
        if over_the_knob(replace(self, ohm=1.0), 1.0).mean < self.mean_a:
            return None
        return values.smallest(lambda v: over_the_knob(replace(self, ohm=v), 1.0).mean <= self.mean_a, 1.0, 1e6)


def _wired(c: DimmedString, volts: FloatArray | Wave) -> Wiring:
    w = Wiring("behind a dimmer")
    w.source("Vdimmed", "feed", volts)
    w.diode("Drectifier", "feed", "dc", count=2 if c.bridge else 1)
    if c.load is not None:
        w.resistor("Rload", "feed", "0", c.load)
    w.resistor("R1", "dc", "string", c.ohm)
    w.led("D1", "string", "0", c.led, series=c.in_series, guarded=True)
    return w


@dataclass(frozen=True)
class Dimmed:
    """A string at one place of the knob.

    Attributes:
        mean: current over the cycle, A; ``peak`` its highest instant, ``rms`` of it all.
        light: mean light beside that of its rated current flowing steadily.
        watts: what it takes, W.
    """

    mean: float
    peak: float
    rms: float
    light: float
    watts: float


def solve(c: DimmedString, share: float) -> Sampled:
    """The last share of every half-cycle (leading edge), instant by instant: nothing in it remembers.

    Args:
        c: the string.
        share: of the half-cycle that is left, over 0 up to 1.

    Returns:
        The instants.
    """
    phase = (np.arange(_INSTANTS) + 0.5) / _INSTANTS
    volts = np.where(phase >= 1 - share, c.crest * np.sin(np.pi * phase), 0.0)
    # Of the other half-cycle a bridge makes the same, one diode nothing.
    return Sampled(solve_states(_wired(c, volts), *[""] * _INSTANTS), "On average", 1.0 if c.bridge else 0.5)


@lru_cache(maxsize=512)
def over_the_knob(c: DimmedString, share: float) -> Dimmed:
    """A string behind a dimmer that leaves the last share of every half-cycle (leading edge).

    Args:
        c: the string.
        share: of the half-cycle that is left, over 0 up to 1.

    Returns:
        What its cycle comes to.

    Raises:
        NotConverged: it has no answer.
    """
    found = solve(c, share)
    amps, volts = np.maximum(found.states.amps("D1"), 0.0), found.states.volts("feed")
    steady = float(relative_light(c.led, np.array([c.led.rated_a]))[0])
    return Dimmed(
        float(amps.mean()) * found.lit,
        float(amps.max()),
        math.sqrt(float((amps**2).mean()) * found.lit),
        float(relative_light(c.led, amps).mean()) * found.lit / steady,
        float((volts * amps).mean()) * found.lit,
    )


def filament_volts(share: float) -> float:
    """RMS volts that are left beside all of them: √(s + sin(2π(1 − s))/2π) (textbook).

    Args:
        share: of each half-cycle that is left.

    Returns:
        The ratio.
    """
    cut = math.pi * (1 - share)
    return math.sqrt(max(share + math.sin(2 * cut) / (2 * math.pi), 0.0))


class PhaseDimmer(CircuitKind[DimmedString]):
    """Stage and wall dimmers, triac speed knobs, chopped lighting circuits."""

    id = "phase_dimmer"
    order = 9
    label = "LED behind a phase dimmer"
    looks = (
        "A knob or a desk on alternating current, a triac or thyristors on a sink, a choke beside them. With a "
        "filament it hums as it dims. An RMS meter follows the knob, an averaging one does not."
    )
    never = (
        "A phase dimmer is on the mains: unplugged, qualified people only. Put no bare capacitor behind it: every "
        "half-cycle then begins with a blow. Local codes come first."
    )
    parts = (
        ("Vdimmed", "dimmed feed", "volts"),
        ("Drectifier", "rectifier", "way"),
        ("Rload", "load resistor", "load"),
        ("R1", "resistor", "ohm"),
        ("D1", "LEDs", "led"),
    )
    details = (VOLTS, MAINS, WAY, asks.led_detail(), SERIES, LED_OHM, MEAN, LEAST, HOLD, LOAD, STEADY, UNSTEADY)

    def case(self, typed: Details) -> DimmedString:
        """The string as typed; a resistor that nobody typed is sized."""
        if typed.choice(WAY.id) == "capacitor":
            raise InputError(
                WAY.id,
                "A capacitor behind a dimmer that cuts the phase is charged at a blow in every half-cycle: the "
                "switch, the diodes and the capacitor suffer, and no steady figure stands for it. Take a bridge alone.",
            )
        volts = typed.value(VOLTS.id)
        if volts is None:
            raise InputError(VOLTS.id, f"Type the {VOLTS.label.lower()}: {VOLTS.hint}.")
        led, ohm = asks.read_led(typed), typed.value(LED_OHM.id)
        wanted = typed.value(MEAN.id) or led.rated_a / 2
        c = DimmedString(
            volts * math.sqrt(2),
            typed.value(MAINS.id) or asks.USUAL_HZ,
            led,
            typed.count(SERIES.id, MOST_IN_SERIES),
            ohm or 1.0,
            ohm is not None,
            typed.choice(WAY.id) != "half",
            wanted,
            typed.value(LOAD.id),
        )
        if not ohm:
            if c.sized is None:
                raise InputError(MEAN.id, f"{show(wanted, AMPERE)} on average do not flow on {show(volts, VOLT)} RMS.")
            c = replace(c, ohm=c.sized)
        return replace(c, least=_least(typed, c))

    def states(self, case: DimmedString) -> tuple[Sampled, ...]:
        """The knob right up."""
        return (solve(case, 1.0),)

    def options(self, now: DimmedString, typed: Details, chosen: str) -> list[Option]:
        """The resistor for the mean current that is wanted, and the load with which the dimmer is steady."""
        return [*_fit(now), *_load(now)]

    def report(self, job: Job[DimmedString]) -> CircuitResult:
        """Mean and crest over the knob's way, beside a filament's; what the dimmer makes of so little."""
        c, full = job.now, over_the_knob(job.now, 1.0)
        up = "knob right up"
        return CircuitResult(
            line=f"{show(full.mean, AMPERE)} on average with the knob right up, {show(full.peak, AMPERE)} at the "
            f"crest, behind {show(c.ohm, OHM)}.",
            figures=(
                job.pair("mean", "On average", lambda x: shown(over_the_knob(x, 1.0).mean, AMPERE, up)),
                job.pair("crest", "At the crest", lambda x: shown(over_the_knob(x, 1.0).peak, AMPERE, up)),
                job.pair("heat", "Heat in its resistor", _heat),
                job.pair(
                    "load", "Load on the dimmer", lambda x: shown(x.takes_w, WATT, "volts times amps over the cycle")
                ),
            ),
            tables=(_table(c),),
            faults=(
                Fault("led-open", "An LED is open", "All of the string is dark, and the dimmer has no load left."),
                Fault(
                    "switch-shorted",
                    "The dimmer's switch is a short",
                    "It no longer dims: all of the cycle, all of the time.",
                ),
            ),
            findings=(*_least_load(c), *_findings(job.typed, c, full)),
            spice=_wired(c, sine(c.crest, c.hertz, folded=c.bridge)).deck(over_time(c.hertz, 3, 500)),
        )


KIND = PhaseDimmer()


def _least(typed: Details, c: DimmedString) -> Bounds | None:
    """Between which two loads the dimmer works steadily: what is marked is enough, and what was tried proves one side.

    Without a trial, what the string takes alone counts as too little.
    """
    steady, unsteady = tried(typed, STEADY, UNSTEADY)
    alone = replace(c, load=None).takes_w
    short = alone if unsteady is None else alone + c.rms**2 / unsteady
    known = (typed.value(LEAST.id), None if steady is None else alone + c.rms**2 / steady)
    # A mark that was seen to be too little is none.
    enough = [w for w in known if w is not None and (unsteady is None or w > short)]
    if not enough:
        return None if unsteady is None else Bounds(short, _A_STEP * short)
    return Bounds(min(short, min(enough)), min(enough))


def _fit(now: DimmedString) -> list[Option]:
    """The string's own resistor, where another is fitted."""
    mean, sized = over_the_knob(now, 1.0).mean, now.sized
    if not now.typed_ohm or sized is None or mean <= 0:
        return []
    then = over_the_knob(replace(now, ohm=sized), 1.0).mean
    share = then / mean
    return [
        Option(
            "fit",
            f"Fit {show(sized, OHM)}",
            f"{show(then, AMPERE)} on average where {show(now.mean_a, AMPERE)} are wanted",
            Shown(share, f"{share * 100:.0f}", "%", Source.COMPUTED, "of the current"),
            "current_ratio",
            "Knob right up.",
            advised=True,
            changes={LED_OHM.id: show(sized, OHM)},
        )
    ]


def _load(now: DimmedString) -> list[Option]:
    """A load resistor beside the string, where the dimmer surely wants one."""
    ohm = now.load_for_sure
    if ohm is None or ohm == now.load:
        return []
    value = show(ohm, OHM)
    return [
        Option(
            "load",
            f"{value} beside the string",
            f"{values.body_text(now.rms**2 / ohm, now.rms)}. The dimmer is steady with it. A dimmer made for LEDs is "
            "the cool way",
            shown(ohm, OHM, "the largest of E12 with which it has its least load"),
            "resistance",
            "Bare metal, never plastic: it burns skin.",
            changes={LOAD.id: value},
        )
    ]


def _heat(c: DimmedString) -> Shown:
    rms = over_the_knob(c, 1.0).rms
    fit = rating_to_fit(rms**2 * c.ohm, rms * c.ohm)
    return shown(rms**2 * c.ohm, WATT, "I²R over the cycle" + (f"; fit {fit:g} W or more" if fit is not None else ""))


def _light(c: DimmedString, share: float) -> float:
    """Its light beside that with the knob right up."""
    return over_the_knob(c, share).light / max(over_the_knob(c, 1.0).light, 1e-15)


def _table(c: DimmedString) -> Table:
    """Knob by knob: mean, crest, and light beside a filament's, each beside its own with the knob right up."""
    rows = []
    for share in _KNOB:
        at, old = over_the_knob(c, share), filament_volts(share)
        rows.append(
            Row(
                f"{share:g}",
                f"{percent(share)} of each half-cycle",
                (
                    shown(at.mean, AMPERE, "over the cycle"),
                    shown(at.peak, AMPERE, "at its highest instant"),
                    _share(_light(c, share), "of its light, knob right up"),
                    _share(old**LIGHT_EXPONENT, f"of a filament's, ∝ V^{LIGHT_EXPONENT:g} at {old:.0%} of its volts"),
                ),
            )
        )
    heads = ("On average", "At the crest", "LED's light", "A filament's")
    return Table("knob", "As the knob goes down", heads, tuple(rows))


def _share(value: float, origin: str) -> Shown:
    return Shown(value, f"{value * 100:.2g}" if value < 0.995 else "100", "%", Source.COMPUTED, origin)


def _least_load(c: DimmedString) -> tuple[Finding, ...]:
    """What the dimmer makes of the load it has, and the load to try next."""
    takes, ends = c.takes_w, c.least
    if ends is None or ends.covers(takes):
        return ()
    wants = show(ends.enough, WATT, 2)
    short = ends.misses(takes) and ends.short > replace(c, load=None).takes_w
    said = f"It takes {show(takes, WATT, 2)} where {wants} is enough for the dimmer: "
    why = f"One filament lamp of {wants} left on it does too. A dimmer made for LEDs is the cool way."
    more = ends.try_next - replace(c, load=None).takes_w
    if more > 0 and not ends.settled:
        why = f"Try {show(c.rms**2 / more, OHM, 2)} beside the string: that halves what is not known. {why}"
    return (
        Finding(
            "least-load",
            "stop" if short else "mind",
            said + ("so little was tried and it flickered." if short else "it may flicker, not dim, or drop out."),
            show(takes, WATT, 2),
            wants,
            why,
        ),
    )


def _findings(typed: Details, c: DimmedString, full: Dimmed) -> tuple[Finding, ...]:
    volts, hold = c.crest / math.sqrt(2), typed.value(HOLD.id)
    out = []
    if hold is not None and full.peak < hold:
        out.append(
            Finding(
                "holding-current",
                "mind",
                f"Its switch lets go under {show(hold, AMPERE)}; the string's crest is {show(full.peak, AMPERE)}.",
                show(full.peak, AMPERE),
                show(hold, AMPERE),
                f"{show(volts / hold, OHM, 2)} beside it holds the switch on at the crest at least (Ohm).",
            )
        )
    old = filament_volts(0.25) ** LIGHT_EXPONENT
    out.append(
        Finding(
            "knob-law",
            "note",
            f"At a quarter of its way {percent(_light(c, 0.25))} of its light is left; of a filament's {percent(old)}.",
            why="An LED goes with the current, not with a power of the volts: the knob's way is another. It goes out "
            "at "
            "once where the volts left stay under its own.",
        )
    )
    return tuple(out)
