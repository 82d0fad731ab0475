"""Lamps behind a knob: light against its turn, old and new, and what makes an LED follow it."""

from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuits.kind import CircuitKind, Job
from swapglow.core.circuits.result import BranchStair, CircuitResult, Figure, Option, Picture, Row, Table, curve
from swapglow.core.circuits.toolkit import asks, values
from swapglow.core.circuits.toolkit.solved import States, solve_states
from swapglow.core.circuits.toolkit.stairs import stair
from swapglow.core.circuits.toolkit.wiring import Wiring
from swapglow.core.findings.finding import Finding
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.parts.lamp import LIGHT_EXPONENT, Lamp
from swapglow.core.parts.led import Led
from swapglow.core.photometry.colour import lightness
from swapglow.core.photometry.light_law import candela_at, relative_light
from swapglow.core.photometry.visibility import visibility
from swapglow.core.quantities import AMPERE, OHM, VOLT, WATT, InputError, percent, percent_shown, show, shown
from swapglow.core.values import preferred

FloatArray = NDArray[np.float64]

VOLTS = Detail("volts", "The rail before the knob", VOLT, "13.6V, as it usually runs")
TRACK = Detail("track", "The knob from end to end", OHM, "25R, read across its ends, power off")
COUNT = Detail("count", "Lamps behind it", None, "4; empty takes one")
LAMP_V, LAMP_A = asks.lamp_details("12V", "0.12A; a 1.5 W lamp of 12 V is 0.125A", "An old lamp's")
LED_OHM = asks.led_ohm("680R", "The resistor of each")
Cure = Literal["none", "shunt", "follower", "pulses"]
CURES: tuple[tuple[Cure, str], ...] = (
    ("none", "As it was, in series"),
    ("shunt", "A resistor across all the LEDs"),
    ("follower", "A transistor that follows it"),
    ("pulses", "Pulses of its width"),
)
CURE = Detail("cure", "How it is dimmed", None, "", CURES)
SHUNT = Detail("shunt", "That resistor", OHM, "47R; empty takes the one that comes closest")
DIVIDER = Detail("divider", "The knob that divides", OHM, "1k; empty takes that")

_MOST = 60
_USUAL_DIVIDER = 1000.0
# A track's end is never quite nothing, Ω.
_LEAST_OHM = 1e-3
# The knob's turn, from bright to dark.
_TURNS = np.linspace(0.0, 1.0, 21)
_HALF = len(_TURNS) // 2
# Steps of lightness of 100 that a knob may be off its old law before whoever turns it misses it (ours).
FAITHFUL = 10.0
# A small transistor in free air at half its rating, W (data sheets, from memory: 0.6 W).
_SMALL_W = 0.3


@dataclass(frozen=True)
class Knob:
    """What is behind the knob.

    Attributes:
        volts: the rail.
        track: the knob, Ω.
        count: lamps.
        old: an old one.
        led, ohm: what is in each place instead; None while the old ones are.
        cure: how it is dimmed.
        shunt: across all the LEDs, Ω.
        divider: the knob that divides, Ω.
    """

    volts: float
    track: float
    count: int
    old: Lamp
    led: Led | None
    ohm: float
    cure: Cure
    shunt: float
    divider: float

    @property
    def before(self) -> "Knob":
        """The same with the old lamps in it."""
        return replace(self, led=None, cure="none", shunt=0.0)


@lru_cache(maxsize=256)
def solve(d: Knob) -> States:
    """The knob's turn in one batch; pulses leave the rail whole while they last, so that only the bright end is."""
    turn = np.zeros_like(_TURNS) if d.cure == "pulses" else _TURNS
    w = Wiring("lamps behind a knob" if d.led is None else "LEDs behind a knob")
    w.source("Vrail", "rail", d.volts)
    if d.cure == "follower":
        w.resistor("Rupper", "rail", "wiper", turn * d.divider + _LEAST_OHM)
        w.resistor("Rlower", "wiper", "0", (1 - turn) * d.divider + _LEAST_OHM)
        w.npn("Qfollow", "rail", "wiper", "bus")
    else:
        w.resistor("Rknob", "rail", "bus", turn * d.track + _LEAST_OHM)
    if d.cure == "shunt":
        w.resistor("Rshunt", "bus", "0", d.shunt)
    if d.led is None:
        w.filament("Rlamps", "bus", "0", d.old.times(d.count), judged=False)
    else:
        w.resistors("Rleds", "bus", "leds", d.ohm, d.count)
        w.led("Dleds", "leds", "0", d.led, parallel=d.count)
    return solve_states(w, *(f"With {percent(t)} of the knob turned in" for t in _TURNS))


