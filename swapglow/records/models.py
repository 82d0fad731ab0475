"""What is kept. Quantities are kept as typed: {"text", "source", "note"}; the core reads them.

Keys of equipment, rails, positions and readings are made by the client, so that a save that is
sent twice over a bad connection makes one record.
"""

import uuid
from typing import Any

from django.db import models


def quantity(text: str = "") -> dict[str, str]:
    """An empty, assumed quantity."""
    return {"text": text, "source": "assumed", "note": ""}


class Ordered(models.Model):
    """A record in an order of the user's own."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    order = models.PositiveIntegerField(default=0)
    created = models.DateTimeField(auto_now_add=True)
    updated = models.DateTimeField(auto_now=True)

    class Meta:
        abstract = True
        ordering = ("order", "created")


class Equipment(Ordered):
    """An item on the bench."""

    name = models.CharField(max_length=120)
    maker_model = models.CharField(max_length=160, blank=True, default="")
    board_revision = models.CharField(max_length=80, blank=True, default="")
    owner = models.CharField(max_length=120, blank=True, default="")
    notes = models.TextField(max_length=20_000, blank=True, default="")

    def __str__(self) -> str:
        return self.name


class Rail(Ordered):
    """A supply rail with its readings."""

    equipment = models.ForeignKey(Equipment, models.CASCADE, related_name="rails")
    name = models.CharField(max_length=80)
    read_at = models.CharField(max_length=8, default="feed")
    low = models.JSONField(default=quantity)
    usual = models.JSONField(default=quantity)
    high = models.JSONField(default=quantity)

    def __str__(self) -> str:
        return self.name


class Position(Ordered):
    """A lamp position and the swap meant for it."""

    equipment = models.ForeignKey(Equipment, models.CASCADE, related_name="positions")
    rail = models.ForeignKey(Rail, models.CASCADE, related_name="positions")
    name = models.CharField(max_length=120)
    stage = models.CharField(max_length=12, default="sizing")
    notes = models.TextField(max_length=20_000, blank=True, default="")
    lamp_id = models.CharField(max_length=40, blank=True, default="")
    lamp_volts = models.CharField(max_length=60, blank=True, default="")
    lamp_amps = models.CharField(max_length=60, blank=True, default="")
    lamp_candela = models.CharField(max_length=60, blank=True, default="")
    lamp_base = models.CharField(max_length=60, blank=True, default="")
    led_id = models.CharField(max_length=40, blank=True, default="")
    vf = models.JSONField(default=quantity)
    rated = models.CharField(max_length=60, blank=True, default="")
    in_series = models.PositiveSmallIntegerField(default=1)
    driver_drop = models.JSONField(default=quantity)
    target = models.JSONField(default=quantity)
    ceiling = models.FloatField(default=0.5)
    series = models.CharField(max_length=8, default="E24")
    rounding = models.CharField(max_length=8, default="up")
    resistor = models.CharField(max_length=60, blank=True, default="")
    resistor_parts = models.PositiveSmallIntegerField(default=1)
    resistor_source = models.CharField(max_length=12, default="marked")
    tolerance = models.FloatField(null=True, blank=True)
    rating_w = models.FloatField(null=True, blank=True)

    def __str__(self) -> str:
        return self.name


class Reading(Ordered):
    """A reading taken after the swap."""

    position = models.ForeignKey(Position, models.CASCADE, related_name="readings")
    kind = models.CharField(max_length=16)
    text = models.CharField(max_length=60)
    burden = models.CharField(max_length=60, blank=True, default="")
    note = models.CharField(max_length=200, blank=True, default="")

    def __str__(self) -> str:
        return f"{self.kind} {self.text}"


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
