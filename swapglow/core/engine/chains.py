"""Diodes one after another with nothing between: one port for the whole chain.

A chain carries one current, so its voltages add: with I ≫ Is the sum of n·Vt·ln(I/Is) over the chain
is one junction of Σn and of the weighted geometric mean of the saturation currents. Newton's method
then has a port less for every diode but the first. Afterwards each diode's own voltage is found from
the current, and Kirchhoff's check at every node, those inside the chain too, proves the whole; a
sample near the dark, where the sum is not exact, fails it and is solved with every diode a port.
"""

from collections import Counter
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.engine.devices import GMIN
from swapglow.core.engine.mna import System
from swapglow.core.engine.netlist import nodes_of

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.intp]


@dataclass(frozen=True)
class Chain:
    """Diodes by their place among the system's, anode first, and the nodes between them."""

    diodes: tuple[int, ...]
    between: tuple[int, ...]


def chains_of(system: System) -> tuple[Chain, ...]:
    """All chains of two diodes and more; none where a diode breaks down in reverse."""
    if len(system.diodes) < 2 or system.diode_knee is not None:
        return ()
    meets: Counter[str] = Counter(n for e in system.circuit.elements for n in nodes_of(e))
    from_anode = {nodes_of(d)[0]: k for k, d in enumerate(system.diodes)}
    follows: dict[int, int] = {}
    for k, d in enumerate(system.diodes):
        node = nodes_of(d)[1]
        after = from_anode.get(node)
        if node != "0" and meets[node] == 2 and after is not None and after != k:
            follows[k] = after
    heads = set(follows) - set(follows.values())
    found = []
    for head in sorted(heads):
        order = [head]
        while order[-1] in follows:
            order.append(follows[order[-1]])
        between = tuple(system.at(nodes_of(system.diodes[k])[1]) for k in order[:-1])
        found.append(Chain(tuple(order), between))
    return tuple(found)


def as_one(i_s: FloatArray, nvt: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Saturation current and n·Vt of a chain as one junction.

    Args:
        i_s: saturation currents, A, (diodes, samples or 1).
        nvt: n·Vt, V, same shape.

    Returns:
        Is in A and n·Vt in V of the one junction, (samples or 1,).
    """
    whole = nvt.sum(axis=0)
    return np.exp((nvt * np.log(i_s)).sum(axis=0) / whole), whole


def shared_volts(amps: FloatArray, i_s: FloatArray, nvt: FloatArray) -> FloatArray:
    """The voltage of one junction of a chain at the chain's current (Shockley), gmin across it.

    Args:
        amps: the chain's current, A, (samples,).
        i_s: the junction's saturation current, A.
        nvt: its n·Vt, V.

    Returns:
        Volts, (samples,).
    """
    v = nvt * np.log1p(np.maximum(amps / i_s, -0.999))
    return np.asarray(nvt * np.log1p(np.maximum((amps - GMIN * v) / i_s, -0.999)))
