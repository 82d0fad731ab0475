"""The quick sum, the catalogue, and what a text is taken for."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router, Status

from swapglow.api.outward import position_out, report_answer
from swapglow.api.schemas import (
    Catalogue,
    PositionOut,
    Problems,
    QuickIn,
    QuickKeep,
    ReportAnswer,
    TookIn,
    TookOut,
)
from swapglow.core.driver import DRIVERS
from swapglow.core.parts import lamp, led, preferred, resistor
from swapglow.core.parts.catalogue import source
from swapglow.core.parts.module import ready_made
from swapglow.core.parts.regulator import regulators
from swapglow.core.position.typed import FieldError, Typed, TypedPosition, TypedRail, took
from swapglow.core.quantities import (
    AMPERE,
    AMPERE_HOUR,
    CANDELA,
    FARAD,
    HERTZ,
    OHM,
    SECOND,
    VOLT,
    QuantityError,
)
from swapglow.core.supply import KINDS
from swapglow.core.supply.battery import chemistries
from swapglow.core.supply.kinds import Detail
from swapglow.records import translate
from swapglow.records.journal import recorded, with_dependants
from swapglow.records.models import Equipment, Position, Rail

router = Router(tags=["quick"])

_UNITS = {
    "V": VOLT, "A": AMPERE, "Ω": OHM, "cd": CANDELA, "Hz": HERTZ, "F": FARAD, "Ah": AMPERE_HOUR, "s": SECOND,
}  # fmt: skip
_FIELDS = {"usual": "rail", "target": "drive"}


def _detail(d: Detail) -> dict[str, Any]:
    options = [(c.id, c.label) for c in chemistries().values()] if d.id == "chemistry" else list(d.options)
    return {
        "id": d.id, "label": d.label, "unit": d.unit.symbol if d.unit else None, "hint": d.hint,
        "options": [{"id": i, "label": label} for i, label in options],
    }  # fmt: skip


@router.get("/catalogue", response=Catalogue)
def catalogue(request: HttpRequest) -> dict[str, Any]:
    """Generic LEDs and lamps, preferred series, resistor ratings."""
    return {
        "supplies": [
            {
                "id": k.id,
                "label": k.label,
                "flow": k.flow,
                "expect": k.expect,
                "levels": list(k.levels),
                "details": [_detail(d) for d in k.details],
            }
            for k in KINDS.values()
        ],
        "drivers": [
            {
                "id": d.id,
                "label": d.label,
                "expect": d.expect,
                "keeps": f"{d.keeps[0]:g}-{d.keeps[2]:g}V" if d.keeps[2] else "0.2V",
                "details": [_detail(x) for x in d.details],
            }
            for d in DRIVERS.values()
        ],
        "regulators": [
            {"id": r.id, "label": r.label, "pins": f"{r.package}, {r.view}: {r.pins}"}
            for r in regulators().values()
        ],
        "modules": [{"id": m.id, "label": m.label, "base": m.base} for m in ready_made().values()],
        "leds": list(led.catalogue().values()),
        "lamps": list(lamp.catalogue().values()),
        "series": list(preferred.SERIES),
        "ratings_w": list(resistor.RATINGS_W),
        "led_source": source("leds"),
        "lamp_source": source("lamps"),
    }


@router.post("/took", response={200: TookOut, 422: Problems})
def read_text(request: HttpRequest, data: TookIn) -> TookOut:
    """What a text is taken for; an error is an answer here, not a refusal."""
    try:
        return TookOut(took=took(data.text, _UNITS[data.unit]), error="")
    except QuantityError as problem:
        return TookOut(took="", error=str(problem))


def _typed(q: QuickIn) -> TypedPosition:
    return TypedPosition(
        rail=TypedRail(Typed(q.rail)),
        led_id=q.led_id,
        target=Typed(q.drive),
        vf=Typed(q.vf),
        rated=q.rated,
        in_series=q.in_series,
        series=q.series,
        rounding=q.rounding,
    )


def _report(q: QuickIn) -> Any:
    try:
        return translate.quick_report(_typed(q), translate.drawer())
    except FieldError as problem:
        raise FieldError(_FIELDS.get(problem.field, problem.field), problem.message) from None


@router.post("/quick", response={200: ReportAnswer, 422: Problems})
def quick(request: HttpRequest, data: QuickIn) -> HttpResponse:
    """Size one lamp from texts; nothing is kept."""
    return report_answer(_report(data))


@router.post("/quick/keep", response={200: PositionOut, 404: Problems, 422: Problems})
def keep(request: HttpRequest, data: QuickKeep) -> Any:
    """Keep a quick sum as a lamp position, in equipment that is there or newly named."""
    _report(data.quick)
    known = Position.objects.filter(pk=data.position).first()
    if known is not None:
        return position_out(known)
    item = Equipment.objects.filter(pk=data.equipment).first() if data.equipment else None
    if data.equipment and item is None:
        return Status(404, {"errors": [{"field": "equipment", "message": "That equipment is gone."}]})
    if item is None and not data.equipment_name.strip():
        raise FieldError("equipment_name", "Name the equipment this lamp is in.")
    scope = str(item.pk) if item else ""
    with recorded(scope, f"keep {data.name}", [], f"keep:{data.position}") as left:
        made = item or Equipment.objects.create(
            id=data.new_equipment or data.position,
            name=data.equipment_name.strip(),
            order=Equipment.objects.count(),
        )
        rail = Rail.objects.create(
            id=data.rail,
            equipment=made,
            name=f"Rail {made.rails.count() + 1}",
            order=made.rails.count(),
            usual={"text": data.quick.rail, "source": "assumed", "note": ""},
        )
        position = Position.objects.create(
            id=data.position,
            equipment=made,
            rail=rail,
            name=data.name.strip() or "Lamp",
            order=made.positions.count(),
            led_id=data.quick.led_id,
            vf={"text": data.quick.vf, "source": "assumed", "note": ""},
            rated=data.quick.rated,
            in_series=data.quick.in_series,
            target={"text": data.quick.drive, "source": "assumed", "note": ""},
            series=data.quick.series,
            rounding=data.quick.rounding,
        )
        left += with_dependants(made) if item is None else [rail, position]
    return position_out(position)
