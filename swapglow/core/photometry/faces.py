"""How light lies on a bare source that is looked at directly: drawn, not computed (shapes from memory)."""

import numpy as np
from numpy.typing import NDArray

from swapglow.core.design.looks import Optics

FloatArray = NDArray[np.float64]

SIDE = 28
# A narrow clear LED shows a spot, a frosted one fills its dome.
_SPOT = {"as-is": 0.0125, "frosted": 0.02, "flattened": 0.03, "capped": 0.04}
_DOME = 0.22


def _radius() -> tuple[FloatArray, FloatArray, FloatArray]:
    at = (np.arange(SIDE) + 0.5) / SIDE * 2 - 1
    x, y = np.meshgrid(at, at)
    return x, y, np.hypot(x, y)


def tip(angle_deg: float, optics: Optics) -> FloatArray:
    """Luminance over an LED's dome seen from before it, any scale, (SIDE, SIDE); 0 outside.

    Args:
        angle_deg: its viewing angle.
        optics: what was done to it.

    Returns:
        The grid.
    """
    _, _, r = _radius()
    spot = max(angle_deg, 20.0) * _SPOT[optics]
    return np.where(r <= 1, _DOME + np.exp(-0.5 * (r / spot) ** 2), 0.0)


def bulb() -> FloatArray:
    """Luminance over a small bulb: a coil bowed between its posts in a clear glass, any scale, (SIDE, SIDE)."""
    x, y, r = _radius()
    coil = np.exp(-0.5 * ((y + 0.18 - 0.5 * x**2) / 0.11) ** 2) * (np.abs(x) < 0.52)
    return np.where(r <= 1, 0.1 + 0.35 * np.exp(-0.5 * (r / 0.5) ** 2) + 1.6 * coil, 0.0)
