"""A lamp photographed while the camera sweeps past it: its pulses stand beside each other as dashes.

Time becomes length. So many dashes within the time that the shutter was open are its frequency; how much of each
dash and gap is lit is its duty.
"""

import math
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import scipy

from swapglow.core.photographs.linear import FloatArray, Picture, luminance
from swapglow.core.quantities import InputError

# Fewer say nothing of a frequency.
LEAST_DASHES = 4
# A streak is longer than it is thick by this, or nothing was swept.
_LONG = 4.0
# A gap is one where the light falls by so much of its height.
_DEEP = 0.25
_LIT = 0.12
_OVER_NOISE = 6.0
_MOST_ACROSS = 1600


@dataclass(frozen=True)
class Streak:
    """What a streak says.

    Attributes:
        dashes: how many were counted; 1 is a line without a gap.
        hertz: their frequency; None where there are too few to tell.
        low, high: its ends, by one dash more or less than was counted.
        duty: share of the time that it is lit; None where there are too few.
        up_to: the fastest pulses that the streak could have shown apart, Hz.
        profile: light along the streak, 1 at its brightest, for drawing.
    """

    dashes: int
    hertz: float | None
    low: float
    high: float
    duty: float | None
    up_to: float
    profile: tuple[float, ...]


def streak(picture: Picture, shutter_s: float) -> Streak:
    """Count the dashes of a streak.

    Args:
        picture: its bytes, (rows, columns, 3).
        shutter_s: how long the shutter was open, s.

    Returns:
        What they say.

    Raises:
        InputError: ``photo``: nothing was swept in it; ``shutter``: no such time.
    """
    if not 1e-5 <= shutter_s <= 60:
        raise InputError("shutter", "A shutter is open between 1/100000 s and 60 s, like 1/8 or 0.25s.")
    profile, thick = _along(picture)
    at, gaps = _dashes(profile, thick)
    count = len(at)
    # A dash is at least as long as the lamp is thick, and so is a gap that can be seen.
    up_to = len(profile) / (2 * max(thick, 1.0)) / shutter_s
    drawn = tuple(round(float(v), 3) for v in _even(profile))
    if count < LEAST_DASHES:
        return Streak(count, None, 0.0, 0.0, None, up_to, drawn)
    low, high = (count - 1) / shutter_s, (count + 1) / shutter_s
    return Streak(count, count / shutter_s, low, high, _duty(profile, at, gaps), up_to, drawn)


def _along(picture: Picture) -> tuple[FloatArray, float]:
    """Light along the streak a pixel at a time, 1 at its height, and how thick the streak is."""
    light = luminance(picture)
    light = light - np.median(light)
    height = float(np.percentile(light, 99.95))
    noise = 1.48 * float(np.median(np.abs(light)))
    lit = light > max(_LIT * height, _OVER_NOISE * noise, 0.002)
    if not 20 <= lit.sum() <= lit.size / 3:
        raise InputError("photo", "No streak stands out in it: sweep the camera past the lamp, in the dark.")
    y, x = np.nonzero(lit)
    centre = np.array([x.mean(), y.mean()])
    spread = np.cov(np.stack([x, y]))
    _, ways = np.linalg.eigh(spread)
    along = (x - centre[0]) * ways[0, 1] + (y - centre[1]) * ways[1, 1]
    across = (x - centre[0]) * ways[0, 0] + (y - centre[1]) * ways[1, 0]
    # A hand sweeps in a bow.
    across = across - np.polyval(np.polyfit(along, across, 2), along)
    length = float(np.ptp(along))
    thick = 4 * float(across.std())
    if length < _LONG * max(thick, 1.0):
        raise InputError(
            "photo",
            "This shows a spot, or several spots, instead of a streak. Sweep the camera past one lamp, "
            "and keep every other light out of the frame.",
        )
    # Each pixel's light is shared between the two places it lies between: no moiré of columns and places.
    place, part = np.divmod(along - along.min(), 1.0)
    weight, at = light[y, x], place.astype(int)
    summed = np.bincount(at, weights=weight * (1 - part), minlength=at.max() + 2)
    summed += np.bincount(at + 1, weights=weight * part)
    return np.asarray(summed / np.percentile(summed, 98)), thick


def _dashes(profile: FloatArray, thick: float) -> tuple[list[int], list[int]]:
    """Middles of dashes and of the gaps between them; what is finer than the lamp is thick is grain."""
    padded = np.concatenate([[0.0], profile, [0.0]])
    smooth = scipy.ndimage.gaussian_filter1d(padded, max(1.0, thick / 8))
    tops: list[int] = []
    for top in scipy.signal.find_peaks(smooth, prominence=_DEEP)[0].tolist():
        # Tops of one height have their whole height as prominence, with no gap between them.
        if tops and smooth[tops[-1] : top].min() > min(smooth[tops[-1]], smooth[top]) - _DEEP:
            continue
        tops.append(top)
    lows = [int(a + np.argmin(smooth[a:b])) for a, b in pairwise(tops)]
    return [t - 1 for t in tops], [k - 1 for k in lows]


def _duty(profile: FloatArray, tops: list[int], lows: list[int]) -> float:
    """Share of the whole periods, from the first gap to the last, that is over half of its own dash."""
    lit = whole = 0.0
    for k in range(1, len(lows)):
        part = profile[lows[k - 1] : lows[k]]
        lit += float((part > 0.5 * profile[tops[k]]).sum())
        whole += len(part)
    return lit / whole if whole else math.nan


def _even(profile: FloatArray) -> FloatArray:
    """The profile in at most so many steps."""
    if len(profile) <= _MOST_ACROSS:
        return np.clip(profile, 0.0, 1.2)
    places = np.linspace(0, len(profile) - 1, _MOST_ACROSS)
    return np.clip(np.interp(places, np.arange(len(profile)), profile), 0.0, 1.2)
