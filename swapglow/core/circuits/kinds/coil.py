"""A lamp in series with a coil: whether the relay still pulls in, holds and releases, and its kickback."""

import math
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

import numpy as np

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import BranchStair, CircuitResult, Fault, Figure, Option, Row, Table
from swapglow.core.circuits.toolkit import asks, values
from swapglow.core.circuits.toolkit.solved import States, solve_states
from swapglow.core.circuits.toolkit.stairs import stair
from swapglow.core.circuits.toolkit.wiring import Wiring
from swapglow.core.constants import REFERENCE_C
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.kinds.trials import Bounds, tried
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import Led
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.photometry.light_law import candela_at
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.quantities import AMPERE, HENRY, OHM, SECOND, VOLT, InputError, Shown, show, shown

LOW = Detail("low", "The rail at its lowest", VOLT, "22V")
HIGH = Detail("high", "The rail at its highest", VOLT, "29V")
COIL = Detail("coil", "The coil", OHM, "320R, read across it, power off")
LAMP_V, LAMP_A = asks.lamp_details("12V", "80mA")
Task = Literal["pulls", "holds", "stays"]
TASKS: tuple[tuple[Task, str], ...] = (
    ("pulls", "Pull in through the lamp"),
    ("holds", "Be held by it once pulled in"),
    ("stays", "Stay released beside it"),
)
TASK = Detail("task", "What the coil must do", None, "", TASKS)
PULL = Detail("pull", "Current at which it pulls in", AMPERE, "42mA, turned up slowly; empty: not read")
HOLD = Detail("hold", "Current at which it lets go", AMPERE, "15mA, turned down slowly; empty: not read")
DID = Detail("did", "Trial: it did with", OHM, "Largest resistor beside the LED with which it did: 150R")
DID_NOT = Detail("did_not", "Trial: it did not with", OHM, "Least resistor that was not enough: 330R")
TRIED_V = Detail("tried_v", "The rail when that was tried", VOLT, "25V; empty: anywhere between its ends")
HENRIES = Detail("henries", "Its inductance", HENRY, "600mH; empty: not known")
LED_OHM = asks.led_ohm("1k")
BESIDE = Detail("beside", "Resistor beside it", OHM, "180R; empty for none", none="absent")
GUARD = Detail("guard", "Diode across the coil", None, "", (("no", "None"), ("yes", "One, its band to plus")))

# A coil's copper and springs differ: a tenth above what is read (ours).
MARGIN = 1.1
# Air sparks over any gap at more (Paschen's minimum, textbook: 327 V).
_SPARK_V = 330.0
_STATES = ("At the lowest rail", "At the highest rail")
# What is surely enough for the task, surely too little for it, or neither.
_VERDICTS = {
    "pulls": ("it pulls in", "it does not pull in", "whether it pulls in is not known"),
    "holds": ("it holds", "it lets go", "whether it holds is not known"),
    "stays": ("it stays released", "it may pull in, or not let go", ""),
}
# Where nobody read or tried it, this share of what the old lamp gave is surely too little (ours: relays let go at a
# tenth of what pulls them in, common practice).
_SURELY_SHORT = 0.1


