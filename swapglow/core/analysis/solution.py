"""A position solved at its corners and along the slide rule, in one batch."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.ac_cycle import AcCases, Cycled, Drawn, RegulatorCycle, solve_and_draw, solve_cycles
from swapglow.core.analysis.joining import joined
from swapglow.core.analysis.sizing import Sizing, size, with_strings
from swapglow.core.analysis.terminals import ohms_for
from swapglow.core.design.position import Position
from swapglow.core.engine.operating_point import OperatingPoint
from swapglow.core.network.cases import Batch, Block, Cases, places
from swapglow.core.network.solve import lamp_watts, point_of, resistor_amps, string_amps, supply_amps
from swapglow.core.parts.resistor import rating_to_fit
from swapglow.core.values import preferred

FloatArray = NDArray[np.float64]

# Smallest and largest value the slide rule shows around the value fitted, as a factor.
RULE_REACH = 40.0
# Cycles are solved at so many resistances along the rule, and smoothly joined between.
RULE_POINTS = 13
RULE_POINTS_RESERVOIR = 7

# The axes of the corners, each from the least current to the most.
CORNERS: dict[str, tuple[str, ...]] = {
    "rail": ("low", "usual", "high"),
    "led": ("highest", "typical", "lowest"),
    "ohms": ("highest", "nominal", "lowest"),
}
# The curves of the slide rule: the typical LED at three rails, and the two ends.
CURVES = ("low", "usual", "high", "least", "most")


@dataclass(frozen=True)
class AcSolution:
    """What only a cycle has.

    Attributes:
        typical: typical LED and nominal resistor at the low, usual and high level, (3,) each.
        most: the corner of most current, (1,) each.
        reverse_max: most reverse volts across a string, over all corners.
        drawn: the cycle at the low, usual and high level, typical LED.
        regulator: what a regulator goes through at every corner; None without one.
    """

    typical: Cycled
    most: Cycled
    reverse_max: float
    drawn: Drawn
    regulator: RegulatorCycle | None = None


@dataclass(frozen=True)
class Solution:
    """Currents of a position over its corners; averages over the cycle where the supply alternates.

    Attributes:
        amps: forward current of one string, (3 rails, 3 LEDs, 3 resistors) along :data:`CORNERS`. Where
            the supply alternates only the nominal resistor and the two ends are solved; the rest is NaN.
        volts_led: voltage of one LED, same shape; at the crest where the supply alternates.
        rule_ohm: each-part values along the slide rule, (k,).
        rule_amps: currents there at (low rail, usual, high rail; typical LED), (3, k).
        rule_worst: least and most current there over rail, LED and tolerance, (2, k).
        rule_watts: most heat there in each part, (k,).
        supply_current_max: the most the whole circuit takes from its supply, A: all branches, with what
            else hangs on it; RMS over the cycle where it alternates.
        further: string currents of the further blocks asked for, by name, in the shape of their axes.
        power_w: most heat in each resistor part, I²R of its own current at every corner, W.
        resistor_v: most volts across each resistor part at any instant, V.
        shunt_w: most heat in the shunt while lit, V²/R, W; 0 without one.
        source_w: most heat in the resistance behind the rail, W.
        lamp_w: most that goes in at the lamp's own contacts over all corners, W.
        doubt: least and most string current over the insides that a ready-made lamp may have, A;
            ``brightest_low`` the most of them at the lowest rail.
        ac: the cycle, where there is one.
        point: node voltages of the corners and the rest, where the supply is steady.
        typical: the samples of ``point`` at the three rails, typical LED, nominal resistor.
    """

    position: Position
    sizing: Sizing
    amps: FloatArray
    volts_led: FloatArray
    rule_ohm: FloatArray
    rule_amps: FloatArray
    rule_worst: FloatArray
    rule_watts: FloatArray
    supply_current_max: float
    power_w: float
    resistor_v: float
    shunt_w: float
    source_w: float
    lamp_w: float
    further: Mapping[str, FloatArray] = field(default_factory=dict)
    doubt: tuple[float, float] | None = None
    brightest_low: float | None = None
    ac: AcSolution | None = None
    point: OperatingPoint | None = None
    typical: NDArray[np.intp] | None = None

    @cached_property
    def usual(self) -> FloatArray:
        """Current at the low, usual and high rail with the typical LED and resistor, (3,)."""
        return self.amps[:, 1, 1]

    @property
    def rating_to_fit_w(self) -> float | None:
        """The smallest rating of each resistor part that takes its heat, its volts and this air, W; None for none."""
        return rating_to_fit(self.power_w, self.resistor_v, self.position.celsius)

    @property
    def string_current_min(self) -> float:
        """The least current of one string over all corners, A."""
        # A lamp that takes constant power draws least where the rail is highest.
        least = float(np.nanmin(self.amps))
        return least if self.doubt is None else min(least, self.doubt[0])

    @property
    def most_at_low(self) -> float:
        """The most string current at the lowest rail, whatever is inside, A."""
        own = float(np.nanmax(self.amps[0]))
        return own if self.brightest_low is None else max(own, self.brightest_low)

    @property
    def string_current_max(self) -> float:
        """The most current of one string over all corners, A."""
        most = float(np.nanmax(self.amps))
        return most if self.doubt is None else max(most, self.doubt[1])


def rule_values(position: Position, centre: float) -> FloatArray:
    """Preferred values the slide rule shows, about three decades.

    Args:
        position: its series is taken.
        centre: the value they are laid around, Ω.

    Returns:
        Ohms, (k,), ascending.
    """
    return preferred.values(position.series, max(centre / RULE_REACH, 1e-3), min(centre * RULE_REACH, 1e9))


def solve(position: Position, *, further: Mapping[str, Block] | None = None, rule: bool = True) -> Solution:
    """Solve corners, slide rule and any further blocks together.

    Args:
        position: the swap.
        further: more blocks of cases, by name.
        rule: whether the slide rule is wanted.

    Returns:
        The solution, further blocks by their names.

    Raises:
        NotConverged: a case has no answer.
        CannotBuild: a part of it is not built on its waveform.
    """
    p = with_strings(position)
    how = _solve_alternating if p.rail.supply.alternates else _solve_steady
    found = how(p, further or {}, rule)
    others = [how(q, {}, False) for q in p.possible[1:]]
    if not others:
        return found
    every = (found, *others)
    return replace(
        found,
        power_w=max(s.power_w for s in every),
        source_w=max(s.source_w for s in every),
        lamp_w=max(s.lamp_w for s in every),
        supply_current_max=max(s.supply_current_max for s in every),
        doubt=(min(s.string_current_min for s in every), max(s.string_current_max for s in every)),
        brightest_low=max(s.most_at_low for s in every),
    )


def _axes(position: Position, sizing: Sizing) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Rails, forward voltages and resistances of the corners, (3,) each."""
    tol = position.ohm_spread
    vf = np.array([position.led.vf_high, position.led.vf_typ, position.led.vf_low])
    return np.array(position.rail.volts), vf, sizing.total_ohm * np.array([1 + tol, 1.0, 1 - tol])


