"""An LED that needs a heat sink: its driver, its junction, its light beside the old lamp's."""

from dataclasses import dataclass

from swapglow.core.circuits.kind import CircuitKind, Job, Judged
from swapglow.core.circuits.result import CircuitResult, Fault, Figure, Option
from swapglow.core.circuits.toolkit.life import LIGHT_SHARE, LONG_C, MOST_C, Chain
from swapglow.core.circuits.toolkit.ratings import StatedAmps
from swapglow.core.circuits.toolkit.wiring import Wiring
from swapglow.core.engine.netlist import CurrentSource, Dc
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.photometry.words import eye_text
from swapglow.core.quantities import (
    AMPERE,
    CELSIUS,
    KELVIN_PER_WATT,
    LUMEN,
    VOLT,
    WATT,
    InputError,
    Shown,
    Source,
    number_text,
    show,
    shown,
)
from swapglow.core.quantities.inputs import read_quantity, read_share
from swapglow.core.quantities.parse import Parsed
from swapglow.core.quantities.part_heat import part_celsius, part_shown

LED_V = Detail("led_v", "Volts of the LED at its current", VOLT, "30-36V, with its ends; a COB's window")
LED_A = Detail("led_a", "Most it is rated for", AMPERE, "900mA", at="led_v")
AMPS = Detail("amps", "Current it is driven at", AMPERE, "700mA; empty takes the driver's", at="led_v")
DRIVER_A = Detail("driver_a", "Driver's current", AMPERE, "700mA, or 600-700mA where it is set")
DRIVER_V = Detail("driver_v", "Driver's window", VOLT, "24-42V; volts it can hold its current at")
DIM = Detail(
    "dim", "How it is dimmed", None, "", (("no", "Not at all"), ("pulses", "By pulses"), ("current", "By less current"))
)
CASE = Detail("case", "Junction to case", KELVIN_PER_WATT, "0.8K/W from its data sheet; empty takes 1")
PASTE = Detail("paste", "Paste or pad", KELVIN_PER_WATT, "0.1 paste, 0.5 pad; empty takes 0.2")
SINK = Detail("sink", "Heat sink to air", KELVIN_PER_WATT, "2.2K/W, as it is blown or not")
ROOM = Detail("room", "Air in the case", CELSIUS, "45°C with the lid on; empty takes 40 °C")
FAN = Detail("fan", "Air over the sink", None, "", (("still", "Still air"), ("fan", "The old fan, kept running")))
LUMENS = Detail("lumens", "Its light at the current it is rated with", LUMEN, "3000lm")
ACCEPT = Detail("accept", "Share of it the optics take", None, "20 %; empty takes all")
OLD = Detail("old", "The old lamp's light", LUMEN, "2400lm; 250 W halogen some 8000lm")
OLD_ACCEPT = Detail("old_accept", "Share of that the optics took", None, "35 % with its reflector; empty takes all")
SWITCHED = Detail("switched", "What switches its supply", None, "The set's own switch; a plug of its own")
OLD_FEED = Detail(
    "old_feed",
    "What fed the old lamp",
    None,
    "",
    (
        ("mains", "The mains, by a socket"),
        ("transformer", "A transformer, now without a load"),
        ("other", "Something else"),
    ),
)

_USUAL = {"case": 1.0, "paste": 0.2}
# How far such figures lie off, as a share: a data sheet's, a paste put on by hand, a sink's with its air (from memory).
# Past so many times its rating nothing is said of its light: it fails (ours).
_MOST_DRIVE = 1.5
_DOUBT = {"case": 0.2, "paste": 0.5, "sink": 0.3}
_ROOM_C = 40.0
# A dry joint beside a pasted one, and a blown sink in still air (from memory).
_DRY, _STILL = 5.0, 3.0
_LEAST_SHARE = 0.1
# Of a white die's volts at its current, what a tenth of it leaves (from memory).
_DIMMED_V = 0.88


@dataclass(frozen=True)
class PowerCase:
    """A power LED.

    Attributes:
        window: volts of the LED at its current.
        amps: that it is driven at; ``rated_a`` the most it is rated for, None where not stated.
        chain: heat's way from the junction to the air.
        sure: whether every step of it is known.
        room: air in the case, °C.
    """

    window: Parsed
    amps: float
    rated_a: float | None
    chain: Chain
    sure: bool
    room: float

    @property
    def heat(self) -> float:
        """Heat in it, W."""
        return self.amps * self.window.usual * (1 - LIGHT_SHARE)

    @property
    def junction(self) -> float:
        """Its junction, °C."""
        return self.room + self.heat * self.chain.k_w

    @property
    def ends(self) -> tuple[float, float]:
        """The junction at its coolest and hottest, °C: the worst has the most volts besides the chain's doubt."""
        least, most = (self.heat * volts / self.window.usual for volts in (self.window.low, self.window.high))
        return self.room + least * self.chain.ends[0], self.room + most * self.chain.ends[1]


