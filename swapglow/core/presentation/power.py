"""Section: heat in each resistor part, and the rating it needs."""

from dataclasses import dataclass

from swapglow.core.analysis.solution import Solution
from swapglow.core.quantities import AMPERE, OHM, WATT, Shown, Source, show, shown


@dataclass(frozen=True)
class PowerReport:
    """Heat in each resistor part at the highest rail, and the smallest rating that runs at half load."""

    each: Shown
    to_fit: Shown | None


def power_section(s: Solution) -> PowerReport:
    """Heat with the current behind it."""
    fit = s.rating_to_fit_w
    if s.position.bare:
        return PowerReport(shown(0.0, WATT, "no resistor of ours"), None)
    origin = "RMS current over the cycle, highest rail and lowest Vf"
    if s.ac is None:
        own = (s.power_w * s.sizing.parts / s.sizing.total_ohm) ** 0.5
        origin = f"its own {show(own, AMPERE)} squared × {show(s.sizing.each_ohm, OHM)}, at the corner of most heat"
    # A rating as the part is called: 0.5 W, not 500 mW.
    rating = (
        None
        if fit is None
        else Shown(
            fit, f"{fit:g}", "W", Source.COMPUTED, "the smallest body at half load, for its volts and in this air"
        )
    )
    return PowerReport(shown(s.power_w, WATT, origin), rating)
