"""A rail's budget as it is shown: what each lamp takes of it, before and after, against what it may give."""

from dataclasses import dataclass
from typing import Literal

from swapglow.core.analysis.budget import Budget, Draw, budget
from swapglow.core.analysis.draws import Lit, Member
from swapglow.core.findings.finding import Finding, gravity
from swapglow.core.parts import fuse as fuses
from swapglow.core.presentation.battery_life import battery_hours
from swapglow.core.quantities import AMPERE, OHM, VOLT, Shown, Source, percent, show, shown
from swapglow.core.supplies.rail import Rail


@dataclass(frozen=True)
class Taken:
    """What one lamp takes of the rail at the usual level with all others lit, before and after its swap."""

    id: str
    name: str
    lit: Lit
    before: Shown | None
    after: Shown
    line: str


@dataclass(frozen=True)
class Limit:
    """What the rail may give, by its fuse or by the supply itself."""

    id: Literal["fuse", "rated", "pin"]
    label: str
    amps: Shown


@dataclass(frozen=True)
class RailBudget:
    """A rail's budget.

    Attributes:
        taken: what each lamp takes.
        others: what else hangs on it.
        before, after: all together at the highest level, at the most; None before where an old lamp is not
            known.
        usual_before, usual_after: the same at the usual level.
        limits: what it may give.
        hours_before, hours_after: a battery's one life.
        hours_line: what it counts; "" without a battery.
        findings: the gravest first.
        line: what it comes to, in a sentence.
        origin: how the sum was made.
        scale_a: the largest current to be drawn, A.
        left_out: lamps that cannot be worked out, each with why.
    """

    taken: tuple[Taken, ...]
    others: Shown | None
    before: Shown | None
    after: Shown
    usual_before: Shown | None
    usual_after: Shown
    limits: tuple[Limit, ...]
    hours_before: Shown | None
    hours_after: Shown | None
    hours_line: str
    findings: tuple[Finding, ...]
    line: str
    origin: str
    scale_a: float
    left_out: tuple[str, ...] = ()


def rail_budget(rail: Rail, members: tuple[Member, ...], left_out: tuple[str, ...] = ()) -> RailBudget:
    """A rail's budget with the judgement on it.

    Args:
        rail: the rail.
        members: its lamps, in their order.
        left_out: lamps that cannot be worked out, each with why.

    Returns:
        The budget.

    Raises:
        NotConverged: a lamp has no answer.
        CannotBuild: a part of one is not worked out on this supply.
    """
    b, lasts = budget(rail, members), battery_hours(rail, members)
    limits = _limits(rail)
    origin = (
        "RMS currents of each lamp alone, added: the most they come to together"
        if b.unjoined
        else "every lamp's circuit solved behind the rail's source resistance, all that may be lit together"
    )
    most = "at the highest level, at the most"
    top = max(
        [
            b.after[2],
            b.before[2] if b.before else 0.0,
            *(x.amps.value for x in limits if x.amps.value < 20 * b.after[2]),
        ]
    )
    return RailBudget(
        tuple(_taken(d) for d in b.draws),
        None if not b.others_a else shown(b.others_a, AMPERE, "typed: what else hangs on the rail", Source.MARKED),
        None if b.before is None else shown(b.before[2], AMPERE, f"with the old lamps, {most}"),
        shown(b.after[2], AMPERE, f"after the swaps, {most}"),
        None if b.before is None else shown(b.before[1], AMPERE, "with the old lamps, usual level"),
        shown(b.after[1], AMPERE, "after the swaps, usual level"),
        limits,
        None if lasts is None else lasts.before,
        None if lasts is None else lasts.after,
        "" if lasts is None else lasts.line,
        tuple(sorted(_findings(rail, b), key=gravity)),
        _line(b),
        origin,
        top,
        left_out,
    )


