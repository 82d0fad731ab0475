"""A driver board whose chip holds the current by sense resistors: I = Vref/R (textbook).

The ratio of two currents is that of the resistances, whatever the chip; the current itself is in pencil until the
chip's reference is known or a current was read.
"""

import math

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import (
    Circuit,
    CurrentSource,
    Dc,
    Diode,
    DiodeModel,
    Element,
    Resistor,
    VoltageSource,
)
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.afterwards import PLUG, PLUG_AFTER, PLUG_SHARE, against, flowing
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.life import LIGHT_SHARE, LONG_C, MOST_C, life_text
from swapglow.core.fitted.light import as_seen
from swapglow.core.fitted.marks import resistors, side_by_side, together
from swapglow.core.fitted.worked import Fault, Figure, Judged, PartRule, RulePoint, Way, Worked, picked
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.quantities import (
    AMPERE,
    CELSIUS,
    OHM,
    VOLT,
    WATT,
    InputError,
    Shown,
    Source,
    percent,
    show,
    shown,
)
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
    "board",
    "Outside of its case after half an hour",
    CELSIUS,
    "65°C, at its warmest place; empty: not known",
)
ROOM = Detail("room", "Air around it", CELSIUS, "25°C. Empty takes that")

# What such chips hold across their sense resistors, V: least, usual, most (data sheets, from memory).
_VREF = (0.2, 0.4, 0.6)
# Raised more, the chip may leave the range it holds in (common practice: no more than double, and clipping the lower
# of a
# pair, which is a little over it).
MOST_RATIO = 2.2
_TOO_MUCH = "More than double: the chip may no longer hold."
# The rule shows a part up to so many times its value.
_RULE_REACH = 20.0
_SERIES = "E24"
_WHITE = "warm-5-diffused"
# From the board to the junction of a mid-power package, K for each W of one package (data sheets, from memory).
_JUNCTION_K_W = 15.0
# The LED board over the air, beside what the outside of its case is over it (1.1 to 1.6 by how it is fixed; ours).
_INSIDE = 1.3


class SenseBoard(FittedKind):
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
    details = (SENSE, WANTED, VREF, READ, COUNT, EACH, PLUG, PLUG_AFTER, BOARD, ROOM)
    read_now = PLUG.id
    read_after = PLUG_AFTER.id
    # What is marked is the current that it was made with.
    stale = (READ.id,)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """The current, and what each change of a resistor leaves of it."""
        sense = resistors(SENSE.id, typed.text(SENSE.id))
        wanted = read_share(WANTED.id, typed.text(WANTED.id), 0.5)
        if not 0.02 <= wanted < 1:
            raise InputError(WANTED.id, "Between 2 and 99 % of what flows now: 50 % is half.")
        now, sure = _amps(typed, together(sense))
        led = catalogue()[_WHITE]
        rules = _rules(sense, now, led)
        ways = _ways(sense, wanted, now, led, chosen)
        best = picked(ways, chosen)
        share = best.share.value if best is not None else 1.0
        expected = now.value * share
        after = flowing(typed, now.value, expected, f"{percent(share)} of it", now.source)
        return Worked(
            line=_line(best),
            figures=_figures(typed, now, after),
            ways=ways,
            rules=rules,
            faults=_faults(typed, sense),
            judged=(
                *against(typed, expected, now.value),
                *_judged(typed, now, after.value / now.value, best, sure),
            ),
            spice=_deck(typed, sense, now.value, led),
        )


KIND = SenseBoard()


def _amps(typed: Details, ohm: float) -> tuple[Shown, bool]:
    """What flows now, and whether it is more than pencil."""
    read, vref = typed.figure(READ.id), typed.figure(VREF.id)
    if read is not None:
        return shown(read.value, AMPERE, "as marked", read.source), True
    if vref is not None:
        origin = f"{show(vref.value, VOLT)} over {show(ohm, OHM)}"
        return shown(vref.value / ohm, AMPERE, origin, Source.COMPUTED), True
    plug, each = typed.figure(PLUG.id), typed.value(EACH.id)
    if plug is not None and each is not None and typed.text(COUNT.id):
        volts = each * typed.count(COUNT.id, 500)
        origin = f"{PLUG_SHARE * 100:.0f} % of {show(plug.value, WATT)} at the plug over {show(volts, VOLT)} of LEDs"
        return shown(PLUG_SHARE * plug.value / volts, AMPERE, origin, Source.COMPUTED, digits=2), True
    low, usual, high = (v / ohm for v in _VREF)
    origin = (
        f"{_VREF[1]:g} V over {show(ohm, OHM)}; such chips hold {_VREF[0]:g} to {_VREF[2]:g} V: "
        f"{show(low, AMPERE)} to {show(high, AMPERE)}"
    )
    return shown(usual, AMPERE, origin, Source.ASSUMED), False


