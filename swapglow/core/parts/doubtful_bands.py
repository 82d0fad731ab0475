"""Bands of which a colour is in doubt: what they may be, the likeliest for this place first."""

import math
import re
from dataclasses import dataclass
from itertools import product

from swapglow.core.values.preferred import decade
from swapglow.core.values.resistor_marks import DIGITS, SHORT, MarkError, Read, read_bands

# What a colour is taken for when it is dirty, faded, burnt, or seen by a warm lamp (common practice).
TAKEN_FOR: dict[str, tuple[str, ...]] = {
    "black": ("brown", "blue"),
    "brown": ("red", "black", "violet"),
    "red": ("brown", "orange"),
    "orange": ("red", "yellow"),
    "yellow": ("orange", "gold", "white"),
    "green": ("blue", "grey"),
    "blue": ("green", "violet", "grey"),
    "violet": ("blue", "brown", "grey"),
    "grey": ("violet", "silver", "white"),
    "white": ("grey", "yellow"),
    "gold": ("yellow", "silver", "orange"),
    "silver": ("grey", "gold", "white"),
    "pink": ("red",),
}
MOST = 6
# A colour taken for another costs as much as being off by so many powers of ten from what fits here.
_CHANGE_COST = 0.5
_ODD_COST = 2.0
_WORD = re.compile(r"([a-z]+|\?)(\?)?")


@dataclass(frozen=True)
class Perhaps:
    """What bands may be.

    Attributes:
        bands: colours from the first to the last.
        read: their value and tolerance.
        preferred: whether it is a value that is made.
        changed: how many colours are taken for others.
    """

    bands: tuple[str, ...]
    read: Read
    preferred: bool
    changed: int


def doubtful(text: str) -> bool:
    """Whether some colour of a text is in doubt."""
    return "?" in text


def readings(text: str, expected_ohm: float | None = None) -> tuple[Perhaps, ...]:
    """What bands may be of which some are in doubt.

    Args:
        text: colours, each in doubt with a question mark behind it, one not seen at all as a question mark alone:
            "brown? black ? gold".
        expected_ohm: what would fit in this place, Ω; None where nothing is known.

    Returns:
        The few likeliest, the likeliest first: values that are made before those that are not, then near to what is
        expected, then with the fewest colours taken for others.

    Raises:
        MarkError: no colours come to a resistor.
    """
    choices: list[tuple[str, ...]] = []
    for word, mark in _WORD.findall(text.lower()):
        if word == "?":
            choices.append((*DIGITS, "gold", "silver"))
            continue
        colour = SHORT.get(word, word)
        if colour not in TAKEN_FOR:
            raise MarkError(f'"{word}" is no colour of a band: {", ".join(TAKEN_FOR)}.')
        choices.append((colour, *TAKEN_FOR[colour]) if mark else (colour,))
    found: list[Perhaps] = []
    why = ""
    for bands in product(*choices):
        try:
            read = read_bands(" ".join(bands))
        except MarkError as problem:
            why = why or str(problem)
            continue
        changed = sum(len(c) < len(DIGITS) and b != c[0] for b, c in zip(bands, choices, strict=True))
        found.append(Perhaps(bands, read, is_made(read.ohm, read.tolerance), changed))
    if not found:
        raise MarkError(why or "No colours: three to six are read.")
    return tuple(sorted(found, key=lambda p: (_cost(p, expected_ohm), p.read.ohm, p.bands))[:MOST])


def _cost(p: Perhaps, expected_ohm: float | None) -> float:
    far = 0.0 if expected_ohm is None else abs(math.log10(p.read.ohm / expected_ohm))
    return round(far + _CHANGE_COST * p.changed + (0.0 if p.preferred else _ODD_COST), 9)


def is_made(ohm: float, tolerance: float | None) -> bool:
    """Whether a value is of the series that its tolerance is made in (IEC 60063).

    Args:
        ohm: its value.
        tolerance: 0.05 for 5 %; None where it is not known.

    Returns:
        5 % and wider come in E24, finer ones in E192 or E24.
    """
    digits = ohm / 10 ** math.floor(math.log10(ohm) + 1e-12)
    in_e24 = any(abs(digits - v / 10) < 1e-6 for v in decade("E24"))
    if in_e24 or tolerance is None or tolerance >= 0.05:
        return in_e24
    return any(abs(digits - v / 100) < 1e-6 for v in decade("E192"))
