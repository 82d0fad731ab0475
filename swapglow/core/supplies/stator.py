"""A stator without a battery: volts and frequency follow the speed."""

from collections.abc import Iterable

from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.kinds.step import Meaning, NextStep
from swapglow.core.quantities import HERTZ, InputError, Source, show
from swapglow.core.supplies.grounding import grounding_owed
from swapglow.core.supplies.kind import GROUNDED, Circumstances, Owed, SupplyKind
from swapglow.core.supplies.waveform import Waveform


class Stator(SupplyKind):
    """A sine whose crest at full speed decides every rating."""

    id = "stator"
    order = 5
    label = "Stator AC, no battery"
    guess = "12V"
    expect = (
        "Volts and frequency follow the speed. The peak at full speed decides every rating, the "
        "idle decides the flicker."
    )
    waveform = Waveform.SINE
    levels = ("idle", "running", "full speed")
    details = (
        Detail("hertz_low", "Frequency at idle", HERTZ, "60Hz. Empty goes with the volts"),
        Detail("hertz", "Frequency running", HERTZ, "150Hz. Empty takes 100 Hz"),
        Detail("hertz_high", "Frequency at full speed", HERTZ, "400Hz. Empty goes with the volts"),
        GROUNDED,
    )
    levels_apart = True
    read_at_offered = False
    usual_hertz = 100.0
    caution = "The engine is running: hands and leads clear of belts and hot metal."

    def frequency(
        self, details: Details, volts: tuple[float, float, float]
    ) -> tuple[tuple[float, float, float], Source]:
        """As typed, or rising with the volts, as both do with the speed."""
        (centre, _, _), source = super().frequency(details, volts)
        low, high = details.value("hertz_low"), details.value("hertz_high")
        found = low or centre * volts[0] / volts[1], centre, high or centre * volts[2] / volts[1]
        if not found[0] <= found[1] <= found[2]:
            raise InputError("hertz", "Frequencies must rise from idle to full speed, as the volts do.")
        return found, source

    def owed(self, about: Circumstances) -> Iterable[Owed]:
        """Its frame, and its frequency where a capacitor hangs on it."""
        ground = grounding_owed(about)
        if ground is not None:
            yield ground
        supply = about.rail.supply
        if supply.hertz_source is Source.ASSUMED and about.reservoir:
            yield Owed(
                NextStep(
                    "hertz",
                    "Read the frequency as it runs",
                    "Hz, on AC volts",
                    "across the lamp's contacts",
                    self.levels[1],
                    f"about {show(supply.hertz[1], HERTZ)}",
                    "hertz",
                    "The capacitor is sized for the slowest.",
                    self.caution,
                    (
                        Meaning("lower than taken", "a larger capacitor is needed"),
                        Meaning("not steady", "the meter cannot follow it: take the engine's speed and pole pairs"),
                    ),
                    "50Hz",
                ),
                share_of_usual=0.2,
            )


KIND = Stator()
