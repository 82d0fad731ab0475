"""A sweep as typed or pasted: lines of volts and amps, and the LED they make."""

import re
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.parts.assembly import Assembly
from swapglow.core.parts.fit import Curve, FitError, fit_curve
from swapglow.core.parts.led import LARGEST_VF, MOST_IN_SERIES, Led, LedError
from swapglow.core.quantities import (
    AMPERE,
    OHM,
    VOLT,
    InputError,
    QuantityError,
    Shown,
    Source,
    number_text,
    parse_single,
    show,
    shown,
)
from swapglow.core.quantities.inputs import read_count, read_single

FloatArray = NDArray[np.float64]

MOST_LINES = 500
# A bare current of half an ampere and more is no indicator's: it is read off a milliamp range.
BARE_MILLIAMPS = 0.5
# Fewer lines than these tell nothing by their span.
LEAST_TOLD = 3
# What a swept LED is called in a position.
SWEPT = "swept"
_HEAD = re.compile(r"(?i)[^\d]*(v|volt|a|amp|ma|current)")


@dataclass(frozen=True)
class SweepPoint:
    """Volts and amps of a reading, or of the curve."""

    volts: float
    amps: float


@dataclass(frozen=True)
class SweepReport:
    """A sweep with the curve through it: n is that of all LEDs in series together.

    ``each`` is the curve of one LED inside, strings and resistor taken out; empty where the part is one LED.
    """

    points: tuple[SweepPoint, ...]
    curve: tuple[SweepPoint, ...]
    each: tuple[SweepPoint, ...]
    i_s: Shown
    n: float
    r_s: Shown
    worst: Shown
    line: str


@dataclass(frozen=True)
class SweepInput:
    """A table of volts and amps, one reading a line.

    Attributes:
        text: "2.61V 1mA" a line, or columns with a comma, a semicolon or a tab between.
        in_series: LEDs one after another inside, where known; empty for one.
        resistor: the resistor in each string, where known.
        strings: equal strings side by side inside, where known; empty for one.
    """

    text: str = ""
    in_series: str = ""
    resistor: str = ""
    strings: str = ""

    @property
    def empty(self) -> bool:
        """No reading."""
        return not self.text.strip()


@dataclass(frozen=True)
class Sweep:
    """A sweep that was read: volts and amps of all of it, and the curve through them.

    ``guess`` says what its columns were taken for, where nothing in it said so.
    """

    volts: FloatArray
    amps: FloatArray
    curve: Curve
    inside: Assembly
    guess: str


def read_table(text: str) -> tuple[FloatArray, FloatArray, str]:
    """Volts and amps, line by line; which column is which is told by a heading, by units, or by size.

    Args:
        text: the table.

    Returns:
        V and A, (lines,) each, and what the columns were taken for where nothing said so.

    Raises:
        InputError: ``sweep``, with the line and what would be accepted.
    """
    lines = [(n, line.strip()) for n, line in enumerate(text.splitlines(), 1) if line.strip()]
    if len(lines) > MOST_LINES:
        raise InputError("sweep", f"A sweep takes {MOST_LINES} lines; this has {len(lines)}.")
    heading: tuple[float, float, bool] | None = None
    rows: list[tuple[int, str, str]] = []
    for k, (n, line) in enumerate(lines):
        if line.startswith("#"):
            continue
        cells = _cells(line)
        if k == 0 and not re.match(r"[\s+\-.]*\d", line) and _HEAD.match(line):
            heading = _heading(cells)
            continue
        if len(cells) != 2:
            raise InputError("sweep", f'Line {n}, "{line[:40]}": two values are wanted, as 2.61V 1.0mA.')
        rows.append((n, _decimal(cells[0]), _decimal(cells[1])))
    swapped, guess = (heading[2], "") if heading is not None else _order(rows)
    if swapped:
        rows = [(n, second, first) for n, first, second in rows]
    scale_v, scale_a = (1.0, 1.0) if heading is None else heading[:2]
    largest = _largest([amps for _, _, amps in rows])
    if heading is None and largest >= BARE_MILLIAMPS:
        scale_a, guess = (1e-3, f"{guess} Bare currents of {largest:g} are taken for milliamps.".strip())
    volts, amps = [], []
    for n, first, second in rows:
        try:
            volts.append(parse_single(first, VOLT, minimum=0) * (scale_v if _bare(first) else 1.0))
            amps.append(parse_single(second, AMPERE, minimum=0) * (scale_a if _bare(second) else 1.0))
        except QuantityError as problem:
            raise InputError("sweep", f"Line {n}: {problem}") from None
    return np.array(volts), np.array(amps), guess


