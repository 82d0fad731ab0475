"""Regulators between a rail and its LED: fixed ones, and adjustable ones as current sources."""

from dataclasses import dataclass
from functools import cache
from typing import Literal

from swapglow.core.parts.catalogue import rows


@dataclass(frozen=True)
class RegulatorPart:
    """A regulator of the catalogue.

    Attributes:
        kind: "fixed" holds ``volts`` at its output; "source" holds ``volts`` across its set resistor,
            so that I = volts/R (1.25 V/R, textbook).
        dropout: head it needs above output (fixed), or across all of itself and its resistor (source), V.
        quiescent: what it takes for itself, A.
        spread: tolerance of ``volts``, 0.04 for 4 %.
        heat_k_w, sink_k_w: junction to air without a heat sink, and with a small one, K/W.
        most_v: the highest input; for a source the most across itself, V.
        least_a: what a source must carry to hold its volts, A.
        adjust_a: what its adjust pin adds to the current it is set to, A.
        view, pins: the pin order from left to right, in the view named: both differ by package.
    """

    id: str
    label: str
    kind: Literal["fixed", "source"]
    volts: float
    dropout: float
    quiescent: float
    limit_a: float
    spread: float
    heat_k_w: float
    sink_k_w: float
    most_v: float
    least_a: float
    adjust_a: float
    package: str
    view: str
    pins: str
    capacitors: str


@cache
def regulators() -> dict[str, RegulatorPart]:
    """The catalogue by id."""
    return {
        r["id"]: RegulatorPart(
            r["id"],
            r["label"],
            "fixed" if r["kind"] == "fixed" else "source",
            float(r["volts"]),
            float(r["dropout"]),
            float(r["quiescent_ma"]) / 1e3,
            float(r["limit_a"]),
            float(r["spread"]),
            float(r["heat_k_w"]),
            float(r["sink_k_w"]),
            float(r["most_v"]),
            float(r["least_ma"]) / 1e3,
            float(r["adjust_ma"]) / 1e3,
            r["package"],
            r["view"],
            r["pins"],
            r["capacitors"],
        )
        for r in rows("regulators")
    }
