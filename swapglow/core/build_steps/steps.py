"""The steps of a build, from the position's own facts: what to do, with which figures, and where to stop and look."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Literal

from swapglow.core.analysis.sizing import turned
from swapglow.core.analysis.solution import Solution, solve
from swapglow.core.build_steps.first_power import first_power
from swapglow.core.build_steps.own_dangers import cells_caution
from swapglow.core.build_steps.place import old_and_new
from swapglow.core.build_steps.put_in import put_in
from swapglow.core.build_steps.sleeves import LEG_MM, WIRE_MM, sleeve_over
from swapglow.core.build_steps.warmth import Warmth
from swapglow.core.design.board import Board
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.evidence.expected import band
from swapglow.core.evidence.metered import as_shown
from swapglow.core.findings.finding import Finding
from swapglow.core.intake.hazards import cautions
from swapglow.core.measurement.reading_after import STATES, ReadingAfter, ReadingKind
from swapglow.core.parts.meter import amp_range, volt_range
from swapglow.core.parts.resistor import body_of, rating_text
from swapglow.core.planning.build_step_kinds import kind_of_step
from swapglow.core.quantities import OHM, VOLT, show

Phase = Literal["try", "prepare", "fit", "prove", "close"]
PHASES: dict[Phase, str] = {
    "try": "Try on clips",
    "prepare": "Prepare",
    "fit": "Fit",
    "prove": "Prove",
    "close": "Close",
}
TRY: Phase = "try"
# What a step has drawn beside it.
Picture = Literal["", "bands", "polarity", "chip"]


@dataclass(frozen=True)
class Habits:
    """How a shop does it.

    Attributes:
        plus, minus: sleeve colours.
        checks: the house's own, a line each.
        no_meter: whether there is none.
    """

    plus: str = "red"
    minus: str = "black"
    checks: tuple[str, ...] = ()
    no_meter: bool = False


@dataclass(frozen=True)
class Site:
    """What the item's take-in sheet says of working in it.

    Attributes:
        once: whether it will not be opened again, or only dearly.
        brittle: whether its plastic or glass breaks.
        opening: the steps it was opened in, in order.
        habits: the shop's.
        hazards: dangers in the item, by their ids.
    """

    once: bool = False
    brittle: bool = False
    opening: tuple[str, ...] = ()
    habits: Habits = Habits()
    hazards: tuple[str, ...] = ()


@dataclass(frozen=True)
class Fact:
    """A figure of a step."""

    label: str
    text: str


@dataclass(frozen=True)
class BuildStep:
    """One step.

    Attributes:
        id, phase, phase_label: which, and the part of the work it belongs to.
        act: what to do.
        why: the reason or what to mind, "" for none.
        facts: its own figures.
        tick: whether one must stop here and look; the rest is read.
        reading, state: what to read here, "" for nothing, and in which state.
        picture: what is drawn beside it.
        board: the board's own legend, where it was looked at.
        takes_parts: whether ticking it takes the lamp's parts out of stock.
    """

    id: str
    phase: Phase
    phase_label: str
    act: str
    why: str = ""
    facts: tuple[Fact, ...] = ()
    tick: bool = False
    reading: str = ""
    state: str = "on"
    picture: Picture = ""
    board: Board | None = None
    takes_parts: bool = False


def _step(
    id_: str,
    phase: Phase,
    act: str,
    why: str = "",
    facts: tuple[Fact, ...] = (),
    *,
    tick: bool = False,
    reading: str = "",
    state: str = "on",
    picture: Picture = "",
    board: Board | None = None,
) -> BuildStep:
    takes = kind_of_step(id_).takes_parts
    return BuildStep(id_, phase, PHASES[phase], act, why, facts, tick, reading, state, picture, board, takes)


def build_steps(
    s: Solution,
    states: tuple[tuple[str, str], ...],
    warm: tuple[Warmth, ...],
    found: tuple[Finding, ...],
    site: Site,
    parts: tuple[Fact, ...],
) -> tuple[BuildStep, ...]:
    """The steps in order; one that does not apply is not there.

    Args:
        s: the solved position.
        states: the states it has, with their names, the lit one first.
        warm: what its parts feel like after half an hour.
        found: its judgements; a stop comes before any step.
        site: what is known of the item, and of the shop.
        parts: everything in the circuit that was solved.

    Returns:
        The steps.
    """
    stops = [f for f in found if f.grade == "stop"]
    if stops:
        return (_step("stop", "try", "Fit nothing yet.", stops[0].message, tick=True),)
    if s.position.live_danger:
        return (
            _step(
                "mains",
                "try",
                "This is for someone qualified. No step is given for work on it.",
                "Mains, or volts past extra-low. Local codes and licensed practice come first.",
                tick=True,
            ),
        )
    # The same reading is taken on clips and fitted: worked out once.
    readings = tuple(_reading(s, state, label) for state, label in states)
    return (
        *_dangers(s, site),
        *_trial(s, readings, site, parts),
        *_preparing(s, site),
        *_fitting(s, site),
        *_proving(s, readings, warm, site),
        *_closing(site),
    )


def _dangers(s: Solution, site: Site) -> Iterable[BuildStep]:
    """What can hurt here, by the take-in sheet and by the lamp's own cells, before the first hand goes in."""
    said = [*cautions(list(site.hazards)), *filter(None, [cells_caution(s.position)])]
    if said:
        yield _step("dangers", "try", "Before anything else:", " ".join(said), tick=True)


