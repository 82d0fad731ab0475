"""How much of a flicker is low-risk."""


def flicker_limit(hertz: float) -> float:
    """Low-risk modulation, % (IEEE 1789-2015): 0.025·f below 90 Hz, 0.08·f from 90 to 1250 Hz.

    Above 1250 Hz any modulation is low-risk: 100.
    """
    if hertz < 90:
        return 0.025 * hertz
    return min(100.0, 0.08 * hertz) if hertz <= 1250 else 100.0
