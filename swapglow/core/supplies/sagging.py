"""What supplies that sag have in common: the two readings that turn a sag into a resistance."""

from collections.abc import Iterable
from dataclasses import replace

from swapglow.core.kinds.step import Meaning, NextStep
from swapglow.core.parts.meter import amp_range, volt_range
from swapglow.core.quantities import AMPERE, VOLT, show
from swapglow.core.supplies.kind import LOAD, OPEN, Circumstances, Owed, SupplyKind
from swapglow.core.supplies.waveform import Waveform

# Unread sag (common practice: 10 to 30 % from open to loaded).
USUAL_SAG = 0.2
MOST_SAG = 0.3


class Sagging(SupplyKind):
    """A supply whose volts depend on its load."""

    levels = ("mains low", "usual", "mains high")
    low_share = 0.9
    high_share = 1.1
    lamp_points = True

    def owed(self, about: Circumstances) -> Iterable[Owed]:
        """The open reading, then the load that made the sag."""
        yield from super().owed(about)
        supply = about.rail.supply
        if supply.open_to_loaded_ratio == 1.0:
            yield Owed(self._open(about), replace(supply, open_to_loaded_ratio=1 / (1 - USUAL_SAG)))
        elif supply.source_ohm.value == 0:
            yield Owed(self._load(about), replace(supply, open_to_loaded_ratio=1.0))

    def _open(self, about: Circumstances) -> NextStep:
        at = about.rail.usual.value
        ac = self.waveform is Waveform.SINE
        return NextStep(
            "source_open",
            "Read the contacts once with the lamp out",
            volt_range(at * 1.5, ac=ac),
            "across the lamp's own contacts",
            "lamp out, switch on",
            f"{show(at, VOLT)} to {show(at / (1 - MOST_SAG), VOLT)}",
            OPEN.id,
            "With the loaded reading it gives the source resistance: the LED, a lighter load, will see "
            "more than the lamp did.",
            self.caution,
            (
                Meaning(f"as loaded, {show(at, VOLT)}", "regulated, or the lamp was out both times"),
                Meaning("10 to 30 % more", "an ordinary winding or unregulated supply"),
            ),
            f"{at * 1.15:.3g}V",
        )

    def _load(self, about: Circumstances) -> NextStep:
        lamp = about.lamp
        amps = lamp.amps if lamp else 0.1
        return NextStep(
            "source_load",
            "Read the old lamp's current",
            amp_range(amps * 1.5),
            "in series with the old lamp",
            "lamp in and lit",
            f"about {show(amps, AMPERE)}" if lamp else "as marked on the lamp",
            LOAD.id,
            "It turns the sag into a resistance.",
            "Supply off while the clips go on.",
            (
                Meaning("as marked", "the lamp alone made the sag"),
                Meaning("twice as marked", "two lamps hang on these wires"),
                Meaning("nothing", "the lamp is open, or the meter's fuse has gone"),
            ),
            "0.11A",
        )
