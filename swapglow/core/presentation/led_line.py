"""An LED in one line, as it would be written on its bag."""

from swapglow.core.parts.led import Led
from swapglow.core.quantities import AMPERE, CANDELA, VOLT, show


def led_line(led: Led) -> str:
    """An LED in one line.

    Args:
        led: the LED.

    Returns:
        Colour, volts, light and angle: "Warm white 5 mm clear, 2.8 to 3.4 V, 12 cd at 20 mA, 25°, up to 30 mA".
    """
    volts = show(led.vf_typ, VOLT)
    if led.vf_high - led.vf_low > 1e-3:
        volts = f"{led.vf_low:g} to {show(led.vf_high, VOLT)}"
    light = f"{show(led.candela, CANDELA, 2)} at {show(led.candela_a, AMPERE)}"
    return f"{led.label}, {volts}, {light}, {led.angle_deg:g}°, up to {show(led.rated_a, AMPERE)}"
