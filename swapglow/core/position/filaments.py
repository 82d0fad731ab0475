"""Filament lamps in a solved circuit: resistors whose value follows what they carry.

A lamp's I ∝ V^0.55 makes its resistance rise as V^0.45; cold, it is about a tenth of hot (both
miniature lamp handbooks, from memory). The circuit is solved, each filament's resistance set by its
own volts, and solved again until nothing moves: each step shrinks the error by 0.45 or better.
"""

from collections.abc import Callable, Mapping

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuit.netlist import Circuit
from swapglow.core.circuit.operating_point import NotConverged, OperatingPoint, operating_point
from swapglow.core.parts.lamp import CURRENT_EXPONENT, Lamp

FloatArray = NDArray[np.float64]
Ohms = Mapping[str, FloatArray]

COLD_SHARE = 0.1
_CLOSE = 1e-7
_MOST_ROUNDS = 60


def ohms_at(lamp: Lamp, volts: FloatArray) -> FloatArray:
    """A filament's resistance with ``volts`` across it, never under its cold one."""
    hot = lamp.volts / lamp.amps
    share = (np.abs(volts) / lamp.volts) ** (1 - CURRENT_EXPONENT)
    return np.asarray(hot * np.maximum(share, COLD_SHARE))


def settled(build: Callable[[Ohms], Circuit], lamps: Mapping[str, Lamp], samples: int) -> OperatingPoint:
    """Solve a circuit with filaments in it.

    Args:
        build: makes the circuit from each filament's ohms, (samples,), by the name of its resistor.
        lamps: the filaments by that name; none makes it a single solve.

    Raises:
        NotConverged: a case has no answer, or the filaments do not come to rest.
    """
    if not lamps:
        return operating_point(build({})).require()
    ohms = {name: ohms_at(lamp, np.full(samples, lamp.volts / 2)) for name, lamp in lamps.items()}
    for _ in range(_MOST_ROUNDS):
        point = operating_point(build(ohms)).require()
        after = {name: ohms_at(lamp, point.across(name)) for name, lamp in lamps.items()}
        off = max(float(np.max(np.abs(after[n] / ohms[n] - 1))) for n in lamps)
        ohms = after
        if off < _CLOSE:
            return point
    raise NotConverged("The filaments in this circuit do not come to rest; nothing is shown for it.")
