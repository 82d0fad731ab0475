"""A quantity as typed, and the texts of a given length."""

import unicodedata
from typing import Annotated

from pydantic import AfterValidator, Field

from swapglow.core.quantities import Input, Source
from swapglow.inputs.shape import OneOf, Shape


def _printable(text: str) -> str:
    """A text of one line, or a refusal that names what cannot be seen in it."""
    if text.isprintable():
        return text
    unseen = next((c for c in text if unicodedata.category(c) in ("Cc", "Cs") or c in "\u2028\u2029"), None)
    if unseen is not None:
        what = "A line break" if unseen in "\r\n\u2028\u2029" else f"The character U+{ord(unseen):04X}"
        raise ValueError(f"{what} cannot stand here: one line of text is wanted.")
    return text


def _readable(text: str) -> str:
    """A text of several lines without what cannot be printed."""
    if text.isprintable():
        return text
    unseen = next((c for c in text if unicodedata.category(c) in ("Cc", "Cs") and c not in "\n\r\t"), None)
    if unseen is not None:
        raise ValueError(f"The character U+{ord(unseen):04X} cannot be printed; take it out.")
    return text


def _named(text: str) -> str:
    """A name that can be seen."""
    if all(unicodedata.category(c)[0] in "ZC" for c in text):
        raise ValueError("Something that can be read must stand here.")
    return text


Short = Annotated[str, Field(max_length=60), AfterValidator(_printable)]
Line = Annotated[str, Field(max_length=200), AfterValidator(_printable)]
Long = Annotated[str, Field(max_length=20_000), AfterValidator(_readable)]
Name = Annotated[str, Field(min_length=1, max_length=120), AfterValidator(_printable), AfterValidator(_named)]

SOURCES = {
    Source.MEASURED.value: "Measured",
    Source.MARKED.value: "Marked",
    Source.ASSUMED.value: "Assumed",
    Source.COMPUTED.value: "Computed",
}
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

    text: Annotated[str, Field(max_length=1000), AfterValidator(_readable)] = ""
    # What was fitted when it was seen, as a reading notes it; the app writes it.
    fitted: Line = ""

    @property
    def input(self) -> Input:
        """As the core takes it."""
        return Input(self.text, Source(self.source), self.note, self.fitted)
