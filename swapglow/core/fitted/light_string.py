"""LEDs in series on a supply or on mains, and fewer of them: the same current from a resistor.

A string without a resistor hangs on its LEDs' own curve, so that the curve is first laid through the current that it
was made for, on its own waveform; what is left out is then solved on the same waveform. Practice's sum takes each
LED's share of the mains' RMS volts, and the resistor as volts over amps; it stands beside with its error.
"""

import math
from dataclasses import dataclass

import numpy as np
import scipy
from numpy.typing import NDArray

from swapglow.core.constants import REFERENCE_C, thermal_voltage
from swapglow.core.engine.netlist import (
    Circuit,
    Dc,
    Diode,
    DiodeModel,
    Element,
    Resistor,
    Sine,
    VoltageSource,
    Wave,
)
from swapglow.core.engine.operating_point import operating_point
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.afterwards import AFTER, against, flowing
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.worked import Fault, Figure, Judged, Row, Table, Way, Worked, gravest_first, picked
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.parts.resistor import RATINGS_W, WORKING_FRACTION
from swapglow.core.quantities import AMPERE, HERTZ, OHM, VOLT, WATT, InputError, Shown, Source, show, shown
from swapglow.core.quantities.inputs import read_count
from swapglow.core.values import preferred

FloatArray = NDArray[np.float64]

FEED = Detail("feed", "It hangs on", None, "", (
    ("unknown", "Not known"), ("half", "AC, one half-wave"), ("full", "AC, by a bridge"), ("dc", "Direct current"),
))  # fmt: skip
SEEN = Detail("seen", "What sits at its plug", None, "", (
    ("unknown", "Not looked at"), ("plug", "A plug alone"), ("coil", "A heavy box, with a coil in it"),
    ("chip", "A light box, with a chip in it"),
))  # fmt: skip
STREAK = Detail("streak", "Swing it, or wave a finger before it", None, "", (
    ("unknown", "Not tried"), ("wide", "Dashes, gaps as long as they are"), ("close", "Dashes, short gaps"),
    ("smooth", "One smooth streak"),
))  # fmt: skip
VOLTS = Detail("volts", "Volts of the feed", VOLT, "120V, 230V or 31V; RMS where it alternates")
HERTZ_ = Detail("hertz", "Frequency", HERTZ, "50Hz or 60Hz; empty takes 50 Hz")
COUNT = Detail("count", "LEDs in series as it was made", None, "Of one circuit: 35 or 50")
KEEP = Detail("keep", "LEDs left of them", None, "After the cut: 24")
LED = led_detail("Their colour")
AMPS = Detail(
    "amps",
    "Current it was made for",
    AMPERE,
    "20mA; on its label, or read by someone qualified. Empty: 20 mA",
)
OHM_ = Detail(
    "ohm", "Resistor in it already", OHM, "All of them together; empty where there is none", none="absent"
)
CIRCUITS = Detail("circuits", "Circuits in the lead", None, "1, or 2 and 3 where several share it")
BYPASS = Detail("bypass", "A dead LED", None, "", (
    ("dark", "takes its circuit with it"), ("bridged", "is bridged by its own shunt"),
))  # fmt: skip

# What each thing that is seen leaves possible; a streak says it alone (common practice).
_BY_SEEN: dict[str, tuple[str, ...]] = {
    "unknown": ("dc", "full", "half"), "plug": ("full", "half"), "coil": ("dc", "full", "half"), "chip": ("dc",),
}  # fmt: skip
_BY_STREAK = {"wide": "half", "close": "full", "smooth": "dc"}
_IF = {"dc": "on direct current", "full": "behind a bridge", "half": "on one half-wave"}
# Of the current it was made for, the most and the least that a resistor may leave (ours).
_BAND = (1.1, 0.8)
# From here on it is mains, or as dangerous: extra-low volts end (IEC 61140, from memory).
_MAINS_AC, _MAINS_DC = 50.0, 120.0
_USUAL_A = 0.02
_MOST = 400
_MOST_PARTS = 6
# Up to this rating a resistor is an everyday part (common practice).
_ONE_W = 1.0
# An LED of one die takes no more, whatever its colour (data sheets, from memory); a package of three has some nine.
_MOST_EACH = 10.0
_PLAIN_IS = 1e-14
# Instants of the half-wave that lights it; the midpoint rule's error goes with their square.
_INSTANTS = 96


