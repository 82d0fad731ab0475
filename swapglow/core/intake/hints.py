"""Second jobs that a lamp's name or its rail suggests."""

import re
from dataclasses import dataclass
from functools import cache

from swapglow.core.intake.tables import rows


@dataclass(frozen=True)
class Hint:
    """A second job that a name or a rail speaks for.

    Attributes:
        job: its id.
        asks: whether the swap waits until somebody has said whether it has that job.
        by: what spoke for it: the words of the name, or "" for the rail alone.
    """

    job: str
    asks: bool
    by: str


@dataclass(frozen=True)
class _Rule:
    words: re.Pattern[str] | None
    on: frozenset[str]
    job: str
    asks: bool


@cache
def _rules() -> tuple[_Rule, ...]:
    out = []
    for r in rows("hints"):
        words = [w.replace("_", r"[\s_-]") for w in r["words"].split()]
        pattern = re.compile(r"\b(?:" + "|".join(words) + ")", re.IGNORECASE) if words else None
        out.append(_Rule(pattern, frozenset(r["on"].split()), r["job"], r["asks"] == "yes"))
    return tuple(out)


def hints_of(name: str, supply: str) -> tuple[Hint, ...]:
    """Second jobs that a lamp's name and its rail speak for.

    Args:
        name: the lamp's.
        supply: id of its rail's kind.

    Returns:
        The hints, those that ask first.
    """
    found = []
    for rule in _rules():
        if rule.on and supply not in rule.on:
            continue
        said = None if rule.words is None else rule.words.search(name)
        if rule.words is None or said is not None:
            found.append(Hint(rule.job, rule.asks, "" if said is None else said[0]))
    return tuple(sorted(found, key=lambda h: not h.asks))
