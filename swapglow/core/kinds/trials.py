"""Trials with a load beside an LED: what worked proves that so much is enough, what failed that it is too little."""

import math
from dataclasses import dataclass

from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.quantities import InputError, show

# Trials are gone on with while the two ends are further apart than this (ours: two steps of E12).
_SETTLED = 1.5


def tried(details: Details, worked: Detail, failed: Detail) -> tuple[float | None, float | None]:
    """The loads that were tried.

    Args:
        details: what was typed.
        worked, failed: the largest load resistor that did, and the least that did not.

    Returns:
        Both in Ω; None where none was tried.

    Raises:
        InputError: one cannot be read, or the larger resistor, which draws less, is said to have done.
    """
    did, did_not = details.value(worked.id), details.value(failed.id)
    if did is not None and did_not is not None and did >= did_not:
        assert worked.unit is not None
        raise InputError(
            worked.id,
            f"{show(did, worked.unit)} draws less than {show(did_not, worked.unit)}, which was not enough: "
            "the two are exchanged.",
        )
    return did, did_not


@dataclass(frozen=True)
class Bounds:
    """Between which two values something turns.

    Attributes:
        short: so little is surely too little.
        enough: so much is surely enough.
    """

    short: float
    enough: float

    def covers(self, has: float) -> bool:
        """Whether so much is surely enough."""
        return has >= self.enough * (1 - 1e-9)

    def misses(self, has: float) -> bool:
        """Whether so much is surely too little."""
        return has <= self.short * (1 + 1e-9)

    @property
    def settled(self) -> bool:
        """Whether a further trial tells little."""
        return self.enough <= _SETTLED * self.short

    @property
    def try_next(self) -> float:
        """The value to try next: it halves, in logarithms, what is not known."""
        return math.sqrt(self.short * self.enough)
