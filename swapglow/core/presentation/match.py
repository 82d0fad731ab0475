"""Section: a group of lamps on one line of light, and the resistors that make them equal."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from swapglow.core.analysis.match import SIDE_BY_SIDE, Level, MatchLamp, best, levels
from swapglow.core.analysis.original_lamp import lamp_candela
from swapglow.core.photometry import screen
from swapglow.core.photometry.intensity import sight_of
from swapglow.core.photometry.light_doubt import led_doubt
from swapglow.core.photometry.words import called, eye_text, times
from swapglow.core.quantities import CANDELA, OHM, show

# A lamp that loses so much of its light, octaves, is named: a third of it.
_MUCH_LESS = -1.585


@dataclass(frozen=True)
class MatchValue:
    """One resistor of one lamp: its light on the group's line, and how it is painted beside the others.

    ``octaves`` is light beside 1 cd, less what is wanted of the lamp on purpose; ``fits`` whether its limits allow it;
    ``beside`` its light beside its old lamp's, in words with the ratio; empty where that is not known.
    """

    ohm: float
    text: str
    octaves: float
    light: str
    beside: str
    colour: str
    at_hand: bool
    fits: bool


@dataclass(frozen=True)
class MatchRow:
    """One lamp of the group; ``barred`` says why it cannot be matched, ``doubt`` how far its light may be off."""

    id: str
    name: str
    values: tuple[MatchValue, ...]
    now: int
    barred: str
    doubt: str = ""


@dataclass(frozen=True)
class MatchLevel:
    """One light for all: which value each lamp takes, and what does not reach it."""

    octaves: float
    text: str
    picks: tuple[int | None, ...]
    line: str


@dataclass(frozen=True)
class MatchReport:
    """A group on one line of light.

    Attributes:
        rows: its lamps.
        levels: lights it may be set to, dimmest first.
        best: which of them to begin with; -1 where there is none.
        low, high: ends of the line, octaves beside 1 cd.
    """

    rows: tuple[MatchRow, ...]
    levels: tuple[MatchLevel, ...]
    best: int
    low: float
    high: float


def match_report(lamps: Sequence[MatchLamp], drawer: frozenset[float] = frozenset()) -> MatchReport:
    """A group of lamps, what each can show, and the levels that all of them reach.

    Args:
        lamps: the group.
        drawer: resistors at hand, Ω.

    Returns:
        The section.
    """
    found = levels(lamps)
    first = best(found, lamps) if found else -1
    fitting = [c.octaves for lamp in lamps for c in lamp.choices if c.fits]
    low, high = (min(fitting), max(fitting)) if fitting else (-10.0, 0.0)
    stocked = {float(f"{d:.6g}") for d in drawer}
    seen = [sight_of(lamp.position).xyz for lamp in lamps if lamp.position is not None and lamp.choices]
    # A doubling over the level they are matched at is as bright as the screen goes: so that a mismatch shows.
    white = 2.0 ** (found[first].octaves + 1) if found else 1.0
    most = screen.brightest(seen)
    return MatchReport(
        tuple(_row(lamp, white, most, stocked) for lamp in lamps),
        tuple(MatchLevel(x.octaves, show(2.0**x.octaves, CANDELA, 2), x.picks, _line(x, lamps)) for x in found),
        first,
        low,
        high,
    )


def _row(lamp: MatchLamp, white: float, most: float, stocked: set[float]) -> MatchRow:
    p = lamp.position
    if p is None or not lamp.choices:
        return MatchRow(lamp.id, lamp.name, (), lamp.now, lamp.barred)
    light = np.array([2.0**c.octaves for c in lamp.choices]) * p.looks.share
    colours = screen.screen_colours(sight_of(p).xyz, most * light / white)
    old = lamp_candela(p)
    values = tuple(
        MatchValue(
            c.ohm,
            show(c.ohm, OHM),
            c.octaves,
            show(cd, CANDELA, 2),
            "" if not old else f"{called(cd / old)} ({times(cd / old)} ×)",
            colour,
            float(f"{c.ohm:.6g}") in stocked,
            c.fits,
        )
        for c, cd, colour in zip(lamp.choices, light.tolist(), colours, strict=True)
    )
    return MatchRow(lamp.id, lamp.name, values, lamp.now, lamp.barred, f"within {eye_text(led_doubt(p))} ×")


def _line(level: Level, lamps: Sequence[MatchLamp]) -> str:
    """Which lamps miss the level and by how much, and which lose much of their light."""
    apart, falls = [], []
    for lamp, pick in zip(lamps, level.picks, strict=True):
        if pick is None:
            apart.append(f"{lamp.name}: {lamp.barred}")
            continue
        loses = lamp.choices[pick].octaves - lamp.choices[lamp.now].octaves
        if loses <= _MUCH_LESS:
            falls.append(f"{lamp.name} falls to {times(2.0**loses)} of its present light")
        away = lamp.choices[pick].octaves - level.octaves
        if abs(away) > SIDE_BY_SIDE:
            apart.append(f"{lamp.name} {'stays' if away < 0 else 'is still'} {times(2.0**away)} ×")
    side_by_side = f"{'; '.join(apart)}." if apart else "All within a fifth: side by side they look equal."
    return f"{side_by_side} {'; '.join(falls)}." if falls else side_by_side
