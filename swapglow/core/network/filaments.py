"""Filament lamps and steady loads in a solved circuit: resistors whose value follows their volts.

A lamp's I ∝ V^0.55 makes its resistance rise as V^0.45; cold, it is about a tenth of hot (both
miniature lamp handbooks, from memory). The circuit is solved, each filament's resistance set by its
own volts, and solved again until nothing moves; each step shrinks the error by 0.45 or better, and
Steffensen's rule (1933) by far more.
"""

from collections.abc import Callable, Mapping
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from swapglow.core.engine.netlist import Circuit, Param
from swapglow.core.engine.operating_point import NotConverged, OperatingPoint, operating_point
from swapglow.core.parts.lamp import CURRENT_EXPONENT, Lamp

FloatArray = NDArray[np.float64]
Ohms = Mapping[str, Param]
# From the volts across a part to its ohms.
Law = Callable[[FloatArray], FloatArray]

COLD_SHARE = 0.1
# What a load that takes a steady current needs to do so, V.
STEADY_HEAD_V = 1.0
_START_V = 3.0
# Relative error of a filament's resistance at rest.
_CLOSE = 1e-6
_MOST_ROUNDS = 60
_PLAIN_AFTER = 25
_LEAST_OHM, _MOST_OHM = 1e-4, 1e9


def ohms_at(lamp: Lamp, volts: FloatArray) -> FloatArray:
    """A filament's resistance with ``volts`` across it, never under its cold one.

    Args:
        lamp: the filament.
        volts: across it, any shape.

    Returns:
        Ω, shape of ``volts``.
    """
    hot = lamp.volts / lamp.amps
    share = (np.abs(volts) / lamp.volts) ** (1 - CURRENT_EXPONENT)
    return np.asarray(hot * np.maximum(share, COLD_SHARE))


def filament(lamp: Lamp) -> Law:
    """A lamp's law."""
    return lambda volts: ohms_at(lamp, volts)


def steady_load(amps: float) -> Law:
    """A load that takes a steady current once it has a volt of head, and a resistor's below."""
    return lambda volts: np.maximum(np.abs(volts), STEADY_HEAD_V) / amps


T = TypeVar("T")


def at_rest(step: Callable[[FloatArray], tuple[FloatArray, T]], logs: FloatArray, close: float = _CLOSE) -> T:
    """Step until no filament's resistance moves.

    Args:
        step: from logarithms of ohms, (filaments, samples), to those that their volts then ask for, and
            what was solved.
        logs: where to start.
        close: relative change of ohms that counts as rest.

    Returns:
        What was solved with every filament at rest.

    Raises:
        NotConverged: they do not come to rest.
    """
    for n in range(_MOST_ROUNDS):
        first, _point = step(logs)
        second, point = step(first)
        if np.abs(second - first).max() < close:
            return point
        if n >= _PLAIN_AFTER:
            # Across the knee of a cold filament the two steps say nothing of where they end; plain ones get there.
            logs = second
            continue
        # Steffensen: the two steps say where a geometric approach would end.
        bend = second - 2 * first + logs
        safe = np.abs(bend) > 1e-12
        logs = np.where(safe, logs - (first - logs) ** 2 / np.where(safe, bend, 1.0), second)
        logs = np.clip(logs, np.log(_LEAST_OHM), np.log(_MOST_OHM))
    raise NotConverged("The lamps and loads in this circuit do not come to rest; nothing is shown for it.")


def cold_start(laws: Mapping[str, Law], samples: int, start: Mapping[str, float] | None = None) -> FloatArray:
    """Where the steps begin: each part at a few volts, or near the answer where that is known.

    Args:
        laws: the parts by the name of their resistor.
        samples: how many cases.
        start: ohms near the answer.

    Returns:
        Logarithms of ohms, (parts, samples).
    """
    if start is None:
        return np.asarray(np.log(np.stack([law(np.full(samples, _START_V)) for law in laws.values()])))
    return np.asarray(np.log(np.stack([np.full(samples, start[n]) for n in laws])))


def settled(
    build: Callable[[Ohms], Circuit], laws: Mapping[str, Law], samples: int, start: Mapping[str, float] | None = None
) -> OperatingPoint:
    """Solve a circuit with such parts in it.

    Args:
        build: makes the circuit from each part's ohms, (samples,), by the name of its resistor.
        laws: the parts by that name, each from volts to ohms; none makes it a single solve.
        samples: how many there are; where there are no laws it does not matter.
        start: ohms near the answer, where they are known.

    Returns:
        The solution with every filament at rest.

    Raises:
        NotConverged: a case has no answer, or the filaments do not come to rest.
    """
    if not laws:
        return operating_point(build({})).require()
    names = list(laws)

    def step(logs: FloatArray) -> tuple[FloatArray, OperatingPoint]:
        point = operating_point(build({n: np.exp(row) for n, row in zip(names, logs, strict=True)})).require()
        return np.log(np.stack([laws[n](np.abs(point.across(n))) for n in names])), point

    return at_rest(step, cold_start(laws, samples, start))
