"""How long work takes here, by the bench's own record; until there is one, by what is usual."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from statistics import median, quantiles

from swapglow.core.planning.work import KINDS, USUAL_MIN, Kind

# Fewer than these say little.
ENOUGH = 3


@dataclass(frozen=True)
class Duration:
    """How long a kind of work takes for one lamp.

    Attributes:
        kind, label: what.
        minutes: taken for a plan.
        low, high: the middle half of those recorded; the same as ``minutes`` where there are too few.
        known: how many were recorded.
        line: where it comes from.
    """

    kind: Kind
    label: str
    minutes: float
    low: float
    high: float
    known: int
    line: str


def durations_of(recorded: Mapping[Kind, Sequence[float]]) -> dict[Kind, Duration]:
    """What each kind of work takes.

    Args:
        recorded: minutes of single lamps.

    Returns:
        By kind; the median of three or more, else what is usual.
    """
    return {kind: _duration(kind, [m for m in recorded.get(kind, ()) if m > 0]) for kind in KINDS}


def _duration(kind: Kind, minutes: Sequence[float]) -> Duration:
    if len(minutes) < ENOUGH:
        usual = USUAL_MIN[kind]
        line = f"usual, ours: {len(minutes)} of {ENOUGH} recorded"
        return Duration(kind, KINDS[kind], usual, usual, usual, len(minutes), line)
    low, middle, high = quantiles(minutes, n=4, method="inclusive")
    line = f"median of {len(minutes)} here, {low:.0f} to {high:.0f} min in the middle half"
    if not middle:
        return _duration(kind, ())
    return Duration(kind, KINDS[kind], median(minutes), low, high, len(minutes), line)
