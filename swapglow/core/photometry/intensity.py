"""Luminous intensity of a position's LEDs towards the eye, as they are looked at."""

import math
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from swapglow.core.design.position import Position
from swapglow.core.parts.led import BURNS, Led
from swapglow.core.photometry.light_law import amps_at, relative_light
from swapglow.core.photometry.seen import Sight, led_sight

FloatArray = NDArray[np.float64]


# Less than this at the current the light is given at is none: what stands before it is black.
_NOTHING = 1e-15


def sight_of(position: Position) -> Sight:
    """What becomes of the light of one of a position's LEDs."""
    return led_sight(position.led, position.looks, position.points_of_light)


def _at_given(position: Position) -> float:
    """Towards the eye, all LEDs together, each at the current its light is given at, cd."""
    return position.led.candela * position.looks.trim * position.points_of_light * sight_of(position).candela


def led_candela(position: Position, amps: float) -> float:
    """Intensity of all LEDs together towards the eye.

    Args:
        position: the swap.
        amps: current of one string, A.

    Returns:
        Candela.
    """
    return float(led_candelas(position, np.asarray(amps)))


def led_candelas(position: Position, amps: FloatArray) -> FloatArray:
    """The same at each of many currents.

    Args:
        position: the swap.
        amps: current of one string, A.

    Returns:
        Candela, of the shape of ``amps``.
    """
    return _at_given(position) * relative_light(position.led, amps, position.celsius)


def burns_out(position: Position, amps: float) -> bool:
    """Whether a current is past what any LED stands, so that it gives no light any more.

    Args:
        position: the swap.
        amps: current of one string, A.

    Returns:
        True past :data:`BURNS` times its rating; never of a ready-made lamp, which is bound by its volts.
    """
    return position.module is None and amps > BURNS * position.rated_a


def shown_candela(position: Position, amps: float) -> float:
    """What is seen of it: as :func:`led_candela`, and nothing of an LED that burns out.

    Args:
        position: the swap.
        amps: current of one string, A.

    Returns:
        Candela.
    """
    return 0.0 if burns_out(position, amps) else led_candela(position, amps)


def times_the_light(position: Position, other: Led) -> float:
    """What another LED would show beside the position's own, at the drive wanted and as it is looked at.

    Args:
        position: the swap.
        other: the LED in the own one's place.

    Returns:
        The ratio; 1 where nothing is seen of either.
    """
    amps = position.target.value
    own = led_candela(position, amps)
    return led_candela(replace(position, led=other), amps) / own if own > 0 else 1.0


def amps_for(position: Position, candela: float) -> float:
    """Current of one string at which all LEDs together give an intensity towards the eye.

    Args:
        position: the swap.
        candela: wanted, cd.

    Returns:
        Amps; infinite where none of its light is seen.
    """
    given = _at_given(position)
    if given <= _NOTHING:
        return math.inf
    return amps_at(position.led, candela / given, position.celsius)
