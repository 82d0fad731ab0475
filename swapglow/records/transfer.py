"""Equipment as a document, and back: all or nothing, said before it is done."""

import base64
import hashlib
import uuid
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.db import transaction
from django.utils import timezone
from django.utils.dateparse import parse_datetime

from swapglow.document import model as doc
from swapglow.document.imported import Imported, bring
from swapglow.document.in_subprocess import in_subprocess
from swapglow.document.read import DocumentError
from swapglow.inputs.shape import Shape
from swapglow.records import order
from swapglow.records.limits import check_room
from swapglow.records.models import Equipment, Ordered, Photo, Position, Rail, ReadingAfter, ReadingBefore, Typed
from swapglow.records.movements import only_booked
from swapglow.records.photographs import jpeg_of, keep
from swapglow.records.steps import create_all, recorded
from swapglow.records.steps import keep as keep_record


def to_document(e: Equipment, *, photographs: bool) -> doc.Document:
    """An item with all in it.

    Args:
        photographs: put the pictures in, or only their captions.
    """
    positions = e.positions.prefetch_related("readings_after", "readings_before")
    return doc.Document(
        equipment=doc.Equipment(
            id=e.id,
            **e.shown,
            take_in=e.sheet,
            rails=[doc.Rail(id=r.id, **r.shown) for r in e.rails.all()],
            positions=[_position(p) for p in positions],
            photos=[_photo(p, photographs) for p in e.photos.all()],
        )
    )


def _position(p: Position) -> doc.Position:
    after, before = p.readings_after.all(), p.readings_before.all()
    return doc.Position(
        id=p.id,
        rail=p.rail_id,
        **p.shown,
        readings_after=[doc.ReadingAfter(id=r.id, at=r.created.isoformat(), **r.shown) for r in after],
        readings_before=[doc.ReadingBefore(id=r.id, at=r.created.isoformat(), **r.shown) for r in before],
    )


def _photo(p: Photo, with_picture: bool) -> doc.Photo:
    found = jpeg_of(p.digest) if with_picture else None
    jpeg = None if found is None else base64.b64encode(found).decode("ascii")
    return doc.Photo(id=p.id, caption=p.caption, jpeg=jpeg)


@dataclass(frozen=True)
class Intent:
    """What an import will do, before it does it.

    Attributes:
        name: the item's.
        replaces: name of the item here that has the same key, empty where there is none.
        lines: what is in it, and what of the item here would go.
        copy_only: whether it can come in as a copy only, for its keys are in use elsewhere on the bench.
    """

    name: str
    replaces: str
    lines: tuple[str, ...]
    copy_only: bool


def read(data: bytes) -> Imported:
    """A document with its photographs, read away from the threads that answer.

    Raises:
        DocumentError: every place and reason.
        InputError: ``file``: it takes too long, or too much memory.
    """
    found = in_subprocess("file", bring, data)
    if isinstance(found, list):
        raise DocumentError(found)
    return found


def intent(brought: Imported) -> Intent:
    """What an import would do."""
    e = brought.document.equipment
    here = Equipment.objects.filter(pk=e.id).first()
    readings = sum(len(p.readings_after) + len(p.readings_before) for p in e.positions)
    pictures = len(brought.pictures)
    lines = [
        f"{_count(len(e.rails), 'supply rail')}, {_count(len(e.positions), 'lamp position')}, "
        f"{_count(readings, 'reading')}, {_count(pictures, 'photograph')}."
    ]
    left_out = len(e.photos) - pictures
    if left_out:
        lines.append(f"{_count(left_out, 'photograph')} left out of the file: only the captions are there.")
    if here is not None:
        lines.append(_beside(brought, here))
    copy_only = False
    try:
        _not_elsewhere(brought.document, here)
    except DocumentError as problem:
        copy_only = True
        lines += [why for _, why in problem.problems]
    return Intent(e.name, here.input.name if here else "", tuple(lines), copy_only)


def _beside(brought: Imported, here: Equipment) -> str:
    """What of an item on the bench would become what the document says."""
    now = to_document(here, photographs=False)
    digests = dict(here.photos.values_list("pk", "digest"))
    same_pictures = all(
        digests.get(key) == hashlib.sha256(jpeg).hexdigest() for key, (jpeg, _, _) in brought.pictures.items()
    )
    if now.equipment == brought.document.equipment and same_pictures:
        return f"{here} is here already, exactly as in the file: nothing would change."
    mine = {p.id: p for p in now.equipment.positions}
    theirs = {p.id: p for p in brought.document.equipment.positions}
    both = mine.keys() & theirs.keys()
    changed = sum(mine[key] != theirs[key] for key in both)
    return (
        f"{here} is here already: {_count(changed, 'lamp')} would change, {len(both) - changed} stay as they are, "
        f"{len(theirs.keys() - mine.keys())} would be added, {len(mine.keys() - theirs.keys())} removed. "
        f"Undo brings it back."
    )


