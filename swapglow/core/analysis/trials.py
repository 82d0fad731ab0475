"""From trials of a lamp to the light this eye wants there, and the resistor to try next.

What an eye wants beside the old lamp at one place it wants much the same of the others on the item: trials there are
where trials here begin.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from swapglow.core.analysis.limits import trip_amps
from swapglow.core.analysis.original_lamp import lamp_candela
from swapglow.core.analysis.solution import Solution, solve
from swapglow.core.design.position import Position
from swapglow.core.design.trial import Trial
from swapglow.core.parts.led import catalogue
from swapglow.core.photometry.eye import BESIDE_OLD, OF_NOTHING, Belief, believe, step_told
from swapglow.core.photometry.intensity import led_candela
from swapglow.core.photometry.light_doubt import doubt
from swapglow.core.values import preferred

# How far the light wanted beside the old lamp's differs from one place of an item to the next, octaves (ours).
PLACES = 0.7
# The fifth and the ninety-fifth part of a normal belief are so many standard deviations apart.
_ENDS = 2 * 1.645

# Another lamp of the item with its looks.
Tried = tuple[Position, tuple[Trial, ...]]


@dataclass(frozen=True)
class OthersWant:
    """What looks at other lamps of the item say of this one.

    Attributes:
        octaves: light wanted beside the old lamp's.
        spread: standard deviation of that here, octaves.
        lamps: how many were looked at.
    """

    octaves: float
    spread: float
    lamps: int


@dataclass(frozen=True)
class Wanted:
    """What the trials come to.

    Attributes:
        belief: light wanted, octaves of candela towards the eye.
        shown: light of each trial there, octaves; None for one in another light, which counts for nothing here.
        ohm: the resistor to try next, each part; None where none is left that differs.
        settled: the resistor that was right, if any.
        step: what this eye tells from memory here, octaves.
        others: what other lamps of the item said before the first look here; None where nothing did.
    """

    belief: Belief
    shown: tuple[float | None, ...]
    ohm: float | None
    settled: float | None
    step: float
    others: OthersWant | None = None


def others_want(position: Position, others: Sequence[Tried]) -> OthersWant | None:
    """What looks at other lamps of an item say of one that is looked at as they are, in the same light.

    Args:
        position: the swap.
        others: the item's other lamps with their looks.

    Returns:
        None where none of them says anything, or this one's old lamp is not known.
    """
    if not lamp_candela(position):
        return None
    looks = position.looks
    found = [
        belief
        for p, trials in others
        if (p.looks.how, p.looks.room) == (looks.how, looks.room) and (belief := _beside_old(p, trials)) is not None
    ]
    if not found:
        return None
    weights = [1 / (_deviation(b) ** 2 + PLACES**2) for b in found]
    middle = sum(w * b.median for w, b in zip(weights, found, strict=True)) / sum(weights)
    spread = math.sqrt(1 / sum(weights) + PLACES**2 + math.log2(doubt(position)) ** 2)
    return OthersWant(middle, spread, len(found))


def _deviation(belief: Belief) -> float:
    return (belief.high - belief.low) / _ENDS


@lru_cache(maxsize=512)
def _beside_old(position: Position, trials: tuple[Trial, ...]) -> Belief | None:
    """The light wanted of another lamp beside its own old one's, octaves."""
    old = lamp_candela(position)
    seen = [t for t in trials if t.room == position.looks.room and t.verdict in ("dim", "right", "bright")]
    if not old or not seen:
        return None
    at = math.log2(old)
    return believe(
        0.0,
        math.hypot(BESIDE_OLD, math.log2(doubt(position))),
        [(_by_itself(as_tried(position, t), t) - at, t.verdict) for t in seen],
    )


def wanted(
    s: Solution, trials: Sequence[Trial], drawer: frozenset[float], others: Sequence[Tried] = ()
) -> Wanted | None:
    """What trials say of the light wanted.

    Args:
        s: the solved position; its rule says what each resistor carries.
        trials: in the order they were made.
        drawer: resistors at hand, Ω.
        others: the item's other lamps with their looks.

    Returns:
        The belief and the next resistor; None where neither a trial here nor one of the others says anything, or
        where no rule was laid.
    """
    if not len(s.rule_ohm):
        return None
    shown = tuple(_octaves(s, t) if t.room == s.position.looks.room else None for t in trials)
    counted = [(t, o) for t, o in zip(trials, shown, strict=True) if o is not None]
    group = others_want(s.position, others)
    if not counted and group is None:
        return None
    old = lamp_candela(s.position)
    if old and group is not None:
        expected, spread = math.log2(old) + group.octaves, group.spread
    elif old:
        expected, spread = math.log2(old), math.hypot(BESIDE_OLD, math.log2(doubt(s.position)))
    else:
        expected, spread = counted[0][1], OF_NOTHING
    belief = believe(expected, spread, [(o, t.verdict) for t, o in counted])
    step = step_told([(o, t.verdict) for t, o in counted])
    right = [t.ohm for t, _ in counted if t.verdict == "right"]
    return Wanted(belief, shown, _next(s, belief, counted, drawer, step), right[-1] if right else None, step, group)


def as_tried(position: Position, trial: Trial) -> Position:
    """The position as it stood in a trial, with its LED and optics.

    Args:
        position: as it stands now.
        trial: the look.

    Returns:
        The position, its resistor as it is now.
    """
    other = catalogue().get(trial.led_id)
    led = position.led if other is None or other.id == position.led.id else other
    return replace(position, led=led, looks=replace(position.looks, optics=trial.optics))


def _octaves(s: Solution, trial: Trial) -> float:
    p = as_tried(s.position, trial)
    if p.led != s.position.led or not s.rule_ohm[0] <= trial.ohm <= s.rule_ohm[-1]:
        # Not on the rule.
        return _by_itself(p, trial)
    amps = float(np.interp(math.log(trial.ohm), np.log(s.rule_ohm), s.rule_amps[1]))
    return _in_octaves(led_candela(p, amps))


def _by_itself(position: Position, trial: Trial) -> float:
    """Light of a trial's resistor in a position of its own, solved for it alone."""
    amps = float(solve(position.with_resistor(trial.ohm), rule=False).usual[1])
    return _in_octaves(led_candela(position, amps))


def _in_octaves(candela: float) -> float:
    return math.log2(max(candela, 1e-12))


def _next(
    s: Solution, belief: Belief, counted: list[tuple[Trial, float]], drawer: frozenset[float], step: float
) -> float | None:
    """The value nearest to the light wanted, from the drawer where it has one that near.

    None that was tried, and none that could drive the LED past its rating or trip the line it hangs on.
    """
    low, high = float(s.rule_ohm[0]), float(s.rule_ohm[-1])
    tried = {t.ohm for t, _ in counted}
    optics = counted[-1][0].optics if counted else s.position.looks.optics

    def away(ohm: float) -> float:
        return abs(_octaves(s, Trial(ohm, "right", optics=optics)) - belief.median)

    def stands(ohm: float) -> bool:
        most = float(np.interp(math.log(ohm), np.log(s.rule_ohm), s.rule_worst[1]))
        return most <= min(s.position.rated_a, trip_amps(s.position))

    def nearest(values: Sequence[float]) -> float | None:
        fresh = [v for v in values if low <= v <= high and stands(v) and not any(math.isclose(v, t) for t in tried)]
        return min(fresh, key=away, default=None)

    mine, any_value = nearest(sorted(drawer)), nearest(preferred.values("E24", low, high).tolist())
    if mine is not None and away(mine) <= max(step, away(any_value) if any_value is not None else 0.0):
        return mine
    return any_value
