"""The sensible swaps for a position, each a set of changes that can be tried and taken.

Where a finding has a remedy for it, the candidate is that remedy, by the same words.
"""

from collections.abc import Iterable
from dataclasses import dataclass, field, replace

from swapglow.core.analysis.limits import trip_amps
from swapglow.core.analysis.load_resistor import watch
from swapglow.core.analysis.original_lamp import lamp_candela
from swapglow.core.analysis.sizing import each_for_most, next_at_hand, size, vf_at_drive
from swapglow.core.analysis.solution import solve
from swapglow.core.analysis.states import state_solutions
from swapglow.core.analysis.terminals import ohms_for
from swapglow.core.design.changes import Changes, exposes_crest, with_changes
from swapglow.core.design.position import Lead, Position
from swapglow.core.design.rectification import RECTIFICATIONS, usual_rectification
from swapglow.core.findings.alternating import rectify
from swapglow.core.findings.finding import Remedy
from swapglow.core.findings.flasher import cool, load_remedy
from swapglow.core.findings.neighbours import change_all, hold_feed
from swapglow.core.findings.off import shunts, take_out
from swapglow.core.findings.wiring import move_to
from swapglow.core.intake.second_job import duty_report
from swapglow.core.parts import led as leds
from swapglow.core.parts.ready_made import ready_made
from swapglow.core.photometry.intensity import amps_for, times_the_light
from swapglow.core.quantities import AMPERE, OHM, show
from swapglow.core.values import preferred

# Ours where practitioners differ (trade's schools): next higher, half of rated at the highest rail,
# the cool way first, an added part before a changed one.
HEADROOM_SHARE = 0.2
# A resistor will do while the rail varies less than this either way (common practice).
SWING = 0.10


@dataclass(frozen=True)
class Candidate:
    """A swap that could be.

    Attributes:
        id, label: what it is called.
        changes: what it changes of the position as it stands.
        school: where practitioners differ, whose way this is, "" else.
        ours: whether it is ours among the schools.
        board: whether it changes the board or the wiring, and cannot be put back by pulling it out.
        leaves: whether the old lamp stays.
    """

    id: str
    label: str
    changes: Changes = field(default_factory=dict)
    school: str = ""
    ours: bool = False
    board: bool = False
    leaves: bool = False


def of_remedy(r: Remedy, school: str = "", ours: bool = False, *, board: bool = False) -> Candidate:
    """A finding's remedy as a candidate.

    Args:
        r: the remedy.
        school, ours, board: as in :class:`Candidate`.

    Returns:
        The candidate, with the remedy's own id, words and changes.
    """
    return Candidate(r.id, r.label, r.changes, school, ours, board)


def candidates(
    position: Position, drawer_ohm: frozenset[float] = frozenset()
) -> tuple[tuple[Candidate, Position], ...]:
    """All sensible swaps with the position each makes; the first is the position as it stands.

    Args:
        position: as it stands.
        drawer_ohm: resistors at hand, Ω.

    Returns:
        Each with its position.
    """
    out: list[tuple[Candidate, Position]] = [(Candidate("as-is", "As it stands"), position)]
    made = {position}
    closed = duty_report(
        position.purpose, position.cues, position.second_job, position.job_given_to, hints=position.hints
    ).closed
    ways = _left(position) if closed else (*_all(position), *_at_hand(position, drawer_ohm))
    for c in ways:
        if exposes_crest(position, c.changes):
            continue
        p = with_changes(position, c.changes)
        if position.ohm_doubt is not None and p.resistor_ohm is None and p.module is None and c.changes:
            # Sized by what was read of the LEDs: the value is named, so that taking it gives just that.
            c = replace(c, changes={**c.changes, "resistor_ohm": size(p).each_ohm})
            p = with_changes(position, c.changes)
        if c.leaves or p not in made:
            made.add(p)
            out.append((c, p))
    return tuple(out)


def _at_hand(p: Position, drawer_ohm: frozenset[float]) -> Iterable[Candidate]:
    """The next resistor up that lies in the drawer, where the one worked out does not."""
    if p.module is not None or not drawer_ohm:
        return
    each = size(p).each_ohm
    near = next_at_hand(each, drawer_ohm)
    if near is not None and not any(f"{ohm:.6g}" == f"{each:.6g}" for ohm in drawer_ohm):
        yield Candidate("at-hand", f"{show(near, OHM)}, out of the drawer", {"resistor_ohm": near})


def _left(p: Position) -> Iterable[Candidate]:
    """Of a lamp that is part of the circuit nothing is offered but to leave it."""
    if p.lamp is not None:
        yield Candidate("leave", "Leave the old lamp", leaves=True)


