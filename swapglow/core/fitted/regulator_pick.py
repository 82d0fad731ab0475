"""A regulator picked from several: what holds at the lowest volts, what stays cool at the highest, and its pins."""

from dataclasses import dataclass

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
from swapglow.core.engine.operating_point import operating_point
from swapglow.core.engine.spice import write_deck
from swapglow.core.findings.regulators import MOST_C
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.ratings import SLACK, led_current
from swapglow.core.fitted.worked import Fault, Figure, Judged, PinRow, Way, Worked
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import MOST_IN_SERIES, Led, catalogue
from swapglow.core.parts.regulator import RegulatorPart, regulators
from swapglow.core.parts.resistor import rating_to_fit
from swapglow.core.quantities import AMPERE, CELSIUS, OHM, VOLT, WATT, InputError, show, shown
from swapglow.core.quantities.part_heat import part_celsius, part_shown
from swapglow.core.values import preferred

LOW = Detail("low", "Lowest volts before it", VOLT, "10.5V, at the worst moment")
HIGH = Detail("high", "Highest volts before it", VOLT, "15V")
LED = led_detail()
SERIES = Detail("series", "LEDs in series", None, "How many; empty: one")
STRINGS = Detail("strings", "Strings side by side on it", None, "How many; empty: one")
AMPS = Detail("amps", "Current of a string", AMPERE, "12mA; empty takes half the LED's rating")
AIR = Detail("air", "Air around it", CELSIUS, "45°C; empty takes 40°C")
SINK = Detail("sink", "Heat sink", None, "", (("no", "None"), ("yes", "A small one")))
BATTERY = Detail("cells", "On a battery", None, "", (("no", "No"), ("yes", "Yes: its own current counts")))

_USUAL_AIR_C = 40.0
# What a resistor behind a fixed regulator must keep to set a current at all (ours).
_LEAST_OVER_V = 0.5
# Warm to the touch and no more (ours): of two that stand, the cooler is taken.
_SMALL_SHARE = 0.05


@dataclass(frozen=True)
class Tried:
    """One regulator in this place.

    Attributes:
        part: which.
        ohm: each string's resistor, or the one that sets a source, Ω.
        amps: through one string at the lowest volts with LEDs of the highest Vf; ``high_a`` at the highest with
            LEDs of the lowest, A; ``usual_a`` with typical ones at the lowest.
        head: volts left over what it needs at the lowest with LEDs of the highest Vf, V; less than nothing lacks.
        usual_head: the same with typical ones.
        watts: heat in it at the highest volts with LEDs of the lowest Vf, W.
        junction: then, °C.
        bars: why it will not do; empty where it will.
    """

    part: RegulatorPart
    ohm: float
    amps: float
    high_a: float
    usual_a: float
    head: float
    usual_head: float
    watts: float
    junction: float
    bars: str


class RegulatorPick(FittedKind):
    """Lamps on a rail that wanders: vehicles, dynamos, batteries."""

    id = "regulator_pick"
    order = 6
    label = "A regulator for LEDs, picked"
    looks = (
        "A rail that wanders too far for a resistor, or light that must not change. A part with three legs, printed or "
        "flat on one side, sometimes bolted to metal."
    )
    never = (
        "Pins differ by package and by kind: read the data sheet of the part in your hand before it is soldered. The "
        "tab is mostly its middle pin, and not ground on every kind: insulate it from a sink that is on the frame."
    )
    details = (LOW, HIGH, LED, SERIES, STRINGS, AMPS, AIR, SINK, BATTERY)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """Every regulator of the table in this place, the one to take first."""
        low, high, led, count, strings, amps = _asked(typed)
        sink = typed.choice(SINK.id) == "yes"
        air = typed.value(AIR.id, above=None)
        air = _USUAL_AIR_C if air is None else air
        every = [_tried(p, low, high, led, count, strings, amps, air, sink) for p in regulators().values()]
        good = sorted((t for t in every if not t.bars), key=lambda t: _rank(t, typed))
        ordered = [*good, *(t for t in every if t.bars)]
        ways = tuple(_way(t, t is (good[0] if good else None)) for t in ordered)
        taken = next((t for t in ordered if _label(t) == chosen), good[0] if good else None)
        line = (
            "None of them holds here: look at what each lacks." if taken is None
            else f"{_label(taken)}, {show(taken.ohm, OHM)} {_set_by(taken)}: {show(taken.amps, AMPERE)} to "
                 f"{show(taken.high_a, AMPERE)} a string from {show(low, VOLT)} to {show(high, VOLT)}."
        )  # fmt: skip
        return Worked(
            line=line, figures=() if taken is None else _figures(taken, strings),
            pins=() if taken is None else _pins(taken.part), ways=ways,
            faults=() if taken is None else _faults(taken.part, low),
            judged=(*_over(led, amps, taken), *_judged(typed, taken, sink, strings)),
            spice="" if taken is None
            else write_deck(circuit(taken.part, high, led, count, strings, taken.ohm, led.vf_low)),
        )  # fmt: skip


