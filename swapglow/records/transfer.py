"""Equipment as a document, and back: all or nothing, said before it is done."""

import base64
import binascii
import uuid
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from django.db import transaction
from django.utils.dateparse import parse_datetime

from swapglow.core.quantities import InputError
from swapglow.document import model as doc
from swapglow.document.read import DocumentError
from swapglow.inputs.shape import Shape
from swapglow.records.journal import recorded, with_dependants
from swapglow.records.models import (
    Equipment,
    Photo,
    Picture,
    Position,
    Rail,
    ReadingAfter,
    ReadingBefore,
    Typed,
)
from swapglow.records.photographs import keep, reencoded, unchanged


def to_document(e: Equipment, *, photographs: bool) -> doc.Document:
    """An item with all in it.

    Args:
        photographs: put the pictures in, or only their captions.
    """
    positions = e.positions.prefetch_related("readings_after", "readings_before")
    return doc.Document(
        equipment=doc.Equipment(
            id=e.id,
            **e.inputs,
            take_in=e.sheet,
            rails=[doc.Rail(id=r.id, **r.inputs) for r in e.rails.all()],
            positions=[_position(p) for p in positions],
            photos=[_photo(p, photographs) for p in e.photos.all()],
        )
    )


def _position(p: Position) -> doc.Position:
    after, before = p.readings_after.all(), p.readings_before.all()
    return doc.Position(
        id=p.id, rail=p.rail_id, **p.inputs,
        readings_after=[doc.ReadingAfter(id=r.id, at=r.created.isoformat(), **r.inputs) for r in after],
        readings_before=[doc.ReadingBefore(id=r.id, at=r.created.isoformat(), **r.inputs) for r in before],
    )  # fmt: skip


def _photo(p: Photo, with_picture: bool) -> doc.Photo:
    found = Picture.objects.filter(digest=p.digest).first() if with_picture else None
    jpeg = None if found is None else base64.b64encode(bytes(found.jpeg)).decode("ascii")
    return doc.Photo(id=p.id, caption=p.caption, jpeg=jpeg)


@dataclass(frozen=True)
class Intent:
    """What an import will do, before it does it.

    Attributes:
        name: the item's.
        replaces: name of the item here that has the same key, empty where there is none.
        lines: what is in it, and what of the item here would go.
    """

    name: str
    replaces: str
    lines: tuple[str, ...]


def intent(document: doc.Document) -> Intent:
    """What an import would do."""
    e = document.equipment
    here = Equipment.objects.filter(pk=e.id).first()
    readings = sum(len(p.readings_after) + len(p.readings_before) for p in e.positions)
    pictures = sum(1 for p in e.photos if p.jpeg)
    lines = [
        f"{_count(len(e.rails), 'supply rail')}, {_count(len(e.positions), 'lamp position')}, "
        f"{_count(readings, 'reading')}, {_count(pictures, 'photograph')}."
    ]
    left_out = len(e.photos) - pictures
    if left_out:
        lines.append(f"{_count(left_out, 'photograph')} left out of the file: only the captions are there.")
    if here is not None:
        mine = {str(p.id) for p in here.positions.all()}
        theirs = {str(p.id) for p in e.positions}
        lines.append(
            f"{here.input.name} is here already: {_count(len(mine & theirs), 'lamp')} would be replaced, "
            f"{len(theirs - mine)} added, {len(mine - theirs)} removed. Undo brings it back."
        )
    return Intent(e.name, here.input.name if here else "", tuple(lines))


def _count(n: int, noun: str) -> str:
    return f"{n} {noun}" + ("" if n == 1 else "s")


def bring_in(document: doc.Document, *, as_copy: bool) -> Equipment:
    """Import a document whole, or not at all.

    Args:
        as_copy: give everything new keys, so that nothing here is touched.

    Raises:
        DocumentError: a photograph in it is none, or a key is taken by another item.
    """
    e = document.equipment
    keys: dict[uuid.UUID, uuid.UUID] = {}

    def key(old: uuid.UUID) -> uuid.UUID:
        return keys.setdefault(old, uuid.uuid4()) if as_copy else old

    with transaction.atomic():
        here = None if as_copy else Equipment.objects.filter(pk=e.id).first()
        found = with_dependants(here) if here else []
        order = here.order if here else Equipment.objects.count()
        if not as_copy:
            _not_elsewhere(document, here)
        with recorded("", f"import {e.name}", found, f"import:{e.id}:{uuid.uuid4()}") as left:
            if here is not None:
                here.delete()
            made = Equipment.objects.create(
                id=key(e.id),
                order=order,
                take_in=e.take_in.model_dump(mode="json"),
                inputs=_inputs(e, Equipment),
            )
            _rails_and_positions(e, made, key)
            for n, photo in enumerate(e.photos):
                _bring_photo(photo, n, made, key(photo.id))
            left += with_dependants(made)
    return made


