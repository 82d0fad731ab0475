"""LEDs of another kind in the same place: a string of its own beside the main one."""

from dataclasses import dataclass

from swapglow.core.parts.led import MOST_IN_SERIES, Led
from swapglow.core.quantities import InputError
from swapglow.core.values.nothing import LINK_OHM

MOST_BESIDE = 6
MOST_BRANCHES = 50


@dataclass(frozen=True)
class Branch:
    """A string between the same two wires as the main one, with a resistor of its own.

    Attributes:
        name: what it is called.
        led: its LED.
        target: forward current wanted in it, A.
        in_series: LEDs in it.
        count: equal strings of it side by side, a resistor each.
        resistor_ohm: its resistor, or None to follow the computation.
        fitted_ohm: what the computation came to, where it was followed.
        diodes: silicon diodes in series in it.
        rating_w: its resistor's rating, or None for the one to fit.
        second: the other die of a two-colour LED, where it is another kind.
    """

    name: str
    led: Led
    target: float
    in_series: int = 1
    count: int = 1
    resistor_ohm: float | None = None
    rating_w: float | None = None
    fitted_ohm: float | None = None
    diodes: int = 0
    second: Led | None = None

    @property
    def ohm(self) -> float | None:
        """Its resistor as it stands, Ω; None before it was worked out."""
        return self.fitted_ohm if self.resistor_ohm is None else self.resistor_ohm or LINK_OHM

    def __post_init__(self) -> None:
        if not (isinstance(self.in_series, int) and 1 <= self.in_series <= MOST_IN_SERIES):
            raise InputError("beside", f"LEDs in series must be a whole number, 1 to {MOST_IN_SERIES}.")
        if not (isinstance(self.count, int) and 1 <= self.count <= MOST_BRANCHES):
            raise InputError("beside", f"Strings side by side must be a whole number, 1 to {MOST_BRANCHES}.")
        if not self.target > 0:
            raise InputError("beside", "The drive wanted in a string must be more than 0 A.")
        if self.resistor_ohm and not 1e-3 <= self.resistor_ohm <= 1e9:
            raise InputError("beside", "A string's resistor must lie between 1 mΩ and 1 GΩ.")
