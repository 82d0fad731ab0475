"""Random lamps with something wrong in them, made without knowing what the app suspects.

Each case takes the netlist of a random lamp, a bridge with all its diodes, and damages one or two of its elements
(open, shorted, turned, another value, a joint in a lead, something across two of its nodes), or its source, or its
meter; in three of five nothing is wrong but its LEDs are of another lot and its rail anywhere in what it may be.
Readings are made by the reference simulator, the meter in the circuit, with a gain of its own; one in twenty is read by
a slip of the hand.
"""

import random
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np

from scripts import reference
from scripts.fuzz.documents import document
from swapglow.core.analysis.solution import Solution, solve
from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import (
    Capacitor,
    Circuit,
    CircuitError,
    CurrentSource,
    Dc,
    Diode,
    Element,
    Resistor,
    VoltageSource,
)
from swapglow.core.engine.spice import write_deck
from swapglow.core.evidence.hypotheses import one_string
from swapglow.core.evidence.next_reading import candidates
from swapglow.core.measurement.reading_after import (
    ENDLESS,
    LOOKS,
    POWER_OFF,
    SEEN,
    ReadingAfter,
    ReadingKind,
    ReadingOf,
)
from swapglow.core.network.builder import Network, build, laws_of
from swapglow.core.network.cases import Cases
from swapglow.core.network.sources import sine
from swapglow.core.parts import led as leds
from swapglow.core.quantities import InputError
from swapglow.core.supplies.waveform import Waveform
from swapglow.inputs.position import PositionInput
from swapglow.inputs.rail import RailInput
from swapglow.inputs.to_core import position_of

# A lamp that somebody fitted: it lights, and its LED is not beyond what it may carry.
LEAST_A = 2e-4
# A rail that is known no better than this is read before anything is fitted.
WIDEST = 1.5
SOUND, PAIR, SLIP = 0.6, 0.15, 0.05
SLIPS, SLIP_WEIGHTS = ("decade", "place", "count", "socket"), (1, 0.7, 1.5, 0.3)
OPEN_OHM, SHORT_OHM, BRIDGE_OHM = 1e10, 0.1, 0.05
_CYCLES, _STEPS = 50, 200
# Nothing in these circuits raises volts: more than so many times the highest crest is no reading.
_IMPOSSIBLE = 1.3
_FED = ("behind", "feed", "loaded", "plus")
# A joint of so many times its string's own ohms is told as open: a meter shows nothing flowing.
_AS_OPEN = 20.0
_METER_OHM = 10e6
# Stand-ins of the builder, a source's own resistance, and what the lines below put in are no parts.
_NO_PARTS = ("Rsource", "Rinsulation", "Rpulse", "Rinside", "Rdriver")
_LEDS = ("red-5-diffused", "amber-5-diffused", "lime-5-diffused", "green-5-clear", "blue-5-clear", "white-5-clear")
_WAYS = ("bridge_cap", "bridge_cap", "bridge", "half_wave", "half_wave_cap", "inverse_diode", "bare")
_KINDS = ("regulated", "regulated", "vehicle", "unregulated", "battery", "winding", "winding", "winding")


class NoCase(Exception):
    """This seed makes no case; the reason is counted."""


@dataclass(frozen=True)
class Damage:
    """What was done: to which element or place, what it became, and its size."""

    what: str
    how: str
    size: float = 0.0


@dataclass
class Case:
    """A lamp as it really is.

    Attributes:
        s: the lamp as it is typed.
        circuit, contacts: as it stands.
        done: what is wrong.
        gain, burden: the meter's, a factor and Ω.
        dead_meter: whether its fuse has gone.
        led_v, rail: forward voltage of each LED, V, and the rail's share of the usual.
        seed: draws it again.
        slipped: what the hand did wrong so far.
    """

    s: Solution
    circuit: Circuit
    contacts: tuple[str, str]
    done: tuple[Damage, ...]
    gain: float
    burden: float
    dead_meter: bool
    led_v: float
    rail: float
    rng: random.Random
    seed: int
    slipped: list[str] = field(default_factory=list)

    @property
    def position(self) -> Position:
        """The lamp with one of its strings on its own."""
        return one_string(self.s)

    @property
    def whole(self) -> Circuit:
        """The circuit's topology with nothing wrong."""
        p = self.position
        wave = sine(1.0, 50.0, folded=False) if p.rail.supply.alternates else None
        return build(p, Cases(1.0, self.led_v, 1.0, p.drop_v), stacked=True, wave=wave, farads=1e-6).circuit


