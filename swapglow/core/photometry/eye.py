"""What an eye wants and can tell, learnt from its verdicts.

Light is counted in octaves, powers of two, for eyes go by ratio. An eye wants some light w. Shown l, it calls that
too bright, too dim or right: right within a half step of w, and with a doubt of its own about where that ends. Each
verdict multiplies what was believed of w by how likely it was (Bayes). From memory one step is some half an octave,
1.4 : 1 being hardly noticed and 2 : 1 plain on a dial; side by side a fifth is seen (common practice, people
differ).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import scipy
from numpy.typing import NDArray

from swapglow.core.design.trial import Verdict

FloatArray = NDArray[np.float64]

_GRID = np.linspace(-20.0, 20.0, 1601)
# Half of what an eye calls right, and its doubt, octaves (from the ratios above).
HALF_STEP = 0.4
DOUBT = 0.3
# What is believed before the first verdict, octaves: of a lamp put where another was, and of one of which nothing
# is known (trade: 20 mA by the book, 0.05 to 5 mA in the end).
BESIDE_OLD = 1.5
OF_NOTHING = 2.5
# A step from memory before anybody was asked, and how far people differ, natural logarithms.
STEP = 0.5
_STEP_SPREAD = 0.5
_STEP_GRID = np.geomspace(0.05, 4.0, 240)
_TELLS = 0.15


@dataclass(frozen=True)
class Belief:
    """What is believed of the light an eye wants.

    Attributes:
        median: octaves.
        low, high: the fifth and the ninety-fifth part.
    """

    median: float
    low: float
    high: float


def _log_likelihood(shown: float, verdict: Verdict) -> FloatArray:
    """In logarithms: verdicts that contradict each other leave next to nothing anywhere, but never nothing."""
    bright = (shown - _GRID - HALF_STEP) / DOUBT
    dim = (_GRID - shown - HALF_STEP) / DOUBT
    if verdict == "bright":
        return np.asarray(scipy.special.log_ndtr(bright))
    if verdict == "dim":
        return np.asarray(scipy.special.log_ndtr(dim))
    # Neither: 1 − Φ(bright) − Φ(dim), by its nearer edge where that is all that is left.
    edge = scipy.special.log_ndtr(-np.maximum(bright, dim))
    between = np.log(np.maximum(1 - scipy.special.ndtr(bright) - scipy.special.ndtr(dim), 1e-300))
    return np.asarray(np.where(np.maximum(bright, dim) > 5, edge, between))


def _shares(log_weight: FloatArray) -> FloatArray:
    """The share of a belief up to each place of its grid."""
    weight = np.exp(log_weight - log_weight.max())
    return np.asarray(np.cumsum(weight) / weight.sum())


def believe(expected: float, spread: float, seen: Sequence[tuple[float, Verdict]]) -> Belief:
    """What is believed after some verdicts.

    Args:
        expected, spread: what was believed before, octaves: middle and standard deviation.
        seen: light shown, octaves, and what was said. Verdicts on colour and evenness say nothing of light, and
            are passed over.

    Returns:
        The belief.
    """
    centre = expected
    weight = -0.5 * ((_GRID + centre - expected) / spread) ** 2
    for shown, verdict in seen:
        if verdict in ("bright", "dim", "right"):
            weight = weight + _log_likelihood(shown - centre, verdict)
    share = _shares(weight)
    low, middle, high = (float(np.interp(p, share, _GRID)) + centre for p in (0.05, 0.5, 0.95))
    return Belief(middle, low, high)


def step_of(same: Sequence[float], told: Sequence[float]) -> float:
    """The step an eye tells from memory in this place, octaves.

    Args:
        same: differences at which no change was seen, octaves.
        told: differences at which one was.

    Returns:
        The middle of what is believed.
    """
    log = np.log(_STEP_GRID / STEP)
    weight = -0.5 * (log / _STEP_SPREAD) ** 2
    for apart in same:
        weight = weight + scipy.special.log_ndtr((_STEP_GRID - abs(apart)) / _TELLS)
    for apart in told:
        weight = weight + scipy.special.log_ndtr((abs(apart) - _STEP_GRID) / _TELLS)
    share = _shares(weight)
    return float(np.interp(0.5, share, _STEP_GRID))


def step_told(seen: Sequence[tuple[float, Verdict]]) -> float:
    """The step an eye tells, from trials in their order: another verdict is a change that was seen.

    Args:
        seen: light shown, octaves, and what was said.

    Returns:
        As :func:`step_of`.
    """
    same: list[float] = []
    told: list[float] = []
    for (before, was), (now, verdict) in pairwise(seen):
        if verdict == "same":
            same.append(now - before)
        elif was != "same" and verdict != was and now != before:
            told.append(now - before)
    return step_of(same, told)
