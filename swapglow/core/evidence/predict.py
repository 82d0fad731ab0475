"""What the meters would show if something were so: the circuit solved with it, wherever rail, parts and meter stand.

A draw is one standing of all that is not known exactly, each in its own sigmas: rail, LED, resistor, driver's drop, the
meter's burden, and how large a fault is. Draws of many hypotheses whose circuits are the same but for values are solved
as one batch.
"""

from collections.abc import Container, Hashable, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import Solution
from swapglow.core.analysis.states import rails_in, state_of
from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.evidence.by_eye import PART
from swapglow.core.evidence.hypotheses import PENCILLED, Hypothesis, Size, lot_v, one_string
from swapglow.core.evidence.metered import VOLTS_ON_AC, metered, over_a_cycle, volts_of
from swapglow.core.measurement.reading_after import LOOKS, POWER_OFF, ReadingAfter
from swapglow.core.network.cases import Cases
from swapglow.core.network.fault import Fault

FloatArray = NDArray[np.float64]

# What is not known exactly, in the order of a draw.
UNKNOWNS = ("rail", "led", "ohms", "drop", "burden", "size")
RAIL, LED, OHMS, DROP, BURDEN, SIZE = range(len(UNKNOWNS))
# Ends as typed are taken for two sigma either way of the middle.
_SIGMAS = 4.0
_LEAST_RAIL, _LEAST_DROP, _LEAST_LED_V, _LEAST_OHMS = 0.003, 0.1, 0.01, 0.002
# A milliamp range's shunt and fuse add 1 to 10 Ω (common practice).
_BURDEN_OHM, _BURDEN_SHARE = 2.5, 0.3
# No resistance at all, where some draws of a batch have one.
_NONE = {"string": 1e-6, "plus": 1e-6, "minus": 1e-6, "across": 1e12, "past": 1e12}
# Where a cycle with an open part does not come to rest, what leaks so little that no meter sees it.
_ALMOST_OPEN = (1e8, 1e7, 3e6, 1e6)
# A string of less light than this beside lit ones is a dark one.
_DARK = 0.02
# On a supply that alternates all of these come from one solution; a look with another LED is another circuit.
_OF_ONE_CYCLE = (*VOLTS_ON_AC, "current", "look")
_UNMETERED = ReadingAfter("", "current", 0.0)
# Up to this share of the string's resistance a meter only divides the current.
_LIGHT = 0.05
# How far a draw may go, in sigmas.
FARTHEST = 4.0


@dataclass(frozen=True)
class Draws:
    """A hypothesis at some standings.

    Attributes:
        of: the hypothesis.
        at: each unknown in its sigmas, (draws, unknowns).
    """

    of: Hypothesis
    at: FloatArray


def is_dear(s: Solution) -> bool:
    """Whether each draw is a whole cycle to solve."""
    return s.position.rail.supply.alternates


def predict(
    s: Solution, every: Sequence[Draws], readings: Sequence[ReadingAfter], beside: Container[str] = ()
) -> list[FloatArray]:
    """What each reading shows at each draw.

    Args:
        s: the solved position.
        every: what to solve.
        readings: what is read; their values do not matter.
        beside: ids of those that are compared with a sister's: the rail, which both share, stands still there, and of
            LED and resistor there are two.

    Returns:
        For each, (draws, readings), A, V or Ω; not a number where a circuit has no answer.
    """
    p = one_string(s)
    out = [np.full((len(d.at), len(readings)), np.nan) for d in every]
    cycle = [k for k, r in enumerate(readings) if p.rail.supply.alternates and r.kind in _OF_ONE_CYCLE]
    # One cycle gives all that meters and an eye can say of it.
    for columns in [[k] for k in range(len(readings)) if k not in cycle] + [cycle] * bool(cycle):
        reading = readings[columns[0]]
        seen = [_with_other_led(d) for d in every] if reading.kind == "look_other" else every
        groups: dict[Hashable, list[int]] = {}
        for i, d in enumerate(seen):
            groups.setdefault(_circuit(p, d.of.fault, reading), []).append(i)
        for members in groups.values():
            found = _solved(
                s, [_beside(seen[m], reading.id in beside) for m in members], [readings[k] for k in columns]
            )
            for i, values in zip(members, found, strict=True):
                out[i][:, columns] = values
    current = [k for k, r in enumerate(readings) if r.kind == "current"]
    for i, d in enumerate(every):
        if d.of.reads_nothing:
            out[i][:, current] = 0.0
    return out


