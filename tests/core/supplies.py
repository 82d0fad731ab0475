"""Positions on each kind of supply, made from texts as a user types them."""

from swapglow.core.position.typed import Typed, TypedLamp, TypedPosition, TypedRail, read_position
from swapglow.core.quantities import Source


def on(kind, usual="", details=None, *, low="", high="", fuse="", source=Source.MEASURED, **fields):
    """A position on a rail of a kind; ``details`` are texts by name."""
    rail = TypedRail(
        Typed(usual, source), Typed(low, source), Typed(high, source), "feed", kind,
        {name: Typed(text, source) for name, text in (details or {}).items()}, fuse,
    )  # fmt: skip
    target = Typed(fields.pop("target", "5mA"), Source.MEASURED)
    return read_position(TypedPosition(rail, fields.pop("led_id", "red-5-diffused"), target, **fields))


def lamp(volts, amps, candela="0.2cd"):
    return TypedLamp("own", volts, amps, candela)
