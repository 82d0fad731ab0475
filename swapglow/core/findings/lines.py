"""Pins and lines that are read, not meant to feed anything."""

from collections.abc import Iterable

from swapglow.core.findings.registry import Context, rule
from swapglow.core.findings.remedies import larger_resistor
from swapglow.core.quantities import AMPERE, show
from swapglow.core.report import Finding

# A sane budget for one pin (common practice: 2 to 8 mA).
BUDGET_A = 8e-3


@rule
def pin_budget(c: Context) -> Iterable[Finding]:
    """More than the pin may give."""
    pin = c.position.rail.supply.pin
    if pin is None or c.most_a <= min(pin.value, BUDGET_A):
        return
    beyond = c.most_a > pin.value
    limit = pin.value if beyond else BUDGET_A
    yield Finding(
        "pin-over-budget",
        "stop" if beyond else "mind",
        f"The pin gives {show(c.most_a, AMPERE)}; "
        + (f"it may give {show(limit, AMPERE)}." if beyond else f"a sane budget is {show(limit, AMPERE)}."),
        show(c.most_a, AMPERE),
        show(limit, AMPERE),
        "Past its limit the level falls, and what else reads the pin reads it wrong. A modern LED is plain "
        "at 1 mA; for more, a transistor from a real rail.",
        larger_resistor(c, min(pin.value, BUDGET_A) / 2),
    )


@rule
def taken_for_closed(c: Context) -> Iterable[Finding]:
    """The LED's current reads as a closed contact."""
    supply = c.position.rail.supply
    if supply.kind != "sense":
        return
    if supply.trip is None:
        yield Finding(
            "trip-unknown",
            "mind",
            f"The LED takes {show(c.most_a, AMPERE)}; at what current the equipment takes the line for "
            "closed is not known.",
            show(c.most_a, AMPERE),
            "the trip current",
            "Try resistors across the contact, largest first, until the unit switches: the trip lies "
            "between the last two.",
        )
        return
    limit = supply.trip.value * supply.trip_share
    if c.most_a <= limit:
        return
    closed = c.most_a >= supply.trip.value
    yield Finding(
        "line-reads-closed",
        "stop" if closed else "mind",
        f"With {show(c.most_a, AMPERE)} through the LED the line reads as closed: it trips at "
        f"{show(supply.trip.value, AMPERE)}." if closed else
        f"{show(c.most_a, AMPERE)} is close to the {show(supply.trip.value, AMPERE)} that trips the line.",
        show(c.most_a, AMPERE),
        show(limit, AMPERE),
        "The equipment can no longer tell the switch. As little current as the eye needs, or a transistor "
        "fed from a real rail; try both switch states.",
        larger_resistor(c, limit),
    )  # fmt: skip
