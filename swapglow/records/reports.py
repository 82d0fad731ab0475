"""Records to the core's values and reports, and nothing more."""

from swapglow.core.assess import Bench
from swapglow.core.design.changes import Changes, with_changes
from swapglow.core.design.position import Position as CorePosition
from swapglow.core.intake.stages import DONE
from swapglow.core.presentation.report import Report
from swapglow.document.report import remembered
from swapglow.inputs.to_core import position_of, reading_after_of, reading_before_of
from swapglow.records.models import Position


def core_of(p: Position) -> CorePosition:
    """A kept position as the core's value.

    Raises:
        InputError: a kept text no longer reads.
    """
    return position_of(p.input, p.rail.input)


def report(p: Position, changes: Changes | None, at_hand: frozenset[float]) -> Report:
    """The report of a kept position.

    Args:
        p: the record, its rail and readings at hand.
        changes: tried on it; none where None or empty.
        at_hand: resistors in the drawer, Ω.

    Returns:
        The report, remembered by all it rests on.

    Raises:
        InputError: a kept text no longer reads, or a change is none.
        CircuitError: the circuit has no answer.
    """
    core = core_of(p)
    if changes:
        core = with_changes(core, changes)
    after = tuple(reading_after_of(str(r.pk), r.input) for r in p.readings_after.all())
    before = tuple(reading_before_of(str(r.pk), r.input) for r in p.readings_before.all())
    return remembered(core, Bench(after, at_hand, p.input.stage == DONE, before))
