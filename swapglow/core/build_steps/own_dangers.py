"""What can hurt at one lamp's own parts: its cells, its sink, and that it warns of something."""

import re

from swapglow.core.design.position import Position

# What such a lamp is called, in English.
_WARNS = re.compile(
    r"\b(?:warn|alarm|danger|fault|fail|fire|over-?heat|oil|brake|gas\b|interlock|low pressure)", re.IGNORECASE
)
_CELLS = {
    "coin-20": "A button cell kills a child that swallows it: counted out, counted in, none left on the bench. It is "
    "lithium: never soldered, never charged.",
    "silver-button": "A button cell kills a child that swallows it: counted out, counted in, none left on the bench.",
    "lithium-ion": "Lithium cells: no heat and no solder on them. One that was run flat, or is swollen, is not charged "
    "again: it may burn.",
}


def warns(name: str) -> bool:
    """Whether a lamp's name says that it warns, so that its darkness endangers.

    Args:
        name: the lamp's.
    """
    return _WARNS.search(name) is not None


def cells_caution(position: Position) -> str:
    """What to mind of the cells it hangs on; "" for none."""
    battery = position.rail.supply.battery
    return "" if battery is None else _CELLS.get(battery.chemistry.id, "")
