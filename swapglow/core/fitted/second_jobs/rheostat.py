"""Lamps behind a knob: light against its turn, old and new, and what makes an LED follow it."""

import math
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import Bjt, Circuit, Dc, Diode, Element, Param, Resistor, VoltageSource
from swapglow.core.engine.operating_point import operating_point
from swapglow.core.engine.spice import write_deck
from swapglow.core.fitted.kind import FittedKind
from swapglow.core.fitted.led_detail import led_detail
from swapglow.core.fitted.second_jobs.stairs import stair
from swapglow.core.fitted.worked import (
    BranchStair,
    Figure,
    Judged,
    Picture,
    Row,
    Table,
    Way,
    Worked,
    curve,
    gravest_first,
    picked,
)
from swapglow.core.kinds.detail import Detail, Details
from swapglow.core.network.filaments import Ohms, ohms_at, settled
from swapglow.core.parts.lamp import LIGHT_EXPONENT, Lamp, own_lamp
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.led_model import led_model
from swapglow.core.parts.resistor import rating_to_fit, stands_text
from swapglow.core.parts.transistor import transistor
from swapglow.core.photometry.colour import lightness
from swapglow.core.photometry.light_law import candela_at, relative_light
from swapglow.core.photometry.visibility import visibility
from swapglow.core.quantities import (
    AMPERE,
    OHM,
    VOLT,
    WATT,
    InputError,
    Shown,
    percent,
    percent_shown,
    show,
    shown,
)
from swapglow.core.values import preferred

FloatArray = NDArray[np.float64]

VOLTS = Detail("volts", "The rail before the knob", VOLT, "13.6V, as it usually runs")
TRACK = Detail("track", "The knob from end to end", OHM, "25R, read across its ends, power off")
COUNT = Detail("count", "Lamps behind it", None, "4; empty takes one")
LAMP_V = Detail("lamp_volts", "An old lamp's volts", VOLT, "12V, as marked")
LAMP_A = Detail(
    "lamp_amps", "An old lamp's amps", AMPERE, "0.12A; a 1.5 W lamp of 12 V is 0.125A", at="lamp_volts"
)
LED = led_detail("LED in each place")
LED_OHM = Detail("ohm", "The resistor of each", OHM, "680R", none="link")
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
_USUAL_DIVIDER = 1e3
# A contact's own, so that the knob at its bright end is no short of nothing.
_LEAST_OHM = 1e-3
_TURNS = np.linspace(0.0, 1.0, 21)
_HALF = 10
# A law that is further than this from the old one's is missed by whoever turns the knob, in steps of lightness (ours:
# of 100 steps, five are plain side by side and ten from memory).
FAITHFUL = 10.0
# What a small transistor takes in free air at half its rating, W (data sheets, from memory: 0.6 W).
_SMALL_W = 0.3


@dataclass(frozen=True)
class Dash:
    """What stands behind the knob.

    Attributes:
        volts: the rail.
        track: the knob, Ω.
        count: lamps.
        lamp: an old one.
        led, ohm: what is in each place instead.
        cure: how it is dimmed.
        shunt: across all the LEDs, Ω; None for none.
        divider: the knob that divides, Ω.
    """

    volts: float
    track: float
    count: int
    lamp: Lamp
    led: Led
    ohm: float
    cure: Cure = "none"
    shunt: float | None = None
    divider: float = _USUAL_DIVIDER


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


def _ohms(share: Param, track: float) -> Param:
    """A part of a track, never quite nothing."""
    return share * track + _LEAST_OHM


def old_circuit(d: Dash, turn: FloatArray, ohms: Ohms) -> Circuit:
    """The old lamps behind the knob.

    Args:
        d: what stands there.
        turn: share of the knob that is in series, (turns,).
        ohms: all filaments together, "Rlamps".

    Returns:
        The circuit; lamps stand between "bus" and ground.
    """
    return Circuit((
        VoltageSource("Vrail", "rail", "0", Dc(d.volts)),
        Resistor("Rknob", "rail", "bus", _ohms(turn, d.track)),
        Resistor("Rlamps", "bus", "0", ohms["Rlamps"]),
    ), celsius=REFERENCE_C, title="lamps behind a knob")  # fmt: skip