KIND = RegulatorPick()


def _asked(typed: Details) -> tuple[float, float, Led, int, int, float]:
    low, high = typed.value(LOW.id), typed.value(HIGH.id)
    if low is None or high is None:
        missing = LOW if low is None else HIGH
        raise InputError(
            missing.id, f"Type the {missing.label[0].lower()}{missing.label[1:]}: {missing.hint}."
        )
    if high < low:
        raise InputError(HIGH.id, f"The highest, {show(high, VOLT)}, is under the lowest, {show(low, VOLT)}.")
    led = catalogue()[typed.choice(LED.id)]
    amps = typed.value(AMPS.id) or led.rated_a / 2
    return low, high, led, typed.count(SERIES.id, MOST_IN_SERIES), typed.count(STRINGS.id, 50), amps


def circuit(part: RegulatorPart, volts: float, led: Led, count: int, strings: int, ohm: float,
            vf: float) -> Circuit:  # fmt: skip
    """A regulator with its strings, each behind a resistor; a source with the resistor that sets it.

    With the head it needs a fixed one holds its volts and a source carries Vref/R; with less either keeps its dropout.

    Args:
        part: the regulator.
        volts: before it.
        led: the LED of the strings.
        count: in series in each.
        strings: how many; equal ones are one of their sum.
        ohm: each string's resistor, or the one that sets the source, Ω.
        vf: of one of the LEDs, at the current that the catalogue gives it at, V.

    Returns:
        The circuit; the LEDs are "D1".
    """
    junction = led.junction(vf)
    model = DiodeModel(float(junction.i_s) * strings, junction.n * count, junction.r_s * count / strings,
                       nominal_c=REFERENCE_C)  # fmt: skip
    left = max(volts - part.dropout, 0.0)
    parts: tuple[Element, ...] = (
        VoltageSource("Vrail", "feed", "0", Dc(volts)),
        Diode("D1", "leds", "0", model),
    )
    if part.kind == "fixed":
        kept = VoltageSource("Vkept", "feed", "held", Dc(volts - min(part.volts, left)))
        own = CurrentSource("Iown", "feed", "0", Dc(part.quiescent))
        parts += (kept, own, Resistor("R1", "held", "leds", ohm / strings))
    else:
        amps = part.volts / ohm + part.adjust_a
        if count * float(junction.volts(amps / strings)) <= left:
            parts += (CurrentSource("Iset", "feed", "leds", Dc(amps)),)
        else:
            parts += (VoltageSource("Vkept", "feed", "leds", Dc(volts - left)),)
    return Circuit(parts, celsius=REFERENCE_C, title=part.label.lower())


