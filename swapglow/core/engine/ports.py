"""The fast path: a circuit of linear parts and junctions, seen from its junctions.

Everything linear is reduced to what the junctions see of it, an open-circuit voltage and a
resistance matrix, once a batch (Thévenin's theorem for several ports). Newton's method then runs
on the junction voltages alone: a handful of unknowns, whatever the size of the circuit, and every
operation an array operation over all samples.

With v the port voltages, T(v) the junctions' transport currents and M what mixes them into port
currents (the identity for a diode, Ebers and Moll's matrix for a transistor), the equation is

    v = v0 − Z·(M·T(v) − g0·v)

where a small conductance g0 stands across every port in the linear part, so that a node between
two junctions is never left in the air, and is taken back on the right.
"""

import os
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.engine import devices
from swapglow.core.engine.chains import Chain, as_one, chains_of, shared_volts
from swapglow.core.engine.elimination import Plan, eliminate, plan, solve
from swapglow.core.engine.mna import Junctions, Matrix, System, matrix
from swapglow.core.engine.netlist import nodes_of
from swapglow.core.engine.newton import LARGEST_DENSE, critical, kirchhoff, limited
from swapglow.core.engine.scratch import scratch

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.intp]

# Large enough to tie down a node between two dark junctions, small beside a lit LED.
PORT_S = 1e-4
MOST_PORTS = 24
LARGEST = 200
# Samples taken through Newton's method together: their arrays stay in the processor's cache.
CHUNK = 5000
# Below this many samples one LAPACK call beats the planned elimination.
FEW_SAMPLES = 12
# Newton's error after a step is about the step squared over 2·n·Vt: once all steps are under a tenth
# of a millivolt, one more leaves some 1e-13 V.
STEP_V = 1e-4
# After a step this short there is nothing left to polish.
LAST_STEP_V = 1e-6
MOST_STEPS = 60
# From so many samples on a start is learned from LEARNED of them, where it comes this near.
MANY = 2000
LEARNED = 128
NEAR_V = 0.02
# Fewer samples than this are not worth picking apart.
FEW_GOING = 256


@dataclass
class Ports:
    """The junctions of a system as ports.

    Attributes:
        ends: + and − node of each port, (ports, 2); a diode's series resistance lies inside.
        r_s: series resistances, (ports, samples or 1).
        i_s, nvt: (ports, samples or 1).
        mix: (ports, ports, samples or 1).
        knee: breakdown knees, (ports, 1), or None.
    """

    ends: IntArray
    r_s: FloatArray
    i_s: FloatArray
    nvt: FloatArray
    mix: FloatArray
    knee: FloatArray | None
    gmin: FloatArray | float = devices.GMIN

    @property
    def unmixed(self) -> bool:
        """Whether every port is a diode by itself, of which the currents need no mixing."""
        return len(self.ends) == 1 or not self.mix[~np.eye(len(self.ends), dtype=bool)].any()

    def cut(self, piece: slice) -> "Ports":
        """The same for some of the samples."""
        r_s, i_s, nvt, mix = (_cut(a, piece) for a in (self.r_s, self.i_s, self.nvt, self.mix))
        return Ports(self.ends, r_s, i_s, nvt, mix, self.knee, self.gmin)


def suits(system: System) -> bool:
    """Whether the fast path can solve this system: junctions are its only nonlinear parts."""
    count = len(system.diodes) + 2 * len(system.bjts)
    return (
        0 < count <= MOST_PORTS
        and system.size <= LARGEST
        and not (system.switches or system.regulators or system.current_regulators)
        and all(np.isinf(q.model.v_af) for q in system.bjts)
    )


