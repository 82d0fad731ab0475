"""Records to the core's values and reports, and nothing more."""

from contextlib import suppress

from swapglow.core.assess import Bench
from swapglow.core.position.model import Position as CorePosition
from swapglow.core.position.model import with_changes
from swapglow.core.position.typed import TypedPosition, TypedRail, read_position
from swapglow.core.report import Report
from swapglow.document import typed as to_typed
from swapglow.document.report import remembered
from swapglow.records.models import DrawerValue, Position, Rail


def typed_rail(rail: Rail) -> TypedRail:
    """A kept rail."""
    return to_typed.typed_rail(rail)


def typed_position(p: Position) -> TypedPosition:
    """A kept position with its rail."""
    return to_typed.typed_position(p, p.rail)


def drawer() -> frozenset[float]:
    """Resistor values at hand, Ω."""
    return frozenset(DrawerValue.objects.values_list("ohm", flat=True))


def report(
    position: Position, changes: dict[str, float | int | str | None] | None, at_hand: frozenset[float]
) -> Report:
    """The report of a kept position, with changes tried on it where given.

    Raises:
        FieldError: a kept text no longer reads, or a change is none.
    """
    core: CorePosition = read_position(typed_position(position))
    if changes:
        core = with_changes(core, changes)
    readings = tuple(to_typed.core_reading(r) for r in position.readings.all())
    taken = tuple(to_typed.core_taken(t) for t in position.taken.all())
    return remembered(core, Bench(readings, at_hand, position.stage == "done", taken))


def warm() -> None:
    """Report on every kept position, for its memory's sake; one that cannot be read is skipped."""
    at_hand = drawer()
    for p in Position.objects.select_related("rail").prefetch_related("readings", "taken"):
        with suppress(ValueError):
            report(p, None, at_hand)


def quick_report(position: TypedPosition, at_hand: frozenset[float]) -> Report:
    """The report of a position that is not kept."""
    return remembered(read_position(position), Bench((), at_hand))
