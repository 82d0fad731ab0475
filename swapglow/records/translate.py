"""Records to the core's typed values, and nothing more."""

from functools import lru_cache
from typing import Any

from swapglow.core.assess import Bench, assess
from swapglow.core.bench.meter import Reading as CoreReading
from swapglow.core.position.model import Position as CorePosition
from swapglow.core.position.model import with_changes
from swapglow.core.position.typed import (
    Typed,
    TypedLamp,
    TypedPosition,
    TypedRail,
    read_position,
    read_reading,
)
from swapglow.core.quantities import Source
from swapglow.core.report import Report
from swapglow.records.models import DrawerValue, Position, Rail, Reading


def typed(quantity: dict[str, Any]) -> Typed:
    """A kept quantity."""
    return Typed(quantity["text"], Source(quantity["source"]), quantity.get("note", ""))


def typed_rail(rail: Rail) -> TypedRail:
    """A kept rail."""
    at = "lamp" if rail.read_at == "lamp" else "feed"
    return TypedRail(typed(rail.usual), typed(rail.low), typed(rail.high), at)  # type: ignore[arg-type]


def typed_position(p: Position) -> TypedPosition:
    """A kept position with its rail."""
    return TypedPosition(
        rail=typed_rail(p.rail),
        led_id=p.led_id,
        target=typed(p.target),
        vf=typed(p.vf),
        rated=p.rated,
        in_series=p.in_series,
        driver_drop=typed(p.driver_drop),
        ceiling=p.ceiling,
        series=p.series,
        rounding=p.rounding,  # type: ignore[arg-type]
        resistor=p.resistor,
        resistor_parts=p.resistor_parts,
        resistor_source=Source(p.resistor_source),
        tolerance=p.tolerance,
        rating_w=p.rating_w,
        lamp=TypedLamp(p.lamp_id, p.lamp_volts, p.lamp_amps, p.lamp_candela, p.lamp_base),
    )


def core_reading(r: Reading) -> CoreReading:
    """A kept reading."""
    return read_reading(str(r.id), r.kind, r.text, r.burden, r.note)  # type: ignore[arg-type]


def drawer() -> frozenset[float]:
    """Resistor values at hand, Ω."""
    return frozenset(DrawerValue.objects.values_list("ohm", flat=True))


# The same value gives the same report, so reports are remembered by it.
_assess = lru_cache(maxsize=512)(assess)


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
    readings = tuple(core_reading(r) for r in position.readings.all())
    return _assess(core, Bench(readings, at_hand, position.stage == "done"))


def quick_report(position: TypedPosition, at_hand: frozenset[float]) -> Report:
    """The report of a position that is not kept."""
    return _assess(read_position(position), Bench((), at_hand))
