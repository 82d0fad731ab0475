"""One function at the top: a position in, a report out."""

from dataclasses import dataclass

from swapglow.core.bench.fast_flash import fast_flash
from swapglow.core.bench.meter import Reading
from swapglow.core.bench.next_step import next_step
from swapglow.core.bench.pencil import cases_of, doubts_of, pencil
from swapglow.core.bench.plan import if_alternating, plan
from swapglow.core.bench.survey import survey
from swapglow.core.bench.taken import Taken
from swapglow.core.bench.verdict import verdict
from swapglow.core.findings import Context, judge
from swapglow.core.parts.resistor import rating_to_fit
from swapglow.core.position.cycle import cycle
from swapglow.core.position.model import Position
from swapglow.core.position.moments import in_states, moments
from swapglow.core.position.runtime import runtime
from swapglow.core.position.slide_rule import slide_rule
from swapglow.core.position.solution import Solution, solve
from swapglow.core.position.states import Standing, standings
from swapglow.core.quantities import AMPERE, OHM, VOLT, WATT, Source, show
from swapglow.core.report import (
    Corner,
    CurrentReport,
    PowerReport,
    Report,
    Shown,
    SizingReport,
    SupplyReport,
    shown,
)
from swapglow.core.sight.glow import glow, lamp_candela

_RAILS = ("low", "usual", "high")
_LEDS = ("highest", "typical", "lowest")


@dataclass(frozen=True)
class Bench:
    """What lies around the position: readings taken after the swap and before it, resistors in the
    drawer (Ω), and whether the job is closed."""

    readings: tuple[Reading, ...] = ()
    drawer_ohm: frozenset[float] = frozenset()
    closed: bool = False
    taken: tuple[Taken, ...] = ()


def assess(position: Position, bench: Bench | None = None) -> Report:
    """Solve a position at its corners, judge it, and say what to do next.

    Raises:
        NotConverged: the circuit has no answer that Kirchhoff's law confirms.
    """
    bench = bench or Bench()
    doubts = doubts_of(position)
    s = solve(position, further=cases_of(position, doubts).then(if_alternating(position)))
    verdicts = tuple(verdict(s, r) for r in bench.readings)
    pencilled = pencil(s, doubts)
    stands = standings(s)
    when = (*moments(s), *in_states(s, stands))
    asked = (*fast_flash(position, stands[0] if stands else None), *plan(s, pencilled))
    before = survey(position, bench.taken, asked)
    usual = (float(s.usual[0]), float(s.usual[1]), float(s.usual[2]))
    return Report(
        sizing=_sizing(s),
        current=_current(s),
        power=_power(s),
        supply=_supply(s),
        staircase=when[0].staircase,
        moments=when,
        cycle=cycle(s),
        runtime=runtime(s),
        rule=slide_rule(s, bench.drawer_ohm),
        glow=glow(position, usual),
        findings=judge(context_of(s, stands)),
        pencil=pencilled,
        next_step=next_step(s, asked, verdicts, before.contradictions, closed=bench.closed),
        verdicts=verdicts,
        survey=before,
    )


def context_of(s: Solution, stands: tuple[Standing, ...] | None = None) -> Context:
    """What the rules look at, from a solution."""
    stands = standings(s) if stands is None else stands
    low, usual, high = (float(a) for a in s.usual)
    return Context(
        s.position, s.sizing, low, usual, high, s.least, s.most, s.power_w,
        lamp_candela(s.position), s, stands,
    )  # fmt: skip


def _supply(s: Solution) -> SupplyReport:
    supply = s.position.rail.supply
    behind = supply.source_ohm
    return SupplyReport(
        supply.kind, supply.about.label, supply.flow, supply.about.expect, supply.about.levels,
        shown(behind.value, OHM, behind.note or "behind the rail", behind.source) if behind.value else None,
    )  # fmt: skip


