"""A position in every state of what drives it."""

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import Solution
from swapglow.core.design.position import Position
from swapglow.core.drivers.driver import State
from swapglow.core.engine.operating_point import OperatingPoint
from swapglow.core.network.cases import Batch, Block, places
from swapglow.core.network.solve import point_of, string_amps, supply_amps
from swapglow.core.supplies.kind import SupplyState

FloatArray = NDArray[np.float64]

_RAILS = ("low", "usual", "high")


@dataclass(frozen=True)
class StateSolution:
    """How a position stands in a state.

    Attributes:
        state, label: which, and what it is called.
        amps: current of one string at the low, usual and high rail, typical LED, (3,).
        string_current_min, string_current_max: its ends over rail, LED and resistor, A.
        supply_amps: what the lamp's circuit takes from the supply, with a shunt and neighbours, (3,).
        lamp_v: volts at the lamp's own contacts, (3,).
        rule_amps: current along the slide rule at the three rails, (3, k); empty where it is lit.
        point: the solved circuits.
        typical: the samples of ``point`` at the three rails, typical LED.
    """

    state: State
    label: str
    amps: FloatArray
    string_current_min: float
    string_current_max: float
    supply_amps: FloatArray
    lamp_v: FloatArray
    rule_amps: FloatArray
    point: OperatingPoint
    typical: NDArray[np.intp]


def states_of(position: Position) -> tuple[SupplyState, ...]:
    """The states a position has, the lit one first; one alone where nothing else is to be seen.

    Where a supply has states of its own they count; else the driver's.
    """
    supply, d = position.rail.supply, position.driver
    if supply.alternates:
        return (SupplyState("on", d.kind.on, "on"),)
    own = supply.kind.states()
    return own or tuple(SupplyState(state, label, state) for state, label in d.kind.states(d))


def state_of(position: Position, id_: State) -> SupplyState:
    """One of a position's states by its name; a supply's own may be another of its driver's.

    Args:
        position: the swap.
        id_: the state's name.

    Returns:
        The state; one that it had before its supply or driver was changed is its driver's.
    """
    return next((t for t in states_of(position) if t.id == id_), SupplyState(id_, "", id_))


def rails_in(position: Position, state: SupplyState, rail: FloatArray) -> FloatArray:
    """The rail in a state.

    Args:
        position: the swap.
        state: one of its states.
        rail: volts as they are lit.

    Returns:
        Volts, the shape of ``rail``.
    """
    if state.most_v is not None:
        rail = np.minimum(rail, state.most_v)
    if state.solved == "off" and position.rail.read_at == "lamp":
        # The volts were read behind the driver: the feed before it is those and what it kept.
        rail = rail + position.driver.drop.value
    return np.asarray(rail)


@dataclass(frozen=True)
class _Key:
    """What a state's solution depends on, to be remembered by."""

    position: Position
    total_ohm: float
    rule_ohm: tuple[float, ...]
    state: SupplyState


@lru_cache(maxsize=512)
def _solved(key: _Key) -> StateSolution:
    p, state = key.position, key.state
    tol, led = p.ohm_spread, p.led
    rail = rails_in(p, state, np.array(p.rail.volts))
    total = key.total_ohm
    rule = np.array(key.rule_ohm) * p.resistor_parts
    count = len(rule)
    batch = Batch(
        {
            "typical": Block({"rail": _RAILS}, rail, np.full(3, led.vf_typ), np.full(3, total)),
            "ends": Block(
                {"end": ("least", "most")},
                rail[[0, 2]],
                np.array([led.vf_high, led.vf_low]),
                np.array([total * (1 + tol), total * (1 - tol)]),
            ),
            "rule": Block(
                {"rail": _RAILS, "value": places(count)},
                np.repeat(rail, count).reshape(3, count),
                np.full((3, count), led.vf_typ),
                np.tile(rule, (3, 1)),
            ),
        },
        p.drop_v,
        p.rail.supply.source_ohm.value,
    )
    point = point_of(p, batch.cases(), state.solved)
    amps = string_amps(p, point)
    plus, minus = contacts(p, point)
    ends = batch.of(amps, "ends")
    return StateSolution(
        state.id,
        state.label,
        batch.of(amps, "typical"),
        float(ends[0]),
        float(ends[1]),
        batch.of(supply_amps(point), "typical"),
        batch.of(plus - minus, "typical"),
        batch.of(amps, "rule"),
        point,
        batch.index("typical"),
    )


def state_solutions(s: Solution) -> tuple[StateSolution, ...]:
    """Every state of a solved position, solved; none where the supply alternates.

    Raises:
        NotConverged: a state has no answer.
    """
    if s.ac is not None:
        return ()
    rule = tuple(s.rule_ohm.tolist())
    plain = replace(s.position, lamp=None, rating_w=None)
    # The lit state's rule is the solution's own.
    return tuple(
        _solved(_Key(plain, s.sizing.total_ohm, rule if state.id != "on" else (), state))
        for state in states_of(s.position)
    )


def contacts(position: Position, point: OperatingPoint) -> tuple[FloatArray, FloatArray]:
    """Volts of the lamp's two contacts against ground.

    Args:
        position: the swap.
        point: its network solved on a steady supply.

    Returns:
        Volts of its plus and its minus, (samples,) each.
    """
    nodes = point.nodes
    last_left = f"left{len(position.driver.remaining_lamps)}"
    ways = ("plus", "pulsed", last_left, "behind", "loaded", "feed")
    plus = next(n for n in ways if n in nodes)
    return point.voltage(plus), point.voltage("minus" if "minus" in nodes else "0")
