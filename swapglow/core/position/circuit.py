"""A position as a circuit, in any state of what drives it.

From the feed down, each part only where the position has it (``plus`` and ``minus`` are the lamp's own
contacts):

    feed  Rsource  loaded  Rdropper  shared  Rleft…  supplied
          driver from the rail  plus  regulator  R1  LEDs  R2  minus  driver to ground  0
    shared to 0   what else the dropping resistor feeds
    plus to minus a shunt or load resistor, and a closed contact that the line's equipment reads
"""

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuit.netlist import (
    Bjt,
    Circuit,
    CurrentSource,
    Dc,
    Diode,
    DiodeModel,
    Element,
    Param,
    Resistor,
    VoltageSource,
)
from swapglow.core.circuit.operating_point import OperatingPoint, operating_point
from swapglow.core.circuit.spice import write_deck
from swapglow.core.driver import Driver, State
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.parts.transistor import transistor
from swapglow.core.position.around import around
from swapglow.core.position.filaments import Law, Ohms, filament, settled, steady_load
from swapglow.core.position.model import Position
from swapglow.core.position.treated import LEAST_SOURCE_OHM, Values, led_model, sine, treated_circuit
from swapglow.core.supply import Supply

FloatArray = NDArray[np.float64]

# A closed contact, its wiring included.
CONTACT_OHM = 0.1
# An open contact's insulation: it ties a node down that nothing else does.
OPEN_OHM = 1e10
# Base to emitter of a driver that is off (common practice).
BASE_OHM = 10e3
# Where nobody has settled a filament or a load yet.
_UNSETTLED_OHM = 100.0
# A throttled or power-law module's current source needs next to nothing for itself.
MODULE_HEAD_V = 0.3


@dataclass(frozen=True)
class Cases:
    """What to solve: arrays of one length (or plain numbers), SI units.

    Attributes:
        rail: volts.
        vf: forward voltage at rated current of each LED, 25 °C.
        ohms: total series resistance of a string, parts and meter together.
        drop: what the driver keeps.
        source: resistance behind the rail; None takes the position's own.
        shunt: the shunt; None takes the position's own.
        kept: what a regulator or current source keeps, by :func:`regulated`; None is its dropout.
    """

    rail: Param
    vf: Param
    ohms: Param
    drop: Param = 0.0
    source: Param | None = None
    shunt: Param | None = None
    kept: Param | None = None

    def then(self, more: "Cases") -> "Cases":
        """These cases and some more, which must all be arrays and say their source."""
        rail, vf, ohms = (
            np.concatenate([np.asarray(a), np.asarray(b)])
            for a, b in ((self.rail, more.rail), (self.vf, more.vf), (self.ohms, more.ohms))
        )
        if not len(np.asarray(more.rail)):
            return self
        assert self.source is not None and more.source is not None
        source = np.concatenate([np.asarray(self.source), np.asarray(more.source)])
        return Cases(rail, vf, ohms, self.drop, source)

    def source_of(self, position: Position) -> Param:
        """Resistance behind the rail, Ω."""
        return position.rail.supply.source_ohm.value if self.source is None else self.source

    def shunt_of(self, position: Position) -> Param | None:
        """The shunt, Ω; None where there is none."""
        return position.shunt_ohm if self.shunt is None else self.shunt

    @property
    def samples(self) -> int:
        """How many."""
        every = (self.rail, self.vf, self.ohms, self.drop, self.source, self.shunt)
        return max(np.asarray(v).size for v in every if v is not None)


def laws_of(position: Position) -> dict[str, Law]:
    """The filaments and steady loads in a position's circuit, by the names of their resistors."""
    d = position.driver
    out = {f"Rleft{k}": filament(lamp) for k, lamp in enumerate(d.left, 1)}
    for k, load in enumerate(d.loads if d.dropper_ohm else (), 1):
        if load.lamp is not None:
            out[f"Rload{k}"] = filament(load.lamp)
        elif load.amps is not None:
            out[f"Rload{k}"] = steady_load(load.amps)
    return out


