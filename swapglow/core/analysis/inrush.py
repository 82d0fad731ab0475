"""What an empty reservoir capacitor draws when its supply is switched on at the crest."""

from dataclasses import dataclass

from swapglow.core.analysis.cycle_figures import crest_v
from swapglow.core.analysis.solution import Solution
from swapglow.core.parts.fuse import Fuse, fuse_for
from swapglow.core.parts.rectifier import rectifier

# Resistance of a small electrolytic and its wiring (common practice).
_LEAST_OHM = 0.2


@dataclass(frozen=True)
class Inrush:
    """The first charge.

    Attributes:
        peak_a: V/R, A.
        let_through: ∫i²dt = C·V²/(2·R) (textbook), A²s; the most, for a slow charge shares it among crests.
        ohm: what limits it, Ω.
        known: whether the resistance behind the rail is; otherwise all of this is at the most.
    """

    peak_a: float
    let_through: float
    ohm: float
    known: bool


def inrush(s: Solution) -> Inrush | None:
    """The first charge of a position's reservoir at its highest crest; None without a reservoir.

    Args:
        s: the solved position.

    Returns:
        Its peak and its I²t.
    """
    p = s.position
    if not s.sizing.farads or p.module is not None:
        return None
    diodes = p.rectification.diodes * float(rectifier("power").model.r_s)
    ohm = p.rail.supply.source_ohm.value + diodes + _LEAST_OHM
    volts = crest_v(s)
    return Inrush(volts / ohm, s.sizing.farads * volts**2 / (2 * ohm), ohm, p.rail.supply.source_ohm.value > 0)


def fuse_of(s: Solution) -> Fuse | None:
    """The fuse of a position: it carries all that the circuit takes, and stands its first charge.

    Args:
        s: the solved position.

    Returns:
        The smallest that is made; None past the largest.
    """
    first = inrush(s)
    return fuse_for(s.supply_current_max, 0.0 if first is None else first.let_through)
