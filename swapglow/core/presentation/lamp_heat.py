"""Section: heat in the lamp's place, before and after."""

from dataclasses import dataclass

from swapglow.core.analysis.original_lamp import original_watts
from swapglow.core.analysis.solution import Solution
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.quantities import VOLT, WATT, Shown, percent, show, shown


@dataclass(frozen=True)
class LampHeat:
    """Heat in the lamp's place at the highest rail.

    ``before`` is the old lamp's, None where it is not known; ``after`` all that goes in at the contacts, the LED's own
    included.
    """

    before: Shown | None
    after: Shown
    line: str


def lamp_heat_section(s: Solution) -> LampHeat:
    """Heat before and after at the highest rail.

    Args:
        s: the solved position.

    Returns:
        The section.
    """
    after = shown(
        s.lamp_w,
        WATT,
        "all that goes in at the lamp's contacts: LED, resistor and what else sits there, most of "
        "all corners; what leaves as light is in it",
    )
    watts = _before(s)
    if not watts:
        return LampHeat(None, after, "The old lamp's heat is not known: say what lamp it was.")
    rail = show(s.position.rail.volts[2], VOLT)
    before = shown(watts, WATT, f"volts times amps of the old lamp in its place at {rail}")
    share = s.lamp_w / watts
    if share < 1:
        line = f"{percent(share)} of the old heat is left: lens and dial warm by as much of what they did."
    else:
        line = "It is no cooler than the old lamp was: lens, dial and holder get as warm as before, or warmer."
    return LampHeat(before, after, line)


def _before(s: Solution) -> float | None:
    try:
        return original_watts(s.position, s.position.rail.volts[2])
    except CircuitError:
        return None
