"""A flasher that counts current."""

from typing import Any

from swapglow.core.drivers.driver import Driver
from swapglow.core.drivers.kind import Unknown
from swapglow.core.drivers.watching import COUNTS, PLACE, REST, THERE, TRIP, Watching
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.lamp import Lamp
from swapglow.core.quantities import OHM, InputError, show
from swapglow.core.quantities.inputs import read_plain


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
        Detail("right_with", "Trial: flashes right with", OHM, "Largest load beside the LED that did: 10R"),
        Detail("fast_with", "Trial: still fast with", OHM, "Least load that was not enough: 22R"),
        Detail("still_fast", "Still fast after the swap?", None, "", (("", "Not tried"), ("no", "No"), ("yes", "Yes"))),
    )
    on = "Flash"
    off = "Between flashes"
    flashes = True
    misses = "flashes fast"
    cool = "Fit an electronic flasher that does not count current: no heat"
    big_base = "bayonet BA15s"

    def facts(self, details: Details, lamp: Lamp | None) -> dict[str, Any]:
        """Its rate and lit share, and whether it is still fast."""
        return {
            **super().facts(details, lamp),
            "rate": read_plain("rate", details.text("rate"), "number of flashes a minute, like 85", 1, 1000),
            "duty": details.share("duty", 0.5),
            **_trials(details),
            "still_fast": details.choice("still_fast"),
        }

    def unknown(self, driver: Driver, lamp: Lamp | None) -> Unknown | None:
        """What it wants."""
        known = driver.trip is not None or driver.right_ohm is not None or driver.still_fast == "no"
        if not driver.monitors_current or known or lamp is not None:
            return None
        return Unknown("the old lamp, or the current under which it flashes fast", "whether the flasher keeps time")


def _trials(details: Details) -> dict[str, Any]:
    right, fast = details.value("right_with"), details.value("fast_with")
    if right is not None and fast is not None and right >= fast:
        raise InputError(
            "right_with",
            f"{show(right, OHM)} draws less than {show(fast, OHM)}, which was not enough: the two are exchanged.",
        )
    return {"right_ohm": right, "fast_ohm": fast}


KIND = Flasher()
