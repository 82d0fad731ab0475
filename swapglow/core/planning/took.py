"""How long work takes here, by the bench's own record; until there is one, by what is usual."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from statistics import median, quantiles

from swapglow.core.planning.work import KINDS, USUAL_MIN, Kind
from swapglow.core.quantities import InputError

# Fewer than these say little.
ENOUGH = 3
_NUMBER = r"(\d+(?:\.\d*)?|\.\d+)"
_TIME = re.compile(rf"(?:{_NUMBER} ?(?:h|hours?|hrs?))? ?(?:{_NUMBER} ?(?:min|minutes?|m|')?)?")
# By which step's minutes a kind of work is learnt.
BY_STEP: dict[str, Kind] = {
    "power": "trial",
    "clips": "trial",
    "works": "trial",
    "polarity": "solder",
    "solder": "solder",
    "lead": "solder",
    "sleeve": "sleeve",
    "wires": "solder",
    "legs": "sleeve",
    "soak": "soak",
    "reverse": "close",
    "after": "close",
}


@dataclass(frozen=True)
class Took:
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


def read_minutes(text: str) -> float | None:
    """Minutes as people write them: "12", "12 min", "0.5 h", "1h 20min".

    Args:
        text: as typed.

    Returns:
        Minutes; None for nothing.

    Raises:
        InputError: ``minutes``: it is no time.
    """
    tidy = " ".join(text.lower().replace(",", ".").split())
    if not tidy:
        return None
    read = _TIME.fullmatch(tidy)
    if read is None or not any(read.groups()):
        raise InputError("minutes", f'"{text}" is no time. Write it like 12, 40 min or 1.5 h.')
    hours, minutes = (float(part or 0) for part in read.groups())
    found = hours * 60 + minutes
    if not 0 <= found < 60 * 24 * 30:
        raise InputError("minutes", f'"{text}" is no time at a bench. Write it like 12, 40 min or 1.5 h.')
    return found


def learnt(recorded: Mapping[Kind, Sequence[float]]) -> dict[Kind, Took]:
    """What each kind of work takes.

    Args:
        recorded: minutes of single lamps.

    Returns:
        By kind; the median of three or more, else what is usual.
    """
    return {kind: _took(kind, [m for m in recorded.get(kind, ()) if m > 0]) for kind in KINDS}


def _took(kind: Kind, minutes: Sequence[float]) -> Took:
    if len(minutes) < ENOUGH:
        usual = USUAL_MIN[kind]
        line = f"usual, ours: {len(minutes)} of {ENOUGH} recorded"
        return Took(kind, KINDS[kind], usual, usual, usual, len(minutes), line)
    low, middle, high = quantiles(minutes, n=4, method="inclusive")
    line = f"median of {len(minutes)} here, {low:.0f} to {high:.0f} min in the middle half"
    return Took(kind, KINDS[kind], median(minutes), low, high, len(minutes), line) if middle else _took(kind, ())