def to_circuit(position: Position, cases: Cases, *, stacked: bool = False, state: State = "on",
               filaments: Ohms | None = None, lamp_in: Element | None = None) -> Circuit:  # fmt: skip
    """The circuit of a position on a steady supply.

    Args:
        position: the swap.
        cases: values to solve it for.
        stacked: draw the string as one junction of n times the emission coefficient and series
            resistance. For equal LEDs in series that is the same circuit, exactly: they carry one
            current, so their voltages add.
        state: what the driver does.
        filaments: ohms of every filament and steady load by the name of its resistor; a stand-in else.
        lamp_in: something else between ``plus`` and ``minus`` in place of LEDs and resistor.
    """
    elements, node = _feed(position, cases, filaments or {})
    low_side = position.driver.about.side == "low"
    if state == "off":
        elements += _driver_off(position, cases, node)
        plus, minus = (node, "minus") if low_side else ("plus", "0")
    else:
        node = _through_pulse(position, node, elements) if state == "pulse" else node
        plus, minus = node, "0"
        if position.drop_v or isinstance(cases.drop, np.ndarray):
            ends = ("minus", "0") if low_side else (node, "plus")
            elements.append(VoltageSource("Vdriver", *ends, Dc(cases.drop)))
            plus, minus = (node, "minus") if low_side else ("plus", "0")
    if state == "closed":
        elements.append(Resistor("Rcontact", plus, minus, CONTACT_OHM))
    if lamp_in is not None:
        first, second = lamp_in.terminals[:2]
        elements.append(replace(lamp_in, **{first: plus, second: minus}))  # type: ignore[arg-type]
    else:
        elements += _assembly(position, cases, plus, minus, stacked, state)
    shunt = cases.shunt_of(position)
    if shunt is not None and position.shunt_across == "assembly":
        elements.append(Resistor("Rshunt", plus, minus, shunt))
    return Circuit(tuple(elements), celsius=position.celsius, title="lamp position")


def _feed(position: Position, cases: Cases, ohms: Ohms) -> tuple[list[Element], str]:
    """From the supply down to what the driver switches."""
    d = position.driver
    elements: list[Element] = [VoltageSource("Vrail", "feed", "0", Dc(cases.rail))]
    node = "feed"
    source = cases.source_of(position)
    if np.any(np.asarray(source) > 0):
        least = np.maximum(source, LEAST_SOURCE_OHM)
        elements.append(Resistor("Rsource", node, "loaded", float(least) if least.ndim == 0 else least))
        node = "loaded"
    if d.dropper_ohm:
        elements.append(Resistor("Rdropper", node, "shared", d.dropper_ohm))
        node = "shared"
        for k, load in enumerate(d.loads, 1):
            name = f"Rload{k}"
            if load.ohms is not None:
                elements.append(Resistor(name, node, "0", load.ohms))
            elif load.lamp is not None or load.amps is not None:
                elements.append(Resistor(name, node, "0", ohms.get(name, _UNSETTLED_OHM)))
    for k in range(1, len(d.left) + 1):
        name, after = f"Rleft{k}", f"left{k}"
        elements.append(Resistor(name, node, after, ohms.get(name, _UNSETTLED_OHM)))
        node = after
    return elements, node


def _through_pulse(position: Position, node: str, elements: list[Element]) -> str:
    """The resistance a check pulse comes through, where it is not the full feed."""
    if not position.driver.pulse_ohm:
        return node
    elements.append(Resistor("Rpulse", node, "pulsed", position.driver.pulse_ohm))
    return "pulsed"


def _driver_off(position: Position, cases: Cases, node: str) -> list[Element]:
    """A driver that is off: a transistor cut off or an open contact, and what leads past it."""
    d = position.driver
    low = d.about.side == "low"
    a, b = ("minus", "0") if low else (node, "plus")
    out: list[Element] = []
    if d.kind in ("low_side", "darlington"):
        out += [
            Bjt("Qdriver", "minus", "base", "0", transistor("npn")),
            Resistor("Rbase", "base", "0", BASE_OHM),
        ]
    elif d.kind == "high_side":
        out += [
            Bjt("Qdriver", "plus", "base", node, transistor("pnp")),
            Resistor("Rbase", "base", node, BASE_OHM),
        ]
    else:
        out.append(Resistor("Ropen", a, b, OPEN_OHM))
    if d.keep_warm_ohm is not None:
        out.append(Resistor("Rkeepwarm", a, b, d.keep_warm_ohm))
    if d.leak_a > 0:
        out.append(Resistor("Rleak", a, b, cases.rail / d.leak_a))
    return out


