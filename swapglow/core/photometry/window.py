"""Light on a window or a dial from the sources behind or before it: how much, and how evenly."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.design.looks import Looks
from swapglow.core.photometry.beam import Beam

FloatArray = NDArray[np.float64]

COLUMNS, ROWS = 48, 32
# More sources than this are drawn as so many, each with its share.
_MOST_SOURCES = 40
# White paint (from memory).
WHITE = 0.8


@dataclass(frozen=True, eq=False)
class Lit:
    """What arrives for one candela on axis of one source.

    Attributes:
        lumens: on the whole of it, of one source of those there, lm per cd.
        grid: illuminance beside its mean over the face, (ROWS, COLUMNS); 0 outside the face.
        evenness: the least beside the mean.
        hot: the most beside the mean.
    """

    lumens: float
    grid: FloatArray
    evenness: float
    hot: float


# Of what one candela sends out, less than so much is nothing, and smaller numbers are no longer numbers.
_NOTHING = 1e-200


@lru_cache(maxsize=256)
def lit(looks: Looks, beam: Beam, sources: int) -> Lit:
    """Illuminance over a face by the inverse square: E = Σ I(θ)·cosθ/r², each source facing it.

    In a box with white walls, what misses the face is thrown about until it leaves by the face or is lost in the
    walls, as in an integrating sphere (textbook).

    Args:
        looks: the geometry.
        beam: of each source.
        sources: how many, side by side in the width.

    Returns:
        What arrives.
    """
    width, height = looks.size_m
    deep = looks.away_m
    count = min(sources, _MOST_SOURCES)
    pitch = looks.spacing_m or width / count
    at = (np.arange(count) - (count - 1) / 2) * pitch
    x = (np.arange(COLUMNS) + 0.5) / COLUMNS * width - width / 2
    y = (np.arange(ROWS) + 0.5) / ROWS * height - height / 2
    square = (x[None, :, None] - at) ** 2 + y[:, None, None] ** 2 + deep**2
    cos = deep / np.sqrt(square)
    each = cos / square if beam.power is None else cos ** (beam.power + 1) / square
    grid = each.mean(axis=2)
    face = np.ones((ROWS, COLUMNS), dtype=bool)
    if looks.shape == "round":
        face = (2 * x[None, :] / width) ** 2 + (2 * y[:, None] / height) ** 2 <= 1
    area = width * height * float(face.mean())
    lumens = float(grid[face].mean()) * area
    if looks.white_box and looks.how == "window":
        walls = 2 * (width + height) * deep + width * height
        missed = max(0.0, beam.lumens_per_candela - lumens) * WHITE
        more = missed * area / (area + (1 - WHITE) * walls)
        grid, lumens = grid + more / area, lumens + more
    if lumens <= _NOTHING:
        # All stand so far beside the window, or shine so narrowly past it, that nothing arrives.
        return Lit(0.0, np.zeros((ROWS, COLUMNS)), 0.0, 0.0)
    shown = np.where(face, grid, 0.0) / (lumens / area)
    return Lit(lumens * beam.kept, shown, float(shown[face].min()), float(shown[face].max()))
