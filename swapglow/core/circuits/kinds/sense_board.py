"""A driver board whose chip holds the current by sense resistors: I = Vref/R (textbook).

The ratio of two currents is that of the resistances, whatever the chip; the current itself is in pencil until the
chip's reference is known or a current was read.
"""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import CircuitResult, Fault, Figure, Option, PartRule, RulePoint
from swapglow.core.circuits.toolkit.life import LIGHT_SHARE, LONG_C, MOST_C, life_text
from swapglow.core.circuits.toolkit.light import as_seen
from swapglow.core.circuits.toolkit.marks import resistors, side_by_side, together
from swapglow.core.circuits.toolkit.ratings import StatedAmps
from swapglow.core.circuits.toolkit.read_after import PLUG, PLUG_AFTER, PLUG_SHARE, against, flowing, read_after
from swapglow.core.circuits.toolkit.wiring import Wiring
from swapglow.core.engine.netlist import CurrentSource, Dc
from swapglow.core.findings.finding import Finding, Grade
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.quantities import AMPERE, CELSIUS, OHM, VOLT, WATT, InputError, Shown, Source, percent, show, shown
from swapglow.core.quantities.inputs import read_share
from swapglow.core.quantities.part_heat import part_celsius, part_shown
from swapglow.core.values import preferred

SENSE = Detail("sense_ohm", "Sense resistors", None, "As read on the board: 6R8, or 68 ‖ 91 side by side")
VREF = Detail("vref", "The chip's reference", VOLT, "From its data sheet, 0.4V. Empty: in pencil")
READ = Detail("read", "Current through the LEDs", AMPERE, "As marked on it, 80mA; empty: not marked")
COUNT = Detail("count", "LEDs in series", None, "How many, 1 or more")
EACH = Detail("each", "Volts of each LED package", VOLT, "3.1V; packages of several dice have 6, 9 or 18V")
WANTED = Detail("wanted", "Of the current there is now", None, "50 % is half. Empty takes that")
BOARD = Detail(
    "board", "Outside of its case after half an hour", CELSIUS, "65°C, at its warmest place; empty: not known"
)
ROOM = Detail("room", "Air around it", CELSIUS, "25°C. Empty takes that")

# What such chips hold across their sense resistors, V: least, usual, most (data sheets, from memory).
_VREF = (0.2, 0.4, 0.6)
# Raised more, the chip may leave the range it holds in (common practice: no more than double, and clipping the lower
# of a pair, which is a little over it).
MOST_RATIO = 2.2
_TOO_MUCH = "More than double: the chip may no longer hold."
# The rule shows a part up to so many times its value.
_RULE_REACH = 20.0
_SERIES = "E24"
_MOST_LEDS = 500
_WHITE = "warm-5-diffused"
# From the board to the junction of a mid-power package, K for each W of one package (data sheets, from memory).
_JUNCTION_K_W = 15.0
# The LED board over the air, beside what the outside of its case is over it (1.1 to 1.6 by how it is fixed; ours).
_INSIDE = 1.3


@dataclass(frozen=True)
class SenseCase:
    """A board.

    Attributes:
        sense: its sense resistors, Ω, side by side.
        added: in series with all of them, Ω.
        now: what flows, and how sure that is.
        sure: whether it is more than pencil.
        wanted: share of it.
        count, each: packages in series, and the volts of one; None where not stated.
        board, room: outside of its case and the air, °C; None where not read.
    """

    sense: tuple[float, ...]
    added: float
    now: Shown
    sure: bool
    wanted: float
    count: int
    each: float | None
    board: float | None
    room: float

    @property
    def ohm(self) -> float:
        """All of it together."""
        return together(self.sense) + self.added

    @property
    def led(self) -> Led:
        """One die."""
        return catalogue()[_WHITE]

    def share(self, other: "SenseCase") -> float:
        """The current another one leaves beside this one's: I ∝ 1/R, whatever the chip."""
        return self.ohm / other.ohm

    def junction(self, share: float) -> float:
        """The junction at a share of the current, °C: all rises over the air go with the power."""
        assert self.board is not None
        own = self.now.value * (self.each or 3.1) * (1 - LIGHT_SHARE) * _JUNCTION_K_W
        return self.room + ((self.board - self.room) * _INSIDE + own) * share


