"""How a lamp is looked at: straight, by what it lights, or at the window or lens before it."""

import math
from dataclasses import dataclass
from typing import Literal

from swapglow.core.parts.glass import Glass
from swapglow.core.quantities import InputError

How = Literal["seen", "window", "lights"]
Optics = Literal["as-is", "frosted", "flattened", "capped"]
Room = Literal["dark", "workshop", "daylight"]

HOWS = {"seen": "Seen directly", "window": "Behind a window or lens", "lights": "Lights a dial, scale or room"}
OPTICS = {"as-is": "As it comes", "frosted": "Frosted or sanded", "flattened": "Sanded flat", "capped": "Diffuser cap"}
ROOMS = {"dark": "Dark room", "workshop": "Workshop", "daylight": "Daylight"}
SHAPES = {"round": "Round", "rectangle": "Rectangle"}

# Where nobody measured: a small jewel, a dial.
USUAL_M: dict[How, tuple[float, float, float]] = {
    "seen": (0.005, 0.005, 0.0),
    "window": (0.02, 0.01, 0.015),
    "lights": (0.1, 0.06, 0.04),
}
LEAST_M, MOST_M = 2e-4, 5.0


@dataclass(frozen=True)
class Looks:
    """What stands between a lamp and the eye.

    Attributes:
        how: what is looked at.
        optics: what was done to the LED.
        glass: what the light passes; None is air.
        width_m, height_m: of the window, or of what is lit; None takes a usual one.
        shape: of the window.
        depth_m: from lamp to window, or to what is lit; None takes a usual one.
        spacing_m: from one LED to the next, side by side; None spreads them evenly over the width.
        white_box: whether the walls behind the window are white.
        room: the light it is seen in.
        share: of its group's light that is wanted of it on purpose.
        trim: its true light beside the one its figures give, as a match by eye taught it.
    """

    how: How = "seen"
    optics: Optics = "as-is"
    glass: Glass | None = None
    width_m: float | None = None
    height_m: float | None = None
    shape: Literal["round", "rectangle"] = "rectangle"
    depth_m: float | None = None
    spacing_m: float | None = None
    white_box: bool = False
    room: Room = "workshop"
    share: float = 1.0
    trim: float = 1.0

    def __post_init__(self) -> None:
        for name in ("width_m", "height_m", "depth_m", "spacing_m"):
            value = getattr(self, name)
            if value is not None and not LEAST_M <= value <= MOST_M:
                raise InputError(name, f"A length here lies between {LEAST_M * 1e3:g} mm and {MOST_M:g} m.")

    @property
    def size_m(self) -> tuple[float, float]:
        """Width and height of what is looked at, or lit."""
        width, height, _ = USUAL_M[self.how]
        return self.width_m or width, self.height_m or height

    @property
    def away_m(self) -> float:
        """From lamp to window, or to what is lit."""
        return self.depth_m or USUAL_M[self.how][2]

    @property
    def filled(self) -> float:
        """How much of width by height the window is: π/4 of it where it is round."""
        return math.pi / 4 if self.shape == "round" else 1.0

    @property
    def assumed(self) -> bool:
        """Whether any of the lengths that count is a usual one that nobody measured."""
        return self.how != "seen" and None in (self.width_m, self.height_m, self.depth_m)
