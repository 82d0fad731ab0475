"""Readings taken before the swap: what, where, with which meter, in which condition."""

from dataclasses import dataclass
from typing import Literal

from swapglow.core.parts.meter import USUAL_BURDEN_OHM, USUAL_INPUT_OHM
from swapglow.core.quantities import AMPERE, OHM, VOLT, InputError, Unit, show
from swapglow.core.quantities.inputs import read_quantity, read_single

Function = Literal["dc_volts", "ac_volts", "dc_amps", "ac_amps", "ohms"]
Points = Literal["lamp", "feed", "driver", "frame", "hand"]

FUNCTIONS: dict[Function, tuple[str, Unit]] = {
    "dc_volts": ("DC volts", VOLT),
    "ac_volts": ("AC volts", VOLT),
    "dc_amps": ("DC amps", AMPERE),
    "ac_amps": ("AC amps", AMPERE),
    "ohms": ("Ohms", OHM),
}
# Where the old lamp is while one reads.
LAMP = {"in": "In", "out": "Out"}
# The points as a choice offers them.
POINT_LABELS: dict[Points, str] = {
    "lamp": "Lamp",
    "feed": "Feed",
    "driver": "Switch",
    "frame": "To frame",
    "hand": "Lamp in the hand",
}
FUNCTION_LABELS: dict[Function, str] = {key: label for key, (label, _) in FUNCTIONS.items()}
POINTS: dict[Points, str] = {
    "lamp": "the lamp's contacts",
    "feed": "feed to its return",
    "driver": "across switch or driver",
    "frame": "a lamp contact to the frame",
    "hand": "the old lamp itself, in the hand",
}


@dataclass(frozen=True)
class ReadingBefore:
    """A reading before the swap, SI units.

    Attributes:
        value: as read, or the middle of lowest and highest over a minute; negative with the red
            lead on the negative side.
        low, high: its ends; equal to ``value`` for one reading.
        points: between which points; amps are read in series there.
        lamp: whether the old lamp was in.
        state: of the switch, in the user's words: "off", "brake".
        meter_ohm: input of a volts range, shunt and fuse of an amps range.
        true_rms: whether an AC range reads true RMS.
    """

    id: str
    function: Function
    value: float
    low: float
    high: float
    points: Points = "lamp"
    lamp: Literal["in", "out"] = "in"
    state: str = ""
    meter_ohm: float = USUAL_INPUT_OHM
    true_rms: bool = False
    note: str = ""

    @property
    def unit(self) -> Unit:
        """The reading's unit."""
        return FUNCTIONS[self.function][1]

    @property
    def text(self) -> str:
        """ "12.4 V DC at the lamp's contacts, lamp in, off" """
        kind = {"dc": " DC", "ac": " AC"}.get(self.function[:2], "")
        state = f", {self.state}" if self.state else ""
        if self.points == "hand":
            return f"{show(self.value, self.unit)} of {POINTS[self.points]}"
        return f"{show(self.value, self.unit)}{kind} at {POINTS[self.points]}, lamp {self.lamp}{state}"


def read_before(
    id_: str,
    function: str,
    text: str,
    *,
    points: str = "lamp",
    lamp: str = "in",
    state: str = "",
    meter: str = "",
    true_rms: bool = False,
    note: str = "",
) -> ReadingBefore:
    """A reading from its texts; "0L" or "OL" on an ohms range is no continuity.

    Args:
        id_: the record's own.
        function: which of :data:`FUNCTIONS`.
        text: the reading as typed; a range gives its lowest and highest.
        points: which of :data:`POINTS`.
        lamp: "in" or "out".
        state: of the switch, in the user's words.
        meter: its input or burden as typed; empty takes the usual.
        true_rms: whether an AC range reads true RMS.
        note: range, condition.

    Returns:
        The reading in SI units.

    Raises:
        InputError: ``function``, ``text``, ``points``, ``lamp`` or ``meter``.
    """
    if function not in FUNCTIONS:
        raise InputError("function", f'"{function}" is no meter function: {", ".join(FUNCTIONS)}.')
    if points not in POINTS:
        raise InputError("points", f'"{points}" are no points: {", ".join(POINTS)}.')
    if points == "hand" and function != "ohms":
        raise InputError("points", "Of a lamp in the hand only ohms can be read: nothing feeds it.")
    if lamp not in ("in", "out"):
        raise InputError("lamp", f'The lamp is "in" or "out", not "{lamp}".')
    side: Literal["in", "out"] = "in" if lamp == "in" else "out"
    unit = FUNCTIONS[function][1]
    volts = unit is VOLT
    usual = USUAL_INPUT_OHM if volts else USUAL_BURDEN_OHM
    ohm = read_single("meter", meter, OHM, minimum=0) if meter.strip() else (0.0 if unit is OHM else usual)
    if volts and ohm <= 0:
        raise InputError("meter", "A volts range has an input resistance, like 10M.")
    if unit is OHM and text.strip().upper() in ("OL", "0L", "O.L", "INF"):
        return ReadingBefore(id_, function, 1e9, 1e9, 1e9, points, side, state.strip(), ohm, true_rms, note)
    parsed = read_quantity("text", text, unit)
    said = parsed.kind
    if said is not None and not function.startswith(said):
        raise InputError("text", f'"{text}" says {said.upper()}, but the range is {FUNCTIONS[function][0]}.')
    if function in ("ac_volts", "ac_amps", "ohms") and parsed.low < 0:
        raise InputError("text", f"{FUNCTIONS[function][0]} are never negative.")
    return ReadingBefore(
        id_, function, parsed.usual, parsed.low, parsed.high, points, side, state.strip(), ohm, true_rms, note
    )
