"""A resistance that is not in the drawer, made of two or three that are: in series, side by side, or both."""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]

Way = Literal["one", "series", "parallel", "series-beside", "beside-series"]
WAYS: dict[Way, str] = {
    "one": "as it is",
    "series": "one after the other",
    "parallel": "side by side",
    "series-beside": "the first two one after the other, the third across both",
    "beside-series": "the first two side by side, the third after them",
}
# More values than these are not tried three at a time: the nearest are, by ratio.
MOST_VALUES = 120
MOST_PARTS = 3
# What is shown, and no farther off than this.
_FEW, _FARTHEST = 8, 0.2


@dataclass(frozen=True)
class Combination:
    """Resistors put together.

    Attributes:
        ohms: each, in the order of its way; Ω.
        way: how they are put together.
        ohm: what they come to.
        error: how far that is from what was asked, of it; with its sign.
        shares: of the whole heat that each carries, 0 to 1, in the order of the ohms.
    """

    ohms: tuple[float, ...]
    way: Way
    ohm: float
    error: float
    shares: tuple[float, ...]

    @property
    def parts(self) -> int:
        """How many resistors."""
        return len(self.ohms)


def combine(ohms: tuple[float, ...], way: Way, target: float) -> Combination:
    """Resistors put together, and what each carries of the heat.

    In series R = a + b, side by side R = a·b/(a + b) (Ohm, Kirchhoff). The heat parts as the resistances in
    series and as the conductances side by side (Joule).

    Args:
        ohms: each, Ω, more than nought.
        way: how they are put together.
        target: what was asked, Ω.

    Returns:
        The combination.
    """
    if way in ("one", "series"):
        total = sum(ohms)
        shares = tuple(r / total for r in ohms)
    elif way == "parallel":
        total = 1 / sum(1 / r for r in ohms)
        shares = tuple(total / r for r in ohms)
    elif way == "series-beside":
        a, b, c = ohms
        total = (a + b) * c / (a + b + c)
        in_pair = c / (a + b + c)
        shares = (in_pair * a / (a + b), in_pair * b / (a + b), 1 - in_pair)
    else:
        a, b, c = ohms
        pair = a * b / (a + b)
        total = pair + c
        shares = (pair / total * b / (a + b), pair / total * a / (a + b), c / total)
    return Combination(ohms, way, total, total / target - 1, shares)


def combinations(
    target: float, drawer: Mapping[float, int | None], tolerance: float = 0.05, few: int = _FEW
) -> tuple[Combination, ...]:
    """What comes nearest to a resistance with up to three of the drawer.

    The order, in a sentence: first those that lie as near as the parts' own tolerance can tell, among them the
    fewest parts, then the one whose hottest part carries least, then the nearest.

    Args:
        target: what is asked, Ω.
        drawer: values at hand, Ω, with how many of each; None for enough.
        tolerance: of the parts, 0.05 for 5 %.
        few: how many are given.

    Returns:
        The few, the best first; none farther off than a fifth.
    """
    have = {ohm: n for ohm, n in drawer.items() if n != 0 and ohm > 0}
    near = sorted(have, key=lambda ohm: abs(math.log(ohm / target)))[:MOST_VALUES]
    found = [c for c in _all(target, np.array(sorted(near)), tolerance, few) if _enough(c, have)]
    ordered = sorted(found, key=lambda c: rank(c, tolerance))
    return tuple(ordered[:few])


def rank(c: Combination, tolerance: float) -> tuple[float, ...]:
    """Where a combination stands among others; less is better.

    Args:
        c: the combination.
        tolerance: of the parts.

    Returns:
        Steps of tolerance it is off, parts, share of the hottest, error, and its values, so that equals keep an order.
    """
    off = math.floor(abs(c.error) / tolerance * (1 - 1e-12))
    return (off, c.parts, round(max(c.shares), 6), round(abs(c.error), 9), *c.ohms)


def _enough(c: Combination, have: Mapping[float, int | None]) -> bool:
    for ohm in set(c.ohms):
        there = have[ohm]
        if there is not None and there < c.ohms.count(ohm):
            return False
    return True


def _all(target: float, values: FloatArray, tolerance: float, few: int) -> Iterable[Combination]:
    """Of each way the few best by rank, with some over for those of which there are not enough."""
    for ohm in values:
        one = combine((float(ohm),), "one", target)
        if abs(one.error) <= _FARTHEST:
            yield one
    if not len(values):
        return
    i, j = np.triu_indices(len(values))
    a, b = values[i], values[j]
    pairs: tuple[tuple[Way, FloatArray], ...] = (("series", a + b), ("parallel", a * b / (a + b)))
    for way, total in pairs:
        shares = np.maximum(a, b) / (a + b)
        yield from _best(target, way, (a, b), total, shares, tolerance, few)
    for c in values:
        third = np.full(len(a), c)
        # Equals count once: the third is no less than the second.
        rises = b <= c
        whole = a + b + c
        yield from _best(target, "series", (a, b, third), whole, np.maximum(b, c) / whole, tolerance, few, rises)
        beside = 1 / (1 / a + 1 / b + 1 / c)
        yield from _best(target, "parallel", (a, b, third), beside, beside / a, tolerance, few, rises)
        mixed = (a + b) * c / whole
        in_pair = c / whole
        hottest = np.maximum(in_pair * b / (a + b), 1 - in_pair)
        yield from _best(target, "series-beside", (a, b, third), mixed, hottest, tolerance, few)
        pair = a * b / (a + b)
        total = pair + c
        hottest = np.maximum(pair / total * b / (a + b), c / total)
        yield from _best(target, "beside-series", (a, b, third), total, hottest, tolerance, few)


def _best(
    target: float,
    way: Way,
    ohms: tuple[FloatArray, ...],
    total: FloatArray,
    hottest: FloatArray,
    tolerance: float,
    few: int,
    only: NDArray[np.bool_] | None = None,
) -> Iterable[Combination]:
    error = np.abs(total / target - 1)
    keep = error <= _FARTHEST if only is None else (error <= _FARTHEST) & only
    places = np.flatnonzero(keep)
    if not len(places):
        return
    off = np.floor(error[places] / tolerance * (1 - 1e-12))
    first = np.lexsort((error[places], np.round(hottest[places], 6), off))[: 4 * few]
    for k in places[first]:
        yield combine(tuple(float(v[k]) for v in ohms), way, target)
