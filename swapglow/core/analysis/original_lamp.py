"""The original lamp in its own place, before anything was swapped."""

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.ac_cycle import levels, rms_over, settled_cycles
from swapglow.core.design.position import Position
from swapglow.core.drivers.driver import State
from swapglow.core.engine.netlist import Circuit, Dc, Resistor
from swapglow.core.engine.operating_point import OperatingPoint, operating_point
from swapglow.core.network.builder import build, laws_of
from swapglow.core.network.cases import Cases
from swapglow.core.network.filaments import Ohms, filament, settled
from swapglow.core.network.surroundings import surroundings
from swapglow.core.parts.lamp import Lamp
from swapglow.core.photometry.seen import lamp_sight
from swapglow.core.supplies.waveform import Waveform


def original_point(position: Position, state: State, rail_v: float) -> tuple[float, OperatingPoint] | None:
    """The old lamp in its own place in a state, solved.

    Args:
        position: the swap.
        state: what the driver does.
        rail_v: open volts of the rail.

    Returns:
        Volts over the lamp, with what else was solved; None without a lamp, and where the supply alternates.

    Raises:
        NotConverged: it has no answer.
    """
    if position.lamp is None or position.rail.supply.alternates:
        return None
    return _solved(in_its_place(position), state, rail_v)


