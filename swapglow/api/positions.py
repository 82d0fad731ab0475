"""Lamp positions: records, reports, remedies, the search, circuits."""

from collections.abc import Mapping
from dataclasses import asdict
from typing import Annotated, Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status
from ninja.decorators import decorate_view
from pydantic import Field

from swapglow.api.equipment import said
from swapglow.api.saving import saving
from swapglow.api.schemas import (
    AssessIn,
    BackTo,
    ComparedOut,
    NewCircuit,
    NewPosition,
    Past,
    PositionAnswer,
    PositionPatch,
    PositionView,
    Problems,
    ReportAnswer,
    SpiceText,
    StateOut,
)
from swapglow.api.serializers import lamp_reader, position_answer, rail_answer, report_answer, steps, summary
from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.spice_text import spice_text
from swapglow.core.circuits import CIRCUITS
from swapglow.core.circuits.from_lamp import from_lamp
from swapglow.core.drivers import DRIVERS
from swapglow.core.drivers.driver import State
from swapglow.core.parts.sweep import SweepReport, sweep_report
from swapglow.core.presentation.probes import LampPicture, probes
from swapglow.core.presentation.schematic import drawing, old_drawing, schematic
from swapglow.core.quantities import InputError
from swapglow.core.search import Swaps, search
from swapglow.inputs.kept import check_change
from swapglow.inputs.patch import sent, texts_of, touched
from swapglow.inputs.position import PositionInput
from swapglow.inputs.required_units import require_units
from swapglow.inputs.to_core import sweep_of
from swapglow.records import edit_conflicts, past, reports, taking_out
from swapglow.records.beginning import add_circuit, add_lamp, shop_habits
from swapglow.records.drawer import at_hand
from swapglow.records.models import Equipment, Position, Rail
from swapglow.records.readings import note_what_is_fitted
from swapglow.records.steps import keep, recorded

router = Router(tags=["positions"])

StepKey = Annotated[int, Field(ge=1, le=2**62)]


def find(key: UUID) -> Position:
    """A position with its rail and item, or 404."""
    return get_object_or_404(Position.objects.select_related("rail", "equipment"), pk=key)


@router.get("/positions/{key}", response={200: PositionView, 404: Problems})
def read(request: HttpRequest, key: UUID) -> PositionView:
    """One position with its rail and neighbours."""
    return view_of(find(key))


def view_of(p: Position) -> PositionView:
    """What is shown of a position."""
    return PositionView(
        position=position_answer(p),
        rail=rail_answer(p.rail),
        equipment_name=p.equipment.input.name,
        fit=_fit(p),
        siblings=[summary(s) for s in p.equipment.positions.select_related("rail", "summary")],
        steps=steps(str(p.equipment_id), past.steps_of(p)),
    )


def _fit(p: Position) -> SweepReport | None:
    sweep = sweep_of(p.input)
    try:
        return None if sweep.empty else sweep_report(sweep)
    except InputError:
        # The field says why, among what cannot be read.
        return None


@router.put("/positions/{key}", response={200: PositionAnswer, 404: Problems, 422: Problems})
@decorate_view(saving)
def create(request: HttpRequest, key: UUID, data: NewPosition) -> PositionAnswer:
    """Make a position; sent twice, it is made once."""
    found = Position.objects.filter(pk=key).first()
    if found is None:
        e = get_object_or_404(Equipment, pk=data.equipment)
        require_units(PositionInput, sent(data))
        rail = e.rails.filter(pk=data.rail).first() if data.rail else e.rails.first()
        if rail is None and data.rail:
            raise InputError("rail", "That rail is not in this equipment.")
        typed = data.model_dump(mode="json", include=set(PositionInput.model_fields))
        found = add_lamp(e, key, shop_habits(typed, data.model_fields_set), rail)
    return position_answer(found)


def change_position(p: Position, fields: Mapping[str, Any], label: str, gesture: str) -> PositionAnswer:
    """Join fields to a position and keep it, or refuse the whole.

    Args:
        p: the record, read within the transaction that keeps it.
        fields: what changes; "rail" may be among them.
        label: what the step is called.
        gesture: tells one gesture from the next.

    Returns:
        The position as kept.

    Raises:
        InputError: it would not read.
    """
    changes = dict(fields)
    if "rail" in changes:
        rail = Rail.objects.filter(pk=changes.pop("rail"), equipment_id=p.equipment_id).first()
        if rail is None:
            raise InputError("rail", "That rail is not in this equipment.")
        p.rail = rail
    was = p.inputs
    p.join(changes)
    check_change(lamp_reader(p), was, p.inputs, changes)
    with recorded(str(p.equipment_id), label, gesture):
        taking_out.note_what_is_drawn(p, was)
        note_what_is_fitted(p, changes)
        keep(p)
    return position_answer(p)


