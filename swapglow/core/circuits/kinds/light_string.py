"""LEDs in series on a supply or on mains, and fewer of them: the same current from a resistor.

A string without a resistor hangs on its LEDs' own curve, so that the curve is first laid through the current that it
was made for, on its own waveform; what is left out is then solved on the same waveform. Practice's sum takes each
LED's share of the mains' RMS volts, and the resistor as volts over amps; it is beside it with its error.
"""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
import scipy
from numpy.typing import NDArray

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import CircuitResult, Fault, Figure, Option, Row, Table
from swapglow.core.circuits.toolkit import asks
from swapglow.core.circuits.toolkit.ratings import RatedLed
from swapglow.core.circuits.toolkit.read_after import AFTER, against, flowing
from swapglow.core.circuits.toolkit.solved import Sampled, solve_states
from swapglow.core.circuits.toolkit.wiring import Wiring, over_time
from swapglow.core.constants import REFERENCE_C, thermal_voltage
from swapglow.core.engine.netlist import Dc, Diode, DiodeModel, Sine, Wave
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.led import Led
from swapglow.core.parts.resistor import RATINGS_W, WORKING_FRACTION
from swapglow.core.quantities import AMPERE, OHM, VOLT, WATT, InputError, Shown, Source, show, shown
from swapglow.core.quantities.inputs import read_count
from swapglow.core.values import preferred

FloatArray = NDArray[np.float64]

FEED = Detail(
    "feed",
    "It hangs on",
    None,
    "",
    (("unknown", "Not known"), ("half", "AC, one half-wave"), ("full", "AC, by a bridge"), ("dc", "Direct current")),
)
SEEN = Detail(
    "seen",
    "What sits at its plug",
    None,
    "",
    (
        ("unknown", "Not looked at"),
        ("plug", "A plug alone"),
        ("coil", "A heavy box, with a coil in it"),
        ("chip", "A light box, with a chip in it"),
    ),
)
STREAK = Detail(
    "streak",
    "Swing it, or wave a finger before it",
    None,
    "",
    (
        ("unknown", "Not tried"),
        ("wide", "Dashes, gaps as long as they are"),
        ("close", "Dashes, short gaps"),
        ("smooth", "One smooth streak"),
    ),
)
VOLTS = Detail("volts", "Volts of the feed", VOLT, "120V, 230V or 31V; RMS where it alternates")
COUNT = Detail("count", "LEDs in series as it was made", None, "Of one circuit: 35 or 50")
KEEP = Detail("keep", "LEDs left of them", None, "After the cut: 24")
AMPS = Detail(
    "amps", "Current it was made for", AMPERE, "20mA; on its label, or read by someone qualified. Empty: 20 mA"
)
IN_IT = Detail("ohm", "Resistor in it already", OHM, "All of them together; empty where there is none", none="absent")
CIRCUITS = Detail("circuits", "Circuits in the lead", None, "1, or 2 and 3 where several share it")
BYPASS = Detail(
    "bypass",
    "A dead LED",
    None,
    "",
    (("dark", "takes its circuit with it"), ("bridged", "is bridged by its own shunt")),
)

