"""Preferred values of resistors, E3 to E192 (IEC 60063:2015)."""

import math
from functools import cache, lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

Rounding = Literal["up", "nearest", "down"]
# The ways to round, as they are offered and as a sum says them.
ROUNDINGS: dict[Rounding, str] = {"up": "Next up, ours", "nearest": "Nearest", "down": "Next down"}
ROUNDING_WORDS: dict[Rounding, str] = {"up": "next up", "nearest": "nearest", "down": "next down"}

_E24 = (10, 11, 12, 13, 15, 16, 18, 20, 22, 24, 27, 30, 33, 36, 39, 43, 47, 51, 56, 62, 68, 75, 82, 91)

SERIES = ("E3", "E6", "E12", "E24", "E48", "E96", "E192")
SERIES_LABELS = {name: name for name in SERIES}

# Tolerance IEC 60063 ties to each series; used as the assumed tolerance of a part.
# E3 and E6 parts sold today are 5 % film like E24: common practice, from memory.
USUAL_TOLERANCE = {"E3": 0.05, "E6": 0.05, "E12": 0.05, "E24": 0.05, "E48": 0.02, "E96": 0.01, "E192": 0.005}

# A value this close below a preferred one is that value, not the next: 470.0000001 is 470.
_SAME = 1e-9


class SeriesError(ValueError):
    """An unknown series, or a value no series can hold."""


@cache
def decade(series: str) -> tuple[int, ...]:
    """The values of one decade as integers of two digits (to E24) or three.

    Raises:
        SeriesError: ``series`` is not E3 to E192.
    """
    if series not in SERIES:
        raise SeriesError(f'"{series}" is no preferred series. Use one of {", ".join(SERIES)}.')
    count = int(series[1:])
    if count <= 24:
        # E3 to E12 are every eighth, fourth, second value of E24 (IEC 60063, 4.1).
        return _E24[:: 24 // count]
    # E48 and up are the rounded geometric steps, but for 920, which the standard keeps.
    steps = [round(100 * 10 ** (i / count)) for i in range(count)]
    return tuple(920 if s == 919 else s for s in steps)


@lru_cache(maxsize=256)
def values(series: str, lowest: float, highest: float) -> NDArray[np.float64]:
    """All preferred values in ohms between two bounds, ascending; shape (n,).

    Args:
        series: "E3" to "E192".
        lowest, highest: the bounds, Ω, both included.

    Returns:
        Ω, ascending (IEC 60063).

    Raises:
        SeriesError: there is no such series, or the bounds are no resistances.
    """
    if not (0 < lowest <= highest < math.inf):
        raise SeriesError("Bounds must be positive, the lower first.")
    ints = decade(series)
    width = len(str(ints[0])) - 1
    first, last = math.floor(math.log10(lowest)) - 1, math.floor(math.log10(highest)) + 1
    out = [_scaled(v, p - width) for p in range(first, last + 1) for v in ints]
    found = np.array([v for v in out if lowest * (1 - _SAME) <= v <= highest * (1 + _SAME)])
    # Remembered, and so not to be written to.
    found.flags.writeable = False
    return found


def _scaled(mantissa: int, power: int) -> float:
    # Dividing by a whole power keeps 4.7 at 4.7 and not 4.700000000000001.
    return float(mantissa * 10**power) if power >= 0 else mantissa / 10**-power


def prefer(ohms: float, series: str = "E24", rounding: Rounding = "up") -> float:
    """The preferred value for an exact one.

    Args:
        ohms: exact resistance, positive and finite.
        series: E3 to E192.
        rounding: "up" (next higher, the cautious rule), "nearest" (least difference in ohms) or "down".

    Returns:
        Ω (IEC 60063).

    Raises:
        SeriesError: value or series out of range.
    """
    if not (math.isfinite(ohms) and 1e-6 <= ohms <= 1e12):
        raise SeriesError("A resistance must lie between 1 µΩ and 1 TΩ.")
    if rounding not in ROUNDINGS:
        raise SeriesError(f'"{rounding}" is no rounding. Use up, nearest or down.')
    near = values(series, ohms / 10, ohms * 10)
    if rounding == "up":
        return float(near[near >= ohms * (1 - _SAME)][0])
    if rounding == "down":
        return float(near[near <= ohms * (1 + _SAME)][-1])
    return float(near[np.argmin(np.abs(near - ohms))])
