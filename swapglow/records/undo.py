"""Undo and redo: what a step changed is given back, and nothing else.

A field that was changed again since is given back only where that is chosen; what would break a
reference is refused.
"""

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any, Literal

from django.db import models, transaction
from pydantic import ValidationError

from swapglow.core.quantities import InputError
from swapglow.inputs.to_core import rail_of
from swapglow.records import movements
from swapglow.records.authors import author
from swapglow.records.fields import GONE, Flat, differing, flat, in_words, put, value_in_words
from swapglow.records.limits import check_room
from swapglow.records.models import (
    Equipment,
    Kept,
    Movement,
    Photo,
    Position,
    Rail,
    ReadingAfter,
    ReadingBefore,
    Step,
    Typed,
)
from swapglow.records.steps import keep, recorded, rows_of

Choice = Literal["ask", "earlier", "later"]

# Records are brought back in this order and taken away in the other.
_PARENTS_FIRST = (Equipment, Rail, Position, ReadingAfter, ReadingBefore, Photo)
_MOST_CLASHES = 20


class Refusal(Exception):
    """A step that cannot be taken back, with the reason in words."""


@dataclass(frozen=True)
class Clash:
    """A field that was changed again since the step.

    Attributes:
        record: its name.
        field: the field's, in words.
        earlier: what undo would put back.
        later: what stands there now.
    """

    record: str
    field: str
    earlier: str
    later: str


class ClashError(Exception):
    """Later work stands where a step would be taken back: somebody must choose."""

    def __init__(self, clashes: list[Clash]) -> None:
        super().__init__("Something was changed again since.")
        self.clashes = clashes


@dataclass(frozen=True)
class Done:
    """What was taken back or done again.

    Attributes:
        label: of the step.
        step: the step that did it, by which it can be taken back itself.
        gone: keys of the records that are not there any more.
    """

    label: str
    step: int
    gone: tuple[str, ...]


def undo(key: int, choice: Choice = "ask") -> Done:
    """Take back a step; one that is taken back already stays so.

    Args:
        key: the step's.
        choice: what to do where later work stands: ask, put back the earlier, or keep the later.

    Returns:
        What was done.

    Raises:
        Refusal: it would break a reference, or is not known any more.
        ClashError: later work stands there and nothing was chosen.
    """
    with transaction.atomic():
        step = Step.objects.filter(pk=key, kind=Step.DO).first()
        if step is None:
            raise Refusal("That step is not known any more: nothing was undone.")
        _own(step)
        if step.reverted:
            answer = step.answers.filter(kind=Step.UNDO).last()
            return Done(step.label, answer.pk if answer else 0, ())
        with recorded(step.scope, step.label, f"undo:{key}", Step.UNDO, step) as answer:
            gone = _revert(step, choice)
        step.reverted = True
        step.save(update_fields=["reverted"])
        return Done(step.label, answer.pk or 0, gone)


def pass_over(key: int) -> str:
    """Leave a step that cannot be undone as it is, so that undo goes on with the one before it.

    Args:
        key: the step's.

    Returns:
        What the step is called.

    Raises:
        Refusal: it can be undone, or is not known any more.
    """
    with transaction.atomic():
        step = Step.objects.filter(pk=key, kind=Step.DO, reverted=False).first()
        if step is None:
            raise Refusal("That step is not known any more.")
        _own(step)
        try:
            with transaction.atomic():
                with recorded(step.scope, step.label, f"undo:{key}", Step.UNDO, step):
                    _revert(step, "earlier")
                transaction.set_rollback(True)
        except Refusal:
            step.passed = True
            step.save(update_fields=["passed"])
            return step.label
    raise Refusal("That step can be undone. Press Undo.")


def redo(key: int, choice: Choice = "ask") -> Done:
    """Do again what an undoing took back.

    Args:
        key: the undoing's own step.
        choice: as for :func:`undo`.

    Returns:
        What was done; its step is the one that was done first.

    Raises:
        Refusal, ClashError: as for :func:`undo`.
    """
    with transaction.atomic():
        undoing = Step.objects.select_related("of").filter(pk=key, kind=Step.UNDO).first()
        if undoing is None or undoing.of is None:
            raise Refusal("That step is not known any more: nothing was done again.")
        _own(undoing)
        if undoing.reverted:
            return Done(undoing.label, undoing.of.pk, ())
        with recorded(undoing.scope, undoing.label, f"redo:{key}", Step.REDO, undoing):
            gone = _revert(undoing, choice)
        undoing.reverted = True
        undoing.save(update_fields=["reverted"])
        undoing.of.reverted = False
        undoing.of.save(update_fields=["reverted"])
        return Done(undoing.label, undoing.of.pk, gone)


def _own(step: Step) -> None:
    """Refuse to take back what somebody else did."""
    if not author.get().owns(step):
        whose = step.by or ("another phone" if step.device else "somebody at the bench")
        raise Refusal(
            f"{whose[0].upper()}{whose[1:]} did that. Each undoes their own; a lamp's log has its earlier states."
        )


@dataclass
class _Record:
    """What a step did to one record: its fields before and after; None where it was not there.

    ``stood`` is the row of history that stood before.
    """

    model: type[Kept]
    key: Any
    before: Flat | None
    after: Flat | None
    stood: Any = field(repr=False)

    def now(self) -> Any:
        return self.model._default_manager.filter(pk=self.key).first()


