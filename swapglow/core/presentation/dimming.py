"""Section: a fitted LED that is too bright, and the resistor to try next."""

from collections.abc import Sequence
from dataclasses import dataclass

from swapglow.core.analysis.dimming import FittedLed, Ratio, amps_of, dimmed, ratio_of, wanted_ohms
from swapglow.core.design.trial import VERDICTS, Trial
from swapglow.core.photometry.words import eye_text, step_text
from swapglow.core.quantities import AMPERE, OHM, Shown, percent, show, shown


@dataclass(frozen=True)
class DimRow:
    """One resistor: what it makes of current and light, and whether an eye would tell it from the one before."""

    ohm: float
    text: str
    current: str
    light: str
    told: bool


@dataclass(frozen=True)
class DimTrial:
    """A look with one resistor in it; the fitted one is the first."""

    id: str
    ohm: float
    text: str
    verdict: str
    light: str
    at: str


@dataclass(frozen=True)
class Dimming:
    """A fitted LED to be dimmed.

    Attributes:
        problem: why nothing can be said yet; empty where something can.
        rows: resistors one may try, from the fitted one up.
        trials: in the order they were made.
        low_ohm, high_ohm: between which the light wanted lies.
        next: what to try; empty where one was right.
        next_ohm: that in Ω; 0 where none.
        right: the one that was right; empty where none was.
        line: what is believed of the light wanted.
        step: what this eye tells.
        amps: current with the resistor to try, or the one that was right; None where rail or LED are not known.
    """

    problem: str
    rows: tuple[DimRow, ...]
    trials: tuple[DimTrial, ...]
    low_ohm: float
    high_ohm: float
    next: str
    next_ohm: float
    right: str
    line: str
    step: str
    amps: Shown | None


def not_yet(problem: str) -> Dimming:
    """A fitted LED of which nothing can be said, and why in words."""
    return Dimming(problem, (), (), 0.0, 0.0, "", 0.0, "", "", "", None)


def dimming(fitted: FittedLed, trials: Sequence[Trial], drawer: frozenset[float] = frozenset()) -> Dimming:
    """What is to be said of a fitted LED that is too bright.

    Args:
        fitted: what is there.
        trials: looks with other resistors in it, in their order.
        drawer: resistors at hand, Ω.

    Returns:
        The section.

    Raises:
        InputError: a known rail does not light it.
    """
    d = dimmed(fitted, trials, drawer)
    low, high = wanted_ohms(fitted, d.belief)
    looks = [DimTrial("", fitted.ohm, show(fitted.ohm, OHM), "Too bright", "as it was", "")]
    for t in trials:
        r = ratio_of(fitted, t.ohm)
        through = "" if t.screen == 1 else f", through the {percent(t.screen)} screen"
        text = f"{eye_text(r.light[1] * t.screen)} × the light{through}"
        looks.append(DimTrial(t.id, t.ohm, show(t.ohm, OHM), VERDICTS[t.verdict], text, t.at))
    last = ratio_of(fitted, looks[-1].ohm).octaves
    rows = tuple(
        DimRow(r.ohm, show(r.ohm, OHM), _ends(r.current), _ends(r.light), abs(r.octaves - last) >= d.step)
        for r in d.ratios
    )
    chosen = d.settled or d.next
    return Dimming(
        "",
        rows,
        tuple(looks),
        low,
        high,
        "" if d.next is None else show(d.next.ohm, OHM),
        0.0 if d.next is None else d.next.ohm,
        "" if d.settled is None else show(d.settled.ohm, OHM),
        _line(fitted, d.settled, low, high),
        step_text(d.step),
        None if chosen is None else _amps(fitted, chosen.ohm),
    )


def _ends(ratio: tuple[float, float, float]) -> str:
    low, middle, high = (eye_text(x) for x in ratio)
    return f"{middle} ×" if low == high else f"{middle} × ({low} to {high})"


def _line(fitted: FittedLed, settled: Ratio | None, low: float, high: float) -> str:
    if settled is not None:
        share = f"{eye_text(settled.light[1])} of the light it had"
        return f"{show(settled.ohm, OHM)} was right: {share}."
    sure = "" if fitted.known else " Rail and LED are not known: ratios are sure, currents are not said."
    return f"What this eye wants lies between {show(low, OHM, 2)} and {show(high, OHM, 2)}.{sure}"


def _amps(fitted: FittedLed, ohm: float) -> Shown | None:
    if not fitted.known or fitted.rail is None or fitted.led is None:
        return None
    amps = amps_of(fitted, fitted.rail.usual, fitted.led.vf_typ, ohm)
    return shown(amps, AMPERE, f"{show(ohm, OHM)} and {fitted.led.label} at {fitted.rail.usual:g} V (Ohm, Shockley)")