@dataclass(frozen=True)
class Turned:
    """Over the knob's turn, from bright to dark, (turns,) each.

    Attributes:
        light: share of that at the bright end.
        amps: of one lamp.
        bus: volts across the lamps.
        knob_w, part_w: heat in the knob, and in the part that dims instead.
    """

    light: FloatArray
    amps: FloatArray
    bus: FloatArray
    knob_w: FloatArray
    part_w: FloatArray


@lru_cache(maxsize=256)
def turned(d: Knob) -> Turned:
    """Over the knob's turn; of pulses the eye takes their mean (Talbot-Plateau).

    Args:
        d: what is behind it.

    Returns:
        What lamps or LEDs do; light beside that at the bright end.

    Raises:
        NotConverged: it has no answer.
    """
    found, none = solve(d), np.zeros(len(_TURNS))
    bus = found.volts("bus")
    if d.led is None:
        all_a = found.amps("Rlamps")
        light = (bus / bus[0]) ** LIGHT_EXPONENT
        return Turned(light, all_a / d.count, bus, all_a**2 * _TURNS * d.track, none)
    amps = np.maximum(found.amps("Dleds"), 0.0) / d.count
    if d.cure == "pulses":
        on = 1 - _TURNS
        return Turned(on, amps * on, bus * on, none, none)
    light = relative_light(d.led, amps)
    if d.cure == "follower":
        knob = (d.volts - found.volts("wiper")) ** 2 / (_TURNS * d.divider + _LEAST_OHM)
        return Turned(light / light[0], amps, bus, knob, (d.volts - bus) * amps * d.count)
    knob = (d.volts - bus) ** 2 / (_TURNS * d.track + _LEAST_OHM)
    return Turned(light / light[0], amps, bus, knob, bus**2 / d.shunt if d.cure == "shunt" else none)


def miss(d: Knob) -> float:
    """How far a knob's law is from the old one's: root mean square over the turn, in steps of lightness of 100."""
    off = lightness(turned(d).light) - lightness(turned(d.before).light)
    return float(np.sqrt(np.mean(off**2)))


def nearest_shunt(d: Knob) -> float:
    """The resistor of E12 with which the LEDs come closest to the old law, by trying the network.

    It makes no more heat than the old lamps did at the bright end: what is behind the panel stood that.

    Args:
        d: what is behind the knob.

    Returns:
        Ω.
    """
    old = turned(d.before)
    least = float(old.bus[0] / (old.amps[0] * d.count))
    tried = [float(v) for v in preferred.values("E12", least, max(10e3, 10 * least))]
    return min(tried, key=lambda v: miss(replace(d, cure="shunt", shunt=v)))


