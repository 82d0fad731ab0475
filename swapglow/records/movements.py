"""The drawer's ledger: what went into each compartment and out of it. A count is the sum, never a number written over.

A typed count books the difference to the sum. A lamp's tick books what it takes, and books it back when the tick goes:
:func:`book_what_changed` compares what is written at the lamp with what is booked for it, so that undo, redo, going
back, a copy and an import all come to the same sum.
"""

from collections import Counter
from collections.abc import Iterable, Mapping
from typing import Any
from uuid import UUID

from django.db import models

from swapglow.core.planning.build_step_kinds import TAKE_STEP
from swapglow.records.models import BenchLed, Movement, Position, StockPart

# Booked by what is written at lamps, so that undo leaves them to that.
FOLLOWING = (Movement.TAKEN, Movement.PUT_BACK)

_COMPARTMENTS: tuple[type[StockPart] | type[BenchLed], ...] = (StockPart, BenchLed)


def book_what_changed(record: models.Model) -> None:
    """Book what a saved record says of the drawer and the ledger does not; other records are left alone."""
    if isinstance(record, StockPart | BenchLed):
        _book_count(record)
    elif isinstance(record, Position):
        _book_drawn(record)


def book(part: UUID, kind: str, by: int, position: UUID | None = None) -> None:
    """Write one movement and bring the compartment's count up to it.

    Args:
        part: the compartment's key.
        kind: one of Movement's.
        by: pieces, negative for what goes out.
        position: the lamp that they were taken for.
    """
    Movement.objects.create(part=part, kind=kind, by=by, position=position)
    bring_up_to_date((part,))


def bring_up_to_date(parts: Iterable[UUID]) -> None:
    """Write the sums of these compartments where they are read; no step and no history: the movements are that."""
    for part in set(parts):
        for model in _COMPARTMENTS:
            record = model._default_manager.filter(pk=part).first()
            if record is not None and record.inputs.get("count") != (count := counted(part)):
                model._default_manager.filter(pk=part).update(inputs={**record.inputs, "count": count})


def counted(part: UUID) -> int | None:
    """How many a compartment holds; None where nobody counts."""
    rows = list(Movement.objects.filter(part=part).values_list("kind", "by"))
    said = [kind for kind, _ in rows if kind in (Movement.COUNTED, Movement.UNCOUNTED)]
    if not said or said[-1] == Movement.UNCOUNTED:
        return None
    return max(0, sum(by for _, by in rows))


def _book_count(record: StockPart | BenchLed) -> None:
    typed, here = record.inputs.get("count"), counted(record.pk)
    if typed == here:
        return
    if typed is None:
        Movement.objects.create(part=record.pk, kind=Movement.UNCOUNTED, by=0)
    else:
        added = Movement.objects.filter(part=record.pk).aggregate(models.Sum("by"))["by__sum"] or 0
        Movement.objects.create(part=record.pk, kind=Movement.COUNTED, by=typed - added)


def drawn(inputs: Mapping[str, Any]) -> Counter[UUID]:
    """What is written at a lamp as taken out of the drawer, by compartment; nothing where the tick is not set."""
    step = (inputs.get("steps") or {}).get(TAKE_STEP) or {}
    said = (step.get("drawn") or {}) if step.get("done") else {}
    return Counter({UUID(key): many for key, many in said.items() if many and _is_key(key)})


def booked(position: UUID) -> Counter[UUID]:
    """What the ledger says is out for a lamp, by compartment."""
    rows = Movement.objects.filter(position=position).order_by().values("part").annotate(out=-models.Sum("by"))
    return Counter({row["part"]: row["out"] for row in rows if row["out"]})


def only_booked(p: Position) -> None:
    """Let a lamp that comes in say only what this drawer gave for it: a copy has taken nothing.

    Args:
        p: a new record, changed in place and not saved yet.
    """
    here, said = booked(p.pk), drawn(p.inputs)
    if said and here != said:
        step = p.inputs["steps"][TAKE_STEP]
        out = {str(key): many for key, many in here.items()}
        p.inputs = {**p.inputs, "steps": {**p.inputs["steps"], TAKE_STEP: {**step, "drawn": out}}}


def _book_drawn(p: Position) -> None:
    out, said = booked(p.pk), drawn(p.inputs)
    if out == said:
        return
    here = {key for model in _COMPARTMENTS for key in model._default_manager.values_list("pk", flat=True)}
    for part in out.keys() | said.keys():
        more = said[part] - out[part]
        # Of a compartment that this drawer never had nothing can be taken.
        if more < 0 or (more > 0 and (part in here or part in out)):
            book(part, Movement.TAKEN if more > 0 else Movement.PUT_BACK, -more, p.pk)


def _is_key(text: str) -> bool:
    try:
        UUID(text)
    except ValueError:
        return False
    return True
