"""How an LED's light goes with its current and its warmth.

Carriers in the junction recombine in three ways, at rates that go with their density n, its square and its cube;
only the square gives light (the ABC model; Schubert, Light-Emitting Diodes, 2006; Piprek, phys. stat. sol. (a) 207,
2010). With x for the density in units that make the light x²:

    current = a·x + x² + c·x³,    light = x²

The first term takes most of a small current, so that light falls away below some tens of microamps; the third is
the droop at high ones. Its two figures for each material are a table's, from memory.
"""

import math
from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.constants import REFERENCE_C
from swapglow.core.parts.catalogue import rows
from swapglow.core.parts.led import Led

FloatArray = NDArray[np.float64]

# The chip that the table's figures are of, A; one whose light is given at more is taken for as much larger.
CHIP_A = 20e-3
_STEPS = 60


@dataclass(frozen=True)
class LightLaw:
    """The curve of one material.

    Attributes:
        half_a: current at which half of it gives no light for want of more, A, of a chip of ``CHIP_A``.
        droop: what the third term takes at ``CHIP_A``, beside what gives light.
        t1_k: light falls as exp(−(T − 25 °C)/t1_k), K.
    """

    half_a: float
    droop: float
    t1_k: float

    @property
    def _a(self) -> float:
        # At x = a the first term is as large as the second: the current is 2·a².
        return float(np.sqrt(self.half_a / 2))

    @property
    def _c(self) -> float:
        return self.droop / float(np.sqrt(CHIP_A))

    def light(self, amps: float | FloatArray) -> FloatArray:
        """Light at a current, in units of the current that gave it (A); 0 at and below 0 A."""
        wanted = np.maximum(np.asarray(amps, dtype=float), 0.0)
        if wanted.ndim == 0:
            return np.asarray(self._one(float(wanted)))
        return np.array([self._one(w) for w in wanted.ravel().tolist()]).reshape(wanted.shape)

    def _one(self, wanted: float) -> float:
        a, c = self._a, self._c
        # Each term alone stays below the sum: the smaller of two roots is above the true one, and Newton's steps
        # on a curve that bends upwards come down to it without passing it.
        x = min(wanted / a, math.sqrt(wanted))
        for _ in range(_STEPS):
            over = ((c * x + 1.0) * x + a) * x - wanted
            if over <= 1e-14 * wanted:
                break
            x -= over / ((3 * c * x + 2.0) * x + a)
        return x * x

    def amps(self, light: float | FloatArray) -> FloatArray:
        """The current that gives a light, A: the inverse of ``light``."""
        x = np.sqrt(np.maximum(np.asarray(light, dtype=float), 0.0))
        return np.asarray(((self._c * x + 1.0) * x + self._a) * x)


@cache
def _laws() -> dict[tuple[str, str], LightLaw]:
    return {
        (r["material"], r["colour"]): LightLaw(float(r["half_ua"]) / 1e6, float(r["droop"]), float(r["t1_k"]))
        for r in rows("light_laws", "photometry")
    }


def law_of(led: Led) -> LightLaw:
    """The curve of an LED's material and colour; one of its material where the colour has none of its own."""
    laws = _laws()
    found = laws.get((led.material, led.colour))
    return found or next(law for (material, _), law in laws.items() if material == led.material)


def relative_light(led: Led, amps: float | FloatArray, celsius: float = REFERENCE_C) -> FloatArray:
    """Light beside that at the current it is given at and 25 °C.

    Args:
        led: the LED.
        amps: forward current, A; scalar or batch.
        celsius: the air around it.

    Returns:
        The ratio, of the shape of ``amps``.
    """
    law, size = law_of(led), _chips(led)
    warm = float(np.exp(-(celsius - REFERENCE_C) / law.t1_k))
    return np.asarray(warm * law.light(np.asarray(amps) / size) / law.light(led.candela_a / size))


def light_ratio(led: Led, amps: float | FloatArray, beside: float) -> FloatArray:
    """Light at a current beside that at another, by the curve of the LED's material.

    Args:
        led: the LED.
        amps: forward current, A; scalar or batch.
        beside: the other, A.

    Returns:
        The ratio, of the shape of ``amps``; 0 where the other gives none.
    """
    law, size = law_of(led), _chips(led)
    other = float(law.light(beside / size))
    return np.asarray(law.light(np.asarray(amps) / size) / other if other > 0 else np.zeros_like(amps, dtype=float))


def candela_at(led: Led, amps: float) -> float:
    """Intensity on axis at a current, in air of 25 °C; none in reverse.

    Args:
        led: the LED.
        amps: forward current, A.

    Returns:
        cd.
    """
    return float(relative_light(led, max(amps, 0.0))) * led.candela


def amps_at(led: Led, relative: float, celsius: float = REFERENCE_C) -> float:
    """The current at which an LED gives a share of the light it is given with: the inverse of ``relative_light``.

    Args:
        led: the LED.
        relative: light beside that at the current it is given at and 25 °C.
        celsius: the air around it.

    Returns:
        Amps.
    """
    law, size = law_of(led), _chips(led)
    warm = float(np.exp(-(celsius - REFERENCE_C) / law.t1_k))
    return float(law.amps(relative / warm * law.light(led.candela_a / size))) * size


def _chips(led: Led) -> float:
    """How many of the table's chips it is as large as."""
    return max(1.0, led.candela_a / CHIP_A)