class Rheostat(CircuitKind[Knob]):
    """Dash lamps, dial lamps, panel lights: one knob in series with all of them."""

    id = "rheostat"
    order = 14
    label = "Lamps behind a knob"
    looks = (
        "A knob of wire that gets warm, in the feed of the lamps. What they draw makes it work: LEDs draw a twentieth, "
        "and the knob then does nearly nothing."
    )
    never = (
        "A dimmer of the mains is none of this: qualified people only. A resistor across the LEDs, and a transistor "
        "that follows, get hot at the bright end: metal, and air."
    )
    parts = (
        ("Vrail", "rail", "volts"),
        ("Rupper", "knob, upper", "divider"),
        ("Rlower", "knob, lower", "divider"),
        ("Qfollow", "follower", "cure"),
        ("Rknob", "knob", "track"),
        ("Rshunt", "shunt", "shunt"),
        ("Rlamps", "old lamps", "count"),
        ("Rleds", "resistors", "ohm"),
        ("Dleds", "LEDs", "led"),
    )
    details = (VOLTS, TRACK, COUNT, LAMP_V, LAMP_A, asks.led_detail("LED in each place"), LED_OHM, CURE, SHUNT, DIVIDER)

    def case(self, typed: Details) -> Knob:
        """What is behind the knob, as typed."""
        volts, track, lamp_v, lamp_a, ohm = typed.needed(VOLTS, TRACK, LAMP_V, LAMP_A, LED_OHM)
        cure: Cure = typed.choice(CURE.id)  # type: ignore[assignment]  # one of its options
        led = asks.read_led(typed)
        d = Knob(
            volts,
            track,
            typed.count(COUNT.id, _MOST),
            asks.rated_lamp(lamp_v, lamp_a),
            led,
            ohm,
            cure,
            typed.value(SHUNT.id) or 0.0,
            typed.value(DIVIDER.id) or _USUAL_DIVIDER,
        )
        if d.cure == "shunt" and not d.shunt:
            d = replace(d, shunt=nearest_shunt(d))
        if visibility(candela_at(led, float(turned(d).amps[0]))) == "dark":
            raise InputError(VOLTS.id, f"{show(d.volts, VOLT)} do not light this LED, even at the bright end.")
        return d

    def states(self, case: Knob) -> tuple[States, ...]:
        """The knob's turn."""
        return (solve(case),)

    def options(self, now: Knob, typed: Details, chosen: str) -> list[Option]:
        """The other ways to dim, the closest to the old law first."""
        plans = [
            replace(now, cure="shunt", shunt=nearest_shunt(now)),
            replace(now, cure="follower"),
            replace(now, cure="pulses"),
        ]
        ranked = sorted((p for p in plans if p.cure != now.cure), key=miss)
        # One that is faithful already needs nothing more; the others are still compared.
        return [_option(p, advised=n == 0 and miss(now) > FAITHFUL) for n, p in enumerate(ranked)]

    def report(self, job: Job[Knob]) -> CircuitResult:
        """Light over the knob's turn, old and new, and what comes closest to the old law."""
        old, now = turned(job.now.before), turned(job.now)
        at_half, at_end = (f"{percent(old.light[k])} and {percent(now.light[k])}" for k in (_HALF, -1))
        tail = "follows as it did" if miss(job.now) <= FAITHFUL else "no longer follows"
        return CircuitResult(
            line=f"Old lamps and LEDs: {at_half} of their light at half the knob, {at_end} at its end. It {tail}.",
            figures=_figures(job),
            pictures=(_picture(job),),
            stairs=_stairs(job.now),
            tables=(_table(job),),
            findings=_findings(job.now),
            spice=solve(job.now).deck(_HALF),
        )


KIND = Rheostat()


def _option(d: Knob, *, advised: bool) -> Option:
    t = turned(d)
    heat = float(t.part_w.max())
    told = f"{miss(d):.0f} steps of lightness from the old law, of 100; {percent(t.light[_HALF])} at half, "
    told += f"{percent(t.light[-1])} at its end."
    one = shown(float(t.amps[0]), AMPERE, "one LED at the bright end, solved")
    changes = {CURE.id: str(d.cure), SHUNT.id: show(d.shunt, OHM) if d.cure == "shunt" else ""}
    if d.cure == "shunt":
        body = values.body_text(heat, (heat * d.shunt) ** 0.5).replace(": ", " at the bright end: ")
        return Option(
            "shunt",
            f"{show(d.shunt, OHM)} across the LEDs",
            f"{body}. {told}",
            shown(d.shunt, OHM, "the value of E12 that comes closest"),
            "resistance",
            advised=advised,
            changes=changes,
        )
    if d.cure == "follower":
        small = "a small one takes it" if heat <= _SMALL_W else "it wants a larger one on metal"
        what = f"A knob of {show(d.divider, OHM)} in its place; {show(heat, WATT)} in the transistor: {small}. {told}"
        return Option(
            "follower", "A transistor that follows the knob", what, one, "current", advised=advised, changes=changes
        )
    what = f"No heat; over 200 Hz, so that nothing flickers; it may be heard in a receiver nearby. {told}"
    return Option("pulses", "Pulses of a width", what, one, "current", advised=advised, changes=changes)


