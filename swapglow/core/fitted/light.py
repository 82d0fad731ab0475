"""A changed current as an eye takes it."""

import math

import numpy as np

from swapglow.core.parts.led import Led
from swapglow.core.photometry.eye import STEP
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.photometry.words import eye_text


def times_the_light(led: Led, before: float, after: float) -> float:
    """Light at one current beside that at another, by the curve of the LED's material.

    Args:
        led: the LED.
        before, after: currents, A.

    Returns:
        The ratio.
    """
    was, now = (float(v) for v in relative_light(led, np.array([before, after])))
    return now / was if was > 0 else 0.0


def as_seen(led: Led, before: float, after: float) -> str:
    """What an eye makes of a changed current, from memory.

    Args:
        led: the LED.
        before, after: currents, A.

    Returns:
        A sentence.
    """
    ratio = times_the_light(led, before, after)
    steps = abs(math.log2(max(ratio, 1e-9))) / STEP
    if steps < 1:
        told = "not told from memory"
    elif steps < 2.2:
        told = "hardly seen from memory"
    elif steps < 4.4:
        told = "plain to see"
    else:
        told = "another light altogether"
    return f"{eye_text(ratio)} × the light, {told}."
