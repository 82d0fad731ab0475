"""Nodes at which only leakage flows: picoamperes, beside milliamperes elsewhere in the circuit.

A Newton step finds all unknowns at once from companion sources as large as the largest current, and what rounding
leaves of those (some parts in 1e16) is as large as a picoampere: such a node may come out tenths of a volt above
everything that feeds it. Here the step is found from what is left over of Kirchhoff's law, which every node's own
currents give to their own last digit (iterative refinement, Wilkinson 1963).
"""

import numpy as np
from numpy.typing import NDArray

from swapglow.core.engine.devices import GMIN
from swapglow.core.engine.mna import Junctions, System
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.engine.newton import Outcome, as_they_stand, left_over
from swapglow.core.engine.solvers import solver_for

FloatArray = NDArray[np.float64]

# At rest once no unknown moves by more, V or A.
REST = 1e-9
# No step is longer: a few n·Vt, which a junction's exponential lets be believed.
LONGEST_V = 0.1
MOST_STEPS = 60


def at_rest(system: System, outcome: Outcome, which: NDArray[np.intp]) -> None:
    """Refine some samples of an outcome until their unknowns no longer move; those that go on moving stay as they are.

    Args:
        system: the equations of those samples.
        outcome: where Newton's method came to; takes what is found.
        which: places of the samples in it.
    """
    x = outcome.x[:, which]
    held = outcome.junctions.take(which)
    drive, solver = system.drive()[:-1], solver_for(system)
    still = np.zeros(len(which), dtype=bool)
    for _ in range(MOST_STEPS):
        v = as_they_stand(system, x, held)
        left, _, _ = left_over(system, x, v, drive, GMIN)
        entries = system.evaluate(x, v, GMIN).entries
        try:
            step = solver.solve(system.nonlinear_scatter @ entries, -left)
        except CircuitError:
            return
        # A sample gone astray stays where it is, and does not drag the others.
        lost = ~np.isfinite(step).all(axis=0)
        step[:, lost] = 0.0
        longest = np.abs(step).max(axis=0)
        still = (longest <= REST) & ~lost
        if (still | lost).all():
            break
        x[:-1] += step * np.minimum(1.0, LONGEST_V / np.maximum(longest, LONGEST_V))
    outcome.x[:, which[still]] = x[:, still]
    now: Junctions = as_they_stand(system, x, held)
    for name in ("diode", "be", "bc"):
        getattr(outcome.junctions, name)[:, which[still]] = getattr(now, name)[:, still]
