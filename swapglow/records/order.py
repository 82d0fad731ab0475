"""The order of records, which is the user's own."""

from typing import Any, TypeVar
from uuid import UUID

from django.db import models
from django.http import Http404

from swapglow.records.models import Ordered
from swapglow.records.steps import keep, recorded

R = TypeVar("R", bound=Ordered)


def move(beside: "models.QuerySet[R]", key: UUID, before: UUID | None, scope: str, label: str) -> None:
    """Put one record before another; only places that change are written.

    Args:
        beside: the record and those it has an order with.
        key: the record's.
        before: the one it comes before; last where None, or where that one is gone.
        scope: for the step.
        label: what the step is called; {} takes the record's name.

    Raises:
        Http404: the record is not there.
    """
    records = list(beside)
    moved = next((r for r in records if r.pk == key), None)
    if moved is None:
        raise Http404
    others = [r for r in records if r.pk != key]
    at = next((n for n, r in enumerate(others) if r.pk == before), len(others))
    with recorded(scope, label.format(moved), f"move:{key}:{before}"):
        for place, record in enumerate([*others[:at], moved, *others[at:]]):
            record.order = place
            keep(record)


def last(beside: "models.Manager[Any]") -> int:
    """The place behind all others."""
    highest = beside.aggregate(models.Max("order"))["order__max"]
    return 0 if highest is None else highest + 1
