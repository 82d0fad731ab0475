"""A part's reckoned temperature as it is shown: whole degrees, and past what any part stands that it fails.

Thermal resistances are given for the range a part lives in. Over it nothing is reckoned: solder runs at 183 to 227 °C
(tin and lead, tin and copper: solder makers' tables, from memory), and resin has gone soft before.
"""

from swapglow.core.quantities.provenance import Source
from swapglow.core.quantities.shown import Shown
from swapglow.core.quantities.units import CELSIUS

FAILS_C = 250.0
FAILS = "Nothing on a board stands that: its resin softens first, then the solder runs, from 183 °C on."


def fails(celsius: float) -> bool:
    """Whether a reckoned temperature is past what any part stands."""
    return celsius > FAILS_C


def part_celsius(celsius: float) -> str:
    """A reckoned temperature: "85 °C", and "over 250 °C, where it fails" past it.

    Args:
        celsius: as reckoned, °C.

    Returns:
        The text, without a prefix on the unit.
    """
    return f"over {FAILS_C:.0f}\u00a0°C, where it fails" if fails(celsius) else f"{celsius:.0f}\u00a0°C"


def part_shown(celsius: float, origin: str, source: Source = Source.COMPUTED) -> Shown:
    """The same as a figure; its value ends where the sum does.

    Args:
        celsius: as reckoned, °C.
        origin: where it came from, in words.
        source: measured, marked, assumed or computed.

    Returns:
        The figure.
    """
    if fails(celsius):
        return Shown(FAILS_C, f"over {FAILS_C:.0f}", CELSIUS.symbol, source, f"{origin}. {FAILS}")
    return Shown(celsius, f"{celsius:.0f}", CELSIUS.symbol, source, origin)
