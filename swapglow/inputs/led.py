"""An LED as its owner knows it: the kind it is of, and what of its own figures is known."""

from typing import Annotated

from swapglow.core.design.led_light import OUTPUTS
from swapglow.core.quantities import AMPERE, DEGREE, VOLT
from swapglow.inputs.quantity import Name, Quantity, Short
from swapglow.inputs.shape import OneOf, Reads, Sets, Shape


class LedInput(Shape):
    """An LED: in a lamp position, or kept on the bench to be put into several."""

    name: Name = "LED"
    led_id: Short = ""
    vf: Annotated[Quantity, Reads(VOLT, "vf", "led range")] = Quantity()
    rated: Annotated[Short, Reads(AMPERE, "rated_a", "led")] = ""
    led_light: Annotated[Short, Sets("light", "light", by_hand=True)] = ""
    led_light_at: Annotated[Short, Reads(AMPERE, "at_a", "light")] = ""
    led_angle: Annotated[Short, Reads(DEGREE, "angle_deg", "light")] = ""
    led_output: Annotated[str, OneOf(OUTPUTS), Sets("output", "light")] = ""
