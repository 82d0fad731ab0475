"""What a field is besides its type: how it is read, what it is in the core, and what may be chosen there."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any, TypeVar

from pydantic import BaseModel, ConfigDict, GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic.fields import FieldInfo
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import core_schema

from swapglow.core.quantities import Unit

T = TypeVar("T")


class Shape(BaseModel):
    """Nothing that is not described is taken. Every field has a value, so that a patch is a shape too."""

    model_config = ConfigDict(extra="forbid", frozen=True)


@dataclass(frozen=True)
class OneOf:
    """A field that takes one of a few.

    Attributes:
        options: what is taken, with the labels it is offered by.
    """

    options: Mapping[Any, Any]

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> core_schema.CoreSchema:
        """Check the value against the options as they are now: kinds may be added."""
        return core_schema.no_info_after_validator_function(self._check, handler(source))

    def __get_pydantic_json_schema__(
        self, schema: core_schema.CoreSchema, handler: GetJsonSchemaHandler
    ) -> JsonSchemaValue:
        """The options as an enumeration."""
        return {**handler(schema), "enum": list(self.options)}

    def _check(self, value: Any) -> Any:
        if value not in self.options:
            raise ValueError(f'"{value}" is none of: {", ".join(str(o) for o in self.options if o != "")}')
        return value

    def labels(self) -> dict[str, str]:
        """Options as texts, each with its label; an object of a table is asked for its own."""
        return {text_of(o): str(getattr(label, "label", label)) for o, label in self.options.items()}


@dataclass(frozen=True)
class Suggests:
    """Usual values of a field that takes others too, with the labels they are offered by."""

    options: Mapping[Any, str]

    def labels(self) -> dict[str, str]:
        """Values as texts, each with its label."""
        return {text_of(o): label for o, label in self.options.items()}


@dataclass(frozen=True)
class Reads:
    """A text that is read as a quantity.

    Attributes:
        unit: the unit it is read in.
        to: the name of the value in the core.
        of: whose value it is: the position's, or that of a part of it.
        above, minimum: its bounds, SI units.
        absent: whether 0 and "none" say that it is not there.
        at: of a current, the field beside it whose volts turn a power typed there into it.
    """

    unit: Unit
    to: str
    of: str = "position"
    above: float | None = 0.0
    minimum: float | None = None
    absent: bool = False
    at: str = ""


@dataclass(frozen=True)
class Sets:
    """A value that the core takes as it is.

    Attributes:
        to: its name in the core.
        of: whose value it is.
        by: what makes the core's value of it.
        by_hand: whether it needs more than itself; then it is only known by its two names here.
    """

    to: str
    of: str = "position"
    by: Callable[[Any], Any] = lambda value: value
    by_hand: bool = False


def text_of(option: object) -> str:
    """An option as the text it is chosen by: "true", "0.5", "E24", "" for nothing."""
    if option is None:
        return ""
    if isinstance(option, bool):
        return "true" if option else "false"
    return f"{option:g}" if isinstance(option, float) else str(option)


def marks(field: FieldInfo, kind: type[T]) -> T | None:
    """What a field is marked with, of one kind; None where it has no such mark."""
    return next((m for m in field.metadata if isinstance(m, kind)), None)


def marked(shape: type[BaseModel], kind: type[T]) -> Iterator[tuple[str, FieldInfo, T]]:
    """The fields of a shape that bear a mark, with it.

    Args:
        shape: the model.
        kind: the mark's class.

    Yields:
        Name, field and mark.
    """
    for name, field in shape.model_fields.items():
        mark = marks(field, kind)
        if mark is not None:
            yield name, field, mark