def _all(p: Position) -> Iterable[Candidate]:
    if p.lamp is not None:
        yield Candidate("leave", "Leave the old lamp", leaves=True)
    yield from _ready(p)
    if p.rail.supply.alternates:
        yield from _rectifications(p)
        return
    yield from _drivers(p)
    if p.module is not None:
        return
    yield from _drives(p)
    yield from _strings(p)
    yield from _resistors(p)
    yield from _other_leds(p)
    yield from _regulated(p)


def _afresh(**changes: float | int | str | None) -> Changes:
    return {"resistor_ohm": None, "rating_w": None, **changes}


def _ready(p: Position) -> Iterable[Candidate]:
    """Ready-made lamps of the same base whose band holds the lamp's volts."""
    if p.lamp is None or p.rail.supply.alternates:
        return
    low, high = (v - p.drop_v for v in (p.rail.volts[0], p.rail.volts[2]))
    bases = {p.lamp.base, p.driver.kind.big_base} - {""}
    for m in ready_made().values():
        if m.base in bases and m.module.low <= low * 1.05 and high <= m.module.high * 1.02:
            yield Candidate(f"ready-{m.id}", f"Ready-made: {m.label[0].lower()}{m.label[1:]}", {"module_id": m.id})


def _rectifications(p: Position) -> Iterable[Candidate]:
    waveform = p.rail.supply.waveform
    ours = usual_rectification(waveform)
    for way in RECTIFICATIONS.values():
        if waveform in way.suits and way.proposed and way is not p.rectification:
            remedy = rectify(way)
            yield Candidate(
                remedy.id,
                remedy.label,
                {**_afresh(), **remedy.changes},
                "ours for this supply" if way is ours else "",
                way is ours,
            )


def _drivers(p: Position) -> Iterable[Candidate]:
    """What the driver calls for, with a resistor that keeps to the drive limit where the fitted one does not."""
    resize: Changes = {}
    if p.module is None and solve(p, rule=False).string_current_max > p.ceiling_a:
        each = each_for_most(p, min(p.ceiling_a, p.led.rated_a / 2))
        resize = {} if each is None else {"resistor_ohm": each, "rating_w": None}
    q = with_changes(p, resize)
    value = f", with {show(size(q).each_ohm, OHM)}" if resize else ""
    for c in _cures(q):
        yield replace(
            c, label=c.label + (value if "resistor_ohm" not in c.changes else ""), changes={**resize, **c.changes}
        )


def _cures(p: Position) -> Iterable[Candidate]:
    d = p.driver
    for remedy in take_out(p):
        yield of_remedy(remedy, "change the fitted part", board=True)
    if d.leads_off and p.shunt_ohm is None:
        for remedy in shunts(p):
            ours = remedy.changes["shunt_across"] == "assembly"
            yield of_remedy(remedy, "add a part", ours)
    if d.remaining_lamps:
        string, branches = change_all(p)
        yield of_remedy(replace(string, changes=_afresh(**string.changes)), "string", board=True)
        yield of_remedy(replace(branches, changes=_afresh(**branches.changes)), "branches", board=True)
    if d.dropper_ohm and p.shunt_ohm is None:
        for remedy in hold_feed(p, p.target.value * p.branches):
            yield of_remedy(replace(remedy, changes=_afresh(**remedy.changes)))
    if d.watches:
        alone = cool(p)
        changes = {**alone.changes, "shunt_ohm": None}
        yield of_remedy(replace(alone, changes=changes), "flasher or coding", True)
        bare = replace(p, shunt_ohm=None)
        w = watch(bare, state_solutions(solve(bare, rule=False))[0])
        for remedy in () if w is None else load_remedy(bare, w):
            yield of_remedy(remedy, "load resistor")


def _drives(p: Position) -> Iterable[Candidate]:
    """Rated, half and a tenth of it at the highest rail; and what a line lets through."""
    rated = p.led.rated_a
    line = trip_amps(p)
    goals = (
        ("half", 0.5, "Half of rated at the highest rail", "a tenth to a half of rated", True),
        ("tenth", 0.1, "A tenth of rated at the highest rail", "a tenth to a half of rated", True),
        ("rated", 1.0, "Rated current", "rated current", False),
    )
    for key, share, label, school, ours in goals:
        amps = rated * share
        each = each_for_most(p, amps) if ours else _each_for_usual(p, amps)
        if each is not None and amps <= line:
            yield Candidate(
                f"drive-{key}",
                f"{label}: {show(each, OHM)}",
                _afresh(resistor_ohm=each, in_series=p.in_series),
                school,
                ours,
            )
    if line < rated:
        each = each_for_most(p, line)
        if each is not None:
            yield Candidate("line-safe", f"Least that the line allows: {show(each, OHM)}", _afresh(resistor_ohm=each))


