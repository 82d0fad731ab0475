"""How well each suspect explains all readings together.

Each suspect's readings are taken for normal, moved together by rail, LED and resistor (so that a high rail
explains two readings only where it explains both), each with its meter's own doubt; what a fault's size may be
is a sum over its places (Bayes' rule; a mixture of normal densities).
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.faults.predict import SIZE, Predicted
from swapglow.core.faults.suspect import Suspect

FloatArray = NDArray[np.float64]

# Ours: how often what is wrong is none of what is known here, and how far a reading may then be from the usual.
UNKNOWN = 0.3
_ANYWHERE = 1.0


@dataclass(frozen=True)
class Weighed:
    """What the readings leave of the suspects.

    Attributes:
        shares: of each suspect, (suspects,); with ``unknown`` they add up to one.
        unknown: the share of what is not known here.
    """

    shares: FloatArray
    unknown: float


def log_density(predicted: Predicted, read: FloatArray) -> FloatArray:
    """How dense each suspect's readings lie at what was read.

    Args:
        predicted: the suspects' readings.
        read: what was read, (readings,).

    Returns:
        Natural logarithms, (suspects,).
    """
    off = read[None, :] - predicted.mean
    cov = np.einsum("skj,slj->skl", predicted.moved, predicted.moved)
    k = np.arange(cov.shape[1])
    cov[:, k, k] += predicted.meter**2
    # Amps beside volts: each reading is weighed in its own sigmas.
    scale = np.sqrt(cov[:, k, k])
    unit = cov / scale[:, :, None] / scale[:, None, :]
    z = off / scale
    solved = np.linalg.solve(unit, z[..., None])[..., 0]
    _sign, logdet = np.linalg.slogdet(unit)
    return np.asarray(-0.5 * ((z * solved).sum(axis=1) + logdet) - np.log(scale).sum(axis=1))


def weigh(every: Sequence[Suspect], predicted: Predicted, read: FloatArray) -> Weighed:
    """What the readings leave of each suspect; a lamp with nothing wrong is none, for a reading was off.

    Args:
        every: the suspects, the first of them right.
        predicted: their readings.
        read: what was read, (readings,).

    Returns:
        Their shares.
    """
    logs = log_density(predicted, read) + np.log([m.weight for m in every])
    logs[0] = -np.inf
    usual = np.maximum(np.abs(predicted.mean[0]), np.abs(read) / 3 + 1e-9) * _ANYWHERE
    z = (read - predicted.mean[0]) / usual
    unknown = float(np.log(UNKNOWN) - (0.5 * z**2 + np.log(usual)).sum())
    top = max(float(logs.max()), unknown)
    shares, rest = np.exp(logs - top), float(np.exp(unknown - top))
    total = float(shares.sum()) + rest
    return Weighed(shares / total, rest / total)


def own_size(predicted: Predicted, k: int, read: FloatArray) -> float:
    """How far the size of one suspect is from its place by what was read, in its sigmas.

    Args:
        predicted: the suspects' readings.
        k: which suspect.
        read: what was read, (readings,).

    Returns:
        The likeliest (a normal's condition), never more than two.
    """
    moved = predicted.moved[k]
    cov = moved @ moved.T + np.diag(predicted.meter[k] ** 2)
    scale = np.sqrt(np.diag(cov))
    step = (moved[:, SIZE] / scale) @ np.linalg.solve(cov / scale[:, None] / scale, (read - predicted.mean[k]) / scale)
    return float(np.clip(step, -2.0, 2.0))
