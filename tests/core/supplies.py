"""Positions on each kind of supply, made from texts as a user types them."""

from swapglow.inputs.position import PositionInput
from swapglow.inputs.quantity import Quantity
from swapglow.inputs.rail import RailInput
from swapglow.inputs.to_core import position_of


def read(text, source="measured"):
    """A quantity; an empty text has nobody behind it."""
    return Quantity(text=text, source=source if text else "assumed")


def on(
    kind, usual="", details=None, *, low="", high="", flat=False, fuse="", source="measured", read_at="feed", **fields
):
    """A position on a rail of a kind; ``details`` are texts by name, ``fields`` those of a position.

    A flat rail is as low and as high as it usually is.
    """
    if flat:
        low = high = usual
    rail = RailInput(
        kind=kind,
        usual=read(usual, source),
        low=read(low, source),
        high=read(high, source),
        read_at=read_at,
        details={name: read(text, source) for name, text in (details or {}).items()},
        fuse=fuse,
    )
    fields.setdefault("led_id", "red-5-diffused")
    fields["target"] = read(fields.pop("target", "5mA"))
    if isinstance(fields.get("vf"), str):
        fields["vf"] = read(fields["vf"])
    return position_of(PositionInput(**(fields.pop("lamp", None) or {}), **fields), rail)


def lamp(volts, amps, candela="0.2cd"):
    """Fields of an old lamp that is known by its own figures."""
    return {"lamp_id": "own", "lamp_volts": volts, "lamp_amps": amps, "lamp_candela": candela}
