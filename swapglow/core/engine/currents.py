"""Currents through parts, from a solution."""

import numpy as np
from numpy.typing import NDArray

from swapglow.core.engine import devices
from swapglow.core.engine.mna import Junctions, System, level
from swapglow.core.engine.netlist import (
    Bjt,
    Capacitor,
    CurrentRegulator,
    CurrentSource,
    Diode,
    Inductor,
    Regulator,
    Resistor,
    Switch,
    VoltageSource,
    nodes_of,
)

FloatArray = NDArray[np.float64]


def current_of(system: System, x: FloatArray, v: Junctions, name: str, seconds: FloatArray | None = None) -> FloatArray:
    """Amps into a part's first terminal at solution ``x`` (size + 1, samples), shape (samples,).

    A capacitor's current at an operating point is zero. ``seconds`` are the instants of a run.

    Args:
        system: the equations.
        x: node voltages and branch currents, V and A.
        v: junction voltages, V.
        name: the part.
        seconds: instants of a run, s, (samples,); None at an operating point.

    Returns:
        A, (samples,).
    """
    part = system.circuit.element(name)
    ends = [system.at(n) for n in nodes_of(part)]
    match part:
        case VoltageSource() | Inductor():
            return np.asarray(x[system.branches[part.name]])
        case Resistor():
            return np.asarray((x[ends[0]] - x[ends[1]]) / np.asarray(part.ohms))
        case Capacitor():
            return np.zeros(x.shape[1])
        case CurrentSource():
            value = level(part.wave, part.dc, seconds)
            return np.broadcast_to(np.asarray(value, dtype=float), (x.shape[1],))
        case Diode():
            k = system.diodes.index(part)
            # The junction voltage from the solved nodes, not the limiter's.
            a, c = system.junction_ends[k]
            volts = np.zeros_like(v.diode)
            volts[k] = x[a] - x[c]
            return np.asarray(system.diode_branch(volts, devices.GMIN).amps[k])
        case Bjt():
            k = system.bjts.index(part)
            c_, b_, e_ = system.bjt_nodes.T
            sign = system.bjt_sign
            t = devices.transistor(sign * (x[b_] - x[e_]), sign * (x[b_] - x[c_]), system.bjt_arrays, devices.GMIN)
            return np.asarray((sign * t.i_c)[k])
        case Switch():
            k = system.switches.index(part)
            ohms = np.where(v.closed[k], system.switch_ohms[0][k], system.switch_ohms[1][k])
            return np.asarray((x[ends[0]] - x[ends[1]]) / ohms)
        case CurrentRegulator():
            return devices.current_source(x[ends[0]] - x[ends[1]], np.asarray(part.amps), np.asarray(part.dropout)).amps
        case Regulator():
            k = system.regulators.index(part)
            own = devices.quiescent(x[ends[0]] - x[ends[2]], np.asarray(part.quiescent))
            return np.asarray(system.regulator_currents(x)[0][k] + own.amps)
