"""A curve through few solved points, where each costs a cycle."""

from itertools import pairwise

import numpy as np
import scipy
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]

# Where a cubic between points is looked at, to see that it keeps to their order.
_BETWEEN = 8


def joined(x: FloatArray, y: FloatArray, at: FloatArray) -> FloatArray:
    """A smooth curve through points, read at places.

    A cubic spline is the nearer where all is smooth. Where it leaves the order of its points, at a knee or
    where values repeat, it would show what no circuit does: there a monotone one stands in (Fritsch and
    Carlson 1980).

    Args:
        x: places of the points, strictly rising, (k,).
        y: values there, (..., k).
        at: places wanted, (m,).

    Returns:
        Values there, (..., m).
    """
    fine = np.unique(np.concatenate([np.linspace(a, b, _BETWEEN) for a, b in pairwise(x)]))
    smooth = scipy.interpolate.CubicSpline(x, y, axis=-1)
    steps, ends = np.diff(smooth(fine), axis=-1), np.diff(y, axis=-1)
    rises, falls = (ends >= 0).all(axis=-1), (ends <= 0).all(axis=-1)
    kept = np.where(rises, (steps >= 0).all(axis=-1), np.where(falls, (steps <= 0).all(axis=-1), True))
    return np.asarray(np.where(kept[..., None], smooth(at), scipy.interpolate.PchipInterpolator(x, y, axis=-1)(at)))
