"""A rail in a line."""

from swapglow.core.quantities import HERTZ, OHM, VOLT, show
from swapglow.core.supplies.rail import Rail
from swapglow.core.supplies.waveform import Waveform


def rail_line(rail: Rail) -> str:
    """ "8.7 V to 9.1 V, 50 Hz, 12 Ω behind it" """
    supply = rail.supply
    low, usual, high = (show(f.value, VOLT) for f in (rail.low, rail.usual, rail.high))
    volts = usual if low == high else f"{usual} ({low} to {high})"
    parts = [f"{volts} RMS" if supply.waveform is Waveform.SINE else volts]
    if supply.hertz[1]:
        low_hz, high_hz = show(supply.hertz[0], HERTZ), show(supply.hertz[2], HERTZ)
        parts.append(low_hz if low_hz == high_hz else f"{low_hz} to {high_hz}")
    if supply.source_ohm.value:
        parts.append(f"{show(supply.source_ohm.value, OHM)} behind it")
    elif supply.open_to_loaded_ratio > 1:
        parts.append(f"{show(rail.volts[1], VOLT)} open")
    return ", ".join(parts)
