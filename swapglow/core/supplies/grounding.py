"""What AC sources with two legs have in common: whether one of them stands on the frame."""

from swapglow.core.kinds.step import Meaning, NextStep
from swapglow.core.supplies.kind import GROUNDED, Circumstances, Owed


def grounding_owed(about: Circumstances) -> Owed | None:
    """Whether a leg is on the frame, where the LED's negative meets it and nobody knows.

    A short circuit is not weighed against a drift: it comes first.
    """
    if not about.chassis_negative or about.rail.supply.grounded != "unknown":
        return None
    step = NextStep(
        "grounded",
        "Find out whether the supply has a leg on the frame",
        "Ohms, continuity",
        "each leg of the supply to the frame",
        "supply off, capacitors discharged",
        "open on both legs",
        GROUNDED.id,
        "The LED's negative meets the frame: with a bridge one half-cycle would be a short.",
        "",
        (
            Meaning("one leg beeps", "grounded: half-wave with a common negative, or keep it all off the frame"),
            Meaning("both open", "floating: a bridge may stand on the frame"),
        ),
        "yes or no",
    )
    return Owed(step, share_of_usual=10.0, costs="the winding, shorted every half-cycle", loss="unit")
