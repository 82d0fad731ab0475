"""The lamp with its LEDs, resistor and rail as its readings show them. Every view takes its figures from this.

Near the usual rail each reading is about a straight line in the unknowns. Two steps of a linear fit (Gauss and Newton;
covariance as Kalman 1960) give what the readings leave of LED and resistor. The lowest and highest rail stay as typed:
they say how far the rail swings. The usual rail is replaced by a reading of it where nobody had read it before.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from threading import Condition

import numpy as np
from cachetools import LRUCache, cached
from numpy.typing import NDArray

from swapglow.core.analysis.fitted import as_it_stood, fitted_in, since_changed
from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.solution import Solution, solve
from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.evidence.account import known_by, newest, since_it_worked
from swapglow.core.evidence.expected import diagnose
from swapglow.core.evidence.hypotheses import Hypothesis, nothing_wrong
from swapglow.core.evidence.infer import noise, slip_of
from swapglow.core.evidence.metered import comparable
from swapglow.core.evidence.predict import (
    BURDEN,
    LED,
    OHMS,
    RAIL,
    SIZE,
    UNKNOWNS,
    Draws,
    led_sigma,
    ohms_sigma,
    predict,
    rail_sigma,
)
from swapglow.core.measurement.reading_after import LOOKS, WARM, ReadingAfter
from swapglow.core.network.builder import laws_of
from swapglow.core.quantities import Figure, Source
from swapglow.core.supplies.rail import Rail

FloatArray = NDArray[np.float64]

# The middle and the spread of half a normal, in its sigmas (tables).
_HALF_MIDDLE, _HALF_SPREAD = 0.674, 0.603
# Slopes are taken over half a sigma. Two steps are enough for the little that is not straight.
_STEP, _STEPS = 0.5, 2
# The ends of a range stand so many sigmas from its middle.
_ENDS = 2.0
# A figure counts as measured once its sigma is less than this share of what it was.
_READ = 0.5
# The least range of a resistor (a share) and of an LED (V) after a reading: a meter's last digits.
_LEAST_OHMS, _LEAST_V = 0.003, 0.003
# Off readings are taken for a sound lamp only where that is likelier than this.
_BELIEVED = 0.5


@dataclass(frozen=True)
class _Left:
    """Mean and covariance of the unknowns of one hypothesis after the readings, in sigmas."""

    of: Hypothesis
    mean: FloatArray
    covariance: FloatArray


def as_read(position: Position, readings: Sequence[ReadingAfter]) -> Position:
    """The lamp with what its readings say of LEDs, resistor and rail.

    Args:
        position: the swap as it was typed.
        readings: all that were taken after it, the newest last.

    Returns:
        The same lamp with narrower ranges; unchanged where the readings say nothing of them or point to a fault.
    """
    own = [r for r in readings if r.whose == "this" and r.kind not in WARM]
    if not any(r.state == "on" for r in own) or position.module is not None or position.live_danger:
        return position
    now = fitted_in(position)
    taken = tuple(r for r in own if not since_changed(r.fitted, now))
    if any(r.state == "on" for r in taken):
        return _as_read(position, taken)
    # The readings are of another circuit. Its rail is the same, and so are its LEDs unless they were changed.
    then = own[-1].fitted
    stood = as_it_stood(position, then)
    if stood is None:
        return position
    read = _as_read(stood, tuple(r for r in own if r.fitted == then))
    out = replace(position, rail=read.rail)
    if read.led.id == position.led.id:
        out = replace(out, led=read.led, led_source=read.led_source)
    each = size(position).each_ohm
    if not position.bare and (each, position.resistor_parts) == (read.resistor_ohm, read.resistor_parts):
        out = replace(
            out,
            resistor_ohm=each,
            follows=position.resistor_ohm is None,
            ohm_share=read.ohm_share,
            ohm_doubt=read.ohm_doubt,
            resistor_source=read.resistor_source,
        )
    return out


@cached(LRUCache(maxsize=256), condition=Condition())
def typed(position: Position) -> Solution:
    """The lamp as typed, solved. Its readings are compared with this."""
    return solve(position, rule=False)


# Asked for with every view of the lamp.
@cached(LRUCache(maxsize=512), condition=Condition())
def _as_read(position: Position, taken: tuple[ReadingAfter, ...]) -> Position:
    try:
        left = _left(typed(position), taken)
    except CircuitError:
        # The report says which circuit has no answer.
        return position
    if left is None:
        return position
    read = any(r.kind == "supply_volts" and r.state == "on" for r in taken)
    rail = _rail(position, left) if read else position.rail
    return replace(_narrowed(position, left), rail=rail)


def _left(s: Solution, taken: tuple[ReadingAfter, ...]) -> _Left | None:
    """What the readings leave of the unknowns; None where a fault is likelier than a sound lamp."""
    diagnoses = [diagnose(s, r) for r in taken]
    # What was off may have been mended since.
    for kept in dict.fromkeys((newest(taken), newest(since_it_worked(taken, diagnoses)))):
        lit = tuple(r for r in kept if r.state == "on" and r.kind not in LOOKS)
        hypothesis = _sound(s, kept, all(d.agrees for d in diagnoses if d.id in {r.id for r in kept}))
        if hypothesis is not None and lit:
            return _fitted(s, hypothesis, lit)
    return None


def _sound(s: Solution, kept: tuple[ReadingAfter, ...], agree: bool) -> Hypothesis | None:
    """Which sound lamp the readings fit best; None where a fault is likelier."""
    if agree:
        return next(iter(nothing_wrong(s.position)))
    if s.position.rail.supply.alternates and laws_of(s.position):
        return None
    known = known_by(s, kept)
    best = known.posteriors[0]
    sound = sum(q.share for q in known.posteriors if q.of.sound and slip_of(q) is None)
    return best.of if best.of.sound and slip_of(best) is None and sound > _BELIEVED else None


def _fitted(s: Solution, h: Hypothesis, taken: tuple[ReadingAfter, ...]) -> _Left | None:
    values = np.array([comparable(r) for r in taken])
    moves = np.vstack([np.zeros(SIZE), np.eye(SIZE) * _STEP])
    mean, covariance = np.zeros(SIZE), np.eye(SIZE)
    for _ in range(_STEPS):
        at = np.zeros((len(moves), len(UNKNOWNS)))
        at[:, :SIZE] = mean + moves
        # A burden is never negative: half a normal, by its median and its spread.
        at[:, BURDEN] = np.maximum(_HALF_MIDDLE + _HALF_SPREAD * at[:, BURDEN], 0.0)
        reads = predict(s, [Draws(h, at)], taken)[0]
        if not np.isfinite(reads).all():
            return None
        slopes = ((reads[1:] - reads[0]) / _STEP).T
        sigma = noise(reads[:1], np.abs(reads[0]), taken)[0]
        # Before the readings each unknown is normal around 0 with a sigma of 1.
        weighed = slopes / sigma[:, None]
        covariance = np.linalg.inv(np.eye(SIZE) + weighed.T @ weighed)
        mean = covariance @ (weighed.T @ ((values - reads[0]) / sigma + weighed @ mean))
    return _Left(h, mean, covariance)


def _rail(p: Position, left: _Left) -> Rail:
    """The rail with its usual volts as measured, unless they were before; its ends are widened to hold them."""
    if p.rail.usual.source is Source.MEASURED:
        return p.rail
    share = 1 + rail_sigma(p, left.of) * float(left.mean[RAIL])
    usual = Figure(p.rail.usual.value * share, Source.MEASURED, "read with the LED in")
    if not p.rail.spread_known:
        return replace(p.rail, low=usual, usual=usual, high=usual)
    low, high = p.rail.low, p.rail.high
    return replace(
        p.rail,
        low=usual if usual.value < low.value else low,
        usual=usual,
        high=usual if usual.value > high.value else high,
    )


def _narrowed(p: Position, left: _Left) -> Position:
    """The lamp with LED and resistor as measured. Each has a range of its own, so that either can be exchanged."""
    spread, mean = np.sqrt(np.diag(left.covariance)), left.mean
    volt, ohm = led_sigma(p, left.of), ohms_sigma(p)
    middle = p.led.vf_typ if left.of.vf is None else left.of.vf
    typical = middle + volt * float(mean[LED])
    least = max(_ENDS * volt * float(spread[LED]), _LEAST_V)
    low, high = typical - least, typical + least
    if left.of.id == "sound" and p.led.vf_low < p.led.vf_high:
        # What was typed holds, where the readings go with it.
        low, high = max(low, p.led.vf_low), min(high, p.led.vf_high)
    led = replace(p.led, vf_low=min(low, typical), vf_typ=typical, vf_high=max(high, typical))
    doubt = min(p.resistor_tolerance, max(_ENDS * ohm * float(spread[OHMS]), _LEAST_OHMS))
    each = size(p).each_ohm
    follows = p.resistor_ohm is None and not p.bare
    return replace(
        p,
        led=led,
        led_source=Source.MEASURED if spread[LED] < _READ else p.led_source,
        resistor_ohm=each if follows else p.resistor_ohm,
        follows=follows,
        ohm_share=1.0 if p.bare else 1 + ohm * float(mean[OHMS]),
        ohm_doubt=None if p.bare else doubt,
        resistor_source=Source.MEASURED if spread[OHMS] < _READ else p.resistor_source,
    )
