"""The quick sum, and what a text is taken for."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router, Status
from ninja.decorators import decorate_view

from swapglow.api.saving import saving
from swapglow.api.schemas import EchoIn, EchoOut, PositionAnswer, Problems, QuickIn, QuickKeep, ReportAnswer
from swapglow.api.serializers import position_answer, report_answer
from swapglow.core.assess import Bench, assess
from swapglow.core.design.changes import with_changes
from swapglow.core.presentation.report import Report
from swapglow.core.quantities import (
    AMPERE,
    AMPERE_HOUR,
    CANDELA,
    CELSIUS,
    DEGREE,
    FARAD,
    HENRY,
    HERTZ,
    KELVIN_PER_WATT,
    LUMEN,
    METRE,
    OHM,
    SECOND,
    VOLT,
    WATT,
    InputError,
    QuantityError,
    echo,
)
from swapglow.core.quantities.bare import with_unit
from swapglow.core.quick_sum import quick_rail
from swapglow.inputs.equipment import EquipmentInput
from swapglow.inputs.patch import sent, texts_of
from swapglow.inputs.position import PositionInput
from swapglow.inputs.quantity import Quantity
from swapglow.inputs.rail import RailInput
from swapglow.inputs.required_units import require_units
from swapglow.inputs.to_core import position_of
from swapglow.records import order
from swapglow.records.drawer import at_hand
from swapglow.records.limits import check_room
from swapglow.records.models import Equipment, Position, Rail
from swapglow.records.steps import keep as keep_record
from swapglow.records.steps import recorded

router = Router(tags=["quick"])

_UNITS = {
    u.symbol: u
    for u in (
        VOLT,
        AMPERE,
        OHM,
        CANDELA,
        HERTZ,
        FARAD,
        AMPERE_HOUR,
        SECOND,
        CELSIUS,
        METRE,
        DEGREE,
        LUMEN,
        KELVIN_PER_WATT,
        HENRY,
        WATT,
    )
}


@router.post("/echo", response={200: EchoOut, 422: Problems})
def read_text(request: HttpRequest, data: EchoIn) -> EchoOut:
    """What a text is taken for; an error is an answer here, not a refusal."""
    text, unit = (with_unit(data.text, "mA"), "A") if data.unit == "mA" else (data.text, data.unit)
    try:
        return EchoOut(echo=echo(text, _UNITS[unit]), error="")
    except QuantityError as problem:
        return EchoOut(echo="", error=str(problem))


def _rail(q: QuickIn) -> RailInput:
    return RailInput(kind=quick_rail(q.rail), usual=Quantity(text=q.rail))


def _report(q: QuickIn) -> Report:
    require_units(PositionInput, sent(q.position))
    position = position_of(q.position, _rail(q))
    if q.changes:
        position = with_changes(position, q.changes)
    return assess(position, Bench((), at_hand()))


@router.post("/quick", response={200: ReportAnswer, 422: Problems})
def quick(request: HttpRequest, data: QuickIn) -> HttpResponse:
    """Size one lamp from texts; nothing is kept."""
    return report_answer(_report(data))


@router.post("/quick/keep", response={200: PositionAnswer, 404: Problems, 422: Problems})
@decorate_view(saving)
def keep(request: HttpRequest, data: QuickKeep) -> Any:
    """Keep a quick sum as a lamp position, in equipment that is there or newly named."""
    _report(data.quick)
    known = Position.objects.filter(pk=data.position).first()
    if known is not None:
        return position_answer(known)
    item = Equipment.objects.filter(pk=data.equipment).first() if data.equipment else None
    if data.equipment and item is None:
        return Status(404, {"errors": [{"field": "equipment", "message": "That equipment is gone."}]})
    if item is None and not data.equipment_name.strip():
        raise InputError("equipment_name", "Name the equipment this lamp is in.")
    with recorded(str(item.pk) if item else "", f"keep {data.name}", f"keep:{data.position}"):
        made = item or _new_item(data)
        typed = _rail(data.quick).model_copy(update={"name": f"Rail {made.rails.count() + 1}"})
        rail = Rail(id=data.rail, equipment=made, order=order.last(made.rails), inputs=typed.model_dump(mode="json"))
        check_room(rail)
        keep_record(rail)
        lamp = data.quick.position.model_copy(update={"name": data.name})
        position = Position(
            id=data.position,
            equipment=made,
            rail=rail,
            order=order.last(made.positions),
            inputs=lamp.model_dump(mode="json"),
        )
        # What was taken of the findings comes along: the lamp is the sum that was kept.
        position.join(texts_of(data.quick.changes, lamp.driver_kind))
        check_room(position)
        keep_record(position)
    return position_answer(position)


def _new_item(data: QuickKeep) -> Equipment:
    made = Equipment(
        id=data.new_equipment or data.position,
        order=order.last(Equipment.objects),
        inputs=EquipmentInput(name=data.equipment_name.strip()).model_dump(mode="json"),
    )
    check_room(made)
    keep_record(made)
    return made
