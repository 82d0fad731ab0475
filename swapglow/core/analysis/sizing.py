"""From the drive wanted to the resistor and the capacitor fitted."""

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.ac_cycle import AcCases, solve_cycles
from swapglow.core.analysis.joining import joined
from swapglow.core.analysis.terminals import diode_volts, ohms_for, room
from swapglow.core.design.branch import Branch
from swapglow.core.design.looks import Looks
from swapglow.core.design.position import Position
from swapglow.core.parts import resistor
from swapglow.core.parts.ratings import next_capacitance
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.photometry.flicker import flicker_limit
from swapglow.core.quantities import Figure, Source
from swapglow.core.supplies.waveform import Waveform
from swapglow.core.values import preferred
from swapglow.core.values.nothing import LINK_OHM

FloatArray = NDArray[np.float64]

# Fitted where nothing lights anyway, so that the picture still has a resistor to move.
_FALLBACK_OHM = 1000.0
_FALLBACK_FARAD = 100e-6
_LARGEST_FARAD = 0.1
# The search for a resistance, all in logarithms: how near is met, and how little a resistance may do.
_CLOSE = 1e-4
_FLAT = 1e-3
_LARGEST_STEP = 2.0
_MOST_SECANTS = 12
# A value at hand is worth fitting up to so many times the one that was worked out (ours): half the current.
AT_HAND_FAR = 2.0


@dataclass(frozen=True)
class Sizing:
    """From the exact resistance to what is fitted.

    Attributes:
        headroom_v: usual rail (its peak, where it alternates) − driver's and rectifier's drops −
            n·Vf at the drive wanted.
        exact_ohm: resistance for the drive wanted; None where there is no headroom.
        preferred_ohm: the preferred value by the position's rule, one part.
        each_ohm: each fitted part.
        parts: how many parts.
        share: their real resistance over their value, by the readings; 1 without one.
        is_own: True where the user fitted a value of their own.
        needed_f: capacitance for low-risk flicker, F; None without a reservoir.
        farads: the capacitance fitted, F; 0 without a reservoir.
    """

    headroom_v: float
    exact_ohm: float | None
    preferred_ohm: float | None
    each_ohm: float
    parts: int
    is_own: bool
    needed_f: float | None = None
    farads: float = 0.0
    share: float = 1.0

    @property
    def total_ohm(self) -> float:
        """All fitted parts in series, as they really are."""
        return self.each_ohm * self.parts * self.share


def with_strings(position: Position) -> Position:
    """The position with the resistors of other strings worked out, each as if it stood alone.

    Args:
        position: the swap.

    Returns:
        The same with ``fitted_ohm`` of every string that follows the computation.

    Raises:
        NotConverged: the circuit has no answer.
    """
    if all(b.resistor_ohm is not None for b in position.beside):
        return position
    beside = tuple(
        b if b.resistor_ohm is not None else replace(b, fitted_ohm=size(alone(position, b)).each_ohm)
        for b in position.beside
    )
    return replace(position, beside=beside)


def alone(position: Position, branch: Branch) -> Position:
    """The position with one of its other strings in the main one's place, and nothing beside it.

    Args:
        position: the swap.
        branch: one of its other strings.

    Returns:
        The position; its resistor is the string's own, or follows the computation.
    """
    return replace(
        position,
        led=branch.led,
        target=Figure(branch.target, Source.COMPUTED),
        in_series=branch.in_series,
        branches=branch.count,
        resistor_ohm=branch.resistor_ohm,
        resistor_parts=1,
        rating_w=branch.rating_w,
        series_diodes=branch.diodes,
        beside=(),
        second_led=branch.second,
    )


def turned(position: Position, k: int) -> Position:
    """The same place seen from another of its strings, which is then the main one.

    Args:
        position: the swap, its strings' resistors worked out.
        k: which of its other strings, from 0.

    Returns:
        The position; the circuit is the same.
    """
    p, b = position, position.beside[k]
    main = Branch(
        "main",
        p.led,
        p.target.value,
        p.in_series,
        p.branches,
        size(p).total_ohm,
        diodes=p.series_diodes,
        second=p.second_led,
    )
    others = (main, *p.beside[:k], *p.beside[k + 1 :])
    return replace(alone(p, b), resistor_ohm=b.ohm, beside=others)


def vf_at_drive(position: Position) -> float:
    """Forward voltage of the typical LED at the drive wanted, V."""
    return float(position.led.junction(position.led.vf_typ, position.celsius).volts(position.target.value))


def each_for_most(position: Position, amps: float) -> float | None:
    """The preferred value, each part, that keeps the worst current at or under ``amps`` on a steady supply.

    At the highest rail, the driver's least drop and the luckiest LED, over the low end of the
    resistor's tolerance, rounded up; None where there is no such value.

    Args:
        position: the swap.
        amps: the most it may carry, A.

    Returns:
        Ω of each part.
    """
    p = position
    ohms = ohms_for(p, amps, rail_v=p.rail.volts[2], vf=p.led.vf_low, drop_v=p.drops[0])
    each = 0.0 if ohms is None else ohms / (1 - p.ohm_spread) / p.resistor_parts
    return preferred.prefer(each, p.series, "up") if 1e-3 <= each <= 1e9 else None


