"""Read a document from its text: all or nothing, with the place and the reason of every refusal."""

import json
from collections.abc import Callable
from functools import partial
from typing import Any

from pydantic import ValidationError

from swapglow.core.engine.netlist import CircuitError
from swapglow.core.quantities import InputError
from swapglow.core.supplies import SUPPLIES
from swapglow.document.compact import expanded, is_compact
from swapglow.document.model import FORMAT, VERSION, Document, Equipment, Position, Rail
from swapglow.document.versions import upgraded
from swapglow.inputs.reading_rules import check_after, check_before
from swapglow.inputs.to_core import check_dims, check_fitted, feasibility_of, position_of

# Photographs included.
LARGEST_BYTES = 64 * 1024 * 1024
MOST_PROBLEMS = 5


class DocumentError(ValueError):
    """A document that is refused: every problem as (place, reason)."""

    def __init__(self, problems: list[tuple[str, str]]) -> None:
        self.problems = problems
        super().__init__("; ".join(f"{place}: {why}" for place, why in problems[:MOST_PROBLEMS]))


def _no_constant(name: str) -> Any:
    raise DocumentError([("document", f"{name} is no number of JSON.")])


def read_document(text: bytes | str) -> Document:
    """A document, with every lamp in it readable.

    Raises:
        DocumentError: it is not JSON, not of this shape, or a figure in it cannot be read.
    """
    if len(text) > LARGEST_BYTES:
        raise DocumentError([("document", f"It is over {LARGEST_BYTES // 2**20} MB.")])
    if is_compact(text):
        try:
            text = json.dumps(expanded(text))
        except ValueError as problem:
            raise DocumentError([("code", str(problem))]) from None
    try:
        plain = text.decode("utf-8-sig") if isinstance(text, bytes) else text.removeprefix("\ufeff")
        data = json.loads(plain, parse_constant=_no_constant)
    except UnicodeDecodeError as problem:
        raise DocumentError([("document", f"It is not UTF-8 text: byte {problem.start}.")]) from None
    except json.JSONDecodeError as problem:
        raise DocumentError(
            [(f"line {problem.lineno}, column {problem.colno}", f"It is not JSON: {problem.msg}.")]
        ) from None
    except RecursionError:
        raise DocumentError([("document", "It is nested too deep to be one of ours.")]) from None
    except ValueError as problem:
        if isinstance(problem, DocumentError):
            raise
        # A number of thousands of digits.
        raise DocumentError([("document", "It has a number too long to be one.")]) from None
    _check_head(data)
    try:
        document = Document.model_validate(upgraded(data))
    except ValidationError as problem:
        raise DocumentError(
            [(_place(e["loc"]), _reason(e["msg"])) for e in problem.errors(include_url=False)[:MOST_PROBLEMS]]
        ) from None
    check(document.equipment)
    return document


def _check_head(data: Any) -> None:
    if not isinstance(data, dict) or data.get("format") != FORMAT:
        raise DocumentError([("format", f'This is no equipment document: "format" must be "{FORMAT}".')])
    version = data.get("version")
    if isinstance(version, int) and version > VERSION:
        raise DocumentError(
            [
                (
                    "version",
                    f"This file was written by a later version of Swap Glow (its version is {version}, this "
                    f"program reads 1 to {VERSION}). Open it with that version.",
                )
            ]
        )
    if version not in range(1, VERSION + 1):
        raise DocumentError([("version", f"Version {version!r} is not known here: this program reads 1 to {VERSION}.")])


def _place(loc: tuple[int | str, ...]) -> str:
    return ".".join(str(part) for part in loc) or "document"


def _reason(message: str) -> str:
    return message if message.endswith(".") else f"{message}."


def check(equipment: Equipment) -> None:
    """Keys that are unique and meet, and lamps that the core can read.

    Raises:
        DocumentError: otherwise.
    """
    problems: list[tuple[str, str]] = []
    seen: set[str] = set()

    def once(place: str, key: object) -> None:
        if str(key) in seen:
            problems.append((place, f"The key {key} is there twice."))
        seen.add(str(key))

    once("equipment.id", equipment.id)
    rails = {r.id: r for r in equipment.rails}
    for n, rail in enumerate(equipment.rails):
        once(f"equipment.rails.{n}.id", rail.id)
    for n, p in enumerate(equipment.positions):
        place = f"equipment.positions.{n}"
        once(f"{place}.id", p.id)
        for k, after in enumerate(p.readings_after):
            once(f"{place}.readings_after.{k}.id", after.id)
        for k, before in enumerate(p.readings_before):
            once(f"{place}.readings_before.{k}.id", before.id)
        if p.rail not in rails:
            problems.append((f"{place}.rail", f"No rail of this document has the key {p.rail}."))
            continue
        problems += _unreadable(place, p, rails[p.rail])
    for n, photo in enumerate(equipment.photos):
        once(f"equipment.photos.{n}.id", photo.id)
    problems += _refused("equipment", lambda: _check_item(equipment))
    if problems:
        raise DocumentError(problems)


def _unreadable(place: str, p: Position, rail: Rail) -> list[tuple[str, str]]:
    found = _refused(place, lambda: position_of(p, rail))
    if found:
        return found
    alternates = SUPPLIES[rail.kind].waveform.alternates
    for k, after in enumerate(p.readings_after):
        look = partial(check_after, after, alternates=alternates, mains=p.mains)
        found += _refused(f"{place}.readings_after.{k}", look)
    for k, before in enumerate(p.readings_before):
        found += _refused(f"{place}.readings_before.{k}", partial(check_before, before, mains=p.mains))
    return found


def _check_item(e: Equipment) -> None:
    """What the form refuses of the item itself."""
    check_dims(e.dims)
    check_fitted(e.fitted)
    try:
        feasibility_of(e.take_in.feasibility)
    except InputError as problem:
        raise InputError(f"take_in.feasibility.{problem.field}", problem.message) from None


def _refused(place: str, look: Callable[[], object]) -> list[tuple[str, str]]:
    try:
        look()
    except InputError as problem:
        return [(f"{place}.{problem.field}", problem.message)]
    except CircuitError as problem:
        return [(place, str(problem))]
    return []
