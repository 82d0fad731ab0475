"""A position solved at its corners and along the slide rule, in one batch."""

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import CubicSpline

from swapglow.core.circuit.operating_point import OperatingPoint
from swapglow.core.parts import preferred
from swapglow.core.position.alternating import AcCases, Cycled, Drawn, joined, solve_and_draw, solve_cycles
from swapglow.core.position.circuit import Cases, point_of, string_amps
from swapglow.core.position.model import Position
from swapglow.core.position.port import ohms_for
from swapglow.core.position.sizing import Sizing, size

FloatArray = NDArray[np.float64]

# Smallest and largest value the slide rule shows around the value fitted, as a factor.
RULE_REACH = 40.0
# Cycles are solved at so many resistances along the rule, and smoothly joined between.
RULE_POINTS = 13
RULE_POINTS_RESERVOIR = 7


@dataclass(frozen=True)
class AcSolution:
    """What only a cycle has.

    Attributes:
        corners: (rail, LED) by nominal resistor, flattened (9,), then the least and the most.
        drawn: the cycle at the low, usual and high level, typical LED.
        power_w: most heat in each resistor part over the cycle, W.
    """

    corners: Cycled
    drawn: Drawn
    power_w: float


@dataclass(frozen=True)
class Solution:
    """Currents of a position over its corners; averages over the cycle where the supply alternates.

    Attributes:
        amps: forward current, shape (3 rails low to high, 3 LEDs, 3 resistors). The LED axis runs
            from highest to lowest forward voltage and the resistor axis from the high to the low
            end of its tolerance, so that index 0 is the least current and −1 the most. Where the
            supply alternates only the nominal resistor and the two ends are solved; the rest is NaN.
        volts_led: voltage of one LED, same shape; at the crest where the supply alternates.
        rule_ohm: each-part values along the slide rule, (k,).
        rule_amps: currents there at (low rail, usual, high rail; typical LED), (3, k).
        rule_worst: least and most current there over rail, LED and tolerance, (2, k).
        rule_watts: most heat there in each part, (k,).
        further: currents of the further cases asked for.
        ac: the cycle, where there is one.
        point: node voltages of the corners and the rest, where the supply is steady.
    """

    position: Position
    sizing: Sizing
    amps: FloatArray
    volts_led: FloatArray
    rule_ohm: FloatArray
    rule_amps: FloatArray
    rule_worst: FloatArray
    rule_watts: FloatArray
    further: FloatArray
    ac: AcSolution | None = None
    point: OperatingPoint | None = None

    @property
    def typical(self) -> list[int]:
        """The samples of ``point`` at the low, usual and high rail, typical LED, nominal resistor."""
        return [4, 13, 22]

    @cached_property
    def usual(self) -> FloatArray:
        """Current at the low, usual and high rail with the typical LED and resistor, (3,)."""
        return self.amps[:, 1, 1]

    @property
    def least(self) -> float:
        """The least current of all corners, A."""
        # A lamp that takes constant power draws least where the rail is highest.
        return float(np.nanmin(self.amps))

    @property
    def most(self) -> float:
        """The most current of all corners, A."""
        return float(np.nanmax(self.amps))

    @cached_property
    def power_w(self) -> float:
        """Most power in each resistor part: I²R at the highest rail, lowest Vf, low tolerance."""
        if self.ac is not None:
            return self.ac.power_w
        each = self.sizing.each_ohm * (1 - self.position.resistor_tolerance)
        return self.most**2 * each


def rule_values(position: Position, around: float) -> FloatArray:
    """Preferred values the slide rule shows, about three decades around the value fitted."""
    return preferred.values(position.series, max(around / RULE_REACH, 1e-3), min(around * RULE_REACH, 1e9))


def solve(position: Position, *, further: Cases | None = None, rule: bool = True) -> Solution:
    """Solve corners, slide rule and any further cases together.

    Args:
        position: the swap.
        further: arrays of one length, with the position's own driver's drop.
        rule: whether the slide rule is solved too.

    Raises:
        NotConverged: a case has no answer; none is then given for the position.
    """
    more = further or Cases(np.zeros(0), np.zeros(0), np.zeros(0))
    if position.rail.supply.alternates:
        return _solve_alternating(position, more, rule)
    return _solve_steady(position, more, rule)


