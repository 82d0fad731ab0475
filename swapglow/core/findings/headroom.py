"""What is left for the resistor to work with."""

from collections.abc import Iterable

from swapglow.core.analysis.sizing import rectifier_drop
from swapglow.core.findings.finding import Finding
from swapglow.core.findings.registry import Context, of_each_string
from swapglow.core.findings.remedies import fewer_in_series
from swapglow.core.photometry.intensity import amps_for
from swapglow.core.photometry.light_law import light_ratio
from swapglow.core.photometry.visibility import LIT_ROOM_CD
from swapglow.core.quantities import AMPERE, VOLT, percent, show
from swapglow.core.supplies.waveform import Waveform

# Below a fifth of the rail the current follows the LED's luck (common practice).
LEAST_SHARE = 0.2
# Under a tenth of its usual light it is no longer the same indicator (ours).
DIM_SHARE_LOW = 0.1


def _limit(c: Context) -> float:
    """The string current at which an eye notices nothing of this LED in a lit room, A."""
    return amps_for(c.position, LIT_ROOM_CD)


def _dark(c: Context) -> bool:
    return c.string_current_min < _limit(c)


@of_each_string
def will_not_light(c: Context) -> Iterable[Finding]:
    """Too little at the lowest rail for the LED of highest forward voltage."""
    if not _dark(c):
        return
    p = c.position
    if p.module is not None:
        yield from _module_dark(c)
        return
    need = p.drop_v + rectifier_drop(p) + p.in_series * p.led.vf_high
    what = "a crest of " if p.rail.supply.waveform is Waveform.SINE else ""
    yield Finding(
        "will-not-light",
        "stop",
        f"It will not light at the lowest rail: {what}{show(p.rail.peaks[0], VOLT)} where up to "
        f"{show(need, VOLT)} is needed.",
        show(c.string_current_min, AMPERE),
        show(_limit(c), AMPERE),
        f"{p.in_series} × {show(p.led.vf_high, VOLT)} for the LED of highest forward voltage"
        + (f", and the driver keeps {show(p.drop_v, VOLT)}" if p.drop_v else "")
        + "; what is left is no drive.",
        fewer_in_series(c, LEAST_SHARE),
    )


def _module_dark(c: Context) -> Iterable[Finding]:
    """A ready-made lamp whose likeliest inside, or one that it may have, is dark at the lowest rail."""
    p, m = c.position, c.position.module
    assert m is not None
    sure = c.current_low < _limit(c) and (c.solution is None or c.solution.most_at_low < _limit(c))
    likely = m.insides[0]
    yield Finding(
        "will-not-light",
        "stop" if sure else "mind",
        f"At the lowest rail it {'will not' if sure else 'may not'} light: {show(p.rail.peaks[0], VOLT)}, and its LEDs "
        f"begin at about {show(likely.volts * p.in_series, VOLT, 2)}.",
        show(c.string_current_min, AMPERE),
        show(_limit(c), AMPERE),
        f"Its inside is estimated: {likely.dice or 'some'} LEDs in series is the likeliest, by its volts and amps. "
        "A reading of its current at two voltages tells.",
    )


@of_each_string
def dim_at_lowest(c: Context) -> Iterable[Finding]:
    """It lights at the lowest rail, but hardly."""
    if _dark(c) or c.current_usual <= 0:
        return
    share = float(light_ratio(c.position.led, c.current_low, c.current_usual))
    if share >= DIM_SHARE_LOW:
        return
    p = c.position
    names = p.rail.supply.kind.levels
    yield Finding(
        "dim-at-lowest",
        "mind",
        f"At the {names[0]} level it falls to {percent(share)} of its usual light: {show(c.current_low, AMPERE)} of "
        f"{show(c.current_usual, AMPERE)}.",
        percent(share),
        percent(DIM_SHARE_LOW),
        "A tenth is three halvings and more: from memory it is another lamp. Fewer LEDs in series hold it better.",
        fewer_in_series(c, LEAST_SHARE),
    )


@of_each_string
def thin_headroom(c: Context) -> Iterable[Finding]:
    """Headroom below a fifth of the rail."""
    p = c.position
    # Behind a regulator the LEDs hang on the volts that it holds.
    share = c.sizing.headroom_v / (p.held_v[1] or p.rail.peaks[1])
    if share >= LEAST_SHARE or _dark(c) or p.module is not None or p.set_by_ohms:
        return
    if share <= 0:
        yield Finding(
            "headroom-small",
            "mind",
            f"There is no headroom: {show(p.target.value, AMPERE)} do not flow here, whatever the resistor.",
            "none",
            percent(LEAST_SHARE),
            "Less current, fewer LEDs in series, or more volts.",
            fewer_in_series(c, LEAST_SHARE),
        )
        return
    swing = f"{show(c.string_current_min, AMPERE)} to {show(c.string_current_max, AMPERE)}"
    yield Finding(
        "headroom-small",
        "mind",
        f"Headroom is {show(c.sizing.headroom_v, VOLT)}, {percent(share)} of the rail: the "
        f"current follows the LED's luck, {swing}.",
        f"{percent(share)}",
        f"{percent(LEAST_SHARE)}",
        "With little left across the resistor, a tenth of a volt in the LED or the rail moves the "
        "current a lot. Fewer LEDs in series, or a current source, hold it steady.",
        fewer_in_series(c, LEAST_SHARE),
    )
