"""Cautions, each at the step it belongs to. Local codes and licensed practice come first."""

HAZARDS: dict[str, str] = {
    "mains": "Mains kills. Qualified people only; plug out and in sight before the cover comes off. No live "
    "procedure is given here.",
    "tension": "High tension stays after switching off. Qualified people only; one hand, discharge through a resistor, "
    "prove it dead.",
    "charge": "Wait, then discharge through a resistor of a few kilohms and prove it dead with the meter.",
    "vehicle": "Negative lead off first, on last. No rings; a spanner across a battery welds. Lamps on the road "
    "are law: colour, brightness, flash rate and approval differ by country.",
    "static": "Touch the frame before the board; strap on; the part stays in its foam until it is fitted.",
    "heat": "Load resistors and power LEDs burn skin and plastic. Let it cool; LED light can hurt eyes at close range.",
}


def cautions(hazards: list[str]) -> list[str]:
    """What to mind before the case is opened."""
    return [HAZARDS[h] for h in HAZARDS if h in hazards]
