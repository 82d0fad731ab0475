"""Lists of lines: each line under a key of its own, with its place in the order."""

from collections.abc import Mapping
from typing import Annotated, TypeVar

from pydantic import Field

from swapglow.inputs.shape import Shape

# A key of a line, made by whoever adds it.
Key = Annotated[str, Field(min_length=1, max_length=40, pattern=r"^[A-Za-z0-9-]+$")]
Place = Annotated[int, Field(ge=0, le=1_000_000)]

R = TypeVar("R", bound="Row")


class Row(Shape):
    """A line of a list; the list keeps it under its key, so that each is changed by itself."""

    place: Place = 0


def in_order(rows: Mapping[str, R]) -> list[R]:
    """The lines of a list in their order.

    Args:
        rows: by key.

    Returns:
        The lines; those of one place by their keys.
    """
    return [row for _, row in sorted(rows.items(), key=lambda item: (item[1].place, item[0]))]