def lamp_of(rng: random.Random) -> tuple[RailInput, PositionInput]:
    """A lamp as somebody fits it: a plain, swinging or alternating supply, one string or several."""

    def typed(text: str, source: str) -> dict[str, str]:
        return {"text": text, "source": source}

    kind = rng.choice(_KINDS)
    usual = 12.6 if kind == "vehicle" else rng.choice((5.0, 6.3, 9.0, 12.0, 12.0, 16.0, 24.0))
    source = rng.choice(("measured", "measured", "assumed"))
    spread = rng.choice((0.0, 0.02, 0.08))
    nothing = typed("", "assumed")
    rail: dict[str, Any] = {"kind": kind, "usual": typed(f"{usual:g}V", source), "low": nothing, "high": nothing}
    if kind in ("regulated", "winding") and spread:
        rail["low"], rail["high"] = (typed(f"{usual * x:.4g}V", "measured") for x in (1 - spread, 1 + spread))
    if kind == "unregulated":
        rail["details"] = {"open": typed(f"{usual * 1.2:.4g}V", "measured"), "load": typed("100mA", "measured")}
    led = leds.catalogue()[rng.choice(_LEDS)]
    most = max(int(0.75 * usual * (1.3 if kind == "winding" else 1) / led.vf_typ), 1)
    fields: dict[str, Any] = {
        "led_id": led.id,
        "target": typed(f"{rng.choice((2, 5, 8, 12))}mA", "measured"),
        "in_series": rng.randint(1, min(most, 6)) if rng.random() < 0.5 else 1,
        "branches": rng.choice((1, 1, 1, 2, 4, 10)),
        "driver_kind": "direct" if kind == "winding" else rng.choice(("direct", "direct", "high_side", "low_side")),
        "resistor_parts": rng.choice((1, 1, 1, 1, 2)),
        "series_diodes": rng.choice((0, 0, 0, 0, 1)),
    }
    if kind == "winding":
        fields["rectification"] = rng.choice(_WAYS)
    return RailInput.model_validate(rail), PositionInput.model_validate(fields)


def fitted(seed: int) -> Solution:
    """A random lamp that somebody would have fitted: most of them plain ones, some from the fuzz's own.

    Raises:
        NoCase: the seed makes none, or one whose netlist stands for one working point only.
    """
    rail, lamp = document(seed) if seed % 8 == 0 else lamp_of(random.Random(seed + 55_000_000))
    try:
        p = position_of(lamp, rail)
        if p.live_danger or p.rail.volts[2] > WIDEST * p.rail.volts[0]:
            raise NoCase("no fitted lamp")
        if laws_of(p) or p.regulator is not None or (p.module is not None and p.module.law != "resistor"):
            raise NoCase("its netlist stands for one working point")
        if p.rail.supply.alternates and p.rail.supply.waveform is not Waveform.SINE:
            raise NoCase("no sine")
        s = solve(p, rule=False)
    except (InputError, CircuitError) as why:
        raise NoCase("no fitted lamp") from why
    if not (s.string_current_min > LEAST_A and s.string_current_max < 1.5 * s.position.led.rated_a):
        raise NoCase("no fitted lamp")
    return s