def _each_for_usual(p: Position, amps: float) -> float | None:
    ohms = ohms_for(p, amps, rail_v=p.rail.volts[1], vf=p.led.vf_typ, drop_v=p.drop_v)
    each = None if ohms is None else ohms / p.resistor_parts
    return preferred.prefer(each, p.series, "nearest") if each and 1e-2 <= each <= 1e8 else None


def _strings(p: Position) -> Iterable[Candidate]:
    """One LED, and as many in series as leave a fifth of the rail; and two side by side."""
    vf = vf_at_drive(p)
    volts = p.rail.volts[1] - p.drop_v
    most = min(int(volts * (1 - HEADROOM_SHARE) / vf), int((p.rail.volts[0] - p.drop_v) / p.led.vf_high), 6)
    for n in sorted({1, 2, most}):
        if 1 <= n <= most and n != p.in_series:
            what = "One LED" if n == 1 else f"{n} LEDs in series"
            yield Candidate(f"series-{n}", what, _afresh(in_series=n), "string" if n > 1 else "")
    if most >= 1 and p.branches == 1:
        yield Candidate(
            "branches-2", "Two LEDs side by side, a resistor each", _afresh(in_series=1, branches=2), "branches"
        )


def _resistors(p: Position) -> Iterable[Candidate]:
    if p.resistor_parts == 1 and not p.set_by_ohms:
        yield Candidate("halves", "Half the resistance in each lead", _afresh(resistor_parts=2), "half in each lead")
    free: Lead = p.free_lead or "negative"
    if free != p.lead or p.resistor_parts == 2:
        remedy = move_to(free)
        yield Candidate(
            remedy.id, remedy.label, {**_afresh(), **remedy.changes}, f"{free} lead", p.free_lead is not None
        )
    up, near = (
        size(replace(p, resistor_ohm=None, rounding="up")),
        size(replace(p, resistor_ohm=None, rounding="nearest")),
    )
    if up.exact_ohm is not None:
        yield Candidate(
            "next-up", f"Next higher: {show(up.each_ohm, OHM)}", _afresh(rounding="up"), "next higher", True
        )
        if near.each_ohm != up.each_ohm:
            yield Candidate("nearest", f"Nearest: {show(near.each_ohm, OHM)}", _afresh(rounding="nearest"), "nearest")


def _other_leds(p: Position) -> Iterable[Candidate]:
    """A brighter part of the same colour, matched to the old lamp or at a twentieth of its rating."""
    alike = [k for k in leds.catalogue().values() if (k.colour, k.material) == (p.led.colour, p.led.material)]
    best = max(alike, key=lambda k: times_the_light(p, k), default=p.led)
    if times_the_light(p, best) <= 3:
        return
    amps = best.rated_a / 20
    old = lamp_candela(p)
    if old:
        amps = min(max(amps_for(replace(p, led=best), old), 20e-6), best.rated_a / 2)
    amps = min(amps, trip_amps(p) * 0.9)
    changed = replace(p, led=best, resistor_ohm=None)
    each = _each_for_usual(changed, amps)
    if each is not None:
        yield Candidate(
            "brighter-led",
            f"{best.label} at {show(amps, AMPERE, 2)}: {show(each, OHM)}",
            _afresh(led_id=best.id, resistor_ohm=each),
        )


def _regulated(p: Position) -> Iterable[Candidate]:
    """A current source or a fixed regulator, where the rail swings or the headroom is thin."""
    low, usual, high = p.rail.volts
    swings = (high - low) / 2 > SWING * usual
    thin = size(p).headroom_v < HEADROOM_SHARE * usual
    if p.regulator_id or not p.rail.supply.kind.feeds or not (swings or thin):
        return
    small = p.target.value * p.branches <= 0.05
    source = "adjustable-to92" if small else "adjustable-to220"
    yield Candidate(
        "current-source",
        "Adjustable regulator as current source",
        _afresh(regulator_id=source, resistor_parts=1),
        "regulate first",
    )
    fixed = "fixed-5-to92" if small else "fixed-5-to220"
    if low - p.drop_v > 6.7 and p.in_series * p.led.vf_high < 4.5:
        yield Candidate(
            "fixed-regulator",
            "5 V regulator and resistor",
            _afresh(regulator_id=fixed, resistor_parts=1),
            "regulate first",
        )
