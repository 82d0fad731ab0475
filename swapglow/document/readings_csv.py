"""Readings as CSV, out and in: one line a reading, before the swap and after it."""

import csv
import io
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from pydantic import ValidationError

from swapglow.core.measurement.reading_after import KINDS
from swapglow.core.quantities import InputError
from swapglow.document.csv_cells import bare, guarded
from swapglow.inputs.reading_rules import T as Typed
from swapglow.inputs.reading_rules import check_after, check_before, with_its_unit
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput


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
    Column("switch", "state", "state"),
    Column("meter", "meter", "burden"),
    Column("true rms", "true_rms"),
    Column("note", "note", "note"),
)
HEADING = ("lamp", "when", *(c.heading for c in COLUMNS), "at")
# Whose a reading is, and what was fitted then, came later: a file without them is of this lamp, and of no one circuit.
MORE = (Column("whose", after="whose"), Column("fitted", after="fitted"))
# They tell readings and lamps of one name apart; a file made by hand may leave them out.
KEYS = ("reading key", "lamp key")
MOST_LINES = 5000
LARGEST_BYTES = 4 * 1024 * 1024


@dataclass(frozen=True)
class Lamp:
    """What must be known of a lamp to read its lines.

    Attributes:
        key: the record's.
        name: as it stands in the file.
        mains: connected with the mains: no live reading of it is kept.
        alternates: its supply alternates: the LED's average current is compared, not volts.
    """

    key: UUID
    name: str
    mains: bool
    alternates: bool


@dataclass(frozen=True)
class Line:
    """A reading of a file.

    Attributes:
        lamp: the record's key.
        reading: the reading's own key, where the file has it.
        typed: what was read before or after the swap.
    """

    lamp: UUID
    reading: UUID | None
    typed: ReadingBeforeInput | ReadingAfterInput


Problems = list[tuple[str, str]]
# A reading to be written: its lamp's name and key, its own key, what was typed and when it was taken.
Written = tuple[str, UUID, UUID, ReadingBeforeInput | ReadingAfterInput, str]


def written(readings: Iterable[Written]) -> str:
    """Readings as CSV text."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow([*HEADING, *KEYS, *(c.heading for c in MORE)])
    for name, lamp, key, typed, at in readings:
        when = "before" if isinstance(typed, ReadingBeforeInput) else "after"
        cells, more = (
            [_cell(getattr(typed, f)) if f else "" for f in (getattr(c, when) for c in columns)]
            for columns in (COLUMNS, MORE)
        )
        writer.writerow([guarded(c) for c in (name, when, *cells, at, str(key), str(lamp), *more)])
    return out.getvalue()


def _cell(value: Any) -> str:
    return ("yes" if value else "no") if isinstance(value, bool) else str(value)


def read(data: bytes, lamps: Sequence[Lamp]) -> list[Line] | Problems:
    """The readings of a file, or every reason why it is refused.

    Args:
        data: the file.
        lamps: those of the item.

    Returns:
        The lines in their order; or (place, reason) for each that cannot be taken.
    """
    try:
        rows = _rows(data)
    except InputError as problem:
        return [(problem.field, problem.message)]
    problems: Problems = []
    lines: list[Line] = []
    names = [h.strip().lower() for h in rows[0]]
    for n, row in enumerate(rows[1:], 2):
        if not any(c.strip() for c in row):
            continue
        cells = {name: bare(row[k]) if k < len(row) else "" for k, name in enumerate(names)}
        try:
            lines.append(_line(cells, lamps))
        except InputError as problem:
            problems.append((f"line {n}, {problem.field}", problem.message))
    return problems or lines


def _rows(data: bytes) -> list[list[str]]:
    if len(data) > LARGEST_BYTES:
        raise InputError("file", f"It is over {LARGEST_BYTES // 2**20} MB.")
    try:
        rows = list(csv.reader(io.StringIO(data.decode("utf-8-sig"), newline="")))
    except UnicodeDecodeError as problem:
        raise InputError("file", f"It is not UTF-8 text: byte {problem.start}.") from None
    except csv.Error as problem:
        raise InputError("file", f"It is not CSV: {problem}.") from None
    head = tuple(c.strip().lower() for c in rows[0]) if rows else ()
    if head[: len(HEADING)] != HEADING or not set(head[len(HEADING) :]) <= {*KEYS, *(c.heading for c in MORE), ""}:
        raise InputError("line 1", f"The heading must be: {','.join((*HEADING, *KEYS))}; the keys may be left out.")
    if len(rows) > MOST_LINES + 1:
        raise InputError("file", f"It has over {MOST_LINES} lines.")
    return rows


def _line(cells: Mapping[str, str], lamps: Sequence[Lamp]) -> Line:
    lamp = _lamp(cells, lamps)
    reading = _key(cells, KEYS[0])
    when = cells["when"].strip()
    if when not in ("before", "after"):
        raise InputError("when", f'"{_short(when)}" must be "before" or "after" the swap.')
    if when == "after":
        if cells["function"].strip() not in KINDS:
            said = _short(cells["function"])
            raise InputError("function", f'"{said}" is no reading after the swap: {", ".join(KINDS)}.')
        after = _with_unit(_shaped(ReadingAfterInput, cells, "after"), reading)
        _under_its_heading("after", lambda: check_after(after, alternates=lamp.alternates, mains=lamp.mains))
        return Line(lamp.key, reading, after)
    before = _with_unit(_shaped(ReadingBeforeInput, cells, "before"), reading)
    _under_its_heading("before", lambda: check_before(before, mains=lamp.mains))
    return Line(lamp.key, reading, before)


def _with_unit(typed: Typed, reading: UUID | None) -> Typed:
    """Bare currents are milliamps, as in the form; a line that we wrote ourselves says what was kept, in amps."""
    return with_its_unit(typed) if reading is None else typed


def _under_its_heading(when: str, check: Callable[[], None]) -> None:
    """Refuse by the column that a field stands in."""
    try:
        check()
    except InputError as problem:
        raise InputError(_heading(when, problem.field), problem.message) from None


def _heading(when: str, field: object) -> str:
    """The column of a field; the lamp's, which has none, is its name."""
    return next((c.heading for c in (*COLUMNS, *MORE) if getattr(c, when) == field), "lamp")


