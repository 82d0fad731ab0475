"""What a lamp's fields say of its kind, and what is a fact about that one lamp: what copies take over, what differs."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from swapglow.core.quantities import Source

# What is of the one lamp and not of its kind: it is neither copied nor compared.
OWN = frozenset({"name", "stage", "notes", "dead", "trials", "steps", "checks", "look_again", "hours", "cost", "weigh"})
# Measured, it is of the one LED: its like are known by their lot (``core.evidence.alike``), not by this figure.
_OF_ONE_LED = "vf"
# A resistor's text and where that is from are two fields.
_RESISTOR = ("resistor", "resistor_source")


@dataclass(frozen=True)
class FieldDifference:
    """A field in which two lamps differ, with what each has; "" where that is not one text."""

    field: str
    here: str
    there: str


def differences(here: Mapping[str, Any], there: Mapping[str, Any]) -> tuple[FieldDifference, ...]:
    """In what two lamps differ.

    Args:
        here, there: their fields, by the shape of a position.

    Returns:
        Each field; what was measured on either of them is no difference of their kind.
    """
    of_one = set(_RESISTOR) if _resistor_was_read(here) or _resistor_was_read(there) else set()
    differ = [f for f in here if f not in OWN | of_one and not _same(here[f], there.get(f))]
    return tuple(FieldDifference(f, _text(here[f]), _text(there.get(f))) for f in differ)


def of_its_kind(fields: Mapping[str, Any], name: str, theirs: Mapping[str, Any] | None = None) -> dict[str, Any]:
    """What another lamp takes over from one.

    Args:
        fields: of the one, by the shape of a position.
        name: what it is called.
        theirs: what the other has; None where it is new.

    Returns:
        Its fields but :data:`OWN`. What was measured on the one is assumed of the other, and what was measured on the
        other stays.
    """
    had = theirs or {}
    out = {f: _expected(v, name, had.get(f), f) for f, v in fields.items() if f not in OWN}
    if _resistor_was_read(had):
        out |= {f: had[f] for f in _RESISTOR}
    elif _resistor_was_read(fields):
        out["resistor_source"] = Source.ASSUMED.value
    return out


def _resistor_was_read(fields: Mapping[str, Any]) -> bool:
    return bool(fields.get("resistor")) and fields.get("resistor_source") == Source.MEASURED.value


def _expected(value: Any, name: str, theirs: Any, field: str = "") -> Any:
    if _of_one_lamp(theirs):
        return theirs
    if not isinstance(value, dict):
        return value
    if "source" in value:
        if not _of_one_lamp(value):
            return value
        text = "" if field == _OF_ONE_LED else value["text"]
        return {**value, "text": text, "source": Source.ASSUMED.value, "note": f"as measured on {name}"[:200]}
    had = theirs if isinstance(theirs, dict) else {}
    kept = {k: v for k, v in had.items() if _of_one_lamp(v)}
    # What was seen with a part that was fitted then is not even expected of another.
    return {k: _expected(v, name, had.get(k)) for k, v in value.items() if not _was_seen(v)} | kept


def _same(here: Any, there: Any) -> bool:
    if _of_one_lamp(here) or _of_one_lamp(there):
        return True
    if isinstance(here, dict) and isinstance(there, dict):
        if "source" in here:
            return bool(here["text"] == there.get("text"))
        return all(_same(here.get(k), there.get(k)) for k in here.keys() | there.keys())
    return bool(here == there)


def _of_one_lamp(value: Any) -> bool:
    measured = isinstance(value, dict) and value.get("source") == Source.MEASURED.value and bool(value.get("text"))
    return measured or _was_seen(value)


def _was_seen(value: Any) -> bool:
    return isinstance(value, dict) and bool(value.get("fitted"))


def _text(value: Any) -> str:
    if isinstance(value, dict):
        return str(value.get("text", ""))
    return "" if isinstance(value, bool | list) or value is None else str(value)
