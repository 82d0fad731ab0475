"""A position solved at its corners and along the slide rule, in one batch."""

from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuit.operating_point import operating_point
from swapglow.core.parts import preferred, resistor
from swapglow.core.position.circuit import Cases, to_circuit
from swapglow.core.position.model import Position

FloatArray = NDArray[np.float64]

# Smallest and largest value the slide rule shows around the value fitted, as a factor.
RULE_REACH = 40.0


@dataclass(frozen=True)
class Sizing:
    """From the exact resistance to what is fitted.

    Attributes:
        headroom_v: usual rail − driver's drop − n·Vf at the drive wanted.
        exact_ohm: headroom over the drive wanted; None where there is no headroom.
        preferred_ohm: the preferred value by the position's rule, one part.
        each_ohm: each fitted part.
        parts: how many parts.
        is_own: True where the user fitted a value of their own.
    """

    headroom_v: float
    exact_ohm: float | None
    preferred_ohm: float | None
    each_ohm: float
    parts: int
    is_own: bool

    @property
    def total_ohm(self) -> float:
        """All fitted parts in series."""
        return self.each_ohm * self.parts


# Fitted where nothing lights anyway, so that the picture still has a resistor to move.
_FALLBACK_OHM = 1000.0


@lru_cache(maxsize=256)
def size(position: Position) -> Sizing:
    """Exact and preferred resistance for the usual rail and the typical LED.

    R = (rail − driver's drop − n·Vf(I)) / I (Ohm, Kirchhoff), with Vf at the drive wanted.
    """
    wanted = position.target.value
    vf = float(position.led.junction(position.led.vf_typ, position.celsius).volts(wanted))
    headroom = position.rail.usual.value - position.drop_v - position.in_series * vf
    exact = headroom / wanted if headroom > 0 else None
    if exact is not None and not 1e-3 <= exact <= 1e9:
        exact = None
    chosen = preferred.prefer(exact, position.series, position.rounding) if exact else None
    if position.resistor_ohm is not None:
        each = position.resistor_ohm
    elif exact is None:
        each = _FALLBACK_OHM
    elif position.resistor_parts == 2:
        each = resistor.halves(exact, position.series, position.rounding).first_ohm
    else:
        each = chosen or _FALLBACK_OHM
    return Sizing(headroom, exact, chosen, each, position.resistor_parts, position.resistor_ohm is not None)


@dataclass(frozen=True)
class Solution:
    """Currents of a position over its corners.

    Attributes:
        amps: forward current, shape (3 rails low to high, 3 LEDs, 3 resistors). The LED axis runs
            from highest to lowest forward voltage and the resistor axis from the high to the low
            end of its tolerance, so that index 0 is the least current and −1 the most.
        volts_led: voltage of one LED, same shape.
        rule_ohm: each-part values along the slide rule, (k,).
        rule_amps: currents there at (low rail, usual, high rail; typical LED), (3, k).
        rule_worst: least and most current there over rail, LED and tolerance, (2, k).
        further: currents of the further cases asked for.
    """

    position: Position
    sizing: Sizing
    amps: FloatArray
    volts_led: FloatArray
    rule_ohm: FloatArray
    rule_amps: FloatArray
    rule_worst: FloatArray
    further: FloatArray

    @cached_property
    def usual(self) -> FloatArray:
        """Current at the low, usual and high rail with the typical LED and resistor, (3,)."""
        return self.amps[:, 1, 1]

    @property
    def least(self) -> float:
        """The least current of all corners, A."""
        return float(self.amps[0, 0, 0])

    @property
    def most(self) -> float:
        """The most current of all corners, A."""
        return float(self.amps[-1, -1, -1])

    @cached_property
    def power_w(self) -> float:
        """Most power in each resistor part: I²R at the highest rail, lowest Vf, low tolerance."""
        each = self.sizing.each_ohm * (1 - self.position.resistor_tolerance)
        return self.most**2 * each


def rule_values(position: Position, around: float) -> FloatArray:
    """Preferred values the slide rule shows, about three decades around the value fitted."""
    return preferred.values(position.series, max(around / RULE_REACH, 1e-3), min(around * RULE_REACH, 1e9))


def solve(position: Position, *, around: float | None = None, further: Cases | None = None) -> Solution:
    """Solve corners, slide rule and any further cases together.

    Args:
        position: the swap.
        further: arrays of one length, with the position's own driver's drop.

    Raises:
        NotConverged: a case has no answer; none is then given for the position.
    """
    sizing = size(position)
    rail = np.array([f.value for f in (position.rail.low, position.rail.usual, position.rail.high)])
    vf = np.array([position.led.vf_high, position.led.vf_typ, position.led.vf_low])
    tol = position.resistor_tolerance
    ohms = sizing.total_ohm * np.array([1 + tol, 1.0, 1 - tol])
    corner = [a.ravel() for a in np.meshgrid(rail, vf, ohms, indexing="ij")]

    centre = (sizing.exact_ohm or sizing.total_ohm) / sizing.parts
    rule = rule_values(position, centre)
    total = rule * sizing.parts
    # Five cases a value: typical LED at three rails, and the two worst ends.
    case_rail = np.repeat([rail[0], rail[1], rail[2], rail[0], rail[2]], len(rule))
    case_vf = np.repeat([vf[1], vf[1], vf[1], vf[0], vf[2]], len(rule))
    more = further or Cases(np.zeros(0), np.zeros(0), np.zeros(0))
    cases = Cases(
        rail=np.concatenate([corner[0], case_rail, np.asarray(more.rail)]),
        vf=np.concatenate([corner[1], case_vf, np.asarray(more.vf)]),
        ohms=np.concatenate(
            [
                corner[2],
                np.concatenate([total, total, total, total * (1 + tol), total * (1 - tol)]),
                np.asarray(more.ohms),
            ]
        ),
        drop=position.drop_v,
    )
    point = operating_point(to_circuit(position, cases, stacked=True)).require()
    amps = np.maximum(point.current("D1"), 0.0)
    volts = point.across("D1") / position.in_series
    along = amps[27 : 27 + 5 * len(rule)].reshape(5, len(rule))
    return Solution(
        position,
        sizing,
        amps[:27].reshape(3, 3, 3),
        volts[:27].reshape(3, 3, 3),
        rule,
        along[:3],
        along[3:],
        amps[27 + 5 * len(rule) :],
    )


def current(position: Position, cases: Cases) -> FloatArray:
    """Forward current for any cases, shape (samples,)."""
    point = operating_point(to_circuit(position, cases, stacked=True)).require()
    return np.maximum(point.current("D1"), 0.0)
