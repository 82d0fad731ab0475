"""Options of circuits that were chosen while the words on screen were stored: each becomes its id.

The words are those of the versions that stored them, and stay as they were.
"""

import re
from collections.abc import Callable

from swapglow.core.circuits.kinds.sensor import infrareds
from swapglow.core.parts.regulator import regulators
from swapglow.core.quantities import OHM, QuantityError, parse_single

_FIT = ((r"Fit .+", "fit"),)
_BESIDE = ((r".+ beside it", "beside"),)


def _ohms(text: str) -> str:
    return f"{parse_single(text, OHM):g}"


_WORDS: dict[str, tuple[tuple[str, str | Callable[[re.Match[str]], str]], ...]] = {
    "sense_board": (
        (r"Clip the (.+)", lambda m: f"clip-{_ohms(m[1])}"),
        (r"(.+) for the (.+)", lambda m: f"exchange-{_ohms(m[2])}-{_ohms(m[1])}"),
        (r"Add .+ in series", "series"),
    ),
    "chip_bank": (
        (r"Raise the resistors of .+", "raise"),
        (r"Add one resistor in the shared wire", "common"),
        (r"Make the banks look equal", "equal"),
        (r"(.+?) for (.+)", lambda m: f"bank-{m[2]}-{_ohms(m[1])}"),
    ),
    "light_string": (
        (r".+ by practice's sum", "practice"),
        (r"(\d) × .+ each", lambda m: f"parts-{m[1]}"),
        (r".+ W", "parts-1"),
    ),
    "power_led": ((r"A sink of .+", "sink"), (r"Drive it at .+", "drive")),
    "regulator_pick": ((r".+", lambda m: next((r.id for r in regulators().values() if r.label == m[0]), m[0])),),
    "strobed": _FIT,
    "lamp_matrix": _FIT,
    "phase_dimmer": _FIT,
    "charge_lamp": _BESIDE,
    "coil": _BESIDE,
    "new_light": (
        (r"LED and resistor across it", "across"),
        (r"From the pin to ground", "to-ground"),
        (r"From the supply into the pin", "into-pin"),
        (r"Through a transistor", "transistor"),
    ),
    "two_feeds": ((r"Between the feeds, in a bridge", "bridge"), (r"Two diodes, and its own ground", "ground")),
    "lamp_net": (
        (r"A ground at (.+)", lambda m: f"ground-{m[1]}"),
        (r"A diode before (.+), its band to \1", lambda m: f"diode-{m[1]}"),
    ),
    "rheostat": (
        (r".+ across the LEDs", "shunt"),
        (r"A transistor that follows the knob", "follower"),
        (r"Pulses of a width", "pulses"),
    ),
    "sensor": ((r".+", lambda m: next((i.id for i in infrareds().values() if i.label == m[0]), m[0])),),
    "warmer": ((r"All of it: .+", "all"), (r"What is needed: .+", "needed")),
    "gauge": ((r".+ in series and .+ across", "follow"),),
    "cable": ((r".+ across LED and resistor", "bleed"),),
    "hum": (
        (r"Half a wave: one diode", "half"),
        (r"A bridge, nothing stored", "bridge"),
        (r"A bridge and a capacitor", "smoothed"),
        (r"Two LEDs head to tail", "pair"),
    ),
}


def chosen_id(kind: str, text: str) -> str:
    """The id of an option.

    Args:
        kind: of the circuit.
        text: what is stored: an id, or the words of an earlier version.

    Returns:
        The id; a text that is neither stays as it is.
    """
    for pattern, id_ in _WORDS.get(kind, ()):
        found = re.fullmatch(pattern, text)
        if found:
            try:
                return id_ if isinstance(id_, str) else id_(found)
            except QuantityError:
                return text
    return text