def _not_elsewhere(document: doc.Document, here: Equipment | None) -> None:
    e = document.equipment
    for model, ids, what in (
        (Rail, [r.id for r in e.rails], "rails"),
        (Position, [p.id for p in e.positions], "positions"),
        (Photo, [p.id for p in e.photos], "photos"),
    ):
        taken = model.objects.filter(pk__in=ids)
        if here is not None:
            taken = taken.exclude(equipment=here)
        clash = taken.first()
        if clash is not None:
            raise DocumentError(
                [
                    (
                        f"equipment.{what}",
                        f"The key {clash.pk} belongs to another item here. Import it as a copy.",
                    )
                ]
            )
    _readings_not_elsewhere(document, here)


def _readings_not_elsewhere(document: doc.Document, here: Equipment | None) -> None:
    for p in document.equipment.positions:
        for model, ids in (
            (ReadingAfter, [r.id for r in p.readings_after]),
            (ReadingBefore, [r.id for r in p.readings_before]),
        ):
            taken = model.objects.filter(pk__in=ids)
            if here is not None:
                taken = taken.exclude(position__equipment=here)
            if taken.exists():
                raise DocumentError(
                    [
                        (
                            "equipment.positions",
                            f"Readings of {p.name} are in another item here. Import it as a copy.",
                        )
                    ]
                )


def _inputs(part: Shape, record: type[Typed]) -> dict[str, Any]:
    """What was typed of a document's part, without its key and what hangs on it."""
    return part.model_dump(mode="json", include=set(record.shape.model_fields))


def _rails_and_positions(e: doc.Equipment, made: Equipment, key: Callable[[uuid.UUID], uuid.UUID]) -> None:
    for n, r in enumerate(e.rails):
        Rail.objects.create(id=key(r.id), equipment=made, order=n, inputs=_inputs(r, Rail))
    for n, p in enumerate(e.positions):
        position = Position.objects.create(
            id=key(p.id), equipment=made, rail_id=key(p.rail), order=n, inputs=_inputs(p, Position)
        )
        _readings(p.readings_after, ReadingAfter, position, key)
        _readings(p.readings_before, ReadingBefore, position, key)


def _readings(readings: Sequence[doc.ReadingAfter | doc.ReadingBefore], model: type[ReadingAfter | ReadingBefore],
              position: Position, key: Callable[[uuid.UUID], uuid.UUID]) -> None:  # fmt: skip
    for k, reading in enumerate(readings):
        made = model(id=key(reading.id), position=position, order=k, inputs=_inputs(reading, model))
        made.save(force_insert=True)
        _at(made, reading.at)


def _at(record: ReadingAfter | ReadingBefore, at: str) -> None:
    """Keep when the reading was taken, where the document says."""
    try:
        when = parse_datetime(at) if at else None
    except ValueError:
        when = None
    if when is not None and when.tzinfo is not None:
        type(record)._default_manager.filter(pk=record.pk).update(created=when)


def _bring_photo(photo: doc.Photo, n: int, made: Equipment, key: uuid.UUID) -> None:
    if photo.jpeg is None:
        return
    place = f"equipment.photos.{n}.jpeg"
    try:
        data = base64.b64decode(photo.jpeg, validate=True)
    except (binascii.Error, ValueError):
        raise DocumentError([(place, "It is not base64.")]) from None
    try:
        jpeg, width, height = unchanged(data) or reencoded(data)
    except InputError as problem:
        raise DocumentError([(place, problem.message)]) from None
    Photo.objects.create(
        id=key, equipment=made, caption=photo.caption, order=n, digest=keep(jpeg), width=width, height=height
    )
