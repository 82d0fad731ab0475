"""A run in time: implicit steps with error control, from the operating point or given conditions.

Each step solves the circuit with every capacitor and inductor replaced by its companion (Nagel,
SPICE2, 1975): w = slope·u − r, where the trapezoidal rule has slope 2K/h and r = slope·u' + w',
and backward Euler, used after every corner of a source, has slope K/h and r = slope·u'.
"""

from collections.abc import Callable
from contextlib import suppress
from functools import cached_property
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from swapglow.core.engine import topology as structure
from swapglow.core.engine.in_time import InTime
from swapglow.core.engine.mna import Junctions, System, level
from swapglow.core.engine.netlist import Circuit, CircuitError, nodes_of
from swapglow.core.engine.newton import cold_start, newton
from swapglow.core.engine.operating_point import NotConverged, operating_point
from swapglow.core.engine.solvers import solver_for
from swapglow.core.engine.straight import Code, straight_line, suits
from swapglow.core.engine.waveforms import corners, steps_needed

FloatArray = NDArray[np.float64]
Floats = list[float]

MOST_STEPS = 400_000
TELL_EVERY = 500
# A step's error, against the largest value a state has had, and absolutely (V or A).
RELATIVE = 1e-4
ABSOLUTE = 1e-6
SHORTEST = 1e-9  # of the run


class Transient(InTime):
    """A solved run."""


def transient(
    circuit: Circuit,
    stop: float,
    step: float,
    *,
    start: float = 0.0,
    longest: float | None = None,
    from_conditions: bool = False,
    tell: Callable[[float], None] = lambda done: None,
) -> Transient:
    """Run a circuit from 0 to ``stop`` seconds.

    Args:
        circuit: parameters must be plain numbers.
        stop, step: end of the run and the printing step, s; no step is longer than ``step`` or a
            fiftieth of the run.
        start: instants before it are not kept.
        longest: longest step, s, in place of that rule.
        from_conditions: start from the parts' own initial values and not from the operating point.
        tell: called now and then with the share of the run that is done, 0 to 1.

    Returns:
        Volts and amps at every instant that was solved, from ``start`` on.

    Raises:
        CircuitError: the circuit cannot have an answer, or the run would need too many steps.
        NotConverged: a step has no answer.
    """
    structure.check(circuit)
    if not 0 < step <= stop < np.inf or not 0 <= start < stop:
        raise CircuitError("A run needs a step and an end above 0, the start before the end.")
    system = System(circuit)
    if system.samples != 1:
        raise CircuitError("A run in time takes one set of values, not a batch.")
    most = longest if longest is not None else min(step, (stop - start) / 50)
    if not most > 0 or stop / most > MOST_STEPS:
        raise CircuitError(
            f"A run of {stop:g} s in steps of {most:g} s needs {stop / most if most > 0 else np.inf:.3g} steps; "
            f"{MOST_STEPS} are the most."
        )
    waves = [(s.name, s.wave) for s in system.sources] + [(s.name, s.wave) for s in system.current_sources]
    for name, wave in waves:
        needed = steps_needed(wave, stop)
        if needed > MOST_STEPS:
            raise CircuitError(
                f"To follow {name} for {stop:g} s needs some {needed:.3g} steps; {MOST_STEPS} are the most. "
                "End the run earlier."
            )
    return _Run(system, stop, most, from_conditions, tell).kept(start)


