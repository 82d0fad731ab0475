"""What may be so at a fitted lamp: as it should be, or a fault of any element in the circuit's own netlist.

Faults are made from the elements that the builder drew, by what kind of part each is; what only models (a winding's
insulation, the knee of a current source) has none. What no netlist shows is added: wires, contacts, the rail's own
level, and the meter.
"""

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Literal

import numpy as np

from swapglow.core.analysis.ac_cycle import folded
from swapglow.core.analysis.sizing import size as sized
from swapglow.core.analysis.solution import Solution
from swapglow.core.design.branch import MOST_BESIDE, Branch
from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import Capacitor, Circuit, Diode, Element, Resistor
from swapglow.core.measurement.reading_after import LOOKS, ReadingAfter
from swapglow.core.network.builder import Network, build, is_part, laws_of
from swapglow.core.network.cases import Cases
from swapglow.core.network.fault import JOINED, OPEN_OHM, SHORT_OHM, Fault, How, PartFault
from swapglow.core.network.filaments import COLD_SHARE
from swapglow.core.network.sources import sine
from swapglow.core.parts import led as leds
from swapglow.core.parts.led import MOST_IN_SERIES
from swapglow.core.quantities import OHM, VOLT, Unit, show

# Ours, to be held by `make faults`: how likely it is that nothing is wrong, and that it is none of what is known here.
SOUND, UNLISTED = 0.6, 0.05
# Where somebody saw it dark or faint (ours).
_COMPLAINED = 0.1
# Of what is sound: as typed; LEDs of another lot or make; a rail beside what was typed.
_SOUND = {"sound": 0.66, "sound-led": 0.2, "sound-rail": 0.14}
# Ours: how often each is what was wrong, beside an LED turned round (common practice says which are frequent).
_LED = {"open": 1.0, "short": 0.6, "turned": 3.0, "leaky": 0.3}
_LEAKY = 0.2
_DIODE = {"open": 0.6, "short": 0.5, "turned": 0.5}
_RESISTOR = {"open": 0.8, "short": 0.7}
_CAPACITOR = {"share": 0.8, "missing": 0.5, "leaky": 0.3, "short": 0.3}
_LEAD = 0.5
_DECADE, _VALUE, _COUNT, _KIND = 1.2, 2.0, 1.0, 1.5
_JOINT, _CONTACT, _GROUND, _OFF, _LEVEL = 1.2, 1.0, 1.0, 1.5, 1.5
_LAMP_IN, _NEIGHBOUR, _KEEP_WARM, _BURDEN, _METER_FUSE = 1.0, 0.7, 1.0, 1.5, 1.5
# Two places that touch, of all pairs together, and what lies between them: from bare metal to flux and carbon, Ω.
_SPLASH, _SPLASH_OHM, _SPLASH_SPREAD = 1.0, 10.0, 2.5
_PART_WORDS = {"R1": "the resistor", "R2": "the other resistor", "D1": "the LED"}

# LEDs of another lot lie so far off, of another make twice that (common practice: bins of 0.1 V and more), V.
LOT_V, OTHER_MAKE = {"red": 0.06, "white": 0.12}, 2.0
_LOT_FROM_V = 2.5
# A rail that nobody has read is known to a tenth.
PENCILLED = 0.10
# A meter's shunt and fuse in a microamp range reach a few hundred ohms (common practice).
_BURDEN_OHM = 60.0
_DEAD = 1e-4
# LEDs that are taken for one another.
_TAKEN_FOR = ("red-5-diffused", "lime-5-diffused", "white-5-clear")

# How the parts of a string beside the main one are called in a netlist.
_BESIDE = ("Rbeside", "Dbeside", "Dblocked", "Dturned", "Dinverse")
# Equal parts that are counted in a netlist.
_NUMBERED = re.compile(r"^(Dbridge|[RD]beside|Dblocked)\d+")
# What lies across a resistor reads as another resistor until its own ohms are read with a lead lifted.
_ACROSS = "-across"

Where = Literal["fault", "rail", "burden", "ohms"]
# The places inside a string.
_INNER = frozenset({"string", "return", "inner", "innerback", "blocked"})
# The parts that each string has for itself.
_OF_A_STRING = frozenset({"R1", "R2", "D1", "D2", "Dseries", "Dinverse"})


