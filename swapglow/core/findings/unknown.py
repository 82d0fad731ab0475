"""What is not yet known of a driver, and what it would decide."""

from collections.abc import Iterable

from swapglow.core.findings.finding import Finding
from swapglow.core.findings.registry import Context, rule


@rule
def driver_unknown(c: Context) -> Iterable[Finding]:
    """A figure without which the driver's own trouble cannot be worked out."""
    p, d = c.position, c.position.driver
    if p.rail.supply.alternates:
        return
    missing = d.kind.unknown(d, p.lamp)
    if missing is not None:
        yield Finding(
            "driver-unknown",
            "mind",
            f"Not known: {missing.what}.",
            "not known",
            "a figure",
            f"It decides {missing.decides}. It is asked for at the driver's step.",
        )


@rule
def not_worked_out_on_ac(c: Context) -> Iterable[Finding]:
    """What a driver does to a lamp on a supply that alternates, where that is not worked out."""
    p, d = c.position, c.position.driver
    if not p.rail.supply.alternates:
        return
    parts = []
    if d.leads_off:
        parts.append("what leads past it when it is off")
    if d.kind.watches and d.monitors_current:
        parts.append("the current it counts")
    if d.kind.pulses:
        parts.append("its check pulses")
    if not d.kind.contact:
        parts.append("its off state")
    if not parts:
        return
    yield Finding(
        "driver-on-ac",
        "mind",
        f"On a supply that alternates not all of the driver is worked out: {_list(parts)}.",
        d.kind.label.lower(),
        "a steady supply",
        "Its drop, and what stands in the lit lamp's circuit, are reckoned with; the rest is worked out on DC "
        "only. Try it on the bench.",
    )


def _list(parts: list[str]) -> str:
    return parts[0] if len(parts) == 1 else f"{', '.join(parts[:-1])} and {parts[-1]}"
