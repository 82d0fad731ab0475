"""The catalogue: kinds, parts, and every choice that a form offers."""

from collections.abc import Iterable
from dataclasses import asdict
from functools import cache
from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router

from swapglow.api.schemas import Catalogue
from swapglow.core.circuits import CIRCUITS
from swapglow.core.drivers import DRIVERS
from swapglow.core.intake.front_door import STARTS, Question
from swapglow.core.intake.second_job import JOBS
from swapglow.core.intake.troubles import TROUBLES
from swapglow.core.kinds.detail import Detail
from swapglow.core.measurement.leads import LEADS
from swapglow.core.measurement.reading_after import KINDS, POWER_OFF, SEEN
from swapglow.core.parts import lamp, led
from swapglow.core.parts.catalogue import source
from swapglow.core.parts.ready_made import ready_made
from swapglow.core.parts.regulator import regulators
from swapglow.core.photometry.dot_card import dot_card as card
from swapglow.core.supplies import SUPPLIES
from swapglow.inputs.choices import choices, units
from swapglow.inputs.holder import HOLDERS

router = Router(tags=["catalogue"])

# What may be read at any time: a line shorted, or an LED on clips, is a step of the plan.
_ANY_TIME = {what: leads for what, leads in LEADS.items() if what not in ("source_short", "led_vf")}


def _options(pairs: Iterable[tuple[str, str]]) -> list[dict[str, str]]:
    return [{"id": id_, "label": label} for id_, label in pairs]


def _detail(d: Detail) -> dict[str, Any]:
    return {
        "id": d.id,
        "label": d.label,
        "unit": d.unit.symbol if d.unit else None,
        "hint": d.hint,
        "options": _options(d.options),
        "long": d.long,
        "at": d.at,
    }


def _question(q: Question) -> dict[str, Any]:
    answers = [
        {"id": a.id, "label": a.label, "refused": a.refused, "ends": a.begins is not None and a.begins.what != "lamp"}
        for a in q.answers
    ]
    return {"id": q.id, "ask": q.ask, "answers": answers}


@router.get("/catalogue", response=Catalogue)
def catalogue(request: HttpRequest) -> HttpResponse:
    """Kinds of supply and driver, generic parts, and the options of every field that takes one of a few."""
    return HttpResponse(_written(), "application/json")


@cache
def _written() -> bytes:
    """The catalogue as it is sent: nothing in it changes while the app runs."""
    return Catalogue.model_validate(_catalogue()).model_dump_json().encode()


def _catalogue() -> dict[str, Any]:
    return {
        "starts": [
            {"id": s.id, "label": s.label, "line": s.line, "questions": [_question(q) for q in s.questions]}
            for s in STARTS.values()
        ],
        "troubles": [asdict(t) for t in TROUBLES.values()],
        "supplies": [
            {
                "id": k.id,
                "label": k.label,
                "expect": k.expect,
                "details": [_detail(d) for d in k.details],
                "read_at_offered": k.read_at_offered,
                "position_fields": list(k.position_fields),
                "driver_note": k.driver_note,
            }
            for k in SUPPLIES.values()
        ],
        "drivers": [
            {
                "id": k.id,
                "label": k.label,
                "expect": k.expect,
                "details": [_detail(d) for d in k.details],
                "usual_drop": f"{k.usual_drop[0]:g}-{k.usual_drop[2]:g}V" if k.usual_drop[2] else "0.2V",
            }
            for k in DRIVERS.values()
        ],
        "fitted": [
            {
                "id": k.id,
                "label": k.label,
                "looks": k.looks,
                "never": k.never,
                "details": [_detail(d) for d in k.details],
            }
            for k in CIRCUITS.values()
        ],
        "regulators": [
            {"id": r.id, "label": r.label, "detail": f"{r.package}, {r.view}: {r.pins}"} for r in regulators().values()
        ],
        "modules": [{"id": m.id, "label": m.label, "detail": m.base} for m in ready_made().values()],
        "leds": [
            {"id": k.id, "label": k.label, "detail": f"{k.vf_low:g}–{k.vf_high:g} V"} for k in led.catalogue().values()
        ],
        "lamps": [
            {
                "id": k.id,
                "label": f"{k.label}, {k.base}",
                "detail": f"{k.volts:g} V {k.amps:g} A",
                "words": f"{k.amps * 1000:g} mA {k.id}",
            }
            for k in lamp.catalogue().values()
        ],
        "holders": {key: asdict(holder) for key, holder in HOLDERS.items()},
        "leads": {what: asdict(leads) for what, leads in LEADS.items()},
        "job_circuits": {j.id: list(j.circuits) for j in JOBS.values() if j.circuits},
        "choices": {field: _options(labels.items()) for field, labels in choices().items()}
        | {
            "bench_reading.what": _options((what, leads.label) for what, leads in _ANY_TIME.items()),
            "bench_reading.seen": _options(SEEN.items()),
            "bench_reading.power_off": _options((k, KINDS[k]) for k in KINDS if k in POWER_OFF),
        },
        "units": units(),
        "led_source": source("leds"),
        "lamp_source": source("lamps"),
    }


@router.get("/dot-card.svg", include_in_schema=False)
def dot_card(request: HttpRequest) -> HttpResponse:
    """The dot card, to be printed on clear film."""
    return HttpResponse(card().encode(), "image/svg+xml")
