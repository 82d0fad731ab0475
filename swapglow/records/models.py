"""What is kept. What was typed is one JSON column in the shape of its input model; columns stand beside it
only for what is asked for by the database.

Keys of equipment, rails, positions and readings are made by the client, so that a save that is
sent twice over a bad connection makes one record.
"""

import uuid
from collections.abc import Mapping
from typing import Any, ClassVar

from django.db import models

from swapglow.inputs.equipment import EquipmentInput, TakeInInput
from swapglow.inputs.patch import joined
from swapglow.inputs.position import PositionInput
from swapglow.inputs.rail import RailInput
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.inputs.shape import Shape


class Ordered(models.Model):
    """A record in an order of the user's own."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    order = models.PositiveIntegerField(default=0)
    created = models.DateTimeField(auto_now_add=True)
    updated = models.DateTimeField(auto_now=True)

    class Meta:
        abstract = True
        ordering = ("order", "created")


class Typed(Ordered):
    """A record of what was typed; ``shape`` is the model that its ``inputs`` have the form of."""

    shape: ClassVar[type[Shape]]
    inputs = models.JSONField(default=dict)

    class Meta(Ordered.Meta):
        abstract = True

    def __str__(self) -> str:
        return str(self.inputs.get("name", "") or self.inputs.get("text", ""))

    def join(self, changes: Mapping[str, Any]) -> None:
        """Lay changes over what was typed; fields that were not sent stay.

        Raises:
            pydantic.ValidationError: what comes of it has not the shape.
        """
        whole = joined({**self.shape().model_dump(mode="json"), **self.inputs}, changes)
        self.inputs = self.shape.model_validate(whole).model_dump(mode="json")


class Equipment(Typed):
    """An item on the bench."""

    shape = EquipmentInput
    # The take-in sheet, in its own shape.
    take_in = models.JSONField(default=dict, blank=True)

    @property
    def input(self) -> EquipmentInput:
        """What was typed."""
        return EquipmentInput.model_validate(self.inputs)

    @property
    def sheet(self) -> TakeInInput:
        """The take-in sheet; an empty one where there is none."""
        return TakeInInput.model_validate(self.take_in or {})


class Rail(Typed):
    """A supply rail with its readings."""

    shape = RailInput
    equipment = models.ForeignKey(Equipment, models.CASCADE, related_name="rails")

    @property
    def input(self) -> RailInput:
        """What was typed."""
        return RailInput.model_validate(self.inputs)


class Position(Typed):
    """A lamp position and the swap meant for it."""

    shape = PositionInput
    equipment = models.ForeignKey(Equipment, models.CASCADE, related_name="positions")
    rail = models.ForeignKey(Rail, models.CASCADE, related_name="positions")

    @property
    def input(self) -> PositionInput:
        """What was typed."""
        return PositionInput.model_validate(self.inputs)


class ReadingAfter(Typed):
    """A reading taken after the swap."""

    shape = ReadingAfterInput
    position = models.ForeignKey(Position, models.CASCADE, related_name="readings_after")

    @property
    def input(self) -> ReadingAfterInput:
        """What was typed."""
        return ReadingAfterInput.model_validate(self.inputs)


class ReadingBefore(Typed):
    """A reading taken before the swap."""

    shape = ReadingBeforeInput
    position = models.ForeignKey(Position, models.CASCADE, related_name="readings_before")

    @property
    def input(self) -> ReadingBeforeInput:
        """What was typed."""
        return ReadingBeforeInput.model_validate(self.inputs)


class Photo(Ordered):
    """A photograph of an item; what it shows is kept once, by its digest."""

    equipment = models.ForeignKey(Equipment, models.CASCADE, related_name="photos")
    caption = models.CharField(max_length=200, blank=True, default="")
    digest = models.CharField(max_length=64)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()

    def __str__(self) -> str:
        return self.caption or self.digest[:8]


class Picture(models.Model):
    """A JPEG by its SHA-256. It outlives its photograph, so that a deletion can be undone."""

    digest = models.CharField(max_length=64, primary_key=True)
    jpeg = models.BinaryField()

    def __str__(self) -> str:
        return self.digest[:8]


class DrawerValue(models.Model):
    """A resistor value at hand."""

    ohm = models.FloatField(unique=True)

    class Meta:
        ordering = ("ohm",)

    def __str__(self) -> str:
        return f"{self.ohm:g}"


class Change(models.Model):
    """One step of the journal: rows before and after, each a list of snapshots.

    ``scope`` is the equipment's key, or empty for the bench itself.
    """

    scope = models.CharField(max_length=40, blank=True, default="", db_index=True)
    label = models.CharField(max_length=200)
    touched = models.CharField(max_length=400)
    before: Any = models.JSONField()
    after: Any = models.JSONField()
    undone = models.BooleanField(default=False)
    at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ("-id",)

    def __str__(self) -> str:
        return self.label
