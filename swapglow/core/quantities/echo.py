"""What a text was taken for, said back as it would be written."""

from swapglow.core.quantities.bare import ask_unit
from swapglow.core.quantities.parse import parse
from swapglow.core.quantities.show import show
from swapglow.core.quantities.units import Unit


def echo(text: str, unit: Unit) -> str:
    """What a text was taken for: "13.2 V (12 V to 14.4 V)".

    Args:
        text: as typed.
        unit: the unit it is read in.

    Returns:
        The value in engineering form with its ends; empty for an empty text.

    Raises:
        QuantityError: it cannot be read, or is a current without a unit.
    """
    ask_unit(text, unit)
    return echo_kept(text, unit)


def echo_kept(text: str, unit: Unit) -> str:
    """What a kept text is taken for, as :func:`echo`; a current without a unit was once taken in amps.

    Args:
        text: as kept.
        unit: the unit it is read in.

    Returns:
        The value in engineering form with its ends; empty for an empty text.

    Raises:
        QuantityError: it cannot be read.
    """
    if not text.strip():
        return ""
    parsed = parse(text, unit)
    value = show(parsed.usual, unit, 4)
    if parsed.spread == "none":
        return value
    return f"{value} ({show(parsed.low, unit, 4)} to {show(parsed.high, unit, 4)})"
