"""The first power after a change: where to begin, what limits the current, what it should read, when to switch off."""

import numpy as np

from swapglow.core.analysis.inrush import fuse_of
from swapglow.core.analysis.solution import Solution
from swapglow.core.quantities import AMPERE, VOLT, show

# A supply's limit stands so far over what the circuit takes at the most (ours).
_LIMIT = 1.25
# LEDs begin at a twentieth of what they are rated for.
_BEGINS = 0.05


def first_power(s: Solution) -> tuple[tuple[str, str], ...]:
    """What the card of the first power says.

    Args:
        s: the solved position.

    Returns:
        Labels and texts.
    """
    p, most = s.position, s.supply_current_max
    steady = not p.rail.supply.alternates and p.rail.supply.battery is None
    fuse = fuse_of(s)
    in_line = "a fuse in line" if fuse is None else f"a fuse of {fuse.text} in line"
    usual = float(s.usual[1])
    least, top = s.string_current_min, s.string_current_max
    limit = show(most * _LIMIT, AMPERE, 2)
    begin = f"on its own feed, {in_line}"
    if steady:
        up_to = show(p.rail.volts[1], VOLT)
        begin = f"at {_begins(s)} on a bench supply, then up to {up_to}; without one on its own rail, {in_line}"
    hard = show(top * _LIMIT, AMPERE, 2)
    return (
        ("Begin", begin),
        ("Current limit", limit if steady else "none but the fuse: an ammeter stands in the loop"),
        ("Should read", f"{show(usual, AMPERE)} in one string, {show(least, AMPERE)} to {show(top, AMPERE)}"),
        ("Switch off", f"at once over {hard} in a string, at a smell, or at a part too hot to touch"),
    )


def _begins(s: Solution) -> str:
    """Volts at which the LEDs just begin."""
    p = s.position
    if p.band_v is not None:
        return show(p.band_v[0], VOLT)
    junction = p.led.junction(p.led.vf_low, p.celsius)
    knee = p.in_series * float(junction.volts(np.asarray(p.led.rated_a * _BEGINS))) + p.drop_v
    return show(min(knee, p.rail.volts[0]), VOLT, 2)
