"""Sparse Gaussian elimination whose steps are planned once and run on whole batches.

All samples of a batch share one sparsity pattern, so the order of elimination and every
multiply-subtract is worked out once per topology; each then runs as one array operation over all
samples. For the ten or so unknowns of a lamp circuit that costs a few dozen array operations,
where a library solve per sample costs thousands of calls. The order puts unknowns that no curved
part touches first: they are eliminated once per batch and not once per Newton step.

References: Markowitz (1957) for the order by least fill; Hachtel, Brayton and Gustavson (1971)
for the table of operations.
"""

from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuit.netlist import CircuitError

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Step:
    """One pivot: its row, column and slot, and what is subtracted from where."""

    row: int
    column: int
    pivot: int
    # (slot of the factor, target row, ((source slot, target slot), ...))
    updates: tuple[tuple[int, int, tuple[tuple[int, int], ...]], ...]
    # (slot, column) of the rest of the pivot row, for back substitution
    rest: tuple[tuple[int, int], ...]


@dataclass(frozen=True)
class Plan:
    """An elimination order for one sparsity pattern.

    Attributes:
        slots: number of stored entries with fill-in.
        fixed: steps over unknowns that no curved part touches.
        curved: steps over the rest.
    """

    slots: int
    size: int
    fixed: tuple[Step, ...]
    curved: tuple[Step, ...]


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


def plan(entries: list[tuple[int, int]], size: int, curved: set[int], sample: FloatArray) -> Plan:
    """Plan the elimination.

    Args:
        entries: (row, column) of each stored entry, in slot order.
        size: number of unknowns.
        curved: rows and columns that change from one Newton step to the next.
        sample: values of the entries in one typical sample, shape (entries,): rules out pivots
            that are too small.

    Raises:
        CircuitError: the pattern cannot be eliminated.
    """
    pattern = _Pattern()
    for row, column in entries:
        pattern.add(row, column)
    values = dict(enumerate(np.asarray(sample, dtype=float)))
    rows, columns = set(range(size)), set(range(size))
    stages: tuple[list[Step], list[Step]] = ([], [])
    for stage, fixed_only in ((stages[0], True), (stages[1], False)):
        while rows:
            choice = _choose(pattern, values, rows, columns, curved if fixed_only else set())
            if choice is None:
                break
            stage.append(_eliminate(pattern, values, rows, columns, *choice))
    if rows:
        raise CircuitError("The circuit has no single answer: part of it is not tied down.")
    return Plan(pattern.slots, size, tuple(stages[0]), tuple(stages[1]))


def _choose(pattern: _Pattern, values: dict[int, float], rows: set[int], columns: set[int],
            barred: set[int]) -> tuple[int, int] | None:  # fmt: skip
    """The acceptable pivot of least Markowitz cost, or None."""
    by_column: dict[int, list[int]] = {c: [] for c in columns}
    for r in rows:
        for c in pattern.rows.get(r, {}):
            if c in columns:
                by_column[c].append(r)
    best: tuple[int, float, int, int] | None = None
    for c, members in by_column.items():
        if c in barred:
            continue
        size = {r: abs(values[pattern.rows[r][c]]) for r in members}
        largest = max(size.values(), default=0.0)
        for r in members:
            if r in barred or size[r] == 0 or size[r] < 1e-3 * largest:
                continue
            width = sum(1 for other in pattern.rows[r] if other in columns)
            key = ((width - 1) * (len(members) - 1), -size[r], r, c)
            if best is None or key < best:
                best = key
    return None if best is None else (best[2], best[3])


def _eliminate(pattern: _Pattern, values: dict[int, float], rows: set[int], columns: set[int],
               row: int, column: int) -> Step:  # fmt: skip
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
    return Step(row, column, pivot, tuple(updates), rest)


class Workspace:
    """Arrays for one batch: entries (slots, samples), right-hand sides and answers (size, samples)."""

    def __init__(self, plan_: Plan, samples: int) -> None:
        self.plan = plan_
        self.a = np.zeros((plan_.slots, samples))
        self.b = np.zeros((plan_.size, samples))
        self.x = np.zeros((plan_.size, samples))
        self._inverse = np.empty((plan_.size, samples))
        self._factor = np.empty(samples)
        self._work = np.empty(samples)

    def reduce(self, steps: tuple[Step, ...]) -> None:
        """Run elimination steps on entries and right-hand side, in place."""
        a, b, factor, work = self.a, self.b, self._factor, self._work
        for step in steps:
            inverse = self._inverse[step.row]
            np.divide(1.0, a[step.pivot], out=inverse)
            for slot, row, pairs in step.updates:
                np.multiply(a[slot], inverse, out=factor)
                for source, target in pairs:
                    np.multiply(factor, a[source], out=work)
                    np.subtract(a[target], work, out=a[target])
                np.multiply(factor, b[step.row], out=work)
                np.subtract(b[row], work, out=b[row])

    def substitute(self, steps: tuple[Step, ...]) -> None:
        """Find the unknowns of the steps, last pivot first, from those already known."""
        a, b, x, work = self.a, self.b, self.x, self._work
        for step in reversed(steps):
            value = x[step.column]
            np.copyto(value, b[step.row])
            for slot, column in step.rest:
                np.multiply(a[slot], x[column], out=work)
                np.subtract(value, work, out=value)
            np.multiply(value, self._inverse[step.row], out=value)
