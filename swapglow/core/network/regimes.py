"""Regulators and current sources in their two regimes.

With too little head they keep their dropout, as a source of so many volts. With enough, a current source
carries what it is set to, and a fixed regulator's string carries what it does on the held volts; what
either keeps is then what is left over. The two meet where the head is just the dropout, so that the
answer has no gap.
"""

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from swapglow.core.design.position import Position
from swapglow.core.drivers import plain_driver
from swapglow.core.drivers.driver import State
from swapglow.core.engine.netlist import CurrentSource, Dc, Param, VoltageSource
from swapglow.core.engine.operating_point import operating_point
from swapglow.core.network.builder import build, dropout, held_amps
from swapglow.core.network.cases import Cases
from swapglow.core.network.filaments import Ohms
from swapglow.core.supplies import plain_supply

FloatArray = NDArray[np.float64]


def regulated(position: Position, cases: Cases, state: State, ohms: Ohms) -> Cases:
    """The cases with what a regulator or current source keeps of the volts above it.

    Args:
        position: the swap on a steady supply.
        cases: what to solve.
        state: what the driver does.
        ohms: filaments by the name of their resistor.

    Returns:
        The cases as they are where nothing regulates.

    Raises:
        NotConverged: a case has no answer.
    """
    p = position
    amps = _held_amps(p, cases)
    if amps is None and p.regulator is None:
        return cases
    name = "Vkept"
    if amps is None:
        amps = _on_held(p, cases)
    plain = build(p, cases, stacked=True, state=state, filaments=ohms).circuit
    starved = operating_point(plain).require()
    least = dropout(p)
    enough = starved.current(name) > amps
    if not enough.any():
        return replace(cases, kept=np.full(cases.samples, least))
    # Where it lacks head nothing is forced: a cut-off path could not carry what it is set to.
    amps = np.where(enough, amps, starved.current(name))
    forced = tuple(
        CurrentSource(name, e.plus, e.minus, Dc(amps)) if isinstance(e, VoltageSource) and e.name == name else e
        for e in plain.elements
    )
    point = operating_point(replace(plain, elements=forced)).require()
    return replace(cases, kept=np.where(enough, np.maximum(point.across(name), least), least))


def let_through(position: Position, cases: Cases) -> Param | None:
    """What a regulator lets through where it has the head, all branches.

    Args:
        position: the swap on a supply that alternates.
        cases: what to solve; of them forward voltages, resistances and held volts count.

    Returns:
        A, (samples,); None without a regulator.

    Raises:
        NotConverged: a case has no answer.
    """
    if position.regulator is None:
        return None
    if position.set_by_ohms:
        return _held_amps(position, cases)
    return _on_held(position, cases)


def _held_amps(position: Position, cases: Cases) -> Param | None:
    """What a current source in the string lets through, all branches; None where there is none."""
    p, m = position, position.module
    if p.regulator is not None and p.set_by_ohms:
        # Past its own limit a regulator gives no more, whatever it is set to.
        return np.minimum((p.regulator.volts / cases.ohms + p.regulator.adjust_a) * p.branches, p.regulator.limit_a)
    if m is None or m.law == "resistor":
        return None
    return held_amps(p, cases)


def _on_held(position: Position, cases: Cases) -> FloatArray:
    """What LEDs and resistor draw on a fixed regulator's held volts, with a shunt across the LEDs."""
    p = position
    assert p.regulator is not None
    inside = p.shunt_across == "leds"
    bare = replace(
        p,
        regulator_id="",
        driver=plain_driver(),
        rail=replace(p.rail, supply=plain_supply()),
        shunt_ohm=p.shunt_ohm if inside else None,
    )
    volts = np.full(cases.samples, 1.0) * (p.regulator.volts if cases.held is None else cases.held)
    held = replace(
        cases,
        held=None,
        rail=volts,
        drop=0.0,
        source=0.0,
        shunt=cases.shunt if inside else None,
        fault=None if cases.fault is None else cases.fault.of_string,
    )
    return -operating_point(build(bare, held, stacked=True).circuit).require().current("Vrail")
