"""A regulator picked from several: what holds at the lowest volts, what stays cool at the highest, and its pins."""

from dataclasses import dataclass

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import CircuitResult, Fault, Figure, Option, PinRow
from swapglow.core.circuits.toolkit import asks
from swapglow.core.circuits.toolkit.picture import picture
from swapglow.core.circuits.toolkit.ratings import SLACK, StatedAmps
from swapglow.core.circuits.toolkit.solved import solve_states
from swapglow.core.circuits.toolkit.wiring import Wiring
from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import CurrentSource, Dc, Diode, DiodeModel
from swapglow.core.findings.finding import Finding
from swapglow.core.findings.regulators import MOST_C
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import MOST_IN_SERIES, Led
from swapglow.core.parts.regulator import RegulatorPart, regulators
from swapglow.core.parts.resistor import rating_to_fit
from swapglow.core.quantities import AMPERE, CELSIUS, OHM, VOLT, WATT, InputError, show, shown
from swapglow.core.quantities.part_heat import part_celsius, part_shown
from swapglow.core.values import preferred

LOW = Detail("low", "Lowest volts before it", VOLT, "10.5V, at the worst moment")
HIGH = Detail("high", "Highest volts before it", VOLT, "15V")
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
class RegulatorCase:
    """What is asked of it.

    Attributes:
        low, high: volts before it.
        led, series, strings, amps: its LEDs: in series, strings side by side, current of one, A.
        air: around it, °C; ``sink`` whether it has a small one; ``cells`` whether it is on a battery.
    """

    low: float
    high: float
    led: Led
    series: int
    strings: int
    amps: float
    air: float
    sink: bool
    cells: bool

    def volts(self, vf: float, amps: float) -> float:
        """Of a string of LEDs of so many forward volts at a current, V.

        Args:
            vf: of one LED at the current that the catalogue gives it at, V.
            amps: through the string, A.

        Returns:
            V.
        """
        return self.series * float(self.led.junction(vf).volts(amps))

    @property
    def tried(self) -> list["Tried"]:
        """Every regulator of the table in this place, those that hold first, the one to take first of all."""
        every = [_tried(self, part) for part in regulators().values()]
        good = sorted((t for t in every if not t.bars), key=self.rank)
        return [*good, *(t for t in every if t.bars)]

    def rank(self, t: "Tried") -> tuple[float, ...]:
        """Of those that hold: on a battery what takes least for itself, then the cooler, then the smaller."""
        return (t.part.quiescent if self.cells else 0.0), round(t.junction, 0), t.part.limit_a


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


def wired_up(c: RegulatorCase, part: RegulatorPart, volts: float, ohm: float, vf: float) -> Wiring:
    """A regulator with its strings, each behind a resistor; a source with the resistor that sets it.

    With the head it needs a fixed one holds its volts and a source carries Vref/R; with less either keeps its dropout.

    Args:
        c: what is asked.
        part: the regulator.
        volts: before it.
        ohm: each string's resistor, or the one that sets the source, Ω.
        vf: of one of the LEDs, at the current that the catalogue gives it at, V.

    Returns:
        The circuit; the LEDs are "D1", equal strings as one of their sum.
    """
    w, left = Wiring(part.label.lower()), max(volts - part.dropout, 0.0)
    w.source("Vrail", "feed", volts)
    junction = c.led.junction(vf)
    model = DiodeModel(
        float(junction.i_s) * c.strings,
        junction.n * c.series,
        junction.r_s * c.series / c.strings,
        nominal_c=REFERENCE_C,
    )
    w.add(Diode("D1", "leds", "0", model))
    w.lights.append("D1")
    if part.kind == "fixed":
        w.source("Vkept", "feed", volts - min(part.volts, left), "held")
        w.add(CurrentSource("Iown", "feed", "0", Dc(part.quiescent)))
        w.resistor("R1", "held", "leds", ohm / c.strings)
        return w
    amps = part.volts / ohm + part.adjust_a
    if c.volts(vf, amps / c.strings) <= left:
        w.add(CurrentSource("Iset", "feed", "leds", Dc(amps)))
    else:
        w.source("Vkept", "feed", volts - left, "leds")
    return w


