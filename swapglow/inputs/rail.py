"""A supply rail as typed."""

from typing import Annotated

from pydantic import Field

from swapglow.core.quantities import AMPERE, VOLT
from swapglow.core.supplies import SUPPLIES
from swapglow.core.supplies.rail import READ_AT
from swapglow.inputs.limits import MOST_DETAILS
from swapglow.inputs.quantity import Name, Quantity, Short
from swapglow.inputs.shape import OneOf, Reads, Sets, Shape


class RailInput(Shape):
    """A supply rail; ``details`` are the further figures its kind asks for, by name."""

    name: Name = "Rail"
    kind: Annotated[str, OneOf(SUPPLIES)] = SUPPLIES.usual.id
    read_at: Annotated[str, OneOf(READ_AT), Sets("read_at", "rail")] = "feed"
    usual: Annotated[Quantity, Reads(VOLT, "usual", "level")] = Quantity()
    low: Annotated[Quantity, Reads(VOLT, "low", "level")] = Quantity()
    high: Annotated[Quantity, Reads(VOLT, "high", "level")] = Quantity()
    details: Annotated[dict[Short, Quantity], Field(max_length=MOST_DETAILS)] = Field(default_factory=dict)
    fuse: Annotated[Short, Reads(AMPERE, "fuse_a", "rail")] = ""
    rated: Annotated[Short, Reads(AMPERE, "rated_a", "rail")] = ""
    others: Annotated[Short, Reads(AMPERE, "others_a", "rail", above=None, minimum=0, at="usual")] = ""