def drawn(s: Solution, rng: random.Random) -> tuple[Network, float, float]:
    """The lamp as a netlist at a luck of its own, its LEDs' forward voltage, and its rail's share of the usual."""
    p = one_string(s)
    low, usual, high = p.rail.volts
    pencilled = p.rail.usual.source.is_assumed and rng.random() < 0.3
    rail = rng.gauss(usual, 0.1 * usual) if pencilled else rng.uniform(low, high)
    lot = 0.06 if p.led.vf_typ < 2.5 else 0.12
    vf = rng.gauss(p.led.vf_typ, lot if rng.random() < 0.7 else 2 * lot)
    vf = min(max(vf, p.led.vf_typ - 0.5), p.led.vf_typ + 0.5)
    ohms = s.sizing.total_ohm * (1 + rng.uniform(-1, 1) * p.ohm_spread)
    if not p.rail.supply.alternates:
        drop = rng.uniform(p.drops[0], p.drops[2]) if p.drops[2] > p.drops[0] else p.drop_v
        return build(p, Cases(rail, vf, ohms, drop), stacked=True), vf, rail / usual
    crest = p.rail.peaks[1] * rail / usual - p.drop_v
    wave = sine(crest, p.rail.supply.hertz[1], folded=False)
    farads = s.sizing.farads * rng.uniform(0.85, 1.2)
    return build(p, Cases(crest, vf, ohms), wave=wave, stacked=True, farads=farads), vf, rail / usual


def case_of(seed: int) -> Case:
    """A lamp with what is wrong in it.

    Raises:
        NoCase: the seed makes none.
    """
    s = fitted(seed)
    rng = random.Random(seed + 1_000_003)
    made, vf, rail = drawn(s, rng)
    circuit, contacts = made.circuit, (made.plus, made.minus)
    done: list[Damage] = []
    dead, burden = False, rng.uniform(1, 10)
    if rng.random() > SOUND:
        if rng.random() < 0.12:
            dead = rng.random() < 0.5
            burden += 0 if dead else _log(rng, 20, 500)
            done.append(Damage("meter", "fuse" if dead else "burden", burden))
        else:
            circuit, first = damaged(circuit, contacts, s, rng)
            done.append(first)
            again = rng.random() < PAIR and {"R1", "D1"} <= {e.name for e in circuit.elements}
            if again and not any(e.name in ("Rbroken", "Rextra") for e in circuit.elements):
                circuit, second = damaged(circuit, contacts, s, rng)
                done.append(second)
    gain = 1 + rng.uniform(-0.012, 0.012)
    return Case(s, circuit, contacts, tuple(done), gain, burden, dead, vf, rail, rng, seed)


# ---- damage


def _log(rng: random.Random, low: float, high: float) -> float:
    return float(low * (high / low) ** rng.random())


def _ends(e: Element) -> tuple[str, str]:
    return getattr(e, e.terminals[0]), getattr(e, e.terminals[1])


def _moved(e: Element, nodes: dict[str, str]) -> Element:
    """An element with some of its terminals on other nodes."""
    return replace(e, **nodes)  # type: ignore[arg-type]  # nodes by their terminals


def _spans(circuit: Circuit, nodes: tuple[str, str]) -> str:
    """Which part stands between two nodes; "" where none does."""
    return next((e.name for e in circuit.elements if set(_ends(e)) == set(nodes) and e.name[0] in "RDC"), "")


def _with(circuit: Circuit, name: str, *instead: Element) -> Circuit:
    return replace(circuit, elements=tuple(x for e in circuit.elements for x in (instead if e.name == name else (e,))))


def damaged(circuit: Circuit, contacts: tuple[str, str], s: Solution, rng: random.Random) -> tuple[Circuit, Damage]:
    """One thing wrong in a netlist, wherever chance puts it."""
    way = rng.choices(("part", "joint", "across", "source", "led"), (5, 3, 1.5, 2, 1.5))[0]
    if way == "source":
        return _source(circuit, rng)
    if way == "led" and s.position.module is None:
        return _other_led(circuit, s, rng)
    if way == "across":
        nodes = sorted({n for e in circuit.elements for n in _ends(e)})
        a, b = rng.sample(nodes, 2)
        ohm = BRIDGE_OHM if rng.random() < 0.4 else _log(rng, 30, 1e5)
        what = _spans(circuit, (a, b)) or ("contacts" if {a, b} == set(contacts) else f"{a}-{b}")
        extra = Resistor("Rextra", a, b, ohm)
        return replace(circuit, elements=(*circuit.elements, extra)), Damage(what, "across", ohm)
    # What stands for all the other strings together is no one part.
    others = tuple(f"{kind}{len(s.position.beside) + 1}" for kind in ("beside", "blocked", "turned"))
    parts = [e for e in circuit.elements if e.name[0] in "RDC" and e.name not in _NO_PARTS]
    e = rng.choice([e for e in parts if not e.name.endswith(others)])
    if way == "joint":
        ohm = OPEN_OHM if rng.random() < 0.5 else _log(rng, 10, 1e5)
        terminal = rng.choice(e.terminals[:2])
        broken = Resistor("Rbroken", getattr(e, terminal), "broken", ohm)
        return _with(circuit, e.name, broken, _moved(e, {terminal: "broken"})), Damage(e.name, "joint", ohm)
    how, size, *instead = _part(e, rng)
    return _with(circuit, e.name, *instead), Damage(e.name, how, size)


