"""Ready-made modules with a voltage band of their own."""

from collections.abc import Iterable

import numpy as np

from swapglow.core.analysis.sharing import MISMATCH, unluckiest
from swapglow.core.design.position import Position
from swapglow.core.findings.finding import Finding, Grade, Remedy
from swapglow.core.findings.registry import Context, rule
from swapglow.core.parts.ready_made import LAWS
from swapglow.core.parts.sweep import SWEPT
from swapglow.core.quantities import AMPERE, OHM, VOLT, percent, show

# Insides whose currents lie no further apart than a meter tells are not worth a word.
SAME = 0.01
# Room in a share of the band that the unluckiest of several in series should keep (ours).
ROOM = 0.05


# Why lamps that hold something by themselves do not share a rail in series, by their law.
_WHY_NOT = {
    "current": "Each lets its own current through, and no two are equal: the volts go to the one that takes least.",
    "power": "The more volts a constant-power lamp has, the less current it takes: of two that are equal, the one that "
    "starts with more volts takes ever more of them.",
}


def _volts(c: Context) -> tuple[float, float, float]:
    """Volts of one module: at the dip of the lowest level, its mean at the highest, and its highest instant.

    The mean of what turns or pulses is the root of the mean square, by which such lamps are sold.
    """
    p, s, on = c.position, c.solution, c.state("on")
    if s is not None and s.ac is not None:
        d = s.ac.drawn
        seen = d.held if p.rectification.reservoir else np.abs(d.contacts)
        dip = float(seen[0].min()) if p.rectification.reservoir else float(np.sqrt((seen[0] ** 2).mean()))
        volts = dip, float(np.sqrt((seen[2] ** 2).mean())), float(seen[2].max())
    elif on is not None:
        volts = float(on.lamp_v[0]), float(on.lamp_v[2]), float(on.lamp_v[2])
        if p.module is None and p.led.id == SWEPT and s is not None:
            top = float(np.nanmax(s.volts_led[2])) * p.in_series
            volts = volts[0], top, top
    else:
        low, _, high = (v - p.drop_v for v in p.rail.volts)
        volts = low, high, high
    return volts[0] / p.in_series, volts[1] / p.in_series, volts[2] / p.in_series


@rule
def over_its_band(c: Context) -> Iterable[Finding]:
    """One module over its band, where two in series would fit but need not share equally."""
    p = c.position
    if p.band_v is None:
        return
    low, high = p.band_v
    dip, mean, peak = _volts(c)
    smooth = not p.rail.supply.alternates or p.rectification.reservoir
    over = peak if smooth else mean
    if over > high * (1 + 1e-9):
        yield _over(c, over)
        return
    if peak > high * (1 + 1e-9):
        yield Finding(
            "module-crest-over-band",
            "mind",
            f"At the crest it sees {show(peak, VOLT)}, over the {show(high, VOLT)} of its band; the mean is "
            f"{show(mean, VOLT)}.",
            show(peak, VOLT),
            show(high, VOLT),
            "A lamp sold for AC stands 1.4 times its volts at the crest. One sold for DC only may not: what is inside "
            "it is not known.",
        )
    if p.led.id != SWEPT and dip < low * (1 - 1e-9):
        yield Finding(
            "module-under-band",
            "mind",
            f"At the lowest a module has {show(dip, VOLT)}; its band begins at {show(low, VOLT)}.",
            show(dip, VOLT),
            show(low, VOLT),
            "Below its band a module is dim or dark, and may flicker.",
        )


@rule
def inside_estimated(c: Context) -> Iterable[Finding]:
    """What stands inside a ready-made lamp, where nobody counted, swept or read it twice."""
    m, s = c.position.module, c.solution
    if m is None or s is None or s.doubt is None:
        return
    likely = m.insides[0]
    least, most = s.doubt
    if most <= least * (1 + SAME):
        return
    if not m.law_known:
        yield _law_unknown(c.position, least, most)
        return
    yield Finding(
        "inside-estimated",
        "note",
        f"What is inside is estimated: {likely.dice} LEDs and {show(likely.ohm, OHM, 2)} are the likeliest. "
        f"Over all it may have it takes {show(least, AMPERE, 2)} to {show(most, AMPERE, 2)}.",
        f"{len(m.insides)} possible",
        "one",
        f"By what it draws at {show(m.at_v, VOLT)}. A second reading at other volts, a sweep, or a count of its LEDs "
        "settles it.",
    )


