"""Records as they go over the wire."""

from django.http import HttpResponse

from swapglow.api.schemas import (
    PhotoOut,
    PositionAnswer,
    RailAnswer,
    ReadingAfterAnswer,
    ReadingBeforeAnswer,
    Steps,
    Summary,
    TakeInView,
)
from swapglow.core.intake.feasibility import advise
from swapglow.core.intake.hazards import cautions
from swapglow.core.intake.wires import Wire, tells
from swapglow.core.presentation.report import Report
from swapglow.core.quantities import InputError
from swapglow.core.supplies import SUPPLIES
from swapglow.core.supplies.rail_line import rail_line
from swapglow.document.report import report_json
from swapglow.inputs.rail import RailInput
from swapglow.inputs.taken import taken
from swapglow.inputs.to_core import feasibility_of, rail_of
from swapglow.records import journal, reports
from swapglow.records.models import Equipment, Position, Rail, ReadingAfter, ReadingBefore


def rail_answer(r: Rail) -> RailAnswer:
    """A rail."""
    typed = r.input
    return RailAnswer(
        **r.inputs, id=r.pk, equipment=r.equipment_id, levels=list(SUPPLIES[typed.kind].levels), took=taken(typed),
        reads=_line(typed),
    )  # fmt: skip


def _line(r: RailInput) -> str:
    """A rail in a line; why not, where it does not read."""
    try:
        return rail_line(rail_of(r))
    except InputError as problem:
        return problem.message


def after_answer(r: ReadingAfter) -> ReadingAfterAnswer:
    """A reading after the swap."""
    return ReadingAfterAnswer(**r.inputs, id=r.pk, at=r.created.isoformat(timespec="minutes"))


def before_answer(r: ReadingBefore) -> ReadingBeforeAnswer:
    """A reading before the swap."""
    return ReadingBeforeAnswer(**r.inputs, id=r.pk, at=r.created.isoformat(timespec="minutes"))


def take_in_view(e: Equipment) -> TakeInView:
    """The take-in sheet with what it comes to."""
    sheet = e.sheet
    wires = tuple(Wire(w.name, w.does, w.when, w.found_with) for w in sheet.wires)  # type: ignore[arg-type]  # one of its options
    return TakeInView(
        sheet=sheet,
        advice=advise(feasibility_of(sheet.feasibility)),
        wires=list(tells(wires)),
        cautions=cautions(list(sheet.hazards)),
        photos=[PhotoOut(id=p.pk, caption=p.caption) for p in e.photos.all()],
    )


def position_answer(p: Position) -> PositionAnswer:
    """A position."""
    return PositionAnswer(**p.inputs, id=p.pk, equipment=p.equipment_id, rail=p.rail_id, took=taken(p.input))


def summary(p: Position, at_hand: frozenset[float]) -> Summary:
    """A position as the bench shows it; one that cannot be worked out says why, and stays in reach.

    Args:
        p: the record, its rail and readings at hand.
        at_hand: resistors in the drawer, Ω.

    Returns:
        The summary.
    """
    typed = p.input
    try:
        report = reports.report(p, None, at_hand)
    except ValueError as problem:
        return Summary(
            id=p.pk, name=typed.name, stage=typed.stage, rail=p.rail.input.name, glow_colour="#000000",
            glow_lightness=0.0, grade="stop", line=str(problem), next_act="Mend what cannot be worked out",
        )  # fmt: skip
    usual = next(g for g in report.glow if g.id == "usual")
    off = next((d for d in reversed(report.diagnoses) if not d.agrees), None)
    gravest = report.findings[0] if report.findings else None
    return Summary(
        id=p.pk,
        name=typed.name,
        stage=typed.stage,
        rail=f"{p.rail.input.name}, {report.snapshots[0].staircase.stairs[0].text}",
        glow_colour=usual.colour,
        glow_lightness=usual.lightness,
        grade="stop" if off else (gravest.grade if gravest else None),
        line=off.line if off else (gravest.message if gravest else ""),
        next_act=report.next_step.act,
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
