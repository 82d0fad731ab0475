"""A line's trip current from two trials: one resistor it still ignored, one it took for closed."""

from dataclasses import replace

import numpy as np

from swapglow.core.analysis.solution import current
from swapglow.core.design.position import Position
from swapglow.core.network.cases import Cases
from swapglow.core.quantities import OHM, Figure, show


def with_trip(position: Position) -> Position:
    """The position with its line's trip current bracketed by the trials typed for its rail.

    The current of each trial is solved with the typical LED at the open volts as read, once, for the LED
    that was tried; other LEDs do not change what the line does.

    Raises:
        NotConverged: a trial has no answer.
    """
    supply = position.rail.supply
    trials = supply.trials
    if trials is None:
        return position
    ohms = [trials.ignored_ohm, trials.closed_ohm]
    volts = position.rail.volts[1]
    if trials.alone:
        # Ohm: the line's own resistance and the trial's.
        amps = [volts / (supply.source_ohm.value + r) for r in ohms]
    else:
        plain = replace(position, branches=1, shunt_ohm=None)
        at = Cases(np.full(2, volts), np.full(2, position.led.vf_typ), np.array(ohms), position.drop_v)
        amps = current(plain, at).tolist()
    note = (
        f"{'a resistor' if trials.alone else 'this LED'} with {show(ohms[0], OHM)} and {show(ohms[1], OHM)}"
    )
    bracket = replace(
        supply, trip=Figure(amps[0], trials.source, note), trip_fails=Figure(amps[1], trials.source, note),
        trials=None,
    )  # fmt: skip
    return replace(position, rail=replace(position.rail, supply=bracket))
