"""New readings: the same rules for those typed one by one and those from a file."""

from uuid import UUID

from swapglow.core.quantities import InputError
from swapglow.core.supplies import SUPPLIES
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.inputs.to_core import reading_after_of, reading_before_of
from swapglow.records import order
from swapglow.records.limits import check_room
from swapglow.records.models import Position, ReadingAfter, ReadingBefore


def check_after(p: Position, typed: ReadingAfterInput) -> None:
    """Refuse a reading after the swap that cannot be read or compared.

    Raises:
        InputError: ``kind``, ``text`` or ``burden``.
    """
    reading_after_of("", typed)
    if typed.kind != "current" and SUPPLIES[p.rail.input.kind].waveform.alternates:
        raise InputError(
            "kind", "On a supply that alternates the LED's average current is compared, not volts."
        )


def check_before(p: Position, typed: ReadingBeforeInput) -> None:
    """Refuse a reading before the swap that cannot be read, or that nobody should have taken.

    Raises:
        InputError: ``position`` where it is connected with the mains; else the field that cannot be read.
    """
    if p.input.mains:
        raise InputError(
            "position", "This lamp is marked as mains-connected: no live readings are kept of it."
        )
    reading_before_of("", typed)


def new_after(p: Position, key: UUID, typed: ReadingAfterInput) -> ReadingAfter:
    """A reading after the swap, not yet saved.

    Raises:
        InputError: as :func:`check_after`, or there is no room.
    """
    check_after(p, typed)
    made = ReadingAfter(
        id=key, position=p, order=order.last(p.readings_after), inputs=typed.model_dump(mode="json")
    )
    check_room(made)
    return made


def new_before(p: Position, key: UUID, typed: ReadingBeforeInput) -> ReadingBefore:
    """A reading before the swap, not yet saved.

    Raises:
        InputError: as :func:`check_before`, or there is no room.
    """
    check_before(p, typed)
    made = ReadingBefore(
        id=key, position=p, order=order.last(p.readings_before), inputs=typed.model_dump(mode="json")
    )
    check_room(made)
    return made
