"""What is known of a fitted lamp by all its readings: what may be so, how likely, and what to read next."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import combinations
from threading import Condition

import numpy as np
from cachetools import LRUCache, cached
from numpy.typing import NDArray

from swapglow.core.analysis.solution import Solution
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.evidence.expected import Diagnosis
from swapglow.core.evidence.hypotheses import Hypothesis, hypotheses, lower_first
from swapglow.core.evidence.indistinct import grouped, together
from swapglow.core.evidence.infer import Inference, Posterior, infer, slip_of
from swapglow.core.evidence.metered import as_shown
from swapglow.core.evidence.next_reading import Asked, next_reading
from swapglow.core.evidence.predict import LED, RAIL, SIZE, is_dear, led_sigma, rail_sigma
from swapglow.core.evidence.sister import Pair, usable
from swapglow.core.kinds.step import Meaning, NextStep
from swapglow.core.measurement.leads import LEADS
from swapglow.core.measurement.reading_after import DIODE_RANGE, KINDS, LOOKS, POWER_OFF, ReadingAfter, ReadingKind
from swapglow.core.network.builder import laws_of
from swapglow.core.network.fault import Fault
from swapglow.core.parts.meter import amp_range, volt_range
from swapglow.core.quantities import VOLT, Shown, percent, show

FloatArray = NDArray[np.float64]

# So many causes are shown at most, each of at least this share.
_MOST_CAUSES, _WORTH_SAYING = 3, 0.03
# "Only this" is said past this share, with the readings no further from it than so many of their sigmas.
_ONLY, _FITS = 0.95, 2.5
# Two things at once are looked at where the best single one leaves this much to what is not listed, or fits so badly.
_OPEN_QUESTION, _FITS_BADLY = 0.25, 4.0
_MOST_PAIRED, _PAIRED_OVER_A_CYCLE = 12, 5
# Ours: of two faults the second is as likely as this beside a first, more where one burns the other.
_SECOND, _CHAINED = 0.4, 10.0
_CHAINS = {
    *((f"{r}-{how}", "D1-open") for r in ("R", "R1", "R2") for how in ("decade-down", "short")),
    ("C1-short", "Dbridge-open"),
}
# From so many sigmas on it is told which of LED and rail is not as typed.
_MOVED = 1.0
_SOLVED = "the lamp solved with this in it"
# Filaments that must come to rest over a cycle, for each hypothesis: a minute and more.
_TOO_LONG = (
    "With lamps left in the loop of a supply that alternates, working out each fault would take too long: no cause is "
    "named. Read the rail, then the volts at the lamp's wires."
)
_NOTHING = "No cause that is known here explains these readings together. Take them again, the rail first."
# What is read on a walk along the loop, in a word or two.
_ON_THE_WAY: dict[ReadingKind, str] = {
    "supply_volts": "rail",
    "plus_volts": "plus wire",
    "led_volts": "across the LEDs",
    "minus_volts": "minus wire",
    "lamp_volts": "lamp's wires",
}
_LOOKED: dict[ReadingKind, str] = {
    "look": "Switch it on and look: is it lit?",
    "look_other": "Put another LED of its kind in its place, and look",
}
_SLIPPED: dict[str, str] = {
    "decade": "{} is a decade off: the range or the decimal point was misread.",
    "count": "{} is what another number of strings draws: one was read for all of them, or all of them for one.",
    "place": "The probes were in another place: {} is across the other part, or across LED and resistor together.",
    "range": "The meter was set to DC. On an alternating supply it then shows nothing.",
    "socket": "A test lead was in the wrong socket or made no contact, so that the meter showed {}.",
    "anyhow": "{} may be a slip of the pen, or of another place: read it again.",
}


@dataclass(frozen=True)
class Cause:
    """Something that would produce the readings taken.

    Attributes:
        id, message: which, and of what size.
        share: how likely, beside all others; ``share_text`` the same as printed.
        reads: what each reading that is off would read with it, in the order of the diagnoses.
        at: the kinds of step of the staircase where it would sit; none where it is the meter's.
        parts: the elements of the drawn circuit that it is about.
    """

    id: str
    message: str
    share: float
    share_text: str
    reads: tuple[Shown, ...]
    at: tuple[str, ...]
    parts: tuple[str, ...] = ()


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


def account(
    s: Solution,
    readings: Sequence[ReadingAfter],
    diagnoses: Sequence[Diagnosis],
    beside: Mapping[str, Pair] | None = None,
) -> Found | None:
    """What the readings say.

    Args:
        s: the solved position.
        readings: all that were taken after the swap.
        diagnoses: each against its band, in the same order.
        beside: those that were taken at its sister too; none where there is no sister.

    Returns:
        What may be so; None where every reading agrees, the newest of its kind.
    """
    taken = newest(since_it_worked(readings, diagnoses))
    kept = {r.id for r in taken}
    off = [d.id for d in diagnoses if not d.agrees and d.id in kept]
    if not off:
        return None
    if s.position.rail.supply.alternates and laws_of(s.position):
        return Found(Trouble((), _TOO_LONG), None)
    return _found(s, taken, tuple(off), usable(beside or {}))


def _key(s: Solution, taken: tuple[ReadingAfter, ...], off: tuple[str, ...], hers: Mapping[str, Pair]) -> object:
    return off, _of_readings(s, taken, hers)


# A lamp is reported whenever anything around it moves: what its own readings say is worked out once.
@cached(LRUCache(maxsize=256), key=_key, condition=Condition())
def _found(s: Solution, taken: tuple[ReadingAfter, ...], off: tuple[str, ...], hers: Mapping[str, Pair]) -> Found:
    try:
        known = known_by(s, taken, hers)
        asked = next_reading(s, known, taken)
        causes = _causes(s, known, taken, off)
    except CircuitError:
        return Found(Trouble((), "With a fault in it this lamp's circuit has no answer here: no cause is named."), None)
    step = None if asked is None else _step(s, asked, causes)
    return Found(Trouble(causes, _line(causes, known, taken, more=asked is not None)), step)


def known_by(s: Solution, taken: Sequence[ReadingAfter], beside: Mapping[str, Pair] | None = None) -> Inference:
    """How likely each thing is by some readings, two at once where no single one explains them.

    Args:
        s: the solved position.
        taken: readings, at least one.
        beside: those that were taken at its sister too.

    Returns:
        All that may be so.

    Raises:
        CircuitError: the lamp as it should be has no answer.
    """
    return _inferred(s, tuple(taken), usable(beside or {}))


def _of_readings(s: Solution, taken: tuple[ReadingAfter, ...], pairs: Mapping[str, Pair]) -> object:
    return s.position, taken, tuple((key, pair.factor) for key, pair in pairs.items())


# The figures and the causes both rest on it.
@cached(LRUCache(maxsize=256), key=_of_readings, condition=Condition())
def _inferred(s: Solution, taken: tuple[ReadingAfter, ...], pairs: Mapping[str, Pair]) -> Inference:
    hyps = hypotheses(s, taken)
    if pairs:
        # What both share, the rail, is no fault of this one.
        hyps = tuple(h for h in hyps if not (h.rail != 1 or h.rail_share or (h.size and h.size.where == "rail")))
    hers = {r.id: pairs[r.id].factor for r in taken if r.id in pairs}
    known = infer(s, hyps, taken, hers)
    best = known.posteriors[0]
    poor = known.unlisted > _OPEN_QUESTION or best.fits > _FITS_BADLY
    if len(taken) < 2 or not poor or (slip_of(best) and best.of.sound):
        return known
    both = _pairs(known, _PAIRED_OVER_A_CYCLE if is_dear(s) else _MOST_PAIRED)
    return infer(s, (*hyps, *both), taken, hers) if both else known


def _pairs(known: Inference, most: int) -> list[Hypothesis]:
    """Two things at once, of those that explain something."""
    likely = [q for q in known.posteriors if not q.of.sound][:most]
    out = []
    for a, b in combinations(likely, 2):
        both = _both(a, b)
        if both is not None:
            out.append(both)
    return out


def _both(a: Posterior, b: Posterior) -> Hypothesis | None:
    """Both at once, the second at the size that the readings gave it; None where they are of one part or place."""
    if a.of.size is None and b.of.size is not None:
        a, b = b, a
    first, second = a.of, _frozen(b)
    places = first.fault.ohms.keys() & second.fault.ohms.keys()
    parts = {f.part for f in first.fault.parts} & {f.part for f in second.fault.parts}
    moved = [n for n in ("rail", "ohms") if getattr(first, n) != 1 and getattr(second, n) != 1]
    sized = first.size is not None and first.size.where in moved
    # A burden is typed for each reading: it has no place of its own to be frozen at.
    burdens = b.of.size is not None and b.of.size.where == "burden"
    if places or parts or moved or sized or burdens or (first.vf and second.vf):
        return None
    chained = (first.id, second.cause) in _CHAINS or (second.id, first.cause) in _CHAINS
    return Hypothesis(
        f"{first.id}+{second.id}",
        f"{first.message} {second.message}",
        first.prior * second.prior * (_CHAINED if chained else _SECOND),
        Fault(parts=(*first.fault.parts, *second.fault.parts), **{**first.fault.ohms, **second.fault.ohms}),
        first.size,
        first.rail * second.rail,
        first.ohms * second.ohms,
        first.vf or second.vf,
        max(first.led_v, second.led_v),
        max(first.rail_share, second.rail_share),
        first.reads_nothing or second.reads_nothing,
        (*first.at, *second.at),
    )


def _frozen(q: Posterior) -> Hypothesis:
    """A hypothesis at the size that the readings give it."""
    h = q.of
    if h.size is None:
        return h
    size = _size(q)
    message = h.message if h.size.unit is None else h.message.format(show(size * h.size.per, h.size.unit, 2))
    whole = replace(h, message=message, size=None)
    if h.size.where in ("rail", "ohms"):
        return replace(whole, **{h.size.where: size})  # type: ignore[arg-type]  # a share by its name
    ohms = {n: size if v == 1 else v for n, v in h.fault.ohms.items()}
    return replace(whole, fault=Fault(parts=tuple(replace(f, size=size) for f in h.fault.parts), **ohms))


def _size(q: Posterior) -> float:
    """How large it is by the readings: the weighted mean of its logarithm."""
    assert q.of.size is not None
    return q.of.size.median * float(np.exp(q.of.size.spread * q.sigmas(SIZE)))


def since_it_worked(readings: Sequence[ReadingAfter], diagnoses: Sequence[Diagnosis]) -> list[ReadingAfter]:
    """Readings from the last current on that was as it should be, which proves LED, resistor and rail in one.

    What was off before it has been mended, or was read wrong; what was read in other states stays.

    Args:
        readings: all that were taken, the newest last.
        diagnoses: each against its band, in the same order.

    Returns:
        Those that count, in their order.
    """
    right = [
        k
        for k, (r, d) in enumerate(zip(readings, diagnoses, strict=True))
        if d.agrees and r.kind == "current" and r.state == "on"
    ]
    last = right[-1] if right else 0
    return [r for k, r in enumerate(readings) if k >= last or r.state != "on"]


def newest(readings: Sequence[ReadingAfter]) -> tuple[ReadingAfter, ...]:
    """The newest reading of each kind and state: what was read before has been mended or read again."""
    found = {(r.kind, r.state, r.of): r for r in readings}
    return tuple(r for r in readings if found[r.kind, r.state, r.of] is r)


def by_cause(known: Inference) -> dict[str, float]:
    """The share of each cause, equal parts together and the slips of a hand at a sound lamp apart.

    Args:
        known: what may be so.

    Returns:
        Shares by the cause's id, the likeliest first; "slip-place", "slip-decade" and the like are the hand's.
    """
    out: dict[str, float] = {}
    for q in known.posteriors:
        slip = slip_of(q) if q.of.sound else None
        cause = f"slip-{slip[1]}" if slip else q.of.cause
        out[cause] = out.get(cause, 0.0) + q.share
    return dict(sorted(out.items(), key=lambda item: -item[1]))


def _causes(s: Solution, known: Inference, taken: Sequence[ReadingAfter], off: Sequence[str]) -> tuple[Cause, ...]:
    shares = by_cause(known)
    if not shares or max(shares.values()) < known.unlisted:
        return ()
    same = grouped(s, known, taken)
    told = together(shares, same)
    out: list[Cause] = []
    for cause, share in told.items():
        if share < _WORTH_SAYING or len(out) == _MOST_CAUSES:
            break
        q = _likeliest(known, cause)
        slip = slip_of(q) if q.of.sound else None
        usual = q.usual
        reads = tuple(as_shown(float(usual[k]), r.kind, _SOLVED, 2) for k, r in enumerate(taken) if r.id in off)
        message = _said(s, q) if slip is None else _ofslip_of(slip, taken)
        others = [_likeliest(known, c) for c in same.get(cause, ())[1:]]
        at = dict.fromkeys(a for p in (q, *others) for a in p.of.at)
        if others:
            said = (lower_first(_said(s, p).rstrip(".")) for p in others)
            message += f" The readings would be the same if {'; or if '.join(said)}."
        parts = dict.fromkeys(part for p in (q, *others) for part in p.of.parts)
        where = ((), ()) if slip else (tuple(at), tuple(parts))
        out.append(Cause(cause, message, share, percent(share), reads, *where))
    return tuple(out)


def _likeliest(known: Inference, cause: str) -> Posterior:
    """The likeliest hypothesis of a cause."""
    return next(q for q in known.posteriors if cause in (q.of.cause, f"slip-{(slip_of(q) or ('', ''))[1]}"))


def _ofslip_of(slip: tuple[str, str], taken: Iterable[ReadingAfter]) -> str:
    reading = next(r for r in taken if r.id == slip[0])
    return _SLIPPED[slip[1]].format(reading.text)


def _said(s: Solution, q: Posterior) -> str:
    """A hypothesis in words, with its size by the readings."""
    p, h = s.position, q.of
    if h.sound:
        led, rail = q.sigmas(LED), q.sigmas(RAIL)
        if max(abs(led), abs(rail)) < _MOVED:
            return "Nothing is wrong: rail, LED and resistor lie within what they may be."
        if abs(led) >= abs(rail):
            volts, typed = p.led.vf_typ + led_sigma(p, h) * led, p.led.vf_typ
            return f"Nothing is wrong: these LEDs have about {show(volts, VOLT, 3)} each, not {show(typed, VOLT)}."
        volts, typed = p.rail.usual.value * (1 + rail_sigma(p, h) * rail), p.rail.usual.value
        return f"Nothing is wrong: the rail stands at about {show(volts, VOLT, 3)}, not {show(typed, VOLT)}."
    return h.message if h.size is None else _frozen(q).message


def _line(causes: tuple[Cause, ...], known: Inference, taken: Sequence[ReadingAfter], *, more: bool) -> str:
    if not causes:
        return _NOTHING
    best = known.posteriors[0]
    slip = slip_of(best)
    if slip is not None and not best.of.sound:
        return f"These readings contradict each other. {_ofslip_of(slip, taken)}"
    others = f" Or something that is not listed, {percent(known.unlisted)}." if known.unlisted > 0.1 else ""
    if causes[0].share > _ONLY and best.fits < _FITS and known.unlisted < 1 - _ONLY:
        return "Of the causes known here, only this one fits."
    if causes[0].share > 0.8:
        return f"The likeliest by far, {causes[0].share_text}.{others}"
    if len(causes) > 1 and not more:
        return f"No reading can tell these {len(causes)} apart. Check each in turn.{others}"
    if len(causes) == 1:
        return f"The likeliest, {causes[0].share_text}.{others}"
    return f"These {len(causes)} are the likeliest.{others}"


def _step(s: Solution, asked: Asked, causes: tuple[Cause, ...]) -> NextStep:
    """The reading that tells the rest apart, or the walk."""
    kinds = asked.kinds
    first = kinds[0]
    top = max([abs(v) for v in asked.usual] + [abs(v) for a in asked.answers.values() for v in a])
    dead = first in POWER_OFF

    looked = first in LOOKS

    def texts(values: tuple[float, ...]) -> str:
        return ", ".join(as_shown(v, kind, _SOLVED, 2).text for v, kind in zip(values, kinds, strict=True))

    # Where only the hand slipped, the lamp answers as a sound one.
    shown = [(asked.answers.get("sound" if c.id.startswith("slip-") else c.id), c.message) for c in causes]
    meanings = tuple(Meaning(texts(values), message) for values, message in shown if values is not None)
    if looked:
        act, points = _LOOKED[first], LEADS[first].line
    elif len(kinds) == 1:
        act, points = f"Read {KINDS[first][0].lower()}{KINDS[first][1:]}", LEADS[first].line
    else:
        act = "Read along the loop: " + ", ".join(_ON_THE_WAY[k] for k in kinds)
        points = f"first {LEADS[first].line[0].lower()}{LEADS[first].line[1:]}"
    return NextStep(
        "tell-apart",
        act,
        _meter(s, first, top),
        points,
        "power off" if dead else "as it is lit",
        texts(asked.usual),
        first,
        f"It tells the causes apart: it settles {percent(asked.told)} of what is still open.",
        "Power off, capacitors empty." if dead else "" if first == "look" else "Supply off while leads go on.",
        meanings,
        "",
        chain=kinds if len(kinds) > 1 else (),
    )


def _meter(s: Solution, kind: ReadingKind, most: float) -> str:
    """Function and range for a reading: in an alternating feed AC volts, over the LEDs the mean on a DC range."""
    if kind in LOOKS:
        return ""
    if kind in DIODE_RANGE:
        return "Diode range"
    ac = s.position.rail.supply.alternates and kind != "led_volts"
    return {"A": amp_range(most * 1.2), "V": volt_range(most * 1.2, ac=ac), "Ω": "Ohms"}[LEADS[kind].meter]


def chase(s: Solution, diagnoses: Sequence[Diagnosis], found: Found) -> NextStep:
    """What to do about readings that are off.

    Args:
        s: the solved position.
        diagnoses: of all readings, the newest last.
        found: what is wrong by them.

    Returns:
        The reading that tells causes apart; without one, a look at the likeliest.
    """
    if found.next is not None:
        return found.next
    newest = [d for d in diagnoses if not d.agrees][-1]
    causes = found.trouble.causes
    cause = newest.cannot or (causes[0].message if causes else "no known cause explains it. Read the rail again.")
    kind: ReadingKind = newest.kind  # type: ignore[assignment]  # a reading's own kind
    return NextStep(
        "chase",
        "Find out why the reading is off",
        _meter(s, kind, newest.high.value),
        LEADS[kind].line,
        "one thing changed",
        f"{newest.expected.text} ({newest.low.text} to {newest.high.text})",
        kind,
        f"First look: {cause}",
        "Supply off while parts are changed.",
    )
