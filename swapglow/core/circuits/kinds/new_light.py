"""A light where none was: from a logic pin, from a supply found by measuring, from another lamp's feed."""

from collections.abc import Iterator
from dataclasses import dataclass

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import CircuitResult, Fault, Figure, Option
from swapglow.core.circuits.toolkit import asks
from swapglow.core.circuits.toolkit.picture import picture
from swapglow.core.circuits.toolkit.ratings import StatedAmps
from swapglow.core.circuits.toolkit.solved import States, solve_states
from swapglow.core.circuits.toolkit.wiring import Wiring
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led
from swapglow.core.parts.resistor import rating_to_fit
from swapglow.core.photometry.light_law import candela_at
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.quantities import AMPERE, CANDELA, OHM, VOLT, WATT, InputError, percent, show, shown
from swapglow.core.values import preferred

FROM = Detail(
    "feed",
    "What it is to hang on",
    None,
    "",
    (
        ("cmos", "Logic pin, CMOS"),
        ("ttl", "Logic pin, bipolar 5 V logic"),
        ("rail", "A supply found by measuring"),
        ("lamp", "Another lamp's feed"),
    ),
)
HIGH = Detail("high", "Volts there, light wanted", VOLT, "4.6V, read at the worst moment; of a pin while it is high")
MOST = Detail("most", "Most it ever is", VOLT, "5.25V; empty: a twentieth more")
LOW = Detail("low", "Volts of the pin while it is low", VOLT, "0.3V; empty takes 0.4V")
SUPPLY = Detail("supply", "Supply beside it", VOLT, "5V; empty: the pin's own high volts")
GIVES = Detail("gives", "Current it can spare", AMPERE, "4mA, from its data sheet less what hangs on it")
AMPS = Detail("amps", "Current wanted in it", AMPERE, "2mA; empty takes that")

_USUAL_A, _LOW_V = 2e-3, 0.4
# Below this share of the current wanted, the light counts as failed.
_LEAST_SHARE = 0.5
# What a pin gives and what it swallows while its volts are still good for logic (data sheets, from memory).
_PINS = {"cmos": (4e-3, 4e-3), "ttl": (0.4e-3, 8e-3)}
_TTL_MOST_V = 5.5
_ABOVE = 1.05
# A small NPN transistor as a switch: a twentieth of its current into the base (common practice).
_FORCED, _BE_V = 20.0, 0.7
# Drills for a bezel's clip and for the bare LED, mm, by the size in its name (common practice).
_DRILLS = {"3": (3.0, 4.0), "5": (5.0, 6.5)}


@dataclass(frozen=True)
class NewLightCase:
    """What it is to hang on.

    Attributes:
        feed: the kind of it.
        high, most: volts there with light wanted, and the most it ever is.
        low, supply: volts of a pin while it is low, and of the supply beside it.
        gives: current it can spare, A; None where not stated.
        led, wanted: the LED and the current wanted in it, A.
    """

    feed: str
    high: float
    most: float
    low: float
    supply: float
    gives: float | None
    led: Led
    wanted: float


@dataclass(frozen=True)
class Hung:
    """A way to hang it on.

    Attributes:
        id, label, what: what it is.
        ohm: the resistor that goes with it, Ω.
        found: its circuit solved.
        spares: what the pin or supply may give for it, A; None where that is not known.
        pin: the element whose current that is.
        bars: why it should not be done, whatever flows; empty where nothing speaks against it.
    """

    id: str
    label: str
    what: str
    ohm: float
    found: States
    spares: float | None
    pin: str = "Vfeed"
    bars: str = ""

    @property
    def amps(self) -> float:
        """Through the LED, A."""
        return max(float(self.found.amps("D1")[0]), 0.0)

    @property
    def taken(self) -> float:
        """What the pin or supply gives for it, A."""
        return abs(float(self.found.amps(self.pin)[0]))


def _plain(volts: float, led: Led, ohm: float, title: str) -> States:
    w = Wiring(title)
    w.source("Vfeed", "feed", volts)
    w.resistor("R1", "feed", "string", ohm)
    w.led("D1", "string", "0", led)
    return solve_states(w, title)


def _switched(c: NewLightCase, ohm: float, base: float) -> States:
    """The LED on the supply, a small NPN transistor to ground, its base from the pin."""
    w = Wiring("through a transistor")
    w.source("Vsupply", "supply", c.supply)
    w.source("Vpin", "pin", c.high)
    w.resistor("R1", "supply", "string", ohm)
    w.led("D1", "string", "collector", c.led)
    w.resistor("Rbase", "pin", "base", base)
    w.npn("Q1", "collector", "base", "0")
    return solve_states(w, "Through a transistor")