def _assembly(position: Position, cases: Cases, plus: str, minus: str, stacked: bool,
              state: State) -> list[Element]:  # fmt: skip
    """LEDs, resistor and what goes with them, between the lamp's contacts."""
    p, count = position, position.branches
    # Equal branches are one of their sum: exact, for each carries the same current.
    model = _of_branches(led_model(p.led, cases.vf, p.in_series if stacked else 1, p.celsius), count)
    ohms = cases.ohms / count
    out: list[Element] = []
    node, last = plus, minus
    if p.regulator is not None and not p.set_by_ohms:
        r = p.regulator
        out.append(VoltageSource("Vkept", node, "held", Dc(_kept(p, cases))))
        if state == "on":
            # Starved, a regulator takes next to nothing for itself.
            out.append(CurrentSource("Iregulator", node, minus, Dc(r.quiescent)))
        node = "held"
    if p.regulator is not None and p.set_by_ohms:
        out.append(VoltageSource("Vkept", node, "string", Dc(_kept(p, cases))))
        node = "string"
    elif p.resistor_parts == 2:
        out += [Resistor("R1", node, "string", ohms / 2), Resistor("R2", "return", minus, ohms / 2)]
        node, last = "string", "return"
    elif p.lead == "negative":
        out.append(Resistor("R1", "return", minus, ohms))
        last = "return"
    else:
        out.append(Resistor("R1", node, "string", ohms))
        node = "string"
    shunt = cases.shunt_of(p)
    if shunt is not None and p.shunt_across == "leds":
        out.append(Resistor("Rshunt", node, last, shunt))
    if p.module is not None:
        out.append(_inside(p, node, cases))
        node = "inside"
    if p.series_diodes:
        diode = rectifier("signal").model
        chain = DiodeModel(
            diode.i_s, float(diode.n) * p.series_diodes, float(diode.r_s) * p.series_diodes,
            nominal_c=p.celsius,
        )  # fmt: skip
        out.append(Diode("Dseries", node, "blocked", _of_branches(chain, count)))
        node = "blocked"
    lit = 1 if stacked else p.in_series
    for k in range(1, lit + 1):
        after = last if k == lit else f"led{k}"
        out.append(Diode(f"D{k}", node, after, model, is_led=True))
        node = after
    return out


def _inside(position: Position, node: str, cases: Cases) -> Element:
    """What a ready-made lamp has before its LEDs; constant power is reckoned at the feed's volts."""
    m = position.module
    assert m is not None
    if m.law == "resistor":
        return Resistor("Rinside", node, "inside", m.inner_ohm)
    return VoltageSource("Vkept", node, "inside", Dc(_kept(position, cases)))


def _kept(position: Position, cases: Cases) -> Param:
    return _dropout(position) if cases.kept is None else cases.kept


def _of_branches(model: DiodeModel, count: int) -> DiodeModel:
    if count == 1:
        return model
    return DiodeModel(model.i_s * count, model.n, model.r_s / count, nominal_c=model.nominal_c)


def _held_amps(position: Position, cases: Cases) -> Param | None:
    """What a current source in the string lets through, all branches; None where there is none."""
    p, m = position, position.module
    if p.regulator is not None and p.set_by_ohms:
        # Past its own limit a regulator gives no more, whatever it is set to.
        return np.minimum(p.regulator.volts / cases.ohms * p.branches, p.regulator.limit_a)
    if m is None or m.law == "resistor":
        return None
    if m.law == "power":
        return m.amps * m.nominal / np.maximum(np.asarray(cases.rail) - cases.drop, m.low)
    return m.amps


def regulated(position: Position, cases: Cases, state: State, ohms: Ohms) -> Cases:
    """The cases with what a regulator or current source keeps of the volts above it.

    Both are in one of two regimes. With too little head they keep their dropout, as a source of so
    many volts. With enough, a current source carries what it is set to, and a fixed regulator's string
    carries what it does on the held volts; what either keeps is then what is left over. The two meet
    where the head is just the dropout, so that the answer has no gap.
    """
    p = position
    amps = _held_amps(p, cases)
    if amps is None and p.regulator is None:
        return cases
    name = "Vkept"
    if amps is None:
        amps = _on_held(p, cases)
    plain = to_circuit(p, cases, stacked=True, state=state, filaments=ohms)
    starved = operating_point(plain).require()
    forced = tuple(
        CurrentSource(name, e.plus, e.minus, Dc(amps))
        if isinstance(e, VoltageSource) and e.name == name
        else e
        for e in plain.elements
    )
    point = operating_point(replace(plain, elements=forced)).require()
    enough = starved.current(name) > amps
    dropout = _dropout(p)
    return replace(cases, kept=np.where(enough, np.maximum(point.across(name), dropout), dropout))


