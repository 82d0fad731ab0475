"""From trials of a lamp to the light this eye wants there, and the resistor to try next."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from swapglow.core.analysis.limits import trip_amps
from swapglow.core.analysis.original_lamp import lamp_candela
from swapglow.core.analysis.solution import Solution, solve
from swapglow.core.design.position import Position
from swapglow.core.design.trial import Trial
from swapglow.core.parts import preferred
from swapglow.core.parts.led import catalogue
from swapglow.core.photometry.eye import BESIDE_OLD, OF_NOTHING, Belief, believe, step_told
from swapglow.core.photometry.intensity import led_candela
from swapglow.core.photometry.light_doubt import doubt


@dataclass(frozen=True)
class Wanted:
    """What the trials come to.

    Attributes:
        belief: light wanted, octaves of candela towards the eye.
        shown: light of each trial there, octaves; None for one in another light, which counts for nothing here.
        ohm: the resistor to try next, each part; None where none is left that differs.
        settled: the resistor that was right, if any.
        step: what this eye tells from memory here, octaves.
    """

    belief: Belief
    shown: tuple[float | None, ...]
    ohm: float | None
    settled: float | None
    step: float


def wanted(s: Solution, trials: Sequence[Trial], drawer: frozenset[float]) -> Wanted | None:
    """What trials say of the light wanted.

    Args:
        s: the solved position; its rule says what each resistor carries.
        trials: in the order they were made.
        drawer: resistors at hand, Ω.

    Returns:
        The belief and the next resistor; None without a trial, or where no rule was laid.
    """
    if not trials or not len(s.rule_ohm):
        return None
    shown = tuple(_octaves(s, t) if t.room == s.position.looks.room else None for t in trials)
    counted = [(t, o) for t, o in zip(trials, shown, strict=True) if o is not None]
    if not counted:
        return None
    old = lamp_candela(s.position)
    expected, spread = counted[0][1], OF_NOTHING
    if old:
        expected, spread = math.log2(old), math.hypot(BESIDE_OLD, math.log2(doubt(s.position)))
    belief = believe(expected, spread, [(o, t.verdict) for t, o in counted])
    step = step_told([(o, t.verdict) for t, o in counted])
    right = [t.ohm for t, _ in counted if t.verdict == "right"]
    return Wanted(belief, shown, _next(s, belief, counted, drawer, step), right[-1] if right else None, step)


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
        # Not on the rule: solved by itself.
        amps = float(solve(replace(p, resistor_ohm=trial.ohm), rule=False).usual[1])
    else:
        amps = float(np.interp(math.log(trial.ohm), np.log(s.rule_ohm), s.rule_amps[1]))
    return math.log2(max(led_candela(p, amps), 1e-12))


def _next(s: Solution, belief: Belief, counted: list[tuple[Trial, float]], drawer: frozenset[float],
          step: float) -> float | None:  # fmt: skip
    """The value nearest to the light wanted, from the drawer where it has one that near.

    None that was tried, and none that could drive the LED past its rating or trip the line it hangs on.
    """
    low, high = float(s.rule_ohm[0]), float(s.rule_ohm[-1])
    tried = {t.ohm for t, _ in counted}
    optics = counted[-1][0].optics

    def away(ohm: float) -> float:
        return abs(_octaves(s, Trial(ohm, "right", optics=optics)) - belief.median)

    def stands(ohm: float) -> bool:
        most = float(np.interp(math.log(ohm), np.log(s.rule_ohm), s.rule_worst[1]))
        return most <= min(s.position.rated_a, trip_amps(s.position))

    def nearest(values: Sequence[float]) -> float | None:
        fresh = [
            v for v in values if low <= v <= high and stands(v) and not any(math.isclose(v, t) for t in tried)
        ]
        return min(fresh, key=away, default=None)

    mine, any_value = nearest(sorted(drawer)), nearest(preferred.values("E24", low, high).tolist())
    if mine is not None and away(mine) <= max(step, away(any_value) if any_value is not None else 0.0):
        return mine
    return any_value
