"""A position as a circuit: supply, driver's drop, resistor, LEDs, ground."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuit.netlist import (
    Circuit,
    Dc,
    Diode,
    DiodeModel,
    Element,
    Param,
    Resistor,
    VoltageSource,
)
from swapglow.core.circuit.spice import write_deck
from swapglow.core.position.model import Position

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Cases:
    """What to solve: arrays of one length (or plain numbers), SI units.

    Attributes:
        rail: volts.
        vf: forward voltage at rated current of each LED, 25 °C.
        ohms: total series resistance, parts and meter together.
        drop: what the driver keeps.
    """

    rail: Param
    vf: Param
    ohms: Param
    drop: Param = 0.0


def to_circuit(position: Position, cases: Cases, *, stacked: bool = False) -> Circuit:
    """The position's circuit.

    Args:
        position: the swap.
        cases: values to solve it for.
        stacked: draw the string as one junction of n times the emission coefficient and series
            resistance. For equal LEDs in series that is the same circuit, exactly: they carry one
            current, so their voltages add.
    """
    junction = position.led.junction(cases.vf, position.celsius)
    share = position.in_series if stacked else 1
    model = DiodeModel(
        i_s=_plain(junction.i_s),
        n=junction.n * share,
        r_s=junction.r_s * share,
        # The saturation current is already that of this temperature.
        nominal_c=position.celsius,
    )
    elements: list[Element] = [VoltageSource("Vrail", "feed", "0", Dc(cases.rail))]
    node = "feed"
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


def spice_text(position: Position, ohms: float) -> str:
    """The position at its usual rail with typical LEDs, as SPICE text.

    Args:
        ohms: total series resistance.
    """
    cases = Cases(position.rail.usual.value, position.led.vf_typ, ohms, position.drop_v)
    return write_deck(to_circuit(position, cases))


def _plain(values: FloatArray) -> Param:
    return float(values) if values.ndim == 0 else values
