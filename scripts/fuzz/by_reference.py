"""A lamp's circuit solved by the reference simulator, every diode of a bridge drawn, for what brackets do not know.

The netlist is the builder's, so that this holds the solvers, the folding of bridges and the regimes; the brackets hold
the builder.
"""

from dataclasses import replace

import numpy as np

from scripts import reference
from scripts.fuzz.rebuild import NotHere
from swapglow.core.analysis.ac_cycle import filaments_at_rest
from swapglow.core.analysis.solution import Solution, ac_cases
from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import Circuit, Dc, VoltageSource
from swapglow.core.engine.spice import write_deck
from swapglow.core.network.builder import build, laws_of
from swapglow.core.network.cases import Cases
from swapglow.core.network.regimes import let_through, regulated
from swapglow.core.network.solve import point_of
from swapglow.core.network.sources import sine
from swapglow.core.supplies.waveform import Waveform

# So many cycles are run, then more, until what one gives is what the last gave within this share.
_CYCLES, _SAME = (6, 60, 200, 600), 2e-3
_STEPS = 400


def string_amps(s: Solution) -> float:
    """Forward current of one string at the usual rail with the typical LED, A; over a cycle its average.

    Raises:
        NotHere: it takes longer to settle than is waited for, or the simulator has no answer.
    """
    p = s.position
    try:
        found = _over_a_cycle(s) if p.rail.supply.alternates else _at_rest(s)
    except (RuntimeError, KeyError) as why:
        raise NotHere("no answer by the reference") from why
    return found / p.branches


def _metered(circuit: Circuit) -> Circuit:
    """The circuit with a meter of 0 V behind its LEDs."""
    led = circuit.element("D1")
    parts = [replace(e, cathode="meter") if e.name == "D1" else e for e in circuit.elements]  # type: ignore[call-arg]
    return replace(circuit, elements=(*parts, VoltageSource("vmeter", "meter", led.cathode, Dc(0.0))))  # type: ignore[union-attr]


def _at_rest(s: Solution) -> float:
    p = s.position
    cases = Cases(p.rail.volts[1], p.led.vf_typ, s.sizing.total_ohm, p.drop_v)
    point = point_of(p, cases)
    ohms = {n: float(law(np.abs(point.across(n)))[0]) for n, law in laws_of(p).items()}
    kept = regulated(p, cases, "on", ohms)
    if isinstance(kept.kept, np.ndarray):
        kept = replace(kept, kept=float(kept.kept[0]))
    deck = write_deck(_metered(build(p, kept, stacked=True, filaments=ohms).circuit), ())
    return reference.operating_points([deck.lower()])[0]["i(vmeter)"]


def _over_a_cycle(s: Solution) -> float:
    p, farads = s.position, s.sizing.farads
    if p.rail.supply.waveform is not Waveform.SINE:
        raise NotHere("no sine")
    period = 1 / p.rail.supply.hertz[1]
    cases = Cases(p.rail.volts[1], p.led.vf_typ, s.sizing.total_ohm)
    crest = p.rail.peaks[1] - p.drop_v
    let = let_through(p, cases)
    at = replace(cases, rail=crest, let=None if let is None else float(np.asarray(let).flat[0]))
    made = build(
        p,
        at,
        wave=sine(crest, 1 / period, folded=False),
        stacked=True,
        farads=farads,
        filaments=filaments_at_rest(p, ac_cases(p, cases), farads),
    ).circuit
    found = [_average(made, n, period) for n in _CYCLES[:1]]
    for n in _CYCLES[1:] if farads else ():
        found.append(_average(made, n, period))
        if abs(found[-1] - found[-2]) <= _SAME * abs(found[-1]):
            return found[-1]
    if farads:
        raise NotHere("slow to settle")
    return found[-1]


def _average(made: Circuit, cycles: int, period: float) -> float:
    """What the meter's current comes to over the last of so many cycles, A."""
    end, step = cycles * period, period / _STEPS
    deck = write_deck(_metered(made), (f".tran {step} {end} {end - 2 * period} {step}",))
    return reference.averages(deck.lower(), ["vmeter#branch"], end - period, end)["vmeter#branch"]


def known(position: Position) -> bool:
    """Whether this is worth asking: constant power is reckoned at volts that a netlist does not know."""
    return position.module is None or position.module.law != "power"
