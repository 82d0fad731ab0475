"""What is kept. What was typed is one JSON column in the shape of its input model; columns stand beside it
only for what is asked for by the database.

Keys of equipment, rails, positions and readings are made by the client, so that a save that is
sent twice over a bad connection makes one record. Every change of a record leaves a row in its history
(django-simple-history), under the step that made it: what a step changed is what undo gives back.
"""

import uuid
from collections.abc import Mapping
from functools import cache
from typing import Any, ClassVar

from django.db import models
from django.utils import timezone
from simple_history.manager import HistoryManager
from simple_history.models import HistoricalRecords

from swapglow.inputs.equipment import EquipmentInput, TakeInInput
from swapglow.inputs.kept import Unread, joined_kept, readable
from swapglow.inputs.position import PositionInput
from swapglow.inputs.rail import RailInput
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.inputs.shape import Shape
from swapglow.inputs.shop import ShopInput
from swapglow.inputs.stock import BenchLedInput, PartInput


class Step(models.Model):
    """One thing that somebody did, undid or did again.

    ``scope`` is the equipment's key, "drawer", or empty for the bench itself. A step that takes back or does
    again is a step too, of the one it is ``of``; ``reverted`` says that such a later step has taken it back.
    """

    DO, UNDO, REDO = "do", "undo", "redo"

    scope = models.CharField(max_length=40, blank=True, default="", db_index=True)
    kind = models.CharField(max_length=4, default=DO)
    of = models.ForeignKey("self", models.CASCADE, null=True, related_name="answers")
    label = models.CharField(max_length=200)
    # Record and fields, to tell one gesture from the next.
    gesture = models.CharField(max_length=400)
    reverted = models.BooleanField(default=False)
    # It cannot be undone, and somebody chose to leave it so: undo goes on with the step before it.
    passed = models.BooleanField(default=False)
    at = models.DateTimeField(default=timezone.now)
    # The name chosen on the device, and the paired device's key; neither at a bench where nobody chose one.
    by = models.CharField(max_length=40, blank=True, default="")
    device = models.UUIDField(null=True)

    class Meta:
        ordering = ("id",)

    def __str__(self) -> str:
        return self.label


class Under(models.Model):
    """What a row of a history has besides the record: the step it belongs to; none before there were steps."""

    step = models.ForeignKey(Step, models.SET_NULL, null=True, related_name="+")

    class Meta:
        abstract = True


class _Histories(HistoryManager):  # type: ignore[misc]  # the package has no types
    """The manager of a model's history; its class is made once, not at every look at a history."""

    @classmethod
    @cache
    def from_queryset(cls, queryset_class: type[models.QuerySet[Any]], class_name: str | None = None) -> Any:
        return super().from_queryset(queryset_class, class_name)


def _history() -> HistoricalRecords:
    # Nobody logs in at a bench: a row of history names no user.
    nobody = models.IntegerField(null=True)
    return HistoricalRecords(
        bases=[Under],
        inherit=True,
        history_user_id_field=nobody,
        history_user_getter=lambda historical: None,
        history_manager=_Histories,
    )


class Kept(models.Model):
    """A record with a history."""

    history = _history()

    class Meta:
        abstract = True


