"""How far a comparison of lights may be off, as a factor."""

import math

from swapglow.core.design.position import Position

# Lengths that nobody measured, and the transmission of a generic glass in both lights (ours).
_GEOMETRY, _GLASS = 1.5, 1.25
# What a match by eye, side by side, leaves open (a fifth is seen; common practice).
_BY_EYE = 1.2


def led_doubt(position: Position) -> float:
    """The LED's own light may be so many times more or less: by its table, or by a match by eye.

    Args:
        position: the swap.

    Returns:
        A factor over 1.
    """
    return position.led.light_doubt if position.looks.trim == 1 else _BY_EYE


def doubt(position: Position) -> float:
    """The comparison may be so many times more or less.

    The doubts of LED, lamp, geometry and glass are independent: their logarithms add as squares.

    Args:
        position: the swap.

    Returns:
        A factor over 1.
    """
    parts = [led_doubt(position)]
    if position.lamp is not None:
        parts.append(position.lamp.light_doubt)
    if position.looks.assumed:
        parts.append(_GEOMETRY)
    if position.looks.glass is not None:
        parts.append(_GLASS)
    return math.exp(math.sqrt(sum(math.log(p) ** 2 for p in parts)))
