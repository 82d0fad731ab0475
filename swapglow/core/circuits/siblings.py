"""Readings of one board stand in for those that others of its kind on the same item still lack."""

from collections.abc import Iterable, Mapping
from typing import Any

from swapglow.core.circuits.kind import CircuitKind
from swapglow.core.quantities import Input, InputError, Source

Typed = Mapping[str, Input]


def taught(kind: CircuitKind[Any], typed: Typed, siblings: Iterable[tuple[str, Typed]]) -> Typed:
    """A circuit's details, completed from the readings of its siblings.

    Args:
        kind: what they are.
        typed: what was typed of this one, by name.
        siblings: the name of each other circuit of that kind on the item, and what was typed of it.

    Returns:
        What was typed. A detail taken from a sibling has that one's name in its note.
    """
    for name, other in siblings:
        try:
            said = kind.teaches(kind.read(typed), kind.read(other))
        except InputError:
            continue
        if said:
            note = f"read on {name}" if name else "read on another one like it"
            return {**typed, **{k: Input(text, Source.COMPUTED, note) for k, text in said.items()}}
    return typed
