"""A position's network on a steady supply, solved."""

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.design.position import Position
from swapglow.core.drivers.driver import State
from swapglow.core.engine.netlist import Circuit
from swapglow.core.engine.operating_point import OperatingPoint
from swapglow.core.engine.periodic import SteadyStates
from swapglow.core.network.builder import CONTACT_OHM, build, laws_of
from swapglow.core.network.cases import Cases
from swapglow.core.network.filaments import Ohms, settled
from swapglow.core.network.regimes import regulated
from swapglow.core.network.surroundings import surroundings

FloatArray = NDArray[np.float64]
Solved = OperatingPoint | SteadyStates


def point_of(position: Position, cases: Cases, state: State = "on") -> OperatingPoint:
    """A position solved for cases in a state, its filaments at rest.

    Args:
        position: the swap on a steady supply.
        cases: what to solve, (samples,).
        state: what the driver does.

    Returns:
        Every node's volts and every element's current, (samples,) each.

    Raises:
        NotConverged: a case has no answer.
    """
    laws = laws_of(position)
    # From the filaments of a generic LED in the same place those of any are a step or two away.
    start = dict(_start(surroundings(position), state)) if laws else None

    def circuit(ohms: Ohms) -> Circuit:
        kept = regulated(position, cases, state, ohms)
        return build(position, kept, stacked=True, state=state, filaments=ohms).circuit

    return settled(circuit, laws, cases.samples if laws else 1, start)


@lru_cache(maxsize=256)
def _start(position: Position, state: State) -> tuple[tuple[str, float], ...]:
    """Ohms of filaments and steady loads at the usual rail, with a string at its target."""
    p, laws = position, laws_of(position)
    ohms = max(p.rail.volts[1] / p.target.value, CONTACT_OHM)
    case = Cases(np.array([p.rail.volts[1]]), p.led.vf_typ, ohms, p.drop_v)

    def circuit(found: Ohms) -> Circuit:
        return build(p, case, stacked=True, state=state, filaments=found).circuit

    point = settled(circuit, laws, 1)
    return tuple((n, float(law(np.abs(point.across(n)))[0])) for n, law in laws.items())


def string_amps(position: Position, point: OperatingPoint) -> FloatArray:
    """Forward current of one string.

    Args:
        position: the swap.
        point: its network solved.

    Returns:
        Amps, never negative, (samples,).
    """
    amps = point.current("D1")
    if any(e.name == "RleakD1" for e in point.circuit.elements):
        # What leaks beside the LED flows in the same string.
        amps = amps + point.current("RleakD1")
    return np.maximum(amps, 0.0) / position.branches


def resistor_amps(position: Position, point: OperatingPoint) -> FloatArray:
    """Current of one string's resistor: the LEDs' and what a shunt across them draws.

    Args:
        position: the swap.
        point: its network solved.

    Returns:
        Amps, (samples,).
    """
    if position.set_by_ohms:
        return string_amps(position, point)
    return np.asarray(np.abs(point.current("R1")) / position.branches)


def lamp_amps(position: Position, point: OperatingPoint) -> FloatArray:
    """What the whole lamp draws at its contacts: all strings, and a shunt across them.

    Args:
        position: the swap.
        point: its network solved.

    Returns:
        Amps, (samples,).
    """
    names = {e.name for e in point.circuit.elements}
    total = resistor_amps(position, point) * position.branches
    for name in names:
        if name.startswith(("Rbeside", "RleakR1")) or (name == "Rshunt" and position.shunt_across == "assembly"):
            total = total + point.current(name)
    return np.asarray(total)


def supply_amps(point: OperatingPoint) -> FloatArray:
    """What the whole circuit takes from the supply, A, (samples,): all branches, shunt and neighbours."""
    return -point.current("Vrail")


# What stands before a lamp's contacts, or beside them on its feed: by how their elements' names begin.
_OUTSIDE = (
    "Rsource",
    "Rdropper",
    "Rleft",
    "Rload",
    "Dload",
    "Vdload",
    "Idload",
    "Ddload",
    "Rpulse",
    "Dgate",
    "Vdriver",
)


def lamp_watts(point: Solved) -> FloatArray:
    """What goes in at the lamp's own contacts: the supply's power less that of all before and beside them.

    Args:
        point: a network solved, at rest or over a settled cycle.

    Returns:
        Watts at every sample or instant; over a cycle with a capacitor their mean is what becomes heat and light.
    """
    given = -point.across("Vrail") * point.current("Vrail")
    for e in point.circuit.elements:
        if e.name.startswith(_OUTSIDE):
            given = given - point.across(e.name) * point.current(e.name)
    return np.asarray(given)
