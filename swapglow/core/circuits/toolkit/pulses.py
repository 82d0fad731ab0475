"""Feeds that are switched many times a second: mean light, flicker, what leaks or lingers, a dimmer's least load."""

import numpy as np

from swapglow.core.findings.finding import Finding
from swapglow.core.parts.led import Led
from swapglow.core.photometry.flicker import flicker_limit
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.quantities import HERTZ, OHM, WATT, show


def mean_candela(led: Led, peak_a: float, duty: float) -> float:
    """Mean light, cd: that of the current while it flows, for its share of the time (Talbot-Plateau).

    Args:
        led: the LED.
        peak_a: A, while it is on.
        duty: share of the time.

    Returns:
        cd, on the axis.
    """
    return float(relative_light(led, np.array([peak_a]))[0]) * led.candela * duty


def flickers(hertz: float) -> Finding:
    """What going out so often a second means.

    Args:
        hertz: how often.

    Returns:
        A caution where that is not low-risk, else a note.
    """
    limit = flicker_limit(hertz)
    return Finding(
        "flicker",
        "mind" if limit < 100 else "note",
        f"It goes out {show(hertz, HERTZ)}: wholly modulated; low-risk is up to {limit:.0f} %.",
        "100 %",
        f"{limit:.0f} %",
        "A filament smoothed it (IEEE 1789-2015 for the limit). Moving eyes see the pulses as dots.",
    )


def under_least_load(takes_w: float, least_w: float | None, volts: float) -> tuple[Finding, ...]:
    """What a dimmer makes of less load than it needs.

    Args:
        takes_w: what hangs on it, W.
        least_w: the least it needs, W; None where nobody said.
        volts: of its feed, RMS.

    Returns:
        A caution, or nothing.
    """
    if least_w is None or takes_w >= least_w:
        return ()
    missing = least_w - takes_w
    takes, least = show(takes_w, WATT, 2), show(least_w, WATT, 2)
    return (
        Finding(
            "least-load",
            "mind",
            f"It takes {takes} where the dimmer wants {least}: it may flicker, not dim, or drop out.",
            takes,
            least,
            f"One filament lamp left on it, or {show(volts**2 / missing, OHM, 2)} of {show(missing, WATT, 2)} "
            "heat (V²/R); "
            "a dimmer made for LEDs is the cool way.",
        ),
    )
