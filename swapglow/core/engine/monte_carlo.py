"""What a circuit does over the spread of its parts: sweeps, corners, chance, sensitivities.

A *case* is a function from named values to a circuit; values may be arrays, so that one call
builds the circuit of every sample and one solve answers them all.
"""

import itertools
from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.engine.netlist import Circuit, Param
from swapglow.core.engine.operating_point import OperatingPoint, operating_point

FloatArray = NDArray[np.float64]
Case = Callable[[Mapping[str, Param]], Circuit]


@dataclass(frozen=True)
class Normal:
    """A normal distribution cut off at three deviations; ``sigma`` in the value's own unit."""

    mean: float
    sigma: float

    def draw(self, rng: np.random.Generator, count: int) -> FloatArray:
        """Samples, shape (count,)."""
        return self.mean + self.sigma * np.clip(rng.standard_normal(count), -3, 3)


@dataclass(frozen=True)
class Uniform:
    """Anything between two ends alike."""

    low: float
    high: float

    def draw(self, rng: np.random.Generator, count: int) -> FloatArray:
        """Samples, shape (count,)."""
        return rng.uniform(self.low, self.high, count)


@dataclass(frozen=True)
class Triangular:
    """Most often the typical value, never outside the ends: an LED's forward voltage."""

    low: float
    typical: float
    high: float

    def draw(self, rng: np.random.Generator, count: int) -> FloatArray:
        """Samples, shape (count,)."""
        if self.low == self.high:
            return np.full(count, self.low)
        return rng.triangular(self.low, self.typical, self.high, count)


Distribution = Normal | Uniform | Triangular


def sweep(case: Case, values: Mapping[str, Param], over: str, points: FloatArray) -> OperatingPoint:
    """Solve for every value of one parameter; shape of the answers (points,)."""
    return operating_point(case({**values, over: np.asarray(points, dtype=float)})).require()


@dataclass(frozen=True)
class Corners:
    """Every combination of ends, solved.

    Attributes:
        values: each parameter's value in each corner, shape (corners,).
        point: the solutions.
    """

    values: dict[str, FloatArray]
    point: OperatingPoint

    def worst(self, measure: FloatArray) -> tuple[dict[str, float], dict[str, float]]:
        """The parameters at which a measure (corners,) is least and most."""
        low, high = int(np.argmin(measure)), int(np.argmax(measure))
        return (
            {k: float(v[low]) for k, v in self.values.items()},
            {k: float(v[high]) for k, v in self.values.items()},
        )


def corners(case: Case, ends: Mapping[str, tuple[float, ...]]) -> Corners:
    """Solve all combinations of the given values: the true worst cases, none assumed."""
    combined = np.array(list(itertools.product(*ends.values())), dtype=float)
    values = {name: combined[:, k] for k, name in enumerate(ends)}
    return Corners(values, operating_point(case(values)).require())


@dataclass(frozen=True)
class Chance:
    """A measure over many samples.

    Attributes:
        measure: shape (samples,); a sample without an answer is left out and counted.
        missing: how many have none.
    """

    measure: FloatArray
    missing: int

    def percentile(self, percent: float) -> float:
        """The value that ``percent`` % of the samples stay under."""
        return float(np.percentile(self.measure, percent))

    def share_within(self, low: float, high: float) -> float:
        """Yield: the share of all samples between two limits; one without an answer is no yield."""
        inside = int(((self.measure >= low) & (self.measure <= high)).sum())
        return inside / (self.measure.size + self.missing)


def monte_carlo(
    case: Case,
    spread: Mapping[str, Distribution],
    measure: Callable[[OperatingPoint], FloatArray],
    *,
    samples: int = 10_000,
    seed: int = 1,
) -> Chance:
    """Solve random samples, the same ones for the same seed.

    Args:
        spread: a distribution for each parameter, drawn in the order given.
        measure: what to look at, shape (samples,).
    """
    rng = np.random.default_rng(seed)
    point = operating_point(case({k: d.draw(rng, samples) for k, d in spread.items()}))
    values = measure(point)
    return Chance(values[point.converged], int((~point.converged).sum()))


def sensitivities(
    case: Case,
    values: Mapping[str, float],
    doubt: Mapping[str, tuple[float, float]],
    measure: Callable[[OperatingPoint], FloatArray],
) -> dict[str, float]:
    """How far each parameter's doubt alone moves a measure: |at its high end − at its low end|.

    Args:
        values: where all stand.
        doubt: (low, high) of each doubtful parameter.
        measure: what to look at, shape (samples,).
    """
    names = list(doubt)
    columns: dict[str, Param] = {k: np.full(2 * len(names), v) for k, v in values.items()}
    for k, name in enumerate(names):
        column = np.full(2 * len(names), values[name])
        column[2 * k], column[2 * k + 1] = doubt[name]
        columns[name] = column
    found = measure(operating_point(case(columns)).require()).reshape(-1, 2)
    return {name: float(abs(found[k, 1] - found[k, 0])) for k, name in enumerate(names)}