# What each thing that is seen leaves possible; a streak says it alone (common practice).
_BY_SEEN: dict[str, tuple[str, ...]] = {
    "unknown": ("dc", "full", "half"),
    "plug": ("full", "half"),
    "coil": ("dc", "full", "half"),
    "chip": ("dc",),
}
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
class CutString:
    """A string, whole or cut.

    Attributes:
        feed: what it hangs on: "dc", "full" or "half".
        volts, hertz: of the feed; RMS where it alternates.
        smoothed: whether direct current is the mains, rectified and held at its crest.
        led: its kind; ``vf`` the forward volts at rated current that lay its curve through the current it was made for.
        count, keep: LEDs as it was made, and those left.
        made_a: current it was made for, A.
        inside: the resistor in it already, Ω.
    """

    feed: str
    volts: float
    hertz: float
    smoothed: bool
    led: Led
    count: int
    keep: int
    made_a: float
    inside: float
    vf: float = 0.0

    @property
    def diodes(self) -> int:
        """Rectifiers that its current passes through."""
        return 2 if self.feed == "full" or (self.feed == "dc" and self.smoothed) else 0

    @property
    def crest(self) -> float:
        """Of its feed, V."""
        return self.volts * math.sqrt(2) if self.feed != "dc" or self.smoothed else self.volts

    @property
    def lit(self) -> float:
        """Share of the cycle in which it may be lit."""
        return 0.5 if self.feed == "half" else 1.0

    @property
    def wave(self) -> FloatArray:
        """Open volts at even instants of the part of the cycle that may light it, (instants,)."""
        if self.feed == "dc":
            return np.array([self.crest])
        return np.asarray(self.crest * np.sin(np.pi * (np.arange(_INSTANTS) + 0.5) / _INSTANTS))

    def amps(self, count: int, ohm: float) -> FloatArray:
        """Current at those instants with so many LEDs and ohms, A.

        Args:
            count: LEDs in series.
            ohm: resistors together, Ω.

        Returns:
            A, (instants,).
        """
        return np.maximum(solve(self, count, ohm).states.amps("Dleds"), 0.0)

    def mean(self, count: int, ohm: float) -> float:
        """Its mean over the cycle, A.

        Args:
            count, ohm: as for :meth:`amps`.

        Returns:
            A.
        """
        return float(self.amps(count, ohm).mean()) * self.lit

    def heat(self, amps: FloatArray, ohm: float) -> float:
        """I²R with the current's own RMS, W.

        Args:
            amps: at every instant, A.
            ohm: what it flows through, Ω.

        Returns:
            W.
        """
        return float((amps**2).mean()) * self.lit * ohm

    def ohms_for(self, amps: float) -> float:
        """All the ohms at which those left carry so much on average, less what is in it, by bracketing."""

        def over(ohm: float) -> float:
            return self.mean(self.keep, ohm) - amps

        if over(self.inside) <= amps * 1e-4:
            return 0.0
        high = max(self.inside, 1.0)
        while over(high) > 0:
            high *= 4
        return float(scipy.optimize.brentq(over, self.inside, high, xtol=1e-4, rtol=1e-9)) - self.inside


def _wired(c: CutString, wave: FloatArray | Wave, count: int, ohm: float) -> Wiring:
    """The string as one junction: its LEDs carry one current."""
    w = Wiring("light string")
    w.source("Vfeed", "feed", wave)
    w.resistor("R1", "feed", "string", ohm)
    node = "string"
    if c.diodes:
        w.diode("Drectifier", node, "dc", count=c.diodes)
        node = "dc"
    junction = c.led.junction(c.vf)
    n, i_s = junction.n * count, float(junction.i_s)
    # Simulators take no saturation current as small as that of LEDs of many volts: the same curve, moved along by a
    # source (V = n·Vt·ln(I/Is), Shockley).
    w.source("Vknee", node, n * thermal_voltage(REFERENCE_C) * math.log(_PLAIN_IS / i_s), "leds")
    model = DiodeModel(_PLAIN_IS, n, junction.r_s * count, nominal_c=REFERENCE_C)
    w.add(Diode("Dleds", "leds", "0", model))
    w.lights.append("Dleds")
    w.modelled.append("Vknee")
    w.ratings.append(RatedLed("Dleds", "each LED", "led", c.led, guarded=True))
    return w


@lru_cache(maxsize=128)
def solve(c: CutString, count: int, ohm: float) -> Sampled:
    """Every instant that may light it: nothing in it remembers."""
    return Sampled(solve_states(_wired(c, c.wave, count, ohm), *[""] * len(c.wave)), "On average", c.lit)


def laid(c: CutString) -> CutString:
    """The string with its LEDs' curve laid through the current it was made for.

    Raises:
        InputError: no LEDs make that current there.
    """

    def over(vf: float) -> float:
        return replace(c, vf=vf).mean(c.count, c.inside) - c.made_a

    # Whatever LEDs these are, each took its share: from next to nothing to what no LED takes.
    low, high = 0.02, _MOST_EACH
    if over(low) < 0:
        raise InputError(
            AMPS.id,
            f"{show(c.made_a, AMPERE)} do not flow on {c.volts:g} V through {show(c.inside, OHM)}, whatever the LEDs.",
        )
    if over(high) > 0:
        raise InputError(
            COUNT.id,
            f"{c.count} LEDs on {c.volts:g} V would take over {_MOST_EACH:g} V each: count them again, or "
            "type the resistor that is in it.",
        )
    return replace(c, vf=float(scipy.optimize.brentq(over, low, high, xtol=1e-6)))


