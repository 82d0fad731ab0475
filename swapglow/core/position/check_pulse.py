"""A lamp-check pulse over its whole period: what the LED shows of it, and a part that swallows it.

The pulse comes through its driver's resistance; between pulses the driver is open, so what a capacitor
was charged with can only leave through the LED or a shunt:

    pulses  Rpulse  Dgate  plus  R1  string  D1 ‖ Rshunt ‖ C1
"""

from dataclasses import dataclass, replace

import numpy as np

from swapglow.core.circuit.netlist import (
    Capacitor,
    Circuit,
    Diode,
    DiodeModel,
    Element,
    Pulse,
    Resistor,
    VoltageSource,
)
from swapglow.core.circuit.steady import steady_state
from swapglow.core.position.model import Position
from swapglow.core.position.sizing import size
from swapglow.core.position.treated import led_model
from swapglow.core.sight.glow import led_candela
from swapglow.core.sight.seen import flash_candela
from swapglow.core.supply.ratings import next_capacitance

# A driver that only ever gives: it keeps some 0.2 V at ten milliamps, as a transistor does.
_GATE = DiodeModel(i_s=1e-6, n=1.0)
_LEAST_OHM = 1e-3
_EDGE = 0.01
_LARGEST_F = 470e-6


@dataclass(frozen=True)
class Flash:
    """What a check pulse makes of the LED.

    Attributes:
        peak_a: the most current through one string.
        lasts_s: how long it is lit, as charge over peak.
        candela: the steady light it looks like (Blondel and Rey 1911).
    """

    peak_a: float
    lasts_s: float
    candela: float


def pulse_circuit(position: Position, rail_v: float, vf: float) -> Circuit:
    """The circuit of a position on its check pulses; its resistor is the one fitted."""
    p, d = position, position.driver
    edge = d.pulse_s * _EDGE
    wave = Pulse(0.0, rail_v, 0.0, edge, edge, d.pulse_s - edge, d.period_s)
    parts: list[Element] = [
        VoltageSource("Vpulse", "pulses", "0", wave),
        Resistor("Rpulse", "pulses", "given", max(d.pulse_ohm + p.rail.supply.source_ohm.value, _LEAST_OHM)),
        Diode("Dgate", "given", "plus", _GATE),
        Resistor("R1", "plus", "string", size(p).total_ohm / p.branches),
        Diode("D1", "string", "0", led_model(p.led, vf, p.in_series, p.celsius), is_led=True),
    ]
    if p.shunt_ohm is not None:
        parts.append(Resistor("Rshunt", "string" if p.shunt_across == "leds" else "plus", "0", p.shunt_ohm))
    if p.capacitor_f is not None:
        parts.append(Capacitor("C1", "string", "0", p.capacitor_f))
    return Circuit(tuple(parts), celsius=p.celsius, title="lamp position, check pulses")


def flash(position: Position) -> Flash | None:
    """What the LED shows of the pulses at the highest rail, luckiest LED; None where there are none.

    Raises:
        NotConverged: the cycle has no answer.
    """
    p, d = position, position.driver
    if d.kind != "lamp_check" or not d.counts or not d.pulse_s or not d.period_s:
        return None
    run = steady_state(pulse_circuit(p, p.rail.volts[2], p.led.vf_low))
    amps = np.maximum(run.current("D1"), 0.0) / p.branches
    peak, average = float(amps.max()), run.average(amps)
    lasts = min(d.period_s, average * d.period_s / peak) if peak > 0 else 0.0
    return Flash(peak, lasts, flash_candela(led_candela(p, peak), lasts))


def swallowing(position: Position, candela: float) -> tuple[float, float] | None:
    """A capacitor across the LEDs, with a shunt that empties it between pulses, that hides the pulse.

    The shunt takes a tenth of the drive while lit; the capacitor must not reach the knee within the
    pulse, C > t/(R·ln(V/(V − Vknee))) (charging through R), and is raised by E6 steps until the solved
    cycle shows less than ``candela``.

    Returns:
        farads and the shunt's ohms; None where none up to 470 µF will do.
    """
    p, d = position, position.driver
    volts = p.in_series * p.led.vf_low
    shunt = float(f"{volts / (0.1 * p.target.value):.2g}")
    ohms = size(p).total_ohm + d.pulse_ohm
    knee = 0.7 * volts
    rail = p.rail.volts[2]
    if rail <= knee:
        return None
    farads = next_capacitance(d.pulse_s / (ohms * float(np.log(rail / (rail - knee)))))
    while farads <= _LARGEST_F:
        trial = replace(p, capacitor_f=farads, shunt_ohm=shunt, shunt_across="leds")
        found = flash(trial)
        if found is not None and found.candela < candela:
            return farads, shunt
        farads = next_capacitance(farads * 1.2)
    return None
