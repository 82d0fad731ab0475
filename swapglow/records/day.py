"""The bench day from what is stored of every lamp: what can be done now, together, and what waits."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.utils import timezone

from swapglow.core.intake.hazards import CLOSING
from swapglow.core.intake.stages import DONE
from swapglow.core.planning.build_step_kinds import kind_of_step
from swapglow.core.planning.day import Day, plan_day
from swapglow.core.planning.durations import Duration, durations_of
from swapglow.core.planning.remaining_work import Wait, holds, kinds_left
from swapglow.core.planning.work import Kind, Lamp, Task, tasks_of
from swapglow.core.quantities import InputError
from swapglow.core.quantities.everyday import moment, read_minutes
from swapglow.core.stock.need import Need
from swapglow.core.stock.order import short_of
from swapglow.core.stock.part import Part
from swapglow.records import drawer
from swapglow.records.buying import is_taken
from swapglow.records.items import with_lamps
from swapglow.records.models import Equipment, Position
from swapglow.records.summaries import is_fresh, stored_of

# Years that a day can be planned in; past them a calendar has no next day.
EARLIEST, LATEST = 1900, 2999


@dataclass(frozen=True)
class BenchDay:
    """A day with what it rests on.

    Attributes:
        day: the plan.
        tasks: everything that is left, planned or not.
        begins: when it does.
        durations: how long each kind of work takes.
        late: items whose day has passed, by name.
        fresh: whether every lamp is in it as it stands now.
    """

    day: Day
    tasks: tuple[Task, ...]
    begins: datetime
    durations: dict[Kind, Duration]
    late: tuple[str, ...]
    fresh: bool


def bench_day(hours: float, begins: datetime) -> BenchDay:
    """Plan a day.

    Args:
        hours: from its beginning to its end.
        begins: when it does; local time.

    Returns:
        The day.
    """
    took = durations()
    minutes = {kind: t.minutes for kind, t in took.items()}
    here = drawer.parts()
    tasks: list[Task] = []
    late, fresh = [], True
    for e, lamps in with_lamps():
        if e.inputs.get("archived"):
            continue
        open_ = [p for p in lamps if p.inputs["stage"] != DONE]
        if open_ and e.inputs.get("promised") and e.inputs["promised"] < f"{begins:%Y-%m-%d}":
            late.append(str(e))
        for p in open_:
            fresh = fresh and is_fresh(p)
            tasks += tasks_of(_lamp(e, p, stored_of(p), here), minutes)
    return BenchDay(plan_day(tasks, hours, begins), tuple(tasks), begins, took, tuple(late), fresh)


def _lamp(e: Equipment, p: Position, data: dict[str, Any] | None, here: list[Part]) -> Lamp:
    ticked = [k for k, s in (p.inputs.get("steps") or {}).items() if s.get("done")]
    left = kinds_left(p.inputs["stage"], ticked, asks_reading=data is not None and data["reads"])
    needs = None if data is None else data["needs"]
    stop = "it is being worked out" if data is None else data["stop"] or ""
    if p.inputs.get("mains") or not CLOSING.isdisjoint(e.sheet.hazards):
        # Nothing here is work for whoever plans a day: it is for someone qualified.
        stop = "mains or high tension: for someone qualified"
        left = tuple(k for k in left if k != "read")
    waits = [Wait(w.what.strip(), moment(w.until)) for w in e.input.waits.values() if w.what.strip()]
    short = () if needs is None else short_of([Need(**n) for n in needs], here)
    held, until = holds(left, stop=stop, short=short, taken=is_taken(p.inputs), waits=waits)
    return Lamp(str(p.pk), str(p), str(e.pk), str(e), left, held, until, e.inputs.get("promised") or "")


def durations() -> dict[Kind, Duration]:
    """How long each kind of work takes here, by the minutes written at the steps of all lamps."""
    recorded: dict[Kind, list[float]] = {}
    for steps in Position.objects.exclude(inputs__steps={}).values_list("inputs__steps", flat=True):
        of_lamp: dict[Kind, float] = {}
        for name, step in (steps or {}).items():
            kind = kind_of_step(name).work
            minutes = _minutes(step.get("minutes") or "")
            if kind is not None and minutes:
                of_lamp[kind] = of_lamp.get(kind, 0.0) + minutes
        for kind, minutes in of_lamp.items():
            recorded.setdefault(kind, []).append(minutes)
    return durations_of(recorded)


def _minutes(text: str) -> float | None:
    try:
        return read_minutes("minutes", text)
    except InputError:
        return None


def read_begin(text: str) -> datetime:
    """When a day begins: as sent, else now, at the last whole five minutes.

    Raises:
        InputError: ``begins``: it is no time, or in a year that nobody plans.
    """
    if text:
        try:
            begins = datetime.strptime(text, "%Y-%m-%d %H:%M")
        except ValueError:
            raise InputError("begins", f'"{text}" is no time: write it as 2031-05-20 09:00.') from None
        if not EARLIEST <= begins.year <= LATEST:
            raise InputError("begins", f"{begins.year} is out of range: enter a year from {EARLIEST} to {LATEST}.")
        return begins
    now = timezone.localtime().replace(second=0, microsecond=0, tzinfo=None)
    return now.replace(minute=now.minute - now.minute % 5)
