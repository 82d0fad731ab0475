"""What stands on a part, read and written: bands, chips, capacitors; in doubt, the few it may be."""

from dataclasses import dataclass, replace
from typing import Literal

from swapglow.core.parts.doubtful_bands import doubtful, is_made, readings
from swapglow.core.quantities import FARAD, OHM, InputError, show
from swapglow.core.quantities.inputs import read_single
from swapglow.core.values.capacitor_marks import read_capacitor, write_capacitor
from swapglow.core.values.preferred import USUAL_TOLERANCE
from swapglow.core.values.resistor_marks import (
    MarkError,
    Marks,
    Read,
    is_colours,
    marks_of,
    may_be_reliability,
    read_bands,
    read_chip,
)

MarkKind = Literal["bands", "chip", "capacitor"]
# What a chip's digits and a bare letter do not say is taken for this (common practice).
UNSAID_TOLERANCE = USUAL_TOLERANCE["E24"]


@dataclass(frozen=True)
class MarkRead:
    """A mark as read.

    Attributes:
        bands: its colours, for the drawing; empty for chips and capacitors.
        text: its value.
        said: tolerance and coefficient in words, and whether such a value is made.
        marks: how the same resistor is marked otherwise; None for a capacitor.
        typed: the value as it may be typed into a field.
        ohm: its value where it is a resistor.
    """

    bands: tuple[str, ...]
    text: str
    said: str
    marks: Marks | None
    typed: str
    ohm: float | None = None


def read_mark(kind: MarkKind, text: str, expected: str = "") -> tuple[MarkRead, ...]:
    """Read what stands on a part.

    Args:
        kind: of mark.
        text: as it is seen; a colour in doubt has a question mark behind it.
        expected: what would fit in its place, as typed; "" for nothing known.

    Returns:
        One reading; where a colour is in doubt the few it may be, the likeliest first.

    Raises:
        InputError: ``text``: no part is marked so, with why; ``expected`` is no resistance.
    """
    try:
        if kind == "capacitor":
            return (_capacitor(text),)
        if kind == "chip":
            return (_resistor(read_chip(text), ()),)
        near = read_single("expected", expected, OHM, above=0) if expected.strip() else None
        if doubtful(text):
            return tuple(_resistor(p.read, p.bands) for p in readings(text, near))
        if text.strip() and not is_colours(text):
            raise MarkError("Bands are colours, from the first to the last: yellow violet red gold.")
        bands = tuple(p for p in text.lower().replace(",", " ").split())
        found = [_resistor(read_bands(text), bands)]
        if may_be_reliability(bands):
            old = _resistor(read_bands(" ".join(bands[:4])), bands)
            if old.ohm != found[0].ohm:
                found.append(replace(old, said=f"{old.said}; the fifth band is then one of reliability"))
        return tuple(found)
    except MarkError as problem:
        raise InputError("text", str(problem)) from None


def _resistor(read: Read, bands: tuple[str, ...]) -> MarkRead:
    tolerance = UNSAID_TOLERANCE if read.tolerance is None else read.tolerance
    said = [] if read.tolerance is None else [f"±{read.tolerance * 100:g} %"]
    if read.coefficient is not None:
        said.append(f"{read.coefficient} × 10⁻⁶/K")
    if not is_made(read.ohm, read.tolerance):
        said.append("no value that is made: look again, or from the other end")
    text = show(read.ohm, OHM, 6)
    marks = marks_of(read.ohm, tolerance)
    return MarkRead(bands or marks.bands, text, ", ".join(said), marks, text, read.ohm)


def _capacitor(text: str) -> MarkRead:
    read = read_capacitor(text)
    code, lettered = write_capacitor(read.farad)
    value = _farads(read.farad)
    ends = "" if read.low == read.high else f", {_farads(read.low)} to {_farads(read.high)}"
    written = " or ".join(dict.fromkeys(x for x in (code, lettered) if x))
    return MarkRead((), value, f"{read.tolerance}{ends}; also written {written}".lstrip(";, "), None, value)


def _farads(farad: float) -> str:
    """A capacitance; the smallest that are marked lie under half a picofarad."""
    return show(farad, FARAD) if farad >= 0.5e-12 else f"{farad * 1e12:.3g}\u00a0pF"


@dataclass(frozen=True)
class MarkWritten:
    """How a value is marked: a resistor's marks, or a capacitor's code and letters; "" where there is none."""

    marks: Marks | None
    code: str
    lettered: str


def write_mark(kind: MarkKind, value: str, tolerance: float = UNSAID_TOLERANCE) -> MarkWritten:
    """How a part of a value is marked.

    Args:
        kind: of mark.
        value: as typed.
        tolerance: of a resistor, 0.05 for 5 %.

    Returns:
        Its marks.

    Raises:
        InputError: ``value`` cannot be read, or is marked nowhere.
    """
    if kind == "capacitor":
        farad = read_single("value", value, FARAD, above=0)
        try:
            code, lettered = write_capacitor(farad)
        except MarkError as problem:
            raise InputError("value", str(problem)) from None
        return MarkWritten(None, code, lettered)
    ohm = read_single("value", value, OHM, above=0)
    marks = marks_of(ohm, tolerance)
    if not (marks.bands or marks.chip or marks.code):
        raise InputError("value", f"{show(ohm, OHM, 6)} is marked on no part: it has too many digits.")
    return MarkWritten(marks, "", "")
