"""The DC operating point of a circuit, for one sample or thousands of the same topology.

>>> from swapglow.core.engine.netlist import Circuit, Resistor, VoltageSource, Dc
>>> point = operating_point(Circuit((VoltageSource("V1", "a", "0", Dc(9.0)), Resistor("R1", "a", "0", 1e3))))
>>> float(point.current("V1")[0])
-0.009
"""

from dataclasses import dataclass, fields, is_dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from swapglow.core.engine import ports
from swapglow.core.engine import topology as structure
from swapglow.core.engine.currents import current_of
from swapglow.core.engine.devices import GMIN
from swapglow.core.engine.leakage import at_rest
from swapglow.core.engine.mna import Junctions, System
from swapglow.core.engine.netlist import Circuit, CircuitError, nodes_of
from swapglow.core.engine.newton import Outcome, cold_start, newton
from swapglow.core.engine.solvers import solver_for

FloatArray = NDArray[np.float64]
BoolArray = NDArray[np.bool_]

# Samples solved together: small enough that a chunk's arrays stay in the processor's cache.
CHUNK = 1024
# After so many samples in a row that nothing rescues, the others are not tried one by one.
HOPELESS = 12


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

    @property
    def unknowns(self) -> tuple[FloatArray, Junctions]:
        """All unknowns, ground's zeros last, (size + 1, samples), and the junctions they rest on."""
        return self._x, self._junctions

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


def subset(thing: Any, index: NDArray[np.intp] | slice | int) -> Any:
    """A circuit (or part of one) with its sample arrays cut down to ``index``.

    Args:
        thing: a circuit, a part, a model or a value.
        index: the samples to keep; one alone becomes a plain value.

    Returns:
        The same, cut down; what is no array of samples stays.
    """
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
    outcome = _at_ports(system) if ports.suits(system) else _general(system)
    _settle_weak(system, outcome)
    return OperatingPoint(circuit, outcome.converged, system, outcome.x, outcome.junctions)


def _at_ports(system: System) -> Outcome:
    """The fast path; samples it cannot prove are solved again in general."""
    found = ports.solve_at_ports(system)
    missing = np.flatnonzero(~found.proved)
    if len(missing):
        # Near the dark a chain of diodes is not quite one junction: there each is a port of its own.
        again = System(subset(system.circuit, missing), samples=len(missing))
        alone = ports.solve_at_ports(again, merge=False)
        found.v[:, missing], found.x[:, missing] = alone.v, alone.x
        found.proved[missing], found.weak[missing] = alone.proved, alone.weak
    outcome = Outcome(found.x, ports.junctions_at(system, found.v), found.proved, found.weak, 0)
    if not found.proved.all():
        _rescue(system, outcome)
    return outcome


def _general(system: System) -> Outcome:
    """Newton's method on all unknowns, for any nonlinear part; in pieces where there are many samples."""
    pieces = [system]
    if system.samples > CHUNK:
        bounds = range(0, system.samples, CHUNK)
        pieces = [System(subset(system.circuit, slice(b, b + CHUNK))) for b in bounds]
    outcomes = []
    for piece in pieces:
        drive = piece.drive()[:-1]
        outcome = newton(piece, solver_for(piece), drive, cold_start(piece))
        if not outcome.converged.all():
            _rescue(piece, outcome)
        outcomes.append(outcome)
    if len(outcomes) == 1:
        return outcomes[0]
    return Outcome(
        np.concatenate([o.x for o in outcomes], axis=1),
        Junctions(
            *(
                np.concatenate([getattr(o.junctions, k) for o in outcomes], axis=1)
                for k in ("diode", "be", "bc", "closed")
            )
        ),
        np.concatenate([o.converged for o in outcomes]),
        np.concatenate([o.weak for o in outcomes]),
        max(o.steps for o in outcomes),
    )


def _rescue(system: System, outcome: Outcome) -> None:
    """Try the samples that did not settle together, then one by one by stepping gmin, then the sources."""
    missing = np.flatnonzero(~outcome.converged)
    if len(missing) > 1:
        some = System(subset(system.circuit, missing), samples=len(missing))
        found = newton(some, solver_for(some), some.drive()[:-1], cold_start(some))
        _put(outcome, missing[found.converged], found, np.flatnonzero(found.converged))
    failed = 0
    for k in np.flatnonzero(~outcome.converged):
        if failed >= HOPELESS:
            # What so many in a row did not give the rest will not: they are marked, and nobody waits for them.
            return
        index = np.array([k])
        one = System(subset(system.circuit, index)) if system.samples > 1 else system
        alone = _plain(one) or _gmin_stepping(one) or _source_stepping(one)
        failed = 0 if alone is not None else failed + 1
        if alone is not None:
            _put(outcome, index, alone, np.array([0]))


def _settle_weak(system: System, outcome: Outcome) -> None:
    """Bring to rest the nodes at which only leakage flows."""
    weak = np.flatnonzero(outcome.weak & outcome.converged)
    if not len(weak):
        return
    some = System(subset(system.circuit, weak), samples=len(weak)) if system.samples > 1 else system
    at_rest(some, outcome, weak)


def _put(outcome: Outcome, to: NDArray[np.intp], found: Outcome, which: NDArray[np.intp]) -> None:
    """Enter some samples of another outcome."""
    outcome.x[:, to] = found.x[:, which]
    for name in ("diode", "be", "bc", "closed"):
        getattr(outcome.junctions, name)[:, to] = getattr(found.junctions, name)[:, which]
    outcome.converged[to], outcome.weak[to] = True, found.weak[which]


def _plain(system: System) -> Outcome | None:
    """Newton's method on all unknowns from a cold start."""
    outcome = newton(system, solver_for(system), system.drive()[:-1], cold_start(system))
    return outcome if outcome.converged.all() else None


def _gmin_stepping(system: System) -> Outcome | None:
    """Start with every junction shunted by 10 mS and take the shunt away a step at a time."""
    drive = system.drive()[:-1]
    solver = solver_for(system)
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
        outcome = newton(system, solver_for(system), full * trial, v, x)
        if outcome.converged.all():
            v, x, reached, step = outcome.junctions, outcome.x, trial, step * 1.5
        elif step < 1e-4:
            return None
        else:
            step /= 4
    return outcome
