"""The light a lamp is seen in: what stands around it, and how far its glare reaches."""

import numpy as np

from swapglow.core.design.looks import Room
from swapglow.core.photometry.spectrum import FloatArray, luminous, scotopic
from swapglow.core.photometry.visibility import DARK_ROOM_NITS, EYE_M, LIT_ROOM_NITS

# A panel out of doors in shade (from memory).
DAYLIGHT_NITS = 2000.0
NITS: dict[Room, float] = {"dark": DARK_ROOM_NITS, "workshop": LIT_ROOM_NITS, "daylight": DAYLIGHT_NITS}
# What stands around the lamps is painted so, in linear light: a screen cannot show the room as well.
WALLS: dict[Room, float] = {"dark": 0.0012, "workshop": 0.012, "daylight": 0.075}
# The law holds from about one degree to thirty.
_WIDEST_DEG = 30.0
# How many places of the veil are told, its strongest, and how fast it falls (ours, by looking).
VEIL_PLACES = 11
_VEIL_MOST, _VEIL_FALLS = 0.62, 14.0
# Photopic and scotopic efficacy at their best, lm/W (CIE 018).
_PHOTOPIC, _SCOTOPIC = 683.0, 1700.0


def veil_deg(candela: float, room: Room) -> float:
    """How far from a lamp the veil it throws in the eye is as bright as what stands there, degrees.

    Veiling luminance is 10·E/θ² (Stiles and Holladay; CIE 31-1976), E in lux at the eye and θ in degrees.

    Args:
        candela: towards the eye, from where one looks.
        room: the light it is seen in.

    Returns:
        Degrees, at most 30.
    """
    lux = candela / EYE_M**2
    return min(_WIDEST_DEG, float(np.sqrt(10 * lux / NITS[room])))


def halo(candela: float, room: Room) -> float:
    """How far the veil reaches, in steps that look equal.

    Args:
        candela: towards the eye.
        room: the light it is seen in.

    Returns:
        0 to 1.
    """
    return float(np.log1p(veil_deg(candela, room)) / np.log1p(_WIDEST_DEG))


def veil(reach: float, lightness: float) -> tuple[float, ...]:
    """How strong the veil around a lamp is painted, from its edge outwards: it falls with the square of the angle.

    Args:
        reach: how far it goes, 0 to 1, of :func:`halo`.
        lightness: of the lamp, L* of 100.

    Returns:
        Opacity, 0 to 1, at even places from the edge to the end.
    """
    strength = _VEIL_MOST * min(1.0, 0.25 + reach) * lightness / 100
    places = np.linspace(0.0, 1.0, VEIL_PLACES)
    return tuple((strength * (1 - places) / (1 + _VEIL_FALLS * places**2)).tolist())


def dark_adapted(power: FloatArray) -> float:
    """Scotopic beside photopic light of a spectrum, the S/P ratio: 683·V(λ) and 1700·V′(λ) (CIE 018); 0 of none."""
    seen = luminous(power)
    return 0.0 if seen <= 0 else float(_SCOTOPIC * (power @ scotopic()) / (_PHOTOPIC * seen))
