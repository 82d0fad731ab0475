"""What is kept, read whatever has become of the rules: a text that no longer reads is set aside and shown as typed.

At the door everything is checked. A record that is kept may still hold what an earlier version took, or what came in by
another way. It stays readable and can be changed; what cannot be read of it is named with the question.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

from swapglow.core.quantities import InputError
from swapglow.inputs.patch import joined

S = TypeVar("S", bound=BaseModel)
Path = tuple[str, ...]

# A record has some hundred fields; past this many that do not read it is no record of ours.
_MOST = 400


@dataclass(frozen=True)
class Unread:
    """A field that is kept and cannot be read.

    Attributes:
        field: its name, parts joined by dots.
        text: as it was typed.
        message: why it cannot be read, and what would be accepted.
    """

    field: str
    text: str
    message: str


def readable(shape: type[S], kept: Mapping[str, Any]) -> tuple[S, tuple[Unread, ...]]:
    """A record in its shape, with what does not fit there set aside.

    Args:
        shape: the model.
        kept: as it is stored.

    Returns:
        The record, each field that does not fit as if nothing was typed there; and those fields.
    """
    found: list[Unread] = []
    fields: Mapping[str, Any] = kept
    while True:
        try:
            return shape.model_validate(fields), tuple(found)
        except ValidationError as problem:
            if len(found) > _MOST:
                raise
            for e in problem.errors(include_url=False):
                path = _in(fields, tuple(str(part) for part in e["loc"]))
                if path is None:
                    raise
                message = str(e["msg"]).removeprefix("Value error, ")
                found.append(Unread(".".join(path), _text(at(fields, path)), _sentence(message)))
                fields = without(fields, path)


def standing_in(read: Callable[[Mapping[str, Any]], object], kept: Mapping[str, Any]) -> Mapping[str, Any]:
    """A record in which what the core does not read is replaced by what it does, so that another can be read with it.

    Args:
        read: reads the whole record, and refuses the first field that it cannot.
        kept: the record's fields.
    """
    fields = kept
    for unread in _aside(read, kept):
        fields = _stood_in(read, fields, (*unread.field.split("."),))
    return fields


def readable_by(read: Callable[[Mapping[str, Any]], object], kept: Mapping[str, Any]) -> tuple[Unread, ...]:
    """The texts of a record that the core does not read, one after the other.

    Args:
        read: reads the whole record, and refuses the first field that it cannot.
        kept: the record's fields.

    Returns:
        The fields.
    """
    return tuple(_aside(read, kept))


def _aside(read: Callable[[Mapping[str, Any]], object], kept: Mapping[str, Any]) -> Iterator[Unread]:
    fields = kept
    for _ in range(_MOST):
        try:
            read(fields)
            return
        except InputError as problem:
            path = _in(fields, tuple(problem.field.split(".")))
            if path is None or at(fields, path) in _EMPTY:
                # A fault of several fields together, or of one that is empty: nothing typed is to blame.
                return
            yield Unread(".".join(path), _text(at(fields, path)), problem.message)
            fields = _stood_in(read, fields, path)
        except ValueError:
            return


_EMPTY: tuple[Any, ...] = (None, "", {}, [])

# What stands in for a text that must be there, so that the fields behind it are read too.
_STAND_INS = ("", "12V", "5mA", "1k", "1")


def _stood_in(read: Callable[[Mapping[str, Any]], object], fields: Mapping[str, Any], path: Path) -> Mapping[str, Any]:
    """Fields in which a text that does not read is replaced by nothing, or by one that reads."""
    kept = at(fields, path)
    for text in _STAND_INS:
        tried: Mapping[str, Any] = _laid(fields, path, {**kept, "text": text} if isinstance(kept, Mapping) else text)
        try:
            read(tried)
        except InputError as problem:
            if _in(tried, tuple(problem.field.split("."))) == path:
                continue
        except ValueError:
            pass
        return tried
    return without(fields, path)


def check_change(
    read: Callable[[Mapping[str, Any]], object], was: Mapping[str, Any], now: Mapping[str, Any], sent: Mapping[str, Any]
) -> None:
    """Refuse a change that does not read. What did not read before, and was not touched, is no reason to.

    Args:
        read: reads the whole record, and refuses the first field that it cannot.
        was, now: the record's fields before and after.
        sent: the fields that were sent.

    Raises:
        InputError: for the first field that is to blame.
    """
    try:
        read(now)
    except InputError as problem:
        before = [tuple(u.field.split(".")) for u in readable_by(read, was)]
        left = [path for path in before if not _was_sent(path, sent)]
        if not left:
            raise
        fields = now
        for path in left:
            fields = _stood_in(read, fields, path)
        try:
            read(fields)
        except InputError as other:
            raise other from problem


def joined_kept(shape: type[BaseModel], kept: Mapping[str, Any], changes: Mapping[str, Any]) -> dict[str, Any]:
    """A record with changes laid over it, in its shape.

    What did not fit the shape before, and is not changed, stays as it was typed.

    Args:
        shape: the model.
        kept: as it is stored.
        changes: as :func:`swapglow.inputs.patch.sent` gives them.

    Returns:
        All fields.

    Raises:
        pydantic.ValidationError: what comes of the changes has not the shape.
    """
    whole = joined({**shape().model_dump(mode="json"), **kept}, changes)
    found, unread = readable(shape, whole)
    before = {u.field for u in readable(shape, kept)[1]} if unread else set()
    paths = [tuple(u.field.split(".")) for u in unread]
    if any(".".join(p) not in before or at(kept, p) != at(whole, p) for p in paths):
        shape.model_validate(whole)
    return _put_back(found.model_dump(mode="json"), unread, whole)


def _put_back(fields: Mapping[str, Any], unread: tuple[Unread, ...], kept: Mapping[str, Any]) -> dict[str, Any]:
    """Fields with what was set aside of them laid in again, as it was typed."""
    out: Any = dict(fields)
    for u in unread:
        path = tuple(u.field.split("."))
        out = _laid(out, path, at(kept, path))
    return dict(out)


def _was_sent(path: Path, sent: Any) -> bool:
    for part in path:
        if not isinstance(sent, Mapping) or part not in sent:
            return False
        sent = sent[part]
    return True


def at(fields: Any, path: Path) -> Any:
    """What stands at the end of a path; None where nothing does."""
    for part in path:
        fields = fields.get(part) if isinstance(fields, Mapping) else None
    return fields


def without(fields: Mapping[str, Any], path: Path) -> dict[str, Any]:
    """Fields as if nothing was typed at the end of a path."""
    first, *rest = path
    out = dict(fields)
    if rest and isinstance(out.get(first), Mapping):
        out[first] = without(out[first], tuple(rest))
    else:
        out.pop(first, None)
    return out


def _laid(fields: Any, path: Path, value: Any) -> Any:
    if not path:
        return value
    first, *rest = path
    return {**(fields or {}), first: _laid((fields or {}).get(first), tuple(rest), value)}


def _in(fields: Mapping[str, Any], path: Path) -> Path | None:
    """The part of a path that there is: a place in a list is blamed on the list, what is not there on nothing."""
    here: Any = fields
    for n, part in enumerate(path):
        if isinstance(here, list):
            return path[:n]
        if not isinstance(here, Mapping) or part not in here:
            return path[:n] if n and not isinstance(here, Mapping) else None
        here = here[part]
    return path


def _text(value: Any) -> str:
    if isinstance(value, Mapping) and "text" in value:
        return str(value["text"])
    return value if isinstance(value, str) else str(value)


def _sentence(message: str) -> str:
    return message if message.endswith(".") else f"{message}."