def _trial(s: Solution, readings: tuple[BuildStep, ...], site: Site, parts: tuple[Fact, ...]) -> Iterable[BuildStep]:
    if site.once:
        yield _step(
            "bold",
            "try",
            "Lead two test wires out before it closes, or prove it whole in one go.",
            "It will not be opened again, or only dearly: the trial is this one.",
        )
    yield _step(
        "take",
        "try",
        "Take the parts out of the drawer.",
        "A tick takes them off the drawer's count; taking the tick back returns them.",
        tick=True,
    )
    yield _step(
        "clips",
        "try",
        "Old lamp out, supply off. All of these parts in on clips.",
        "Clips before solder: what is wrong now costs a minute.",
        parts,
    )
    # An LED that is turned round stays dark; these parts burst, or put its volts on it the wrong way round.
    others = [x for x in put_in(s.position) if x.way_round]
    if any(x.id != "polarity" for x in others):
        yield _step(
            "round",
            "try",
            "Before the first power: look which way round each part is.",
            "A part that is turned round can burst or take the LED with it.",
            tuple(Fact(x.what, x.way_round) for x in others),
            tick=True,
        )
    yield _power(s, "power", "try", "First power. One hand on the switch, eyes on the meter.")
    yield from readings
    yield _step(
        "works",
        "try",
        "Work every state once: what worked with the old lamp must work with this.",
        "Write it down under Before and after.",
        tick=True,
    )


def _power(s: Solution, id_: str, phase: Phase, act: str) -> BuildStep:
    """The first power after a change."""
    why = "What is wrong shows in the first seconds, and at low volts it harms nothing."
    return _step(id_, phase, act, why, tuple(Fact(*f) for f in first_power(s)), tick=True)


def _has_resistor(s: Solution) -> bool:
    return not s.position.bare


def _reading(s: Solution, state: str, label: str) -> BuildStep:
    """What to read in a state, with its band and the meter's range."""
    id_, phase = f"try-{state}", TRY
    alternates = s.position.rail.supply.alternates
    # Across the resistor nothing is opened; a part that is not there is read in the loop.
    kind: ReadingKind = "current" if alternates or not _has_resistor(s) else "resistor_volts"
    known = next((k for k in STATES if k == state), None)
    if known is None:
        return _step(id_, phase, f"{label}: look that it does what it should.", state=state)
    blank = ReadingAfter("", kind, 0.0, 5.0 if kind == "current" else 0.0, state=known)
    try:
        low, usual, high = band(s, blank)
    except CircuitError:
        return _step(id_, phase, f"{label}: look that it does what it should.", state=state)
    usually, least, most = (as_shown(v, kind, "").text for v in (usual, low, high))
    meter = amp_range(high * 1.2) if kind == "current" else volt_range(high * 1.2)
    what = "current in the loop" if kind == "current" else "volts across the resistor"
    return _step(
        id_,
        phase,
        f"{label}: read the {what}.",
        "Supply off while clips and leads go on.",
        (Fact("Expect", f"{usually}, {least} to {most}"), Fact("Meter", meter)),
        reading=kind,
        state=state,
    )


def _preparing(s: Solution, site: Site) -> Iterable[BuildStep]:
    p = s.position
    if _has_resistor(s):
        rating = p.rating_w or s.rating_to_fit_w
        facts = [Fact("Value", show(s.sizing.each_ohm, OHM))]
        if rating is not None:
            facts.append(Fact("Body", rating_text(rating)))
        yield _step(
            "resistor",
            "prepare",
            "Read the resistor with the meter before it goes in.",
            "Bands are misread by a decade more often than by a step.",
            (
                *facts,
                Fact(
                    "Meter",
                    f"{show(s.sizing.each_ohm * (1 - p.resistor_tolerance), OHM)} to "
                    f"{show(s.sizing.each_ohm * (1 + p.resistor_tolerance), OHM)}",
                ),
            ),
            reading="resistor_ohms",
            picture="bands",
        )
        if rating is not None and (piece := sleeve_over(body_of(rating).body_mm, body_of(rating).length_mm)):
            colour = site.habits.plus if p.lead == "positive" else site.habits.minus
            yield _step(
                "sleeve",
                "prepare",
                "Sleeve over wire or leg before the joint is made.",
                "A sleeve that was forgotten is a joint made twice.",
                (Fact("Over the resistor", piece.text), Fact("Over a leg", _over_leg(site)), Fact("Colour", colour)),
            )
    elif p.module is None:
        yield _step(
            "sleeve",
            "prepare",
            "Sleeve over wire or leg before the joint is made.",
            "",
            (Fact("Over a leg", _over_leg(site)),),
        )
    if p.module is None and "chip" not in p.led.id:
        yield _step(
            "legs",
            "prepare",
            "Bend the legs with pliers between bend and body; leave 3 mm to the body.",
            "Force on a leg breaks the bond inside.",
        )
    if p.module is None and p.lamp is not None:
        yield _step(
            "height",
            "prepare",
            "Set the LED's chip where the filament stood, or a little lower.",
            "Lens and reflector were made for the filament's place: a tip higher or off its middle is what "
            "looks wrong from the front.",
            tuple(Fact(*f) for f in old_and_new(p.lamp.bulb, p.led)),
        )
    if p.looks.optics != "as-is":
        yield _step(
            "optics",
            "prepare",
            "Frost, dome or diffuser on before it is fitted.",
            "Once it stands in the holder nobody gets at it.",
        )


