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
from dataclasses import dataclass
from fractions import Fraction

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuit import ports as fast
from swapglow.core.circuit import structure
from swapglow.core.circuit.devices import GMIN
from swapglow.core.circuit.in_time import InTime
from swapglow.core.circuit.netlist import (
    Circuit,
    CircuitError,
    Diode,
    Pulse,
    Sine,
    Wave,
)
from swapglow.core.circuit.newton import critical, kirchhoff_holds
from swapglow.core.circuit.operating_point import NotConverged
from swapglow.core.circuit.system import System
from swapglow.core.circuit.transient import Transient, transient
from swapglow.core.circuit.waves import corners

FloatArray = NDArray[np.float64]

THETA = 0.55
FIRST_GRID = 240
LARGEST_GRID = 1600
ROUNDS = 3
MOST_STEPS = 200
# A change of slope beyond this share of the largest value in one interval asks for a finer grid.
BEND = 4e-3
STEP_V = 1e-4
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
        return float((self._weights() * values).sum() / self.period)

    def rms(self, values: FloatArray) -> float:
        """Root of the mean square."""
        return math.sqrt(self.average(values**2))

    def ripple(self, values: FloatArray) -> float:
        """Peak to peak."""
        return float(values.max() - values.min())

    def peak_reverse(self, name: str) -> float:
        """The most volts a diode stands in reverse; 0 where it never does."""
        if not isinstance(self.circuit.element(name), Diode):
            raise CircuitError(f"{name} is no diode.")
        return max(0.0, float(-self.across(name).min()))

    def conduction_deg(self, name: str) -> float:
        """Degrees of the cycle in which a part carries over 1 % of its peak current."""
        amps = self.current(name)
        on = (amps > 0.01 * amps.max()).astype(float)
        return 360.0 * self.average(on) if amps.max() > 0 else 0.0

    def modulation(self, light: FloatArray) -> tuple[float, float]:
        """Flicker of a light: (max − min)/(max + min) in %, and its frequency in Hz.

        Modulation as IEEE 1789-2015 defines it; the frequency is the strongest harmonic's.
        """
        top, low = float(light.max()), float(light.min())
        if top + low <= 0 or top - low < 1e-9 * top:
            return 0.0, 0.0
        even = np.interp(
            np.arange(512) / 512 * self.period, np.append(self.t, self.period), np.append(light, light[0])
        )
        harmonic = 1 + int(np.argmax(np.abs(np.fft.rfft(even))[1:]))
        return 100 * (top - low) / (top + low), harmonic / self.period

    def _weights(self) -> FloatArray:
        gaps = np.diff(np.append(self.t, self.period))
        return (gaps + np.roll(gaps, 1)) / 2


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


class _Cycle:
    """The whole cycle as one problem."""

    def __init__(self, circuit: Circuit, period: float) -> None:
        self.circuit = circuit
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
        for attempt in range(ROUNDS):
            answer = self._newton()
            if answer is None:
                return None
            finer = self._finer(answer)
            if attempt == ROUNDS - 1 or finer is None:
                return answer
            self._refine(finer)
        return None

    def _newton(self) -> SteadyState | None:
        gaps = np.diff(np.append(self.t, self.period))
        h = np.roll(gaps, 1)  # the step that ends at each instant
        base = System(self.circuit, samples=len(self.t))
        slopes = base.storage[:, None] / (THETA * h)
        system = base.with_companion(slopes) if base.reactive else base
        ports = fast.ports_of(system)
        drive = system.drive(self.t)[:-1]
        frame = fast.frame_of(system, ports)
        cycle = _Linear(system, ports, frame, drive, slopes)
        count = len(ports.ends)
        crit = critical(ports.i_s, ports.nvt)
        v = np.broadcast_to(crit, (count, len(self.t))).copy() if self.v is None else self.v
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
        x, flow = cycle.unknowns(v, history)
        junctions = fast.junctions_at(system, v)
        closed = system.drive(self.t, history)[:-1] if base.reactive else drive
        if not kirchhoff_holds(system, x, junctions, closed, GMIN).all():
            return None
        return SteadyState(self.circuit, self.t, system, x, junctions, flow, self.period)

    def _finer(self, s: SteadyState) -> NDArray[np.bool_] | None:
        """Which intervals to halve: those next to a bend of a port's current or a state."""
        values = [s.current(d.name) for d in s._system.diodes]
        values += list(s._system.states(s._x))
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
        closed = np.concatenate([self.v, self.v[:, :1]], axis=1)
        grid = np.sort(np.concatenate([self.t, middles]))
        self.v = np.stack([np.interp(grid, ends, row) for row in closed])
        self.t = grid


