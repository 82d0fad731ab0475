"""The demo: a volunteer workshop that looks after an old observatory's instruments.

All of it is invented: the place, the equipment, the figures.
"""

import uuid
from typing import Any

from django.db import transaction

from swapglow.document.versions import keyed
from swapglow.inputs.equipment import EquipmentInput, TakeInInput
from swapglow.inputs.position import PositionInput
from swapglow.inputs.rail import RailInput
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.inputs.shape import Shape
from swapglow.inputs.to_core import position_of, reading_before_of
from swapglow.records.demo.cart import CART
from swapglow.records.demo.drawer import LEDS, PARTS
from swapglow.records.demo.drivers import DRIVERS
from swapglow.records.demo.generator import GENERATOR
from swapglow.records.demo.observatory import EQUIPMENT
from swapglow.records.demo.supplies import SUPPLIES
from swapglow.records.models import BenchLed, Equipment, Position, Rail, ReadingAfter, ReadingBefore, StockPart
from swapglow.records.steps import keep

# Keys made from names, so that loading the demo again finds what it made.
_SPACE = uuid.UUID("5b0f2c9a-6f4e-4a53-9d2e-5a9c1d0e7f31")


def is_loaded() -> bool:
    """Whether any equipment is there: the demo never writes over someone's own."""
    return Equipment.objects.exists()


@transaction.atomic
def load() -> int:
    """Make the demo's records; returns the number of lamp positions."""
    for model, all_typed in ((StockPart, PARTS), (BenchLed, LEDS)):
        for place, typed in enumerate(all_typed):
            _keep_in_drawer(model, place, typed)
    specs = (*EQUIPMENT, *SUPPLIES, *DRIVERS, *CART, *GENERATOR)
    return sum(_item(spec, place) for place, spec in enumerate(specs))


def _keep_in_drawer(model: type[StockPart] | type[BenchLed], place: int, typed: Shape) -> None:
    """Something of the drawer, under a key made from its place; one that is here already stays."""
    key = uuid.uuid5(_SPACE, f"drawer/{model.__name__}/{place}")
    if not model._default_manager.filter(pk=key).exists():
        keep(model(id=key, order=place, inputs=typed.model_dump(mode="json")))


def _item(spec: dict[str, Any], place: int) -> int:
    """One item with all in it."""
    typed = {k: v for k, v in spec.items() if k in EquipmentInput.model_fields}
    item = Equipment.objects.create(
        id=uuid.uuid5(_SPACE, spec["name"]),
        order=place,
        inputs=EquipmentInput(**typed).model_dump(mode="json"),
        take_in=_sheet(spec.get("take_in", {})),
    )
    rails = []
    for k, r in enumerate(spec["rails"]):
        rail = Rail(
            id=uuid.uuid5(_SPACE, f"{spec['name']}/{r['name']}"),
            equipment=item,
            order=k,
            inputs=RailInput(**r).model_dump(mode="json"),
        )
        rail.save()
        rails.append(rail)
    for k, p in enumerate(spec["positions"]):
        _position(spec, p, item, rails[p.get("on", 0)], k)
    return len(spec["positions"])


def _sheet(typed: dict[str, Any]) -> dict[str, Any]:
    """A take-in sheet whose lists are written without keys."""
    asked = typed.get("feasibility", {})
    lists = {name: keyed(part) for name, part in typed.items()}
    if "others" in asked:
        lists["feasibility"] = {**asked, "others": keyed(asked["others"])}
    return TakeInInput.model_validate(lists).model_dump(mode="json")


def _position(spec: dict[str, Any], p: dict[str, Any], item: Equipment, rail: Rail, place: int) -> None:
    typed = PositionInput(**{k: v for k, v in p.items() if k in PositionInput.model_fields})
    # A demo that does not read is a fault of ours: find it here.
    position_of(typed, rail.input)
    key = uuid.uuid5(_SPACE, f"{spec['name']}/{p['name']}")
    position = Position.objects.create(
        id=key, equipment=item, rail=rail, order=place, inputs=typed.model_dump(mode="json")
    )
    for n, (kind, text, burden, note) in enumerate(p.get("readings_after", ())):
        after = ReadingAfterInput(kind=kind, text=text, burden=burden, note=note)
        ReadingAfter.objects.create(
            id=uuid.uuid5(_SPACE, f"{key}/{n}"), position=position, order=n, inputs=after.model_dump(mode="json")
        )
    for n, fields in enumerate(p.get("readings_before", ())):
        before = ReadingBeforeInput(**fields)
        reading_before_of("", before)
        ReadingBefore.objects.create(
            id=uuid.uuid5(_SPACE, f"{key}/t{n}"), position=position, order=n, inputs=before.model_dump(mode="json")
        )
