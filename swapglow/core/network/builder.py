"""The one builder: a position as a circuit, on any waveform and in any state of what drives it.

From the feed down, each part only where the position has it (``plus`` and ``minus`` are the lamp's own
contacts):

    feed  Rsource  loaded  Rdropper  behind  Rleft…  left…  Rpulse  pulsed
          driver from the rail  plus  rectifier  dc  regulator  R1  LEDs  R2  minus  driver to ground  0
    behind to the supply's other leg: what else the dropping resistor feeds
    plus to minus: a shunt or load resistor, a closed contact that the line's equipment reads
    dc to 0: a reservoir; across the LEDs: a shunt, a capacitor, what guards them
    with a fault: Rcontact and Rreturn in the lamp's wires, Racross between them, Rjoint before R1, and the
    meter that reads it (Rm...)

With a bridge the supply's other leg is ``legb``, and 0 is the bridge's negative. A bridge of four equal
diodes may be folded: the source is then what the bridge hands on, and two diodes stand in series.
"""

from dataclasses import dataclass, replace

import numpy as np

from swapglow.core.design.position import Position
from swapglow.core.drivers.driver import State
from swapglow.core.engine.netlist import (
    Capacitor,
    Circuit,
    CurrentSource,
    Dc,
    Diode,
    DiodeModel,
    Element,
    Param,
    Resistor,
    VoltageSource,
    Wave,
)
from swapglow.core.network.cases import Cases
from swapglow.core.network.fault import Fault, with_part_faults
from swapglow.core.network.filaments import Law, Ohms, filament, steady_load
from swapglow.core.parts.led import Led
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.quantities import InputError
from swapglow.core.supplies.supply import LINE_OHM
from swapglow.core.supplies.waveform import Waveform

# A closed contact, its wiring included.
CONTACT_OHM = 0.1
# Where some cases of a batch have a source resistance, the others have a short lead's.
LEAST_OHM = 1e-3
# The insulation of a winding. Between four dark diodes its side of a bridge hangs in the air, and
# time-stepping simulators then lose it.
INSULATION_OHM = 1e8
# Where nobody has settled a filament or a load yet.
_UNSETTLED_OHM = 100.0
# A throttled or power-law module's current source needs next to nothing for itself.
MODULE_HEAD_V = 0.3
# A driver that only ever gives: it keeps some 0.2 V at ten milliamps, as a transistor does.
_GATE = DiodeModel(i_s=1e-6, n=1.0)
# The way round a current source that lacks head: some ten millivolts at ten milliamps, at any temperature.
_SHARP = DiodeModel(i_s=1e-6, n=0.05)
# The way round for a regulator's own current where its input has run empty: nothing is left there to be exact about.
_SOFT = DiodeModel(i_s=1e-6, n=1.0)


class CannotBuild(InputError):
    """A part that is not built on a waveform or in a state: refused by name, never left out."""


@dataclass(frozen=True)
class Network:
    """A position as a circuit.

    Attributes:
        circuit: its elements.
        plus, minus: the nodes of the lamp's own contacts.
    """

    circuit: Circuit
    plus: str
    minus: str


# What only stands for something: a source's own resistance, a winding's insulation, the knee of a driver or of a
# current source. It is no part that could fail.
_STAND_INS = (
    "Rsource",
    "Rinsulation",
    "Rpulse",
    "Dgate",
    "Rcontact",
    "Down",
    "Dheld",
    "Dregulator",
    "Rinside",
    "Dinner",
)


def is_part(position: Position, name: str) -> bool:
    """Whether an element of a position's circuit is a part that somebody could change.

    Args:
        position: the swap.
        name: the element's.

    Returns:
        Whether it can fail.
    """
    if name.startswith(("V", "I")) or name in _STAND_INS or name.endswith(("forth", "back")):
        return False
    # The bridge inside a ready-made lamp is the lamp's.
    return not name.startswith("Dbridge") or bool(position.rectification.diodes)


