"""Records as they go over the wire."""

from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import Any

from django.http import HttpResponse

from swapglow.api.schemas import (
    BenchLedAnswer,
    PhotoOut,
    PositionAnswer,
    RailAnswer,
    ReadingAfterAnswer,
    ReadingBeforeAnswer,
    StepOut,
    Steps,
    Summary,
    TakeInView,
)
from swapglow.core.intake.feasibility import advise
from swapglow.core.intake.hazards import cautions
from swapglow.core.intake.wires import Wire, tells
from swapglow.core.presentation.led_line import led_line
from swapglow.core.presentation.report import Report
from swapglow.core.quantities import InputError
from swapglow.core.stock.part import Level
from swapglow.core.supplies import SUPPLIES
from swapglow.core.supplies.rail_line import rail_line
from swapglow.document.report import report_json
from swapglow.inputs.echoes import echoes
from swapglow.inputs.equipment import FeasibilityInput, TakeInInput
from swapglow.inputs.holder import holder_of
from swapglow.inputs.kept import readable, readable_by, standing_in, without
from swapglow.inputs.position import PositionInput
from swapglow.inputs.rail import RailInput
from swapglow.inputs.stock_to_core import bench_led_of, led_part_of
from swapglow.inputs.to_core import feasibility_of, position_of, rail_of
from swapglow.records.models import BenchLed, Equipment, Position, Rail, ReadingAfter, ReadingBefore, Step
from swapglow.records.steps import next_steps
from swapglow.records.summaries import is_fresh


def rail_answer(r: Rail) -> RailAnswer:
    """A rail."""
    typed = r.input
    return RailAnswer(
        **r.shown,
        id=r.pk,
        equipment=r.equipment_id,
        levels=list(SUPPLIES[typed.kind].levels),
        echo=echoes(typed),
        reads=_line(typed),
        unread=[*r.unread, *readable_by(_read_rail, r.inputs)],
    )


def _read_rail(rail: Mapping[str, Any]) -> object:
    return rail_of(readable(RailInput, rail)[0])


def _line(r: RailInput) -> str:
    """A rail in a line; why not, where it does not read."""
    try:
        return rail_line(rail_of(r))
    except InputError as problem:
        return problem.message


def after_answer(r: ReadingAfter) -> ReadingAfterAnswer:
    """A reading after the swap."""
    return ReadingAfterAnswer(**r.shown, id=r.pk, at=r.created.isoformat(timespec="minutes"))


def before_answer(r: ReadingBefore) -> ReadingBeforeAnswer:
    """A reading before the swap."""
    return ReadingBeforeAnswer(**r.shown, id=r.pk, at=r.created.isoformat(timespec="minutes"))


def take_in_view(e: Equipment) -> TakeInView:
    """The take-in sheet with what it comes to."""
    sheet, unread = readable(TakeInInput, e.take_in)
    asked = sheet.feasibility.model_dump(mode="json")
    odd = readable_by(lambda f: feasibility_of(FeasibilityInput.model_validate(f)), asked)
    for field in odd:
        asked = without(asked, (*field.field.split("."),))
    lines = sorted(sheet.wires.items(), key=lambda item: (item[1].place, item[0]))
    wires = tuple(Wire(w.name, w.does, w.when, w.found_with) for _, w in lines)  # type: ignore[arg-type]  # one of its options
    return TakeInView(
        sheet=sheet,
        advice=advise(feasibility_of(FeasibilityInput.model_validate(asked))),
        wires=dict(zip((key for key, _ in lines), tells(wires), strict=True)),
        cautions=cautions(list(sheet.hazards)),
        photos=[PhotoOut(id=p.pk, caption=p.caption) for p in e.photos.all()],
        unread=[*unread, *(replace(u, field=f"feasibility.{u.field}") for u in odd)],
    )


def bench_led_answer(led: BenchLed) -> BenchLedAnswer:
    """A bench's own LED; one that no longer reads says why in its line."""
    level: Level = "empty"
    try:
        line = led_line(bench_led_of(led.input))
        level = led_part_of(str(led.pk), led.input).level
    except InputError as problem:
        line = problem.message
    return BenchLedAnswer(**led.shown, id=led.pk, echo=echoes(led.input), line=line, now=level)


def lamp_reader(p: Position) -> Callable[[Mapping[str, Any]], object]:
    """What reads a lamp's fields as the core does; a rail that cannot be read is not the lamp's fault."""
    fields = standing_in(_read_rail, p.rail.inputs)
    rail = readable(RailInput, fields)[0]
    return lambda lamp: position_of(readable(PositionInput, lamp)[0], rail)


def position_answer(p: Position) -> PositionAnswer:
    """A position."""
    return PositionAnswer(
        **p.shown,
        id=p.pk,
        equipment=p.equipment_id,
        rail=p.rail_id,
        echo=echoes(p.input),
        goes_in=holder_of(p.input),
        unread=[*p.unread, *readable_by(lamp_reader(p), p.inputs)],
    )


def summary(p: Position) -> Summary:
    """A position as the bench shows it, as far as it is worked out.

    Args:
        p: the record, its rail and summary at hand.

    Returns:
        The summary; it says whether it is that of what is kept now.
    """
    stored = getattr(p, "summary", None)
    # What an earlier version worked out is shown until this one has: the bench stands at once.
    data = ((stored.data if stored is not None else None) or {}).get("shown", _WAITING)
    fresh = data is not _WAITING and is_fresh(p)
    return Summary(id=p.pk, name=p.inputs["name"], stage=p.inputs["stage"], fresh=fresh, **data)


_WAITING = {
    "rail": "",
    "glow_colour": "#000000",
    "glow_lightness": 0.0,
    "grade": None,
    "line": "",
    "next_act": "Being worked out",
}


def steps(scope: str, of: set[int] | None = None) -> Steps:
    """What undo and redo would do in a scope, or among those of its steps that are a view's own."""
    undo, redo = next_steps(scope, of)
    return Steps(undo=_step(undo), redo=_step(redo))


def _step(step: Step | None) -> StepOut | None:
    return None if step is None else StepOut(id=step.pk, label=step.label)


def report_answer(report: Report) -> HttpResponse:
    """A report as JSON, written straight from the core's values.

    Handing it to the framework would check every tick of the slide rule a second time, at three
    times the cost of computing the report; a test holds the answer to its described shape.
    """
    return HttpResponse(b'{"report":' + report_json(report) + b"}", "application/json")