@dataclass(frozen=True)
class _String:
    """A string on its wave: source over the cycle, diodes before it, its LEDs' curve.

    Attributes:
        wave: open volts at even instants of the cycle.
        diodes: rectifiers that its current passes through.
        led: the kind.
        vf: forward volts at rated current that lay its curve through the current it was made for.
    """

    wave: FloatArray
    diodes: int
    led: Led
    vf: float

    def amps(self, count: int, ohm: float) -> FloatArray:
        """Current at every instant with so many LEDs and ohms, A."""
        point = operating_point(self.circuit(Dc(self.wave), count, ohm)).require()
        return np.maximum(point.current("Dleds"), 0.0)

    def circuit(self, wave: Wave, count: int, ohm: float) -> Circuit:
        """The string as one junction: its LEDs carry one current."""
        junction = self.led.junction(self.vf)
        n, i_s = junction.n * count, float(junction.i_s)
        parts: list[Element] = [
            VoltageSource("Vfeed", "feed", "0", wave), Resistor("R1", "feed", "string", max(ohm, 1e-3)),
        ]  # fmt: skip
        node = "string"
        if self.diodes:
            parts.append(Diode("Drectifier", node, "dc", rectifier("power").chain(self.diodes, REFERENCE_C)))
            node = "dc"
        # Simulators take no saturation current as small as that of LEDs of many volts: the same curve, moved along by a
        # source (V = n·Vt·ln(I/Is), Shockley).
        moved = n * thermal_voltage(REFERENCE_C) * math.log(_PLAIN_IS / i_s)
        parts.append(VoltageSource("Vknee", node, "leds", Dc(moved)))
        model = DiodeModel(_PLAIN_IS, n, junction.r_s * count, nominal_c=REFERENCE_C)
        return Circuit(
            (*parts, Diode("Dleds", "leds", "0", model)), celsius=REFERENCE_C, title="light string"
        )


class LightString(FittedKind):
    """A string of lights, whole or cut to length."""

    id = "light_string"
    order = 4
    label = "String of LEDs, cut to length"
    looks = (
        "LEDs one after another on one wire, with or without a resistor in it; other wires pass by to the next "
        "circuit. The "
        "series wire ends at the last LED of its circuit, a through wire goes on: follow both before anything is cut."
    )
    never = (
        "Cut, it is no longer an approved product: that is said first, and to whoever hangs it up. On mains: "
        "unplugged, qualified people only, no reading on it live; every joint and resistor sleeved. Local codes "
        "come first."
    )
    details = (VOLTS, SEEN, STREAK, FEED, HERTZ_, COUNT, KEEP, LED, AMPS, OHM_, CIRCUITS, BYPASS, AFTER)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """The resistor for those left, its heat, practice's sum beside it, and faults."""
        if not typed.text(VOLTS.id) or not typed.text(COUNT.id):
            raise InputError(VOLTS.id, "Type the volts it hangs on, and how many LEDs it was made with.")
        count = typed.count(COUNT.id, _MOST)
        keep = read_count(KEEP.id, typed.text(KEEP.id) or str(count), count)
        wanted = typed.value(AMPS.id) or _USUAL_A
        inside = typed.value(OHM_.id) or 0.0
        feeds = _feeds(typed)
        if len(feeds) > 1:
            return _side_by_side(typed, feeds, count, keep, wanted, inside)
        string = _laid(typed, feeds[0], count, wanted, inside)
        exact = _resistor(string, keep, wanted, inside) - inside
        tried = _ways(string, typed, count, keep, wanted, inside, exact)
        ways = tuple(w for w, _ in tried)
        way = picked(ways, chosen)
        # What comes after has the parts of the way that was chosen, not the sum they were split from.
        added = next((ohm for w, ohm in tried if w is way), 0.0)
        return Worked(
            line=_line(count, keep, way, inside),
            figures=_figures(string, typed, count, keep, wanted, inside, added),
            ways=ways,
            faults=_faults(string, typed, keep, inside + added),
            judged=gravest_first(
                (
                    *against(typed, float(string.amps(keep, inside + added).mean()), wanted),
                    *_judged(string, typed, count, keep, wanted, inside + added),
                )
            ),
            spice=_deck(string, typed, keep, inside + added),
        )


KIND = LightString()


