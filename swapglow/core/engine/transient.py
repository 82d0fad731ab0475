"""A run in time: implicit steps with error control, from the operating point or given conditions.

Each step solves the circuit with every capacitor and inductor replaced by its companion (Nagel,
SPICE2, 1975): w = slope·u − r, where the trapezoidal rule has slope 2K/h and r = slope·u' + w',
and backward Euler, used after every corner of a source, has slope K/h and r = slope·u'.
"""

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from swapglow.core.engine import topology as structure
from swapglow.core.engine.in_time import InTime
from swapglow.core.engine.mna import Junctions, System
from swapglow.core.engine.netlist import Circuit, CircuitError
from swapglow.core.engine.newton import cold_start, newton
from swapglow.core.engine.operating_point import NotConverged, operating_point
from swapglow.core.engine.solvers import solver_for
from swapglow.core.engine.waveforms import corners, steps_needed

FloatArray = NDArray[np.float64]

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
    """The march itself."""

    def __init__(self, system: System, stop: float, most: float, from_conditions: bool,
                 tell: Callable[[float], None]) -> None:  # fmt: skip
        self.system = system
        self.tell = tell
        self.stop = stop
        self.most = most
        self.storage = system.storage
        # Patterns are worked out once, on a first set of companions, and shared by every step.
        self.pattern = system.with_companion(self.storage)
        solver_for(self.pattern)
        _ = self.pattern.linear_slots, self.pattern.nonlinear_scatter, self.pattern.ohmic_rows
        waves = [s.wave for s in system.sources] + [s.wave for s in system.current_sources]
        edges = {t for wave in waves for t in corners(wave, 0.0, stop)}
        self.edges = [*sorted(edges), stop]
        self._begin(from_conditions)
        self._march()

    def _begin(self, from_conditions: bool) -> None:
        """State at time zero."""
        system = self.system
        zero = np.zeros_like(self.storage)
        if from_conditions:
            given = [part.initial or 0.0 for part in system.reactive]
            self.u = np.array(given, dtype=float)[:, None]
            x, v = self._held()
        else:
            point = operating_point(system.circuit).require()
            x, v = point.unknowns
            self.u = system.states(x)
        self.w = zero
        self.t = [0.0]
        self.xs, self.vs, self.ws = [x], [v], [zero]

    def _held(self) -> tuple[FloatArray, Junctions]:
        """The circuit at time zero with its reactive parts held at their initial values.

        A step far too short for them to move does that.
        """
        h = self.stop * 1e-12
        slopes = self.storage / h
        held = self.system.with_companion(slopes)
        drive = held.drive(0.0, slopes * self.u)[:-1]
        out = newton(held, solver_for(held), drive, cold_start(held))
        if not out.converged.all():
            raise NotConverged("The circuit has no answer at time zero from these conditions.")
        return out.x, out.junctions

    def _march(self) -> None:
        now, h = 0.0, min(self.most, self.edges[0]) / 20
        euler, edge = True, 0
        peak = np.abs(self.u) + ABSOLUTE
        past: list[tuple[float, FloatArray]] = [(0.0, self.u)]
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
            x, v, u, w = done
            error = self._error(past, now + h_now, u, peak)
            if error > 1 and h_now > shortest:
                h = h_now * max(0.2, 0.8 / error ** (1 / 3))
                continue
            now = self.edges[edge] if lands else now + h_now
            self._keep(now, x, v, u, w)
            peak = np.maximum(peak, np.abs(u))
            past = [*past[-2:], (now, u)]
            euler = False
            h = h_now * min(2.0, 0.9 / max(error, 1e-3) ** (1 / 3))
            if lands:
                edge = min(edge + 1, len(self.edges) - 1)
                euler, past = True, [(now, u)]
                h = min(h, max((self.edges[edge] - now) / 20, shortest))

    def _step(
        self, to: float, h: float, euler: bool
    ) -> tuple[FloatArray, Junctions, FloatArray, FloatArray] | None:
        slopes = self.storage / h if euler else 2 * self.storage / h
        history = slopes * self.u + (0.0 if euler else self.w)
        stepped = self.pattern.with_companion(slopes)
        drive = stepped.drive(to, history)[:-1]
        try:
            out = newton(stepped, solver_for(stepped), drive, self.vs[-1], self.xs[-1], most_steps=40)
        except CircuitError:
            return None
        if not out.converged.all():
            return None
        u = self.system.states(out.x)
        return out.x, out.junctions, u, slopes * u - history

    def _error(
        self, past: list[tuple[float, FloatArray]], to: float, u: FloatArray, peak: FloatArray
    ) -> float:
        """How far the states are from a parabola through the last three, against what is allowed.

        For the trapezoidal rule that difference is some ten times the step's own error.
        """
        if len(past) < 3 or not u.size:
            return 0.1
        (t0, u0), (t1, u1), (t2, u2) = past[-3:]
        l0 = (to - t1) * (to - t2) / ((t0 - t1) * (t0 - t2))
        l1 = (to - t0) * (to - t2) / ((t1 - t0) * (t1 - t2))
        l2 = (to - t0) * (to - t1) / ((t2 - t0) * (t2 - t1))
        gap = np.abs(u - (l0 * u0 + l1 * u1 + l2 * u2)) / 10
        return float((gap / (RELATIVE * peak + ABSOLUTE)).max())

    def _keep(self, now: float, x: FloatArray, v: Junctions, u: FloatArray, w: FloatArray) -> None:
        if len(self.t) >= MOST_STEPS:
            raise CircuitError(f"The run needs more than {MOST_STEPS} steps; make it shorter.")
        self.u, self.w = u, w
        self.t.append(now)
        if len(self.t) % TELL_EVERY == 0:
            self.tell(now / self.stop)
        self.xs.append(x)
        self.vs.append(v)
        self.ws.append(w)

    def kept(self, start: float) -> Transient:
        """The run from ``start`` on."""
        t = np.array(self.t)
        first = int(np.searchsorted(t, start * (1 - 1e-12)))
        keep = range(first, len(t))
        junctions = Junctions(
            *(np.concatenate([getattr(self.vs[k], name) for k in keep], axis=1)
              for name in ("diode", "be", "bc", "closed"))
        )  # fmt: skip
        x = np.concatenate([self.xs[k] for k in keep], axis=1)
        flow = np.concatenate([self.ws[k] for k in keep], axis=1)
        return Transient(self.system.circuit, t[first:], self.system, x, junctions, flow)
