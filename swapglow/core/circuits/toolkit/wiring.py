"""Circuits built from shared blocks. A block remembers what its parts can stand, so that none goes unjudged."""

from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuits.toolkit.ratings import RatedDiode, RatedLamp, RatedLed, Rating
from swapglow.core.constants import REFERENCE_C
from swapglow.core.engine.netlist import (
    Bjt,
    Capacitor,
    Circuit,
    Dc,
    Diode,
    Element,
    Param,
    Resistor,
    VoltageSource,
    Wave,
)
from swapglow.core.engine.spice import write_deck
from swapglow.core.network.filaments import Law, Ohms, filament
from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import Led
from swapglow.core.parts.led_model import led_model
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.parts.transistor import transistor

# A closed contact, and what is left of an open one, Ω.
ON_OHM, OFF_OHM = 0.05, 1e9
# The engine takes no resistor of nothing, Ω.
LINK_OHM = 1e-3


@dataclass
class Wiring:
    """A circuit while it is wired up. A parameter may be an array, one value a state.

    Attributes:
        title: what it is, for the simulator's text.
        parts: the elements so far.
        ratings: what each part that was fitted can stand.
        laws: filaments by the name of their resistor.
        switches, lights: names of the contacts, and of the junctions that give light.
        modelled: names of elements that exist for the calculation only, and are not drawn.
        many: how many equal resistors side by side one element stands for, by its name.
    """

    title: str
    parts: list[Element] = field(default_factory=list)
    ratings: list[Rating] = field(default_factory=list)
    laws: dict[str, Law] = field(default_factory=dict)
    switches: list[str] = field(default_factory=list)
    lights: list[str] = field(default_factory=list)
    modelled: list[str] = field(default_factory=list)
    many: dict[str, int] = field(default_factory=dict)

    def part(self, name: str) -> Element:
        """The element of that name."""
        return next(e for e in self.parts if e.name == name)

    def add(self, *elements: Element) -> None:
        """Elements that no block knows."""
        self.parts += elements

    def source(self, name: str, plus: str, volts: Param | Wave, minus: str = "0") -> None:
        """A supply, steady or of a wave.

        Args:
            name: of the element.
            plus, minus: its nodes.
            volts: steady, one a state, or a wave.
        """
        wave = Dc(volts) if isinstance(volts, int | float | np.ndarray) else volts
        self.add(VoltageSource(name, plus, minus, wave))

    def resistor(self, name: str, a: str, b: str, ohm: Param) -> None:
        """Ohms between two nodes; never quite nothing.

        Args:
            name: of the element.
            a, b: its nodes.
            ohm: Ω, or one a state.
        """
        self.add(Resistor(name, a, b, np.maximum(ohm, LINK_OHM) if isinstance(ohm, np.ndarray) else max(ohm, LINK_OHM)))

    def resistors(self, name: str, a: str, b: str, ohm: float, count: int) -> None:
        """Equal resistors side by side as one element.

        Args:
            name: of the element.
            a, b: its nodes.
            ohm: of each, Ω.
            count: how many.
        """
        self.many[name] = count
        self.resistor(name, a, b, ohm / count)

    def capacitor(self, name: str, a: str, b: str, farads: float) -> None:
        """Farads between two nodes.

        Args:
            name: of the element.
            a, b: its nodes.
            farads: F.
        """
        self.add(Capacitor(name, a, b, farads))

    def switch(self, name: str, a: str, b: str, closed: NDArray[np.bool_] | bool) -> None:
        """A contact, closed or open in each state.

        Args:
            name: of the element.
            a, b: its nodes.
            closed: or one a state.
        """
        self.switches.append(name)
        ohm = np.where(closed, ON_OHM, OFF_OHM)
        self.add(Resistor(name, a, b, float(ohm) if ohm.ndim == 0 else ohm))

    def diode(self, name: str, anode: str, cathode: str, kind: str = "power", count: int = 1) -> None:
        """A silicon diode, or so many in series.

        Args:
            name: of the element.
            anode, cathode: its nodes.
            kind: "power" or "signal".
            count: how many in series.
        """
        part = rectifier(kind)
        self.add(Diode(name, anode, cathode, part.chain(count, REFERENCE_C)))
        self.ratings.append(RatedDiode(name, "a diode", part))

    def bridge(self, a: str, b: str, plus: str, minus: str, kind: str = "power") -> None:
        """Four diodes between an alternating pair and a direct one: "D1" to "D4".

        Args:
            a, b: the alternating pair.
            plus, minus: the direct one.
            kind: of its diodes.
        """
        for k, ends in enumerate(((a, plus), (b, plus), (minus, a), (minus, b)), 1):
            self.diode(f"D{k}", *ends, kind)

    def led(
        self,
        name: str,
        anode: str,
        cathode: str,
        led: Led,
        *,
        series: int = 1,
        parallel: float = 1,
        label: str = "the LED",
        id_: str = "led",
        duty: float = 1.0,
        judged: bool = True,
        guarded: bool = False,
    ) -> None:
        """LEDs of typical forward voltage as one junction: in series, or equal strings in parallel.

        Args:
            name, anode, cathode: the element and its nodes.
            led: one of them.
            series, parallel: how many.
            label, id_: what a finding calls it.
            duty: share of the time that the solved current flows.
            judged: whether its ratings are known.
            guarded: whether a diode in series takes what it would see in reverse.
        """
        self.lights.append(name)
        self.add(Diode(name, anode, cathode, led_model(led, series), area=float(parallel)))
        if judged:
            self.ratings.append(RatedLed(name, label, id_, led, series, parallel, duty, guarded))

    def filament(self, name: str, a: str, b: str, lamp: Lamp, *, label: str = "the lamp", judged: bool = True) -> None:
        """A filament lamp: a resistor that its voltage sets.

        Args:
            name: of its resistor.
            a, b: its nodes.
            lamp: its rating.
            label: what a finding calls it.
            judged: whether more than a quarter over its volts is a stop.
        """
        self.add(Resistor(name, a, b, lamp.volts / lamp.amps))
        self.laws[name] = filament(lamp)
        if judged:
            self.ratings.append(RatedLamp(name, label, lamp))

    def npn(self, name: str, collector: str, base: str, emitter: str) -> None:
        """A small transistor.

        Args:
            name: of the element.
            collector, base, emitter: its nodes.
        """
        self.add(Bjt(name, collector, base, emitter, transistor("npn")))

    def circuit(self, ohms: Ohms | None = None) -> Circuit:
        """The circuit, with its filaments at these ohms.

        Args:
            ohms: by the name of the filament's resistor; at their rating where none are given.

        Returns:
            The circuit at 25 °C.
        """
        set_ = {} if ohms is None else ohms
        parts = tuple(
            replace(e, ohms=set_[e.name]) if isinstance(e, Resistor) and e.name in set_ else e for e in self.parts
        )
        return Circuit(parts, celsius=REFERENCE_C, title=self.title)

    def deck(self, *commands: str) -> str:
        """The circuit as text for a simulator; filaments as at their rating."""
        return write_deck(self.circuit(), commands or (".op",))


def over_time(hertz: float, cycles: int = 40, steps: int = 200) -> str:
    """The simulator's command for so many cycles.

    Args:
        hertz: of the feed.
        cycles: how many.
        steps: to each.

    Returns:
        The command.
    """
    return f".tran {1 / hertz / steps:.6g} {cycles / hertz:.6g}"