def _axes(position: Position, sizing: Sizing) -> tuple[FloatArray, FloatArray, FloatArray]:
    tol = position.ohm_spread
    vf = np.array([position.led.vf_high, position.led.vf_typ, position.led.vf_low])
    return np.array(position.rail.volts), vf, sizing.total_ohm * np.array([1 + tol, 1.0, 1 - tol])


def _rule(position: Position, sizing: Sizing) -> FloatArray:
    centre = (sizing.exact_ohm or sizing.total_ohm) / sizing.parts
    if position.module is not None:
        # A resistor before a ready-made lamp dims it: the rule is laid around the lamp's own.
        centre = max(position.module.nominal / position.module.amps, 1.0)
    supply = position.rail.supply
    if supply.kind == "sense" and supply.trip is not None:
        # On a line the rule must reach what the line allows.
        safe = supply.trip.value * supply.trip_share / position.branches
        allowed = ohms_for(position, safe, rail_v=position.rail.volts[2], vf=position.led.vf_low, drop_v=0.0)
        centre = max(centre, (allowed or 0.0) / position.resistor_parts / 4)
    return rule_values(position, centre)


def _solve_steady(position: Position, more: Cases, with_rule: bool) -> Solution:
    sizing = size(position)
    tol = position.ohm_spread
    rail, vf, ohms = _axes(position, sizing)
    corner = [a.ravel() for a in np.meshgrid(rail, vf, ohms, indexing="ij")]
    key = (_for_rule(position), 0.0)
    known = _RULES.get(key) if with_rule else _NO_RULE
    rule = _rule(position, sizing) if known is None else known[0]
    # While only the fitted value moves the rule's own cases stay what they were.
    total = rule * sizing.parts if known is None else np.zeros(0)
    # Five cases a value: typical LED at three rails, and the two worst ends.
    case_rail = np.repeat([rail[0], rail[1], rail[2], rail[0], rail[2]], len(total))
    case_vf = np.repeat([vf[1], vf[1], vf[1], vf[0], vf[2]], len(total))
    along = np.concatenate([total, total, total, total * (1 + tol), total * (1 - tol)])
    own = position.rail.supply.source_ohm.value
    source = np.full(27 + len(along), own)
    least, usual, most = position.drops
    # The ends of all corners are the driver's own ends too.
    drop: float | FloatArray = usual
    if least != most:
        corner_drop = np.full(27, usual)
        corner_drop[0], corner_drop[26] = most, least
        steps = [usual, usual, usual, most, least]
        drop = np.concatenate([corner_drop, np.repeat(steps, len(total)), np.full(np.size(more.rail), usual)])
    cases = Cases(
        rail=np.concatenate([corner[0], case_rail, np.asarray(more.rail)]),
        vf=np.concatenate([corner[1], case_vf, np.asarray(more.vf)]),
        ohms=np.concatenate([corner[2], along, np.asarray(more.ohms)]),
        drop=drop,
        source=np.concatenate([source, np.broadcast_to(more.source_of(position), np.shape(more.rail))]),
    )
    point = point_of(position, cases)
    amps = string_amps(position, point)
    volts = point.across("D1") / position.in_series
    if known is None:
        on_rule = amps[27 : 27 + len(along)].reshape(5, len(rule))
        known = _remember(key, (rule, on_rule, on_rule[4] ** 2 * rule * (1 - tol)))
    return Solution(
        position, sizing, amps[:27].reshape(3, 3, 3), volts[:27].reshape(3, 3, 3), rule, known[1][:3],
        known[1][3:], known[2], amps[27 + len(along) :], None, point,
    )  # fmt: skip


def ac_cases(position: Position, cases: Cases) -> AcCases:
    """Cases given by RMS volts (flat volts where it is no sine), at the usual frequency."""
    factor = position.rail.peaks[1] / position.rail.volts[1]
    peak = np.atleast_1d(np.asarray(cases.rail, dtype=float)) * factor - position.drop_v
    shape = peak.shape
    vf, ohms, source = (
        np.broadcast_to(np.asarray(v, dtype=float), shape)
        for v in (cases.vf, cases.ohms, cases.source_of(position))
    )
    # A stator's frequency follows its volts.
    hertz = position.rail.supply.hertz
    if hertz[1] > 0:
        speed = np.interp(np.asarray(cases.rail), position.rail.volts, hertz) / hertz[1]
        speed = np.broadcast_to(speed, shape)
    else:
        speed = np.ones(shape)
    return AcCases(np.maximum(peak, 1e-6), vf, ohms, source, speed)


