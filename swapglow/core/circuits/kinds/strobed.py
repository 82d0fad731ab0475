"""An LED on a feed that is switched many times a second: a lamp matrix, pulses that dim, a dimmer that cuts the phase.

While it is on it carries what Ohm and Shockley say of the feed; on average that times its share of the time. Light
follows the curve at the current that flows while it is on, and its mean is what an eye sees (Talbot-Plateau).
"""

from dataclasses import dataclass, replace
from functools import lru_cache

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import CircuitResult, Fault, Option
from swapglow.core.circuits.toolkit import asks, pulses
from swapglow.core.circuits.toolkit.solved import States, solve_states
from swapglow.core.circuits.toolkit.wiring import Wiring, over_time
from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Pulse, Wave
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.photometry.words import eye_text
from swapglow.core.quantities import (
    AMPERE,
    CANDELA,
    HERTZ,
    OHM,
    SECOND,
    VOLT,
    WATT,
    InputError,
    number_text,
    show,
    shown,
)
from swapglow.core.quantities.inputs import read_share
from swapglow.core.values import preferred

FEED = Detail(
    "feed",
    "What switches it",
    None,
    "",
    (("matrix", "Rows and columns in turn"), ("pwm", "Pulses that dim"), ("phase", "A dimmer that cuts the phase")),
)
VOLTS = Detail(
    "volts",
    "Volts while it is on",
    VOLT,
    "24V at its contacts; behind a phase dimmer the DC after its rectifier, undimmed",
)
DUTY = Detail("duty", "Share of the time it is on", None, "1/8 of a matrix of eight; 40 %")
OFTEN = Detail("hertz", "How often a second", HERTZ, "120Hz, 1kHz; behind a phase dimmer twice the mains")
LED_OHM = asks.led_ohm("1k; empty sizes one")
DIODE = Detail("diode", "Diode in series, one a lamp", None, "", (("no", "None"), ("yes", "One")))
MEAN = Detail("mean", "Mean current wanted", AMPERE, "2mA; empty takes that")
LEAK = Detail("leak", "Resistance past the open switch", OHM, "47k from volts and amps with it off; empty: none known")
FALL = Detail("fall", "Time it takes to switch off", SECOND, "20us; empty: not known")
LEAST = Detail("least", "Least load of the dimmer", WATT, "25W, as marked on it; behind a phase dimmer")

_USUAL_A = 2e-3
_FLOOR = 0.01
# Of another's light, less is not seen beside it (ours).
_SEEN_SHARE = 0.01


@dataclass(frozen=True)
class StrobedFeed:
    """An LED on pulses.

    Attributes:
        feed: what switches it.
        volts, duty, hertz: while it is on, its share of the time, how often a second; None where not stated.
        led, ohm, diode: the LED, its resistor, whether a diode is in series.
        typed_ohm: whether the resistor was typed; else it is sized.
        sized: the resistor for what is wanted, Ω; None where none gives it.
        mean_a: mean current wanted, A.
    """

    feed: str
    volts: float
    duty: float
    hertz: float | None
    led: Led
    ohm: float
    diode: bool
    typed_ohm: bool
    sized: float | None
    mean_a: float

    @property
    def peak_a(self) -> float:
        """While it is on, A."""
        return max(float(solve(self).amps("Dleds")[0]), 0.0)

    @property
    def candela(self) -> float:
        """Mean light, cd."""
        return pulses.mean_candela(self.led, self.peak_a, self.duty)


def _wired(c: StrobedFeed, wave: Wave | float) -> Wiring:
    w = Wiring("strobed feed")
    w.source("Vfeed", "feed", wave)
    w.resistor("R1", "feed", "string", c.ohm)
    if c.diode:
        w.diode("Dmatrix", "string", "leds", "signal")
    w.led("Dleds", "leds" if c.diode else "string", "0", c.led, duty=c.duty)
    return w


@lru_cache(maxsize=64)
def solve(c: StrobedFeed) -> States:
    """While it is on."""
    return solve_states(_wired(c, c.volts), "While it is on")


