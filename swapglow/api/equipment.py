"""Equipment and its rails."""

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any
from uuid import UUID

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status
from ninja.decorators import decorate_view

from swapglow.api.saving import saving
from swapglow.api.schemas import (
    BeginIn,
    BegunOut,
    EquipmentOut,
    EquipmentPatch,
    ItemAnswer,
    LightOut,
    Move,
    NewRail,
    Problems,
    RailAnswer,
    RailPatch,
)
from swapglow.api.serializers import rail_answer, steps, summary, take_in_view
from swapglow.core.presentation.budget import RailBudget
from swapglow.core.supplies import SUPPLIES
from swapglow.inputs.echoes import echoes
from swapglow.inputs.equipment import EquipmentInput
from swapglow.inputs.kept import check_change, readable, readable_by
from swapglow.inputs.patch import sent, touched
from swapglow.inputs.rail import RailInput
from swapglow.inputs.required_units import require_units
from swapglow.inputs.to_core import check_dims, check_fitted, rail_of
from swapglow.records import edit_conflicts, order, reports
from swapglow.records.beginning import begin
from swapglow.records.drawer import at_hand
from swapglow.records.job import job_of
from swapglow.records.lights import lights_of
from swapglow.records.limits import check_room
from swapglow.records.models import Equipment, Rail
from swapglow.records.steps import keep, recorded

router = Router(tags=["equipment"])


def _equipment_out(e: Equipment) -> EquipmentOut:
    answers = reports.circuit_answers(e.input.fitted)
    dimming = {k: reports.dimming_of(d, at_hand()) for k, d in e.input.dims.items()}
    return EquipmentOut(
        **e.shown,
        id=e.pk,
        take_in=take_in_view(e),
        dimming=dimming,
        answers=answers,
        echo={k: echoes(f) for k, f in e.input.fitted.items()},
        rails=[rail_answer(r) for r in e.rails.all()],
        positions=[summary(p) for p in e.positions.select_related("rail", "summary")],
        lights=[LightOut(**asdict(light)) for light in lights_of(e.input, answers, dimming)],
        job=job_of(e),
        unread=[*e.unread, *readable_by(_check, e.inputs)],
        steps=steps(str(e.pk)),
    )


@router.get("/equipment/{key}", response={200: EquipmentOut, 404: Problems})
def read(request: HttpRequest, key: UUID) -> EquipmentOut:
    """One item with its rails and positions."""
    return _equipment_out(get_object_or_404(Equipment, pk=key))


@router.put("/equipment/{key}", response={200: ItemAnswer, 422: Problems})
@decorate_view(saving)
def create(request: HttpRequest, key: UUID, data: EquipmentInput) -> ItemAnswer:
    """Make an item; sent twice, it is made once."""
    found = Equipment.objects.filter(pk=key).first()
    if found is None:
        found = Equipment(id=key, order=order.last(Equipment.objects), inputs=data.model_dump(mode="json"))
        check_room(found)
        with recorded("", f"add {data.name}", f"equipment:{key}"):
            keep(found)
    return ItemAnswer(id=found.pk, name=found.input.name)


@router.patch("/equipment/{key}", response={200: ItemAnswer, 404: Problems, 409: Problems, 422: Problems})
@decorate_view(saving)
def change(request: HttpRequest, key: UUID, data: EquipmentPatch) -> ItemAnswer:
    """Change fields of an item; the item itself is asked for, whose circuits are worked out anew."""
    e = get_object_or_404(Equipment, pk=key)
    fields = sent(data)
    edit_conflicts.check(e.inputs, fields, fields.pop("was", {}))
    require_units(EquipmentInput, fields)
    label = f"edit {e.input.name}: {said(fields)}"
    before = e.inputs
    e.join(fields)
    check_change(_check, before, e.inputs, fields)
    with recorded(str(key), label, f"equipment:{key}:{touched(fields)}"):
        keep(e)
    return ItemAnswer(id=e.pk, name=e.input.name)


def _check(inputs: Mapping[str, Any]) -> None:
    item, _ = readable(EquipmentInput, inputs)
    check_dims(item.dims)
    check_fitted(item.fitted)


def said(fields: dict[str, object]) -> str:
    """Names of fields in words, for the label of a step."""
    return ", ".join(name.replace("_", " ") for name in list(fields)[:3])


@router.post("/equipment/{key}/begin", response={200: BegunOut, 404: Problems, 422: Problems})
@decorate_view(saving)
def begin_light(request: HttpRequest, key: UUID, data: BeginIn) -> BegunOut:
    """Make the lamp or circuit that somebody's answers lead to; sent twice, it is made once."""
    found = begin(get_object_or_404(Equipment, pk=key), data.id, data.start, data.answers)
    return BegunOut(what=found.what, id=data.id, panel=found.panel)


