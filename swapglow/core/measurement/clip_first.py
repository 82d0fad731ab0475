"""A clip before any meter: where there is none, or where the wire pulses faster than one follows.

One resistor, one LED and a diode turned round across it survive all that could be there, DC or AC, either way round;
what it shows rules the others out.
"""

import math

from swapglow.core.design.position import Position
from swapglow.core.kinds.step import Meaning, NextStep
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.quantities import OHM, VOLT, Source, show
from swapglow.core.values import preferred

TRUE_RMS = "rms"
METERS = {"yes": "A usual one: on AC right for a sine only", TRUE_RMS: "A true RMS one", "none": "None: clips alone"}
# Extra-low voltage: no clip goes on more (IEC 61140: 50 V AC; the lower of its two limits, for it may be AC).
EXTRA_LOW_V = 50.0
# What stands in for the most that could be there, V.
USUAL_V = 30.0
# Unloaded windings read up to so much more (common practice).
UNLOADED = 1.2
# Of rated at the very most that could be there (ours: half).
SHARE = 0.5
_LED = "red-5-diffused"


def crest_of(most: float) -> float:
    """The crest of an unloaded winding of so many volts, V."""
    return most * math.sqrt(2) * UNLOADED


def clip_ohm(led: Led, crest: float) -> float:
    """The resistor with which half the rated current is not passed at the crest, E12, next higher (Ohm).

    Args:
        led: the LED.
        crest: the highest, V.

    Returns:
        Ω.
    """
    return preferred.prefer((crest - led.vf_low) / (led.rated_a * SHARE), "E12", "up")


def clip_first(p: Position, *, no_meter: bool, read: bool) -> tuple[NextStep, ...]:
    """The clip as the first step of the plan.

    Args:
        p: the swap.
        no_meter: whether the shop has none.
        read: whether anything was read already.

    Returns:
        The step; none where a meter does better, where something was read, where no clip may go, or where the rail
        cannot light it.
    """
    pulses = p.driver.kind.pulses or p.driver.kind.flashes
    known = read or p.rail.usual.source is Source.MEASURED
    if p.live_danger or known or not (no_meter or pulses):
        return ()
    most = max(p.rail.volts[2], p.rail.supply.jump_v or 0.0)
    if p.rail.usual.source.is_assumed:
        most = max(most, USUAL_V)
    if most > EXTRA_LOW_V:
        return ()
    led = catalogue()[_LED]
    if most <= led.vf_high:
        # Dark on such a rail whatever is there: it would tell nothing.
        return ()
    ohm = show(clip_ohm(led, crest_of(most)), OHM)
    why = "There is no meter here." if no_meter else "This wire pulses: a meter is too slow to follow it."
    return (
        NextStep(
            "clip",
            f"Clip an LED on it first: {ohm}, a {led.label[0].lower()}{led.label[1:]}, and a diode turned round "
            "across the LED",
            "",
            "one clip on the frame or the return, the other on the lamp's contact; then turned",
            "lamp out, switch on",
            "bright, a broken streak when waved, dim, or dark",
            None,
            f"{why} It survives {show(most, VOLT)}, DC or AC, either way round: what it shows rules out the rest. "
            "Lamp out: one clip on the frame or the return, the other on its contact; then turned.",
            "Only where no mains, flyback or charged capacitor can be.",
            (
                Meaning("bright and whole when waved", "DC, this way round"),
                Meaning("a broken streak when waved", "AC, or pulses: count them against the other lamps"),
                Meaning("dim", "kilohms behind it, or few volts: a sense line perhaps"),
                Meaning("dark both ways round", "nothing there, or its ground is paint"),
            ),
        ),
    )