def _over_leg(site: Site) -> str:
    piece = sleeve_over(max(LEG_MM, WIRE_MM), 8.0)
    assert piece is not None
    return f"{piece.text}, {site.habits.plus} for plus, {site.habits.minus} for minus"


def _fitting(s: Solution, site: Site) -> Iterable[BuildStep]:
    for part in put_in(s.position):
        picture: Picture = "" if not part.marked else "chip" if part.chip else "polarity"
        yield _step(
            part.id,
            "fit",
            part.act,
            part.why,
            tuple(Fact(*f) for f in part.facts),
            tick=part.tick,
            picture=picture,
            board=part.board,
        )
    yield _step("wires", "fit", "Thread what must be threaded before it is soldered: nut, grommet, ring, shade.")
    yield _step(
        "solder",
        "fit",
        "Two seconds a joint, three millimetres from the body; let it cool between.",
        "Heat goes up the leg into the chip.",
    )
    if site.brittle:
        yield _step(
            "brittle", "fit", "Hands warm, plastic warm: no clip is bent cold.", "Aged plastic breaks at its clips."
        )


def _proving(s: Solution, readings: tuple[BuildStep, ...], warm: tuple[Warmth, ...], site: Site) -> Iterable[BuildStep]:
    yield _power(s, "power-fitted", "prove", "First power as it is fitted, before any cover goes on.")
    for step in readings:
        fitted: Phase = "prove"
        yield replace(step, id=f"prove-{step.state}", phase=fitted, phase_label=PHASES[fitted])
    yield from _strings(s)
    hot = max(warm, key=lambda w: w.usual.value, default=None)
    yield _step(
        "soak",
        "prove",
        "Covers on, lit for half an hour. Then read again, and feel.",
        "Contacts that touched with the lid off may not touch with it on; what drifts with heat shows now.",
        tuple(Fact(w.label, f"{w.usual.text}: {w.finger}") for w in warm),
        tick=hot is not None,
    )
    if s.position.warns:
        yield _step(
            "warns",
            "prove",
            "Make it warn: set off what it warns of, or its test, and see it light.",
            'Its darkness is taken for "all is well". Where it cannot be set off, it stays as it was.',
            tick=True,
        )
    yield _step(
        "glue", "prove", "Glue only now, and never on a part that gets hot.", "What is glued is not tried again."
    )
    for k, check in enumerate(site.habits.checks):
        yield _step(f"house-{k}", "prove", check, "A check of the house.", tick=True)


def _strings(s: Solution) -> Iterable[BuildStep]:
    """Each further string read across its own resistor: a meter in the common wire cannot tell them apart."""
    p = s.position
    # Where the string's current flows to and fro, a DC range shows nothing of it.
    steady = not p.rail.supply.alternates or p.rectification.folds
    for k, b in enumerate(p.beside):
        if b.ohm is None or not steady:
            continue
        try:
            amps = float(solve(turned(p, k), rule=False).usual[1])
        except CircuitError:
            continue
        volts = amps * b.ohm
        name = b.name or f"String {k + 2}"
        facts = (Fact("Expect", show(volts, VOLT)), Fact("Meter", volt_range(volts * 1.2)))
        yield _step(f"prove-beside-{k + 1}", "prove", f"{name}: read the volts across its own resistor.", "", facts)


def _closing(site: Site) -> Iterable[BuildStep]:
    back = list(reversed(site.opening))
    if back:
        yield _step(
            "reverse",
            "close",
            "Close in the reverse of the opening record.",
            "",
            tuple(Fact(str(k), text) for k, text in enumerate(back, 1)),
            tick=True,
        )
    else:
        yield _step(
            "reverse", "close", "Close in the reverse of the way it opened; nothing left over on the bench.", tick=True
        )
    yield _step("after", "close", "Do the before and after check again, with the same hands in the same order.")
    yield _step("originals", "close", "The old lamp in a bag with the item's name, and where it lies written down.")
