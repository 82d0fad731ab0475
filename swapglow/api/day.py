"""The bench day, as it is shown and as a calendar; and find."""

from typing import Annotated
from uuid import uuid5

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from icalendar import Calendar, Event
from ninja import Query, Router

from swapglow.api.attached import attached
from swapglow.api.schemas import DayBlock, DayHeld, DayOut, DayTask, DurationOut, FindOut, FoundOut, Problems
from swapglow.core.planning.build_step_kinds import day_tick
from swapglow.core.planning.day import Done, at_clock, meanwhile, while_hot
from swapglow.core.planning.work import KINDS, Task
from swapglow.inputs.quantity import Line, Short
from swapglow.records import day as days
from swapglow.records import find as finding
from swapglow.records.models import Shop

router = Router(tags=["day"])

Hours = Annotated[float, Query(gt=0, le=24)]
USUAL_HOURS = 4.0


def _task(t: Task, at: str = "") -> DayTask:
    return DayTask(
        lamp=t.lamp,
        item=t.item,
        lamp_id=t.lamp_id,
        item_id=t.item_id,
        tick=day_tick(t.kind),
        kind=t.kind,
        label=KINDS[t.kind],
        at=at,
        minutes=round(t.minutes),
    )


@router.get("/day", response={200: DayOut, 422: Problems})
def day(request: HttpRequest, hours: Hours = USUAL_HOURS, begins: Short = "") -> DayOut:
    """What can be done at the bench now, together, in the hours there are."""
    found = days.bench_day(hours, days.read_begin(begins))

    def clock(minutes: float) -> str:
        return f"{at_clock(found.begins, minutes):%H:%M}"

    def at(d: Done) -> DayTask:
        return _task(d.task, clock(d.start))

    blocks = found.day.blocks
    return DayOut(
        begins=f"{found.begins:%Y-%m-%d %H:%M}",
        blocks=[
            DayBlock(
                label=b.label,
                start=clock(b.start),
                end=clock(b.end),
                why=b.why,
                soaking=b.soaking,
                tasks=[at(d) for d in b.done],
            )
            for b in blocks
        ],
        held=[
            DayHeld(lamp=h.task.lamp, item=h.task.item, lamp_id=h.task.lamp_id, label=KINDS[h.task.kind], why=h.why)
            for h in found.day.waits
        ],
        hot=[_task(t) for t in while_hot(found.tasks, found.begins)],
        meanwhile=[_task(t) for t in meanwhile(found.tasks, found.begins)],
        line=found.day.line,
        late=list(found.late),
        durations=[DurationOut(label=t.label, minutes=round(t.minutes), line=t.line) for t in found.durations.values()],
        fresh=found.fresh,
    )


@router.get("/day.ics", include_in_schema=False)
def calendar(request: HttpRequest, hours: Hours = USUAL_HOURS, begins: Short = "") -> HttpResponse:
    """The day as a calendar (RFC 5545): an event a block, local time."""
    found = days.bench_day(hours, days.read_begin(begins))
    out = Calendar()
    out.add("prodid", "-//Swap Glow//bench day//EN")
    out.add("version", "2.0")
    for b in found.day.blocks:
        event = Event()
        event.add("uid", str(uuid5(Shop.KEY, f"{found.begins}{b.kind}{b.start}")))
        event.add("dtstamp", timezone.now())
        event.add("summary", f"{b.label} ({len(b.done)})")
        event.add("dtstart", at_clock(found.begins, b.start))
        event.add("dtend", at_clock(found.begins, b.end))
        what = [f"{at_clock(found.begins, d.start):%H:%M} {d.task.item}: {d.task.lamp}" for d in b.done]
        event.add("description", "\n".join([b.why, *what]))
        out.add_component(event)
    return attached(out.to_ical(), "text/calendar; charset=utf-8", "bench-day.ics")


@router.get("/find", response=FindOut)
def find(request: HttpRequest, asked: Line) -> FindOut:
    """Lamps, items and parts that have all that is asked for: words, and values with their units."""
    return FindOut(found=[FoundOut(kind=f.kind, id=f.id, name=f.name, line=f.line) for f in finding.find(asked)])
