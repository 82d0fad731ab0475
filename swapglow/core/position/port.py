"""The lamp's contacts as a port: what volts stand there while the new lamp draws a current."""

from functools import lru_cache

import numpy as np

from swapglow.core.circuit.netlist import Circuit, CurrentSource, Dc
from swapglow.core.parts.led import thermal_voltage
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.position.around import around
from swapglow.core.position.circuit import Cases, laws_of, to_circuit
from swapglow.core.position.filaments import Ohms, settled
from swapglow.core.position.model import Position


def port_volts(position: Position, amps: float, rail_v: float, drop_v: float) -> float:
    """Volts at the lamp's contacts while ``amps`` are drawn there, the load resistor's not counted in.

    Args:
        position: the swap on a steady supply.
        amps: all branches and a shunt across the LEDs together.
        rail_v: open volts behind the source resistance.
        drop_v: what the driver keeps.
    """
    loaded = position.shunt_ohm is not None and position.shunt_across == "assembly"
    if position.driver.plain and not loaded:
        return rail_v - drop_v - amps * position.rail.supply.source_ohm.value
    return _loaded_port(around(position), amps, rail_v, drop_v)


@lru_cache(maxsize=4096)
def _loaded_port(position: Position, amps: float, rail_v: float, drop_v: float) -> float:
    draw = CurrentSource("Ilamp", "", "", Dc(amps))
    cases = Cases(np.array([rail_v]), 0.0, 0.0, np.array([drop_v]))

    def build(ohms: Ohms) -> Circuit:
        return to_circuit(position, cases, filaments=ohms, lamp_in=draw)

    point = settled(build, laws_of(position), 1)
    return float(point.across("Ilamp")[0])


def string_volts(position: Position, amps: float, vf: float) -> float:
    """Volts over LEDs, diodes and what is inside a ready-made lamp, at a string's current."""
    p = position
    volts = p.in_series * float(p.led.junction(vf, p.celsius).volts(amps))
    if p.series_diodes:
        m = rectifier("signal").model
        # n·Vt·ln(I/Is + 1) + I·Rs (Shockley 1949).
        one = float(m.n) * thermal_voltage(p.celsius) * float(np.log1p(amps / float(m.i_s))) + amps * float(
            m.r_s
        )
        volts += p.series_diodes * one
    if p.module is not None and p.module.law == "resistor":
        volts += amps * p.module.inner_ohm
    return volts


def room(position: Position, amps: float, rail_v: float, vf: float, drop_v: float) -> tuple[float, float]:
    """Volts left for the resistor at a string's current, and the current through it and all branches.

    Returns:
        volts, and amps of all branches with what a shunt across the LEDs takes.
    """
    p = position
    across = string_volts(p, amps, vf)
    total = amps * p.branches
    if p.shunt_ohm is not None and p.shunt_across == "leds":
        total += across / p.shunt_ohm
    volts = port_volts(p, total, rail_v, drop_v)
    if p.regulator is not None and not p.set_by_ohms:
        volts = min(p.regulator.volts, volts - p.regulator.dropout)
    return volts - across, total


def ohms_for(position: Position, amps: float, *, rail_v: float, vf: float, drop_v: float) -> float | None:
    """Total series resistance of a string for a current (Ohm, Kirchhoff); None where no room is left.

    Where a current source stands in the resistor's place it is the resistor that sets it, R = Vref/I.
    """
    p = position
    if amps <= 0:
        return None
    left, total = room(p, amps, rail_v, vf, drop_v)
    if p.set_by_ohms:
        assert p.regulator is not None
        return p.regulator.volts / amps if left > p.regulator.dropout / 2 else None
    if left <= 0:
        return None
    return left / total * p.branches