def _with_other_led(d: Draws) -> Draws:
    """Draws with a good LED of its kind in the LED's place."""
    parts = tuple(f for f in d.of.fault.parts if f.part != "D1")
    other = replace(d.of, fault=replace(d.of.fault, parts=parts), vf=None)
    return Draws(other if parts else replace(other, size=_none_of(d.of)), d.at)


def _none_of(h: Hypothesis) -> Size | None:
    """A size that is still there once the LED's own fault is gone."""
    of_the_led = h.size is not None and h.size.where == "fault" and bool(h.fault.parts) and not h.fault.ohms
    return None if of_the_led else h.size


def _beside(d: Draws, yes: bool) -> Draws:
    """Draws as they differ from a sister's, where they are compared with one."""
    if not yes:
        return d
    at = d.at.copy()
    at[:, [RAIL, DROP]] = 0.0
    at[:, [LED, OHMS, BURDEN]] *= np.sqrt(2.0)
    return Draws(d.of, at)


def _circuit(p: Position, fault: Fault, reading: ReadingAfter) -> Hashable:
    """Faults that one batch solves have the same circuit but for values."""
    wires: tuple[str, ...] = ()
    alternates = p.rail.supply.alternates
    if alternates or reading.state == "off":
        # Over a cycle, and where only leakage flows, a micro-ohm that stands for a sound wire drowns what there is.
        wires = tuple(n for n in fault.ohms if not (alternates and n == "string"))
    return wires, tuple((f.part, f.how) for f in fault.parts if f.how != "share")


def _solved(s: Solution, members: Sequence[Draws], readings: Sequence[ReadingAfter]) -> list[FloatArray]:
    """Readings of hypotheses of one circuit: together, else each on its own, else each draw."""
    try:
        return _together(s, members, readings)
    except CircuitError:
        if len(members) > 1:
            return [values for d in members for values in _solved(s, [d], readings)]
    only = members[0]
    if len(only.at) > 1:
        return [np.concatenate([_solved(s, [replace(only, at=row[None])], readings)[0] for row in only.at])]
    for ohm in _ALMOST_OPEN:
        leaking = tuple(replace(f, size=ohm) if f.how == "open" else f for f in only.of.fault.parts)
        almost = replace(only, of=replace(only.of, fault=replace(only.of.fault, parts=leaking)))
        try:
            return _together(s, [almost], readings)
        except CircuitError:
            continue
    return [np.full((1, len(readings)), np.nan)]


def _together(s: Solution, members: Sequence[Draws], readings: Sequence[ReadingAfter]) -> list[FloatArray]:
    """Readings of one batch, (draws, readings) for each hypothesis; several readings are volts on AC."""
    p, reading = one_string(s), readings[0]
    cases, burden = _cases(s, members, reading)
    if p.rail.supply.alternates and reading.kind in _OF_ONE_CYCLE:
        return _of_one_cycle(s, members, readings, cases)
    if reading.kind in LOOKS:
        return _split(_looked(s, members, cases, metered(p, _UNMETERED, cases)), members)
    read = metered(p, reading, cases, burden)[:, None]
    read = np.broadcast_to(read, (sum(len(d.at) for d in members), len(readings)))
    whole = s.position.branches
    if reading.kind == "current" and reading.of == "all" and whole > 1 and p.branches > 1:
        # Strings that are not drawn apart: what is of one string leaves the others as they should be, what is of
        # rail, wires or meter is in all of them.
        usual = Cases(p.rail.volts[1], p.led.vf_typ, s.sizing.total_ohm, p.drop_v)
        rest = float(metered(p, reading, usual)[0]) / p.branches * (whole - 1)
        alone = np.concatenate([np.full(len(d.at), d.of.in_one_string) for d in members])[:, None]
        one = read / p.branches
        read = np.where(alone, one + rest, one * whole)
    return _split(read, members)


