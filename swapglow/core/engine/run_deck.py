"""Run the analyses of a SPICE file."""

from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np

from swapglow.core.engine.netlist import Circuit, CircuitError, CurrentSource, Inductor, VoltageSource
from swapglow.core.engine.operating_point import OperatingPoint, operating_point
from swapglow.core.engine.spice.read import DcSweep, Deck
from swapglow.core.engine.transient import Transient, transient

Answer = dict[str, Any]


def run_deck(deck: Deck, tell: Callable[[float], None] = lambda done: None) -> Answer:
    """Run every analysis that a file asks for.

    Args:
        deck: the file.
        tell: called now and then with the share of the run in time that is done, 0 to 1.

    Returns:
        Answers by analysis: ``{"op": {"v", "i"}, "dc": {"sweep", "v", "i"}, "tran": {"t", "v", "i"}}``; V, A and s.

    Raises:
        CircuitError: the circuit has no answer, or the file asks for none.
    """
    if not (deck.op or deck.dc or deck.tran):
        raise CircuitError("The file asks for no analysis: add .op, .dc or .tran.")
    out: Answer = {}
    if deck.op:
        point = operating_point(deck.circuit).require()
        out["op"] = {
            "v": {n: float(point.voltage(n)[0]) for n in point.nodes},
            "i": {n: float(point.current(n)[0]) for n in _branches(deck.circuit)},
        }
    if deck.dc:
        sweep = _points(deck.dc)
        out["dc"] = {"sweep": sweep.tolist(), **_lists(_swept(deck.circuit, deck.dc, sweep), deck)}
    if deck.tran:
        t = deck.tran
        run = transient(
            deck.circuit, t.stop, t.step, start=t.start, longest=t.longest, from_conditions=t.from_conditions, tell=tell
        )
        out["tran"] = {"t": run.t.tolist(), **_lists(run, deck)}
    return out


def _branches(circuit: Circuit) -> list[str]:
    """Voltage sources, then inductors: the parts whose current SPICE reports."""
    sources = [e.name for e in circuit.elements if isinstance(e, VoltageSource)]
    return sources + [e.name for e in circuit.elements if isinstance(e, Inductor)]


def _lists(solved: OperatingPoint | Transient, deck: Deck) -> Answer:
    return {
        "v": {n: solved.voltage(n).tolist() for n in solved.nodes},
        "i": {n: solved.current(n).tolist() for n in _branches(deck.circuit)},
    }


def _points(sweep: DcSweep) -> np.ndarray:
    count = int(np.floor((sweep.stop - sweep.start) / sweep.step * (1 + 1e-12) + 1e-9)) + 1
    return sweep.start + sweep.step * np.arange(count)


def _swept(circuit: Circuit, sweep: DcSweep, values: np.ndarray) -> OperatingPoint:
    elements = tuple(
        replace(e, dc=values) if isinstance(e, VoltageSource | CurrentSource) and e.name == sweep.source else e
        for e in circuit.elements
    )
    return operating_point(replace(circuit, elements=elements)).require()
