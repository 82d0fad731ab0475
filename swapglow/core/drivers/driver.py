"""A driver as a value: its kind, and the facts that go beyond what it keeps."""

from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

from swapglow.core.drivers.load import Load
from swapglow.core.parts.lamp import Lamp
from swapglow.core.quantities import Figure

if TYPE_CHECKING:
    from swapglow.core.drivers.kind import DriverKind

# The states a lamp's circuit may be in. "on" is the one the LED is sized in.
State = Literal["on", "off", "closed", "pulse"]
Place = Literal["unknown", "metal", "closed", "plastic"]


@dataclass(frozen=True)
class Driver:
    """What drives the lamp. SI units.

    Attributes:
        kind: what it is, and all that follows from that.
        drop: what it keeps while on, V, with where that comes from.
        on_drop: the same, lowest, usual, highest, V.
        keep_warm_ohm: the resistor across the driver; None where there is none.
        leak_a: what an open driver lets through at the usual rail.
        hangs_on: what else hangs on the keep-warm path, in words.
        others: the lamps in the loop, in series with this one.
        others_changed: whether they are swapped too.
        dropper_ohm: the shared dropping resistor; 0 where there is none.
        loads: what else stands behind it.
        monitors_current: whether the circuit watches the lamp's current, or checks it with pulses.
        trip: current under which the circuit takes the lamp for failed; None takes the old lamp's.
        rest_a: what the other lamps on the circuit draw.
        rate: flashes a minute as it should be.
        duty: the lit share.
        place: where a load resistor would sit.
        there: how many sit in that space.
        right_ohm, fast_ohm: loads tried beside the LED: the largest with which it kept its rate, and the
            least with which it was still fast; None where none was tried.
        still_fast: whether it was tried and still flashes fast; "" where nobody tried. ``tried_with``: what was
            fitted then, as a reading notes it; "" where nobody noted it.
        seen_enough, seen_short: what the circuit was seen to be content with, and what was too little for it, with
            another lamp on the same rail; None where nobody saw it.
        pulse_s, period_s: a check pulse's width and period.
        pulse_ohm: the resistance behind it.
    """

    kind: "DriverKind"
    drop: Figure
    on_drop: tuple[float, float, float] = (0.0, 0.0, 0.0)
    keep_warm_ohm: float | None = None
    leak_a: float = 0.0
    hangs_on: str = ""
    others: tuple[Lamp, ...] = ()
    others_changed: bool = False
    dropper_ohm: float = 0.0
    loads: tuple[Load, ...] = ()
    monitors_current: bool = True
    trip: Figure | None = None
    rest_a: float = 0.0
    rate: float | None = None
    duty: float = 1.0
    place: Place = "unknown"
    there: int = 1
    right_ohm: float | None = None
    fast_ohm: float | None = None
    still_fast: Literal["", "yes", "no"] = ""
    tried_with: str = ""
    seen_enough: Figure | None = None
    seen_short: Figure | None = None
    pulse_s: float = 0.0
    period_s: float = 0.0
    pulse_ohm: float = 0.0

    @property
    def remaining_lamps(self) -> tuple[Lamp, ...]:
        """The lamps that stay in the loop."""
        return () if self.others_changed else self.others

    @property
    def plain(self) -> bool:
        """Whether nothing but its drop stands in the lit lamp's circuit."""
        return not (self.remaining_lamps or self.dropper_ohm)

    @property
    def leads_off(self) -> bool:
        """Whether anything flows past it when it is off."""
        return self.keep_warm_ohm is not None or self.leak_a > 0

    @property
    def watches(self) -> bool:
        """Whether it counts the lamp's current and takes too little of it for a failed lamp."""
        return self.kind.watches and self.monitors_current

    @property
    def pulses(self) -> bool:
        """Whether it pulses the lamp to check it, and how is known."""
        return bool(self.kind.pulses and self.monitors_current and self.pulse_s and self.period_s)
