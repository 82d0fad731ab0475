"""How long a battery keeps the lamp alight, after the swap and before it."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import Solution
from swapglow.core.network.cases import Cases
from swapglow.core.network.solve import point_of, string_amps, supply_amps
from swapglow.core.parts.cells import Battery
from swapglow.core.parts.lamp import LIGHT_EXPONENT, Lamp

FloatArray = NDArray[np.float64]

STEPS = 200


@dataclass(frozen=True)
class Discharge:
    """A battery run down through a load.

    Attributes:
        hours: since fresh, (STEPS,).
        volts: open-circuit volts then.
        amps: current then.
        spent_h: hours until the charge is used up.
    """

    hours: FloatArray
    volts: FloatArray
    amps: FloatArray
    spent_h: float


def discharge(battery: Battery, current: Callable[[FloatArray], FloatArray]) -> Discharge:
    """Run a battery down: dt = dQ / I(V(Q)).

    Args:
        battery: the cells.
        current: amps the load takes at open-circuit volts, shape in = shape out.

    Returns:
        Hours, open volts and amps on the way down, (steps,) each.
    """
    used = np.linspace(0.0, 1.0, STEPS)
    volts = battery.volts(used)
    # A load that goes dark draws next to nothing; a nanoamp keeps the time finite.
    amps = np.maximum(current(volts), 1e-9)
    pace = battery.capacity_ah / amps
    hours = np.concatenate([[0.0], np.cumsum((pace[1:] + pace[:-1]) / 2 * np.diff(used))])
    return Discharge(hours, volts, amps, float(hours[-1]))


def hours_until(run: Discharge, light: FloatArray, level: float) -> float:
    """Hours until a light first falls under ``level``; the whole run where it never does.

    Args:
        run: a discharge.
        light: the light on its way down, (steps,), any unit.
        level: the light it must not fall under, same unit.

    Returns:
        Hours.
    """
    below = np.flatnonzero(light < level)
    if not len(below):
        return run.spent_h
    k = int(below[0])
    if k == 0:
        return 0.0
    before, after = float(light[k - 1]), float(light[k])
    part = (before - level) / (before - after) if before > after else 0.0
    return float(run.hours[k - 1] + part * (run.hours[k] - run.hours[k - 1]))


def lamp_on_battery(lamp: Lamp, open_v: FloatArray, source_ohm: float) -> tuple[FloatArray, FloatArray]:
    """Current and volts of a filament behind a source resistance, by halving.

    V + R·I(V) = Vopen, with I ∝ V^0.55 (miniature lamp handbooks); the left side only rises.

    Args:
        lamp: the filament.
        open_v: open-circuit volts, V, (n,).
        source_ohm: resistance behind them, Ω.

    Returns:
        A and V of the lamp, (n,) each.
    """
    low, high = np.zeros_like(open_v), open_v.copy()
    for _ in range(50):
        middle = (low + high) / 2
        amps = np.array([lamp.amps_at(float(v)) for v in middle])
        over = middle + source_ohm * amps > open_v
        high = np.where(over, middle, high)
        low = np.where(over, low, middle)
    volts = (low + high) / 2
    return np.array([lamp.amps_at(float(v)) for v in volts]), volts


@dataclass(frozen=True)
class Life:
    """A battery's life with a lamp on it.

    Attributes:
        hours: until the light is under the share wanted.
        run: the discharge.
        light: light over it, as a share of the first, (STEPS,).
    """

    hours: float
    run: Discharge
    light: FloatArray


def led_life(s: Solution) -> Life | None:
    """The life with the LED on it; None where no battery feeds it.

    Raises:
        NotConverged: a level has no answer.
    """
    p = s.position
    battery = p.rail.supply.battery
    if battery is None:
        return None

    string: list[FloatArray] = []

    def amps(volts: FloatArray) -> FloatArray:
        one = np.ones(len(volts))
        point = point_of(p, Cases(volts, p.led.vf_typ * one, s.sizing.total_ohm * one, p.drop_v))
        string.append(string_amps(p, point))
        # The cells give what the whole circuit draws, a flasher's by its lit share.
        return supply_amps(point) * p.driver.duty

    run = discharge(battery, amps)
    # The light is the string's, whatever else is drawn.
    light = string[0] / max(float(string[0][0]), 1e-12)
    return Life(hours_until(run, light, p.glow_floor), run, light)


def original_life(s: Solution) -> Life | None:
    """The life with the old lamp on the same cells; None where either is not known."""
    p = s.position
    battery, lamp = p.rail.supply.battery, p.lamp
    if battery is None or lamp is None:
        return None
    volts_at_lamp: list[FloatArray] = []

    def amps(volts: FloatArray) -> FloatArray:
        found, at_lamp = lamp_on_battery(
            lamp, np.maximum(volts - p.drop_v, 0.0), p.rail.supply.source_ohm.value
        )
        volts_at_lamp.append(at_lamp)
        return found * p.driver.duty

    run = discharge(battery, amps)
    light = (volts_at_lamp[0] / max(float(volts_at_lamp[0][0]), 1e-9)) ** LIGHT_EXPONENT
    return Life(hours_until(run, light, p.glow_floor), run, light)
