"""A supply as a value: its kind, and the facts that go beyond three voltages."""

from dataclasses import dataclass, field
from typing import Literal

from swapglow.core.quantities import Figure, Source
from swapglow.core.supply.battery import Battery
from swapglow.core.supply.kinds import KINDS, Flow, Kind, SupplyKind

# Kept below a trip current that is only known by name, so that neither warmth nor another unit
# closes the line.
TRIP_SHARE = 0.5

Grounded = Literal["yes", "no", "unknown"]


def _none() -> Figure:
    return Figure(0.0, Source.ASSUMED)


@dataclass(frozen=True)
class Supply:
    """What feeds the rail.

    Attributes:
        kind: which of :data:`KINDS`.
        source_ohm: resistance behind the rail's open voltage; 0 where none is reckoned with.
        lift: open voltage over the voltage read, 1 where the reading is the open one.
        hertz: frequency at the three levels; zeros for DC.
        hertz_source: where the frequencies come from.
        system: a vehicle's name, "12".
        crank: volts while cranking.
        battery: the cells.
        trip: current a sense line is taken for closed at; where trials bracket it, the most that was
            still ignored.
        trip_fails: where trials bracket it, the least that was taken for closed.
        pin: what a logic pin may give.
        grounded: whether one leg stands on the frame.
        fuse_a: rating of the fuse before the rail.
    """

    kind: SupplyKind = "regulated"
    source_ohm: Figure = field(default_factory=_none)
    lift: float = 1.0
    hertz: tuple[float, float, float] = (0.0, 0.0, 0.0)
    hertz_source: Source = Source.ASSUMED
    system: str = ""
    crank: Figure | None = None
    battery: Battery | None = None
    trip: Figure | None = None
    trip_fails: Figure | None = None
    pin: Figure | None = None
    grounded: Grounded = "unknown"
    fuse_a: float | None = None

    @property
    def about(self) -> Kind:
        """The kind's description."""
        return KINDS[self.kind]

    @property
    def flow(self) -> Flow:
        """How the current runs."""
        return self.about.flow

    @property
    def trip_share(self) -> float:
        """Share of the trip current to keep under: all of one that a trial has proved, else half."""
        return 1.0 if self.trip_fails is not None else TRIP_SHARE

    @property
    def alternates(self) -> bool:
        """Whether the lamp's two leads ever change places."""
        return self.flow != "dc"


def source_resistance(open_v: float, loaded_v: float, amps: float) -> float:
    """R = (Vopen − Vloaded)/I (Ohm), in ohms.

    Raises:
        ValueError: the open voltage is under the loaded one, or no current flows.
    """
    if amps <= 0:
        raise ValueError("A loaded reading needs a current of more than 0 A.")
    if open_v < loaded_v:
        raise ValueError("The open reading is under the loaded one: they are exchanged, or one is wrong.")
    return (open_v - loaded_v) / amps