@dataclass(frozen=True)
class CoilLoop:
    """Lamp and coil in series.

    Attributes:
        low, high: the rail's ends, V.
        coil: Ω.
        old: the old lamp.
        led, ohm: what is fitted instead; None while the old lamp is.
        beside: across it, Ω; None for nothing.
        task: what the coil must do.
        pull, hold: pull-in and drop-out currents, A; None where not read.
        did_a, did_not_a: what the coil surely had at most where it did in a trial, and at least where it did not, A;
            None where none was made.
        tried_v: the rail when that was tried, V; None where nobody noted it.
    """

    low: float
    high: float
    coil: float
    old: Lamp
    led: Led | None
    ohm: float
    beside: float | None
    task: Task
    pull: float | None
    hold: float | None
    did_a: float | None = None
    did_not_a: float | None = None
    tried_v: float | None = None

    @property
    def before(self) -> "CoilLoop":
        """The same with the old lamp in it."""
        return replace(self, led=None, beside=None)

    @property
    def read(self) -> bool:
        """Whether the current that decides was read, or is taken from the old lamp."""
        return (self.pull if self.task == "pulls" else self.hold) is not None

    @property
    def bounds(self) -> Bounds:
        """What the coil must have at the lowest rail, A: as it was read, or between what did and what did not.

        Nobody tried it: what the old lamp gave was enough.
        """
        if self.task == "stays":
            return Bounds(0.0, 0.0)
        read = self.pull if self.task == "pulls" else self.hold
        if read is not None:
            return Bounds(read * MARGIN, read * MARGIN)
        gave = coil_a(self.before)[0]
        enough = gave if self.did_a is None else self.did_a
        short = _SURELY_SHORT * gave if self.did_not_a is None else self.did_not_a
        return Bounds(min(short, enough), enough)

    @property
    def most_a(self) -> float:
        """What it must stay under at the highest rail, A: once pulled in, it lets go only under its release current."""
        if self.task != "stays" or self.pull is None:
            return math.inf
        return (self.pull if self.hold is None else self.hold) / MARGIN

    @property
    def enough(self) -> bool:
        """Whether it does what it must at both ends of the rail."""
        low, high = coil_a(self)
        return self.bounds.covers(low) and high <= self.most_a * (1 + 1e-9)

    @property
    def verdict(self) -> str:
        """What it does, in words."""
        done, not_done, unknown = _VERDICTS[self.task]
        if self.enough:
            return done
        return not_done if self.task == "stays" or self.bounds.misses(coil_a(self)[0]) else unknown

    @property
    def try_ohm(self) -> float | None:
        """The resistor beside the LED to try next, Ω; None where the current is read, or known well enough.

        None too where the LED alone gives more than is to be tried.
        """
        ends = self.bounds
        at = self if self.tried_v is None else replace(self, low=self.tried_v, high=self.tried_v)
        if self.task == "stays" or self.read or ends.settled or coil_a(replace(at, beside=None))[0] >= ends.try_next:
            return None
        return values.largest(lambda v: coil_a(replace(at, beside=v))[0] >= ends.try_next, 1.0, 100e3, "E24")


@lru_cache(maxsize=64)
def solve(p: CoilLoop, *, cold: bool = False) -> States:
    """Both ends of the rail in one batch; ``cold``: the old lamp's filament as at the first moment."""
    w = Wiring("a lamp in series with a coil")
    w.source("Vrail", "rail", np.array([p.low, p.high]))
    if p.led is None:
        w.filament("Rlamp", "rail", "mid", p.old, judged=False)
    else:
        w.resistor("Rled", "rail", "led", p.ohm)
        w.led("Dled", "led", "mid", p.led)
    if p.beside is not None:
        w.resistor("Rbeside", "rail", "mid", p.beside)
    w.resistor("Rcoil", "mid", "0", p.coil)
    return solve_states(w, *_STATES, cold=cold)


def coil_a(p: CoilLoop, *, cold: bool = False) -> tuple[float, float]:
    """Through the coil at the lowest and at the highest rail, A.

    Args:
        p: the loop.
        cold: whether the old filament is still cold.

    Returns:
        A, lowest and highest.
    """
    low, high = solve(p, cold=cold).amps("Rcoil").tolist()
    return low, high


def led_a(p: CoilLoop) -> tuple[float, float]:
    """Through the LED at the lowest and at the highest rail, A."""
    low, high = np.maximum(solve(p).amps("Dled"), 0.0).tolist()
    return low, high


def release_seconds(amps: float, hold: float, ohms: float, henries: float, clamp_v: float) -> float:
    """How long a coil with a diode across it holds on after its feed has gone.

    di/dt = −(R·i + V)/L, so that t = (L/R)·ln((I·R + V)/(Ihold·R + V)) (Kirchhoff, Faraday).

    Args:
        amps: what it carried.
        hold: at which it lets go.
        ohms, henries: the coil.
        clamp_v: the diode's voltage.

    Returns:
        s; 0 where it carried no more than it lets go at.
    """
    if amps <= hold:
        return 0.0
    return henries / ohms * math.log((amps * ohms + clamp_v) / (hold * ohms + clamp_v))


