"""Currents at which something changes: too dim in its place, or a line taken for closed."""

import math

from swapglow.core.analysis.original_lamp import lamp_candela
from swapglow.core.design.position import Position
from swapglow.core.photometry.intensity import amps_for

# An LED of a quarter of the old lamp's intensity is too dim in its place: two doublings, where one
# is plain on a dial (common practice, people differ). Without a lamp to compare, half a milliamp:
# a modern LED is plain at 0.5 to 2 mA (common practice).
DIM_SHARE = 0.25
DIM_AMPS = 0.5e-3


def dim_amps(position: Position) -> float:
    """The string current below which the LED is too dim in its place, A."""
    old = lamp_candela(position)
    return amps_for(position, old * DIM_SHARE) if old else DIM_AMPS


def trip_amps(position: Position) -> float:
    """String current at which a line is no longer safe, A; infinite where nothing reads the line."""
    supply = position.rail.supply
    if not supply.kind.reads_line or supply.trip is None:
        return math.inf
    return supply.trip.value * supply.trip_share / position.branches