def _raised(sense: tuple[float, ...], k: int) -> list[float]:
    """Values that one of them may have in its place, from its own upwards."""
    return [sense[k], *preferred.values(_SERIES, sense[k] * 1.02, sense[k] * _RULE_REACH).tolist()]


def _named(value: float, ohm: float) -> str:
    return f"{show(value, OHM)} for the {show(ohm, OHM)}"


def _rules(sense: tuple[float, ...], now: Shown, led: Led) -> tuple[PartRule, ...]:
    """Of each sense resistor, what every larger value in its place leaves: I ∝ 1/R (Ohm)."""
    r0, out = together(sense), []
    for k, ohm in enumerate(sense):
        if ohm in sense[:k]:
            continue
        points = []
        for value in _raised(sense, k):
            share = r0 / together((*sense[:k], value, *sense[k + 1 :]))
            bars = "" if share >= 1 / MOST_RATIO * (1 - 1e-3) else _TOO_MUCH
            left = Shown(share, f"{share * 100:.0f}", "%", Source.COMPUTED, f"with {show(value, OHM)} there")
            light = as_seen(led, now.value, now.value * share) if value != ohm else "As it is."
            points.append(RulePoint(show(value, OHM), left, light, bars, _named(value, ohm)))
        out.append(PartRule(f"The {show(ohm, OHM)}", tuple(points), 0))
    return tuple(out)


def _faults(typed: Details, sense: tuple[float, ...]) -> tuple[Fault, ...]:
    """What a fault of the board leaves: the chip holds its reference over whatever is there."""
    out, r0 = [], together(sense)
    for k, ohm in enumerate(sense):
        rest = sense[:k] + sense[k + 1 :]
        if ohm not in sense[:k]:
            left = (
                f"{r0 / together(rest) * 100:.0f} % of the current." if rest else "No current at all: dark."
            )
            out.append(Fault(f"The {show(ohm, OHM)} open, or its joint", left))
    gives_all = "The chip never sees its reference and gives all it can: LEDs die."
    out.append(Fault("Solder across a sense resistor", gives_all))
    count = typed.count(COUNT.id, 500)
    if count > 1:
        share = (count - 1) / count * 100
        shorted = f"The same current in the others, {share:.0f} % of the power; the chip takes the volts that are over."
        out.append(Fault("An LED is a short", shorted))
        out.append(
            Fault("An LED is open", "All of its string is dark; the chip stands at the whole of its volts.")
        )
    return tuple(out)


def _ways(sense: tuple[float, ...], wanted: float, now: Shown, led: Led, chosen: str) -> tuple[Way, ...]:
    r0 = together(sense)
    found: list[tuple[str, str, tuple[float, ...], float]] = []
    if len(sense) > 1:
        for k, ohm in enumerate(sense):
            rest = sense[:k] + sense[k + 1 :]
            found.append((f"Clip the {show(ohm, OHM)}", f"{side_by_side(rest)} stays", rest, 0.0))
    for k, ohm in enumerate(sense):
        others = sum(1 / o for n, o in enumerate(sense) if n != k)
        left = wanted / r0 - others
        if left <= 0:
            continue
        value = preferred.prefer(1 / left, _SERIES, "nearest")
        if value > ohm * 1.02:
            changed = (*sense[:k], value, *sense[k + 1 :])
            found.append((_named(value, ohm), "one part changed", changed, 0.0))
    added = preferred.prefer(r0 * (1 / wanted - 1), _SERIES, "nearest")
    found.append((f"Add {show(added, OHM)} in series", "in the way of all the sense resistors", sense, added))
    for k, ohm in enumerate(sense):
        # One that was picked on the rule stands among the ways.
        for value in _raised(sense, k)[1:]:
            if _named(value, ohm) == chosen and chosen not in {label for label, *_ in found}:
                found.append((chosen, "one part changed", (*sense[:k], value, *sense[k + 1 :]), 0.0))
    shares = [r0 / (together(parts) + more) for _, _, parts, more in found]
    allowed = [s for s in shares if s >= 1 / MOST_RATIO * (1 - 1e-3)]
    # The nearest to what is wanted, by ratio, of those the chip stands; of equal ones the one that changes least.
    aim = min(allowed, key=lambda s: abs(math.log(s / wanted)), default=None)
    out = []
    for (label, what, parts, more), share in zip(found, shares, strict=True):
        bars = "" if share >= 1 / MOST_RATIO * (1 - 1e-3) else _TOO_MUCH
        texts = (show(together(parts) + more, OHM, 4),) if more else tuple(show(p, OHM, 4) for p in parts)
        out.append(
            Way(
                label, what, Shown(share, f"{share * 100:.0f}", "%", Source.COMPUTED,
                                   f"{show(r0, OHM)} over {show(together(parts) + more, OHM)}, whatever the chip"),
                as_seen(led, now.value, now.value * share), bars, share == aim, {SENSE.id: " ‖ ".join(texts)},
            )
        )  # fmt: skip
    order = {True: 0, False: 1}
    first = sorted(out, key=lambda w: (bool(w.bars), order[w.advised], abs(math.log(w.share.value / wanted))))
    # Only one is advised, though two may leave the same.
    return tuple(
        w if n == 0 or not w.advised else Way(w.label, w.what, w.share, w.light, w.bars, False, w.changes)
        for n, w in enumerate(first)
    )


