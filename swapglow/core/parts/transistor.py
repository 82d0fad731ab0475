"""Switching transistors, as far as a lamp driver needs them."""

from functools import cache
from typing import Literal

from swapglow.core.engine.netlist import BjtModel
from swapglow.core.parts.catalogue import rows


@cache
def transistor(id_: Literal["npn", "pnp"]) -> BjtModel:
    """The model of a generic small transistor."""
    row = next(r for r in rows("transistors") if r["id"] == id_)
    return BjtModel(int(row["polarity"]), float(row["i_s"]), float(row["b_f"]), float(row["b_r"]))
