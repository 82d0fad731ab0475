"""A reading after the swap against what was expected, and what would make it read so."""

from collections.abc import Iterable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import CORNERS, Solution, current
from swapglow.core.design.changes import with_changes
from swapglow.core.design.position import Position
from swapglow.core.measurement.reading_after import ReadingAfter
from swapglow.core.network.cases import Batch, Block, Cases
from swapglow.core.network.solve import lamp_amps, point_of, resistor_amps, string_amps
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
    """A fault that would produce the reading taken.

    ``at`` are the kinds of step of the staircase where it would sit; none where it is the meter's.
    """

    id: str
    message: str
    predicted: Shown
    at: tuple[str, ...] = ()


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
    """What the meter would show for each case.

    On a steady supply each figure is its own part's in the solved circuit: a resistor's volts carry what a
    shunt beyond it draws. On one that alternates they follow from the average.
    """
    p = position
    if not p.rail.supply.alternates:
        point = point_of(p, cases)
        if reading.kind == "current":
            return lamp_amps(p, point) if reading.of == "all" else string_amps(p, point)
        if reading.kind == "resistor_volts":
            return np.asarray(resistor_amps(p, point) * resistor_ohm)
        return np.asarray(point.across("D1"))
    amps = current(p, cases)
    if reading.kind == "current":
        return amps * p.branches if reading.of == "all" else amps
    across_resistor = amps * resistor_ohm
    if reading.kind == "resistor_volts":
        return np.asarray(across_resistor)
    rail = np.asarray(cases.rail) - p.drop_v
    return np.asarray(rail - across_resistor - amps * (reading.burden_ohm + cases.source_of(p)))


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


# Where each fault would sit on the staircase.
_AT: dict[str, tuple[str, ...]] = {
    "led-reversed": ("led", "inside"), "led-short": ("led", "inside"), "open": ("resistor", "led"),
    "not-enabled": ("driver", "feed"), "contact": ("driver", "feed"), "wrong-decade": ("resistor",),
    "wrong-value": ("resistor",), "other-vf": ("led",), "string-count": ("led",), "other-rail": ("rail",),
    "probe-side": ("resistor",),
}  # fmt: skip


def _close(predicted: float, read: float, usual: float) -> bool:
    return abs(predicted - read) <= LIKELY * max(abs(read), NOTHING * abs(usual))


def _causes(s: Solution, reading: ReadingAfter, usual: float) -> Iterable[Cause]:
    impossible = _cannot_be(s, reading)
    if impossible is not None:
        yield impossible
    ohm = _ohm_that_reads(s, reading)
    yield from _dark_causes(s, reading, usual)
    yield from _probe_causes(s, reading, usual)
    yield from _resistor_causes(s, reading, usual, ohm)
    yield from _led_causes(s, reading, usual)
    yield from _meter_causes(s, reading, usual, ohm)
    yield from _rail_causes(s, reading, usual)


def _cause(key: str, message: str, predicted: float, unit: Unit) -> Cause:
    origin = "the lamp solved with this fault"
    return Cause(key, message, shown(predicted, unit, origin), _AT.get(key, ()))


def _cannot_be(s: Solution, reading: ReadingAfter) -> Cause | None:
    """A reading that no fault in the LED can make: more than the rail can drive through what is fitted."""
    p, unit = s.position, reading.unit
    highest = p.rail.peaks[2]
    if reading.kind != "current":
        if reading.value <= highest * 1.1:
            return None
        return _cause("cannot-be", f"{show(reading.value, unit)} is more than the rail's {show(highest, VOLT)}: "
                      "another range, or another rail. Read the rail itself.", highest, unit)  # fmt: skip
    if p.module is not None or p.set_by_ohms:
        return None
    strings = p.branches if reading.of == "all" else 1
    least = s.sizing.total_ohm * (1 - p.ohm_spread)
    needs = reading.value / strings * least
    if needs <= highest * 1.1 or p.shunt_ohm is not None or p.beside:
        return None
    fitted, rail = show(s.sizing.total_ohm, OHM), show(highest, VOLT)
    return _cause(
        "cannot-be", f"{show(reading.value, AMPERE)} through {fitted} takes {show(needs, VOLT)}, and the rail reaches "
        f"{rail}: it is not that resistor, or the meter stands on another range. Read the resistor's ohms, power off.",
        highest / least * strings, AMPERE,
    )  # fmt: skip


def _probe_causes(s: Solution, reading: ReadingAfter, usual: float) -> Iterable[Cause]:
    """Volts read between the wrong points."""
    p, unit = s.position, reading.unit
    if reading.kind == "current" or p.rail.supply.alternates:
        return
    led = _predict(p, replace(reading, kind="led_volts"), solution=s)
    across = _predict(p, replace(reading, kind="resistor_volts"), solution=s)
    whole = led + across
    if _close(whole, reading.value, usual) and not _close(whole, usual, usual):
        yield _cause("probe-side", "A probe sits on the wrong side of the resistor: this is LED and resistor together.",
                     whole, unit)  # fmt: skip
    other = across if reading.kind == "led_volts" else led
    if _close(other, reading.value, usual) and not _close(other, usual, usual):
        what = "resistor" if reading.kind == "led_volts" else "LEDs"
        yield _cause("probe-side", f"The probes sit across the {what}.", other, unit)


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
        yield _cause("open", "A joint or a clip is open, or the meter's own fuse has gone.", 0.0, unit)
        if p.rail.supply.output_limit is not None:
            yield _cause(
                "not-enabled", "The output is not enabled: set it in software, and try again.", 0.0, unit
            )
        yield _cause("contact", "A contact that only touches with the covers off.", 0.0, unit)


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
    if volts > 2 * p.rail.volts[2]:
        # No rail of this kind stands there: something else is wrong.
        return
    predicted = _predict(p, reading, rail=volts, solution=s)
    if _close(predicted, reading.value, usual):
        stands = volts / p.rail.supply.open_to_loaded_ratio
        yield _cause("other-rail", f"The rail is at {show(stands, VOLT)} and not "
                     f"{show(p.rail.usual.value, VOLT)}: read it again.", predicted, unit)  # fmt: skip
