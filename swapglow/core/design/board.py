"""The board a lamp is soldered to: what it prints beside the two pads, and which of them is minus."""

from dataclasses import dataclass
from typing import Literal

BoardMark = Literal["", "plus", "minus", "square-plus", "square-minus", "bar", "arrow"]
Side = Literal["left", "right"]
# What a board may print at one of two pads (common practice). Square pads mean either, as the maker liked.
MARKS: dict[BoardMark, str] = {
    "": "Nothing",
    "plus": "Plus sign",
    "minus": "Minus sign",
    "square-plus": "Square pad, plus",
    "square-minus": "Square pad, minus",
    "bar": "Bar or stripe",
    "arrow": "Tip of an arrow",
}
SIDES: dict[Side, str] = {"left": "At the left pad", "right": "At the right pad"}
_AT_PLUS: frozenset[BoardMark] = frozenset({"plus", "square-plus"})
_OTHER: dict[Side, Side] = {"left": "right", "right": "left"}


@dataclass(frozen=True)
class Board:
    """A board's legend, seen from the parts' side.

    Attributes:
        mark: what it prints.
        label: the same in words.
        at: the pad it stands at.
        minus: the pad that is minus.
        minus_below: the pad that is minus seen from the side one solders.
    """

    mark: BoardMark
    label: str
    at: Side
    minus: Side
    minus_below: Side


def board_of(mark: BoardMark, at: Side) -> Board | None:
    """A board by its legend; None where it has none.

    Args:
        mark: what it prints.
        at: the pad it stands at, seen from the parts' side.

    Returns:
        The board, with the pad that is minus on either face.
    """
    if not mark:
        return None
    minus = _OTHER[at] if mark in _AT_PLUS else at
    return Board(mark, MARKS[mark], at, minus, _OTHER[minus])
