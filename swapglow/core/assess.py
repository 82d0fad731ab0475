"""One function at the top: a position in, a report out."""

from dataclasses import dataclass, field
from threading import Condition

from cachetools import LRUCache, cached

from swapglow.core.analysis.draws import Lit, Member
from swapglow.core.analysis.fitted import fitted_in, since_changed
from swapglow.core.analysis.inrush import fuse_of
from swapglow.core.analysis.solution import Solution, solve
from swapglow.core.analysis.states import StateSolution, state_solutions, states_of
from swapglow.core.analysis.trials import Tried
from swapglow.core.build_steps.before_after import Check, differences, summed_up
from swapglow.core.build_steps.steps import Site, build_steps
from swapglow.core.build_steps.warmth import Warmth, chase_heat, feel, warmth
from swapglow.core.design.position import Position
from swapglow.core.design.trial import Trial
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.evidence import sister
from swapglow.core.evidence.account import account, chase
from swapglow.core.evidence.alike import Neighbour, taught
from swapglow.core.evidence.as_read import as_read, typed
from swapglow.core.evidence.expected import diagnose, outlived
from swapglow.core.findings import context_of, judge, solvable
from swapglow.core.findings.finding import Finding, gravity
from swapglow.core.intake.autopsy import died_of
from swapglow.core.intake.second_job import duty_report
from swapglow.core.kinds.step import NextStep
from swapglow.core.measurement import plan as plans
from swapglow.core.measurement.cautions import with_cautions
from swapglow.core.measurement.clip_first import clip_first
from swapglow.core.measurement.fast_flash import fast_flash
from swapglow.core.measurement.next_step import Standing, next_step
from swapglow.core.measurement.reading_after import WARM, ReadingAfter
from swapglow.core.measurement.reading_before import ReadingBefore
from swapglow.core.measurement.survey import survey
from swapglow.core.presentation.battery_life import Runtime, battery_life_section
from swapglow.core.presentation.budget import budget_findings
from swapglow.core.presentation.current import current_section
from swapglow.core.presentation.cycle import cycle_section
from swapglow.core.presentation.flicker import flicker_of
from swapglow.core.presentation.glow_box import Glow, glow
from swapglow.core.presentation.lamp_heat import lamp_heat_section
from swapglow.core.presentation.power import power_section
from swapglow.core.presentation.report import Report
from swapglow.core.presentation.sizing import sizing_section
from swapglow.core.presentation.slide_rule import judged, slide_rule
from swapglow.core.presentation.snapshots import Snapshot, in_states, snapshots
from swapglow.core.presentation.supply import supply_section
from swapglow.core.presentation.trials import trials_section
from swapglow.core.quantities import Source
from swapglow.core.stock.need import needs, on_clips
from swapglow.core.uncertainty import uncertainty as uncertain


@dataclass(frozen=True)
class Bench:
    """What lies around the position.

    Attributes:
        readings_after: taken after the swap, the newest last.
        drawer_ohm: resistors in the drawer, Ω.
        closed: whether the job is done.
        readings_before: taken before the swap, oldest first.
        on_rail: the other lamps on its rail.
        lit: when this one is lit among them.
        trials: looks at it with a part in it, in the order they were made.
        others_tried: the item's other lamps that were looked at, with their looks.
        others_read: the item's other lamps that may teach this one something.
        site: what the take-in sheet says of working in the item, and the shop's habits.
        checks: what is done and looked at before and after.
        dead: what is seen on the old lamp, where it is dead.
    """

    readings_after: tuple[ReadingAfter, ...] = ()
    drawer_ohm: frozenset[float] = frozenset()
    closed: bool = False
    readings_before: tuple[ReadingBefore, ...] = ()
    on_rail: tuple[Member, ...] = ()
    lit: Lit = "always"
    trials: tuple[Trial, ...] = ()
    others_tried: tuple[Tried, ...] = ()
    others_read: tuple[Neighbour, ...] = ()
    site: Site = field(default_factory=Site)
    checks: tuple[Check, ...] = ()
    dead: tuple[str, ...] = ()


@dataclass(frozen=True)
class _Known:
    """What follows from the position alone, whatever is read, looked at or done around it.

    Attributes:
        solution, states: it solved, and in its driver's states.
        rests_on: which assumptions move it.
        warm: how warm its parts get.
        judged: its findings, without those of its whole rail.
        asked: what is to be read before the swap.
        snapshots: what stands where, at an instant and in each state.
        glow: what is seen.
    """

    solution: Solution
    states: tuple[StateSolution, ...]
    rests_on: uncertain.Uncertainty
    warm: tuple[Warmth, ...]
    judged: tuple[Finding, ...]
    asked: tuple[NextStep, ...]
    snapshots: tuple[Snapshot, ...]
    glow: Glow


# A view asks for a lamp while what is stored of it is worked out: whoever comes second waits for the first.
@cached(LRUCache(maxsize=128), condition=Condition())
def _known(position: Position) -> _Known:
    figures = uncertain.uncertain_figures(position)
    s = solve(
        position,
        further={uncertain.BLOCK: uncertain.block_of(position, figures), plans.BLOCK: plans.if_alternating(position)},
    )
    states = state_solutions(s)
    rests_on = uncertain.uncertainty(s, figures)
    usual = (float(s.usual[0]), float(s.usual[1]), float(s.usual[2]))
    return _Known(
        s,
        states,
        rests_on,
        warmth(s),
        judge(context_of(s, states)),
        plans.plan(s, rests_on),
        (*snapshots(s), *in_states(s, states)),
        glow(position, usual, flicker=flicker_of(s)),
    )


