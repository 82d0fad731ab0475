"""Light beside the old lamp."""

from collections.abc import Iterable

import numpy as np

from swapglow.core.analysis.limits import DIM_SHARE
from swapglow.core.analysis.terminals import ohms_for
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, rule
from swapglow.core.parts import led as leds
from swapglow.core.parts.lamp import USUAL_K
from swapglow.core.photometry.intensity import amps_for, led_candela, sight_of, times_the_light
from swapglow.core.photometry.suits import suits
from swapglow.core.photometry.words import times
from swapglow.core.quantities import OHM, number_text, percent, show
from swapglow.core.values import preferred

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
    times_of = {k.id: times_the_light(p, k) for k in leds.catalogue().values() if k.colour == p.led.colour}
    brighter = sorted((i for i, more in times_of.items() if more > 1.5), key=lambda i: times_of[i])
    enough = [leds.catalogue()[i] for i in brighter if times_of[i] * ratio >= DIM_SHARE]
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
        "By data-sheet light, as it is looked at. Most complaints are of too much light; "
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


# Of what the glass lets through of its best colour, less than this is a light thrown away; and a window whose
# dimmest place has less of the mean looks patchy (ours, from memory of what is accepted).
GLASS_SHARE = 0.5
EVEN_ENOUGH = 0.3


@rule
def lost_in_glass(c: Context) -> Iterable[Finding]:
    """Another colour than the lens's own behind it."""
    p = c.position
    ranked = suits(p, p.lamp.colour_k if p.lamp is not None else USUAL_K)
    if not ranked or p.module is not None:
        return
    best, own = ranked[0], sight_of(p).share
    if own >= GLASS_SHARE * best.share or best.part.colour == p.led.colour:
        return
    glass = p.looks.glass
    name = glass.label if glass is not None else ""
    yield Finding(
        "lost-in-glass",
        "mind",
        f"{name} lets {percent(own)} of this LED's light through; of a {best.part.colour} one's {percent(best.share)}.",
        percent(own),
        percent(GLASS_SHARE * best.share),
        "Behind a coloured lens use the lens's own colour: what a white LED makes of other colours stays in it.",
        (
            Remedy("lens-colour", f"Use {best.part.label.lower()}", {"led_id": best.part.id}),
            Remedy(
                "lens-colour-afresh",
                f"Use {best.part.label.lower()}, resistor by the sum",
                {"led_id": best.part.id, "resistor_ohm": None},
            ),
        ),
    )


@rule
def patchy(c: Context) -> Iterable[Finding]:
    """A window or dial that is bright in places."""
    face = sight_of(c.position).face
    if face is None or face.evenness >= EVEN_ENOUGH:
        return
    yield Finding(
        "patchy",
        "note",
        f"What it lights is uneven: {percent(face.evenness)} of the mean at the dimmest place, {number_text(face.hot)} "
        "times at the brightest.",
        percent(face.evenness),
        percent(EVEN_ENOUGH),
        "More LEDs side by side, a dome sanded flat or frosted, a diffuser cap, a frosted window or a white-painted "
        "box spread it; further off is more even too."
        + (" The lengths are usual ones: measure them under Old lamp and looks." if c.position.looks.assumed else ""),
    )
