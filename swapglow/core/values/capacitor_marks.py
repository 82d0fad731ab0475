"""What stands on a capacitor: two digits and a power of ten in picofarads, or a letter in place of the point.

IEC 60062:2016 for letters and tolerances (from memory); three digits as picofarads, and 8 and 9 as hundredths and
tenths, are common practice.
"""

import re
from dataclasses import dataclass

from swapglow.core.values.resistor_marks import MarkError

TOLERANCES = {
    # Share either way; the letters under 10 pF are picofarads and no share, and Z goes one way further than the other.
    "E": 0.005,
    "F": 0.01,
    "G": 0.02,
    "H": 0.025,
    "J": 0.05,
    "K": 0.1,
    "M": 0.2,
    "N": 0.3,
}
IN_PICOFARADS = {"B": 0.1e-12, "C": 0.25e-12, "D": 0.5e-12}
_PLACES = {"p": 1e-12, "n": 1e-9, "u": 1e-6, "µ": 1e-6, "μ": 1e-6, "m": 1e-3}
_POWERS = {**{n: n for n in range(7)}, 8: -2, 9: -1}
# "4n7K", "100uF", "47 µFK": an F straight behind the unit's letter is farad. Behind digits it is a tolerance of 1 %.
_LETTERED = re.compile(r"(\d*)([pnuµμm])(?:(\d+)|F)?([A-Z]?)")
_DIGITS = re.compile(r"(\d{1,3})([A-Z]?)")
_SMALL_F = 10e-12


@dataclass(frozen=True)
class ReadFarads:
    """A mark as read.

    Attributes:
        farad: its value.
        low, high: what its tolerance leaves; the value itself where the mark does not say.
        tolerance: in words, "" where the mark does not say.
    """

    farad: float
    low: float
    high: float
    tolerance: str


def read_capacitor(text: str) -> ReadFarads:
    """A capacitor's mark.

    Args:
        text: as it stands on the part: "104K", "4n7", "µ47", "22".

    Returns:
        Its value, with what its tolerance leaves.

    Raises:
        MarkError: no capacitor is marked so.
    """
    mark = text.strip().replace(" ", "")
    lettered = _LETTERED.fullmatch(mark)
    if lettered is not None and (lettered[1] or lettered[3]):
        farad = float(f"{lettered[1] or 0}.{lettered[3] or 0}") * _PLACES[lettered[2]]
        return _with(mark, farad, lettered[4])
    plain = _DIGITS.fullmatch(mark.upper())
    if plain is None:
        raise MarkError(f'"{text.strip()[:20]}" is on no capacitor: 104, 104K, 4n7, µ47 or 22.')
    digits, letter = plain.groups()
    if len(digits) < 3:
        return _with(mark, float(digits) * 1e-12, letter)
    power = _POWERS.get(int(digits[2]))
    if power is None:
        raise MarkError(f'"{mark}": a 7 is no power of ten on a capacitor: 0 to 6 are, and 8 and 9 for parts of one.')
    return _with(mark, int(digits[:2]) * 10.0**power * 1e-12, letter)


def _with(mark: str, farad: float, letter: str) -> ReadFarads:
    if farad <= 0:
        raise MarkError(f'"{mark}" would be no capacitance at all.')
    if not letter:
        return ReadFarads(farad, farad, farad, "")
    if letter == "Z":
        return ReadFarads(farad, farad * 0.8, farad * 1.8, "-20 to +80 %")
    if letter in IN_PICOFARADS:
        if farad > _SMALL_F * (1 + 1e-9):
            raise MarkError(f'"{mark}": {letter} stands on 10 pF and less: it is a tolerance in picofarads.')
        spread = IN_PICOFARADS[letter]
        return ReadFarads(farad, farad - spread, farad + spread, f"±{spread * 1e12:g} pF")
    if letter not in TOLERANCES:
        known = "".join((*IN_PICOFARADS, *TOLERANCES, "Z"))
        raise MarkError(f'"{mark}": {letter} is no tolerance: {", ".join(known)}.')
    share = TOLERANCES[letter]
    return ReadFarads(farad, farad * (1 - share), farad * (1 + share), f"±{share * 100:g} %")


def write_capacitor(farad: float) -> tuple[str, str]:
    """How a value is marked.

    Args:
        farad: 0.1 pF to 99 mF.

    Returns:
        Two digits and a power, "" where there is none; and with a letter in place of the point.

    Raises:
        MarkError: it has more than two digits, or no mark.
    """
    number, power = _two(farad / 1e-12)
    code = next((f"{number}{digit}" for digit, p in _POWERS.items() if p == power), "")
    return code, _lettered(farad)


def _two(picofarads: float) -> tuple[int, int]:
    """Two digits and a power of ten."""
    if not 0.1 * (1 - 1e-9) <= picofarads <= 99e9:
        raise MarkError("Capacitors are marked from 0.1 pF to 99 mF.")
    power, number = 0, picofarads
    while round(number, 6) >= 100:
        number, power = number / 10, power + 1
    while number < 10 * (1 - 1e-9):
        number, power = number * 10, power - 1
    whole = round(number)
    if abs(number - whole) > 1e-6 * whole:
        raise MarkError("A capacitor's mark has two digits: 4.7 nF is one, 4.73 nF is not.")
    return whole, power


def _lettered(farad: float) -> str:
    """ "4n7": the unit's letter where the point would be."""
    letter, unit = next(
        ((x, v) for x, v in (("m", 1e-3), ("µ", 1e-6), ("n", 1e-9)) if farad >= v * (1 - 1e-9)), ("p", 1e-12)
    )
    whole, _, part = f"{farad / unit:.6g}".partition(".")
    return f"{whole if whole != '0' else ''}{letter}{part}"
