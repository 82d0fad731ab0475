"""Whether there is room for one more: the same limits for every way that a record comes in."""

from collections.abc import Iterator
from typing import Any

from django.db import models

from swapglow.core.quantities import InputError
from swapglow.inputs.limits import (
    MOST_EQUIPMENT,
    MOST_LEDS,
    MOST_PARTS,
    MOST_PHOTOS,
    MOST_POSITIONS,
    MOST_RAILS,
    MOST_READINGS,
)
from swapglow.records.models import BenchLed, Equipment, Photo, Position, Rail, ReadingAfter, ReadingBefore, StockPart


def _limit(record: models.Model) -> Iterator[tuple[str, models.QuerySet[Any], int, str]]:
    """The field a refusal names, the records beside this one, the most of them, and what they are."""
    match record:
        case Equipment():
            yield "equipment", Equipment.objects.all(), MOST_EQUIPMENT, "The bench takes {} items."
        case Rail():
            yield "rail", record.equipment.rails.all(), MOST_RAILS, "An item takes {} supply rails."
        case Position():
            yield "position", record.equipment.positions.all(), MOST_POSITIONS, "An item takes {} lamps."
        case Photo():
            yield "photo", record.equipment.photos.all(), MOST_PHOTOS, "An item takes {} photographs."
        case ReadingAfter():
            after = record.position.readings_after.all()
            yield "text", after, MOST_READINGS, "A lamp takes {} readings after the swap."
        case ReadingBefore():
            before = record.position.readings_before.all()
            yield "text", before, MOST_READINGS, "A lamp takes {} readings before the swap."
        case BenchLed():
            yield "leds", BenchLed.objects.all(), MOST_LEDS, "The bench takes {} LEDs of its own."
        case StockPart():
            yield "parts", StockPart.objects.all(), MOST_PARTS, "The drawer takes {} parts."


def check_room(record: models.Model, more: int = 1) -> None:
    """Refuse what there is no room for.

    Args:
        record: a new one, its parent at hand.
        more: how many like it are to come in.

    Raises:
        InputError: there would be more than are kept.
    """
    for field, beside, most, words in _limit(record):
        here = beside.count()
        if here + more > most:
            raise InputError(field, f"{words.format(most)} There are {here}: delete some first.")