def laws_of(position: Position) -> dict[str, Law]:
    """The filaments and steady loads in a position's circuit, by the names of their resistors."""
    d = position.driver
    out = {f"Rleft{k}": filament(lamp) for k, lamp in enumerate(d.remaining_lamps, 1)}
    for k, load in enumerate(d.loads if d.dropper_ohm else (), 1):
        if load.lamp is not None:
            out[f"Rload{k}"] = filament(load.lamp)
        elif load.amps is not None and not position.rail.supply.alternates:
            out[f"Rload{k}"] = steady_load(load.amps)
    return out


def steady_parts(k: int) -> tuple[str, str]:
    """The two sources that a steady load is on a supply that alternates, one each way round.

    Args:
        k: which load, from 1.

    Returns:
        Their diodes' names, whose currents, the one less the other, are what it draws.
    """
    return f"Dload{k}forth", f"Dload{k}back"


def build(
    position: Position,
    cases: Cases,
    *,
    wave: Wave | None = None,
    state: State = "on",
    stacked: bool = False,
    folded: bool = False,
    farads: Param = 0.0,
    filaments: Ohms | None = None,
    lamp_in: Element | None = None,
) -> Network:
    """A position as a circuit.

    Args:
        position: the swap.
        cases: values to solve it for, (samples,) each or plain numbers.
        wave: the source over time; None is steady at the cases' rail.
        state: what the driver does. On a wave, "pulse" gives the wave through the driver's own resistance.
        stacked: draw the string as one junction of n times the emission coefficient and series
            resistance. For equal LEDs in series that is the same circuit, exactly: they carry one
            current, so their voltages add.
        folded: the source is already what an even bridge hands on. Exact for equal diodes but for leakage.
        farads: the reservoir of a rectifier, F.
        filaments: ohms of every filament and steady load by the name of its resistor; a stand-in else.
        lamp_in: something else between ``plus`` and ``minus`` in place of LEDs and resistor.

    Returns:
        The circuit and its contacts.

    Raises:
        CannotBuild: a part of the position is not built on this wave or in this state.
    """
    _refuse(position, wave, state)
    return _Builder(position, cases, wave, state, stacked, folded, farads, filaments or {}).network(lamp_in)


def _refuse(p: Position, wave: Wave | None, state: State) -> None:
    """What is not built, by name."""
    if wave is None:
        return
    where = "on a supply that alternates" if p.rail.supply.alternates else "over a check pulse"
    alternates, way = p.rail.supply.alternates, p.rectification
    if p.regulator is not None and not alternates:
        raise CannotBuild("regulator_id", f"A regulator ({p.regulator.label}) is not worked out {where}.")
    if p.regulator is not None and not way.diodes:
        raise CannotBuild(
            "regulator_id",
            f"A regulator ({p.regulator.label}) is not worked out {where} without a diode or a bridge "
            "before it: it takes no volts in reverse.",
        )
    if p.module is not None and p.module.law == "power" and not (alternates and way.reservoir):
        raise CannotBuild(
            "module",
            f"A ready-made lamp of constant power is not worked out {where} without a capacitor "
            "before it: what its converter does between the crests is not known.",
        )
    if p.driver.remaining_lamps and not alternates:
        raise CannotBuild("driver_kind", f"Lamps left in the loop are not worked out {where}.")
    if p.driver.dropper_ohm and not alternates:
        curved = next((load for load in p.driver.loads if load.amps or load.lamp), None)
        if curved is not None:
            raise CannotBuild(
                "loads",
                f"On the shared feed, {curved.name or 'a load'} is no plain resistance: that is not worked "
                f"out {where}.",
            )
    if p.driver.dropper_ohm and p.rail.supply.waveform is Waveform.EITHER_WAY and way.folds:
        panel = next((load for load in p.driver.loads if load.led), None)
        if panel is not None:
            raise CannotBuild(
                "loads",
                f"On the shared feed, {panel.name} lights one way round and the lamp behind its bridge both: "
                "which way the track runs is not known, so that this is not worked out.",
            )
    if state == "off" and not p.driver.kind.contact:
        raise CannotBuild("driver_kind", f"{p.driver.kind.label}, switched off, is not worked out {where}.")


