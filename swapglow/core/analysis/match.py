"""A group of lamps made to look equal: what each resistor would show, and the levels all of them can reach.

Lit indicators stand far above 5 cd/m², the upper end of mesopic vision (CIE 191:2010, from memory): equal light is
equal photopic light, whatever the room.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from swapglow.core.analysis.limits import trip_amps
from swapglow.core.analysis.solution import Solution, solve
from swapglow.core.design.position import Position
from swapglow.core.photometry.intensity import FloatArray, led_candelas
from swapglow.core.photometry.visibility import LIT_ROOM_CD

# Lamps side by side are told apart from a fifth on (common practice).
SIDE_BY_SIDE = math.log2(1.2)


@dataclass(frozen=True)
class Choice:
    """One resistor of a lamp.

    Attributes:
        ohm: each part.
        octaves: light towards the eye beside 1 cd, less what is wanted of this lamp on purpose.
        fits: whether the LED's drive limit and a line that is sensed allow it, and it is seen at all.
    """

    ohm: float
    octaves: float
    fits: bool


@dataclass(frozen=True)
class MatchLamp:
    """One lamp of the group.

    Attributes:
        id, name: whose it is.
        position: the swap; None where it does not read.
        now: which choice stands now.
        choices: resistors along its rule, rising.
        barred: why it has none to choose; empty where it has.
    """

    id: str
    name: str
    position: Position | None
    now: int
    choices: tuple[Choice, ...]
    barred: str


def match_lamp(id_: str, name: str, position: Position) -> MatchLamp:
    """A lamp with what each of its resistors would show.

    Args:
        id_: its key.
        name: its name.
        position: the swap.

    Returns:
        The lamp.

    Raises:
        NotConverged: it has no answer.
        CannotBuild: a part of it is not worked out on its supply.
    """
    if position.module is not None:
        return MatchLamp(id_, name, position, 0, (), "a ready-made lamp has no resistor to change")
    if position.set_by_ohms:
        return MatchLamp(id_, name, position, 0, (), "a current source is set by its own resistor")
    s = solve(position)
    octaves = _octaves(s)
    fits = (s.rule_worst[1] <= min(position.ceiling_a, trip_amps(position)) * (1 + 1e-9)) & (
        2.0**octaves * position.looks.share >= LIT_ROOM_CD
    )
    choices = tuple(Choice(float(o), float(v), bool(f)) for o, v, f in zip(s.rule_ohm, octaves, fits, strict=True))
    now = int(np.argmin(np.abs(np.log(s.rule_ohm / s.sizing.each_ohm))))
    if not any(c.fits for c in choices):
        return MatchLamp(id_, name, position, now, choices, "no resistor keeps it within its limits and lit")
    return MatchLamp(id_, name, position, now, choices, "")


def _octaves(s: Solution) -> FloatArray:
    light = led_candelas(s.position, s.rule_amps[1]) / s.position.looks.share
    return np.asarray(np.log2(np.maximum(light, 1e-15)))


@dataclass(frozen=True)
class Level:
    """One light for all of them.

    Attributes:
        octaves: beside 1 cd.
        picks: which choice each lamp takes, in the group's order; None for one that has none.
        apart: how far the furthest is from the level, octaves.
    """

    octaves: float
    picks: tuple[int | None, ...]
    apart: float


def levels(lamps: Sequence[MatchLamp], step: float = 0.25) -> tuple[Level, ...]:
    """The lights that the group may be set to, dimmest first, each with the nearest resistor of every lamp.

    Args:
        lamps: the group.
        step: from one to the next, octaves.

    Returns:
        From the dimmest that any lamp fits to the brightest.
    """
    fitting = [[(k, c.octaves) for k, c in enumerate(lamp.choices) if c.fits] for lamp in lamps]
    every = [o for row in fitting for _, o in row]
    if not every:
        return ()
    low, high = min(every), max(every)
    out = []
    for n in range(math.floor((high - low) / step) + 1):
        at = low + n * step
        picks = tuple(min(row, key=lambda c: abs(c[1] - at))[0] if row else None for row in fitting)
        away = [abs(lamp.choices[k].octaves - at) for lamp, k in zip(lamps, picks, strict=True) if k is not None]
        out.append(Level(at, picks, max(away)))
    return tuple(out)


def best(found: Sequence[Level], lamps: Sequence[MatchLamp]) -> int:
    """Which level to begin with: the best match; of equal ones the nearest to how they stand now.

    Args:
        found: the levels, at least one.
        lamps: the group.

    Returns:
        Its place among them.
    """
    now = [lamp.choices[lamp.now].octaves for lamp in lamps if lamp.choices]
    middle = float(np.median(now)) if now else 0.0
    within = max(SIDE_BY_SIDE / 2, min(level.apart for level in found))
    good = [k for k, level in enumerate(found) if level.apart <= within + 1e-9]
    return min(good, key=lambda k: abs(found[k].octaves - middle))


# A lamp that somebody calls brighter is at least this much brighter, octaves (ours: twice what an eye just sees).
PLAINLY = 2 * SIDE_BY_SIDE


def trim_of(lamps: Sequence[MatchLamp], differs: str, reference: str, *, brighter: bool) -> float | None:
    """What it says of a lamp's true light that it still looks brighter, or dimmer, than another as they stand.

    Args:
        lamps: the group.
        differs: the lamp that does.
        reference: the one beside it.
        brighter: whether it is brighter; dimmer else.

    Returns:
        Its trim: one that puts it plainly over, or under, the other. None where the figures say so already.
    """
    by_id = {lamp.id: lamp for lamp in lamps}
    own, other = (by_id[k] for k in (differs, reference))
    assert own.position is not None
    away = own.choices[own.now].octaves - other.choices[other.now].octaves
    missing = PLAINLY - (away if brighter else -away)
    if missing <= 1e-9:
        return None
    return own.position.looks.trim * float(2.0 ** (missing if brighter else -missing))


def trims(lamps: Sequence[MatchLamp], reference: str) -> dict[str, float]:
    """What a match by eye says of each lamp's true light: as they stand they look like the reference.

    Args:
        lamps: the group.
        reference: the lamp that the others were matched to.

    Returns:
        Trims by lamp; the reference keeps its own.
    """
    light = {lamp.id: lamp.choices[lamp.now].octaves for lamp in lamps if lamp.choices}
    at = light[reference]
    return {
        lamp.id: lamp.position.looks.trim * 2.0 ** (at - light[lamp.id])
        for lamp in lamps
        if lamp.position is not None and lamp.id in light and lamp.id != reference
    }
