"""What the sum rests on."""

from collections.abc import Iterable

from swapglow.core.findings.finding import Finding
from swapglow.core.findings.registry import Context, rule
from swapglow.core.quantities import AMPERE, VOLT, Source, percent, show


@rule
def nothing_measured(c: Context) -> Iterable[Finding]:
    """No reading behind the rail."""
    rail = c.position.rail
    if any(f.source is Source.MEASURED for f in (rail.low, rail.usual, rail.high)):
        return
    yield Finding(
        "nothing-measured",
        "mind",
        f"Nothing is measured yet: the {show(rail.usual.value, VOLT)} rail is "
        f"{'as marked' if rail.usual.source is Source.MARKED else 'assumed'}.",
        "0 readings",
        "1 reading",
        "A nominal rail is a name, not a voltage. Read it before solder.",
    )


@rule
def one_value(c: Context) -> Iterable[Finding]:
    """One value stands for the lowest and the highest."""
    rail = c.position.rail
    if rail.spread_known:
        return
    yield Finding(
        "rail-swing-unknown",
        "note",
        f"The rail's swing is not known: {show(rail.usual.value, VOLT)} stands for lowest and highest.",
        "±0 %",
        "a lowest and a highest reading",
        "The sum is only as good as the highest the rail will do. Type a range, such as "
        f"{rail.usual.value * 0.95:.3g}-{rail.usual.value * 1.05:.3g}V.",
    )


@rule
def read_at_lamp(c: Context) -> Iterable[Finding]:
    """Lamp volts were read under the lamp's load."""
    p = c.position
    if p.rail.read_at != "lamp" or p.lamp is None:
        return
    ratio = c.current_usual / p.lamp.amps
    if ratio >= 0.5:
        return
    yield Finding(
        "lamp-volts-will-rise",
        "note",
        f"{show(p.rail.usual.value, VOLT)} was read with the old lamp drawing "
        f"{show(p.lamp.amps, AMPERE)}; the LED draws {percent(ratio)} of that.",
        f"{percent(ratio)}",
        "50 %",
        "Under a lighter load these volts rise towards the feed, by what switch, driver and "
        "wiring dropped. Read the feed as well, or the contacts with the lamp out.",
    )
