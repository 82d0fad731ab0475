"""The drawer as CSV, out and in: a line a part; its key, where a line has one, tells it again."""

import csv
import io
from collections.abc import Iterable
from typing import Any
from uuid import UUID

from pydantic import ValidationError

from swapglow.core.quantities import InputError
from swapglow.document.csv_cells import bare, guarded
from swapglow.inputs.stock import PartInput
from swapglow.inputs.stock_to_core import part_of

# Heading, and the field it holds.
COLUMNS = {
    "kind": "kind",
    "name": "name",
    "resistance": "resistance",
    "capacitance": "capacitance",
    "stands": "stands",
    "tolerance": "tolerance",
    "rating W": "rating_w",
    "series": "series",
    "catalogue": "catalogue_id",
    "place": "kept_in",
    "level": "level",
    "count": "count",
    "least": "least",
    "pack": "pack",
    "price": "price",
    "on order": "on_order",
    "lot": "lot",
}
KEY = "key"
MOST_LINES = 5000
_NUMBERS = {"tolerance": float, "rating_w": float, "count": int, "least": int, "pack": int, "on_order": int}

Problems = list[tuple[str, str]]
Line = tuple[UUID | None, PartInput]


def written(parts: Iterable[tuple[UUID, PartInput]]) -> str:
    """Parts as CSV text.

    Args:
        parts: each with its record's key.
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow([*COLUMNS, KEY])
    for key, p in parts:
        cells = ["" if (v := getattr(p, field)) is None else str(v) for field in COLUMNS.values()]
        writer.writerow([guarded(c) for c in (*cells, str(key))])
    return out.getvalue()


def read(data: bytes) -> list[Line] | Problems:
    """The parts of a file, or every reason why it is refused.

    Args:
        data: the file; commas or semicolons part its cells.

    Returns:
        Keys and parts; or lines with what is wrong in them, told by ``isinstance(first[1], str)``.

    Raises:
        InputError: ``file``: it is no such file at all.
    """
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise InputError("file", "This is no text in UTF-8: save it as CSV in UTF-8.") from None
    first = text.split("\n", 1)[0]
    rows = list(csv.reader(io.StringIO(text), delimiter=";" if first.count(";") > first.count(",") else ","))
    if not rows or "kind" not in [c.strip().casefold() for c in rows[0]]:
        known = ", ".join(COLUMNS)
        raise InputError("file", f"The first line names the columns, kind among them: {known}.")
    heads = {h.casefold(): f for h, f in COLUMNS.items()}
    names = [c.strip().casefold() for c in rows[0]]
    unknown = [n for n in names if n and n not in heads and n != KEY]
    if unknown:
        raise InputError("file", f'"{unknown[0]}" is no column: {", ".join((*COLUMNS, KEY))} are.')
    if len(rows) - 1 > MOST_LINES:
        raise InputError("file", f"{len(rows) - 1} lines are more than {MOST_LINES}.")
    found: list[Line] = []
    wrong: Problems = []
    for number, row in enumerate(rows[1:], 2):
        if not any(c.strip() for c in row):
            continue
        cells = {n: bare(c.strip()) for n, c in zip(names, row, strict=False) if n}
        try:
            found.append(_line(cells, heads))
        except InputError as problem:
            wrong.append((f"line {number}", problem.message))
        except ValidationError as problem:
            one = problem.errors(include_url=False, include_input=False)[0]
            wrong.append((f"line {number}", f"{'.'.join(str(x) for x in one['loc'])}: {one['msg']}"))
    return wrong or found


def _line(cells: dict[str, str], heads: dict[str, str]) -> Line:
    typed: dict[str, Any] = {}
    for name, text in cells.items():
        if name == KEY or text == "":
            continue
        field = heads[name]
        kind = _NUMBERS.get(field)
        if kind is None:
            typed[field] = text
            continue
        try:
            typed[field] = kind(text.replace(",", "."))
        except ValueError:
            raise InputError(field, f'"{text}" is no number for {name}.') from None
    part = PartInput.model_validate(typed)
    part_of("", part)
    key = cells.get(KEY, "")
    try:
        return (UUID(key) if key else None), part
    except ValueError:
        raise InputError(KEY, f'"{key}" is no key: leave it empty for a new part.') from None
