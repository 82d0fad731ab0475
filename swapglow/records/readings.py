"""New readings: the same rules for those typed one by one and those from a file."""

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from swapglow.core.analysis.fitted import fitted_in
from swapglow.core.analysis.states import states_of
from swapglow.core.drivers import DRIVERS
from swapglow.core.quantities import InputError
from swapglow.core.supplies import SUPPLIES
from swapglow.inputs.reading_rules import check_after, check_before
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.records import order, reports
from swapglow.records.limits import check_room
from swapglow.records.models import Position, ReadingAfter, ReadingBefore


def new_after(p: Position, key: UUID, typed: ReadingAfterInput) -> ReadingAfter:
    """A reading after the swap, not yet saved; one that is taken now is of what is fitted now.

    Raises:
        InputError: as :func:`check_after`, the lamp has no such ``state``, or there is no room.
    """
    check_after(typed, alternates=SUPPLIES[p.rail.input.kind].waveform.alternates, mains=reports.live_closed(p))
    if typed.state != "on":
        known = states_of(reports.core_of(p))
        if typed.state not in {t.id for t in known}:
            raise InputError("state", f"This lamp has no such state; it has {', '.join(t.label for t in known)}.")
    typed = typed.model_copy(update={"fitted": fitted_now(p)})
    made = ReadingAfter(id=key, position=p, order=order.last(p.readings_after), inputs=typed.model_dump(mode="json"))
    check_room(made)
    return made


def note_what_is_fitted(p: Position, changes: Mapping[str, Any]) -> None:
    """Write beside what was seen of a driver what is fitted now: it is a fact about that circuit alone.

    Args:
        p: the record with its change; not saved.
        changes: the fields that were sent.
    """
    told = changes.get("driver_details") or {}
    seen = [d.id for d in DRIVERS[p.input.driver_kind].details if d.seen and d.id in told]
    if seen:
        now = fitted_now(p)
        p.join({"driver_details": {id_: {"fitted": now} for id_ in seen}})


def fitted_now(p: Position) -> str:
    """What stands in the lamp now; "" where it cannot be worked out."""
    try:
        return fitted_in(reports.core_of(p))
    except ValueError:
        return ""


def new_before(p: Position, key: UUID, typed: ReadingBeforeInput) -> ReadingBefore:
    """A reading before the swap, not yet saved.

    Raises:
        InputError: as :func:`check_before`, or there is no room.
    """
    check_before(typed, mains=reports.live_closed(p))
    made = ReadingBefore(id=key, position=p, order=order.last(p.readings_before), inputs=typed.model_dump(mode="json"))
    check_room(made)
    return made
