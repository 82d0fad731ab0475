"""A reading taken after the swap."""

import math
from dataclasses import dataclass
from typing import Literal

from swapglow.core.quantities import AMPERE, OHM, VOLT, InputError, Unit
from swapglow.core.quantities.inputs import read_single

ReadingKind = Literal["current", "resistor_volts", "led_volts"]
ReadingOf = Literal["one", "all"]
# What a reading is of, where several strings stand side by side.
READS: dict[ReadingOf, str] = {"one": "One string", "all": "All of them together"}
# What is read after the swap, as it is called.
KINDS: dict[ReadingKind, str] = {
    "current": "Current", "resistor_volts": "Volts across the resistor", "led_volts": "Volts across the LEDs",
}  # fmt: skip


@dataclass(frozen=True)
class ReadingAfter:
    """A reading taken after the swap.

    Attributes:
        id: the record's own.
        kind: current in the string, volts across the resistor, or volts across the LEDs.
        value: SI units.
        burden_ohm: what the meter put in series, Ω; 0 for volts.
        of: whether a current is one string's, or all of the lamp's.
        note: meter, range, condition.
    """

    id: str
    kind: ReadingKind
    value: float
    burden_ohm: float = 0.0
    note: str = ""
    of: ReadingOf = "one"

    def __post_init__(self) -> None:
        if not math.isfinite(self.value):
            raise InputError("text", "A reading must be a finite number.")
        if self.burden_ohm < 0:
            raise InputError("burden", "A meter's burden cannot be negative.")

    @property
    def unit(self) -> Unit:
        """The reading's unit."""
        return AMPERE if self.kind == "current" else VOLT


def read_after(id_: str, kind: ReadingKind, text: str, burden: str, note: str,
               of: ReadingOf = "one") -> ReadingAfter:  # fmt: skip
    """A reading after the swap from its texts.

    Args:
        id_: the record's own.
        kind: what was read.
        text: the reading as typed.
        burden: what the meter adds as typed; counts for a current only.
        note: meter, range, condition.
        of: whether a current is one string's or all of the lamp's.

    Returns:
        The reading in SI units.

    Raises:
        InputError: for ``text`` or ``burden``.
    """
    value = read_single("text", text, AMPERE if kind == "current" else VOLT, minimum=0)
    ohm = read_single("burden", burden, OHM, minimum=0) if burden.strip() else 0.0
    return ReadingAfter(id_, kind, value, ohm if kind == "current" else 0.0, note, of)
