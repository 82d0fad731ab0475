"""Ink and pencil: which assumption moves the result most."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.solution import Solution
from swapglow.core.design.position import Position
from swapglow.core.network.cases import Block
from swapglow.core.quantities import AMPERE, OHM, VOLT, Figure, Source, show
from swapglow.core.uncertainty.stakes import NO_STAKE, Stake, dearest, if_alternating, stake_of

# The name of these cases among a solution's further blocks.
BLOCK = "uncertainty"

# How far an assumed figure may be off, where its own spread does not say (common practice:
# unregulated supplies sag 10 to 30 %, a transistor keeps 0.1 to 0.3 V and a Darlington 0.7 to 1.1).
RAIL_SHARE = 0.10
DROP_V = 0.3
SOURCE_SHARE = 0.5
# Of the current; less of a move is none.
NOTHING = 1e-6


@dataclass(frozen=True)
class UncertainFigure:
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


@dataclass(frozen=True)
class Swing:
    """A figure the result rests on, with what its uncertainty does to the current.

    Attributes:
        id, label, text, source: the figure.
        swing_a: how far the usual current moves between its ends, A.
        swing_text: half of that either way, as printed.
        stake: what is lost where it is wrong; nothing for one that was read.
    """

    id: str
    label: str
    text: str
    source: Source
    swing_a: float
    swing_text: str
    stake: Stake = NO_STAKE


@dataclass(frozen=True)
class Uncertainty:
    """How much of the result still rests on assumption: 0 to 1, and in a line."""

    items: tuple[Swing, ...]
    share: float
    line: str


def uncertain_figures(p: Position) -> list[UncertainFigure]:
    """The figures a position's current rests on, each with the ends it may really have."""
    rail, drop, vf, ohms = p.rail.usual.value, p.drop_v, p.led.vf_typ, size(p).total_ohm
    behind = p.rail.supply.source_ohm
    same = {
        "rail": (rail, rail),
        "vf": (vf, vf),
        "ohms": (ohms, ohms),
        "drop": (drop, drop),
        "behind": (behind.value, behind.value),
    }

    def figure(key: str, label: str, text: str, source: Source, **ends: tuple[float, float]) -> UncertainFigure:
        return UncertainFigure(key, label, text, source, **{**same, **ends})

    def reach(level: Figure) -> tuple[float, float]:
        off = RAIL_SHARE if level.source.is_assumed else 0.0
        return level.value * (1 - off), level.value * (1 + off)

    out = [
        figure("rail_usual", "Usual rail", show(rail, VOLT), p.rail.usual.source, rail=reach(p.rail.usual)),
        figure(
            "rail_high",
            "Highest rail",
            show(p.rail.high.value, VOLT),
            p.rail.high.source,
            rail=(rail, reach(p.rail.high)[1]),
        ),
        figure(
            "rail_low",
            "Lowest rail",
            show(p.rail.low.value, VOLT),
            p.rail.low.source,
            rail=(reach(p.rail.low)[0], rail),
        ),
        figure(
            "led_vf",
            "LED's forward voltage",
            f"{p.led.vf_low:.4g} to {p.led.vf_high:.4g}\u00a0V{p.read_on_text}",
            p.led_source,
            vf=(p.led.vf_high, p.led.vf_low),
        ),
        figure(
            "resistor",
            "Resistor's tolerance",
            f"±{p.ohm_known_to * 100:.2g}\u00a0%",
            p.resistor_source,
            ohms=(ohms * (1 + p.ohm_known_to), ohms * (1 - p.ohm_known_to)),
        ),
    ]
    if behind.value > 0:
        off = SOURCE_SHARE if behind.source.is_assumed else 0.0
        out.append(
            figure(
                "source_ohm",
                "Source resistance",
                show(behind.value, OHM),
                behind.source,
                behind=(behind.value * (1 + off), behind.value * (1 - off)),
            )
        )
    if p.rail.read_at == "feed":
        low = max(0.0, drop - DROP_V) if p.driver.drop.source.is_assumed else drop
        high = drop + DROP_V if p.driver.drop.source.is_assumed else drop
        out.append(figure("driver_drop", "Driver's drop", show(drop, VOLT), p.driver.drop.source, drop=(high, low)))
    return out


