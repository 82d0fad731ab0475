"""Meter functions and ranges, and what a meter does to the circuit."""

import math
from dataclasses import dataclass
from typing import Literal

ReadingKind = Literal["current", "resistor_volts", "led_volts"]

# Full scales of a common hand meter.
_VOLT_RANGES = (0.2, 2.0, 20.0, 200.0, 1000.0)
_AMP_RANGES = (2e-3, 20e-3, 200e-3, 10.0)

# Accuracy allowed for a hand meter: 1.5 % and a few counts (common practice).
ACCURACY = 0.015
# A milliamp range's shunt and fuse add 1 to 10 Ω (common practice).
USUAL_BURDEN_OHM = 5.0


def volt_range(volts: float, *, ac: bool = False) -> str:
    """The volts range that holds a value."""
    full = next((r for r in _VOLT_RANGES if r >= volts), _VOLT_RANGES[-1])
    name = "AC volts" if ac else "DC volts"
    return f"{name}, {full * 1e3:g} mV range" if full < 1 else f"{name}, {full:g} V range"


def amp_range(amps: float) -> str:
    """The DC current range that holds a value."""
    full = next((r for r in _AMP_RANGES if r >= amps), _AMP_RANGES[-1])
    return f"DC amps, {full:g} A range" if full >= 1 else f"DC current, {full * 1e3:g} mA range"


@dataclass(frozen=True)
class Reading:
    """A reading taken after the swap.

    Attributes:
        id: the record's own.
        kind: current in the string, volts across the resistor, or volts across the LEDs.
        value: SI units.
        burden_ohm: what the meter put in series, Ω; 0 for volts.
        note: meter, range, condition.
    """

    id: str
    kind: ReadingKind
    value: float
    burden_ohm: float = 0.0
    note: str = ""

    def __post_init__(self) -> None:
        if not math.isfinite(self.value):
            raise ValueError("A reading must be a finite number.")
        if self.burden_ohm < 0:
            raise ValueError("A meter's burden cannot be negative.")