class PowerLed(CircuitKind[PowerCase]):
    """One large die, several on one board, or a COB."""

    id = "power_led"
    order = 5
    label = "Power LED on a heat sink"
    looks = (
        "A yellow field or several dice on a metal or ceramic plate, two solder pads with + and −, screw holes: it "
        "is run from a driver with constant current and must be screwed or glued to metal."
    )
    never = (
        "Never lit without its heat sink, not for a second look. Its light hurts eyes at close range, its sink "
        "burns skin. A driver on the mains is for qualified people; local codes come first. Lid interlocks and the fan "
        "stay as they were."
    )
    details = (
        LED_V,
        LED_A,
        DRIVER_A,
        DRIVER_V,
        AMPS,
        DIM,
        CASE,
        PASTE,
        SINK,
        FAN,
        ROOM,
        LUMENS,
        ACCEPT,
        OLD,
        OLD_ACCEPT,
        SWITCHED,
        OLD_FEED,
    )

    def case(self, typed: Details) -> PowerCase:
        """The LED, its driver and its sink as typed."""
        window = _range(typed, LED_V)
        if window is None:
            raise InputError(LED_V.id, f"Type its volts: {LED_V.hint}.")
        sink = typed.value(SINK.id)
        if sink is None:
            raise InputError(SINK.id, f"Type the sink's: {SINK.hint}. Without one it is never lit.")
        driver, rated = _range(typed, DRIVER_A), typed.value(LED_A.id)
        amps = typed.value(AMPS.id) or (driver.high if driver is not None else rated)
        if amps is None:
            raise InputError(AMPS.id, f"Type the current: {AMPS.hint}.")
        steps = [
            (label, typed.value(name) or _USUAL[name], _DOUBT[name])
            for name, label in (("case", "junction to case"), ("paste", "paste or pad"))
        ]
        room = typed.value(ROOM.id, above=None)
        # A junction is in pencil where a step of its chain is.
        sure = all(
            not typed.input(d.id).empty and typed.input(d.id).source != Source.ASSUMED for d in (CASE, PASTE, SINK)
        )
        return PowerCase(window, amps, rated, _sunk(tuple(steps), sink), sure, _ROOM_C if room is None else room)

    def states(self, case: PowerCase) -> tuple[Judged, ...]:
        """Driven as typed: heat, and no circuit."""
        return () if case.rated_a is None else (StatedAmps(case.rated_a, case.amps, "As driven"),)

    def options(self, now: PowerCase, typed: Details, chosen: str) -> list[Option]:
        """A better sink, or less current, each until even its worst end stands."""
        if now.ends[1] <= MOST_C or now.room >= MOST_C:
            return []
        heat, out = now.amps * now.window.high * (1 - LIGHT_SHARE), []
        # Doubt of all parts together as the sink shrinks: solved by halving.
        low, high = 0.0, now.chain.parts[-1][1]
        for _ in range(60):
            middle = (low + high) / 2
            cool = now.room + heat * _sunk(now.chain.parts[:-1], middle).ends[1] <= LONG_C
            low, high = (middle, high) if cool else (low, middle)
        if low > 0.02:
            out.append(
                Option(
                    "sink",
                    f"A sink of {number_text(low)} K/W or better",
                    "larger, finned upright, or blown by the fan",
                    Shown(1.0, "100", "%", Source.COMPUTED, "of the current"),
                    "current_ratio",
                    f"Its worst end then stays under {LONG_C:g} °C.",
                    advised=True,
                    changes={SINK.id: f"{number_text(low)} K/W"},
                )
            )
        share = (MOST_C - now.room) / (heat * now.chain.ends[1])
        less = show(now.amps * share, AMPERE, 2)
        out.append(
            Option(
                "drive",
                f"Drive it at {less}",
                "the sink as it is",
                Shown(share, f"{share * 100:.0f}", "%", Source.COMPUTED, "of the current"),
                "current_ratio",
                f"Its worst end then reaches {MOST_C:g} °C.",
                "" if share >= _LEAST_SHARE else "Next to nothing would be left.",
                True,
                {AMPS.id: less},
            )
        )
        return out

    def report(self, job: Job[PowerCase]) -> CircuitResult:
        """Junction, driver, light, and what saves it where it would cook."""
        c = job.now
        return CircuitResult(
            line=f"Junction {part_celsius(c.junction)}, between {part_celsius(c.ends[0])} and "
            f"{part_celsius(c.ends[1])}, at {show(c.amps, AMPERE)}.",
            figures=_figures(job),
            faults=_faults(c, fan=job.typed.choice(FAN.id) == "fan"),
            findings=(*_of_heat(c), *_of_driver(job.typed, c), *_of_job(job.typed)),
            spice=_deck(c),
        )


