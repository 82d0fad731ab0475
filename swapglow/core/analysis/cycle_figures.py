"""What a cycle comes to: crests, reverse volts, flicker."""

import numpy as np

from swapglow.core.analysis.solution import AcSolution, Solution
from swapglow.core.photometry.light_law import relative_light


def crest_v(s: Solution) -> float:
    """The highest peak the rail will ever show, unloaded, V."""
    return s.position.rail.peaks[2]


def rectifier_reverse_v(s: Solution) -> float | None:
    """The most reverse volts a rectifier diode stands, V; None where there is none.

    The crest; twice it where a half-wave's capacitor holds the other end up (textbook).
    """
    r = s.position.rectification
    if r.topology == "series" and r.reservoir:
        return 2 * crest_v(s)
    return crest_v(s) if r.diodes else None


def modulation(s: Solution, ac: AcSolution) -> tuple[float, float, float]:
    """Modulation of the light at the three levels, %: (max − min)/(max + min) (IEEE 1789-2015).

    The light follows the current by the curve of the LED's material, without delay.

    Args:
        s: the solved position.
        ac: its cycle.

    Returns:
        At the low, usual and high level.
    """
    amps, led = ac.drawn.light, s.position.led
    top, low = relative_light(led, amps.max(axis=1)), relative_light(led, amps.min(axis=1))
    share = np.where(top + low > 0, (top - low) / np.maximum(top + low, 1e-15), 0.0)
    a, b, c = (float(v) * 100 for v in share)
    return a, b, c


def flicker_hertz(s: Solution) -> tuple[float, float, float]:
    """Frequency of the light at the three levels, Hz; zeros where the supply has none."""
    low, usual, high = (h * s.position.rectification.halves for h in s.position.rail.supply.hertz)
    return low, usual, high
