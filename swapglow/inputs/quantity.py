"""A quantity as typed, and the texts of a given length."""

from typing import Annotated

from pydantic import Field

from swapglow.core.quantities import Input, Source
from swapglow.inputs.shape import OneOf, Shape

Short = Annotated[str, Field(max_length=60)]
Line = Annotated[str, Field(max_length=200)]
Long = Annotated[str, Field(max_length=20_000)]

SOURCES = {
    Source.MEASURED.value: "Measured", Source.MARKED.value: "Marked", Source.ASSUMED.value: "Assumed",
    Source.COMPUTED.value: "Computed",
}  # fmt: skip
SourceName = Annotated[str, OneOf(SOURCES)]


class Quantity(Shape):
    """A quantity as typed, with where it comes from. It is saved whole: a text brings its own source."""

    text: Short = ""
    source: SourceName = "assumed"
    note: Line = ""

    @property
    def input(self) -> Input:
        """As the core takes it."""
        return Input(self.text, Source(self.source), self.note)


class DriverDetail(Quantity):
    """A further figure of a driver as typed; what else a feed feeds takes several lines."""

    text: Annotated[str, Field(max_length=1000)] = ""
