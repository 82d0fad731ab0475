"""What stands around the lamp's contacts."""

from dataclasses import replace

from swapglow.core.design.position import Position
from swapglow.core.parts import led as leds
from swapglow.core.quantities import Figure


def surroundings(position: Position) -> Position:
    """What stands around the lamp's contacts, without the LEDs between them: all swaps share its answers."""
    return replace(
        position,
        led=next(iter(leds.catalogue().values())),
        target=Figure(1e-3),
        in_series=1,
        branches=1,
        resistor_ohm=None,
        resistor_parts=1,
        rating_w=None,
        series_diodes=0,
        regulator_id="",
        module=None,
        band_v=None,
        lead="positive",
        ceiling=0.5,
        rounding="up",
        capacitor_f=None,
        lamp=None,
        inside=0,
    )
