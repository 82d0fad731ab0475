"""What is wrong with a fitted lamp by all its readings together, and what to read next."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import Solution
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.faults.ask import Asked, ask
from swapglow.core.faults.diagnosis import Diagnosis
from swapglow.core.faults.metered import as_shown, comparable
from swapglow.core.faults.predict import SIZE, Predicted, predict
from swapglow.core.faults.sister import Pair, calibrated
from swapglow.core.faults.suspect import AT, Suspect, suspects
from swapglow.core.faults.weigh import Weighed, own_size, weigh
from swapglow.core.kinds.step import Meaning, NextStep
from swapglow.core.measurement.leads import LEADS
from swapglow.core.measurement.reading_after import KINDS, POWER_OFF, ReadingAfter, ReadingKind
from swapglow.core.network.builder import laws_of
from swapglow.core.parts.meter import amp_range, volt_range
from swapglow.core.quantities import Shown, percent, show

FloatArray = NDArray[np.float64]

# Causes that are shown: those of at least this share of the likeliest, and so many at most.
_WORTH_SAYING = 0.05
_MOST_CAUSES = 6
_ONLY = 0.95
_SOLVED = "the lamp solved with this fault"
# Filaments that must come to rest over a cycle, for each fault: a minute and more.
_TOO_LONG = (
    "With lamps left in the loop of a supply that alternates, each fault would take too long to work out: no cause is "
    "named. Read the rail, then the volts at the lamp's wires."
)
# What is read on a walk along the loop, in a word or two.
_ON_THE_WAY: dict[ReadingKind, str] = {
    "supply_volts": "rail",
    "plus_volts": "plus wire",
    "led_volts": "across the LEDs",
    "minus_volts": "minus wire",
    "lamp_volts": "lamp's wires",
}


@dataclass(frozen=True)
class Cause:
    """A fault that would produce the readings taken.

    Attributes:
        id, message: which, and of what size.
        share: how likely, beside all others; ``share_text`` the same as printed.
        reads: what each reading that is off would read with it, in the order of the diagnoses.
        at: the kinds of step of the staircase where it would sit; none where it is the meter's.
    """

    id: str
    message: str
    share: float
    share_text: str
    reads: tuple[Shown, ...]
    at: tuple[str, ...]


@dataclass(frozen=True)
class Trouble:
    """Readings that are off, weighed together.

    Attributes:
        causes: the likeliest first; empty where nothing known explains them.
        line: how sure that is.
    """

    causes: tuple[Cause, ...]
    line: str


@dataclass(frozen=True)
class Found:
    """What is wrong, and the reading that would tell the rest apart; None where no reading would."""

    trouble: Trouble
    next: NextStep | None


def trouble(
    s: Solution,
    readings: Sequence[ReadingAfter],
    diagnoses: Sequence[Diagnosis],
    beside: Mapping[str, Pair] | None = None,
) -> Found | None:
    """What the readings say is wrong.

    Args:
        s: the solved position.
        readings: all that were taken after the swap.
        diagnoses: each against its band, in the same order.
        beside: those that were taken at its sister too; none where there is no sister.

    Returns:
        The causes; None where every reading agrees, the newest of its kind.
    """
    taken = _newest(_since_it_worked(readings, diagnoses))
    kept = {r.id for r in taken}
    off = [d.id for d in diagnoses if not d.agrees and d.id in kept]
    if not off:
        return None
    if s.position.rail.supply.alternates and laws_of(s.position):
        return Found(Trouble((), _TOO_LONG), None)
    pairs = beside or {}
    found = _weighed(s, taken, off, pairs)
    if found.trouble.causes or len(taken) == 1:
        return found
    # No one fault makes all of them: something was changed between, or read wrong. The newest says something still.
    alone = _weighed(s, taken[-1:], off, pairs) if taken[-1].id in off else found
    if not alone.trouble.causes:
        return found
    line = f"No one fault makes all these readings. By the newest alone: {alone.trouble.line}"
    return replace(alone, trouble=replace(alone.trouble, line=line))


def _weighed(s: Solution, taken: tuple[ReadingAfter, ...], off: Sequence[str], beside: Mapping[str, Pair]) -> Found:
    """What some readings say is wrong."""
    try:
        every = suspects(s, taken)
        before = calibrated(predict(s, every, taken), every, taken, beside)
        read = np.array([comparable(r) for r in taken])
        weighed = weigh(every, before, read)
        asked = ask(s, every, weighed.shares, taken, before)
    except CircuitError:
        no_answer = "With a fault in it this lamp's circuit has no answer here: no cause is named."
        return Found(Trouble((), no_answer), None)
    causes = _causes(every, before, weighed, taken, off, read)
    step = None if asked is None else _step(asked, causes)
    return Found(Trouble(causes, _line(causes, weighed)), step)


def _since_it_worked(readings: Sequence[ReadingAfter], diagnoses: Sequence[Diagnosis]) -> list[ReadingAfter]:
    """Readings from the last current on that was as it should be, which proves LED, resistor and rail in one.

    What was off before it has been mended, or was read wrong; what was read in other states stays.
    """
    right = [
        k
        for k, (r, d) in enumerate(zip(readings, diagnoses, strict=True))
        if d.agrees and r.kind == "current" and r.state == "on"
    ]
    last = right[-1] if right else 0
    return [r for k, r in enumerate(readings) if k >= last or r.state != "on"]


def _newest(readings: Sequence[ReadingAfter]) -> tuple[ReadingAfter, ...]:
    """The newest reading of each kind and state: what was read before has been mended or read again."""
    found = {(r.kind, r.state, r.of): r for r in readings}
    return tuple(r for r in readings if found[r.kind, r.state, r.of] is r)


def by_fault(every: Sequence[Suspect], weighed: Weighed) -> dict[str, float]:
    """The share of each fault, all its sizes together.

    Args:
        every: the suspects.
        weighed: what is left of them.

    Returns:
        Shares by the fault's id, the likeliest first.
    """
    out: dict[str, float] = {}
    for suspect, share in zip(every, weighed.shares, strict=True):
        out[suspect.id] = out.get(suspect.id, 0.0) + float(share)
    return dict(sorted(out.items(), key=lambda item: -item[1]))


def _causes(
    every: Sequence[Suspect],
    before: Predicted,
    weighed: Weighed,
    taken: Sequence[ReadingAfter],
    off: Sequence[str],
    read: FloatArray,
) -> tuple[Cause, ...]:
    shares = by_fault(every, weighed)
    most = max(shares.values())
    if most < weighed.unknown:
        return ()
    out: list[Cause] = []
    for name, share in shares.items():
        if share < _WORTH_SAYING * most or len(out) == _MOST_CAUSES:
            break
        best = max((i for i, m in enumerate(every) if m.id == name), key=lambda i: float(weighed.shares[i]))
        one, step = every[best], own_size(before, best, read)
        shows = before.mean[best] + step * before.moved[best, :, SIZE]
        reads = tuple(as_shown(float(shows[k]), r.kind, _SOLVED, 2) for k, r in enumerate(taken) if r.id in off)
        of_size = "" if one.unit is None else show(one.size * (1 + one.spread * step), one.unit, 2)
        out.append(Cause(name, one.message.format(of_size), share, percent(share), reads, AT.get(name, ())))
    return tuple(out)


def _line(causes: tuple[Cause, ...], weighed: Weighed) -> str:
    if not causes:
        return "Nothing simple explains these readings together: take them again, the rail first."
    if len(causes) == 1:
        only = "Of all that is known here only this explains it."
        return only if causes[0].share > _ONLY else f"The likeliest by far, {causes[0].share_text}."
    more = "" if weighed.unknown < 0.1 else f" Or none of these, {percent(weighed.unknown)}."
    return f"{len(causes)} causes would read so.{more}"


def _step(asked: Asked, causes: tuple[Cause, ...]) -> NextStep:
    """The reading that tells the rest apart, or the walk."""
    kinds = asked.kinds
    first = kinds[0]
    top = max([abs(v) for v in asked.usual] + [abs(v) for a in asked.answers.values() for v in a])
    dead = first in POWER_OFF
    meter = {"A": amp_range(top * 1.2), "V": "Diode range" if dead else volt_range(top * 1.2), "Ω": "Ohms"}[
        LEADS[first].meter
    ]

    def texts(values: tuple[float, ...]) -> str:
        return ", ".join(as_shown(v, kind, _SOLVED, 2).text.strip() for v, kind in zip(values, kinds, strict=True))

    meanings = tuple(Meaning(texts(asked.answers[c.id]), c.message) for c in causes if c.id in asked.answers)
    if len(kinds) == 1:
        act, points = f"Read next: {KINDS[first][0].lower()}{KINDS[first][1:]}", LEADS[first].line
    else:
        act = "Walk the loop: " + ", ".join(_ON_THE_WAY[k] for k in kinds)
        points = f"first {LEADS[first].line[0].lower()}{LEADS[first].line[1:]}"
    return NextStep(
        "tell-apart",
        act,
        meter,
        points,
        "power off" if dead else "as it is lit",
        texts(asked.usual),
        first,
        f"It tells the causes apart: {percent(asked.gain)} surer with it than without.",
        "Power off, capacitors empty." if dead else "Supply off while leads go on.",
        meanings,
        "",
    )


def chase(diagnoses: Sequence[Diagnosis], found: Found) -> NextStep:
    """What to do about readings that are off.

    Args:
        diagnoses: of all readings, the newest last.
        found: what is wrong by them.

    Returns:
        The reading that tells causes apart; without one, a look at the likeliest.
    """
    if found.next is not None:
        return found.next
    newest = [d for d in diagnoses if not d.agrees][-1]
    causes = found.trouble.causes
    cause = newest.cannot or (causes[0].message if causes else "Nothing simple explains it: read the rail again.")
    kind: ReadingKind = newest.kind  # type: ignore[assignment]  # a reading's own kind
    leads, top = LEADS[kind], newest.high.value * 1.2
    meter = {"A": amp_range(top), "V": volt_range(top), "Ω": "Ohms"}[leads.meter]
    return NextStep(
        "chase",
        "Find out why the reading is off",
        meter,
        leads.line,
        "one thing changed",
        f"{newest.expected.text} ({newest.low.text} to {newest.high.text})",
        kind,
        f"First look: {cause}",
        "Supply off while parts are changed.",
    )
