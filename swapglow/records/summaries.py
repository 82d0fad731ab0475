"""What a view shows of a lamp it does not open: stored with the lamp, and worked out again when due.

A change marks the lamps it touches as due in its own transaction; a thread works them out afterwards. The mark
is in the database, so that what is due stays due over a restart.
"""

import hashlib
import json
import logging
import threading
import time
from dataclasses import asdict
from functools import lru_cache
from pathlib import Path
from typing import Any
from uuid import UUID

from django.db import close_old_connections, connection, models, transaction

import swapglow.core
from swapglow.records import reports
from swapglow.records.drawer import at_hand
from swapglow.records.models import Position, Rail, ReadingAfter, ReadingBefore, Shop, StockPart, Summary
from swapglow.records.steps import Rows, step_settled

log = logging.getLogger("swapglow.summaries")


@lru_cache(maxsize=1)
def core_version() -> str:
    """What tells one version of the core from another: a digest of its files."""
    found = hashlib.sha256()
    for path in sorted(Path(next(iter(swapglow.core.__path__))).rglob("*")):
        if path.suffix in (".py", ".csv"):
            found.update(path.read_bytes())
    return found.hexdigest()


def stored_of(p: Position) -> dict[str, Any] | None:
    """What is stored of a lamp by this version of the core; None where there is nothing that can be read.

    Args:
        p: the record, its summary at hand.
    """
    found = getattr(p, "summary", None)
    return found.data if found is not None and found.data and found.core == core_version() else None


def is_fresh(p: Position) -> bool:
    """Whether what is stored of a lamp is that of what is kept now."""
    found = getattr(p, "summary", None)
    return found is not None and not found.due


def mark_due(changed: Rows) -> None:
    """Mark the lamps that a step's rows of history touch, within its transaction."""
    everything = Position.objects.all()
    touched = models.Q(pk__in=[])
    for model, rows in changed:
        if model is Position:
            # What one lamp takes of its rail the others on it feel, and those of its item learn from it.
            touched |= models.Q(pk__in=[r.id for r in rows]) | models.Q(rail__in=[r.rail_id for r in rows])
            touched |= models.Q(equipment__in=[r.equipment_id for r in rows])
        elif model is Shop:
            touched |= models.Q(pk__isnull=False)
        elif model is StockPart:
            # Only a lamp that asked for it follows the drawer.
            touched |= models.Q(inputs__weigh__icontains=reports.FROM_DRAWER)
        elif model is Rail:
            touched |= models.Q(equipment__rails__in=[r.id for r in rows])
        elif model is ReadingBefore:
            touched |= models.Q(pk__in=[r.position_id for r in rows])
        elif model is ReadingAfter:
            # What a lamp was read to draw the others on its rail feel too, and those of its item learn from it.
            touched |= models.Q(equipment__positions__in=[r.position_id for r in rows])
    keys = list(everything.filter(touched).values_list("pk", flat=True))
    Summary.objects.bulk_create([Summary(position_id=key) for key in keys], ignore_conflicts=True)
    Summary.objects.filter(position__in=keys).update(due=True)


step_settled.append(mark_due)


def mark_outdated() -> None:
    """Mark what another version of the core worked out, and lamps that have no summary yet."""
    without = Position.objects.filter(summary=None).values_list("pk", flat=True)
    Summary.objects.bulk_create([Summary(position_id=key) for key in without], ignore_conflicts=True)
    Summary.objects.exclude(core=core_version()).update(due=True)


def refresh(seconds: float | None = None) -> bool:
    """Work out what is due.

    Args:
        seconds: begin no more after this time; None to work out all.

    Returns:
        Whether nothing is due any more.
    """
    started = time.monotonic()
    tried: set[UUID] = set()
    while True:
        due = Summary.objects.filter(due=True).exclude(position__in=tried).order_by("position__order")
        keys = list(due.values_list("position_id", flat=True)[:50])
        if _stopping.is_set():
            return False
        if not keys:
            return not tried or not Summary.objects.filter(due=True).exists()
        for key in keys:
            if _stopping.is_set() or (seconds is not None and time.monotonic() - started > seconds):
                return False
            tried.add(key)
            _work_out(key)


def _work_out(key: UUID) -> None:
    p = _position(key)
    if p is None:
        return
    rests_on = _rests_on(p)
    known = Summary.objects.filter(position=key, rests_on=rests_on, core=core_version()).first()
    data = known.data if known is not None and known.data else _summary(p)
    with transaction.atomic():
        now = _position(key)
        # Changed meanwhile: it stays due, and is worked out from what stands there then.
        if now is not None and _rests_on(now) == rests_on:
            Summary.objects.update_or_create(
                position_id=key, defaults={"data": data, "rests_on": rests_on, "core": core_version(), "due": False}
            )


