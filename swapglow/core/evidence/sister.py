"""A sister beside it: a good lamp of the same kind on the same rail, read at the same places.

What both share, the rail and the driver's kind, cancels; what is left between them is the two LEDs' and resistors' own
luck, each with its own meter's digits. A difference beyond that is a fault's.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import Solution
from swapglow.core.evidence.expected import Diagnosis
from swapglow.core.evidence.hypotheses import hypotheses
from swapglow.core.evidence.infer import noise
from swapglow.core.evidence.metered import as_shown, as_taken, comparable
from swapglow.core.evidence.predict import DROP, RAIL, SIZE, UNKNOWNS, Draws, predict
from swapglow.core.measurement.reading_after import KINDS, ReadingAfter
from swapglow.core.quantities import Shown

FloatArray = NDArray[np.float64]

# A sister that reads this many times more or less than it should is itself in doubt (ours).
_USABLE = 2.0
_SIGMAS = 2.0
_FROM = "the sister's reading, and two LEDs' and resistors' own luck"


@dataclass(frozen=True)
class SisterReading:
    """One reading of the sister.

    Attributes:
        id, kind, state: of the sister's reading.
        sister: what was read there.
        own: what was read at this lamp in the same place; None where nobody did.
        line: what that says.
    """

    id: str
    kind: str
    state: str
    sister: Shown
    own: Shown | None
    line: str


@dataclass(frozen=True)
class Pair:
    """One place read at both: the sister's value, how far the two may lie apart, and the factor it puts on what is
    expected."""

    sister: ReadingAfter
    spread: float
    factor: float

    @property
    def usable(self) -> bool:
        """Whether the sister itself reads near enough to what it should."""
        return 1 / _USABLE <= self.factor <= _USABLE


def _place(r: ReadingAfter) -> tuple[str, str, str]:
    return r.kind, r.state, r.of


def pairs(s: Solution, own: Sequence[ReadingAfter], sisters: Sequence[ReadingAfter]) -> dict[str, Pair]:
    """Readings that were taken at both.

    Args:
        s: the solved position.
        own: readings of this lamp.
        sisters: of its sister, the newest last.

    Returns:
        Each with the sister's, by this lamp's reading's id; none where the lamp has no answer.
    """
    newest = {_place(r): r for r in sisters}
    both = [r for r in own if _place(r) in newest]
    if not both:
        return {}
    moved = [n for n in range(len(UNKNOWNS)) if n not in (RAIL, DROP, SIZE)]
    standings = np.vstack([np.zeros(len(UNKNOWNS)), np.eye(len(UNKNOWNS))[moved]])
    found = predict(s, [Draws(hypotheses(s, tuple(both))[0], standings)], both)[0]
    if not np.isfinite(found).all():
        return {}
    meter = noise(found[:1], np.abs(found[0]), both)[0]
    out = {}
    for k, reading in enumerate(both):
        sister, mean = newest[_place(reading)], float(found[0, k])
        if mean == 0:
            continue
        factor = comparable(sister) / mean
        apart = (found[1:, k] - mean) * factor
        spread = _SIGMAS * float(np.sqrt(2 * (apart**2).sum() + 2 * (float(meter[k]) * factor) ** 2))
        out[reading.id] = Pair(sister, spread, factor)
    return out


def outlived(r: ReadingAfter, since: str) -> SisterReading:
    """A reading of the sister beside a circuit that is there no more.

    Args:
        r: as taken.
        since: what was changed here.

    Returns:
        It, weighed with nothing.
    """
    there = as_taken(r, "read at the sister")
    return SisterReading(r.id, r.kind, r.state, there, None, f"Not weighed: {since}.")


def usable(found: Mapping[str, Pair]) -> dict[str, Pair]:
    """Those whose sister reads near enough to what it should, by this lamp's reading's id."""
    return {key: pair for key, pair in found.items() if pair.usable}


def by_sister(d: Diagnosis, r: ReadingAfter, pair: Pair | None) -> Diagnosis:
    """A reading judged by its sister's in place of the band.

    Args:
        d: it, judged by its band.
        r: the reading.
        pair: the sister's; None leaves it as it is.

    Returns:
        The same, agreeing where the two lie no further apart than two of a kind may.
    """
    if pair is None or not pair.usable:
        return d
    at = comparable(pair.sister)
    agrees = abs(comparable(r) - at) <= pair.spread
    ends = (as_shown(max(at - pair.spread, 0.0), r.kind, _FROM), as_shown(at + pair.spread, r.kind, _FROM))
    between = f"its sister reads {pair.sister.text}, and two of a kind {ends[0].text} to {ends[1].text}."
    verb = "agrees" if agrees else "is off"
    return replace(
        d,
        expected=as_shown(at, r.kind, "the sister's reading"),
        low=ends[0],
        high=ends[1],
        agrees=agrees,
        line=f"{r.text} {verb}: {between}",
        cannot="" if agrees else d.cannot,
    )


def beside_it(
    own: Sequence[ReadingAfter], sisters: Sequence[ReadingAfter], found: Mapping[str, Pair]
) -> tuple[SisterReading, ...]:
    """Every reading of the sister with this lamp's beside it.

    Args:
        own: readings of this lamp, the newest last.
        sisters: of its sister.
        found: those read at both.

    Returns:
        One for each of the sister's.
    """
    mine = {_place(r): r for r in own}
    out = []
    for r in sisters:
        this = mine.get(_place(r))
        pair = None if this is None else found.get(this.id)
        if this is None:
            line = f"Read the same here: {KINDS[r.kind][0].lower()}{KINDS[r.kind][1:]}."
        elif pair is None or pair.sister.id != r.id:
            line = "Not weighed: a newer one stands, or nothing is expected there."
        elif not pair.usable:
            line = "The sister itself is far from what is expected: it is no measure."
        else:
            off = comparable(this) - comparable(r)
            gap = as_shown(abs(off), r.kind, _FROM).text
            may = as_shown(pair.spread, r.kind, _FROM).text
            side = "under" if off < 0 else "over"
            line = f"{gap} {side} its sister; two of a kind differ by {may}."
        there = as_taken(r, "read at the sister")
        here = None if this is None else as_taken(this, "read")
        out.append(SisterReading(r.id, r.kind, r.state, there, here, line))
    return tuple(out)
