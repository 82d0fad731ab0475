"""Luminous intensity of a position's LEDs.

In this version intensity goes with current, and no filter stands before the lamp.
"""

from swapglow.core.design.position import Position


def led_candela(position: Position, amps: float) -> float:
    """Intensity of all LEDs together: candela × I/(current it is given at) × number of LEDs.

    Args:
        position: the swap.
        amps: current of one string, A.

    Returns:
        Candela on axis.
    """
    led = position.led
    return led.candela * amps / led.candela_a * position.points_of_light


def amps_for(position: Position, candela: float) -> float:
    """Current of one string at which all LEDs together give an intensity.

    Args:
        position: the swap.
        candela: wanted on axis, cd.

    Returns:
        Amps.
    """
    led = position.led
    return candela * led.candela_a / (led.candela * position.points_of_light)
