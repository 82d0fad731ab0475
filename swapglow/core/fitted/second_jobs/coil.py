"""A lamp in series with a coil: whether the relay still pulls in, holds and lets go, and what the coil kicks."""

import math
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Circuit, Dc, Diode, Element, Param, Resistor, VoltageSource
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.ratings import led_current
from swapglow.core.fitted.second_jobs.stairs import stair
from swapglow.core.fitted.worked import (
    BranchStair,
    Fault,
    Figure,
    Judged,
    Row,
    Table,
    Way,
    Worked,
    gravest_first,
    picked,
)
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.network.filaments import COLD_SHARE, Ohms, filament, settled
from swapglow.core.parts.lamp import Lamp, own_lamp
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.led_model import led_model
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.parts.resistor import rating_to_fit, stands_text
from swapglow.core.photometry.light_law import candela_at
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.quantities import AMPERE, HENRY, OHM, SECOND, VOLT, WATT, InputError, show, shown
from swapglow.core.values import preferred

LOW = Detail("low", "The rail at its lowest", VOLT, "22V")
HIGH = Detail("high", "The rail at its highest", VOLT, "29V")
COIL = Detail("coil", "The coil", OHM, "320R, read across it, power off")
LAMP_V = Detail("lamp_volts", "The old lamp's volts", VOLT, "12V, as marked")
LAMP_A = Detail("lamp_amps", "The old lamp's amps", AMPERE, "80mA", at="lamp_volts")
Task = Literal["pulls", "holds", "stays"]
TASKS: tuple[tuple[Task, str], ...] = (
    ("pulls", "Pull in through the lamp"),
    ("holds", "Be held by it once pulled in"),
    ("stays", "Stay released beside it"),
)
TASK = Detail("task", "What the coil must do", None, "", TASKS)
PULL = Detail("pull", "Current at which it pulls in", AMPERE, "42mA, turned up slowly; empty: not read")
HOLD = Detail("hold", "Current at which it lets go", AMPERE, "15mA, turned down slowly; empty: not read")
HENRIES = Detail("henries", "Its inductance", HENRY, "600mH; empty: not known")
LED = led_detail()
LED_OHM = Detail("ohm", "Its resistor", OHM, "1k", none="link")
BESIDE = Detail("beside", "Resistor beside it", OHM, "180R; empty for none", none="absent")
GUARD = Detail("guard", "Diode across the coil", None, "", (("no", "None"), ("yes", "One, its band to plus")))

# A coil's copper and springs differ: a tenth above what is read (ours).
MARGIN = 1.1
# Air sparks over any gap at more (Paschen's minimum, textbook: 327 V).
_SPARK_V = 330.0


@dataclass(frozen=True)
class Loop:
    """Lamp and coil in series.

    Attributes:
        coil: Ω.
        lamp: the old one; None where the LED is fitted.
        led, ohm: what is fitted instead.
        beside: across it, Ω; None for nothing.
    """

    coil: float
    lamp: Lamp | None
    led: Led
    ohm: float
    beside: float | None


def circuit(p: Loop, volts: Param, ohms: Ohms) -> Circuit:
    """The loop on a rail.

    Args:
        p: what stands there.
        volts: of the rail.
        ohms: the filament's, "Rlamp".

    Returns:
        The circuit; the coil's current is that of "Rcoil", the LED's that of "Vled".
    """
    parts: list[Element] = [VoltageSource("Vrail", "rail", "0", Dc(volts))]
    if p.lamp is not None:
        parts.append(Resistor("Rlamp", "rail", "mid", ohms["Rlamp"]))
    else:
        parts += [
            VoltageSource("Vled", "rail", "in", Dc(0.0)), Resistor("Rled", "in", "led", p.ohm),
            Diode("Dled", "led", "mid", led_model(p.led)),
        ]  # fmt: skip
    if p.beside is not None:
        parts.append(Resistor("Rbeside", "rail", "mid", p.beside))
    parts.append(Resistor("Rcoil", "mid", "0", p.coil))
    return Circuit(tuple(parts), celsius=REFERENCE_C, title="a lamp in series with a coil")


@dataclass(frozen=True)
class Flow:
    """What flows: through the coil, through the LED (0 for the old lamp), and the volts across lamp or LED."""

    coil_a: float
    led_a: float
    across_v: float