def block_of(position: Position, figures: list[UncertainFigure]) -> Block:
    """Both ends of every figure, to be solved with the position's other cases.

    Args:
        position: the swap.
        figures: what is uncertain of it.

    Returns:
        Cases along the axes "figure" and "end".
    """

    def both(field: str) -> NDArray[np.float64]:
        return np.array([getattr(f, field) for f in figures], dtype=float)

    # The drop is taken off the rail: the same circuit, and no source of zero volts is needed.
    more_drop = both("drop") - position.drop_v
    # Off the crest, as everywhere; here it is the meter's volts that are given.
    more_drop = more_drop / position.rail.supply.waveform.crest_factor
    rail = both("rail") * position.rail.supply.open_to_loaded_ratio - more_drop
    axes = {"figure": tuple(f.id for f in figures), "end": ("least", "most")}
    return Block(axes, rail, both("vf"), both("ohms"), source=both("behind"))


def uncertainty(s: Solution, figures: list[UncertainFigure]) -> Uncertainty:
    """Which figures the usual current rests on, the assumed ones by how much they move it.

    Args:
        s: solved with :func:`block_of` as its further block :data:`BLOCK`.
        figures: what is uncertain.

    Returns:
        Figures in order, the share of assumption, and a line that says both.
    """
    moved = np.abs(s.further[BLOCK][:, 1] - s.further[BLOCK][:, 0])
    # What rounding makes of two ends that are one.
    moved[moved <= NOTHING * max(float(np.abs(s.usual).max()), 1e-9)] = 0.0
    items = [
        Swing(
            f.id,
            f.label,
            f.text,
            f.source,
            float(swing),
            f"±{show(float(swing) / 2, AMPERE, 2)}",
            _stake(s, f, float(ends.max())),
        )
        for f, swing, ends in zip(figures, moved, s.further[BLOCK], strict=True)
    ]
    items.sort(key=lambda i: (not i.source.is_assumed, -i.swing_a))
    total = sum(i.swing_a for i in items)
    assumed = [i for i in items if i.source.is_assumed]
    share = sum(i.swing_a for i in assumed) / total if total > 0 else 0.0
    return Uncertainty(tuple(items), share, f"{_band(s)}{_most_of_it(items)}")


def _stake(s: Solution, f: UncertainFigure, amps: float) -> Stake:
    """What an assumed figure costs at its bad end, and not as it is taken to be: that is no fault of it."""
    if not f.source.is_assumed:
        return NO_STAKE
    taken = stake_of(s, float(s.usual[1]), s.position.rail.volts[1])
    bad = stake_of(s, amps, max(f.rail))
    at_end = bad if bad.rank > taken.rank else NO_STAKE
    return dearest([at_end, if_alternating(s.position)]) if f.id == "rail_usual" else at_end


def _band(s: Solution) -> str:
    """ "6.28 mA to 7.21 mA" """
    low, high = show(s.string_current_min, AMPERE), show(s.string_current_max, AMPERE)
    return low if low == high else f"{low} to {high}"


def _most_of_it(items: list[Swing]) -> str:
    """What makes most of the band, and what of it nobody has read."""
    assumed = [i for i in items if i.source.is_assumed]
    largest = max(items, key=lambda i: i.swing_a, default=None)
    if not assumed:
        return ". Every figure behind it is measured or marked."
    count = "1 figure" if len(assumed) == 1 else f"{len(assumed)} figures"
    if largest is None or largest.swing_a <= 0 or assumed[0].swing_a <= 0:
        return f". {count} assumed; {'it does not move' if len(assumed) == 1 else 'none of them moves'} it."
    said = f", most of it from the {_lower(largest.label)} ({largest.swing_text})"
    if not largest.source.is_assumed:
        return f"{said}; in pencil most from the {_lower(assumed[0].label)} ({assumed[0].swing_text})."
    return f"{said}, in pencil."


def _lower(label: str) -> str:
    return label if label.startswith("LED") else label[0].lower() + label[1:]
