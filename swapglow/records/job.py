"""What an item took so far, by what was written at its lamps."""

from collections.abc import Iterable
from typing import Any

from swapglow.core.intake.stages import DONE
from swapglow.core.planning.job import Job, job
from swapglow.core.quantities import InputError
from swapglow.core.quantities.everyday import read_hours, read_minutes, read_money
from swapglow.records.models import Equipment, Position


def job_of(e: Equipment) -> Job:
    """An item's hours and parts, beside its estimate and what other lamps took."""
    own = [p.inputs for p in e.positions.all()]
    others = Position.objects.filter(inputs__stage=DONE).exclude(equipment=e).values_list("inputs", flat=True)
    f = e.sheet.feasibility
    return job(
        _hours(own),
        [x for p in own if (x := _money(p.get("cost", ""))) is not None],
        _read_hours(f.hours),
        _money(f.price),
        _hours(others),
    )


def _hours(lamps: Iterable[dict[str, Any]]) -> list[float]:
    """Hours of each lamp: as written of the whole, else the minutes of its steps."""
    out = []
    for p in lamps:
        whole = _read_hours(p.get("hours", ""))
        if whole is None:
            minutes = [_minutes(s.get("minutes", "")) for s in (p.get("steps") or {}).values()]
            whole = sum(minutes) / 60 or None
        if whole is not None:
            out.append(whole)
    return out


def _read_hours(text: str) -> float | None:
    """Hours in whatever way they were written; None for nothing, and for what is no time."""
    try:
        return read_hours("hours", text)
    except InputError:
        return _minutes(text) / 60 or None


def _minutes(text: str) -> float:
    try:
        return read_minutes("minutes", text) or 0.0
    except InputError:
        return 0.0


def _money(text: str) -> float | None:
    try:
        return read_money("cost", text)
    except InputError:
        return None
