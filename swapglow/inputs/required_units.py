"""At the door: a current is typed with its unit, for 20 on a bench is rarely amps. What is kept stays as it is."""

from collections.abc import Mapping
from typing import Any

from pydantic import BaseModel

from swapglow.core.kinds.detail import Detail
from swapglow.core.quantities import Unit
from swapglow.core.quantities.inputs import check_unit
from swapglow.inputs.equipment import DimInput, DimTrialInput, EquipmentInput
from swapglow.inputs.position import Beside, LooksInput, PositionInput, ReadyMade, TrialInput
from swapglow.inputs.shape import Reads, marked


def require_units(
    shape: type[BaseModel], fields: Mapping[str, Any], prefix: str = "", details: tuple[Detail, ...] = ()
) -> None:
    """Refuse a typed current that does not say its unit.

    Args:
        shape: the model whose fields were sent.
        fields: what was sent, by field.
        prefix: stands before each field's name.
        details: what the record's kind asks for besides.

    Raises:
        InputError: for the first such field; its message says what would be taken.
    """
    for name, _, mark in marked(shape, Reads):
        if name in fields:
            _check(prefix + name, fields[name], mark.unit)
    if shape is PositionInput:
        require_units(ReadyMade, fields.get("module") or {}, "module.")
        require_units(LooksInput, fields.get("looks") or {}, "looks.")
        for part, row_shape in (("beside", Beside), ("trials", TrialInput)):
            for key, row in (fields.get(part) or {}).items():
                require_units(row_shape, row or {}, f"{part}.{key}.")
    if shape is EquipmentInput:
        for key, row in (fields.get("dims") or {}).items():
            require_units(DimInput, row or {}, f"dims.{key}.")
    if shape is DimInput:
        for key, row in (fields.get("trials") or {}).items():
            require_units(DimTrialInput, row or {}, f"{prefix}trials.{key}.")
    units = {d.id: d.unit for d in details}
    for part in ("details", "driver_details"):
        for name, value in (fields.get(part) or {}).items():
            _check(f"{part}.{name}", value, units.get(name))


def _check(name: str, value: Any, unit: Unit | None) -> None:
    text = value.get("text", "") if isinstance(value, Mapping) else value
    if unit is not None and isinstance(text, str):
        check_unit(name, text, unit)
