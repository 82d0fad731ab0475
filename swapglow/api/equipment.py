"""Equipment and its rails."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from swapglow.api.given import given
from swapglow.api.outward import rail_out, steps, summary, take_in_out
from swapglow.api.schemas import (
    EquipmentFields,
    EquipmentOut,
    EquipmentPatch,
    Order,
    Problems,
    RailFields,
    RailOut,
    RailPatch,
)
from swapglow.core.position.typed import read_rail
from swapglow.core.supply import KINDS
from swapglow.records import translate
from swapglow.records.journal import recorded, with_dependants
from swapglow.records.models import Equipment, Position, Rail

router = Router(tags=["equipment"])


def _equipment_out(e: Equipment) -> EquipmentOut:
    at_hand = translate.drawer()
    positions = e.positions.select_related("rail").prefetch_related("readings", "taken")
    return EquipmentOut(
        id=e.id,
        name=e.name,
        maker_model=e.maker_model,
        board_revision=e.board_revision,
        owner=e.owner,
        notes=e.notes,
        take_in=take_in_out(e),
        rails=[rail_out(r) for r in e.rails.all()],
        positions=[summary(p, at_hand) for p in positions],
        steps=steps(str(e.pk)),
    )


@router.get("/equipment/{key}", response={200: EquipmentOut, 404: Problems})
def read(request: HttpRequest, key: UUID) -> EquipmentOut:
    """One item with its rails and positions."""
    return _equipment_out(get_object_or_404(Equipment, pk=key))


@router.put("/equipment/{key}", response={200: EquipmentOut, 422: Problems})
def create(request: HttpRequest, key: UUID, data: EquipmentFields) -> EquipmentOut:
    """Make an item; sent twice, it is made once."""
    found = Equipment.objects.filter(pk=key).first()
    if found is None:
        with recorded("", f"add {data.name}", [], f"equipment:{key}") as left:
            found = Equipment.objects.create(id=key, order=Equipment.objects.count(), **data.dict())
            left.append(found)
    return _equipment_out(found)


@router.patch("/equipment/{key}", response={200: EquipmentOut, 404: Problems, 422: Problems})
def change(request: HttpRequest, key: UUID, data: EquipmentPatch) -> EquipmentOut:
    """Change fields of an item."""
    e = get_object_or_404(Equipment, pk=key)
    fields = given(data)
    with recorded(str(key), f"edit {e.name}", [e], f"equipment:{key}:{sorted(fields)}") as left:
        _apply(e, fields)
        e.save()
        left.append(e)
    return _equipment_out(e)


@router.delete("/equipment/{key}", response={204: None})
def remove(request: HttpRequest, key: UUID) -> Status[None]:
    """Delete an item with all in it; undo on the bench brings it back."""
    e = Equipment.objects.filter(pk=key).first()
    if e is not None:
        with recorded("", f"delete {e.name}", with_dependants(e), f"equipment:{key}:delete"):
            e.delete()
    return Status(204, None)


def _apply(record: Any, fields: dict[str, Any]) -> None:
    for name, value in fields.items():
        setattr(record, name, value)


@router.put("/rails/{key}", response={200: RailOut, 404: Problems, 422: Problems})
def create_rail(request: HttpRequest, key: UUID, data: RailFields) -> RailOut:
    """Make a rail; sent twice, it is made once."""
    found = Rail.objects.filter(pk=key).first()
    if found is None:
        e = get_object_or_404(Equipment, pk=data.equipment)
        fields = data.dict()
        fields.pop("equipment")
        found = Rail(id=key, equipment=e, order=e.rails.count(), **fields)
        read_rail(translate.typed_rail(found))
        with recorded(str(e.pk), f"add {found.name}", [], f"rail:{key}") as left:
            found.save()
            left.append(found)
    return rail_out(found)


@router.patch("/rails/{key}", response={200: RailOut, 404: Problems, 422: Problems})
def change_rail(request: HttpRequest, key: UUID, data: RailPatch) -> RailOut:
    """Change a rail; refused whole where its readings do not read."""
    r = get_object_or_404(Rail, pk=key)
    before = Rail.objects.get(pk=key)
    fields = given(data)
    _details(r, fields)
    _apply(r, fields)
    read_rail(translate.typed_rail(r))
    touched = f"rail:{key}:{sorted(fields)}"
    with recorded(str(r.equipment_id), f"edit {r.name}", [before], touched) as left:
        r.save()
        left.append(r)
    return rail_out(r)


def _details(r: Rail, fields: dict[str, Any]) -> None:
    """Details sent join those there; a new kind keeps only what it too asks for."""
    kind = KINDS[fields.get("kind", r.kind)]
    asked = {d.id for d in kind.details}
    joined = {**r.details, **fields.get("details", {})}
    fields["details"] = {
        n: q for n, q in joined.items() if n in asked or n in fields.get("details", {})
    }  # fmt: skip


@router.delete("/rails/{key}", response={204: None, 409: Problems})
def remove_rail(request: HttpRequest, key: UUID) -> Any:
    """Delete a rail that no position hangs on."""
    r = Rail.objects.filter(pk=key).first()
    if r is None:
        return Status(204, None)
    if r.positions.exists():
        names = ", ".join(p.name for p in r.positions.all()[:3])
        message = f"{r.name} still feeds {names}. Move those lamps to another rail first."
        return Status(409, {"errors": [{"field": "rail", "message": message}]})
    with recorded(str(r.equipment_id), f"delete {r.name}", [r], f"rail:{key}:delete"):
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
