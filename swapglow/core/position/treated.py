"""A treated LED as a circuit: what stands between an alternating supply and the light.

The circuits of the treatments, node by node (``feed`` is the supply, ``0`` its other leg):

    bare           Rsource  R1  D1…
    inverse_diode  Rsource  R1  (D1… ‖ Dinverse turned round)
    back_to_back   Rsource  R1  (D1… ‖ D2… turned round)
    half_wave      Rsource  Drect  R1  D1…
    half_wave_cap  Rsource  Drect  (C1 ‖ R1 D1…)
    bridge         Rsource  four diodes  R1  D1…
    bridge_cap     Rsource  four diodes  (C1 ‖ R1 D1…)
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuit.netlist import (
    Capacitor,
    Circuit,
    Diode,
    DiodeModel,
    Element,
    FullWave,
    Param,
    Resistor,
    Sine,
    VoltageSource,
    Wave,
)
from swapglow.core.parts.led import Led
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.position.model import Position

FloatArray = NDArray[np.float64]

# Where some cases of a batch have a source resistance, the others have a short lead's.
LEAST_SOURCE_OHM = 1e-3
# The insulation of a winding. Between four dark diodes its side of a bridge hangs in the air, and
# time-stepping simulators then lose it.
INSULATION_OHM = 1e8


@dataclass(frozen=True)
class Values:
    """What the circuit is made of: numbers, or arrays of one length.

    Attributes:
        wave: the source.
        vf: forward voltage at rated current of each LED, V at 25 °C.
        ohms: total series resistance, parts and meter together, Ω.
        source: resistance behind the feed, Ω.
        farads: the reservoir, where there is one.
    """

    wave: Wave
    vf: Param
    ohms: Param
    source: Param
    farads: Param = 0.0


def led_model(led: Led, vf: Param, in_series: int, celsius: float) -> DiodeModel:
    """A string of equal LEDs as one junction: exact, since they carry one current."""
    junction = led.junction(vf, celsius)
    i_s = junction.i_s
    return DiodeModel(
        i_s=float(i_s) if i_s.ndim == 0 else i_s,
        n=junction.n * in_series,
        r_s=junction.r_s * in_series,
        nominal_c=celsius,
    )


def treated_circuit(position: Position, values: Values, *, folded: bool = False) -> Circuit:
    """The circuit of the position's treatment.

    Args:
        position: the swap, on a supply that alternates.
        values: source and parts.
        folded: the source is already what an even bridge hands on; its two conducting diodes then
            stand in series. Exact for equal diodes but for their leakage.
    """
    p, kind = position, position.treated.id
    led = led_model(p.led, values.vf, p.in_series, p.celsius)
    diode = rectifier("power").model
    other = "legb" if kind.startswith("bridge") and not folded else "0"
    behind = np.any(np.asarray(values.source) > 0)
    node = "feed" if behind else "lega"
    parts: list[Element] = [VoltageSource("Vsupply", node, other, values.wave)]
    if behind:
        source = np.maximum(values.source, LEAST_SOURCE_OHM)
        parts.append(Resistor("Rsource", "feed", "lega", float(source) if source.ndim == 0 else source))
    node = "lega"
    if kind.startswith("bridge"):
        node = "dc"
        if folded:
            pair = DiodeModel(diode.i_s, 2 * float(diode.n), 2 * float(diode.r_s))
            parts.append(Diode("Dbridge", "lega", "dc", pair))
        else:
            parts += [
                Diode("Dbridge1", "lega", "dc", diode), Diode("Dbridge2", "legb", "dc", diode),
                Diode("Dbridge3", "0", "lega", diode), Diode("Dbridge4", "0", "legb", diode),
                Resistor("Rinsulation", "legb", "0", INSULATION_OHM),
            ]  # fmt: skip
    elif kind.startswith("half_wave"):
        node = "dc"
        parts.append(Diode("Drectifier", "lega", "dc", diode))
    if position.treated.reservoir:
        parts.append(Capacitor("C1", "dc", "0", values.farads))
    parts += [Resistor("R1", node, "string", values.ohms), Diode("D1", "string", "0", led, is_led=True)]
    if kind == "inverse_diode":
        parts.append(Diode("Dinverse", "0", "string", diode))
    elif kind in ("back_to_back", "two_colour"):
        second = led
        if position.second_led is not None:
            second = led_model(position.second_led, position.second_led.vf_typ, p.in_series, p.celsius)
        parts.append(Diode("D2", "0", "string", second, is_led=True))
    return Circuit(tuple(parts), celsius=p.celsius, title=f"lamp position, {position.treated.label.lower()}")


def sine(peak: Param, hertz: float, folded: bool) -> Wave:
    """The source of a winding: a sine, or what an even bridge makes of it."""
    return FullWave(peak, hertz) if folded else Sine(0.0, peak, hertz)
