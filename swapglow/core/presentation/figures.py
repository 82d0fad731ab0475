"""A lamp's few figures, to stand beside another moment's."""

from swapglow.core.analysis.solution import solve
from swapglow.core.design.position import Position
from swapglow.core.presentation.glow_box import glow
from swapglow.core.quantities import AMPERE, OHM, WATT, show


def figures_of(position: Position) -> dict[str, str]:
    """What a change of a lamp is looked at for.

    Args:
        position: the swap.

    Returns:
        Texts by what they are of.

    Raises:
        NotConverged: the circuit has no answer.
        CannotBuild: a part of it is not worked out on its supply.
    """
    s = solve(position, rule=False)
    usual = (float(s.usual[0]), float(s.usual[1]), float(s.usual[2]))
    seen = next(g for g in glow(position, usual).lamps if g.id == "usual")
    return {
        "Each resistor": show(s.sizing.each_ohm, OHM),
        "Current, usual": show(usual[1], AMPERE),
        "Current, at most": show(s.string_current_max, AMPERE),
        "Light": seen.ratio_text or seen.amount.text,
        "Heat in each resistor": show(s.power_w, WATT),
        "All heat at the lamp": show(s.lamp_w, WATT),
    }