def _split(read: FloatArray, members: Sequence[Draws]) -> list[FloatArray]:
    """Readings of a batch, (all draws, readings), for each hypothesis."""
    return list(np.split(np.asarray(read, dtype=float), np.cumsum([len(d.at) for d in members])[:-1]))


def _of_one_cycle(
    s: Solution, members: Sequence[Draws], readings: Sequence[ReadingAfter], cases: Cases
) -> list[FloatArray]:
    """What meters and an eye say of the same cycle, (draws, readings) for each hypothesis."""
    p = one_string(s)
    found = over_a_cycle(p, cases)
    columns = []
    for r in readings:
        if r.kind == "current":
            columns.append(_with_burden(s, members, r, found.amps, cases))
        elif r.kind in LOOKS:
            columns.append(_looked(s, members, cases, found.amps)[:, 0])
        else:
            columns.append(volts_of(found, r.kind))
    wide = (sum(len(d.at) for d in members),)
    return _split(np.stack([np.broadcast_to(c, wide) for c in columns], axis=1), members)


def _with_burden(
    s: Solution, members: Sequence[Draws], reading: ReadingAfter, amps: FloatArray, cases: Cases
) -> FloatArray:
    """A current over a cycle with the meter in it: in the string a few ohms more divide it (Ohm)."""
    p, whole = one_string(s), s.position.branches
    burden = _cases(s, members, reading)[1]
    ohms = np.asarray(cases.ohms)
    if float(np.max(burden)) > _LIGHT * float(np.min(ohms)):
        amps = metered(p, replace(reading, of="one"), cases, burden)
    else:
        amps = amps * ohms / (ohms + burden)
    if reading.of == "one" or whole == 1:
        return np.asarray(amps)
    # What is of one string leaves the others as they should be.
    alone = np.concatenate([np.full(len(d.at), d.of.in_one_string) for d in members])
    return np.asarray(np.where(alone, amps + float(s.usual[1]) * (whole - 1), amps * whole))


def _looked(s: Solution, members: Sequence[Draws], cases: Cases, amps: FloatArray) -> FloatArray:
    """Light beside what it should be, by the current of the string that is in question, (all draws, 1)."""
    p = one_string(s)
    amps = np.broadcast_to(np.abs(amps), (sum(len(d.at) for d in members),)).copy()
    own = cases.fault.parts if cases.fault is not None else ()
    wrong = next((f for f in own if f.part == "D1"), None)
    if wrong is not None and wrong.how == "leaky" and p.in_series == 1:
        # What passes beside the junction gives no light.
        amps = np.maximum(amps - p.led.vf_typ / np.asarray(wrong.size), 0.0)
    ratio = np.maximum(amps / float(s.usual[1]), 1e-9)
    if wrong is not None and wrong.how == "short":
        ratio[:] = 1e-9
    if wrong is not None and wrong.how == "share":
        # One of a string is bridged: it alone is dark.
        ratio = np.where((np.asarray(wrong.size) < 1) & (ratio >= _DARK), PART, ratio)
    alone = np.concatenate([np.full(len(d.at), d.of.in_one_string) for d in members])
    if s.position.branches > 1:
        # The other strings stay lit.
        ratio = np.where(alone & (ratio < _DARK), PART, ratio)
    return np.asarray(ratio[:, None])


