"""A day at the bench: the same work on all lamps together, waits kept, in the hours there are.

The rules, in the order in which they are asked:

1. Only what can be done now: what comes before it is done, its parts are there, its wait is over.
2. What is promised for today, or was promised earlier, before all else. The rules below save changes; a promise is
   worth more than a change.
3. A half-hour lit is begun as soon as it can be, so that hands work while it soaks.
4. Else stay at what is on the bench (an iron that is hot stays in use); where nothing of it is left, take the kind of
   work that most of the lamps wait for.
5. Within it: what was promised first, then the bench's own order, item by item.
6. Nothing is begun that would not be finished in the hours; where nothing can be done, wait for what soaks.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from swapglow.core.planning.work import CHANGE_MIN, IRON, KINDS, SET_UP_MIN, SOAK_MIN, Kind, Task


@dataclass(frozen=True)
class Done:
    """A task in the day.

    Attributes:
        task: which.
        start, end: when hands are at it; minutes from the day's beginning, setting up included.
        ready: when what follows it may begin.
    """

    task: Task
    start: float
    end: float
    ready: float


@dataclass(frozen=True)
class Block:
    """Work of one kind, one after the other.

    Attributes:
        kind, label: what.
        start, end: minutes from the day's beginning.
        done: the tasks in it.
        why: why it stands where it does.
        soaking: what soaks meanwhile, in words.
    """

    kind: Kind
    label: str
    start: float
    end: float
    done: tuple[Done, ...]
    why: str
    soaking: str = ""


@dataclass(frozen=True)
class Held:
    """What is not in the day, and why."""

    task: Task
    why: str


@dataclass(frozen=True)
class Day:
    """The day.

    Attributes:
        blocks: in their order.
        held: what waits, or does not fit.
        hands_min: minutes of hands.
        end_min: when the last is ready, minutes from the beginning.
    """

    blocks: tuple[Block, ...]
    held: tuple[Held, ...]
    hands_min: float
    end_min: float

    @property
    def waits(self) -> tuple[Held, ...]:
        """What is held up by itself: what only follows such work is not told again."""
        return tuple(h for h in self.held if h.task.held or not h.task.after)

    @property
    def line(self) -> str:
        """The day in a line."""
        done = [d.task for b in self.blocks for d in b.done]
        if not (done or self.held):
            return "Nothing is left to do on the bench."
        if not done:
            return "Nothing can be done now: see what waits, and for what."
        lamps = len({t.lamp_id for t in done})
        every, hands = len(done) + len(self.held), round(self.hands_min)
        return f"{len(done)} of {every} things, on {lamps} lamp{'' if lamps == 1 else 's'}: {hands} min of hands."


def plan_day(tasks: Sequence[Task], hours: float, begins: datetime) -> Day:
    """Put tasks into the hours there are.

    Args:
        tasks: in the bench's own order, each lamp's in theirs.
        hours: from the beginning to the end.
        begins: when the day does.

    Returns:
        The day; every task is in it or said to wait.
    """
    end = hours * 60
    done: dict[str, Done] = {}
    place = {t.id: k for k, t in enumerate(tasks)}
    following: dict[str, list[Task]] = {}
    for t in tasks:
        for before in t.after:
            following.setdefault(before, []).append(t)
    # What could be begun as far as other work goes; all else waits for something here.
    pool = [t for t in tasks if not t.after]
    now, hand = 0.0, _Hand()
    while True:
        chosen = _choose([t for t in pool if _opens(t, done, begins) <= now], hand, now, end, f"{begins:%Y-%m-%d}")
        if chosen is None:
            # Nothing to be done now: wait for the next thing that comes free.
            later = [at for t in pool if now < (at := _opens(t, done, begins)) <= end]
            if not later:
                break
            now = min(later)
            continue
        spent = hand.cost(chosen) + chosen.minutes
        done[chosen.id] = Done(chosen, now, now + spent, now + spent + chosen.rests_min)
        hand.take(chosen)
        now += spent
        pool.remove(chosen)
        pool += [t for t in following.get(chosen.id, ()) if all(a in done for a in t.after)]
        pool.sort(key=lambda t: place[t.id])
    waiting = [t for t in tasks if t.id not in done]
    return Day(
        _blocks(list(done.values())),
        tuple(Held(t, _why_not(t, done, begins, end)) for t in waiting),
        sum(d.end - d.start for d in done.values()),
        max((d.ready for d in done.values()), default=0.0),
    )


class _Hand:
    """What is got out: a kind of work, an item, a hot iron."""

    def __init__(self) -> None:
        self.kind: Kind | None = None
        self.item = ""
        self.iron = False

    def cost(self, t: Task) -> float:
        """Minutes of setting up before a task."""
        set_up = 0.0 if t.kind == self.kind or (t.kind in IRON and self.iron) else SET_UP_MIN[t.kind]
        return set_up + (0.0 if t.item_id == self.item else CHANGE_MIN)

    def take(self, t: Task) -> None:
        """Have it on the bench."""
        self.kind, self.item = t.kind, t.item_id
        self.iron = t.kind in IRON or (self.iron and t.kind == "sleeve")


def _opens(t: Task, done: dict[str, Done], begins: datetime) -> float:
    """When a task may begin, minutes from the beginning; never, while what it waits for has no end."""
    if t.held and t.until is None:
        return float("inf")
    at = max([0.0, *(done[a].ready if a in done else float("inf") for a in t.after)])
    return at if t.until is None else max(at, (t.until - begins).total_seconds() / 60)


def _choose(able: Sequence[Task], hand: _Hand, now: float, end: float, today: str) -> Task | None:
    fits = [t for t in able if now + hand.cost(t) + t.minutes <= end + 1e-9]
    if not fits:
        return None
    # What is promised for today or before comes first, whatever it costs in changes of what is in the hand.
    fits = [t for t in fits if t.due and t.due <= today] or fits
    soaks = [t for t in fits if t.kind == "soak"]
    kinds: dict[Kind, float] = {}
    for t in fits:
        kinds[t.kind] = kinds.get(t.kind, 0.0) + t.minutes
    if soaks:
        kind: Kind = "soak"
    elif hand.kind in kinds:
        kind = hand.kind
    else:
        hot = [k for k in kinds if hand.iron and k in IRON]
        order = list(KINDS)
        kind = max(hot or kinds, key=lambda k: (kinds[k], -order.index(k)))
    of_kind = [t for t in fits if t.kind == kind]
    late = [t for t in of_kind if t.due]
    if late:
        first = min(t.due for t in late)
        return next(t for t in late if t.due == first)
    return next((t for t in of_kind if t.item_id == hand.item), of_kind[0])


def _blocks(done: Sequence[Done]) -> tuple[Block, ...]:
    out: list[Block] = []
    for d in done:
        if out and out[-1].kind == d.task.kind and d.start <= out[-1].end + 1e-9:
            out[-1] = replace(out[-1], end=d.end, done=(*out[-1].done, d))
            continue
        out.append(Block(d.task.kind, KINDS[d.task.kind], d.start, d.end, (d,), _why(d, out), _soaking(d, done)))
    return tuple(out)


def _why(d: Done, before: Sequence[Block]) -> str:
    kind = d.task.kind
    if kind == "soak":
        return "Lit first: what soaks needs no hands."
    if kind in IRON and any(b.kind in IRON for b in before[-2:]):
        return "The iron is hot."
    if before and d.start > before[-1].end + 1e-9:
        return "It had to soak or wait until now."
    if d.task.due:
        return f"Promised for {d.task.due}."
    return "Most of what can be done now is this." if not before else "Next of what the lamps wait for."


def _soaking(d: Done, done: Sequence[Done]) -> str:
    lit = [o.task for o in done if o.task.kind == "soak" and o.end <= d.start < o.ready]
    if d.task.kind == "soak" or not lit:
        return ""
    return "While " + ", ".join(t.lamp for t in lit[:3]) + (" and more" if len(lit) > 3 else "") + " soaks"


def _why_not(t: Task, done: dict[str, Done], begins: datetime, end: float) -> str:
    if t.held:
        over = "" if t.until is None else f", until {t.until:%Y-%m-%d %H:%M}"
        return f"{t.held}{over}"
    missing = [a for a in t.after if a not in done]
    if missing:
        return "What comes before it is not done."
    if _opens(t, done, begins) > end:
        return "It still soaks when the hours are over."
    return "It does not fit into the hours."


def while_hot(tasks: Sequence[Task], begins: datetime) -> tuple[Task, ...]:
    """What can be done at once while the iron is hot.

    Args:
        tasks: in the bench's own order.
        begins: now.

    Returns:
        Those for the iron that nothing holds up.
    """
    return tuple(t for t in _able_now(tasks, begins) if t.kind in IRON)


def meanwhile(tasks: Sequence[Task], begins: datetime) -> tuple[Task, ...]:
    """What can be done at once while something soaks: without the iron, and over before the soak is.

    Args:
        tasks: in the bench's own order.
        begins: now.

    Returns:
        Those that nothing holds up.
    """
    able = _able_now(tasks, begins)
    return tuple(t for t in able if t.kind not in IRON and t.kind != "soak" and t.minutes <= SOAK_MIN)


def _able_now(tasks: Sequence[Task], begins: datetime) -> tuple[Task, ...]:
    return tuple(t for t in tasks if _opens(t, {}, begins) <= 0)


def first_come(tasks: Sequence[Task], hours: float, begins: datetime) -> Day:
    """The same tasks lamp by lamp, each to its end, as they came: what the day is compared with.

    Args:
        tasks: in the bench's own order.
        hours: from the beginning to the end.
        begins: when the day does.

    Returns:
        The day.
    """
    end = hours * 60
    done: dict[str, Done] = {}
    now, hand, left = 0.0, _Hand(), []
    for t in tasks:
        at = max(now, _opens(t, done, begins))
        if at + hand.cost(t) + t.minutes > end + 1e-9:
            left.append(t)
            continue
        spent = hand.cost(t) + t.minutes
        done[t.id] = Done(t, at, at + spent, at + spent + t.rests_min)
        hand.take(t)
        now = at + spent
    return Day(
        _blocks(list(done.values())),
        tuple(Held(t, _why_not(t, done, begins, end)) for t in left),
        sum(d.end - d.start for d in done.values()),
        max((d.ready for d in done.values()), default=0.0),
    )


def at_clock(begins: datetime, minutes: float) -> datetime:
    """A minute of the day on the clock.

    Args:
        begins: when the day does.
        minutes: from then on.

    Returns:
        The time, to the minute.
    """
    return (begins + timedelta(minutes=minutes)).replace(second=0, microsecond=0)
