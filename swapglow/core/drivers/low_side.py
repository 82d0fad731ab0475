"""A transistor between the lamp and ground."""

from swapglow.core.drivers.transistors import Transistor


class LowSide(Transistor):
    """An NPN to ground."""

    id = "low_side"
    order = 1
    label = "Transistor to ground"
    expect = "Keeps 0.1 to 0.3 V while on. A keep-warm resistor across it lights an LED that should be off."
    side = "low"


KIND = LowSide()