def _feeds(typed: Details) -> tuple[str, ...]:
    """What it may hang on: as it was said, by the streak it draws, or by what sits at its plug."""
    said, streak = typed.choice(FEED.id), typed.choice(STREAK.id)
    if said != "unknown":
        return (said,)
    return (_BY_STREAK[streak],) if streak != "unknown" else _BY_SEEN[typed.choice(SEEN.id)]


def _preferred(ohm: float, rounding: preferred.Rounding = "up") -> float:
    """The E24 value, Ω; 0 for what no resistor is worth."""
    return preferred.prefer(ohm, "E24", rounding) if ohm > 0.5 else 0.0


def _side_by_side(
    typed: Details, feeds: tuple[str, ...], count: int, keep: int, wanted: float, inside: float
) -> Worked:
    """The answer for everything it may hang on, each with the resistors that will do; none of them is advised."""
    rows, said, refused = [], [], []
    for feed in feeds:
        try:
            string = _laid(typed, feed, count, wanted, inside)
        except InputError as why:
            refused.append(why)
            continue
        exact, low, high = (_resistor(string, keep, wanted * s, inside) - inside for s in (1.0, *_BAND))
        ours = [(w, ohm) for w, ohm in _ways(string, typed, count, keep, wanted, inside, exact) if w.advised]
        least, most = _preferred(low), _preferred(high, "down")
        part, ohm = (ours[0][0].label, ours[0][1]) if ours else ("none", 0.0)
        band = f"{show(least, OHM)} to {show(max(most, least), OHM)} will do"
        cell = shown(ohm, OHM, f"{_IF[feed]}, the current as it was")
        rows.append(Row(_IF[feed][0].upper() + _IF[feed][1:], (cell,), f"{part}; {band}"))
        said.append(f"{part} {_IF[feed]}")
    if not rows:
        raise refused[0]
    gone = count - keep
    answer = f"{', '.join(said[:-1])} or {said[-1]}" if len(said) > 1 else said[0]
    line = f"{gone} fewer: {answer}. Find out which it is before anything is cut." if gone else _AS_MADE
    ask = Judged(
        "mind", "What it hangs on is not known, so that no resistor is proposed.",
        "Look at what sits at its plug. Swing a lit LED in the dark, or wave a finger before it: dashes with gaps as "
        "long as they are mean one half-wave, short gaps a bridge, one smooth streak direct current.",
    )  # fmt: skip
    heads = ("Resistor",)
    return Worked(
        line=line, tables=(Table(f"{keep} LEDs left, by what it hangs on", heads, tuple(rows)),) if gone else (),
        judged=(*_mains(typed, feeds), ask) if gone else _mains(typed, feeds),
    )  # fmt: skip


def _mains(typed: Details, feeds: tuple[str, ...]) -> tuple[Judged, ...]:
    """Mains, or as dangerous: nothing for anyone who is not qualified."""
    volts = typed.value(VOLTS.id) or 0.0
    if volts < (_MAINS_DC if feeds == ("dc",) and typed.choice(SEEN.id) != "plug" else _MAINS_AC):
        return ()
    return (Judged("stop", f"At {show(volts, VOLT)} this is for someone qualified, or not done at all.",
                   "Cut, it is no approved product any more. Nothing in it is read live: power at the plug, and warmth "
                   "from outside. Local codes come first."),)  # fmt: skip


def _laid(typed: Details, feed: str, count: int, wanted: float, inside: float) -> _String:
    """The string with its LEDs' curve laid through the current it was made for."""
    volts = typed.value(VOLTS.id) or 0.0
    led = catalogue()[typed.choice(LED.id)]
    phase = (np.arange(_INSTANTS) + 0.5) / _INSTANTS
    if feed == "dc":
        # Behind a plug alone direct current is the mains, rectified and held at its crest.
        smoothed = typed.choice(SEEN.id) == "plug"
        wave, diodes = np.array([volts * np.sqrt(2) if smoothed else volts]), 2 if smoothed else 0
    else:
        half = volts * np.sqrt(2) * np.sin(np.pi * phase)
        wave, diodes = (half, 2) if feed == "full" else (np.concatenate([half, np.zeros(_INSTANTS)]), 0)

    def over(vf: float) -> float:
        return float(_String(wave, diodes, led, vf).amps(count, inside).mean()) - wanted

    # Whatever LEDs these are, each took its share: from next to nothing to what no LED takes.
    low, high = 0.02, _MOST_EACH
    if over(low) < 0:
        raise InputError(
            AMPS.id,
            f"{show(wanted, AMPERE)} do not flow on {volts:g} V through {show(inside, OHM)}, whatever the LEDs.",
        )
    if over(high) > 0:
        raise InputError(
            COUNT.id,
            f"{count} LEDs on {volts:g} V would take over {_MOST_EACH:g} V each: count them again, or type "
            "the resistor that is in it.",
        )
    return _String(wave, diodes, led, float(scipy.optimize.brentq(over, low, high, xtol=1e-6)))


