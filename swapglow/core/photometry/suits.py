"""Which LED suits the glass before it: how much of each colour comes through, and in what colour."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.design.position import Position
from swapglow.core.parts.glass import Glass
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.photometry.screen import hue_of, oklab, screen_colours
from swapglow.core.photometry.seen import colour_behind, passes
from swapglow.core.photometry.spectrum import filament, led

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Suit:
    """One colour of LED behind the glass.

    Attributes:
        part: an LED of that colour, as near in size and lens to the position's own as there is.
        share: of its light that comes through.
        xyz: tristimulus values of what comes through, Y = 1.
        beside_glass: how far its colour is from white light's through the same glass, in Oklab's a and b.
    """

    part: Led
    share: float
    xyz: FloatArray
    beside_glass: float

    @property
    def colour(self) -> str:
        """#rrggbb of what is seen, as bright as its hue allows."""
        return screen_colours(self.xyz, np.array([hue_of(self.xyz).brightest]))[0]


def suits(position: Position, kelvin: float) -> tuple[Suit, ...]:
    """Every colour of the catalogue behind the position's glass, the one that loses least first.

    Args:
        position: the swap.
        kelvin: colour temperature of the filament light the glass was made for.

    Returns:
        None where there is no glass.
    """
    glass = position.looks.glass
    if glass is None:
        return ()
    meant = oklab(colour_behind(filament(kelvin), glass))
    found = [_behind(part, glass, meant) for part in _one_of_each_colour(position.led)]
    return tuple(sorted(found, key=lambda s: (-round(s.share, 3), s.part.id)))


def _behind(part: Led, glass: Glass, meant: FloatArray) -> Suit:
    power = led(part)
    xyz = colour_behind(power, glass)
    away = oklab(xyz)[1:] - meant[1:]
    return Suit(part, passes(power, glass), xyz, float(np.hypot(*away)))


def _one_of_each_colour(like: Led) -> list[Led]:
    """The catalogue's LED of each colour that is nearest in size and angle; the own one for its own colour."""
    best: dict[str, Led] = {}
    for part in catalogue().values():
        other = best.get(part.colour)
        if other is None or _unlike(part, like) < _unlike(other, like):
            best[part.colour] = part
    if like.id in catalogue():
        best[like.colour] = like
    return list(best.values())


def _unlike(part: Led, like: Led) -> tuple[bool, float]:
    return part.size != like.size, abs(part.angle_deg - like.angle_deg)