def _tried(part: RegulatorPart, low: float, high: float, led: Led, count: int, strings: int, amps: float, air: float,
           sink: bool) -> Tried:  # fmt: skip
    """One regulator with the resistor that goes with it, solved at both ends of the rail."""
    least, string, most = (
        count * float(led.junction(vf).volts(amps)) for vf in (led.vf_low, led.vf_typ, led.vf_high)
    )
    total = amps * strings
    if part.kind == "source":
        exact = part.volts / max(total - part.adjust_a, 1e-6)
        usual_head, head = low - string - part.dropout, low - most - part.dropout
    else:
        # LEDs of the lowest Vf carry most: they must stay within their rating too.
        rated = count * float(led.junction(led.vf_low).volts(led.rated_a))
        exact = max((part.volts - string) / amps, (part.volts - rated) / led.rated_a)
        usual_head = head = low - part.volts - part.dropout
    ohm = preferred.prefer(exact, "E24", "up") if exact >= 0.1 else 0.1
    bars = _bars(part, high, least, most, total, head, strings)
    if bars and part.kind == "fixed" and part.volts - most < _LEAST_OVER_V:
        return Tried(part, ohm, 0.0, 0.0, 0.0, head, usual_head, 0.0, air, bars)
    ends = [
        operating_point(circuit(part, v, led, count, strings, ohm, vf)).require()
        for v, vf in ((low, led.vf_high), (high, led.vf_low), (low, led.vf_typ))
    ]
    at_low, at_high, usual = (max(float(p.current("D1")[0]), 0.0) / strings for p in ends)
    leds_v = float(ends[1].voltage("leds")[0])
    if part.kind == "source":
        # The set resistor's share is in the head it needs: I²R of it is not in the part itself.
        watts = max(high - leds_v - part.volts, 0.0) * at_high * strings
    else:
        watts = (high - part.volts) * at_high * strings + high * part.quiescent
    junction = air + watts * (part.sink_k_w if sink else part.heat_k_w)
    if not bars and junction > MOST_C:
        bars = f"Its junction would reach {part_celsius(junction)}; {MOST_C:g} °C is the most."
    return Tried(part, ohm, at_low, at_high, usual, head, usual_head, watts, junction, bars)


def _bars(part: RegulatorPart, high: float, least: float, most: float, total: float, head: float,
          strings: int) -> str:  # fmt: skip
    if part.kind == "source" and strings > 1:
        return "Strings behind one source share its current as their luck has it: a source for each, or a fixed one."
    if part.kind == "fixed" and part.volts - most < _LEAST_OVER_V:
        wanted = f"the LEDs want up to {show(most, VOLT)} and a resistor something over."
        return f"It holds {show(part.volts, VOLT)}; {wanted}"
    if head < 0:
        return f"At the lowest it lacks {show(-head, VOLT)} of what it needs over itself."
    across = high - least if part.kind == "source" else high
    if across > part.most_v * SLACK:
        return f"{show(across, VOLT)} at the highest are over its {show(part.most_v, VOLT)}."
    if total > part.limit_a * SLACK:
        return f"{show(total, AMPERE)} are over its {show(part.limit_a, AMPERE)}."
    if total * SLACK < part.least_a:
        return f"It wants {show(part.least_a, AMPERE)} to hold; these are {show(total, AMPERE)}."
    return ""


def _rank(t: Tried, typed: Details) -> tuple[float, ...]:
    """Of those that hold: on a battery what takes least for itself, then the cooler, then the smaller."""
    own = t.part.quiescent if typed.choice(BATTERY.id) == "yes" else 0.0
    return own, round(t.junction, 0), t.part.limit_a


def _label(t: Tried) -> str:
    return t.part.label


def _set_by(t: Tried) -> str:
    return "sets it" if t.part.kind == "source" else "in each string"


def _way(t: Tried, advised: bool) -> Way:
    own = f", {show(t.part.quiescent, AMPERE)} for itself" if t.part.quiescent else ""
    what = f"{show(t.ohm, OHM)} {_set_by(t)}; {show(t.watts, WATT)} in it at the highest volts{own}"
    hot = part_shown(t.junction, "its junction at the highest volts")
    usual = "" if t.head == t.usual_head else f", {show(t.usual_head, VOLT)} with typical LEDs"
    light = f"{show(t.head, VOLT)} to spare at the lowest{usual}." if t.head >= 0 else ""
    return Way(_label(t), what, hot, light, t.bars, advised, {})