def _taken(d: Draw) -> Taken:
    line = f"{show(d.after[0], AMPERE)} to {show(d.after[2], AMPERE)} from the lowest level to the highest"
    if d.light is not None and d.light < 0.995:
        line += (
            f"; the others pull the rail from {show(d.alone_v, VOLT)} to {show(d.together_v, VOLT)}, and its light to "
            f"{percent(d.light)}"
        )
    return Taken(
        d.id,
        d.name,
        d.lit,
        None if d.before is None else shown(d.before[1], AMPERE, "the old lamp, usual level"),
        shown(d.after[1], AMPERE, "after the swap, usual level, with all others lit"),
        line,
    )


def _limits(rail: Rail) -> tuple[Limit, ...]:
    out = []
    if rail.fuse_a is not None:
        out.append(Limit("fuse", "Fuse", shown(rail.fuse_a, AMPERE, "as marked", Source.MARKED)))
    if rail.rated_a is not None:
        out.append(Limit("rated", "Supply", shown(rail.rated_a, AMPERE, "as marked", Source.MARKED)))
    pin = rail.supply.output_limit
    if pin is not None:
        out.append(Limit("pin", "Pin", shown(pin.value, AMPERE, pin.note, pin.source)))
    return tuple(out)


def budget_findings(rail: Rail, members: tuple[Member, ...]) -> tuple[Finding, ...]:
    """What is to be said of a rail as a whole, as findings on each of its lamps.

    Args:
        rail: the rail.
        members: its lamps.

    Returns:
        The findings.

    Raises:
        NotConverged: a lamp has no answer.
        CannotBuild: a part of one is not worked out on this supply.
    """
    return tuple(_findings(rail, budget(rail, members)))


def _findings(rail: Rail, b: Budget) -> list[Finding]:
    out = []
    for limit in _limits(rail):
        amps, most = b.after[2], limit.amps.value
        share = fuses.LOADED if limit.id == "fuse" else 1.0
        if amps <= most * share:
            continue
        over = amps > most
        was = "" if b.before is None else f" Before the swaps it was {show(b.before[2], AMPERE)}."
        out.append(
            Finding(
                f"rail-over-{limit.id}",
                "stop" if over else "mind",
                f"All that may be lit on this rail takes {show(amps, AMPERE)}: "
                + (
                    f"over the {limit.amps.text} of its {limit.label.lower()}."
                    if over
                    else f"{percent(amps / most)} of its {limit.label.lower()}."
                ),
                show(amps, AMPERE),
                show(most * share, AMPERE),
                (
                    "A fuse is loaded to three quarters of its rating at most, and never made larger than the "
                    "wiring was "
                    "given."
                    if limit.id == "fuse"
                    else "What it gives is shared by all that hangs on it."
                )
                + was,
            )
        )
    source = rail.supply.source_ohm.value
    if b.unjoined and source > 0 and len(b.draws) > 1:
        out.append(
            Finding(
                "rail-sag-unknown",
                "note",
                f"How far its lamps pull each other down is not worked out: {b.unjoined}.",
                "not worked out",
                "all lit beside one alone",
                f"{show(source, OHM)} stand behind it. Light all of them and look at one, or read its volts, alone and "
                "with all lit. The currents here are each lamp's alone, added: together they take no more.",
            )
        )
    worst = min((d for d in b.draws if d.light is not None), key=lambda d: d.light or 1.0, default=None)
    if worst is not None and worst.light is not None and worst.light < SAGGED:
        out.append(
            Finding(
                "rail-sags",
                "mind" if worst.light < SAGGED_MUCH else "note",
                f"With all lit {worst.name} falls to {percent(worst.light)} of the light it has alone.",
                percent(worst.light),
                percent(SAGGED),
                f"The others pull the rail from {show(worst.alone_v, VOLT)} to {show(worst.together_v, VOLT)} behind "
                "its "
                "source resistance. Side by side a fifth is seen (common practice).",
            )
        )
    return out


# Side by side a fifth less is seen, and half of it is plain (common practice).
SAGGED, SAGGED_MUCH = 0.8, 0.5


def _line(b: Budget) -> str:
    after = show(b.after[1], AMPERE)
    lamps = f"{len(b.draws)} lamps" if len(b.draws) != 1 else "1 lamp"
    if b.before is None:
        return f"{lamps}: {after} together at the usual level."
    return f"{lamps}: {after} together at the usual level, {show(b.before[1], AMPERE)} before."