def original_curve(position: Position, volts: NDArray[np.float64]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """The old lamp in its own place, lit, along many volts of a steady rail.

    Args:
        position: the swap; with the old lamp known.
        volts: open volts of the rail, (k,).

    Returns:
        Volts over the lamp, and what its whole circuit takes, A, (k,) each.

    Raises:
        NotConverged: it has no answer.
    """
    lit = _at(in_its_place(position), "on", volts)
    return np.abs(lit.across("Rold")), -lit.current("Vrail")


def in_its_place(position: Position) -> Position:
    """What the old lamp had around it: the shunt came with the LED, and the lamp never saw it.

    Args:
        position: the swap.

    Returns:
        Its surroundings, with the lamp.
    """
    return replace(
        surroundings(position),
        lamp=position.lamp,
        shunt_ohm=None,
        shunt_across="assembly",
        shunt_w=None,
        beside=(),
        driver=replace(position.driver, others_changed=False, monitors_current=True),
        second_led=None,
    )


@lru_cache(maxsize=512)
def _solved(p: Position, state: State, rail_v: float) -> tuple[float, OperatingPoint]:
    point = _at(p, state, np.array([rail_v]))
    return abs(float(point.across("Rold")[0])), point


def _at(p: Position, state: State, volts: NDArray[np.float64]) -> OperatingPoint:
    lamp = p.lamp
    assert lamp is not None
    lamps = {**laws_of(p), "Rold": filament(lamp)}
    cases = Cases(volts, p.led.vf_typ, 1.0, p.drop_v)

    def circuit(ohms: Ohms) -> Circuit:
        old = Resistor("Rold", "", "", ohms["Rold"])
        return build(p, cases, state=state, filaments=ohms, lamp_in=old).circuit

    return settled(circuit, lamps, len(volts))


@dataclass(frozen=True)
class OldCycle:
    """The old lamp in its own place where the supply alternates; a filament goes by root mean squares.

    Attributes:
        volts: over the lamp, V RMS.
        amps: through it, A RMS.
        supply_amps: what its whole circuit took, A RMS.
        shared_v: on a shared feed, V RMS; 0 without one.
    """

    volts: float
    amps: float
    supply_amps: float
    shared_v: float


def original_cycle(position: Position, rail_v: float) -> OldCycle | None:
    """The old lamp in its own place on a supply that alternates, lit.

    Args:
        position: the swap there.
        rail_v: open volts of the rail, RMS of a sine.

    Returns:
        What its cycle came to; None without a lamp.

    Raises:
        NotConverged: it has no answer.
    """
    return None if position.lamp is None else _cycled(in_its_place(position), rail_v)


@lru_cache(maxsize=512)
def _cycled(p: Position, rail_v: float) -> OldCycle:
    assert p.lamp is not None
    waveform = p.rail.supply.waveform
    share, weight = levels(waveform, folded=False)
    peak = max(rail_v * p.rail.peaks[1] / p.rail.volts[1] - p.drop_v, 1e-6)
    cases = Cases(np.full(len(share), peak), p.led.vf_typ, 1.0)

    def solved(ohms: Ohms) -> OperatingPoint:
        each = {n: np.repeat(v, len(share)) for n, v in ohms.items()}
        old = Resistor("Rold", "", "", each["Rold"])
        made = build(p, cases, wave=Dc(peak * share), folded=True, filaments=each, lamp_in=old)
        return operating_point(made.circuit).require()

    def rms(values: NDArray[np.float64]) -> NDArray[np.float64]:
        return rms_over(values.reshape(1, -1), weight, either_way=waveform is Waveform.EITHER_WAY)

    lamps = {**laws_of(p), "Rold": filament(p.lamp)}
    point = settled_cycles(lamps, 1, solved, lambda at, name: rms(at.across(name)))
    shared = point.voltage("behind") if "behind" in point.nodes else np.zeros(len(share))
    found = (point.across("Rold"), point.current("Rold"), point.current("Vrail"), shared)
    return OldCycle(*(float(rms(v)[0]) for v in found))


def original_volts(position: Position) -> float:
    """Volts over the old lamp at the usual rail, lit; 0 without one."""
    rail_v = position.rail.volts[1]
    if position.rail.supply.alternates:
        cycle = original_cycle(position, rail_v)
        return 0.0 if cycle is None else cycle.volts
    found = original_point(position, "on", rail_v)
    return 0.0 if found is None else found[0]


def original_watts(position: Position, rail_v: float) -> float | None:
    """Heat of the old lamp in its own place, lit.

    Args:
        position: the swap.
        rail_v: open volts of the rail.

    Returns:
        Watts; None without a lamp.

    Raises:
        NotConverged: it has no answer.
    """
    if position.rail.supply.alternates:
        cycle = original_cycle(position, rail_v)
        return None if cycle is None else cycle.volts * cycle.amps
    found = original_point(position, "on", rail_v)
    return None if found is None else found[0] * abs(float(found[1].current("Rold")[0]))


def lamp_volts(position: Position) -> float:
    """Volts over the original lamp while lit, at the usual rail as it was read."""
    if position.driver.others or position.driver.dropper_ohm:
        # What stands in its circuit took its share from the lamp as it does from the LED.
        return original_volts(position)
    return position.rail.usual.value - position.drop_v


def seen_candela(position: Position, volts: float) -> float | None:
    """Intensity of the original lamp towards the eye, as it is looked at, cd.

    Args:
        position: the swap.
        volts: over the lamp.

    Returns:
        Candela; None where the lamp or its light is not known.
    """
    lamp = position.lamp
    own = None if lamp is None else lamp.candela_at(volts)
    if lamp is None or own is None:
        return None
    return own * lamp_sight(kelvin_of(lamp, volts), position.looks).candela


def kelvin_of(lamp: Lamp, volts: float) -> int:
    """Colour temperature of a lamp, to the ten kelvin: closer no eye tells.

    Args:
        lamp: the lamp.
        volts: over it.

    Returns:
        Kelvin.
    """
    return int(round(lamp.kelvin_at(volts), -1))


def lamp_candela(position: Position) -> float | None:
    """Intensity of the original lamp towards the eye at the usual rail (its own volts, so the driver counts), cd.

    None where the lamp or its light is not known.
    """
    if position.lamp is None:
        return None
    volts = lamp_volts(position)
    one = seen_candela(position, volts)
    # Where all lamps of a loop are changed, the new ones together are compared with all of them.
    together = 1 + len(position.driver.others) if position.driver.others_changed else 1
    return None if one is None else one * together
