"""An LED that needs a heat sink: its driver, its junction, its light beside the old lamp's."""

from swapglow.core.engine.netlist import Circuit, CurrentSource, Dc, Resistor, VoltageSource
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.life import LIGHT_SHARE, LONG_C, MOST_C, Chain
from swapglow.core.fitted.worked import Fault, Figure, Judged, Way, Worked, gravest_first, picked
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
from swapglow.core.quantities.inputs import read_quantity, read_share, read_single
from swapglow.core.quantities.parse import Parsed
from swapglow.core.quantities.part_heat import part_celsius, part_shown

LED_V = Detail("led_v", "Volts of the LED at its current", VOLT, "30-36V, with its ends; a COB's window")
LED_A = Detail("led_a", "Most it is rated for", AMPERE, "900mA", at="led_v")
AMPS = Detail("amps", "Current it is driven at", AMPERE, "700mA; empty takes the driver's", at="led_v")
DRIVER_A = Detail("driver_a", "Driver's current", AMPERE, "700mA, or 600-700mA where it is set")
DRIVER_V = Detail("driver_v", "Driver's window", VOLT, "24-42V; volts it can hold its current at")
DIM = Detail("dim", "How it is dimmed", None, "", (
    ("no", "Not at all"), ("pulses", "By pulses"), ("current", "By less current"),
))  # fmt: skip
CASE = Detail("case", "Junction to case", KELVIN_PER_WATT, "0.8K/W from its data sheet; empty takes 1")
PASTE = Detail("paste", "Paste or pad", KELVIN_PER_WATT, "0.1 paste, 0.5 pad; empty takes 0.2")
SINK = Detail("sink", "Heat sink to air", KELVIN_PER_WATT, "2.2K/W, as it is blown or not")
ROOM = Detail("room", "Air in the case", CELSIUS, "45°C with the lid on; empty takes 40 °C")
FAN = Detail(
    "fan", "Air over the sink", None, "", (("still", "Still air"), ("fan", "The old fan, kept running"))
)
LUMENS = Detail("lumens", "Its light at the current it is rated with", LUMEN, "3000lm")
ACCEPT = Detail("accept", "Share of it the optics take", None, "20 %; empty takes all")
OLD = Detail("old", "The old lamp's light", LUMEN, "2400lm; 250 W halogen some 8000lm")
OLD_ACCEPT = Detail(
    "old_accept", "Share of that the optics took", None, "35 % with its reflector; empty takes all"
)
SWITCHED = Detail("switched", "What switches its supply", None, "The set's own switch; a plug of its own")
OLD_FEED = Detail("old_feed", "What fed the old lamp", None, "", (
    ("mains", "The mains, by a socket"), ("transformer", "A transformer, now without a load"),
    ("other", "Something else"),
))  # fmt: skip

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


class PowerLed(FittedKind):
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
        LED_V, LED_A, DRIVER_A, DRIVER_V, AMPS, DIM, CASE, PASTE, SINK, FAN, ROOM, LUMENS, ACCEPT, OLD, OLD_ACCEPT,
        SWITCHED, OLD_FEED,
    )  # fmt: skip

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """Junction, driver, light, and what saves it where it would cook."""
        window = _range(typed, LED_V)
        if window is None:
            raise InputError(LED_V.id, f"Type its volts: {LED_V.hint}.")
        sink = typed.value(SINK.id)
        if sink is None:
            raise InputError(SINK.id, f"Type the sink's: {SINK.hint}. Without one it is never lit.")
        driver = _range(typed, DRIVER_A)
        amps = typed.value(AMPS.id) or (driver.high if driver is not None else typed.value(LED_A.id))
        if amps is None:
            raise InputError(AMPS.id, f"Type the current: {AMPS.hint}.")
        chain, room = _chain(typed, sink), _room(typed)
        heat = amps * window.usual * (1 - LIGHT_SHARE)
        # The worst end has the most volts it may want besides the doubt of the chain.
        least, most = (heat * volts / window.usual for volts in (window.low, window.high))
        ends = (room + least * chain.ends[0], room + most * chain.ends[1])
        junction = room + heat * chain.k_w
        judged = [*_of_heat(junction, ends), *_of_driver(typed, window, amps), *_of_job(typed)]
        ways = _ways(typed, window, amps, chain, room, ends[1])
        return Worked(
            line=f"Junction {part_celsius(junction)}, between {part_celsius(ends[0])} and {part_celsius(ends[1])}, "
            f"at {show(amps, AMPERE)}.",
            figures=_figures(typed, window, amps, heat, junction, chain, picked(ways, chosen)),
            ways=ways,
            faults=_faults(typed, chain, room, heat),
            judged=gravest_first(judged),
            spice=_deck(heat, chain, room),
        )


