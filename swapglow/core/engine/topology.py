"""What makes a circuit unsolvable, found before any arithmetic and said plainly."""

import itertools
import math
from collections.abc import Iterable

import numpy as np

from swapglow.core.engine.netlist import (
    Bjt,
    Capacitor,
    Circuit,
    CircuitError,
    CurrentRegulator,
    CurrentSource,
    Diode,
    Element,
    FullWave,
    Inductor,
    Param,
    Pulse,
    Pwl,
    Regulator,
    Resistor,
    Sine,
    Switch,
    VoltageSource,
    nodes_of,
)

LARGEST = 1e15


def check(circuit: Circuit) -> None:
    """Raise CircuitError where the circuit cannot have one finite answer."""
    if not circuit.elements:
        raise CircuitError("The circuit is empty: it needs a supply and something for it to feed.")
    if not (-200 < circuit.celsius < 500):
        raise CircuitError(f"A circuit at {circuit.celsius:g} °C is outside -200 to 500 °C.")
    _check_names(circuit.elements)
    for element in circuit.elements:
        _check_values(element)
    _check_ground(circuit.elements)
    _check_source_loops(circuit.elements)


def _check_names(elements: Iterable[Element]) -> None:
    seen: set[str] = set()
    for e in elements:
        if e.name.lower() in seen:
            raise CircuitError(f"Two parts are called {e.name}: give each its own name.")
        seen.add(e.name.lower())


def _numbers(value: Param) -> np.ndarray:
    return np.atleast_1d(np.asarray(value, dtype=float))


def _want(element: Element, what: str, value: Param, *, positive: bool = False, not_negative: bool = False) -> None:
    if isinstance(value, float | int) and 0 < value <= LARGEST:
        return
    numbers = _numbers(value)
    if not np.all(np.isfinite(numbers)) or np.any(np.abs(numbers) > LARGEST):
        bad = numbers[~np.isfinite(numbers) | (np.abs(numbers) > LARGEST)][0]
        raise CircuitError(f"{element.name}: {what} is {bad:g}; it must be a finite number.")
    if positive and np.any(numbers <= 0):
        raise CircuitError(f"{element.name}: {what} is {numbers.min():g}; it must be more than 0.")
    if not_negative and np.any(numbers < 0):
        raise CircuitError(f"{element.name}: {what} is {numbers.min():g}; it cannot be negative.")


def _check_values(e: Element) -> None:
    match e:
        case Resistor():
            _want(e, "its resistance", e.ohms, positive=True)
        case Capacitor():
            _want(e, "its capacitance", e.farads, positive=True)
        case Inductor():
            _want(e, "its inductance", e.henries, positive=True)
        case VoltageSource() | CurrentSource():
            _check_wave(e)
        case Diode():
            _want(e, "IS", e.model.i_s, positive=True)
            _want(e, "N", e.model.n, positive=True)
            _want(e, "RS", e.model.r_s, not_negative=True)
            _want(e, "its area", e.area, positive=True)
            if not e.model.bv > 0:
                raise CircuitError(f"{e.name}: BV is {e.model.bv:g}; it must be more than 0.")
        case Bjt():
            for what, value in (
                ("IS", e.model.i_s),
                ("BF", e.model.b_f),
                ("BR", e.model.b_r),
                ("NF", e.model.n_f),
                ("NR", e.model.n_r),
                ("its area", e.area),
            ):
                _want(e, what, value, positive=True)
        case Switch():
            _want(e, "RON", e.model.r_on, positive=True)
            _want(e, "ROFF", e.model.r_off, positive=True)
        case Regulator():
            _want(e, "its voltage", e.volts, positive=True)
            _want(e, "its dropout", e.dropout, not_negative=True)
            _want(e, "its own current", e.quiescent, not_negative=True)
            _want(e, "its current limit", e.limit, positive=True)
        case CurrentRegulator():
            _want(e, "its current", e.amps, positive=True)
            _want(e, "its dropout", e.dropout, positive=True)


def _check_wave(e: VoltageSource | CurrentSource) -> None:
    if e.dc is not None:
        _want(e, "its DC value", e.dc)
    match e.wave:
        case Sine(offset, amplitude, hertz):
            _want(e, "its offset", offset)
            _want(e, "its amplitude", amplitude)
            _want(e, "its frequency", hertz, positive=True)
        case FullWave(amplitude, hertz):
            if isinstance(e, CurrentSource):
                raise CircuitError(f"{e.name}: a folded sine is a voltage source's.")
            _want(e, "its amplitude", amplitude)
            _want(e, "its frequency", hertz, positive=True)
        case Pulse() as p:
            _want(e, "its first level", p.initial)
            _want(e, "its pulsed level", p.pulsed)
            for what, seconds in (("rise", p.rise), ("fall", p.fall), ("width", p.width), ("period", p.period)):
                if not seconds > 0:
                    raise CircuitError(f"{e.name}: its {what} time must be more than 0.")
        case Pwl(points):
            times = [t for t, _ in points]
            if not points or any(b <= a for a, b in itertools.pairwise(times)):
                raise CircuitError(f"{e.name}: its points need times that rise one after another.")
            if not all(math.isfinite(t) and math.isfinite(v) for t, v in points):
                raise CircuitError(f"{e.name}: its points must be finite numbers.")
        case dc:
            _want(e, "its level", dc.level)


class _Groups:
    """Union of nodes that are joined, with the parts that joined them."""

    def __init__(self) -> None:
        self._parent: dict[str, str] = {}

    def find(self, node: str) -> str:
        root = node
        while self._parent.setdefault(root, root) != root:
            root = self._parent[root]
        while self._parent[node] != root:
            self._parent[node], node = root, self._parent[node]
        return root

    def join(self, a: str, b: str) -> bool:
        first, second = self.find(a), self.find(b)
        self._parent[first] = second
        return first != second


def _dc_paths(e: Element) -> list[tuple[str, str]]:
    nodes = nodes_of(e)
    match e:
        case Capacitor() | CurrentSource():
            return []
        case Switch():
            return [(nodes[0], nodes[1])]
        case _:
            return [(nodes[0], other) for other in nodes[1:]]


def _check_ground(elements: tuple[Element, ...]) -> None:
    every = {n for e in elements for n in nodes_of(e)}
    if "0" not in every:
        raise CircuitError("Nothing is tied to ground: call one node 0, the supply's negative.")
    groups = _Groups()
    for e in elements:
        for a, b in _dc_paths(e):
            groups.join(a, b)
    ground = groups.find("0")
    loose = sorted(n for n in every if groups.find(n) != ground)
    if loose:
        parts = ", ".join(sorted({e.name for e in elements if set(nodes_of(e)) & set(loose)}))
        some = ", ".join(loose[:5]) + (" and others" if len(loose) > 5 else "")
        raise CircuitError(
            f"No DC path to ground from node {some} (at {parts[:80]}): its voltage is undefined. "
            "Add the missing wire, or a large resistor to ground."
        )


def _check_source_loops(elements: tuple[Element, ...]) -> None:
    groups = _Groups()
    for e in elements:
        if isinstance(e, VoltageSource | Inductor):
            a, b = nodes_of(e)
            if a == b or not groups.join(a, b):
                what = "an inductor" if isinstance(e, Inductor) else "a source"
                raise CircuitError(
                    f"{e.name} closes a loop of voltage sources with no resistance: {what} there "
                    "would carry an unlimited current. Put the wire's or winding's resistance in."
                )
