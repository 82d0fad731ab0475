"""A light where none was: from a logic pin, from a supply found by measuring, from another lamp's feed."""

from dataclasses import dataclass

import numpy as np

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import (
    Bjt,
    BjtModel,
    Circuit,
    Dc,
    Diode,
    DiodeModel,
    Element,
    Resistor,
    VoltageSource,
)
from swapglow.core.engine.operating_point import operating_point
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.worked import Fault, Figure, Judged, Way, Worked, gravest_first, picked
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.resistor import rating_to_fit
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.photometry.visibility import WORDS, visibility
from swapglow.core.quantities import (
    AMPERE,
    CANDELA,
    OHM,
    VOLT,
    WATT,
    InputError,
    percent,
    show,
    shown,
)
from swapglow.core.values import preferred

FROM = Detail("feed", "What it is to hang on", None, "", (
    ("cmos", "Logic pin, CMOS"), ("ttl", "Logic pin, bipolar 5 V logic"), ("rail", "A supply found by measuring"),
    ("lamp", "Another lamp's feed"),
))  # fmt: skip
HIGH = Detail(
    "high", "Volts there, light wanted", VOLT, "4.6V, read at the worst moment; of a pin while it is high"
)
MOST = Detail("most", "Most it ever is", VOLT, "5.25V; empty: a twentieth more")
LOW = Detail("low", "Volts of the pin while it is low", VOLT, "0.3V; empty takes 0.4V")
SUPPLY = Detail("supply", "Supply beside it", VOLT, "5V; empty: the pin's own high volts")
GIVES = Detail("gives", "Current it can spare", AMPERE, "4mA, from its data sheet less what hangs on it")
LED = led_detail()
AMPS = Detail("amps", "Current wanted in it", AMPERE, "2mA; empty takes that")

_USUAL_A, _LOW_V = 2e-3, 0.4
# Less than so much of what is wanted is no light that was meant.
_LEAST_SHARE = 0.5
# What a pin gives and what it swallows while its volts are still good for logic (data sheets, from memory).
_PINS = {"cmos": (4e-3, 4e-3), "ttl": (0.4e-3, 8e-3)}
_TTL_MOST_V = 5.5
_ABOVE = 1.05
# A small NPN transistor as a switch: a twentieth of its current into the base (common practice).
_FORCED, _BE_V = 20.0, 0.7
_NPN = BjtModel(i_s=1e-14, b_f=200.0)
# Drills for a bezel's clip and for the bare LED, mm, by the size in its name (common practice).
_DRILLS = {"3": (3.0, 4.0), "5": (5.0, 6.5)}


@dataclass(frozen=True)
class Hung:
    """A way to hang it on.

    Attributes:
        label, what: what it is.
        circuit: with the resistor that goes with it.
        ohm: that resistor, Ω.
        spares: what the pin or supply may give for it, A; None where that is not known.
        pin: the element whose current that is.
        bars: why it should not be done, whatever flows; empty where nothing speaks against it.
    """

    label: str
    what: str
    circuit: Circuit
    ohm: float
    spares: float | None
    pin: str
    bars: str = ""


class NewLight(FittedKind):
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
    details = (FROM, HIGH, MOST, LOW, SUPPLY, GIVES, LED, AMPS)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """Its resistor, and what the pin or supply has to give for it."""
        high = typed.value(HIGH.id)
        if high is None:
            raise InputError(HIGH.id, f"Type the {HIGH.label[0].lower()}{HIGH.label[1:]}: {HIGH.hint}.")
        most = typed.value(MOST.id) or high * _ABOVE
        if most < high:
            raise InputError(MOST.id, f"The most, {show(most, VOLT)}, is under {show(high, VOLT)}.")
        led, wanted = catalogue()[typed.choice(LED.id)], typed.value(AMPS.id) or _USUAL_A
        if wanted > led.rated_a:
            raise InputError(
                AMPS.id, f"{show(wanted, AMPERE)} are over its rated {show(led.rated_a, AMPERE)}."
            )
        hung = _hung(typed, high, most, led, wanted)
        tried = [(h, *_through(h)) for h in hung]
        ways = _ways(tried, wanted)
        way = picked(ways, chosen)
        best = next((t for t in tried if way is not None and t[0].label == way.label), None)
        return Worked(
            line=_line(high, best, led, wanted), figures=() if best is None else _figures(best, led),
            ways=ways, faults=_faults(best), judged=_judged(typed, led, best),
            spice="" if best is None else write_deck(best[0].circuit),
        )  # fmt: skip


KIND = NewLight()
_Tried = tuple[Hung, float, float]


