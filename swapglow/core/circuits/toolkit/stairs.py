"""Branches side by side on one staircase: the voltage across each part of each."""

from swapglow.core.circuits.result import BranchStair, BranchStep
from swapglow.core.quantities import AMPERE, Shown, shown


def stair(
    id_: str,
    label: str,
    steps: tuple[tuple[str, float], ...],
    amps: float,
    said: str,
    origin: str,
    after: Shown | None = None,
) -> BranchStair:
    """One stair, from the feed down.

    Args:
        id_, label: which branch.
        steps: each part in turn with the voltage across it.
        amps: what flows.
        said: what is seen of it.
        origin: where the figures are from.
        after: what flows once the option is done, where that differs.

    Returns:
        The stair.
    """
    parts = tuple(BranchStep(name, max(volts, 0.0)) for name, volts in steps)
    return BranchStair(id_, label, parts, shown(amps, AMPERE, origin), after, said)
