"""Readings: before the swap, after it, and those that set a figure."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Status
from ninja.decorators import decorate_view

from swapglow.api.positions import change_position, find
from swapglow.api.saving import saving
from swapglow.api.schemas import (
    BenchReading,
    NewReadingAfter,
    NewReadingBefore,
    PositionAnswer,
    Problems,
    ReadingAfterAnswer,
    ReadingBeforeAnswer,
)
from swapglow.api.serializers import after_answer, before_answer, position_answer
from swapglow.core.measurement.apply_reading import Applied, apply_reading
from swapglow.core.measurement.reading_after import KINDS
from swapglow.core.quantities import InputError, Source
from swapglow.core.supplies import SUPPLIES
from swapglow.inputs.reading_rules import bench_text, with_its_unit
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.inputs.to_core import rail_of
from swapglow.records import readings, reports
from swapglow.records.drawer import at_hand
from swapglow.records.models import Position, Rail, ReadingAfter, ReadingBefore
from swapglow.records.steps import keep, recorded

router = Router(tags=["readings"])


@router.post("/positions/{key}/reading", response={204: None, 404: Problems, 422: Problems})
@decorate_view(saving)
def bench_reading(request: HttpRequest, key: UUID, data: BenchReading) -> Status[None]:
    """A reading at the bench: sets the figure it is of, or is recorded as a trial."""
    p = find(key)
    if data.what in KINDS:
        typed = with_its_unit(
            ReadingAfterInput(
                kind=data.what, text=data.text, burden=data.burden, note=data.note, state=data.state, whose=data.whose
            )
        )
        _record(p, data.id, typed)
        return Status(204, None)
    applied = apply_reading(reports.core_of(p), data.what, bench_text(data.what, data.text))
    measured = {"text": applied.text, "source": Source.MEASURED.value, "note": data.note}
    if applied.of == "position":
        label = f"read {p.input.name}"
        change_position(p, {applied.field: measured}, label, f"position:{key}:read:{applied.field}")
    else:
        _set_on_rail(p, applied, measured)
    return Status(204, None)


def _set_on_rail(p: Position, applied: Applied, measured: dict[str, str]) -> None:
    rail = p.rail
    detail = applied.of == "detail"
    rail.join({"details": {applied.field: measured}} if detail else {applied.field: measured})
    try:
        rail_of(rail.input)
        reports.core_of(p)
    except InputError as problem:
        raise InputError("text", problem.message) from None
    _keep_rail(rail, "read", f"read:{applied.field}")


def _keep_rail(rail: Rail, verb: str, what: str) -> None:
    """Save a changed rail as one step of its item."""
    with recorded(str(rail.equipment_id), f"{verb} {rail.input.name}", f"rail:{rail.pk}:{what}"):
        keep(rail)


@router.post("/positions/{key}/infer/{name}", response={200: PositionAnswer, 404: Problems, 422: Problems})
@decorate_view(saving)
def infer(request: HttpRequest, key: UUID, name: str) -> PositionAnswer:
    """Take over what an inference says of the rail; it stays an inference, marked as computed."""
    p = find(key)
    survey = reports.report(p, None, at_hand()).survey
    found = next((i for i in survey.inferences if i.id == name and i.sets), None)
    if found is None:
        raise InputError("name", f'The readings no longer say "{name}".')
    rail = p.rail
    note = found.basis[:200]
    said = {k: {"text": v, "source": Source.COMPUTED.value, "note": note} for k, v in found.sets.items()}
    changes: dict[str, Any] = {"usual": said["usual"]} if "usual" in said else {}
    kind = found.sets.get("kind", rail.input.kind)
    if kind != rail.input.kind:
        changes["kind"] = kind
        rail.inputs = {**rail.inputs, "details": {}}
    asked = {d.id for d in SUPPLIES[kind].details}
    changes["details"] = {k: q for k, q in said.items() if k in asked}
    rail.join(changes)
    reports.core_of(p)
    _keep_rail(rail, "infer", "infer")
    return position_answer(p)


@router.put("/readings/before/{key}", response={200: ReadingBeforeAnswer, 404: Problems, 422: Problems})
@decorate_view(saving)
def record_before(request: HttpRequest, key: UUID, data: NewReadingBefore) -> ReadingBeforeAnswer:
    """Record a reading before the swap; sent twice, it is kept once."""
    found = ReadingBefore.objects.filter(pk=key).first()
    if found is None:
        p = find(data.position)
        typed = with_its_unit(ReadingBeforeInput(**data.model_dump(exclude={"position"})))
        found = readings.new_before(p, key, typed)
        with recorded(str(p.equipment_id), f"read {p.input.name}", f"before:{key}"):
            keep(found)
    return before_answer(found)


@router.delete("/readings/before/{key}", response={204: None})
@decorate_view(saving)
def strike_before(request: HttpRequest, key: UUID) -> Status[None]:
    """Delete a reading before the swap; undo brings it back."""
    _strike(ReadingBefore.objects.select_related("position").filter(pk=key).first(), f"before:{key}:delete")
    return Status(204, None)


def _strike(r: ReadingAfter | ReadingBefore | None, gesture: str) -> None:
    if r is None:
        return
    label = f"delete a reading at {r.position.input.name}"
    with recorded(str(r.position.equipment_id), label, gesture):
        r.delete()


def _record(p: Position, key: UUID, typed: ReadingAfterInput) -> ReadingAfter:
    found = ReadingAfter.objects.filter(pk=key).first()
    if found is not None:
        return found
    made = readings.new_after(p, key, typed)
    label = f"record a reading at {p.input.name}"
    with recorded(str(p.equipment_id), label, f"after:{key}"):
        keep(made)
    return made


@router.put("/readings/after/{key}", response={200: ReadingAfterAnswer, 404: Problems, 422: Problems})
@decorate_view(saving)
def record_after(request: HttpRequest, key: UUID, data: NewReadingAfter) -> ReadingAfterAnswer:
    """Record a reading after the swap; sent twice, it is kept once."""
    typed = with_its_unit(ReadingAfterInput(**data.model_dump(exclude={"position"})))
    return after_answer(_record(find(data.position), key, typed))


@router.delete("/readings/after/{key}", response={204: None})
@decorate_view(saving)
def strike_after(request: HttpRequest, key: UUID) -> Status[None]:
    """Delete a reading after the swap; undo brings it back."""
    _strike(ReadingAfter.objects.select_related("position").filter(pk=key).first(), f"after:{key}:delete")
    return Status(204, None)
