"""What a kind of fitted LED circuit says of itself; the rest of the house asks here and never by a kind's name."""

from collections.abc import Mapping
from typing import ClassVar

from swapglow.core.fitted.worked import Worked
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.quantities import Input


class FittedKind:
    """A kind of circuit with LEDs that are there already. A module binds one to ``KIND``.

    Attributes:
        id: its name in records and documents.
        order: its place among the kinds.
        label: what it is called.
        looks: how it is known by looking.
        never: what must not be done to it; shown before anything else.
        details: what it asks for.
        read_now, read_after: the details that are read as it is now and after the change; a kind without the first
            asks for none.
        stale: details that say nothing any more once something was changed.
    """

    id: ClassVar[str]
    order: ClassVar[int]
    label: ClassVar[str]
    looks: ClassVar[str]
    never: ClassVar[str]
    details: ClassVar[tuple[Detail, ...]]
    read_now: ClassVar[str] = ""
    read_after: ClassVar[str] = "after"
    stale: ClassVar[tuple[str, ...]] = ()

    def read(self, inputs: Mapping[str, Input]) -> Details:
        """What was typed, by what the kind asks for.

        Args:
            inputs: texts by name.

        Returns:
            The details, each readable in its unit.

        Raises:
            InputError: for the first that cannot be read.
        """
        found = Details(self.details, inputs)
        found.check()
        return found

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """Work it out.

        Args:
            typed: what was typed.
            chosen: the label of the way that somebody chose; what comes after follows it, else ours.

        Returns:
            What it comes to.

        Raises:
            InputError: a figure is missing, or cannot be.
            NotConverged: its circuit has no answer.
        """
        raise NotImplementedError
