"""A reading at the bench: which typed figure it sets, and with what text."""

from dataclasses import dataclass
from typing import Literal

from swapglow.core.design.position import Position
from swapglow.core.measurement.inference import PLAIN_V
from swapglow.core.quantities import AMPERE, OHM, VOLT, InputError, show
from swapglow.core.quantities.inputs import read_quantity, read_single
from swapglow.core.supplies.kind import FRAME_POLE
from swapglow.core.supplies.rail import Rail

# Readings of the rail's three levels, and the fields they set.
LEVELS = {"rail_low": "low", "rail_usual": "usual", "rail_high": "high"}


@dataclass(frozen=True)
class Applied:
    """What a reading sets.

    Attributes:
        of: whose field it is: the lamp's, its rail's, or a detail that the rail's kind asks for.
        field: its name.
        text: what it becomes.
    """

    of: Literal["position", "rail", "detail"]
    field: str
    text: str


def apply_reading(position: Position, what: str, text: str) -> Applied:
    """The figure that a reading sets.

    Args:
        position: the swap.
        what: what was read: a level of the rail, "led_vf", "driver_drop", "source_short", or a detail that
            the rail's kind asks for.
        text: as typed.

    Returns:
        Whose field it is, and its text.

    Raises:
        InputError: ``text`` cannot be that, or nothing here is called ``what``.
    """
    if what in LEVELS:
        return Applied("rail", LEVELS[what], text)
    if what == "led_vf":
        return Applied("position", "vf", led_vf_text(position, text))
    if what == "driver_drop":
        return Applied("position", what, text)
    if what == "source_short":
        return Applied("detail", "source", shorted_ohm_text(position.rail, text))
    if what == FRAME_POLE.id and position.rail.supply.kind.asks_pole:
        return Applied("detail", what, pole_text(text))
    if what in {d.id for d in position.rail.supply.kind.details}:
        return Applied("detail", what, text)
    raise InputError("what", f'Nothing on this rail is read as "{what}".')


def pole_text(text: str) -> str:
    """Which pole is on the frame, from a word or from what a meter shows with its black lead there.

    Args:
        text: "plus", "minus", "neither", or volts with their sign.

    Returns:
        The option.

    Raises:
        InputError: the text is neither, or so few volts decide nothing.
    """
    word = text.strip().casefold()
    if word in {value for value, _ in FRAME_POLE.options}:
        return word
    try:
        volts = read_single("text", text, VOLT)
    except InputError:
        raise InputError("text", f'"{text}" is no answer: volts with their sign, or minus, plus or neither.') from None
    if abs(volts) < PLAIN_V:
        raise InputError(
            "text",
            f"{show(volts, VOLT)} decides nothing: the switch may be off, or the frame there paint. Bare "
            "metal, switch on; or type neither.",
        )
    return "minus" if volts > 0 else "plus"


def led_vf_text(position: Position, text: str) -> str:
    """Forward voltage at rated current from a reading at the drive wanted.

    The LED's curve keeps its shape and is shifted to meet the reading: a change of saturation
    current moves n·Vt·ln(I/Is) by the same volts at every current (Shockley 1949).

    Args:
        position: the swap.
        text: volts as typed, or a range.

    Returns:
        The text that the LED's own forward voltage becomes.

    Raises:
        InputError: the text is no voltage, or no forward voltage of one LED.
    """
    read = read_quantity("text", text, VOLT, above=0)
    led = position.led
    typical = float(led.junction(led.vf_typ, position.celsius).volts(position.target.value))
    shift = led.vf_typ - typical
    low, usual, high = (v + shift for v in (read.low, read.usual, read.high))
    if not 0.8 <= low <= high <= 20:
        raise InputError("text", f'"{text}" is no forward voltage of one LED: expected 1.2 to 4.5 V, as 2.85V.')
    if read.spread == "none":
        return show(usual, VOLT, 5)
    return f"{low:.4g}-{high:.4g} V"


def shorted_ohm_text(rail: Rail, text: str) -> str:
    """Source resistance of a line from its shorted current: R = Vopen/Ishort (Ohm).

    Args:
        rail: the line.
        text: the current as typed.

    Returns:
        The text that its source resistance becomes.

    Raises:
        InputError: the text is no current.
    """
    return show(rail.usual.value / read_single("text", text, AMPERE, above=0), OHM, 4)