def ports_of(system: System) -> Ports:
    """Diodes first, then base-emitter and base-collector of each transistor."""
    diodes, bjts = len(system.diodes), len(system.bjts)
    ends = [[system.at(n) for n in nodes_of(d)] for d in system.diodes]
    i_s, nvt = [], []
    if diodes:
        i_s.append(system.diode_is)
        nvt.append(system.diode_nvt)
    blocks: list[FloatArray] = []
    for k in range(bjts):
        c, b, e = system.bjt_nodes[k].tolist()
        plus = system.bjt_sign[k, 0] > 0
        ends += [[b, e], [b, c]] if plus else [[e, b], [c, b]]
        p = system.bjt_arrays
        i_s += [p.i_s[k : k + 1]] * 2
        nvt += [p.nvt_f[k : k + 1], p.nvt_r[k : k + 1]]
        blocks.append(_ebers_moll(p.b_f[k], p.b_r[k]))
    count = diodes + 2 * bjts
    width = max((b.shape[2] for b in blocks), default=1)
    mix = np.zeros((count, count, width))
    mix[np.arange(diodes), np.arange(diodes)] = 1.0
    for k, block in enumerate(blocks):
        at = diodes + 2 * k
        mix[at : at + 2, at : at + 2] = block
    knee = None
    if system.diode_knee is not None:
        knee = np.concatenate([system.diode_knee, np.full((2 * bjts, 1), np.inf)])
    return Ports(
        np.array(ends, dtype=np.intp).reshape(count, 2),
        _joined([system.diode_rs, np.zeros((2 * bjts, 1))]),
        _joined(i_s),
        _joined(nvt),
        mix,
        knee,
    )


def _ebers_moll(b_f: FloatArray, b_r: FloatArray) -> FloatArray:
    """Port currents from transport currents: (2, 2, samples or 1).

    Through base-emitter flows Ib + Ic, through base-collector −Ic (Ebers and Moll 1954).
    """
    one = np.ones_like(b_f + b_r)
    return np.array([[one + 1 / b_f, -one], [-one, one + 1 / b_r]])


def _joined(parts: list[FloatArray]) -> FloatArray:
    width = max(p.shape[1] for p in parts)
    return np.concatenate([np.broadcast_to(p, (p.shape[0], width)) for p in parts])


@dataclass
class Seen:
    """The linear part as the ports see it.

    Attributes:
        free: unknowns with no port current, ground's row of zeros last, (size + 1, samples).
        per_amp: unknowns for one amp into each port, likewise, (size + 1, ports, samples or 1).
        open: port voltages with no port current, (ports, samples).
        ohms: port resistances, (ports, ports, samples or 1).
    """

    free: FloatArray
    per_amp: FloatArray
    open: FloatArray
    ohms: FloatArray


@dataclass(frozen=True)
class Frame:
    """What all samples share: the linear matrix as a constant plus so much for each siemens.

    Attributes:
        places: (row, column) of each stored entry.
        constant: the branches' ones and PORT_S across every port, (entries, 1).
        per_siemens: what each conductance adds, (entries, conductances).
        per_slope: what each reactive part's companion adds, (entries, parts).
    """

    places: tuple[tuple[int, int], ...]
    constant: FloatArray
    per_siemens: Matrix
    per_slope: Matrix


def merged(ports: Ports, chains: Sequence[Chain]) -> tuple[Ports, list[int]]:
    """Every chain one port, and which of the former ports each begins with.

    Args:
        ports: one port a junction.
        chains: junctions that carry one current.

    Returns:
        Ports, and places among the former ones, (ports,).
    """
    inside = {k for c in chains for k in c.diodes[1:]}
    kept = [k for k in range(len(ports.ends)) if k not in inside]
    ends = ports.ends[kept].copy()
    r_s, i_s, nvt = (np.array(a[kept]) for a in (ports.r_s, ports.i_s, ports.nvt))
    gmin = np.full((len(kept), 1), devices.GMIN)
    for c in chains:
        at = kept.index(c.diodes[0])
        own = list(c.diodes)
        ends[at, 1] = ports.ends[own[-1], 1]
        r_s[at] = ports.r_s[own].sum(axis=0)
        i_s[at], nvt[at] = as_one(ports.i_s[own], ports.nvt[own])
        gmin[at] = devices.GMIN / len(own)
    mix = ports.mix[np.ix_(kept, kept)]
    return Ports(ends, r_s, i_s, nvt, mix, ports.knee, gmin), kept


