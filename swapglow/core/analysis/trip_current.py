"""A line's trip current from trials: a resistor it still ignored, one it took for closed, or one of the two."""

from dataclasses import replace

import numpy as np

from swapglow.core.analysis.solution import current
from swapglow.core.design.position import Position
from swapglow.core.network.cases import Cases
from swapglow.core.quantities import AMPERE, OHM, Figure, InputError, show
from swapglow.core.supplies.supply import Trials


def with_trip(position: Position) -> Position:
    """The position with its line's trip current bounded by the trials typed for its rail.

    What was seen at the bench goes before a figure that somebody typed: a trial that was ignored raises a
    trip current under it, one that was taken for closed lowers one above it. The current of each trial is
    solved with the typical LED at the open volts as read, once, for the LED that was tried; other LEDs do
    not change what the line does.

    Raises:
        InputError: ``trip``: a reading that a trial contradicts.
        NotConverged: a trial has no answer.
    """
    supply = position.rail.supply
    trials = supply.trials
    if trials is None:
        return position
    ignored, closed = (
        None if ohm is None else _figure(position, trials, ohm) for ohm in (trials.ignored_ohm, trials.closed_ohm)
    )
    trip = supply.trip
    if trip is not None and not trip.source.is_assumed:
        _agrees(trip, ignored, closed)
    if ignored is not None and (trip is None or trip.source.is_assumed or trip.value <= ignored.value):
        ohm = None if trials.alone else trials.ignored_ohm
        bound = replace(supply, trip=ignored, trip_ignored=True, ignored_ohm=ohm, trip_fails=closed, trials=None)
    elif trip is not None and (closed is None or trip.value < closed.value):
        bound = replace(supply, trip_fails=closed, trials=None)
    else:
        bound = replace(supply, trip=closed, trip_fails=closed, trials=None)
    return replace(position, rail=replace(position.rail, supply=bound))


def _figure(position: Position, trials: Trials, ohm: float) -> Figure:
    """The current of a trial, typical LED, open volts as read."""
    volts = position.rail.volts[1]
    if trials.alone:
        # Ohm: the line's own resistance and the trial's.
        amps = volts / (position.rail.supply.source_ohm.value + ohm)
    else:
        plain = replace(position, branches=1, shunt_ohm=None, beside=())
        at = Cases(np.array([volts]), np.array([position.led.vf_typ]), np.array([ohm]), position.drop_v)
        amps = float(current(plain, at)[0])
    what = "a resistor" if trials.alone else "this LED"
    return Figure(amps, trials.source, f"{what} with {show(ohm, OHM)}")


def _agrees(trip: Figure, ignored: Figure | None, closed: Figure | None) -> None:
    """A trip current that was read lies between what was ignored and what was taken for closed."""
    if ignored is not None and ignored.value > trip.value * (1 + 1e-9):
        raise InputError(
            "trip",
            f"The trial took {show(ignored.value, AMPERE)} and was ignored: the line cannot trip at "
            f"{show(trip.value, AMPERE)}. Read it again, or mark it assumed.",
        )
    if closed is not None and closed.value < trip.value * (1 - 1e-9):
        raise InputError(
            "trip",
            f"The trial took {show(closed.value, AMPERE)} and read as closed: the line cannot need "
            f"{show(trip.value, AMPERE)}. Read it again, or mark it assumed.",
        )
