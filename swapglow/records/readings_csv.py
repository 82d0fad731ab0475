"""Readings as CSV, out and in: one line a reading, before the swap and after it."""

import csv
import io
import uuid
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from django.db import transaction
from pydantic import ValidationError

from swapglow.core.measurement.reading_after import KINDS
from swapglow.core.quantities import InputError
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.inputs.to_core import reading_after_of, reading_before_of
from swapglow.records.journal import recorded
from swapglow.records.models import Equipment, Position, ReadingAfter, ReadingBefore


@dataclass(frozen=True)
class Column:
    """A column: its heading, and the field it holds of a reading before and of one after the swap."""

    heading: str
    before: str = ""
    after: str = ""


# The reading's own fields, between the lamp's name and "when" before them, and the time behind.
COLUMNS = (
    Column("function", "function", "kind"),
    Column("reading", "text", "text"),
    Column("points", "points"),
    Column("old lamp", "lamp"),
    Column("switch", "state"),
    Column("meter", "meter", "burden"),
    Column("true rms", "true_rms"),
    Column("note", "note", "note"),
)
HEADING = ("lamp", "when", *(c.heading for c in COLUMNS), "at")
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


def _cell(value: Any) -> str:
    return ("yes" if value else "no") if isinstance(value, bool) else str(value)


def to_csv(e: Equipment) -> str:
    """All readings of an item."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(HEADING)
    for p in e.positions.prefetch_related("readings_after", "readings_before"):
        for when, readings in (("before", p.readings_before.all()), ("after", p.readings_after.all())):
            for r in readings:
                names = (getattr(c, when) for c in COLUMNS)
                cells = [_cell(r.inputs[name]) if name else "" for name in names]
                line = [p.input.name, when, *cells, r.created.isoformat()]
                writer.writerow([_guarded(c) for c in line])
    return out.getvalue()


@dataclass(frozen=True)
class Lines:
    """Readings from CSV that can be added; ``known`` were here already."""

    made: tuple[ReadingAfter | ReadingBefore, ...]
    known: int


def from_csv(e: Equipment, data: bytes) -> Lines:
    """Readings of a CSV file for the lamps of an item, not yet saved.

    Args:
        e: the item.
        data: the file.

    Returns:
        What can be added.

    Raises:
        CsvError: with the line and what would be accepted; nothing is then taken.
    """
    rows = _rows(data)
    lamps = {p.input.name: p for p in e.positions.prefetch_related("readings_after", "readings_before")}
    here = {
        name: {_key(r) for r in p.readings_after.all()} | {_key(r) for r in p.readings_before.all()}
        for name, p in lamps.items()
    }
    problems: list[tuple[str, str]] = []
    made: list[ReadingAfter | ReadingBefore] = []
    known = 0
    for n, row in enumerate(rows[1:], 2):
        if not any(c.strip() for c in row):
            continue
        try:
            record = _read_row(row, lamps)
        except InputError as problem:
            problems.append((f"line {n}, {problem.field}", problem.message))
            continue
        if _key(record) in here[record.position.input.name]:
            known += 1
        else:
            made.append(record)
    if problems:
        raise CsvError(problems)
    return Lines(tuple(made), known)


def _rows(data: bytes) -> list[list[str]]:
    if len(data) > LARGEST_BYTES:
        raise CsvError([("file", f"It is over {LARGEST_BYTES // 2**20} MB.")])
    try:
        rows = list(csv.reader(io.StringIO(data.decode("utf-8-sig"), newline="")))
    except UnicodeDecodeError as problem:
        raise CsvError([("file", f"It is not UTF-8 text: byte {problem.start}.")]) from None
    except csv.Error as problem:
        raise CsvError([("file", f"It is not CSV: {problem}.")]) from None
    if not rows or tuple(c.strip().lower() for c in rows[0][: len(HEADING)]) != HEADING:
        raise CsvError([("line 1", f"The heading must be: {','.join(HEADING)}")])
    if len(rows) > MOST_LINES:
        raise CsvError([("file", f"It has over {MOST_LINES} lines.")])
    return rows


def _key(r: ReadingAfter | ReadingBefore) -> tuple[str, str]:
    """What tells a reading from another: all of it but its key and time."""
    return type(r).__name__, repr(sorted(r.inputs.items()))


def _read_row(row: list[str], lamps: Mapping[str, Position]) -> ReadingAfter | ReadingBefore:
    cells = {name: _bare(row[k].strip()) if k < len(row) else "" for k, name in enumerate(HEADING)}
    position = lamps.get(cells["lamp"])
    if position is None:
        names = ", ".join(f'"{name}"' for name in list(lamps)[:6]) or "none yet"
        raise InputError("lamp", f'"{cells["lamp"]}" is no lamp of this equipment. They are {names}.')
    if cells["when"] not in ("before", "after"):
        raise InputError("when", f'"{cells["when"]}" must be "before" or "after" the swap.')
    if cells["when"] == "after":
        if cells["function"] not in KINDS:
            raise InputError(
                "function", f'"{cells["function"]}" is no reading after the swap: {", ".join(KINDS)}.'
            )
        after = _shaped(ReadingAfterInput, cells, "after")
        reading_after_of("", after)
        return ReadingAfter(id=uuid.uuid4(), position=position, inputs=after.model_dump(mode="json"))
    before = _shaped(ReadingBeforeInput, cells, "before")
    reading_before_of("", before)
    return ReadingBefore(id=uuid.uuid4(), position=position, inputs=before.model_dump(mode="json"))


def _shaped(shape: type[Any], cells: Mapping[str, str], when: str) -> Any:
    """The cells as their shape; an empty one takes the field's usual value."""
    fields: dict[str, Any] = {}
    for c in COLUMNS:
        name, cell = getattr(c, when), cells[c.heading]
        if not name or not cell:
            continue
        boolean = shape.model_fields[name].annotation is bool
        fields[name] = cell.lower() in ("yes", "true", "1") if boolean else cell
    try:
        return shape.model_validate(fields)
    except ValidationError as problem:
        fault = problem.errors(include_url=False)[0]
        heading = next((c.heading for c in COLUMNS if getattr(c, when) == fault["loc"][0]), "line")
        raise InputError(heading, str(fault["msg"]).removeprefix("Value error, ")) from None


@transaction.atomic
def add(e: Equipment, lines: Lines) -> int:
    """Save the readings as one step.

    Args:
        e: the item.
        lines: what :func:`from_csv` found.

    Returns:
        How many.
    """
    with recorded(str(e.pk), f"add {len(lines.made)} readings", [], f"csv:{uuid.uuid4()}") as left:
        for record in lines.made:
            after = isinstance(record, ReadingAfter)
            siblings = record.position.readings_after if after else record.position.readings_before
            record.order = siblings.count()
            record.save()
            left.append(record)
    return len(lines.made)
