"""An LED's light as its owner knows it: candela or lumens at a current, or a class where nothing is marked."""

import math
import re
from dataclasses import dataclass, replace

from swapglow.core.parts.led import WIDEST_DEG, Led, power_of
from swapglow.core.quantities import CANDELA, LUMEN, InputError
from swapglow.core.quantities.bare import is_bare
from swapglow.core.quantities.inputs import read_single

_LUMENS = re.compile(r"(lm|lumens?)\s*$", re.IGNORECASE)
# A figure off a data sheet, a bag or a meter (bins of 1 : 1.5 and more, from memory).
KNOWN_DOUBT = 1.3
_LEAST_DEG = 4.0


@dataclass(frozen=True)
class Output:
    """How bright a kind of indicator is where nothing is marked.

    Attributes:
        label: as it is offered.
        candela: on axis at ``amps``; None takes the kind's own.
        amps: the current, A.
        angle_deg: viewing angle.
        doubt: it may be so many times more or less.
    """

    label: str
    candela: float | None = None
    amps: float = 20e-3
    angle_deg: float = 60.0
    doubt: float = 2.0


# An old diffused part gives some 15 mcd at 20 mA, a modern clear one 10 000 (common practice); the rest from memory.
OUTPUTS = {
    "": Output("As its kind"),
    "old": Output("Old diffused indicator", 0.015, angle_deg=70.0, doubt=2.5),
    "standard": Output("Standard", 0.15, angle_deg=60.0, doubt=2.5),
    "high": Output("High output, clear", 6.0, angle_deg=25.0, doubt=2.5),
}


def with_light(led: Led, light: str, at_a: float | None, angle_deg: float | None, output: str) -> Led:
    """An LED with its owner's own figures of its light; rating and curve stay.

    Args:
        led: the LED as its kind has it.
        light: "800mcd" on axis, or "3lm" in all; empty takes the class's or the kind's.
        at_a: current the light is given at, A; None takes the one its kind is given at. It says nothing without light.
        angle_deg: viewing angle; None takes the class's or the kind's.
        output: one of :data:`OUTPUTS`.

    Returns:
        The LED.

    Raises:
        InputError: ``led_light`` or ``led_angle``.
    """
    if angle_deg is not None and not _LEAST_DEG <= angle_deg <= WIDEST_DEG:
        raise InputError("led_angle", f"A viewing angle lies between {_LEAST_DEG:g} and {WIDEST_DEG:g}°.")
    known = OUTPUTS[output]
    inside = led.inside.in_series * led.inside.strings
    if known.candela is not None:
        led = replace(
            led,
            candela=known.candela * inside,
            candela_given_a=known.amps * led.inside.strings,
            angle_deg=known.angle_deg,
            light_doubt=known.doubt,
        )
    if angle_deg is not None:
        led = replace(led, angle_deg=angle_deg)
    if not light.strip():
        return led
    if is_bare(light):
        bare = light.strip()
        raise InputError("led_light", f'"{bare}" of what? Write {bare}mcd on axis or {bare}lm in all.')
    if _LUMENS.search(light):
        # In a beam I₀·cosᵐθ the flux is 2π/(m + 1) of the intensity on axis (geometry).
        candela = read_single("led_light", light, LUMEN, above=0) * (power_of(led.angle_deg) + 1) / (2 * math.pi)
    else:
        candela = read_single("led_light", light, CANDELA, above=0)
    return replace(led, candela=candela, candela_given_a=at_a or led.candela_a, light_doubt=KNOWN_DOUBT)
