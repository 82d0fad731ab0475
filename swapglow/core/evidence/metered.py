"""What a meter shows at a fitted lamp: each figure its own part's, the meter in the circuit."""

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.ac_cycle import MeterCycle, meter_cycle
from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.solution import ac_cases, current
from swapglow.core.analysis.states import state_of
from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import Param, Resistor
from swapglow.core.engine.operating_point import OperatingPoint
from swapglow.core.evidence.by_eye import likeliest
from swapglow.core.measurement.reading_after import (
    DIODE_RANGE,
    ENDLESS,
    LOOKS,
    ReadingAfter,
    ReadingKind,
    in_sentence,
    unit_of,
)
from swapglow.core.network.cases import Cases
from swapglow.core.network.fault import Fault, PartFault
from swapglow.core.network.solve import lamp_amps, point_of, resistor_amps, string_amps
from swapglow.core.parts.meter import USUAL_INPUT_OHM
from swapglow.core.quantities import Shown, shown

FloatArray = NDArray[np.float64]

# A meter's diode range drives about a milliamp and shows nothing from some three volts on (common practice).
DIODE_RANGE_A = 1e-3
DIODE_RANGE_V = 3.0
# Where a diode range's "OL" stands among volts, to be compared.
OL_V = 6.0
# What one cycle gives on volts ranges.
VOLTS_ON_AC: tuple[ReadingKind, ...] = ("led_volts", "lamp_volts", "supply_volts")
# Across which parts each volts reading is taken; none needs no meter of its own there.
_OVER: dict[ReadingKind, str] = {
    "led_volts": "leds",
    "lamp_volts": "lamp",
    "supply_volts": "supply",
    "plus_volts": "plus",
    "minus_volts": "minus",
}


def metered(position: Position, reading: ReadingAfter, cases: Cases, burden: Param | None = None) -> FloatArray:
    """What the meter would show in each case.

    On a steady supply each figure is its own part's in the solved circuit: a resistor's volts carry what a
    shunt beyond it draws, and a volts range draws its own little. On one that alternates a DC range shows
    averages, and the volts at the lamp are their RMS.

    Args:
        position: the swap, as it stands.
        reading: what is read, with what the meter adds.
        cases: what to solve, (samples,) each; their resistance is the string's own.
        burden: what the meter adds to a current's loop, Ω; None takes what was typed.

    Returns:
        A, V or Ω by the kind, (samples,).

    Raises:
        NotConverged: a case has no answer.
    """
    p, kind = position, reading.kind
    added = reading.burden_ohm if burden is None else burden
    fault = cases.fault or Fault()
    if kind == "resistor_ohms":
        return _on_ohms_range(p, cases, fault.parts)
    if kind in DIODE_RANGE:
        return _on_diode_range(p, cases, fault.parts, turned=kind == "led_turned")
    if p.rail.supply.alternates:
        if kind != "current":
            return volts_of(over_a_cycle(p, cases), kind)
        met = replace(cases, ohms=cases.ohms + added * (p.branches if reading.of == "all" else 1))
        amps = current(p, met)
        return np.asarray(amps * p.branches if reading.of == "all" else amps)
    point = point_of(p, replace(cases, fault=_with_meter(fault, reading, added)), state_of(p, reading.state).solved)
    if kind == "current":
        return through(p, point, reading)
    if kind == "resistor_volts":
        # Of two halves, one in each lead, a meter is held across one.
        return np.asarray(np.abs(point.across("R1")) if not p.set_by_ohms else resistor_amps(p, point) * cases.ohms)
    return _across(point, f"Rm{_OVER[kind]}")


def over_a_cycle(position: Position, cases: Cases) -> MeterCycle:
    """What meters show over a cycle, those on a volts range across their places; one solution gives all of them.

    Args:
        position: the swap on a supply that alternates.
        cases: what to solve, (samples,) each.

    Returns:
        V and A, (samples,) each.

    Raises:
        NotConverged: a case has no answer.
    """
    meters = {f"over_{_OVER[kind]}": USUAL_INPUT_OHM for kind in VOLTS_ON_AC}
    met = replace(cases, fault=replace(cases.fault or Fault(), **meters))  # type: ignore[arg-type]  # by their names
    return meter_cycle(position, ac_cases(position, met), size(position).farads)


def volts_of(cycle: MeterCycle, kind: ReadingKind) -> FloatArray:
    """What a volts range shows of a cycle.

    Args:
        cycle: solved.
        kind: one of :data:`VOLTS_ON_AC`.

    Returns:
        V, (samples,).
    """
    shown = {"supply_volts": cycle.feed, "lamp_volts": cycle.lamp, "led_volts": np.abs(cycle.over_leds)}
    return shown[kind]