def _source(circuit: Circuit, rng: random.Random) -> tuple[Circuit, Damage]:
    share = 1e-4 if rng.random() < 0.3 else _log(rng, 0.4, 1.8)
    source = circuit.element("Vrail")
    assert isinstance(source, VoltageSource)
    wave: Any = source.wave
    less = Dc(wave.level * share) if isinstance(wave, Dc) else replace(wave, amplitude=wave.amplitude * share)
    if share < 0.01 and any(e.name == "Vdriver" for e in circuit.elements):
        # A driver keeps nothing of a rail that is dead.
        circuit = _with(circuit, "Vdriver", Resistor("Rdriver", *_ends(circuit.element("Vdriver")), 1.0))
    return _with(circuit, "Vrail", replace(source, wave=less)), Damage("Vrail", "level", share)


def _other_led(circuit: Circuit, s: Solution, rng: random.Random) -> tuple[Circuit, Damage]:
    led, count = circuit.element("D1"), s.position.in_series
    assert isinstance(led, Diode)
    if count > 1 and rng.random() < 0.5:
        share = (count + rng.choice((-1, 1))) / count
        model = replace(led.model, n=led.model.n * share, r_s=led.model.r_s * share)
        return _with(circuit, "D1", replace(led, model=model)), Damage("D1", "count", share)
    other = rng.choice(list(leds.catalogue().values()))
    j = other.junction(other.vf_typ, s.position.celsius)
    model = replace(led.model, i_s=float(j.i_s), n=j.n * count, r_s=j.r_s * count)
    return _with(circuit, "D1", replace(led, model=model)), Damage("D1", "kind", other.vf_typ - s.position.led.vf_typ)


def _part(e: Element, rng: random.Random) -> tuple[Any, ...]:
    """What happened to a part: how, how large, and what stands there instead."""
    first, second = _ends(e)
    if isinstance(e, Resistor):
        value = ("value", _log(rng, 0.3, 3.5))
        how, size = rng.choice((("open", OPEN_OHM), ("short", SHORT_OHM), ("value", 10.0), ("value", 0.1), value))
        return how, size, replace(e, ohms=e.ohms * size if how == "value" else size)
    if isinstance(e, Capacitor):
        dry, leak = ("dry", _log(rng, 0.03, 0.5)), ("leak", _log(rng, 50, 1e4))
        how, size = rng.choice((dry, ("gone", 1e-4), leak, ("short", SHORT_OHM)))
        if how in ("dry", "gone"):
            return how, size, replace(e, farads=e.farads * size)
        return how, size, e, Resistor("Rextra", first, second, size)
    assert isinstance(e, Diode)
    how = rng.choices(("open", "short", "turned", "leak"), (3, 3, 3, 1))[0]
    if how == "turned":
        return how, 0.0, replace(e, anode=e.cathode, cathode=e.anode)
    if how == "leak":
        ohm = _log(rng, 30, 1e4)
        return how, ohm, e, Resistor("Rextra", first, second, ohm)
    return how, 0.0, Resistor(f"Rwas{e.name}", first, second, OPEN_OHM if how == "open" else SHORT_OHM)


# ---- the meter, by the reference simulator