@dataclass(frozen=True)
class Size:
    """How large a fault may be.

    Attributes:
        median, spread: of its logarithm's normal; ``spread`` is natural logs.
        where: what it is the size of.
        unit: of the size in the message; None where the message gives none.
        per: what one of it is in that unit.
    """

    median: float
    spread: float
    where: Where = "fault"
    unit: Unit | None = OHM
    per: float = 1.0


@dataclass(frozen=True)
class Hypothesis:
    """Something that may be so.

    Attributes:
        id: which.
        message: what it is, with a place for its size where it has one.
        prior: how likely before anything was read.
        fault: what is wrong in the circuit; sizes stand at one.
        size: how large that may be; None where it has one size.
        rail, ohms: share of the usual rail, and of the string's resistance, that is there.
        vf: forward voltage of each LED, V; None as the catalogue has it.
        led_v, rail_share: one sigma of LED and rail where that is wider than typed, V and a share.
        reads_nothing: whether a meter in a current range shows nothing.
        at: where it would sit on the staircase, by the kinds of its steps.
    """

    id: str
    message: str
    prior: float
    fault: Fault = field(default_factory=Fault)
    size: Size | None = None
    rail: float = 1.0
    ohms: float = 1.0
    vf: float | None = None
    led_v: float = 0.0
    rail_share: float = 0.0
    reads_nothing: bool = False
    at: tuple[str, ...] = ()

    @property
    def sound(self) -> bool:
        """Whether nothing is broken."""
        return self.id in _SOUND

    @property
    def in_one_string(self) -> bool:
        """Whether it is of one string, and leaves those beside it as they are."""
        value = self.ohms != 1 or self.vf is not None or (self.size is not None and self.size.where == "ohms")
        value = value or any(f.how == "bridge" and set(f.part.split(JOINED)) & _INNER for f in self.fault.parts)
        return value or self.fault.string is not None or any(f.part in _OF_A_STRING for f in self.fault.parts)

    @property
    def parts(self) -> tuple[str, ...]:
        """The elements of the netlist that it is about; none for a wire, a splash, the rail or the meter."""
        own = [f.part for f in self.fault.parts if JOINED not in f.part]
        if self.vf is not None or self.id == "sound-led":
            own.append("D1")
        if self.ohms != 1 or (self.size is not None and self.size.where == "ohms"):
            own.append("R1")
        return tuple(dict.fromkeys(own))

    @property
    def cause(self) -> str:
        """What it is told as: faults of equal parts that no reading here tells apart are one cause."""
        return "sound" if self.sound else _NUMBERED.sub(r"\1", self.id.removesuffix(_ACROSS))


def one_string(s: Solution) -> Position:
    """The lamp with one of its equal strings on its own, where the others can stand beside it.

    Args:
        s: the solved position.

    Returns:
        The same circuit; the position itself where that cannot be drawn.
    """
    p = s.position
    fixed = p.module is not None or p.set_by_ohms or (p.shunt_ohm is not None and p.shunt_across == "leds")
    if p.branches == 1 or fixed or len(p.beside) >= MOST_BESIDE:
        return p
    others = Branch(
        "the others",
        p.led,
        p.target.value,
        p.in_series,
        p.branches - 1,
        s.sizing.total_ohm,
        diodes=p.series_diodes,
        second=p.second_led,
    )
    # The capacitor was chosen for all of them.
    farads = p.capacitor_f or (s.sizing.farads if p.rail.supply.alternates else None) or None
    return replace(p, branches=1, beside=(*p.beside, others), capacitor_f=farads)


def netlist(p: Position) -> Circuit:
    """The position as the builder draws it, a bridge with all its diodes.

    Args:
        p: the swap.

    Returns:
        Its circuit.
    """
    return _drawn(p).circuit


def _drawn(p: Position) -> Network:
    usual = Cases(p.rail.volts[1], p.led.vf_typ, 1.0, p.drop_v)
    wave = sine(1.0, 50.0, folded=False) if p.rail.supply.alternates else None
    return build(p, usual, wave=wave, stacked=True, farads=sized(p).farads or 1e-6)