class SenseBoard(CircuitKind[SenseCase]):
    """A small chip with one or two resistors of a few ohms beside it."""

    id = "sense_board"
    order = 0
    label = "Driver board, sense resistors"
    looks = (
        "A small chip, and one or two chip resistors of a few ohms to some tens beside it, often marked 6R8 or 680. "
        "They set the current. A board with a large film capacitor in its feed, or with a coil, is another kind."
    )
    never = (
        "All of it is connected with the mains. Qualified people only, unplugged and discharged; no reading on it "
        "live. An altered lamp has lost its approval. Local codes come first."
    )
    parts = (
        ("Vref", "chip's reference", "vref"),
        ("Rsense", "sense resistor", "sense_ohm"),
        ("Iset", "chip", "read"),
        ("Dleds", "LEDs", "count"),
    )
    details = (SENSE, WANTED, VREF, READ, COUNT, EACH, PLUG, PLUG_AFTER, BOARD, ROOM)
    read_now = PLUG.id
    read_after = PLUG_AFTER.id
    # What is marked is the current that it was made with.
    stale = (READ.id,)

    def case(self, typed: Details) -> SenseCase:
        """The board as typed."""
        sense = resistors(SENSE.id, typed.text(SENSE.id))
        wanted = read_share(WANTED.id, typed.text(WANTED.id), 0.5)
        if not 0.02 <= wanted < 1:
            raise InputError(WANTED.id, "Between 2 and 99 % of what flows now: 50 % is half.")
        count, room = typed.count(COUNT.id, _MOST_LEDS), typed.value(ROOM.id, above=None)
        now, sure = _amps(typed, together(sense), count)
        return SenseCase(
            sense,
            0.0,
            now,
            sure,
            wanted,
            count,
            typed.value(EACH.id),
            typed.value(BOARD.id, above=None),
            25.0 if room is None else room,
        )

    def teaches(self, typed: Details, other: Details) -> Mapping[str, str]:
        """The chip's reference, from another board of as many packages whose current is known: Vref = I·R (Ohm)."""
        if any(typed.text(d.id) for d in (READ, VREF, PLUG)):
            return {}
        this, that = self.case(typed), self.case(other)
        alike = (this.count, sorted(this.sense)) == (that.count, sorted(that.sense))
        return {VREF.id: show(that.now.value * that.ohm, VOLT, 3)} if alike and that.sure else {}

    def states(self, case: SenseCase) -> tuple[StatedAmps, ...]:
        """The kind and the rating of its packages are not known: their current is not judged."""
        return ()

    def wired(self, case: SenseCase) -> Wiring:
        """What sets its current, and the string."""
        return _wiring(case)

    def options(self, now: SenseCase, typed: Details, chosen: str) -> list[Option]:
        """Clip one, exchange one, add one in series: the nearest to what is wanted first."""
        tried = [(id_, label, what, other) for id_, label, what, other in _changes(now, chosen)]
        allowed = [s for s in (now.share(o) for *_, o in tried) if _holds(s)]
        aim = min(allowed, key=lambda s: _off(s, now.wanted), default=None)
        out = [_option(now, id_, label, what, other, now.share(other) == aim) for id_, label, what, other in tried]
        # Of equal ones the one that changes least stands first.
        return sorted(out, key=lambda o: (bool(o.bars), not o.advised, _off(o.outcome.value, now.wanted)))

    def report(self, job: Job[SenseCase]) -> CircuitResult:
        """The current, and what each change of a resistor leaves of it."""
        now, option = job.now, job.option
        share = 1.0 if option is None else option.outcome.value
        expected = now.now.value * share
        after = flowing(job.typed, now.now.value, expected, f"{percent(share)} of it", now.now.source)
        return CircuitResult(
            line="Nothing here reaches it within what the chip stands."
            if option is None
            else f"{option.label}: {option.outcome.number} % of the current. {option.light}",
            figures=_figures(now, after),
            rules=_rules(now),
            faults=tuple(_faults(now)),
            findings=(
                *against(job.typed, expected, now.now.value, _fits(now, option, job)),
                *_findings(now, after.value / now.now.value, nothing=option is None),
            ),
            spice=_wiring(now).deck(),
        )


KIND = SenseBoard()


def _fits(now: SenseCase, option: Option | None, job: Job[SenseCase]) -> str:
    """The old resistor by the power before and after, where that is not the one typed: I ∝ 1/R (Ohm)."""
    read = read_after(job.typed, now.now.value)
    if read is None or option is None or not 0 < read.value < now.now.value:
        return ""
    other = next((o for id_, *_, o in _changes(now, job.chosen) if id_ == option.id), None)
    if other is None:
        return ""
    ratio = read.value / now.now.value
    if other.added:
        whole = other.added * ratio / (1 - ratio)
        k, rest = 0, 1 / whole - sum(1 / o for o in now.sense[1:])
    else:
        k = next(k for k in range(len(now.sense)) if now.sense[k : k + 1] != other.sense[k : k + 1])
        rest = 1 / (ratio * other.ohm) - sum(1 / o for n, o in enumerate(now.sense) if n != k)
    if rest <= 0:
        return ""
    return f"Check the old resistor: the power fits {show(1 / rest, OHM)}, and {show(now.sense[k], OHM)} was typed."


