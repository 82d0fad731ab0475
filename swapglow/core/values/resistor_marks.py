"""What stands on a resistor: colour bands, a chip's digits, letters in place of the point, two digits and a letter.

IEC 60062:2016 for colours, digits and letters (from memory); the two digits of 1 % chips count the values of E96
(common practice, the EIA's code, from memory).
"""

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import TypeVar

from swapglow.core.values import preferred

# Digit and power of ten of each colour; gold, silver and pink are powers only.
DIGITS = ("black", "brown", "red", "orange", "yellow", "green", "blue", "violet", "grey", "white")
POWERS = {**{c: n for n, c in enumerate(DIGITS)}, "gold": -1, "silver": -2, "pink": -3}
# Tolerance in per cent.
TOLERANCES = {
    "brown": 1.0,
    "red": 2.0,
    "orange": 0.05,
    "yellow": 0.02,
    "green": 0.5,
    "blue": 0.25,
    "violet": 0.1,
    "grey": 0.01,
    "gold": 5.0,
    "silver": 10.0,
}
# Temperature coefficient, 10⁻⁶/K.
COEFFICIENTS = {
    "black": 250,
    "brown": 100,
    "red": 50,
    "orange": 15,
    "yellow": 25,
    "green": 20,
    "blue": 10,
    "violet": 5,
    "grey": 1,
}
# Failures in a thousand hours: brown 1 %, red 0.1 %, orange 0.01 %, yellow 0.001 % (MIL-STD-1285, from memory).
RELIABILITY = ("brown", "red", "orange", "yellow")
# As people shorten them (IEC 60757) or spell them otherwise.
SHORT = {
    "bk": "black",
    "bn": "brown",
    "rd": "red",
    "og": "orange",
    "ye": "yellow",
    "gn": "green",
    "bu": "blue",
    "vt": "violet",
    "purple": "violet",
    "gy": "grey",
    "gray": "grey",
    "wh": "white",
    "gd": "gold",
    "sr": "silver",
    "pk": "pink",
}
# The letter of a 1 % chip's mark: a power of ten over three digits. R and S in their place are older.
_LETTERS = {"Z": -3, "Y": -2, "R": -2, "X": -1, "S": -1, "A": 0, "B": 1, "H": 1, "C": 2, "D": 3, "E": 4, "F": 5}
_WRITTEN = {-3: "Z", -2: "Y", -1: "X", 0: "A", 1: "B", 2: "C", 3: "D", 4: "E", 5: "F"}

_PLACES = {"R": 1.0, "L": 1e-3, "M": 1e6, "K": 1e3, "G": 1e9}
_LETTERED = re.compile(r"(\d*)([RKMLG])(\d*)", re.IGNORECASE)
_E96 = re.compile(r"(\d\d)([ZYXSABHCDEF])")


T = TypeVar("T")


class MarkError(ValueError):
    """What no resistor is marked with, said in words."""


@dataclass(frozen=True)
class Read:
    """A mark as read.

    Attributes:
        ohm: its value.
        tolerance: 0.05 for 5 %; None where the mark does not say.
        coefficient: 10⁻⁶/K; None where the mark does not say.
    """

    ohm: float
    tolerance: float | None = None
    coefficient: int | None = None


def is_colours(text: str) -> bool:
    """Whether all words are colours of bands."""
    words = _words(text)
    return len(words) > 1 and all(SHORT.get(w, w) in POWERS for w in words)


def _words(text: str) -> list[str]:
    return re.findall(r"[a-z]+", text.lower())