def _resistor(string: _String, keep: int, wanted: float, inside: float) -> float:
    """All the ohms at which those left carry on average what they did, by bracketing."""

    def over(ohm: float) -> float:
        return float(string.amps(keep, ohm).mean()) - wanted

    if over(inside) <= wanted * 1e-4:
        return inside
    high = max(inside, 1.0)
    while over(high) > 0:
        high *= 4
    return float(scipy.optimize.brentq(over, inside, high, xtol=1e-4, rtol=1e-9))


_AS_MADE = "As it was made: no resistor is needed. Say how many LEDs are left."


def _line(count: int, keep: int, way: Way | None, inside: float) -> str:
    gone = count - keep
    if not gone:
        return _AS_MADE
    if way is None:
        return f"{gone} fewer change next to nothing: no resistor is needed."
    where = " beside the one that is there" if inside else ""
    return f"{gone} fewer: {way.label} in series{where} leaves {way.share.number} % of the current."


def _heat(amps: FloatArray, ohm: float) -> float:
    """I²R with the current's own RMS."""
    return float((amps**2).mean()) * ohm


def _made_for(typed: Details, wanted: float) -> Shown:
    """The current it was made for: as typed, or in pencil."""
    known = typed.figure(AMPS.id)
    if known is None:
        return shown(wanted, AMPERE, "the usual of such strings; nobody typed its own", Source.ASSUMED)
    return shown(wanted, AMPERE, "as it was made, mean", known.source)


def _figures(string: _String, typed: Details, count: int, keep: int, wanted: float, inside: float,
             fitted: float) -> tuple[Figure, ...]:  # fmt: skip
    bare, with_it = string.amps(keep, inside), string.amps(keep, inside + fitted)
    crest = string.amps(count, inside)
    mean = float(with_it.mean())
    after = flowing(typed, wanted, mean, f"{keep} left and {show(inside + fitted, OHM)}, mean")
    # A reading gives the mean only: the shape of the wave stays the computed one.
    with_it = with_it * (after.value / mean if mean > 0 else 1.0)
    out = [
        Figure("Through the LEDs", _made_for(typed, wanted), after),
        Figure("At the crest", shown(float(crest.max()), AMPERE, "as it was made"),
               shown(float(with_it.max()), AMPERE, f"{keep} left and {show(inside + fitted, OHM)}")),
    ]  # fmt: skip
    if keep < count:
        origin = f"{keep} left and no resistor: their own curve is all that limits it"
        out.append(Figure("Without a resistor", shown(float(bare.mean()), AMPERE, origin)))
    if fitted:
        out.append(
            Figure(
                "Heat in it",
                shown(_heat(with_it, fitted), WATT, "its own RMS current squared times its ohms", digits=2),
            )
        )
    return tuple(out)


def _ways(string: _String, typed: Details, count: int, keep: int, wanted: float, inside: float,
          exact: float) -> list[tuple[Way, float]]:  # fmt: skip
    """One resistor or several that share its heat, each with its ohms; practice's value with what it gives."""
    if not _preferred(exact):
        return []
    heat = _heat(string.amps(keep, inside + exact), exact)
    least: dict[int, float] = {}
    for rating in RATINGS_W:
        parts = max(int(np.ceil(heat / (rating * WORKING_FRACTION) - 1e-9)), 1)
        if parts <= _MOST_PARTS:
            least.setdefault(parts, rating)
    # One where a common body takes it; else two that share the heat, before a chain of small ones.
    one = least.get(1, math.inf) <= _ONE_W
    ours = 1 if one else max((n for n in least if n <= 2), default=min(least, default=0))
    out = []
    for parts, rating in sorted(least.items()):
        each = preferred.prefer(exact / parts, "E24", "up")
        label = (
            f"{show(each, OHM)}, {rating:g} W"
            if parts == 1
            else f"{parts} × {show(each, OHM)}, {rating:g} W each"
        )
        own = _heat(string.amps(keep, inside + each * parts), each * parts)
        share = f"{show(own / parts, WATT, 2)} in each, half its rating or less"
        out.append(_way(label, share, string, keep, inside, each * parts, wanted, advised=parts == ours))
    out.sort(key=lambda o: not o[0].advised)
    practice = _practice(typed, count, keep, wanted)
    out.append(_way(f"{show(practice, OHM)} by practice's sum", "volts ÷ count for each that is gone, over the amps",
                    string, keep, inside, practice, wanted, advised=False))  # fmt: skip
    return out


