"""The function test: written and done before the swap, done again after it, and what the difference means."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

Result = Literal["", "works", "dark", "glows", "flickers", "otherwise"]
RESULTS: dict[Result, str] = {
    "": "Not done",
    "works": "As it should",
    "dark": "Dark",
    "glows": "Glows when it should not",
    "flickers": "Flickers",
    "otherwise": "Something else is off",
}
Judged = Literal["open", "same", "worse", "better", "changed"]


@dataclass(frozen=True)
class Check:
    """One thing that is done and looked at.

    Attributes:
        id, what: which, and what is done: "brake on, lights on".
        should: what should be seen.
        before, after: what was.
    """

    id: str
    what: str
    should: str
    before: Result
    after: Result


@dataclass(frozen=True)
class Difference:
    """A check before and after."""

    id: str
    judged: Judged
    line: str


def differences(checks: Sequence[Check]) -> tuple[Difference, ...]:
    """Each check judged.

    Args:
        checks: in their order.

    Returns:
        What each came to, in the same order.
    """
    return tuple(Difference(c.id, *_judged(c)) for c in checks)


def _judged(c: Check) -> tuple[Judged, str]:
    before, after = RESULTS[c.before].lower(), RESULTS[c.after].lower()
    if not c.before and not c.after:
        return "open", "Do it before the swap, while the old lamp is in."
    if not c.after:
        return "open", f"Before: {before}. Do it again after the swap, with the same hands in the same order."
    if not c.before:
        return "open", f"After: {after}. What it did before nobody wrote down: it proves nothing of the swap."
    if c.before == c.after:
        if c.after == "works":
            return "same", "As it should, before and after."
        return "same", f"{RESULTS[c.after]}, before and after: that was not the swap."
    if c.before == "works":
        return (
            "worse",
            f"It was as it should be, and now: {after}. The swap upset it, or a hand did: look before closing.",
        )
    if c.after == "works":
        return "better", f"Before: {before}. Now as it should: write down why."
    return "changed", f"Before: {before}. Now: {after}. Something changed, and neither is right."


def summed_up(found: Sequence[Difference]) -> str:
    """All checks in a line."""
    if not found:
        return "No check is written down. Write what must work before the old lamp comes out."
    worse = sum(d.judged in ("worse", "changed") for d in found)
    if worse:
        return f"{worse} of {len(found)} came out otherwise than before. Do not close it."
    still = sum(d.judged == "open" for d in found)
    return f"{still} of {len(found)} still to do." if still else f"All {len(found)} as before, or better."