def solve(p: Loop, volts: float, *, cold: bool = False) -> Flow:
    """Solve the loop.

    Args:
        p: what stands there.
        volts: of the rail.
        cold: whether the old lamp's filament is still cold, as at the first moment.

    Returns:
        What flows at rest, or at that moment with the coil's inductance left out.

    Raises:
        NotConverged: it has no answer.
    """
    laws = {}
    if p.lamp is not None:
        hot = p.lamp.volts / p.lamp.amps
        laws = {"Rlamp": (lambda v: np.full_like(v, hot * COLD_SHARE)) if cold else filament(p.lamp)}
    point = settled(lambda ohms: circuit(p, volts, ohms), laws, 1)
    led_a = 0.0 if p.lamp is not None else max(float(point.current("Vled")[0]), 0.0)
    return Flow(float(point.current("Rcoil")[0]), led_a, volts - float(point.voltage("mid")[0]))


def release_seconds(amps: float, hold: float, ohms: float, henries: float, clamp_v: float) -> float:
    """How long a coil with a diode across it holds on after its feed has gone.

    di/dt = −(R·i + V)/L, so that t = (L/R)·ln((I·R + V)/(Ihold·R + V)) (Kirchhoff, Faraday).

    Args:
        amps: what it carried.
        hold: at which it lets go.
        ohms, henries: the coil.
        clamp_v: what the diode keeps.

    Returns:
        s; 0 where it carried no more than it lets go at.
    """
    if amps <= hold:
        return 0.0
    return henries / ohms * math.log((amps * ohms + clamp_v) / (hold * ohms + clamp_v))


class SeriesCoil(FittedKind):
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
    details = (LOW, HIGH, COIL, LAMP_V, LAMP_A, TASK, PULL, HOLD, HENRIES, LED, LED_OHM, BESIDE, GUARD)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """The coil's current before and after at both ends of the rail, and the resistor that carries it."""
        low, high, coil, lamp_v, lamp_a, ohm = typed.needed(LOW, HIGH, COIL, LAMP_V, LAMP_A, LED_OHM)
        if high < low:
            raise InputError(
                HIGH.id, f"{show(high, VOLT)} at its highest is under {show(low, VOLT)} at its lowest."
            )
        led = catalogue()[typed.choice(LED.id)]
        old = Loop(coil, own_lamp(lamp_v, lamp_a, None, ""), led, ohm, None)
        _not_by_itself(typed, old, high)
        new = replace(old, lamp=None, beside=typed.value(BESIDE.id))
        wants = _wants(typed, old, low)
        ways = () if new.beside is not None or wants.task == "stays" else _ways(new, wants, low, high)
        way = picked(ways, chosen)
        after = new if way is None else replace(new, beside=way.share.value)
        return Worked(
            line=_line(wants, solve(old, low), solve(new, low), solve(new, high)),
            figures=_figures(old, new, after, low, high),
            stairs=_stairs(old, after, low),
            tables=(_table(old, after, low, high),),
            ways=ways,
            faults=_FAULTS,
            judged=_judged(typed, wants, new, after, low, high),
            spice=write_deck(circuit(after, low, {})),
        )


KIND = SeriesCoil()

_FAULTS = (
    Fault(
        "The LED or its resistor is open", "With a resistor beside it the coil works on, and nothing tells."
    ),
    Fault(
        "The resistor beside it is open",
        "The coil has the LED's milliamps alone: it lets go, or never pulls in.",
    ),
)


@dataclass(frozen=True)
class Wants:
    """What the coil must have.

    Attributes:
        task: what it must do.
        least, most: A that must be reached at the lowest rail, and not be reached at the highest; None for no bound.
        read: whether that was read, or is taken from the old lamp.
    """

    task: Task
    least: float | None
    most: float | None
    read: bool


def _wants(typed: Details, old: Loop, low: float) -> Wants:
    task: Task = typed.choice(TASK.id)  # type: ignore[assignment]  # one of its options
    pull, hold = typed.value(PULL.id), typed.value(HOLD.id)
    if pull is not None and hold is not None and hold >= pull:
        raise InputError(HOLD.id, f"It lets go at less than it pulls in at: {show(hold, AMPERE)} is not under "
                                  f"{show(pull, AMPERE)}.")  # fmt: skip
    if task == "stays":
        if pull is None:
            raise InputError(
                PULL.id, "Type this too: the current at which it pulls in; the lamp's must stay under it."
            )
        # Once something has pulled it in, it lets go only under its release current.
        return Wants(task, None, (pull if hold is None else hold) / MARGIN, hold is not None)
    read = pull if task == "pulls" else hold
    # Nobody read it: what the old lamp gave at the lowest rail was enough.
    return Wants(task, solve(old, low).coil_a if read is None else read * MARGIN, None, read is not None)