class Strobed(CircuitKind[StrobedFeed]):
    """Displays, pinball and crosspoint panels, pulse dimmers, lighting desks."""

    id = "strobed"
    order = 7
    label = "LED on pulses or a strobe"
    looks = (
        "Many lamps on few wires, rows one way and columns the other, a diode beside each; or a feed that a meter "
        "shows at half its volts and a test lamp as a dim glow. A slow meter reads the mean: read the peak with a "
        "scope, or from the supply behind the switches."
    )
    never = (
        "Take out no diode of a matrix: without it other lamps glow through this one. A phase dimmer is on the mains: "
        "unplugged, qualified people only. Local codes come first."
    )
    parts = (
        ("Vfeed", "feed, while on", "volts"),
        ("R1", "resistor", "ohm"),
        ("Dmatrix", "diode in series", "diode"),
        ("Dleds", "LED", "led"),
    )
    details = (FEED, VOLTS, DUTY, OFTEN, asks.led_detail(), LED_OHM, DIODE, MEAN, LEAK, FALL, LEAST)

    def case(self, typed: Details) -> StrobedFeed:
        """The feed as typed; a resistor that nobody typed is sized."""
        volts = typed.value(VOLTS.id)
        if volts is None:
            raise InputError(VOLTS.id, f"Type the {VOLTS.label.lower()}: {VOLTS.hint}.")
        duty = read_share(DUTY.id, typed.text(DUTY.id), 1.0)
        if not _FLOOR <= duty <= 1:
            raise InputError(DUTY.id, "Between 1 % and all of the time: 1/8, or 12.5 %.")
        wanted, led = typed.value(MEAN.id) or _USUAL_A, asks.read_led(typed)
        diode, ohm = typed.choice(DIODE.id) == "yes", typed.value(LED_OHM.id)
        drop = float(led.junction(led.vf_typ).volts(wanted / duty))
        drop += rectifier("signal").volts(wanted / duty, 1, REFERENCE_C) if diode else 0
        exact = (volts - drop) * duty / wanted
        sized = preferred.prefer(exact, "E24", "up") if exact >= 1 else None
        if ohm is None and sized is None:
            raise InputError(
                MEAN.id, f"{show(wanted / duty, AMPERE)} while it is on do not flow on {show(volts, VOLT)}."
            )
        return StrobedFeed(
            typed.choice(FEED.id),
            volts,
            duty,
            typed.value(OFTEN.id),
            led,
            ohm or sized or 0.0,
            diode,
            ohm is not None,
            sized,
            wanted,
        )

    def states(self, case: StrobedFeed) -> tuple[States, ...]:
        """While it is on."""
        return (solve(case),)

    def options(self, now: StrobedFeed, typed: Details, chosen: str) -> list[Option]:
        """The next higher value at which what is wanted flows (Ohm)."""
        if not now.typed_ohm or now.sized is None or now.peak_a <= 0:
            return []
        then = replace(now, ohm=now.sized)
        flows = f"{show(now.mean_a, AMPERE)} on average, {show(now.mean_a / now.duty, AMPERE)} while it is on"
        return pulses.fit_option(now.sized, then.peak_a / now.peak_a, flows, then.candela / max(now.candela, 1e-15))

    def report(self, job: Job[StrobedFeed]) -> CircuitResult:
        """Peak and mean, light, ghosts, flicker, and what the dimmer makes of it."""
        c = job.now
        steady = pulses.mean_candela(c.led, c.peak_a * c.duty, 1.0)
        beside = eye_text(c.candela / steady) if steady > 0 else "0"
        origin = f"{c.duty * 100:.3g} % of the time"
        light = f"mean; {beside} × that of its mean current flowing steadily"
        return CircuitResult(
            line=f"{show(c.peak_a, AMPERE)} while it is on, {show(c.peak_a * c.duty, AMPERE)} on average, behind "
            f"{show(c.ohm, OHM)}.",
            figures=(
                job.pair("peak", "While it is on", lambda x: shown(x.peak_a, AMPERE, "while it is on")),
                job.pair("mean", "On average", lambda x: shown(x.peak_a * x.duty, AMPERE, origin)),
                job.pair("light", "Light", lambda x: shown(x.candela, CANDELA, light if x is c else "mean")),
            ),
            faults=(*_ghosts(job.typed, c), *_stuck(c)),
            findings=tuple(_findings(job.typed, c)),
            spice=_deck(c),
        )


KIND = Strobed()


def _ghosts(typed: Details, c: StrobedFeed) -> list[Fault]:
    """What lights it while it should be dark."""
    out = []
    leak, fall = typed.value(LEAK.id), typed.value(FALL.id)
    if leak is not None:
        amps = replace(c, ohm=c.ohm + leak).peak_a
        seen = visibility(pulses.mean_candela(c.led, amps, 1.0))
        bleed = preferred.prefer(max(leak / 20, 10.0), "E24", "nearest")
        helps = "" if seen == "dark" else f" {show(bleed, OHM)} across LED and resistor leads it past."
        said = f"{show(amps, AMPERE)} leak through it: {WORDS[seen]}.{helps}"
        out.append(Fault("leaks", "While it should be dark", said))
    if fall is not None and c.hertz is not None:
        share = min(fall * c.hertz / c.duty, 1.0)
        cure = "; a stronger pull-down or a pause between rows ends it." if share > _SEEN_SHARE else ": not seen."
        lit = f"The next row's lamps light for {number_text(share * 100)} % of this one's light{cure}"
        out.append(Fault("slow-off", "Slow to switch off", lit))
    return out


def _stuck(c: StrobedFeed) -> tuple[Fault, ...]:
    """A feed that stays on carries its peak for good."""
    over = f", over its rated {show(c.led.rated_a, AMPERE)}" if c.peak_a > c.led.rated_a else ": within its rating"
    return (
        Fault("switch-shorted", "Its switch stays on", f"{show(c.peak_a, AMPERE)} all the time{over}."),
        Fault("switch-open", "Its switch stays off, or its diode is open", "Dark; nothing else changes."),
    )


def _findings(typed: Details, c: StrobedFeed) -> list[Finding]:
    out = [pulses.flickers(c.hertz)] if c.hertz is not None and c.duty < 1 else []
    if c.feed == "matrix" and not c.diode:
        out.append(
            Finding(
                "no-matrix-diode",
                "mind",
                "No diode in series: in a matrix every lamp needs one.",
                why="An LED is a diode, but stands only some 5 V in reverse: keep the lamp's own diode.",
            )
        )
    if c.feed == "phase":
        out.append(
            Finding(
                "other-kind",
                "note",
                "What the dimmer makes of it while it dims is another kind here: LED behind a phase dimmer.",
                why="All figures are of it undimmed, on the DC behind its rectifier and capacitor.",
            )
        )
        out += pulses.under_least_load(c.volts * c.peak_a * c.duty, typed.value(LEAST.id), c.volts)
    return out


def _deck(c: StrobedFeed) -> str:
    hertz = c.hertz or 100.0
    if c.duty >= 1:
        return solve(c).deck()
    wave = Pulse(0.0, c.volts, 0.0, 1e-7, 1e-7, c.duty / hertz, 1 / hertz)
    return _wired(c, wave).deck(over_time(hertz, 3, 500))
