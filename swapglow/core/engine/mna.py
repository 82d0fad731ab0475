"""From a netlist to equations: modified nodal analysis (Ho, Ruehli and Brennan, 1975).

Unknowns are node voltages, the inner nodes of diodes with series resistance, and the currents of
voltage sources and inductors. Row and column ``size`` stand for ground and are thrown away.
"""

from collections.abc import Sequence
from copy import copy
from dataclasses import dataclass
from functools import cached_property
from typing import TypeAlias

import numpy as np
import scipy
from numpy.typing import NDArray

from swapglow.core.constants import thermal_voltage
from swapglow.core.engine import devices
from swapglow.core.engine.netlist import (
    Bjt,
    Capacitor,
    Circuit,
    CurrentRegulator,
    CurrentSource,
    Dc,
    Diode,
    Element,
    FullWave,
    Inductor,
    Param,
    Regulator,
    Resistor,
    Sine,
    Switch,
    VoltageSource,
    Wave,
    nodes_of,
    samples_of,
)
from swapglow.core.engine.waveforms import at_instant

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.intp]
Matrix: TypeAlias = "scipy.sparse.csr_array | FloatArray"
# A few units in the last place of a double.
ROUNDING = 8 * float(np.finfo(np.float64).eps)

# Below this many entries a dense product costs less than a sparse one's bookkeeping.
SMALL_MATRIX = 20_000


def matrix(values: FloatArray, places: tuple[IntArray, IntArray], shape: tuple[int, int]) -> Matrix:
    """A matrix with ``values`` at (rows, columns), summed where they meet.

    Args:
        values: one for each place.
        places: rows and columns, (entries,) each.
        shape: of the matrix.

    Returns:
        Dense where it is small, else sparse.
    """
    if shape[0] * shape[1] > SMALL_MATRIX:
        return scipy.sparse.csr_array((values, places), shape=shape)
    dense = np.zeros(shape)
    np.add.at(dense, places, values)
    return dense


def dense(of: Matrix) -> FloatArray:
    """A matrix as a plain array."""
    return of if isinstance(of, np.ndarray) else np.asarray(of.toarray())


def stack(values: list[Param], samples: int) -> FloatArray:
    """Parameters of a group of parts as (parts, samples), or (parts, 1) where none is an array.

    Args:
        values: one parameter a part, in its own unit.
        samples: how many samples the circuit has.

    Returns:
        Shape (parts, samples or 1).
    """
    if any(isinstance(v, np.ndarray) and v.ndim for v in values):
        return np.stack([np.broadcast_to(np.asarray(v, dtype=float), (samples,)) for v in values])
    return np.array(values, dtype=float).reshape(len(values), 1)


@dataclass(frozen=True)
class Evaluated:
    """All nonlinear parts at present voltages.

    Attributes:
        entries: matrix entries in the order of ``System.nonlinear_entries``, shape (entries, samples).
        currents: current out of each row of ``System.current_rows``, shape (rows, samples).
        offsets: those currents less slope times voltage: the companion sources of Newton's step.
    """

    entries: FloatArray
    currents: FloatArray
    offsets: FloatArray


