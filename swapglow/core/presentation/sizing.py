"""Section: exact and preferred resistance, and what is fitted."""

from dataclasses import dataclass

from swapglow.core.analysis.sizing import Sizing
from swapglow.core.analysis.solution import Solution
from swapglow.core.design.position import Position
from swapglow.core.quantities import AMPERE, OHM, VOLT, Shown, Source, show, shown
from swapglow.core.values.nothing import LINK_OHM
from swapglow.core.values.preferred import ROUNDING_WORDS
from swapglow.core.values.resistor_marks import Marks, marks_of


@dataclass(frozen=True)
class SizingReport:
    """From the drive wanted to the resistor.

    Attributes:
        headroom: what is left for the resistor at the usual rail.
        exact: resistance for the drive wanted; None where the rail does not reach.
        preferred: its preferred value, one part.
        each, total: what is fitted, one part and all.
        rounding: the rule that made it, in words.
        marks: how each part is marked; None where there is no resistor to look at.
    """

    headroom: Shown
    exact: Shown | None
    preferred: Shown | None
    each: Shown
    total: Shown
    rounding: str
    marks: Marks | None


_NONE = Shown(0.0, "0", "Ω", Source.MARKED, f"no resistor; its leads count as {show(LINK_OHM, OHM)}")


def _each(p: Position, z: Sizing) -> Shown:
    origin = f"{ROUNDING_WORDS[p.rounding]} in {p.series}"
    if z.is_own:
        return shown(z.each_ohm, OHM, "your own value", p.resistor_source)
    if p.follows and not p.led_read_on:
        return shown(z.each_ohm, OHM, "fitted when the lamp was read")
    return shown(z.each_ohm, OHM, "the next up that lies in the drawer" if z.each_ohm in p.at_hand else origin)


def sizing_section(s: Solution) -> SizingReport:
    """Every figure with the sum behind it."""
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
        by = f"{wanted} average over the cycle, {p.rectification.label.lower()}, crest {crest}"
    words = ROUNDING_WORDS[p.rounding]
    return SizingReport(
        # Short by more than the rail itself it says no more than that it never flows.
        headroom=shown(max(z.headroom_v, -p.rail.peaks[1]), VOLT, origin),
        exact=None if z.exact_ohm is None else shown(z.exact_ohm, OHM, by, digits=4),
        preferred=None
        if z.preferred_ohm is None
        else shown(z.preferred_ohm, OHM, f"{words} in {p.series} (IEC 60063)"),
        each=_NONE if p.resistor_ohm == 0 else _each(p, z),
        total=_NONE if p.resistor_ohm == 0 else shown(z.total_ohm, OHM, f"{z.parts} × {show(z.each_ohm, OHM)}"),
        rounding=f"{words}, {p.series}",
        marks=None if p.bare else marks_of(z.each_ohm, p.resistor_tolerance),
    )
