"""A number without its unit where a guess may be a thousand times off: 20 on a bench is mostly milliamps."""

import re

from swapglow.core.quantities.parse import QuantityError
from swapglow.core.quantities.units import AMPERE, METRE, Unit

_SIGNS = r"[\d.,\s±+\-/%()…–—]|(?<=\d)[eE](?=[+-]?\d)"
_BARE = re.compile(rf"(?:{_SIGNS})*[1-9](?:{_SIGNS})*")
_FIRST = re.compile(r"[\d.,]+(?:[eE][+-]?\d+)?")


def is_bare(text: str) -> bool:
    """Whether a text is numbers alone, other than nought."""
    return _BARE.fullmatch(text) is not None


def with_unit(text: str, unit: str) -> str:
    """A bare text with a unit where it belongs: "10-5" becomes "10-5mA", "20 ±5%" becomes "20mA ±5%".

    Args:
        text: as typed.
        unit: "mA" or "A".

    Returns:
        The text with the unit; as it is where it has one.
    """
    if not is_bare(text):
        return text
    if re.search(r"[±%(]|\+/?-", text):
        return _FIRST.sub(lambda found: found.group(0) + unit, text, count=1)
    return text.strip() + unit


def ask_unit(text: str, unit: Unit) -> None:
    """Refuse amps and lengths without a unit, and say what would be taken.

    Args:
        text: as typed.
        unit: the unit it is read in.

    Raises:
        QuantityError: it is a bare number of amps or metres.
    """
    if unit is AMPERE and is_bare(text):
        bare = text.strip()
        raise QuantityError(f'"{bare}" of what? Write {with_unit(bare, "mA")} or {with_unit(bare, "A")}.')
    if unit is METRE and is_bare(text):
        bare = text.strip()
        raise QuantityError(f'"{bare}" of what? Write {with_unit(bare, "mm")} or {with_unit(bare, "m")}.')