KIND = PowerLed()


def _range(typed: Details, detail: Detail) -> Parsed | None:
    text = typed.text(detail.id)
    assert detail.unit is not None
    return read_quantity(detail.id, text, detail.unit, above=0) if text else None


def _room(typed: Details) -> float:
    room = typed.value(ROOM.id, above=None)
    return _ROOM_C if room is None else room


def _chain(typed: Details, sink: float) -> Chain:
    parts = []
    for name, label in (("case", "junction to case"), ("paste", "paste or pad")):
        parts.append((label, typed.value(name) or _USUAL[name], _DOUBT[name]))
    return Chain((*parts, ("sink to air", sink, _DOUBT["sink"])))


def _source(typed: Details) -> Source:
    """A junction is in pencil where a step of its chain is."""
    known = all(
        not typed.input(d.id).empty and typed.input(d.id).source != Source.ASSUMED
        for d in (CASE, PASTE, SINK)
    )
    return Source.COMPUTED if known else Source.ASSUMED


def _junction_with(way: Way, window: Parsed, amps: float, chain: Chain, room: float) -> Shown:
    """The junction after what is chosen."""
    if AMPS.id in way.changes:
        amps = read_single(AMPS.id, way.changes[AMPS.id], AMPERE)
    if SINK.id in way.changes:
        chain = Chain(
            (
                *chain.parts[:-1],
                ("sink to air", read_single(SINK.id, way.changes[SINK.id], KELVIN_PER_WATT), _DOUBT["sink"]),
            )
        )
    heat = amps * window.usual * (1 - LIGHT_SHARE)
    return part_shown(room + heat * chain.k_w, way.label.lower())


def _faults(typed: Details, chain: Chain, room: float, heat: float) -> tuple[Fault, ...]:
    """What a fault makes of the junction, by the same chain."""
    case, paste, sink = (k for _, k, _ in chain.parts)
    dry = room + heat * (case + paste * _DRY + sink)
    out = [
        Fault("Paste forgotten, or a pad's foil left on", f"The junction goes to some {part_celsius(dry)}.")
    ]
    if typed.choice(FAN.id) == "fan":
        still = room + heat * (case + paste + sink * _STILL)
        out.append(
            Fault(
                "The fan stops",
                f"The junction goes to some {part_celsius(still)}: what stops the light with it?",
            )
        )
    out += [
        Fault(
            "One die is a short",
            "The current stays; volts and heat go down by that die's share.",
        ),
        Fault(
            "One die of a row is open",
            "The row is dark, and rows beside it take its current on top of theirs.",
        ),
        Fault(
            "Driver made for more volts than it wants",
            "It may hunt, or refuse to start: the window has two ends.",
        ),
    ]
    return tuple(out)


