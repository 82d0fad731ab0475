"""Two lamps in one photograph with its exposure locked: their ratio of light, their evenness, their colours.

What both went through cancels: exposure, aperture, distance. What does not is the camera's own tone curve, which is
not quite sRGB, and its filters, which weigh an LED's narrow light otherwise than an eye does. Both are in the doubt.
"""

import math
from dataclasses import dataclass

import numpy as np
import scipy
from numpy.typing import NDArray

from swapglow.core.photographs.linear import CLIPPED, DARK, FloatArray, Picture, linear, luminance, xyz
from swapglow.core.photometry.screen import oklab
from swapglow.core.quantities import InputError

# So many pixels of a lamp may stand at the camera's white before its light is not known.
_CLIPPED_SHARE = 0.005
# Doubt of any photographed ratio, of a tone curve per factor between the two, and of colours one gamut apart;
# natural logarithms (common practice: phones bend their curve by a tenth to a fifth).
_OWN, _CURVE, _COLOUR = 0.12, 0.15, 0.8
_FAR_APART = 0.25
# A tilted or thick rim is not the lamp's evenness: what is under a fifth of its brightest part is left out.
_LIT = 0.2
# What stands out of the ground by less of its noise is none.
_OVER_NOISE = 4.0
# The widest side of what is searched for lamps.
_COARSE = 400


@dataclass(frozen=True)
class Spot:
    """A circle on a photograph, in shares of its width.

    Attributes:
        x, y: of its middle, from the left and from the top.
        r: its radius.

    Raises:
        InputError: ``spots``: it lies outside, or is none.
    """

    x: float
    y: float
    r: float

    def __post_init__(self) -> None:
        if not (0 <= self.x <= 1 and 0 <= self.y <= 4 and 0.002 <= self.r <= 0.5):
            raise InputError("spots", "A lamp's circle lies on the photograph, and is up to half as wide as it.")


@dataclass(frozen=True)
class SeenLamp:
    """One lamp as it was photographed.

    Attributes:
        light: its light over the ground's, summed over its circle; the camera's own unit.
        evenness: its dimmest tenth beside its mean.
        lab: its mean colour in Oklab at lightness 1, a and b.
    """

    light: float
    evenness: float
    lab: tuple[float, float]


@dataclass(frozen=True)
class TwoInOne:
    """What one photograph says of two lamps.

    Attributes:
        ratio: light of the second beside the first's.
        doubt: the factor that it may be off by, either way.
        first, second: each of them.
        apart: how far their colours are apart in Oklab's a and b.
        spots: the circles that were measured.
    """

    ratio: float
    doubt: float
    first: SeenLamp
    second: SeenLamp
    apart: float
    spots: tuple[Spot, Spot]


def two_in_one(picture: Picture, spots: tuple[Spot, Spot] | None = None) -> TwoInOne:
    """Compare two lamps in one photograph.

    Args:
        picture: its bytes, (rows, columns, 3).
        spots: the old lamp and the new one; None looks for the two brightest, the left one being the old.

    Returns:
        The comparison.

    Raises:
        InputError: ``photo``: a lamp is clipped, too dark, or not found; ``spots``: the circles overlap.
    """
    first, second = found(picture) if spots is None else spots
    if math.hypot(first.x - second.x, first.y - second.y) < (first.r + second.r) * 0.98:
        raise InputError("spots", "The two circles overlap: put one on each lamp, and make them smaller.")
    old = _seen(picture, first, "old lamp")
    new = _seen(picture, second, "new lamp")
    ratio = new.light / old.light
    apart = math.dist(old.lab, new.lab)
    doubt = math.exp(math.hypot(_OWN, _CURVE * abs(math.log(ratio)), _COLOUR * min(apart / _FAR_APART, 1.0)))
    return TwoInOne(ratio, doubt, old, new, apart, (first, second))


