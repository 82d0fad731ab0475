"""Behind a dropping resistor that feeds other things as well."""

from typing import Any

from swapglow.core.drivers.driver import Driver
from swapglow.core.drivers.kind import DriverKind, Unknown
from swapglow.core.drivers.load import EXAMPLES, read_loads
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.lamp import Lamp
from swapglow.core.quantities import OHM


class Shared(DriverKind):
    """Less current in one means more volts on the others."""

    id = "shared"
    order = 5
    label = "Behind a dropping resistor that feeds others"
    expect = "Less current here means more volts on everything else it feeds."
    details = (
        Detail("dropper", "Dropping resistor", OHM, "68R; between the rail and the shared point"),
        Detail("loads", "What else it feeds", None, f"One a line: {EXAMPLES}", long=True),
    )
    on = "Switched on"
    off = "Switched off"

    def facts(self, details: Details, lamp: Lamp | None) -> dict[str, Any]:
        """The dropping resistor and what stands behind it."""
        return {"dropper_ohm": details.value("dropper") or 0.0, "loads": read_loads("loads", details.text("loads"))}

    def unknown(self, driver: Driver, lamp: Lamp | None) -> Unknown | None:
        """The dropping resistor."""
        if driver.dropper_ohm:
            return None
        return Unknown("the shared dropping resistor", "what the LED and its neighbours see")


KIND = Shared()
