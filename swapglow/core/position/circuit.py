"""A position as a circuit: supply, driver's drop, resistor, LEDs, ground."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuit.netlist import (
    Circuit,
    Dc,
    Diode,
    Element,
    Param,
    Resistor,
    VoltageSource,
)
from swapglow.core.circuit.spice import write_deck
from swapglow.core.position.model import Position
from swapglow.core.position.treated import LEAST_SOURCE_OHM, Values, led_model, sine, treated_circuit

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Cases:
    """What to solve: arrays of one length (or plain numbers), SI units.

    Attributes:
        rail: volts.
        vf: forward voltage at rated current of each LED, 25 °C.
        ohms: total series resistance, parts and meter together.
        drop: what the driver keeps.
        source: resistance behind the rail; None takes the position's own.
    """

    rail: Param
    vf: Param
    ohms: Param
    drop: Param = 0.0
    source: Param | None = None

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


def to_circuit(position: Position, cases: Cases, *, stacked: bool = False) -> Circuit:
    """The circuit of a position on a steady supply.

    Args:
        position: the swap.
        cases: values to solve it for.
        stacked: draw the string as one junction of n times the emission coefficient and series
            resistance. For equal LEDs in series that is the same circuit, exactly: they carry one
            current, so their voltages add.
    """
    # The saturation current is already that of the position's temperature.
    model = led_model(position.led, cases.vf, position.in_series if stacked else 1, position.celsius)
    elements: list[Element] = [VoltageSource("Vrail", "feed", "0", Dc(cases.rail))]
    node = "feed"
    source = cases.source_of(position)
    if np.any(np.asarray(source) > 0):
        least = np.maximum(source, LEAST_SOURCE_OHM)
        elements.append(Resistor("Rsource", node, "loaded", float(least) if least.ndim == 0 else least))
        node = "loaded"
    if position.drop_v or isinstance(cases.drop, np.ndarray):
        elements.append(VoltageSource("Vdriver", node, "driven", Dc(cases.drop)))
        node = "driven"
    if position.resistor_parts == 2:
        half = cases.ohms / 2
        elements += [Resistor("R1", node, "string", half), Resistor("R2", "return", "0", half)]
        last = "return"
    else:
        elements.append(Resistor("R1", node, "string", cases.ohms))
        last = "0"
    count = 1 if stacked else position.in_series
    node = "string"
    for k in range(1, count + 1):
        after = last if k == count else f"led{k}"
        elements.append(Diode(f"D{k}", node, after, model, is_led=True))
        node = after
    return Circuit(tuple(elements), celsius=position.celsius, title="lamp position")


def spice_text(position: Position, ohms: float, farads: float = 0.0) -> str:
    """The position at its usual rail with typical LEDs, as SPICE text.

    Args:
        ohms: total series resistance.
        farads: the reservoir, where there is one.
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
    return write_deck(to_circuit(position, cases))
