"""Whether a lamp that should be dark is seen: in a dark room, or in a lit one too.

The threshold of a steady point of light against a background of luminance B (cd/m²) is, in lux at
the eye, log E = 0.05·(log B)² + 0.573·log B − 6.667 (ICAO Annex 3, attachment on runway visual
range; from memory). A light must be some ten times that to be noticed by one who does not search for
it (signalling practice, from memory). Light goes with current here; real LEDs fall off below a few
microamps, so that this errs on the bright side.
"""

from typing import Literal

import numpy as np

Visibility = Literal["dark", "dark_room", "lit_room"]

# A dark stage or bedroom, and white paper under room light (common practice).
DARK_ROOM_NITS = 0.01
LIT_ROOM_NITS = 100.0
# From where one looks at a panel.
EYE_M = 1.0
NOTICED = 10.0

WORDS: dict[Visibility, str] = {"dark": "dark", "dark_room": "seen in a dark room", "lit_room": "seen in a lit room"}


def threshold_lux(nits: float) -> float:
    """Least illuminance at the eye at which a point of light is seen before a background, lx."""
    log = float(np.log10(nits))
    return float(10 ** (0.05 * log**2 + 0.573 * log - 6.667))


def least_candela(nits: float) -> float:
    """Intensity at which a lamp is noticed from where one looks, cd."""
    return threshold_lux(nits) * NOTICED * EYE_M**2


DARK_ROOM_CD = least_candela(DARK_ROOM_NITS)
LIT_ROOM_CD = least_candela(LIT_ROOM_NITS)


def visibility(candela: float) -> Visibility:
    """Where a lamp of this intensity is noticed."""
    if candela >= LIT_ROOM_CD:
        return "lit_room"
    return "dark_room" if candela >= DARK_ROOM_CD else "dark"


def flash_candela(candela: float, seconds: float) -> float:
    """A flash as the steady light that looks alike: I·t/(0.2 s + t) (Blondel and Rey 1911).

    Args:
        candela: while it is lit, cd.
        seconds: how long, s.

    Returns:
        cd.
    """
    return candela * seconds / (0.2 + seconds)