def _order(rows: list[tuple[int, str, str]]) -> tuple[bool, str]:
    """Whether amps come first, by a unit in the table, else by size: a current spans far more than its volts."""
    if any(re.search(r"(?i)\da?\s*[munµ]?a(mps?)?$", first) for _, first, _ in rows):
        return True, ""
    if any(not _bare(first) or not _bare(second) for _, first, second in rows) or len(rows) < LEAST_TOLD:
        return False, ""
    firsts, seconds = [_number(a) for _, a, _ in rows], [_number(b) for _, _, b in rows]
    if not (_span(firsts) and _span(seconds)):
        return False, ""
    if _span(firsts) > 1.2 * _span(seconds):
        return True, "The first column spans more and is taken for the current."
    return False, "The first column is taken for the volts."


def _number(text: str) -> float:
    try:
        return float(text.replace(",", "."))
    except ValueError:
        return 0.0


def _span(values: list[float]) -> float:
    """Largest over smallest of what is over nothing; 0 where nothing is."""
    some = [v for v in values if v > 0]
    return max(some) / min(some) if some else 0.0


def _largest(texts: list[str]) -> float:
    """The largest bare number; 0 where all name their unit."""
    return max((_number(t) for t in texts if _bare(t)), default=0.0)


def _cells(line: str) -> list[str]:
    for mark in ("\t", ";"):
        if mark in line:
            return [c.strip() for c in line.split(mark) if c.strip()]
    if line.count(",") == 1 and not re.search(r"\s\d", line.replace(", ", ",")):
        return [c.strip() for c in line.split(",")]
    spaced = re.split(r",\s+|\s{2,}|\s+(?=[\d.,+-])", line)
    return [c.strip() for c in spaced if c.strip()]


def _decimal(text: str) -> str:
    """A column holds one number, so a comma in it is its decimal mark, three digits or not."""
    return text.replace(",", ".", 1) if re.fullmatch(r"[-+]?\d*,\d+\s*[a-zA-Zµ]*", text) else text


def _bare(text: str) -> bool:
    return re.fullmatch(r"[\d.,+\-eE ]+", text) is not None


def _heading(cells: list[str]) -> tuple[float, float, bool]:
    """Scales of bare numbers from a heading such as "V, mA", and whether amps come first."""
    words = [c.lower() for c in cells]
    milli = [("ma" in re.split(r"[^a-z]+", w)) or "milliamp" in w for w in words]
    milli_v = [("mv" in re.split(r"[^a-z]+", w)) or "millivolt" in w for w in words]
    first = set(re.split(r"[^a-z]+", words[0])) if words else set()
    first_is_amps = bool({"a", "ma", "i", "amp", "amps", "current"} & first)
    return (1e-3 if any(milli_v) else 1.0), (1e-3 if any(milli) else 1.0), first_is_amps


