"""A flasher that counts current."""

from typing import Any

from swapglow.core.drivers.driver import Driver
from swapglow.core.drivers.kind import Unknown
from swapglow.core.drivers.watching import COUNTS, PLACE, REST, THERE, TRIP, Watching
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.kinds.trials import tried
from swapglow.core.parts.lamp import Lamp
from swapglow.core.quantities import OHM
from swapglow.core.quantities.inputs import read_plain

_RIGHT = Detail("right_with", "Trial: flashes right with", OHM, "Largest load beside the LED that did: 10R")
_FAST = Detail("fast_with", "Trial: still fast with", OHM, "Least load that was not enough: 22R")
_STILL_FAST = (("", "Not tried"), ("no", "No"), ("yes", "Yes"))


class Flasher(Watching):
    """With too little current it flashes fast."""

    id = "flasher"
    order = 6
    label = "Flasher that counts current"
    part = "Flasher"
    detail = "flasher"
    expect = "Too little current reads as a failed lamp: it flashes fast."
    usual_drop = (0.0, 0.1, 0.3)
    details = (
        COUNTS,
        TRIP,
        REST,
        Detail("rate", "Flashes a minute", None, "As it should be: 85. Empty takes 60 to 120"),
        Detail("duty", "Lit share", None, "50 %; 100 % where it also burns steadily, as a brake lamp"),
        PLACE,
        THERE,
        _RIGHT,
        _FAST,
        Detail("still_fast", "Still fast after the swap?", None, "", _STILL_FAST, seen=True),
    )
    on = "Flash"
    off = "Between flashes"
    flashes = True
    misses = "flashes fast"
    cool = "Fit an electronic flasher that does not count current: no heat"
    big_base = "bayonet BA15s"

    def facts(self, details: Details, lamp: Lamp | None) -> dict[str, Any]:
        """Its rate and lit share, and whether it is still fast."""
        right, fast = tried(details, _RIGHT, _FAST)
        return {
            **super().facts(details, lamp),
            "rate": read_plain("rate", details.text("rate"), "number of flashes a minute, like 85", 1, 1000),
            "duty": details.share("duty", 0.5),
            "right_ohm": right,
            "fast_ohm": fast,
            "still_fast": details.choice("still_fast"),
            "tried_with": details.input("still_fast").fitted,
        }

    def unknown(self, driver: Driver, lamp: Lamp | None) -> Unknown | None:
        """What it wants."""
        seen = (driver.trip, driver.right_ohm, driver.seen_enough, driver.seen_short)
        known = any(fact is not None for fact in seen) or driver.still_fast == "no"
        if not driver.monitors_current or known or lamp is not None:
            return None
        return Unknown("the old lamp, or the current under which it flashes fast", "whether the flasher keeps time")


KIND = Flasher()
