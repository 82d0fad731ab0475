"""The old lamp in its own place, before anything was swapped."""

from dataclasses import replace
from functools import lru_cache

import numpy as np

from swapglow.core.circuit.netlist import Circuit, Resistor
from swapglow.core.circuit.operating_point import OperatingPoint
from swapglow.core.driver import State
from swapglow.core.position.around import around
from swapglow.core.position.circuit import Cases, laws_of, to_circuit
from swapglow.core.position.filaments import Ohms, filament, settled
from swapglow.core.position.model import Position


def lamp_before(position: Position, state: State, rail_v: float) -> tuple[float, OperatingPoint] | None:
    """Volts over the old lamp in its own place in a state, with what else was solved; None without one.

    Args:
        rail_v: open volts of the rail.
    """
    if position.lamp is None:
        return None
    # The shunt came with the LED; the lamp never saw it.
    bare = replace(around(position), lamp=position.lamp, shunt_ohm=None, shunt_across="assembly", shunt_w=None,
                   driver=replace(position.driver, changed=False, counts=True))  # fmt: skip
    return _before(bare, state, rail_v)


@lru_cache(maxsize=512)
def _before(p: Position, state: State, rail_v: float) -> tuple[float, OperatingPoint]:
    lamp = p.lamp
    assert lamp is not None
    lamps = {**laws_of(p), "Rold": filament(lamp)}
    cases = Cases(np.array([rail_v]), p.led.vf_typ, 1.0, p.drop_v)

    def build(ohms: Ohms) -> Circuit:
        old = Resistor("Rold", "", "", ohms["Rold"])
        return to_circuit(p, cases, state=state, filaments=ohms, lamp_in=old)

    point = settled(build, lamps, 1)
    return abs(float(point.across("Rold")[0])), point


def before_v(position: Position) -> float:
    """Volts over the old lamp at the usual rail, lit; 0 without one."""
    found = lamp_before(position, "on", position.rail.volts[1])
    return 0.0 if found is None else found[0]
