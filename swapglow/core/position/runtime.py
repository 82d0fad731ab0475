"""How long a battery keeps the lamp alight, after the swap and before it."""

import numpy as np
from numpy.typing import NDArray

from swapglow.core.parts.lamp import LIGHT_EXPONENT, Lamp
from swapglow.core.position.circuit import Cases
from swapglow.core.position.model import Position
from swapglow.core.position.solution import Solution, current
from swapglow.core.quantities import Source
from swapglow.core.report import Runtime, RuntimePoint, Shown
from swapglow.core.supply.battery import Discharge, discharge, hours_until

FloatArray = NDArray[np.float64]

_POINTS = 41


def lamp_on_battery(lamp: Lamp, open_v: FloatArray, source_ohm: float) -> tuple[FloatArray, FloatArray]:
    """Current and volts of a filament behind a source resistance, by halving.

    V + R·I(V) = Vopen, with I ∝ V^0.55 (miniature lamp handbooks); the left side only rises.
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


def runtime(s: Solution) -> Runtime | None:
    """Hours of light from the position's battery; None where it has none."""
    p = s.position
    battery = p.rail.supply.battery
    if battery is None:
        return None

    def led_amps(volts: FloatArray) -> FloatArray:
        one = np.ones(len(volts))
        return current(p, Cases(volts, p.led.vf_typ * one, s.sizing.total_ohm * one, p.drop_v))

    run = discharge(battery, led_amps)
    light = run.amps / run.amps[0]
    hours = hours_until(run, light, p.glow_floor)
    before, curve = _before(p)
    return Runtime(
        p.glow_floor,
        _hours(
            hours, f"{battery.capacity_ah * 1e3:g} mAh down to {p.glow_floor * 100:g} % of its first light"
        ),
        before,
        _curve(run, light),
        curve,
    )


def _before(p: Position) -> tuple[Shown | None, tuple[RuntimePoint, ...]]:
    battery, lamp = p.rail.supply.battery, p.lamp
    if battery is None or lamp is None:
        return None, ()
    source = p.rail.supply.source_ohm.value
    volts_at_lamp: list[FloatArray] = []

    def amps(volts: FloatArray) -> FloatArray:
        found, at_lamp = lamp_on_battery(lamp, volts, source)
        volts_at_lamp.append(at_lamp)
        return found

    run = discharge(battery, amps)
    light = (volts_at_lamp[0] / volts_at_lamp[0][0]) ** LIGHT_EXPONENT
    hours = hours_until(run, light, p.glow_floor)
    return _hours(hours, "the old lamp on the same cells, to the same share of its light"), _curve(run, light)


def _hours(hours: float, origin: str) -> Shown:
    number = f"{hours:.2g}" if hours < 10 else f"{hours:.0f}"
    if hours >= 1000:
        return Shown(hours, f"{hours / 24:.0f}", "days", Source.COMPUTED, origin)
    return Shown(hours, number, "h", Source.COMPUTED, origin)


def _curve(run: Discharge, light: FloatArray) -> tuple[RuntimePoint, ...]:
    pick = np.linspace(0, len(run.hours) - 1, _POINTS).astype(int)
    return tuple(RuntimePoint(float(run.hours[k]), float(run.volts[k]), float(light[k])) for k in pick)
