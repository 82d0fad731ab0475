"""Newton's method with junction limiting, for all samples of a system at once.

The limiter is SPICE's: a junction may not jump further than its exponential lets it be believed
(Nagel, SPICE2, 1975).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.engine import devices
from swapglow.core.engine.mna import Junctions, System, dense
from swapglow.core.engine.solvers import LinearSolver

FloatArray = NDArray[np.float64]

# Newton's error after a step is about the step squared over n·Vt: a last step of a microvolt
# leaves some 1e-11 V, parts in 1e9 of a junction's current.
STEP_V = 1e-6
STEP_RELATIVE = 1e-9
MOST_STEPS = 100
# Steps at which the currents are balanced outright, lest rounding keep a settled circuit going.
LOOK_AGAIN = (10, 16, 24, 40, 70)
IDLE_V = 1e-3
# What may be left of Kirchhoff's current law, against the currents that meet at the node.
RESIDUAL = 1e-7
# As in SPICE (ABSTOL).
RESIDUAL_A = 1e-12
# Rounding leaves a trace of the largest junction current at nodes where almost nothing flows.
RESIDUAL_MOST = 2e-9
# And of the largest current a capacitor's history puts in: amperes, in a step of a mains-sized cycle.
RESIDUAL_HISTORY = 1e-12
# Up to so many unknowns the balance is summed by dense matrices.
LARGEST_DENSE = 60


@dataclass
class Outcome:
    """Where Newton's method came to.

    Attributes:
        x: unknowns with ground as a last row of zeros, (size + 1, samples).
        junctions: the junction voltages they rest on.
        converged: per sample.
        weak: per sample, whether so little flows at some node that rounding may have moved it.
        steps: Newton steps taken.
    """

    x: FloatArray
    junctions: Junctions
    converged: NDArray[np.bool_]
    weak: NDArray[np.bool_]
    steps: int


def critical(i_s: FloatArray, nvt: FloatArray) -> FloatArray:
    """The junction voltage above which its exponential is too steep to trust a large step.

    Args:
        i_s: saturation current, A.
        nvt: n·Vt, V.

    Returns:
        V, shape of both (SPICE's vcrit).
    """
    return np.asarray(nvt * np.log(nvt / (np.sqrt(2.0) * i_s)))


def limited(new: FloatArray, old: FloatArray, nvt: FloatArray, crit: FloatArray) -> FloatArray:
    """SPICE's junction limiter.

    Args:
        new, old: junction volts after and before the step, one shape.
        nvt: n·Vt, V.
        crit: from :func:`critical`, V.

    Returns:
        V, shape of ``new`` (Nagel 1975, pnjlim).
    """
    with np.errstate(divide="ignore", invalid="ignore"):
        step = (new - old) / nvt
        beyond = (new > crit) & (np.abs(step) > 2)
        if not beyond.any():
            return new
        climb = np.where(
            old > 0,
            np.where(step > -1, old + nvt * np.log1p(np.maximum(step, -0.999)), crit),
            nvt * np.log(np.maximum(new / nvt, 1e-30)),
        )
    return np.where(beyond, climb, new)


def cold_start(system: System) -> Junctions:
    """Junctions at their critical voltage, as SPICE starts; contacts as they are given."""
    s = system.samples
    diode = np.zeros((len(system.diodes), s))
    if system.diodes:
        diode[:] = critical(system.diode_is, system.diode_nvt)
    be = np.zeros((len(system.bjts), s))
    if system.bjts:
        be[:] = critical(system.bjt_arrays.i_s, system.bjt_arrays.nvt_f)
    closed = np.zeros((len(system.switches), s), dtype=bool)
    for k, switch in enumerate(system.switches):
        closed[k] = switch.starts_on
    return Junctions(diode, be, np.zeros_like(be), closed)


def _moved(
    system: System, x: FloatArray, old: Junctions, slopes: FloatArray, most: FloatArray
) -> tuple[Junctions, FloatArray]:
    """Junctions after a step, limited, and per sample how far the step itself went (V).

    A dark diode between nodes that only gmin ties down is only known to rounding: a move of its
    voltage that moves no current (``slopes`` in S, ``most`` the circuit's largest junction current)
    does not count.
    """
    change = np.zeros(x.shape[1])
    diode, be, bc, closed = old.diode, old.be, old.bc, old.closed
    if system.diodes:
        a, c = system.junction_ends.T
        raw = x[a] - x[c]
        gap = np.abs(raw - diode)
        idle = (gap * slopes <= RESIDUAL_A + RESIDUAL_MOST * most) & (gap <= IDLE_V * (1 + np.abs(raw)))
        change = np.maximum(change, np.where(idle, 0.0, gap).max(axis=0))
        nvt = system.diode_nvt
        diode = limited(raw, diode, nvt, critical(system.diode_is, nvt))
        if system.diode_knee is not None:
            diode = _limit_breakdown(system, raw, old.diode, diode)
    if system.bjts:
        c_, b_, e_ = system.bjt_nodes.T
        sign, p = system.bjt_sign, system.bjt_arrays
        raw_be, raw_bc = sign * (x[b_] - x[e_]), sign * (x[b_] - x[c_])
        change = np.maximum(change, np.abs(raw_be - be).max(axis=0))
        change = np.maximum(change, np.abs(raw_bc - bc).max(axis=0))
        be = limited(raw_be, be, p.nvt_f, critical(p.i_s, p.nvt_f))
        bc = limited(raw_bc, bc, p.nvt_r, critical(p.i_s, p.nvt_r))
    if system.switches:
        closed = _contacts(system, x, old.closed)
        change = np.where((closed != old.closed).any(axis=0), np.inf, change)
    return Junctions(diode, be, bc, closed), change


def _limit_breakdown(system: System, raw: FloatArray, old: FloatArray, forward: FloatArray) -> FloatArray:
    """The limiter mirrored about the breakdown knee, as SPICE does for avalanche."""
    knee = system.diode_knee
    assert knee is not None
    nvt = system.diode_nvt
    beyond = raw < np.minimum(0.0, -knee + 10 * nvt)
    with np.errstate(invalid="ignore"):
        mirrored = limited(-(raw + knee), -(old + knee), nvt, critical(system.diode_is, nvt))
        return np.where(beyond & np.isfinite(knee), -(mirrored + knee), forward)


def newton(
    system: System,
    solver: LinearSolver,
    drive: FloatArray,
    start: Junctions,
    x: FloatArray | None = None,
    *,
    gmin: float = devices.GMIN,
    most_steps: int = MOST_STEPS,
) -> Outcome:
    """Iterate from ``start`` until every sample has settled or the steps run out.

    Args:
        system: the equations.
        solver: solves one step of them.
        drive: right-hand side of the sources, A and V, (size, samples).
        start: junction voltages to begin with, V.
        x: solution to begin with, (size + 1, samples), where one is known.
        gmin: conductance across each junction, S.
        most_steps: after how many steps to give up.

    Returns:
        Unknowns, the junction voltages they rest on, and which samples have settled.
    """
    samples = system.samples
    v = start
    now = np.zeros((system.size + 1, samples)) if x is None else x.copy()
    settled: NDArray[np.bool_] = np.zeros(samples, dtype=bool)
    steps = 0
    for _ in range(most_steps):
        steps += 1
        ev = system.evaluate(now, v, gmin)
        new = np.zeros_like(now)
        new[:-1] = solver.solve(system.nonlinear_scatter @ ev.entries, drive - system.current_scatter @ ev.offsets)
        if not system.is_nonlinear:
            finite: NDArray[np.bool_] = np.asarray(np.isfinite(new).all(axis=0))
            return Outcome(new, v, finite, np.zeros(samples, dtype=bool), steps)
        most = np.abs(ev.currents).max(axis=0)
        moved, change = _moved(system, new, v, ev.entries[: len(system.diodes)], most)
        travel = np.abs(new - now)
        if system.regulators or system.current_regulators:
            travel_ok = (travel <= STEP_V + STEP_RELATIVE * np.abs(new)).all(axis=0)
        else:
            travel_ok = np.ones(samples, dtype=bool)
        with np.errstate(invalid="ignore"):
            settled = (change <= STEP_V) & travel_ok
        now, v = new, moved
        if settled.all():
            break
        if steps in LOOK_AGAIN and _proved(system, now, v, drive, gmin).all():
            break
        if not np.isfinite(now).all():
            # A sample gone astray must not drag the others: it is put back to its start.
            stray = ~np.isfinite(now).all(axis=0)
            now[:, stray] = 0.0
            fresh = cold_start(system)
            v.diode[:, stray] = fresh.diode[:, stray]
            v.be[:, stray] = fresh.be[:, stray]
            v.bc[:, stray] = fresh.bc[:, stray]
    balance = kirchhoff(system, now, v, drive, gmin)
    good, weak = balance.holds & settled, balance.weak
    if not good.all():
        # Rounding may keep a node that only gmin ties down from coming to rest: what counts is
        # whether the currents balance at the voltages as they stand.
        good = good | _proved(system, now, v, drive, gmin)
        v = as_they_stand(system, now, v)
        weak = weak | ~settled
    return Outcome(now, v, np.asarray(good, dtype=np.bool_), weak, steps)


def as_they_stand(system: System, x: FloatArray, v: Junctions) -> Junctions:
    """Junction voltages of the unknowns themselves, without the limiter.

    Args:
        system: the equations.
        x: the unknowns, V and A, (size + 1, samples).
        v: junctions whose contacts are kept.

    Returns:
        Junction voltages, V.
    """
    diode, be, bc = v.diode, v.be, v.bc
    if system.diodes:
        a, c = system.junction_ends.T
        diode = x[a] - x[c]
    if system.bjts:
        c_, b_, e_ = system.bjt_nodes.T
        be, bc = system.bjt_sign * (x[b_] - x[e_]), system.bjt_sign * (x[b_] - x[c_])
    return Junctions(diode, be, bc, v.closed)


def _proved(system: System, x: FloatArray, v: Junctions, drive: FloatArray, gmin: float) -> NDArray[np.bool_]:
    standing = as_they_stand(system, x, v)
    good = kirchhoff(system, x, standing, drive, gmin).holds
    if system.switches:
        good &= (_contacts(system, x, v.closed) == v.closed).all(axis=0)
    return good


def _contacts(system: System, x: FloatArray, closed: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Contacts as their control voltages set them; within the hysteresis they stay as they are."""
    control = x[system.switch_nodes[:, 2]] - x[system.switch_nodes[:, 3]]
    up = np.array([[s.model.threshold + s.model.hysteresis] for s in system.switches])
    down = np.array([[s.model.threshold - s.model.hysteresis] for s in system.switches])
    return np.asarray(np.where(control > up, True, np.where(control < down, False, closed)))


@dataclass(frozen=True)
class Balance:
    """How the currents at the nodes sum up, sample by sample, (samples,) each.

    Attributes:
        holds: they sum to nothing, as far as rounding lets it be told: the answer is one.
        weak: at some node so little flows that what is left over is not small beside it.
    """

    holds: NDArray[np.bool_]
    weak: NDArray[np.bool_]


def left_over(
    system: System, x: FloatArray, v: Junctions, drive: FloatArray, gmin: float
) -> tuple[FloatArray, FloatArray, FloatArray]:
    """What is left of Kirchhoff's current law, and the currents it is left of.

    Args:
        system: the equations.
        x: the solution, V and A, (size + 1, samples).
        v: junction voltages, V.
        drive: right-hand side of the sources, A and V, (size, samples).
        gmin: conductance across each junction, S.

    Returns:
        What is left at each row and the sum of the magnitudes that meet there, A and V, (size, samples) each;
        and the nonlinear parts' currents, A.
    """
    ohmic = system.ohmic_amps(x)
    nonlinear = system.nonlinear_amps(x, v, gmin)
    if system.size > LARGEST_DENSE:
        left = system.ohmic_rows @ ohmic + system.current_scatter @ nonlinear - drive
        scale = abs(system.ohmic_rows) @ np.abs(ohmic) + system.current_scatter @ np.abs(nonlinear)
    else:
        rows, sizes = system.balance
        flows = np.concatenate([ohmic, nonlinear])
        left = rows @ flows - drive
        scale = sizes @ np.abs(flows, out=flows)
    scale += np.abs(drive)
    return left, scale, nonlinear


def kirchhoff(system: System, x: FloatArray, v: Junctions, drive: FloatArray, gmin: float) -> Balance:
    """Whether the currents at every node sum to nothing, sample by sample.

    This is the proof that an answer is one: it does not depend on how the answer was reached.

    Args:
        system: the equations.
        x: the solution, V and A, (size + 1, samples).
        v: junction voltages, V.
        drive: right-hand side of the sources, A and V, (size, samples).
        gmin: conductance across each junction, S.

    Returns:
        Yes or no, and where a node has next to nothing to go by.
    """
    left, scale, nonlinear = left_over(system, x, v, drive, gmin)
    most = np.abs(nonlinear).max(axis=0) if len(nonlinear) else 0.0
    put_in = np.abs(drive[: len(system.nodes)]).max(axis=0) if system.nodes else 0.0
    scale *= RESIDUAL
    np.abs(left, out=left)
    close = np.asarray((left <= scale).all(axis=0))
    if close.all():
        return Balance(close, ~close)
    scale += RESIDUAL_A + RESIDUAL_MOST * most + RESIDUAL_HISTORY * put_in
    holds = np.asarray((left <= scale).all(axis=0))
    if not holds.all():
        # What is left may be no more than the last digits of large voltages across small resistances.
        moved = system.ohmic_rounding(x)
        wide: FloatArray = np.ascontiguousarray(np.broadcast_to(moved, (moved.shape[0], x.shape[1])))
        sizes_only: FloatArray = np.abs(dense(system.ohmic_rows))
        scale = scale + sizes_only @ wide
        holds = np.asarray((left <= scale).all(axis=0))
    return Balance(holds, holds & ~close)
