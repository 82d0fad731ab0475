"""Feeds that are switched many times a second: mean light, flicker, what leaks or lingers, a dimmer's least load."""

import numpy as np

from swapglow.core.circuits.result import Option
from swapglow.core.circuits.toolkit import asks
from swapglow.core.findings.finding import Finding
from swapglow.core.parts.led import Led
from swapglow.core.photometry.flicker import flicker_limit
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.photometry.words import eye_text
from swapglow.core.quantities import HERTZ, OHM, WATT, Shown, Source, show


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


def fit_option(ohm: float, share: float, flows: str, light: float) -> list[Option]:
    """The resistor that is still to be fitted, as the one option.

    Args:
        ohm: its value, Ω.
        share: current with it over that of now.
        flows: what flows then, as a sentence without its stop.
        light: light with it over that of now.

    Returns:
        The option, advised.
    """
    value = show(ohm, OHM)
    outcome = Shown(share, f"{share * 100:.0f}", "%", Source.COMPUTED, "of the current")
    seen = f"{eye_text(light)} × the light."
    changes = {asks.LED_OHM: value}
    return [Option("fit", f"Fit {value}", flows, outcome, "current_ratio", seen, advised=True, changes=changes)]


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
        least_w: the least it needs, W; None where not stated.
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
