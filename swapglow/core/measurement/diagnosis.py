"""A reading after the swap against what was expected, and what would make it read so."""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import CORNERS, Solution, current
from swapglow.core.design.changes import with_changes
from swapglow.core.design.position import Position
from swapglow.core.measurement.reading_after import ReadingAfter
from swapglow.core.network.cases import Batch, Block, Cases
from swapglow.core.parts import led as leds
from swapglow.core.parts import preferred
from swapglow.core.parts.meter import ACCURACY
from swapglow.core.quantities import AMPERE, OHM, VOLT, Shown, Unit, show, shown

FloatArray = NDArray[np.float64]

# A fault explains a reading when it predicts it within this share: a resistor's and a meter's
# tolerance together (common practice).
LIKELY = 0.06
# Below this share of the expected value a reading counts as nothing.
NOTHING = 0.02
# Shunt and fuse of milliamp ranges are 1 to 10 Ω; microamp ranges reach a few hundred.
LARGEST_BURDEN_OHM = 500.0
# Trial values where each is a whole cycle to solve.
_FEW = 25


@dataclass(frozen=True)
class Cause:
    """A fault that would produce the reading taken."""

    id: str
    message: str
    predicted: Shown


@dataclass(frozen=True)
class Diagnosis:
    """A reading after the swap against the expected band."""

    id: str
    kind: str
    reading: Shown
    expected: Shown
    low: Shown
    high: Shown
    agrees: bool
    line: str
    causes: tuple[Cause, ...]


def _read(
    position: Position, reading: ReadingAfter, cases: Cases, resistor_ohm: float | FloatArray
) -> FloatArray:
    """What the meter would show for each case."""
    amps = current(position, cases)
    if reading.kind == "current":
        return amps
    across_resistor = amps * resistor_ohm
    if reading.kind == "resistor_volts":
        return np.asarray(across_resistor)
    rail = np.asarray(cases.rail) - position.drop_v
    return np.asarray(rail - across_resistor - amps * (reading.burden_ohm + cases.source_of(position)))


def _predict(position: Position, reading: ReadingAfter, *, rail: float | None = None,
             vf: float | None = None, resistor_ohm: float | None = None, burden: float | None = None,
             solution: Solution) -> float:  # fmt: skip
    ohms = solution.sizing.total_ohm if resistor_ohm is None else resistor_ohm
    extra = reading.burden_ohm if burden is None else burden
    cases = Cases(
        np.array([position.rail.volts[1] if rail is None else rail]),
        np.array([position.led.vf_typ if vf is None else vf]),
        np.array([ohms + extra]),
        position.drop_v,
    )
    return float(_read(position, reading, cases, ohms)[0])


def _band(s: Solution, reading: ReadingAfter) -> tuple[float, float, float]:
    """Lowest, usual and highest expected reading over all corners, meter included."""
    p = s.position
    tol = p.resistor_tolerance
    rail = np.array(p.rail.volts)
    vf = np.array([p.led.vf_high, p.led.vf_typ, p.led.vf_low])
    ohms = s.sizing.total_ohm * np.array([1 + tol, 1.0, 1 - tol])
    if p.rail.supply.alternates:
        # A cycle is dear: the ends and the middle, between which the current only rises.
        batch = Batch({"band": Block({"end": ("least", "usual", "most")}, rail, vf, ohms)}, p.drop_v, 0.0)
        middle = batch.index("band", end="usual")
    else:
        grid = np.meshgrid(rail, vf, ohms, indexing="ij")
        batch = Batch({"band": Block(CORNERS, *grid)}, p.drop_v, 0.0)
        middle = batch.index("band", rail="usual", led="typical", ohms="nominal")
    cases = batch.cases()
    fitted = np.asarray(cases.ohms)
    met = Cases(cases.rail, cases.vf, fitted + reading.burden_ohm, p.drop_v)
    read = _read(p, reading, met, fitted)
    usual = float(read[middle[0]])
    return float(read.min()) * (1 - ACCURACY), usual, float(read.max()) * (1 + ACCURACY)


