"""Ink and pencil: which assumption moves the result most."""

from dataclasses import dataclass

import numpy as np

from swapglow.core.position.circuit import Cases
from swapglow.core.position.model import Position
from swapglow.core.position.sizing import size
from swapglow.core.position.solution import Solution
from swapglow.core.quantities import AMPERE, OHM, VOLT, Figure, Source, show
from swapglow.core.report import Pencil, PencilItem

# How far an assumed figure may be off, where its own spread does not say (common practice:
# unregulated supplies sag 10 to 30 %, a transistor keeps 0.1 to 0.3 V and a Darlington 0.7 to 1.1).
RAIL_DOUBT = 0.10
DROP_DOUBT_V = 0.3
SOURCE_DOUBT = 0.5


@dataclass(frozen=True)
class Doubt:
    """A figure with the two ends it may really have; the other figures stay where they are."""

    id: str
    label: str
    text: str
    source: Source
    rail: tuple[float, float]
    vf: tuple[float, float]
    ohms: tuple[float, float]
    drop: tuple[float, float]
    behind: tuple[float, float]


def doubts_of(p: Position) -> list[Doubt]:
    """The figures a position's current rests on, each with the ends of its doubt."""
    rail, drop, vf, ohms = p.rail.usual.value, p.drop_v, p.led.vf_typ, size(p).total_ohm
    behind = p.rail.supply.source_ohm
    same = {"rail": (rail, rail), "vf": (vf, vf), "ohms": (ohms, ohms), "drop": (drop, drop),
            "behind": (behind.value, behind.value)}  # fmt: skip

    def doubt(key: str, label: str, text: str, source: Source, **ends: tuple[float, float]) -> Doubt:
        return Doubt(key, label, text, source, **{**same, **ends})

    def reach(figure: Figure) -> tuple[float, float]:
        doubtful = RAIL_DOUBT if figure.source.is_pencil else 0.0
        return figure.value * (1 - doubtful), figure.value * (1 + doubtful)

    out = [
        doubt("rail_usual", "Usual rail", show(rail, VOLT), p.rail.usual.source,
              rail=reach(p.rail.usual)),
        doubt("rail_high", "Highest rail", show(p.rail.high.value, VOLT), p.rail.high.source,
              rail=(rail, reach(p.rail.high)[1])),
        doubt("rail_low", "Lowest rail", show(p.rail.low.value, VOLT), p.rail.low.source,
              rail=(reach(p.rail.low)[0], rail)),
        doubt("led_vf", "LED's forward voltage", f"{p.led.vf_low:g} to {p.led.vf_high:g}\u00a0V",
              p.led_source, vf=(p.led.vf_high, p.led.vf_low)),
        doubt("resistor", "Resistor's tolerance", f"±{p.resistor_tolerance * 100:g}\u00a0%",
              p.resistor_source,
              ohms=(ohms * (1 + p.resistor_tolerance), ohms * (1 - p.resistor_tolerance))),
    ]  # fmt: skip
    if behind.value > 0:
        off = SOURCE_DOUBT if behind.source.is_pencil else 0.0
        out.append(
            doubt("source_ohm", "Source resistance", show(behind.value, OHM), behind.source,
                  behind=(behind.value * (1 + off), behind.value * (1 - off)))
        )  # fmt: skip
    if p.rail.read_at == "feed":
        low = max(0.0, drop - DROP_DOUBT_V) if p.driver_drop.source.is_pencil else drop
        high = drop + DROP_DOUBT_V if p.driver_drop.source.is_pencil else drop
        out.append(
            doubt("driver_drop", "Driver's drop", show(drop, VOLT), p.driver_drop.source,
                  drop=(high, low))
        )  # fmt: skip
    return out


def cases_of(position: Position, doubts: list[Doubt]) -> Cases:
    """Both ends of every doubt, to be solved with the position's other cases."""

    def both(field: str) -> np.ndarray:
        return np.array([getattr(d, field) for d in doubts], dtype=float).ravel()

    # The drop is taken off the rail: the same circuit, and no source of zero volts is needed.
    more_drop = both("drop") - position.drop_v
    if position.rail.supply.flow == "sine":
        # Off the crest, as everywhere; here it is RMS volts that are given.
        more_drop = more_drop / np.sqrt(2)
    rail = both("rail") * position.rail.supply.lift - more_drop
    return Cases(rail, both("vf"), both("ohms"), position.drop_v, both("behind"))


def pencil(s: Solution, doubts: list[Doubt]) -> Pencil:
    """Which figures the usual current rests on, the pencilled ones by how much they move it.

    Args:
        s: solved with ``cases_of(doubts)`` as the first of its further cases.
    """
    moved = [float(abs(b - a)) for a, b in s.further[: 2 * len(doubts)].reshape(-1, 2)]
    items = [
        PencilItem(d.id, d.label, d.text, d.source, swing, f"±{show(swing / 2, AMPERE, 2)}")
        for d, swing in zip(doubts, moved, strict=True)
    ]
    items.sort(key=lambda i: (not i.source.is_pencil, -i.swing_a))
    total = sum(i.swing_a for i in items)
    pencilled = [i for i in items if i.source.is_pencil]
    share = sum(i.swing_a for i in pencilled) / total if total > 0 else 0.0
    if not pencilled:
        line = "Every figure behind this is measured or marked."
    else:
        first = pencilled[0]
        count = len(pencilled)
        rest = "1 figure" if count == 1 else f"{count} figures"
        line = (
            f"{share * 100:.0f} % of the doubt in the current is pencil: {rest} assumed. "
            f"Reading the {_lower(first.label)} would firm it up most ({first.swing_text})."
        )
    return Pencil(tuple(items), share, line)


def _lower(label: str) -> str:
    return label if label.startswith("LED") else label[0].lower() + label[1:]