def _rule(position: Position, sizing: Sizing) -> FloatArray:
    centre = (sizing.exact_ohm or sizing.total_ohm) / sizing.parts
    if position.module is not None:
        # A resistor before a ready-made lamp dims it: the rule is laid around the lamp's own.
        centre = max(position.module.at_v / position.module.amps, 1.0)
    supply = position.rail.supply
    if supply.kind.reads_line and supply.trip is not None:
        # On a line the rule must reach what the line allows.
        safe = supply.trip.value * supply.trip_share / position.branches
        allowed = ohms_for(position, safe, rail_v=position.rail.volts[2], vf=position.led.vf_low, drop_v=0.0)
        centre = max(centre, (allowed or 0.0) / position.resistor_parts / 4)
    return rule_values(position, centre)


def _corner_block(position: Position, sizing: Sizing) -> Block:
    rail, vf, ohms = np.meshgrid(*_axes(position, sizing), indexing="ij")
    least, usual, most = position.drops
    drop: FloatArray | None = None
    if least != most:
        # At the ends of rail and LED stand the driver's own ends too, whatever the resistor is.
        drop = np.full(rail.shape, usual)
        drop[0, 0, :], drop[-1, -1, :] = most, least
    held = None
    if position.held_v[1]:
        # What a regulator holds is as lucky as the resistor behind it.
        held = np.broadcast_to(np.array(position.held_v), rail.shape)
    return Block(CORNERS, rail, vf, ohms, drop, held=held)


