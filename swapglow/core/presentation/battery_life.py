"""Section: how long a battery keeps the light, after the swap and before it."""

from dataclasses import dataclass

import numpy as np

from swapglow.core.analysis.battery_life import Life, led_life, original_life
from swapglow.core.analysis.solution import Solution
from swapglow.core.quantities import Shown, Source

_POINTS = 41


@dataclass(frozen=True)
class RuntimePoint:
    """A moment of a battery's life: light as a share of the first."""

    hours: float
    light: float


@dataclass(frozen=True)
class Runtime:
    """How long the battery keeps the light above ``floor`` of its first, after the swap and before."""

    floor: float
    led: Shown
    lamp: Shown | None
    led_curve: tuple[RuntimePoint, ...]
    lamp_curve: tuple[RuntimePoint, ...]


def battery_life_section(s: Solution) -> Runtime | None:
    """Hours of light from the position's battery; None where it has none."""
    p = s.position
    battery, after = p.rail.supply.battery, led_life(s)
    if battery is None or after is None:
        return None
    before = original_life(s)
    floor = f"{battery.capacity_ah * 1e3:g} mAh down to {p.glow_floor * 100:g} % of its first light"
    same = "the old lamp on the same cells, to the same share of its light"
    return Runtime(
        p.glow_floor, _hours(after.hours, floor), None if before is None else _hours(before.hours, same),
        _curve(after), () if before is None else _curve(before),
    )  # fmt: skip


def _hours(hours: float, origin: str) -> Shown:
    number = f"{hours:.2g}" if hours < 10 else f"{hours:.0f}"
    if hours >= 1000:
        return Shown(hours, f"{hours / 24:.0f}", "days", Source.COMPUTED, origin)
    return Shown(hours, number, "h", Source.COMPUTED, origin)


def _curve(life: Life) -> tuple[RuntimePoint, ...]:
    pick = np.linspace(0, len(life.run.hours) - 1, _POINTS).astype(int)
    return tuple(RuntimePoint(float(life.run.hours[k]), float(life.light[k])) for k in pick)
