"""From a photograph's numbers back to light."""

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
Picture = NDArray[np.uint8]

# A channel from here on may stand for any light above it: cameras round their white off.
CLIPPED = 250
# Below this a number is mostly the camera's own noise.
DARK = 12

# Linear sRGB to CIE XYZ, D65 (IEC 61966-2-1).
_TO_XYZ = np.array(
    [[0.4124564, 0.3575761, 0.1804375], [0.2126729, 0.7151522, 0.0721750], [0.0193339, 0.1191920, 0.9503041]]
)


def _curve() -> FloatArray:
    v = np.arange(256) / 255
    return np.asarray(np.where(v <= 0.04045, v / 12.92, ((v + 0.055) / 1.055) ** 2.4))


_LINEAR = _curve()


def linear(picture: Picture) -> FloatArray:
    """Red, green and blue light of a picture's bytes, 1 for white (sRGB, IEC 61966-2-1); same shape."""
    return np.asarray(_LINEAR[picture])


def luminance(picture: Picture) -> FloatArray:
    """Relative luminance of each pixel, 1 for white; (rows, columns) of (rows, columns, 3)."""
    return np.asarray(linear(picture) @ _TO_XYZ[1])


def xyz(light: FloatArray) -> FloatArray:
    """Tristimulus values of linear red, green and blue, (3,)."""
    return np.asarray(_TO_XYZ @ light)


def picture_of(rgb: bytes, columns: int, rows: int) -> Picture:
    """A picture from its bytes.

    Args:
        rgb: red, green and blue of each pixel, row by row.
        columns, rows: how many.

    Returns:
        (rows, columns, 3).
    """
    return np.frombuffer(rgb, dtype=np.uint8).reshape(rows, columns, 3)