def hypotheses(s: Solution, readings: tuple[ReadingAfter, ...]) -> tuple[Hypothesis, ...]:
    """All that may be so with a fitted lamp.

    Args:
        s: the solved position.
        readings: those taken: a current shows more of the meter, a state more of the driver.

    Returns:
        Each with its prior; the first is a lamp as it should be. The priors leave :data:`UNLISTED` over.
    """
    p = one_string(s)
    off = any(r.state != "on" for r in readings)
    wrong = (
        *_of_parts(s, p, alike=p.rail.supply.alternates and all(r.kind != "resistor_ohms" for r in readings)),
        *_of_wires(s, p, off),
        *_of_splashes(p),
        *_of_the_rail(p),
        *(_of_the_meter() if any(r.kind == "current" for r in readings) else ()),
    )
    sound = _COMPLAINED if any(r.kind in LOOKS and r.seen != "lit" for r in readings) else SOUND
    share = (1 - sound - UNLISTED) / sum(h.prior for h in wrong)
    return (*nothing_wrong(p, sound), *(replace(h, prior=h.prior * share) for h in wrong))


def lot_v(p: Position) -> float:
    """One sigma between lots of LEDs of a kind, V."""
    return LOT_V["red" if p.led.vf_typ < _LOT_FROM_V else "white"]


def nothing_wrong(p: Position, sound: float = SOUND) -> Iterable[Hypothesis]:
    """The ways in which a lamp is sound. Which of rail and LEDs differs from what was typed follows from the readings.

    Args:
        p: the swap.
        sound: how likely it is that nothing is wrong.

    Returns:
        As typed, with LEDs of another lot or make, and with a rail beside what was typed.
    """
    yield Hypothesis("sound", "", _SOUND["sound"] * sound)
    yield Hypothesis("sound-led", "", _SOUND["sound-led"] * sound, led_v=OTHER_MAKE * lot_v(p), at=("led",))
    yield Hypothesis("sound-rail", "", _SOUND["sound-rail"] * sound, rail_share=PENCILLED, at=("rail",))


def _of_parts(s: Solution, p: Position, *, alike: bool) -> Iterable[Hypothesis]:
    """The faults of every element that is a part; ``alike``: no reading tells the resistors of two leads apart."""
    for e in netlist(p).elements:
        # What stands for all the other strings together is no one part.
        others = p is not s.position and e.name.rstrip("0123456789") in _BESIDE and e.name.endswith(str(len(p.beside)))
        if others or not is_part(p, e.name):
            continue
        if e.name == "D1":
            yield from _of_the_led(p)
        elif e.name in ("R1", "R2"):
            if not (alike and e.name == "R2"):
                yield from _of_the_resistor(s, p, e.name, either=alike and p.resistor_parts > 1)
        elif e.name.startswith("Dbridge") and folded(p):
            # Which of the four it is, no reading tells: one stands for all.
            if e.name == "Dbridge1":
                yield from (replace(h, prior=4 * h.prior) for h in _of_a_part(p, e))
        else:
            yield from _of_a_part(p, e)


def _of_a_part(p: Position, e: Element) -> Iterable[Hypothesis]:
    what, at = _called(p, e.name)
    if isinstance(e, Diode):
        for how, prior in _DIODE.items():
            yield _part(e.name, how, f"{what} {_SAID[how]}", prior, at)
        lead = Size(_string_ohm(p), 1.3)
        yield _part(e.name, "joint", f"{what} has a poor joint: about {{}}.", _LEAD / 2, at, lead)
        # Before a reservoir a few tens of ohms empty it; behind one as much as the string is.
        leaks = Size(_string_ohm(p) / 8, 1.6)
        yield _part(e.name, "leaky", f"{what} leaks: about {{}} lies across it.", _LEAKY, at, leaks)
    elif isinstance(e, Resistor):
        for how, prior in _RESISTOR.items():
            yield _part(e.name, how, f"{what} {_SAID[how]}", prior, at)
        if e.name not in laws_of(p):
            share = Size(1.0, 1.0, unit=OHM, per=float(np.mean(e.ohms)))
            yield _part(e.name, "share", f"{what} has about {{}}.", _VALUE / 2, at, share)
    elif isinstance(e, Capacitor):
        dry = Size(0.15, 0.8, unit=None)
        yield _part(e.name, "share", f"{what} has dried out.", _CAPACITOR["share"], at, dry)
        gone = Fault(parts=(PartFault(e.name, "open"),))
        yield Hypothesis(f"{e.name}-missing", f"{what} is missing or open.", _CAPACITOR["missing"], gone, at=at)
        leaks = Size(_string_ohm(p) / 3, 1.2)
        yield _part(e.name, "leaky", f"{what} leaks: about {{}} lies across it.", _CAPACITOR["leaky"], at, leaks)
        yield _part(e.name, "short", f"{what} {_SAID['short']}", _CAPACITOR["short"], at)


