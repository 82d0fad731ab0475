"""Every choice that a form offers, with its labels, from the fields that take them."""

from collections.abc import Mapping

from pydantic import BaseModel

from swapglow.inputs.equipment import (
    DimInput,
    DimTrialInput,
    EquipmentInput,
    FeasibilityInput,
    FittedInput,
    TakeInInput,
    Wire,
)
from swapglow.inputs.position import FunctionCheck, LooksInput, PositionInput, ReadyMade, TrialInput
from swapglow.inputs.quantity import Quantity
from swapglow.inputs.rail import RailInput
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.inputs.shape import OneOf, Reads, Suggests, marked, marks
from swapglow.inputs.shop import ShopInput
from swapglow.inputs.stock import BenchLedInput, PartInput

# The shapes that have choices, by the name that stands before their fields.
SHAPES: Mapping[str, type[BaseModel]] = {
    "position": PositionInput,
    "led": BenchLedInput,
    "part": PartInput,
    "module": ReadyMade,
    "looks": LooksInput,
    "trial": TrialInput,
    "dim": DimInput,
    "dim_trial": DimTrialInput,
    "fitted": FittedInput,
    "equipment": EquipmentInput,
    "rail": RailInput,
    "quantity": Quantity,
    "wire": Wire,
    "reading_before": ReadingBeforeInput,
    "reading_after": ReadingAfterInput,
    "feasibility": FeasibilityInput,
    "take_in": TakeInInput,
    "check": FunctionCheck,
    "shop": ShopInput,
}


def choices() -> dict[str, dict[str, str]]:
    """Options with their labels by field: "position.rounding", "wire.does"."""
    out: dict[str, dict[str, str]] = {}
    for prefix, shape in SHAPES.items():
        for name, _, one in marked(shape, OneOf):
            out[f"{prefix}.{name}"] = one.labels()
        for name, _, some in marked(shape, Suggests):
            out[f"{prefix}.{name}"] = some.labels()
        for name, field in shape.model_fields.items():
            inner = getattr(field.annotation, "__args__", ())
            each = next((m for a in inner for m in getattr(a, "__metadata__", ()) if isinstance(m, OneOf)), None)
            if each is not None and marks(field, OneOf) is None:
                out[f"{prefix}.{name}"] = each.labels()
    return out


def units() -> dict[str, str]:
    """The unit each text is read in, by field: "position.vf" is in V."""
    return {
        f"{prefix}.{name}": mark.unit.symbol
        for prefix, shape in SHAPES.items()
        for name, _, mark in marked(shape, Reads)
    }
