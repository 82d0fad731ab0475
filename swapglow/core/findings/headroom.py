"""What is left for the resistor to work with."""

from collections.abc import Iterable

from swapglow.core.analysis.sizing import rectifier_drop
from swapglow.core.findings.finding import Finding
from swapglow.core.findings.registry import Context, rule
from swapglow.core.findings.remedies import fewer_in_series
from swapglow.core.quantities import AMPERE, VOLT, show
from swapglow.core.supplies.waveform import Waveform

# Below a fifth of the rail the current follows the LED's luck (common practice).
LEAST_SHARE = 0.2
# An LED below 10 µA is dark in a lit room; a modern one is seen from about 50 µA
# (common practice: indicators end up at 0.05 to 5 mA).
DARK_A = 50e-6


def _dark(c: Context) -> bool:
    return c.string_current_min < min(DARK_A, c.position.target.value / 10)


@rule
def will_not_light(c: Context) -> Iterable[Finding]:
    """Too little at the lowest rail for the LED of highest forward voltage."""
    if not _dark(c):
        return
    p = c.position
    need = p.drop_v + rectifier_drop(p) + p.in_series * p.led.vf_high
    what = "a crest of " if p.rail.supply.waveform is Waveform.SINE else ""
    yield Finding(
        "will-not-light",
        "stop",
        f"It will not light at the lowest rail: {what}{show(p.rail.peaks[0], VOLT)} where up to "
        f"{show(need, VOLT)} is needed.",
        show(c.string_current_min, AMPERE),
        show(min(DARK_A, p.target.value / 10), AMPERE),
        f"{p.in_series} × {show(p.led.vf_high, VOLT)} for the LED of highest forward voltage"
        + (f", and the driver keeps {show(p.drop_v, VOLT)}" if p.drop_v else "")
        + "; what is left is no drive.",
        fewer_in_series(c, LEAST_SHARE),
    )


@rule
def thin_headroom(c: Context) -> Iterable[Finding]:
    """Headroom below a fifth of the rail."""
    p = c.position
    share = c.sizing.headroom_v / p.rail.peaks[1]
    if share >= LEAST_SHARE or _dark(c) or p.module is not None or p.set_by_ohms:
        return
    swing = f"{show(c.string_current_min, AMPERE)} to {show(c.string_current_max, AMPERE)}"
    yield Finding(
        "headroom-small",
        "mind",
        f"Headroom is {show(c.sizing.headroom_v, VOLT)}, {share * 100:.0f} % of the rail: the "
        f"current follows the LED's luck, {swing}.",
        f"{share * 100:.0f} %",
        f"{LEAST_SHARE * 100:.0f} %",
        "With little left across the resistor, a tenth of a volt in the LED or the rail moves the "
        "current a lot. Fewer LEDs in series, or a current source, hold it steady.",
        fewer_in_series(c, LEAST_SHARE),
    )
