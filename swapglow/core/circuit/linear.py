"""Three ways to solve the linear system of a Newton step, chosen by its shape.

Many samples of a small circuit: planned elimination over the whole batch. A few samples: LAPACK.
One large circuit: sparse LU.
"""

from typing import Protocol

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csc_array
from scipy.sparse.linalg import splu

from swapglow.core.circuit.elimination import Plan, Workspace, plan
from swapglow.core.circuit.netlist import CircuitError
from swapglow.core.circuit.system import System

FloatArray = NDArray[np.float64]

# Below this many samples one LAPACK call beats the planned elimination's array operations; above
# this many unknowns sparse LU beats dense (both measured with `make bench` on two cores).
FEW_SAMPLES = 16
SMALL = 60
LARGEST_PLAN = 200
SINGULAR = "The circuit has no single answer: part of it is not tied down, or two sources fight."


class LinearSolver(Protocol):
    """Solves (straight + curved)·x = drive − offsets for one system."""

    def solve(self, curved: FloatArray, offsets: FloatArray) -> FloatArray:
        """Answers (size, samples) for curved slots (slots, samples) and offsets (size, samples)."""


class BatchSolver:
    """Planned elimination over all samples at once."""

    def __init__(self, system: System, drive: FloatArray, the_plan: Plan) -> None:
        self._plan = the_plan
        self._space = Workspace(the_plan, system.samples)
        used = len(system.slots)
        self._used = used
        self._space.a[:used] = system.straight_slots
        self._space.b[:] = drive
        self._space.reduce(the_plan.fixed)
        self._a = self._space.a.copy()
        self._b = self._space.b.copy()

    def solve(self, curved: FloatArray, offsets: FloatArray) -> FloatArray:
        """See LinearSolver."""
        space = self._space
        np.copyto(space.a, self._a)
        np.copyto(space.b, self._b)
        space.a[: self._used] += curved
        space.b -= offsets
        with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
            space.reduce(self._plan.curved)
            space.substitute(self._plan.curved)
            space.substitute(self._plan.fixed)
        return space.x


class DenseSolver:
    """LAPACK, sample by sample inside one call."""

    def __init__(self, system: System, drive: FloatArray) -> None:
        index = np.array(list(system.slots), dtype=np.intp).reshape(-1, 2)
        self._rows, self._columns = index.T
        self._straight = np.broadcast_to(system.straight_slots, (len(index), system.samples))
        self._drive = drive
        self._matrix = np.zeros((system.samples, system.size, system.size))

    def solve(self, curved: FloatArray, offsets: FloatArray) -> FloatArray:
        """See LinearSolver."""
        self._matrix[:, self._rows, self._columns] = (self._straight + curved).T
        right = (self._drive - offsets).T[..., None]
        try:
            return np.asarray(np.linalg.solve(self._matrix, right)[..., 0].T)
        except np.linalg.LinAlgError:
            raise CircuitError(SINGULAR) from None


class SparseSolver:
    """Sparse LU (SuperLU), one sample at a time."""

    def __init__(self, system: System, drive: FloatArray) -> None:
        index = np.array(list(system.slots), dtype=np.intp).reshape(-1, 2)
        self._rows, self._columns = index.T
        self._straight = np.broadcast_to(system.straight_slots, (len(index), system.samples))
        self._drive = drive
        self._size = system.size

    def solve(self, curved: FloatArray, offsets: FloatArray) -> FloatArray:
        """See LinearSolver."""
        values = self._straight + curved
        right = self._drive - offsets
        out = np.empty_like(right)
        for k in range(values.shape[1]):
            matrix = csc_array((values[:, k], (self._rows, self._columns)), shape=(self._size, self._size))
            try:
                out[:, k] = splu(matrix).solve(right[:, k])
            except RuntimeError:
                raise CircuitError(SINGULAR) from None
        return out


def solver_for(system: System, drive: FloatArray, the_plan: Plan | None) -> LinearSolver:
    """The solver that suits the system's shape; ``the_plan`` is needed for large batches."""
    if system.samples >= FEW_SAMPLES and the_plan is not None:
        return BatchSolver(system, drive, the_plan)
    if system.size <= SMALL:
        return DenseSolver(system, drive)
    return SparseSolver(system, drive)


def wants_plan(system: System) -> bool:
    """Whether a planned elimination would be used."""
    return system.samples >= FEW_SAMPLES and system.size <= LARGEST_PLAN


def make_plan(system: System, curved_sample: FloatArray) -> Plan:
    """A plan from the pattern and the values of one sample (slots,)."""
    sample = system.straight_slots[:, 0] + curved_sample
    return plan(list(system.slots), system.size, system.curved_unknowns, sample)