def _law_unknown(p: Position, least: float, most: float) -> Finding:
    counted = dict.fromkeys(q.module.law for q in p.possible if q.module is not None)
    laws = [LAWS[law][0].lower() + LAWS[law][1:] for law in counted]
    left_out = "" if "power" in counted else " Constant power is not worked out here: nothing holds its crests."
    return Finding(
        "inside-estimated",
        "mind",
        f"What it has inside is not known: {', '.join(laws[:-1])} or {laws[-1]}. Over all of these it takes "
        f"{show(least, AMPERE, 2)} to {show(most, AMPERE, 2)}.",
        f"{len(laws)} possible",
        "one",
        f"The picture shows {laws[0]}; the least and the most count all of them. Read its current at a second "
        "voltage: with a resistor it rises, with constant power it falls." + left_out,
    )


def _over(c: Context, volts: float) -> Finding:
    p = c.position
    assert p.band_v is not None
    low, high = p.band_v
    top, least = volts * p.in_series, _volts(c)[0] * p.in_series
    count = p.in_series + 1
    while top / count > high and count < 200:
        count += 1
    remedies: tuple[Remedy, ...] = ()
    shares = p.module is None or (p.module.law == "resistor" and p.module.law_known)
    fits = least / count >= low and shares
    if fits:
        remedies = (Remedy("modules-in-series", f"Put {count} in series", {"in_series": count}),)
    return Finding(
        "module-over-band",
        "stop",
        f"A module of {low:g} to {high:g} V would see {show(volts, VOLT)}.",
        show(volts, VOLT),
        show(high, VOLT),
        (
            f"{count} in series would have {show(least / count, VOLT)} to {show(top / count, VOLT)} each if they "
            "shared equally; they need not: the one that draws less takes the more. Read each one's volts on trial."
            if fits
            else "Nor do several in series fit its band from lowest to highest rail: use a regulator."
            if shares
            else "Several in series do not share unless each has a resistor inside: use a regulator."
        ),
        remedies,
    )


@rule
def uneven_share(c: Context) -> Iterable[Finding]:
    """Modules in series share by their own curves, which differ."""
    p, m = c.position, c.position.module
    if p.band_v is None or p.in_series < 2:
        return
    equal = _volts(c)[1]
    high = p.band_v[1]
    if m is not None and m.law != "resistor":
        yield Finding(
            "modules-share-unevenly",
            "stop",
            f"{p.in_series} lamps that each hold their own {m.law} cannot share {show(equal * p.in_series, VOLT)}: the "
            "one that takes least has nearly all of it.",
            f"constant {m.law}",
            "a resistor inside",
            _WHY_NOT[m.law] + " Put them side by side, or take lamps with a resistor inside.",
        )
        return
    if m is not None and not m.law_known:
        yield Finding(
            "modules-share-unevenly",
            "mind",
            f"{p.in_series} lamps in series share {show(equal * p.in_series, VOLT)} only if each has a resistor "
            "inside; what they have is not known.",
            "law not known",
            "a resistor inside",
            f"{_WHY_NOT['current']} {_WHY_NOT['power']} Read one's current at two voltages: with a resistor it rises, "
            "with constant power it falls.",
        )
        return
    if m is None and p.led.id != SWEPT:
        yield Finding(
            "modules-share-unevenly",
            "mind",
            f"{p.in_series} modules in series have {show(equal, VOLT)} each only if they are equal; "
            "their own curve is not known.",
            "no curve",
            "two readings, or a sweep",
            "The one that draws less takes the more volts. Say what one draws at two voltages, or read each on trial.",
        )
        return
    worst = unluckiest(p, equal * p.in_series)
    if worst is None or equal > high:
        return
    room = high / worst.volts - 1
    grade: Grade = "stop" if room < 0 else "mind" if room < ROOM else "note"
    throttled = m is not None and m.throttle < 1
    yield Finding(
        "modules-share-unevenly",
        grade,
        f"{p.in_series} in series have {show(equal, VOLT)} each if they are equal; the one that draws least has "
        f"{show(worst.volts, VOLT)}, {'over' if room < 0 else 'within'} its {show(high, VOLT)}.",
        show(worst.volts, VOLT),
        show(high, VOLT),
        f"By their own curve, with {percent(MISMATCH)} more and less from lamp to lamp"
        + (" and one turned down by its warmth" if throttled else "")
        + f", at {show(worst.amps, AMPERE)}. Read each on trial; pair lamps of one batch.",
    )
