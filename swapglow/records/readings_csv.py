"""The readings of an item, to a CSV file and from one."""

import uuid
from dataclasses import dataclass
from typing import Any

from django.db import transaction

from swapglow.core.quantities import InputError
from swapglow.core.supplies import SUPPLIES
from swapglow.document import readings_csv as files
from swapglow.document.in_subprocess import in_subprocess
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.records import order, reports
from swapglow.records.limits import check_room
from swapglow.records.models import Equipment, Position, ReadingAfter, ReadingBefore
from swapglow.records.steps import create_all, recorded


class CsvError(ValueError):
    """Lines that are refused: every problem as (place, reason)."""

    def __init__(self, problems: list[tuple[str, str]]) -> None:
        self.problems = problems
        super().__init__("; ".join(f"{place}: {why}" for place, why in problems[:5]))


def to_csv(e: Equipment) -> str:
    """All readings of an item."""
    found: list[files.Written] = []
    for p in e.positions.prefetch_related("readings_after", "readings_before"):
        for before in p.readings_before.all():
            found.append((str(p), p.pk, before.pk, before.input, before.created.isoformat()))
        for after in p.readings_after.all():
            found.append((str(p), p.pk, after.pk, after.input, after.created.isoformat()))
    return files.written(found)


@dataclass(frozen=True)
class Lines:
    """Readings from CSV that can be added; ``known`` were here already."""

    made: tuple[files.Line, ...]
    known: int


def from_csv(e: Equipment, data: bytes) -> Lines:
    """Readings of a CSV file for the lamps of an item, not yet saved.

    Args:
        e: the item.
        data: the file.

    Returns:
        What can be added.

    Raises:
        CsvError: with the line and what would be accepted; nothing is then taken.
    """
    positions = list(e.positions.select_related("rail"))
    lamps = [_lamp(p) for p in positions]
    lines = in_subprocess("file", files.read, data, lamps)
    if lines and isinstance(lines[0], tuple):
        raise CsvError(lines)
    keys, same = _here(positions)
    made, known = [], 0
    for line in lines:
        assert isinstance(line, files.Line)
        told = (line.lamp, type(line.typed).__name__, line.typed.model_dump_json())
        if line.reading in keys if line.reading else told in same:
            known += 1
            continue
        if line.reading:
            keys.add(line.reading)
        made.append(line)
    return Lines(tuple(made), known)


def _lamp(p: Position) -> files.Lamp:
    alternates = SUPPLIES[p.rail.inputs["kind"]].waveform.alternates
    return files.Lamp(p.pk, str(p), reports.live_closed(p), alternates)


def _here(positions: list[Position]) -> tuple[set[uuid.UUID], set[tuple[uuid.UUID, str, str]]]:
    """Keys of the readings of an item, and what tells those without a key from each other."""
    keys: set[uuid.UUID] = set()
    same: set[tuple[uuid.UUID, str, str]] = set()
    for model, shape in ((ReadingAfter, ReadingAfterInput), (ReadingBefore, ReadingBeforeInput)):
        found: Any = model._default_manager.filter(position__in=positions)
        for key, position, inputs in found.values_list("pk", "position_id", "inputs"):
            keys.add(key)
            same.add((position, shape.__name__, shape.model_validate(inputs).model_dump_json()))
    return keys, same


def add(e: Equipment, lines: Lines) -> int:
    """Save the readings as one step.

    Args:
        e: the item.
        lines: what :func:`from_csv` found.

    Returns:
        How many.

    Raises:
        InputError: there is no room for so many, or a lamp is gone meanwhile.
    """
    with transaction.atomic():
        lamps = {p.pk: p for p in e.positions.all()}
        with recorded(str(e.pk), f"add {len(lines.made)} readings", f"csv:{uuid.uuid4()}"):
            for model, shape in ((ReadingAfter, ReadingAfterInput), (ReadingBefore, ReadingBeforeInput)):
                made = _records(model, [x for x in lines.made if isinstance(x.typed, shape)], lamps)
                if made:
                    create_all(model, made)
    return len(lines.made)


def _records(
    model: type[ReadingAfter | ReadingBefore], lines: list[files.Line], lamps: dict[uuid.UUID, Position]
) -> list[ReadingAfter | ReadingBefore]:
    taken = set(
        model._default_manager.filter(pk__in=[x.reading for x in lines if x.reading]).values_list("pk", flat=True)
    )
    places: dict[uuid.UUID, int] = {}
    counts: dict[uuid.UUID, int] = {}
    made = []
    for line in lines:
        p = lamps.get(line.lamp)
        if p is None:
            raise InputError("file", "A lamp of these readings was deleted meanwhile.")
        beside: Any = p.readings_after if model is ReadingAfter else p.readings_before
        place = places.setdefault(p.pk, order.last(beside)) + counts.setdefault(p.pk, 0)
        counts[p.pk] += 1
        # A key that another item's reading has is not taken over.
        key = line.reading if line.reading and line.reading not in taken else uuid.uuid4()
        made.append(model(id=key, position=p, order=place, inputs=line.typed.model_dump(mode="json")))
    for key, count in counts.items():
        check_room(model(position=lamps[key]), count)
    return made