def led_circuit(d: Dash, turn: Param) -> Circuit:
    """The LEDs behind the knob, dimmed by its resistance, with a shunt, or by a follower.

    Args:
        d: what stands there; its pulses are no circuit of their own, see :func:`turned`.
        turn: share of the knob that is turned in, one or (turns,).

    Returns:
        The circuit; equal branches stand as one of so many times the area.
    """
    parts: list[Element] = [VoltageSource("Vrail", "rail", "0", Dc(d.volts))]
    if d.cure == "follower":
        parts += [
            Resistor("Rupper", "rail", "wiper", _ohms(turn, d.divider)),
            Resistor("Rlower", "wiper", "0", _ohms(1 - turn, d.divider)),
            Bjt("Qfollow", "rail", "wiper", "bus", transistor("npn")),
        ]
    else:
        parts.append(Resistor("Rknob", "rail", "bus", _ohms(turn, d.track)))
    if d.cure == "shunt" and d.shunt is not None:
        parts.append(Resistor("Rshunt", "bus", "0", d.shunt))
    parts += [
        Resistor("Rleds", "bus", "leds", d.ohm / d.count),
        Diode("Dleds", "leds", "0", led_model(d.led), area=float(d.count)),
    ]
    return Circuit(tuple(parts), celsius=REFERENCE_C, title="LEDs behind a knob")


def old_turned(d: Dash, turn: FloatArray = _TURNS) -> Turned:
    """The old lamps over the knob's turn, filaments at rest.

    Args:
        d: what stands there.
        turn: shares of the knob, (turns,), the bright end first.

    Returns:
        What they do.

    Raises:
        NotConverged: it has no answer.
    """
    laws = {"Rlamps": lambda volts: ohms_at(d.lamp, volts) / d.count}
    point = settled(lambda ohms: old_circuit(d, turn, ohms), laws, len(turn))
    bus, all_a = point.voltage("bus"), point.current("Rlamps")
    light = (bus / bus[0]) ** LIGHT_EXPONENT
    return Turned(light, all_a / d.count, bus, all_a**2 * turn * d.track, np.zeros(len(turn)))


def turned(d: Dash, turn: FloatArray = _TURNS) -> Turned:
    """The LEDs over the knob's turn.

    With pulses the rail is whole while they last, and what the eye takes is their mean (Talbot-Plateau).

    Args:
        d: what stands there.
        turn: shares of the knob, (turns,), the bright end first.

    Returns:
        What they do; light beside that at the bright end.

    Raises:
        NotConverged: it has no answer.
    """
    if d.cure == "pulses":
        point = operating_point(led_circuit(d, np.zeros(1))).require()
        on = 1 - turn
        full = float(point.current("Dleds")[0]) / d.count
        return Turned(
            on, full * on, float(point.voltage("bus")[0]) * on, np.zeros(len(turn)), np.zeros(len(turn))
        )
    point = operating_point(led_circuit(d, turn)).require()
    bus, amps = point.voltage("bus"), np.maximum(point.current("Dleds"), 0.0) / d.count
    light = relative_light(d.led, amps)
    if d.cure == "follower":
        part = (d.volts - bus) * amps * d.count
        knob = (d.volts - point.voltage("wiper")) ** 2 / _ohms(turn, d.divider)
        return Turned(light / light[0], amps, bus, knob, part)
    knob = (d.volts - bus) ** 2 / _ohms(turn, d.track)
    shunt = bus**2 / d.shunt if d.cure == "shunt" and d.shunt is not None else np.zeros(len(turn))
    return Turned(light / light[0], amps, bus, knob, shunt)


def apart(old: Turned, new: Turned) -> float:
    """How far a knob's law is from the old one's.

    Args:
        old, new: both over the same turn.

    Returns:
        Root mean square over the turn, in steps of lightness of 100.
    """
    return float(np.sqrt(np.mean((lightness(new.light) - lightness(old.light)) ** 2)))


def nearest_shunt(d: Dash, old: Turned) -> float:
    """The resistor of E12 with which the LEDs come closest to the old law, by trying the network.

    It makes no more heat than the old lamps did at the bright end: what is behind the panel stood that.

    Args:
        d: what stands there.
        old: the old lamps over the same turn.

    Returns:
        Ω.
    """
    least = float(old.bus[0] / (old.amps[0] * d.count))
    values = [float(v) for v in preferred.values("E12", least, max(10e3, 10 * least))]
    return min(values, key=lambda v: apart(old, turned(replace(d, cure="shunt", shunt=v))))


