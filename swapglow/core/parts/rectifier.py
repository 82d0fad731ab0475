"""Silicon diodes that rectify or guard."""

from dataclasses import dataclass
from functools import cache

from swapglow.core.engine.netlist import DiodeModel
from swapglow.core.parts.catalogue import rows


@dataclass(frozen=True)
class Rectifier:
    """A generic diode: SPICE model, and the amps it may carry."""

    id: str
    label: str
    model: DiodeModel
    amps: float


@cache
def rectifier(id_: str) -> Rectifier:
    """A diode of the catalogue: "signal" or "power"."""
    row = next(r for r in rows("rectifiers") if r["id"] == id_)
    model = DiodeModel(float(row["i_s"]), float(row["n"]), float(row["r_s"]))
    return Rectifier(id_, row["label"], model, float(row["amps"]))
