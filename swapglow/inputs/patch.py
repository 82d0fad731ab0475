"""Patches: only what was sent is changed, in whatever part it was sent."""

import math
from collections.abc import Mapping
from typing import Any

from pydantic import BaseModel

from swapglow.core.design.changes import DRIVER, LOOKS, Changes
from swapglow.core.drivers import DRIVERS
from swapglow.core.drivers.kind import DriverKind
from swapglow.core.parts.ready_made import ready_made
from swapglow.core.quantities import AMPERE, CANDELA, OHM, InputError, Unit, show
from swapglow.inputs.position import LooksInput, PositionInput
from swapglow.inputs.quantity import Quantity
from swapglow.inputs.shape import Reads, Sets, marked


def sent(patch: BaseModel) -> dict[str, Any]:
    """The fields of a patch that were sent, as plain values.

    A quantity is sent whole: a text without a source is an assumed one. Parts with fields of their own
    are patches themselves, and details join those there.
    """
    out: dict[str, Any] = {}
    for name in patch.model_fields_set:
        value = getattr(patch, name)
        out[name] = _plain(value)
    return out


def _plain(value: Any) -> Any:
    if isinstance(value, Quantity):
        return value.model_dump(mode="json")
    if isinstance(value, BaseModel):
        return sent(value)
    if isinstance(value, Mapping):
        return {key: _plain(part) for key, part in value.items()}
    if isinstance(value, list):
        return [part.model_dump() if isinstance(part, BaseModel) else part for part in value]
    return value


def joined(kept: Mapping[str, Any], changes: Mapping[str, Any]) -> dict[str, Any]:
    """Kept fields with a patch's changes laid over them.

    Args:
        kept: as they stand.
        changes: as :func:`sent` gives them.

    Returns:
        All fields. A mapping that is no quantity is joined field by field; in one of lines, None deletes a
        line. A choice of several is joined choice by choice.
    """
    out = dict(kept)
    for name, value in changes.items():
        old = out.get(name)
        if isinstance(value, Mapping) and isinstance(old, list):
            out[name] = [c for c in old if value.get(c, True)] + [c for c in value if value[c] and c not in old]
        elif isinstance(value, Mapping) and isinstance(old, Mapping) and "source" not in value:
            both = joined(old, value)
            out[name] = {key: part for key, part in both.items() if part is not None or key not in value}
        else:
            out[name] = value
    return out


def touched(parts: Mapping[str, Any]) -> list[str]:
    """The fields that a patch names, in lists by their lines, to tell one gesture from the next."""
    out = []
    for name, part in parts.items():
        inner = part if isinstance(part, Mapping) and "source" not in part else None
        out += [f"{name}.{key}" for key in touched(inner)] if inner else [name]
    return sorted(out)


# Significant figures of a value that becomes a text: a resistor's six digits, else four.
_DIGITS = {OHM: 6}
_EMPTY = Quantity().model_dump()
_OWN_LIGHT = {"led_light": "", "led_light_at": "", "led_angle": "", "led_output": ""}


def texts_of(changes: Changes, driver_kind: str) -> dict[str, Any]:
    """A remedy's changes as the fields a record keeps.

    Another LED drops the old one's own forward voltage, rating and light.

    Args:
        changes: fields of the core's position by name, and what they become.
        driver_kind: the kind of driver, whose details may be among them.

    Returns:
        Fields to join to those kept.

    Raises:
        InputError: a change that no position knows.
    """
    out: dict[str, Any] = {}
    for name, value in changes.items():
        if name == "led_id":
            out |= {"led_id": value, "vf": _EMPTY, "rated": "", **_OWN_LIGHT}
        elif name == "module_id":
            out |= _module_texts(str(value))
        elif name.startswith(DRIVER):
            detail, text = _detail(DRIVERS[driver_kind], name.removeprefix(DRIVER), value)
            details = out.setdefault("driver_details", {})
            details[detail] = {"text": text, "source": "computed", "note": ""}
        elif name.startswith(LOOKS):
            out.setdefault("looks", {})[_look(name)] = value
        else:
            out |= _field(name, value)
    return out


def _look(name: str) -> str:
    """The field of one of a lamp's looks that a change may set: no length, which is typed."""
    own = name.removeprefix(LOOKS)
    known = {sets.to for _, _, sets in marked(LooksInput, Sets) if sets.of == "looks"}
    if own not in {*known, "glass"}:
        raise InputError(name, f'The looks of a lamp have no "{own}" to change.')
    return own


def _field(name: str, value: float | int | str | None) -> dict[str, Any]:
    for field, info, read in marked(PositionInput, Reads):
        if (read.to, read.of) == (name, "position"):
            text = _text(value, read.unit)
            typed = {"text": text, "source": "computed", "note": ""}
            return {field: typed if info.annotation is Quantity else text}
    for field, _, sets in marked(PositionInput, Sets):
        if (sets.to, sets.of) == (name, "position"):
            return {field: "" if value is None and field == "rectification" else value}
    raise InputError(name, f'A position has no "{name}" to change.')


def _text(value: float | int | str | None, unit: Unit) -> str:
    if value is None:
        return ""
    if isinstance(value, str) or not math.isfinite(value):
        raise InputError("changes", f'"{str(value)[:40]}" is no number of {unit.symbol}.')
    return show(float(value), unit, _DIGITS.get(unit, 4))


def _detail(kind: DriverKind, field: str, value: float | int | str | None) -> tuple[str, str]:
    """A driver's field as the detail it is, with its text."""
    name = kind.detail_of.get(field, "")
    detail = next((d for d in kind.details if d.id == name), None)
    if detail is None:
        raise InputError(f"{DRIVER}{field}", f'{kind.label} has no "{field}" to change.')
    if detail.unit is not None:
        return name, _text(value, detail.unit)
    return name, "yes" if value else "no"


def _module_texts(module_id: str) -> dict[str, Any]:
    """A ready-made lamp of the catalogue as typed fields; what it puts out of the way is emptied."""
    if module_id not in ready_made():
        raise InputError("module_id", f'There is no ready-made lamp "{module_id}" in the catalogue.')
    made = ready_made()[module_id]
    m = made.module
    return {
        "band": f"{m.low:g}-{m.high:g}V",
        "in_series": 1,
        "branches": 1,
        "series_diodes": 0,
        "regulator_id": "",
        "shunt": "",
        "resistor": "",
        "resistor_parts": 1,
        "module": {
            "amps": show(m.amps, AMPERE, 4),
            "at": "",
            "second_volts": "",
            "second_amps": "",
            "dice": None,
            "law": m.law,
            "polarised": "yes" if m.polarised else "no",
            "throttle": "" if m.throttle == 1 else f"{m.throttle * 100:g} %",
            "after": "" if not m.throttle_s else f"{m.throttle_s:g}s",
            "candela": show(made.candela, CANDELA, 4),
        },
    }