@router.delete("/equipment/{key}", response={204: None})
@decorate_view(saving)
def remove(request: HttpRequest, key: UUID) -> Status[None]:
    """Delete an item with all in it; undo on the bench brings it back."""
    e = Equipment.objects.filter(pk=key).first()
    if e is not None:
        with recorded("", f"delete {e.input.name}", f"equipment:{key}:delete"):
            e.delete()
    return Status(204, None)


@router.put("/rails/{key}", response={200: RailAnswer, 404: Problems, 422: Problems})
@decorate_view(saving)
def create_rail(request: HttpRequest, key: UUID, data: NewRail) -> RailAnswer:
    """Make a rail; sent twice, it is made once."""
    found = Rail.objects.filter(pk=key).first()
    if found is None:
        e = get_object_or_404(Equipment, pk=data.equipment)
        require_units(RailInput, sent(data), details=SUPPLIES[data.kind].details)
        typed = data.model_dump(mode="json", exclude={"equipment"})
        found = Rail(id=key, equipment=e, order=order.last(e.rails), inputs=typed)
        rail_of(found.input)
        check_room(found)
        with recorded(str(e.pk), f"add {data.name}", f"rail:{key}"):
            keep(found)
    return rail_answer(found)


@router.patch("/rails/{key}", response={200: RailAnswer, 404: Problems, 409: Problems, 422: Problems})
@decorate_view(saving)
def change_rail(request: HttpRequest, key: UUID, data: RailPatch) -> RailAnswer:
    """Change a rail; refused whole where its readings do not read."""
    r = get_object_or_404(Rail, pk=key)
    fields = sent(data)
    edit_conflicts.check(r.inputs, fields, fields.pop("was", {}))
    require_units(RailInput, fields, details=SUPPLIES[fields.get("kind", r.input.kind)].details)
    label = f"edit {r.input.name}: {said(fields)}"
    _forget(r, fields.get("kind", r.input.kind))
    before = r.inputs
    r.join(fields)
    check_change(lambda rail: rail_of(readable(RailInput, rail)[0]), before, r.inputs, fields)
    with recorded(str(r.equipment_id), label, f"rail:{key}:{sorted(fields)}"):
        keep(r)
    return rail_answer(r)


def _forget(r: Rail, kind: str) -> None:
    """A new kind keeps only the details that it too asks for."""
    asked = {d.id for d in SUPPLIES.named(kind, "kind").details}
    kept = {name: quantity for name, quantity in r.inputs["details"].items() if name in asked}
    r.inputs = {**r.inputs, "details": kept}


@router.get("/rails/{key}/budget", response={200: RailBudget, 404: Problems, 422: Problems})
def budget(request: HttpRequest, key: UUID) -> RailBudget:
    """What a rail gives to each of its lamps, before and after, against what it may give."""
    return reports.budget_of(get_object_or_404(Rail, pk=key))


@router.delete("/rails/{key}", response={204: None, 409: Problems})
@decorate_view(saving)
def remove_rail(request: HttpRequest, key: UUID) -> Status[dict[str, list[dict[str, str]]] | None]:
    """Delete a rail that no position hangs on."""
    r = Rail.objects.filter(pk=key).first()
    if r is None:
        return Status(204, None)
    if r.positions.exists():
        names = ", ".join(p.input.name for p in r.positions.all()[:3])
        message = f"{r.input.name} still feeds {names}. Move those lamps to another rail first."
        return Status(409, {"errors": [{"field": "rail", "message": message}]})
    with recorded(str(r.equipment_id), f"delete {r.input.name}", f"rail:{key}:delete"):
        r.delete()
    return Status(204, None)


@router.post("/equipment/{key}/rails/move", response={204: None, 404: Problems, 422: Problems})
@decorate_view(saving)
def move_rail(request: HttpRequest, key: UUID, data: Move) -> Status[None]:
    """Put one of an item's rails before another."""
    e = get_object_or_404(Equipment, pk=key)
    order.move(e.rails.all(), data.key, data.before, str(key), "move {}")
    return Status(204, None)


@router.post("/equipment/{key}/positions/move", response={204: None, 404: Problems, 422: Problems})
@decorate_view(saving)
def move_position(request: HttpRequest, key: UUID, data: Move) -> Status[None]:
    """Put one of an item's lamps before another."""
    e = get_object_or_404(Equipment, pk=key)
    order.move(e.positions.all(), data.key, data.before, str(key), "move {}")
    return Status(204, None)