class SeriesCoil(CircuitKind[CoilLoop]):
    """Relays, solenoids, small motors, bells: a lamp in their lead that lights while they run, or that limits them."""

    id = "coil"
    order = 15
    label = "Lamp in series with a coil"
    looks = (
        "One wire of the lamp goes to a relay, a magnet or a motor and not to ground. The lamp lights with what that "
        "draws, and an LED's milliamps are not enough for it, or too many to let it go."
    )
    never = (
        "A coil that is switched off throws hundreds of volts at what opened it: no fingers across its wires, and a "
        "diode across the coil before an LED stands in its loop."
    )
    parts = (
        ("Vrail", "rail", "low"),
        ("Rlamp", "old lamp", "lamp_volts"),
        ("Rled", "resistor", "ohm"),
        ("Dled", "LED", "led"),
        ("Rbeside", "resistor beside it", "beside"),
        ("Rcoil", "coil", "coil"),
    )
    details = (
        *(LOW, HIGH, COIL, LAMP_V, LAMP_A, TASK, PULL, HOLD, HENRIES, asks.led_detail(), LED_OHM, BESIDE, GUARD),
        *(DID, DID_NOT, TRIED_V),
    )

    def case(self, typed: Details) -> CoilLoop:
        """The loop as typed."""
        low, high, coil, lamp_v, lamp_a, ohm = typed.needed(LOW, HIGH, COIL, LAMP_V, LAMP_A, LED_OHM)
        if high < low:
            raise InputError(HIGH.id, f"{show(high, VOLT)} at its highest is under {show(low, VOLT)} at its lowest.")
        task: Task = typed.choice(TASK.id)  # type: ignore[assignment]  # one of its options
        p = CoilLoop(
            low,
            high,
            coil,
            asks.rated_lamp(lamp_v, lamp_a),
            asks.read_led(typed),
            ohm,
            typed.value(BESIDE.id),
            task,
            typed.value(PULL.id),
            typed.value(HOLD.id),
        )
        p = _tried(typed, p)
        if task == "stays" and p.pull is not None and coil_a(p.before)[1] >= p.pull:
            raise InputError(
                LAMP_A.id,
                f"This lamp lets {show(coil_a(p.before)[1], AMPERE)} through at the highest rail, enough to "
                f"pull the coil in at {show(p.pull, AMPERE)}. Read the lamp or the coil again.",
            )
        if p.pull is not None and p.hold is not None and p.hold >= p.pull:
            raise InputError(
                HOLD.id,
                f"It lets go at less than it pulls in at: {show(p.hold, AMPERE)} is not under {show(p.pull, AMPERE)}.",
            )
        if task == "stays" and p.pull is None:
            raise InputError(PULL.id, "Type this too: the current at which it pulls in; the lamp's must stay under it.")
        return p

    def states(self, case: CoilLoop) -> tuple[States, ...]:
        """Both ends of the rail."""
        return (solve(case),)

    def options(self, now: CoilLoop, typed: Details, chosen: str) -> list[Option]:
        """The largest resistor beside the LED with which the coil has what it needs."""
        if now.beside is not None or now.task == "stays" or now.enough:
            return []
        ohm = values.largest(lambda v: now.bounds.covers(coil_a(replace(now, beside=v))[0]), 1.0, 100e3)
        if ohm is None:
            return []
        with_it = replace(now, beside=ohm)
        across = float(solve(with_it).across("Rbeside")[1])
        seen = visibility(_candela(with_it, led_a(with_it)[0]))
        heat = values.body_text(across**2 / ohm, across).replace(": ", " at the highest rail: ")
        return [
            Option(
                "beside",
                f"{show(ohm, OHM)} beside it",
                f"{heat}. The LED is {WORDS[seen]} at the lowest.",
                shown(ohm, OHM, "the largest of E12 with which the coil has what it needs"),
                "resistance",
                bars="the LED has too few volts beside it and stays dark" if seen == "dark" else "",
                advised=True,
                changes={BESIDE.id: show(ohm, OHM)},
            )
        ]

    def report(self, job: Job[CoilLoop]) -> CircuitResult:
        """The coil's current before and after at both ends of the rail, and the resistor that carries it."""
        now, then = job.now, job.then
        gave, has = coil_a(now.before)[0], coil_a(now)[0]

        def solved(value: float, origin: str = "the loop solved") -> Shown:
            return shown(value, AMPERE, origin)

        return CircuitResult(
            line=f"The coil has {show(has, AMPERE)} where the old lamp gave {show(gave, AMPERE)}: {now.verdict}.",
            figures=(
                Figure("coil-before", "Coil at the lowest rail, old lamp", solved(gave, "the loop solved, at rest")),
                job.pair("coil", "The same, as typed", lambda p: solved(coil_a(p)[0])),
                job.pair("led", "In the LED at the highest rail", lambda p: solved(led_a(p)[1])),
            ),
            stairs=_stairs(then),
            tables=(_table(then),),
            faults=_FAULTS,
            findings=(*_findings(now), _kick(job.typed, then)),
            spice=solve(then).deck(),
        )