def _practice(typed: Details, count: int, keep: int, wanted: float) -> float:
    """R = (removed × volts/count)/I (common practice)."""
    return preferred.prefer((count - keep) * (typed.value(VOLTS.id) or 0.0) / count / wanted, "E24", "up")


def _way(label: str, what: str, string: _String, keep: int, inside: float, ohm: float, wanted: float, *,
         advised: bool) -> tuple[Way, float]:  # fmt: skip
    share = float(string.amps(keep, inside + ohm).mean()) / wanted
    way = Way(
        label, what, Shown(share, f"{share * 100:.0f}", "%", Source.COMPUTED, f"{keep} LEDs and "
            f"{show(inside + ohm, OHM)}"),
        f"{show(share * wanted, AMPERE)} on average.", "" if share < 1.1 else "It drives those left harder than "
            "before.",
        advised, {},
    )  # fmt: skip
    return way, ohm


def _faults(string: _String, typed: Details, keep: int, ohm: float) -> tuple[Fault, ...]:
    usual = float(string.amps(keep, ohm).mean())
    circuits = typed.count(CIRCUITS.id, 12)
    others = (
        ""
        if circuits == 1
        else f" The other {'circuit' if circuits == 2 else f'{circuits - 1} circuits'} stay lit."
    )
    out = [Fault("An LED loose in its socket", f"Its whole circuit is dark, as if a wire were off.{others}")]
    if keep > 1:
        one = float(string.amps(keep - 1, ohm).mean())
        more = (one / usual - 1) * 100
        carried = f"The others carry {show(one, AMPERE)}, {more:.0f} % more."
        out.append(Fault("One LED shorted", carried))
        if typed.choice(BYPASS.id) == "bridged":
            out.append(
                Fault("One LED dead and bridged", carried + " Each further one adds to it: change them soon.")
            )
        else:
            out.append(Fault("One LED dead", f"Its whole circuit is dark.{others}"))
    return tuple(out)


def _judged(
    string: _String, typed: Details, count: int, keep: int, wanted: float, ohm: float
) -> tuple[Judged, ...]:
    out = list(_mains(typed, _feeds(typed)))
    rated, crest = string.led.rated_a, float(string.amps(keep, ohm).max())
    if keep < count and not ohm:
        return tuple(out)
    if wanted > rated:
        out.append(Judged("stop", f"{show(wanted, AMPERE)} is over the {show(rated, AMPERE)} such LEDs are rated for.",
                          "Say what is on the label: a mean over the half-wave, not the crest."))  # fmt: skip
    elif crest > 3 * rated:
        out.append(Judged("mind", f"Its crest is {show(crest, AMPERE)}: over three times what such LEDs are rated for.",
                          "Chips crack and fade by the crest as well as by the mean (common practice)."))  # fmt: skip
    if _feeds(typed) == ("half",):
        out.append(Judged("note", "It lights on one half-wave: it flickers at the mains' own frequency.",
                          "A bridge before it doubles the frequency and the current: the resistor is then "
                          "another."))  # fmt: skip
    if typed.count(CIRCUITS.id, 12) > 1:
        out.append(Judged("note", "Each circuit has its own series wire and is cut and mended by itself.",
                          "A series wire ends at its circuit's last LED, a through wire goes on to the plug or the "
                          "next one."))  # fmt: skip
    return tuple(out)


def _deck(string: _String, typed: Details, keep: int, ohm: float) -> str:
    volts = typed.value(VOLTS.id) or 0.0
    if _feeds(typed) == ("dc",):
        return write_deck(string.circuit(Dc(float(string.wave[0])), keep, ohm))
    hertz = typed.value(HERTZ_.id) or 50.0
    wave = Sine(0.0, volts * np.sqrt(2), hertz)
    return write_deck(string.circuit(wave, keep, ohm), (f".tran {1 / hertz / 400:.6g} {3 / hertz:.6g}",))