def _led(led: Led, vf: float, a: str, b: str) -> Diode:
    junction = led.junction(vf)
    return Diode("D1", a, b, DiodeModel(float(junction.i_s), junction.n, junction.r_s, nominal_c=REFERENCE_C))


def _plain(volts: float, led: Led, vf: float, ohm: float, title: str) -> Circuit:
    parts: tuple[Element, ...] = (
        VoltageSource("Vfeed", "feed", "0", Dc(volts)), Resistor("R1", "feed", "string", ohm),
        _led(led, vf, "string", "0"),
    )  # fmt: skip
    return Circuit(parts, celsius=REFERENCE_C, title=title)


def _switched(pin: float, supply: float, led: Led, ohm: float, base: float) -> Circuit:
    """The LED on the supply, a small NPN transistor to ground, its base from the pin."""
    parts: tuple[Element, ...] = (
        VoltageSource("Vsupply", "supply", "0", Dc(supply)), VoltageSource("Vpin", "pin", "0", Dc(pin)),
        Resistor("R1", "supply", "string", ohm), _led(led, led.vf_typ, "string", "collector"),
        Resistor("Rbase", "pin", "base", base), Bjt("Q1", "collector", "base", "0", _NPN),
    )  # fmt: skip
    return Circuit(parts, celsius=REFERENCE_C, title="through a transistor")


def _sized(volts: float, led: Led, amps: float) -> float | None:
    """The next higher value at which no more than so much flows, of the luckiest LED (Ohm)."""
    exact = (volts - float(led.junction(led.vf_low).volts(amps))) / amps
    return preferred.prefer(exact, "E24", "up") if exact >= 1 else None


def _hung(typed: Details, high: float, most: float, led: Led, wanted: float) -> list[Hung]:
    kind = typed.choice(FROM.id)
    spare = typed.value(GIVES.id)
    ohm = _sized(most, led, wanted)
    if kind in ("rail", "lamp"):
        if ohm is None:
            return []
        label = "LED and resistor across it"
        return [
            Hung(
                label,
                f"{show(ohm, OHM)} in either lead",
                _plain(high, led, led.vf_typ, ohm, label),
                ohm,
                spare,
                "Vfeed",
            )
        ]
    out = []
    gives, swallows = _PINS[kind] if spare is None else (spare, spare)
    if ohm is not None:
        label = "From the pin to ground"
        what = f"{show(ohm, OHM)}: lights while the pin is high"
        out.append(Hung(label, what, _plain(high, led, led.vf_typ, ohm, label), ohm, gives, "Vfeed"))
    supply = typed.value(SUPPLY.id) or high
    # A supply that was typed may stand a twentieth higher, as the pin's own volts may.
    top = max(supply * _ABOVE, most)
    low = typed.value(LOW.id, above=None)
    low = _LOW_V if low is None else low
    sinks = _sized(top - low, led, wanted)
    if sinks is not None:
        label = "From the supply into the pin"
        what = f"{show(sinks, OHM)}: lights while the pin is low"
        made = _plain(supply - low, led, led.vf_typ, sinks, label)
        out.append(Hung(label, what, made, sinks, swallows, "Vfeed", _into(kind, supply, high, led, sinks)))
    driven = _sized(top - 0.1, led, wanted)
    if driven is not None and high > _BE_V * 1.5:
        base = preferred.prefer((high - _BE_V) / (wanted / _FORCED), "E24", "down")
        what = f"{show(driven, OHM)} at the LED, {show(base, OHM)} to a small NPN's base: lights while the pin is high"
        out.append(
            Hung(
                "Through a transistor",
                what,
                _switched(high, supply, led, driven, base),
                driven,
                gives,
                "Vpin",
            )
        )
    return out


def _into(kind: str, supply: float, high: float, led: Led, ohm: float) -> str:
    """What speaks against an LED from the supply into a pin, while the pin is high."""
    if kind == "ttl":
        # Such a pin swallows nothing while it is high; but it stands its own supply and no more.
        return "" if supply <= _TTL_MOST_V else f"{show(supply, VOLT)} are more than such a pin stands."
    if supply <= high:
        return ""
    point = operating_point(_plain(supply - high, led, led.vf_typ, ohm, "pin high")).require()
    amps = max(float(point.current("D1")[0]), 0.0)
    seen = visibility(float(relative_light(led, np.array([amps]))[0]) * led.candela)
    return "" if seen == "dark" else f"{show(amps, AMPERE)} run on while the pin is high: it never goes out."