KIND = SeriesCoil()

_FAULTS = (
    Fault(
        "led-open", "The LED or its resistor is open", "With a resistor beside it the coil works on, and nothing tells."
    ),
    Fault(
        "beside-open",
        "The resistor beside it is open",
        "The coil has the LED's milliamps alone: it lets go, or never pulls in.",
    ),
)


def _tried(typed: Details, p: CoilLoop) -> CoilLoop:
    """The loop with what trials of resistors beside the LED prove: one side each.

    Raises:
        InputError: they contradict each other, or what was read.
    """
    did, did_not = tried(typed, DID, DID_NOT)
    volts = typed.value(TRIED_V.id)
    if volts is not None and not p.low <= volts <= p.high:
        ends = f"{show(p.low, VOLT)} to {show(p.high, VOLT)}"
        raise InputError(TRIED_V.id, f"{show(volts, VOLT)} lies outside what the rail may be: {ends}.")
    at = p if volts is None else replace(p, low=volts, high=volts)
    # Not noted where the rail stood: it did with no more than the highest gives, and did not with no less than the
    # lowest does.
    p = replace(
        p,
        did_a=None if did is None else coil_a(replace(at, beside=did))[1],
        did_not_a=None if did_not is None else coil_a(replace(at, beside=did_not))[0],
        tried_v=volts,
    )
    field, read = (PULL, p.pull) if p.task == "pulls" else (HOLD, p.hold)
    if read is None or p.task == "stays":
        return p
    if p.did_a is not None and p.did_a * MARGIN < read:
        raise InputError(
            field.id, f"In the trial {show(p.did_a, AMPERE)} did: it cannot need {show(read, AMPERE)}. Read it again."
        )
    if p.did_not_a is not None and p.did_not_a > read * MARGIN:
        raise InputError(
            field.id,
            f"In the trial {show(p.did_not_a, AMPERE)} did not: {show(read, AMPERE)} cannot be enough. Read it again.",
        )
    return p


def _candela(p: CoilLoop, amps: float) -> float:
    return 0.0 if p.led is None else candela_at(p.led, amps)


def _stairs(p: CoilLoop) -> tuple[BranchStair, ...]:
    """The lowest rail: lamp or LED, and the coil."""
    was, now = solve(p.before), solve(p)
    old_a, amps = coil_a(p.before)[0], led_a(p)[0]
    across, drop = p.low - float(now.volts("mid")[0]), amps * p.ohm
    return (
        stair(
            "old",
            "Old lamp",
            (("lamp", p.low - float(was.volts("mid")[0])), ("coil", old_a * p.coil)),
            old_a,
            "in lamp and coil",
            "the loop solved at the lowest rail, at rest",
        ),
        stair(
            "led",
            "LED",
            (("resistor", drop), ("LED", across - drop), ("coil", coil_a(p)[0] * p.coil)),
            amps,
            "in the LED",
            "the loop solved at the lowest rail",
        ),
    )


def _table(p: CoilLoop) -> Table:
    rows = []
    for k, (id_, label, volts) in enumerate((("low", "Lowest", p.low), ("high", "Highest", p.high))):
        flows = (coil_a(p.before, cold=True)[k], coil_a(p.before)[k], coil_a(p)[k], led_a(p)[k])
        cells = tuple(shown(amps, AMPERE, "the loop solved") for amps in flows)
        seen = WORDS[visibility(_candela(p, led_a(p)[k]))]
        rows.append(Row(id_, f"{label} rail, {show(volts, VOLT)}", cells, f"LED: {seen}"))
    heads = ("Coil, lamp cold", "Coil, old lamp", "Coil, LED", "In the LED")
    return Table("coil", "What the coil has", heads, tuple(rows))


