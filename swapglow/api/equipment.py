"""Equipment and its rails."""

from uuid import UUID

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from swapglow.api.schemas import EquipmentOut, NewRail, Order, Problems, RailAnswer
from swapglow.api.serializers import rail_answer, steps, summary, take_in_view
from swapglow.core.supplies import SUPPLIES
from swapglow.inputs.equipment import EquipmentInput
from swapglow.inputs.patch import sent
from swapglow.inputs.rail import RailInput
from swapglow.inputs.to_core import rail_of
from swapglow.records import reports
from swapglow.records.journal import recorded, with_dependants
from swapglow.records.models import Equipment, Position, Rail

router = Router(tags=["equipment"])


def _equipment_out(e: Equipment) -> EquipmentOut:
    at_hand = reports.drawer()
    positions = e.positions.select_related("rail").prefetch_related("readings_after", "readings_before")
    return EquipmentOut(
        **e.inputs,
        id=e.pk,
        take_in=take_in_view(e),
        rails=[rail_answer(r) for r in e.rails.all()],
        positions=[summary(p, at_hand) for p in positions],
        steps=steps(str(e.pk)),
    )


@router.get("/equipment/{key}", response={200: EquipmentOut, 404: Problems})
def read(request: HttpRequest, key: UUID) -> EquipmentOut:
    """One item with its rails and positions."""
    return _equipment_out(get_object_or_404(Equipment, pk=key))


@router.put("/equipment/{key}", response={200: EquipmentOut, 422: Problems})
def create(request: HttpRequest, key: UUID, data: EquipmentInput) -> EquipmentOut:
    """Make an item; sent twice, it is made once."""
    found = Equipment.objects.filter(pk=key).first()
    if found is None:
        with recorded("", f"add {data.name}", [], f"equipment:{key}") as left:
            found = Equipment.objects.create(
                id=key, order=Equipment.objects.count(), inputs=data.model_dump(mode="json")
            )
            left.append(found)
    return _equipment_out(found)


@router.patch("/equipment/{key}", response={200: EquipmentOut, 404: Problems, 422: Problems})
def change(request: HttpRequest, key: UUID, data: EquipmentInput) -> EquipmentOut:
    """Change fields of an item."""
    e = get_object_or_404(Equipment, pk=key)
    fields = sent(data)
    label, touched = f"edit {e.input.name}", f"equipment:{key}:{sorted(fields)}"
    with recorded(str(key), label, [e], touched) as left:
        e.join(fields)
        e.save()
        left.append(e)
    return _equipment_out(e)


@router.delete("/equipment/{key}", response={204: None})
def remove(request: HttpRequest, key: UUID) -> Status[None]:
    """Delete an item with all in it; undo on the bench brings it back."""
    e = Equipment.objects.filter(pk=key).first()
    if e is not None:
        with recorded("", f"delete {e.input.name}", with_dependants(e), f"equipment:{key}:delete"):
            e.delete()
    return Status(204, None)


@router.put("/rails/{key}", response={200: RailAnswer, 404: Problems, 422: Problems})
def create_rail(request: HttpRequest, key: UUID, data: NewRail) -> RailAnswer:
    """Make a rail; sent twice, it is made once."""
    found = Rail.objects.filter(pk=key).first()
    if found is None:
        e = get_object_or_404(Equipment, pk=data.equipment)
        typed = data.model_dump(mode="json", exclude={"equipment"})
        found = Rail(id=key, equipment=e, order=e.rails.count(), inputs=typed)
        rail_of(found.input)
        with recorded(str(e.pk), f"add {data.name}", [], f"rail:{key}") as left:
            found.save()
            left.append(found)
    return rail_answer(found)


@router.patch("/rails/{key}", response={200: RailAnswer, 404: Problems, 422: Problems})
def change_rail(request: HttpRequest, key: UUID, data: RailInput) -> RailAnswer:
    """Change a rail; refused whole where its readings do not read."""
    r = get_object_or_404(Rail, pk=key)
    before = Rail.objects.get(pk=key)
    fields = sent(data)
    _forget(r, fields.get("kind", r.input.kind))
    r.join(fields)
    rail_of(r.input)
    touched = f"rail:{key}:{sorted(fields)}"
    with recorded(str(r.equipment_id), f"edit {r.input.name}", [before], touched) as left:
        r.save()
        left.append(r)
    return rail_answer(r)


def _forget(r: Rail, kind: str) -> None:
    """A new kind keeps only the details that it too asks for."""
    asked = {d.id for d in SUPPLIES.named(kind, "kind").details}
    kept = {name: quantity for name, quantity in r.inputs["details"].items() if name in asked}
    r.inputs = {**r.inputs, "details": kept}


@router.delete("/rails/{key}", response={204: None, 409: Problems})
def remove_rail(request: HttpRequest, key: UUID) -> Status[dict[str, list[dict[str, str]]] | None]:
    """Delete a rail that no position hangs on."""
    r = Rail.objects.filter(pk=key).first()
    if r is None:
        return Status(204, None)
    if r.positions.exists():
        names = ", ".join(p.input.name for p in r.positions.all()[:3])
        message = f"{r.input.name} still feeds {names}. Move those lamps to another rail first."
        return Status(409, {"errors": [{"field": "rail", "message": message}]})
    with recorded(str(r.equipment_id), f"delete {r.input.name}", [r], f"rail:{key}:delete"):
        r.delete()
    return Status(204, None)


@router.post("/equipment/{key}/rails/order", response={204: None, 422: Problems})
def order_rails(request: HttpRequest, key: UUID, data: Order) -> Status[None]:
    """Put an item's rails in an order."""
    _reorder(key, Rail, data.ids, "reorder rails")
    return Status(204, None)


@router.post("/equipment/{key}/positions/order", response={204: None, 422: Problems})
def order_positions(request: HttpRequest, key: UUID, data: Order) -> Status[None]:
    """Put an item's positions in an order."""
    _reorder(key, Position, data.ids, "reorder lamps")
    return Status(204, None)


def _reorder(equipment: UUID, model: type[Rail] | type[Position], ids: list[UUID], label: str) -> None:
    found = list(model.objects.filter(equipment_id=equipment))
    with recorded(str(equipment), label, found, label) as left:
        for place, key in enumerate(ids):
            model.objects.filter(pk=key, equipment_id=equipment).update(order=place)
        left += model.objects.filter(pk__in=[r.pk for r in found])
