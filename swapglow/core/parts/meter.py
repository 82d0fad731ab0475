"""A hand meter: its ranges, its accuracy, and what it puts into the circuit."""

# Full scales of a common hand meter.
_VOLT_RANGES = (0.2, 2.0, 20.0, 200.0, 1000.0)
_AMP_RANGES = (2e-3, 20e-3, 200e-3, 10.0)

# Accuracy allowed for a hand meter: 1.5 % and a few counts (common practice).
ACCURACY = 0.015
# A milliamp range's shunt and fuse add 1 to 10 Ω (common practice).
USUAL_BURDEN_OHM = 5.0
# Input of a volts range (common practice).
USUAL_INPUT_OHM = 10e6


def volt_range(volts: float, *, ac: bool = False) -> str:
    """The volts range that holds a value.

    Args:
        volts: the value, V.
        ac: whether it is on AC.

    Returns:
        Function and range in words.
    """
    full = next((r for r in _VOLT_RANGES if r >= volts), _VOLT_RANGES[-1])
    name = "AC volts" if ac else "DC volts"
    return f"{name}, {full * 1e3:g} mV range" if full < 1 else f"{name}, {full:g} V range"


def amp_range(amps: float) -> str:
    """The DC current range that holds a value."""
    full = next((r for r in _AMP_RANGES if r >= amps), _AMP_RANGES[-1])
    return f"DC amps, {full:g} A range" if full >= 1 else f"DC current, {full * 1e3:g} mA range"
