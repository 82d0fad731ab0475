"""A driver as a value: its kind, and the facts that go beyond what it keeps."""

from dataclasses import dataclass, field
from typing import Literal

from swapglow.core.driver.kinds import DRIVERS, DriverAbout, DriverKind
from swapglow.core.parts.lamp import Lamp
from swapglow.core.quantities import Figure

# The states a lamp's circuit may be in. "on" is the one the LED is sized in.
State = Literal["on", "off", "closed", "pulse"]
Place = Literal["unknown", "metal", "closed", "plastic"]


@dataclass(frozen=True)
class Load:
    """Something else on a shared feed: a resistance, a filament, or a steady current.

    One of ``ohms``, ``lamp`` and ``amps`` is set, or none for a part that only stands there (a
    capacitor). ``most_v`` is the most volts it may see.
    """

    name: str
    ohms: float | None = None
    lamp: Lamp | None = None
    amps: float | None = None
    most_v: float | None = None


@dataclass(frozen=True)
class Driver:
    """What drives the lamp. SI units.

    Attributes:
        kind: which of :data:`DRIVERS`.
        keep_warm_ohm: the resistor across the driver; None where there is none.
        leak_a: what an open driver lets through at the usual rail.
        hangs_on: what else hangs on the keep-warm path, in words.
        others: the lamps in the loop, in series with this one; ``changed`` where they are swapped too.
        dropper_ohm, loads: the shared dropping resistor and what else stands behind it.
        counts: whether the circuit watches the lamp's current, or checks it with pulses.
        trip: current under which the circuit takes the lamp for failed; None takes the old lamp's.
        rest_a: what the other lamps on the circuit draw.
        rate: flashes a minute as it should be; duty: the lit share.
        place, there: where a load resistor would sit, and how many sit in that space.
        still_fast: whether it was tried and still flashes fast; "" where nobody tried.
        pulse_s, period_s, pulse_ohm: a check pulse's width and period, and the resistance behind it.
    """

    kind: DriverKind = "direct"
    keep_warm_ohm: float | None = None
    leak_a: float = 0.0
    hangs_on: str = ""
    others: tuple[Lamp, ...] = ()
    changed: bool = False
    dropper_ohm: float = 0.0
    loads: tuple[Load, ...] = ()
    counts: bool = True
    trip: Figure | None = None
    rest_a: float = 0.0
    rate: float | None = None
    duty: float = 0.5
    place: Place = "unknown"
    there: int = 1
    still_fast: Literal["", "yes", "no"] = ""
    pulse_s: float = 0.0
    period_s: float = 0.0
    pulse_ohm: float = 0.0
    keeps: tuple[float, float, float] = field(default=(0.0, 0.0, 0.0))

    @property
    def about(self) -> DriverAbout:
        """The kind's description."""
        return DRIVERS[self.kind]

    @property
    def left(self) -> tuple[Lamp, ...]:
        """The lamps that stay in the loop."""
        return () if self.changed else self.others

    @property
    def plain(self) -> bool:
        """Whether nothing but its drop stands in the lit lamp's circuit."""
        return not (self.left or self.dropper_ohm)

    @property
    def leads_off(self) -> bool:
        """Whether anything flows past it when it is off."""
        return self.keep_warm_ohm is not None or self.leak_a > 0
