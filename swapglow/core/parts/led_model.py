"""An LED as the engine solves it."""

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import DiodeModel
from swapglow.core.parts.led import Led


def led_model(led: Led, count: int = 1) -> DiodeModel:
    """LEDs of typical forward volts in series, as one junction at 25 °C.

    Args:
        led: one of them.
        count: how many in series.

    Returns:
        The junction's model.
    """
    junction = led.junction(led.vf_typ)
    return DiodeModel(float(junction.i_s), junction.n * count, junction.r_s * count, nominal_c=REFERENCE_C)
