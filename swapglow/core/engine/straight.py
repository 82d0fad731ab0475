"""Newton's iterations of a time step as straight-line code, written for one circuit and compiled once.

A run in time solves the same few equations thousands of times with one set of values, and array operations then
cost little but their calls. So the elimination is planned once and every multiplication of it written out over
plain numbers (Hachtel, Brayton and Gustavson 1971; Nagel 1975 had SPICE2 write machine code in this way). The
laws, the limiter and the proof are those of ``devices`` and ``newton``; a step that this code does not prove is
left to them.
"""

import math
from collections.abc import Callable, Sequence

import numpy as np

from swapglow.core.engine.devices import GMIN
from swapglow.core.engine.elimination import plan
from swapglow.core.engine.mna import System
from swapglow.core.engine.netlist import CircuitError, nodes_of
from swapglow.core.engine.newton import IDLE_V, RESIDUAL, RESIDUAL_A, RESIDUAL_HISTORY, RESIDUAL_MOST, STEP_V, critical

# Unknowns and junctions after a step; nothing where it is not proved.
Solved = tuple[list[float], list[float]] | None
Code = Callable[[Sequence[float], Sequence[float], Sequence[float], Sequence[float]], Solved]

# Above this many unknowns the code is long, and sparse LU does as well.
LARGEST = 40
# A step that has not settled by then has its currents balanced as they stand.
MOST_STEPS = 12


def suits(system: System) -> bool:
    """Whether this code knows all of a system's parts: junctions are its only nonlinear ones."""
    return (
        system.samples == 1
        and system.size <= LARGEST
        and system.is_nonlinear
        and not (system.switches or system.regulators or system.current_regulators)
    )


def limit(new: float, old: float, nvt: float, crit: float) -> float:
    """SPICE's junction limiter for one junction, as :func:`newton.limited` has it.

    Args:
        new, old: junction volts after and before the step, V.
        nvt: n·Vt, V.
        crit: from :func:`newton.critical`, V.

    Returns:
        V.
    """
    if new <= crit or abs(new - old) <= 2 * nvt:
        return new
    if old > 0:
        step = (new - old) / nvt
        return old + nvt * math.log1p(step) if step > -0.999 else crit
    return nvt * math.log(max(new / nvt, 1e-30))


def straight_line(system: System, slopes: Sequence[float]) -> Code | None:
    """The code of a circuit's time step.

    Args:
        system: the equations at DC, one sample.
        slopes: the reactive parts' companions in a typical step, S and Ω: by them the pivots are chosen.

    Returns:
        A function of companions, right-hand side, unknowns and junctions (diodes, then base-emitter, then
        base-collector of the transistors), each a row of plain numbers; None where its elimination cannot be planned.
    """
    try:
        source = "\n".join(_Writer(system, slopes).lines())
    except CircuitError:
        return None
    room: dict[str, object] = {"exp": math.exp, "limit": limit}
    # The text is made here, of numbers and indices alone.
    exec(compile(source, "<time step>", "exec"), room)
    code = room["step"]
    assert callable(code)
    return code


