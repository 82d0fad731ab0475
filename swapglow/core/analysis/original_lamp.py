"""The original lamp in its own place, before anything was swapped."""

from dataclasses import replace
from functools import lru_cache

import numpy as np

from swapglow.core.design.position import Position
from swapglow.core.drivers.driver import State
from swapglow.core.engine.netlist import Circuit, Resistor
from swapglow.core.engine.operating_point import OperatingPoint
from swapglow.core.network.builder import build, laws_of
from swapglow.core.network.cases import Cases
from swapglow.core.network.filaments import Ohms, filament, settled
from swapglow.core.network.surroundings import surroundings
from swapglow.core.parts.lamp import Lamp
from swapglow.core.photometry.seen import lamp_sight


def original_point(position: Position, state: State, rail_v: float) -> tuple[float, OperatingPoint] | None:
    """The old lamp in its own place in a state, solved.

    Args:
        position: the swap on a steady supply.
        state: what the driver does.
        rail_v: open volts of the rail.

    Returns:
        Volts over the lamp, with what else was solved; None without a lamp.

    Raises:
        NotConverged: it has no answer.
    """
    if position.lamp is None:
        return None
    # The shunt came with the LED; the lamp never saw it.
    bare = replace(
        surroundings(position), lamp=position.lamp, shunt_ohm=None, shunt_across="assembly", shunt_w=None, beside=(),
        driver=replace(position.driver, others_changed=False, monitors_current=True),
    )  # fmt: skip
    return _solved(bare, state, rail_v)


@lru_cache(maxsize=512)
def _solved(p: Position, state: State, rail_v: float) -> tuple[float, OperatingPoint]:
    lamp = p.lamp
    assert lamp is not None
    lamps = {**laws_of(p), "Rold": filament(lamp)}
    cases = Cases(np.array([rail_v]), p.led.vf_typ, 1.0, p.drop_v)

    def circuit(ohms: Ohms) -> Circuit:
        old = Resistor("Rold", "", "", ohms["Rold"])
        return build(p, cases, state=state, filaments=ohms, lamp_in=old).circuit

    point = settled(circuit, lamps, 1)
    return abs(float(point.across("Rold")[0])), point


def original_volts(position: Position) -> float:
    """Volts over the old lamp at the usual rail, lit; 0 without one."""
    found = original_point(position, "on", position.rail.volts[1])
    return 0.0 if found is None else found[0]


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