class _Builder:
    """One circuit in the making: elements, and the node reached."""

    def __init__(
        self,
        position: Position,
        cases: Cases,
        wave: Wave | None,
        state: State,
        stacked: bool,
        folded: bool,
        farads: Param,
        ohms: Ohms,
    ) -> None:
        self.p, self.cases, self.wave, self.state = position, cases, wave, state
        self.stacked, self.folded, self.farads, self.ohms = stacked, folded, farads, ohms
        self.alternates = wave is not None and position.rail.supply.alternates
        unfolded = self.alternates and position.rectification.folds and not folded
        # A ready-made lamp's own bridge is behind resistor and shunt; any other stands before them.
        self.bridge_inside = unfolded and not position.rectification.diodes
        bridged = unfolded and not self.bridge_inside
        # The supply's other leg.
        self.back = "legb" if bridged else "0"
        self.elements: list[Element] = []

    def network(self, lamp_in: Element | None) -> Network:
        """All of it, from the feed to the ground."""
        p = self.p
        low_side = p.driver.kind.side == "low"
        node = self._feed()
        if self.state == "off":
            a, b = ("minus", self.back) if low_side else (node, "plus")
            self.elements += p.driver.kind.off_parts(p.driver, a, b, self.cases.rail)
            plus, minus = (node, "minus") if low_side else ("plus", self.back)
        else:
            plus, minus = self._driver_on(node, low_side)
        plus, minus = self._wires(node, plus, minus, low_side)
        if self.state == "closed":
            self.elements.append(Resistor("Rcontact", plus, minus, CONTACT_OHM))
        if lamp_in is not None:
            first, second = lamp_in.terminals[:2]
            self.elements.append(replace(lamp_in, **{first: plus, second: minus}))  # type: ignore[arg-type]  # nodes are texts
            if not self.alternates and p.regulator is None:
                self._beside(plus, minus)
        else:
            self._lamp(plus, minus)
        shunt = self.cases.shunt_of(p)
        if shunt is not None and p.shunt_across == "assembly":
            self.elements.append(Resistor("Rshunt", plus, minus, shunt))
        title = "lamp position"
        if self.alternates:
            title += f", {p.rectification.label.lower()}"
        elif self.wave is not None:
            title += ", check pulses"
        circuit = Circuit(tuple(self.elements), celsius=p.celsius, title=title)
        wrong = () if self.cases.fault is None else self.cases.fault.parts
        return Network(with_part_faults(circuit, wrong), plus, minus)

    def _extra(self, name: str, a: str, b: str, ohm: Param | None) -> str:
        """A resistance that does not belong there, in series; returns the node behind it."""
        if ohm is None:
            return a
        self.elements.append(Resistor(name, a, b, ohm))
        return b

    def _over(self, name: str, a: str, b: str, ohm: Param | None) -> None:
        """Something across two nodes that does not belong there, or a meter."""
        if ohm is not None and a != b:
            self.elements.append(Resistor(name, a, b, ohm))

    def _wires(self, node: str, plus: str, minus: str, low_side: bool) -> tuple[str, str]:
        """What is wrong in the lamp's own wires, and the meters there; returns the lamp's contacts."""
        fault = self.cases.fault
        if fault is None:
            return plus, minus
        back = self.back
        if self.state == "off":
            self._over("Rwarm", *((minus, back) if low_side else (node, plus)), fault.past)
        plus = self._extra("Rcontact", plus, "atplus", fault.plus)
        minus = self._extra("Rreturn", minus, "atminus", fault.minus)
        self._over("Racross", plus, minus, fault.across)
        self._over("Rmlamp", plus, minus, fault.over_lamp)
        self._over("Rmsupply", node, back, fault.over_supply)
        self._over("Rmplus", plus, back, fault.over_plus)
        self._over("Rmminus", minus, back, fault.over_minus)
        return plus, minus

    def _feed(self) -> str:
        """From the supply down to what the driver switches; returns the node reached."""
        d = self.p.driver
        wave = Dc(self.cases.rail) if self.wave is None else self.wave
        self.elements.append(VoltageSource("Vrail", "feed", self.back, wave))
        node = "feed"
        source = self.cases.source_of(self.p)
        if self.state == "closed" and not np.any(np.asarray(source) > 0):
            # A line that its contact can short has something behind it, read or not.
            source = LINE_OHM
        if np.any(np.asarray(source) > 0):
            least = np.maximum(source, LEAST_OHM)
            self.elements.append(Resistor("Rsource", node, "loaded", float(least) if least.ndim == 0 else least))
            node = "loaded"
        if d.dropper_ohm:
            self.elements.append(Resistor("Rdropper", node, "behind", d.dropper_ohm))
            node = "behind"
            self._loads(node)
        for k in range(1, len(d.remaining_lamps) + 1):
            name, after = f"Rleft{k}", f"left{k}"
            self.elements.append(Resistor(name, node, after, self.ohms.get(name, _UNSETTLED_OHM)))
            node = after
        return node

    def _loads(self, node: str) -> None:
        for k, load in enumerate(self.p.driver.loads, 1):
            name = f"Rload{k}"
            if load.led is not None and load.ohms is not None:
                model = led_model(load.led, load.led.vf_typ, load.in_series, self.p.celsius)
                self.elements += [
                    Resistor(name, node, f"load{k}", load.ohms / load.strings),
                    Diode(f"Dload{k}", f"load{k}", self.back, side_by_side(model, load.strings)),
                ]
            elif load.ohms is not None:
                self.elements.append(Resistor(name, node, self.back, load.ohms))
            elif load.amps is not None and self.alternates:
                # It has a rectifier of its own: it takes its current whichever way the feed stands.
                for way, a, b in zip(steady_parts(k), (node, self.back), (self.back, node), strict=True):
                    self.elements.append(Diode(way, a, way.lower(), rectifier("power").model))
                    self._held(way.lower(), b, load.amps, MODULE_HEAD_V, way.lower())
            elif load.lamp is not None or load.amps is not None:
                self.elements.append(Resistor(name, node, self.back, self.ohms.get(name, _UNSETTLED_OHM)))

    def _driver_on(self, node: str, low_side: bool) -> tuple[str, str]:
        """The driver while it conducts; returns the lamp's contacts."""
        p, d = self.p, self.p.driver
        if self.state == "pulse" and (d.pulse_ohm or self.wave is not None):
            self.elements.append(Resistor("Rpulse", node, "pulsed", max(d.pulse_ohm, LEAST_OHM)))
            node = "pulsed"
        if self.state == "pulse" and self.wave is not None:
            self.elements.append(Diode("Dgate", node, "plus", replace(_GATE, nominal_c=self.p.celsius)))
            return "plus", "0"
        # On a supply that alternates the drop is taken off the crest, whichever way the current runs.
        if self.alternates or not (p.drop_v or isinstance(self.cases.drop, np.ndarray)):
            return node, self.back
        ends = ("minus", "0") if low_side else (node, "plus")
        self.elements.append(VoltageSource("Vdriver", *ends, Dc(_kept_drop(self.cases))))
        return (node, "minus") if low_side else ("plus", "0")

    def _lamp(self, plus: str, minus: str) -> None:
        """All that stands between the lamp's contacts."""
        node, last = plus, minus
        if self.alternates:
            node, last = self._rectifier(plus)
        self._assembly(node, last)

    def _rectifier(self, node: str) -> tuple[str, str]:
        """From the lamp's contacts to DC; returns the nodes of its positive and negative."""
        r, diode = self.p.rectification, rectifier("power").model
        if r.folds and not r.diodes:
            return node, "0"
        if r.folds and self.folded:
            pair = rectifier("power").chain(2, self.p.celsius)
            self.elements.append(Diode("Dbridge", node, "dc", pair))
        elif r.folds:
            self.elements += [
                Diode("Dbridge1", node, "dc", diode),
                Diode("Dbridge2", "legb", "dc", diode),
                Diode("Dbridge3", "0", node, diode),
                Diode("Dbridge4", "0", "legb", diode),
                Resistor("Rinsulation", "legb", "0", INSULATION_OHM),
            ]
        elif r.diodes:
            self.elements.append(Diode("Drectifier", node, "dc", diode))
        if r.reservoir:
            self.elements.append(Capacitor("C1", "dc", "0", self.farads))
        return ("dc" if r.topology != "none" else node), "0"

    def _assembly(self, node: str, last: str) -> None:
        """LEDs, resistor and what goes with them, between two nodes."""
        p, cases = self.p, self.cases
        node = self._regulator(node, last)
        self._beside(node, last)
        fault = cases.fault or Fault()
        node = self._extra("Rjoint", node, "jointed", None if fault.string is None else fault.string / p.branches)
        if not p.set_by_ohms:
            node, last = self._resistor(node, last)
        shunt = cases.shunt_of(p)
        if shunt is not None and p.shunt_across == "leds":
            self.elements.append(Resistor("Rshunt", node, last, shunt))
        if self.state == "pulse" and self.wave is not None and p.capacitor_f is not None:
            self.elements.append(Capacitor("C1", node, last, p.capacitor_f))
        self._guard(node, last, (p.led, cases.vf, p.second_led, p.in_series, p.branches))
        if p.module is not None:
            # Inside a ready-made lamp no meter gets at its LEDs: it reads the lamp's two ends.
            self._over("Rmleds", node, last, fault.over_leds)
            node, last = self._inside(node, last)
        if p.series_diodes:
            chain = rectifier("signal").chain(p.series_diodes, p.celsius)
            self.elements.append(Diode("Dseries", node, "blocked", side_by_side(chain, p.branches)))
            node = "blocked"
        if p.module is None:
            self._over("Rmleds", node, last, fault.over_leds)
        # Equal branches are one of their sum: exact, for each carries the same current.
        lit = 1 if self.stacked else p.in_series
        model = side_by_side(led_model(p.led, cases.vf, p.in_series // lit, p.celsius), p.branches)
        for k in range(1, lit + 1):
            after = last if k == lit else f"led{k}"
            self.elements.append(Diode(f"D{k}", node, after, model))
            node = after

    def _regulator(self, node: str, last: str) -> str:
        """A regulator before the string, or a current source in the resistor's place."""
        p = self.p
        if p.regulator is None:
            return node
        after = "string" if p.set_by_ohms else "held"
        if self.alternates:
            self._on_wave(node, after, last)
            return after
        self.elements.append(VoltageSource("Vkept", node, after, Dc(kept(p, self.cases))))
        if self.state == "on" and not p.set_by_ohms:
            # Starved, a regulator takes next to nothing for itself.
            self.elements.append(CurrentSource("Iregulator", node, last, Dc(p.regulator.quiescent)))
        return after

    def _on_wave(self, node: str, after: str, last: str) -> None:
        """A regulator out of parts that any waveform runs through.

        What its string draws on the held volts it lets through, and never more; with less head the string has what
        is left over the dropout. For a string that draws more on more volts that is a regulator, exactly.
        """
        r = self.p.regulator
        assert r is not None
        let = 0.0 if self.cases.let is None else self.cases.let
        self._held(node, after, let, r.dropout, "regulator")
        if not self.p.set_by_ohms:
            # Its own working current, which goes round by itself where there are no volts for it.
            self.elements += [
                CurrentSource("Iown", node, last, Dc(r.quiescent)),
                Diode("Down", last, node, replace(_SOFT, nominal_c=self.p.celsius)),
            ]

    def _resistor(self, node: str, last: str) -> tuple[str, str]:
        """The series resistor in its lead, or half in each; returns the string's nodes."""
        p, ohms = self.p, self.cases.ohms / self.p.branches
        if p.resistor_parts == 2:
            self.elements += [Resistor("R1", node, "string", ohms / 2), Resistor("R2", "return", last, ohms / 2)]
            return "string", "return"
        if p.lead == "negative":
            self.elements.append(Resistor("R1", "return", last, ohms))
            return node, "return"
        self.elements.append(Resistor("R1", node, "string", ohms))
        return "string", last

    def _guard(self, node: str, last: str, string: "tuple[Led, Param, Led | None, int, int]", key: str = "") -> None:
        """What stands across each string, turned round: a diode, or LEDs of its own kind or of the other die's."""
        p, (led, vf, second, in_series, count) = self.p, string
        if not self.alternates:
            return
        if p.rectification.guard == "diode":
            self.elements.append(Diode(f"Dinverse{key}", last, node, side_by_side(rectifier("power").model, count)))
        elif p.rectification.guard == "led":
            one = (led, vf) if second is None else (second, second.vf_typ)
            model = led_model(*one, in_series, p.celsius)
            self.elements.append(Diode(f"Dturned{key}" if key else "D2", last, node, side_by_side(model, count)))

    def _beside(self, node: str, last: str) -> None:
        """Strings of other LEDs between the same two nodes, each as lucky as the main one."""
        p, main = self.p, self.p.led
        for k, b in enumerate(p.beside, 1):
            if b.ohm is None:
                continue
            vf = as_lucky(self.cases.vf, main, b.led)
            self.elements.append(Resistor(f"Rbeside{k}", node, f"beside{k}", b.ohm / b.count))
            at = f"beside{k}"
            self._guard(at, last, (b.led, vf, b.second, b.in_series, b.count), str(k))
            if b.diodes:
                self.elements.append(
                    Diode(
                        f"Dblocked{k}",
                        at,
                        f"{at}led",
                        side_by_side(rectifier("signal").chain(b.diodes, p.celsius), b.count),
                    )
                )
                at = f"{at}led"
            model = side_by_side(led_model(b.led, vf, b.in_series, p.celsius), b.count)
            self.elements.append(Diode(f"Dbeside{k}", at, last, model))

    def _inside(self, node: str, last: str) -> tuple[str, str]:
        """What ready-made lamps have before their LEDs; returns the nodes that those are between."""
        p, m = self.p, self.p.module
        assert m is not None
        if self.bridge_inside:
            one = side_by_side(rectifier("power").chain(p.in_series, p.celsius), p.branches)
            self.elements += [
                Diode("Dbridge1", node, "inner", one),
                Diode("Dbridge2", last, "inner", one),
                Diode("Dbridge3", "innerback", node, one),
                Diode("Dbridge4", "innerback", last, one),
            ]
            node, last = "inner", "innerback"
        elif not m.polarised:
            chain = rectifier("power").chain(2 * p.in_series, p.celsius)
            self.elements.append(Diode("Dinner", node, "inner", side_by_side(chain, p.branches)))
            node = "inner"
        if m.law == "resistor":
            # A lamp that was swept has its resistor in its curve.
            ohm = max(m.insides[p.inside].ohm * p.in_series / p.branches, LEAST_OHM)
            self.elements.append(Resistor("Rinside", node, "inside", ohm))
        elif self.wave is None:
            self.elements.append(VoltageSource("Vkept", node, "inside", Dc(kept(p, self.cases))))
        else:
            self._held(node, "inside", held_amps(p, self.cases), MODULE_HEAD_V * p.in_series, "held")
        return "inside", last

    def _held(self, node: str, after: str, amps: Param, head: float, name: str) -> None:
        """A current source with its least head, out of parts that any waveform runs through.

        With too little head the source's current goes round by its own diode, and what flows on is what
        the LEDs take; the diode's knee is so sharp that the two meet within some millivolts.
        """
        at = f"{name}head"
        self.elements += [
            VoltageSource(f"V{name}", node, at, Dc(head)),
            # What its diode leaks in reverse, the source does not give.
            CurrentSource(f"I{name}", at, after, Dc(amps - _SHARP.i_s)),
            Diode(f"D{name}", after, at, replace(_SHARP, nominal_c=self.p.celsius)),
        ]


def held_amps(position: Position, cases: Cases) -> Param:
    """What the current sources in all branches of ready-made lamps let through together, A.

    A converter that takes constant power is reckoned at the volts before it, those of the feed.

    Args:
        position: the swap, its ready-made lamp one that holds its current.
        cases: what is solved.

    Returns:
        A.
    """
    m = position.module
    assert m is not None
    if m.law == "current":
        return m.amps * position.branches
    each = np.maximum((np.asarray(cases.rail) - cases.drop) / position.in_series, m.low)
    amps = np.asarray(m.amps * m.at_v / each * position.branches)
    return float(amps) if amps.ndim == 0 else amps


def kept(position: Position, cases: Cases) -> Param:
    """What a regulator or current source keeps of the volts above it, V; its dropout where nobody solved it.

    Args:
        position: the swap.
        cases: what is solved; its own ``kept`` where it has one.

    Returns:
        V.
    """
    return dropout(position) if cases.kept is None else cases.kept


def _kept_drop(cases: Cases) -> Param:
    """What a driver keeps: never more than there is, for it gives nothing back."""
    drop, rail = cases.drop, cases.rail
    return drop if np.all(np.asarray(drop) <= np.asarray(rail)) else np.minimum(drop, rail)


def dropout(position: Position) -> float:
    """The least a regulator or current source keeps, V."""
    return MODULE_HEAD_V * position.in_series if position.regulator is None else position.regulator.dropout


def led_model(led: Led, vf: Param, in_series: int, celsius: float) -> DiodeModel:
    """A string of equal LEDs as one junction: exact, since they carry one current.

    Args:
        led: the kind.
        vf: forward voltage of each at rated current, 25 °C, V; scalar or (samples,).
        in_series: how many.
        celsius: their temperature.

    Returns:
        The junction at that temperature.
    """
    junction = led.junction(vf, celsius)
    i_s = junction.i_s
    return DiodeModel(
        i_s=float(i_s) if i_s.ndim == 0 else i_s,
        n=junction.n * in_series,
        r_s=junction.r_s * in_series,
        nominal_c=celsius,
    )


def as_lucky(vf: Param, led: Led, other: Led) -> Param:
    """The forward voltage of an LED that is as lucky as one of another kind.

    Args:
        vf: of the one, V; scalar or (samples,).
        led: its kind.
        other: the other's kind.

    Returns:
        V, shape of ``vf``: as far between the other's typical and its end as ``vf`` is between its own.
    """
    v = np.asarray(vf, dtype=float)
    under = (led.vf_typ - v) / max(led.vf_typ - led.vf_low, 1e-9)
    over = (v - led.vf_typ) / max(led.vf_high - led.vf_typ, 1e-9)
    luck = (
        other.vf_typ
        - np.clip(under, 0, 1) * (other.vf_typ - other.vf_low)
        + np.clip(over, 0, 1) * (other.vf_high - other.vf_typ)
    )
    return float(luck) if luck.ndim == 0 else np.asarray(luck)


def side_by_side(model: DiodeModel, count: int) -> DiodeModel:
    """Equal junctions side by side as one.

    Args:
        model: one of them.
        count: how many.

    Returns:
        The junction that carries all their currents at the same volts.
    """
    if count == 1:
        return model
    return DiodeModel(model.i_s * count, model.n, model.r_s / count, nominal_c=model.nominal_c)