def read_bands(text: str) -> Read:
    """Colour bands, from the first to the last: three to six.

    Args:
        text: colours as words or as two letters.

    Returns:
        Value, tolerance and coefficient.

    Raises:
        MarkError: there are too few or too many, or a colour cannot stand where it does.
    """
    bands = [SHORT.get(w, w) for w in _words(text)]
    unknown = next((b for b in bands if b not in POWERS), None)
    if unknown is not None:
        raise MarkError(f'"{unknown}" is no colour of a band: {", ".join(POWERS)}.')
    if not 3 <= len(bands) <= 6:
        raise MarkError(f"{len(bands)} bands: a resistor has three to six.")
    if may_be_reliability(bands) and not _is_made_fine(bands):
        bands = bands[:4]
    digits = 2 if len(bands) < 5 else 3
    for n, colour in enumerate(bands[:digits], 1):
        if colour not in DIGITS:
            raise MarkError(f"{colour.capitalize()} is no digit: it cannot be band {n}. Read it from the other end.")
    if bands[0] == "black" and len(bands) > 3:
        raise MarkError("A value does not begin with black: read it from the other end.")
    number = sum(DIGITS.index(c) * 10 ** (digits - 1 - n) for n, c in enumerate(bands[:digits]))
    ohm = number * 10.0 ** POWERS[bands[digits]]
    if number == 0:
        raise MarkError("All digits are black: that is a link of no ohms, and no resistor.")
    tolerance = 0.2
    if len(bands) > 3:
        colour = bands[digits + 1]
        if colour not in TOLERANCES:
            raise MarkError(f"{colour.capitalize()} is no tolerance: it cannot be band {digits + 2}.")
        tolerance = TOLERANCES[colour] / 100
    coefficient = None
    if len(bands) == 6:
        if bands[5] not in COEFFICIENTS:
            raise MarkError(f"{bands[5].capitalize()} is no temperature coefficient: it cannot be band 6.")
        coefficient = COEFFICIENTS[bands[5]]
    return Read(ohm, tolerance, coefficient)


def may_be_reliability(bands: Sequence[str]) -> bool:
    """Whether the last of five bands may be a reliability band, as on old military and instrument parts.

    Such a part has gold or silver as its fourth, a tolerance there (common practice).
    """
    named = [SHORT.get(b, b) for b in bands]
    return len(named) == 5 and named[3] in ("gold", "silver") and named[4] in RELIABILITY


