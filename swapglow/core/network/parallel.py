"""Several lamps' circuits on one supply, as one circuit."""

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from swapglow.core.engine.netlist import (
    Capacitor,
    Circuit,
    CurrentSource,
    Dc,
    Diode,
    Element,
    Param,
    Resistor,
    VoltageSource,
    Wave,
    nodes_of,
)
from swapglow.core.network.builder import side_by_side


def parallel(
    circuits: Sequence[tuple[Circuit, int]], wave: Wave, source_ohm: Param, others_ohm: float | None, celsius: float
) -> Circuit:
    """Circuits between the same two wires: feed, its source resistance, and then each behind a meter of 0 V.

    Equal circuits are one of them with all its resistances divided by their count and all its currents
    multiplied: exact, for each carries the same.

    Args:
        circuits: each with how many of it there are, from its own source "Vrail" onwards; that source goes.
        wave: the supply's.
        source_ohm: what stands behind it, Ω; 0 for nothing.
        others_ohm: what else hangs on the two wires, Ω; None for nothing.
        celsius: the air around all of them.

    Returns:
        The circuit: nodes "bus" and "0", meters "Vmeter0", "Vmeter1" and so on, every other name with its
        circuit's number behind it.
    """
    elements: list[Element] = [VoltageSource("Vrail", "feed", "0", wave)]
    bus = "feed"
    if source_ohm:
        bus = "bus"
        elements.append(Resistor("Rsource", "feed", bus, source_ohm))
    if others_ohm is not None:
        elements.append(Resistor("Rothers", bus, "0", others_ohm))
    for k, (circuit, count) in enumerate(circuits):
        top, back = nodes_of(circuit.element("Vrail"))
        elements.append(VoltageSource(f"Vmeter{k}", bus, f"{top}_{k}", Dc(0.0)))
        for e in circuit.elements:
            if e.name == "Vrail":
                continue
            ends: dict[str, Any] = {
                t: "0" if n == back else f"{n}_{k}" for t, n in zip(e.terminals, nodes_of(e), strict=True)
            }
            elements.append(replace(_multiplied(e, count), name=f"{e.name}_{k}", **ends))
    return Circuit(tuple(elements), celsius=celsius, title="lamps on one rail")


def _multiplied(e: Element, count: int) -> Element:
    """An element that carries what so many of it side by side do."""
    if count == 1 or isinstance(e, VoltageSource):
        return e
    if isinstance(e, Resistor):
        return replace(e, ohms=e.ohms / count)
    if isinstance(e, Capacitor):
        return replace(e, farads=e.farads * count)
    if isinstance(e, CurrentSource):
        assert isinstance(e.wave, Dc)
        return replace(e, wave=Dc(e.wave.level * count))
    assert isinstance(e, Diode)
    return replace(e, model=side_by_side(e.model, count))