def frame_of(system: System, ports: Ports, ties: Sequence[tuple[int, int]] = ()) -> Frame:
    """The linear matrix's pattern; diodes' inner nodes are left out.

    Args:
        system: the equations.
        ports: pairs of nodes with a junction between.
        ties: pairs of nodes held together by PORT_S besides: those inside a chain, which nothing
            linear reaches.

    Returns:
        The pattern.
    """
    entries: list[tuple[int, int, float, int]] = []
    resistors, capacitors = len(system.resistors), len(system.capacitors)
    parts = resistors + capacitors + len(system.inductors)
    groups = [(system.resistor_nodes, 0)]
    if system.companion is not None:
        groups.append((system.capacitor_nodes, resistors))
    for nodes, first in groups:
        for n, (a, b) in enumerate(nodes.tolist()):
            entries += [(a, a, 1.0, first + n), (b, b, 1.0, first + n)]
            entries += [(a, b, -1.0, first + n), (b, a, -1.0, first + n)]
    for a, b in [*ports.ends.tolist(), *ties]:
        entries += [(a, a, PORT_S, parts), (b, b, PORT_S, parts)]
        entries += [(a, b, -PORT_S, parts), (b, a, -PORT_S, parts)]
    for branch in system.branched:
        k = system.branches[branch.name]
        a, b = (system.at(n) for n in nodes_of(branch))
        entries += [(a, k, 1.0, parts), (b, k, -1.0, parts), (k, a, 1.0, parts), (k, b, -1.0, parts)]
    if system.companion is not None:
        for n, inductor in enumerate(system.inductors):
            k = system.branches[inductor.name]
            entries.append((k, k, -1.0, resistors + capacitors + n))
    size = system.outer_size
    kept = [e for e in entries if e[0] < size and e[1] < size]
    slots: dict[tuple[int, int], int] = {}
    at = np.array([slots.setdefault((r, c), len(slots)) for r, c, _, _ in kept], dtype=np.intp)
    values = np.array([e[2] for e in kept])
    columns = np.array([e[3] for e in kept], dtype=np.intp)

    def part(low: int, high: int) -> Matrix:
        own = (columns >= low) & (columns < high)
        return matrix(values[own], (at[own], columns[own] - low), (len(slots), high - low))

    constant = np.zeros((len(slots), 1))
    fixed = columns == parts
    np.add.at(constant[:, 0], at[fixed], values[fixed])
    return Frame(tuple(slots), constant, part(0, resistors), part(resistors, parts))


def look(system: System, ports: Ports, frame: Frame, drive: FloatArray, memory: Sequence[tuple[int, int]] = ()) -> Seen:
    """Reduce the linear part of some samples to the ports.

    Args:
        frame: the pattern, from :func:`frame_of`.
        ports: pairs of nodes with a junction between.
        system: the samples' equations.
        drive: right-hand side of the sources, (size, samples).
        memory: further pairs of rows to put one unit out of and into; their answers follow the
            ports' in ``per_amp``.

    Returns:
        Unknowns and port volts with no port current, V and A, and what one amp into each port adds to them, Ω.
    """
    entries = frame.constant
    if system.resistors:
        entries = frame.per_siemens @ system.conductances + entries
    if system.companion is not None:
        entries = entries + frame.per_slope @ system.companion
    wide, samples = entries.shape[1], drive.shape[1]
    ends = [*ports.ends.tolist(), *memory]
    count, size = len(ends), system.outer_size
    # One matrix for all samples takes their drives as further right-hand sides.
    shape = (count + samples, 1) if wide == 1 else (count + 1, wide)
    right = scratch("right", (system.size + 1, *shape))
    right[:] = 0.0
    for k, (a, b) in enumerate(ends):
        right[a, k] -= 1.0
        right[b, k] += 1.0
    right[:size, count:] = drive[:size, :, None] if wide == 1 else drive[:size, None]
    sides = scratch("sides", right.shape)
    sides[size:] = 0.0
    _solve(frame.places, entries, right[:size], sides[:size])
    per_amp = sides[:, :count]
    free = sides[:, count:, 0] if wide == 1 else sides[:, count]
    plus, minus = ports.ends.T
    own = per_amp[:, : len(ports.ends)]
    return Seen(free, per_amp, free[plus] - free[minus], own[minus] - own[plus])


