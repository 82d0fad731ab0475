"""What a part of a circuit stands, judged alike in every kind: an LED's current and reverse volts, a lamp's volts.

In a state that occurs, over the rating is a stop. Equal to the rating is not over it.
"""

from collections.abc import Iterable

from swapglow.core.fitted.worked import Judged
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import Led
from swapglow.core.quantities import AMPERE, VOLT, show

# Rounding is not over a limit.
SLACK = 1 + 1e-6
# A lamp called 12 V is run at up to 14.4 V on a vehicle (common practice). A quarter over, a lamp lives a fifteenth as
# long (life goes by V to the -12, lamp handbooks, from memory).
LAMP_OVER = 1.25


def led_current(led: Led, amps: float, where: str) -> Iterable[Judged]:
    """A stop where an LED carries more than it is rated for.

    Args:
        led: the LED.
        amps: what it carries, A.
        where: the state, as a sentence begins: "Left on".

    Returns:
        The stop, or nothing.
    """
    if amps > led.rated_a * SLACK:
        yield Judged(
            "stop", f"{where}: the LED carries {show(amps, AMPERE)}, over its rated {show(led.rated_a, AMPERE)}.",
            "Past its rating an LED runs hot, fades and fails early: a larger resistor, or another LED.",
        )  # fmt: skip


def led_reverse(led: Led, volts: float, where: str) -> Iterable[Judged]:
    """A stop where an LED sees more in reverse than it may.

    Args:
        led: the LED.
        volts: across it in reverse, V.
        where: the state.

    Returns:
        The stop, or nothing.
    """
    if volts > led.reverse_v * SLACK:
        yield Judged(
            "stop", f"{where}: the LED sees {show(volts, VOLT)} in reverse, over its {show(led.reverse_v, VOLT)}.",
            "It breaks down and dies sooner or later: a diode in line with it, its drop counted.",
        )  # fmt: skip


def lamp_volts(lamp: Lamp, volts: float, where: str) -> Iterable[Judged]:
    """A stop where a filament lamp sees more than a quarter over its volts.

    Args:
        lamp: the lamp.
        volts: across it, V.
        where: the state, and which lamp.

    Returns:
        The stop, or nothing.
    """
    if volts > lamp.volts * LAMP_OVER * SLACK:
        yield Judged(
            "stop", f"{where}: {show(volts, VOLT)} across a lamp of {show(lamp.volts, VOLT)}.",
            "Its life falls with the twelfth power of its volts: it burns out soon, or at once.",
        )  # fmt: skip
