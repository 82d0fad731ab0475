"""How a source's light lies around its axis, and what is done to an LED to spread it."""

from dataclasses import dataclass

import numpy as np

from swapglow.core.design.looks import Optics
from swapglow.core.parts.led import power_of

# What each treatment leaves of the light, and the least angle it spreads it to (from memory).
_SPREADS: dict[Optics, tuple[float, float]] = {
    "as-is": (1.0, 0.0),
    "frosted": (0.9, 70.0),
    "flattened": (0.85, 110.0),
    "capped": (0.65, 140.0),
}


@dataclass(frozen=True)
class Beam:
    """Light around an axis: I(θ) = I₀·cosᵐθ in front of it; an even radiator gives the same everywhere.

    Attributes:
        power: m; None for an even radiator.
        kept: what is left of the light.
    """

    power: float | None
    kept: float = 1.0

    @property
    def lumens_per_candela(self) -> float:
        """Flux beside the intensity on axis: 2π/(m + 1), the integral over the half sphere; 4π all round."""
        return 4 * np.pi if self.power is None else 2 * np.pi / (self.power + 1)


EVEN = Beam(None)


def beam(angle_deg: float, optics: Optics = "as-is") -> Beam:
    """An LED's beam after what was done to it.

    Args:
        angle_deg: its viewing angle as it came.
        optics: what was done.

    Returns:
        The beam.
    """
    kept, least = _SPREADS[optics]
    return Beam(power_of(max(angle_deg, least)), kept)


def on_axis(angle_deg: float, optics: Optics) -> float:
    """Intensity on axis beside that as it came: the flux that is left, in the wider beam.

    Args:
        angle_deg: viewing angle as it came.
        optics: what was done.

    Returns:
        The ratio.
    """
    came, now = beam(angle_deg), beam(angle_deg, optics)
    return now.kept * came.lumens_per_candela / now.lumens_per_candela
