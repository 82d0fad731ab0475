"""Positions on each kind of driver, made from texts as a user types them."""

from swapglow.core.position.typed import Typed, TypedDriver
from swapglow.core.quantities import Source
from tests.core.supplies import on

_POSITION = ("led_id", "target", "in_series", "lamp", "shunt", "shunt_across", "lead", "regulator_id", "module",
             "band", "resistor", "resistor_parts", "series_diodes", "low", "high", "ceiling", "capacitor")  # fmt: skip


def driven(kind, usual="9.4V", drop="", supply="regulated", supplied=None, branches=1, **details):
    """A position on a driver; ``details`` are its texts, or fields of the position."""
    more = {k: details.pop(k) for k in list(details) if k in _POSITION}
    texts = {k: Typed(v, Source.MEASURED) for k, v in details.items()}
    typed = TypedDriver(kind, Typed(drop, Source.MEASURED) if drop else Typed(), texts)
    return on(supply, usual, supplied, driver=typed, branches=branches, **more)
