"""What goes into the holder: asked first, for each answer has fields of its own."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from swapglow.inputs.position import PositionInput

LEDS, READY_MADE, THERE = "leds", "ready_made", "there"


@dataclass(frozen=True)
class Holder:
    """One answer.

    Attributes:
        label: as it is offered.
        empties: what is taken out again where another answer is given.
    """

    label: str
    empties: Mapping[str, Any]


_SWEPT = {"sweep": "", "sweep_in_series": "", "sweep_strings": "", "sweep_resistor": ""}
HOLDERS: Mapping[str, Holder] = {
    LEDS: Holder("LEDs of its own", {}),
    READY_MADE: Holder("A ready-made LED lamp", {"module": {"amps": ""}, "band": ""}),
    THERE: Holder("What is there already", _SWEPT),
}


def holder_of(p: PositionInput) -> str:
    """Which answer stands, by what was typed.

    Args:
        p: the position as typed.

    Returns:
        One of :data:`HOLDERS`.
    """
    if p.module.amps.strip() or p.band.strip():
        return READY_MADE
    inside = p.sweep_in_series + p.sweep_strings + p.sweep_resistor
    return THERE if inside.strip() else LEDS