def read(case: Case, kind: ReadingKind, id_: str, of: ReadingOf = "one") -> ReadingAfter:
    """What somebody would write down, one time in twenty by a slip."""
    if kind in LOOKS:
        return ReadingAfter(id_, kind, float(list(SEEN).index(seen(case, other_led=kind == "look_other"))))
    p, asked = case.position, kind
    slip = case.rng.random() < SLIP
    way = case.rng.choices(SLIPS, SLIP_WEIGHTS)[0] if slip and kind not in POWER_OFF else ""
    if way == "place":
        swapped: dict[ReadingKind, ReadingKind] = {"led_volts": "resistor_volts", "resistor_volts": "led_volts"}
        kind = swapped.get(kind, kind) if not p.bare and not p.rail.supply.alternates else kind
        way = "" if kind == asked else way
    apart = kind == "current" and case.s.position.branches > 1 and p.branches == 1 and not p.rail.supply.alternates
    if way == "count" and not apart:
        way = ""
    other: ReadingOf = "all" if of == "one" else "one"
    value = true_reading(case, kind, other if way == "count" else of) * (1 if kind in POWER_OFF else case.gain)
    value *= {"decade": case.rng.choice((0.1, 10)), "socket": 0.0}.get(way, 1.0)
    if way:
        case.slipped.append(way)
    if asked in ("led_straight", "led_turned") and value > 3.0:
        return ReadingAfter(id_, asked, ENDLESS)
    least = 1e-6 if kind == "current" else 1e-3
    value = 0.0 if abs(value) < least else float(f"{abs(value):.4g}")
    return ReadingAfter(id_, asked, value, 5.0 if asked == "current" else 0.0, of=of)


def true_reading(case: Case, kind: ReadingKind, of: ReadingOf) -> float:
    """What the meter shows, its burden in the circuit, A, V or Ω."""
    c = case.circuit
    if kind == "current":
        return 0.0 if case.dead_meter else _amps(case, of)
    if kind == "resistor_ohms":
        r = c.element("R1")
        assert isinstance(r, Resistor)
        return min(float(np.mean(r.ohms)) * case.position.branches, 1e9)
    if kind in ("led_straight", "led_turned"):
        return _diode_range(case, turned=kind == "led_turned")
    a, b = _probes(case, kind)
    meter = Resistor("Rmeter", a, "probe", _METER_OHM), VoltageSource("Vmeter", "probe", b, Dc(0.0))
    rms = case.position.rail.supply.alternates and kind in ("supply_volts", "lamp_volts")
    volts = abs(_measure(case, replace(c, elements=(*c.elements, *meter)), rms=rms)) * _METER_OHM
    if volts > _IMPOSSIBLE * case.position.rail.peaks[2] * max(case.rail, 1.0):
        raise NoCase("the reference did not come to rest")
    return volts


def seen(case: Case, *, other_led: bool) -> str:
    """What somebody sees of it: light by the current of each LED, an eye that calls a quarter of it faint."""
    c, rng = case.circuit, case.rng
    if other_led:
        good = case.whole.element("D1")
        now = next(e for e in c.elements if e.name in ("D1", "RwasD1"))
        ends = _ends(good) if not set(_ends(now)) - set(_ends(good)) else None
        if ends is None:
            a, b = _ends(now)
            ends = (a, b) if b in _ends(good) and _ends(good).index(b) == 1 else (b, a)
        c = _with(c, now.name, replace(good, anode=ends[0], cathode=ends[1]))
        c = replace(c, elements=tuple(e for e in c.elements if e.name != "Rextra" or set(_ends(e)) != set(_ends(good))))
    usual = float(case.s.usual[1])
    bridged = any(d.how == "count" and d.size < 1 for d in case.done) and not other_led
    own = _called(_lit(case, c, "D1") / usual, rng)
    if own != "dark":
        return "part" if bridged else own
    others = f"Dbeside{len(case.s.position.beside) + 1}"
    apart = case.position is not case.s.position and any(e.name == others for e in c.elements)
    return "part" if apart and _lit(case, c, others) / usual > 0.1 else "dark"


def _called(ratio: float, rng: random.Random) -> str:
    octaves = np.log2(max(ratio, 1e-12))
    if octaves < -8 + rng.gauss(0, 1.2):
        return "dark"
    return "faint" if octaves < -2 + rng.gauss(0, 0.5) else "lit"


def _lit(case: Case, c: Circuit, name: str) -> float:
    """Current through the junctions themselves, A."""
    led = next((e for e in c.elements if e.name == name), None)
    if not isinstance(led, Diode):
        return 0.0
    meter = VoltageSource("Vmeter", "probe", led.cathode, Dc(0.0))
    return abs(_measure(case, _with(c, name, replace(led, cathode="probe"), meter))) / case.position.branches


