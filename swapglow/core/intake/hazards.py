"""Dangers in an item, and the caution each calls for. Local codes and licensed practice come first."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Hazard:
    """A danger: what it is called, what to mind before the case is opened, and what at each step with the power on.

    ``at_step`` is empty where live steps are closed, or where the supply's own caution says it.
    """

    label: str
    caution: str
    at_step: str = ""


HAZARDS: dict[str, Hazard] = {
    "mains": Hazard(
        "Mains inside",
        "Mains kills. Qualified people only; plug out and in sight before the cover comes off. No "
        "live procedure is given here.",
    ),
    "tension": Hazard(
        "High tension",
        "High tension stays after switching off. Qualified people only; one hand, discharge through a "
        "resistor, prove it dead.",
    ),
    "charge": Hazard(
        "Charged capacitors",
        "Capacitors in here stay charged: wait, discharge them through a resistor of a few kilohms and prove it with "
        "the meter.",
        "Capacitors in here stay charged: discharge them first.",
    ),
    "vehicle": Hazard(
        "Vehicle battery",
        "The battery lead that goes to the frame comes off first and goes on last; on positive ground that is the "
        "positive one. No rings; a spanner across a battery welds. Lamps on the road are law: colour, brightness, "
        "flash rate and approval differ by country.",
    ),
    "static": Hazard(
        "Old logic, static",
        "Touch the frame before the board; strap on; the part stays in its foam until it is fitted.",
        "Touch the frame before the board.",
    ),
    "radium": Hazard(
        "Luminous paint, perhaps radium",
        "Old luminous paint may be radium: it stays active when it no longer glows. Do not scrape, brush or blow it; "
        "gloves, no food, wash after. A dial that flakes stays closed until somebody has measured it.",
        "The dial's paint may be radium: do not touch it.",
    ),
    "heat": Hazard(
        "Hot parts",
        "Load resistors and power LEDs burn skin and plastic. Let it cool; LED light can hurt eyes at close range.",
    ),
}


# Dangers for which no live reading is asked and no live step is given, whatever the lamp itself is on.
CLOSING = frozenset({"mains", "tension"})


def cautions(hazards: list[str]) -> list[str]:
    """What to mind before the case is opened, in the order of the table."""
    return [h.caution for id_, h in HAZARDS.items() if id_ in hazards]
