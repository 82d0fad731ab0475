"""Fuses: the values that are made, and how far one is loaded."""

# A fuse is loaded to three quarters of its rating at most (common practice).
LOADED = 0.75

# Ratings of miniature fuses, A (IEC 60127-2, the R10 series from 32 mA to 10 A; from memory).
RATINGS_A = (
    0.032, 0.04, 0.05, 0.063, 0.08, 0.1, 0.125, 0.16, 0.2, 0.25, 0.315, 0.4, 0.5, 0.63, 0.8, 1.0, 1.25, 1.6, 2.0, 2.5,
    3.15, 4.0, 5.0, 6.3, 8.0, 10.0,
)  # fmt: skip


def fuse_for(amps: float) -> float | None:
    """The smallest fuse that carries a current for good.

    Args:
        amps: the most that flows for long, A.

    Returns:
        Its rating, A; None past the largest.
    """
    return next((r for r in RATINGS_A if amps <= r * LOADED * (1 + 1e-9)), None)