class System:
    """The equations of one topology over all its samples."""

    def __init__(self, circuit: Circuit, samples: int | None = None) -> None:
        self.circuit = circuit
        self.samples = samples or samples_of(circuit)
        # Slope of each reactive part's companion, (capacitors + inductors, samples or 1): nothing
        # at DC, where a capacitor is open and an inductor a short.
        self.companion: FloatArray | None = None
        self.vt = thermal_voltage(circuit.celsius)
        self.nodes: dict[str, int] = {}
        for e in circuit.elements:
            for node in nodes_of(e):
                if node != "0" and node not in self.nodes:
                    self.nodes[node] = len(self.nodes)
        self._group()
        self._count()

    def _group(self) -> None:
        every = self.circuit.elements
        self.resistors = [e for e in every if isinstance(e, Resistor)]
        self.capacitors = [e for e in every if isinstance(e, Capacitor)]
        self.inductors = [e for e in every if isinstance(e, Inductor)]
        self.sources = [e for e in every if isinstance(e, VoltageSource)]
        self.current_sources = [e for e in every if isinstance(e, CurrentSource)]
        self.diodes = [e for e in every if isinstance(e, Diode)]
        self.bjts = [e for e in every if isinstance(e, Bjt)]
        self.switches = [e for e in every if isinstance(e, Switch)]
        self.regulators = [e for e in every if isinstance(e, Regulator)]
        self.current_regulators = [e for e in every if isinstance(e, CurrentRegulator)]

    def _count(self) -> None:
        size = len(self.nodes)
        self.branches: dict[str, int] = {}
        self.branched: list[VoltageSource | Inductor] = [*self.sources, *self.inductors]
        for branch in self.branched:
            self.branches[branch.name] = size
            size += 1
        # Inner nodes come last: the fast path leaves them out.
        self.outer_size = size
        self.inner: dict[str, int] = {}
        for d in self.diodes:
            if np.any(np.asarray(d.model.r_s) > 0):
                self.inner[d.name] = size
                size += 1
        self.with_rs = [d for d in self.diodes if d.name in self.inner]
        self.size = size

    @property
    def reactive(self) -> list[Capacitor | Inductor]:
        """Capacitors, then inductors: the parts with a memory."""
        return [*self.capacitors, *self.inductors]

    @cached_property
    def storage(self) -> FloatArray:
        """Farads and henries of the reactive parts, (parts, samples or 1)."""
        values: list[Param] = [c.farads for c in self.capacitors]
        return stack(values + [m.henries for m in self.inductors], self.samples)

    def with_companion(self, slopes: FloatArray) -> "System":
        """The same equations in a time step: w = slope·u − r for each reactive part.

        For a capacitor u is its voltage and w its current; for an inductor u is its current and w
        its voltage. ``r`` is the step's history, given to :meth:`drive`.
        """
        part = copy(self)
        part.companion = slopes
        names = ["outer", "linear", "linear_slots"]
        if self.companion is None:
            # The pattern changes only when companions first come in.
            names += ["slots", "_linear_scatter", "nonlinear_scatter", "ohmic_rows", "balance"]
        for name in names:
            part.__dict__.pop(name, None)
        return part

    def states(self, x: FloatArray) -> FloatArray:
        """u of each reactive part at unknowns ``x`` (size + 1, ...), (parts, ...)."""
        a, b = self.capacitor_nodes.T
        volts = x[a] - x[b]
        amps = x[[self.branches[m.name] for m in self.inductors]]
        return np.concatenate([volts, amps])

    def piece(self, samples: slice) -> "System":
        """The same equations for some of the samples, sharing what does not depend on them.

        Only for circuits whose nonlinear parts are junctions: other parts read their own parameters.
        """
        part = copy(self)
        part.samples = len(range(*samples.indices(self.samples)))
        for name in ("diode_is", "diode_nvt", "conductances", "inner_conductances"):
            part.__dict__[name] = _cut(getattr(self, name), samples)
        for name in ("outer", "linear", "linear_slots"):
            part.__dict__.pop(name, None)
        if self.companion is not None:
            part.companion = _cut(self.companion, samples)
        b = self.bjt_arrays
        i_s, b_f, b_r = (_cut(a, samples) for a in (b.i_s, b.b_f, b.b_r))
        part.__dict__["bjt_arrays"] = devices.BjtArrays(i_s, b_f, b_r, b.nvt_f, b.nvt_r, b.inv_vaf)
        return part

    def at(self, node: str) -> int:
        """Index of a node; ground is ``size``."""
        return self.size if node == "0" else self.nodes[node]

    def _terminals(self, parts: Sequence[Element]) -> IntArray:
        width = len(parts[0].terminals) if parts else 2
        flat = [self.at(n) for p in parts for n in nodes_of(p)]
        return np.array(flat, dtype=np.intp).reshape(len(parts), width)

    # --- linear parts -------------------------------------------------------------------

    @cached_property
    def resistor_nodes(self) -> IntArray:
        """(resistors, 2) node indices."""
        return self._terminals(self.resistors)

    @cached_property
    def capacitor_nodes(self) -> IntArray:
        """(capacitors, 2) node indices."""
        return self._terminals(self.capacitors)

    @cached_property
    def conductances(self) -> FloatArray:
        """Of all resistors, (resistors, samples or 1), S."""
        return 1.0 / stack([r.ohms for r in self.resistors], self.samples)

    @cached_property
    def linear(self) -> tuple[IntArray, IntArray, FloatArray]:
        """Rows, columns and values of all entries that no voltage changes.

        Values have shape (entries, samples or 1).
        """
        rows, columns, values = self.outer
        if not self.inner:
            return self.outer
        r, c = _two_terminal(self._inner_ends)
        more = _spread(self.inner_conductances)
        width = max(values.shape[1], more.shape[1])
        joined = [np.broadcast_to(v, (v.shape[0], width)) for v in (values, more)]
        return np.concatenate([rows, r]), np.concatenate([columns, c]), np.concatenate(joined)

    @cached_property
    def outer(self) -> tuple[IntArray, IntArray, FloatArray]:
        """The same without the series resistances of diodes."""
        rows: list[IntArray] = []
        columns: list[IntArray] = []
        parts: list[FloatArray] = []
        if self.resistors:
            r, c = _two_terminal(self.resistor_nodes)
            rows.append(r)
            columns.append(c)
            parts.append(_spread(self.conductances))
        for branch in self.branched:
            k = self.branches[branch.name]
            a, b = (self.at(n) for n in nodes_of(branch))
            rows.append(np.array([a, b, k, k], dtype=np.intp))
            columns.append(np.array([k, k, a, b], dtype=np.intp))
            parts.append(np.array([[1.0], [-1.0], [1.0], [-1.0]]))
        if self.companion is not None:
            r, c, values = self._companion_entries(self.companion)
            rows.append(r)
            columns.append(c)
            parts.append(values)
        if not rows:
            none = np.zeros(0, dtype=np.intp)
            return none, none, np.zeros((0, 1))
        width = max(p.shape[1] for p in parts)
        values = np.concatenate([np.broadcast_to(p, (p.shape[0], width)) for p in parts])
        return np.concatenate(rows), np.concatenate(columns), values

    def _companion_entries(self, slopes: FloatArray) -> tuple[IntArray, IntArray, FloatArray]:
        count = len(self.capacitors)
        r, c = _two_terminal(self.capacitor_nodes)
        k = np.array([self.branches[m.name] for m in self.inductors], dtype=np.intp)
        values = np.concatenate([_spread(slopes[:count]), -slopes[count:]])
        return np.concatenate([r, k]), np.concatenate([c, k]), values

    def drive(self, seconds: float | FloatArray | None = None, history: FloatArray | None = None) -> FloatArray:
        """Right-hand side of the sources, shape (size + 1, samples); last row is ground.

        Args:
            seconds: instant of a run, or one for each sample; None for the operating point.
            history: r of each reactive part, (parts, samples).

        Returns:
            A and V, shape (size + 1, samples).
        """
        out = np.zeros((self.size + 1, self.samples))
        if history is not None:
            count = len(self.capacitors)
            a, b = self.capacitor_nodes.T
            np.add.at(out, a, history[:count])
            np.add.at(out, b, -history[:count])
            out[[self.branches[m.name] for m in self.inductors]] -= history[count:]
        for s in self.sources:
            out[self.branches[s.name]] = level(s.wave, s.dc, seconds)
        for s_ in self.current_sources:
            a, b = (self.at(n) for n in nodes_of(s_))
            value = level(s_.wave, s_.dc, seconds)
            out[a] -= value
            out[b] += value
        return out

    # --- nonlinear parts ---------------------------------------------------------------------

    @cached_property
    def junction_ends(self) -> IntArray:
        """(diodes, 2): the inner anode and the cathode of each diode's junction."""
        ends = [[self.inner.get(d.name, self.at(nodes_of(d)[0])), self.at(nodes_of(d)[1])] for d in self.diodes]
        return np.array(ends, dtype=np.intp).reshape(len(ends), 2)

    @cached_property
    def diode_is(self) -> FloatArray:
        """Saturation currents at temperature, (diodes, samples or 1)."""
        parts: list[Param] = []
        for d in self.diodes:
            m = d.model
            parts.append(
                d.area
                * devices.saturation_at(
                    np.asarray(m.i_s, dtype=float),
                    np.asarray(m.n, dtype=float),
                    m.e_g,
                    m.x_ti,
                    self.circuit.celsius,
                    m.nominal_c,
                )
            )
        return stack(parts, self.samples)

    @cached_property
    def diode_nvt(self) -> FloatArray:
        """n·Vt, (diodes, samples or 1)."""
        return stack([d.model.n for d in self.diodes], self.samples) * self.vt

    @cached_property
    def diode_knee(self) -> FloatArray | None:
        """Breakdown knees, (diodes, 1), or None where no diode breaks down."""
        if not any(np.isfinite(d.model.bv) for d in self.diodes):
            return None
        i_s = self.diode_is
        return np.array(
            [
                [
                    devices.breakdown_knee(d.model, float(i_s[k].flat[0]), self.circuit.celsius)
                    if np.isfinite(d.model.bv)
                    else np.inf
                ]
                for k, d in enumerate(self.diodes)
            ]
        )

    @cached_property
    def bjt_nodes(self) -> IntArray:
        """(transistors, 3): collector, base, emitter."""
        return self._terminals(self.bjts)

    @cached_property
    def bjt_sign(self) -> FloatArray:
        """+1 for NPN, −1 for PNP, (transistors, 1)."""
        return np.array([[float(q.model.polarity)] for q in self.bjts]).reshape(-1, 1)

    @cached_property
    def bjt_arrays(self) -> devices.BjtArrays:
        """Parameters of all transistors at temperature."""
        triples = [devices.bjt_at(q.model, self.circuit.celsius) for q in self.bjts]
        return devices.BjtArrays(
            stack([t[0] * q.area for t, q in zip(triples, self.bjts, strict=True)], self.samples),
            stack([t[1] for t in triples], self.samples),
            stack([t[2] for t in triples], self.samples),
            np.array([[q.model.n_f * self.vt] for q in self.bjts]),
            np.array([[q.model.n_r * self.vt] for q in self.bjts]),
            np.array([[1.0 / q.model.v_af] for q in self.bjts]),
        )

    @cached_property
    def switch_nodes(self) -> IntArray:
        """(switches, 4): contact a, b, control plus, minus."""
        return self._terminals(self.switches)

    @cached_property
    def regulator_nodes(self) -> IntArray:
        """(regulators, 3): input, output, ground."""
        return self._terminals(self.regulators)

    @cached_property
    def current_regulator_nodes(self) -> IntArray:
        """(current sources, 2)."""
        return self._terminals(self.current_regulators)

    @cached_property
    def nonlinear_entries(self) -> tuple[IntArray, IntArray]:
        """Rows and columns of the entries that ``evaluate`` gives, in its order."""
        rows: list[IntArray] = []
        columns: list[IntArray] = []
        for ends in (self.junction_ends, self.current_regulator_nodes):
            if len(ends):
                r, c = _two_terminal(ends)
                rows.append(r)
                columns.append(c)
        if self.bjts:
            c_, b_, e_ = self.bjt_nodes.T
            rows.append(np.concatenate([c_, c_, c_, b_, b_, b_, e_, e_, e_]))
            columns.append(np.concatenate([c_, b_, e_] * 3))
        if self.switches:
            r, c = _two_terminal(self.switch_nodes[:, :2])
            rows.append(r)
            columns.append(c)
        if self.regulators:
            i_, o_, g_ = self.regulator_nodes.T
            rows.append(np.concatenate([i_, i_, i_, o_, o_, o_, g_, g_]))
            columns.append(np.concatenate([i_, o_, g_, i_, o_, g_, i_, g_]))
        none = np.zeros(0, dtype=np.intp)
        return (np.concatenate(rows) if rows else none, np.concatenate(columns) if columns else none)

    @cached_property
    def current_rows(self) -> IntArray:
        """Rows that ``evaluate``'s currents leave, in its order."""
        rows: list[IntArray] = []
        for ends in (self.junction_ends, self.current_regulator_nodes):
            if len(ends):
                rows += [ends[:, 0], ends[:, 1]]
        if self.bjts:
            rows += list(self.bjt_nodes.T)
        if self.switches:
            rows += [self.switch_nodes[:, 0], self.switch_nodes[:, 1]]
        if self.regulators:
            rows += list(self.regulator_nodes.T)
        return np.concatenate(rows) if rows else np.zeros(0, dtype=np.intp)

    @cached_property
    def is_nonlinear(self) -> bool:
        """Whether any part needs Newton's method."""
        return bool(len(self.current_rows))

    def evaluate(self, x: FloatArray, v: "Junctions", gmin: float) -> Evaluated:
        """All nonlinear parts at node voltages ``x`` (size + 1, samples), junctions held at ``v``.

        Args:
            x: node voltages, V, (size + 1, samples).
            v: junction voltages, V.
            gmin: conductance across each junction, S.

        Returns:
            Entries in S, currents and offsets in A.
        """
        entries: list[FloatArray] = []
        currents: list[FloatArray] = []
        offsets: list[FloatArray] = []

        def two_terminal(branch: devices.Branch, across: FloatArray) -> None:
            entries.append(_spread(branch.siemens))
            rest = branch.amps - branch.siemens * across
            currents.extend((branch.amps, -branch.amps))
            offsets.extend((rest, -rest))

        if self.diodes:
            two_terminal(self.diode_branch(v.diode, gmin), v.diode)
        if self.current_regulators:
            a, b = self.current_regulator_nodes.T
            across = x[a] - x[b]
            two_terminal(
                devices.current_source(
                    across,
                    stack([c.amps for c in self.current_regulators], self.samples),
                    stack([c.dropout for c in self.current_regulators], self.samples),
                ),
                across,
            )
        if self.bjts:
            t = devices.transistor(v.be, v.bc, self.bjt_arrays, gmin)
            # Slopes over node voltages: Vbe = s(Vb − Ve), Vbc = s(Vb − Vc); the signs cancel.
            cc, cb, ce = -t.ic_vbc, t.ic_vbe + t.ic_vbc, -t.ic_vbe
            bc, bb, be = -t.ib_vbc, t.ib_vbe + t.ib_vbc, -t.ib_vbe
            entries += [cc, cb, ce, bc, bb, be, -cc - bc, -cb - bb, -ce - be]
            i_c, i_b = self.bjt_sign * t.i_c, self.bjt_sign * t.i_b
            rest_c = i_c - self.bjt_sign * (t.ic_vbe * v.be + t.ic_vbc * v.bc)
            rest_b = i_b - self.bjt_sign * (t.ib_vbe * v.be + t.ib_vbc * v.bc)
            currents += [i_c, i_b, -i_c - i_b]
            offsets += [rest_c, rest_b, -rest_c - rest_b]
        if self.switches:
            g = np.where(v.closed, 1.0 / self.switch_ohms[0], 1.0 / self.switch_ohms[1])
            a, b = self.switch_nodes[:, 0], self.switch_nodes[:, 1]
            two_terminal(devices.Branch(g * (x[a] - x[b]), g), x[a] - x[b])
        if self.regulators:
            self._evaluate_regulators(x, entries, currents, offsets)
        wide = (x.shape[1],)

        def joined(parts: list[FloatArray]) -> FloatArray:
            if not parts:
                return np.zeros((0, x.shape[1]))
            if all(p.shape[1] == wide[0] for p in parts):
                return np.concatenate(parts)
            return np.concatenate([np.broadcast_to(p, p.shape[:1] + wide) for p in parts])

        return Evaluated(joined(entries), joined(currents), joined(offsets))

    def nonlinear_amps(self, x: FloatArray, v: "Junctions", gmin: float) -> FloatArray:
        """The currents of :meth:`evaluate` alone, in its order.

        Args:
            x: node voltages, V, (size + 1, samples).
            v: junction voltages, V.
            gmin: conductance across each junction, S.

        Returns:
            A, (rows, samples).
        """
        if self.switches or self.regulators or self.current_regulators:
            return self.evaluate(x, v, gmin).currents
        found: list[FloatArray] = []
        if self.diodes:
            amps = self.diode_branch(v.diode, gmin).amps
            found += [amps, -amps]
        if self.bjts:
            t = devices.transistor(v.be, v.bc, self.bjt_arrays, gmin)
            i_c, i_b = self.bjt_sign * t.i_c, self.bjt_sign * t.i_b
            found += [i_c, i_b, -i_c - i_b]
        return np.concatenate(found) if found else np.zeros((0, x.shape[1]))

    @cached_property
    def balance(self) -> tuple[FloatArray, FloatArray]:
        """What sums linear and nonlinear currents into rows, and its magnitudes; (size, currents)."""
        whole = np.concatenate([dense(self.ohmic_rows), dense(self.current_scatter)], axis=1)
        return whole, np.abs(whole)

    def _evaluate_regulators(
        self, x: FloatArray, entries: list[FloatArray], currents: list[FloatArray], offsets: list[FloatArray]
    ) -> None:
        i_, o_, g_ = self.regulator_nodes.T
        amps, over_in, over_out = self.regulator_currents(x)
        own = devices.quiescent(x[i_] - x[g_], stack([r.quiescent for r in self.regulators], self.samples))
        through = -over_in - over_out
        entries += [
            over_in + own.siemens,
            over_out,
            through - own.siemens,
            -over_in,
            -over_out,
            -through,
            -own.siemens,
            own.siemens,
        ]
        rest = amps - over_in * x[i_] - over_out * x[o_] - through * x[g_]
        rest_own = own.amps - own.siemens * (x[i_] - x[g_])
        currents += [amps + own.amps, -amps, -own.amps]
        offsets += [rest + rest_own, -rest, -rest_own]

    def diode_branch(self, v: FloatArray, gmin: float) -> devices.Branch:
        """Currents and slopes of all diode junctions at ``v`` (diodes, samples).

        Args:
            v: junction voltages, V, (diodes, samples).
            gmin: conductance across each junction, S.

        Returns:
            Current in A and slope in S, shape of ``v``.
        """
        branch = devices.junction(v, self.diode_is, self.diode_nvt, gmin)
        if self.diode_knee is not None:
            more = devices.breakdown(v, self.diode_is, self.diode_knee, self.diode_nvt)
            branch = devices.Branch(branch.amps + more.amps, branch.siemens + more.siemens)
        return branch

    def regulator_currents(self, x: FloatArray) -> tuple[FloatArray, FloatArray, FloatArray]:
        """Pass currents of all regulators and their slopes over input and output."""
        i_, o_, g_ = self.regulator_nodes.T
        return devices.regulator(
            x[i_] - x[g_],
            x[o_] - x[g_],
            stack([r.volts for r in self.regulators], self.samples),
            stack([r.dropout for r in self.regulators], self.samples),
            stack([r.limit for r in self.regulators], self.samples),
        )

    @cached_property
    def switch_ohms(self) -> tuple[FloatArray, FloatArray]:
        """On and off resistance of all switches."""
        return (
            stack([s.model.r_on for s in self.switches], self.samples),
            stack([s.model.r_off for s in self.switches], self.samples),
        )

    # --- scattering -----------------------------------------------------------------------

    @cached_property
    def slots(self) -> dict[tuple[int, int], int]:
        """Slot of each stored matrix entry, linear and nonlinear."""
        return numbered(self.size, self.linear[:2], self.nonlinear_entries)

    @cached_property
    def _linear_scatter(self) -> Matrix:
        return scatter(self.slots, *self.linear[:2])

    @cached_property
    def linear_slots(self) -> FloatArray:
        """Linear entries summed into slots, (slots, samples or 1)."""
        return np.asarray(self._linear_scatter @ self.linear[2])

    def ohmic_amps(self, x: FloatArray) -> FloatArray:
        """What flows in the linear parts at unknowns ``x``, in the order of ``ohmic_rows``.

        Currents of resistors, of series resistances, of source and inductor branches and of
        capacitors' companions; then the voltages across the branches, whose rows hold voltages.
        """
        parts = []
        if self.resistors:
            a, b = self.resistor_nodes.T
            parts.append(self.conductances * (x[a] - x[b]))
        if self.inner:
            a, b = self._inner_ends.T
            parts.append(self.inner_conductances * (x[a] - x[b]))
        count = len(self.capacitors)
        if self.companion is not None and count:
            a, b = self.capacitor_nodes.T
            parts.append(self.companion[:count] * (x[a] - x[b]))
        if self.branched:
            k, ends = self._branch_ends
            drops = x[ends[:, 0]] - x[ends[:, 1]]
            if self.companion is not None and self.inductors:
                drops[len(self.sources) :] -= self.companion[count:] * x[k[len(self.sources) :]]
            parts += [x[k], drops]
        return np.concatenate(parts) if parts else np.zeros((0, x.shape[1]))

    def ohmic_rounding(self, x: FloatArray) -> FloatArray:
        """How far rounding of ``x`` moves each of ``ohmic_amps``: a conductance times the last digits.

        Twenty siemens of a diode's bulk between nodes at 400 V have a picoampere in their last digit.
        """
        size = np.abs(x) * ROUNDING
        parts = []
        if self.resistors:
            a, b = self.resistor_nodes.T
            parts.append(self.conductances * (size[a] + size[b]))
        if self.inner:
            a, b = self._inner_ends.T
            parts.append(self.inner_conductances * (size[a] + size[b]))
        count = len(self.capacitors)
        if self.companion is not None and count:
            a, b = self.capacitor_nodes.T
            parts.append(self.companion[:count] * (size[a] + size[b]))
        if self.branched:
            k, ends = self._branch_ends
            parts += [size[k], size[ends[:, 0]] + size[ends[:, 1]]]
        return np.concatenate(parts) if parts else np.zeros((0, x.shape[1]))

    @cached_property
    def ohmic_rows(self) -> Matrix:
        """Which rows each of ``ohmic_amps`` enters, and with which sign, (size, amps)."""
        entries: list[tuple[int, int, float]] = []
        pairs = [*self.resistor_nodes.tolist()]
        if self.inner:
            pairs += self._inner_ends.tolist()
        if self.companion is not None:
            pairs += self.capacitor_nodes.tolist()
        k, ends = self._branch_ends
        pairs += ends.tolist()
        for n, (a, b) in enumerate(pairs):
            entries += [(a, n, 1.0), (b, n, -1.0)]
        entries += [(row, len(pairs) + n, 1.0) for n, row in enumerate(k.tolist())]
        kept = [e for e in entries if e[0] < self.size]
        rows = np.array([e[0] for e in kept], dtype=np.intp)
        columns = np.array([e[1] for e in kept], dtype=np.intp)
        values = np.array([e[2] for e in kept])
        return matrix(values, (rows, columns), (self.size, len(pairs) + len(k)))

    @cached_property
    def _branch_ends(self) -> tuple[IntArray, IntArray]:
        k = np.array([self.branches[b.name] for b in self.branched], dtype=np.intp)
        return k, self._terminals(self.branched)

    @cached_property
    def _inner_ends(self) -> IntArray:
        """(diodes with series resistance, 2): the anode and the inner node."""
        ends = [[self.at(nodes_of(d)[0]), self.inner[d.name]] for d in self.with_rs]
        return np.array(ends, dtype=np.intp).reshape(len(ends), 2)

    @cached_property
    def diode_rs(self) -> FloatArray:
        """Series resistances of all diodes, Ω, (diodes, samples or 1)."""
        area = np.array([[d.area] for d in self.diodes]).reshape(-1, 1)
        return np.asarray(stack([d.model.r_s for d in self.diodes], self.samples) / area)

    @cached_property
    def inner_conductances(self) -> FloatArray:
        """Of the diodes' series resistances, S."""
        # A sample without series resistance beside others that have some gets a micro-ohm.
        own = [k for k, d in enumerate(self.diodes) if d.name in self.inner]
        return np.asarray(1.0 / np.maximum(self.diode_rs[own], 1e-6))

    def _row_sum(self, rows: IntArray) -> Matrix:
        keep = rows < self.size
        return matrix(np.ones(int(keep.sum())), (rows[keep], np.flatnonzero(keep)), (self.size, len(rows)))

    @cached_property
    def nonlinear_scatter(self) -> Matrix:
        """Sums ``Evaluated.entries`` into slots."""
        return scatter(self.slots, *self.nonlinear_entries)

    @cached_property
    def current_scatter(self) -> Matrix:
        """Sums ``Evaluated.currents`` into rows, (size, currents)."""
        return self._row_sum(self.current_rows)