class RegulatorPick(CircuitKind[RegulatorCase]):
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
    parts = (
        ("Vrail", "rail", "low"),
        ("Vkept", "regulator", ""),
        ("Iown", "its own current", ""),
        ("Iset", "sets the current", "amps"),
        ("R1", "resistor", ""),
        ("D1", "LEDs", "led"),
    )
    details = (LOW, HIGH, asks.led_detail(), SERIES, STRINGS, AMPS, AIR, SINK, BATTERY)

    def case(self, typed: Details) -> RegulatorCase:
        """What is asked, as typed."""
        low, high = typed.value(LOW.id), typed.value(HIGH.id)
        if low is None or high is None:
            missing = LOW if low is None else HIGH
            raise InputError(missing.id, f"Type the {missing.label[0].lower()}{missing.label[1:]}: {missing.hint}.")
        if high < low:
            raise InputError(HIGH.id, f"The highest, {show(high, VOLT)}, is under the lowest, {show(low, VOLT)}.")
        led, air = asks.read_led(typed), typed.value(AIR.id, above=None)
        return RegulatorCase(
            low,
            high,
            led,
            typed.count(SERIES.id, MOST_IN_SERIES),
            typed.count(STRINGS.id, 50),
            typed.value(AMPS.id) or led.rated_a / 2,
            _USUAL_AIR_C if air is None else air,
            typed.choice(SINK.id) == "yes",
            typed.choice(BATTERY.id) == "yes",
        )

    def states(self, case: RegulatorCase) -> tuple[StatedAmps, ...]:
        """The current that is asked for: a regulator that is over a rating of its own is barred."""
        return (StatedAmps(case.led.rated_a, case.amps, "As asked"),)

    def options(self, now: RegulatorCase, typed: Details, chosen: str) -> list[Option]:
        """Every regulator of the table, the one to take first."""
        return [_option(t) for t in now.tried]

    def report(self, job: Job[RegulatorCase]) -> CircuitResult:
        """Every regulator of the table in this place, the one to take first."""
        c = job.now
        t = next((t for t in c.tried if job.option is not None and t.part.id == job.option.id), None)
        if t is None:
            return CircuitResult(
                line="None of them holds here: look at what each lacks.",
                findings=(
                    Finding(
                        "none-holds",
                        "mind",
                        "No regulator of the table will do.",
                        why="More head, fewer LEDs in series, less current, or a heat sink; or a resistor alone after "
                        "all.",
                    ),
                ),
            )
        fitted = wired_up(c, t.part, c.high, t.ohm, c.led.vf_low)
        over = StatedAmps(c.led.rated_a, t.high_a, "At the highest volts").judged() if c.amps <= c.led.rated_a else ()
        return CircuitResult(
            line=f"{t.part.label}, {show(t.ohm, OHM)} {_set_by(t)}: {show(t.amps, AMPERE)} to "
            f"{show(t.high_a, AMPERE)} a string from {show(c.low, VOLT)} to {show(c.high, VOLT)}.",
            figures=_figures(t, c.strings),
            pins=_pins(t.part),
            faults=_faults(t.part, c.low),
            findings=(*(o.finding for o in over), *_findings(c, t)),
            spice=fitted.deck(),
            wiring=picture(self.parts, fitted, None, job.typed),
        )


KIND = RegulatorPick()


def _tried(c: RegulatorCase, part: RegulatorPart) -> Tried:
    """One regulator with the resistor that goes with it, solved at both ends of the rail."""
    led, total = c.led, c.amps * c.strings
    least, string, most = (c.volts(vf, c.amps) for vf in (led.vf_low, led.vf_typ, led.vf_high))
    if part.kind == "source":
        exact = part.volts / max(total - part.adjust_a, 1e-6)
        usual_head, head = c.low - string - part.dropout, c.low - most - part.dropout
    else:
        # LEDs of the lowest Vf carry most: they must stay within their rating too.
        rated = c.volts(led.vf_low, led.rated_a)
        exact = max((part.volts - string) / c.amps, (part.volts - rated) / led.rated_a)
        usual_head = head = c.low - part.volts - part.dropout
    ohm = preferred.prefer(exact, "E24", "up") if exact >= 0.1 else 0.1
    bars = _bars(c, part, least, most, head)
    if bars and part.kind == "fixed" and part.volts - most < _LEAST_OVER_V:
        return Tried(part, ohm, 0.0, 0.0, 0.0, head, usual_head, 0.0, c.air, bars)
    ends = [
        solve_states(wired_up(c, part, volts, ohm, vf), "")
        for volts, vf in ((c.low, led.vf_high), (c.high, led.vf_low), (c.low, led.vf_typ))
    ]
    at_low, at_high, usual = (max(float(s.amps("D1")[0]), 0.0) / c.strings for s in ends)
    if part.kind == "source":
        # The set resistor's share is in the head it needs: I²R of it is not in the part itself.
        watts = max(c.high - float(ends[1].volts("leds")[0]) - part.volts, 0.0) * at_high * c.strings
    else:
        watts = (c.high - part.volts) * at_high * c.strings + c.high * part.quiescent
    junction = c.air + watts * (part.sink_k_w if c.sink else part.heat_k_w)
    if not bars and junction > MOST_C:
        bars = f"Its junction would reach {part_celsius(junction)}; {MOST_C:g} °C is the most."
    return Tried(part, ohm, at_low, at_high, usual, head, usual_head, watts, junction, bars)


