"""Light beside the old lamp."""

from collections.abc import Iterable

import numpy as np

from swapglow.core.analysis.limits import DIM_SHARE
from swapglow.core.analysis.terminals import ohms_for
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, rule
from swapglow.core.parts import led as leds
from swapglow.core.parts import preferred
from swapglow.core.photometry.intensity import amps_for, led_candela
from swapglow.core.photometry.words import times
from swapglow.core.quantities import OHM, show

# Twice the old lamp is plain to see (common practice); four times is glare.
BRIGHT_RATIO = 4.0


@rule
def dimmer(c: Context) -> Iterable[Finding]:
    """Under a quarter of the old lamp at the usual rail."""
    if not c.old_candela or c.current_usual <= 0:
        return
    ratio = led_candela(c.position, c.current_usual) / c.old_candela
    if ratio >= DIM_SHARE:
        return
    p = c.position
    brighter = sorted(
        (k for k in leds.catalogue().values()
         if k.colour == p.led.colour and k.candela_per_a > p.led.candela_per_a * 1.5),
        key=lambda k: k.candela_per_a,
    )  # fmt: skip
    enough = [k for k in brighter if k.candela_per_a / p.led.candela_per_a * ratio >= DIM_SHARE]
    remedies = tuple(Remedy("brighter-led", f"Use {k.label.lower()}", {"led_id": k.id}) for k in enough[:1])
    yield Finding(
        "dimmer-than-old",
        "mind",
        f"At the usual rail it shows {times(ratio)} of the old lamp's light.",
        f"{times(ratio)} ×",
        f"{DIM_SHARE:g} ×",
        "A quarter is two halvings; one is plain on a dial. Milliamps say nothing without "
        "millicandela: a brighter part does more than more current.",
        remedies,
    )


@rule
def brighter(c: Context) -> Iterable[Finding]:
    """Over four times the old lamp at the usual rail."""
    if not c.old_candela:
        return
    ratio = led_candela(c.position, c.current_usual) / c.old_candela
    if ratio <= BRIGHT_RATIO:
        return
    p = c.position
    amps = amps_for(p, c.old_candela)
    yield Finding(
        "brighter-than-old",
        "note",
        f"At the usual rail it shows {times(ratio)} times the old lamp's light.",
        f"{times(ratio)} ×",
        f"{BRIGHT_RATIO:g} ×",
        "Straight on, and by data-sheet intensity. Most complaints are of too much light; "
        "resistance first, then a diffuser.",
        c.offer(lambda: _to_match(c, amps)),
    )


def _to_match(c: Context, amps: float) -> tuple[Remedy, ...]:
    """The resistor at which it shows what the old lamp did."""
    p, each = c.position, 0.0
    if p.module is not None or p.set_by_ohms:
        return ()
    if p.rail.supply.alternates and c.solution is not None:
        usual = c.solution.rule_amps[1]
        if usual[-1] < amps < usual[0]:
            each = float(np.interp(-amps, -usual, c.solution.rule_ohm))
    else:
        total = ohms_for(p, amps, rail_v=p.rail.volts[1], vf=p.led.vf_typ, drop_v=p.drop_v)
        each = (total or 0.0) / p.resistor_parts
    if not 1e-3 <= each <= 1e9:
        return ()
    ohm = preferred.prefer(each, p.series, "nearest")
    return (Remedy("match-old", f"Fit {show(ohm, OHM)} to match the old lamp", {"resistor_ohm": ohm}),)
