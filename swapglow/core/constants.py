"""Physical constants, once (SI 2019)."""

BOLTZMANN = 1.380649e-23  # J/K
CHARGE = 1.602176634e-19  # C
ZERO_C = 273.15  # K
# Data sheets give their figures at this temperature, °C.
REFERENCE_C = 25.0
# SPICE models are given at this temperature, °C.
NOMINAL_C = 27.0


def thermal_voltage(celsius: float) -> float:
    """kT/q in volts, at a temperature in °C."""
    return BOLTZMANN * (celsius + ZERO_C) / CHARGE
