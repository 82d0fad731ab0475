"""Which reading next would tell best what is wrong, by what each suspect would make it show."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import Solution
from swapglow.core.faults.metered import comparable
from swapglow.core.faults.predict import Predicted, predict
from swapglow.core.faults.suspect import Suspect
from swapglow.core.measurement.reading_after import (
    DIODE_RANGE,
    KINDS,
    ON_AC,
    POWER_OFF,
    WARM,
    ReadingAfter,
    ReadingKind,
)

FloatArray = NDArray[np.float64]

# Ours: what a reading costs in trouble, beside the share of rightness it brings. A loop that is opened or a lead
# that is lifted is dearer than two probes held somewhere.
_COST: dict[ReadingKind, float] = {"current": 0.05, "resistor_ohms": 0.05, "led_straight": 0.03, "led_turned": 0.03}
_PROBES = 0.01
# One lead stays on ground, the other walks along the loop (common practice): four volts in one go.
WALK: tuple[ReadingKind, ...] = ("supply_volts", "plus_volts", "led_volts", "minus_volts")
WALK_ON_AC: tuple[ReadingKind, ...] = ("supply_volts", "lamp_volts", "led_volts")
# Less than this is no reason to take a reading.
_LEAST_GAIN = 0.02
# Suspects of less are not asked about.
_FEWEST = 1e-3
_MOST = 40


@dataclass(frozen=True)
class Asked:
    """What tells the rest apart: one reading, or a walk along the loop with one lead.

    Attributes:
        kinds: what to read.
        answers: what each would show for every fault that is still likely, by the fault's id, A, V or Ω.
        usual: what each would show with nothing wrong.
        gain: how much likelier the first of the list is to be right with it.
    """

    kinds: tuple[ReadingKind, ...]
    answers: dict[str, tuple[float, ...]]
    usual: tuple[float, ...]
    gain: float


def candidates(s: Solution, taken: Sequence[ReadingAfter]) -> list[ReadingKind]:
    """Readings that may be asked for and were not taken yet.

    Args:
        s: the solved position.
        taken: readings taken.

    Returns:
        Their kinds; nothing live where that could kill.
    """
    p = s.position
    had = {r.kind for r in taken if r.state == "on"}
    out: list[ReadingKind] = []
    for kind in KINDS:
        if kind in had or kind in WARM:
            continue
        if kind not in POWER_OFF and (p.live_danger or (p.rail.supply.alternates and kind not in ON_AC)):
            continue
        if kind in DIODE_RANGE and p.module is not None:
            continue
        if kind in ("resistor_ohms", "resistor_volts") and p.bare:
            continue
        out.append(kind)
    return out


def ask(
    s: Solution,
    every: Sequence[Suspect],
    shares: FloatArray,
    taken: Sequence[ReadingAfter],
    before: Predicted,
    *,
    walks: bool = True,
) -> Asked | None:
    """The next reading that would tell most.

    Args:
        s: the solved position.
        every: the suspects.
        shares: what is left of each, (suspects,).
        taken: readings taken.
        before: their predictions.
        walks: whether a walk along the loop counts as one reading.

    Returns:
        It, or None where no reading tells more than is known.

    Raises:
        NotConverged: a case has no answer.
    """
    kinds = candidates(s, taken)
    likely = [int(i) for i in np.argsort(-shares) if shares[i] > _FEWEST][:_MOST]
    if not kinds or len({every[i].id for i in likely}) < 2:
        return None
    weight = shares[likely] / shares[likely].sum()
    readings = [ReadingAfter(f"?{kind}", kind, 0.0, of=taken[-1].of) for kind in kinds]
    coming = predict(s, [every[0], *(every[i] for i in likely)], readings)
    read = np.array([comparable(r) for r in taken])
    names = np.array([every[i].id for i in likely])
    same = names[:, None] == names[None, :]
    now = max(float(weight[names == n].sum()) for n in set(names))
    ways: list[tuple[int, ...]] = [(k,) for k in range(len(kinds))]
    walk = WALK_ON_AC if s.position.rail.supply.alternates else WALK
    if walks and len(kept := tuple(kinds.index(kind) for kind in walk if kind in kinds)) > 1:
        ways.append(kept)
    best: Asked | None = None
    best_score = 0.0
    for way in ways:
        mean, cov = _given(before, likely, read, coming, list(way))
        gain = _right(mean, cov, weight, same) - now
        score = gain - sum(_COST.get(kinds[k], _PROBES) for k in way)
        if gain > _LEAST_GAIN and score > best_score:
            answers: dict[str, tuple[float, ...]] = {}
            for i, values in zip(likely, mean, strict=True):
                answers.setdefault(every[i].id, tuple(float(v) for v in values))
            usual = tuple(float(v) for v in coming.mean[0, list(way)])
            best, best_score = Asked(tuple(kinds[k] for k in way), answers, usual, gain), score
    return best


def _given(
    before: Predicted, likely: Sequence[int], read: FloatArray, coming: Predicted, way: list[int]
) -> tuple[FloatArray, FloatArray]:
    """The coming readings of each suspect by what those taken say of rail and parts (a normal's condition).

    Means, (suspects, readings), and their covariances, (suspects, readings, readings).
    """
    count = len(way)
    mean, covs = np.zeros((len(likely), count)), np.zeros((len(likely), count, count))
    for j, i in enumerate(likely):
        moved, new = before.moved[i], coming.moved[j + 1, way]
        cov = moved @ moved.T + np.diag(before.meter[i] ** 2)
        scale = np.sqrt(np.diag(cov))
        cross = (moved @ new.T) / scale[:, None]
        gain = np.linalg.solve(cov / scale[:, None] / scale, cross)
        off = np.clip((read - before.mean[i]) / scale, -3, 3)
        mean[j] = coming.mean[j + 1, way] + off @ gain
        covs[j] = new @ new.T - cross.T @ gain + np.diag(coming.meter[j + 1, way] ** 2)
    return mean, covs


def _right(mean: FloatArray, covs: FloatArray, weight: FloatArray, same: NDArray[np.bool_]) -> float:
    """How likely the first of the list is right after the reading, averaged over what may be wrong."""
    scale = np.sqrt(np.einsum("skk->sk", covs))
    unit = covs / scale[:, :, None] / scale[:, None, :]
    z = (mean[:, None, :] - mean[None, :, :]) / scale[None]
    inverse = np.linalg.inv(unit)
    square = np.einsum("ijk,jkl,ijl->ij", z, inverse, z)
    logs = -0.5 * np.maximum(square, 0.0) - np.log(scale).sum(axis=1) - 0.5 * np.linalg.slogdet(unit)[1]
    dense = weight * np.exp(logs - logs.max(axis=1, keepdims=True))
    return float((weight * (dense * same).sum(axis=1) / dense.sum(axis=1)).sum())
