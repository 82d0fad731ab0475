"""What a figure in pencil costs if it is wrong: nothing, a resistor, the LED, a fuse, or a part of the unit itself.

A figure is taken to its bad end, as far off as such figures are, and what then flows is held against what each part
stands. What the unit loses cannot be bought again and counts most (ours).
"""

from dataclasses import dataclass

import numpy as np

from swapglow.core.analysis.solution import Solution
from swapglow.core.design.position import Position
from swapglow.core.parts.resistor import takes_w
from swapglow.core.quantities import AMPERE, VOLT, WATT, show
from swapglow.core.supplies.waveform import Waveform

# The dearer, the later.
LOSSES = ("nothing", "resistor", "LED", "fuse", "unit")
# A fuse carries its rating for hours; at twice it is gone within a minute or two (IEC 60127, from memory).
FUSE_BLOWS = 2.0


@dataclass(frozen=True)
class Stake:
    """What a wrong figure costs.

    Attributes:
        loss: one of :data:`LOSSES`.
        line: that in words, with the figure it comes to; "" where nothing is lost.
    """

    loss: str = "nothing"
    line: str = ""

    @property
    def rank(self) -> int:
        """The dearer, the higher."""
        return LOSSES.index(self.loss)


NO_STAKE = Stake()


def dearest(stakes: list[Stake]) -> Stake:
    """The dearest of some; nothing of none."""
    return max(stakes, key=lambda k: k.rank, default=NO_STAKE)


def stake_of(s: Solution, amps: float, rail_v: float) -> Stake:
    """What is lost at a current and a rail.

    Args:
        s: the solved position.
        amps: of one string, with the figure at its bad end.
        rail_v: what the rail then stands at, as a meter reads it.

    Returns:
        The dearest of what is lost.
    """
    p = s.position
    out = [_unit(p, amps, rail_v), _fuse(s, amps), _led(p, amps), _resistor(s, amps)]
    return dearest(out)


def _unit(p: Position, amps: float, rail_v: float) -> Stake:
    """An output that gives too much, a capacitor past its volts."""
    limit = p.rail.supply.output_limit
    drawn = amps * p.branches
    if limit is not None and drawn > limit.value:
        return Stake("unit", f"the output: {show(drawn, AMPERE)} of {show(limit.value, AMPERE)}")
    crest = rail_v * p.rail.supply.waveform.crest_factor
    if p.capacitor_v is not None and p.rectification.reservoir and crest > p.capacitor_v:
        return Stake("unit", f"the capacitor and what it spills on: {show(crest, VOLT)} on {show(p.capacitor_v, VOLT)}")
    return NO_STAKE


def _fuse(s: Solution, amps: float) -> Stake:
    fuse, p = s.position.rail.fuse_a, s.position
    usual = float(s.usual[1])
    if fuse is None or usual <= 0:
        return NO_STAKE
    drawn = s.supply_current_max / max(s.string_current_max, 1e-12) * amps + p.rail.others_a
    if drawn <= FUSE_BLOWS * fuse:
        return NO_STAKE
    return Stake("fuse", f"the fuse: {show(drawn, AMPERE)} through {show(fuse, AMPERE)}")


def _led(p: Position, amps: float) -> Stake:
    if amps <= p.rated_a or p.module is not None:
        return NO_STAKE
    return Stake("LED", f"the LED: {show(amps, AMPERE)} of {show(p.rated_a, AMPERE)}")


def _resistor(s: Solution, amps: float) -> Stake:
    p = s.position
    if p.module is not None or s.power_w <= 0 or s.string_current_max <= 0:
        return NO_STAKE
    rating = p.rating_w or s.rating_to_fit_w
    if rating is None:
        return NO_STAKE
    watts = s.power_w * (amps / s.string_current_max) ** 2
    takes = takes_w(rating, p.celsius)
    if watts <= takes:
        return NO_STAKE
    return Stake("resistor", f"a resistor: {show(watts, WATT)} in {show(takes, WATT)}")


def if_alternating(p: Position) -> Stake:
    """A steady rail that nobody has read, if it is a winding's: what its other half does to the LED.

    Args:
        p: the position.

    Returns:
        The LED where its reverse volts are passed by the crest.
    """
    if not p.rail.supply.kind.may_be_other or p.module is not None:
        return NO_STAKE
    crest = p.rail.volts[1] * float(np.sqrt(2)) - p.drop_v
    limit = p.led.reverse_v
    if p.rail.supply.waveform is not Waveform.DC or crest <= limit or p.series_diodes:
        return NO_STAKE
    return Stake("LED", f"the LED, if it is AC: {show(crest, VOLT)} in reverse over {show(limit, VOLT)}")