class NewLight(CircuitKind[NewLightCase]):
    """Indicators added: a power light, a busy light, a lit dial."""

    id = "new_light"
    order = 10
    label = "A light where none was"
    looks = (
        "Nothing yet: a panel without a lamp, a signal somebody wants to see. Find a supply that is there when the "
        "light should be, and absent when not: read it in every state, with everything on."
    )
    never = (
        "Hang nothing on a line that something measures, on a signal of sound or radio, or on the mains side. Supply "
        "off while it is soldered; drilled filings inside a set are shorts: tape, vacuum, look."
    )
    parts = (
        ("Vfeed", "what feeds it", "high"),
        ("Vsupply", "supply", "supply"),
        ("Vpin", "pin", "high"),
        ("R1", "resistor", ""),
        ("Rbase", "base resistor", ""),
        ("D1", "LED", "led"),
    )
    details = (FROM, HIGH, MOST, LOW, SUPPLY, GIVES, asks.led_detail(), AMPS)

    def case(self, typed: Details) -> NewLightCase:
        """What it is to hang on, as typed."""
        high = typed.value(HIGH.id)
        if high is None:
            raise InputError(HIGH.id, f"Type the {HIGH.label[0].lower()}{HIGH.label[1:]}: {HIGH.hint}.")
        most = typed.value(MOST.id) or high * _ABOVE
        if most < high:
            raise InputError(MOST.id, f"The most, {show(most, VOLT)}, is under {show(high, VOLT)}.")
        led, wanted, low = asks.read_led(typed), typed.value(AMPS.id) or _USUAL_A, typed.value(LOW.id, above=None)
        if wanted > led.rated_a:
            raise InputError(AMPS.id, f"{show(wanted, AMPERE)} are over its rated {show(led.rated_a, AMPERE)}.")
        return NewLightCase(
            typed.choice(FROM.id),
            high,
            most,
            _LOW_V if low is None else low,
            typed.value(SUPPLY.id) or high,
            typed.value(GIVES.id),
            led,
            wanted,
        )

    def states(self, case: NewLightCase) -> tuple[StatedAmps, ...]:
        """Nothing is there yet: the current that is wanted."""
        return (StatedAmps(case.led.rated_a, case.wanted, "As wanted"),)

    def options(self, now: NewLightCase, typed: Details, chosen: str) -> list[Option]:
        """The ways to hang it on; the first that nothing speaks against is ours."""
        out = [_option(h, now.wanted) for h in _hung(now)]
        ours = next((o.id for o in out if not o.bars), None)
        return sorted(out, key=lambda o: o.id != ours)

    def report(self, job: Job[NewLightCase]) -> CircuitResult:
        """Its resistor, and what the pin or supply has to give for it."""
        c = job.now
        best = next((h for h in _hung(c) if job.option is not None and h.id == job.option.id), None)
        if best is None:
            vf = float(c.led.junction(c.led.vf_typ).volts(c.wanted))
            line = "Nothing here can be spared for it: less current, another supply, or ask less of the pin."
            if vf > c.high:
                line = f"{show(c.high, VOLT)} do not light it: it wants {show(vf, VOLT)}."
            return CircuitResult(line=line, findings=_findings(c))
        return CircuitResult(
            line=f"{best.label}, {show(best.ohm, OHM)}: {show(best.amps, AMPERE)} in the LED.",
            figures=_figures(best, c.led),
            faults=_faults(best),
            findings=(*(o.finding for o in best.found.judged()), *_findings(c)),
            spice=best.found.deck(),
            wiring=picture(self.parts, best.found.wiring, best.found, job.typed),
        )


KIND = NewLight()


def _sized(c: NewLightCase, volts: float) -> float | None:
    """The next higher value at which no more than is wanted flows, of the luckiest LED (Ohm)."""
    exact = (volts - float(c.led.junction(c.led.vf_low).volts(c.wanted))) / c.wanted
    return preferred.prefer(exact, "E24", "up") if exact >= 1 else None


def _hung(c: NewLightCase) -> Iterator[Hung]:
    ohm = _sized(c, c.most)
    if c.feed in ("rail", "lamp"):
        if ohm is not None:
            label = "LED and resistor across it"
            yield Hung(
                "across", label, f"{show(ohm, OHM)} in either lead", ohm, _plain(c.high, c.led, ohm, label), c.gives
            )
        return
    gives, swallows = _PINS[c.feed] if c.gives is None else (c.gives, c.gives)
    if ohm is not None:
        label = "From the pin to ground"
        what = f"{show(ohm, OHM)}: lights while the pin is high"
        yield Hung("to-ground", label, what, ohm, _plain(c.high, c.led, ohm, label), gives)
    # A supply that was typed may be a twentieth higher, as the pin's own volts may.
    top = max(c.supply * _ABOVE, c.most)
    sinks = _sized(c, top - c.low)
    if sinks is not None:
        label = "From the supply into the pin"
        what = f"{show(sinks, OHM)}: lights while the pin is low"
        yield Hung(
            "into-pin",
            label,
            what,
            sinks,
            _plain(c.supply - c.low, c.led, sinks, label),
            swallows,
            bars=_into(c, sinks),
        )
    driven = _sized(c, top - 0.1)
    if driven is not None and c.high > _BE_V * 1.5:
        base = preferred.prefer((c.high - _BE_V) / (c.wanted / _FORCED), "E24", "down")
        what = f"{show(driven, OHM)} at the LED, {show(base, OHM)} to a small NPN's base: lights while the pin is high"
        yield Hung("transistor", "Through a transistor", what, driven, _switched(c, driven, base), gives, "Vpin")


