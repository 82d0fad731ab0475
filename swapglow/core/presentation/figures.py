"""A lamp as it stood at a moment: its few figures, to stand beside another moment's, and its staircase."""

from dataclasses import dataclass

from swapglow.core.analysis.solution import solve
from swapglow.core.design.position import Position
from swapglow.core.presentation.glow_box import glow
from swapglow.core.presentation.snapshots import Snapshot, snapshots
from swapglow.core.quantities import AMPERE, OHM, WATT, show


@dataclass(frozen=True)
class Moment:
    """A lamp at a moment.

    Attributes:
        figures: texts by what they are of.
        snapshots: its staircase at the instants its supply has.
    """

    figures: dict[str, str]
    snapshots: tuple[Snapshot, ...]


def moment_of(position: Position) -> Moment:
    """What a change of a lamp is looked at for.

    Args:
        position: the swap.

    Returns:
        The moment.

    Raises:
        NotConverged: the circuit has no answer.
        CannotBuild: a part of it is not worked out on its supply.
    """
    s = solve(position, rule=False)
    usual = (float(s.usual[0]), float(s.usual[1]), float(s.usual[2]))
    seen = next(g for g in glow(position, usual).lamps if g.id == "usual")
    figures = {
        "Each resistor": show(s.sizing.each_ohm, OHM),
        "Current, usual": show(usual[1], AMPERE),
        "Current, at most": show(s.string_current_max, AMPERE),
        "Light": seen.ratio_text or seen.amount.text,
        "Heat in each resistor": show(s.power_w, WATT),
        "All heat at the lamp": show(s.lamp_w, WATT),
    }
    return Moment(figures, tuple(snapshots(s)))
