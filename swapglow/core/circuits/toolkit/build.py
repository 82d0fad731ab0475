"""What is done at the bench so that a circuit becomes what an option makes of it: part by part, from the netlists."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from swapglow.core.circuits.result import BuildPart, WiringPicture
from swapglow.core.drawing.drawing import DrawnPart
from swapglow.core.drawing.symbols import Symbol

# Feeds belong to the equipment: nobody fits them.
_GIVEN: frozenset[Symbol] = frozenset({"supply", "alternating"})
# Parts that have a right way round, and how to find it.
_WAY_ROUND: dict[Symbol, str] = {
    "led": "Plus to the long leg.",
    "diode": "The ring is its cathode: it points the way the current flows.",
}
_Done = Literal["fit", "remove", "change"]


@dataclass(frozen=True)
class _Move:
    id: str
    done: _Done
    was: DrawnPart | None
    becomes: DrawnPart | None


def build(now: WiringPicture, after: WiringPicture) -> tuple[BuildPart, ...]:
    """The parts that an option changes.

    Args:
        now: the wiring as it is.
        after: as it is once the option is done.

    Returns:
        What comes out first, then what is changed, then what goes in; of each how it is put back.
    """
    old = {p.id: p for p in now.drawing.parts}
    new = {p.id: p for p in after.drawing.parts}
    moves = sorted(_moves(old, new), key=lambda m: ("remove", "change", "fit").index(m.done))
    return tuple(BuildPart(m.id, m.done, _act(m), _back(m)) for m in moves)


def _moves(old: dict[str, DrawnPart], new: dict[str, DrawnPart]) -> Iterable[_Move]:
    for id_ in dict.fromkeys((*old, *new)):
        was, becomes = old.get(id_), new.get(id_)
        if (was or becomes).symbol in _GIVEN:  # type: ignore[union-attr]  # it is in one of the two
            continue
        if was is None:
            yield _Move(id_, "fit", None, becomes)
        elif becomes is None:
            yield _Move(id_, "remove", was, None)
        elif (was.symbol, was.value) != (becomes.symbol, becomes.value):
            yield _Move(id_, "change", was, becomes)


def _act(m: _Move) -> str:
    if m.was is None:
        assert m.becomes is not None
        way = _WAY_ROUND.get(m.becomes.symbol, "")
        return f"Fit: {_said(m.becomes)}. {way}".rstrip()
    if m.becomes is None:
        return f"Remove: {_said(m.was)}. Keep it with the item's old parts."
    return f"Change {_name(m.was)}: {m.was.value or 'as it is'} → {m.becomes.value or _name(m.becomes)}."


def _back(m: _Move) -> str:
    if m.was is None:
        assert m.becomes is not None
        return f"Remove: {_said(m.becomes)}."
    if m.becomes is None:
        return f"Fit again: {_said(m.was)}."
    return f"Change {_name(m.becomes)} back to {m.was.value or 'what it was'}."


def _name(p: DrawnPart) -> str:
    return " ".join(p.name)


def _said(p: DrawnPart) -> str:
    return f"{_name(p)}, {p.value}" if p.value else _name(p)
