"""How ready-made lamps in series share their volts: by their own curves, which are never quite equal."""

from collections.abc import Callable
from dataclasses import dataclass

import scipy

from swapglow.core.design.position import Position

# Two lamps of one batch draw so much more and less than their mean at the same volts (common practice).
MISMATCH = 0.1
_LEAST_A, _MOST_A = 1e-9, 50.0


@dataclass(frozen=True)
class Share:
    """The unluckiest of several lamps in series.

    Attributes:
        volts: over the one that draws least, V.
        amps: what they all carry, A.
    """

    volts: float
    amps: float


def curve_of(position: Position) -> Callable[[float], float]:
    """Volts over one ready-made or swept lamp at a current, by its likeliest inside."""
    p, m = position, position.module
    junction = p.led.junction(p.led.vf_typ, p.celsius)
    ohm = m.insides[p.inside].ohm if m is not None else 0.0
    bridge = m.bridge_v if m is not None else 0.0
    return lambda amps: float(junction.volts(amps)) + amps * ohm + bridge


def unluckiest(position: Position, total_v: float) -> Share | None:
    """The lamp that draws least, in series with others that draw most.

    V(I/0.9) + (n − 1)·V(I/1.1) = Vtotal (Kirchhoff), the first further down by its throttling. Lamps of
    constant current or power have no curve to share by and are not asked about here.

    Args:
        position: the swap, lamps with a resistor inside or swept ones, in series.
        total_v: over all of them, V.

    Returns:
        Its volts and the current; None where nothing is in series.
    """
    p, m = position, position.module
    count = p.in_series
    if count < 2:
        return None
    volts = curve_of(p)
    low, high = (1 - MISMATCH) * (m.throttle if m is not None else 1.0), 1 + MISMATCH

    def left(amps: float) -> float:
        return volts(amps / low) + (count - 1) * volts(amps / high) - total_v

    if left(_LEAST_A) >= 0 or left(_MOST_A) <= 0:
        return Share(total_v / count, 0.0)
    amps = float(scipy.optimize.brentq(left, _LEAST_A, _MOST_A, xtol=1e-12))
    return Share(volts(amps / low), amps)
