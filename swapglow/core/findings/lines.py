"""Pins and lines that are read, not meant to feed anything."""

import math
from collections.abc import Iterable
from dataclasses import replace

import numpy as np

from swapglow.core.analysis.sizing import each_for_most, size
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, rule
from swapglow.core.findings.remedies import larger_resistor, ohm_for_most
from swapglow.core.kinds.trials import Bounds
from swapglow.core.parts import led as leds
from swapglow.core.photometry.intensity import led_candela, times_the_light
from swapglow.core.quantities import AMPERE, CANDELA, OHM, Figure, show, times_text
from swapglow.core.supplies.supply import BUDGET_A
from swapglow.core.values import preferred

# A base resistor that a line hardly notices, and what a base keeps (common practice).
BASE_OHM = 100e3
BASE_V = 0.65


def _strings(c: Context) -> str:
    """How many strings make the current, where several do."""
    count = c.position.branches
    return f" to {count} strings of {show(c.string_current_max, AMPERE)}" if count > 1 else ""


@rule
def pin_budget(c: Context) -> Iterable[Finding]:
    """More than the pin may give."""
    p = c.position
    pin = p.rail.supply.output_limit
    amps = c.supply_current_max
    if pin is None or amps <= min(pin.value, BUDGET_A):
        return
    beyond = amps > pin.value
    limit = pin.value if beyond else BUDGET_A
    yield Finding(
        "pin-over-budget",
        "stop" if beyond else "mind",
        f"The pin gives {show(amps, AMPERE)}{_strings(c)}; "
        + (f"it may give {show(limit, AMPERE)}." if beyond else f"a sane budget is {show(limit, AMPERE)}."),
        show(amps, AMPERE),
        show(limit, AMPERE),
        "Past its limit the level falls, and what else reads the pin reads it wrong. A modern LED is plain "
        "at 1 mA; for more, a transistor from a real rail.",
        larger_resistor(c, min(pin.value, BUDGET_A) / 2 / p.branches),
    )


@rule
def taken_for_closed(c: Context) -> Iterable[Finding]:
    """The LED's current reads as a closed contact."""
    p = c.position
    supply = p.rail.supply
    if not supply.kind.reads_line:
        return
    amps = c.supply_current_max
    if supply.trip is None:
        yield Finding(
            "trip-unknown",
            "mind",
            f"It takes {show(amps, AMPERE)}; at what current the equipment takes the line for closed is not known.",
            show(amps, AMPERE),
            "the trip current",
            "Try resistors across the contact, largest first, until the unit switches: the trip lies "
            "between the last two.",
        )
        return
    limit = supply.trip.value * supply.trip_share
    # The very resistor that was tried with this LED is what was seen: its own tolerance was in it.
    alone = p.shunt_ohm is None and not p.beside and p.branches == 1
    tried = supply.ignored_ohm
    if amps <= limit or (alone and tried is not None and math.isclose(c.sizing.total_ohm, tried, rel_tol=1e-6)):
        return
    certain = supply.closes_at
    closed = certain is not None and amps >= certain
    if certain is not None and closed:
        tried = supply.trip_fails is not None
        why = f"{show(certain, AMPERE)} was tried and did" if tried else f"it trips at {show(certain, AMPERE)}"
        message = f"With {show(amps, AMPERE)} through it the line reads as closed: {why}."
    elif supply.trip_ignored and certain is not None:
        message = (
            f"{show(amps, AMPERE)} lies between the {show(limit, AMPERE)} that still switched and the "
            f"{show(certain, AMPERE)} that did not."
        )
    elif supply.trip_ignored:
        message = f"{show(amps, AMPERE)} is more than the {show(limit, AMPERE)} that was tried and switched."
    else:
        message = f"{show(amps, AMPERE)} is close to the {show(supply.trip.value, AMPERE)} that trips the line."
        if supply.trip.source.is_assumed:
            message = (
                f"It takes {show(amps, AMPERE)}; the line is taken to trip at {show(supply.trip.value, AMPERE)}, and "
                "nobody has tried it."
            )
    yield Finding(
        "line-reads-closed",
        "stop" if closed else "mind",
        message,
        show(amps, AMPERE),
        show(limit, AMPERE),
        "The equipment can no longer tell the switch. "
        + _light_left(c, limit / p.branches)
        + _try_next(c)
        + " Try both switch states. "
        "Else a transistor from a real rail, driven by the line, or a spare contact.",
        (*larger_resistor(c, limit / p.branches), *_brighter(c, limit / p.branches)),
    )


def _try_next(c: Context) -> str:
    """The trial that halves what is not known, where one was ignored and another was taken for closed."""
    p, supply = c.position, c.position.rail.supply
    if not supply.trip_ignored or supply.trip is None or supply.trip_fails is None:
        return ""
    ends = Bounds(supply.trip.value, supply.trip_fails.value)
    sized = size(replace(p, target=Figure(ends.try_next), resistor_ohm=None, follows=False, branches=1))
    if ends.settled or not sized.exact_ohm:
        return ""
    ohm = preferred.prefer(sized.exact_ohm / p.resistor_parts, "E24", "nearest")
    return f" Trying {show(ohm, OHM)} next halves what is not known."


def _light_left(c: Context, limit: float) -> str:
    """What is to be had at the least resistor that is safe."""
    each = ohm_for_most(c, limit)
    if each is None:
        return "No resistor keeps it under that."
    s = c.solution if c.solution is not None and len(c.solution.rule_ohm) else None
    at = "" if s is None else f", {show(float(np.interp(each, s.rule_ohm, s.rule_amps[1])), AMPERE)}"
    text = f"Least resistor that is safe: {show(each, OHM)}{at}"
    if s is not None:
        cd = led_candela(c.position, float(np.interp(each, s.rule_ohm, s.rule_amps[1])))
        text += f", {show(cd, CANDELA, 2)}"
        if c.old_candela:
            text += f", {times_text(cd / c.old_candela)}"
    return text + "."


def _brighter(c: Context, limit: float) -> tuple[Remedy, ...]:
    """An LED that makes more of the little current there is."""
    p = c.position
    alike = [k for k in leds.catalogue().values() if k.colour == p.led.colour]
    best = max(alike, key=lambda k: times_the_light(p, k), default=p.led)
    times = times_the_light(p, best)
    if times <= 1.5:
        return ()
    changed = replace(p, led=best, resistor_ohm=None)
    each = each_for_most(changed, limit)
    if each is None:
        return ()
    label = f"Use {best.label.lower()} with {show(each, OHM)}: {times_text(times)} × the light for the current"
    return (Remedy("brighter-led", label, {"led_id": best.id, "resistor_ohm": each}),)


@rule
def transistor_instead(c: Context) -> Iterable[Finding]:
    """What the line would give if it only drove a transistor's base."""
    p = c.position
    supply = p.rail.supply
    if not supply.kind.reads_line or supply.trip is None:
        return
    if c.supply_current_max <= supply.trip.value * supply.trip_share:
        return
    base = (p.rail.volts[2] - BASE_V) / (BASE_OHM + supply.source_ohm.value)
    yield Finding(
        "line-by-transistor",
        "note",
        f"Through {show(BASE_OHM, OHM)} into a transistor's base the line gives {show(base, AMPERE, 2)}.",
        show(base, AMPERE, 2),
        show(supply.trip.value * supply.trip_share, AMPERE),
        'The LED then hangs on a real rail, as bright as wanted; where the contact is closed in the "off" '
        "state, the base follows it.",
    )