def _into(c: NewLightCase, ohm: float) -> str:
    """What speaks against an LED from the supply into a pin, while the pin is high."""
    if c.feed == "ttl":
        # Such a pin swallows nothing while it is high; but it stands its own supply and no more.
        return "" if c.supply <= _TTL_MOST_V else f"{show(c.supply, VOLT)} are more than such a pin stands."
    if c.supply <= c.high:
        return ""
    amps = max(float(_plain(c.supply - c.high, c.led, ohm, "Pin high").amps("D1")[0]), 0.0)
    dark = visibility(candela_at(c.led, amps)) == "dark"
    return "" if dark else f"{show(amps, AMPERE)} run on while the pin is high: it never goes out."


def _option(h: Hung, wanted: float) -> Option:
    bars = h.bars
    if not bars and h.spares is not None and h.taken > h.spares * 1.0001:
        bars = f"It would take {show(h.taken, AMPERE)} where {show(h.spares, AMPERE)} can be spared."
    if not bars and h.amps < _LEAST_SHARE * wanted:
        bars = f"Only {show(h.amps, AMPERE)} flow with a typical LED."
    spared = "" if h.spares is None else f", {percent(h.taken / h.spares)} of what it can spare"
    return Option(
        h.id,
        h.label,
        h.what,
        shown(h.amps, AMPERE, "through the LED, typical"),
        "current",
        f"It takes {show(h.taken, AMPERE)} there{spared}.",
        bars,
        advised=True,
    )


def _figures(h: Hung, led: Led) -> tuple[Figure, ...]:
    light, watts = candela_at(led, h.amps), h.amps**2 * h.ohm
    fit = rating_to_fit(watts, h.amps * h.ohm)
    return (
        Figure("current", "Through the LED", shown(h.amps, AMPERE, f"typical LED behind {show(h.ohm, OHM)}")),
        Figure("taken", "Taken of what it hangs on", shown(h.taken, AMPERE, "all that the pin or supply gives for it")),
        Figure("light", "Light", shown(light, CANDELA, f"on the axis: {WORDS[visibility(light)]}")),
        Figure("heat", "Heat in its resistor", shown(watts, WATT, "I²R" + (f"; fit {fit:g} W or more" if fit else ""))),
    )


def _faults(h: Hung) -> tuple[Fault, ...]:
    out = (
        Fault("turned", "LED turned round", "Dark; under five volts it takes no harm. Turn it."),
        Fault("no-resistor", "Resistor left out", "The LED and the pin share whatever flows: one of them goes first."),
    )
    swapped = Fault(
        "collector-emitter",
        "Collector and emitter exchanged",
        "It still lights, weaker: turned round it hardly amplifies.",
    )
    return (*out, swapped) if h.pin == "Vpin" else out


def _findings(c: NewLightCase) -> tuple[Finding, ...]:
    out = []
    if c.feed == "ttl":
        out.append(
            Finding(
                "swallows-more",
                "note",
                "Such a pin swallows far more than it gives.",
                why="0.4 mA out and 8 mA in or so (data sheets, from memory): the LED to the supply, lit while low.",
            )
        )
    if c.feed in _PINS and c.gives is None:
        out.append(
            Finding(
                "spare-assumed",
                "note",
                "What the pin can spare is from memory.",
                why="Its data sheet, less what hangs on it, decides.",
            )
        )
    if c.feed == "rail":
        out.append(
            Finding(
                "read-every-state",
                "note",
                "Read it in every state before anything is soldered.",
                why="A supply that is there on standby, or stays up after switching off, makes a light that lies.",
            )
        )
    if c.feed == "lamp":
        out.append(
            Finding(
                "two-on-one",
                "mind",
                "Two lamps on one feed: what drives it sees both.",
                why="A flasher, a monitor or a pin may count the current: look at that lamp's own view first.",
            )
        )
    drills = next((d for size, d in _DRILLS.items() if f"-{size}-" in c.led.id), None)
    if drills is not None:
        out.append(
            Finding(
                "drill",
                "note",
                f"Drill {drills[0]:g} mm for the bare LED, {drills[1]:g} mm for a clip bezel.",
                why="Try the drill in scrap first: clips differ (common practice).",
            )
        )
    return tuple(out)
