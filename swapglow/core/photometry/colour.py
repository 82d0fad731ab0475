"""Colour of a spectrum, lightness of a light, and how to paint both on a screen."""

import numpy as np
from numpy.typing import NDArray

from swapglow.core.photometry.spectrum import observer

FloatArray = NDArray[np.float64]

# CIE XYZ to linear sRGB (IEC 61966-2-1).
_TO_SRGB = np.array(
    [
        [3.2406, -1.5372, -0.4986],
        [-0.9689, 1.8758, 0.0415],
        [0.0557, -0.2040, 1.0570],
    ]
)


def tristimulus(power: FloatArray) -> FloatArray:
    """XYZ of a spectrum on the observer's grid, shape (3,), scaled to Y = 1 (CIE 015)."""
    _, bars = observer()
    xyz = power @ bars
    return np.asarray(xyz / xyz[1])


def lightness(relative: float | FloatArray) -> FloatArray:
    """L* of a luminance relative to white: 116·(Y/Yn)^(1/3) − 16, linear near black (CIE 1976)."""
    y = np.maximum(np.asarray(relative, dtype=float), 0.0)
    return np.asarray(np.where(y > (6 / 29) ** 3, 116 * np.cbrt(y) - 16, y * (29 / 3) ** 3))


def screen_colour(xyz: FloatArray, relative: float) -> str:
    """#rrggbb of a light of these tristimulus values (Y = 1) at a luminance relative to white.

    An LED is purer than a screen's primaries. Where red or blue would have to be taken away, white
    is mixed in until neither is, which keeps amber from turning red; where green would, it is
    clipped, for white would turn a red pink. Encoding as IEC 61966-2-1.

    Args:
        xyz: tristimulus values, (3,).
        relative: luminance relative to white, 0 to 1.

    Returns:
        The colour.
    """
    linear = _TO_SRGB @ xyz
    lack = max(0.0, -float(min(linear[0], linear[2])))
    linear = np.maximum(linear + lack, 0.0)
    # The hue at full drive, then the lightness asked for.
    hue = linear / linear.max()
    level = float(np.clip(relative, 0.0, 1.0))
    shown = np.clip(hue * level, 0.0, 1.0)
    encoded = np.where(shown <= 0.0031308, 12.92 * shown, 1.055 * shown ** (1 / 2.4) - 0.055)
    return "#" + "".join(f"{round(float(c) * 255):02x}" for c in encoded)