def rectifier_drop(position: Position) -> float:
    """What the rectifier keeps at the drive wanted, V; 0 where nothing alternates or nothing rectifies."""
    if not position.rail.supply.alternates:
        return 0.0
    amps = position.target.value * position.branches
    return rectifier("power").volts(amps, position.rectification.diodes, position.celsius)


@lru_cache(maxsize=256)
def size(position: Position) -> Sizing:
    """Exact and preferred resistance for the usual rail and the typical LED.

    Steady: R = (volts at the lamp's contacts − n·Vf(I)) / I (Ohm, Kirchhoff), with Vf at the drive
    wanted and the contacts' volts from the whole circuit. Alternating: the resistance at which the
    average over the solved cycle is the drive wanted.
    """
    if position.module is not None:
        # What a ready-made lamp draws is its maker's affair: a capacitor before it is sized for that.
        position = replace(position, target=Figure(position.module.amps, Source.COMPUTED))
    wanted = position.target.value
    headroom = _crest_left(position) - position.in_series * vf_at_drive(position) - diode_volts(position, wanted)
    needed: float | None = None
    farads = 0.0
    if position.rail.supply.alternates:
        exact, needed, farads = _exact_alternating(_unsized(position), headroom)
    elif position.module is not None:
        headroom = room(position, wanted, position.rail.volts[1], position.led.vf_typ, position.drop_v)[0]
        exact = None
    else:
        at = {"rail_v": position.rail.volts[1], "vf": position.led.vf_typ, "drop_v": position.drop_v}
        exact = ohms_for(position, wanted, **at)
        if not position.driver.plain or position.shunt_ohm is not None or position.regulator_id:
            headroom = room(position, wanted, **at)[0]
    if exact is not None and not 1e-3 <= exact <= 1e9:
        exact = None
    chosen = preferred.prefer(exact, position.series, position.rounding) if exact else None
    if position.bare:
        # A ready-made lamp has its resistor inside, or there is none: leads are all that is left.
        each = LINK_OHM
    elif position.resistor_ohm is not None:
        each = position.resistor_ohm
    elif exact is None:
        each = _FALLBACK_OHM
    elif position.resistor_parts == 2:
        each = resistor.halves(exact, position.series, position.rounding).first_ohm
    else:
        each = chosen or _FALLBACK_OHM
    own = position.resistor_ohm is not None and not position.follows
    if exact is not None and position.resistor_ohm is None and position.module is None:
        each = next_at_hand(each, position.at_hand) or each
    share = 1.0 if position.resistor_ohm is None else position.ohm_share
    return Sizing(headroom, exact, chosen, each, position.resistor_parts, own, needed, farads, share)


def next_at_hand(ohm: float, drawer_ohm: frozenset[float]) -> float | None:
    """The next resistor up that is at hand.

    Args:
        ohm: what was worked out, Ω.
        drawer_ohm: what is at hand, Ω.

    Returns:
        Ω; None where none lies between it and :data:`AT_HAND_FAR` times it.
    """
    return min((v for v in drawer_ohm if ohm * (1 - 1e-6) <= v <= ohm * AT_HAND_FAR), default=None)


def _crest_left(position: Position) -> float:
    """What is left of the crest before the string: behind a regulator what it holds, or less its dropout."""
    crest = position.rail.peaks[1] - position.drop_v - rectifier_drop(position)
    r = position.regulator
    if r is None:
        return crest
    return crest - r.dropout if position.set_by_ohms else min(r.volts, crest - r.dropout)


def _unsized(position: Position) -> Position:
    """The position without what only follows from its sizing, so that a cursor's move asks nothing anew."""
    plain = Figure(position.target.value, Source.COMPUTED)
    return replace(
        position,
        resistor_ohm=None,
        follows=False,
        ohm_share=1.0,
        ohm_doubt=None,
        rating_w=None,
        lamp=None,
        target=plain,
        looks=Looks(),
        series="E24",
        rounding="up",
        capacitor_v=None,
        ceiling=0.5,
        at_hand=frozenset(),
    )