def _position(key: UUID) -> Position | None:
    found = Position.objects.select_related("rail").prefetch_related("readings_after", "readings_before")
    return found.filter(pk=key).first()


def _rests_on(p: Position) -> str:
    readings = [[str(r.pk), r.inputs] for r in (*p.readings_after.all(), *p.readings_before.all())]
    rail = p.rail.positions.exclude(pk=p.pk).order_by("order", "pk")
    item = reports.teaching(Position.objects.filter(equipment=p.equipment_id)).exclude(pk=p.pk).order_by("order", "pk")
    others = [
        [[str(o.pk), o.inputs, o.rail.inputs, [r.inputs for r in o.readings_after.all()]] for o in beside]
        for beside in (lamps.select_related("rail").prefetch_related("readings_after") for lamps in (rail, item))
    ]
    learns = Shop.own().input.learns
    here = sorted(at_hand()) if reports.FROM_DRAWER in (p.inputs.get("weigh") or ()) else []
    parts = [p.inputs, p.rail.inputs, readings, others, here, learns]
    return hashlib.sha256(json.dumps(parts, sort_keys=True).encode()).hexdigest()


def _summary(p: Position) -> dict[str, Any]:
    """A lamp as other views need it; one that cannot be worked out says why, and stays in reach.

    ``shown`` is what the bench shows, ``needs`` the parts it takes (None where that is not known), ``stop`` what
    forbids it, ``reads`` whether a reading is asked first, ``ohm`` and ``volts`` what it is found by.
    """
    try:
        # What lies in the drawer changes nothing of what is stored; given as the view gives it, one sum serves both.
        report = reports.report(p, None, at_hand())
    except ValueError as problem:
        return _not_worked_out(str(p.rail), str(problem), "Mend what cannot be worked out")
    except Exception:
        # The bench must stand whatever becomes of one lamp; the fault is ours and is written down.
        log.exception("a summary failed")
        ours = "This lamp could not be worked out. The fault is in Swap Glow; it is in the log."
        return _not_worked_out(str(p.rail), ours, "Open it and see")
    usual = next(g for g in report.glow.lamps if g.id == "usual")
    off = next((d for d in reversed(report.diagnoses) if not d.agrees), None)
    gravest = report.findings[0] if report.findings else None
    grade = gravest.grade if gravest else None
    step = report.next_step
    return {
        "shown": {
            "rail": f"{p.rail}, {report.snapshots[0].staircase.stairs[0].text}",
            "glow_colour": usual.colour,
            "glow_lightness": usual.lightness,
            "grade": "stop" if off else grade,
            "line": off.line if off else (gravest.message if gravest else ""),
            "next_act": step.act,
        },
        "needs": [asdict(n) for n in report.needs],
        "stop": gravest.message if gravest and gravest.grade == "stop" else (step.act if step.stops else ""),
        "reads": step.reading is not None and step.id not in _NO_FIRST_READING,
        "ohm": report.sizing.each.value if report.sizing.marks is not None else None,
        "volts": report.snapshots[0].staircase.stairs[0].level.usual,
    }


# What is read with the LED in is no reading that must come first.
_NO_FIRST_READING = ("try", "close", "done")


def _not_worked_out(rail: str, line: str, act: str) -> dict[str, Any]:
    shown = {
        "rail": rail,
        "glow_colour": "#000000",
        "glow_lightness": 0.0,
        "grade": "stop",
        "line": line,
        "next_act": act,
    }
    return {"shown": shown, "needs": None, "stop": line, "reads": False, "ohm": None, "volts": None}


_wake = threading.Event()
_working = threading.Event()
_stopping = threading.Event()


def after_saving() -> None:
    """See that what is due is worked out: by the thread that does it, or here where there is none."""
    if _working.is_set():
        _wake.set()
    else:
        refresh()


def work_until_stopped() -> None:
    """Work out what is due, then wait for more; run it in a thread of its own."""
    _working.set()
    while not _stopping.is_set():
        _wake.clear()
        try:
            refresh()
        except Exception:
            log.exception("summaries could not be worked out")
        close_old_connections()
        _wake.wait(timeout=30)
    connection.close()


def stop_working() -> None:
    """Let that thread end after the lamp that it is at."""
    _stopping.set()
    _wake.set()
