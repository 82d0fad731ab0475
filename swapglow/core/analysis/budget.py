"""What a rail gives to all that hangs on it: each lamp before and after its swap, alone and together.

Lamps on one rail meet only behind its source resistance. On a steady supply the volts there are found at
which the currents of all add up, V + R·ΣI(V) = Vopen (Kirchhoff), each lamp's own circuit solved for the
currents. Where the supply alternates all of them are one circuit (``rail_on_ac``); where that is not solved each
lamp is solved alone and their RMS currents are added, which is the most they come to together.
"""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.draws import Draws, Lit, Member, draws
from swapglow.core.analysis.original_lamp import original_cycle
from swapglow.core.analysis.rail_on_ac import RailCycle, rail_cycle
from swapglow.core.analysis.sizing import with_strings
from swapglow.core.analysis.solution import Solution, solve
from swapglow.core.design.position import Position
from swapglow.core.engine.operating_point import NotConverged
from swapglow.core.network.builder import CannotBuild
from swapglow.core.photometry.light_law import light_ratio
from swapglow.core.supplies.rail import Rail

FloatArray = NDArray[np.float64]

_GRID = 33
_ROUNDS = 3


@dataclass(frozen=True)
class Draw:
    """What one lamp takes of the rail.

    Attributes:
        id, name, lit: as in :class:`Member`.
        before, after: amps at the low, usual and high level with all others lit; None before where the old
            lamp is not known.
        alone_v, together_v: volts behind the source resistance at the usual level, after the swaps: with this
            lamp alone, and with all that may be lit.
        light: its light with all lit beside its light alone, after; None where nothing sags.
    """

    id: str
    name: str
    lit: Lit
    before: tuple[float, float, float] | None
    after: tuple[float, float, float]
    alone_v: float
    together_v: float
    light: float | None


@dataclass(frozen=True)
class Budget:
    """All that hangs on a rail.

    Attributes:
        rail: the rail.
        draws: its lamps.
        others_a: what else hangs on it, A.
        before, after: the most together at the three levels, A: every lamp that may be lit, and of those
            that are lit one at a time the thirstiest; None before where an old lamp is not known.
        unjoined: on a supply that alternates, why its lamps were not solved as one circuit: their currents are
            then each lamp's alone, added; nothing where they were, or need not be.
    """

    rail: Rail
    draws: tuple[Draw, ...]
    others_a: float
    before: tuple[float, float, float] | None
    after: tuple[float, float, float]
    unjoined: str = ""


def budget(rail: Rail, members: tuple[Member, ...]) -> Budget:
    """What a rail gives to its lamps, before and after.

    Args:
        rail: the rail.
        members: its lamps, in their order.

    Returns:
        The budget.

    Raises:
        NotConverged: a lamp has no answer.
        CannotBuild: a part of one is not worked out on this supply.
    """
    # Without a lamp there is no cycle to solve: what is left is what else hangs on the rail.
    if rail.supply.alternates and members:
        try:
            return _joined(rail, members)
        except (CannotBuild, NotConverged) as why:
            return _by_rms(rail, members, why.message if isinstance(why, CannotBuild) else "no settled cycle was found")
    others = rail.others_a
    after = {m.id: draws(m.position, "after") for m in members}
    before = {m.id: draws(m.position, "before") for m in members if m.position.lamp is not None}
    known = len(before) == len(members)
    lit_after = _most_lit(rail, members, after)
    lit_before = _most_lit(rail, members, before) if known else ()
    together = _volts(rail, [after[k] for k in lit_after], others)
    was = _volts(rail, [before[k] for k in lit_before], others) if known else None
    taken = tuple(_draw(rail, m, after[m.id], before.get(m.id), together, was, others) for m in members)
    return Budget(
        rail,
        taken,
        others,
        None if was is None else _total([before[k] for k in lit_before], was, others),
        _total([after[k] for k in lit_after], together, others),
    )


def _volts(rail: Rail, lit: list[Draws], others: float) -> FloatArray:
    """Volts behind the source resistance at the three levels with some lamps lit, (3,)."""
    opened = np.array(rail.volts)
    ohm = rail.supply.source_ohm.value
    if ohm <= 0:
        return opened
    return np.array([_level(float(v), ohm, lit, others) for v in opened])


def _level(opened: float, ohm: float, lit: list[Draws], others: float) -> float:
    """V + R·ΣI(V) = Vopen, narrowed grid by grid: the left side only rises with V."""
    low, high = opened * 1e-3, opened
    for _ in range(_ROUNDS):
        v = np.linspace(low, high, _GRID)
        left = v + ohm * (sum((d.amps(v) for d in lit), np.zeros(_GRID)) + others) - opened
        above = np.flatnonzero(left >= 0)
        if not len(above):
            return high
        k = int(above[0])
        if k == 0:
            return low
        low, high = float(v[k - 1]), float(v[k])
        part = float(-left[k - 1] / (left[k] - left[k - 1]))
        answer = low + part * (high - low)
    return answer


def _total(lit: list[Draws], volts: FloatArray, others: float) -> tuple[float, float, float]:
    amps = sum((d.amps(volts) for d in lit), np.zeros(3)) + others
    return float(amps[0]), float(amps[1]), float(amps[2])


def _most_lit(rail: Rail, members: tuple[Member, ...], each: dict[str, Draws]) -> tuple[str, ...]:
    """The lamps that may be lit together at the highest level."""
    top = np.array(rail.volts)
    return _lit_together(members, {m.id: float(each[m.id].amps(top)[2]) for m in members if m.lit == "single"})