def _on_held(position: Position, cases: Cases) -> FloatArray:
    """What LEDs and resistor draw on a fixed regulator's held volts, with a shunt across the LEDs."""
    p = position
    assert p.regulator is not None
    inside = p.shunt_across == "leds"
    bare = replace(
        p, regulator_id="", driver=Driver(), rail=replace(p.rail, supply=Supply()),
        shunt_ohm=p.shunt_ohm if inside else None,
    )  # fmt: skip
    held = replace(
        cases, rail=np.full(cases.samples, p.regulator.volts), drop=0.0, source=0.0,
        shunt=cases.shunt if inside else None,
    )  # fmt: skip
    return -operating_point(to_circuit(bare, held, stacked=True)).require().current("Vrail")


def _dropout(position: Position) -> float:
    return MODULE_HEAD_V if position.regulator is None else position.regulator.dropout


def point_of(position: Position, cases: Cases, state: State = "on") -> OperatingPoint:
    """A position solved for cases in a state, its filaments at rest.

    Raises:
        NotConverged: a case has no answer.
    """
    laws = laws_of(position)
    # From the filaments of a generic LED in the same place those of any are a step or two away.
    start = dict(_start(around(position), state)) if laws else None

    def build(ohms: Ohms) -> Circuit:
        kept = regulated(position, cases, state, ohms)
        return to_circuit(position, kept, stacked=True, state=state, filaments=ohms)

    return settled(build, laws, cases.samples, start)


@lru_cache(maxsize=256)
def _start(position: Position, state: State) -> tuple[tuple[str, float], ...]:
    """Ohms of filaments and steady loads at the usual rail, with a string at its target."""
    p, laws = position, laws_of(position)
    ohms = max(p.rail.volts[1] / p.target.value, CONTACT_OHM)
    case = Cases(np.array([p.rail.volts[1]]), p.led.vf_typ, ohms, p.drop_v)

    def build(found: Ohms) -> Circuit:
        return to_circuit(p, case, stacked=True, state=state, filaments=found)

    point = settled(build, laws, 1)
    return tuple((n, float(law(np.abs(point.across(n)))[0])) for n, law in laws.items())


def string_amps(position: Position, point: OperatingPoint) -> FloatArray:
    """Forward current of one string, never negative, (samples,)."""
    return np.maximum(point.current("D1"), 0.0) / position.branches


def deck_of(position: Position, cases: Cases, state: State = "on") -> str:
    """One case in a state as SPICE text, its filaments as the resistors they are there."""
    point = point_of(position, cases, state)
    ohms = {name: np.abs(point.across(name) / point.current(name)) for name in laws_of(position)}
    plain: dict[str, Param] = {name: float(v[0]) for name, v in ohms.items()}
    kept = regulated(position, cases, state, plain)
    if isinstance(kept.kept, np.ndarray):
        kept = replace(kept, kept=float(kept.kept[0]))
    return write_deck(to_circuit(position, kept, state=state, filaments=plain))


def spice_text(position: Position, ohms: float, farads: float = 0.0, state: State = "on") -> str:
    """The position at its usual rail with typical LEDs, as SPICE text.

    Args:
        ohms: total series resistance.
        farads: the reservoir, where there is one.
        state: what the driver does; on a supply that alternates it is on.
    """
    supply = position.rail.supply
    if supply.alternates:
        peak = position.rail.peaks[1] - position.drop_v
        wave = sine(peak, supply.hertz[1], False) if supply.flow == "sine" else Dc(peak)
        values = Values(wave, position.led.vf_typ, ohms, supply.source_ohm.value, farads)
        analyses: tuple[str, ...] = (".op",)
        if supply.flow == "sine":
            cycle = 1 / supply.hertz[1]
            analyses = (f".tran {cycle / 200:.6g} {20 * cycle:.6g}",)
        return write_deck(treated_circuit(position, values), analyses)
    cases = Cases(position.rail.volts[1], position.led.vf_typ, ohms, position.drop_v)
    return deck_of(position, cases, state)
