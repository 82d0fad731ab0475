"""Earlier states of a lamp, by date and step, and the way back to one of them."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from swapglow.core.quantities import InputError
from swapglow.records.models import Position, Rail, ReadingAfter, ReadingBefore, Step

# As many as one would ever look through.
_MOST = 100


@dataclass(frozen=True)
class State:
    """A lamp as it stood after a step.

    Attributes:
        step: the step's key.
        label: what was done.
        at: when.
        now: whether it stands so now.
    """

    step: int
    label: str
    at: datetime
    now: bool


def states(p: Position) -> list[State]:
    """The states of a lamp's own fields that are known, the newest first."""
    out: list[State] = []
    seen: set[int] = set()
    rows = p.history.exclude(step=None).exclude(history_type="-").select_related("step")
    for row in rows.order_by("-history_id")[: 4 * _MOST]:
        # The last row of a step is what it came to.
        if row.step_id in seen or len(out) == _MOST:
            continue
        seen.add(row.step_id)
        now = row.inputs == p.inputs and row.rail_id == p.rail_id
        out.append(State(row.step_id, row.step.label, row.step.at, now))
    return out


def put_back(p: Position, step: int) -> str:
    """Put a lamp's fields to what they were after a step; its readings and its place stay.

    Args:
        p: the record; changed, not saved.
        step: the step's key.

    Returns:
        What the step was called.

    Raises:
        InputError: the state is not known any more, or its rail is gone.
    """
    row: Any = p.history.filter(step=step).exclude(history_type="-").order_by("history_id").last()
    if row is None:
        raise InputError("step", "That state is not known any more.")
    if not Rail.objects.filter(pk=row.rail_id, equipment=p.equipment_id).exists():
        raise InputError("step", "The rail that it was on then is gone. Bring that back first.")
    p.rail_id = row.rail_id
    p.inputs = p.shape.model_validate(row.inputs).model_dump(mode="json")
    return str(row.step.label)


def steps_of(p: Position) -> set[int]:
    """The steps that are a lamp's own: of it, its readings and its rail; not the one that made it."""
    of = [
        p.history.exclude(history_type="+"),
        Rail.history.filter(id=p.rail_id).exclude(history_type="+"),
        ReadingAfter.history.filter(position_id=p.pk),
        ReadingBefore.history.filter(position_id=p.pk),
    ]
    found: set[int] = set()
    for rows in of:
        found |= {step for step in rows.values_list("step", flat=True) if step is not None}
    made = set(p.history.filter(history_type="+").values_list("step", flat=True))
    # An undoing or redoing is of the step it answers.
    answers = Step.objects.filter(pk__in=found).values_list("of", flat=True)
    return (found | {step for step in answers if step is not None}) - made