_SAID: Mapping[str, str] = {"open": "is open.", "short": "is shorted.", "turned": "is turned round."}


def _part(name: str, how: str, message: str, prior: float, at: tuple[str, ...], size: Size | None = None) -> Hypothesis:
    kind: How = how  # type: ignore[assignment]  # a key of the tables above
    return Hypothesis(f"{name}-{how}", message, prior, Fault(parts=(PartFault(name, kind),)), size, at=at)


def _string_ohm(p: Position) -> float:
    """About what one string is beside the rail, Ω."""
    return p.rail.volts[1] / p.target.value / p.branches


def _called(p: Position, name: str) -> tuple[str, tuple[str, ...]]:
    """What a part is called in a sentence, and where it sits on the staircase."""
    if name.startswith("Dbridge"):
        return "A diode of the bridge", ("feed", "driver")
    if name.startswith("Rload") or name.startswith("Dload"):
        load = p.driver.loads[int("".join(c for c in name if c.isdigit())) - 1]
        return f"{load.name or 'Another load'} on the feed", ("feed",)
    if name.startswith(("Rbeside", "Dbeside", "Dblocked")):
        return "In a string beside this one, the " + ("resistor" if name[0] == "R" else "LED"), ()
    said = {
        "Drectifier": ("The diode before the string", ("feed", "driver")),
        "C1": ("The capacitor", ("feed", "driver")),
        "Rdropper": ("The dropping resistor", ("feed", "driver")),
        "Rshunt": ("The resistor across it", ("resistor",)),
        "Dseries": ("A diode in the string", ("led",)),
        "D2": ("The LED in parallel with it, the other way round", ("led",)),
        "Dinverse": ("The diode across the LED", ("led",)),
    }
    return said.get(name, (f"{name}", ()))


def _of_the_led(p: Position) -> Iterable[Hypothesis]:
    at = ("led", "inside")
    if p.module is None or p.module.polarised:
        what = "One LED is" if p.in_series > 1 else "The LED is"
        yield _part("D1", "turned", f"{what} turned round.", _LED["turned"], at)
    yield _part("D1", "open", "An LED is open: its bond wire or a lead is broken.", _LED["open"], at)
    if p.module is not None:
        yield _part("D1", "short", "The ready-made lamp is shorted inside.", _LED["short"], at)
        return
    if p.in_series == 1:
        yield _part("D1", "short", "The LED is shorted.", _LED["short"], at)
    else:
        yield _part("D1", "short", "All LEDs of the string are bridged together.", _LED["short"] / 2, at)
    leaky = Size(p.led.vf_typ * p.in_series / p.target.value * 1.5, 1.2)
    yield _part("D1", "leaky", "About {} lies across the LED.", _LED["leaky"], at, leaky)
    lead = Size(_string_ohm(p), 1.3)
    yield _part("D1", "joint", "The LED itself has a poor joint: about {}.", _LEAD, at, lead)
    counts = {
        p.in_series - 1: "One LED of the string is shorted",
        p.in_series + 1: "There is one LED more in the string",
    }
    for count, word in counts.items():
        if 1 <= count <= MOST_IN_SERIES:
            yield Hypothesis(
                f"D1-count-{'less' if count < p.in_series else 'more'}",
                f"{word}: {count} in series.",
                _COUNT / 2,
                Fault(parts=(PartFault("D1", "share", count / p.in_series),)),
                at=("led",),
            )
    known = leds.catalogue()
    others = [known[k] for k in _TAKEN_FOR if k in known and abs(known[k].vf_typ - p.led.vf_typ) > 0.3]
    for other in others:
        yield Hypothesis(
            f"D1-kind-{other.id}",
            f"The LED is another kind, of about {show(other.vf_typ, VOLT)}, not {show(p.led.vf_typ, VOLT)}.",
            _KIND / len(others),
            vf=other.vf_typ,
            led_v=lot_v(p),
            at=("led",),
        )


