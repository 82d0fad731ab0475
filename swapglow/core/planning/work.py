"""Work that is left on a lamp, as the bench day takes it in hand."""

from dataclasses import dataclass
from datetime import datetime
from typing import Literal

Kind = Literal["read", "trial", "desolder", "sleeve", "solder", "prove", "soak", "close"]
# In the order in which they are done, with what is got out for it once (ours).
KINDS: dict[Kind, str] = {
    "read": "Take the readings the app asks for",
    "trial": "Try on clips",
    "desolder": "Take the old lamps out",
    "sleeve": "Cut and slip sleeves",
    "solder": "Solder in",
    "prove": "Read it lit",
    "soak": "Half an hour lit",
    "close": "Close up",
}
# Minutes of hands for one lamp, until the bench's own record says otherwise; and minutes to get things out (ours).
USUAL_MIN: dict[Kind, float] = {
    "read": 6,
    "trial": 10,
    "desolder": 6,
    "sleeve": 4,
    "solder": 8,
    "prove": 5,
    "soak": 2,
    "close": 8,
}
SET_UP_MIN: dict[Kind, float] = {
    "read": 2,
    "trial": 3,
    "desolder": 5,
    "sleeve": 2,
    "solder": 5,
    "prove": 2,
    "soak": 1,
    "close": 2,
}
# Another item taken in hand.
CHANGE_MIN = 2.0
# Lit for half an hour, with nobody at it (common practice).
SOAK_MIN = 30.0
# Kinds that the iron is hot for: after one of them another needs no heating up.
IRON: frozenset[Kind] = frozenset({"desolder", "solder"})


@dataclass(frozen=True)
class Task:
    """One thing to do on one lamp.

    Attributes:
        id: the lamp's own and the kind.
        kind: what.
        lamp, item: on which lamp, of which item; ``lamp_id`` and ``item_id`` their records.
        minutes: of hands.
        after: tasks that must be done before it.
        rests_min: minutes that must pass after it before what follows it.
        held: what it waits for that no work here brings about, in words; "" for nothing.
        until: when that is over, where somebody said.
        due: the day it was promised for.
    """

    id: str
    kind: Kind
    lamp: str
    item: str
    lamp_id: str
    item_id: str
    minutes: float
    after: tuple[str, ...] = ()
    rests_min: float = 0.0
    held: str = ""
    until: datetime | None = None
    due: str = ""


@dataclass(frozen=True)
class Lamp:
    """A lamp in work, as the day needs to know it.

    Attributes:
        id, name, item_id, item: which.
        left: kinds of work that are left, in their order.
        held: what it waits for, by the first kind that it holds up; in words.
        until: when each of those is over, where somebody said.
        due: the day it was promised for, as it sorts; "" for none.
    """

    id: str
    name: str
    item_id: str
    item: str
    left: tuple[Kind, ...]
    held: dict[Kind, str]
    until: dict[Kind, datetime]
    due: str = ""


def tasks_of(lamp: Lamp, minutes: dict[Kind, float]) -> tuple[Task, ...]:
    """A lamp's tasks, each after the one before.

    Args:
        lamp: the lamp.
        minutes: how long each kind takes.

    Returns:
        The tasks in their order.
    """
    out: list[Task] = []
    for kind in (k for k in KINDS if k in lamp.left):
        before = (out[-1].id,) if out else ()
        out.append(
            Task(
                f"{lamp.id}:{kind}",
                kind,
                lamp.name,
                lamp.item,
                lamp.id,
                lamp.item_id,
                minutes[kind],
                before,
                SOAK_MIN if kind == "soak" else 0.0,
                lamp.held.get(kind, ""),
                lamp.until.get(kind),
                lamp.due,
            )
        )
    return tuple(out)
