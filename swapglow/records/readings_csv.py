"""Readings as CSV, out and in: one line a reading, before the swap and after it."""

import csv
import io
import uuid
from dataclasses import dataclass
from typing import Any

from django.db import transaction

from swapglow.core.position.typed import FieldError
from swapglow.document.typed import core_reading, core_taken
from swapglow.records.journal import recorded
from swapglow.records.models import Equipment, Position, Reading, Taken

COLUMNS = (
    "lamp",
    "when",
    "function",
    "reading",
    "points",
    "old lamp",
    "switch",
    "meter",
    "true rms",
    "note",
    "at",
)
AFTER = ("current", "resistor_volts", "led_volts")
MOST_LINES = 5000
LARGEST_BYTES = 4 * 1024 * 1024
# A spreadsheet takes a cell that begins so for a formula.
_FORMULA = ("=", "+", "@", "\t")


class CsvError(ValueError):
    """Lines that are refused: every problem as (place, reason)."""

    def __init__(self, problems: list[tuple[str, str]]) -> None:
        self.problems = problems
        super().__init__("; ".join(f"{place}: {why}" for place, why in problems[:5]))


def _guarded(text: str) -> str:
    return f"'{text}" if text.startswith(_FORMULA) else text


def _bare(text: str) -> str:
    return text[1:] if text.startswith("'") and text[1:].startswith(_FORMULA) else text


def to_csv(e: Equipment) -> str:
    """All readings of an item."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for p in e.positions.prefetch_related("readings", "taken"):
        for t in p.taken.all():
            cells = [p.name, "before", t.function, t.text, t.points, t.lamp, t.state, t.meter,
                     "yes" if t.true_rms else "no", t.note, t.created.isoformat()]  # fmt: skip
            writer.writerow([_guarded(c) for c in cells])
        for r in p.readings.all():
            cells = [p.name, "after", r.kind, r.text, "", "", "", r.burden, "", r.note, r.created.isoformat()]
            writer.writerow([_guarded(c) for c in cells])
    return out.getvalue()


@dataclass(frozen=True)
class Lines:
    """Readings from CSV that can be added; ``known`` were here already."""

    made: tuple[Reading | Taken, ...]
    known: int


def from_csv(e: Equipment, data: bytes) -> Lines:
    """Readings of a CSV file for the lamps of an item, not yet saved.

    Raises:
        CsvError: with the line and what would be accepted; nothing is then taken.
    """
    if len(data) > LARGEST_BYTES:
        raise CsvError([("file", f"It is over {LARGEST_BYTES // 2**20} MB.")])
    try:
        text = data.decode("utf-8-sig")
        rows = list(csv.reader(io.StringIO(text, newline="")))
    except UnicodeDecodeError as problem:
        raise CsvError([("file", f"It is not UTF-8 text: byte {problem.start}.")]) from None
    except csv.Error as problem:
        raise CsvError([("file", f"It is not CSV: {problem}.")]) from None
    if not rows or tuple(c.strip().lower() for c in rows[0][: len(COLUMNS)]) != COLUMNS:
        raise CsvError([("line 1", f"The heading must be: {','.join(COLUMNS)}")])
    if len(rows) > MOST_LINES:
        raise CsvError([("file", f"It has over {MOST_LINES} lines.")])
    lamps = {p.name: p for p in e.positions.prefetch_related("readings", "taken")}
    problems: list[tuple[str, str]] = []
    made: list[Reading | Taken] = []
    known = 0
    for n, row in enumerate(rows[1:], 2):
        if not any(c.strip() for c in row):
            continue
        try:
            record = _read_row(row, lamps)
        except FieldError as problem:
            problems.append((f"line {n}, {problem.field}", problem.message))
            continue
        if _is_here(record, lamps):
            known += 1
        else:
            made.append(record)
    if problems:
        raise CsvError(problems)
    return Lines(tuple(made), known)


def _read_row(row: list[str], lamps: dict[str, Position]) -> Reading | Taken:
    cells = {name: _bare(row[k].strip()) if k < len(row) else "" for k, name in enumerate(COLUMNS)}
    position = lamps.get(cells["lamp"])
    if position is None:
        names = ", ".join(f'"{name}"' for name in list(lamps)[:6]) or "none yet"
        raise FieldError("lamp", f'"{cells["lamp"]}" is no lamp of this equipment. They are {names}.')
    _fits("note", cells["note"], 200)
    if cells["when"] == "after" and cells["function"] in AFTER:
        for name in ("reading", "meter"):
            _fits(name, cells[name], 60)
        reading = Reading(
            id=uuid.uuid4(), position=position, kind=cells["function"], text=cells["reading"],
            burden=cells["meter"], note=cells["note"],
        )  # fmt: skip
        core_reading(reading)
        return reading
    if cells["when"] == "after":
        raise FieldError(
            "function", f'"{cells["function"]}" is no reading after the swap: {", ".join(AFTER)}.'
        )
    if cells["when"] != "before":
        raise FieldError("when", f'"{cells["when"]}" must be "before" or "after" the swap.')
    for name in ("reading", "switch", "meter"):
        _fits(name, cells[name], 60)
    taken = Taken(
        id=uuid.uuid4(), position=position, function=cells["function"], text=cells["reading"],
        points=cells["points"] or "lamp", lamp=cells["old lamp"] or "in", state=cells["switch"],
        meter=cells["meter"], true_rms=cells["true rms"].lower() in ("yes", "true", "1"), note=cells["note"],
    )  # fmt: skip
    core_taken(taken)
    return taken


def _fits(name: str, text: str, most: int) -> None:
    if len(text) > most:
        raise FieldError(name, f"It is over {most} characters.")


def _is_here(record: Any, lamps: dict[str, Position]) -> bool:
    position = lamps[record.position.name]
    names = (
        ("kind", "text", "burden", "note") if isinstance(record, Reading)
        else ("function", "text", "points", "lamp", "state", "meter", "true_rms", "note")
    )  # fmt: skip
    here = position.readings.all() if isinstance(record, Reading) else position.taken.all()
    return any(all(getattr(h, n) == getattr(record, n) for n in names) for h in here)


@transaction.atomic
def add(e: Equipment, lines: Lines) -> int:
    """Save the readings as one step; returns how many."""
    with recorded(str(e.pk), f"add {len(lines.made)} readings", [], f"csv:{uuid.uuid4()}") as left:
        for record in lines.made:
            siblings = record.position.readings if isinstance(record, Reading) else record.position.taken
            record.order = siblings.count()
            record.save()
            left.append(record)
    return len(lines.made)
