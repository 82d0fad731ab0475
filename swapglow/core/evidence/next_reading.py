"""Which reading next would tell most, per minute, of what may be so.

Each candidate is solved at draws of every hypothesis that is left, weighed by what was read so far; what it tells is
the mutual information between hypothesis and reading (Shannon), the meter's own doubt in it.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import Solution
from swapglow.core.evidence.by_eye import chances
from swapglow.core.evidence.infer import Inference, Posterior, noise
from swapglow.core.evidence.predict import Draws, is_dear, predict
from swapglow.core.measurement.reading_after import (
    DIODE_RANGE,
    KINDS,
    LOOKS,
    ON_AC,
    POWER_OFF,
    WARM,
    ReadingAfter,
    ReadingKind,
)

FloatArray = NDArray[np.float64]

# Ours: minutes that a reading costs, its risk counted in. A loop that is opened or a lead that is lifted is dearer than
# two probes held somewhere.
_MINUTES: dict[ReadingKind, float] = {
    "current": 2.5,
    "resistor_ohms": 2.5,
    "led_straight": 2.0,
    "led_turned": 2.0,
    "look": 0.3,
    "look_other": 3.0,
}
_PROBES, _ON_THE_WALK = 1.0, 0.6
# One lead stays on ground, the other walks along the loop (common practice): four volts in one go.
WALK: tuple[ReadingKind, ...] = ("supply_volts", "plus_volts", "led_volts", "minus_volts")
WALK_ON_AC: tuple[ReadingKind, ...] = ("supply_volts", "lamp_volts", "led_volts")
# Less than this is no reason to take a reading, nats.
_LEAST_TOLD = 0.04
# Hypotheses of less are not asked about, nor more than so many, at so many draws.
_FEWEST, _MOST, _DRAWS, _FEW_DRAWS = 0.004, 16, 8, 2


@dataclass(frozen=True)
class Asked:
    """What tells the rest apart: one reading, or a walk along the loop with one lead.

    Attributes:
        kinds: what to read.
        answers: what each would show for every cause that is still likely, by the cause's id, A, V or Ω.
        usual: what each would show with nothing wrong.
        told: what it tells, as a share of what is not known.
    """

    kinds: tuple[ReadingKind, ...]
    answers: dict[str, tuple[float, ...]]
    usual: tuple[float, ...]
    told: float


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
        metered = kind not in POWER_OFF and kind not in LOOKS
        if kind in LOOKS and p.live_danger:
            continue
        if metered and (p.live_danger or (p.rail.supply.alternates and kind not in ON_AC)):
            continue
        if kind in DIODE_RANGE and p.module is not None:
            continue
        if kind in ("resistor_ohms", "resistor_volts") and p.bare:
            continue
        out.append(kind)
    return out


def next_reading(s: Solution, known: Inference, taken: Sequence[ReadingAfter]) -> Asked | None:
    """The next reading that would tell most.

    Args:
        s: the solved position.
        known: what may be so.
        taken: readings taken.

    Returns:
        It, or None where no reading tells more than is known.
    """
    kinds = candidates(s, taken)
    likely = [q for q in known.posteriors if q.share > _FEWEST][:_MOST]
    if not kinds or len({q.of.cause for q in likely}) < 2:
        return None
    readings = [ReadingAfter(f"?{kind}", kind, 0.0, of=taken[-1].of) for kind in kinds]
    count = _FEW_DRAWS if is_dear(s) else _DRAWS
    draws = [picked(q, count) for q in likely]
    sound = next(q for q in known.posteriors if q.of.id == "sound")
    reads = predict(s, [*draws, Draws(sound.of, np.zeros((1, sound.at.shape[1])))], readings)
    *shown, usual = reads
    kept = [k for k, r in enumerate(shown) if np.isfinite(r).all()]
    if len({likely[k].of.cause for k in kept}) < 2 or not np.isfinite(usual).all():
        return None
    likely, shown = [likely[k] for k in kept], [shown[k] for k in kept]
    weight = np.array([q.share for q in likely])
    weight = weight / weight.sum()
    causes = np.array([q.of.cause for q in likely])
    unknown = _entropy([float(weight[causes == c].sum()) for c in dict.fromkeys(causes.tolist())])
    ways: list[tuple[int, ...]] = [(k,) for k in range(len(kinds))]
    ac = s.position.rail.supply.alternates
    walk = tuple(kinds.index(k) for k in (WALK_ON_AC if ac else WALK) if k in kinds)
    if len(walk) > 1:
        ways.append(walk)
    best: tuple[float, float, tuple[int, ...]] | None = None
    for way in ways:
        columns = list(way)
        if kinds[way[0]] in LOOKS:
            told = _told_by_eye([r[:, way[0]] for r in shown], weight, causes)
        else:
            seen = [r[:, columns] for r in shown]
            told = _told(seen, np.abs(usual[0, columns]), weight, causes, [readings[k] for k in columns], ac)
        each = _ON_THE_WALK if len(way) > 1 else _PROBES
        worth = told / sum(_MINUTES.get(kinds[k], each) for k in way)
        if told > _LEAST_TOLD and (best is None or worth > best[0]):
            best = worth, told, way
    if best is None:
        return None
    _, told, way = best
    answers: dict[str, tuple[float, ...]] = {}
    for q, r in zip(likely, shown, strict=True):
        answers.setdefault(q.of.cause, tuple(float(v) for v in r[:, list(way)].mean(axis=0)))
    chosen = tuple(kinds[k] for k in way)
    return Asked(chosen, answers, tuple(float(v) for v in usual[0, list(way)]), min(told / max(unknown, 1e-9), 1.0))


def picked(q: Posterior, count: int) -> Draws:
    """Some draws of a hypothesis, each standing for as much of its weight.

    Args:
        q: what readings leave of it.
        count: how many draws.

    Returns:
        The draws.
    """
    steps = (np.arange(count) + 0.5) / count
    at = np.searchsorted(np.cumsum(q.weight), steps * q.weight.sum())
    return Draws(q.of, q.at[np.minimum(at, len(q.at) - 1)])


def _entropy(shares: Sequence[float]) -> float:
    return -sum(p * float(np.log(p)) for p in shares if p > 0)


def _told_by_eye(shown: Sequence[FloatArray], weight: FloatArray, causes: NDArray[np.str_]) -> float:
    """What a look tells of the cause, nats."""
    seen = np.stack([chances(r).mean(axis=1) for r in shown])
    every = np.stack([weight[causes == c] @ seen[causes == c] for c in dict.fromkeys(causes.tolist())])
    shares = every.sum(axis=1)
    return float((every * np.log(every / shares[:, None] / every.sum(axis=0))).sum())


def _told(
    shown: Sequence[FloatArray],
    usual: FloatArray,
    weight: FloatArray,
    causes: NDArray[np.str_],
    readings: Sequence[ReadingAfter],
    ac: bool,
) -> float:
    """What readings tell of the cause, nats."""
    count = len(shown[0])
    values = np.concatenate(shown)
    own = np.repeat(weight / count, count)
    of = np.repeat(causes, count)
    spread = np.concatenate([np.broadcast_to(r.std(axis=0) / 2, r.shape) for r in shown])
    sigma = np.hypot(noise(values, usual, readings, alternates=ac), spread)
    # Every draw's density at every draw's reading, (read, under).
    z = (values[:, None, :] - values[None, :, :]) / sigma[None]
    logs = (-0.5 * z**2 - np.log(sigma)[None]).sum(axis=2)
    dense = np.exp(np.clip(logs - np.diag(logs)[:, None], -60, 60)) * own[None]
    same = of[:, None] == of[None, :]
    shares = np.array([own[of == c].sum() for c in of])
    given = (dense * same).sum(axis=1) / shares
    return float(np.maximum((own * np.log(given / dense.sum(axis=1))).sum(), 0.0))
