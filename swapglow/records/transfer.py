"""Equipment as a document, and back: all or nothing, said before it is done."""

import base64
import binascii
import uuid
from dataclasses import dataclass
from typing import Any

from django.db import transaction
from django.utils.dateparse import parse_datetime

from swapglow.core.position.typed import FieldError
from swapglow.document import model as doc
from swapglow.document.read import DocumentError
from swapglow.records.journal import recorded, with_dependants
from swapglow.records.models import Equipment, Photo, Picture, Position, Rail, Reading, Taken
from swapglow.records.photographs import keep, reencoded, unchanged

_RAIL = ("name", "kind", "read_at", "usual", "low", "high", "details", "fuse")
_POSITION = tuple(f for f in doc.Position.model_fields if f not in ("id", "rail", "readings", "taken"))
_READING = ("kind", "text", "burden", "note")
_TAKEN = ("function", "text", "points", "lamp", "state", "meter", "true_rms", "note")
_EQUIPMENT = ("name", "maker_model", "board_revision", "owner", "notes")


def take_in_of(e: Equipment) -> doc.TakeIn:
    """The take-in sheet of an item; an empty one where there is none."""
    return doc.TakeIn.model_validate(e.take_in or {})


def to_document(e: Equipment, *, photographs: bool) -> doc.Document:
    """An item with all in it.

    Args:
        photographs: put the pictures in, or only their captions.
    """
    positions = e.positions.prefetch_related("readings", "taken")
    return doc.Document(
        equipment=doc.Equipment(
            id=e.id,
            **_fields(e, _EQUIPMENT),
            take_in=take_in_of(e),
            rails=[doc.Rail(id=r.id, **_fields(r, _RAIL)) for r in e.rails.all()],
            positions=[_position(p) for p in positions],
            photos=[_photo(p, photographs) for p in e.photos.all()],
        )
    )


def _fields(record: Any, names: tuple[str, ...]) -> dict[str, Any]:
    return {name: getattr(record, name) for name in names}


def _position(p: Position) -> doc.Position:
    return doc.Position(
        id=p.id, rail=p.rail_id, **_fields(p, _POSITION),
        readings=[doc.Reading(id=r.id, at=r.created.isoformat(), **_fields(r, _READING)) for r in p.readings.all()],
        taken=[doc.Taken(id=t.id, at=t.created.isoformat(), **_fields(t, _TAKEN)) for t in p.taken.all()],
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
    readings = sum(len(p.readings) + len(p.taken) for p in e.positions)
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
            f"{here.name} is here already: {_count(len(mine & theirs), 'lamp')} would be replaced, "
            f"{len(theirs - mine)} added, {len(mine - theirs)} removed. Undo brings it back."
        )
    return Intent(e.name, here.name if here else "", tuple(lines))


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
                id=key(e.id), order=order, take_in=e.take_in.model_dump(mode="json"), **_fields(e, _EQUIPMENT)
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
        for model, ids in ((Reading, [r.id for r in p.readings]), (Taken, [t.id for t in p.taken])):
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


def _rails_and_positions(e: doc.Equipment, made: Equipment, key: Any) -> None:
    for n, r in enumerate(e.rails):
        plain = r.model_dump(mode="json")
        Rail.objects.create(id=key(r.id), equipment=made, order=n, **{f: plain[f] for f in _RAIL})
    for n, p in enumerate(e.positions):
        plain = p.model_dump(mode="json")
        position = Position.objects.create(
            id=key(p.id), equipment=made, rail_id=key(p.rail), order=n, **{f: plain[f] for f in _POSITION}
        )
        for k, reading in enumerate(p.readings):
            record = Reading.objects.create(
                id=key(reading.id), position=position, order=k, **_fields(reading, _READING)
            )
            _at(record, reading.at)
        for k, taken in enumerate(p.taken):
            _at(
                Taken.objects.create(id=key(taken.id), position=position, order=k, **_fields(taken, _TAKEN)),
                taken.at,
            )


def _at(record: Reading | Taken, at: str) -> None:
    """Keep when the reading was taken, where the document says."""
    try:
        when = parse_datetime(at) if at else None
    except ValueError:
        when = None
    if when is not None and when.tzinfo is not None:
        type(record).objects.filter(pk=record.pk).update(created=when)


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
    except FieldError as problem:
        raise DocumentError([(place, problem.message)]) from None
    Photo.objects.create(
        id=key, equipment=made, caption=photo.caption, order=n, digest=keep(jpeg), width=width, height=height
    )
