"""What is not yet known of a driver, and what it would decide."""

from collections.abc import Iterable

from swapglow.core.findings.registry import Context, rule
from swapglow.core.report import Finding


@rule
def driver_unknown(c: Context) -> Iterable[Finding]:
    """A figure without which the driver's own trouble cannot be worked out."""
    p, d = c.position, c.position.driver
    asks = {
        "series_lamps": (not d.others, "what the lamps left in the loop are marked with", "whether they stay lit"),
        "shared": (not d.dropper_ohm, "the shared dropping resistor", "what the LED and its neighbours see"),
        "flasher": (d.counts and d.trip is None and p.lamp is None,
                    "the old lamp, or the current under which it flashes fast", "whether the flasher keeps time"),
        "lamp_check": (d.counts and not (d.pulse_s and d.period_s),
                       "how long a check pulse lasts and how often it comes", "whether it is seen"),
    }  # fmt: skip
    missing, what, decides = asks.get(d.kind, (False, "", ""))
    if p.rail.supply.alternates and d.kind != "direct":
        yield Finding(
            "driver-on-ac", "mind", "On a supply that alternates only the driver's drop is reckoned with.",
            d.about.label.lower(), "a steady supply",
            "What leaks past it, shares its feed or watches it is worked out on DC only.",
        )  # fmt: skip
    elif missing:
        yield Finding(
            "driver-unknown", "mind", f"Not known: {what}.", "not known", "a figure",
            f"It decides {decides}. It is asked for at the driver's step.",
        )  # fmt: skip