class _Writer:
    """Writes the code, line by line."""

    def __init__(self, system: System, slopes: Sequence[float]) -> None:
        self.s = system
        self.parts = len(system.storage)
        with_memory = system.with_companion(np.zeros((self.parts, 1)))
        self.slots = dict(with_memory.slots)
        none = with_memory.linear_slots[:, 0]
        self.straight: list[list[str]] = [[_number(value)] if value else [] for value in none]
        sample = none.copy()
        for k in range(self.parts):
            unit = np.zeros((self.parts, 1))
            unit[k] = 1.0
            for slot, more in enumerate(with_memory.with_companion(unit).linear_slots[:, 0] - none):
                if more:
                    self.straight[slot].append(f"{_number(more)}*c{k}")
                    sample[slot] += more * slopes[k]
        self.entries: dict[int, list[str]] = {slot: [] for slot in range(len(none))}
        self.right: list[list[str]] = [[] for _ in range(system.size)]
        self.flows: list[list[tuple[str, str]]] = [[] for _ in range(system.size)]
        self.junctions: list[str] = []
        self.moves: list[str] = []
        self.stands: list[str] = []
        self._diodes()
        self._transistors()
        for slot, terms in self.entries.items():
            # A junction is somewhere between dark and lit.
            sample[slot] += 1e-3 * len(terms) if self.diagonal(slot) else -1e-3 * len(terms)
        self.plan = plan(list(self.slots), system.size, sample, [set(range(system.size))])

    def diagonal(self, slot: int) -> bool:
        row, column = list(self.slots)[slot]
        return row == column

    def add(self, row: int, column: int, term: str) -> None:
        """One more term of a matrix entry; ground has none."""
        if (row, column) in self.slots:
            self.entries[self.slots[row, column]].append(term)

    def leaves(self, row: int, sign: str, current: str, offset: str) -> None:
        """A nonlinear current that leaves a node, and its companion source."""
        if row < self.s.size:
            self.right[row].append(("-" if sign == "+" else "+") + offset)
            self.flows[row].append((sign, current))

    def _junction(self, n: int, i_s: float, nvt: float, knee: float = math.inf) -> None:
        """Current ``i`` and slope ``g`` of a junction at ``v``, as :mod:`devices` has them."""
        a, b = _number(i_s), _number(nvt)
        self.junctions += [
            f"if v{n} < {_number(-3 * nvt)}:",
            f" t = ({_number(3 * nvt / math.e)} / v{n}) ** 3",
            f" i{n} = {_number(-i_s)} * (1.0 + t) + {GMIN} * v{n}",
            f" g{n} = {_number(3 * i_s)} * t / v{n} + {GMIN}",
            "else:",
            f" t = v{n} / {b}",
            f" t = {a} * exp(t if t < 300.0 else 300.0)",
            f" i{n} = t - {a} + {GMIN} * v{n}",
            f" g{n} = t / {b} + {GMIN}",
        ]
        if math.isfinite(knee):
            self.junctions += [
                f"if v{n} < {_number(-knee)}:",
                f" t = {_number(-knee)} - v{n}",
                f" t = {a} * exp(t / {b} if t < {_number(80 * nvt)} else 80.0)",
                f" i{n} -= t",
                f" g{n} += t / {b}",
            ]

    def _move(self, n: int, raw: str, nvt: float, crit: float, knee: float, *, may_idle: bool) -> None:
        """A junction's next voltage, and how far the step went."""
        counts = f" and not (d <= {IDLE_V} * (1.0 + abs(r)) and d * g{n} <= quiet)" if may_idle else ""
        self.stands.append(f"v{n} = {raw}")
        self.moves += [f"r = {raw}", f"d = abs(r - v{n})", f"if d > {STEP_V}{counts}: still = False"]
        plain = f"r if d <= {_number(2 * nvt)} else limit(r, v{n}, {_number(nvt)}, {_number(crit)})"
        if not math.isfinite(knee):
            self.moves.append(f"v{n} = {plain}")
            return
        k = _number(knee)
        self.moves += [
            f"if r < {_number(min(0.0, 10 * nvt - knee))}:",
            f" v{n} = -(limit(-(r + {k}), -(v{n} + {k}), {_number(nvt)}, {_number(crit)}) + {k})",
            f"else: v{n} = {plain}",
        ]

    def _diodes(self) -> None:
        s = self.s
        for n, (a, c) in enumerate(s.junction_ends.tolist()):
            i_s, nvt = float(s.diode_is[n, 0]), float(s.diode_nvt[n, 0])
            knee = math.inf if s.diode_knee is None else float(s.diode_knee[n, 0])
            crit = float(critical(s.diode_is[n], s.diode_nvt[n])[0])
            self._junction(n, i_s, nvt, knee)
            for row, column, sign in ((a, a, "+"), (a, c, "-"), (c, a, "-"), (c, c, "+")):
                self.add(row, column, f"{sign}g{n}")
            self.junctions.append(f"o{n} = i{n} - g{n} * v{n}")
            self.leaves(a, "+", f"i{n}", f"o{n}")
            self.leaves(c, "-", f"i{n}", f"o{n}")
            self._move(n, f"{self.x(a)} - {self.x(c)}", nvt, crit, knee, may_idle=True)

    def _transistors(self) -> None:
        """Collector and base currents and slopes (:func:`devices.transistor`)."""
        s, p, first = self.s, self.s.bjt_arrays, len(self.s.diodes)
        count = len(s.bjts)
        for k, (c, b, e) in enumerate(s.bjt_nodes.tolist()):
            f, r = first + k, first + count + k
            i_s, nvt_f, nvt_r = float(p.i_s[k, 0]), float(p.nvt_f[k, 0]), float(p.nvt_r[k, 0])
            self._junction(f, i_s, nvt_f)
            self._junction(r, i_s, nvt_r)
            b_f, b_r, early = (_number(float(a[k, 0])) for a in (p.b_f, p.b_r, p.inv_vaf))
            sign = _number(float(s.bjt_sign[k, 0]))
            self.junctions += [
                f"e{k} = 1.0 - v{r} * {early}",
                f"jc{k} = (i{f} - i{r}) * e{k} - i{r} / {b_r}",
                f"jb{k} = i{f} / {b_f} + i{r} / {b_r}",
                f"cf{k} = g{f} * e{k}",
                f"cr{k} = -g{r} * e{k} - (i{f} - i{r}) * {early} - g{r} / {b_r}",
                f"bf{k} = g{f} / {b_f}",
                f"br{k} = g{r} / {b_r}",
                f"oc{k} = {sign} * (jc{k} - cf{k} * v{f} - cr{k} * v{r})",
                f"ob{k} = {sign} * (jb{k} - bf{k} * v{f} - br{k} * v{r})",
                f"jc{k} *= {sign}",
                f"jb{k} *= {sign}",
                f"je{k} = -jc{k} - jb{k}",
                f"oe{k} = -oc{k} - ob{k}",
            ]
            for row, of_f, of_r in ((c, f"cf{k}", f"cr{k}"), (b, f"bf{k}", f"br{k}")):
                self._slopes(row, "", of_f, of_r, c, b, e)
                self._slopes(e, "-", of_f, of_r, c, b, e)
            for row, name in ((c, "c"), (b, "b"), (e, "e")):
                self.leaves(row, "+", f"j{name}{k}", f"o{name}{k}")
            for n, other, nvt in ((f, e, nvt_f), (r, c, nvt_r)):
                crit = float(critical(p.i_s[k], np.array([nvt]))[0])
                raw = f"{sign} * ({self.x(b)} - {self.x(other)})"
                self._move(n, raw, nvt, crit, math.inf, may_idle=False)

    def _slopes(self, row: int, sign: str, of_f: str, of_r: str, c: int, b: int, e: int) -> None:
        """Slopes of a transistor's current over its nodes: Vbe = Vb − Ve, Vbc = Vb − Vc; polarity cancels."""
        plus, minus = ("+", "-") if not sign else ("-", "+")
        self.add(row, b, f"{plus}{of_f}{plus}{of_r}")
        self.add(row, e, f"{minus}{of_f}")
        self.add(row, c, f"{minus}{of_r}")

    def x(self, row: int) -> str:
        """An unknown's name; ground is nothing."""
        return f"x{row}" if row < self.s.size else "0.0"

    def lines(self) -> list[str]:
        """The whole function."""
        s, size = self.s, self.s.size
        count = len(s.diodes) + 2 * len(s.bjts)
        head = [
            "def step(companions, right, x, v):",
            *([f" [{', '.join(f'c{k}' for k in range(self.parts))}] = companions"] if self.parts else []),
            f" [{', '.join(f'b{k}' for k in range(size))}] = right",
            f" [{', '.join(f'v{k}' for k in range(count))}] = v",
        ]
        head += [f" l{k} = {' + '.join(terms) or '0.0'}" for k, terms in enumerate(self.straight)]
        head.append(f" for turn in range({MOST_STEPS}):")
        body = [f"  {line}" for line in self.junctions]
        body += [f"  a{k} = l{k}{''.join(terms)}" for k, terms in self.entries.items()]
        body += [f"  a{k} = 0.0" for k in range(len(self.entries), self.plan.slots)]
        body += [f"  y{k} = b{k}{''.join(terms)}" for k, terms in enumerate(self.right)]
        body += [f"  {line}" for line in self._elimination()]
        body += [f"  quiet = {RESIDUAL_A} + {RESIDUAL_MOST} * max({self._sizes()})", "  still = True"]
        body += [f"  {line}" for line in self.moves]
        body += ["  if still: break"]
        # Rounding may keep a node that only gmin ties down from coming to rest: what counts is whether the
        # currents balance at the voltages as they stand.
        tail = [" else:", *(f"  {line}" for line in self.stands)]
        tail += [f" {line}" for line in (*self.junctions, *self._proof())]
        unknowns, volts = (", ".join(f"{name}{k}" for k in range(n)) for name, n in (("x", size), ("v", count)))
        tail.append(f" return [{unknowns}, 0.0], [{volts}]")
        return head + body + tail

    def _sizes(self) -> str:
        """Magnitudes of all junction currents, as ``newton`` compares them."""
        names = [f"i{n}" for n in range(len(self.s.diodes))]
        names += [f"j{end}{k}" for k in range(len(self.s.bjts)) for end in "cbe"]
        return ", ".join(f"abs({name})" for name in (*names, "0.0"))

    def _elimination(self) -> list[str]:
        out = []
        for step in self.plan.steps:
            out.append(f"w{step.row} = 1.0 / a{step.pivot}")
            for slot, row, pairs in step.updates:
                out.append(f"f = a{slot} * w{step.row}")
                out += [f"a{target} -= f * a{source}" for source, target in pairs]
                out.append(f"y{row} -= f * y{step.row}")
        for step in reversed(self.plan.steps):
            rest = "".join(f" - a{slot} * x{column}" for slot, column in step.rest)
            out.append(f"x{step.column} = (y{step.row}{rest}) * w{step.row}")
        return out

    def _proof(self) -> list[str]:
        """Kirchhoff's current law at every node and the voltage law of every branch, from the parts' own laws."""
        s, out = self.s, []
        flows = [list(of) for of in self.flows]

        def across(name: str, law: str, a: int, b: int) -> None:
            out.append(f"{name} = {law} * ({self.x(a)} - {self.x(b)})")
            for row, sign in ((a, "+"), (b, "-")):
                if row < s.size:
                    flows[row].append((sign, name))

        for n, (a, b) in enumerate(s.resistor_nodes.tolist()):
            across(f"p{n}", _number(float(s.conductances[n, 0])), a, b)
        for n, d in enumerate(s.with_rs):
            anode = s.at(nodes_of(d)[0])
            across(f"q{n}", _number(float(s.inner_conductances[n, 0])), anode, s.inner[d.name])
        for n, (a, b) in enumerate(s.capacitor_nodes.tolist()):
            across(f"m{n}", f"c{n}", a, b)
        for n, branch in enumerate(s.branched):
            k = s.branches[branch.name]
            a, b = (s.at(node) for node in nodes_of(branch))
            for row, sign in ((a, "+"), (b, "-")):
                if row < s.size:
                    flows[row].append((sign, f"x{k}"))
            drop = f"{self.x(a)} - {self.x(b)}"
            coil = n - len(s.sources)
            if coil >= 0:
                drop += f" - c{len(s.capacitors) + coil} * x{k}"
            out.append(f"z{n} = {drop}")
            flows[k].append(("+", f"z{n}"))
        nodes = ", ".join(f"abs(b{k})" for k in range(len(s.nodes)))
        traces = f"{RESIDUAL_MOST} * max({self._sizes()}) + {RESIDUAL_HISTORY} * max({nodes}, 0.0)"
        out.append(f"floor = {RESIDUAL_A} + {traces}")
        for row, terms in enumerate(flows):
            left = "".join(f" {sign} {name}" for sign, name in terms)
            scale = " + ".join(f"abs({name})" for name in (*(name for _, name in terms), f"b{row}"))
            out.append(f"if not abs(0.0{left} - b{row}) <= {RESIDUAL} * ({scale}) + floor: return None")
        return out


def _number(value: float) -> str:
    """A number as code that gives the same number."""
    return f"({float(value)!r})"
