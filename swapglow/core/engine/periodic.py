"""Steady state of a circuit on periodic supplies: the whole cycle solved at once.

The instants of one cycle are the samples of a batch; what ties them together is only the memory of
capacitors and inductors. Newton's method therefore runs over the whole cycle: at each step every
instant is linearised at its ports, which makes the memory's history r an affine map from instant
to instant, r' = m + M·r; one pass around the circle finds the r that returns to itself, and all
instants follow. Where steps are long for what happens in them the grid is made finer and the cycle
solved again from where it stood.

Each step is the θ rule with θ = 0.55: the trapezoidal rule, damped enough that a diode switching
off does not make a capacitor's current ring. References: Aprille and Trick (1972) for the periodic
problem; Kundert and Sangiovanni-Vincentelli for solving all instants together.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction

import numpy as np
import scipy
from numpy.typing import NDArray

from swapglow.core.engine import ports as fast
from swapglow.core.engine import topology as structure
from swapglow.core.engine.currents import current_of
from swapglow.core.engine.devices import GMIN
from swapglow.core.engine.elimination import eliminate
from swapglow.core.engine.in_time import InTime
from swapglow.core.engine.mna import System
from swapglow.core.engine.netlist import Capacitor, Circuit, CircuitError, FullWave, Pulse, Sine, Wave, samples_of
from swapglow.core.engine.newton import critical, kirchhoff
from swapglow.core.engine.operating_point import NotConverged, subset
from swapglow.core.engine.transient import Transient, transient
from swapglow.core.engine.waveforms import corners

FloatArray = NDArray[np.float64]

THETA = 0.55
FIRST_GRID = 240
LARGEST_GRID = 1600
ROUNDS = 3
MOST_STEPS = 200
# A change of slope beyond this share of the largest value in one interval asks for a finer grid.
BEND = 4e-3
STEP_V = 1e-4
POLISH = 3
MOST_CYCLES = 36
REPEATS = 1e-4


@dataclass(frozen=True)
class SteadyState(InTime):
    """One cycle, after everything has settled.

    Attributes:
        period: s; the instants run from 0 up to but without it.
    """

    period: float

    def average(self, values: FloatArray) -> float:
        """Mean over the cycle (trapezoids, closed on itself)."""
        return float(self.averages(values))

    def averages(self, values: FloatArray) -> FloatArray:
        """Means over the cycle of values (..., instants)."""
        return np.asarray((self._weights() * values).sum(axis=-1) / self.period)

    def rms(self, values: FloatArray) -> float:
        """Root of the mean square."""
        return math.sqrt(self.average(values**2))

    def ripple(self, values: FloatArray) -> float:
        """Peak to peak."""
        return float(values.max() - values.min())

    def modulation(self, light: FloatArray) -> tuple[float, float]:
        """Flicker of a light: (max − min)/(max + min) in %, and its frequency in Hz.

        Modulation as IEEE 1789-2015 defines it; the frequency is the strongest harmonic's.
        """
        top, low = float(light.max()), float(light.min())
        if top + low <= 0 or top - low < 1e-9 * top:
            return 0.0, 0.0
        even = np.interp(np.arange(512) / 512 * self.period, np.append(self.t, self.period), np.append(light, light[0]))
        harmonic = 1 + int(np.argmax(np.abs(np.fft.rfft(even))[1:]))
        return 100 * (top - low) / (top + low), harmonic / self.period

    def _weights(self) -> FloatArray:
        gaps = np.diff(np.append(self.t, self.period))
        return (gaps + np.roll(gaps, 1)) / 2


@dataclass(frozen=True)
class SteadyStates(SteadyState):
    """One cycle of every case of a batch: values have the shape (cases, instants).

    Attributes:
        cases: how many.
    """

    cases: int

    def voltage(self, node: str) -> FloatArray:
        """Volts of a node against ground, (cases, instants)."""
        if node in ("0", "gnd"):
            return np.zeros((self.cases, len(self.t)))
        return super().voltage(node).reshape(self.cases, -1)

    def current(self, name: str) -> FloatArray:
        """Amps into a part's first terminal, (cases, instants)."""
        part = self.circuit.element(name)
        if isinstance(part, Capacitor):
            amps = self._flow[self._system.capacitors.index(part)]
        else:
            amps = current_of(self._system, self._x, self._junctions, name, np.tile(self.t, self.cases))
        return np.asarray(amps).reshape(self.cases, -1)


