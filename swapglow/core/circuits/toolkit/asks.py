"""What kinds of circuit ask alike, and how it is read: the old lamp, the LED, its resistor."""

from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.lamp import Lamp, own_lamp
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.quantities import AMPERE, HERTZ, OHM, VOLT, InputError, show

USUAL_HZ = 50.0
# What feeds and windings run at (from memory).
LEAST_HZ, MOST_HZ = 16.0, 1000.0

FREQUENCY = Detail("hertz", "Frequency", HERTZ, "50Hz or 60Hz; empty takes 50 Hz")


def led_detail(label: str = "LED") -> Detail:
    """The choice among the catalogue's LEDs.

    Args:
        label: what the field is called.

    Returns:
        The detail "led".
    """
    return Detail("led", label, None, "", tuple((k, v.label) for k, v in catalogue().items()))


# The id of the LED's own resistor in every kind that has one.
LED_OHM = "ohm"


def led_ohm(hint: str, label: str = "Its resistor") -> Detail:
    """The LED's own resistor: "ohm".

    Args:
        hint: how it is written.
        label: what the field is called.

    Returns:
        The detail.
    """
    return Detail(LED_OHM, label, OHM, hint, none="link")


def lamp_details(volts: str, amps: str, whose: str = "The old lamp's") -> tuple[Detail, Detail]:
    """The old lamp's rating: "lamp_volts" and "lamp_amps".

    Args:
        volts, amps: how they are written, as examples.
        whose: as the fields' names begin.

    Returns:
        Both details.
    """
    return (
        Detail("lamp_volts", f"{whose} volts", VOLT, f"{volts}, as marked"),
        Detail("lamp_amps", f"{whose} amps", AMPERE, amps, at="lamp_volts"),
    )


def read_led(typed: Details) -> Led:
    """The LED that was chosen."""
    return catalogue()[typed.choice("led")]


def rated_lamp(volts: float, amps: float) -> Lamp:
    """A filament lamp by its rating alone.

    Args:
        volts, amps: its rating.

    Returns:
        The lamp; its light is a guess from its watts.
    """
    return own_lamp(volts, amps, None, "")


def read_hertz(typed: Details, what: str) -> float:
    """The feed's frequency; 50 Hz where nobody typed one.

    Args:
        typed: the details.
        what: whose it is, for a refusal: "feed".

    Returns:
        Hz.

    Raises:
        InputError: ``hertz``: no feed runs at that.
    """
    hertz = typed.value(FREQUENCY.id) or USUAL_HZ
    if not LEAST_HZ <= hertz <= MOST_HZ:
        raise InputError(FREQUENCY.id, f"{show(hertz, HERTZ)} is out of range for a {what}: 16 Hz to 1 kHz.")
    return hertz
