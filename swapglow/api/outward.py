"""Records as they go over the wire."""

from typing import Any

from django.http import HttpResponse

from swapglow.api.schemas import (
    DriverDetailOut,
    PhotoOut,
    PositionOut,
    QuantityOut,
    RailOut,
    ReadingOut,
    Steps,
    Summary,
    TakeInView,
    TakenOut,
)
from swapglow.core.bench.cautions import cautions
from swapglow.core.bench.wires import Wire, tells
from swapglow.core.bench.worth import advise
from swapglow.core.driver import DRIVERS
from swapglow.core.position.typed import rail_line, took
from swapglow.core.quantities import AMPERE, VOLT, QuantityError, Unit
from swapglow.core.report import Report
from swapglow.core.supply import KINDS
from swapglow.document.report import report_json
from swapglow.document.worth import read_worth
from swapglow.records import journal, translate
from swapglow.records.models import Equipment, Position, Rail, Reading, Taken
from swapglow.records.transfer import take_in_of


def quantity_out(kept: dict[str, Any], unit: Unit | None) -> QuantityOut:
    """A kept quantity with what it was taken for; a choice or a count is itself."""
    return QuantityOut(
        text=kept["text"], source=kept["source"], note=kept.get("note", ""), took=_took(kept["text"], unit)
    )


def _took(text: str, unit: Unit | None) -> str:
    """What a kept text was taken for; a choice or a count is itself."""
    try:
        return took(text, unit) if unit is not None else text
    except QuantityError:
        return ""


def rail_out(r: Rail) -> RailOut:
    """A rail."""
    kind = KINDS[r.kind]  # type: ignore[index]
    units = {d.id: d.unit for d in kind.details}
    return RailOut(
        id=r.id,
        equipment=r.equipment_id,
        name=r.name,
        kind=kind.id,
        kind_label=kind.label,
        levels=list(kind.levels),
        details={n: quantity_out(q, units.get(n)) for n, q in r.details.items()},
        fuse=r.fuse,
        reads=rail_line(translate.typed_rail(r)),
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


def taken_out(t: Taken) -> TakenOut:
    """A reading before the swap."""
    return TakenOut(
        id=t.id, position=t.position_id, function=t.function, text=t.text, points=t.points, lamp=t.lamp,  # type: ignore[arg-type]
        state=t.state, meter=t.meter, true_rms=t.true_rms, note=t.note,
        at=t.created.isoformat(timespec="minutes"),
    )  # fmt: skip


def take_in_out(e: Equipment) -> TakeInView:
    """The take-in sheet with what it comes to."""
    sheet = take_in_of(e)
    return TakeInView(
        sheet=sheet,
        advice=advise(read_worth(sheet.worth)),
        wires=list(tells(tuple(Wire(w.name, w.does, w.when, w.found_with) for w in sheet.wires))),
        cautions=cautions(list(sheet.hazards)),
        photos=[PhotoOut(id=p.id, caption=p.caption, width=p.width, height=p.height) for p in e.photos.all()],
    )


_PLAIN = (
    "id", "name", "stage", "notes", "lamp_id", "lamp_volts", "lamp_amps", "lamp_candela", "lamp_base",
    "led_id", "rated", "in_series", "ceiling", "series", "rounding", "resistor", "resistor_parts",
    "resistor_source", "tolerance", "rating_w", "treatment", "capacitor", "capacitor_v", "second_led_id",
    "band", "chassis_negative", "mains", "glow_floor", "branches", "lead", "common", "shunt", "shunt_across",
    "shunt_w", "series_diodes", "regulator_id", "driver_kind", "module", "weigh", "sweep",
    "sweep_in_series", "sweep_resistor",
)  # fmt: skip


def _details(p: Position) -> dict[str, DriverDetailOut]:
    """A driver's details, each with what its text was taken for."""
    units = {d.id: d.unit for d in DRIVERS[p.driver_kind].details}  # type: ignore[index]
    return {
        name: DriverDetailOut(
            text=q["text"], source=q["source"], note=q.get("note", ""), took=_took(q["text"], units.get(name))
        )
        for name, q in p.driver_details.items()
    }


def position_out(p: Position) -> PositionOut:
    """A position."""
    return PositionOut(
        **{name: getattr(p, name) for name in _PLAIN},
        equipment=p.equipment_id,
        rail=p.rail_id,
        vf=quantity_out(p.vf, VOLT),
        driver_drop=quantity_out(p.driver_drop, VOLT),
        driver_details=_details(p),
        target=quantity_out(p.target, AMPERE),
        readings=[reading_out(r) for r in p.readings.all()],
        taken=[taken_out(t) for t in p.taken.all()],
    )


def summary(p: Position, at_hand: frozenset[float]) -> Summary:
    """A position as the bench shows it; one that cannot be worked out says why, and stays in reach."""
    try:
        report = translate.report(p, None, at_hand)
    except ValueError as problem:
        return Summary(
            id=p.id, name=p.name, stage=p.stage, rail=p.rail.name, glow_colour="#000000", glow_lightness=0.0,  # type: ignore[arg-type]
            grade="stop", line=str(problem), next_act="Mend what cannot be worked out", pencil_share=1.0,
        )  # fmt: skip
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


def report_answer(report: Report) -> HttpResponse:
    """A report as JSON, written straight from the core's values.

    Handing it to the framework would check every tick of the slide rule a second time, at three
    times the cost of computing the report; a test holds the answer to its described shape.
    """
    return HttpResponse(b'{"report":' + report_json(report) + b"}", "application/json")
