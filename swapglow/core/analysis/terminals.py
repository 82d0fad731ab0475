"""The lamp's own terminals: what volts stand there while the new lamp draws a current."""

from functools import lru_cache

import numpy as np

from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import Circuit, CurrentSource, Dc
from swapglow.core.network.builder import build, laws_of
from swapglow.core.network.cases import Cases
from swapglow.core.network.filaments import Ohms, settled
from swapglow.core.network.surroundings import surroundings
from swapglow.core.parts.rectifier import rectifier


def terminal_volts(position: Position, amps: float, rail_v: float, drop_v: float) -> float:
    """Volts at the lamp's contacts while ``amps`` are drawn there, the load resistor's not counted in.

    Args:
        position: the swap on a steady supply.
        amps: all branches and a shunt across the LEDs together, A.
        rail_v: open volts behind the source resistance.
        drop_v: what the driver keeps, V.

    Returns:
        Volts.

    Raises:
        NotConverged: the circuit has no answer.
    """
    loaded = position.shunt_ohm is not None and position.shunt_across == "assembly"
    if position.driver.plain and not loaded and not position.beside:
        return rail_v - drop_v - amps * position.rail.supply.source_ohm.value
    return _loaded(surroundings(position), amps, rail_v, drop_v)


@lru_cache(maxsize=4096)
def _loaded(position: Position, amps: float, rail_v: float, drop_v: float) -> float:
    draw = CurrentSource("Ilamp", "", "", Dc(amps))
    cases = Cases(np.array([rail_v]), 0.0, 0.0, np.array([drop_v]))

    def circuit(ohms: Ohms) -> Circuit:
        return build(position, cases, filaments=ohms, lamp_in=draw).circuit

    point = settled(circuit, laws_of(position), 1)
    return float(point.across("Ilamp")[0])


def diode_volts(position: Position, amps: float) -> float:
    """Volts over the diodes in series with the LEDs: n·Vt·ln(I/Is + 1) + I·Rs each (Shockley 1949).

    Args:
        position: the swap.
        amps: current of one string, A.

    Returns:
        Volts; 0 without such diodes.
    """
    return rectifier("signal").volts(amps, position.series_diodes, position.celsius)


def string_volts(position: Position, amps: float, vf: float) -> float:
    """Volts over LEDs, diodes and what is inside a ready-made lamp.

    Args:
        position: the swap.
        amps: current of one string, A.
        vf: forward voltage of each LED at rated current, V.

    Returns:
        Volts.
    """
    p = position
    volts = p.in_series * float(p.led.junction(vf, p.celsius).volts(amps)) + diode_volts(p, amps)
    if p.module is not None:
        volts += p.in_series * p.module.bridge_v
        volts += p.in_series * amps * p.module.insides[p.inside].ohm
    return volts


def room(position: Position, amps: float, rail_v: float, vf: float, drop_v: float) -> tuple[float, float]:
    """Volts left for the resistor at a string's current.

    Args:
        position: the swap on a steady supply.
        amps: current of one string, A.
        rail_v: open volts behind the source resistance.
        vf: forward voltage of each LED at rated current, V.
        drop_v: what the driver keeps, V.

    Returns:
        Volts, and amps of all branches with what a shunt across the LEDs takes.

    Raises:
        NotConverged: the circuit has no answer.
    """
    p = position
    across = string_volts(p, amps, vf)
    total = amps * p.branches
    if p.shunt_ohm is not None and p.shunt_across == "leds":
        total += across / p.shunt_ohm
    volts = terminal_volts(p, total, rail_v, drop_v)
    if p.regulator is not None and not p.set_by_ohms:
        volts = min(p.regulator.volts, volts - p.regulator.dropout)
    return volts - across, total


def ohms_for(position: Position, amps: float, *, rail_v: float, vf: float, drop_v: float) -> float | None:
    """Total series resistance of a string for a current (Ohm, Kirchhoff).

    Where a current source stands in the resistor's place it is the resistor that sets it,
    R = Vref/(I − Iadjust).

    Args:
        position, amps, rail_v, vf, drop_v: as :func:`room`.

    Returns:
        Ohms; None where no room is left.

    Raises:
        NotConverged: the circuit has no answer.
    """
    p = position
    if amps <= 0:
        return None
    left, total = room(p, amps, rail_v, vf, drop_v)
    if p.set_by_ohms:
        assert p.regulator is not None
        by_ohms = amps - p.regulator.adjust_a
        return p.regulator.volts / by_ohms if left > p.regulator.dropout / 2 and by_ohms > 0 else None
    if left <= 0:
        return None
    return left / total * p.branches