def _solve_alternating(position: Position, more: Cases, with_rule: bool) -> Solution:
    sizing = size(position)
    tol = position.resistor_tolerance
    rail, vf, ohms = _axes(position, sizing)
    nominal = [a.ravel() for a in np.meshgrid(rail, vf, indexing="ij")]
    ends = Cases(
        np.concatenate([nominal[0], rail[[0, 2]]]),
        np.concatenate([nominal[1], vf[[0, 2]]]),
        np.concatenate([np.full(9, ohms[1]), ohms[[0, 2]]]),
    )
    count = len(np.atleast_1d(np.asarray(more.rail)))
    cases = ac_cases(position, ends)
    if count:
        cases = joined(cases, ac_cases(position, more))
    # The typical LED at the three levels is drawn.
    found, drawn = solve_and_draw(position, cases, sizing.farads, (1, 4, 7))
    corners = Cycled(found.average[:11], found.peak[:11], found.rms[:11], found.reverse[:11])
    amps = np.full((3, 3, 3), np.nan)
    amps[:, :, 1] = corners.average[:9].reshape(3, 3)
    amps[0, 0, 0], amps[2, 2, 2] = corners.average[9], corners.average[10]
    volts = np.full((3, 3, 3), np.nan)
    volts[:, 1, 1] = drawn.string.max(axis=1) / position.in_series
    rule, on_rule, watts = _alternating_rule(_for_rule(position), sizing.farads) if with_rule else _NO_RULE
    power = float(corners.rms[10]) ** 2 * sizing.each_ohm * (1 - tol)
    return Solution(
        position, sizing, amps, volts, rule, on_rule[:3], on_rule[3:], watts, found.average[11:],
        AcSolution(corners, drawn, power),
    )  # fmt: skip


def _for_rule(position: Position) -> Position:
    """What the rule's curves depend on: not on the value fitted, unless there is no other."""
    if size(position).exact_ohm is None:
        return position
    return replace(position, resistor_ohm=None, rating_w=None, lamp=None)


# By position and capacitance: rule values, currents there (3 typical levels, least, most), and most
# heat in each part.
_Rule = tuple[FloatArray, FloatArray, FloatArray]
_NO_RULE: _Rule = (np.zeros(0), np.zeros((5, 0)), np.zeros(0))
_RULES: dict[tuple[Position, float], _Rule] = {}
_MOST_RULES = 128


def _remember(key: tuple[Position, float], rule: _Rule) -> _Rule:
    if len(_RULES) >= _MOST_RULES:
        _RULES.clear()
    _RULES[key] = rule
    return rule


def _alternating_rule(position: Position, farads: float) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Rule values, currents there (3 typical levels, least, most) and most heat in each part."""
    key = (position, farads)
    if key in _RULES:
        return _RULES[key]
    sizing = size(position)
    rule = _rule(position, sizing)
    tol = position.resistor_tolerance
    rail, vf, _ = _axes(position, sizing)
    points = RULE_POINTS_RESERVOIR if position.treated.reservoir else RULE_POINTS
    at = np.geomspace(rule[0], rule[-1], points)
    total = at * sizing.parts
    cases = ac_cases(
        position,
        Cases(
            np.repeat([rail[0], rail[1], rail[2], rail[0], rail[2]], points),
            np.repeat([vf[1], vf[1], vf[1], vf[0], vf[2]], points),
            np.concatenate([total, total, total, total * (1 + tol), total * (1 - tol)]),
        ),
    )
    found = solve_cycles(position, cases, farads)

    def along(values: FloatArray) -> FloatArray:
        logs = np.log(np.maximum(values.reshape(-1, points), 1e-15))
        return np.asarray(np.exp(CubicSpline(np.log(at), logs, axis=1)(np.log(rule))))

    watts = along(found.rms[4 * points :])[0] ** 2 * rule * (1 - tol)
    return _remember(key, (rule, along(found.average), watts))


def current(position: Position, cases: Cases) -> FloatArray:
    """Forward current for any cases, shape (samples,); the average over the cycle where there is one."""
    if position.rail.supply.alternates:
        return solve_cycles(position, ac_cases(position, cases), size(position).farads).average
    return string_amps(position, point_of(position, cases))
