"""What a reading would have been without the meter."""

from dataclasses import dataclass

from swapglow.core.measurement.reading_before import ReadingBefore
from swapglow.core.quantities import AMPERE, OHM, VOLT, show

# A change smaller than this is the meter's own uncertainty.
WORTH_SAYING = 0.005
# An averaging meter shows 1.111 × the rectified mean, right for a sine only: flat pulses read 1.111
# times too high, half-waves 1.414 times too low (textbook: form factors 1.111, 1 and π/2).
FORM_FACTOR = 1.1107


@dataclass(frozen=True)
class Correction:
    """A reading with the meter's effect taken out, SI units; ``why`` is empty where there is none."""

    value: float
    why: str


def meter_correction(reading: ReadingBefore, *, source_ohm: float, loop_ohm: float | None, wave: str) -> Correction:
    """Take the meter's own effect out of a reading.

    Args:
        reading: as taken.
        source_ohm: resistance the volts stand behind where the lamp is out, Ω.
        loop_ohm: resistance of the loop an amps range was put in, where known, Ω.
        wave: "sine", "dc", "half" (half-wave rectified), "full", "square", or "" where it is not known.

    Returns:
        The value it would have been, and why it differs.
    """
    value = reading.value
    if reading.unit is VOLT:
        if reading.function == "ac_volts" and not reading.true_rms and wave in ("square", "half"):
            fair = value / FORM_FACTOR if wave == "square" else value * 2**0.5
            what = "flat pulses" if wave == "square" else "a half-wave"
            return Correction(fair, f"an averaging meter is right for a sine only; this is {what}")
        if reading.lamp == "out" and source_ohm > 0:
            factor = 1 + source_ohm / reading.meter_ohm
            if factor > 1 + WORTH_SAYING:
                why = f"{show(reading.meter_ohm, OHM)} of meter behind {show(source_ohm, OHM)} of line"
                return Correction(value * factor, why)
    if reading.unit is AMPERE and loop_ohm is not None and loop_ohm > 0 and reading.meter_ohm > 0:
        factor = 1 + reading.meter_ohm / loop_ohm
        if factor > 1 + WORTH_SAYING:
            why = f"the range adds {show(reading.meter_ohm, OHM)} to a loop of {show(loop_ohm, OHM)}"
            return Correction(value * factor, why)
    return Correction(value, "")
