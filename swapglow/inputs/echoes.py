"""What each typed text was taken for, by the unit its field is read in."""

from collections.abc import Iterable

from pydantic import BaseModel

from swapglow.core.circuits import CIRCUITS
from swapglow.core.drivers import DRIVERS
from swapglow.core.kinds.detail import Detail
from swapglow.core.quantities import QuantityError, Unit
from swapglow.core.quantities.echo import echo_kept
from swapglow.core.supplies import SUPPLIES
from swapglow.inputs.equipment import FittedInput
from swapglow.inputs.position import PositionInput
from swapglow.inputs.quantity import Quantity
from swapglow.inputs.rail import RailInput
from swapglow.inputs.shape import Reads, marked


def echoes(shape: BaseModel, prefix: str = "") -> dict[str, str]:
    """What every text of a shape was taken for.

    Args:
        shape: as typed.
        prefix: stands before each field's name.

    Returns:
        Texts by field; one that cannot be read is left out.
    """
    out: dict[str, str] = {}
    for name, _, mark in marked(type(shape), Reads):
        value = getattr(shape, name)
        _put(out, prefix + name, value.text if isinstance(value, Quantity) else value, mark.unit)
    if isinstance(shape, RailInput):
        _details(out, "details.", SUPPLIES[shape.kind].details, shape.details.items())
    if isinstance(shape, FittedInput):
        _details(out, "details.", CIRCUITS[shape.kind].details, shape.details.items())
    if isinstance(shape, PositionInput):
        _details(out, "driver_details.", DRIVERS[shape.driver_kind].details, shape.driver_details.items())
        out |= echoes(shape.module, "module.") | echoes(shape.looks, "looks.")
    return out


def _details(
    out: dict[str, str], prefix: str, asked: tuple[Detail, ...], typed: Iterable[tuple[str, Quantity]]
) -> None:
    units = {d.id: d.unit for d in asked}
    for name, quantity in typed:
        unit = units.get(name)
        if unit is not None:
            _put(out, prefix + name, quantity.text, unit)


def _put(out: dict[str, str], name: str, text: str, unit: Unit) -> None:
    try:
        shown = echo_kept(text, unit)
    except QuantityError:
        return
    if shown:
        out[name] = shown
