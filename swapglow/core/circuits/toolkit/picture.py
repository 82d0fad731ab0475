"""A circuit's wiring picture, drawn from the netlist that is solved: each part with its name, value and field."""

from collections.abc import Mapping
from dataclasses import replace

import numpy as np

from swapglow.core.circuits.result import LEAST_A, PartRead, PictureState, WiringPicture
from swapglow.core.circuits.toolkit.ratings import RatedLed
from swapglow.core.circuits.toolkit.solved import Cycle, Sampled, States
from swapglow.core.circuits.toolkit.wiring import OFF_OHM, Wiring
from swapglow.core.drawing.drawing import Described, draw, symbol_of
from swapglow.core.drawing.layout import ends
from swapglow.core.drawing.symbols import CLOSED, Symbol
from swapglow.core.engine.netlist import Capacitor, Circuit, Dc, Diode, Element, Param, Resistor, Sine, VoltageSource
from swapglow.core.kinds.detail import Details
from swapglow.core.quantities import AMPERE, FARAD, OHM, VOLT, Unit, show

# What a netlist has for the arithmetic alone: as little as a wire, as much as an open one, Ω.
_WIRE_OHM, _OPEN_OHM = 0.1, OFF_OHM / 10
# Under this a meter shows no volts, V.
_LEAST_V = 1e-3
# More states than these are a knob that is turned: its two ends are shown.
_MOST_STATES = 8
# What a part is called where its symbol is no name.
_WORDS: Mapping[Symbol, str] = {"led": "LED", "supply": "feed", "alternating": "feed", "block": "regulator"}


# How an element's name begins, what the part is called, and the detail that a press on it opens. The longest fits.
Parts = tuple[tuple[str, str, str], ...]


def picture(parts: Parts, wiring: Wiring, solved: object, typed: Details) -> WiringPicture:
    """A circuit drawn.

    Args:
        parts: what they are called; of the others the symbol says it.
        wiring: what is drawn.
        solved: the states whose currents are written at the parts; None where there are none.
        typed: what was typed, for what is pencilled.

    Returns:
        The picture.
    """
    circuit = _of_parts(wiring)
    drawing = draw(circuit, lambda e: _described(parts, wiring, e, typed))
    names = [e.name for e in circuit.elements]
    states = _states(solved, names) if getattr(solved, "wiring", None) is wiring else []
    return WiringPicture(drawing, tuple(states))


def _least_most(value: Param) -> tuple[float, float]:
    return float(np.min(value)), float(np.max(value))


def _is_wire(e: Element) -> bool:
    """Whether an element only joins two nodes: a meter of nothing, a closed contact that never opens."""
    if isinstance(e, VoltageSource):
        return isinstance(e.wave, Dc) and _least_most(e.wave.level) == (0.0, 0.0)
    return isinstance(e, Resistor) and _least_most(e.ohms)[1] <= _WIRE_OHM


def _is_open(e: Element) -> bool:
    return isinstance(e, Resistor) and _least_most(e.ohms)[0] >= _OPEN_OHM


def _of_parts(wiring: Wiring) -> Circuit:
    """The circuit of what somebody could touch: links become wires, what never conducts is left out."""
    elements = [e for e in wiring.parts if e.name in wiring.switches or not _is_open(e)]
    joined: dict[str, str] = {}

    def root(node: str) -> str:
        while node in joined:
            node = joined[node]
        return node

    kept: list[Element] = []
    for e in elements:
        if e.name in wiring.modelled or (e.name not in wiring.switches and _is_wire(e)):
            a, b = (root(n) for n in ends(e))
            if a != b:
                # Ground keeps its name.
                low, high = (b, a) if b == "0" else (a, b)
                joined[high] = low
        else:
            kept.append(e)
    moved: list[Element] = []
    for e in kept:
        nodes = {t: root(getattr(e, t)) for t in e.terminals}
        if len(set(nodes.values())) > 1:
            moved.append(replace(e, **nodes))  # type: ignore[arg-type]  # nodes by their terminals
    return Circuit(tuple(moved), title=wiring.title)