def _of_the_resistor(s: Solution, p: Position, name: str, *, either: bool) -> Iterable[Hypothesis]:
    """The faults of a resistor; ``either``: or of the one in the other lead."""
    if p.bare and (s.sizing.exact_ohm is None or p.resistor_ohm == 0):
        return
    each, at = s.sizing.each_ohm, ("resistor",)
    halves = p.resistor_parts
    lead = "one of the two leads" if either else "the first lead" if name == "R1" else "the other lead"
    what = "The resistor" if halves == 1 else f"The resistor in {lead}"
    own, twice = ("R", 2.0) if either else (name, 1.0)

    def stands(id_: str, message: str, prior: float, ohm: float, size: Size | None = None) -> Hypothesis:
        """It has so many ohms; alone it is all of the string's resistance, which then is a plain value."""
        if halves == 1:
            moved = None if size is None else replace(size, where="ohms")
            return Hypothesis(f"{own}-{id_}", message, prior, ohms=ohm / each, size=moved, at=at)
        how = PartFault(name, "share", ohm / each)
        return Hypothesis(f"{own}-{id_}", message, twice * prior / 2, Fault(parts=(how,)), size, at=at)

    yield stands("open", f"{what} is open.", _RESISTOR["open"], OPEN_OHM)
    yield stands("short", f"{what} is bridged, or shorted.", _RESISTOR["short"], SHORT_OHM)
    bridged = f"A splash of solder or a bare lead bridges {lower_first(what)}, which itself is whole."
    yield Hypothesis(
        f"{own}-short{_ACROSS}",
        bridged,
        twice * _RESISTOR["short"] / 2 / halves,
        Fault(parts=(PartFault(name, "leaky", SHORT_OHM),)),
        at=at,
    )
    for factor, id_, word in ((10.0, "decade-up", "ten times"), (0.1, "decade-down", "a tenth of")):
        said = f"A resistor of {word} the value is fitted, {show(each * factor, OHM)}: one multiplier band off."
        yield stands(id_, said, _DECADE / 2, each * factor)
    value = Size(1.0, 0.7, unit=OHM, per=each)
    yield stands("value", f"A resistor of about {{}} is fitted, not {show(each, OHM)}.", _VALUE, each, value)
    leaks = Size(each, 1.2)
    beside = f"About {{}} lies across {lower_first(what)}, which itself is whole."
    parts = (PartFault(name, "leaky"),)
    yield Hypothesis(f"{own}-value{_ACROSS}", beside, twice * _LEAKY / halves, Fault(parts=parts), leaks, at=at)


def _of_splashes(p: Position) -> Iterable[Hypothesis]:
    """Two places that touch although no part joins them."""
    if p.module is not None:
        return
    drawn = _drawn(p)
    ends = [(e, (getattr(e, e.terminals[0]), getattr(e, e.terminals[1]))) for e in drawn.circuit.elements]
    apart = {frozenset(pair) for _, pair in ends}
    # The lamp's two wires have a cause of their own.
    apart |= {frozenset((drawn.plus, drawn.minus)), frozenset(next(pair for e, pair in ends if e.name == "Vrail"))}
    meet: dict[str, list[str]] = {}
    for e, pair in ends:
        if e.name[0] in "RD" and is_part(p, e.name) and not e.name.startswith(_BESIDE):
            for node in pair:
                meet.setdefault(node, []).append(_PART_WORDS.get(e.name) or lower_first(_called(p, e.name)[0]))
    nodes = sorted({*meet, "0"})
    pairs = [(a, b) for k, a in enumerate(nodes) for b in nodes[k + 1 :] if frozenset((a, b)) not in apart]
    for a, b in pairs:
        yield Hypothesis(
            f"bridge-{a}-{b}",
            f"A splash of solder or a bare lead joins {_node(a, meet)} and {_node(b, meet)}.",
            _SPLASH / len(pairs),
            Fault(parts=(PartFault(f"{a}{JOINED}{b}", "bridge"),)),
            Size(_SPLASH_OHM, _SPLASH_SPREAD, unit=None),
            at=("resistor", "led"),
        )


