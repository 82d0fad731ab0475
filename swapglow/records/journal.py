"""Undo and redo: every change is kept as the rows it found and the rows it left."""

from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from datetime import timedelta
from typing import Any

from django.core import serializers
from django.db import models, transaction
from django.utils import timezone

from swapglow.records.models import Change, Equipment, Photo, Position, Rail, ReadingAfter, ReadingBefore

Row = dict[str, Any]

# Edits of one field that follow each other within this time are one step back, so that a drag
# along the slide rule is undone whole.
ONE_GESTURE = timedelta(seconds=2)
KEPT_STEPS = 200


class NothingToUndo(Exception):
    """The journal has no step in that direction."""


def _rows(records: Iterable[models.Model]) -> list[Row]:
    out: list[Row] = serializers.serialize("python", records)
    return [{**r, "pk": str(r["pk"]), "fields": _plain(r["fields"])} for r in out]


def _plain(fields: Row) -> Row:
    kept = (str, int, float, bool, dict, list, type(None))
    return {k: v if isinstance(v, kept) else str(v) for k, v in fields.items()}


def with_dependants(record: models.Model) -> list[models.Model]:
    """A record and all that would go with it, parents first."""
    match record:
        case Equipment():
            positions = list(record.positions.all())
            return [record, *record.rails.all(), *positions, *_readings(positions), *record.photos.all()]
        case Rail():
            positions = list(record.positions.all())
            return [record, *positions, *_readings(positions)]
        case Position():
            return [record, *_readings([record])]
    return [record]


def _readings(positions: Iterable[Position]) -> Iterator[models.Model]:
    for p in positions:
        yield from p.readings_after.all()
        yield from p.readings_before.all()


_MODELS: dict[str, type[models.Model]] = {
    f"records.{m.__name__.lower()}": m
    for m in (Equipment, Rail, Position, ReadingAfter, ReadingBefore, Photo)
}


@contextmanager
def recorded(
    scope: str, label: str, found: Iterable[models.Model], touched: str
) -> Iterator[list[models.Model]]:
    """Run a change and keep it.

    Args:
        scope: the equipment's key, or "" for the bench.
        label: what the change is called when it is undone.
        found: records as they stand before.
        touched: record and fields, to tell one gesture from the next.

    Yields:
        A list to fill with the records as they stand after.
    """
    with transaction.atomic():
        before = _rows(found)
        left: list[models.Model] = []
        yield left
        _keep(scope, label, before, _rows(left), touched)


def _keep(scope: str, label: str, before: list[Row], after: list[Row], touched: str) -> None:
    if before == after:
        return
    Change.objects.filter(scope=scope, undone=True).delete()
    last = Change.objects.filter(scope=scope).first()
    same_gesture = (
        last is not None
        and last.touched == touched
        and before
        and after
        and timezone.now() - last.at < ONE_GESTURE
    )
    if same_gesture and last is not None:
        last.after = after
        last.save()
        return
    Change.objects.create(scope=scope, label=label, touched=touched, before=before, after=after)
    old = Change.objects.filter(scope=scope).values_list("pk", flat=True)[KEPT_STEPS:]
    Change.objects.filter(pk__in=list(old)).delete()


def undo(scope: str) -> str:
    """Take back the newest step of a scope; returns its label.

    Raises:
        NothingToUndo: there is none.
    """
    with transaction.atomic():
        step = Change.objects.filter(scope=scope, undone=False).first()
        if step is None:
            raise NothingToUndo("There is nothing to undo here.")
        _put(step.before, step.after)
        step.undone = True
        step.save()
        return step.label


def redo(scope: str) -> str:
    """Do the step again that was taken back last; returns its label.

    Raises:
        NothingToUndo: there is none.
    """
    with transaction.atomic():
        step = Change.objects.filter(scope=scope, undone=True).last()
        if step is None:
            raise NothingToUndo("There is nothing to redo here.")
        _put(step.after, step.before)
        step.undone = False
        step.save()
        return step.label


def _put(wanted: list[Row], present: list[Row]) -> None:
    keep = {(r["model"], r["pk"]) for r in wanted}
    for row in reversed(present):
        if (row["model"], row["pk"]) not in keep:
            _MODELS[row["model"]]._default_manager.filter(pk=row["pk"]).delete()
    for item in serializers.deserialize("python", wanted):
        item.save()


def state(scope: str) -> tuple[str, str]:
    """Labels of the steps that undo and redo would take; empty where there is none."""
    back = Change.objects.filter(scope=scope, undone=False).first()
    forth = Change.objects.filter(scope=scope, undone=True).last()
    return (back.label if back else ""), (forth.label if forth else "")
