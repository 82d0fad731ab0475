"""A changed current as an eye takes it."""

import math

from swapglow.core.parts.led import Led
from swapglow.core.photometry.eye import STEP
from swapglow.core.photometry.light_law import light_ratio
from swapglow.core.photometry.words import eye_text


def as_seen(led: Led, before: float, after: float) -> str:
    """What an eye makes of a changed current, from memory.

    Args:
        led: the LED.
        before, after: currents, A.

    Returns:
        A sentence.
    """
    ratio = float(light_ratio(led, after, before))
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
