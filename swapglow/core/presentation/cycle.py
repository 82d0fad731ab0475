"""Section: what a cycle comes to, and the ratings of what tames it."""

from dataclasses import dataclass

import numpy as np

from swapglow.core.analysis.ac_cycle import DRAWN
from swapglow.core.analysis.cycle_figures import crest_v, flicker_hertz, modulation, rectifier_reverse_v
from swapglow.core.analysis.solution import AcSolution, Solution
from swapglow.core.design.rectification import RECTIFICATIONS
from swapglow.core.parts.ratings import capacitor_volts, diode_volts
from swapglow.core.photometry.flicker import flicker_limit
from swapglow.core.quantities import AMPERE, FARAD, HERTZ, VOLT, Shown, Source, show, shown
from swapglow.core.supplies.waveform import Waveform


@dataclass(frozen=True)
class RectificationOption:
    """A way to make the LED live on a supply that alternates; ``asks`` are the position's fields it needs."""

    id: str
    label: str
    asks: tuple[str, ...]


@dataclass(frozen=True)
class CycleLevel:
    """What a cycle comes to at one level of the supply, typical LED.

    Flicker is the light's modulation in %, with its frequency and the low-risk limit there
    (IEEE 1789-2015); None where the supply has no frequency to reckon with.
    """

    label: str
    average: Shown
    peak: Shown
    reverse: Shown
    conduction_deg: float
    flicker_hz: Shown | None
    modulation: float
    limit: float | None


@dataclass(frozen=True)
class Cycle:
    """A rectified LED over the cycle.

    ``amps`` are the LED's current over ``degrees`` at the low, usual and high level.
    """

    rectification: str
    why: str
    options: tuple[RectificationOption, ...]
    levels: tuple[CycleLevel, ...]
    crest: Shown
    capacitor: Shown | None
    capacitor_rating: Shown | None
    ripple: Shown | None
    diode_reverse: Shown | None
    diode_rating: Shown | None
    polarity: str
    degrees: tuple[float, ...]
    amps: tuple[tuple[float, ...], ...]


def cycle_section(s: Solution) -> Cycle | None:
    """The cycle of a position whose supply alternates; None where it is steady."""
    ac = s.ac
    if ac is None:
        return None
    p = s.position
    t, supply = p.rectification, p.rail.supply
    crest = shown(
        crest_v(s),
        VOLT,
        f"√2 × {show(p.rail.volts[2], VOLT)} RMS, the highest level, unloaded"
        if supply.waveform is Waveform.SINE
        else "the highest level",
    )
    cap, cap_rating, ripple = _reservoir(s, ac)
    reverse = rectifier_reverse_v(s)
    rating = diode_volts(reverse) if reverse is not None else None
    return Cycle(
        rectification=t.id,
        why=t.why,
        options=tuple(
            RectificationOption(o.id, o.label, o.asks) for o in RECTIFICATIONS.values() if supply.waveform in o.suits
        ),
        levels=_levels(s, ac),
        crest=crest,
        capacitor=cap,
        capacitor_rating=cap_rating,
        ripple=ripple,
        diode_reverse=None
        if reverse is None
        else shown(
            reverse,
            VOLT,
            "the crest, and the capacitor's charge against it"
            if t.topology == "series" and t.reservoir
            else "the crest, unloaded, at the highest level",
        ),
        diode_rating=None if rating is None else shown(rating, VOLT, "twice that, the next preferred rating"),
        polarity=t.polarity,
        degrees=tuple(float(d) for d in np.arange(DRAWN) / DRAWN * 360),
        amps=(_row(ac, 0), _row(ac, 1), _row(ac, 2)),
    )


def _row(ac: AcSolution, k: int) -> tuple[float, ...]:
    return tuple(float(a) for a in ac.drawn.amps[k])


def _levels(s: Solution, ac: AcSolution) -> tuple[CycleLevel, ...]:
    p = s.position
    supply = p.rail.supply
    moves, rates = modulation(s, ac), flicker_hertz(s)

    across = "the LED" if p.in_series == 1 else f"the {p.in_series} LEDs, which do not share it evenly"

    def level(k: int) -> CycleLevel:
        flicker = rates[k]
        amps = ac.drawn.amps[k]
        on = float((amps > 0.01 * amps.max()).mean() * 360) if amps.max() > 1e-9 else 0.0
        origin = f"{supply.kind.levels[k]}, typical LED"
        return CycleLevel(
            supply.kind.levels[k],
            shown(float(ac.typical.average[k]), AMPERE, f"over the cycle; {origin}"),
            shown(float(ac.typical.peak[k]), AMPERE, f"at the crest; {origin}"),
            shown(float(ac.typical.reverse[k]), VOLT, f"across {across}; {origin}"),
            round(on),
            shown(flicker, HERTZ, "half-cycles that light it") if flicker else None,
            moves[k] if flicker else 0.0,
            flicker_limit(flicker) if flicker else None,
        )

    return level(0), level(1), level(2)


def _reservoir(s: Solution, ac: AcSolution) -> tuple[Shown | None, Shown | None, Shown | None]:
    p = s.position
    if not p.rectification.reservoir:
        return None, None, None
    rating = capacitor_volts(crest_v(s))
    held = ac.drawn.held[1]
    return (
        shown(
            s.sizing.farads,
            FARAD,
            "your own value"
            if p.capacitor_f is not None
            else "ripple within low-risk flicker at the slowest, next E6 up",
            Source.MARKED if p.capacitor_f is not None else Source.COMPUTED,
        ),
        None
        if rating is None
        else Shown(rating, f"{rating:g}", "V", Source.COMPUTED, "1.25 × the highest crest, next preferred rating"),
        shown(float(held.max() - held.min()), VOLT, "on the capacitor, usual level"),
    )