KIND = PowerLed()


def _range(typed: Details, detail: Detail) -> Parsed | None:
    text = typed.text(detail.id)
    assert detail.unit is not None
    return read_quantity(detail.id, text, detail.unit, above=0) if text else None


def _sunk(steps: tuple[tuple[str, float, float], ...], sink: float) -> Chain:
    return Chain((*steps, ("sink to air", sink, _DOUBT["sink"])))


def _faults(c: PowerCase, *, fan: bool) -> tuple[Fault, ...]:
    """What a fault makes of the junction, by the same chain."""
    case, paste, sink = (k for _, k, _ in c.chain.parts)
    dry = c.room + c.heat * (case + paste * _DRY + sink)
    out = [
        Fault("no-paste", "Paste forgotten, or a pad's foil left on", f"The junction goes to some {part_celsius(dry)}.")
    ]
    if fan:
        still = part_celsius(c.room + c.heat * (case + paste + sink * _STILL))
        out.append(
            Fault("fan-stops", "The fan stops", f"The junction goes to some {still}: what stops the light with it?")
        )
    return (
        *out,
        Fault("die-shorted", "One die is a short", "The current stays; volts and heat go down by that die's share."),
        Fault(
            "die-open",
            "One die of a row is open",
            "The row is dark, and rows beside it take its current on top of theirs.",
        ),
        Fault(
            "driver-window",
            "Driver made for more volts than it wants",
            "It may hunt, or refuse to start: the window has two ends.",
        ),
    )


def _figures(job: Job[PowerCase]) -> tuple[Figure, ...]:
    c, typed = job.now, job.typed
    steps = ", ".join(f"{label} {c.heat * k_w:.0f} K" for label, k_w, _ in reversed(c.chain.parts))
    sure = Source.COMPUTED if c.sure else Source.ASSUMED
    after = None
    if job.after is not None and job.option is not None:
        after = part_shown(job.after.junction, job.option.label.lower())
    origin = f"{show(c.window.usual, VOLT)} × {show(c.amps, AMPERE)}"
    lost = f"all but the {LIGHT_SHARE * 100:.0f} % that leave as light (from memory)"
    out = [
        Figure("power", "Power", shown(c.amps * c.window.usual, WATT, origin)),
        Figure("heat", "Heat in it", shown(c.heat, WATT, lost)),
        Figure("junction", "Junction", part_shown(c.junction, f"{c.room:g} °C of air; {steps}", sure), after),
    ]
    lumens = typed.value(LUMENS.id)
    if lumens is None:
        return tuple(out)
    # Driven at less it gives more for its current, up to a tenth (data sheets, from memory).
    share = c.amps / c.rated_a if c.rated_a else 1.0
    beam = lumens * share * max(1.1 - 0.1 * min(share, _MOST_DRIVE), 0.0)
    beam *= read_share(ACCEPT.id, typed.text(ACCEPT.id), 1.0)
    now = shown(beam, LUMEN, "its light at this current, and what the optics take of it", Source.ASSUMED)
    old = typed.value(OLD.id)
    if old is None:
        return (*out, Figure("light", "Light in the beam", now))
    was = old * read_share(OLD_ACCEPT.id, typed.text(OLD_ACCEPT.id), 1.0)
    origin = f"the old lamp's, as the optics took it: {eye_text(beam / was)} × now"
    before = shown(was, LUMEN, origin, Source.ASSUMED)
    return (*out, Figure("light", "Light in the beam, the old lamp's first", before, now))


def _of_heat(c: PowerCase) -> tuple[Finding, ...]:
    cool, hot = (part_celsius(end) for end in c.ends)
    doubt, at = f"{cool} to {hot} as far as paste, sink and air are known", part_celsius(c.junction)
    limits = f"{doubt}; {MOST_C:g} °C is the most, {LONG_C:g} °C for a long life (data sheets, from memory)."
    if c.junction > MOST_C:
        return (Finding("cooks", "stop", f"It cooks: its junction comes to {at}.", at, f"{MOST_C:g} °C", limits),)
    if c.ends[1] > MOST_C:
        return (
            Finding(
                "may-cook",
                "mind",
                f"It may cook: its junction comes to {at}, at worst to {hot}.",
                hot,
                f"{MOST_C:g} °C",
                limits,
            ),
        )
    if c.junction > LONG_C:
        return (
            Finding(
                "shorter-life",
                "mind",
                f"Its junction comes to {at}: it holds, for a shorter life.",
                at,
                f"{LONG_C:g} °C",
                f"{doubt}; {LONG_C:g} °C and less make it last.",
            ),
        )
    return ()