class _Linear:
    """All instants of a cycle linearised at their ports, and the circle closed."""

    def __init__(self, system: System, ports: fast.Ports, frame: fast.Frame, drive: FloatArray,
                 slopes: FloatArray) -> None:  # fmt: skip
        self.system, self.ports, self.slopes = system, ports, slopes
        self.kinds = len(system.reactive)
        self.seen = fast.look(system, ports, frame, drive, self._memory_ends())
        count = len(ports.ends)
        # Answers to one unit of history of each reactive part.
        self.per_unit = self.seen.per_amp[:, count:]
        self.per_amp = self.seen.per_amp[:, :count]
        plus, minus = ports.ends.T
        self.port_per_unit = self.per_unit[plus] - self.per_unit[minus]

    def _memory_ends(self) -> list[tuple[int, int]]:
        """Where each reactive part's history enters: into its first node, out of its second."""
        size = self.system.size
        ends = [(int(b), int(a)) for a, b in self.system.capacitor_nodes.tolist()]
        return ends + [(self.system.branches[m.name], size) for m in self.system.inductors]

    def step(self, v: FloatArray) -> tuple[FloatArray, FloatArray]:
        """Newton's step of the port voltages, (ports, instants), and the history that closes the cycle."""
        p, seen = self.ports, self.seen
        ohms = seen.ohms
        count, instants = v.shape
        t = fast.transport(p, v)
        amps = (p.mix * t.amps).sum(axis=1)
        share = 1.0 - fast.PORT_S * p.r_s
        series = ohms * share
        series[np.arange(count), np.arange(count)] += p.r_s
        base = -fast.PORT_S * ohms
        base[np.arange(count), np.arange(count)] += 1.0
        gain = p.mix * t.siemens
        slope = np.einsum("ij...,jk...->ik...", series, gain) + base
        fault = seen.open - v - p.r_s * amps - (ohms * (share * amps - fast.PORT_S * v)).sum(axis=1)
        # Step = J⁻¹·(fault + what the history adds): one column for the fault, one a reactive part.
        adds = np.broadcast_to(self.port_per_unit, (count, self.kinds, instants))
        right = np.concatenate([fault[:, None], adds], axis=1)
        answers = np.linalg.solve(slope.transpose(2, 0, 1), right.transpose(2, 0, 1)).transpose(1, 2, 0)
        alone, per_unit = answers[:, 0], answers[:, 1:]
        if not self.kinds:
            return alone, np.zeros((0, instants))
        history = self._close(v, alone, per_unit, amps, gain, share)
        return alone + (per_unit * history).sum(axis=1), history

    def _close(self, v: FloatArray, alone: FloatArray, per_unit: FloatArray, amps: FloatArray,
               gain: FloatArray, share: FloatArray) -> FloatArray:  # fmt: skip
        """The history that comes back to itself after one cycle, (parts, instants).

        With u = a + G·r at every instant and w = slope·u − r, the next history is
        r' = c'·u + e·w with c' the next slope and e = (1 − θ)/θ.
        """
        through = share[:, None] * gain
        # Currents put into the straight part: linear in the step of the port voltages.
        fixed = share * amps - fast.PORT_S * v
        moved = (through * alone).sum(axis=1) - fast.PORT_S * alone
        per = np.einsum("ij...,jk...->ik...", through, per_unit) - fast.PORT_S * per_unit
        now = self.seen.free + (self.per_amp * (fixed + moved)).sum(axis=1)
        answers = self.per_unit + np.einsum("ij...,jk...->ik...", self.per_amp, per)
        a = self.system.states(now)
        g = self.system.states(answers)
        e = (1 - THETA) / THETA
        ahead = np.roll(self.slopes, -1, axis=1)
        factor = ahead + e * self.slopes
        m = factor * a
        big = factor[:, None] * g
        big[np.arange(self.kinds), np.arange(self.kinds)] -= e
        return _around(m, big)

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


def _around(m: FloatArray, big: FloatArray) -> FloatArray:
    """Solve r[k + 1] = m[k] + M[k]·r[k] around the circle; (parts, instants)."""
    parts, instants = m.shape
    if parts == 1:
        return _around_one(m[0].tolist(), big[0, 0].tolist())[None]
    steps = big.transpose(2, 0, 1)
    adds = m.T
    total, offset = np.eye(parts), np.zeros(parts)
    for k in range(instants):
        total, offset = steps[k] @ total, steps[k] @ offset + adds[k]
    r = np.linalg.solve(np.eye(parts) - total, offset)
    out = np.empty((parts, instants))
    for k in range(instants):
        out[:, k] = r
        r = steps[k] @ r + adds[k]
    return out


def _around_one(m: list[float], factor: list[float]) -> FloatArray:
    """The same for one part, in plain numbers."""
    total, offset = 1.0, 0.0
    for add, f in zip(m, factor, strict=True):
        total *= f
        offset = f * offset + add
    r = offset / (1.0 - total)
    out = []
    for add, f in zip(m, factor, strict=True):
        out.append(r)
        r = f * r + add
    return np.array(out)


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