def _line(best: Way | None) -> str:
    if best is None:
        return "Nothing here reaches it within what the chip stands."
    return f"{best.label}: {best.share.number} % of the current. {best.light}"


def _watts(typed: Details, amps: float) -> float | None:
    each = typed.value(EACH.id)
    return None if each is None else amps * each * typed.count(COUNT.id, 500)


def _figures(typed: Details, now: Shown, after: Shown) -> tuple[Figure, ...]:
    share = after.value / now.value
    out = [Figure("Through the LEDs", now, after)]
    watts = _watts(typed, now.value)
    if watts is not None:
        was = shown(watts, WATT, "LEDs' volts times their current", now.source)
        out.append(
            Figure(
                "Power in the LEDs", was, shown(watts * share, WATT, f"{percent(share)} of it", now.source)
            )
        )
    board = typed.value(BOARD.id, above=None)
    if board is not None:
        room = _room(typed)
        hot, cool = _junctions(typed, now.value, share)
        out.append(
            Figure(
                "Junction", part_shown(hot, f"{board:g} °C read outside, its board warmer, and the package's own rise",
                           Source.ASSUMED),
                part_shown(cool, f"its rise over {room:g} °C of air goes with the power", Source.ASSUMED),
            )
        )  # fmt: skip
    return tuple(out)


def _room(typed: Details) -> float:
    room = typed.value(ROOM.id, above=None)
    return 25.0 if room is None else room


def _junctions(typed: Details, amps: float, share: float) -> tuple[float, float]:
    """Junction now and after, °C: all rises over the air go with the power."""
    board, room = typed.value(BOARD.id, above=None), _room(typed)
    assert board is not None
    own = amps * (typed.value(EACH.id) or 3.1) * (1 - LIGHT_SHARE) * _JUNCTION_K_W
    rise = (board - room) * _INSIDE + own
    return room + rise, room + rise * share


def _judged(typed: Details, now: Shown, share: float, best: Way | None, sure: bool) -> tuple[Judged, ...]:
    out = []
    if best is None:
        out.append(Judged("mind", "What is wanted lies beyond what the chip stands.",
                          "Raised to more than double, such a chip may flicker or leave its range: two steps, or "
                          "leave it."))  # fmt: skip
    if typed.value(BOARD.id, above=None) is not None:
        hot, cool = _junctions(typed, now.value, share)
        grade = "stop" if hot > MOST_C else "mind" if hot > LONG_C else "note"
        out.append(
            Judged(
                grade,  # type: ignore[arg-type]  # one of its grades
                f"The junction is near {part_celsius(hot)}; after it {part_celsius(cool)}: {life_text(hot, cool)}.",
                "Ten kelvin double it (8 to 15 by material; common practice after Arrhenius). Long life wants under "
                f"{LONG_C:g} °C; {MOST_C:g} °C is the most.",
            )
        )  # fmt: skip
    if not sure:
        out.append(Judged("note", "The current itself is in pencil.",
                          "The chip's data sheet gives its reference; its marking is often on top. The ratio needs "
                          "neither."))  # fmt: skip
    return tuple(out)


def _deck(typed: Details, sense: tuple[float, ...], amps: float, led: Led) -> str:
    """The reference over the sense resistors, and what they set through the string."""
    count, each = typed.count(COUNT.id, 500), typed.value(EACH.id) or led.vf_typ
    junction = led.junction(led.vf_typ)
    # A package of several dice is so many junctions.
    dice = max(round(each / led.vf_typ), 1) * count
    parts: list[Element] = [VoltageSource("Vref", "ref", "0", Dc(amps * together(sense)))]
    parts += [Resistor(f"Rsense{k}", "ref", "0", ohm) for k, ohm in enumerate(sense, 1)]
    model = DiodeModel(float(junction.i_s), junction.n * dice, junction.r_s * dice, nominal_c=REFERENCE_C)
    parts += [CurrentSource("Iset", "0", "leds", Dc(amps)), Diode("Dleds", "leds", "0", model)]
    return write_deck(Circuit(tuple(parts), celsius=REFERENCE_C, title="driver board"))