def _sizing(s: Solution) -> SizingReport:
    p, z = s.position, s.sizing
    wanted = show(p.target.value, AMPERE)
    drop = f" − {show(p.drop_v, VOLT)} driver" if p.drop_v else ""
    what = "lamp volts" if p.rail.read_at == "lamp" else "usual rail"
    origin = f"{what} {show(p.rail.volts[1], VOLT)}{drop} − {p.in_series} × Vf at {wanted}"
    behind = p.rail.supply.source_ohm.value
    by = f"({origin}) ÷ {wanted}" + (f" − {show(behind, OHM)} of source" if behind else "")
    if p.rail.supply.alternates:
        crest = show(p.rail.peaks[1], VOLT)
        origin = f"crest {crest}{drop} − rectifier − {p.in_series} × Vf at {wanted}"
        by = f"{wanted} average over the cycle, {p.treated.label.lower()}, crest {crest}"
    words = {"up": "next up", "nearest": "nearest", "down": "next down"}[p.rounding]
    return SizingReport(
        headroom=shown(z.headroom_v, VOLT, origin),
        headroom_share=z.headroom_v / p.rail.peaks[1],
        exact=None if z.exact_ohm is None else shown(z.exact_ohm, OHM, by, digits=4),
        preferred=None if z.preferred_ohm is None else shown(
            z.preferred_ohm, OHM, f"{words} in {p.series} (IEC 60063)"),
        each=shown(z.each_ohm, OHM, "your own value" if z.is_own else f"{words} in {p.series}",
                   p.resistor_source if z.is_own else Source.COMPUTED),
        parts=z.parts,
        total=shown(z.total_ohm, OHM, f"{z.parts} × {show(z.each_ohm, OHM)}"),
        is_own=z.is_own,
        rule=f"{words}, {p.series}",
    )  # fmt: skip


def _current(s: Solution) -> CurrentReport:
    p = s.position
    fitted = show(s.sizing.total_ohm, OHM)
    rails = p.rail.volts
    vfs = (p.led.vf_high, p.led.vf_typ, p.led.vf_low)

    def origin(rail: float, vf: float) -> str:
        return f"{show(rail, VOLT)} rail, {show(vf, VOLT)} LED, {fitted}"

    corners = tuple(
        Corner(rail, led, shown(float(s.amps[i, j, 1]), AMPERE, origin(rails[i], vfs[j])))  # type: ignore[arg-type]
        for i, rail in enumerate(_RAILS)
        for j, led in enumerate(_LEDS)
    )
    low, usual, high = (shown(float(s.usual[i]), AMPERE, origin(rails[i], vfs[1])) for i in range(3))
    tol = f"resistor {p.resistor_tolerance * 100:g} %"
    return CurrentReport(
        low, usual, high,
        least=shown(s.least, AMPERE, f"{origin(rails[0], vfs[0])} + {tol}"),
        most=shown(s.most, AMPERE, f"{origin(rails[2], vfs[2])} − {tol}"),
        rated=shown(p.led.rated_a, AMPERE, f"{p.led.label}: rated current", p.led_source),
        ceiling=shown(p.ceiling_a, AMPERE, f"{p.ceiling * 100:g} % of rated at the highest rail"),
        corners=corners,
    )  # fmt: skip


def _power(s: Solution) -> PowerReport:
    p = s.position
    fit = rating_to_fit(s.power_w)
    return PowerReport(
        each=shown(s.power_w, WATT, f"({show(s.most, AMPERE)})² × {show(s.sizing.each_ohm, OHM)} "
                   f"− {p.resistor_tolerance * 100:g} %, highest rail and lowest Vf" if s.ac is None
               else "RMS current over the cycle, highest rail and lowest Vf"),
        to_fit=None
        if fit is None
        else _rating(fit, "the smallest body at half load or less", Source.COMPUTED),
        rating=None if p.rating_w is None else _rating(p.rating_w, "the body fitted", Source.MARKED),
        load=None if p.rating_w is None else s.power_w / p.rating_w,
    )  # fmt: skip


def _rating(watts: float, origin: str, source: Source) -> Shown:
    """A rating as the part is called: 0.5 W, not 500 mW."""
    return Shown(watts, f"{watts:g}", "W", source, origin)