class _Run:
    """The march itself, in plain numbers: one set of values, thousands of small steps."""

    def __init__(
        self, system: System, stop: float, most: float, from_conditions: bool, tell: Callable[[float], None]
    ) -> None:
        self.system = system
        self.tell = tell
        self.stop = stop
        self.most = most
        self.storage: list[float] = system.storage[:, 0].tolist()
        self._look()
        waves = [s.wave for s in system.sources] + [s.wave for s in system.current_sources]
        edges = {t for wave in waves for t in corners(wave, 0.0, stop)}
        self.edges = [*sorted(edges), stop]
        self.code: Code | None = None
        if suits(system):
            self.code = straight_line(system, [2 * k / most for k in self.storage])
        self._begin(from_conditions)
        self._march()

    def _look(self) -> None:
        """Where sources drive and where states stand among the unknowns."""
        s = self.system
        self.pairs: list[tuple[int, int]] = [(a, b) for a, b in s.capacitor_nodes.tolist()]
        self.coils = [s.branches[m.name] for m in s.inductors]
        self.driven = [(s.branches[e.name], e.wave, e.dc) for e in s.sources]
        self.put_in = [([s.at(n) for n in nodes_of(e)], e.wave, e.dc) for e in s.current_sources]

    def _states(self, x: Floats) -> Floats:
        """u of each reactive part."""
        return [x[a] - x[b] for a, b in self.pairs] + [x[k] for k in self.coils]

    def _right(self, seconds: float, history: Floats) -> Floats:
        """Right-hand side of a step, A and V, ground's last (:meth:`System.drive` for one sample)."""
        out = [0.0] * (self.system.size + 1)
        for (a, b), r in zip(self.pairs, history, strict=False):
            out[a] += r
            out[b] -= r
        for k, r in zip(self.coils, history[len(self.pairs) :], strict=True):
            out[k] -= r
        for k, wave, dc in self.driven:
            out[k] = float(level(wave, dc, seconds))
        for (a, b), wave, dc in self.put_in:
            value = float(level(wave, dc, seconds))
            out[a] -= value
            out[b] += value
        return out

    def _begin(self, from_conditions: bool) -> None:
        """State at time zero."""
        system = self.system
        if from_conditions:
            self.u = [float(np.asarray(part.initial or 0.0).flat[0]) for part in system.reactive]
            x, v = self._held()
        else:
            point = operating_point(system.circuit).require()
            x, v = point.unknowns
            self.u = self._states(x[:, 0].tolist())
        self.w = [0.0] * len(self.u)
        self.t = [0.0]
        self.xs, self.ws = [x[:, 0].tolist()], [self.w]
        self.vs, self.closed = [_volts(v)], [v.closed]

    def _held(self) -> tuple[FloatArray, Junctions]:
        """The circuit at time zero with its reactive parts held at their initial values.

        A step far too short for them to move does that.
        """
        slopes = [k / (self.stop * 1e-12) for k in self.storage]
        held = self.system.with_companion(np.array(slopes, dtype=float)[:, None])
        right = self._right(0.0, [s * u for s, u in zip(slopes, self.u, strict=True)])
        out = newton(held, solver_for(held), np.array(right[:-1])[:, None], cold_start(held))
        if not out.converged.all():
            raise NotConverged("The circuit has no answer at time zero from these conditions.")
        return out.x, out.junctions

    def _march(self) -> None:
        now, h = 0.0, min(self.most, self.edges[0]) / 20
        euler, edge = True, 0
        peak = [abs(u) + ABSOLUTE for u in self.u]
        past: list[tuple[float, Floats]] = [(0.0, self.u)]
        shortest = self.stop * SHORTEST
        while now < self.stop * (1 - 1e-12):
            h = min(h, self.most)
            to_edge = self.edges[edge] - now
            lands = h >= to_edge * (1 - 1e-9)
            # Two even steps to a corner, rather than one long and one sliver.
            h_now = to_edge if lands else (to_edge / 2 if h > to_edge / 2 else h)
            done = self._step(now + h_now, h_now, euler)
            if done is None:
                h = h_now / 8
                euler = True
                if h < shortest:
                    raise NotConverged(f"No answer was found at {now:.4g} s; the run stops there.")
                continue
            error = self._error(past, now + h_now, done.u, peak)
            if error > 1 and h_now > shortest:
                h = h_now * max(0.2, 0.8 / error ** (1 / 3))
                continue
            now = self.edges[edge] if lands else now + h_now
            self._keep(now, done)
            peak = [max(p, abs(u)) for p, u in zip(peak, done.u, strict=True)]
            past = [*past[-2:], (now, done.u)]
            euler = False
            h = h_now * min(2.0, 0.9 / max(error, 1e-3) ** (1 / 3))
            if lands:
                edge = min(edge + 1, len(self.edges) - 1)
                euler, past = True, [(now, done.u)]
                h = min(h, max((self.edges[edge] - now) / 20, shortest))

    def _step(self, to: float, h: float, euler: bool) -> "_Stepped | None":
        """One step from the last instant; None where it has no answer."""
        times = (1.0 if euler else 2.0) / h
        slopes = [times * k for k in self.storage]
        before = [0.0] * len(self.w) if euler else self.w
        history = [s * u + w for s, u, w in zip(slopes, self.u, before, strict=True)]
        right = self._right(to, history)
        found, closed = None, self.closed[-1]
        if self.code is not None:
            with suppress(ZeroDivisionError, OverflowError):
                found = self.code(slopes, right[:-1], self.xs[-1][:-1], self.vs[-1])
        if found is None:
            general = self._in_general(slopes, right)
            if general is None:
                return None
            found, closed = general
        x, v = found
        u = self._states(x)
        w = [s * a - r for s, a, r in zip(slopes, u, history, strict=True)]
        return _Stepped(x, v, closed, u, w)

    def _in_general(self, slopes: Floats, right: Floats) -> tuple[tuple[Floats, Floats], NDArray[np.bool_]] | None:
        """A step by Newton's method on arrays, for any nonlinear part."""
        stepped = self.pattern.with_companion(np.array(slopes, dtype=float)[:, None])
        x, v = (np.array(self.xs[-1])[:, None], self._junctions(np.array(self.vs[-1])[:, None], self.closed[-1]))
        try:
            out = newton(stepped, solver_for(stepped), np.array(right[:-1])[:, None], v, x, most_steps=40)
        except CircuitError:
            return None
        if not out.converged.all():
            return None
        return (out.x[:, 0].tolist(), _volts(out.junctions)), out.junctions.closed

    @cached_property
    def pattern(self) -> System:
        """Patterns are worked out once, on a first set of companions, and shared by every step."""
        pattern = self.system.with_companion(self.system.storage)
        solver_for(pattern)
        _ = pattern.linear_slots, pattern.nonlinear_scatter, pattern.ohmic_rows
        return pattern

    def _junctions(self, volts: FloatArray, closed: NDArray[np.bool_]) -> Junctions:
        """Junctions by kind from their row: (junctions, instants)."""
        diodes, bjts = len(self.system.diodes), len(self.system.bjts)
        return Junctions(volts[:diodes], volts[diodes : diodes + bjts], volts[diodes + bjts :], closed)

    def _error(self, past: list[tuple[float, Floats]], to: float, u: Floats, peak: Floats) -> float:
        """How far the states are from a parabola through the last three, against what is allowed.

        For the trapezoidal rule that difference is some ten times the step's own error.
        """
        if len(past) < 3 or not u:
            return 0.1
        (t0, u0), (t1, u1), (t2, u2) = past[-3:]
        l0 = (to - t1) * (to - t2) / ((t0 - t1) * (t0 - t2))
        l1 = (to - t0) * (to - t2) / ((t1 - t0) * (t1 - t2))
        l2 = (to - t0) * (to - t1) / ((t2 - t0) * (t2 - t1))
        return max(
            abs(now - (l0 * a + l1 * b + l2 * c)) / 10 / (RELATIVE * most + ABSOLUTE)
            for now, a, b, c, most in zip(u, u0, u1, u2, peak, strict=True)
        )

    def _keep(self, now: float, done: "_Stepped") -> None:
        if len(self.t) >= MOST_STEPS:
            raise CircuitError(f"The run needs more than {MOST_STEPS} steps; make it shorter.")
        self.u, self.w = done.u, done.w
        self.t.append(now)
        if len(self.t) % TELL_EVERY == 0:
            self.tell(now / self.stop)
        self.xs.append(done.x)
        self.vs.append(done.v)
        self.ws.append(done.w)
        self.closed.append(done.closed)

    def kept(self, start: float) -> Transient:
        """The run from ``start`` on."""
        t = np.array(self.t)
        first = int(np.searchsorted(t, start * (1 - 1e-12)))
        x, v, flow = (
            np.array(rows[first:], dtype=float).reshape(len(t) - first, -1).T for rows in (self.xs, self.vs, self.ws)
        )
        junctions = self._junctions(v, np.concatenate(self.closed[first:], axis=1))
        return Transient(self.system.circuit, t[first:], self.system, x, junctions, flow)


class _Stepped(NamedTuple):
    """Where a step came to: unknowns, junctions, contacts, and u and w of the reactive parts."""

    x: Floats
    v: Floats
    closed: NDArray[np.bool_]
    u: Floats
    w: Floats


def _volts(v: Junctions) -> Floats:
    """All junctions of one sample in a row: diodes, base-emitter, base-collector."""
    return [*v.diode[:, 0].tolist(), *v.be[:, 0].tolist(), *v.bc[:, 0].tolist()]
