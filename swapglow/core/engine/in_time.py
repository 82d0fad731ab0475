"""What a circuit did over a stretch of time, however it was solved."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.engine.currents import current_of
from swapglow.core.engine.mna import Junctions, System
from swapglow.core.engine.netlist import Capacitor, Circuit, CircuitError, nodes_of

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class InTime:
    """Voltages and currents at a row of instants.

    Attributes:
        t: instants, s, shape (instants,).
    """

    circuit: Circuit
    t: FloatArray
    _system: System
    _x: FloatArray
    _junctions: Junctions
    _flow: FloatArray

    @property
    def nodes(self) -> tuple[str, ...]:
        """Node names but ground."""
        return tuple(self._system.nodes)

    @property
    def unknowns(self) -> tuple[FloatArray, Junctions, FloatArray]:
        """All unknowns (size + 1, instants), junctions, and each reactive part's w."""
        return self._x, self._junctions, self._flow

    def voltage(self, node: str) -> FloatArray:
        """Volts of a node against ground, shape (instants,)."""
        if node in ("0", "gnd"):
            return np.zeros(len(self.t))
        if node not in self._system.nodes:
            raise CircuitError(f'There is no node called "{node}" in the circuit.')
        return np.asarray(self._x[self._system.nodes[node]])

    def across(self, name: str) -> FloatArray:
        """Volts from a part's first to its second terminal."""
        a, b = nodes_of(self.circuit.element(name))[:2]
        return self.voltage(a) - self.voltage(b)

    def current(self, name: str) -> FloatArray:
        """Amps into a part's first terminal, SPICE's sign for sources, shape (instants,)."""
        part = self.circuit.element(name)
        if isinstance(part, Capacitor):
            return np.asarray(self._flow[self._system.capacitors.index(part)])
        return current_of(self._system, self._x, self._junctions, name, self.t)
