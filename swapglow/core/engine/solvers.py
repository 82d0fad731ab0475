"""Linear solves of a Newton step: LAPACK for small circuits, sparse LU for large ones."""

from typing import Protocol

import numpy as np
import scipy
from numpy.typing import NDArray

from swapglow.core.engine.mna import System
from swapglow.core.engine.netlist import CircuitError

FloatArray = NDArray[np.float64]

# Above this many unknowns sparse LU beats dense (measured with `make bench` on two cores).
SMALL = 60
SINGULAR = "The circuit has no single answer: part of it is not tied down, or two sources fight."


class LinearSolver(Protocol):
    """Solves (linear + nonlinear)·x = right for one system."""

    def solve(self, nonlinear: FloatArray, right: FloatArray) -> FloatArray:
        """Answers to one step.

        Args:
            nonlinear: matrix entries of the nonlinear parts, S, (slots, samples).
            right: right-hand side, A and V, (size, samples).

        Returns:
            V and A, (size, samples).

        Raises:
            CircuitError: the circuit has no single answer.
        """


class DenseSolver(LinearSolver):
    """LAPACK, sample by sample inside one call."""

    def __init__(self, system: System) -> None:
        self._rows, self._columns = _places(system)
        self._linear = system.linear_slots
        self._matrix = np.zeros((system.samples, system.size, system.size))

    def solve(self, nonlinear: FloatArray, right: FloatArray) -> FloatArray:
        """Solve as :class:`LinearSolver` says."""
        self._matrix[:, self._rows, self._columns] = (self._linear + nonlinear).T
        try:
            return np.asarray(np.linalg.solve(self._matrix, right.T[..., None])[..., 0].T)
        except np.linalg.LinAlgError:
            raise CircuitError(SINGULAR) from None


class SparseSolver(LinearSolver):
    """Sparse LU (SuperLU), one sample at a time."""

    def __init__(self, system: System) -> None:
        self._rows, self._columns = _places(system)
        self._linear = system.linear_slots
        self._shape = (system.size, system.size)

    def solve(self, nonlinear: FloatArray, right: FloatArray) -> FloatArray:
        """Solve as :class:`LinearSolver` says."""
        values = self._linear + nonlinear
        out = np.empty_like(right)
        for k in range(right.shape[1]):
            matrix = scipy.sparse.csc_array((values[:, k], (self._rows, self._columns)), shape=self._shape)
            try:
                out[:, k] = scipy.sparse.linalg.splu(matrix).solve(right[:, k])
            except RuntimeError:
                raise CircuitError(SINGULAR) from None
        return out


def _places(system: System) -> tuple[NDArray[np.intp], NDArray[np.intp]]:
    index = np.array(list(system.slots), dtype=np.intp).reshape(-1, 2)
    return index[:, 0], index[:, 1]


def solver_for(system: System) -> LinearSolver:
    """The solver that suits the system's size."""
    return DenseSolver(system) if system.size <= SMALL else SparseSolver(system)
