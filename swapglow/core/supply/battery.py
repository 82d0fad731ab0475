"""Batteries: cells by chemistry, and how long they keep a lamp alight."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.parts.catalogue import rows

FloatArray = NDArray[np.float64]

STEPS = 200


@dataclass(frozen=True)
class Chemistry:
    """A kind of cell.

    Attributes:
        ohm: inside one fresh cell, Ω.
        capacity_ah: of its usual size.
        volts: open-circuit volts at eleven even steps of charge used.
    """

    id: str
    label: str
    ohm: float
    capacity_ah: float
    volts: tuple[float, ...]


@cache
def chemistries() -> dict[str, Chemistry]:
    """Cells of the catalogue by id."""
    return {
        r["id"]: Chemistry(
            r["id"], r["label"], float(r["ohm"]), float(r["mah"]) / 1e3,
            tuple(float(r[f"v{k * 10}"]) for k in range(11)),
        )
        for r in rows("cells")
    }  # fmt: skip


@dataclass(frozen=True)
class Battery:
    """Cells in series.

    Attributes:
        cells: how many, one after another.
        capacity_ah: what they give at small currents.
        fresh_v, spent_v: the rail's own ends; the chemistry's curve is laid between them.
    """

    chemistry: Chemistry
    cells: int
    capacity_ah: float
    fresh_v: float
    spent_v: float

    def volts(self, used: FloatArray) -> FloatArray:
        """Open-circuit volts of all cells at a share of charge used, 0 to 1."""
        shape = np.interp(used, np.linspace(0, 1, len(self.chemistry.volts)), self.chemistry.volts)
        first, last = self.chemistry.volts[0], self.chemistry.volts[-1]
        return np.asarray(self.spent_v + (shape - last) / (first - last) * (self.fresh_v - self.spent_v))


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
    """
    used = np.linspace(0.0, 1.0, STEPS)
    volts = battery.volts(used)
    # A load that goes dark draws next to nothing; a nanoamp keeps the time finite.
    amps = np.maximum(current(volts), 1e-9)
    pace = battery.capacity_ah / amps
    hours = np.concatenate([[0.0], np.cumsum((pace[1:] + pace[:-1]) / 2 * np.diff(used))])
    return Discharge(hours, volts, amps, float(hours[-1]))


def hours_until(run: Discharge, light: FloatArray, level: float) -> float:
    """Hours until a light first falls under ``level``; the whole run where it never does."""
    below = np.flatnonzero(light < level)
    if not len(below):
        return run.spent_h
    k = int(below[0])
    if k == 0:
        return 0.0
    before, after = float(light[k - 1]), float(light[k])
    part = (before - level) / (before - after) if before > after else 0.0
    return float(run.hours[k - 1] + part * (run.hours[k] - run.hours[k - 1]))
