"""What an eye says of a lamp: dark, faint, partly lit or lit, by its light beside what it should be.

Without a lamp beside it for comparison, a quarter of the usual light is called faint, and some 1/250 of it cannot be
seen (common practice; people and rooms differ).
"""

import numpy as np
import scipy
from numpy.typing import NDArray

from swapglow.core.measurement.reading_after import SEEN

FloatArray = NDArray[np.float64]

# A prediction of this stands for a lamp of which some LEDs are dark, and others lit.
PART = 1e6
# From so many octaves under its usual light a lamp is called faint, and dark; and the spread of each (ours).
_FAINT, _FAINT_DOUBT = -2.0, 0.5
_DARK, _DARK_DOUBT = -8.0, 1.5
# How often the answer is wrong, or of another lamp.
_SLIP = 0.03


def chances(ratio: FloatArray) -> FloatArray:
    """How likely each answer is.

    Args:
        ratio: light beside what it should be, or :data:`PART`, of any shape.

    Returns:
        In the order of :data:`SEEN`, (4, ...).
    """
    octaves = np.log2(np.maximum(np.where(ratio >= PART, 1.0, ratio), 1e-12))
    lit = scipy.special.ndtr((octaves - _FAINT) / _FAINT_DOUBT)
    dark = scipy.special.ndtr((_DARK - octaves) / _DARK_DOUBT)
    part = np.asarray(ratio >= PART, dtype=float)
    each = np.stack([dark * (1 - part), np.maximum(1 - lit - dark, 0.0) * (1 - part), part, lit * (1 - part)])
    return np.asarray(each / each.sum(axis=0) * (1 - _SLIP) + _SLIP / len(SEEN))


def likeliest(ratio: float) -> str:
    """What is most likely seen.

    Args:
        ratio: as for :func:`chances`.

    Returns:
        One of :data:`SEEN`.
    """
    return list(SEEN)[int(chances(np.array(ratio)).argmax())]