def _not_by_itself(typed: Details, old: Loop, high: float) -> None:
    """Refuse an old lamp that would itself have pulled in what it must leave released."""
    pull, amps = typed.value(PULL.id), solve(old, high).coil_a
    if typed.choice(TASK.id) == "stays" and pull is not None and amps >= pull:
        raise InputError(
            LAMP_A.id, f"This lamp lets {show(amps, AMPERE)} through at the highest rail, enough to pull the coil in "
            f"at {show(pull, AMPERE)}. Read the lamp or the coil again.",
        )  # fmt: skip


def _enough(w: Wants, at_low: Flow, at_high: Flow) -> bool:
    most = math.inf if w.most is None else w.most
    return at_low.coil_a >= (w.least or 0.0) * (1 - 1e-9) and at_high.coil_a <= most * (1 + 1e-9)


def _line(w: Wants, before: Flow, now: Flow, at_high: Flow) -> str:
    said = {
        ("pulls", True): "it pulls in", ("pulls", False): "it does not pull in",
        ("holds", True): "it holds", ("holds", False): "it lets go",
        ("stays", True): "it stays released", ("stays", False): "it may pull in, or not let go",
    }[w.task, _enough(w, now, at_high)]  # fmt: skip
    return f"The coil has {show(now.coil_a, AMPERE)} where the old lamp gave {show(before.coil_a, AMPERE)}: {said}."


def _figures(old: Loop, new: Loop, after: Loop, low: float, high: float) -> tuple[Figure, ...]:
    def led(p: Loop) -> float:
        return solve(p, high).led_a

    changed = after != new
    return (
        Figure("Coil at the lowest rail, old lamp", shown(solve(old, low).coil_a, AMPERE, "the loop solved, at rest")),
        Figure("The same, as typed", shown(solve(new, low).coil_a, AMPERE, "the loop solved"),
               shown(solve(after, low).coil_a, AMPERE, "the loop solved") if changed else None),
        Figure("In the LED at the highest rail", shown(led(new), AMPERE, "the loop solved"),
               shown(led(after), AMPERE, "the loop solved") if changed else None),
    )  # fmt: skip


def _beside(new: Loop, w: Wants, low: float) -> float | None:
    """The largest value of E12 with which the coil has what it needs, by trying the loop."""
    values = [float(v) for v in preferred.values("E12", 1.0, 100e3)]
    good = [v for v in values if solve(replace(new, beside=v), low).coil_a >= (w.least or 0.0)]
    return max(good, default=None)


def _ways(new: Loop, w: Wants, low: float, high: float) -> tuple[Way, ...]:
    if _enough(w, solve(new, low), solve(new, high)):
        return ()
    ohm = _beside(new, w, low)
    if ohm is None:
        return ()
    flow = solve(replace(new, beside=ohm), high)
    watts = flow.across_v**2 / ohm
    rating = rating_to_fit(watts, flow.across_v)
    body = stands_text(rating)
    seen = visibility(candela_at(new.led, solve(replace(new, beside=ohm), low).led_a))
    dark = "the LED has too few volts beside it and stays dark" if seen == "dark" else ""
    return (Way(
        f"{show(ohm, OHM)} beside it",
        f"{show(watts, WATT)} at the highest rail: {body}. The LED is {WORDS[seen]} at the lowest.",
        shown(ohm, OHM, "the largest of E12 with which the coil has what it needs"), "", dark, not dark,
        {BESIDE.id: show(ohm, OHM)},
    ),)  # fmt: skip


def _stairs(old: Loop, after: Loop, low: float) -> tuple[BranchStair, ...]:
    """The lowest rail: lamp or LED, and the coil."""
    was, now = solve(old, low), solve(after, low)
    drop = now.led_a * after.ohm
    return (
        stair("Old lamp", (("lamp", was.across_v), ("coil", was.coil_a * old.coil)), was.coil_a, "in lamp and coil",
              "the loop solved at the lowest rail, at rest"),
        stair("LED", (("resistor", drop), ("LED", now.across_v - drop), ("coil", now.coil_a * after.coil)), now.led_a,
              "in the LED", "the loop solved at the lowest rail"),
    )  # fmt: skip


