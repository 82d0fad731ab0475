"""An item of equipment as typed, and its take-in sheet."""

from typing import Annotated

from pydantic import Field

from swapglow.core.intake.feasibility import ACCESS, AFTER, BRITTLE
from swapglow.core.intake.hazards import HAZARDS
from swapglow.core.intake.wires import DOES, FOUND_WITH
from swapglow.inputs.quantity import Line, Long, Short
from swapglow.inputs.shape import OneOf, Shape, Suggests

MOST_LINES = 300


class EquipmentInput(Shape):
    """What can be written of an item."""

    name: Annotated[str, Field(min_length=1, max_length=120)] = "New equipment"
    maker_model: Annotated[str, Field(max_length=160)] = ""
    board_revision: Annotated[str, Field(max_length=80)] = ""
    owner: Annotated[str, Field(max_length=120)] = ""
    notes: Long = ""


class OpeningStep(Shape):
    """One step of opening the case, read backwards at closing."""

    text: Line
    closed: bool = False


class Wire(Shape):
    """A wire as seen: its colour is noted, never taken for its meaning."""

    name: Line
    goes: Line = ""
    does: Annotated[str, OneOf(DOES)] = ""
    when: Line = ""
    found_with: Annotated[Line, Suggests(FOUND_WITH)] = ""


class Original(Shape):
    """A part that was taken out, and where it is kept."""

    what: Line
    where: Line = ""


class Other(Shape):
    """An alternative to the swap, and its price."""

    what: Line
    price: Short = ""


class FeasibilityInput(Shape):
    """Whether the swap should be done at all."""

    access: Annotated[str, OneOf(ACCESS)] = ""
    brittle: Annotated[str, OneOf(BRITTLE)] = ""
    serviceable: Annotated[str, OneOf(AFTER)] = ""
    hours: Short = ""
    price: Short = ""
    hour_price: Short = ""
    others: Annotated[list[Other], Field(max_length=20)] = Field(default_factory=list)
    overruled: Line = ""


class TakeInInput(Shape):
    """The take-in sheet of an item."""

    dark: Long = ""
    sharing: Long = ""
    grounds: Long = ""
    hazards: Annotated[list[Annotated[str, OneOf(HAZARDS)]], Field(max_length=6)] = Field(
        default_factory=list
    )
    opening: Annotated[list[OpeningStep], Field(max_length=MOST_LINES)] = Field(default_factory=list)
    wires: Annotated[list[Wire], Field(max_length=MOST_LINES)] = Field(default_factory=list)
    originals: Annotated[list[Original], Field(max_length=MOST_LINES)] = Field(default_factory=list)
    feasibility: FeasibilityInput = FeasibilityInput()