def _probes(case: Case, kind: ReadingKind) -> tuple[str, str]:
    """Where the two leads are held."""
    whole = case.whole
    nodes = {n for e in whole.elements for n in _ends(e)}
    back = "legb" if "legb" in nodes else "0"
    if kind in ("led_volts", "resistor_volts"):
        return _ends(whole.element("D1" if kind == "led_volts" else "R1"))
    feed = next(n for n in ("behind", "loaded", "feed") if n in nodes)
    plus, minus = case.contacts
    places = {"supply_volts": (feed, back), "plus_volts": (plus, back), "minus_volts": (minus, back)}
    return places.get(kind, (plus, minus))


def _amps(case: Case, of: ReadingOf) -> float:
    """Through the string's own lead, or through the lamp's own; the meter's burden in it."""
    c = case.circuit
    burden, meter = Resistor("Rshunted", "probe", "probeb", case.burden), "Vmeter"
    if of == "all":
        source = c.element("Vrail")
        assert isinstance(source, VoltageSource)
        fed = (replace(source, plus="probe"), burden, VoltageSource(meter, "probeb", source.plus, Dc(0.0)))
        return abs(_measure(case, _with(c, "Vrail", *fed)))
    led = next((e for e in c.elements if e.name in ("D1", "RwasD1")), None)
    if led is None:
        raise NoCase("its meter has no place")
    behind = _ends(led)[1]
    # What lies across the LED's own legs is behind the meter with it.
    across = [e for e in c.elements if e.name == "Rextra" and set(_ends(e)) == set(_ends(led))]
    for e in (led, *across):
        c = _with(c, e.name, _moved(e, {t: "probe" for t in e.terminals[:2] if getattr(e, t) == behind}))
    c = replace(c, elements=(*c.elements, burden, VoltageSource(meter, "probeb", behind, Dc(0.0))))
    return abs(_measure(case, c)) / case.position.branches


def _measure(case: Case, circuit: Circuit, *, rms: bool = False) -> float:
    """Amps through the meter: at rest, or their mean (or root mean square) over a cycle."""
    p = case.position
    if not p.rail.supply.alternates:
        return reference.operating_points([write_deck(circuit, ()).lower()])[0]["i(vmeter)"]
    period = 1 / p.rail.supply.hertz[1]
    end = (_CYCLES if case.s.sizing.farads else 4) * period
    deck = write_deck(circuit, (f".tran {period / _STEPS} {end} {end - 2 * period} {period / _STEPS}",)).lower()
    meter = "vmeter#branch"
    return reference.averages(deck, [meter], end - period, end, "RMS" if rms else "AVG")[meter]


def _diode_range(case: Case, *, turned: bool) -> float:
    """A milliamp through one LED, its lead lifted, or no end past three volts."""
    c = case.circuit
    led = next(e for e in c.elements if e.name in ("D1", "RwasD1"))
    flipped = isinstance(led, Diode) and _ends(led)[0] == _ends(case.whole.element("D1"))[1]
    if isinstance(led, Diode):
        counted = [d.size for d in case.done if d.how == "count"]
        n = case.s.position.in_series * (counted[0] if counted else 1)
        led = replace(led, model=replace(led.model, n=led.model.n / n, r_s=led.model.r_s / n))
    broken = [e for e in c.elements if e.name == "Rbroken" and "broken" in _ends(led)]
    if any(isinstance(e, Resistor) and np.max(e.ohms) > 2e3 for e in broken):
        return ENDLESS
    ends = ("probe", "0") if flipped == turned else ("0", "probe")
    leaks = [e for e in c.elements if e.name == "Rextra" and set(_ends(e)) == set(_ends(led))]
    alone = Circuit(
        (
            CurrentSource("Im", "0", "first", Dc(1e-3)),
            VoltageSource("Vmeter", "first", "probe", Dc(0.0)),
            Resistor("Rm", "probe", "0", 1e5),
            *(_moved(e, dict(zip(e.terminals[:2], ends, strict=True))) for e in (led, *leaks)),
        ),
        celsius=case.position.celsius,
    )
    volts = reference.operating_points([write_deck(alone, ()).lower()])[0]["probe"]
    return ENDLESS if volts > 3.0 else volts


