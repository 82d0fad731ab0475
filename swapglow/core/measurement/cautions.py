"""The cautions of a step at the bench: those of the volts that are there, and of the item's own dangers."""

from collections.abc import Iterable
from dataclasses import replace

from swapglow.core.design.position import Position
from swapglow.core.intake.hazards import HAZARDS
from swapglow.core.kinds.step import NextStep
from swapglow.core.parts.fuse import Fuse
from swapglow.core.supplies.waveform import Waveform

# Above these a reading is taken with insulated probes and one hand (common practice: 30 V AC, 60 V DC).
CAREFUL_AC_V, CAREFUL_DC_V = 30.0, 60.0
_CAREFUL = "Over 30 V AC or 60 V DC: insulated probes, one hand, the other off the metal."


def careful_volts(position: Position) -> bool:
    """Whether a live reading on this rail wants insulated probes and one hand."""
    supply = position.rail.supply
    most = CAREFUL_DC_V if supply.waveform is Waveform.DC else CAREFUL_AC_V
    return position.rail.volts[2] > most


def with_cautions(step: NextStep, position: Position, hazards: Iterable[str], fuse: Fuse | None) -> NextStep:
    """A step with every caution that belongs to it; each said once.

    Args:
        step: what to do.
        position: the swap.
        hazards: dangers of the item, as its take-in sheet names them.
        fuse: the one of what is clipped to a battery; None past the largest.

    Returns:
        The step.
    """
    if step.stops:
        return step
    said = [step.caution] if step.caution else []
    if step.points and "power off" not in step.state:
        if careful_volts(position):
            said.append(_CAREFUL)
        if "clip" in step.points or "clip" in step.act.lower():
            said.append(_fused(position, fuse))
    said += [HAZARDS[h].at_step for h in HAZARDS if h in set(hazards)]
    # A step of the plan that becomes the next thing has them already.
    first, *more = said or [""]
    return replace(step, caution=" ".join(filter(None, [first, *(s for s in dict.fromkeys(more) if s not in first)])))


def _fused(position: Position, fuse: Fuse | None) -> str:
    """What is clipped to a vehicle's battery, or to a new tap, has a fuse in line."""
    if fuse is None or not position.rail.supply.kind.fused_tap:
        return ""
    return f"Put a fuse in line at the tap: {fuse.text}."