def _seen(picture: Picture, spot: Spot, name: str) -> SeenLamp:
    part, inside, ring = _cut(picture, spot)
    pixels = part[inside]
    if not len(pixels):
        raise InputError("spots", f"The circle of the {name} lies outside the photograph.")
    brightest = pixels.max(axis=1)
    if (brightest >= CLIPPED).mean() > _CLIPPED_SHARE:
        raise InputError(
            "photo",
            f"The {name} is clipped: part of it is as white as the camera goes, so its light is not known. "
            "Shorten the exposure, keep it locked, and take both again.",
        )
    light = luminance(part)
    ground = float(np.median(light[ring])) if ring.any() else 0.0
    own = light[inside] - ground
    noise = float(np.std(light[ring])) if ring.any() else 0.0
    if np.percentile(brightest, 99) < DARK or np.percentile(own, 90) <= max(_OVER_NOISE * noise, 0.0):
        raise InputError(
            "photo",
            f"The {name} is too dark beside the camera's noise. Lengthen the exposure, keep it locked, and "
            "take both again.",
        )
    # The median of each place's surroundings: grain is no unevenness, and an edge stays an edge.
    calm = (
        scipy.ndimage.median_filter(light, size=int(np.clip(spot.r * picture.shape[1] / 10, 1, 9)) | 1)[inside] - ground
    )
    face = calm[calm > _LIT * np.percentile(calm, 99)]
    colour = (linear(pixels) - _ground_rgb(part, ring)).sum(axis=0)
    lab = oklab(xyz(np.maximum(colour, 0.0)))
    evenness = float(np.sort(face)[: max(len(face) // 10, 1)].mean() / face.mean())
    return SeenLamp(float(own.sum()), evenness, (float(lab[1] / lab[0]), float(lab[2] / lab[0])))


def _ground_rgb(part: Picture, ring: NDArray[np.bool_]) -> FloatArray:
    return np.asarray(np.median(linear(part[ring]), axis=0)) if ring.any() else np.zeros(3)


def _cut(picture: Picture, spot: Spot) -> tuple[Picture, NDArray[np.bool_], NDArray[np.bool_]]:
    """The part around a circle, what lies inside, and the ring around it that shows the ground."""
    rows, columns = picture.shape[:2]
    x, y, r = spot.x * columns, spot.y * columns, max(spot.r * columns, 1.5)
    wide = r * 1.5
    top, left = max(int(y - wide), 0), max(int(x - wide), 0)
    part = picture[top : min(int(y + wide) + 1, rows), left : min(int(x + wide) + 1, columns)]
    down, across = np.ogrid[: part.shape[0], : part.shape[1]]
    away = np.hypot(down + top + 0.5 - y, across + left + 0.5 - x)
    return part, away <= r, (away > r * 1.2) & (away <= wide)


def found(picture: Picture) -> tuple[Spot, Spot]:
    """The two brightest things in a photograph that stand apart, the left one first.

    Args:
        picture: its bytes, (rows, columns, 3).

    Returns:
        A circle around each, both of one size.

    Raises:
        InputError: ``photo``: there are no two.
    """
    step = max(math.ceil(max(picture.shape[:2]) / _COARSE), 1)
    light = luminance(picture[::step, ::step])
    ground = float(np.median(light))
    noise = 1.48 * float(np.median(np.abs(light - ground)))
    least = ground + max(_OVER_NOISE * noise, 0.002)
    for over in (max(0.15 * float(np.percentile(light, 99.9)), least), least):
        # One lamp may be a hundredth of the other: then it stands over the ground only.
        marks, many = scipy.ndimage.label(scipy.ndimage.binary_opening(light > over, iterations=1))
        if many >= 2:
            break
    else:
        raise InputError(
            "photo",
            "No two lamps stand out in it: take them beside each other before something dark, or put the "
            "circles on them by hand.",
        )
    sums = scipy.ndimage.sum_labels(light, marks, np.arange(1, many + 1))
    two = np.sort(np.argsort(sums)[-2:] + 1)
    middles = [(float(y), float(x)) for y, x in scipy.ndimage.center_of_mass(light, marks, two)]  # type: ignore[misc]  # two lengths
    columns = picture.shape[1]
    radius = max(math.sqrt(float((marks == k).sum()) / math.pi) for k in two) * step * 1.25 / columns
    (y0, x0), (y1, x1) = sorted(middles, key=lambda m: m[1])
    apart = math.hypot(x1 - x0, y1 - y0) * step / columns
    r = min(max(radius, 0.004), 0.5, apart * 0.48)
    return (
        Spot((x0 + 0.5) * step / columns, (y0 + 0.5) * step / columns, r),
        Spot((x1 + 0.5) * step / columns, (y1 + 0.5) * step / columns, r),
    )