def numbered(size: int, *places: tuple[IntArray, IntArray]) -> dict[tuple[int, int], int]:
    """Slots for entries at (rows, columns), those on ground left out.

    Args:
        size: number of unknowns; ground has that number.
        *places: rows and columns of entries.

    Returns:
        Slot by (row, column).
    """
    found: dict[tuple[int, int], int] = {}
    for rows, columns in places:
        for r, c in zip(rows.tolist(), columns.tolist(), strict=True):
            if r < size and c < size:
                found.setdefault((r, c), len(found))
    return found


def scatter(slots: dict[tuple[int, int], int], rows: IntArray, columns: IntArray) -> Matrix:
    """Sums entries at (rows, columns) into their slots, (slots, entries).

    Args:
        slots: slot by (row, column).
        rows, columns: of the entries, (entries,) each.

    Returns:
        Ones at (slot, entry), (slots, entries).
    """
    where = [
        (slots[r, c], k)
        for k, (r, c) in enumerate(zip(rows.tolist(), columns.tolist(), strict=True))
        if (r, c) in slots
    ]
    at = np.array([w[0] for w in where], dtype=np.intp)
    entries = np.array([w[1] for w in where], dtype=np.intp)
    return matrix(np.ones(len(where)), (at, entries), (len(slots), len(rows)))