class Rheostat(FittedKind):
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
    details = (VOLTS, TRACK, COUNT, LAMP_V, LAMP_A, LED, LED_OHM, CURE, SHUNT, DIVIDER)

    def work(self, typed: Details, chosen: str = "") -> Worked:
        """Light over the knob's turn, old and new, and what comes closest to the old law."""
        d = _dash(typed)
        old = old_turned(d)
        if d.cure == "shunt" and d.shunt is None:
            d = replace(d, shunt=nearest_shunt(d, old))
        now = turned(d)
        if visibility(candela_at(d.led, float(now.amps[0]))) == "dark":
            raise InputError(
                VOLTS.id, f"{show(d.volts, VOLT)} do not light this LED, even at the bright end."
            )
        ways = _ways(d, old)
        # One that is faithful already needs nothing more; the others are still compared.
        way = picked(ways, chosen) if chosen or apart(old, now) > FAITHFUL else None
        after = None if way is None else turned(_with(d, way))
        return Worked(
            line=_line(old, now),
            figures=_figures(old, now, after),
            pictures=(_picture(d, old, now, after, way),),
            stairs=_stairs(d, old, now),
            tables=(_table(old, now, after),),
            ways=ways,
            judged=_judged(d, old, now),
            spice=write_deck(led_circuit(d, 0.5)),
        )


KIND = Rheostat()


def _dash(typed: Details) -> Dash:
    volts, track, lamp_v, lamp_a, ohm = typed.needed(VOLTS, TRACK, LAMP_V, LAMP_A, LED_OHM)
    cure: Cure = typed.choice(CURE.id)  # type: ignore[assignment]  # one of its options
    return Dash(
        volts, track, typed.count(COUNT.id, _MOST), own_lamp(lamp_v, lamp_a, None, ""),
        catalogue()[typed.choice(LED.id)], ohm, cure, typed.value(SHUNT.id),
        typed.value(DIVIDER.id) or _USUAL_DIVIDER,
    )  # fmt: skip


def _with(d: Dash, way: Way) -> Dash:
    """What stands there once a way is done."""
    cure: Cure = way.changes[CURE.id]  # type: ignore[assignment]  # one of its options
    return replace(d, cure=cure, shunt=way.share.value if cure == "shunt" else None)


def _line(old: Turned, now: Turned) -> str:
    at_half, at_end = (f"{percent(old.light[k])} and {percent(now.light[k])}" for k in (_HALF, -1))
    tail = "follows as it did" if apart(old, now) <= FAITHFUL else "no longer follows"
    return f"Old lamps and LEDs: {at_half} of their light at half the knob, {at_end} at its end. It {tail}."


def _figures(old: Turned, now: Turned, after: Turned | None) -> tuple[Figure, ...]:
    def share(t: Turned, k: int) -> Shown:
        value = float(t.light[k])
        return percent_shown(value, "light beside the bright end, solved")

    def pair(label: str, k: int) -> Figure:
        return Figure(label, share(now, k), None if after is None else share(after, k))

    heat = float(now.knob_w.max())
    return (
        Figure("Old lamps at half the knob", share(old, _HALF)),
        pair("LEDs at half the knob", _HALF),
        Figure("Old lamps at its end", share(old, -1)),
        pair("LEDs at its end", -1),
        Figure("Most heat in the knob, old lamps", shown(float(old.knob_w.max()), WATT, "I²R over its turn")),
        Figure("Most heat in the knob, LEDs", shown(heat, WATT, "V²/R over its turn"),
               None if after is None else shown(float(after.knob_w.max()), WATT, "V²/R over its turn")),
    )  # fmt: skip


def _picture(d: Dash, old: Turned, now: Turned, after: Turned | None, way: Way | None) -> Picture:
    curves = [
        curve("Old lamps", "old", 100 * _TURNS, 100 * old.light),
        curve(f"LEDs: {dict(CURES)[d.cure]}", "new", 100 * _TURNS, 100 * now.light),
    ]
    if after is not None and way is not None:
        curves.append(curve(f"LEDs: {way.label}", "after", 100 * _TURNS, 100 * after.light))
    return Picture("Light over the knob", "% of the knob turned in", "% of full light", tuple(curves))


def _ways(d: Dash, old: Turned) -> tuple[Way, ...]:
    plans = [
        replace(d, cure="shunt", shunt=nearest_shunt(d, old)), replace(d, cure="follower"), replace(d, cure="pulses"),
    ]  # fmt: skip
    plans = [p for p in plans if p.cure != d.cure]
    found = sorted(((apart(old, t), p, t) for p, t in ((p, turned(p)) for p in plans)), key=lambda x: x[0])
    return tuple(_way(p, t, k == 0, miss) for k, (miss, p, t) in enumerate(found))


