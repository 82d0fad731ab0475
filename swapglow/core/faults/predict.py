"""What each suspect would make the meters show, and how far rail, parts and meter move that together."""

from collections.abc import Hashable, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import Solution
from swapglow.core.analysis.states import rails_in, state_of
from swapglow.core.engine.netlist import Param
from swapglow.core.faults.metered import metered
from swapglow.core.faults.suspect import Suspect
from swapglow.core.measurement.reading_after import ReadingAfter, ReadingKind
from swapglow.core.network.cases import Cases
from swapglow.core.network.fault import Fault
from swapglow.core.parts.meter import ACCURACY

FloatArray = NDArray[np.float64]

# What moves all readings of one lamp together, in order; each by one sigma.
_MOVES = ("nothing", "rail", "led", "ohms", "drop", "size", "burden")
# Where a size's move stands among those that are told apart.
SIZE = _MOVES.index("size") - 1
# And those that a sister on the same rail shares.
RAIL, DROP = _MOVES.index("rail") - 1, _MOVES.index("drop") - 1
# Ends as typed are taken for two sigma either way of the middle.
_SIGMAS = 4.0
_LEAST_RAIL, _LEAST_DROP = 0.003, 0.1
# A milliamp range's shunt and fuse add 1 to 10 Ω (common practice).
_BURDEN_OHM, _BURDEN_SHARE = 2.5, 0.3
# A meter's last digits, of what it usually reads there.
_DIGITS = 0.003
# No resistance at all, where some cases of a batch have one.
_NONE = {"string": 1e-6, "plus": 1e-6, "minus": 1e-6, "across": 1e12, "past": 1e12}


@dataclass(frozen=True)
class Predicted:
    """Readings of every suspect.

    Attributes:
        mean: (suspects, readings), A, V or Ω.
        moved: how far each goes by one sigma of rail, LED, resistor, drop, size and burden,
            (suspects, readings, 6); the same move is behind all readings of a suspect.
        meter: one sigma of the meter's own, (suspects, readings).
    """

    mean: FloatArray
    moved: FloatArray
    meter: FloatArray


def predict(s: Solution, every: Sequence[Suspect], readings: Sequence[ReadingAfter]) -> Predicted:
    """What each suspect makes each reading show.

    Args:
        s: the solved position.
        every: the suspects; the first is a lamp with nothing wrong.
        readings: what is read.

    Returns:
        Means and how they move.

    Raises:
        NotConverged: a case has no answer.
    """
    shape = (len(every), len(readings))
    values = np.zeros((*shape, len(_MOVES)))
    for k, reading in enumerate(readings):
        groups: dict[tuple[str, Hashable], list[int]] = {}
        for i, suspect in enumerate(every):
            kind, circuit = _group(s, suspect, reading)
            # The sound lamp alone is moved where each move is a cycle.
            groups.setdefault((kind, (circuit, i == 0 and _dear(s))), []).append(i)
        for (kind, _circuit), members in groups.items():
            if kind != "nothing":
                group = [every[i] for i in members]
                values[members, k] = _solved(s, group, reading, kind, only=_dear(s) and 0 not in members)
    mean = values[..., 0]
    moved = values[..., 1:] - mean[..., None]
    if _dear(s):
        # Each move of each suspect would be a cycle to settle: all are moved as the sound lamp is, by the same shares.
        usual = np.where(np.abs(mean[0]) > 0, mean[0], np.inf)
        own = moved[..., SIZE]
        moved = np.abs(mean)[..., None] / np.abs(usual)[None, :, None] * moved[0][None]
        moved[..., SIZE] = own
    floor = _DIGITS * np.maximum(np.abs(mean[0]), 1e-6)
    meter = np.hypot(ACCURACY / 2 * np.abs(mean), floor)
    return Predicted(mean, moved, meter)


def _dear(s: Solution) -> bool:
    """Whether each case is a whole cycle to settle."""
    return s.position.rail.supply.alternates and s.position.rectification.reservoir


def _group(s: Solution, suspect: Suspect, reading: ReadingAfter) -> tuple[str, Hashable]:
    """Suspects that one batch solves: the same circuit, other values."""
    kind = suspect.reads.get(reading.id, reading.kind)
    wires: tuple[Param | None, ...] = ()
    if s.position.rail.supply.alternates:
        # Over a cycle, circuits that differ in their wires are quicker solved one by one than side by side.
        rest = _over_a_cycle(s, suspect.fault)
        wires = rest.plus, rest.across
    elif reading.state == "off":
        # Where only leakage flows, a micro-ohm that stands for a sound wire drowns it in rounding: each its own wires.
        wires = tuple(None if getattr(suspect.fault, name) is None else 1.0 for name in _NONE)
    return kind, (suspect.position, suspect.fault.led, wires)


def _over_a_cycle(s: Solution, fault: Fault) -> Fault:
    """What of a fault is no plain addition to the string's own resistance, or to what stands behind the rail."""
    behind = _dear(s) and not s.position.driver.dropper_ohm
    return replace(fault, string=None, plus=None if behind else fault.plus)


