"""The quick sum, and what a text is taken for."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router, Status

from swapglow.api.schemas import PositionAnswer, Problems, QuickIn, QuickKeep, ReportAnswer, TookIn, TookOut
from swapglow.api.serializers import position_answer, report_answer
from swapglow.core.assess import Bench
from swapglow.core.presentation.report import Report
from swapglow.core.quantities import (
    AMPERE,
    AMPERE_HOUR,
    CANDELA,
    FARAD,
    HERTZ,
    OHM,
    SECOND,
    VOLT,
    InputError,
    QuantityError,
    took,
)
from swapglow.document.report import remembered
from swapglow.inputs.equipment import EquipmentInput
from swapglow.inputs.quantity import Quantity
from swapglow.inputs.rail import RailInput
from swapglow.inputs.to_core import position_of
from swapglow.records import reports
from swapglow.records.journal import recorded, with_dependants
from swapglow.records.models import Equipment, Position, Rail

router = Router(tags=["quick"])

_UNITS = {u.symbol: u for u in (VOLT, AMPERE, OHM, CANDELA, HERTZ, FARAD, AMPERE_HOUR, SECOND)}


@router.post("/took", response={200: TookOut, 422: Problems})
def read_text(request: HttpRequest, data: TookIn) -> TookOut:
    """What a text is taken for; an error is an answer here, not a refusal."""
    try:
        return TookOut(took=took(data.text, _UNITS[data.unit]), error="")
    except QuantityError as problem:
        return TookOut(took="", error=str(problem))


def _rail(q: QuickIn) -> RailInput:
    return RailInput(usual=Quantity(text=q.rail))


def _report(q: QuickIn) -> Report:
    return remembered(position_of(q.position, _rail(q)), Bench((), reports.drawer()))


@router.post("/quick", response={200: ReportAnswer, 422: Problems})
def quick(request: HttpRequest, data: QuickIn) -> HttpResponse:
    """Size one lamp from texts; nothing is kept."""
    return report_answer(_report(data))


@router.post("/quick/keep", response={200: PositionAnswer, 404: Problems, 422: Problems})
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
    scope = str(item.pk) if item else ""
    with recorded(scope, f"keep {data.name}", [], f"keep:{data.position}") as left:
        made = item or Equipment.objects.create(
            id=data.new_equipment or data.position, order=Equipment.objects.count(),
            inputs=EquipmentInput(name=data.equipment_name.strip()).model_dump(mode="json"),
        )  # fmt: skip
        count = made.rails.count()
        typed = _rail(data.quick).model_copy(update={"name": f"Rail {count + 1}"})
        rail = Rail.objects.create(
            id=data.rail, equipment=made, order=count, inputs=typed.model_dump(mode="json")
        )
        lamp = data.quick.position.model_copy(update={"name": data.name.strip() or "Lamp"})
        position = Position.objects.create(
            id=data.position, equipment=made, rail=rail, order=made.positions.count(),
            inputs=lamp.model_dump(mode="json"),
        )  # fmt: skip
        left += with_dependants(made) if item is None else [rail, position]
    return position_answer(position)