def _lamp(cells: Mapping[str, str], lamps: Sequence[Lamp]) -> Lamp:
    name, key = cells["lamp"], _key(cells, KEYS[1])
    if key is not None:
        by_key = next((lamp for lamp in lamps if lamp.key == key), None)
        if by_key is not None:
            return by_key
    found = [lamp for lamp in lamps if lamp.name.strip() == name.strip()]
    if len(found) > 1:
        raise InputError(
            "lamp", f'{len(found)} lamps are called "{_short(name)}": give the {KEYS[1]} of the one meant.'
        )
    if not found:
        known = ", ".join(f'"{lamp.name}"' for lamp in lamps[:6]) or "none yet"
        raise InputError("lamp", f'"{_short(name)}" is no lamp of this equipment. They are {known}.')
    return found[0]


def _key(cells: Mapping[str, str], column: str) -> UUID | None:
    text = cells.get(column, "").strip()
    if not text:
        return None
    try:
        return UUID(text)
    except ValueError:
        raise InputError(column, f'"{_short(text)}" is no key. Leave it empty for a new one.') from None


def _short(text: str) -> str:
    return text if len(text) <= 60 else f"{text[:57]}..."


def _shaped(shape: type[Any], cells: Mapping[str, str], when: str) -> Any:
    """The cells as their shape; an empty one takes the field's usual value."""
    fields: dict[str, Any] = {}
    for c in (*COLUMNS, *MORE):
        name, cell = getattr(c, when), cells.get(c.heading, "")
        if not name or not cell.strip():
            continue
        boolean = shape.model_fields[name].annotation is bool
        # What is chosen of a few bears no blanks; what was written keeps its own.
        chosen = not isinstance(shape.model_fields[name].default, str) or shape.model_fields[name].default != ""
        cell = cell.strip() if chosen else cell
        fields[name] = cell.lower() in ("yes", "true", "1") if boolean else cell
    try:
        return shape.model_validate(fields)
    except ValidationError as problem:
        fault = problem.errors(include_url=False, include_input=False)[0]
        raise InputError(_heading(when, fault["loc"][0]), str(fault["msg"]).removeprefix("Value error, ")) from None
