"""What chance draws a part's value from: the samples of a Monte Carlo solve."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Uniform:
    """Anything between two ends alike."""

    low: float
    high: float

    def draw(self, rng: np.random.Generator, count: int) -> FloatArray:
        """Samples, shape (count,).

        Args:
            rng: where chance comes from.
            count: how many.

        Returns:
            Shape (count,), the ends' own unit.
        """
        return rng.uniform(self.low, self.high, count)


@dataclass(frozen=True)
class Triangular:
    """Most often the typical value, never outside the ends: an LED's forward voltage."""

    low: float
    typical: float
    high: float

    def draw(self, rng: np.random.Generator, count: int) -> FloatArray:
        """Samples, shape (count,).

        Args:
            rng: where chance comes from.
            count: how many.

        Returns:
            Shape (count,), the ends' own unit.
        """
        if self.low == self.high:
            return np.full(count, self.low)
        return rng.triangular(self.low, self.typical, self.high, count)
