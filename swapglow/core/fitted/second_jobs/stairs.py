"""Old lamp and LED side by side on the staircase: what each part of the loop keeps."""

from swapglow.core.fitted.worked import BranchStair, BranchStep
from swapglow.core.quantities import AMPERE, shown


def stair(
    label: str, steps: tuple[tuple[str, float], ...], amps: float, said: str, origin: str
) -> BranchStair:
    """One stair, from the feed down.

    Args:
        label: whose it is.
        steps: each part in turn with the volts it keeps.
        amps: what flows.
        said: what is seen of it.
        origin: where the figures are from.

    Returns:
        The stair.
    """
    parts = tuple(BranchStep(name, max(volts, 0.0)) for name, volts in steps)
    return BranchStair(label, parts, shown(amps, AMPERE, origin), None, said)