def _cases(s: Solution, members: Sequence[Draws], reading: ReadingAfter) -> tuple[Cases, FloatArray]:
    """All draws as one batch, and what the meter adds in each, Ω."""
    p = one_string(s)
    at = np.concatenate([np.clip(d.at, -FARTHEST, FARTHEST) for d in members])
    hyps = [d.of for d in members for _ in range(len(d.at))]

    def each(name: str) -> FloatArray:
        return np.array([getattr(h, name) for h in hyps], dtype=float)

    sizes = np.array([1.0 if h.size is None else h.size.median for h in hyps])
    spreads = np.array([0.0 if h.size is None else h.size.spread for h in hyps])
    sizes = sizes * np.exp(spreads * at[:, SIZE])
    where = np.array(["" if h.size is None else h.size.where for h in hyps])

    usual = p.rail.volts[1]
    wide = np.array([rail_sigma(p, h) for h in hyps])
    rail = usual * each("rail") * np.where(where == "rail", sizes, 1.0) * np.maximum(1 + wide * at[:, RAIL], 1e-4)
    rail = rails_in(p, state_of(p, reading.state), rail)

    vf = np.array([p.led.vf_typ if h.vf is None else h.vf for h in hyps])
    vf = np.maximum(vf + np.array([led_sigma(p, h) for h in hyps]) * at[:, LED], 0.5)

    ohms = s.sizing.total_ohm * each("ohms") * np.where(where == "ohms", sizes, 1.0)
    ohms = ohms * (1 + ohms_sigma(p) * at[:, OHMS])
    burden = reading.burden_ohm + np.where(where == "burden", sizes, 0.0)
    burden = burden + max(_BURDEN_SHARE * reading.burden_ohm, _BURDEN_OHM) * np.abs(at[:, BURDEN])
    if p.rail.supply.alternates and reading.of == "all":
        # One meter in the lead of all strings is so many times as much in each of them.
        burden = burden * (s.position.branches / p.branches)
    fault = _faults(hyps, np.where(where == "fault", sizes, 1.0))
    if p.rail.supply.alternates and fault.string is not None and reading.kind not in POWER_OFF:
        # In the string it only adds to the resistor.
        ohms = ohms + np.where(np.asarray(fault.string) > _NONE["string"], fault.string, 0.0)
        fault = replace(fault, string=None)
    least, middle, most = p.drops
    drop: float | FloatArray = middle
    if not p.rail.supply.alternates and (most > least or middle):
        drop = np.maximum(middle + max((most - least) / _SIGMAS, _LEAST_DROP * middle) * at[:, DROP], 0.0)
    held = None
    if p.held_v[1]:
        # What a fixed regulator holds is as lucky as the rail before it.
        held = p.held_v[1] + (p.held_v[2] - p.held_v[0]) / _SIGMAS * at[:, RAIL]
    return Cases(rail, vf, ohms, drop, held=held, fault=None if fault.empty else fault), burden


def rail_sigma(p: Position, h: Hypothesis) -> float:
    """How far the rail may be from its usual.

    Args:
        p: the swap.
        h: what may be so.

    Returns:
        One sigma, as a share of the usual.
    """
    low, usual, high = p.rail.volts
    pencilled = PENCILLED / 2 if p.rail.usual.source.is_assumed else 0.0
    return max(h.rail_share, (high - low) / _SIGMAS / usual, pencilled, _LEAST_RAIL)


def led_sigma(p: Position, h: Hypothesis) -> float:
    """How far the LEDs' forward voltage may be from what is expected.

    Args:
        p: the swap.
        h: what may be so.

    Returns:
        One sigma, V.
    """
    typed = (p.led.vf_high - p.led.vf_low) / _SIGMAS
    # What was typed as one figure was read; a catalogue's range is wider where the lots are.
    return max(h.led_v, typed, lot_v(p)) if typed > 0 else max(h.led_v, _LEAST_LED_V)


def ohms_sigma(p: Position) -> float:
    """How far a resistor may be from its value: one sigma, as a share."""
    return max(p.ohm_spread / 2, _LEAST_OHMS)


def _faults(hyps: Sequence[Hypothesis], sizes: FloatArray) -> Fault:
    """The faults of hypotheses of one circuit, each value for each draw."""
    ohms: dict[str, FloatArray] = {}
    for name, none in _NONE.items():
        given = [getattr(h.fault, name) for h in hyps]
        if any(v is not None for v in given):
            there = np.array([v is not None for v in given])
            values = np.array([none if v is None else float(v) for v in given])
            # One ohm stands for the size; what is open has none.
            ohms[name] = np.where(there & (values == 1.0), sizes, values)
    names = list(dict.fromkeys((f.part, f.how) for h in hyps for f in h.fault.parts))
    parts = []
    for part, how in names:
        own = [next((f for f in h.fault.parts if (f.part, f.how) == (part, how)), None) for h in hyps]
        values = np.array([1.0 if f is None else float(np.asarray(f.size)) for f in own])
        sized = np.array([f is not None and h.size is not None for f, h in zip(own, hyps, strict=True)])
        size = np.where(sized, sizes, values)
        first = next(f for f in own if f is not None)
        parts.append(replace(first, size=1.0 if np.all(size == 1.0) else size))
    return Fault(parts=tuple(parts), **ohms)
