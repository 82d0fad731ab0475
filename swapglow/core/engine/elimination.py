"""Gaussian elimination on whole batches: sparse, its steps planned once; and dense, of a few unknowns.

All samples of a batch share one sparsity pattern, so the order of elimination and every
multiply-subtract is worked out once per topology; each then runs as one array operation over all
samples. For the ten or so unknowns of a lamp circuit that costs a few dozen array operations,
where a library solve per sample costs thousands of calls.

References: Markowitz (1957) for the order by least fill; Hachtel, Brayton and Gustavson (1971)
for the table of operations.
"""

import contextlib
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from swapglow.core.engine.netlist import CircuitError
from swapglow.core.engine.scratch import scratch

FloatArray = NDArray[np.float64]

# Up to so many samples for each unknown LAPACK is the quicker (measured: two unknowns 50, four 150, twenty-four 700).
LIBRARY = 24


@dataclass(frozen=True)
class Step:
    """One pivot: its row, column and slot, and what is subtracted from where.

    ``sides`` are the right-hand sides that can be other than zero in the pivot's row.
    """

    row: int
    column: int
    pivot: int
    # (slot of the factor, target row, ((source slot, target slot), ...))
    updates: tuple[tuple[int, int, tuple[tuple[int, int], ...]], ...]
    # (slot, column) of the rest of the pivot row, for back substitution
    rest: tuple[tuple[int, int], ...]
    sides: tuple[int, ...]


@dataclass(frozen=True)
class Plan:
    """An elimination order for one sparsity pattern; ``slots`` counts entries with fill-in."""

    slots: int
    size: int
    steps: tuple[Step, ...]


@dataclass
class _Pattern:
    rows: dict[int, dict[int, int]] = field(default_factory=dict)  # row -> column -> slot
    slots: int = 0

    def add(self, row: int, column: int) -> int:
        line = self.rows.setdefault(row, {})
        if column not in line:
            line[column] = self.slots
            self.slots += 1
        return line[column]


def plan(entries: list[tuple[int, int]], size: int, sample: FloatArray, sides: list[set[int]]) -> Plan:
    """Plan the elimination.

    Args:
        entries: (row, column) of each stored entry, in slot order.
        size: number of unknowns.
        sample: values of the entries in one typical sample, shape (entries,): rules out pivots
            that are too small.
        sides: rows in which each right-hand side can be other than zero.

    Returns:
        The order of the elimination, and where each number of it goes.

    Raises:
        CircuitError: the pattern cannot be eliminated.
    """
    pattern = _Pattern()
    for row, column in entries:
        pattern.add(row, column)
    values = dict(enumerate(np.asarray(sample, dtype=float)))
    rows, columns = set(range(size)), set(range(size))
    steps: list[Step] = []
    while rows:
        choice = _choose(pattern, values, rows, columns)
        if choice is None:
            raise CircuitError("The circuit has no single answer: part of it is not tied down.")
        steps.append(_eliminate(pattern, values, rows, columns, sides, *choice))
    return Plan(pattern.slots, size, tuple(steps))


def _choose(pattern: _Pattern, values: dict[int, float], rows: set[int], columns: set[int]) -> tuple[int, int] | None:
    """The acceptable pivot of least Markowitz cost, or None."""
    by_column: dict[int, list[int]] = {c: [] for c in columns}
    for r in rows:
        for c in pattern.rows.get(r, {}):
            if c in columns:
                by_column[c].append(r)
    best: tuple[int, float, int, int] | None = None
    for c, members in by_column.items():
        size = {r: abs(values[pattern.rows[r][c]]) for r in members}
        largest = max(size.values(), default=0.0)
        for r in members:
            if size[r] == 0 or size[r] < 1e-3 * largest:
                continue
            width = sum(1 for other in pattern.rows[r] if other in columns)
            key = ((width - 1) * (len(members) - 1), -size[r], r, c)
            if best is None or key < best:
                best = key
    return None if best is None else (best[2], best[3])


def _eliminate(
    pattern: _Pattern,
    values: dict[int, float],
    rows: set[int],
    columns: set[int],
    sides: list[set[int]],
    row: int,
    column: int,
) -> Step:
    pivot = pattern.rows[row][column]
    rows.discard(row)
    columns.discard(column)
    rest = tuple((s, c) for c, s in pattern.rows[row].items() if c in columns)
    updates = []
    for r in sorted(rows):
        slot = pattern.rows.get(r, {}).get(column)
        if slot is None:
            continue
        factor = values[slot] / values[pivot]
        pairs = []
        for source, c in rest:
            target = pattern.add(r, c)
            values[target] = values.get(target, 0.0) - factor * values[source]
            pairs.append((source, target))
        updates.append((slot, r, tuple(pairs)))
    present = tuple(k for k, side in enumerate(sides) if row in side)
    for k in present:
        sides[k].update(target for _, target, _ in updates)
    return Step(row, column, pivot, tuple(updates), rest, present)


def solve(the_plan: Plan, entries: FloatArray, right: FloatArray, x: FloatArray) -> None:
    """Solve every sample's system for several right-hand sides.

    Args:
        the_plan: from :func:`plan`.
        entries: values of the stored entries, shape (entries, samples).
        right: shape (size, sides, samples); it is used up.
        x: takes the answers, same shape. A sample whose pivot vanishes comes out not finite.
    """
    samples = entries.shape[1]
    a = scratch("entries", (the_plan.slots, samples))
    a[: entries.shape[0]] = entries
    a[entries.shape[0] :] = 0.0
    inverses = scratch("inverses", (the_plan.size, samples))
    work = scratch("work", (samples,))
    with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
        for step in the_plan.steps:
            inverse = np.divide(1.0, a[step.pivot], out=inverses[step.row])
            for slot, row, pairs in step.updates:
                factor = a[slot] * inverse
                for source, target in pairs:
                    np.multiply(factor, a[source], out=work)
                    a[target] -= work
                for side in step.sides:
                    np.multiply(factor, right[step.row, side], out=work)
                    right[row, side] -= work
        for step in reversed(the_plan.steps):
            value = x[step.column]
            value[:] = right[step.row]
            for slot, column in step.rest:
                value -= a[slot] * x[column]
            value *= inverses[step.row]


def eliminate(a: FloatArray, b: FloatArray) -> FloatArray:
    """Solve a small dense system for every sample; both arrays are used up.

    Of many samples without pivoting: for matrices that are the identity plus resistances times
    conductances, whose leading minors are positive. Of few a library call each costs less.

    Args:
        a: (unknowns, unknowns, samples).
        b: (unknowns, sides, samples).

    Returns:
        Answers, in the place and shape of ``b``. A sample whose pivot vanishes comes out not finite.
    """
    n = len(b)
    if b.shape[2] <= LIBRARY * n:
        # One that is singular would cost the others their answers: then all go the long way.
        with contextlib.suppress(np.linalg.LinAlgError):
            b[:] = np.linalg.solve(a.transpose(2, 0, 1), b.transpose(2, 0, 1)).transpose(1, 2, 0)
            return b
    for k in range(n):
        for row in range(k + 1, n):
            factor = a[row, k] / a[k, k]
            a[row, k + 1 :] -= factor * a[k, k + 1 :]
            b[row] -= factor * b[k]
    for k in range(n - 1, -1, -1):
        for row in range(k + 1, n):
            b[k] -= a[k, row] * b[row]
        b[k] /= a[k, k]
    return b