# Plans by pattern. Pivots are chosen for the first circuit of a pattern; one they do not suit fails
# Kirchhoff's check and is solved by LAPACK.
_PLANS: dict[tuple[tuple[tuple[int, int], ...], int, bytes], Plan] = {}
_MOST_PLANS = 256


def _planned(places: tuple[tuple[int, int], ...], entries: FloatArray, right: FloatArray) -> Plan:
    size, count = right.shape[:2]
    filled: NDArray[np.bool_] = np.asarray(right.any(axis=2))
    key = (places, size, filled.tobytes())
    if key not in _PLANS:
        if len(_PLANS) >= _MOST_PLANS:
            _PLANS.clear()
        sides = [set(np.flatnonzero(filled[:, k]).tolist()) for k in range(count)]
        _PLANS[key] = plan(list(places), size, entries[:, 0], sides)
    return _PLANS[key]


def _solve(places: tuple[tuple[int, int], ...], entries: FloatArray, right: FloatArray, out: FloatArray) -> None:
    """Solve into ``out``; ``right`` is used up."""
    size = right.shape[0]
    samples = entries.shape[1]
    if samples >= FEW_SAMPLES:
        solve(_planned(places, entries, right), entries, right, out)
        return
    index = np.array(places, dtype=np.intp).reshape(-1, 2)
    matrix = np.zeros((samples, size, size))
    matrix[:, index[:, 0], index[:, 1]] = entries.T
    try:
        out[:] = np.linalg.solve(matrix, right.transpose(2, 0, 1)).transpose(1, 2, 0)
    except np.linalg.LinAlgError:
        out[:] = np.nan


@dataclass
class PortOutcome:
    """Port voltages, unknowns with ground's row of zeros, which samples are proved, and which have a weak node."""

    v: FloatArray
    x: FloatArray
    proved: NDArray[np.bool_]
    weak: NDArray[np.bool_]


