"""A refusal that names its field, and the reading of one field."""

from swapglow.core.quantities import Parsed, QuantityError, Unit, parse


class FieldError(ValueError):
    """A refusal with the name of the field it belongs to."""

    def __init__(self, field: str, message: str) -> None:
        super().__init__(message)
        self.field = field
        self.message = message


def parse_field(name: str, text: str, unit: Unit, *, above: float | None = None,
                minimum: float | None = None) -> Parsed:  # fmt: skip
    """Read a field's text.

    Raises:
        FieldError: it is no quantity of the unit, or out of bounds.
    """
    try:
        return parse(text, unit, above=above, minimum=minimum)
    except QuantityError as problem:
        raise FieldError(name, str(problem)) from None


def single(name: str, text: str, unit: Unit, *, above: float | None = None,
           minimum: float | None = None) -> float:  # fmt: skip
    """Read a field that takes one value.

    Raises:
        FieldError: as above, or a range was typed.
    """
    parsed = parse_field(name, text, unit, above=above, minimum=minimum)
    if parsed.spread != "none":
        raise FieldError(name, f'"{text}" is a range; one value is wanted here.')
    return parsed.usual


def one_of(name: str, text: str, options: tuple[str, ...]) -> str:
    """A field that takes one of a few.

    Raises:
        FieldError: it is none of them.
    """
    if text not in options:
        raise FieldError(name, f'"{text}" is none of: {", ".join(o for o in options if o)}.')
    return text
