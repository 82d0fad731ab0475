"""A mark typed where a value is asked: colour bands, a chip's mark, a capacitor's digits.

Everything that takes ohms or farads reads marks here, and asks here where digits alone may be two things.
"""

import re

from swapglow.core.values import preferred
from swapglow.core.values.capacitor_marks import read_capacitor
from swapglow.core.values.resistor_marks import MarkError, is_colours, read_bands, read_chip

_SAID = re.compile(r"(?:mark(?:ed)?|smd|chip)\s+(\S+)", re.IGNORECASE)
# Two digits and a letter that is no unit and no prefix; E stands for ohms with some, so that such a mark is to be said.
_CODED = re.compile(r"\d\d[ZYXSABHCDF]")
# Three digits are no farads, and neither are they with a tolerance behind them; F may be the unit.
_PICOFARADS = re.compile(r"\d{3}[B-EG-Z]?")
_DIGITS = re.compile(r"\d{3,4}")


def ohms_of(text: str) -> float | None:
    """What a resistor's mark says: "mark 472", "yellow violet red gold", "01C".

    Args:
        text: as typed.

    Returns:
        Ω; None where it is no mark, but a value.

    Raises:
        MarkError: it is a mark that no resistor has.
    """
    text = text.strip()
    said = _SAID.fullmatch(text)
    if said is not None:
        return read_chip(said[1]).ohm
    if is_colours(text):
        return read_bands(text).ohm
    return read_chip(text).ohm if _CODED.fullmatch(text) else None


def farads_of(text: str) -> float | None:
    """What a capacitor's mark says: "mark 104", "104", "104K".

    Args:
        text: as typed.

    Returns:
        F; None where it is no mark, but a value.

    Raises:
        MarkError: it is a mark that no capacitor has.
    """
    text = text.strip()
    said = _SAID.fullmatch(text)
    if said is not None:
        return read_capacitor(said[1]).farad
    return read_capacitor(text).farad if _PICOFARADS.fullmatch(text) else None


def may_be_marked(text: str) -> float | None:
    """What bare digits say if they are a chip's mark, where that is the likelier.

    470 is a value that resistors have (E24), and is taken for one. 222 and 4702 are none, and as marks they are 2.2 kΩ
    and 47 kΩ (IEC 60063; to ask there is ours).

    Args:
        text: as typed.

    Returns:
        What the mark says, Ω; None where the digits are a value, or no mark.
    """
    text = text.strip()
    if not _DIGITS.fullmatch(text) or _is_made(float(text)):
        return None
    try:
        ohm = read_chip(text).ohm
    except MarkError:
        return None
    return ohm if _is_made(ohm) else None


def _is_made(ohm: float) -> bool:
    """Whether a value is one of E24."""
    return bool(ohm > 0 and abs(preferred.prefer(ohm, "E24", "nearest") / ohm - 1) < 1e-6)