def _figures(t: Tried, strings: int) -> tuple[Figure, ...]:
    through = t.high_a * (strings if t.part.kind == "source" else 1)
    fit = rating_to_fit(through**2 * t.ohm, through * t.ohm)
    with_ = f"{show(t.ohm, OHM)}" + ("" if fit is None else f"; {fit:g} W or more")
    usual = f"LEDs of the highest Vf; {show(t.usual_a, AMPERE)} with typical ones; {with_}"
    hot = part_shown(t.junction, "air and heat by its package")
    return (
        Figure("Through a string at the lowest", shown(t.amps, AMPERE, usual)),
        Figure("Through a string at the highest", shown(t.high_a, AMPERE, f"LEDs of the lowest Vf; {with_}")),
        Figure("Heat in the regulator", shown(t.watts, WATT, "volts over it times its current, and its own")),
        Figure("Its junction", hot),
    )  # fmt: skip


def pin_names(part: RegulatorPart) -> tuple[str, ...]:
    """A regulator's pins from left to right in the view that its row names.

    Args:
        part: the regulator.

    Returns:
        Their names.
    """
    return tuple(p.strip() for p in part.pins.split("·"))


def _pins(part: RegulatorPart) -> tuple[PinRow, ...]:
    """Both faces: what stands left from the front stands right from behind."""
    names = pin_names(part)
    return (
        PinRow(part.package, part.view, names),
        PinRow(part.package, "seen from behind, or from the side one solders", names[::-1]),
    )


def _faults(part: RegulatorPart, low: float) -> tuple[Fault, ...]:
    """What exchanged pins do (behaviour of such parts: common practice)."""
    if part.kind == "source":
        return (
            Fault(
                "In and out exchanged",
                "Nothing is held: some volts stand over it and the LEDs glow faintly or not at all. Mostly it lives.",
            ),
            Fault(
                "Adjust and out exchanged",
                "The set resistor is out of its way: the LEDs carry whatever it lets through. Try it first with a "
                "larger resistor in series.",
            ),
            Fault("The set resistor open", "Only its adjust pin's microamps flow: dark."),
        )
    return (
        Fault(
            "In and out exchanged",
            f"Current goes backwards through it: the LEDs see about {show(low, VOLT)} less a diode, unregulated, and "
            "the part may die.",
        ),
        Fault(
            "Its ground leg open",
            f"The output climbs to within a volt or two of the input, {show(low, VOLT)} and more: the LEDs carry many "
            "times theirs.",
        ),
        Fault(
            "Ground and in exchanged",
            "A short through its own body: it heats at once. Switched off soon, it may live.",
        ),
        Fault(
            "No capacitors beside it",
            f"It may whistle at hundreds of kilohertz, get warm and hold less. {part.capacitors}, close to its legs.",
        ),
    )


def _over(led: Led, amps: float, taken: Tried | None) -> tuple[Judged, ...]:
    asked = tuple(led_current(led, amps, "As asked"))
    return asked or (() if taken is None else tuple(led_current(led, taken.high_a, "At the highest volts")))


def _judged(typed: Details, t: Tried | None, sink: bool, strings: int) -> tuple[Judged, ...]:
    if t is None:
        why = "More head, fewer LEDs in series, less current, or a heat sink; or a resistor alone after all."
        return (Judged("mind", "No regulator of the table will do.", why),)
    out = []
    if t.junction > MOST_C - 25:
        out.append(Judged("mind", f"Its junction comes to {part_celsius(t.junction)} of {MOST_C:g} °C.",
                          "A sink is better than none here: each ten kelvin less doubles what it lasts."))  # fmt: skip
    if sink and t.part.sink_k_w == t.part.heat_k_w:
        out.append(
            Judged("note", "A sink does nothing for this small package.", f"{t.part.package} has no tab.")
        )
    if t.part.quiescent > _SMALL_SHARE * t.amps * strings and typed.choice(BATTERY.id) == "yes":
        share = t.part.quiescent / max(t.amps * strings, 1e-9)
        message = (
            f"It takes {show(t.part.quiescent, AMPERE)} for itself: {share * 100:.0f} % more off the battery."
        )
        out.append(
            Judged("mind", message, "On a battery a source takes nothing beside the LEDs' own current.")
        )
    out.append(
        Judged("note", f"Capacitors: {t.part.capacitors}.", "Within a couple of centimetres of its legs.")
    )
    return tuple(out)