def _bars(c: RegulatorCase, part: RegulatorPart, least: float, most: float, head: float) -> str:
    """Why it will not do; empty where it will."""
    total, strings, high = c.amps * c.strings, c.strings, c.high
    if part.kind == "source" and strings > 1:
        return "Strings on one source share its current unevenly. Use a source for each, or a fixed regulator."
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


def _set_by(t: Tried) -> str:
    return "sets it" if t.part.kind == "source" else "in each string"


def _option(t: Tried) -> Option:
    own = f", {show(t.part.quiescent, AMPERE)} for itself" if t.part.quiescent else ""
    what = f"{show(t.ohm, OHM)} {_set_by(t)}; {show(t.watts, WATT)} in it at the highest volts{own}"
    usual = "" if t.head == t.usual_head else f", {show(t.usual_head, VOLT)} with typical LEDs"
    spare = f"{show(t.head, VOLT)} to spare at the lowest{usual}." if t.head >= 0 else ""
    return Option(
        t.part.id,
        t.part.label,
        what,
        part_shown(t.junction, "its junction at the highest volts"),
        "temperature",
        spare,
        t.bars,
        advised=True,
    )


def _figures(t: Tried, strings: int) -> tuple[Figure, ...]:
    through = t.high_a * (strings if t.part.kind == "source" else 1)
    fit = rating_to_fit(through**2 * t.ohm, through * t.ohm)
    with_ = f"{show(t.ohm, OHM)}" + ("" if fit is None else f"; {fit:g} W or more")
    usual = f"LEDs of the highest Vf; {show(t.usual_a, AMPERE)} with typical ones; {with_}"
    at_high = shown(t.high_a, AMPERE, f"LEDs of the lowest Vf; {with_}")
    return (
        Figure("string-low", "Through a string at the lowest", shown(t.amps, AMPERE, usual)),
        Figure("string-high", "Through a string at the highest", at_high),
        Figure("heat", "Heat in the regulator", shown(t.watts, WATT, "volts over it times its current, and its own")),
        Figure("junction", "Its junction", part_shown(t.junction, "air and heat by its package")),
    )


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
                "in-out",
                "In and out exchanged",
                "It regulates nothing, and the LEDs glow faintly or stay dark. It usually survives.",
            ),
            Fault(
                "adjust-out",
                "Adjust and out exchanged",
                "The set resistor is out of its way: the LEDs carry whatever it lets through. Try it first with a "
                "larger resistor in series.",
            ),
            Fault("set-open", "The set resistor open", "Only its adjust pin's microamps flow: dark."),
        )
    return (
        Fault(
            "in-out",
            "In and out exchanged",
            f"Current goes backwards through it: the LEDs see about {show(low, VOLT)} less a diode, unregulated, and "
            "the part may die.",
        ),
        Fault(
            "ground-open",
            "Its ground leg open",
            f"The output climbs to within a volt or two of the input, {show(low, VOLT)} and more: the LEDs carry many "
            "times theirs.",
        ),
        Fault(
            "ground-in",
            "Ground and in exchanged",
            "A short through its own body: it heats at once. Switched off soon, it may live.",
        ),
        Fault(
            "no-capacitors",
            "No capacitors beside it",
            f"It may whistle at hundreds of kilohertz, get warm and hold less. {part.capacitors}, close to its legs.",
        ),
    )


def _findings(c: RegulatorCase, t: Tried) -> tuple[Finding, ...]:
    out, part = [], t.part
    if t.junction > MOST_C - 25:
        out.append(
            Finding(
                "hot-junction",
                "mind",
                f"Its junction comes to {part_celsius(t.junction)} of {MOST_C:g} °C.",
                part_celsius(t.junction),
                f"{MOST_C:g} °C",
                "A sink is better than none here: each ten kelvin less doubles what it lasts.",
            )
        )
    if c.sink and part.sink_k_w == part.heat_k_w:
        out.append(
            Finding("no-tab", "note", "A sink does nothing for this small package.", why=f"{part.package} has no tab.")
        )
    if c.cells and part.quiescent > _SMALL_SHARE * t.amps * c.strings:
        share = part.quiescent / max(t.amps * c.strings, 1e-9)
        out.append(
            Finding(
                "own-current",
                "mind",
                f"It takes {show(part.quiescent, AMPERE)} for itself: {share * 100:.0f} % more off the battery.",
                why="On a battery a source takes nothing beside the LEDs' own current.",
            )
        )
    out.append(
        Finding(
            "capacitors", "note", f"Capacitors: {part.capacitors}.", why="Within a couple of centimetres of its legs."
        )
    )
    return tuple(out)
