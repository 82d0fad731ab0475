"""Cells in series: volts that fall through their life, and a resistance of their own."""

from typing import Any

from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.kinds.step import Meaning
from swapglow.core.parts.cells import Battery as Cells
from swapglow.core.parts.cells import Chemistry, chemistries
from swapglow.core.parts.lamp import Lamp
from swapglow.core.quantities import AMPERE_HOUR, OHM, VOLT, Figure, Input, InputError, Source, show
from swapglow.core.supplies.kind import StandIns, SupplyKind

MOST_CELLS = 400


class Battery(SupplyKind):
    """A battery without a charger."""

    id = "battery"
    order = 3
    label = "Battery"
    guess = "9V"
    expect = "Falls through its life. Its own resistance may be all that limits the current."
    levels = ("spent", "half used", "fresh")
    levels_on_rule = True
    details = (
        Detail("chemistry", "Cells", None, "", tuple((c.id, c.label) for c in chemistries().values())),
        Detail("cells", "Cells in series", None, "1, 3; 6 for a 9 V block"),
        Detail("capacity", "Capacity", AMPERE_HOUR, "220mAh. Empty takes the kind's usual"),
        Detail("source", "Resistance of all cells", OHM, "Empty takes the kind's usual"),
    )
    # Fresh and spent are the chemistry's; nobody runs a cell down to read it.
    ends_worth_reading = False
    read_at_offered = False
    position_fields = ("glow_floor",)
    fused_tap = True
    caution = "Mind the polarity; a shorted cell gets hot."

    def stand_ins(self, details: Details) -> StandIns:
        """The chemistry's own curve: half used, and its two ends."""
        chemistry, count = _cells(details)
        half = Input(show(chemistry.volts[5] * count, VOLT, 4), Source.ASSUMED, chemistry.label)
        return StandIns(half, (chemistry.volts[-1] * count, chemistry.volts[0] * count))

    def facts(self, details: Details, volts: tuple[float, float, float]) -> dict[str, Any]:
        """The cells, their curve laid between the rail's own ends."""
        chemistry, count = _cells(details)
        capacity = details.value("capacity") or chemistry.capacity_ah
        return {"battery": Cells(chemistry, count, capacity, volts[2], volts[0])}

    def behind(self, details: Details, loaded: float, lamp: Lamp | None) -> tuple[Figure, float]:
        """The cells' own resistance; the levels are open ones."""
        chemistry, count = _cells(details)
        usual = Figure(chemistry.ohm * count, Source.ASSUMED, chemistry.label)
        return details.figure("source") or usual, 1.0

    def usual_meanings(self, volts: str) -> tuple[Meaning, ...]:
        """Half used, or spent."""
        return (
            Meaning(f"about {volts}", "half used"),
            Meaning("well under it", "spent, or a bad contact: read at the cells themselves"),
        )


def _cells(details: Details) -> tuple[Chemistry, int]:
    found = chemistries()
    key = details.text("chemistry") or next(iter(found))
    if key not in found:
        raise InputError("chemistry", f'There is no cell "{key}": {", ".join(found)}.')
    text = details.text("cells") or "1"
    if not (text.isascii() and text.isdecimal() and 1 <= int(text) <= MOST_CELLS):
        raise InputError("cells", f'"{text}" is no number of cells: 1 to {MOST_CELLS}.')
    return found[key], int(text)


KIND = Battery()
