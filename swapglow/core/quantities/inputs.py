"""What somebody typed: a text with its source, a refusal that carries its field, the reading of one field."""

from collections.abc import Collection
from dataclasses import dataclass

from swapglow.core.quantities.bare import ask_unit
from swapglow.core.quantities.parse import Parsed, QuantityError, parse
from swapglow.core.quantities.provenance import Source
from swapglow.core.quantities.units import AMPERE, Unit


@dataclass(frozen=True)
class Input:
    """A text with its source and a note (meter, condition, when); ``fitted``: what stood there when it was seen."""

    text: str = ""
    source: Source = Source.ASSUMED
    note: str = ""
    fitted: str = ""

    @property
    def empty(self) -> bool:
        """Nothing but blanks."""
        return not self.text.strip()


class InputError(ValueError):
    """A refusal with the name of the field it belongs to, from where it arises."""

    def __init__(self, field: str, message: str) -> None:
        super().__init__(message)
        self.field = field
        self.message = message


def read_quantity(
    name: str,
    text: str,
    unit: Unit,
    *,
    above: float | None = None,
    minimum: float | None = None,
    volts: float | None = None,
) -> Parsed:
    """Read a field's text as a quantity, with its ends where it gives a range.

    Args:
        name: the field, for a refusal.
        text: as typed.
        unit: the unit wanted.
        above, minimum: bounds in SI units, the first exclusive.
        volts: at which a power typed for a current is taken, V.

    Returns:
        The value and its ends in SI units.

    Raises:
        InputError: it is no quantity of the unit, out of bounds, or a bare current of 1 and more.
    """
    try:
        parsed = parse(text, unit, above=above, minimum=minimum, volts=volts)
        if unit is AMPERE and parsed.high >= 1:
            # Texts of earlier versions hold a bare part of an ampere in amps; 20 without a unit is asked about.
            ask_unit(text, unit)
        return parsed
    except QuantityError as problem:
        raise InputError(name, str(problem)) from None


def check_unit(name: str, text: str, unit: Unit) -> None:
    """Refuse a current that does not say its unit, at its field.

    Args:
        name: the field, for a refusal.
        text: as typed.
        unit: the unit it is read in.

    Raises:
        InputError: as :func:`swapglow.core.quantities.bare.ask_unit`.
    """
    try:
        ask_unit(text, unit)
    except QuantityError as problem:
        raise InputError(name, str(problem)) from None


def read_single(
    name: str,
    text: str,
    unit: Unit,
    *,
    above: float | None = None,
    minimum: float | None = None,
    volts: float | None = None,
) -> float:
    """Read a field that takes one value.

    Args:
        name, text, unit, above, minimum, volts: as :func:`read_quantity`.

    Returns:
        The value in SI units.

    Raises:
        InputError: as :func:`read_quantity`, or a range was typed.
    """
    parsed = read_quantity(name, text, unit, above=above, minimum=minimum, volts=volts)
    if parsed.spread != "none":
        raise InputError(name, f'"{text}" is a range; one value is wanted here.')
    return parsed.usual


def read_choice(name: str, text: str, options: Collection[str]) -> str:
    """Read a field that takes one of a few.

    Args:
        name: the field, for a refusal.
        text: as sent.
        options: what is taken.

    Returns:
        The text itself.

    Raises:
        InputError: it is none of them.
    """
    if text not in options:
        raise InputError(name, f'"{text}" is none of: {", ".join(o for o in options if o)}.')
    return text


def read_count(name: str, text: str, most: int) -> int:
    """Read a whole number from 1.

    Args:
        name: the field, for a refusal.
        text: as typed.
        most: the largest taken.

    Returns:
        The number.

    Raises:
        InputError: it is no whole number, or out of bounds.
    """
    if not (text.isascii() and text.isdecimal() and 1 <= int(text) <= most):
        raise InputError(name, f'"{text}" is no count: a whole number, 1 to {most}.')
    return int(text)


def read_share(name: str, text: str, usual: float) -> float:
    """Read a share: "50 %", "50", ".5" or "1/8".

    Args:
        name: the field, for a refusal.
        text: as typed.
        usual: what an empty text stands for.

    Returns:
        The share, more than 0 and up to 1.

    Raises:
        InputError: it is no share.
    """
    if not text:
        return usual
    bare = text.replace("%", "").replace(",", ".").strip()
    part, slash, whole = bare.partition("/")
    try:
        value = float(part) / float(whole) if slash else float(bare)
    except (ValueError, ZeroDivisionError):
        raise InputError(name, f'"{text}" is no share: 50 %, 0.5 or 1/2.') from None
    share = value / 100 if "%" in text or value > 1 else value
    if not 0 < share <= 1:
        raise InputError(name, f'"{text}" is no share: more than 0 and up to 100 %.')
    return share


def read_plain(name: str, text: str, what: str, lowest: float, highest: float) -> float | None:
    """Read a plain number.

    Args:
        name: the field, for a refusal.
        text: as typed; a comma may be its decimal mark.
        what: what it is, with an example, for a refusal.
        lowest, highest: bounds, both taken.

    Returns:
        The number; None for an empty text.

    Raises:
        InputError: it is no number, or out of bounds.
    """
    if not text:
        return None
    try:
        value = float(text.replace(",", "."))
    except ValueError:
        raise InputError(name, f'"{text}" is no {what}.') from None
    if not lowest <= value <= highest:
        raise InputError(name, f'"{text}" is no {what}: it lies between {lowest:g} and {highest:g}.')
    return value
