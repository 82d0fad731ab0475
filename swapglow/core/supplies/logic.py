"""A logic output: a pin that gives a few milliamps."""

from typing import Any

from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.quantities import AMPERE, OHM, Figure, Source
from swapglow.core.supplies.kind import SupplyKind, SupplyState
from swapglow.core.supplies.supply import BUDGET_A

# What a pin that is low still gives (TTL's limit, from memory).
PIN_LOW_V = 0.4


class Logic(SupplyKind):
    """What decides is the pin's current, not the LED's."""

    id = "logic"
    order = 8
    label = "Logic output"
    guess = "5V"
    expect = (
        "3.3 or 5 V and a few milliamps: the pin's current decides, not the LED's. A common limit "
        "is 16 mA, a sane budget 2 to 8 mA."
    )
    details = (
        Detail("pin", "Allowed pin current", AMPERE, "From the data sheet. Empty takes 8 mA"),
        Detail("source", "Output resistance", OHM, "Empty: none is reckoned with", none="absent"),
    )
    level_states = False
    feeds = False
    glow_in_any_state = False
    driver_note = "A pin drives it. What it may give is kept with the rail."
    caution = "Static: touch the frame first, strap on for old logic."

    def facts(self, details: Details, volts: tuple[float, float, float]) -> dict[str, Any]:
        """What the pin may give."""
        limit = details.figure("pin") or Figure(BUDGET_A, Source.ASSUMED, "a sane budget")
        return {"output_limit": limit}

    def states(self) -> tuple[SupplyState, ...]:
        """The pin high, and low: its low level is all the rail there is."""
        return SupplyState("on", "Pin high", "on"), SupplyState("off", "Pin low", "on", PIN_LOW_V)


KIND = Logic()
