"""Ink and pencil: a number with where it comes from."""

from dataclasses import dataclass
from enum import StrEnum


class Source(StrEnum):
    """Where a number comes from. Only ``ASSUMED`` is pencil."""

    MEASURED = "measured"
    MARKED = "marked"
    ASSUMED = "assumed"
    COMPUTED = "computed"

    @property
    def is_assumed(self) -> bool:
        """Whether a reading is still owed."""
        return self is Source.ASSUMED


@dataclass(frozen=True)
class Figure:
    """A value in SI units with its source.

    Attributes:
        value: SI value.
        source: measured, marked, assumed or computed.
        note: when, with which meter, in which condition; or the table it was taken from.
    """

    value: float
    source: Source = Source.ASSUMED
    note: str = ""