@router.patch("/positions/{key}", response={200: PositionAnswer, 404: Problems, 409: Problems, 422: Problems})
@decorate_view(saving)
def change(request: HttpRequest, key: UUID, data: PositionPatch) -> PositionAnswer:
    """Change the fields sent; refused whole where the position would not read."""
    p = find(key)
    fields = sent(data)
    edit_conflicts.check({**p.inputs, "rail": str(p.rail_id)}, fields, fields.pop("was", {}))
    require_units(PositionInput, fields, details=DRIVERS[fields.get("driver_kind", p.input.driver_kind)].details)
    label = f"edit {p.input.name}: {said(fields)}"
    return change_position(p, fields, label, f"position:{key}:{touched(fields)}")


@router.delete("/positions/{key}", response={204: None})
@decorate_view(saving)
def remove(request: HttpRequest, key: UUID) -> Status[None]:
    """Delete a position; undo brings it back with its readings."""
    p = Position.objects.filter(pk=key).first()
    if p is not None:
        with recorded(str(p.equipment_id), f"delete {p.input.name}", f"position:{key}:delete"):
            p.delete()
    return Status(204, None)


@router.post("/positions/{key}/assess", response={200: ReportAnswer, 404: Problems, 422: Problems})
def assess(request: HttpRequest, key: UUID, data: AssessIn) -> HttpResponse:
    """The report, with changes tried where given; nothing is saved."""
    return report_answer(reports.report(find(key), data.changes, at_hand()))


@router.get("/positions/{key}/swaps", response={200: Swaps, 404: Problems, 422: Problems})
def swaps(request: HttpRequest, key: UUID) -> Swaps:
    """The swaps that matter for a position, ranked by what its user weighs."""
    p = find(key)
    return search(reports.as_read_of(p), tuple(p.input.weigh), at_hand())  # type: ignore[arg-type]  # each one of the weights


@router.post("/positions/{key}/circuit", response={204: None, 404: Problems, 422: Problems})
@decorate_view(saving)
def begin_circuit(request: HttpRequest, key: UUID, data: NewCircuit) -> Status[None]:
    """Begin the circuit that works a lamp's second job out, with what the lamp says; sent twice, it is made once."""
    p = find(key)
    kind = CIRCUITS.named(data.kind, "kind")
    known = {} if str(data.id) in p.equipment.input.fitted else from_lamp(kind, reports.core_of(p))
    add_circuit(p.equipment, str(data.id), kind.id, p.input.name, known)
    return Status(204, None)


@router.get("/positions/{key}/spice", response={200: SpiceText, 404: Problems, 422: Problems})
def spice(request: HttpRequest, key: UUID, state: State = "on") -> SpiceText:
    """The position as SPICE text in a state: usual rail, typical LEDs, the resistor fitted."""
    core = reports.as_read_of(find(key))
    sized = size(core)
    return SpiceText(text=spice_text(core, sized.total_ohm, sized.farads, state))


@router.get("/positions/{key}/schematic.svg", include_in_schema=False)
def drawn(request: HttpRequest, key: UUID) -> HttpResponse:
    """The fitted circuit drawn, as a picture to look at or to keep."""
    answer = HttpResponse(schematic(reports.as_read_of(find(key))), content_type="image/svg+xml")
    answer["Cache-Control"] = "no-store"
    return answer


@router.get("/positions/{key}/wiring", response={200: LampPicture, 404: Problems, 422: Problems})
def wiring(request: HttpRequest, key: UUID) -> LampPicture:
    """The fitted circuit drawn; each part says which panel changes it, and each reading where its leads go."""
    core = reports.as_read_of(find(key))
    drawn = drawing(core)
    return LampPicture(drawn, old_drawing(core), probes(drawn))


@router.post("/positions/{key}/take", response={200: PositionAnswer, 404: Problems, 422: Problems})
@decorate_view(saving)
def take(request: HttpRequest, key: UUID, data: AssessIn) -> PositionAnswer:
    """Take a remedy's changes."""
    p = find(key)
    fields = texts_of(data.changes, p.input.driver_kind)
    return change_position(p, fields, f"change {p.input.name}: {said(fields)}", f"position:{key}:take:{sorted(fields)}")


@router.get("/positions/{key}/past", response={200: Past, 404: Problems})
def earlier(request: HttpRequest, key: UUID) -> Past:
    """The lamp's earlier states, by date and step."""
    found = past.states(find(key))
    return Past(states=[StateOut(**{**asdict(s), "at": s.at.isoformat()}) for s in found])


@router.get("/positions/{key}/compare", response={200: ComparedOut, 404: Problems, 422: Problems})
def compare(request: HttpRequest, key: UUID, first: StepKey, second: StepKey | None = None) -> ComparedOut:
    """Two moments of a lamp beside each other; without a second, one and now."""
    return ComparedOut(**asdict(past.compared(find(key), first, second)))


@router.post("/positions/{key}/back", response={200: PositionAnswer, 404: Problems, 422: Problems})
@decorate_view(saving)
def back(request: HttpRequest, key: UUID, data: BackTo) -> PositionAnswer:
    """Put the lamp to what it was after a step; that is a step too, and can be undone."""
    p = find(key)
    was = past.put_back(p, data.step)
    reports.core_of(p)
    with recorded(str(p.equipment_id), f"go back to: {was}", f"position:{key}:back:{data.step}"):
        keep(p)
    return position_answer(p)