def period_of(circuit: Circuit) -> float:
    """The shortest time after which all sources repeat together.

    Raises:
        CircuitError: no source repeats, or they never do so together.
    """
    found: list[Fraction] = []
    for e in circuit.elements:
        wave: Wave | None = getattr(e, "wave", None)
        if isinstance(wave, Sine):
            found.append(1 / Fraction(wave.hertz).limit_denominator(10**6))
        elif isinstance(wave, FullWave):
            found.append(1 / (2 * Fraction(wave.hertz).limit_denominator(10**6)))
        elif isinstance(wave, Pulse) and math.isfinite(wave.period):
            found.append(Fraction(wave.period).limit_denominator(10**9))
    if not found:
        raise CircuitError("No source of the circuit repeats: there is no cycle to settle to.")
    whole = found[0]
    for other in found[1:]:
        whole = Fraction(
            math.lcm(whole.numerator * other.denominator, other.numerator * whole.denominator),
            whole.denominator * other.denominator,
        )
    if whole > 1000 * min(found):
        raise CircuitError("The sources' frequencies do not repeat together within 1000 cycles.")
    return float(whole)


def steady_state(circuit: Circuit) -> SteadyState:
    """Solve a circuit on periodic supplies for its settled cycle.

    Args:
        circuit: parameters must be plain numbers.

    Raises:
        CircuitError: the circuit cannot have an answer.
        NotConverged: no settled cycle was found.
    """
    structure.check(circuit)
    period = period_of(circuit)
    base = System(circuit)
    if base.samples != 1:
        raise CircuitError("A cycle takes one set of values, not a batch.")
    if fast.suits(base):
        found = _Cycle(circuit, period).solved()
        if found is not None:
            return found
    return _marched(circuit, base, period)