def _off(share: float, wanted: float) -> float:
    return abs(math.log(share / wanted))


def _holds(share: float) -> bool:
    return share >= 1 / MOST_RATIO * (1 - 1e-3)


def _amps(typed: Details, ohm: float, count: int) -> tuple[Shown, bool]:
    """What flows now, and whether it is more than pencil."""
    read, vref = typed.figure(READ.id), typed.figure(VREF.id)
    if read is not None:
        return shown(read.value, AMPERE, "as marked", read.source), True
    if vref is not None:
        origin = f"{show(vref.value, VOLT)} over {show(ohm, OHM)}" + (f", {vref.note}" if vref.note else "")
        return shown(vref.value / ohm, AMPERE, origin), True
    plug, each = typed.figure(PLUG.id), typed.value(EACH.id)
    if plug is not None and each is not None and typed.text(COUNT.id):
        volts = each * count
        origin = f"{PLUG_SHARE * 100:.0f} % of {show(plug.value, WATT)} at the plug over {show(volts, VOLT)} of LEDs"
        return shown(PLUG_SHARE * plug.value / volts, AMPERE, origin, digits=2), True
    low, usual, high = (v / ohm for v in _VREF)
    origin = (
        f"{_VREF[1]:g} V over {show(ohm, OHM)}; such chips hold {_VREF[0]:g} to {_VREF[2]:g} V: "
        f"{show(low, AMPERE)} to {show(high, AMPERE)}"
    )
    return shown(usual, AMPERE, origin, Source.ASSUMED), False


def _with(case: SenseCase, k: int, ohm: float) -> SenseCase:
    return replace(case, sense=(*case.sense[:k], ohm, *case.sense[k + 1 :]))


def _exchanged(value: float, ohm: float) -> tuple[str, str]:
    """The id and the label of one resistor in another's place."""
    return f"exchange-{ohm:g}-{value:g}", f"{show(value, OHM)} for the {show(ohm, OHM)}"


def _raised(case: SenseCase, k: int) -> list[float]:
    """Values that one of them may have in its place, from its own upwards."""
    ohm = case.sense[k]
    return [ohm, *preferred.values(_SERIES, ohm * 1.02, ohm * _RULE_REACH).tolist()]


def _changes(case: SenseCase, chosen: str) -> Iterator[tuple[str, str, str, SenseCase]]:
    """What may be done: id, label, how, and the board with it."""
    r0, sense, seen = together(case.sense), case.sense, set()
    for k, ohm in enumerate(sense if len(sense) > 1 else ()):
        rest = sense[:k] + sense[k + 1 :]
        if ohm not in sense[:k]:
            label = f"Clip the {show(ohm, OHM)}"
            yield f"clip-{ohm:g}", label, f"{side_by_side(rest)} stays", replace(case, sense=rest)
    for k, ohm in enumerate(sense):
        left = case.wanted / r0 - sum(1 / o for n, o in enumerate(sense) if n != k)
        value = preferred.prefer(1 / left, _SERIES, "nearest") if left > 0 else 0.0
        if value > ohm * 1.02:
            id_, label = _exchanged(value, ohm)
            if id_ not in seen:
                seen.add(id_)
                yield id_, label, "one part changed", _with(case, k, value)
    added = preferred.prefer(r0 * (1 / case.wanted - 1), _SERIES, "nearest")
    yield (
        "series",
        f"Add {show(added, OHM)} in series",
        "in the way of all the sense resistors",
        replace(case, added=added),
    )
    for k, ohm in enumerate(sense):
        # One that was picked on the rule is among the options.
        for value in _raised(case, k)[1:]:
            id_, label = _exchanged(value, ohm)
            if id_ == chosen and id_ not in seen:
                seen.add(id_)
                yield id_, label, "one part changed", _with(case, k, value)


def _ratio(share: float, origin: str) -> Shown:
    return Shown(share, f"{share * 100:.0f}", "%", Source.COMPUTED, origin)


def _option(now: SenseCase, id_: str, label: str, what: str, other: SenseCase, advised: bool) -> Option:
    share = now.share(other)
    texts = [show(other.ohm, OHM, 4)] if other.added else [show(o, OHM, 4) for o in other.sense]
    origin = f"{show(now.ohm, OHM)} over {show(other.ohm, OHM)}, whatever the chip"
    return Option(
        id_,
        label,
        what,
        _ratio(share, origin),
        "current_ratio",
        as_seen(now.led, now.now.value, now.now.value * share),
        "" if _holds(share) else _TOO_MUCH,
        advised,
        {SENSE.id: " ‖ ".join(texts)},
    )


