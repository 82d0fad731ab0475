"""The LED turned round."""

from collections.abc import Iterable

from swapglow.core.findings.finding import Finding
from swapglow.core.findings.registry import Context, rule
from swapglow.core.quantities import VOLT, show


@rule
def reverse(c: Context) -> Iterable[Finding]:
    """Polarity, and what the LED sees when it is fitted the wrong way."""
    p = c.position
    if p.rail.supply.alternates or p.module is not None:
        return
    worst = p.rail.volts[2] - p.drop_v
    limit = p.led.reverse_v * p.in_series
    beyond = worst > limit
    yield Finding(
        "polarity",
        "note",
        f"If fitted backwards: it stays dark and sees {show(worst, VOLT)} in reverse"
        + (f", over its {show(limit, VOLT)}." if beyond else f"; it may take {show(limit, VOLT)}."),
        show(worst, VOLT),
        show(limit, VOLT),
        "Long leg and round side to positive; short leg and flat to negative. "
        + (
            "Past its reverse rating it may be spoilt even if it lights afterwards."
            if beyond
            else "No harm done; turn it."
        ),
    )