def assess(position: Position, bench: Bench | None = None) -> Report:
    """Solve a position at its corners, judge it, and say what to do next.

    Args:
        position: the swap.
        bench: what lies around it; nothing where not given.

    Returns:
        The report in its sections.

    Raises:
        NotConverged: the circuit has no answer that Kirchhoff's law confirms.
        CannotBuild: a part of it is not worked out on its supply; it is named.
    """
    bench = bench or Bench()
    as_typed = position
    position = taught(as_read(as_typed, bench.readings_after), bench.others_read)
    known = _known(position)
    s, warm = known.solution, known.warm
    # Readings are held against the lamp as it was typed: what they say is in it already.
    expected = s if position is as_typed else typed(as_typed)
    now = fitted_in(as_typed)
    changed = {r.id: since for r in bench.readings_after if (since := since_changed(r.fitted, now))}
    kept = tuple(r for r in bench.readings_after if r.id not in changed)
    own = tuple(r for r in kept if r.whose == "this")
    felt = feel(warm, own)
    electric = tuple(r for r in own if r.kind not in WARM)
    sisters = tuple(r for r in kept if r.whose == "sister" and r.kind not in WARM)
    pairs = sister.pairs(expected, electric, sisters)
    metered = tuple(sister.by_sister(diagnose(expected, r), r, pairs.get(r.id)) for r in electric)
    wrong = account(expected, electric, metered, pairs)
    order = {r.id: k for k, r in enumerate(bench.readings_after)}
    gone = (outlived(r, changed[r.id]) for r in bench.readings_after if r.id in changed and r.whose == "this")
    diagnoses = tuple(sorted((*metered, *felt, *gone), key=lambda d: order[d.id]))
    asked = (
        *clip_first(position, no_meter=bench.site.habits.no_meter, read=bool(bench.readings_before)),
        *fast_flash(position, known.states[0] if known.states else None),
        *known.asked,
    )
    fuse = fuse_of(s)
    asked = tuple(with_cautions(step, position, bench.site.hazards, fuse) for step in asked)
    before = survey(position, bench.readings_before, asked)
    found = tuple(sorted([*known.judged, *_of_the_rail(position, bench)], key=gravity))
    checked = differences(bench.checks)
    duty = duty_report(
        position.purpose,
        position.cues,
        position.second_job,
        position.job_given_to,
        died_of(bench.dead, _over_rating(position)),
        position.hints,
    )
    named = tuple((t.id, t.label) for t in states_of(position))
    parts = needs(s)
    return Report(
        sizing=sizing_section(s),
        current=current_section(s),
        power=power_section(s),
        heat=lamp_heat_section(s),
        supply=supply_section(s),
        snapshots=known.snapshots,
        cycle=cycle_section(s),
        runtime=_lasts(position, bench),
        rule=judged(slide_rule(s, bench.drawer_ohm), found),
        glow=known.glow,
        findings=found,
        uncertainty=known.rests_on,
        next_step=with_cautions(
            next_step(
                s,
                asked,
                bool(own),
                before.contradictions,
                chase=chase_heat(s, felt) if wrong is None else chase(expected, metered, wrong),
                closed=bench.closed,
                stop=_standing(found),
                duty=duty,
            ),
            position,
            bench.site.hazards,
            fuse,
        ),
        diagnoses=diagnoses,
        sister=(
            *sister.beside_it(electric, sisters, pairs),
            *(sister.outlived(r, changed[r.id]) for r in bench.readings_after if r.id in changed and r.whose != "this"),
        ),
        trouble=None if wrong is None else wrong.trouble,
        survey=before,
        build=build_steps(s, named, warm, found, bench.site, on_clips(parts)),
        warmth=warm,
        needs=parts,
        duty=duty,
        checks=checked,
        checks_line=summed_up(checked),
        trials=trials_section(s, bench.trials, bench.drawer_ohm, _solvable(bench.others_tried)),
    )


def _over_rating(p: Position) -> float | None:
    """The rail as it was read over the old lamp's rated volts; None where not read, or something keeps a part."""
    read = p.rail.usual.source is Source.MEASURED and (p.rail.read_at == "lamp" or p.drop_v == 0)
    return p.rail.usual.value / p.lamp.volts if read and p.lamp is not None else None


def _solvable(others: tuple[Tried, ...]) -> tuple[Tried, ...]:
    """Without those that have no answer: their own view says why."""
    out = []
    for other in others:
        try:
            solvable(other[0])
        except ValueError:
            continue
        out.append(other)
    return tuple(out)


def _this(position: Position, bench: Bench) -> Member:
    return Member("this", "This lamp", position, bench.lit)


def _lasts(position: Position, bench: Bench) -> Runtime | None:
    """How long its battery lasts with all that hangs on it."""
    this = _this(position, bench)
    try:
        return battery_life_section(position.rail, (this, *bench.on_rail), this)
    except CircuitError:
        # Another lamp has no answer: the battery is told of with this one alone, and says so.
        return battery_life_section(position.rail, (this,), this)


def _of_the_rail(position: Position, bench: Bench) -> tuple[Finding, ...]:
    """What the lamp and all others on its rail come to together."""
    if not bench.on_rail and not position.rail.others_a:
        return ()
    try:
        return budget_findings(position.rail, (_this(position, bench), *bench.on_rail))
    except CircuitError:
        # Another lamp has no answer: the budget's own sheet names it.
        return ()


def _standing(found: tuple[Finding, ...]) -> Standing | None:
    """The gravest finding, where it forbids the swap."""
    if not found or found[0].grade != "stop":
        return None
    # What endangers comes before what is graver in figures.
    stops = sorted((f for f in found if f.grade == "stop"), key=lambda f: not f.first)
    return Standing(stops[0].message, stops[0].remedies[0].label if stops[0].remedies else "", stops[0].first)