def diagnose(s: Solution, reading: ReadingAfter) -> Diagnosis:
    """Does the reading agree, and if not, what few things would produce exactly it.

    Args:
        s: the solved position.
        reading: as taken, the meter in.

    Returns:
        The reading against its expected band, with the likeliest causes where it is off.

    Raises:
        NotConverged: a case has no answer.
    """
    low, usual, high = _band(s, reading)
    unit = reading.unit
    agrees = low <= reading.value <= high
    origin = "all corners of rail, LED and resistor with the meter in, and 1.5 % of meter"
    text = show(reading.value, unit)
    if agrees:
        line = f"{text} agrees: expected {show(usual, unit)}, {show(low, unit)} to {show(high, unit)}."
        causes: tuple[Cause, ...] = ()
    else:
        side = "under" if reading.value < low else "over"
        line = f"{text} is {side} the expected {show(usual, unit)}, {show(low, unit)} to {show(high, unit)}."
        causes = tuple(_causes(s, reading, usual))
    return Diagnosis(
        reading.id, reading.kind,
        shown(reading.value, unit, reading.note or "read at the bench"),
        shown(usual, unit, "usual rail, typical LED, with the meter in"),
        shown(low, unit, origin), shown(high, unit, origin), agrees, line, causes,
    )  # fmt: skip


def _close(predicted: float, read: float, usual: float) -> bool:
    return abs(predicted - read) <= LIKELY * max(abs(read), NOTHING * abs(usual))


def _causes(s: Solution, reading: ReadingAfter, usual: float) -> Iterable[Cause]:
    ohm = _ohm_that_reads(s, reading)
    yield from _dark_causes(s, reading, usual)
    yield from _resistor_causes(s, reading, usual, ohm)
    yield from _led_causes(s, reading, usual)
    yield from _meter_causes(s, reading, usual, ohm)
    yield from _rail_causes(s, reading, usual)


def _cause(key: str, message: str, predicted: float, unit: Unit) -> Cause:
    return Cause(key, message, shown(predicted, unit, "the position solved with this fault"))


def _dark_causes(s: Solution, reading: ReadingAfter, usual: float) -> Iterable[Cause]:
    p, unit = s.position, reading.unit
    if reading.kind == "led_volts":
        full = p.rail.volts[1] - p.drop_v
        if _close(full, reading.value, full):
            yield _cause("led-reversed", "The LED is turned round, or its lead is open: the whole "
                         "rail stands across it.", full, unit)  # fmt: skip
        if abs(reading.value) <= NOTHING * usual:
            yield _cause("led-short", "The LED is shorted, or the rail is off.", 0.0, unit)
        return
    if abs(reading.value) <= NOTHING * abs(usual):
        yield _cause("led-reversed", "The LED is turned round: no current flows.", 0.0, unit)
        yield _cause("open", "A joint, a clip or the meter's own fuse is open.", 0.0, unit)


def _resistor_causes(s: Solution, reading: ReadingAfter, usual: float, ohm: float | None) -> Iterable[Cause]:
    """Another value fitted: the decade slips first, then whatever preferred value explains it."""
    p, unit = s.position, reading.unit
    fitted = s.sizing.total_ohm
    for factor, word in ((10.0, "ten times"), (0.1, "a tenth of")):
        predicted = _predict(p, reading, resistor_ohm=fitted * factor, solution=s)
        if _close(predicted, reading.value, usual):
            yield _cause("wrong-decade", f"A resistor of {word} the value is fitted, "
                         f"{show(fitted * factor, OHM)}: one multiplier band off.",
                         predicted, unit)  # fmt: skip
            return
    if ohm is None:
        return
    value = preferred.prefer(ohm, "E12", "nearest")
    if abs(value / fitted - 1) <= p.resistor_tolerance + 0.02:
        return
    predicted = _predict(p, reading, resistor_ohm=value, solution=s)
    if _close(predicted, reading.value, usual):
        yield _cause("wrong-value", f"{show(value, OHM)} is fitted in place of "
                     f"{show(fitted, OHM)}.", predicted, unit)  # fmt: skip


