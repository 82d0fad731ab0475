"""A lamp's log: what was done, read, tried and built, in time; any moment looked at, compared, or gone back to."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.db import models

from swapglow.core.engine.netlist import CircuitError
from swapglow.core.presentation.figures import moment_of
from swapglow.core.presentation.snapshots import Snapshot
from swapglow.core.quantities import InputError
from swapglow.inputs.position import PositionInput
from swapglow.inputs.rail import RailInput
from swapglow.inputs.to_core import position_of
from swapglow.records.fields import differing, flat, in_words, value_in_words
from swapglow.records.models import Photo, Position, Rail, ReadingAfter, ReadingBefore, Step

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
        kind: what it was: "change", "rail", "reading", "trial", "build", "photograph".
        own: whether it was of the lamp's own fields, which can be put back.
        by: the name of who did it, "" for none.
    """

    step: int
    label: str
    at: datetime
    now: bool
    kind: str
    own: bool
    by: str


def states(p: Position) -> list[State]:
    """What was done at a lamp, the newest first: its own changes, its rail's, its readings and its photographs."""
    own = {row.step_id: row for row in p.history.exclude(history_type="-").order_by("history_id")}
    kinds = _elsewhere(p) | _own(p)
    out: list[State] = []
    for step in Step.objects.filter(pk__in=kinds).order_by("-pk")[:_MOST]:
        # The last row of a step is what it came to.
        row = own.get(step.pk)
        now = row is not None and row.inputs == p.inputs and row.rail_id == p.rail_id
        out.append(State(step.pk, step.label, step.at, now, kinds[step.pk], row is not None, step.by))
    return out


def _elsewhere(p: Position) -> dict[int, str]:
    """Steps at a lamp that are not of its own fields, and what they were."""
    pictures = {s.get("photo") for s in p.inputs.get("steps", {}).values()}
    rows: tuple[tuple[str, Any], ...] = (
        ("photograph", Photo.history.filter(id__in=[k for k in pictures if k])),
        ("rail", Rail.history.filter(id=p.rail_id).exclude(history_type="+")),
        ("reading", ReadingAfter.history.filter(position_id=p.pk)),
        ("reading", ReadingBefore.history.filter(position_id=p.pk)),
    )
    return {step: kind for kind, found in rows for step in found.exclude(step=None).values_list("step", flat=True)}


def _own(p: Position) -> dict[int, str]:
    """Steps of a lamp's own fields, and what they were."""
    out: dict[int, str] = {}
    before: Any = None
    for row in p.history.order_by("history_id"):
        if row.step_id is not None and row.history_type != "-":
            out[row.step_id] = _own_kind(before, row.inputs)
        before = row.inputs
    return out


def _own_kind(before: Any, after: Any) -> str:
    """Whether a change was a trial, a step of the build, or any other."""
    if before is None:
        return "change"
    for field, kind in (("trials", "trial"), ("steps", "build"), ("checks", "build")):
        if before.get(field, {}) != after.get(field, {}):
            return kind
    return "change"


def _row_at(p: Any, step: int | None) -> Any:
    """The record's row as it stood after a step; None where it was not there yet."""
    rows = p.history.exclude(history_type="-")
    if step is not None:
        # What is of no step was there before there were any.
        rows = rows.filter(models.Q(step__lte=step) | models.Q(step=None))
    return rows.order_by("history_id").last()


@dataclass(frozen=True)
class Changed:
    """A field, or a figure, at two moments."""

    what: str
    was: str
    now: str


@dataclass(frozen=True)
class Compared:
    """Two moments of a lamp.

    Attributes:
        changes: the fields that differ.
        figures: what that did to resistor, current, light and heat.
        then: the first moment's staircase.
        refused: why figures are missing, "" where none are.
    """

    changes: tuple[Changed, ...]
    figures: tuple[Changed, ...]
    then: tuple[Snapshot, ...]
    refused: str


def compared(p: Position, first: int | None, second: int | None) -> Compared:
    """What differs between two moments, and what that did.

    Args:
        p: the record.
        first, second: steps after which it is looked at; None is now.

    Returns:
        The differences.

    Raises:
        InputError: a moment is not known any more.
    """
    one, other = _moment(p, first), _moment(p, second)
    changes = []
    for of, model, a, b in (("", Position, one[0], other[0]), ("rail: ", Rail, one[1], other[1])):
        for path, (was, now) in differing(flat(model, a), flat(model, b)).items():
            if path[0] != "order":
                changes.append(Changed(of + in_words(path), value_in_words(was), value_in_words(now)))
    try:
        was, now = (moment_of(position_of(_lamp(m[0]), _feed(m[1]), p.equipment.sheet.hazards)) for m in (one, other))
    except (InputError, CircuitError) as problem:
        return Compared(tuple(changes), (), (), str(problem))
    figures = tuple(Changed(label, was.figures[label], now.figures[label]) for label in was.figures)
    return Compared(tuple(changes), figures, was.snapshots, "")


def _lamp(row: Any) -> PositionInput:
    return PositionInput.model_validate(row.inputs)


def _feed(row: Any) -> RailInput:
    return RailInput.model_validate(row.inputs)


def _moment(p: Position, step: int | None) -> tuple[Any, Any]:
    """The lamp's row and its rail's at a moment."""
    row = _row_at(p, step)
    rail = None if row is None else Rail.objects.filter(pk=row.rail_id).first()
    feed = None if rail is None else (_row_at(rail, step) or rail)
    if row is None or feed is None:
        raise InputError("step", "That moment is not known any more, or the rail that it was on is gone.")
    return row, feed


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
    rows = [
        p.history.exclude(history_type="+"),
        Rail.history.filter(id=p.rail_id).exclude(history_type="+"),
        ReadingAfter.history.filter(position_id=p.pk),
        ReadingBefore.history.filter(position_id=p.pk),
    ]
    first, *others = (r.filter(step__isnull=False).order_by().values_list("step", flat=True) for r in rows)
    found = set(first.union(*others))
    made = set(p.history.filter(history_type="+").order_by().values_list("step", flat=True))
    # An undoing or redoing is of the step it answers.
    answers = Step.objects.filter(pk__in=found).values_list("of", flat=True)
    return (found | {step for step in answers if step is not None}) - made
