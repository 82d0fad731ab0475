"""Colour of a spectrum, and the lightness of a light."""

import numpy as np
from numpy.typing import NDArray

from swapglow.core.photometry.spectrum import observer

FloatArray = NDArray[np.float64]


def tristimulus(power: FloatArray) -> FloatArray:
    """XYZ of a spectrum on the observer's grid, shape (3,), scaled to Y = 1 (CIE 015)."""
    _, bars = observer()
    xyz = power @ bars
    return np.asarray(xyz / xyz[1])


def lightness(relative: float | FloatArray) -> FloatArray:
    """L* of a luminance relative to white: 116·(Y/Yn)^(1/3) − 16, linear near black (CIE 1976)."""
    y = np.maximum(np.asarray(relative, dtype=float), 0.0)
    return np.asarray(np.where(y > (6 / 29) ** 3, 116 * np.cbrt(y) - 16, y * (29 / 3) ** 3))
