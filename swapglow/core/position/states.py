"""A position in every state of what drives it."""

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuit.operating_point import OperatingPoint
from swapglow.core.driver import State
from swapglow.core.position.circuit import Cases, point_of, string_amps
from swapglow.core.position.model import Position
from swapglow.core.position.solution import Solution

FloatArray = NDArray[np.float64]

# What a pin that is low still gives (TTL's limit, from memory).
PIN_LOW_V = 0.4


@dataclass(frozen=True)
class Standing:
    """How a position stands in a state.

    Attributes:
        amps: current of one string at the low, usual and high rail, typical LED, (3,).
        most_a, least_a: the ends over rail, LED and resistor.
        line_a: what the lamp's circuit takes from the supply, with a shunt and neighbours, (3,).
        lamp_v: volts at the lamp's own contacts, (3,).
        rule_amps: current along the slide rule at the three rails, (3, k); empty where it is lit.
        point: the solved circuits; the first three are the typical ones.
    """

    state: State
    label: str
    amps: FloatArray
    least_a: float
    most_a: float
    line_a: FloatArray
    lamp_v: FloatArray
    rule_amps: FloatArray
    point: OperatingPoint


def states_of(position: Position) -> tuple[tuple[State, str], ...]:
    """The states a position has, the lit one first; one alone where nothing else is to be seen."""
    p, d = position, position.driver
    supply = p.rail.supply
    if supply.alternates:
        return (("on", "On"),)
    if supply.kind == "sense":
        return ("on", "Contact open"), ("closed", "Contact closed")
    if supply.kind == "logic":
        return ("on", "Pin high"), ("off", "Pin low")
    on: tuple[State, str] = ("on", d.about.on)
    off: tuple[State, str] = ("off", d.about.off)
    if d.kind == "lamp_check":
        return (on, off, ("pulse", "Check pulse")) if d.pulse_s else (on, off)
    if (d.kind == "direct" and not d.leads_off) or d.kind == "series_lamps":
        return (on,)
    return on, off


@lru_cache(maxsize=512)
def _standing(s: "_Key", label: str) -> Standing:
    p, tol, state = s.position, s.position.ohm_spread, s.state
    rail = np.array(p.rail.volts)
    if p.rail.supply.kind == "logic" and state == "off":
        rail = np.minimum(rail, PIN_LOW_V)
    total = s.each_ohm * p.resistor_parts
    rule = np.array(s.rule_ohm) * p.resistor_parts
    count = len(rule)
    led = p.led
    cases = Cases(
        np.concatenate([rail, rail[[0, 2]], np.repeat(rail, count)]),
        np.concatenate([np.full(3, led.vf_typ), [led.vf_high, led.vf_low], np.full(3 * count, led.vf_typ)]),
        np.concatenate([np.full(3, total), [total * (1 + tol), total * (1 - tol)], np.tile(rule, 3)]),
        p.drop_v,
    )
    if p.rail.supply.kind == "logic" and state == "off":
        state = "on"
    point = point_of(p, cases, state)
    amps = string_amps(p, point)
    plus, minus = contacts(p, point, state)
    return Standing(
        s.state, label, amps[:3], float(amps[3]), float(amps[4]), -point.current("Vrail")[:3],
        (plus - minus)[:3], amps[5:].reshape(3, count), point,
    )  # fmt: skip


@dataclass(frozen=True)
class _Key:
    """What a standing depends on, to be remembered by."""

    position: Position
    each_ohm: float
    rule_ohm: tuple[float, ...]
    state: State


def standings(s: Solution) -> tuple[Standing, ...]:
    """Every state of a solved position, solved.

    Raises:
        NotConverged: a state has no answer.
    """
    named = states_of(s.position)
    if s.ac is not None:
        return ()
    rule = tuple(s.rule_ohm.tolist())
    plain = replace(s.position, lamp=None, rating_w=None)
    # The lit state's rule is the solution's own.
    return tuple(
        _standing(_Key(plain, s.sizing.each_ohm, rule if k != "on" else (), k), label) for k, label in named
    )


def contacts(position: Position, point: OperatingPoint, state: State) -> tuple[FloatArray, FloatArray]:
    """Volts of the lamp's two contacts against ground, (samples,) each."""
    nodes = point.nodes
    plus = next(
        n
        for n in ("plus", "pulsed", f"left{len(position.driver.left)}", "shared", "loaded", "feed")
        if n in nodes
    )
    return point.voltage(plus), point.voltage("minus" if "minus" in nodes else "0")