def _is_made_fine(bands: Sequence[str]) -> bool:
    """Whether the first three of five bands are digits of a value that is made to a per cent or finer."""
    if any(b not in DIGITS for b in bands[:3]):
        return False
    number = int("".join(str(DIGITS.index(b)) for b in bands[:3]))
    return number in preferred.decade("E192") or (number % 10 == 0 and number // 10 in preferred.decade("E24"))


def write_bands(ohm: float, tolerance: float, digits: int = 2, coefficient: int | None = None) -> tuple[str, ...]:
    """The bands of a value.

    Args:
        ohm: it must have no more digits than are written.
        tolerance: 0.05 for 5 %; 0.2 is no band at all.
        digits: 2, or 3 for five and six bands.
        coefficient: for a sixth band, 10⁻⁶/K.

    Returns:
        Colours from the first to the last.

    Raises:
        MarkError: value, tolerance or coefficient cannot be written so.
    """
    number, power = _split(ohm, digits)
    by_power = {v: k for k, v in POWERS.items()}
    if power not in by_power:
        raise MarkError(f"No colour stands for a power of {power}.")
    out = [*(DIGITS[int(d)] for d in str(number)), by_power[power]]
    if not (digits == 2 and abs(tolerance - 0.2) < 1e-9):
        colour = next((c for c, t in TOLERANCES.items() if abs(t / 100 - tolerance) < 1e-9), None)
        if colour is None:
            raise MarkError(f"No colour stands for {tolerance * 100:g} %.")
        out.append(colour)
    if coefficient is not None:
        last = next((c for c, v in COEFFICIENTS.items() if v == coefficient), None)
        if last is None or digits != 3:
            raise MarkError("A coefficient is the sixth of six bands.")
        out.append(last)
    return tuple(out)


def _split(ohm: float, digits: int) -> tuple[int, int]:
    """A value as so many digits and a power of ten."""
    power = 0
    number = ohm
    while round(number, 6) >= 10**digits:
        number, power = number / 10, power + 1
    while number < 10 ** (digits - 1) * (1 - 1e-9):
        number, power = number * 10, power - 1
    whole = round(number)
    if abs(number - whole) > 1e-6 * whole:
        raise MarkError(f"{ohm:g} Ω has more than {digits} digits.")
    return whole, power


def read_chip(text: str) -> Read:
    """A chip's mark: 3 or 4 digits of which the last is a power of ten, R for the point, or an E96 code.

    Args:
        text: as it stands on the chip.

    Returns:
        Its value; 1 % where an E96 code says so.

    Raises:
        MarkError: no chip is marked so.
    """
    mark = text.strip()
    coded = _E96.fullmatch(mark.upper())
    if coded is not None:
        place = int(coded[1])
        if not 1 <= place <= 96:
            raise MarkError(f'"{mark}": the digits of such a code run from 01 to 96.')
        return Read(preferred.decade("E96")[place - 1] * 10.0 ** _LETTERS[coded[2]], 0.01)
    lettered = _LETTERED.fullmatch(mark)
    if lettered is not None and (lettered[1] or lettered[3]):
        value = float(f"{lettered[1] or '0'}.{lettered[3] or '0'}") * _PLACES[lettered[2].upper()]
        if value <= 0:
            raise MarkError(f'"{mark}" is a link of no ohms, and no resistor.')
        return Read(value)
    if re.fullmatch(r"\d{3,4}", mark):
        number = int(mark[:-1])
        if number == 0:
            raise MarkError(f'"{mark}" is a link of no ohms, and no resistor.')
        return Read(number * 10.0 ** int(mark[-1]), 0.05 if len(mark) == 3 else 0.01)
    raise MarkError(f'"{mark}" is on no chip: 681, 4702, 4R7, R47 or 01C.')


def write_chip(ohm: float, digits: int = 3) -> str:
    """A chip's mark of three or four characters.

    Args:
        ohm: the value.
        digits: 3 for two digits and a power, 4 for three and a power.

    Returns:
        The mark; R stands for the point where there is no power left.

    Raises:
        MarkError: the value cannot be written so.
    """
    number, power = _split(ohm, digits - 1)
    if 0 <= power <= 9:
        return f"{number}{power}"
    text = str(number)
    if power >= -len(text):
        at = len(text) + power
        return f"{text[:at]}R{text[at:]}"
    raise MarkError(f"{ohm:g} Ω is too small for {digits} characters.")


def write_e96(ohm: float) -> str:
    """The two digits and a letter of a 1 % chip.

    Args:
        ohm: a value of E96.

    Returns:
        The code.

    Raises:
        MarkError: it is no value of E96, or out of the letters' reach.
    """
    number, power = _split(ohm, 3)
    every = preferred.decade("E96")
    if number not in every or power not in _WRITTEN:
        raise MarkError(f"{ohm:g} Ω has no such code.")
    return f"{every.index(number) + 1:02d}{_WRITTEN[power]}"


@dataclass(frozen=True)
class Marks:
    """How a resistor is marked.

    Attributes:
        bands: colours from the first to the last; empty where the standard has none for it.
        chip: what stands on a chip of it; empty where nothing does.
        code: the code of a 1 % chip; empty where its value has none.
    """

    bands: tuple[str, ...]
    chip: str
    code: str


def marks_of(ohm: float, tolerance: float) -> Marks:
    """How a resistor of a value is marked, bands and chip.

    Args:
        ohm: its value.
        tolerance: 0.05 for 5 %.

    Returns:
        Its marks, each empty where there is none.
    """
    fine = tolerance <= 0.02
    bands = _tried(lambda: write_bands(ohm, tolerance, 3 if fine else 2))
    if bands is None:
        bands = _tried(lambda: write_bands(ohm, tolerance, 3))
    chip = _tried(lambda: write_chip(ohm, 4 if fine else 3))
    return Marks(bands or (), chip or "", _tried(lambda: write_e96(ohm)) or "")


def _tried(write: Callable[[], T]) -> T | None:
    try:
        return write()
    except MarkError:
        return None
