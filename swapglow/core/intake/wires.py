"""Wires told apart by what they do, with a test lamp where a meter is too slow."""

from dataclasses import dataclass
from typing import Literal

Does = Literal["", "steady", "pulsing", "dead"]
# What a wire did, and what it was found with, as they are offered.
DOES: dict[Does, str] = {"": "Not tried", "steady": "Steady", "pulsing": "Pulsing", "dead": "Dead"}
FOUND_WITH = {"": "Not said", "test lamp": "Test lamp", "meter": "Meter", "continuity": "Continuity"}


@dataclass(frozen=True)
class Wire:
    """A wire as seen: its colour is noted, never taken for its meaning.

    Attributes:
        does: what a test lamp from it to ground did, with ``when`` on.
        when: the switch or condition, in the user's words.
        found_with: "test lamp", "meter" or "continuity".
    """

    name: str
    does: Does = ""
    when: str = ""
    found_with: str = ""


def tells(wires: tuple[Wire, ...]) -> tuple[str, ...]:
    """What each wire is by its behaviour, one line for each."""
    return tuple(_tell(w) for w in wires)


def _tell(w: Wire) -> str:
    when = w.when.strip()
    slow = " A meter is too slow to follow pulses: see it on a test lamp." if w.found_with == "meter" else ""
    if w.does == "pulsing":
        return f"Pulses with {when or 'a switch not named'}: fed by a flasher or a lamp check.{slow}"
    if w.does == "steady":
        if not when or when.lower() in ("always", "all"):
            return "Steady always: a permanent feed. Find its fuse."
        return f"Steady with {when}: fed by that switch." + (
            " Not told apart from pulses by a meter: see it on a test lamp." if w.found_with == "meter" else ""
        )
    if w.does == "dead":
        if w.found_with == "continuity":
            return "Dead, found by continuity: a ground, or a run between two places."
        return "Dead: a ground, a spare, or a bad ground at the test lamp. Check its continuity to the frame."
    return "Not tried yet: test lamp from it to a bare ground."