def _records(step: Step) -> Iterator[_Record]:
    for model, rows in rows_of(step):
        by_key: dict[Any, list[Any]] = {}
        # What a lamp's tick took follows the tick: it is booked when the lamp is given back.
        for row in (r for r in rows if model is not Movement or r.kind not in movements.FOLLOWING):
            by_key.setdefault(row.id, []).append(row)
        for key, of_one in by_key.items():
            first, last = of_one[0], of_one[-1]
            stood = None if first.history_type == "+" else _stood(model, first)
            before = None if stood is None else flat(model, stood)
            after = None if last.history_type == "-" else flat(model, last)
            if before is not None or after is not None:
                yield _Record(model, key, before, after, stood)


def _stood(model: type[Kept], first: Any) -> Any:
    """The row of history that says what stood before a step's first row of a record."""
    if first.history_type == "-":
        return first
    earlier = model.history.filter(id=first.id, history_id__lt=first.history_id).order_by("history_id").last()
    if earlier is None:
        raise Refusal("What stood there before is not known any more.")
    return earlier


def _revert(step: Step, choice: Choice) -> tuple[str, ...]:
    records = list(_records(step))
    clashes = [clash for r in records for clash in _clashes(r, records)]
    if clashes and choice == "ask":
        raise ClashError(clashes[:_MOST_CLASHES])
    rank = {model: n for n, model in enumerate(_PARENTS_FIRST)}
    records.sort(key=lambda r: rank.get(r.model, -1))  # type: ignore[arg-type]  # the drawer has no parent
    for r in records:
        if r.before is not None and r.after is None:
            _bring_back(r)
    for r in records:
        if r.before is not None and r.after is not None:
            _give_back(r, choice)
    gone = []
    for r in reversed(records):
        if r.before is None and _take_away(r, records, choice):
            gone.append(str(r.key))
    movements.bring_up_to_date((r.before or r.after or {})[("part",)] for r in records if r.model is Movement)
    return tuple(gone)


def _clashes(r: _Record, records: list[_Record]) -> Iterator[Clash]:
    """Later work on a record that the step would overwrite or take along."""
    now = r.now()
    if now is None or r.after is None:
        return
    there = flat(r.model, now)
    if r.before is not None:
        for path, (was, became) in differing(r.before, r.after).items():
            if there.get(path, GONE) not in (became, was) and path != ("order",):
                said = value_in_words(was), value_in_words(there.get(path, GONE))
                yield Clash(str(now), in_words(path), *said)
        return
    for path, (_, current) in differing(r.after, there).items():
        if path != ("order",):
            yield Clash(str(now), in_words(path), "nothing", value_in_words(current))
    mine = {str(other.key) for other in records}
    for kind, hanging in _hanging(now):
        if str(hanging.pk) not in mine:
            yield Clash(str(now), kind, "nothing", str(hanging))


def _hanging(record: models.Model) -> Iterator[tuple[str, models.Model]]:
    """What would go with a record, with what it is in words."""
    match record:
        case Equipment():
            yield from (("supply rail", x) for x in record.rails.all())
            yield from (("lamp", x) for x in record.positions.all())
            yield from (("photograph", x) for x in record.photos.all())
        case Rail():
            yield from (("lamp", x) for x in record.positions.all())
        case Position():
            yield from (("reading", x) for x in record.readings_after.all())
            yield from (("reading", x) for x in record.readings_before.all())


def _bring_back(r: _Record) -> None:
    if r.now() is not None:
        return
    record = r.stood.instance
    for name, what in (("equipment", Equipment), ("rail", Rail), ("position", Position)):
        key = getattr(record, f"{name}_id", None)
        if key is not None and not what._default_manager.filter(pk=key).exists():
            raise Refusal(f"{record} cannot come back: its {name} is gone. Bring that back first.")
    try:
        check_room(record)
    except InputError as problem:
        raise Refusal(f"{record} cannot come back. {problem.message}") from None
    unique = {f.name: getattr(record, f.name) for f in r.model._meta.concrete_fields if f.unique and not f.primary_key}
    if unique and r.model._default_manager.filter(**unique).exists():
        return
    record.save(force_insert=True)


def _give_back(r: _Record, choice: Choice) -> None:
    now = r.now()
    if now is None:
        raise Refusal("What was changed then is gone since. Bring it back first.")
    there = flat(r.model, now)
    readable = _readable(now)
    for path, (was, became) in differing(r.before or {}, r.after or {}).items():
        if there.get(path, GONE) != became and choice == "later":
            continue
        if path[-1] == "rail_id" and not Rail.objects.filter(pk=was, equipment=now.equipment_id).exists():
            raise Refusal(f"The rail that {now} was on then is gone. Bring it back first.")
        put(now, path, was)
    if isinstance(now, Typed):
        try:
            now.join({})
        except ValidationError as problem:
            fault = problem.errors(include_url=False, include_input=False)[0]["msg"]
            raise Refusal(f"{now} would not be readable with that. {fault}.") from None
    spoilt = _readable(now) if readable is None else None
    if spoilt is not None:
        raise Refusal(f"{now} would not be readable with that. {spoilt}")
    keep(now)


def _readable(record: Any) -> str | None:
    """Why a rail cannot be read as it stands; None where it can, and for all that is no rail."""
    if not isinstance(record, Rail):
        return None
    try:
        rail_of(record.input)
    except (InputError, ValidationError) as problem:
        return str(problem)
    return None


def _take_away(r: _Record, records: list[_Record], choice: Choice) -> bool:
    now = r.now()
    if now is None:
        return False
    if choice == "later" and next(_clashes(r, records), None) is not None:
        return False
    if isinstance(now, Rail) and (lamps := [str(p) for p in now.positions.all()[:3]]):
        raise Refusal(f"{now} now feeds {', '.join(lamps)}. Move those lamps to another rail first.")
    now.delete()
    return True
