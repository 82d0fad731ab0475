"""Fuses: the values that are made, how far one is loaded, and what one stands at a start."""

from dataclasses import dataclass

from swapglow.core.quantities import AMPERE, show

# A fuse is loaded to three quarters of its rating at most (common practice).
LOADED = 0.75

# I²t at which a miniature fuse melts, beside the square of its rating, s: quick (F) and time-lag (T); the least of
# usual parts (data sheets of 5 x 20 mm fuses, from memory). Half of it, again and again, ages none (common practice).
_QUICK_S, _LAG_S = 0.4, 4.0
_AGAIN = 0.5

# Ratings of miniature fuses, A (IEC 60127-2, the R10 series from 32 mA to 10 A; from memory).
RATINGS_A = (
    0.032,
    0.04,
    0.05,
    0.063,
    0.08,
    0.1,
    0.125,
    0.16,
    0.2,
    0.25,
    0.315,
    0.4,
    0.5,
    0.63,
    0.8,
    1.0,
    1.25,
    1.6,
    2.0,
    2.5,
    3.15,
    4.0,
    5.0,
    6.3,
    8.0,
    10.0,
)


def stands_i2t(rated_a: float, *, time_lag: bool) -> float:
    """The I²t that a fuse takes at every switching on.

    Args:
        rated_a: its rating, A.
        time_lag: whether it is a T type; otherwise an F type.

    Returns:
        A²s.
    """
    return (_LAG_S if time_lag else _QUICK_S) * _AGAIN * rated_a**2


@dataclass(frozen=True)
class Fuse:
    """A fuse to fit.

    Attributes:
        rated_a: its rating, A.
        time_lag: whether it must be a T type; an F type will do otherwise.
    """

    rated_a: float
    time_lag: bool

    @property
    def text(self) -> str:
        """As it is asked for: "32 mA", "315 mA, time-lag"."""
        return show(self.rated_a, AMPERE) + (", time-lag" if self.time_lag else "")


def fuse_for(amps: float, let_through: float = 0.0) -> Fuse | None:
    """The smallest fuse that carries a current for good and stands what is let through at every start.

    Args:
        amps: the most that flows for long, A.
        let_through: I²t of the first charge, A²s.

    Returns:
        The fuse; None past the largest.
    """
    for rated in RATINGS_A:
        for time_lag in (False, True):
            stands = let_through <= stands_i2t(rated, time_lag=time_lag)
            if amps <= rated * LOADED * (1 + 1e-9) and stands:
                return Fuse(rated, time_lag)
    return None
