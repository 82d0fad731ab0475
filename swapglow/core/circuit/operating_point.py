"""The DC operating point of a circuit, for one sample or thousands of the same topology.

>>> from swapglow.core.circuit.netlist import Circuit, Resistor, VoltageSource, Dc
>>> point = operating_point(Circuit((VoltageSource("V1", "a", "0", Dc(9.0)), Resistor("R1", "a", "0", 1e3))))
>>> float(point.current("V1")[0])
-0.009
"""

from dataclasses import dataclass, fields, is_dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuit import structure
from swapglow.core.circuit.currents import current_of
from swapglow.core.circuit.devices import GMIN
from swapglow.core.circuit.elimination import Plan
from swapglow.core.circuit.linear import make_plan, solver_for, wants_plan
from swapglow.core.circuit.netlist import Circuit, CircuitError, nodes_of
from swapglow.core.circuit.newton import Outcome, cold_start, newton
from swapglow.core.circuit.system import Junctions, System

FloatArray = NDArray[np.float64]
BoolArray = NDArray[np.bool_]

# Samples solved together: small enough that a chunk's arrays stay in the processor's cache.
CHUNK = 1024


class NotConverged(CircuitError):
    """No answer was found; nothing is shown in its place."""


@dataclass(frozen=True)
class OperatingPoint:
    """Node voltages and currents of every sample.

    Attributes:
        circuit: what was solved.
        converged: per sample, shape (samples,); a sample that is False has no answer.
    """

    circuit: Circuit
    converged: BoolArray
    _system: System
    _x: FloatArray
    _junctions: Junctions

    @property
    def samples(self) -> int:
        """Number of samples."""
        return int(self.converged.size)

    @property
    def nodes(self) -> tuple[str, ...]:
        """Node names but ground, in order of first mention."""
        return tuple(self._system.nodes)

    def voltage(self, node: str) -> FloatArray:
        """Volts of a node against ground, shape (samples,)."""
        if node in ("0", "gnd"):
            return np.zeros(self.samples)
        if node not in self._system.nodes:
            raise CircuitError(f'There is no node called "{node}" in the circuit.')
        return self._hide(self._x[self._system.nodes[node]])

    def across(self, name: str) -> FloatArray:
        """Volts from a part's first to its second terminal, shape (samples,)."""
        a, b = nodes_of(self.circuit.element(name))[:2]
        return self.voltage(a) - self.voltage(b)

    def current(self, name: str) -> FloatArray:
        """Amps through a part from its first terminal into it, shape (samples,).

        For a voltage source that is SPICE's sign: negative where it delivers. For a transistor it
        is the collector current, for a regulator the input current.
        """
        return self._hide(current_of(self._system, self._x, self._junctions, name))

    def _hide(self, values: FloatArray) -> FloatArray:
        return values if self.converged.all() else np.where(self.converged, values, np.nan)

    def require(self) -> "OperatingPoint":
        """Itself, where every sample has an answer.

        Raises:
            NotConverged: how many have none.
        """
        missing = int((~self.converged).sum())
        if missing:
            raise NotConverged(
                f"No operating point was found for {missing} of {self.samples} cases; none is shown for them."
            )
        return self


def subset(thing: Any, index: NDArray[np.intp] | slice) -> Any:
    """A circuit (or part of one) with its sample arrays cut down to ``index``."""
    changes: dict[str, Any] = {}
    for f in fields(thing):
        value = getattr(thing, f.name)
        if isinstance(value, np.ndarray):
            changes[f.name] = value[index]
        elif f.name == "elements":
            changes[f.name] = tuple(subset(e, index) for e in value)
        elif is_dataclass(value):
            changed = subset(value, index)
            if changed is not value:
                changes[f.name] = changed
    return replace(thing, **changes) if changes else thing