def _rule_block(position: Position, total: FloatArray) -> Block:
    """The slide rule's curves over total resistances, (k,)."""
    p, tol = position, position.ohm_spread
    low, usual, high = p.rail.volts
    led, column = p.led, np.ones(len(total))
    curves = np.array([low, usual, high, low, high])
    vf = np.array([led.vf_typ, led.vf_typ, led.vf_typ, led.vf_high, led.vf_low])
    spread = np.array([1.0, 1.0, 1.0, 1 + tol, 1 - tol])
    least, middle, most = p.drops
    drop = None
    if least != most:
        drop = np.outer([middle, middle, middle, most, least], column)
    held = None
    if p.held_v[1]:
        a, b, c = p.held_v
        held = np.outer([b, b, b, a, c], column)
    axes = {"curve": CURVES, "value": places(len(total))}
    return Block(axes, np.outer(curves, column), np.outer(vf, column), np.outer(spread, total), drop, held=held)


def _solve_steady(position: Position, further: Mapping[str, Block], with_rule: bool) -> Solution:
    sizing = size(position)
    key = (_for_rule(position), 0.0)
    known = _RULES.get(key) if with_rule else _NO_RULE
    rule = _rule(position, sizing) if known is None else known[0]
    # While only the fitted value moves the rule's own cases stay what they were.
    total = rule * sizing.parts if known is None else np.zeros(0)
    blocks = {"corners": _corner_block(position, sizing), "rule": _rule_block(position, total), **further}
    batch = Batch(blocks, position.drop_v, position.rail.supply.source_ohm.value, position.held_v[1])
    cases = batch.cases()
    point = point_of(position, cases)
    amps = string_amps(position, point)
    through = resistor_amps(position, point)
    heat = batch.of(through**2 * np.asarray(cases.ohms), "corners") / sizing.parts
    supplied = batch.of(supply_amps(point), "corners")
    volts = point.across("D1") / position.in_series
    if known is None:
        on_rule = batch.of(amps, "rule")
        watts = _rule_watts(rule, position.ohm_spread, batch.of(through, "rule")[CURVES.index("most")])
        known = _remember(key, (rule, on_rule, watts))
    return Solution(
        position,
        sizing,
        amps=batch.of(amps, "corners"),
        volts_led=batch.of(volts, "corners"),
        rule_ohm=rule,
        rule_amps=known[1][:3],
        rule_worst=known[1][3:],
        rule_watts=known[2],
        supply_current_max=float(supplied.max()),
        power_w=0.0 if position.bare else float(heat.max()),
        resistor_v=float(batch.of(through * np.asarray(cases.ohms), "corners").max()) / sizing.parts,
        shunt_w=float(batch.of(_shunt_watts(position, point), "corners").max()),
        source_w=float((supplied**2).max()) * position.rail.supply.source_ohm.value,
        lamp_w=max(float(batch.of(lamp_watts(point), "corners").max()), 0.0),
        further={name: batch.of(amps, name) for name in further},
        point=point,
        typical=batch.index("corners", led="typical", ohms="nominal"),
    )


