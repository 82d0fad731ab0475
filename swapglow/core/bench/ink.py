"""A reading before the swap: which typed figure it inks, and with what."""

from swapglow.core.position.model import Position, Rail
from swapglow.core.position.typed import FieldError
from swapglow.core.quantities import AMPERE, OHM, VOLT, QuantityError, parse, parse_single, show


def led_vf_text(position: Position, text: str) -> str:
    """Forward voltage at rated current from a reading at the drive wanted.

    The LED's curve keeps its shape and is shifted to meet the reading: a change of saturation
    current moves n·Vt·ln(I/Is) by the same volts at every current (Shockley).

    Raises:
        FieldError: the text is no voltage, or no forward voltage of one LED.
    """
    try:
        read = parse(text, VOLT, above=0)
    except QuantityError as problem:
        raise FieldError("text", str(problem)) from None
    led = position.led
    typical = float(led.junction(led.vf_typ, position.celsius).volts(position.target.value))
    shift = led.vf_typ - typical
    low, usual, high = (v + shift for v in (read.low, read.usual, read.high))
    if not 0.8 <= low <= high <= 20:
        raise FieldError(
            "text", f'"{text}" is no forward voltage of one LED: expected 1.2 to 4.5 V, as 2.85V.'
        )
    if read.spread == "none":
        return show(usual, VOLT, 5)
    return f"{low:.4g}-{high:.4g} V"


def shorted_ohm_text(rail: Rail, text: str) -> str:
    """Source resistance of a line from its shorted current: R = Vopen/Ishort (Ohm).

    Raises:
        FieldError: the text is no current.
    """
    try:
        amps = parse_single(text, AMPERE, above=0)
    except QuantityError as problem:
        raise FieldError("text", str(problem)) from None
    return show(rail.usual.value / amps, OHM, 4)
