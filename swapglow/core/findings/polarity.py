"""The LED turned round."""

from collections.abc import Iterable

from swapglow.core.design.position import Position
from swapglow.core.findings.finding import Finding
from swapglow.core.findings.registry import Context, rule
from swapglow.core.quantities import VOLT, show


def one_of(position: Position) -> str:
    """Who stands reverse volts: the LED, or any one of a string."""
    return "the LED" if position.in_series == 1 else f"any one of the {position.in_series} LEDs"


def unshared(position: Position) -> str:
    """Why a string stands no more than one LED; nothing for a single one."""
    if position.in_series == 1:
        return ""
    return " In reverse LEDs in series do not share: the one that leaks least takes nearly all of it (common practice)."


@rule
def reverse(c: Context) -> Iterable[Finding]:
    """Polarity, and what the LED sees when it is fitted the wrong way."""
    p = c.position
    if p.rail.supply.alternates or p.module is not None:
        return
    worst = p.rail.volts[2] - p.drop_v
    limit = p.led.reverse_v
    beyond = worst > limit
    seer = "sees" if p.in_series == 1 else f"{one_of(p)} can see"
    yield Finding(
        "polarity",
        "note",
        f"If fitted backwards: it stays dark and {seer} {show(worst, VOLT)} in reverse"
        + (f", over its {show(limit, VOLT)}." if beyond else f"; it may take {show(limit, VOLT)}."),
        show(worst, VOLT),
        show(limit, VOLT),
        "Long leg and round side to positive; short leg and flat to negative. "
        + (
            "Past its reverse rating it may be spoilt even if it lights afterwards."
            if beyond
            else "No harm done; turn it."
        )
        + unshared(p),
    )