@dataclass(frozen=True)
class StringCase:
    """A string on everything that it may hang on, and why it cannot be on some."""

    strings: tuple[CutString, ...]
    feeds: tuple[str, ...]

    @property
    def only(self) -> CutString | None:
        """The string where what it hangs on is known."""
        return self.strings[0] if len(self.feeds) == 1 else None


class LightString(CircuitKind[StringCase]):
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
        "A cut string is no longer an approved product: tell whoever hangs it up, before you start. On mains: "
        "unplugged, qualified people only, no reading on it live; every joint and resistor sleeved. Local codes "
        "come first."
    )
    parts = (
        ("Vfeed", "feed", "volts"),
        ("R1", "resistor", "ohm"),
        ("Drectifier", "rectifier", "feed"),
        ("Dleds", "LEDs left", "keep"),
    )
    details = (
        VOLTS,
        SEEN,
        STREAK,
        FEED,
        asks.FREQUENCY,
        COUNT,
        KEEP,
        asks.led_detail("Their colour"),
        AMPS,
        IN_IT,
        CIRCUITS,
        BYPASS,
        AFTER,
    )

    def case(self, typed: Details) -> StringCase:
        """The string as typed."""
        if not typed.text(VOLTS.id) or not typed.text(COUNT.id):
            raise InputError(VOLTS.id, "Type the volts it hangs on, and how many LEDs it was made with.")
        count = typed.count(COUNT.id, _MOST)
        keep = read_count(KEEP.id, typed.text(KEEP.id) or str(count), count)
        feeds = _feeds(typed)
        bare = CutString(
            "",
            typed.value(VOLTS.id) or 0.0,
            typed.value(asks.FREQUENCY.id) or asks.USUAL_HZ,
            typed.choice(SEEN.id) == "plug",
            asks.read_led(typed),
            count,
            keep,
            typed.value(AMPS.id) or _USUAL_A,
            typed.value(IN_IT.id) or 0.0,
        )
        strings, refused = [], []
        for feed in feeds:
            try:
                strings.append(laid(replace(bare, feed=feed)))
            except InputError as why:
                refused.append(why)
        if not strings:
            raise refused[0]
        return StringCase(tuple(strings), feeds)

    def states(self, case: StringCase) -> tuple[Sampled, ...]:
        """As it will be, with the resistor that is ours."""
        if case.only is None:
            return ()
        ours = next((ohm for o, ohm in _options(case.only) if o.advised), 0.0)
        c = case.only
        # Cut without a resistor it is not left so; as it was made it is.
        return (solve(c, c.keep if ours else c.count, c.inside + ours),)

    def options(self, now: StringCase, typed: Details, chosen: str) -> list[Option]:
        """One resistor or several that share its heat; practice's value with what it gives."""
        return [] if now.only is None else [o for o, _ in _options(now.only)]

    def report(self, job: Job[StringCase]) -> CircuitResult:
        """The resistor for those left, its heat, practice's sum beside it, and faults."""
        c = job.now.only
        if c is None:
            return _side_by_side(job.typed, job.now)
        # What comes after has the parts of the option that was chosen, not the sum they were split from.
        added = next((ohm for o, ohm in _options(c) if job.option is not None and o.id == job.option.id), 0.0)
        ohm = c.inside + added
        wave = Dc(c.crest) if c.feed == "dc" else Sine(0.0, c.crest, c.hertz)
        commands = () if c.feed == "dc" else (over_time(c.hertz, 3, 400),)
        return CircuitResult(
            line=_line(c, job.option),
            figures=_figures(c, job.typed, added),
            faults=_faults(c, job.typed, ohm),
            findings=(*against(job.typed, c.mean(c.keep, ohm), c.made_a), *_findings(c, job.typed)),
            spice=_wired(c, wave, c.keep, ohm).deck(*commands),
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


def _side_by_side(typed: Details, case: StringCase) -> CircuitResult:
    """The answer for everything it may hang on, each with the resistors that will do; none of them is advised."""
    first, rows, said = case.strings[0], [], []
    for c in case.strings:
        low, high = (c.ohms_for(c.made_a * share) for share in _BAND)
        ours = next(((o.label, ohm) for o, ohm in _options(c) if o.advised), ("none", 0.0))
        least, most = _preferred(low), _preferred(high, "down")
        band = f"{show(least, OHM)} to {show(max(most, least), OHM)} will do"
        cell = shown(ours[1], OHM, f"{_IF[c.feed]}, the current as it was")
        rows.append(Row(c.feed, _IF[c.feed][0].upper() + _IF[c.feed][1:], (cell,), f"{ours[0]}; {band}"))
        said.append(f"{ours[0]} {_IF[c.feed]}")
    gone = first.count - first.keep
    if not gone:
        return CircuitResult(line=_AS_MADE, findings=_mains(typed, case.feeds, first.volts))
    answer = f"{', '.join(said[:-1])} or {said[-1]}" if len(said) > 1 else said[0]
    ask = Finding(
        "feed-unknown",
        "mind",
        "What it hangs on is not known, so that no resistor is proposed.",
        why="Look at what sits at its plug. Swing a lit LED in the dark, or wave a finger before it: dashes with gaps "
        "as long as they are mean one half-wave, short gaps a bridge, one smooth streak direct current.",
    )
    return CircuitResult(
        line=f"{gone} fewer: {answer}. Find out which it is before anything is cut.",
        tables=(Table("feeds", f"{first.keep} LEDs left, by what it hangs on", ("Resistor",), tuple(rows)),),
        findings=(*_mains(typed, case.feeds, first.volts), ask),
    )


def _mains(typed: Details, feeds: tuple[str, ...], volts: float) -> tuple[Finding, ...]:
    """Mains, or as dangerous: nothing for anyone who is not qualified."""
    limit = _MAINS_DC if feeds == ("dc",) and typed.choice(SEEN.id) != "plug" else _MAINS_AC
    if volts < limit:
        return ()
    return (
        Finding(
            "mains",
            "stop",
            f"At {show(volts, VOLT)} this is for someone qualified, or not done at all.",
            show(volts, VOLT),
            show(limit, VOLT),
            "Read nothing in it live: only power at the plug, and warmth from outside. Local codes come first.",
        ),
    )


_AS_MADE = "As it was made: no resistor is needed. Say how many LEDs are left."


def _line(c: CutString, option: Option | None) -> str:
    gone = c.count - c.keep
    if not gone:
        return _AS_MADE
    if option is None:
        return f"{gone} fewer change next to nothing: no resistor is needed."
    where = " beside the one that is there" if c.inside else ""
    return f"{gone} fewer: {option.label} in series{where} leaves {option.outcome.number} % of the current."


def _figures(c: CutString, typed: Details, added: float) -> tuple[Figure, ...]:
    known, ohm = typed.figure(AMPS.id), c.inside + added
    with_it, mean, left = c.amps(c.keep, ohm), c.mean(c.keep, ohm), f"{c.keep} left and {show(ohm, OHM)}"
    after = flowing(typed, c.made_a, mean, f"{left}, mean")
    # A reading gives the mean only: the shape of the wave stays the computed one.
    with_it = with_it * (after.value / mean if mean > 0 else 1.0)
    made = shown(c.made_a, AMPERE, "the usual of such strings; nobody typed its own", Source.ASSUMED)
    if known is not None:
        made = shown(c.made_a, AMPERE, "as it was made, mean", known.source)
    crest = shown(float(c.amps(c.count, c.inside).max()), AMPERE, "as it was made")
    out = [
        Figure("current", "Through the LEDs", made, after),
        Figure("crest", "At the crest", crest, shown(float(with_it.max()), AMPERE, left)),
    ]
    if c.keep < c.count:
        origin = f"{c.keep} left and no resistor: their own curve is all that limits it"
        out.append(Figure("bare", "Without a resistor", shown(c.mean(c.keep, c.inside), AMPERE, origin)))
    if added:
        origin = "its own RMS current squared times its ohms"
        out.append(Figure("heat", "Heat in it", shown(c.heat(with_it, added), WATT, origin, digits=2)))
    return tuple(out)


@lru_cache(maxsize=32)
def _options(c: CutString) -> tuple[tuple[Option, float], ...]:
    """One resistor or several that share its heat, each with its ohms; practice's value with what it gives."""
    exact = c.ohms_for(c.made_a)
    if not _preferred(exact):
        return ()
    heat = c.heat(c.amps(c.keep, c.inside + exact), exact)
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
        label = f"{show(each, OHM)}, {rating:g} W" if parts == 1 else f"{parts} × {show(each, OHM)}, {rating:g} W each"
        own = c.heat(c.amps(c.keep, c.inside + each * parts), each * parts)
        what = f"{show(own / parts, WATT, 2)} in each, half its rating or less"
        out.append(_option(c, f"parts-{parts}", label, what, each * parts, advised=parts == ours))
    out.sort(key=lambda o: not o[0].advised)
    # R = (removed × volts/count)/I (common practice).
    practice = preferred.prefer((c.count - c.keep) * c.volts / c.count / c.made_a, "E24", "up")
    return (
        *out,
        _option(
            c,
            "practice",
            f"{show(practice, OHM)} by practice's sum",
            "volts ÷ count for each that is gone, over the amps",
            practice,
            advised=False,
        ),
    )


def _option(c: CutString, id_: str, label: str, what: str, ohm: float, *, advised: bool) -> tuple[Option, float]:
    share = c.mean(c.keep, c.inside + ohm) / c.made_a
    outcome = Shown(share, f"{share * 100:.0f}", "%", Source.COMPUTED, f"{c.keep} LEDs and {show(c.inside + ohm, OHM)}")
    bars = "" if share < 1.1 else "It drives those left harder than before."
    return Option(
        id_, label, what, outcome, "current_ratio", f"{show(share * c.made_a, AMPERE)} on average.", bars, advised
    ), ohm


def _faults(c: CutString, typed: Details, ohm: float) -> tuple[Fault, ...]:
    circuits = typed.count(CIRCUITS.id, 12)
    others = ""
    if circuits > 1:
        others = f" The other {'circuit' if circuits == 2 else f'{circuits - 1} circuits'} stay lit."
    dark = f"Its whole circuit is dark, as if a wire were off.{others}"
    out = [Fault("loose", "An LED loose in its socket", dark)]
    if c.keep > 1:
        one, usual = c.mean(c.keep - 1, ohm), c.mean(c.keep, ohm)
        carried = f"The others carry {show(one, AMPERE)}, {(one / usual - 1) * 100:.0f} % more."
        out.append(Fault("led-shorted", "One LED shorted", carried))
        if typed.choice(BYPASS.id) == "bridged":
            said = carried + " Each further one adds to it: change them soon."
            out.append(Fault("led-bridged", "One LED dead and bridged", said))
        else:
            out.append(Fault("led-open", "One LED dead", f"Its whole circuit is dark.{others}"))
    return tuple(out)


def _findings(c: CutString, typed: Details) -> tuple[Finding, ...]:
    out = list(_mains(typed, (c.feed,), c.volts))
    back = c.crest / c.keep
    if c.feed == "half" and back > c.led.reverse_v:
        out.append(
            Finding(
                "dark-half-reverse",
                "mind",
                f"In the dark half-wave each LED sees {show(back, VOLT)} in reverse, over its "
                f"{show(c.led.reverse_v, VOLT)}.",
                show(back, VOLT),
                show(c.led.reverse_v, VOLT),
                "Fewer LEDs share the crest. A diode in the lead takes it, where there is none.",
            )
        )
    if c.feed == "half":
        out.append(
            Finding(
                "one-half",
                "note",
                "It lights on one half-wave: it flickers at the mains' own frequency.",
                why="A bridge before it doubles the frequency and the current: the resistor is then another.",
            )
        )
    if typed.count(CIRCUITS.id, 12) > 1:
        out.append(
            Finding(
                "several-circuits",
                "note",
                "Each circuit has its own series wire and is cut and mended by itself.",
                why="A series wire ends at its circuit's last LED, a through wire goes on to the plug or the next one.",
            )
        )
    return tuple(out)
