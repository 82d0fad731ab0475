"""How long a battery keeps alight all that hangs on it, after the swaps and before them.

A battery has one life: from fresh until the first of the lamps that are always lit falls under the share of its
first light that it may fall to, or until the charge is spent.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.draws import Member, When, draws
from swapglow.core.parts.cells import Battery
from swapglow.core.supplies.rail import Rail

FloatArray = NDArray[np.float64]

STEPS = 200
# Points of the whole rail's curve, along which it runs down; less than a tenth of its volts lights nothing.
_CURVE = 401
_LEAST_SHARE = 0.1
# A load that is dark draws next to nothing; a nanoamp keeps the time finite.
_LEAST_A = 1e-9


@dataclass(frozen=True)
class Discharge:
    """A battery run down through a load.

    Attributes:
        hours: since fresh, (STEPS,).
        volts: open-circuit volts then.
        amps: current then.
        spent_h: hours until the charge is used up.
    """

    hours: FloatArray
    volts: FloatArray
    amps: FloatArray
    spent_h: float


def discharge(battery: Battery, current: Callable[[FloatArray], FloatArray]) -> Discharge:
    """Run a battery down: dt = dQ / I(V(Q)).

    Args:
        battery: the cells.
        current: amps the load takes at open-circuit volts, shape in = shape out.

    Returns:
        Hours, open volts and amps on the way down, (steps,) each.
    """
    used = np.linspace(0.0, 1.0, STEPS)
    volts = battery.volts(used)
    amps = np.maximum(current(volts), _LEAST_A)
    pace = battery.capacity_ah / amps
    hours = np.concatenate([[0.0], np.cumsum((pace[1:] + pace[:-1]) / 2 * np.diff(used))])
    return Discharge(hours, volts, amps, float(hours[-1]))


def hours_until(run: Discharge, light: FloatArray, level: float) -> float:
    """Hours until a light first falls under ``level``; the whole run where it never does.

    Args:
        run: a discharge.
        light: the light on its way down, (steps,), any unit.
        level: the light it must not fall under, same unit.

    Returns:
        Hours.
    """
    below = np.flatnonzero(light < level)
    if not len(below):
        return run.spent_h
    k = int(below[0])
    if k == 0:
        return 0.0
    before, after = float(light[k - 1]), float(light[k])
    part = (before - level) / (before - after) if before > after else 0.0
    return float(run.hours[k - 1] + part * (run.hours[k] - run.hours[k - 1]))


@dataclass(frozen=True)
class Life:
    """A battery's life with all on it that is counted.

    Attributes:
        hours: until the first of its lamps is under its share, or the charge is spent.
        run: the discharge, to the last of the charge.
        ends: id of the lamp that falls under its share first; "" where the charge is spent before any does.
        light: each counted lamp's light over the run, as a share of its first, (STEPS,), by id.
    """

    hours: float
    run: Discharge
    ends: str
    light: Mapping[str, FloatArray]


def counted(members: Sequence[Member]) -> tuple[Member, ...]:
    """The lamps that a life counts: those always lit, or all where none is."""
    return tuple(m for m in members if m.lit == "always") or tuple(members)


def battery_life(rail: Rail, members: Sequence[Member], when: When) -> Life | None:
    """The life of a rail's battery with all that hangs on it.

    Flashers count by their lit share. Lamps that are lit now and then are not counted beside lamps that are
    always lit.

    Args:
        rail: the rail.
        members: its lamps.
        when: with the LEDs, or with the old lamps.

    Returns:
        The life; None without a battery or a lamp, and where an old lamp is asked for that is not known.

    Raises:
        NotConverged: a lamp has no answer.
    """
    battery, on = rail.supply.battery, counted(members)
    if battery is None or not on or (when == "before" and any(m.position.lamp is None for m in on)):
        return None
    each = {m.id: draws(m.position, when) for m in on}
    others = rail.others_a
    v = np.linspace(rail.volts[0] * _LEAST_SHARE, rail.volts[2], _CURVE)
    taken = {k: d.amps(v) for k, d in each.items()}
    lit_a = sum(taken.values(), np.zeros(_CURVE)) + others
    mean_a = sum((m.position.driver.duty * taken[m.id] for m in on), np.zeros(_CURVE)) + others
    # V + R·I(V) only rises with V, so that the curve may be read the other way round.
    opened_v = v + rail.supply.source_ohm.value * lit_a

    def behind(opened: FloatArray) -> FloatArray:
        return np.interp(opened, opened_v, v)

    run = discharge(battery, lambda opened: np.interp(behind(opened), v, mean_a))
    bus = behind(run.volts)
    light = {k: _beside_first(np.interp(bus, v, d.light(v))) for k, d in each.items()}
    lasts = {m.id: hours_until(run, light[m.id], m.position.glow_floor) for m in on}
    first = min(lasts, key=lambda k: lasts[k])
    return Life(lasts[first], run, first if lasts[first] < run.spent_h else "", light)


def _beside_first(light: FloatArray) -> FloatArray:
    return light / max(float(light[0]), 1e-15)
