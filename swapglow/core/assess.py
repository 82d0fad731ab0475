"""One function at the top: a position in, a report out."""

from dataclasses import dataclass

from swapglow.core.analysis.solution import solve
from swapglow.core.analysis.states import state_solutions
from swapglow.core.design.position import Position
from swapglow.core.findings import context_of, judge
from swapglow.core.measurement import plan as plans
from swapglow.core.measurement.diagnosis import diagnose
from swapglow.core.measurement.fast_flash import fast_flash
from swapglow.core.measurement.next_step import next_step
from swapglow.core.measurement.reading_after import ReadingAfter
from swapglow.core.measurement.reading_before import ReadingBefore
from swapglow.core.measurement.survey import survey
from swapglow.core.presentation.battery_life import battery_life_section
from swapglow.core.presentation.current import current_section
from swapglow.core.presentation.cycle import cycle_section
from swapglow.core.presentation.glow_box import glow
from swapglow.core.presentation.power import power_section
from swapglow.core.presentation.report import Report
from swapglow.core.presentation.sizing import sizing_section
from swapglow.core.presentation.slide_rule import slide_rule
from swapglow.core.presentation.snapshots import in_states, snapshots
from swapglow.core.presentation.supply import supply_section
from swapglow.core.uncertainty import uncertainty as uncertain


@dataclass(frozen=True)
class Bench:
    """What lies around the position.

    Attributes:
        readings_after: taken after the swap, the newest last.
        drawer_ohm: resistors in the drawer, Ω.
        closed: whether the job is done.
        readings_before: taken before the swap, oldest first.
    """

    readings_after: tuple[ReadingAfter, ...] = ()
    drawer_ohm: frozenset[float] = frozenset()
    closed: bool = False
    readings_before: tuple[ReadingBefore, ...] = ()


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
    figures = uncertain.uncertain_figures(position)
    s = solve(position, further={
        uncertain.BLOCK: uncertain.block_of(position, figures),
        plans.BLOCK: plans.if_alternating(position),
    })  # fmt: skip
    states = state_solutions(s)
    rests_on = uncertain.uncertainty(s, figures)
    diagnoses = tuple(diagnose(s, r) for r in bench.readings_after)
    asked = (*fast_flash(position, states[0] if states else None), *plans.plan(s, rests_on))
    before = survey(position, bench.readings_before, asked)
    usual = (float(s.usual[0]), float(s.usual[1]), float(s.usual[2]))
    return Report(
        sizing=sizing_section(s),
        current=current_section(s),
        power=power_section(s),
        supply=supply_section(s),
        snapshots=(*snapshots(s), *in_states(s, states)),
        cycle=cycle_section(s),
        runtime=battery_life_section(s),
        rule=slide_rule(s, bench.drawer_ohm),
        glow=glow(position, usual),
        findings=judge(context_of(s, states)),
        uncertainty=rests_on,
        next_step=next_step(s, asked, diagnoses, before.contradictions, closed=bench.closed),
        diagnoses=diagnoses,
        survey=before,
    )