def comparable(reading: ReadingAfter) -> float:
    """A reading's value as predictions give it: a meter that shows no end stands above every volt it shows."""
    return min(reading.value, OL_V) if reading.kind in DIODE_RANGE else reading.value


def as_shown(value: float, kind: ReadingKind, origin: str, digits: int = 3) -> Shown:
    """A prediction as the meter would write it.

    Args:
        value: A, V or Ω; :data:`OL_V` for no end.
        kind: what is read.
        origin: where it came from, in words.
        digits: significant figures.

    Returns:
        The figure; under the meter's last digit it is nothing.
    """
    if kind in LOOKS:
        return replace(shown(value, unit_of(kind), origin), number=in_sentence(likeliest(value)), unit="")
    if kind in DIODE_RANGE and value >= OL_V * 0.9:
        return no_end(shown(value, unit_of(kind), origin))
    return shown(0.0 if abs(value) < last_digit(kind) else value, unit_of(kind), origin, digits=digits)


def as_taken(reading: ReadingAfter, origin: str) -> Shown:
    """A reading as it was taken.

    Args:
        reading: as taken.
        origin: where it came from, in words.

    Returns:
        The figure, what was seen, or no end.
    """
    figure = shown(reading.value, reading.unit, reading.note or origin)
    if reading.kind in LOOKS:
        return replace(figure, number=reading.text, unit="")
    return no_end(figure) if reading.value >= ENDLESS else figure


def no_end(figure: Shown) -> Shown:
    """A figure as a meter writes it where nothing flows."""
    return replace(figure, number="OL", unit="")


def last_digit(kind: ReadingKind) -> float:
    """About the least a hand meter shows, A, V or Ω."""
    return 1e-6 if kind == "current" else 1e-3


def through(position: Position, point: OperatingPoint, reading: ReadingAfter) -> FloatArray:
    """The current a meter in series shows: one string's, or what flows in the lamp's wires.

    Args:
        position: the swap.
        point: its network solved.
        reading: which of the two.

    Returns:
        Amps, (samples,).
    """
    if reading.of == "one":
        return string_amps(position, point)
    beside = point.current("Racross") if _has(point, "Racross") else 0.0
    return np.asarray(lamp_amps(position, point) + beside)


def _with_meter(fault: Fault, reading: ReadingAfter, added: Param) -> Fault:
    """The fault with the meter in the circuit."""
    kind = reading.kind
    if kind == "current":
        if not np.any(added):
            return fault
        more = np.maximum(added, _LEAD_OHM)
        if reading.of == "all":
            return replace(fault, plus=more + (0.0 if fault.plus is None else fault.plus))
        return replace(fault, string=more + (0.0 if fault.string is None else fault.string))
    over = {f"over_{_OVER[kind]}": USUAL_INPUT_OHM} if kind in _OVER else {}
    return replace(fault, **over)  # type: ignore[arg-type]  # a resistance by its name


# Leads of a meter that adds nothing.
_LEAD_OHM = 1e-6


def _has(point: OperatingPoint, name: str) -> bool:
    return any(e.name == name for e in point.circuit.elements)


def _across(point: OperatingPoint, name: str) -> FloatArray:
    """Volts over a part; none where its two ends are one node."""
    if not _has(point, name):
        return np.zeros_like(point.across("Vrail"))
    return np.asarray(np.abs(point.across(name)))


def _on_ohms_range(p: Position, cases: Cases, parts: tuple[PartFault, ...]) -> FloatArray:
    """The resistor by itself, one lead lifted; of two halves the first."""
    ohms = cases.ohms / p.resistor_parts * np.ones(cases.samples)
    for f in parts:
        if f.part == "R1":
            stands = f.on(Resistor("R1", "a", "b", ohms))[0]
            assert isinstance(stands, Resistor)
            ohms = stands.ohms * np.ones(cases.samples)
    return np.asarray(ohms)


def _on_diode_range(p: Position, cases: Cases, parts: tuple[PartFault, ...], *, turned: bool) -> FloatArray:
    """One LED on the meter's diode range, or the one of a string that reads otherwise than the rest."""
    wrong = next((f for f in parts if f.part == "D1"), None)
    how = "" if wrong is None else wrong.how
    volts = np.full(cases.samples, 0.0 if how == "short" else OL_V)
    if how not in ("open", "short") and turned == (how == "turned"):
        vf = np.asarray(p.led.junction(cases.vf, p.celsius).volts(DIODE_RANGE_A))
        volts = np.where(vf <= DIODE_RANGE_V, vf, OL_V) * np.ones(cases.samples)
    if wrong is not None and how == "leaky":
        # What leaks takes the meter's current before a junction does (Ohm).
        volts = np.minimum(volts, DIODE_RANGE_A * np.asarray(wrong.size))
    return np.asarray(volts)
