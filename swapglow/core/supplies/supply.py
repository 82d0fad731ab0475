"""A supply as a value: its kind, and the facts that go beyond three voltages."""

from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Literal

from swapglow.core.parts.cells import Battery
from swapglow.core.quantities import Figure, Source
from swapglow.core.supplies.waveform import Waveform

if TYPE_CHECKING:
    from swapglow.core.supplies.kind import SupplyKind

# Kept below a trip current that is only known by name, so that neither warmth nor another unit
# closes the line.
TRIP_SHARE = 0.5

# What stands behind a line that nobody has shorted (common practice: kilohms).
LINE_OHM = 3300.0

# A sane budget for one output (common practice: 2 to 8 mA).
BUDGET_A = 8e-3

Grounded = Literal["yes", "no", "unknown"]
# Which pole of a steady supply stands on the frame.
Pole = Literal["unknown", "minus", "plus", "neither"]


def no_figure() -> Figure:
    """Nothing, and nobody read it."""
    return Figure(0.0, Source.ASSUMED)


@dataclass(frozen=True)
class Trials:
    """Trials that bound a line's trip current, from one side or from both.

    Attributes:
        ignored_ohm: the least resistance that the equipment still ignored; None where none was tried.
        closed_ohm: the largest that it took for a closed contact; None where none was.
        alone: whether the resistors were tried alone, and not with the LED in series.
        source: where the trials come from.
    """

    ignored_ohm: float | None
    closed_ohm: float | None
    alone: bool
    source: Source


@dataclass(frozen=True)
class Supply:
    """What feeds the rail.

    Attributes:
        kind: what it is, and all that follows from that.
        source_ohm: resistance behind the rail's open voltage, Ω; 0 where none is reckoned with.
        open_to_loaded_ratio: open voltage over the voltage read, 1 where the reading is the open one.
        hertz: frequency at the three levels, Hz; zeros where it has none.
        hertz_source: where the frequencies come from.
        grounded: whether one leg stands on the frame.
        pole: which pole does, of a supply that does not alternate.
        battery: the cells.
        system: what a vehicle's system is called, "12".
        dip: volts it falls to for a moment, as while cranking.
        charging_v, surge_v, jump_v: what it reaches while charging, in a suppressed surge, and at a jump
            start, V.
        trip: current that equipment reading the line takes for a closed contact; where a trial was
            ignored, the most that was.
        trip_ignored: whether the equipment was seen to ignore ``trip``.
        ignored_ohm: the resistor with which it did, this LED in series, Ω.
        trip_fails: the least that a trial showed to be taken for closed.
        trials: the trials as typed, before they are solved.
        output_limit: what an output may give.
    """

    kind: "SupplyKind"
    source_ohm: Figure = field(default_factory=no_figure)
    open_to_loaded_ratio: float = 1.0
    hertz: tuple[float, float, float] = (0.0, 0.0, 0.0)
    hertz_source: Source = Source.ASSUMED
    grounded: Grounded = "unknown"
    pole: Pole = "unknown"
    battery: Battery | None = None
    system: str = ""
    dip: Figure | None = None
    charging_v: float | None = None
    surge_v: float | None = None
    jump_v: float | None = None
    trip: Figure | None = None
    trip_ignored: bool = False
    ignored_ohm: float | None = None
    trip_fails: Figure | None = None
    trials: Trials | None = None
    output_limit: Figure | None = None

    @property
    def waveform(self) -> Waveform:
        """How the current runs."""
        return self.kind.waveform

    @property
    def alternates(self) -> bool:
        """Whether the lamp's two leads ever change places."""
        return self.kind.waveform.alternates

    @property
    def trip_share(self) -> float:
        """Share of the trip current to keep under: all of one that was seen to be ignored, else half."""
        return 1.0 if self.trip_ignored else TRIP_SHARE

    @property
    def closes_at(self) -> float | None:
        """The current that is known to be taken for closed, A; None where nobody read or tried it."""
        if self.trip_fails is not None:
            return self.trip_fails.value
        read = self.trip is not None and not self.trip_ignored and not self.trip.source.is_assumed
        return self.trip.value if read and self.trip is not None else None


def source_resistance(open_v: float, loaded_v: float, amps: float) -> float:
    """R = (Vopen − Vloaded)/I (Ohm).

    Args:
        open_v: volts with nothing drawn.
        loaded_v: volts while the load draws.
        amps: what it draws.

    Returns:
        Ohms.

    Raises:
        ValueError: the open voltage is under the loaded one, or no current flows.
    """
    if amps <= 0:
        raise ValueError("A loaded reading needs a current of more than 0 A.")
    if open_v < loaded_v:
        raise ValueError("The open reading is under the loaded one: they are exchanged, or one is wrong.")
    return (open_v - loaded_v) / amps