def solve_at_ports(system: System, *, merge: bool = True) -> PortOutcome:
    """Newton's method on the ports of every sample, proved by Kirchhoff's law at every node.

    Args:
        system: one that :func:`suits`.
        merge: take diodes one after another as one port.

    Returns:
        Node voltages, and which samples Kirchhoff's law holds for.
    """
    every = ports_of(system)
    chains = chains_of(system) if merge else ()
    ports, kept = merged(every, chains) if chains else (every, list(range(len(every.ends))))
    drive = system.drive()[:-1]
    count, samples = len(ports.ends), system.samples
    out = PortOutcome(
        np.empty((len(every.ends), samples)),
        np.empty((system.size + 1, samples)),
        np.empty(samples, dtype=bool),
        np.empty(samples, dtype=bool),
    )
    ties = [(node, int(every.ends[c.diodes[-1], 1])) for c in chains for node in c.between]
    frame = frame_of(system, ports, ties)
    start = critical(ports.i_s[:, :1], ports.nvt[:, :1])
    guess = _Guess.learned(system, ports, frame, drive, start) if samples >= MANY and count > 1 else None
    if guess is None and samples > 4 * FEW_SAMPLES and count > 1:
        # One sample from the middle shows where the rest will come to.
        middle = slice(samples // 2, samples // 2 + 1)
        one = ports.cut(middle)
        v, found = _iterate(one, look(system.piece(middle), one, frame, drive[:, middle]), start)
        start = v if found.all() else start
    diodes = len(system.diodes)
    inner = [system.inner[d.name] for d in system.with_rs]
    own = [k for k in range(diodes) if system.diodes[k].name in system.inner]

    def work(piece: slice) -> None:
        whole = piece == slice(0, samples)
        some, part = (ports, system) if whole else (ports.cut(piece), system.piece(piece))
        single = every if whole else every.cut(piece)
        seen = look(part, some, frame, drive[:, piece])
        begin = start if guess is None else guess.volts(some, seen)
        v, settled = _iterate(some, seen, _alone(some, seen) if count == 1 else begin)
        x = seen.free
        amps = port_amps(some, v)
        through = amps.copy() if chains else amps
        # PORT_S stands across the outer terminals, series resistance included.
        amps -= PORT_S * (v + some.r_s * amps)
        for k in range(count):
            x += seen.per_amp[:, k] * amps[k]
        if chains:
            v = _unfolded(chains, kept, single, v, through, x)
        x[inner] = x[single.ends[own, 1]] + v[own]
        balance = kirchhoff(part, x, junctions_at(system, v), drive[:, piece], devices.GMIN)
        out.v[:, piece], out.x[:, piece] = v, x
        out.proved[piece], out.weak[piece] = settled & balance.holds, balance.weak

    pieces = [slice(k, min(k + CHUNK, samples)) for k in range(0, samples, CHUNK)]
    if system.size <= LARGEST_DENSE:
        _ = system.balance  # worked out once for all pieces
    if len(pieces) == 1:
        work(pieces[0])
    else:
        # numpy lets go of the interpreter in its array operations: pieces run side by side.
        list(_threads().map(work, pieces))
    return out


def _unfolded(
    chains: Sequence[Chain], kept: list[int], ports: Ports, v: FloatArray, amps: FloatArray, x: FloatArray
) -> FloatArray:
    """Every junction's own voltage, and in ``x`` the nodes between the diodes of each chain."""
    out = np.empty((len(ports.ends), v.shape[1]))
    out[kept] = v
    for c in chains:
        at = kept.index(c.diodes[0])
        left = v[at].copy()
        level = x[ports.ends[c.diodes[0], 0]]
        for k, node in zip(c.diodes, c.between, strict=False):
            own = shared_volts(amps[at], ports.i_s[k], ports.nvt[k])
            out[k] = own
            left -= own
            level = level - own - ports.r_s[k] * amps[at]
            x[node] = level
        out[c.diodes[-1]] = left
    return out


@dataclass(frozen=True)
class _Guess:
    """Port voltages as a straight line through a few solved samples, to start the others from.

    A start is all it is: Newton's method and Kirchhoff's check decide what comes of it.
    """

    weights: FloatArray

    @classmethod
    def learned(
        cls, system: System, ports: Ports, frame: Frame, drive: FloatArray, start: FloatArray
    ) -> "_Guess | None":
        """From samples spread over the batch; None where no straight line passes near them."""
        few = slice(0, system.samples, system.samples // LEARNED)
        some = ports.cut(few)
        seen = look(system.piece(few), some, frame, drive[:, few])
        v, found = _iterate(some, seen, start)
        if not found.all():
            return None
        facts = _facts(some, seen)
        weights, *_ = np.linalg.lstsq(facts.T, v.T, rcond=None)
        off = np.abs(weights.T @ facts - v)
        return cls(np.asarray(weights.T, dtype=float)) if float(np.percentile(off, 90)) < NEAR_V else None

    def volts(self, ports: Ports, seen: Seen) -> FloatArray:
        """Where the samples of a piece should stand."""
        return np.asarray(self.weights @ _facts(ports, seen))


def _facts(ports: Ports, seen: Seen) -> FloatArray:
    """What tells one sample from another: open volts, resistances, logarithms of saturation currents."""
    count, samples = seen.open.shape
    rows = [np.ones((1, samples)), seen.open]
    upper = np.triu_indices(count)
    for a in (seen.ohms[upper], np.log(ports.i_s), ports.r_s, ports.nvt):
        if a.shape[-1] > 1:
            rows.append(a)
    return np.concatenate(rows)


@cache
def _threads() -> ThreadPoolExecutor:
    return ThreadPoolExecutor(os.cpu_count() or 1, thread_name_prefix="ports")


def _alone(ports: Ports, seen: Seen) -> FloatArray:
    """Where a single junction will stand, nearly: its voltage at the current of a short in its place."""
    short = np.maximum(seen.open, 0.0) / (seen.ohms[0] + ports.r_s)
    # PORT_S draws the open voltage down; a junction that is dark stands at what it is without.
    free = seen.open / np.maximum(1.0 - PORT_S * seen.ohms[0], 1e-9)
    return np.asarray(np.minimum(ports.nvt * np.log1p(short / ports.i_s), free))


def _cut(a: FloatArray, piece: slice) -> FloatArray:
    return a if a.shape[-1] == 1 else a[..., piece]


def transport(ports: Ports, v: FloatArray) -> devices.Branch:
    """The junctions' own currents and slopes at port voltages, (ports, samples).

    Args:
        ports: the ports.
        v: their volts, (ports, samples).

    Returns:
        Current in A and slope in S, shape of ``v``.
    """
    branch = devices.junction(v, ports.i_s, ports.nvt, ports.gmin)
    if ports.knee is not None:
        more = devices.breakdown(v, ports.i_s, ports.knee, ports.nvt)
        branch = devices.Branch(branch.amps + more.amps, branch.siemens + more.siemens)
    return branch


def port_amps(ports: Ports, v: FloatArray) -> FloatArray:
    """Currents through the ports, (ports, samples).

    Args:
        ports: the ports.
        v: their volts, (ports, samples).

    Returns:
        A, shape of ``v``.
    """
    return np.asarray((ports.mix * transport(ports, v).amps).sum(axis=1))


@dataclass
class _Running:
    """Samples still on their way, with what Newton's step needs of them; (…, samples or 1) each."""

    ports: Ports
    ohms: FloatArray
    mixed: FloatArray
    base: FloatArray
    share: FloatArray
    open: FloatArray
    crit: FloatArray
    v: FloatArray

    def kept(self, index: IntArray) -> "_Running":
        """The same for fewer samples."""

        def take(a: FloatArray) -> FloatArray:
            return a if a.shape[-1] == 1 else np.take(a, index, axis=-1)

        p = self.ports
        ports = Ports(p.ends, take(p.r_s), take(p.i_s), take(p.nvt), take(p.mix), p.knee, p.gmin)
        return _Running(
            ports,
            take(self.ohms),
            take(self.mixed),
            take(self.base),
            take(self.share),
            take(self.open),
            take(self.crit),
            take(self.v),
        )


def _iterate(ports: Ports, seen: Seen, start: FloatArray) -> tuple[FloatArray, NDArray[np.bool_]]:
    """Newton's method from ``start``; which samples settled.

    Most samples settle long before the last: once half of them have, only the others go on.
    """
    mix, ohms = ports.mix, seen.ohms
    count, samples = seen.open.shape
    # Through a diode's series resistance the junction's current also moves the volts that PORT_S sees.
    share = 1.0 - PORT_S * ports.r_s
    series = ohms * share
    series[np.arange(count), np.arange(count)] += ports.r_s
    plain = ports.unmixed
    base = -PORT_S * ohms
    base[np.arange(count), np.arange(count)] += 1.0
    first = np.broadcast_to(start, (count, samples)).copy()
    run = _Running(
        ports,
        ohms,
        series if plain else _product(series, mix),
        base,
        share,
        seen.open,
        critical(ports.i_s, ports.nvt),
        first,
    )
    v = first
    settled = np.zeros(samples, dtype=bool)
    where: IntArray | None = None
    polished = np.zeros(samples, dtype=bool)
    with np.errstate(invalid="ignore", over="ignore", divide="ignore"):
        for _ in range(MOST_STEPS):
            step = _step(run, plain)
            longest = np.abs(step).max(axis=0)
            run.v = limited_step(run.ports, run.v, step, run.crit)
            done = polished | (longest <= LAST_STEP_V)
            polished = longest <= STEP_V
            going = np.flatnonzero(~done)
            if not len(going):
                break
            stray = ~np.isfinite(longest)
            if stray.any():
                run.v[:, stray] = np.broadcast_to(run.crit, run.v.shape)[:, stray]
            if len(done) > FEW_GOING and len(going) < len(done) / 2:
                v, settled = _put_back(v, settled, where, run.v, polished)
                where = going if where is None else where[going]
                run, polished = run.kept(going), polished[going]
    return _put_back(v, settled, where, run.v, polished)


def _put_back(
    v: FloatArray, settled: NDArray[np.bool_], where: IntArray | None, now: FloatArray, near: NDArray[np.bool_]
) -> tuple[FloatArray, NDArray[np.bool_]]:
    """The samples still going among all of them."""
    if where is None:
        return now, near
    v[:, where], settled[where] = now, near
    return v, settled


def _step(run: _Running, plain: bool) -> FloatArray:
    """Newton's step: J·step = −F, F = v − open + Rs·i + Z·(i − g0·(v + Rs·i)) and J its slope."""
    p, v = run.ports, run.v
    count, samples = v.shape
    t = transport(p, v)
    amps = t.amps if plain else (p.mix * t.amps).sum(axis=1)
    put = run.share * amps - PORT_S * v
    through = np.einsum("ij...,j...->i...", run.ohms, put)
    fault = run.open - v - p.r_s * amps - through
    slope = scratch("slope", (count, count, samples))
    np.multiply(run.mixed, t.siemens, out=slope)
    slope += run.base
    # A sample it fails for leaves Kirchhoff's law unmet and is solved again by LAPACK.
    return eliminate(slope, fault[:, None])[:, 0]


def _product(a: FloatArray, b: FloatArray) -> FloatArray:
    return np.asarray(np.einsum("ij...,jk...->ik...", a, b)) if b.shape[0] > 1 else a * b


def limited_step(ports: Ports, v: FloatArray, step: FloatArray, crit: FloatArray) -> FloatArray:
    """The new voltages, held back where a junction's exponential would run away.

    Args:
        ports: the ports.
        v: their volts, (ports, samples).
        step: what Newton's method wants to add, V, same shape.
        crit: from :func:`newton.critical`, V.

    Returns:
        V, shape of ``v``.
    """
    nvt, knee = ports.nvt, ports.knee
    new = v + step
    jump = np.abs(step) > 2 * nvt
    if not jump.any():
        return new
    out = limited(new, v, nvt, crit)
    if knee is not None:
        beyond = new < np.minimum(0.0, -knee + 10 * nvt)
        mirrored = limited(-(new + knee), -(v + knee), nvt, critical(ports.i_s, nvt))
        out = np.where(beyond & np.isfinite(knee), -(mirrored + knee), out)
    return out


def junctions_at(system: System, v: FloatArray) -> Junctions:
    """Port voltages as the system's junctions.

    Args:
        system: the equations.
        v: port volts, (ports, samples).

    Returns:
        Junction voltages, V.
    """
    diodes = len(system.diodes)
    rest = v[diodes:]
    return Junctions(v[:diodes], rest[0::2], rest[1::2], np.zeros((0, v.shape[1]), dtype=bool))


def volts_at(junctions: Junctions) -> FloatArray:
    """Junctions' voltages as those of the ports: what :func:`junctions_at` undoes.

    Args:
        junctions: their volts, (junctions, samples).

    Returns:
        V, (ports, samples).
    """
    pairs = np.stack([junctions.be, junctions.bc], axis=1)
    return np.concatenate([junctions.diode, pairs.reshape(-1, junctions.diode.shape[1])])
