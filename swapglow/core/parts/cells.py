"""Batteries: cells by chemistry, and their volts through their life."""

from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.parts.catalogue import rows

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Chemistry:
    """A kind of cell.

    Attributes:
        ohm: inside one fresh cell, Ω.
        capacity_ah: of its usual size.
        most_a: what it gives for long without harm, A.
        volts: open-circuit volts at eleven even steps of charge used.
    """

    id: str
    label: str
    ohm: float
    capacity_ah: float
    most_a: float
    volts: tuple[float, ...]


@cache
def chemistries() -> dict[str, Chemistry]:
    """Cells of the catalogue by id."""
    return {
        r["id"]: Chemistry(
            r["id"],
            r["label"],
            float(r["ohm"]),
            float(r["mah"]) / 1e3,
            float(r["most_ma"]) / 1e3,
            tuple(float(r[f"v{k * 10}"]) for k in range(11)),
        )
        for r in rows("cells")
    }


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
