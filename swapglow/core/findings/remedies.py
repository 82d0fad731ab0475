"""Remedies that several rules share, each worked out for the position at hand."""

import numpy as np

from swapglow.core.analysis.sizing import each_for_most, rectifier_drop
from swapglow.core.findings.finding import Remedy
from swapglow.core.findings.registry import Context
from swapglow.core.parts import resistor as resistors
from swapglow.core.parts.resistor import rating_to_fit
from swapglow.core.quantities import OHM, show


def ohm_for_most(c: Context, amps: float) -> float | None:
    """The preferred value, each part, that keeps the worst current at or under ``amps``.

    At the highest rail, the driver's least drop and the luckiest LED, over the low end of the
    resistor's tolerance, rounded up.

    Args:
        c: the position and its answers.
        amps: the most it may carry, A.

    Returns:
        Ω of each part; None where there is no such value.
    """
    p = c.position
    if p.rail.supply.alternates and c.solution is not None:
        s = c.solution
        under = np.flatnonzero(s.rule_worst[1] <= amps)
        return float(s.rule_ohm[under[0]]) if len(under) else None
    return each_for_most(p, amps)


def larger_resistor(c: Context, amps: float) -> tuple[Remedy, ...]:
    """Fit the next resistor that keeps the current under a limit.

    Args:
        c: the position and its answers.
        amps: the most it may carry, A.

    Returns:
        The remedy; none where no value does it.
    """
    each = ohm_for_most(c, amps)
    if each is None or each <= c.sizing.each_ohm:
        return ()
    pair = "two of " if c.position.resistor_parts == 2 else ""
    return (Remedy("larger-resistor", f"Fit {pair}{show(each, OHM)}", {"resistor_ohm": each}),)


def larger_part(c: Context) -> tuple[Remedy, ...]:
    """Fit a part that runs at half its rating or less."""
    rating = rating_to_fit(c.power_w, c.resistor_v, c.position.celsius)
    if rating is None:
        return ()
    return (Remedy("larger-part", f"Fit a {rating:g} W part", {"rating_w": rating}),)


def two_halves(c: Context) -> tuple[Remedy, ...]:
    """Two parts in series, one in each lead: the same current, the heat shared."""
    p = c.position
    if p.resistor_parts == 2:
        return ()
    pair = resistors.halves(c.sizing.each_ohm, p.series)
    # Twice the value and more carries no more current, so each half takes at most half the heat.
    shared = c.power_w / 2
    rating = p.rating_w
    volts = c.resistor_v / 2
    if rating is not None and (
        shared > resistors.takes_w(rating, p.celsius) * resistors.WORKING_FRACTION
        or volts > resistors.body_of(rating).volts
    ):
        rating = rating_to_fit(shared, volts, p.celsius)
        if rating is None:
            return ()
    body = f", {rating:g} W each" if rating is not None else ""
    changes: dict[str, float | int | str | None] = {
        "resistor_parts": 2,
        "resistor_ohm": pair.first_ohm,
        "rating_w": rating,
    }
    out = [Remedy("two-halves", f"Fit two of {show(pair.first_ohm, OHM)}{body}, one in each lead", changes)]
    # Two of the value itself: half the current, a quarter of the heat in each (common practice
    # where the light is too much as well).
    if p.rating_w is not None and c.power_w / 4 <= p.rating_w * resistors.WORKING_FRACTION:
        same: dict[str, float | int | str | None] = {"resistor_parts": 2, "resistor_ohm": c.sizing.each_ohm}
        label = f"Fit two of {show(c.sizing.each_ohm, OHM)}, one in each lead: half the current"
        out.append(Remedy("two-same", label, same))
    return tuple(out)


def fewer_in_series(c: Context, share: float) -> tuple[Remedy, ...]:
    """As many LEDs as leave ``share`` of the usual rail as headroom, with the sizing redone.

    Args:
        c: the position and its answers.
        share: of the usual rail, 0 to 1.

    Returns:
        The remedy; none where one LED is too many.
    """
    p = c.position
    if p.module is not None:
        return ()
    vf = p.led.vf_typ
    for count in range(p.in_series - 1, 0, -1):
        lost = p.drop_v + rectifier_drop(p)
        left = p.rail.peaks[1] - lost - count * vf
        lights = p.rail.peaks[0] - lost - count * p.led.vf_high > 0
        if left >= share * p.rail.peaks[1] and lights:
            what = "one LED" if count == 1 else f"{count} LEDs in series"
            return (Remedy("fewer-in-series", f"Use {what}", {"in_series": count, "resistor_ohm": None}),)
    return ()
