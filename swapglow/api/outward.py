"""Records as they go over the wire."""

from typing import Any

from django.http import HttpResponse
from pydantic import TypeAdapter

from swapglow.api.schemas import (
    PositionOut,
    QuantityOut,
    RailOut,
    ReadingOut,
    Steps,
    Summary,
)
from swapglow.core.position.typed import took
from swapglow.core.quantities import AMPERE, VOLT, QuantityError, Unit
from swapglow.core.report import Report
from swapglow.records import journal, translate
from swapglow.records.models import Position, Rail, Reading


def quantity_out(kept: dict[str, Any], unit: Unit) -> QuantityOut:
    """A kept quantity with what it was taken for."""
    try:
        read = took(kept["text"], unit)
    except QuantityError:
        read = ""
    return QuantityOut(text=kept["text"], source=kept["source"], note=kept.get("note", ""), took=read)


def rail_out(r: Rail) -> RailOut:
    """A rail."""
    return RailOut(
        id=r.id,
        equipment=r.equipment_id,
        name=r.name,
        read_at=r.read_at,  # type: ignore[arg-type]
        usual=quantity_out(r.usual, VOLT),
        low=quantity_out(r.low, VOLT),
        high=quantity_out(r.high, VOLT),
    )


def reading_out(r: Reading) -> ReadingOut:
    """A reading."""
    return ReadingOut(
        id=r.id, position=r.position_id, kind=r.kind, text=r.text, burden=r.burden, note=r.note,  # type: ignore[arg-type]
        at=r.created.isoformat(timespec="minutes"),
    )  # fmt: skip


_PLAIN = (
    "id", "name", "stage", "notes", "lamp_id", "lamp_volts", "lamp_amps", "lamp_candela", "lamp_base",
    "led_id", "rated", "in_series", "ceiling", "series", "rounding", "resistor", "resistor_parts",
    "resistor_source", "tolerance", "rating_w",
)  # fmt: skip


def position_out(p: Position) -> PositionOut:
    """A position."""
    return PositionOut(
        **{name: getattr(p, name) for name in _PLAIN},
        equipment=p.equipment_id,
        rail=p.rail_id,
        vf=quantity_out(p.vf, VOLT),
        driver_drop=quantity_out(p.driver_drop, VOLT),
        target=quantity_out(p.target, AMPERE),
        readings=[reading_out(r) for r in p.readings.all()],
    )


def summary(p: Position, at_hand: frozenset[float]) -> Summary:
    """A position as the bench shows it."""
    report = translate.report(p, None, at_hand)
    usual = next(g for g in report.glow if g.id == "usual")
    off = next((v for v in reversed(report.verdicts) if not v.agrees), None)
    gravest = report.findings[0] if report.findings else None
    return Summary(
        id=p.id,
        name=p.name,
        stage=p.stage,  # type: ignore[arg-type]
        rail=f"{p.rail.name}, {report.staircase.stairs[0].text}",
        glow_colour=usual.colour,
        glow_lightness=usual.lightness,
        grade="stop" if off else (gravest.grade if gravest else None),
        line=off.line if off else (gravest.message if gravest else ""),
        next_act=report.next_step.act,
        pencil_share=report.pencil.share,
    )


def steps(scope: str) -> Steps:
    """What undo and redo would do in a scope."""
    back, forth = journal.state(scope)
    return Steps(undo=back, redo=forth)


_REPORT = TypeAdapter(Report)


def report_answer(report: Report) -> HttpResponse:
    """A report as JSON, written straight from the core's values.

    Handing it to the framework would check every tick of the slide rule a second time, at three
    times the cost of computing the report; a test holds the answer to its described shape.
    """
    return HttpResponse(b'{"report":' + _REPORT.dump_json(report) + b"}", "application/json")
