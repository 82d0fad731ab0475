"""A number without its unit where a guess may be ten or a thousand times off.

20 on a bench is mostly milliamps, and 222 off a chip is 2.2 kΩ.
"""

import re

from swapglow.core.quantities.parse import QuantityError
from swapglow.core.quantities.show import show
from swapglow.core.quantities.units import AMPERE, METRE, OHM, Unit
from swapglow.core.values.marked import may_be_marked

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
    """Refuse amps and lengths without a unit, and ohms that may be a mark; say what would be taken.

    Args:
        text: as typed.
        unit: the unit it is read in.

    Raises:
        QuantityError: it is a bare number of amps or metres, or digits that are a chip's mark rather than a value.
    """
    as_mark = may_be_marked(text) if unit is OHM else None
    if as_mark is not None:
        bare = text.strip()
        values = f"{show(float(bare), OHM, 4)}, or a chip's mark for {show(as_mark, OHM, 4)}"
        raise QuantityError(f'"{bare}" may be {values}: write {bare}R, or mark {bare}.')
    if unit is AMPERE and is_bare(text):
        bare = text.strip()
        raise QuantityError(f'"{bare}" of what? Write {with_unit(bare, "mA")} or {with_unit(bare, "A")}.')
    if unit is METRE and is_bare(text):
        bare = text.strip()
        raise QuantityError(f'"{bare}" of what? Write {with_unit(bare, "mm")} or {with_unit(bare, "m")}.')
