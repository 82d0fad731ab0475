"""Steps: whatever is changed is changed in one, so that it can be taken back."""

from collections.abc import Callable, Collection, Iterator, Sequence
from contextlib import contextmanager
from contextvars import ContextVar
from datetime import timedelta
from typing import Any

from django.db import models, transaction
from django.dispatch import receiver
from django.utils import timezone
from simple_history.signals import pre_create_historical_record
from simple_history.utils import bulk_create_with_history

from swapglow.records import movements
from swapglow.records.authors import author, own
from swapglow.records.fields import columns
from swapglow.records.models import KEPT, Kept, Step

# Edits of one field that follow each other within this time are one step back, so that a drag
# along the slide rule is undone whole.
ONE_GESTURE = timedelta(seconds=2)
KEPT_STEPS = 200

# Rows of history by model, oldest first.
Rows = list[tuple[type[Kept], list[Any]]]

# Called with the rows of every step that changed something, within its transaction.
step_settled: list[Callable[[Rows], None]] = []

_current: ContextVar[Step | None] = ContextVar("step", default=None)
# The models of which the current step has rows.
_touched: ContextVar[set[type[Kept]]] = ContextVar("touched")
# The last step that changed something, for whoever asks what a save has done.
last_step: ContextVar[int | None] = ContextVar("last_step", default=None)


@receiver(pre_create_historical_record)
def _under_its_step(instance: Kept, history_instance: Any, **signal: Any) -> None:
    history_instance.step = _current.get()
    if history_instance.step is not None:
        _touched.get().add(type(instance))


@contextmanager
def recorded(scope: str, label: str, gesture: str, kind: str = Step.DO, of: Step | None = None) -> Iterator[Step]:
    """Change records as one step; a step that changed nothing is none.

    Args:
        scope: the equipment's key, "drawer", or "" for the bench.
        label: what the change is called when it is undone.
        gesture: record and fields, to tell one gesture from the next.
        kind: whether something is done, undone or done again.
        of: the step that this one takes back or does again.

    Yields:
        The step.
    """
    with transaction.atomic():
        made = Step.objects.create(
            scope=scope,
            label=label[:200],
            gesture=gesture[:400],
            kind=kind,
            of=of,
            by=author.get().name,
            device=author.get().device,
        )
        touched: set[type[Kept]] = set()
        step, models_of_it = _current.set(made), _touched.set(touched)
        try:
            yield made
        finally:
            _current.reset(step)
            _touched.reset(models_of_it)
        _settle(made, rows_of(made, touched))


def create_all(model: type[Kept], records: Sequence[Kept]) -> None:
    """Save new records of one model at once, under the current step.

    Args:
        model: what they are of.
        records: the records, none of them kept yet.
    """
    bulk_create_with_history(records, model, custom_historical_attrs={"step": _current.get()})
    _touched.get().add(model)


def rows_of(step: Step, models: Collection[type[Kept]] = KEPT) -> Rows:
    """The rows of history of a step.

    Args:
        step: the step.
        models: those that are looked through.

    Returns:
        By model, in the order of ``KEPT``, oldest first; models without a row are left out.
    """
    found = ((m, list(m.history.filter(step=step).order_by("history_id"))) for m in KEPT if m in models)
    return [(model, rows) for model, rows in found if rows]


def _settle(made: Step, found: Rows) -> None:
    if not found:
        made.delete()
        return
    for tell in step_settled:
        tell(found)
    last_step.set(made.pk)
    last = Step.objects.filter(scope=made.scope, pk__lt=made.pk).last()
    edited = all(r.history_type == "~" for _, rows in found for r in rows)
    if (
        last is not None
        and edited
        and made.kind == last.kind == Step.DO
        and not last.reverted
        and last.gesture == made.gesture
        and made.at - last.at < ONE_GESTURE
        and (last.by, last.device) == (made.by, made.device)
    ):
        for model, _ in found:
            model.history.filter(step=made).update(step=last)
        made.delete()
        last.at = timezone.now()
        last.save(update_fields=["at"])
        last_step.set(last.pk)


def keep(record: models.Model) -> None:
    """Save a record: a new one whole, of one that is there only the columns that changed."""
    model = type(record)
    kept = model._default_manager.filter(pk=record.pk).first() if record.pk else None
    if kept is None:
        record.save(force_insert=True)
    else:
        changed = [name for name in columns(model) if getattr(kept, name) != getattr(record, name)]
        if changed:
            # Django takes a record of which the key was chosen here for a new one.
            record.save(update_fields=changed, force_update=True)
    movements.book_what_changed(record)


def next_steps(scope: str, of: set[int] | None = None) -> tuple[Step | None, Step | None]:
    """The steps that undo and redo would take back, among the author's own.

    Args:
        scope: the equipment's key, "drawer", or "" for the bench.
        of: the steps that are the view's own; None for all of the scope.

    Returns:
        The newest done that stands, and the newest undoing that stands, unless something new was done since.
    """
    standing = _within(own(Step.objects.filter(scope=scope, reverted=False, passed=False)), of)
    done, undone = (standing.filter(kind=kind).last() for kind in (Step.DO, Step.UNDO))
    return done, None if undone is None or (done is not None and done.pk > undone.pk) else undone


def _within(steps: models.QuerySet[Step], of: set[int] | None) -> models.QuerySet[Step]:
    return steps if of is None else steps.filter(models.Q(pk__in=of) | models.Q(of__in=of))


def prune() -> None:
    """Let go of steps beyond those kept, and of the history that only they needed.

    A row of history without a step is what stood there before the row that follows it: it stays while that
    row belongs to a step, or is the newest of a record that is there.
    """
    for scope in Step.objects.order_by().values_list("scope", flat=True).distinct():
        done = Step.objects.filter(scope=scope, kind=Step.DO).order_by("-id")
        old = list(done.values_list("pk", flat=True)[KEPT_STEPS:])
        Step.objects.filter(pk__in=old).delete()
    for model in KEPT:
        following = model.history.filter(
            id=models.OuterRef("id"), history_id__gt=models.OuterRef("history_id")
        ).order_by("history_id")
        surplus = model.history.filter(step=None).annotate(
            followed=models.Exists(following), next_step=models.Subquery(following.values("step")[:1])
        )
        loose = surplus.filter(models.Q(followed=True, next_step=None) | models.Q(followed=False, history_type="-"))
        model.history.filter(pk__in=list(loose.values_list("pk", flat=True))).delete()