def operating_point(circuit: Circuit) -> OperatingPoint:
    """Solve a circuit at DC.

    Args:
        circuit: parameters may be arrays of shape (samples,).

    Returns:
        The solution; a sample without one is marked, never guessed.

    Raises:
        CircuitError: the circuit cannot have an answer.
    """
    structure.check(circuit)
    system = System(circuit)
    outcome = _solve(system, None, None)[0] if system.samples <= CHUNK else _in_chunks(system)
    return OperatingPoint(circuit, outcome.converged, system, outcome.x, outcome.junctions)


def _in_chunks(system: System) -> Outcome:
    """Solve chunk by chunk, each starting where the first sample came to."""
    count = system.samples
    first = _solve(System(subset(system.circuit, np.array([count // 2]))), None, None)[0]
    warm = first.junctions if first.converged.all() else None
    plan: Plan | None = None
    parts: list[Outcome] = []
    for begin in range(0, count, CHUNK):
        piece = System(subset(system.circuit, slice(begin, min(begin + CHUNK, count))))
        outcome, plan = _solve(piece, warm, plan)
        parts.append(outcome)
    junctions = Junctions(
        *(np.concatenate([getattr(p.junctions, k) for p in parts], axis=1)
          for k in ("diode", "be", "bc", "closed"))
    )  # fmt: skip
    return Outcome(
        np.concatenate([p.x for p in parts], axis=1),
        junctions,
        np.concatenate([p.converged for p in parts]),
        max(p.steps for p in parts),
    )


def _solve(system: System, warm: Junctions | None, plan: Plan | None) -> tuple[Outcome, Plan | None]:
    drive = system.drive()[:-1]
    start = cold_start(system) if warm is None else _repeated(warm, system.samples)
    if wants_plan(system) and plan is None:
        zero = np.zeros((system.size + 1, system.samples))
        entries = system.curved_scatter @ system.evaluate(zero, start, GMIN).entries
        plan = make_plan(system, entries[:, 0])
    outcome = newton(system, solver_for(system, drive, plan), drive, start)
    if not outcome.converged.all():
        _rescue(system, outcome)
    return outcome, plan


def _repeated(v: Junctions, samples: int) -> Junctions:
    return v.take(np.zeros(samples, dtype=np.intp))


def _rescue(system: System, outcome: Outcome) -> None:
    """Try the samples that did not settle one by one by stepping gmin, then the sources."""
    for k in np.flatnonzero(~outcome.converged):
        index = np.array([k])
        one = System(subset(system.circuit, index)) if system.samples > 1 else system
        found = _gmin_stepping(one) or _source_stepping(one)
        if found is None:
            continue
        outcome.x[:, k] = found.x[:, 0]
        outcome.junctions.diode[:, k] = found.junctions.diode[:, 0]
        outcome.junctions.be[:, k] = found.junctions.be[:, 0]
        outcome.junctions.bc[:, k] = found.junctions.bc[:, 0]
        outcome.junctions.closed[:, k] = found.junctions.closed[:, 0]
        outcome.converged[k] = True


def _gmin_stepping(system: System) -> Outcome | None:
    """Start with every junction shunted by 10 mS and take the shunt away a step at a time."""
    drive = system.drive()[:-1]
    solver = solver_for(system, drive, None)
    v, x = cold_start(system), None
    for gmin in (*np.geomspace(1e-2, 1e-11, 10), GMIN):
        outcome = newton(system, solver, drive, v, x, gmin=float(gmin))
        if not outcome.converged.all():
            return None
        v, x = outcome.junctions, outcome.x
    return outcome


def _source_stepping(system: System) -> Outcome | None:
    """Raise all sources from nothing together, halving the step where one fails."""
    full = system.drive()[:-1]
    v, x = cold_start(system), None
    reached, step = 0.0, 0.1
    outcome: Outcome | None = None
    while reached < 1.0:
        trial = min(1.0, reached + step)
        outcome = newton(system, solver_for(system, full * trial, None), full * trial, v, x)
        if outcome.converged.all():
            v, x, reached, step = outcome.junctions, outcome.x, trial, step * 1.5
        elif step < 1e-4:
            return None
        else:
            step /= 4
    return outcome
