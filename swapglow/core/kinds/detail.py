"""What a kind asks for beyond the common fields, and the reading of what was typed there."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from swapglow.core.quantities import VOLT, Figure, Input, InputError, Unit
from swapglow.core.quantities.inputs import read_choice, read_count, read_quantity, read_share, read_single
from swapglow.core.values.nothing import LINK_OHM, says_none

None_ = Literal["", "absent", "link"]


@dataclass(frozen=True)
class Detail:
    """A further figure that a kind asks for.

    Attributes:
        id: its name in records and documents.
        label: what the field is called on screen.
        unit: None for a choice among ``options``, for words, or for a plain count.
        hint: how to write it, or what stands in for it when it is left empty.
        options: pairs of value and label, the first being what an empty text stands for.
        long: whether it takes several lines.
        none: what "none" or 0 means of a resistor: that it is not there, or that a link stands in its place; "" where
            there is always one.
        seen: whether it says what was seen with what was fitted then, so that it is a fact about that circuit alone.
        at: of a current, the detail whose volts turn a power typed there into it; "" where there is none.
    """

    id: str
    label: str
    unit: Unit | None
    hint: str
    options: tuple[tuple[str, str], ...] = ()
    long: bool = False
    none: None_ = ""
    seen: bool = False
    at: str = ""


class Details:
    """The details typed for a kind, read by the units the kind gave them."""

    def __init__(self, asked: tuple[Detail, ...], inputs: Mapping[str, Input]) -> None:
        """Read ``inputs`` by name; what the kind does not ask for is not seen."""
        self._asked = {d.id: d for d in asked}
        self._inputs = {name: i for name, i in inputs.items() if name in self._asked}

    def changed(self, changes: Mapping[str, str]) -> "Details":
        """The same with some texts changed.

        Args:
            changes: texts by name.

        Returns:
            The details after the change.
        """
        inputs = {**self._inputs, **{name: Input(text) for name, text in changes.items()}}
        return Details(tuple(self._asked.values()), inputs)

    def asks(self, name: str) -> bool:
        """Whether the kind asks for it."""
        return name in self._asked

    def input(self, name: str) -> Input:
        """What was typed; an empty input where nothing was."""
        return self._inputs.get(name, Input())

    def text(self, name: str) -> str:
        """The text without blanks around it; empty where nobody typed one."""
        return self.input(name).text.strip()

    def figure(self, name: str, *, above: float | None = 0.0) -> Figure | None:
        """One value with its source.

        Args:
            name: the detail; one the kind does not ask for is as if nobody had typed it.
            above: what it must exceed, SI units; None takes 0 as well.

        Returns:
            The figure in SI units; None where nothing was typed.

        Raises:
            InputError: it cannot be read in the detail's unit.
        """
        typed = self.input(name)
        if typed.empty:
            return None
        detail = self._asked[name]
        unit = detail.unit
        if detail.none and says_none(typed.text):
            return Figure(LINK_OHM, typed.source, "no resistor") if detail.none == "link" else None
        if unit is None:
            raise InputError(name, f'"{name}" has no unit to be read in.')
        least = 0.0 if above is None else None
        return Figure(
            read_single(name, typed.text, unit, above=above, minimum=least, volts=self._volts(name)),
            typed.source,
            typed.note,
        )

    def _volts(self, name: str) -> float | None:
        """Volts at which a power typed for a current is taken: the middle of what stands there; None for none."""
        at = self._asked[name].at
        if not at or self.input(at).empty:
            return None
        return read_quantity(at, self.text(at), VOLT, above=0.0).usual

    def value(self, name: str, *, above: float | None = 0.0) -> float | None:
        """As :meth:`figure`, without its source.

        Args:
            name, above: as :meth:`figure`.

        Returns:
            The value in SI units; None where nothing was typed.
        """
        found = self.figure(name, above=above)
        return None if found is None else found.value

    def needed(self, *details: Detail) -> tuple[float, ...]:
        """Values that nothing can be worked out without.

        Args:
            details: those needed.

        Returns:
            Their values, in SI units and more than 0.

        Raises:
            InputError: for the first that is missing, or cannot be read.
        """
        out = []
        for detail in details:
            value = self.value(detail.id)
            if not value:
                raise InputError(detail.id, f"Type this too: {detail.label}, {detail.hint}.")
            out.append(value)
        return tuple(out)

    def choice(self, name: str) -> str:
        """The option chosen; the first where nobody chose.

        Raises:
            InputError: it is none of the options.
        """
        options = [value for value, _ in self._asked[name].options]
        return read_choice(name, self.text(name) or options[0], options)

    def count(self, name: str, most: int) -> int:
        """A whole number from 1, 1 where nobody typed one.

        Args:
            name: the detail.
            most: the largest taken.

        Returns:
            The number.

        Raises:
            InputError: it is none, or out of bounds.
        """
        return read_count(name, self.text(name) or "1", most)

    def share(self, name: str, usual: float) -> float:
        """A share, "50 %" or "0.5".

        Args:
            name: the detail.
            usual: what an empty text stands for.

        Returns:
            The share, up to 1.

        Raises:
            InputError: it is none.
        """
        return read_share(name, self.text(name), usual)

    def check(self) -> None:
        """Read every quantity, so that none is kept that cannot be read.

        Raises:
            InputError: for the first that cannot.
        """
        for name, detail in self._asked.items():
            typed = self.input(name)
            if detail.unit is not None and not typed.empty:
                read_quantity(name, typed.text, detail.unit, volts=self._volts(name))