def _rule_watts(rule: FloatArray, tol: float, amps: FloatArray) -> FloatArray:
    """Most heat in each part along the rule, at either end of its tolerance.

    Where other resistances set the current the heat is most at the high end: I²R rises with R there (Ohm).

    Args:
        rule: each-part values, (k,).
        tol: tolerance.
        amps: the most current of a part at the low end of its tolerance, (k,).

    Returns:
        Watts, (k,).
    """
    low = amps**2 * rule * (1 - tol)
    if len(rule) < 2 or tol <= 0:
        return low
    at, logs = np.log(rule * (1 - tol)), np.log(np.maximum(amps, 1e-15))
    wanted = np.log(rule * (1 + tol))
    last = (logs[-1] - logs[-2]) / (at[-1] - at[-2])
    found = np.where(wanted <= at[-1], np.interp(wanted, at, logs), logs[-1] + last * (wanted - at[-1]))
    return np.maximum(low, np.exp(found) ** 2 * rule * (1 + tol))


def _at_high_ohms(at_low: float, nominal: float, tol: float) -> float:
    """Current at the high end of a resistor's tolerance by those at its low end and at its value, as a power of R."""
    if tol <= 0 or min(at_low, nominal) <= 0:
        return nominal
    return float(nominal * (nominal / at_low) ** (math.log1p(tol) / -math.log1p(-tol)))


def _shunt_watts(position: Position, point: OperatingPoint) -> FloatArray:
    """Heat in the shunt of every sample, V²/R."""
    ohm = position.shunt_ohm
    return np.zeros(point.samples) if ohm is None else point.across("Rshunt") ** 2 / ohm


def ac_cases(position: Position, cases: Cases) -> AcCases:
    """Cases given by RMS volts (flat volts where it is no sine), at the usual frequency.

    Args:
        position: the swap on a supply that alternates.
        cases: (n,) each, or plain numbers.

    Returns:
        The same by their crests, (n,) each.
    """
    factor = position.rail.peaks[1] / position.rail.volts[1]
    peak = np.atleast_1d(np.asarray(cases.rail, dtype=float)) * factor - position.drop_v
    shape = peak.shape
    vf, ohms, source = (
        np.broadcast_to(np.asarray(v, dtype=float), shape) for v in (cases.vf, cases.ohms, cases.source_of(position))
    )
    # A stator's frequency follows its volts.
    hertz = position.rail.supply.hertz
    if hertz[1] > 0:
        speed = np.interp(np.asarray(cases.rail), position.rail.volts, hertz) / hertz[1]
        speed = np.broadcast_to(speed, shape)
    else:
        speed = np.ones(shape)
    held = None if cases.held is None else np.broadcast_to(np.asarray(cases.held, dtype=float), shape)
    return AcCases(np.maximum(peak, 1e-6), vf, ohms, source, speed, held, cases.fault)


def _ac_blocks(position: Position, sizing: Sizing) -> dict[str, Block]:
    """Nominal resistor at every rail and LED; and the two ends of all corners."""
    rail, vf, ohms = _axes(position, sizing)
    grid = np.meshgrid(rail, vf, indexing="ij")
    nominal = {"rail": CORNERS["rail"], "led": CORNERS["led"]}
    held = np.array(position.held_v)[[0, 2]] if position.held_v[1] else None
    return {
        "nominal": Block(nominal, grid[0], grid[1], np.full(grid[0].shape, ohms[1])),
        "ends": Block({"end": ("least", "most")}, rail[[0, 2]], vf[[0, 2]], ohms[[0, 2]], held=held),
    }