def _way(d: Dash, t: Turned, nearest: bool, miss: float) -> Way:
    heat = float(t.part_w.max())
    told = f"{miss:.0f} steps of lightness from the old law, of 100; {percent(t.light[_HALF])} at half, "
    told += f"{percent(t.light[-1])} at its end."
    changes = {CURE.id: str(d.cure), SHUNT.id: ""}
    if d.cure == "shunt" and d.shunt is not None:
        rating = rating_to_fit(heat, math.sqrt(heat * d.shunt))
        body = stands_text(rating)
        label, what = (
            f"{show(d.shunt, OHM)} across the LEDs",
            f"{show(heat, WATT)} at the bright end: {body}. {told}",
        )
        share = shown(d.shunt, OHM, "the value of E12 that comes closest")
        changes[SHUNT.id] = show(d.shunt, OHM)
    elif d.cure == "follower":
        small = "a small one takes it" if heat <= _SMALL_W else "it wants a larger one on metal"
        label = "A transistor that follows the knob"
        what = f"A knob of {show(d.divider, OHM)} in its place; {show(heat, WATT)} in the transistor: {small}. {told}"
        share = shown(float(t.amps[0]), AMPERE, "one LED at the bright end, solved")
    else:
        label = "Pulses of a width"
        what = f"No heat; over 200 Hz, so that nothing flickers; it may be heard in a receiver nearby. {told}"
        share = shown(float(t.amps[0]), AMPERE, "one LED at the bright end, solved")
    return Way(label, what, share, "", "", nearest, changes)


def _stairs(d: Dash, old: Turned, now: Turned) -> tuple[BranchStair, ...]:
    """Half the knob: what it keeps of the rail, and what is left; pulses keep nothing, and have no such stair."""
    if d.cure == "pulses":
        return ()
    origin = "solved at half the knob"
    bus, amps = float(now.bus[_HALF]), float(now.amps[_HALF])
    keeps = "knob" if d.cure != "follower" else "transistor"
    return (
        stair("An old lamp", (("knob", d.volts - float(old.bus[_HALF])), ("lamp", float(old.bus[_HALF]))),
              float(old.amps[_HALF]), f"{percent(old.light[_HALF])} of its light", origin),
        stair("An LED", ((keeps, d.volts - bus), ("resistor", amps * d.ohm), ("LED", bus - amps * d.ohm)), amps,
              f"{percent(now.light[_HALF])} of its light", origin),
    )  # fmt: skip


def _table(old: Turned, now: Turned, after: Turned | None) -> Table:
    rows = []
    for k in range(0, len(_TURNS), 5):
        found = [old, now] if after is None else [old, now, after]
        cells = [shown(float(t.amps[k]), AMPERE, "solved at this turn") for t in found]
        lights = [percent(t.light[k]) for t in found]
        words = f"light {lights[0]} of the old lamps, {lights[1]} of the LEDs"
        words += "" if after is None else f", {lights[2]} afterwards"
        rows.append(Row(f"{percent(_TURNS[k])} turned in", tuple(cells), words))
    heads = ("An old lamp", "An LED") if after is None else ("An old lamp", "An LED", "Afterwards")
    return Table("Over the knob's turn", heads, tuple(rows))


def _judged(d: Dash, old: Turned, now: Turned) -> tuple[Judged, ...]:
    out = []
    miss = apart(old, now)
    if miss > FAITHFUL:
        out.append(Judged(
            "mind", f"The knob is {miss:.0f} steps of lightness from its old law, of 100.",
            f"Over {FAITHFUL:g} it is missed by whoever turns it (ours). What comes closest stands first.",
        ))  # fmt: skip
    full = float(now.amps[0])
    if full > d.led.rated_a * (1 + 1e-9):
        out.append(Judged(
            "stop", f"{show(full, AMPERE)} in each LED at the bright end, over its {show(d.led.rated_a, AMPERE)}.",
            "A larger resistor in each.",
        ))  # fmt: skip
    if d.cure == "shunt" and d.shunt is not None:
        out.append(Judged(
            "mind", f"The resistor across the LEDs makes {show(float(now.part_w.max()), WATT)} at the bright end.",
            "On metal, clear of the loom and of plastic.",
        ))  # fmt: skip
    if float(old.light[-1]) > 0.5:
        out.append(
            Judged("note", "Even the old lamps were not dimmed to half.", "Is the knob's figure right?")
        )
    return gravest_first(out)
