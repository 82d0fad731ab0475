"""Causes that read the same from every place a probe may be held are one cause: no reading tells which it is."""

from collections.abc import Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import Solution
from swapglow.core.evidence.by_eye import chances
from swapglow.core.evidence.infer import Inference, Posterior, noise, slip_of
from swapglow.core.evidence.next_reading import candidates, picked
from swapglow.core.evidence.predict import UNKNOWNS, Draws, is_dear, predict
from swapglow.core.measurement.reading_after import LOOKS, ReadingAfter

FloatArray = NDArray[np.float64]

# Of the causes so many are compared, each of at least this share, at so many draws.
_MOST, _LEAST, _DRAWS, _FEW_DRAWS = 12, 0.005, 5, 3
# Closer than so many sigmas of meter and doubt together is the same to a meter (ours); to an eye, by its chances.
_SAME, _SAME_TO_AN_EYE = 1.5, 0.25
# A normal's sigma by its median absolute deviation.
_SIGMA = 1.4826


def grouped(s: Solution, known: Inference, taken: Sequence[ReadingAfter]) -> dict[str, tuple[str, ...]]:
    """Which causes no reading tells apart.

    Args:
        s: the solved position.
        known: what may be so.
        taken: readings taken, at least one.

    Returns:
        By each group's likeliest cause all of its causes, that one first. What is sound, or needs a slip of the
        hand, stands alone; what is too unlikely to be compared is left out.
    """
    likeliest: dict[str, Posterior] = {}
    for q in known.posteriors:
        if not q.of.sound and slip_of(q) is None and q.share >= _LEAST:
            likeliest.setdefault(q.of.cause, q)
    causes = list(likeliest)[:_MOST]
    alone: dict[str, tuple[str, ...]] = {c: (c,) for c in causes}
    kinds = candidates(s, ())
    if len(causes) < 2 or not kinds:
        return alone
    readings = [ReadingAfter(f"?{kind}", kind, 0.0, of=taken[-1].of) for kind in kinds]
    count = _FEW_DRAWS if is_dear(s) else _DRAWS
    sound = next(q.of for q in known.posteriors if q.of.id == "sound")
    draws = [*(picked(likeliest[c], count) for c in causes), Draws(sound, np.zeros((1, len(UNKNOWNS))))]
    *shown, usual = predict(s, draws, readings)
    out: dict[str, list[str]] = {}
    reads: dict[str, FloatArray] = {}
    for cause, own in zip(causes, shown, strict=True):
        first = next((c for c in out if _same(s, reads[c], own, np.abs(usual[0]), readings)), None)
        reads[cause] = own
        out.setdefault(cause if first is None else first, []).append(cause)
    return {c: tuple(own) for c, own in out.items()}


def together(shares: Mapping[str, float], same: Mapping[str, tuple[str, ...]]) -> dict[str, float]:
    """The shares of causes, those that read the same added up under the likeliest of them.

    Args:
        shares: by the cause's id.
        same: as :func:`grouped` found them.

    Returns:
        Shares, the likeliest first.
    """
    others = {c for own in same.values() for c in own[1:]}
    told = {c: sum(shares[m] for m in same.get(c, (c,))) for c in shares if c not in others}
    return dict(sorted(told.items(), key=lambda item: -item[1]))


def _same(s: Solution, a: FloatArray, b: FloatArray, usual: FloatArray, readings: Sequence[ReadingAfter]) -> bool:
    """Whether no reading tells two causes apart, by what each shows at some draws, (draws, readings)."""
    if not (np.isfinite(a).all() and np.isfinite(b).all() and np.isfinite(usual).all()):
        return False
    looks = [k for k, r in enumerate(readings) if r.kind in LOOKS]
    if any(
        np.abs(chances(a[:, k]).mean(axis=0) - chances(b[:, k]).mean(axis=0)).max() > _SAME_TO_AN_EYE for k in looks
    ):
        return False
    own = [k for k in range(len(readings)) if k not in looks]
    # By medians: a draw that a slip of the hand explains lies far from the others.
    first, second = np.abs(a[:, own]), np.abs(b[:, own])
    middles = np.median(first, axis=0), np.median(second, axis=0)
    spreads = [_SIGMA * np.median(np.abs(v - m), axis=0) for v, m in zip((first, second), middles, strict=True)]
    reading = [readings[k] for k in own]
    meter = noise(np.maximum(*middles)[None], usual[own], reading, alternates=s.position.rail.supply.alternates)[0]
    doubt = np.sqrt(meter**2 + spreads[0] ** 2 + spreads[1] ** 2)
    return bool((np.abs(middles[0] - middles[1]) <= _SAME * doubt).all())
