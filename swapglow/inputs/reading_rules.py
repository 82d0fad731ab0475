"""Which readings are kept at all: the same for one that is typed and one from a file."""

from swapglow.core.quantities import InputError
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.inputs.to_core import reading_after_of, reading_before_of


def check_after(typed: ReadingAfterInput, *, alternates: bool) -> None:
    """Refuse a reading after the swap that cannot be read or compared.

    Args:
        typed: the reading.
        alternates: whether the lamp's supply does.

    Raises:
        InputError: ``kind``, ``text`` or ``burden``.
    """
    reading_after_of("", typed)
    if alternates and typed.kind != "current":
        raise InputError(
            "kind", "On a supply that alternates the LED's average current is compared, not volts."
        )


def check_before(typed: ReadingBeforeInput, *, mains: bool) -> None:
    """Refuse a reading before the swap that cannot be read, or that nobody should have taken.

    Args:
        typed: the reading.
        mains: whether the lamp is connected with the mains.

    Raises:
        InputError: ``position`` where it is; else the field that cannot be read.
    """
    if mains:
        raise InputError(
            "position", "This lamp is marked as mains-connected: no live readings are kept of it."
        )
    reading_before_of("", typed)
