"""Which readings are kept at all: the same for one that is typed and one from a file."""

from typing import TypeVar

from swapglow.core.measurement.leads import LEADS
from swapglow.core.measurement.reading_after import LOOKS, ON_AC, POWER_OFF, WARM
from swapglow.core.quantities import InputError
from swapglow.core.quantities.bare import with_unit
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.inputs.to_core import reading_after_of, reading_before_of

T = TypeVar("T", ReadingAfterInput, ReadingBeforeInput)


def with_its_unit(typed: T) -> T:
    """A reading with its unit: a bare number on a range of current is milliamps, never amps.

    Args:
        typed: a reading before or after the swap.

    Returns:
        The reading as it is kept.
    """
    of_current = typed.kind == "current" if isinstance(typed, ReadingAfterInput) else "amps" in typed.function
    return typed.model_copy(update={"text": with_unit(typed.text, "mA")}) if of_current else typed


def bench_text(what: str, text: str) -> str:
    """The text of a reading that sets a figure, with its unit as :func:`with_its_unit`.

    Args:
        what: what was read, as :func:`swapglow.core.measurement.apply_reading.apply_reading` names it.
        text: as typed.

    Returns:
        The text.
    """
    leads = LEADS.get(what)
    return with_unit(text, "mA") if leads is not None and leads.unit == "mA" else text


def check_after(typed: ReadingAfterInput, *, alternates: bool, mains: bool = False) -> None:
    """Refuse a reading after the swap that cannot be read or compared, or that nobody should have taken.

    Args:
        typed: the reading.
        alternates: whether the lamp's supply does.
        mains: whether the lamp is connected with the mains.

    Raises:
        InputError: ``position`` where it is; ``kind``, ``state``, ``text`` or ``burden``.
    """
    reading_after_of("", typed)
    if typed.kind in POWER_OFF:
        return
    if mains:
        raise InputError(
            "position", "Mains or high tension is in here: of this lamp only readings with the power off are kept."
        )
    if typed.kind in LOOKS:
        if typed.whose != "this" or typed.state != "on":
            raise InputError(
                "whose" if typed.whose != "this" else "state", "What you see is kept for this lamp, switched on."
            )
        return
    if typed.kind in WARM:
        if typed.whose != "this":
            raise InputError("whose", "A sister is compared by current, volts and ohms; temperatures are this lamp's.")
        if typed.state != "on":
            raise InputError("state", "A temperature is compared after half an hour lit.")
        return
    if alternates and typed.kind not in ON_AC:
        raise InputError(
            "kind",
            "On a supply that alternates the LED's average current is compared, its volts on the DC range, and "
            "the volts of the rail and at the lamp's wires on the AC range.",
        )
    if alternates and typed.state != "on":
        raise InputError("state", "On a supply that alternates readings are compared lit only.")


def check_before(typed: ReadingBeforeInput, *, mains: bool) -> None:
    """Refuse a reading before the swap that cannot be read, or that nobody should have taken.

    Args:
        typed: the reading.
        mains: whether the lamp is connected with the mains.

    Raises:
        InputError: ``position`` where it is; else the field that cannot be read.
    """
    if mains:
        raise InputError("position", "Mains or high tension is in here: no live readings are kept of this lamp.")
    reading_before_of("", typed)
