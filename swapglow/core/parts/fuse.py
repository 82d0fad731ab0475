"""Fuses: the values that are made, and how far one is loaded."""

# A fuse is loaded to three quarters of its rating at most (common practice).
LOADED = 0.75

# I²t at which a miniature fuse melts, beside the square of its rating, s: quick (F) and time-lag (T); the least of
# usual parts (data sheets of 5 x 20 mm fuses, from memory). Half of it, again and again, ages none (common practice).
_QUICK_S, _LAG_S = 0.4, 4.0
_AGAIN = 0.5

# Ratings of miniature fuses, A (IEC 60127-2, the R10 series from 32 mA to 10 A; from memory).
RATINGS_A = (
    0.032, 0.04, 0.05, 0.063, 0.08, 0.1, 0.125, 0.16, 0.2, 0.25, 0.315, 0.4, 0.5, 0.63, 0.8, 1.0, 1.25, 1.6, 2.0, 2.5,
    3.15, 4.0, 5.0, 6.3, 8.0, 10.0,
)  # fmt: skip


def stands_i2t(rated_a: float, *, time_lag: bool) -> float:
    """The I²t that a fuse takes at every switching on.

    Args:
        rated_a: its rating, A.
        time_lag: whether it is a T type; otherwise an F type.

    Returns:
        A²s.
    """
    return (_LAG_S if time_lag else _QUICK_S) * _AGAIN * rated_a**2


def fuse_for(amps: float) -> float | None:
    """The smallest fuse that carries a current for good.

    Args:
        amps: the most that flows for long, A.

    Returns:
        Its rating, A; None past the largest.
    """
    return next((r for r in RATINGS_A if amps <= r * LOADED * (1 + 1e-9)), None)