def steady_states(circuit: Circuit, near: SteadyStates | None = None) -> SteadyStates:
    """The settled cycles of a batch, all solved together on one grid of instants.

    Args:
        circuit: linear parts and junctions; parameters are numbers or arrays of one length.
        near: the cycles of the same parts at other values, to start from.

    Returns:
        Volts and amps of every case on one row of instants.

    Raises:
        CircuitError: the circuit cannot have an answer, or has parts this method does not take.
        NotConverged: some case has no settled cycle; none is then given.
    """
    structure.check(circuit)
    cases = samples_of(circuit)
    if not fast.suits(System(circuit)):
        raise CircuitError("Cycles of a batch take resistors, capacitors, inductors, diodes and transistors.")
    period = period_of(circuit)
    batch = _Cycle(circuit, period, cases)
    if near is not None:
        batch.t, batch.v = near.t, fast.volts_at(near._junctions)
    elif cases > 2:
        # One case from the middle shows the grid, and where the rest will come to.
        one = _Cycle(subset(circuit, np.array([cases // 2])), period)
        if one.solved() is not None and one.v is not None:
            batch.t, batch.v = one.t, np.tile(one.v, (1, cases))
    found = batch.solved()
    if found is None and batch.v is not None:
        found = _Cycle(circuit, period, cases).solved()
    if found is None:
        raise NotConverged(
            "No settled cycle was found for some of the cases, so none is shown: look at capacitor, drive and volts."
        )
    return SteadyStates(
        found.circuit, found.t, found._system, found._x, found._junctions, found._flow, found.period, cases
    )


class _Cycle:
    """The whole cycle as one problem; the cases of a batch stand one after another."""

    def __init__(self, circuit: Circuit, period: float, cases: int = 1) -> None:
        self.circuit = circuit
        self.cases = cases
        self.period = period
        edges = {0.0}
        for e in circuit.elements:
            wave: Wave | None = getattr(e, "wave", None)
            if wave is not None:
                edges |= set(corners(wave, 0.0, period))
        even = np.linspace(0.0, period, FIRST_GRID, endpoint=False)
        grid = np.unique(np.concatenate([even, np.array(sorted(edges))]))
        # Instants closer than a millionth of a cycle are one.
        self.t = grid[np.append(True, np.diff(grid) > period * 1e-9)]
        self.v: FloatArray | None = None

    def solved(self) -> SteadyState | None:
        """The settled cycle, or None where Newton's method does not get there."""
        kept: SteadyState | None = None
        for attempt in range(ROUNDS):
            answer = self._newton()
            if answer is None:
                # A finer grid that does not come to rest leaves the proved answer of the coarser one.
                return kept
            kept = answer
            finer = self._finer(answer)
            if attempt == ROUNDS - 1 or finer is None:
                return answer
            self._refine(finer)
        return kept

    def _newton(self) -> SteadyState | None:
        gaps = np.diff(np.append(self.t, self.period))
        h = np.tile(np.roll(gaps, 1), self.cases)  # the step that ends at each instant
        seconds = np.tile(self.t, self.cases)
        circuit = self.circuit
        if self.cases > 1:
            circuit = subset(circuit, np.repeat(np.arange(self.cases), len(self.t)))
        base = System(circuit, samples=len(seconds))
        slopes = base.storage / (THETA * h)
        system = base.with_companion(slopes) if base.reactive else base
        ports = fast.ports_of(system)
        drive = system.drive(seconds)[:-1]
        frame = fast.frame_of(system, ports)
        cycle = _Linear(system, ports, frame, drive, slopes, self.cases)
        count = len(ports.ends)
        crit = critical(ports.i_s, ports.nvt)
        v = np.broadcast_to(crit, (count, len(seconds))).copy() if self.v is None else self.v
        settled = False
        for _ in range(MOST_STEPS):
            step, history = cycle.step(v)
            if not np.isfinite(step).all():
                return None
            v = fast.limited_step(ports, v, step, crit)
            if settled:
                break
            settled = bool((np.abs(step) <= STEP_V).all())
        else:
            return None
        self.v = v
        for _ in range(1 + POLISH):
            x, flow = cycle.unknowns(v, history)
            junctions = fast.junctions_at(system, v)
            closed = system.drive(seconds, history)[:-1] if base.reactive else drive
            if kirchhoff(system, x, junctions, closed, GMIN).holds.all():
                return SteadyState(circuit, self.t, system, x, junctions, flow, self.period)
            # Where a whole cycle hangs on a picoampere one more step brings it home.
            step, history = cycle.step(v)
            v = v + step
        return None

    def _finer(self, s: SteadyState) -> NDArray[np.bool_] | None:
        """Which intervals to halve: those next to a bend of a port's current or a state."""
        seconds = np.tile(self.t, self.cases)
        wave = [current_of(s._system, s._x, s._junctions, d.name, seconds) for d in s._system.diodes]
        wave += list(s._system.states(s._x))
        values = [row for w in wave for row in w.reshape(self.cases, -1)]
        t = np.concatenate([[self.t[-1] - self.period], self.t, [self.period]])
        bends = np.zeros(len(self.t), dtype=bool)
        for y in values:
            around = np.concatenate([[y[-1]], y, [y[0]]])
            slope = np.diff(around) / np.diff(t)
            gap = np.minimum(t[1:-1] - t[:-2], t[2:] - t[1:-1])
            bends |= np.abs(np.diff(slope)) * gap > BEND * max(float(np.abs(y).max()), 1e-12) * 2
        halve: NDArray[np.bool_] = bends | np.roll(bends, -1)
        if not halve.any() or len(self.t) + int(halve.sum()) > LARGEST_GRID:
            return None
        return halve

    def _refine(self, halve: NDArray[np.bool_]) -> None:
        assert self.v is not None
        ends = np.append(self.t, self.period)
        middles = (ends[:-1] + ends[1:])[halve] / 2
        rows = self.v.reshape(-1, len(self.t))
        closed = np.concatenate([rows, rows[:, :1]], axis=1)
        grid = np.sort(np.concatenate([self.t, middles]))
        finer = np.stack([np.interp(grid, ends, row) for row in closed])
        self.v = finer.reshape(len(self.v), -1)
        self.t = grid


class _Linear:
    """All instants of a cycle linearised at their ports, and the circle closed."""

    def __init__(
        self, system: System, ports: fast.Ports, frame: fast.Frame, drive: FloatArray, slopes: FloatArray, cases: int
    ) -> None:
        self.system, self.ports, self.slopes, self.cases = system, ports, slopes, cases
        self.kinds = len(system.reactive)
        self.seen = fast.look(system, ports, frame, drive, self._memory_ends())
        count = len(ports.ends)
        # Answers to one unit of history of each reactive part.
        self.per_unit = self.seen.per_amp[:, count:]
        self.per_amp = self.seen.per_amp[:, :count]
        plus, minus = ports.ends.T
        self.port_per_unit = self.per_unit[plus] - self.per_unit[minus]
        # What Newton's step needs and no step moves.
        self.plain = ports.unmixed
        self.share = 1.0 - fast.PORT_S * ports.r_s
        own = np.arange(count)
        series = self.seen.ohms * self.share
        series[own, own] += ports.r_s
        self.series = series if self.plain else np.einsum("ij...,jk...->ik...", series, ports.mix)
        self.base = -fast.PORT_S * self.seen.ohms
        self.base[own, own] += 1.0
        # What the reactive parts see of the rest.
        self.state_free = system.states(self.seen.free)
        self.state_per_amp = system.states(self.per_amp)
        self.state_per_unit = system.states(self.per_unit)

    def _memory_ends(self) -> list[tuple[int, int]]:
        """Where each reactive part's history enters: into its first node, out of its second."""
        size = self.system.size
        ends = [(int(b), int(a)) for a, b in self.system.capacitor_nodes.tolist()]
        return ends + [(self.system.branches[m.name], size) for m in self.system.inductors]

    def step(self, v: FloatArray) -> tuple[FloatArray, FloatArray]:
        """Newton's step of the port voltages, (ports, instants), and the history that closes the cycle."""
        p, seen = self.ports, self.seen
        count, instants = v.shape
        t = fast.transport(p, v)
        amps = self._mixed(t.amps)
        # Currents put into the linear part at these volts.
        put = self.share * amps - fast.PORT_S * v
        fault = seen.open - v - p.r_s * amps - np.einsum("ij...,j...->i...", seen.ohms, put)
        # Step = J⁻¹·(fault + what the history adds): one column for the fault, one a reactive part.
        answers = self._answers(t.siemens, fault, eliminate if count <= _SMALL else _by_library)
        if not np.isfinite(answers).all() and count <= _SMALL:
            # A pivot that vanished: the library exchanges rows.
            answers = self._answers(t.siemens, fault, _by_library)
        alone, per_unit = answers[:, 0], answers[:, 1:]
        if not self.kinds:
            return alone, np.zeros((0, instants))
        history = self._close(t.siemens, put, alone, per_unit)
        return alone + (per_unit * history).sum(axis=1), history

    def _answers(
        self, siemens: FloatArray, fault: FloatArray, solve: Callable[[FloatArray, FloatArray], FloatArray]
    ) -> FloatArray:
        """The fault's answer and that to one unit of each reactive part's history, (ports, 1 + parts, instants)."""
        right = np.empty((len(fault), 1 + self.kinds, fault.shape[1]))
        right[:, 0] = fault
        right[:, 1:] = self.port_per_unit
        return solve(self.series * siemens + self.base, right)

    def _mixed(self, transported: FloatArray) -> FloatArray:
        """Currents through the ports from the junctions' own, (ports, ..., instants)."""
        return transported if self.plain else np.einsum("ij...,j...->i...", self.ports.mix, transported)

    def _close(self, siemens: FloatArray, put: FloatArray, alone: FloatArray, per_unit: FloatArray) -> FloatArray:
        """The history that comes back to itself after one cycle, (parts, instants).

        With u = a + G·r at every instant and w = slope·u − r, the next history is
        r' = c'·u + e·w with c' the next slope and e = (1 − θ)/θ.
        """
        # Currents put into the linear part are linear in the step of the port voltages.
        moved = self.share * self._mixed(siemens * alone) - fast.PORT_S * alone
        a = self.state_free + np.einsum("ij...,j...->i...", self.state_per_amp, put + moved)
        each = []
        for k in range(self.kinds):
            one = per_unit[:, k]
            per = self.share * self._mixed(siemens * one) - fast.PORT_S * one
            answer = np.einsum("ij...,j...->i...", self.state_per_amp, per)
            each.append(self.state_per_unit[:, k] + answer)
        g = np.stack(each, axis=1)
        e = (1 - THETA) / THETA
        rows = self.slopes.reshape(self.kinds, self.cases, -1)
        ahead = np.roll(rows, -1, axis=2).reshape(self.slopes.shape)
        factor = ahead + e * self.slopes
        m = factor * a
        big = factor[:, None] * g
        big[np.arange(self.kinds), np.arange(self.kinds)] -= e
        return _around(m, big, self.cases)

    def unknowns(self, v: FloatArray, history: FloatArray) -> tuple[FloatArray, FloatArray]:
        """All unknowns (size + 1, instants) and each reactive part's w at given port voltages."""
        p, system = self.ports, self.system
        amps = fast.port_amps(p, v)
        put = amps - fast.PORT_S * (v + p.r_s * amps)
        x = self.seen.free + (self.per_amp * put).sum(axis=1)
        if self.kinds:
            x = x + (self.per_unit * history).sum(axis=1)
        own = [k for k, d in enumerate(system.diodes) if d.name in system.inner]
        x[[system.inner[d.name] for d in system.with_rs]] = x[p.ends[own, 1]] + v[own]
        if not self.kinds:
            return x, np.zeros((0, v.shape[1]))
        return x, self.slopes * system.states(x) - history


def _around(m: FloatArray, big: FloatArray, cases: int) -> FloatArray:
    """Solve r[k + 1] = m[k] + M[k]·r[k] around the circle of each case; (parts, cases × instants).

    The cases' instants one after another are a triangular band: one pass of LAPACK's substitution follows
    them from nothing and from one unit of each part, and r[0] is what then comes back to itself.
    """
    parts, instants = len(m), m.shape[1] // cases
    steps = big.reshape(parts, parts, cases, instants)
    # One place more than instants: the last is the first again.
    band = np.zeros((2 * parts, cases, instants + 1, parts))
    for i in range(parts):
        for j in range(parts):
            band[parts + i - j, :, :-1, j] = -steps[i, j]
    right = np.zeros((1 + parts, cases, instants + 1, parts))
    right[0, :, 1:] = m.reshape(parts, cases, instants).transpose(1, 2, 0)
    for j in range(parts):
        right[1 + j, :, 0, j] = 1.0
    long = cases * (instants + 1) * parts
    found, _ = scipy.linalg.lapack.dtbtrs(
        band.reshape(2 * parts, long), right.reshape(1 + parts, long).T, uplo="L", diag="U", overwrite_b=1
    )
    offset, *total = found.T.reshape(right.shape)
    # What one unit of each part has become: (cases, parts, units) at the last place.
    whole = np.eye(parts) - np.stack([one[:, -1] for one in total], axis=-1)
    try:
        first = np.asarray(np.linalg.solve(whole, offset[:, -1, :, None]), dtype=float)
    except np.linalg.LinAlgError:
        # A history that never fades has no circle that closes.
        return np.full(m.shape, np.nan)
    out: FloatArray = offset[:, :-1]
    for j, one in enumerate(total):
        out += one[:, :-1] * first[:, j, None]
    return out.transpose(2, 0, 1).reshape(m.shape)


# Up to so many ports elimination over all samples at once beats a LAPACK call a sample.
_SMALL = 16


def _by_library(a: FloatArray, b: FloatArray) -> FloatArray:
    """Solve a·x = b for every sample, (n, n, samples) and (n, m, samples); nothing finite where one is singular."""
    try:
        found = np.linalg.solve(a.transpose(2, 0, 1), b.transpose(2, 0, 1))
    except np.linalg.LinAlgError:
        return np.full(b.shape, np.nan)
    return np.asarray(found.transpose(1, 2, 0))


def _marched(circuit: Circuit, system: System, period: float) -> SteadyState:
    """Cycle after cycle in time until one repeats: for parts the whole-cycle method does not take."""
    step = period / 200
    cycles = 4
    while cycles <= MOST_CYCLES:
        run = transient(circuit, cycles * period, step, start=(cycles - 2) * period)
        grid = np.arange(200) * step
        last, before = (
            np.stack([np.interp((cycles - back) * period + grid, run.t, run.voltage(n)) for n in run.nodes])
            for back in (1, 2)
        )
        if np.abs(last - before).max() <= REPEATS * max(float(np.abs(last).max()), 1e-9):
            return _last_cycle(run, cycles, period, system)
        cycles *= 3
    raise NotConverged(f"The circuit does not settle within {MOST_CYCLES} cycles.")


def _last_cycle(run: Transient, cycles: int, period: float, system: System) -> SteadyState:
    begin = (cycles - 1) * period
    keep = np.flatnonzero((run.t >= begin * (1 - 1e-12)) & (run.t < (begin + period) * (1 - 1e-9)))
    x, junctions, flow = run.unknowns
    return SteadyState(
        run.circuit, run.t[keep] - begin, system, x[:, keep], junctions.take(keep), flow[:, keep], period
    )
