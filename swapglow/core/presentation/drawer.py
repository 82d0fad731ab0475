"""The drawer as it looks: compartments by decade and series, so that what is full, low, empty or missing is seen."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from swapglow.core.quantities import OHM, show
from swapglow.core.stock.part import Level, Part, same_ohms
from swapglow.core.values.preferred import values

State = Literal["full", "low", "empty", "missing"]
STATES: dict[State, str] = {"full": "full", "low": "low", "empty": "empty", "missing": "none kept"}
_FULLEST: tuple[Level, ...] = ("full", "low", "empty")
# Decades that are shown whatever is kept: most of what a lamp takes lies in them.
_FIRST, _LAST = 1, 4
# Series finer than this are too many compartments for one picture.
Columns = Literal["E6", "E12", "E24"]


@dataclass(frozen=True)
class Compartment:
    """One value.

    Attributes:
        text: its value, as it is typed.
        state: the fullest of its parts, or that none is kept.
        said: the state in words, with the count where there is one.
        parts: records that lie in it.
    """

    text: str
    state: State
    said: str
    parts: tuple[str, ...]


@dataclass(frozen=True)
class Decade:
    """A row of the picture."""

    label: str
    compartments: tuple[Compartment, ...]


@dataclass(frozen=True)
class DrawerPicture:
    """The resistors.

    Attributes:
        series: the series of its columns.
        decades: rows, the smallest first.
        others: values that the series has not, the smallest first.
        line: how many values are kept, and how many of those are low or empty.
    """

    series: Columns
    decades: tuple[Decade, ...]
    others: tuple[Compartment, ...]
    line: str


def drawer_picture(parts: Sequence[Part], series: Columns = "E12") -> DrawerPicture:
    """Draw the resistors of a drawer.

    Args:
        parts: every compartment; only resistors are drawn.
        series: of the columns.

    Returns:
        The picture.
    """
    here = [p for p in parts if p.ohm is not None and p.kind == "resistor"]
    by_ohm: dict[str, list[Part]] = {}
    for p in sorted(here, key=lambda p: p.ohm or 0.0):
        by_ohm.setdefault(f"{p.ohm:.6g}", []).append(p)
    powers = [math.floor(math.log10(float(ohm)) + 1e-9) for ohm in by_ohm]
    first, last = min([_FIRST, *powers]), max([_LAST, *powers])
    decades, drawn = [], set[str]()
    for power in range(first, last + 1):
        ohms = [float(v) for v in values(series, 10.0**power, 9.999 * 10.0**power)]
        cells = []
        for ohm in ohms:
            key = next((k for k in by_ohm if same_ohms(float(k), ohm)), "")
            drawn.add(key)
            cells.append(_compartment(ohm, by_ohm.get(key, [])))
        decades.append(Decade(f"{cells[0].text} to {cells[-1].text}", tuple(cells)))
    others = tuple(_compartment(float(k), found) for k, found in by_ohm.items() if k not in drawn)
    return DrawerPicture(series, tuple(decades), others, _line(by_ohm))


def _compartment(ohm: float, parts: Sequence[Part]) -> Compartment:
    text = show(ohm, OHM, 6)
    if not parts:
        return Compartment(text, "missing", STATES["missing"], ())
    state = next(level for level in _FULLEST if any(p.level == level for p in parts))
    counted = [p.count for p in parts if p.count is not None]
    said = STATES[state] + (f", {sum(counted)} there" if counted else "")
    return Compartment(text, state, said, tuple(p.id for p in parts))


def _line(by_ohm: dict[str, list[Part]]) -> str:
    states = [_compartment(float(k), found).state for k, found in by_ohm.items()]
    if not states:
        return "No resistors are kept yet."
    said = f"{len(states)} value" + ("" if len(states) == 1 else "s")
    for state, word in (("low", "low"), ("empty", "empty")):
        count = sum(s == state for s in states)
        said += f", {count} {word}" if count else ""
    return said + "."
