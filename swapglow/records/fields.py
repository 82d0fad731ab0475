"""A record as single fields: what stands in each, which differ, and one of them put back without the others."""

from collections.abc import Mapping
from typing import Any, Final
from uuid import UUID

from django.db import models

from swapglow.inputs.quantity import Quantity

# The way to a field: a column, then keys. Something chosen of a few stands as "[choice]" behind its list.
Path = tuple[str, ...]
Flat = dict[Path, Any]


class Gone:
    """What stands in a field that is not there."""

    def __repr__(self) -> str:
        return "gone"


GONE: Final = Gone()

_UNCHANGING = ("id", "created")

# A compartment's count is the sum of its movements, which are undone one by one.
_SUMMED: Path = ("inputs", "count")


def columns(model: type[models.Model]) -> list[str]:
    """The columns of a model that somebody may change, by the attributes that hold them."""
    return [f.attname for f in model._meta.concrete_fields if f.name not in _UNCHANGING]


def flat(model: type[models.Model], row: object) -> Flat:
    """A record, or a row of its history, as single fields.

    Args:
        model: the record's model.
        row: whatever has its columns.

    Returns:
        Values by path. A quantity is one field with its source; each choice of several is a field of its own.
    """
    out: Flat = {}
    for name in columns(model):
        _flatten(out, (name,), getattr(row, name))
    out.pop(_SUMMED, None)
    return out


def _flatten(out: Flat, path: Path, value: Any) -> None:
    if isinstance(value, Mapping) and not is_quantity(value):
        for key, part in value.items():
            _flatten(out, (*path, str(key)), part)
    elif isinstance(value, list) and not any(isinstance(v, dict | list) for v in value):
        for choice in value:
            out[(*path, f"[{choice}]")] = True
    else:
        out[path] = str(value) if isinstance(value, UUID) else value


def is_quantity(value: Mapping[str, Any]) -> bool:
    """Whether a mapping is a quantity, which is kept whole."""
    return value.keys() == Quantity.model_fields.keys()


def differing(before: Flat, after: Flat) -> dict[Path, tuple[Any, Any]]:
    """The fields that differ, each with what stood there and what stands there."""
    paths = [*before, *(p for p in after if p not in before)]
    pairs = {p: (before.get(p, GONE), after.get(p, GONE)) for p in paths}
    return {p: (was, now) for p, (was, now) in pairs.items() if was != now}


def put(record: models.Model, path: Path, value: Any) -> None:
    """Put one field of a record; the others stay.

    Args:
        record: changed in place, not saved.
        path: the field.
        value: what shall stand there; GONE takes the field away, and the line it was the last of.
    """
    name, *keys = path
    if not keys:
        setattr(record, name, value)
    else:
        setattr(record, name, _with(getattr(record, name), keys, value))


def _with(whole: Any, keys: list[str], value: Any) -> Any:
    key, *more = keys
    if key.startswith("[") and not more and isinstance(whole, list | None):
        choices = [c for c in whole or [] if f"[{c}]" != key]
        return choices if isinstance(value, Gone) else [*choices, key[1:-1]]
    out = dict(whole or {})
    if more:
        start: list[str] | dict[str, Any] = [] if more[0].startswith("[") and len(more) == 1 else {}
        out[key] = _with(out.get(key, start), more, value)
        # A line of which nothing is left, or only lists without lines, is no line; a list without lines is a list.
        if isinstance(value, Gone) and _gone(out[key], len(more)):
            del out[key]
    elif isinstance(value, Gone):
        out.pop(key, None)
    else:
        out[key] = value
    return out


def _gone(line: Any, deep: int) -> bool:
    if line == {}:
        return deep == 1
    return isinstance(line, Mapping) and all(part == {} for part in line.values())


def in_words(path: Path) -> str:
    """A field's name for people: "notes", "wires, name"."""
    kept = [p for p in path if p not in ("inputs", "take_in")]
    said = [p.strip("[]").removesuffix("_id") for p in kept if len(p) < 30]
    return ", ".join(p.replace("_", " ") for p in said)


def value_in_words(value: Any) -> str:
    """What stands in a field, for people."""
    if isinstance(value, Gone) or value in (None, ""):
        return "nothing"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, Mapping):
        said = value["text"] if is_quantity(value) else ", ".join(str(v) for v in value.values() if v)
        return str(said) or "nothing"
    return str(value)