def _through(h: Hung) -> tuple[float, float]:
    """Through the LED, and what the pin or supply gives for it, A."""
    point = operating_point(h.circuit).require()
    return max(float(point.current("D1")[0]), 0.0), abs(float(point.current(h.pin)[0]))


def _ways(tried: list[_Tried], wanted: float) -> tuple[Way, ...]:
    out = []
    for h, amps, taken in tried:
        bars = h.bars
        if not bars and h.spares is not None and taken > h.spares * 1.0001:
            bars = f"It would take {show(taken, AMPERE)} where {show(h.spares, AMPERE)} can be spared."
        spared = "" if h.spares is None else f", {percent(taken / h.spares)} of what it can spare"
        if not bars and amps < _LEAST_SHARE * wanted:
            bars = f"Only {show(amps, AMPERE)} flow with a typical LED."
        share = shown(amps, AMPERE, "through the LED, typical")
        out.append(
            Way(h.label, h.what, share, f"It takes {show(taken, AMPERE)} there{spared}.", bars, False, {})
        )
    ours = next((n for n, w in enumerate(out) if not w.bars), None)
    if ours is None:
        return tuple(out)
    ranked = [out[ours], *(w for n, w in enumerate(out) if n != ours)]
    return tuple(
        Way(w.label, w.what, w.share, w.light, w.bars, n == 0, w.changes) for n, w in enumerate(ranked)
    )


def _line(high: float, best: _Tried | None, led: Led, wanted: float) -> str:
    if best is None:
        vf = float(led.junction(led.vf_typ).volts(wanted))
        if vf > high:
            return f"{show(high, VOLT)} do not light it: it wants {show(vf, VOLT)}."
        return "Nothing here can be spared for it: less current, another supply, or ask less of the pin."
    return f"{best[0].label}, {show(best[0].ohm, OHM)}: {show(best[1], AMPERE)} in the LED."


def _figures(best: _Tried, led: Led) -> tuple[Figure, ...]:
    h, amps, taken = best
    light = float(relative_light(led, np.array([amps]))[0]) * led.candela
    watts = amps**2 * h.ohm
    fit = rating_to_fit(watts, amps * h.ohm)
    return (
        Figure("Through the LED", shown(amps, AMPERE, f"typical LED behind {show(h.ohm, OHM)}")),
        Figure("Taken of what it hangs on", shown(taken, AMPERE, "all that the pin or supply gives for it")),
        Figure("Light", shown(light, CANDELA, f"on the axis: {WORDS[visibility(light)]}")),
        Figure(
            "Heat in its resistor", shown(watts, WATT, "I²R" + (f"; fit {fit:g} W or more" if fit else ""))
        ),
    )


def _faults(best: _Tried | None) -> tuple[Fault, ...]:
    if best is None:
        return ()
    h = best[0]
    out = [
        Fault("LED turned round", "Dark; under five volts it takes no harm. Turn it."),
        Fault("Resistor left out", "The LED and the pin share whatever flows: one of them goes first."),
    ]
    if h.pin == "Vpin":
        out.append(
            Fault(
                "Collector and emitter exchanged",
                "It still lights, weaker: turned round it hardly amplifies.",
            )
        )
    return tuple(out)


def _judged(typed: Details, led: Led, best: _Tried | None) -> tuple[Judged, ...]:
    out = []
    kind = typed.choice(FROM.id)
    if kind == "ttl":
        out.append(
            Judged(
                "note",
                "Such a pin swallows far more than it gives.",
                "0.4 mA out and 8 mA in or so (data sheets, from memory): the LED to the supply, lit while low.",
            )
        )
    if kind in _PINS and typed.value(GIVES.id) is None:
        out.append(
            Judged(
                "note",
                "What the pin can spare is from memory.",
                "Its data sheet, less what hangs on it, decides.",
            )
        )
    if kind == "rail":
        out.append(
            Judged(
                "note",
                "Read it in every state before anything is soldered.",
                "A supply that is there on standby, or stays up after switching off, makes a light that lies.",
            )
        )
    if kind == "lamp":
        out.append(
            Judged(
                "mind",
                "Two lamps on one feed: what drives it sees both.",
                "A flasher, a monitor or a pin may count the current: look at that lamp's own view first.",
            )
        )
    drills = next((d for size, d in _DRILLS.items() if f"-{size}-" in led.id), None)
    if drills is not None:
        out.append(
            Judged(
                "note",
                f"Drill {drills[0]:g} mm for the bare LED, {drills[1]:g} mm for a clip bezel.",
                "Try the drill in scrap first: clips differ (common practice).",
            )
        )
    return gravest_first(out)
