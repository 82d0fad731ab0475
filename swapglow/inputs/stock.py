"""What lies in the drawer, as typed: parts of every kind, and the bench's own LEDs with how many there are."""

from typing import Annotated

from pydantic import Field

from swapglow.core.parts.resistor import ALL_RATINGS_W, rating_text
from swapglow.core.quantities import FARAD, OHM, VOLT
from swapglow.core.stock.part import KINDS, LEVELS
from swapglow.core.values import preferred
from swapglow.inputs.led import LedInput
from swapglow.inputs.position import Watts
from swapglow.inputs.quantity import Line, Long, Short
from swapglow.inputs.shape import OneOf, Reads, Sets, Shape, Suggests

_WATTS: dict[float | None, str] = {None: "Not known", **{w: rating_text(w) for w in ALL_RATINGS_W}}
Count = Annotated[int, Field(ge=0, le=1_000_000)]
# LEDs are kept with their figures, in a list of their own.
PART_KINDS = {k: label for k, label in KINDS.items() if k != "led"}


class Stocked(Shape):
    """Where something lies, how much of it, and what it costs; ``count`` only where somebody counts."""

    kept_in: Annotated[Line, Sets("kept_in", "stock")] = ""
    level: Annotated[str, OneOf(LEVELS), Sets("said", "stock")] = "full"
    count: Annotated[Count | None, Sets("count", "stock")] = None
    least: Annotated[Count, Sets("least", "stock")] = 0
    pack: Annotated[int, Field(ge=1, le=1_000_000), Sets("pack", "stock")] = 1
    price: Short = ""
    on_order: Annotated[Count, Sets("on_order", "stock")] = 0
    lot: Line = ""


class PartInput(Stocked):
    """A part in the drawer; ``catalogue_id`` is the catalogue's where it came from there."""

    kind: Annotated[str, OneOf(PART_KINDS)] = "resistor"
    name: Line = ""
    resistance: Annotated[Short, Reads(OHM, "ohm", "part")] = ""
    capacitance: Annotated[Short, Reads(FARAD, "farad", "part")] = ""
    stands: Annotated[Short, Reads(VOLT, "volts", "part")] = ""
    tolerance: Annotated[Annotated[float, Field(ge=0, lt=0.5)] | None, Sets("tolerance", "part")] = None
    rating_w: Annotated[Watts | None, Suggests(_WATTS), Sets("rating_w", "part")] = None
    series: Annotated[str, OneOf({"": "Not known", **preferred.SERIES_LABELS})] = ""
    catalogue_id: Annotated[Short, Sets("of", "part")] = ""


class BenchLedInput(LedInput, Stocked):
    """An LED of the bench's own: its figures, the curve that was swept of it, and how many there are."""

    sweep: Long = ""
    sweep_in_series: Short = ""
    sweep_strings: Short = ""
    sweep_resistor: Short = ""