def _of_driver(typed: Details, c: PowerCase) -> list[Finding]:
    out, window = [], c.window
    volts, current = _range(typed, DRIVER_V), _range(typed, DRIVER_A)
    if volts is not None and window.high > volts.high:
        out.append(
            Finding(
                "driver-ends",
                "stop",
                f"The driver ends at {show(volts.high, VOLT)}; the LED may want {show(window.high, VOLT)}.",
                show(window.high, VOLT),
                show(volts.high, VOLT),
                "It would flicker or stay dark when cold: match current and volts (common practice).",
            )
        )
    if volts is not None and window.high < volts.low:
        out.append(
            Finding(
                "driver-begins",
                "stop",
                f"The driver begins at {show(volts.low, VOLT)}; the LED never wants more than "
                f"{show(window.high, VOLT)}.",
                show(window.high, VOLT),
                show(volts.low, VOLT),
                "Out of its window it hiccups, stays dark or lets more through: another driver, or more LEDs in "
                "series.",
            )
        )
    elif volts is not None and window.low < volts.low:
        out.append(
            Finding(
                "driver-begins",
                "mind",
                f"The driver begins at {show(volts.low, VOLT)}; the LED may want but {show(window.low, VOLT)}.",
                show(window.low, VOLT),
                show(volts.low, VOLT),
                "Under its window it hiccups or lets more through.",
            )
        )
    dim = typed.choice(DIM.id)
    if dim == "current":
        # Each decade of current less takes n·Vt·ln 10 of every die (Shockley 1949), and what its series ohms kept.
        low = window.low * _DIMMED_V
        fits = volts is None or low >= volts.low
        tail = "." if volts is None or fits else f": under the driver's {show(volts.low, VOLT)}, where it lets go."
        out.append(
            Finding(
                "dimmed-volts",
                "note" if fits else "mind",
                f"Dimmed to a tenth it wants but some {show(low, VOLT, 2)}{tail}",
                why="White dice lose a tenth or so of their volts (from memory); their colour hardly moves.",
            )
        )
    if dim == "pulses":
        out.append(
            Finding(
                "pulses",
                "note",
                "Dimmed by pulses: shutters and moving blades see stripes.",
                why="Past some kilohertz nobody tells; the peak stays what the driver gives, and so does its limit.",
            )
        )
    if volts is None or current is None:
        out.append(
            Finding(
                "driver-untyped",
                "note",
                "The driver's current and window are not both typed.",
                why="Both must match: a right current at too few volts is no match.",
            )
        )
    return out


def _deck(c: PowerCase) -> str:
    """Heat's way as a circuit: watts are amps, kelvin per watt are ohms, degrees are volts (textbook)."""
    w = Wiring("heat from junction to air")
    w.source("Vair", "air", c.room)
    w.add(CurrentSource("Iheat", "0", "junction", Dc(c.heat)))
    nodes = ("junction", "case", "sink", "air")
    for name, k_w, a, b in zip(
        ("Rcase", "Rpaste", "Rsink"), (k for _, k, _ in c.chain.parts), nodes, nodes[1:], strict=False
    ):
        w.resistor(name, a, b, k_w)
    return w.deck()


def _of_job(typed: Details) -> list[Finding]:
    out = []
    if typed.choice(FAN.id) == "fan":
        out.append(
            Finding(
                "lives-by-fan",
                "mind",
                "It lives by the fan: let the fan run whenever the light does.",
                why="Wire both to one switch; a thermal switch on the sink guards it when the fan stops.",
            )
        )
    if typed.choice(OLD_FEED.id) == "transformer":
        out.append(
            Finding(
                "no-load-left",
                "mind",
                "The old transformer has no load left: its volts rise.",
                why="What else hangs on it sees up to a fifth more (common practice): read it, or take it off.",
            )
        )
    if not typed.text(SWITCHED.id):
        out.append(
            Finding(
                "switch-unknown",
                "note",
                "What switches its supply is not written down.",
                why="A light with a supply of its own is left on, or worked on live.",
            )
        )
    out.append(
        Finding(
            "optics",
            "note",
            "Reflector and heat glass come out where the LED lights the condenser itself.",
            why="They were for a filament; the die sits on the optical axis, where the filament was.",
        )
    )
    return out
