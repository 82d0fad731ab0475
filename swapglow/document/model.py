"""The shape of the document, version 3: the input models, with keys and what hangs on them.

docs/equipment-3.schema.json is made from it.
"""

from typing import Annotated, Any, Literal
from uuid import UUID

from pydantic import Field

from swapglow.inputs.equipment import EquipmentInput, TakeInInput
from swapglow.inputs.limits import MOST_PHOTOS, MOST_POSITIONS, MOST_RAILS, MOST_READINGS
from swapglow.inputs.position import PositionInput
from swapglow.inputs.quantity import Line
from swapglow.inputs.rail import RailInput
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.inputs.shape import Shape

FORMAT = "swapglow-equipment"
VERSION = 3

When = Annotated[str, Field(max_length=40)]


class Rail(RailInput):
    """A supply rail with its key."""

    id: UUID


class ReadingAfter(ReadingAfterInput):
    """A reading after the swap, with its key and when it was taken."""

    id: UUID
    at: When = ""


class ReadingBefore(ReadingBeforeInput):
    """A reading before the swap, with its key and when it was taken."""

    id: UUID
    at: When = ""


class Position(PositionInput):
    """A lamp position with its key, its rail's and its readings."""

    id: UUID
    rail: UUID
    readings_after: Annotated[list[ReadingAfter], Field(max_length=MOST_READINGS)] = Field(default_factory=list)
    readings_before: Annotated[list[ReadingBefore], Field(max_length=MOST_READINGS)] = Field(default_factory=list)


class Photo(Shape):
    """A photograph: JPEG in base64, or left out by choice."""

    id: UUID
    caption: Line = ""
    jpeg: str | None = None


class Equipment(EquipmentInput):
    """An item with all in it, in the order it is shown."""

    id: UUID
    take_in: TakeInInput = TakeInInput()
    rails: Annotated[list[Rail], Field(max_length=MOST_RAILS)] = Field(default_factory=list)
    positions: Annotated[list[Position], Field(max_length=MOST_POSITIONS)] = Field(default_factory=list)
    photos: Annotated[list[Photo], Field(max_length=MOST_PHOTOS)] = Field(default_factory=list)


class Document(Shape):
    """The document."""

    format: Literal["swapglow-equipment"] = "swapglow-equipment"
    version: Literal[3] = 3
    equipment: Equipment


def schema() -> dict[str, Any]:
    """The document's JSON Schema."""
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **Document.model_json_schema()}