@dataclass
class Junctions:
    """Voltages across junctions, held by the limiter, and the switches' states.

    Shapes (diodes, samples), (transistors, samples) twice, (switches, samples).
    """

    diode: FloatArray
    be: FloatArray
    bc: FloatArray
    closed: NDArray[np.bool_]

    def take(self, index: NDArray[np.intp]) -> "Junctions":
        """The same for some of the samples."""
        return Junctions(self.diode[:, index], self.be[:, index], self.bc[:, index], self.closed[:, index])


def _cut(values: FloatArray, samples: slice) -> FloatArray:
    return values if values.shape[-1] == 1 else values[..., samples]


def _two_terminal(ends: IntArray) -> tuple[IntArray, IntArray]:
    """Rows and columns of +g, −g, −g, +g for each part, ordered sign by sign."""
    a, b = ends.T
    return np.concatenate([a, a, b, b]), np.concatenate([a, b, a, b])


def _spread(g: FloatArray) -> FloatArray:
    """Values in the order of ``_two_terminal``."""
    return np.concatenate([g, -g, -g, g])


def level(wave: Wave, dc: Param | None, seconds: float | FloatArray | None) -> Param:
    """A source's value at an instant (or several), or its operating-point value for None.

    Args:
        wave: the source's, V or A.
        dc: its operating-point value where it has one of its own.
        seconds: the instant, s, or several (samples,); None for the operating point.

    Returns:
        V or A.
    """
    if seconds is None:
        if dc is not None:
            return dc
        return wave.level if isinstance(wave, Dc) else at_instant(wave, 0.0)
    if isinstance(seconds, np.ndarray):
        if isinstance(wave, Sine) and not wave.delay and not wave.damping:
            phase = np.radians(wave.phase_deg)
            return np.asarray(wave.offset + wave.amplitude * np.sin(2 * np.pi * wave.hertz * seconds + phase))
        if isinstance(wave, FullWave):
            return np.asarray(wave.amplitude * np.abs(np.sin(2 * np.pi * wave.hertz * seconds)))
        if isinstance(wave, Dc):
            return np.asarray(np.broadcast_to(wave.level, seconds.shape))
        instants, back = np.unique(seconds, return_inverse=True)
        return np.array([at_instant(wave, float(t)) for t in instants])[back]
    return at_instant(wave, seconds)
