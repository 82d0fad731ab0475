"""Which LED of the catalogue stands in a circuit: asked alike by every kind."""

from swapglow.core.kinds.detail import Detail
from swapglow.core.parts.led import catalogue


def led_detail(label: str = "LED") -> Detail:
    """The choice among the catalogue's LEDs.

    Args:
        label: what the field is called.

    Returns:
        The detail "led".
    """
    return Detail("led", label, None, "", tuple((k, v.label) for k, v in catalogue().items()))
