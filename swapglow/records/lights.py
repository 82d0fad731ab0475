"""An item's circuits and fitted LEDs as lines of its lamps."""

from collections.abc import Mapping
from dataclasses import dataclass

from swapglow.core.circuits import CIRCUITS
from swapglow.core.circuits.answer import CircuitAnswer
from swapglow.core.findings.finding import Grade
from swapglow.core.intake.front_door import What
from swapglow.core.presentation.dimming import Dimming
from swapglow.inputs.equipment import EquipmentInput


@dataclass(frozen=True)
class Light:
    """A circuit, or a fitted LED that is to be dimmed.

    Attributes:
        id, what: its key in the item, and which of the two it is.
        name: as somebody calls it, or what it is.
        line: what it is, or what it comes to.
        grade: of its gravest finding; None for none, or where it was not worked out.
    """

    id: str
    what: What
    name: str
    line: str
    grade: Grade | None = None


def lights_of(
    item: EquipmentInput,
    answers: Mapping[str, CircuitAnswer] | None = None,
    dimming: Mapping[str, Dimming] | None = None,
) -> tuple[Light, ...]:
    """The circuits and fitted LEDs of an item, each in the order they were put in.

    Args:
        item: as typed.
        answers, dimming: what they come to; None where nobody asks for that.

    Returns:
        One line each.
    """
    out = []
    for key, one in sorted(item.fitted.items(), key=lambda pair: pair[1].place):
        label = CIRCUITS[one.kind].label
        answer = (answers or {}).get(key)
        found = answer.result.findings if answer is not None and answer.result is not None else ()
        said = "" if answer is None else answer.problem or (answer.result.line if answer.result else "")
        out.append(Light(key, "circuit", one.name or label, said or label, found[0].grade if found else None))
    for key, dim in sorted(item.dims.items(), key=lambda pair: pair[1].place):
        d = (dimming or {}).get(key)
        line = "Fitted LED to dim"
        if d is not None:
            line = "Resistor not typed yet" if d.problem else (f"Try {d.next}" if d.next else "Right")
        out.append(Light(key, "dim", dim.name or "Fitted LED", line))
    return tuple(out)
