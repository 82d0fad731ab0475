"""A Darlington between the lamp and ground."""

from swapglow.core.drivers.transistors import Transistor


class Darlington(Transistor):
    """Cut off, its output transistor is what counts."""

    id = "darlington"
    order = 3
    label = "Darlington to ground"
    part = "Darlington"
    detail = "darlington"
    expect = "Keeps 0.7 to 1.1 V while on. A keep-warm resistor across it lights an LED that should be off."
    side = "low"
    usual_drop = (0.7, 0.9, 1.1)


KIND = Darlington()
