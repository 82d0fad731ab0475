"""A sense line's trip current from two trials: one resistor it still ignored, one it took for closed."""

from dataclasses import replace

import numpy as np

from swapglow.core.position.circuit import Cases
from swapglow.core.position.field_error import FieldError, single
from swapglow.core.position.model import Position
from swapglow.core.position.solution import current
from swapglow.core.position.typed_supply import TypedRail
from swapglow.core.quantities import OHM, Figure, Source, show


def with_trials(position: Position, typed: TypedRail) -> Position:
    """The position with its line's trip current bracketed by the trials typed for its rail.

    The current of each trial is solved with the typical LED at the open volts as read; a trip current
    that was read itself goes before. One trial alone brackets nothing.

    Raises:
        FieldError: for ``works`` or ``fails``: no resistances, or the wrong way round.
    """
    supply = position.rail.supply
    works, fails = typed.detail("works"), typed.detail("fails")
    if supply.kind != "sense" or supply.trip is not None or works.empty or fails.empty:
        return position
    ohms = [single(n, t.text, OHM, minimum=0) for n, t in (("works", works), ("fails", fails))]
    if ohms[0] <= ohms[1]:
        raise FieldError(
            "works", f"{show(ohms[0], OHM)} takes less current than {show(ohms[1], OHM)} only if it is larger: "
            "the two are exchanged.",
        )  # fmt: skip
    volts = position.rail.volts[1]
    alone = typed.detail("trial_with").text.strip() == "alone"
    if alone:
        # Ohm: the line's own resistance and the trial's.
        amps = [volts / (supply.source_ohm.value + r) for r in ohms]
    else:
        plain = replace(position, branches=1, shunt_ohm=None)
        at = Cases(np.full(2, volts), np.full(2, position.led.vf_typ), np.array(ohms), position.drop_v)
        amps = current(plain, at).tolist()
    note = f"{'a resistor' if alone else 'this LED'} with {show(ohms[0], OHM)} and {show(ohms[1], OHM)}"
    source = Source.COMPUTED if works.source is not Source.ASSUMED else Source.ASSUMED
    bracket = replace(supply, trip=Figure(amps[0], source, note), trip_fails=Figure(amps[1], source, note))
    return replace(position, rail=replace(position.rail, supply=bracket))
