"""What somebody else changed meanwhile: told to the second typist instead of being written over."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from swapglow.records.fields import GONE, Path, in_words, is_quantity, value_in_words


@dataclass(frozen=True)
class Changed:
    """A field that is not any more what the typist saw.

    Attributes:
        field: its name.
        now: what stands there, in words.
    """

    field: str
    now: str

    @property
    def message(self) -> str:
        """In words."""
        name = in_words(tuple(self.field.split("."))) or "it"
        return f"Meanwhile {name} was changed to {self.now} elsewhere."


class EditConflictError(Exception):
    """Fields that were changed since the typist saw them; nothing was saved."""

    def __init__(self, changed: list[Changed]) -> None:
        super().__init__(" ".join(c.message for c in changed))
        self.changed = changed


def check(kept: Mapping[str, Any], changes: Mapping[str, Any], was: Mapping[str, Any]) -> None:
    """Refuse to write over what the typist has not seen.

    Args:
        kept: the record's fields as they stand.
        changes: fields to be written.
        was: what stood in them when they were typed, quantities whole; fields left out are written whatever
            stands there.

    Raises:
        EditConflictError: a field holds neither what was seen nor what is to be written.
    """
    changed = [Changed(".".join(path), value_in_words(now)) for path, now in _overtaken(kept, changes, was, ())]
    if changed:
        raise EditConflictError(changed)


def _empty(value: Any) -> bool:
    """Whether a field that holds it shows nothing: no number and no text look alike."""
    return value is None or value == ""


def _overtaken(
    kept: Mapping[str, Any], changes: Mapping[str, Any], was: Mapping[str, Any], path: Path
) -> Iterator[tuple[Path, Any]]:
    for key in was.keys() & changes.keys():
        seen, new, now = was[key], changes[key], kept.get(key, GONE)
        parts = (seen, new, now)
        if all(isinstance(p, Mapping) and not is_quantity(p) for p in parts):
            yield from _overtaken(now, new, seen, (*path, key))
        elif now not in (new, seen) and not (_empty(seen) and _empty(now)) and not (new is None and now is GONE):
            yield (*path, key), now
