"""Ready-made modules with a voltage band of their own."""

from collections.abc import Iterable

import numpy as np

from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, rule
from swapglow.core.parts.sweep import SWEPT
from swapglow.core.quantities import VOLT, show


def _most_volts(c: Context) -> float:
    """The most volts a module sees: by its own swept curve, or all of the rail where it has none."""
    p, s = c.position, c.solution
    on = c.state("on")
    if p.module is not None and on is not None:
        return float(on.lamp_v[2])
    if p.led.id == SWEPT and s is not None:
        return float(np.nanmax(s.volts_led[2]))
    return (p.rail.volts[2] - p.drop_v) / p.in_series


def _least_volts(c: Context) -> float:
    """The least volts a module sees."""
    p, on = c.position, c.state("on")
    if p.module is not None and on is not None:
        return float(on.lamp_v[0])
    return (p.rail.volts[0] - p.drop_v) / p.in_series


@rule
def over_its_band(c: Context) -> Iterable[Finding]:
    """One module over its band, where two in series would fit but need not share equally."""
    p = c.position
    if p.band_v is None:
        return
    low, high = p.band_v
    share = _most_volts(c)
    if share <= high:
        least = _least_volts(c)
        if p.led.id != SWEPT and least < low:
            yield Finding(
                "module-under-band", "mind",
                f"At the lowest rail a module has {show(least, VOLT)}; its band begins at {show(low, VOLT)}.",
                show(least, VOLT), show(low, VOLT),
                "Below its band a module is dim or dark, and may flicker.",
            )  # fmt: skip
        return
    count = p.in_series + 1
    while (p.rail.volts[2] - p.drop_v) / count > high and count < 200:
        count += 1
    lowest = (p.rail.volts[0] - p.drop_v) / count
    fits = lowest >= low
    remedies: tuple[Remedy, ...] = ()
    if fits:
        remedies = (Remedy("modules-in-series", f"Put {count} in series", {"in_series": count}),)
    yield Finding(
        "module-over-band",
        "stop",
        f"A module of {low:g} to {high:g} V would see {show(share, VOLT)}.",
        show(share, VOLT),
        show(high, VOLT),
        (
            f"{count} in series would have {show(lowest, VOLT)} to "
            f"{show((p.rail.volts[2] - p.drop_v) / count, VOLT)} each if they shared equally; they need not: "
            "the one that draws less takes the more. Read each one's volts on trial."
            if fits
            else "Nor do several in series fit its band from lowest to highest rail: use a regulator."
        ),
        remedies,
    )


@rule
def uneven_share(c: Context) -> Iterable[Finding]:
    """Modules in series share by their own currents."""
    p = c.position
    if p.band_v is None or p.in_series < 2:
        return
    equal = _most_volts(c)
    high = p.band_v[1]
    if equal > high:
        return
    room = high / equal - 1
    yield Finding(
        "modules-share-unevenly",
        "mind" if room < 0.15 else "note",
        f"{p.in_series} modules in series share {show(equal, VOLT)} each only if they are equal; there is "
        f"{room * 100:.0f} % of room to {show(high, VOLT)}.",
        f"{room * 100:.0f} %",
        "15 %",
        "The one that draws less takes the more volts. Read each on trial; pair modules of one batch.",
    )