def _count(n: int, noun: str) -> str:
    return f"{n} {noun}" + ("" if n == 1 else "s")


def bring_in(brought: Imported, *, as_copy: bool) -> Equipment:
    """Import a document whole, or not at all.

    An item that is here is changed where the document differs; what it does not have goes.

    Args:
        brought: the document and its pictures.
        as_copy: give everything new keys, so that nothing here is touched.

    Raises:
        DocumentError: a key is taken by another item.
        InputError: the bench is full.
    """
    e = brought.document.equipment
    keys: dict[uuid.UUID, uuid.UUID] = {}

    def key(old: uuid.UUID) -> uuid.UUID:
        return keys.setdefault(old, uuid.uuid4()) if as_copy else old

    with transaction.atomic():
        here = None if as_copy else Equipment.objects.filter(pk=e.id).first()
        if not as_copy:
            _not_elsewhere(brought.document, here)
        made = here or Equipment(id=key(e.id), order=order.last(Equipment.objects))
        made.take_in, made.inputs = e.take_in.model_dump(mode="json"), _inputs(e, Equipment)
        if here is None:
            check_room(made)
        with recorded("", f"import {e.name}", f"import:{e.id}:{uuid.uuid4()}"):
            keep_record(made)
            _all_in(brought, made, key)
    return made


def _all_in(brought: Imported, made: Equipment, key: Callable[[uuid.UUID], uuid.UUID]) -> None:
    e = brought.document.equipment
    rails = [Rail(id=key(r.id), equipment=made, order=n, inputs=_inputs(r, Rail)) for n, r in enumerate(e.rails)]
    positions = [
        Position(id=key(p.id), equipment=made, rail_id=key(p.rail), order=n, inputs=_inputs(p, Position))
        for n, p in enumerate(e.positions)
    ]
    photos = [photo for n, p in enumerate(e.photos) if (photo := _photograph(p, n, made, key, brought))]
    _put_in(Rail, made.rails.all(), rails)
    _put_in(Position, made.positions.all(), positions)
    for model, of in ((ReadingAfter, "readings_after"), (ReadingBefore, "readings_before")):
        found = model._default_manager.filter(position__equipment=made)
        readings = [r for p in e.positions for r in _readings(model, getattr(p, of), key(p.id), key)]
        _put_in(model, found, readings)
    _put_in(Photo, made.photos.all(), photos)
    for beside, wanted in ((made.positions.all(), positions), (made.rails.all(), rails)):
        for gone in beside.exclude(pk__in=[w.pk for w in wanted]):
            gone.delete()


def _put_in(model: type[Ordered], beside: Any, wanted: Sequence[Any]) -> None:
    """Make records as wanted: new ones at once, those that are here where they differ.

    Readings and photographs that are not wanted go; on rails and positions others may hang still.
    """
    here = {r.pk for r in beside}
    new = [w for w in wanted if w.pk not in here]
    if model is Position:
        for lamp in new:
            only_booked(lamp)
    if new:
        create_all(model, new)
    for record in wanted:
        if record.pk in here:
            keep_record(record)
    if model not in (Rail, Position):
        for gone in beside.exclude(pk__in=[w.pk for w in wanted]):
            gone.delete()


def _readings(
    model: type[ReadingAfter | ReadingBefore],
    readings: Sequence[doc.ReadingAfter | doc.ReadingBefore],
    position: uuid.UUID,
    key: Callable[[uuid.UUID], uuid.UUID],
) -> list[ReadingAfter | ReadingBefore]:
    return [
        model(
            id=key(r.id), position_id=position, order=n, inputs=_inputs(r, model), created=_when(r.at) or timezone.now()
        )
        for n, r in enumerate(readings)
    ]


def _when(at: str) -> datetime | None:
    """When a reading was taken, where the document says."""
    try:
        when = parse_datetime(at) if at else None
    except ValueError:
        return None
    return when if when is not None and when.tzinfo is not None else None


def _photograph(
    photo: doc.Photo, n: int, made: Equipment, key: Callable[[uuid.UUID], uuid.UUID], brought: Imported
) -> Photo | None:
    """A photograph of the document; one that it leaves out stays as it is here, and is none where it is not."""
    picture = brought.pictures.get(photo.id)
    if picture is None:
        here = Photo.objects.filter(pk=key(photo.id), equipment=made).first()
        if here is not None:
            here.caption, here.order = photo.caption, n
        return here
    jpeg, width, height = picture
    return Photo(
        id=key(photo.id), equipment=made, caption=photo.caption, order=n, digest=keep(jpeg), width=width, height=height
    )


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
                [(f"equipment.{what}", f"Some of its {what} are in another item on this bench. Bring it in as a copy.")]
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
                            f"Readings of {p.name} are in another item on this bench. Bring it in as a copy.",
                        )
                    ]
                )


def _inputs(part: Shape, record: type[Typed]) -> dict[str, Any]:
    """What was typed of a document's part, without its key and what hangs on it."""
    return part.model_dump(mode="json", include=set(record.shape.model_fields))
