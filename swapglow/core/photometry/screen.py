"""How a light is painted on a screen that can show neither its purity nor its brightness.

An LED is purer than a screen's primaries and brighter than its white. What is kept is the hue and the ratio of
luminances; what gives way is purity:

* **Hue** is the angle in Oklab (B. Ottosson, 2020), in which equal angles look like equal hues. All colours of one
  hue and of one ratio of chroma to lightness, u, are multiples of each other in linear light, so that a hue is a
  line over u on which luminance is free.
* **Luminance** is painted in proportion: a lamp of half the candela has half the luminance on the screen.
* **Purity**: of that line the largest u whose red, green and blue the screen has at that luminance, and no purer
  than the light itself.

How bright the brightest lamp may be painted follows from the hues in the box: so bright that the hue which suffers
first keeps most of the purity that the screen has for it at best.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.intp]

# CIE XYZ (D65) to linear sRGB (IEC 61966-2-1), and to Oklab's cone responses (Ottosson 2020).
_TO_SRGB = np.array(
    [[3.2404542, -1.5371385, -0.4985314], [-0.9692660, 1.8760108, 0.0415560], [0.0556434, -0.2040259, 1.0572252]]
)
_TO_LMS = np.array(
    [
        [0.8189330101, 0.3618667424, -0.1288597137],
        [0.0329845436, 0.9293118715, 0.0361456387],
        [0.0482003018, 0.2643662691, 0.6338517070],
    ]
)
_TO_LAB = np.array(
    [
        [0.2104542553, 0.7936177850, -0.0040720468],
        [1.9779984951, -2.4285922050, 0.4505937099],
        [0.0259040371, 0.7827717662, -0.8086757660],
    ]
)
_FROM_LMS, _FROM_LAB = np.linalg.inv(_TO_LMS), np.linalg.inv(_TO_LAB)

_SATURATIONS = 400
# What the matrices' last digits come to: far under a step of 255.
_ROUND = 1e-4
# Of the purity a screen has for a hue at best, what a full lamp keeps.
KEPT = 0.94


def oklab(xyz: FloatArray) -> FloatArray:
    """L, a, b of tristimulus values, (3,); negative responses keep their sign (Ottosson 2020)."""
    return np.asarray(_TO_LAB @ np.cbrt(_TO_LMS @ xyz))


@dataclass(frozen=True, eq=False)
class Hue:
    """The colours of one hue that a screen has.

    Attributes:
        rgb: linear red, green and blue at luminance 1 for each purity from grey to the light's own, (n, 3).
        room: the luminance beside the screen's white up to which that purity or a larger one is had, (n,).
        brightest: the luminance up to which the hue keeps ``KEPT`` of the chroma the screen has for it at best.
        paler: whether the screen shows it plainly less pure than it is.
    """

    rgb: FloatArray
    room: FloatArray
    brightest: float
    paler: bool

    def at(self, luminance: FloatArray) -> FloatArray:
        """Linear colours at luminances.

        Args:
            luminance: beside the screen's white, (k,); over 1 it is white.

        Returns:
            (k, 3) in 0 to 1.
        """
        y = np.clip(np.asarray(luminance, dtype=float), 0.0, 1.0)
        return np.asarray(np.clip(y[:, None] * self.rgb[_purest(self.room, y)], 0.0, 1.0))


def _purest(room: FloatArray, y: FloatArray) -> IntArray:
    """Index of the largest purity that is had at each luminance; ``room`` falls."""
    return np.asarray(np.maximum(len(room) - np.searchsorted(room[::-1], y), 1) - 1)


@lru_cache(maxsize=512)
def _hue(x: float, z: float) -> Hue:
    lab = oklab(np.array([x, 1.0, z]))
    own = float(np.hypot(lab[1], lab[2]) / lab[0])
    u = np.linspace(0.0, own, _SATURATIONS)
    angle = np.arctan2(lab[2], lab[1])
    line = np.stack([np.ones_like(u), u * np.cos(angle), u * np.sin(angle)])
    xyz = _FROM_LMS @ (_FROM_LAB @ line) ** 3
    rgb = (_TO_SRGB @ (xyz / xyz[1])).T
    alone = np.where(rgb.min(axis=1) >= -_ROUND, (1 + _ROUND) / rgb.max(axis=1), 0.0)
    room = np.maximum.accumulate(alone[::-1])[::-1]
    y = np.linspace(0.02, 1.0, 99)
    at = _purest(room, y)
    # Chroma goes with the cube root of luminance along a line of one purity.
    chroma = u[at] * np.cbrt(y / xyz[1][at])
    last = int(np.flatnonzero(chroma >= KEPT * chroma.max())[-1])
    return Hue(rgb, room, float(y[last]), bool(u[at[last]] < 0.9 * own))


def hue_of(xyz: FloatArray) -> Hue:
    """The hue of tristimulus values, Y = 1."""
    return _hue(round(float(xyz[0] / xyz[1]), 4), round(float(xyz[2] / xyz[1]), 4))


def brightest(lights: Iterable[FloatArray]) -> float:
    """How bright the brightest of several lights may be painted before the hue that suffers first pales.

    Args:
        lights: tristimulus values of each, Y = 1.

    Returns:
        Luminance beside the screen's white; all of it where there is no light.
    """
    return min((hue_of(xyz).brightest for xyz in lights), default=1.0)


def encoded(rgb: FloatArray) -> tuple[str, ...]:
    """#rrggbb of linear colours, (k, 3) (IEC 61966-2-1)."""
    c = np.where(rgb <= 0.0031308, 12.92 * rgb, 1.055 * np.maximum(rgb, 0.0) ** (1 / 2.4) - 0.055)
    hexes = np.round(np.clip(c, 0.0, 1.0) * 255).astype(np.uint8).tobytes().hex()
    return tuple("#" + hexes[k : k + 6] for k in range(0, len(hexes), 6))


def screen_colours(xyz: FloatArray, luminance: FloatArray) -> tuple[str, ...]:
    """#rrggbb of a light at luminances beside the screen's white.

    Args:
        xyz: tristimulus values, (3,).
        luminance: (k,), 0 to 1; more is white.

    Returns:
        The colours.
    """
    return encoded(hue_of(xyz).at(luminance))


# A ramp's colours lie at equal steps of the cube root of luminance, which is about lightness.
RAMP = np.linspace(0.0, 1.0, 33) ** 3
