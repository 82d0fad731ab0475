"""From a source's own light to what is looked at: how much of it, and in what colour."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.design.looks import Looks
from swapglow.core.parts.glass import Glass
from swapglow.core.parts.led import Led
from swapglow.core.photometry.beam import EVEN, beam, on_axis
from swapglow.core.photometry.colour import tristimulus
from swapglow.core.photometry.spectrum import filament, led, luminous, through
from swapglow.core.photometry.window import WHITE, Lit, lit

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Sight:
    """What becomes of one candela on a bare source's axis.

    Attributes:
        candela: towards the eye, cd per cd.
        share: of its light that the glass lets through.
        xyz: tristimulus values of what is seen, Y = 1.
        face: how the light lies there; None where it is seen directly.
    """

    candela: float
    share: float
    xyz: FloatArray
    face: Lit | None


def passes(power: FloatArray, glass: Glass | None) -> float:
    """The share of a spectrum's light that a glass lets through, as the eye weighs it.

    Args:
        power: the spectrum, (81,).
        glass: what it passes.

    Returns:
        0 to 1.
    """
    return luminous(through(power, glass)) / luminous(power)


def colour_behind(power: FloatArray, glass: Glass | None) -> FloatArray:
    """Tristimulus values behind a glass, Y = 1; of the bare light where nothing comes through.

    Args:
        power: the spectrum, (81,).
        glass: what it passes.

    Returns:
        X, Y, Z.
    """
    left = through(power, glass)
    return tristimulus(left if luminous(left) > 0 else power)


def _sight(power: FloatArray, looks: Looks, direct: float, face: Lit | None) -> Sight:
    share = passes(power, looks.glass)
    xyz = colour_behind(power, looks.glass)
    if face is None:
        return Sight(direct * share, share, xyz, None)
    # A matt face gives what leaves it evenly to the half sphere before it: I = Φ/π (Lambert).
    back = WHITE if looks.how == "lights" else 1.0
    return Sight(face.lumens * share * back / np.pi, share, xyz, face)


@lru_cache(maxsize=256)
def led_sight(part: Led, looks: Looks, sources: int = 1) -> Sight:
    """What becomes of an LED's light.

    Args:
        part: the LED.
        looks: how it is looked at.
        sources: how many stand there.

    Returns:
        For one candela on the axis of one of them.
    """
    face = None if looks.how == "seen" else lit(looks, beam(part.angle_deg, looks.optics), sources)
    return _sight(led(part), looks, on_axis(part.angle_deg, looks.optics), face)


@lru_cache(maxsize=256)
def lamp_sight(kelvin: int, looks: Looks) -> Sight:
    """What becomes of a filament lamp's light, which is even all round.

    Args:
        kelvin: its colour temperature.
        looks: how it is looked at.

    Returns:
        For one candela of it.
    """
    face = None if looks.how == "seen" else lit(looks, EVEN, 1)
    return _sight(filament(kelvin), looks, 1.0, face)
