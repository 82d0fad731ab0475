"""A judgement, and the changes that would clear it."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

Grade = Literal["stop", "mind", "note"]
GRADES: tuple[Grade, ...] = ("stop", "mind", "note")


@dataclass(frozen=True)
class Remedy:
    """A change that clears a finding.

    Attributes:
        id: names it among the finding's remedies.
        label: what to do, in a line.
        changes: fields of the position and what they become.
    """

    id: str
    label: str
    changes: Mapping[str, float | int | str | None] = field(default_factory=dict)


@dataclass(frozen=True)
class Finding:
    """A judgement with its figure, its limit, why it matters and what would clear it.

    ``first`` is said where the circuit must not be powered as it stands: what is done before anything else.
    """

    id: str
    grade: Grade
    message: str
    figure: str = ""
    limit: str = ""
    why: str = ""
    remedies: tuple[Remedy, ...] = ()
    first: str = ""


def gravity(f: Finding) -> int:
    """A finding's place in the order, the gravest first."""
    return GRADES.index(f.grade)