def _figures(job: Job[Knob]) -> tuple[Figure, ...]:
    def light(label: str, id_: str, k: int) -> tuple[Figure, Figure]:
        old = percent_shown(float(turned(job.now.before).light[k]), "light beside the bright end, solved")
        return (
            Figure(f"old-{id_}", f"Old lamps at {label}", old),
            job.pair(
                f"led-{id_}",
                f"LEDs at {label}",
                lambda d: percent_shown(float(turned(d).light[k]), "light beside the bright end, solved"),
            ),
        )

    hot = shown(float(turned(job.now.before).knob_w.max()), WATT, "I²R over its turn")
    return (
        *light("half the knob", "half", _HALF),
        *light("its end", "end", -1),
        Figure("old-heat", "Most heat in the knob, old lamps", hot),
        job.pair(
            "led-heat",
            "Most heat in the knob, LEDs",
            lambda d: shown(float(turned(d).knob_w.max()), WATT, "V²/R over its turn"),
        ),
    )


def _picture(job: Job[Knob]) -> Picture:
    curves = [
        curve("Old lamps", "old", 100 * _TURNS, 100 * turned(job.now.before).light),
        curve(f"LEDs: {dict(CURES)[job.now.cure]}", "new", 100 * _TURNS, 100 * turned(job.now).light),
    ]
    if job.after is not None and job.option is not None:
        curves.append(curve(f"LEDs: {job.option.label}", "after", 100 * _TURNS, 100 * turned(job.after).light))
    return Picture("light", "Light over the knob", "% of the knob turned in", "% of full light", tuple(curves))


def _stairs(d: Knob) -> tuple[BranchStair, ...]:
    """Half the knob: what it keeps of the rail, and what is left; pulses keep nothing, and have no such stair."""
    if d.cure == "pulses":
        return ()
    origin, old, now = "solved at half the knob", turned(d.before), turned(d)
    bus, amps = float(now.bus[_HALF]), float(now.amps[_HALF])
    keeps = "knob" if d.cure != "follower" else "transistor"
    return (
        stair(
            "old",
            "An old lamp",
            (("knob", d.volts - float(old.bus[_HALF])), ("lamp", float(old.bus[_HALF]))),
            float(old.amps[_HALF]),
            f"{percent(old.light[_HALF])} of its light",
            origin,
        ),
        stair(
            "led",
            "An LED",
            ((keeps, d.volts - bus), ("resistor", amps * d.ohm), ("LED", bus - amps * d.ohm)),
            amps,
            f"{percent(now.light[_HALF])} of its light",
            origin,
        ),
    )


def _table(job: Job[Knob]) -> Table:
    found = [turned(d) for d in (job.now.before, *job.cases)]
    rows = []
    for k in range(0, len(_TURNS), 5):
        cells = tuple(shown(float(t.amps[k]), AMPERE, "solved at this turn") for t in found)
        whose = zip(("of the old lamps", "of the LEDs", "afterwards"), found, strict=False)
        words = "light " + ", ".join(f"{percent(t.light[k])} {who}" for who, t in whose)
        rows.append(Row(f"{100 * _TURNS[k]:.0f}", f"{percent(_TURNS[k])} turned in", cells, words))
    return Table("turn", "Over the knob's turn", ("An old lamp", "An LED", "Afterwards")[: len(found)], tuple(rows))


def _findings(d: Knob) -> tuple[Finding, ...]:
    out = []
    if miss(d) > FAITHFUL:
        out.append(
            Finding(
                "knob-law",
                "mind",
                f"The knob is {miss(d):.0f} steps of lightness from its old law, of 100.",
                f"{miss(d):.0f}",
                f"{FAITHFUL:g}",
                f"Over {FAITHFUL:g} it is missed by whoever turns it (ours). What comes closest stands first.",
            )
        )
    if d.cure == "shunt":
        out.append(
            Finding(
                "hot-shunt",
                "mind",
                f"The resistor across the LEDs makes {show(float(turned(d).part_w.max()), WATT)} at the bright end.",
                why="On metal, clear of the loom and of plastic.",
            )
        )
    if float(turned(d.before).light[-1]) > 0.5:
        out.append(
            Finding(
                "never-dimmed", "note", "Even the old lamps were not dimmed to half.", why="Is the knob's figure right?"
            )
        )
    return tuple(out)
