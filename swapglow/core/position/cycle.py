"""What a cycle comes to: averages, peaks, flicker, and the ratings of what tames it."""

import numpy as np

from swapglow.core.position.alternating import DRAWN
from swapglow.core.position.solution import AcSolution, Solution
from swapglow.core.quantities import AMPERE, FARAD, HERTZ, VOLT, Source, show
from swapglow.core.report import Cycle, CycleLevel, Shown, TreatmentOption, shown
from swapglow.core.supply.ratings import capacitor_volts, diode_volts, flicker_limit
from swapglow.core.supply.treatment import TREATMENTS


def crest_v(s: Solution) -> float:
    """The highest peak the rail will ever show, unloaded, V."""
    return s.position.rail.peaks[2]


def rectifier_reverse_v(s: Solution) -> float | None:
    """The most reverse volts a rectifier diode stands; None where there is none.

    The crest; twice it where a half-wave's capacitor holds the other end up (textbook).
    """
    kind = s.position.treated.id
    if kind == "half_wave_cap":
        return 2 * crest_v(s)
    return crest_v(s) if s.position.treated.rectifier else None


def reverse_per_led(ac: AcSolution, in_series: int) -> float:
    """Most reverse volts of one LED over all corners."""
    return float(ac.corners.reverse.max()) / in_series


def modulation(ac: AcSolution) -> tuple[float, float, float]:
    """Modulation of the light at the three levels, %: (max − min)/(max + min) (IEEE 1789-2015)."""
    light = ac.drawn.light
    top, low = light.max(axis=1), light.min(axis=1)
    share = np.where(top + low > 0, (top - low) / np.maximum(top + low, 1e-15), 0.0)
    a, b, c = (float(v) * 100 for v in share)
    return a, b, c


def cycle(s: Solution) -> Cycle | None:
    """The cycle of a position whose supply alternates."""
    ac = s.ac
    if ac is None:
        return None
    p = s.position
    t, supply = p.treated, p.rail.supply
    crest = shown(crest_v(s), VOLT, f"√2 × {show(p.rail.volts[2], VOLT)} RMS, the highest level, unloaded"
                  if supply.flow == "sine" else "the highest level")  # fmt: skip
    cap, cap_rating, ripple = _reservoir(s, ac)
    reverse = rectifier_reverse_v(s)
    rating = diode_volts(reverse) if reverse is not None else None
    return Cycle(
        treatment=t.id,
        label=t.label,
        why=t.why,
        options=tuple(
            TreatmentOption(o.id, o.label, o.why)
            for o in TREATMENTS.values()
            if supply.flow in o.flows
        ),
        levels=_levels(s, ac),
        crest=crest,
        capacitor=cap,
        capacitor_rating=cap_rating,
        ripple=ripple,
        diode_reverse=None if reverse is None else shown(
            reverse, VOLT, "the crest, and the capacitor's charge against it" if t.id == "half_wave_cap"
            else "the crest, unloaded, at the highest level"),
        diode_rating=None if rating is None else shown(rating, VOLT, "the next preferred rating above it"),
        polarity=_polarity(t.id),
        degrees=tuple(float(d) for d in np.arange(DRAWN) / DRAWN * 360),
        amps=(_row(ac, 0), _row(ac, 1), _row(ac, 2)),
    )  # fmt: skip


def _row(ac: AcSolution, k: int) -> tuple[float, ...]:
    return tuple(float(a) for a in ac.drawn.amps[k])


def _levels(s: Solution, ac: AcSolution) -> tuple[CycleLevel, ...]:
    p = s.position
    supply = p.rail.supply
    moves = modulation(ac)

    def level(k: int) -> CycleLevel:
        at = 3 * k + 1
        hertz = supply.hertz[k] if supply.flow == "sine" else 0.0
        flicker = hertz * p.treated.halves
        amps = ac.drawn.amps[k]
        on = float((amps > 0.01 * amps.max()).mean() * 360) if amps.max() > 1e-9 else 0.0
        origin = f"{supply.about.levels[k]}, typical LED"
        return CycleLevel(
            supply.about.levels[k],
            shown(hertz, HERTZ, "the supply", supply.hertz_source) if hertz else None,
            shown(float(ac.corners.average[at]), AMPERE, f"over the cycle; {origin}"),
            shown(float(ac.corners.peak[at]), AMPERE, f"at the crest; {origin}"),
            shown(float(ac.corners.reverse[at]) / p.in_series, VOLT, f"across one LED; {origin}"),
            round(on),
            shown(flicker, HERTZ, "half-cycles that light it") if flicker else None,
            moves[k] if flicker else 0.0,
            flicker_limit(flicker) if flicker else None,
        )

    return level(0), level(1), level(2)


def _reservoir(s: Solution, ac: AcSolution) -> tuple[Shown | None, Shown | None, Shown | None]:
    p = s.position
    if not p.treated.reservoir:
        return None, None, None
    rating = capacitor_volts(crest_v(s))
    held = ac.drawn.held[1]
    return (
        shown(s.sizing.farads, FARAD, "your own value" if p.capacitor_f is not None
              else "ripple within low-risk flicker at the slowest, next E6 up",
              Source.MARKED if p.capacitor_f is not None else Source.COMPUTED),
        None if rating is None else Shown(rating, f"{rating:g}", "V", Source.COMPUTED,
                                          "1.25 × the highest crest, next preferred rating"),
        shown(float(held.max() - held.min()), VOLT, "on the capacitor, usual level"),
    )  # fmt: skip


def _polarity(kind: str) -> str:
    capacitor = "The capacitor's marked stripe is its negative: it goes to the LED's return."
    words = {
        "bare": "",
        "inverse_diode": "Across the LED, turned round: the diode's ring to the LED's long leg.",
        "back_to_back": "One LED each way: long leg to short leg at both ends.",
        "two_colour": "Either way round; swap the leads where the colours come out exchanged.",
        "half_wave": "The diode's ring points to the LED's long leg.",
        "half_wave_cap": f"The diode's ring points to the capacitor's positive. {capacitor}",
        "bridge": "The bridge's + to the LED's long leg; its ~ legs to the supply, either way round.",
        "bridge_cap": f"The bridge's + to the capacitor's positive and on to the LED. {capacitor}",
    }
    return words[kind]