def _solved(s: Solution, members: Sequence[Suspect], reading: ReadingAfter, kind: str, *, only: bool) -> FloatArray:
    """Readings of suspects of one group, (members, moves); with ``only`` moved by their size alone."""
    cases, burden = _cases(s, members, reading, only=only)
    p = members[0].position
    if kind == "both":
        parts: tuple[ReadingKind, ...] = ("led_volts", "resistor_volts")
        read = sum(metered(p, reading, cases, part, burden) for part in parts)
    else:
        read = metered(p, reading, cases, kind, burden)  # type: ignore[arg-type]  # one of the kinds
    out = np.asarray(read).reshape(len(members), -1)
    if only:
        unmoved, sized = out.T
        out = np.repeat(unmoved[:, None], len(_MOVES), axis=1)
        out[:, SIZE + 1] = sized
    if reading.of == "all" and s.position.branches > 1 and p.branches > 1 and kind == "current":
        # Strings that cannot be drawn apart: one is faulty, the others are as they should be.
        healthy = metered(
            s.position,
            replace(reading, of="one"),
            Cases(s.position.rail.volts[1], s.position.led.vf_typ, s.sizing.total_ohm, s.position.drop_v),
        )
        rest = float(healthy[0]) * (s.position.branches - 1)
        return np.asarray(out / s.position.branches + rest)
    return np.asarray(out)


def _cases(s: Solution, members: Sequence[Suspect], reading: ReadingAfter, *, only: bool) -> tuple[Cases, FloatArray]:
    """The moves of all members as one batch, or only the unmoved and its size's; and what the meter adds in each."""
    p = members[0].position
    place = np.tile(np.arange(len(_MOVES)), len(members))
    pick = np.isin(place, (0, SIZE + 1)) if only else place >= 0
    low, usual, high = p.rail.volts
    moves = len(_MOVES)
    rail = usual * np.array([m.rail for m in members])
    rail = rails_in(p, state_of(p, reading.state), rail)
    wide = np.array([m.wide for m in members])
    rails = np.repeat(rail[:, None], moves, axis=1)
    rails[:, 1] += wide * np.maximum((high - low) / _SIGMAS / usual, _LEAST_RAIL) * rail
    vf = np.full((len(members), moves), p.led.vf_typ)
    vf[:, 2] += wide * max((p.led.vf_high - p.led.vf_low) / _SIGMAS, 0.003)
    ohms = np.repeat((s.sizing.total_ohm * np.array([m.ohms for m in members]))[:, None], moves, axis=1)
    ohms[:, 3] *= 1 + wide * max(p.ohm_spread / 2, 0.002)
    least, middle, most = p.drops
    drop = np.full((len(members), moves), middle)
    drop[:, 4] += max((most - least) / _SIGMAS, _LEAST_DROP * middle) * wide
    size = 1 + np.array([m.spread for m in members])
    own = np.array([m.rail != 1.0 for m in members])
    rails[:, 5] *= np.where(own, size, 1.0)
    burden = np.repeat(np.array([m.burden + reading.burden_ohm for m in members])[:, None], moves, axis=1)
    burden[:, 5] += np.array([m.burden * m.spread for m in members])
    burden[:, 6] += max(_BURDEN_SHARE * reading.burden_ohm, _BURDEN_OHM)
    source = None
    if p.rail.supply.alternates:
        fault = _over_a_cycle(s, members[0].fault)
        ohms = ohms + _in_series(members, "string", size)
        behind = p.rail.supply.source_ohm.value
        if _dear(s) and fault.plus is None:
            source = (behind + _in_series(members, "plus", size)).ravel()[pick]
    else:
        fault = _together(members, size).each(lambda v: v[pick])
    drops = middle if p.rail.supply.alternates else drop.ravel()[pick]
    held = None
    if p.held_v[1]:
        # What a fixed regulator holds is as lucky as the rail before it.
        volts = np.full((len(members), moves), p.held_v[1])
        volts[:, 1] += (p.held_v[2] - p.held_v[0]) / _SIGMAS
        held = volts.ravel()[pick]
    cases = Cases(
        rails.ravel()[pick],
        vf.ravel()[pick],
        ohms.ravel()[pick],
        drops,
        source,
        held=held,
        fault=None if fault.empty else fault,
    )
    return cases, burden.ravel()[pick]


def _in_series(members: Sequence[Suspect], place: str, size: FloatArray) -> FloatArray:
    """A resistance that only adds to one that is there, (members, moves)."""
    ohms = np.array([getattr(m.fault, place) or 0.0 for m in members])
    out = np.repeat(ohms[:, None], len(_MOVES), axis=1)
    out[:, 5] *= size
    return np.asarray(out)


def _together(members: Sequence[Suspect], size: FloatArray) -> Fault:
    """The faults of suspects whose circuit is the same, each value for each move."""
    values: dict[str, FloatArray] = {}
    for name, none in _NONE.items():
        given = [getattr(m.fault, name) for m in members]
        if any(v is not None for v in given):
            column = np.repeat(np.array([none if v is None else v for v in given])[:, None], len(_MOVES), axis=1)
            there = np.array([v is not None for v in given])
            column[:, 5] *= np.where(there, size, 1.0)
            values[name] = column.ravel()
    return Fault(led=members[0].fault.led, **values)
