"""A transistor between the feed and the lamp."""

from swapglow.core.drivers.transistors import Transistor


class HighSide(Transistor):
    """A PNP from the rail."""

    id = "high_side"
    order = 2
    label = "Transistor from the rail"
    expect = "Keeps 0.1 to 0.3 V while on. A keep-warm resistor across it lights an LED that should be off."
    polarity = "pnp"


KIND = HighSide()