def lower_first(words: str) -> str:
    """A sentence as it stands inside another one."""
    return words[0].lower() + words[1:]


def _node(node: str, meet: Mapping[str, list[str]]) -> str:
    """A place in the circuit, in words."""
    if node == "0":
        return "ground"
    own = list(dict.fromkeys(meet[node]))
    return f"the lead at {own[0]}" if len(own) == 1 else f"the joint of {own[0]} and {own[1]}"


def _of_wires(s: Solution, p: Position, off: bool) -> Iterable[Hypothesis]:
    """Joints, contacts, ground, and what hangs beside the lamp."""
    low_side, alternates = p.driver.kind.side == "low", p.rail.supply.alternates
    fitted = max(s.sizing.total_ohm, 10.0)
    lamp = fitted / s.position.branches
    yield Hypothesis(
        "joint",
        "A joint in the string adds about {}.",
        _JOINT / 2,
        Fault(string=1.0),
        Size(1.5 * fitted, 1.3),
        at=("resistor", "led"),
    )
    yield Hypothesis(
        "joint-open", "A joint in the string is open.", _JOINT, Fault(string=OPEN_OHM), at=("resistor", "led")
    )

    def in_its_wire(ohm: float) -> Fault:
        # Under the lamp where the driver is; over a cycle either wire is the same.
        return Fault(minus=ohm) if low_side and not alternates else Fault(plus=ohm)

    feed = ("driver", "feed")
    yield Hypothesis(
        "contact-open",
        "A contact touches only with the covers off, or a wire is broken.",
        _CONTACT,
        in_its_wire(OPEN_OHM),
        at=feed,
    )
    dirty = Size(1.5 * lamp, 1.3)
    yield Hypothesis("contact", "A dirty contact: about {}.", _CONTACT, in_its_wire(1.0), dirty, at=feed)
    if not low_side and not alternates:
        yield Hypothesis(
            "ground",
            "The ground adds about {}: paint under the frame's screw, or a loose connection.",
            _GROUND,
            Fault(minus=1.0),
            dirty,
            at=("ground",),
        )
    if p.lamp is not None:
        hot = p.lamp.volts / p.lamp.amps
        yield Hypothesis(
            "lamp-in",
            "The old lamp is still connected, in parallel with the LED.",
            _LAMP_IN,
            Fault(across=1.0),
            Size(hot * 0.45, abs(float(np.log(COLD_SHARE))) / 3, unit=None),
        )
    load = p.rail.volts[1] / max(float(s.usual[1]) * s.position.branches, 1e-5)
    yield Hypothesis(
        "neighbour",
        "Something of about {} is connected across the lamp.",
        _NEIGHBOUR,
        Fault(across=1.0),
        Size(load / 6, 1.5),
    )
    if off:
        yield Hypothesis(
            "keep-warm",
            "A keep-warm resistor of about {} is still across the driver.",
            _KEEP_WARM,
            Fault(past=1.0),
            Size(1e3, 1.5),
            at=("driver",),
        )


def _of_the_rail(p: Position) -> Iterable[Hypothesis]:
    said = (
        ("output-off", "The output is not enabled: set it in software, and try again.")
        if p.rail.supply.output_limit is not None
        else ("rail-off", "The rail is off, or its fuse has gone.")
    )
    yield Hypothesis(said[0], said[1], _OFF, rail=_DEAD, at=("driver", "feed", "rail"))
    usual = p.rail.volts[1] / p.rail.supply.open_to_loaded_ratio
    yield Hypothesis(
        "rail-level",
        f"The rail is at about {{}}, not {show(p.rail.usual.value, VOLT)}.",
        _LEVEL,
        size=Size(1.0, 0.4, "rail", VOLT, usual),
        at=("rail",),
    )


def _of_the_meter() -> Iterable[Hypothesis]:
    yield Hypothesis(
        "meter-fuse",
        "The meter's own fuse has gone: it reads nothing in its current ranges.",
        _METER_FUSE,
        reads_nothing=True,
    )
    yield Hypothesis(
        "meter-burden",
        "The meter itself adds about {} in this range: shunt, fuse and leads.",
        _BURDEN,
        size=Size(_BURDEN_OHM, 1.0, "burden"),
    )
