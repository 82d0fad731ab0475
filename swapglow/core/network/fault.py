"""What may be wrong in a lamp's circuit, and the meter that reads it: resistances at named places."""

from collections.abc import Callable
from dataclasses import dataclass, fields
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from swapglow.core.engine.netlist import Param

# What is open still leaks: a joint that has let go, an LED whose bond has.
OPEN_OHM = 1e10
# A part whose junction has melted through.
SHORT_OHM = 0.1

FloatArray = NDArray[np.float64]
LedState = Literal["", "turned", "open", "short"]


@dataclass(frozen=True)
class Fault:
    """Resistances that do not belong there, Ω, each (samples,) or a plain number; None where there is none.

    Attributes:
        string: in series with a string's resistor.
        plus, minus: in the lamp's own wires.
        across: between the lamp's wires.
        past: across the driver while it is off.
        led: how the LEDs stand; turned round, open, or shorted, all of a string.
        over_leds, over_lamp: a meter on a volts range across these.
        over_supply, over_plus, over_minus: one from these to the supply's other side.
    """

    string: Param | None = None
    plus: Param | None = None
    minus: Param | None = None
    across: Param | None = None
    past: Param | None = None
    led: LedState = ""
    over_leds: Param | None = None
    over_lamp: Param | None = None
    over_supply: Param | None = None
    over_plus: Param | None = None
    over_minus: Param | None = None

    @property
    def empty(self) -> bool:
        """Whether nothing is wrong and no meter is there."""
        return not self.led and all(getattr(self, f.name) is None for f in fields(self) if f.name != "led")

    def each(self, change: Callable[[FloatArray], Param]) -> "Fault":
        """The fault with every resistance that differs among the cases changed.

        Args:
            change: from values, (samples,), to what they become.

        Returns:
            The fault; plain numbers stay.
        """
        values = {f.name: getattr(self, f.name) for f in fields(self) if f.name != "led"}
        changed = {n: change(v) if isinstance(v, np.ndarray) else v for n, v in values.items()}
        return Fault(led=self.led, **changed)

    @property
    def of_string(self) -> "Fault":
        """What of it lies in the string itself, behind a regulator."""
        return Fault(string=self.string, led=self.led, over_leds=self.over_leds)

    @property
    def samples(self) -> int:
        """How many cases it tells apart."""
        values = (getattr(self, f.name) for f in fields(self) if f.name != "led")
        return max((np.asarray(v).size for v in values if v is not None), default=1)