def _findings(p: CoilLoop) -> list[Finding]:
    out = []
    low, high = coil_a(p)
    if p.task == "stays" and not p.enough:
        message = f"{show(high, AMPERE)} at the highest rail may pull it in."
        if p.hold is not None and high < (p.pull or 0.0) / MARGIN:
            message = f"Once pulled in it does not let go: {show(high, AMPERE)} flow at the highest rail."
        out.append(
            Finding(
                "pulls-in",
                "stop",
                message,
                show(high, AMPERE),
                show(p.most_a, AMPERE),
                f"It stays released under {show(p.most_a, AMPERE)}, a tenth under what was read: a larger resistor.",
            )
        )
    elif not p.enough:
        verb = "pull in" if p.task == "pulls" else "hold"
        short, enough = show(p.bounds.short, AMPERE), show(p.bounds.enough, AMPERE)
        surely = p.bounds.misses(low)
        message = f"The coil has {show(low, AMPERE)} of {enough}: it does not {verb}."
        if not surely:
            message = f"The coil has {show(low, AMPERE)}. {short} is too little and {enough} is enough to {verb}."
        out.append(
            Finding(
                "too-little-coil",
                "stop" if surely else "mind",
                message,
                show(low, AMPERE),
                enough,
                "A resistor beside the LED carries the rest.",
            )
        )
    if p.try_ohm is not None:
        out.append(
            Finding(
                "try-next",
                "note",
                f"Try {show(p.try_ohm, OHM)} beside the LED: that halves what is not known.",
                why="Write down whether it did, and the rail at that time. What did is enough; what did not is too "
                "little.",
            )
        )
    if p.task == "stays" and not p.read:
        out.append(
            Finding(
                "release-unread",
                "mind",
                "The current at which it lets go is not measured: once pulled in, it may stay so.",
                why="Relays let go at a tenth to a half of what pulls them in. Turn the current down slowly and read "
                "it.",
            )
        )
    elif not p.read and p.did_a is None:
        first = coil_a(p.before, cold=True)[0]
        out.append(
            Finding(
                "pull-in-unread",
                "mind",
                "Nobody has read at what current it pulls in, or lets go: the old lamp's stands in.",
                why=f"Cold, the filament let {show(first, AMPERE)} through at first: more than a resistor ever "
                "does. Read "
                "it with a resistor that is turned.",
            )
        )
    alone = p.task == "pulls" and p.beside is None and not p.enough
    if alone and p.hold is not None and low >= p.hold:
        out.append(
            Finding(
                "holds-once-in",
                "note",
                f"Once in, {show(low, AMPERE)} hold it.",
                why="It lets go at less: a contact past the lamp that pulls it in would do too.",
            )
        )
    return out


def _kick(typed: Details, p: CoilLoop) -> Finding:
    """What the coil does when its feed goes."""
    henries, amps = typed.value(HENRIES.id), coil_a(p)[1]
    if typed.choice(GUARD.id) == "no":
        energy = "" if henries is None else f" {show(henries * amps**2 / 2, 'J', 2)} go into the spark (½LI²)."
        return Finding(
            "kickback",
            "mind",
            f"Nothing takes what the coil throws when its feed opens: up to some {show(_SPARK_V, VOLT)}.",
            why=f"Fit a diode across the coil, its band to plus, before the LED: it is in that loop.{energy}",
        )
    clamp, held = rectifier("power").volts(amps, 1, REFERENCE_C), ""
    if henries is not None and p.hold is not None:
        seconds = release_seconds(amps, p.hold, p.coil, henries, clamp)
        held = f" It lets go {show(seconds, SECOND, 2)} later than it did without."
    return Finding(
        "kickback-clamped",
        "note",
        f"The diode keeps the kick at {show(clamp, VOLT, 2)}.",
        why=f"A coil with a diode lets go late.{held}",
    )