@lru_cache(maxsize=128)
def read_sweep(typed: SweepInput) -> Sweep:
    """A sweep with its curve.

    Raises:
        InputError: ``sweep``, ``sweep_in_series``, ``sweep_strings`` or ``sweep_resistor``.
    """
    volts, amps, guess = read_table(typed.text)
    strings = read_count("sweep_strings", typed.strings.strip() or "1", MOST_IN_SERIES)
    count = read_count("sweep_in_series", typed.in_series.strip() or "1", MOST_IN_SERIES)
    ohm = read_single("sweep_resistor", typed.resistor, OHM, minimum=0) if typed.resistor.strip() else 0.0
    try:
        # A meter sees the resistors of all strings side by side.
        curve = fit_curve(volts, amps, in_series=count, known_ohm=ohm / strings)
    except FitError as problem:
        raise InputError("sweep", str(problem)) from None
    return Sweep(volts, amps, curve, Assembly(strings, count, ohm), guess)


def fitted_led(base: Led, typed: SweepInput) -> Led:
    """The swept part as one LED of the position: light and rating of each LED inside stay the kind's.

    All strings together may carry as often the rated current, and give as often the light; the forward voltage
    there, its ohmic share and n are the fit's, with the fit's own error as the range.

    Args:
        base: the kind whose light and rating stay.
        typed: the table.

    Returns:
        The LED.

    Raises:
        InputError: the table cannot be read or fitted.
    """
    sweep = read_sweep(typed)
    curve, inside = sweep.curve, sweep.inside
    rated = base.rated_a * inside.strings
    typical = float(curve.volts(rated))
    if not 0 < typical < LARGEST_VF:
        raise InputError(
            "sweep",
            f"The fitted curve stands at {typical:.3g} V at {rated * 1e3:g} mA: no module of one "
            "position does. Check the columns, or type the module's own rated current.",
        )
    spread = 2 * curve.error_v
    try:
        return replace(
            base,
            id=SWEPT,
            label=f"Swept: {base.label.lower()}",
            vf_low=max(typical - spread, 1e-3),
            vf_typ=typical,
            vf_high=typical + spread,
            n=curve.n,
            rs_v=rated * curve.r_s,
            rated_a=rated,
            tempco_v_k=base.tempco_v_k * inside.in_series,
            reverse_v=base.reverse_v,
            candela=base.candela * inside.in_series * inside.strings,
            vf_given_a=None,
            candela_given_a=base.candela_a * inside.strings,
            inside=inside,
        )
    except LedError as problem:
        raise InputError("sweep", str(problem)) from None


def _inside(s: Sweep) -> str:
    """What one string and one LED of it have at the highest reading, their resistor taken out."""
    if s.inside.single:
        return ""
    led, each = s.inside.of_one(float(s.volts[s.amps.argmax()]), float(s.amps.max()))
    return f" At the highest: {show(each, AMPERE)} in each string, {show(led, VOLT)} over each LED."


def sweep_report(typed: SweepInput) -> SweepReport:
    """The readings, the curve through them and its error.

    Raises:
        InputError: as :func:`read_sweep`.
    """
    s = read_sweep(typed)
    c = s.curve
    top = float(s.amps.max())
    amps = np.geomspace(top / 1000, top, 60)
    curve = tuple(SweepPoint(float(c.volts(a)), float(a)) for a in amps)
    ones = () if s.inside.single else tuple(SweepPoint(*s.inside.of_one(p.volts, p.amps)) for p in curve)
    share = c.error_v / max(float(s.volts.max()), 1e-9) * 100
    return SweepReport(
        tuple(SweepPoint(float(v), float(a)) for v, a in zip(s.volts, s.amps, strict=True)),
        curve,
        ones,
        # No prefix reaches a saturation current.
        Shown(c.i_s, f"{c.i_s:.2g}", "A", Source.COMPUTED, "least squares in volts"),
        c.n,
        shown(c.r_s, OHM, "least squares in volts; the module's own resistor is in it"),
        shown(c.worst_v, VOLT, "the largest left over", digits=2),
        f"{len(s.volts)} readings, fitted to {show(c.error_v, VOLT, 2)}, {number_text(share)} % of the highest."
        + (f" {s.guess}" if s.guess else "")
        + _inside(s),
    )
