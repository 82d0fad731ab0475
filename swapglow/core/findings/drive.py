"""Current against what the LED may take."""

from collections.abc import Iterable

from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, of_each_string
from swapglow.core.findings.remedies import larger_resistor
from swapglow.core.parts.led import BURNS
from swapglow.core.quantities import AMPERE, show

_SLACK = 1 + 1e-9


def _warm(c: Context) -> str:
    """What the air around it takes off the rating."""
    p = c.position
    if p.rated_a >= p.led.rated_a:
        return ""
    return f" In air of {p.celsius:g} °C its {show(p.led.rated_a, AMPERE)} fall to this: from 50 °C on, none at 100 °C."


@of_each_string
def over_rated(c: Context) -> Iterable[Finding]:
    """More than the rated current at the worst corner."""
    rated = c.position.rated_a
    if c.position.module is not None:
        return  # A ready-made lamp is bound by its volts.
    if c.string_current_max > rated * _SLACK:
        yield Finding(
            "over-rated-current",
            "stop",
            f"The LED burns out: past {BURNS:g} times its rated {show(rated, AMPERE)}."
            if c.string_current_max > BURNS * rated
            else f"The LED can carry {show(c.string_current_max, AMPERE)}, over its rated {show(rated, AMPERE)}.",
            show(c.string_current_max, AMPERE),
            show(rated, AMPERE),
            "At the highest rail, with the lowest forward voltage and the resistor at the low end "
            "of its tolerance. Past its rating an LED runs hot, fades and fails early." + _warm(c),
            larger_resistor(c, min(c.position.ceiling_a, rated)),
        )


@of_each_string
def over_ceiling(c: Context) -> Iterable[Finding]:
    """More than the drive ceiling, though under the rating."""
    p = c.position
    if p.module is None and p.ceiling_a * _SLACK < c.string_current_max <= p.rated_a * _SLACK:
        share = p.ceiling * 100
        raised = Remedy("raise-ceiling", "Raise the limit to rated current", {"ceiling": 1.0})
        yield Finding(
            "over-drive-ceiling",
            "mind",
            f"The drive reaches {show(c.string_current_max, AMPERE)}; "
            f"the limit set here is {show(p.ceiling_a, AMPERE)}.",
            show(c.string_current_max, AMPERE),
            show(p.ceiling_a, AMPERE),
            f"Ours is {share:.0f} % of rated at the highest rail: cooler, longer-lived, and most "
            "complaints are of too much light. Others drive to the rated current; raise the limit "
            "where you mean to.",
            (*larger_resistor(c, p.ceiling_a), raised),
        )