def _solve_alternating(position: Position, further: Mapping[str, Block], with_rule: bool) -> Solution:
    sizing = size(position)
    tol = position.ohm_spread
    batch = Batch(
        {**_ac_blocks(position, sizing), **further},
        position.drop_v,
        position.rail.supply.source_ohm.value,
        position.held_v[1],
    )
    # The typical LED at the three levels is drawn.
    typical = batch.index("nominal", led="typical")
    found, drawn = solve_and_draw(
        position, ac_cases(position, batch.cases()), sizing.farads, tuple(int(k) for k in typical)
    )
    most = found.pick(batch.index("ends", end="most"))
    corners = np.concatenate([batch.index("nominal"), batch.index("ends")])
    amps = np.full((3, 3, 3), np.nan)
    amps[:, :, 1] = batch.of(found.average, "nominal")
    amps[0, 0, 0], amps[-1, -1, -1] = batch.of(found.average, "ends")
    volts = np.full((3, 3, 3), np.nan)
    volts[:, 1, 1] = drawn.string.max(axis=1) / position.in_series
    rule, on_rule, watts = _alternating_rule(_for_rule(position), sizing.farads) if with_rule else _NO_RULE
    nominal = float(batch.of(found.rms, "nominal")[-1, -1])
    power = (
        0.0
        if position.bare
        else sizing.total_ohm
        / sizing.parts
        * max(
            float(most.rms[0]) ** 2 * (1 - tol),
            nominal**2,
            _at_high_ohms(float(most.rms[0]), nominal, tol) ** 2 * (1 + tol),
        )
    )
    supplied = float(found.supply_rms[corners].max())
    shunted = float(found.shunt_rms[corners].max()) ** 2 / (position.shunt_ohm or 1.0)
    regulator = None if found.regulator is None else found.regulator.pick(corners)
    ac = AcSolution(found.pick(typical), most, float(found.reverse[corners].max()), drawn, regulator)
    return Solution(
        position,
        sizing,
        amps=amps,
        volts_led=volts,
        rule_ohm=rule,
        rule_amps=on_rule[:3],
        rule_worst=on_rule[3:],
        rule_watts=watts,
        supply_current_max=supplied,
        power_w=power,
        resistor_v=float(found.through_peak[corners].max()) * sizing.total_ohm / sizing.parts,
        shunt_w=shunted,
        source_w=supplied**2 * position.rail.supply.source_ohm.value,
        lamp_w=float(found.watts[corners].max()),
        further={name: batch.of(found.average, name) for name in further},
        ac=ac,
    )


def _for_rule(position: Position) -> Position:
    """What the rule's curves depend on: not on the value fitted, unless there is no other."""
    if size(position).exact_ohm is None:
        return position
    return replace(position, resistor_ohm=None, rating_w=None, lamp=None)


# By position and capacitance: rule values, currents along :data:`CURVES`, and most heat in each part.
_Rule = tuple[FloatArray, FloatArray, FloatArray]
_NO_RULE: _Rule = (np.zeros(0), np.zeros((len(CURVES), 0)), np.zeros(0))
_RULES: dict[tuple[Position, float], _Rule] = {}
_MOST_RULES = 128


def _remember(key: tuple[Position, float], rule: _Rule) -> _Rule:
    if len(_RULES) >= _MOST_RULES:
        _RULES.clear()
    _RULES[key] = rule
    return rule


def _alternating_rule(position: Position, farads: float) -> _Rule:
    """The slide rule where each of its points is a whole cycle."""
    key = (position, farads)
    if key in _RULES:
        return _RULES[key]
    sizing = size(position)
    rule = _rule(position, sizing)
    points = RULE_POINTS_RESERVOIR if position.rectification.reservoir else RULE_POINTS
    at = np.geomspace(rule[0], rule[-1], points)
    batch = Batch(
        {"rule": _rule_block(position, at * sizing.parts)},
        position.drop_v,
        position.rail.supply.source_ohm.value,
        position.held_v[1],
    )
    found = solve_cycles(position, ac_cases(position, batch.cases()), farads)

    def along(values: FloatArray) -> FloatArray:
        logs = np.log(np.maximum(np.atleast_2d(values), 1e-15))
        return np.asarray(np.exp(joined(np.log(at), logs, np.log(rule))))

    rms = along(batch.of(found.rms, "rule")[CURVES.index("most")])[0]
    watts = _rule_watts(rule, position.ohm_spread, rms)
    return _remember(key, (rule, along(batch.of(found.average, "rule")), watts))


def current(position: Position, cases: Cases) -> FloatArray:
    """Forward current of one string for any cases.

    Args:
        position: the swap.
        cases: (samples,) each, or plain numbers.

    Returns:
        Amps, (samples,); the average over the cycle where there is one.

    Raises:
        NotConverged: a case has no answer.
        CannotBuild: a part of it is not built on its waveform.
    """
    if position.rail.supply.alternates:
        return solve_cycles(position, ac_cases(position, cases), size(position).farads).average
    return string_amps(position, point_of(position, cases))