def _rules(case: SenseCase) -> tuple[PartRule, ...]:
    """Of each sense resistor, what every larger value in its place leaves: I ∝ 1/R (Ohm)."""
    out, amps = [], case.now.value
    for k, ohm in enumerate(case.sense):
        if ohm in case.sense[:k]:
            continue
        points = []
        for value in _raised(case, k):
            share = case.share(_with(case, k, value))
            id_, label = _exchanged(value, ohm)
            points.append(
                RulePoint(
                    id_,
                    label,
                    show(value, OHM),
                    _ratio(share, f"with {show(value, OHM)} there"),
                    as_seen(case.led, amps, amps * share) if value != ohm else "As it is.",
                    "" if _holds(share) else _TOO_MUCH,
                )
            )
        out.append(PartRule(f"sense-{ohm:g}", f"The {show(ohm, OHM)}", tuple(points), 0))
    return tuple(out)


def _faults(case: SenseCase) -> Iterator[Fault]:
    """What a fault of the board leaves: the chip holds its reference over whatever is there."""
    for k, ohm in enumerate(case.sense):
        rest = case.sense[:k] + case.sense[k + 1 :]
        if ohm not in case.sense[:k]:
            left = f"{case.ohm / together(rest) * 100:.0f} % of the current." if rest else "No current at all: dark."
            yield Fault(f"open-{ohm:g}", f"The {show(ohm, OHM)} open, or its joint", left)
    gives_all = "The chip never sees its reference and gives all it can: LEDs die."
    yield Fault("sense-shorted", "Solder across a sense resistor", gives_all)
    if case.count > 1:
        share = (case.count - 1) / case.count * 100
        shorted = f"The same current in the others, {share:.0f} % of the power; the chip takes the volts that are over."
        yield Fault("led-shorted", "An LED is a short", shorted)
        dark = "All of its string is dark; the chip stands at the whole of its volts."
        yield Fault("led-open", "An LED is open", dark)


def _figures(case: SenseCase, after: Shown) -> tuple[Figure, ...]:
    now, share = case.now, after.value / case.now.value
    out = [Figure("current", "Through the LEDs", now, after)]
    if case.each is not None:
        watts = now.value * case.each * case.count
        out.append(
            Figure(
                "power",
                "Power in the LEDs",
                shown(watts, WATT, "LEDs' volts times their current", now.source),
                shown(watts * share, WATT, f"{percent(share)} of it", now.source),
            )
        )
    if case.board is not None:
        origin = f"{case.board:g} °C read outside, its board warmer, and the package's own rise"
        then = part_shown(
            case.junction(share), f"its rise over {case.room:g} °C of air goes with the power", Source.ASSUMED
        )
        out.append(Figure("junction", "Junction", part_shown(case.junction(1.0), origin, Source.ASSUMED), then))
    return tuple(out)


def _findings(case: SenseCase, share: float, *, nothing: bool) -> Iterator[Finding]:
    if nothing:
        yield Finding(
            "beyond-chip",
            "mind",
            "What is wanted lies beyond what the chip stands.",
            why="Raised to more than double, such a chip may flicker or leave its range: two steps, or leave it.",
        )
    if case.board is not None:
        hot, cool = case.junction(1.0), case.junction(share)
        grade: Grade = "stop" if hot > MOST_C else "mind" if hot > LONG_C else "note"
        yield Finding(
            "junction",
            grade,
            f"The junction is near {part_celsius(hot)}; after it {part_celsius(cool)}: {life_text(hot, cool)}.",
            part_celsius(hot),
            f"{MOST_C:g} °C",
            "Ten kelvin double it (8 to 15 by material; common practice after Arrhenius). Long life wants under "
            f"{LONG_C:g} °C; {MOST_C:g} °C is the most.",
        )
    if not case.sure:
        yield Finding(
            "current-assumed",
            "note",
            "The current itself is in pencil.",
            why="The chip's data sheet gives its reference; its marking is often on top. The ratio needs neither.",
        )


def _wiring(case: SenseCase) -> Wiring:
    """The reference over the sense resistors, and what they set through the string."""
    w, amps = Wiring("driver board"), case.now.value
    w.source("Vref", "ref", amps * together(case.sense))
    for k, ohm in enumerate(case.sense, 1):
        w.resistor(f"Rsense{k}", "ref", "0", ohm)
    # A package of several dice is so many junctions.
    dice = max(round((case.each or case.led.vf_typ) / case.led.vf_typ), 1) * case.count
    w.add(CurrentSource("Iset", "0", "leds", Dc(amps)))
    w.led("Dleds", "leds", "0", case.led, series=dice)
    return w
