"""A position's network as SPICE text, to check it in a simulator."""

from dataclasses import replace

import numpy as np

from swapglow.core.analysis.ac_cycle import filaments_at_rest
from swapglow.core.analysis.sizing import with_strings
from swapglow.core.analysis.solution import ac_cases
from swapglow.core.design.position import Position
from swapglow.core.drivers.driver import State
from swapglow.core.engine.netlist import Circuit, Dc, Param
from swapglow.core.engine.spice import write_deck
from swapglow.core.network.builder import build, laws_of
from swapglow.core.network.cases import Cases
from swapglow.core.network.regimes import let_through, regulated
from swapglow.core.network.solve import point_of
from swapglow.core.network.sources import sine
from swapglow.core.supplies.waveform import Waveform


def steady_circuit(position: Position, cases: Cases, state: State = "on", *, stacked: bool = False) -> Circuit:
    """One case in a state, its filaments as the resistors they are there.

    Args:
        position: the swap on a steady supply.
        cases: one case.
        state: what the driver does.
        stacked: whether a string is one junction.

    Returns:
        The circuit, each LED of a string for itself unless ``stacked``.

    Raises:
        NotConverged: it has no answer.
    """
    point = point_of(position, cases, state)
    # By the law, not by volts over amps: where nothing flows that is nothing over nothing, and the filament is cold.
    ohms = {name: law(np.abs(point.across(name))) for name, law in laws_of(position).items()}
    plain: dict[str, Param] = {name: float(v[0]) for name, v in ohms.items()}
    kept = regulated(position, cases, state, plain)
    if isinstance(kept.kept, np.ndarray):
        kept = replace(kept, kept=float(kept.kept[0]))
    return build(position, kept, state=state, filaments=plain, stacked=stacked).circuit


def fitted_circuit(
    position: Position, ohms: float, farads: float = 0.0, state: State = "on", *, stacked: bool = False
) -> Circuit:
    """The position at its usual rail with typical LEDs, as a circuit.

    Args:
        position: the swap.
        ohms: total series resistance.
        farads: the reservoir, where there is one.
        state: what the driver does; on a supply that alternates it is on.
        stacked: whether a string is one junction on a steady supply too.

    Returns:
        The circuit; over a cycle a string is one junction.

    Raises:
        NotConverged: it has no answer.
        CannotBuild: a part of it is not built on its waveform.
    """
    position = with_strings(position)
    supply = position.rail.supply
    cases = Cases(position.rail.volts[1], position.led.vf_typ, ohms, position.drop_v)
    if not supply.alternates:
        return steady_circuit(position, cases, state, stacked=stacked)
    peak = position.rail.peaks[1] - position.drop_v
    is_sine = supply.waveform is Waveform.SINE
    wave = sine(peak, supply.hertz[1], folded=False) if is_sine else Dc(peak)
    let = let_through(position, cases)
    one = None if let is None else float(np.asarray(let).flat[0])
    at_rest = filaments_at_rest(position, ac_cases(position, cases), farads)
    return build(
        position, replace(cases, let=one), wave=wave, stacked=True, farads=farads, filaments=dict(at_rest)
    ).circuit


def spice_text(position: Position, ohms: float, farads: float = 0.0, state: State = "on") -> str:
    """The position at its usual rail with typical LEDs, as SPICE text.

    Args:
        position: the swap.
        ohms: total series resistance.
        farads: the reservoir, where there is one.
        state: what the driver does; on a supply that alternates it is on.

    Returns:
        The deck.

    Raises:
        NotConverged: it has no answer.
        CannotBuild: a part of it is not built on its waveform.
    """
    supply = position.rail.supply
    circuit = fitted_circuit(position, ohms, farads, state)
    if not supply.alternates:
        return write_deck(circuit)
    analyses: tuple[str, ...] = (".op",)
    if supply.waveform is Waveform.SINE:
        cycle = 1 / supply.hertz[1]
        analyses = (f".tran {cycle / 200:.6g} {20 * cycle:.6g}",)
    return write_deck(circuit, analyses)
