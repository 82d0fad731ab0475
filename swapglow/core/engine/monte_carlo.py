"""What chance draws a part's value from, and even draws for a Monte Carlo solve."""

from dataclasses import dataclass

import numpy as np
import scipy
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Uniform:
    """Anything between two ends alike."""

    low: float
    high: float

    def at(self, share: FloatArray) -> FloatArray:
        """The value that a share of all parts lies under.

        Args:
            share: 0 to 1, any shape.

        Returns:
            Values, the ends' own unit, shape of ``share``.
        """
        return np.asarray(self.low + share * (self.high - self.low))


@dataclass(frozen=True)
class Triangular:
    """Most often the typical value, never outside the ends: an LED's forward voltage."""

    low: float
    typical: float
    high: float

    def at(self, share: FloatArray) -> FloatArray:
        """The value that a share of all parts lies under: the inverse of the triangle's sum (textbook).

        Args:
            share: 0 to 1, any shape.

        Returns:
            Values, the ends' own unit, shape of ``share``.
        """
        span = self.high - self.low
        if span == 0:
            return np.full(share.shape, self.low)
        rise, fall = self.typical - self.low, self.high - self.typical
        return np.where(
            share < rise / span, self.low + np.sqrt(share * span * rise), self.high - np.sqrt((1 - share) * span * fall)
        )


def even_draws(dimensions: int, count: int, seed: int) -> FloatArray:
    """Points that fill a cube evenly (Sobol 1967, scrambled by Owen 1997): far steadier than dice.

    Args:
        dimensions: values drawn for each sample.
        count: how many, a power of two.
        seed: the same makes the same.

    Returns:
        0 to 1, (dimensions, count).
    """
    points = scipy.stats.qmc.Sobol(dimensions, scramble=True, rng=np.random.default_rng(seed)).random(count)
    return np.asarray(points.T)