def _lit_together(members: tuple[Member, ...], thirst: Mapping[str, float]) -> tuple[str, ...]:
    """The lamps that may be lit together: of those lit one at a time the thirstiest."""
    singles = [m.id for m in members if m.lit == "single"]
    worst = max(singles, key=lambda k: thirst[k], default=None)
    return tuple(m.id for m in members if m.lit != "single" or m.id == worst)


def _draw(
    rail: Rail,
    m: Member,
    after: Draws,
    before: Draws | None,
    together: FloatArray,
    was: FloatArray | None,
    others: float,
) -> Draw:
    alone = _volts(rail, [after], others)
    amps = after.amps(together)
    old = before.amps(was) if before is not None and was is not None else None
    own, all_lit = float(after.light(alone)[1]), float(after.light(together)[1])
    sags = rail.supply.source_ohm.value > 0 and own > 0
    return Draw(
        m.id,
        m.name,
        m.lit,
        None if old is None else (float(old[0]), float(old[1]), float(old[2])),
        (float(amps[0]), float(amps[1]), float(amps[2])),
        float(alone[1]),
        float(together[1]),
        all_lit / own if sags else None,
    )


def _joined(rail: Rail, members: tuple[Member, ...]) -> Budget:
    """All lamps of a rail that alternates as one circuit."""
    own = {m.id: with_strings(m.position) for m in members}
    alone = {k: solve(p, rule=False) for k, p in own.items()}
    thirst = {k: float(s.ac.typical.supply_rms[2]) if s.ac is not None else 0.0 for k, s in alone.items()}
    lit_after = _lit_together(members, thirst)
    after = rail_cycle(rail, [own[k] for k in lit_after], "after")
    known = all(m.position.lamp is not None for m in members)
    lit_before: tuple[str, ...] = ()
    before: RailCycle | None = None
    if known:
        old = {m.id: original_cycle(m.position, rail.volts[2]) for m in members}
        lit_before = _lit_together(members, {k: 0.0 if o is None else o.supply_amps for k, o in old.items()})
        before = rail_cycle(rail, [own[k] for k in lit_before], "before")
    taken = []
    for m in members:
        p = own[m.id]
        # Of lamps that are lit one at a time each stands in the thirstiest's place.
        here = after if m.id in lit_after else rail_cycle(rail, _in_place(members, own, lit_after, m), "after")
        own_v, own_a = _alone(rail, p, alone[m.id])
        was = before
        if before is not None and m.id not in lit_before:
            was = rail_cycle(rail, _in_place(members, own, lit_before, m), "before")
        sags = rail.supply.source_ohm.value > 0 and own_a > 0
        taken.append(
            Draw(
                m.id,
                m.name,
                m.lit,
                None if was is None else _three(was.each_rms[p]),
                _three(here.each_rms[p]),
                own_v,
                float(here.bus_rms[1]),
                float(light_ratio(p.led, here.led[p][1], own_a)) if sags else None,
            )
        )
    return Budget(
        rail, tuple(taken), rail.others_a, None if before is None else _three(before.total_rms), _three(after.total_rms)
    )


def _alone(rail: Rail, position: Position, solved: Solution) -> tuple[float, float]:
    """RMS volts behind the source resistance and the string's current with this lamp alone, usual level."""
    if rail.others_a:
        with_others = rail_cycle(rail, [position], "after")
        return float(with_others.bus_rms[1]), float(with_others.led[position][1])
    # With nothing else on it that is the lamp's own circuit, which is solved already.
    assert solved.ac is not None
    behind = solved.ac.drawn.way.get("loaded", solved.ac.drawn.source)[1]
    return float(np.sqrt((behind**2).mean())), float(solved.usual[1])


def _in_place(members: tuple[Member, ...], own: dict[str, Position], lit: tuple[str, ...], m: Member) -> list[Position]:
    """What is lit with one of those lit one at a time, in place of the one that was taken."""
    singles = {n.id for n in members if n.lit == "single"}
    return [own[m.id], *(own[k] for k in lit if k not in singles)]


def _three(values: FloatArray) -> tuple[float, float, float]:
    return float(values[0]), float(values[1]), float(values[2])


def _by_rms(rail: Rail, members: tuple[Member, ...], why: str) -> Budget:
    """Each lamp alone on a supply that alternates, RMS currents added: the most they come to together."""
    taken = []
    for m in members:
        s = solve(m.position, rule=False)
        assert s.ac is not None
        rms = s.ac.typical.supply_rms
        old = _old_rms(m.position)
        taken.append(
            Draw(
                m.id,
                m.name,
                m.lit,
                old,
                (float(rms[0]), float(rms[1]), float(rms[2])),
                rail.volts[1],
                rail.volts[1],
                None,
            )
        )
    singles = [d for d in taken if d.lit == "single"]
    worst = max(singles, key=lambda d: d.after[2], default=None)
    lit = [d for d in taken if d.lit != "single" or d is worst]
    others = rail.others_a

    def total(of: list[tuple[float, float, float]]) -> tuple[float, float, float]:
        rows = np.array(of).reshape(-1, 3).sum(axis=0) + others
        return float(rows[0]), float(rows[1]), float(rows[2])

    olds = [d.before for d in lit if d.before is not None]
    return Budget(
        rail, tuple(taken), others, total(olds) if len(olds) == len(lit) else None, total([d.after for d in lit]), why
    )


def _old_rms(position: Position) -> tuple[float, float, float] | None:
    """The old lamp's RMS current at the three levels, in its own place."""
    if position.lamp is None:
        return None
    found = [original_cycle(position, v) for v in position.rail.volts]
    low, usual, high = (0.0 if f is None else f.supply_amps for f in found)
    return low, usual, high
