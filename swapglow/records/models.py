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
    # The take-in sheet, in the shape of the document's.
    take_in = models.JSONField(default=dict, blank=True)

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
    kind = models.CharField(max_length=16, default="regulated")
    # Further figures that the kind of supply asks for: quantities by name.
    details = models.JSONField(default=dict, blank=True)
    fuse = models.CharField(max_length=60, blank=True, default="")

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
    treatment = models.CharField(max_length=20, blank=True, default="")
    capacitor = models.CharField(max_length=60, blank=True, default="")
    capacitor_v = models.CharField(max_length=60, blank=True, default="")
    second_led_id = models.CharField(max_length=40, blank=True, default="")
    band = models.CharField(max_length=60, blank=True, default="")
    chassis_negative = models.BooleanField(default=False)
    mains = models.BooleanField(default=False)
    glow_floor = models.FloatField(default=0.25)
    sweep = models.TextField(max_length=20_000, blank=True, default="")
    driver_kind = models.CharField(max_length=20, default="direct")
    driver_details = models.JSONField(default=dict, blank=True)
    branches = models.PositiveSmallIntegerField(default=1)
    lead = models.CharField(max_length=10, default="positive")
    common = models.CharField(max_length=10, default="none")
    shunt = models.CharField(max_length=60, blank=True, default="")
    shunt_across = models.CharField(max_length=10, default="assembly")
    shunt_w = models.FloatField(null=True, blank=True)
    series_diodes = models.PositiveSmallIntegerField(default=0)
    regulator_id = models.CharField(max_length=40, blank=True, default="")
    module = models.JSONField(default=dict, blank=True)
    weigh = models.JSONField(default=list, blank=True)
    sweep_in_series = models.CharField(max_length=60, blank=True, default="")
    sweep_resistor = models.CharField(max_length=60, blank=True, default="")

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


class Taken(Ordered):
    """A reading taken before the swap."""

    position = models.ForeignKey(Position, models.CASCADE, related_name="taken")
    function = models.CharField(max_length=16)
    text = models.CharField(max_length=60)
    points = models.CharField(max_length=16, default="lamp")
    lamp = models.CharField(max_length=4, default="in")
    state = models.CharField(max_length=60, blank=True, default="")
    meter = models.CharField(max_length=60, blank=True, default="")
    true_rms = models.BooleanField(default=False)
    note = models.CharField(max_length=200, blank=True, default="")

    def __str__(self) -> str:
        return f"{self.function} {self.text}"


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
