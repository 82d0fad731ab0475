"""A controller that pulses the lamp to see that it is whole."""

from typing import Any

from swapglow.core.drivers.driver import Driver, State
from swapglow.core.drivers.kind import Unknown
from swapglow.core.drivers.watching import COUNTS, PLACE, REST, THERE, TRIP, Watching
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.lamp import Lamp
from swapglow.core.quantities import OHM, SECOND, InputError


class LampCheck(Watching):
    """A filament is too slow to show its pulses."""

    id = "lamp_check"
    order = 7
    label = "Watched by check pulses"
    part = "Controller"
    detail = "controller"
    expect = "It pulses the lamp for milliseconds to see that it is whole. A filament is too slow to show it."
    usual_drop = (0.1, 0.2, 0.3)
    details = (
        Detail("pulse", "Pulse lasts", SECOND, "2ms"),
        Detail("period", "and comes every", SECOND, "250ms"),
        Detail("pulse_source", "Resistance behind the pulse", OHM, "Empty: the full feed"),
        COUNTS,
        TRIP,
        REST,
        PLACE,
        THERE,
    )
    pulses = True
    misses = "warns of a failed lamp"
    cool = "Have the controller coded for LEDs: no warning, no pulses, no heat"

    def facts(self, details: Details, lamp: Lamp | None) -> dict[str, Any]:
        """Its pulses and what they come through."""
        pulse, period = details.value("pulse"), details.value("period")
        if pulse and period and pulse >= period:
            raise InputError("pulse", "A pulse must be shorter than the time between pulses.")
        return {
            **super().facts(details, lamp),
            "pulse_s": pulse or 0.0,
            "period_s": period or 0.0,
            "pulse_ohm": details.value("pulse_source", above=None) or 0.0,
        }

    def states(self, driver: Driver) -> tuple[tuple[State, str], ...]:
        """On, off, and the pulse where its length is known."""
        lit_and_dark = super().states(driver)
        return (*lit_and_dark, ("pulse", "Check pulse")) if driver.pulse_s else lit_and_dark

    def unknown(self, driver: Driver, lamp: Lamp | None) -> Unknown | None:
        """Its pulses."""
        if not driver.monitors_current or (driver.pulse_s and driver.period_s):
            return None
        return Unknown("how long a check pulse lasts and how often it comes", "whether it is seen")


KIND = LampCheck()