def _figures(typed: Details, window: Parsed, amps: float, heat: float, junction: float, chain: Chain,
             way: Way | None) -> tuple[Figure, ...]:  # fmt: skip
    steps, at = [], _room(typed)
    for label, k_w, _ in reversed(chain.parts):
        at += heat * k_w
        steps.append(f"{label} {heat * k_w:.0f} K")
    out = [
        Figure(
            "Power", shown(amps * window.usual, WATT, f"{show(window.usual, VOLT)} × {show(amps, AMPERE)}")
        ),
        Figure(
            "Heat in it",
            shown(heat, WATT, f"all but the {LIGHT_SHARE * 100:.0f} % that leave as light (from memory)"),
        ),
        Figure(
            "Junction",
            part_shown(junction, f"{_room(typed):g} °C of air; " + ", ".join(steps), _source(typed)),
            None if way is None else _junction_with(way, window, amps, chain, _room(typed)),
        ),
    ]
    lumens, rated = typed.value(LUMENS.id), typed.value(LED_A.id)
    if lumens is not None:
        # Driven at less it gives more for its current, up to a tenth (data sheets, from memory).
        share = amps / rated if rated else 1.0
        beam = (
            lumens
            * share
            * max(1.1 - 0.1 * min(share, _MOST_DRIVE), 0.0)
            * read_share(ACCEPT.id, typed.text(ACCEPT.id), 1.0)
        )
        now = shown(beam, LUMEN, "its light at this current, and what the optics take of it", Source.ASSUMED)
        old = typed.value(OLD.id)
        if old is None:
            out.append(Figure("Light in the beam", now))
        else:
            was = old * read_share(OLD_ACCEPT.id, typed.text(OLD_ACCEPT.id), 1.0)
            before = shown(
                was,
                LUMEN,
                f"the old lamp's, as the optics took it: {eye_text(beam / was)} × now",
                Source.ASSUMED,
            )
            out.append(Figure("Light in the beam, the old lamp's first", before, now))
    return tuple(out)


def _of_heat(junction: float, ends: tuple[float, float]) -> list[Judged]:
    doubt = f"{part_celsius(ends[0])} to {part_celsius(ends[1])} as far as paste, sink and air are known"
    limits = f"{doubt}; {MOST_C:g} °C is the most, {LONG_C:g} °C for a long life (data sheets, from memory)."
    if junction > MOST_C:
        return [Judged("stop", f"It cooks: its junction comes to {part_celsius(junction)}.", limits)]
    if ends[1] > MOST_C:
        message = f"It may cook: its junction comes to {part_celsius(junction)}, at worst to {part_celsius(ends[1])}."
        return [Judged("mind", message, limits)]
    if junction > LONG_C:
        return [Judged("mind", f"Its junction comes to {part_celsius(junction)}: it holds, for a shorter life.",
                       f"{doubt}; {LONG_C:g} °C and less make it last.")]  # fmt: skip
    return []


def _of_driver(typed: Details, window: Parsed, amps: float) -> list[Judged]:
    out = []
    rated, volts, current = typed.value(LED_A.id), _range(typed, DRIVER_V), _range(typed, DRIVER_A)
    if rated is not None and amps > rated * (1 + 1e-9):
        out.append(Judged("stop", f"{show(amps, AMPERE)} is over the {show(rated, AMPERE)} it is rated for.",
                          "A driver of less current, or one that can be set."))  # fmt: skip
    if volts is not None and window.high > volts.high:
        out.append(Judged("stop", f"The driver ends at {show(volts.high, VOLT)}; the LED may want "
                                  f"{show(window.high, VOLT)}.",
                          "It would flicker or stay dark when cold: match current and volts (common "
                          "practice)."))  # fmt: skip
    if volts is not None and window.high < volts.low:
        out.append(Judged("stop", f"The driver begins at {show(volts.low, VOLT)}; the LED never wants more than "
                                  f"{show(window.high, VOLT)}.",
                          "Out of its window it hiccups, stays dark or lets more through: another driver, or more LEDs "
                          "in series."))  # fmt: skip
    elif volts is not None and window.low < volts.low:
        out.append(Judged("mind", f"The driver begins at {show(volts.low, VOLT)}; the LED may want but "
                                  f"{show(window.low, VOLT)}.",
                          "Under its window it hiccups or lets more through."))  # fmt: skip
    dim = typed.choice(DIM.id)
    if dim == "current":
        # Each decade of current less takes n·Vt·ln 10 of every die (Shockley 1949), and what its series ohms kept.
        low = window.low * _DIMMED_V
        fits = volts is None or low >= volts.low
        message = f"Dimmed to a tenth it wants but some {show(low, VOLT, 2)}" + (
            "."
            if volts is None or fits
            else f": under the driver's {show(volts.low, VOLT)}, where it lets go."
        )
        why = "White dice lose a tenth or so of their volts (from memory); their colour hardly moves."
        out.append(Judged("note" if fits else "mind", message, why))
    if dim == "pulses":
        why = "Past some kilohertz nobody tells; the peak stays what the driver gives, and so does its limit."
        out.append(Judged("note", "Dimmed by pulses: shutters and moving blades see stripes.", why))
    if volts is None or current is None:
        out.append(Judged("note", "The driver's current and window are not both typed.",
                          "Both must match: a right current at too few volts is no match."))  # fmt: skip
    return out