def _ohm_that_reads(s: Solution, reading: ReadingAfter) -> float | None:
    """The total resistance at which the meter would show the reading, where there is one."""
    p = s.position
    count = _FEW if p.rectification.reservoir and p.rail.supply.alternates else 161
    trial = np.geomspace(max(s.sizing.total_ohm / 100, 1e-2), s.sizing.total_ohm * 100, count)
    wide = np.full_like(trial, 1.0)
    cases = Cases(p.rail.volts[1] * wide, p.led.vf_typ * wide, trial + reading.burden_ohm, p.drop_v)
    read = _read(p, reading, cases, trial)
    rising = read[-1] > read[0]
    values, ohms = (read, trial) if rising else (read[::-1], trial[::-1])
    if not values[0] < reading.value < values[-1]:
        return None
    return float(np.exp(np.interp(reading.value, values, np.log(ohms))))


def _led_causes(s: Solution, reading: ReadingAfter, usual: float) -> Iterable[Cause]:
    p, unit = s.position, reading.unit
    other = leds.catalogue()["red-5-diffused" if p.led.vf_typ >= 2.6 else "white-5-clear"]
    swapped = with_changes(p, {"led_id": other.id})
    predicted = _predict(swapped, reading, solution=s)
    if _close(predicted, reading.value, usual):
        yield _cause("other-vf", f"The LED is another kind, of about {show(other.vf_typ, VOLT)} "
                     f"and not {show(p.led.vf_typ, VOLT)}.", predicted, unit)  # fmt: skip
    for count, word in ((p.in_series - 1, "One LED of the string is shorted"),
                        (p.in_series + 1, "There is one LED more in the string")):  # fmt: skip
        if count < 1:
            continue
        predicted = _predict(with_changes(p, {"in_series": count}), reading, solution=s)
        if _close(predicted, reading.value, usual):
            yield _cause("string-count", f"{word}: {count} in series.", predicted, unit)


def _meter_causes(s: Solution, reading: ReadingAfter, usual: float, ohm: float | None) -> Iterable[Cause]:
    if reading.kind != "current" or reading.value >= usual:
        return
    if ohm is None:
        return
    extra = ohm - s.sizing.total_ohm + reading.burden_ohm
    if 0 < extra <= LARGEST_BURDEN_OHM:
        predicted = _predict(s.position, reading, burden=extra, solution=s)
        yield _cause("meter-burden", f"The meter itself adds about {show(extra, OHM, 2)} in this "
                     "range: shunt, fuse and leads. Read volts across the resistor instead.",
                     predicted, AMPERE)  # fmt: skip


def _rail_causes(s: Solution, reading: ReadingAfter, usual: float) -> Iterable[Cause]:
    """Another rail: solved for by its inverse, then shown as a reading to check."""
    p, unit = s.position, reading.unit
    count = _FEW if p.rectification.reservoir and p.rail.supply.alternates else 241
    trial = np.linspace(0.0, 3.0, count)[1:] * p.rail.volts[1]
    wide = np.full_like(trial, 1.0)
    total = s.sizing.total_ohm
    cases = Cases(trial, p.led.vf_typ * wide, (total + reading.burden_ohm) * wide, p.drop_v)
    read = _read(p, reading, cases, total)
    if not read[0] < reading.value < read[-1] or reading.value <= NOTHING * usual:
        return
    volts = float(np.interp(reading.value, read, trial))
    predicted = _predict(p, reading, rail=volts, solution=s)
    if _close(predicted, reading.value, usual):
        stands = volts / p.rail.supply.open_to_loaded_ratio
        yield _cause("other-rail", f"The rail is at {show(stands, VOLT)} and not "
                     f"{show(p.rail.usual.value, VOLT)}: read it again.", predicted, unit)  # fmt: skip