@lru_cache(maxsize=256)
def _exact_alternating(position: Position, headroom: float) -> tuple[float | None, float | None, float]:
    """Exact resistance, capacitance needed, and capacitance fitted."""
    if headroom <= 0:
        return (None, None, position.capacitor_f or (_FALLBACK_FARAD if position.rectification.reservoir else 0.0))
    wanted = position.target.value
    # With a reservoir the crest stands all the cycle long; without one, the mean of a half sine.
    waveform = position.rail.supply.waveform
    share = (
        0.5
        if waveform is Waveform.SINE or (waveform is Waveform.SQUARE and position.rectification.halves == 1)
        else 1.0
    )
    guess = headroom / wanted if position.rectification.reservoir else share * headroom / wanted
    if position.set_by_ohms and position.regulator is not None:
        # I = Vref/R, whatever the crest leaves (textbook).
        guess = position.regulator.volts / wanted * (1.0 if position.rectification.reservoir else share)
    needed = _reservoir(position, guess) if position.rectification.reservoir else None
    farads = position.capacitor_f or needed or 0.0
    if position.module is not None:
        return None, needed, farads
    return _resistance_for(position, guess, wanted, farads), needed, farads


def _reservoir(position: Position, ohms: float) -> float:
    """The capacitance whose ripple is low-risk flicker, next E6 up; before a regulator, what keeps it in hold.

    ΔV = I/(f·C) (textbook) moves the current by ΔV/R, a modulation of ΔV/(2·I·R); IEEE 1789-2015
    allows flicker_limit(f), so C = 1/(2·m·f·R), at the slowest the supply will run; R is that of all
    branches together.
    """
    ripple_hz = min(h for h in position.rail.supply.hertz) * position.rectification.halves
    if position.regulator is not None:
        return _for_regulator(position, ripple_hz)
    allowed = flicker_limit(ripple_hz) / 100
    together = ohms / position.branches
    return next_capacitance(min(1 / (2 * allowed * ripple_hz * together), _LARGEST_FARAD))


# Of the room between crest and hold, what the ripple may take; and the least room that is worth a capacitor (ours).
_RIPPLE_SHARE = 0.7
_LEAST_ROOM = 0.2


def _for_regulator(position: Position, ripple_hz: float) -> float:
    """C = I/(f·ΔV) (textbook), ΔV what the lowest crest leaves over what the regulator needs to hold."""
    p, r = position, position.regulator
    assert r is not None
    wanted = p.target.value
    string = p.in_series * vf_at_drive(p) + diode_volts(p, wanted)
    need = r.dropout + (string if p.set_by_ohms else r.volts)
    room = p.rail.peaks[0] - p.drop_v - rectifier_drop(p) - need
    amps = wanted * p.branches + r.quiescent
    return next_capacitance(min(amps / (ripple_hz * max(room * _RIPPLE_SHARE, _LEAST_ROOM)), _LARGEST_FARAD))


def _resistance_for(position: Position, guess: float, wanted: float, farads: float) -> float | None:
    """The resistance at which the average is the drive wanted, by secants in logarithms."""
    source = position.rail.supply.source_ohm.value
    # A held crest makes the guess a near one, and its cycles are dear.
    near = [0.7, 0.85, 1.0, 1.2, 1.5] if position.rectification.reservoir else [0.25, 0.5, 0.8, 1.1, 1.6]
    at = np.log(guess) + np.log(np.array(near))

    def amps(logs: FloatArray) -> FloatArray:
        one = np.ones(len(logs))
        cases = AcCases(
            (position.rail.peaks[1] - position.drop_v) * one, position.led.vf_typ * one, np.exp(logs), source * one, one
        )
        return np.log(np.maximum(solve_cycles(position, cases, farads).average, 1e-15))

    found = amps(at)
    goal = float(np.log(wanted))
    if found[0] < goal:
        # Even the least of them does not carry it: a source resistance takes the rest.
        lower = np.log(guess) + np.log(np.array([1e-3, 1e-2, 0.05, 0.25, near[0]]))
        more = amps(lower)
        if more[0] < goal:
            return None
        at, found = lower, more
    estimate = _where(at, found, goal)
    if position.rectification.reservoir and found[-1] < goal < found[0] and at[-1] - at[0] < 1.0:
        # Through five points so near each other the curve is good to parts in ten thousand, and
        # another round of cycles would cost as much as the first.
        return float(np.exp(estimate))
    for _ in range(_MOST_SECANTS):
        here = amps(np.array([estimate - 0.01, estimate + 0.01]))
        off = goal - float(here.mean())
        if abs(off) < _CLOSE:
            return float(np.exp(estimate))
        slope = float(here[1] - here[0]) / 0.02
        if slope > -_FLAT:
            # The resistance no longer sets the current: there is none that makes it the drive wanted.
            return None
        estimate += float(np.clip(off / slope, -_LARGEST_STEP, _LARGEST_STEP))
    return None


def _where(at: FloatArray, found: FloatArray, goal: float) -> float:
    """Where a current that falls along ``at`` meets ``goal``, both in logarithms; an end outside them.

    Cases that carry the same current say nothing of each other, and the first of them stands for all.
    """
    apart = np.concatenate([[True], np.diff(np.minimum.accumulate(found)) < -_CLOSE])
    if apart.sum() < 2 or not found[apart][-1] < goal < found[apart][0]:
        return float(np.interp(-goal, -np.minimum.accumulate(found), at))
    return float(joined(-found[apart], at[apart], np.array([-goal]))[0])
