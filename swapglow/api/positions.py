"""Lamp positions: records, reports, remedies, the search, circuits."""

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from swapglow.api.schemas import (
    AssessIn,
    NewPosition,
    PositionAnswer,
    PositionPatch,
    PositionView,
    Problems,
    ReportAnswer,
    SpiceText,
)
from swapglow.api.serializers import position_answer, rail_answer, report_answer, steps, summary
from swapglow.core.analysis.sizing import size
from swapglow.core.drivers.driver import State
from swapglow.core.network.spice_text import spice_text
from swapglow.core.parts.sweep import SweepReport, sweep_report
from swapglow.core.quantities import InputError
from swapglow.core.search import Swaps, search
from swapglow.inputs.patch import sent, texts_of
from swapglow.inputs.position import PositionInput
from swapglow.inputs.to_core import sweep_of
from swapglow.records import reports
from swapglow.records.journal import recorded, with_dependants
from swapglow.records.models import Equipment, Position, Rail

router = Router(tags=["positions"])


def find(key: UUID) -> Position:
    """A position with its rail and item, or 404."""
    return get_object_or_404(Position.objects.select_related("rail", "equipment"), pk=key)


@router.get("/positions/{key}", response={200: PositionView, 404: Problems})
def read(request: HttpRequest, key: UUID) -> PositionView:
    """One position with its rail and neighbours."""
    p = find(key)
    at_hand = reports.drawer()
    siblings = p.equipment.positions.select_related("rail").prefetch_related(
        "readings_after", "readings_before"
    )
    return PositionView(
        position=position_answer(p),
        rail=rail_answer(p.rail),
        equipment_name=p.equipment.input.name,
        fit=_fit(p),
        siblings=[summary(s, at_hand) for s in siblings],
        steps=steps(str(p.equipment_id)),
    )


def _fit(p: Position) -> SweepReport | None:
    sweep = sweep_of(p.input)
    return None if sweep.empty else sweep_report(sweep)


@router.put("/positions/{key}", response={200: PositionAnswer, 404: Problems, 422: Problems})
def create(request: HttpRequest, key: UUID, data: NewPosition) -> PositionAnswer:
    """Make a position; sent twice, it is made once."""
    found = Position.objects.filter(pk=key).first()
    if found is None:
        e = get_object_or_404(Equipment, pk=data.equipment)
        rail = e.rails.filter(pk=data.rail).first() if data.rail else e.rails.first()
        if rail is None:
            raise InputError("rail", "Add a supply rail first: a lamp needs one.")
        typed = data.model_dump(mode="json", include=set(PositionInput.model_fields))
        found = Position(id=key, equipment=e, rail=rail, order=e.positions.count(), inputs=typed)
        reports.core_of(found)
        with recorded(str(e.pk), f"add {data.name}", [], f"position:{key}") as left:
            found.save()
            left.append(found)
    return position_answer(found)


def change_position(p: Position, fields: Mapping[str, Any], label: str, touched: str) -> PositionAnswer:
    """Join fields to a position and keep it, or refuse the whole.

    Args:
        p: the record.
        fields: what changes; "rail" may be among them.
        label: what the step is called.
        touched: tells one gesture from the next.

    Returns:
        The position as kept.

    Raises:
        InputError: it would not read.
    """
    before = Position.objects.get(pk=p.pk)
    changes = dict(fields)
    if "rail" in changes:
        rail = Rail.objects.filter(pk=changes.pop("rail"), equipment_id=p.equipment_id).first()
        if rail is None:
            raise InputError("rail", "That rail is not in this equipment.")
        p.rail = rail
    p.join(changes)
    reports.core_of(p)
    with recorded(str(p.equipment_id), label, [before], touched) as left:
        p.save()
        left.append(p)
    return position_answer(p)


@router.patch("/positions/{key}", response={200: PositionAnswer, 404: Problems, 422: Problems})
def change(request: HttpRequest, key: UUID, data: PositionPatch) -> PositionAnswer:
    """Change the fields sent; refused whole where the position would not read."""
    p = find(key)
    fields = sent(data)
    return change_position(p, fields, f"edit {p.input.name}", f"position:{key}:{sorted(fields)}")


@router.delete("/positions/{key}", response={204: None})
def remove(request: HttpRequest, key: UUID) -> Status[None]:
    """Delete a position; undo brings it back with its readings."""
    p = Position.objects.filter(pk=key).first()
    if p is not None:
        found = with_dependants(p)
        with recorded(str(p.equipment_id), f"delete {p.input.name}", found, f"position:{key}:delete"):
            p.delete()
    return Status(204, None)


@router.post("/positions/{key}/assess", response={200: ReportAnswer, 404: Problems, 422: Problems})
def assess(request: HttpRequest, key: UUID, data: AssessIn) -> HttpResponse:
    """The report, with changes tried where given; nothing is saved."""
    return report_answer(reports.report(find(key), data.changes, reports.drawer()))


@router.get("/positions/{key}/swaps", response={200: Swaps, 404: Problems, 422: Problems})
def swaps(request: HttpRequest, key: UUID) -> Swaps:
    """The swaps that matter for a position, ranked by what its user weighs."""
    p = find(key)
    return search(reports.core_of(p), tuple(p.input.weigh), reports.drawer())  # type: ignore[arg-type]  # each one of the weights


@router.get("/positions/{key}/spice", response={200: SpiceText, 404: Problems, 422: Problems})
def spice(request: HttpRequest, key: UUID, state: State = "on") -> SpiceText:
    """The position as SPICE text in a state: usual rail, typical LEDs, the resistor fitted."""
    core = reports.core_of(find(key))
    sized = size(core)
    return SpiceText(text=spice_text(core, sized.total_ohm, sized.farads, state))


@router.post("/positions/{key}/take", response={200: PositionAnswer, 404: Problems, 422: Problems})
def take(request: HttpRequest, key: UUID, data: AssessIn) -> PositionAnswer:
    """Take a remedy's changes."""
    p = find(key)
    fields = texts_of(data.changes, p.input.driver_kind)
    return change_position(p, fields, f"change {p.input.name}", f"position:{key}:take:{sorted(fields)}")
