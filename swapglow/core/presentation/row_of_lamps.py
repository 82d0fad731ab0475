"""The lamps of an item beside each other, as bright beside each other as they will be."""

from collections.abc import Sequence
from dataclasses import dataclass

from swapglow.core.analysis.solution import solve
from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.photometry import screen
from swapglow.core.photometry.intensity import shown_candela, sight_of
from swapglow.core.presentation.glow_box import GlowLamp, Painted, painted
from swapglow.core.quantities import AMPERE, CANDELA, InputError, show, shown


@dataclass(frozen=True)
class RowOfLamps:
    """Lamps in one box.

    Attributes:
        lamps: those that can be worked out, in their order.
        without: what is left out, and why.
    """

    lamps: tuple[GlowLamp, ...]
    without: tuple[str, ...]


def row_of_lamps(lamps: Sequence[tuple[str, str, Position]]) -> RowOfLamps:
    """Lamps in one box, each at its usual rail, as it is looked at.

    Args:
        lamps: key, name and swap of each.

    Returns:
        The row, on one scale of luminance.
    """
    found: list[tuple[Position, Painted]] = []
    without = []
    for key, name, position in lamps:
        try:
            amps = float(solve(position, rule=False).usual[1])
        except (CircuitError, InputError) as problem:
            without.append(f"{name}: {problem}")
            continue
        cd = shown_candela(position, amps)
        source = f"{position.led.label.lower()} at {show(amps, AMPERE)}, usual rail"
        found.append((position, Painted(key, name, cd, sight_of(position), "", "tip", shown(cd, CANDELA, source))))
    if not found:
        return RowOfLamps((), tuple(without))
    white = max(1e-9, max(s.candela for _, s in found))
    most = screen.brightest(s.sight.xyz for _, s in found)
    drawn = tuple(lamp for p, s in found for lamp in painted([s], p, white, most))
    return RowOfLamps(drawn, tuple(without))