def shows(case: Case) -> bool:
    """Whether what was done moves any reading that may be asked for by more than a meter tells."""
    made, _, _ = drawn(case.s, random.Random(case.seed + 1_000_003))
    whole = replace(case, circuit=made.circuit, dead_meter=False, burden=5.0)
    for kind in (k for k in candidates(case.s, ()) if k not in LOOKS):
        had, has = true_reading(whole, kind, "one"), true_reading(case, kind, "one")
        if abs(had - has) > 0.03 * abs(had) + 2e-3:
            return True
    return False


# ---- what the app may call it


def names_of(d: Damage, string_ohm: float) -> set[str]:
    """Causes that name what was done, or what reads the same from every place a probe can reach."""
    # What stands in a damaged part's place is that part.
    d = replace(d, what=d.what.removeprefix("Rwas"))
    base = d.what.rstrip("0123456789") if d.what.startswith("Dbridge") else d.what
    gone = d.size > 1e8
    open_too = gone or (d.how == "joint" and d.size > _AS_OPEN * string_ohm)
    if d.what == "meter":
        return {"meter-fuse", "slip-socket"} if d.how == "fuse" else {"meter-burden"}
    if d.what == "Vrail":
        near = {"sound"} if 0.7 < d.size < 1.3 else set()
        return {"rail-off", "output-off"} if d.size < 0.01 else {"rail-level", *near}
    if d.what == "contacts":
        return {"neighbour", "lamp-in"}
    if "-" in d.what:
        ends = sorted(d.what.split("-"))
        # Across the feed it draws what it would across the lamp, but for the driver's drop.
        beside = {"neighbour"} if ends == ["0", "feed"] else set()
        # Before the lamp's own contact the places differ by a source's ohms and a driver's drop.
        same = [_FED if end in _FED else (end,) for end in ends]
        return {f"bridge-{'-'.join(sorted((a, b)))}" for a in same[0] for b in same[1]} | beside
    if base in ("R1", "R2"):
        # "R": the one in either of two leads.
        value = {f"{r}-{how}" for r in (base, "R") for how in ("value", "decade-up", "decade-down")}
        if d.how in ("open", "joint"):
            opened = {f"{base}-open", "R-open", "joint-open"} if open_too else set()
            return opened if gone else {"joint", *value, *opened}
        return {f"{base}-short", "R-short", *value} if d.how in ("short", "across") else value
    if d.how in ("kind", "count"):
        lot = {"sound"} if d.how == "kind" and abs(d.size) < 0.6 else set()
        return {"D1-kind", "D1-count", *lot}
    if d.how == "joint":
        before = base in ("Drectifier", "Dbridge")
        wire = "contact" if before else "joint"
        opened = {f"{base}-open", f"{wire}-open"} if open_too else set()
        return {f"{base}-joint", f"{base}-missing", *opened, *(() if gone else (wire,))}
    same = {
        "across": {"short", "leaky", "count"},
        "leak": {"leaky"},
        "dry": {"share", "missing"},
        "gone": {"share", "missing"},
        "value": {"share", "open", "short"},
    }
    # What stands across the LED is shorted with it.
    beside = ("D1", "D2", "Dinverse")
    twins = beside if base in beside and d.how in ("short", "across", "leak") else (base,)
    return {f"{twin}-{how}" for how in same.get(d.how, {d.how}) for twin in twins}


def is_right(cause: str, case: Case) -> bool:
    """Whether a cause names something that is so."""
    own = set().union(*(names_of(d, case.s.sizing.total_ohm) for d in case.done))
    if cause == "rail-level" and abs(case.rail - 1) > 0.04:
        return True
    if cause == "meter-fuse" and "socket" in case.slipped:
        return True
    if cause.startswith("slip-"):
        return cause in own or cause[5:] in case.slipped or (cause == "slip-anyhow" and bool(case.slipped))
    if not case.done:
        return cause.startswith("sound")
    return any(part in own or "-".join(part.split("-")[:2]) in own for part in cause.split("+"))
