"""A lamp-check pulse over its whole period: what the LED shows of it, and a part that swallows it.

The pulse comes through its driver's resistance; between pulses the driver is open, so what a capacitor
was charged with can only leave through the LED or a shunt.
"""

from dataclasses import dataclass, replace

import numpy as np

from swapglow.core.analysis.sizing import size
from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import Circuit, Pulse
from swapglow.core.engine.periodic import steady_state
from swapglow.core.network.builder import build
from swapglow.core.network.cases import Cases
from swapglow.core.parts.ratings import next_capacitance
from swapglow.core.photometry.intensity import led_candela
from swapglow.core.photometry.visibility import flash_candela

_EDGE = 0.01
_LARGEST_F = 470e-6


@dataclass(frozen=True)
class Flash:
    """What a check pulse makes of the LED.

    Attributes:
        peak_a: the most current through one string.
        candela: the steady light it looks like (Blondel and Rey 1911).
    """

    peak_a: float
    candela: float


def pulse_circuit(position: Position, rail_v: float, vf: float) -> Circuit:
    """The circuit of a position on its check pulses; its resistor is the one fitted.

    Args:
        position: the swap.
        rail_v: what the pulses reach, open, V.
        vf: forward voltage of each LED at rated current, V.

    Returns:
        The circuit, its source a train of pulses.

    Raises:
        CannotBuild: a part of it is not built over a pulse.
    """
    p, d = position, position.driver
    edge = d.pulse_s * _EDGE
    wave = Pulse(0.0, rail_v, 0.0, edge, edge, d.pulse_s - edge, d.period_s)
    cases = Cases(rail_v, vf, size(p).total_ohm)
    return build(p, cases, wave=wave, state="pulse", stacked=True).circuit


def flash(position: Position) -> Flash | None:
    """What the LED shows of the pulses at the highest rail, luckiest LED; None where there are none.

    Raises:
        NotConverged: the cycle has no answer.
        CannotBuild: a part of the position is not built over a pulse.
    """
    p, d = position, position.driver
    if not d.pulses or p.rail.supply.alternates:
        return None
    run = steady_state(pulse_circuit(p, p.rail.volts[2], p.led.vf_low))
    amps = np.maximum(run.current("D1"), 0.0) / p.branches
    peak, average = float(amps.max()), run.average(amps)
    # How long it is lit, as charge over peak.
    lasts = min(d.period_s, average * d.period_s / peak) if peak > 0 else 0.0
    if p.capacitor_f is None:
        # Nothing holds it up: it is lit for the pulse and no longer, however coarse the cycle's instants are.
        lasts = min(lasts, d.pulse_s)
    return Flash(peak, flash_candela(led_candela(p, peak), lasts))


def swallowing(position: Position, candela: float) -> tuple[float, float] | None:
    """A capacitor across the LEDs, with a shunt that empties it between pulses, that hides the pulse.

    The shunt takes a tenth of the drive while lit; the capacitor must not reach the knee within the
    pulse, C > t/(R·ln(V/(V − Vknee))) (charging through R), and is raised by E6 steps until the solved
    cycle shows less than ``candela``.

    Args:
        position: the swap on a driver that pulses it.
        candela: what must not be reached, cd.

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
