"""What is left to do on a lamp, and what it waits for, by what is written of it."""

from collections.abc import Collection
from dataclasses import dataclass
from datetime import datetime

from swapglow.core.planning.build_step_kinds import kind_of_step
from swapglow.core.planning.work import KINDS, Kind

# What each stage has behind it.
_BEHIND: dict[str, frozenset[Kind]] = {
    "sizing": frozenset(),
    "trial": frozenset({"read"}),
    "fitted": frozenset({"read", "trial", "desolder", "sleeve", "solder"}),
    "done": frozenset(KINDS),
}


@dataclass(frozen=True)
class Wait:
    """What an item waits for: paint, silicone, its owner's word.

    Attributes:
        what: in words.
        until: when it is over; None where nobody knows.
    """

    what: str
    until: datetime | None


def kinds_left(stage: str, ticked: Collection[str], *, asks_reading: bool) -> tuple[Kind, ...]:
    """Kinds of work that are left, in their order.

    Args:
        stage: how far the lamp has come.
        ticked: steps of the build that were ticked.
        asks_reading: whether a reading is asked before anything is tried.

    Returns:
        The kinds.
    """
    behind = set(_BEHIND.get(stage, frozenset()))
    for step in ticked:
        behind |= kind_of_step(step).behind
    if not asks_reading:
        behind.add("read")
    return tuple(k for k in KINDS if k not in behind)


def holds(
    left: tuple[Kind, ...], *, stop: str, short: Collection[str], taken: bool, waits: Collection[Wait]
) -> tuple[dict[Kind, str], dict[Kind, datetime]]:
    """What holds a lamp up, and until when.

    Args:
        left: what is left of it.
        stop: what forbids the swap, "" for nothing: it can be read still.
        short: parts that are not in the drawer.
        taken: whether its parts were taken out already.
        waits: what the item waits for; all of it must be over.

    Returns:
        Reasons and times by the first kind they hold up.
    """
    held: dict[Kind, str] = {}
    until: dict[Kind, datetime] = {}
    if not left:
        return held, until
    work = [k for k in left if k != "read"]
    if waits:
        held[left[0]] = ", ".join(w.what for w in waits)
        ends = [w.until for w in waits]
        if all(e is not None for e in ends):
            until[left[0]] = max(e for e in ends if e is not None)
    if work and stop:
        held[work[0]] = f"Not yet: {stop}"
        until.pop(work[0], None)
    elif work and short and not taken:
        before = held.get(work[0], "")
        held[work[0]] = (f"{before}; " if before else "") + "not in the drawer: " + ", ".join(short)
        until.pop(work[0], None)
    return held, until