def _table(old: Loop, after: Loop, low: float, high: float) -> Table:
    rows = []
    for label, volts in (("Lowest", low), ("Highest", high)):
        first, was, now = solve(old, volts, cold=True), solve(old, volts), solve(after, volts)
        cells = [shown(f.coil_a, AMPERE, "the loop solved") for f in (first, was, now)]
        cells.append(shown(now.led_a, AMPERE, "the loop solved"))
        seen = WORDS[visibility(candela_at(after.led, now.led_a))]
        rows.append(Row(f"{label} rail, {show(volts, VOLT)}", tuple(cells), f"LED: {seen}"))
    heads = ("Coil, lamp cold", "Coil, old lamp", "Coil, LED", "In the LED")
    return Table("What the coil has", heads, tuple(rows))


def _judged(typed: Details, w: Wants, new: Loop, after: Loop, low: float, high: float) -> tuple[Judged, ...]:
    out = []
    now, at_high = solve(new, low), solve(new, high)
    if not _enough(w, now, at_high):
        if w.task == "stays" and w.most is not None:
            pull, hold = typed.value(PULL.id) or 0.0, typed.value(HOLD.id)
            if hold is not None and at_high.coil_a < pull / MARGIN:
                message = f"Once pulled in it does not let go: {show(at_high.coil_a, AMPERE)} flow at the highest rail."
            else:
                message = f"{show(at_high.coil_a, AMPERE)} at the highest rail may pull it in."
            why = f"It stays released under {show(w.most, AMPERE)}, a tenth under what was read: a larger resistor."
        else:
            verb = "pull in" if w.task == "pulls" else "hold"
            message = f"The coil has {show(now.coil_a, AMPERE)} of {show(w.least or 0.0, AMPERE)}: it does not {verb}."
            why = "A resistor beside the LED carries the rest."
        out.append(Judged("stop", message, why))
    if w.task == "stays" and not w.read:
        out.append(Judged(
            "mind", "The current at which it lets go is not measured: once pulled in, it may stay so.",
            "Relays let go at a tenth to a half of what pulls them in. Turn the current down slowly and read it.",
        ))  # fmt: skip
    elif not w.read:
        first = solve(replace(new, lamp=_old_lamp(typed), beside=None), low, cold=True)
        out.append(Judged(
            "mind", "Nobody has read at what current it pulls in, or lets go: the old lamp's stands in.",
            f"Cold, the filament let {show(first.coil_a, AMPERE)} through at first: more than a resistor ever does. "
            "Read it with a resistor that is turned.",
        ))  # fmt: skip
    out += led_current(new.led, at_high.led_a, "At the highest rail")
    hold = typed.value(HOLD.id)
    alone = w.task == "pulls" and new.beside is None and not _enough(w, now, at_high)
    if alone and hold is not None and now.coil_a >= hold:
        why = "It lets go at less: a contact past the lamp that pulls it in would do too."
        out.append(Judged("note", f"Once in, {show(now.coil_a, AMPERE)} hold it.", why))
    out.append(_kick(typed, solve(after, high)))
    return gravest_first(out)


def _old_lamp(typed: Details) -> Lamp:
    volts, amps = typed.needed(LAMP_V, LAMP_A)
    return own_lamp(volts, amps, None, "")


def _kick(typed: Details, flow: Flow) -> Judged:
    """What the coil does when its feed goes."""
    henries, hold, coil = typed.value(HENRIES.id), typed.value(HOLD.id), typed.value(COIL.id) or 0.0
    amps = flow.coil_a
    if typed.choice(GUARD.id) == "no":
        energy = (
            "" if henries is None else f" {show(henries * amps**2 / 2, 'J', 2)} go into the spark (½LI²)."
        )
        return Judged(
            "mind", f"Nothing takes what the coil throws when its feed opens: up to some {show(_SPARK_V, VOLT)}.",
            f"Fit a diode across the coil, its band to plus, before the LED: it is in that loop.{energy}",
        )  # fmt: skip
    keeps = rectifier("power").volts(amps, 1, REFERENCE_C)
    held = ""
    if henries is not None and hold is not None:
        seconds = release_seconds(amps, hold, coil, henries, keeps)
        held = f" It lets go {show(seconds, SECOND, 2)} later than it did without."
    return Judged("note", f"The diode keeps the kick at {show(keeps, VOLT, 2)}.",
                  f"A coil with a diode lets go late.{held}")  # fmt: skip
