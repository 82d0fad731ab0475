"""An LED's light over one cycle of its supply, to be shown slowed down."""

from dataclasses import dataclass

import numpy as np

from swapglow.core.analysis.cycle_figures import flicker_hertz, modulation
from swapglow.core.analysis.solution import Solution
from swapglow.core.photometry.flicker import flicker_limit
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.quantities import HERTZ, show

# One flash takes so long on screen: far under the three a second that can harm (WCAG 2.2, 2.3.1).
SLOWED_S = 3.0
_FRAMES = 40
# Less modulation than this is not worth a look, in per cent.
_STEADY = 1.0


@dataclass(frozen=True)
class Flicker:
    """One flash of the light at the usual rail.

    Attributes:
        frames: cube roots of its light beside the brightest, evenly over the flash: as bright as they are painted.
        seconds: how long the flash takes on screen.
        line: how fast it is, and how much slower it is shown.
    """

    frames: tuple[float, ...]
    seconds: float
    line: str


def flicker_of(s: Solution) -> Flicker | None:
    """The flash of a position at its usual rail.

    Args:
        s: the solved position.

    Returns:
        None where the light is steady, or has no frequency.
    """
    if s.ac is None:
        return None
    hertz, moves = flicker_hertz(s)[1], modulation(s, s.ac)[1]
    if not hertz or moves < _STEADY:
        return None
    p = s.position
    light = relative_light(p.led, s.ac.drawn.light[1], p.celsius)
    flash = light[: len(light) // p.rectification.halves]
    # The flash begins at its darkest.
    flash = np.roll(flash, -int(np.argmin(flash)))
    at = np.arange(_FRAMES) / _FRAMES * len(flash)
    around = np.append(flash, flash[0])
    frames = np.cbrt(np.interp(at, np.arange(len(around)), around) / light.max())
    limit = flicker_limit(hertz)
    judged = "low-risk up to" if moves <= limit else "low-risk is up to"
    line = (
        f"{show(hertz, HERTZ)}, {moves:.0f} % modulation ({judged} {limit:.0f} %, IEEE 1789-2015); one "
        f"flash is shown in {SLOWED_S:g} s."
    )
    return Flicker(tuple(round(float(f), 3) for f in frames), SLOWED_S, line)