class Ordered(Kept):
    """A record in an order of the user's own."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    order = models.PositiveIntegerField(default=0)
    created = models.DateTimeField(default=timezone.now)

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

    @property
    def shown(self) -> dict[str, Any]:
        """What was typed, in its shape: what does not fit there is in ``unread``."""
        found, unread = readable(self.shape, self.inputs)
        return found.model_dump(mode="json") if unread else self.inputs

    @property
    def unread(self) -> tuple[Unread, ...]:
        """What is kept and does not fit the shape, as it was typed."""
        return readable(self.shape, self.inputs)[1]

    def join(self, changes: Mapping[str, Any]) -> None:
        """Lay changes over what was typed; fields that were not sent stay, those that no longer read among them.

        Raises:
            pydantic.ValidationError: what was sent has not the shape.
        """
        self.inputs = joined_kept(self.shape, self.inputs, changes)


def empty_sheet() -> dict[str, Any]:
    """A take-in sheet on which nothing is written."""
    return TakeInInput().model_dump(mode="json")


class Equipment(Typed):
    """An item on the bench."""

    shape = EquipmentInput
    # The take-in sheet, in its own shape.
    take_in = models.JSONField(default=empty_sheet, blank=True)

    @property
    def input(self) -> EquipmentInput:
        """What was typed."""
        return readable(EquipmentInput, self.inputs)[0]

    @property
    def sheet(self) -> TakeInInput:
        """The take-in sheet."""
        return readable(TakeInInput, self.take_in)[0]


class Rail(Typed):
    """A supply rail with its readings."""

    shape = RailInput
    equipment = models.ForeignKey(Equipment, models.CASCADE, related_name="rails")

    @property
    def input(self) -> RailInput:
        """What was typed."""
        return readable(RailInput, self.inputs)[0]


class Position(Typed):
    """A lamp position and the swap meant for it."""

    shape = PositionInput
    equipment = models.ForeignKey(Equipment, models.CASCADE, related_name="positions")
    rail = models.ForeignKey(Rail, models.CASCADE, related_name="positions")

    @property
    def input(self) -> PositionInput:
        """What was typed."""
        return readable(PositionInput, self.inputs)[0]


class Summary(models.Model):
    """What views show of a lamp that they do not open, with what it was worked out from."""

    position = models.OneToOneField(Position, models.CASCADE, primary_key=True, related_name="summary")
    data: Any = models.JSONField(null=True)
    # Digests of the records and of the core that it was worked out from.
    rests_on = models.CharField(max_length=64, default="")
    core = models.CharField(max_length=64, default="")
    due = models.BooleanField(default=True, db_index=True)

    def __str__(self) -> str:
        return str(self.position_id)


class ReadingAfter(Typed):
    """A reading taken after the swap."""

    shape = ReadingAfterInput
    position = models.ForeignKey(Position, models.CASCADE, related_name="readings_after")

    @property
    def input(self) -> ReadingAfterInput:
        """What was typed."""
        return readable(ReadingAfterInput, self.inputs)[0]


class ReadingBefore(Typed):
    """A reading taken before the swap."""

    shape = ReadingBeforeInput
    position = models.ForeignKey(Position, models.CASCADE, related_name="readings_before")

    @property
    def input(self) -> ReadingBeforeInput:
        """What was typed."""
        return readable(ReadingBeforeInput, self.inputs)[0]


class Photo(Ordered):
    """A photograph of an item; the picture is a file, kept once by its digest (``records.photographs``)."""

    equipment = models.ForeignKey(Equipment, models.CASCADE, related_name="photos")
    caption = models.CharField(max_length=200, blank=True, default="")
    digest = models.CharField(max_length=64)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()

    def __str__(self) -> str:
        return self.caption or self.digest[:8]


class BenchLed(Typed):
    """An LED of the bench's own, with its figures and how many there are."""

    shape = BenchLedInput

    @property
    def input(self) -> BenchLedInput:
        """What was typed."""
        return readable(BenchLedInput, self.inputs)[0]


class Shop(Typed):
    """The shop's habits; there is one."""

    shape = ShopInput
    KEY = uuid.UUID("6d9f1c52-3c7b-4f0e-9a41-7c0b6f0f7a10")

    @classmethod
    def own(cls) -> "Shop":
        """The one, kept or not yet."""
        return cls.objects.filter(pk=cls.KEY).first() or cls(id=cls.KEY, inputs=ShopInput().model_dump(mode="json"))

    @property
    def input(self) -> ShopInput:
        """What was typed."""
        return readable(ShopInput, self.inputs)[0]


class StockPart(Typed):
    """A part in the drawer."""

    shape = PartInput

    def __str__(self) -> str:
        return str(self.inputs.get("name") or self.inputs.get("resistance") or self.inputs.get("kind", ""))

    @property
    def input(self) -> PartInput:
        """What was typed."""
        return readable(PartInput, self.inputs)[0]


class Movement(Kept):
    """Parts that went into a compartment of the drawer, or out of it. The count of a compartment is their sum.

    ``part`` is the key of a StockPart or a BenchLed, ``position`` that of the lamp that parts were taken for. Both may
    be gone since: what was taken stays taken.
    """

    COUNTED, UNCOUNTED, BOUGHT, TAKEN, PUT_BACK = "counted", "uncounted", "bought", "taken", "put_back"

    part = models.UUIDField(db_index=True)
    kind = models.CharField(max_length=9)
    by = models.IntegerField()
    position = models.UUIDField(null=True, db_index=True)
    at = models.DateTimeField(default=timezone.now)

    class Meta(Kept.Meta):
        abstract = False
        ordering = ("id",)

    def __str__(self) -> str:
        return f"{self.kind} {self.by:+d}"


class Sent(models.Model):
    """A save that was taken, with what was answered: sent again, it gets the same answer and does nothing."""

    key = models.UUIDField(primary_key=True)
    at = models.DateTimeField(default=timezone.now, db_index=True)
    status = models.PositiveSmallIntegerField()
    step = models.BigIntegerField(null=True)
    body = models.BinaryField()

    def __str__(self) -> str:
        return str(self.key)


KEPT: tuple[type[Kept], ...] = (
    Equipment,
    Rail,
    Position,
    ReadingAfter,
    ReadingBefore,
    Photo,
    StockPart,
    BenchLed,
    Shop,
    Movement,
)