def _deck(heat: float, chain: Chain, room: float) -> str:
    """Heat's way as a circuit: watts are amps, kelvin per watt are ohms, degrees are volts (textbook)."""
    case, paste, sink = (k for _, k, _ in chain.parts)
    parts = (
        VoltageSource("Vair", "air", "0", Dc(room)), CurrentSource("Iheat", "0", "junction", Dc(heat)),
        Resistor("Rcase", "junction", "case", case), Resistor("Rpaste", "case", "sink", paste),
        Resistor("Rsink", "sink", "air", sink),
    )  # fmt: skip
    return write_deck(Circuit(parts, title="heat from junction to air"))


def _of_job(typed: Details) -> list[Judged]:
    out = []
    if typed.choice(FAN.id) == "fan":
        out.append(Judged("mind", "It lives by the fan: let the fan run whenever the light does.",
                          "Wire both to one switch; a thermal switch on the sink guards it when the fan "
                          "stops."))  # fmt: skip
    if typed.choice(OLD_FEED.id) == "transformer":
        out.append(Judged("mind", "The old transformer has no load left: its volts rise.",
                          "What else hangs on it sees up to a fifth more (common practice): read it, or take it "
                          "off."))  # fmt: skip
    if not typed.text(SWITCHED.id):
        out.append(Judged("note", "What switches its supply is not written down.",
                          "A light with a supply of its own is left on, or worked on live."))  # fmt: skip
    out.append(Judged("note", "Reflector and heat glass come out where the LED lights the condenser itself.",
                      "They were for a filament; the die sits on the optical axis, where the filament "
                      "was."))  # fmt: skip
    return out


def _ways(
    typed: Details, window: Parsed, amps: float, chain: Chain, room: float, worst: float
) -> tuple[Way, ...]:
    """A better sink, or less current, each until even its worst end stands."""
    if worst <= MOST_C or room >= MOST_C:
        return ()
    heat = amps * window.high * (1 - LIGHT_SHARE)
    others = Chain(chain.parts[:-1])
    # Doubt of all parts together as the sink shrinks: solved by halving.
    low, high = 0.0, chain.parts[-1][1]
    for _ in range(60):
        middle = (low + high) / 2
        found = Chain((*others.parts, ("sink to air", middle, _DOUBT["sink"])))
        low, high = (middle, high) if room + heat * found.ends[1] <= LONG_C else (low, middle)
    out = []
    if low > 0.02:
        out.append(Way(
            f"A sink of {number_text(low)} K/W or better", "larger, finned upright, or blown by the fan",
            Shown(1.0, "100", "%", Source.COMPUTED, "of the current"), f"Its worst end then stays under {LONG_C:g} °C.",
                "",
            True, {SINK.id: f"{number_text(low)} K/W"},
        ))  # fmt: skip
    share = (MOST_C - room) / (heat * chain.ends[1])
    barred = "" if share >= _LEAST_SHARE else "Next to nothing would be left."
    less = amps * share
    out.append(Way(
        f"Drive it at {show(less, AMPERE, 2)}", "the sink as it is", Shown(share, f"{share * 100:.0f}",
            "%", Source.COMPUTED,
        "of the current"), f"Its worst end then reaches {MOST_C:g} °C.", barred, not out and not barred,
        {AMPS.id: show(less, AMPERE, 2)},
    ))  # fmt: skip
    return tuple(out)