def _described(parts: Parts, wiring: Wiring, e: Element, typed: Details) -> Described:
    symbol = _symbol(wiring, e)
    rated = next((getattr(r, "label", "") for r in wiring.ratings if r.element == e.name), "")
    own = rated.removeprefix("The ").removeprefix("the ").removeprefix("each ").removeprefix("a ")
    fitting = [row for row in parts if e.name.startswith(row[0])]
    _, name, detail = max(fitting, key=lambda row: len(row[0]), default=("", "", ""))
    if detail and not typed.asks(detail):
        detail = ""
    said = typed.input(detail)
    pencil = bool(detail) and not said.empty and said.source.is_assumed
    return Described(symbol, name or own or _WORDS.get(symbol, symbol), _value(wiring, e, symbol), detail, pencil)


def _symbol(wiring: Wiring, e: Element) -> Symbol:
    if e.name in wiring.switches:
        return "contact"
    if e.name in wiring.laws:
        return "lamp"
    if e.name in wiring.lights:
        return "led"
    if isinstance(e, Resistor):
        low, high = _least_most(e.ohms)
        if low <= _WIRE_OHM and high >= _OPEN_OHM:
            return "contact"
    return symbol_of(e)


def _value(wiring: Wiring, e: Element, symbol: Symbol) -> str:
    """What is written at a part: a value, or from where to where it goes."""
    if symbol in ("contact", "lamp"):
        return ""
    if symbol == "led":
        return _count(wiring, e.name)
    if isinstance(e, Resistor):
        many = wiring.many.get(e.name, 1)
        return f"{many} × {_range(e.ohms * many, OHM)}" if many > 1 else _range(e.ohms, OHM)
    if isinstance(e, Capacitor):
        return _range(e.farads, FARAD)
    if isinstance(e, VoltageSource) and isinstance(e.wave, Sine):
        return f"{show(float(np.max(e.wave.amplitude)) / 2**0.5, VOLT)} AC"
    if isinstance(e, VoltageSource) and isinstance(e.wave, Dc):
        return _range(e.wave.level, VOLT)
    return ""


def _count(wiring: Wiring, name: str) -> str:
    """How many LEDs one junction stands for."""
    rated = next((r for r in wiring.ratings if isinstance(r, RatedLed) and r.element == name), None)
    # What only stands for a string's volts and current has no count that anybody knows.
    if rated is None or not isinstance(rated.parallel, int) or rated.series * rated.parallel == 1:
        return ""
    series = f"{rated.series} in series" if rated.series > 1 else ""
    return " ".join(filter(None, (f"{rated.parallel} ×" if rated.parallel > 1 else "", series)))


def _range(value: Param, unit: Unit) -> str:
    low, high = _least_most(value)
    if low == high or high >= _OPEN_OHM:
        return show(low, unit)
    last = show(high, unit)
    if unit is OHM and low <= _WIRE_OHM:
        # A knob's end: what is left there is the engine's, which takes no resistor of nothing.
        return f"0 to {last}"
    first = show(low, unit)
    number, _, own = first.rpartition("\u00a0")
    return f"{number if last.endswith(own) else first} to {last}"


def _states(solved: object, names: list[str]) -> list[PictureState]:
    """What each part carries in each state that has a name."""
    if isinstance(solved, Sampled):
        return []
    if isinstance(solved, Cycle):
        return [PictureState("cycle", solved.name, tuple(_over_a_cycle(solved, n) for n in names))]
    if not isinstance(solved, States):
        return []
    own = [k for k, name in enumerate(solved.names) if name]
    if len(own) > _MOST_STATES:
        own = [own[0], own[-1]]
    return [PictureState(str(k), solved.names[k], tuple(_at_rest(solved, n, k) for n in names)) for k in own]


def _at_rest(solved: States, name: str, k: int) -> PartRead:
    volts, amps = abs(float(solved.across(name)[k])), abs(float(solved.amps(name)[k]))
    said = show(volts if volts > _LEAST_V else 0.0, VOLT), show(amps if amps > LEAST_A else 0.0, AMPERE)
    return PartRead(name, *said, CLOSED if solved.closed(name, k) else "")


def _over_a_cycle(solved: Cycle, name: str) -> PartRead:
    """Mean of what flows forwards through a junction; of all else the RMS, and says so."""
    load = solved.load(name)
    if isinstance(solved.wiring.part(name), Diode):
        mean = float(load.mean_a[0])
        return PartRead(name, "", f"{show(mean if mean > LEAST_A else 0.0, AMPERE)} on average")
    return PartRead(name, f"{show(float(load.rms_v[0]), VOLT)} RMS", f"{show(solved.rms(name), AMPERE)} RMS")
