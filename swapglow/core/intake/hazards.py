"""Dangers in an item, and the caution each calls for. Local codes and licensed practice come first."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Hazard:
    """A danger: what it is called, and what to mind before the case is opened."""

    label: str
    caution: str


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
        "Wait, then discharge through a resistor of a few kilohms and prove it dead with the meter.",
    ),
    "vehicle": Hazard(
        "Vehicle battery",
        "Negative lead off first, on last. No rings; a spanner across a battery welds. Lamps on the "
        "road are law: colour, brightness, flash rate and approval differ by country.",
    ),
    "static": Hazard(
        "Old logic, static",
        "Touch the frame before the board; strap on; the part stays in its foam until it is fitted.",
    ),
    "heat": Hazard(
        "Hot parts",
        "Load resistors and power LEDs burn skin and plastic. Let it cool; LED light can hurt eyes at "
        "close range.",
    ),
}


def cautions(hazards: list[str]) -> list[str]:
    """What to mind before the case is opened, in the order of the table."""
    return [h.caution for id_, h in HAZARDS.items() if id_ in hazards]
