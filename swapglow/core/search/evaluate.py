"""What a candidate comes to: currents at corners and by chance, heat, light, off light, parts."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.cycle_figures import flicker_hertz, modulation
from swapglow.core.analysis.limits import DIM_AMPS, dim_amps, trip_amps
from swapglow.core.analysis.original_lamp import lamp_candela
from swapglow.core.analysis.solution import Solution, solve
from swapglow.core.analysis.states import StateSolution, state_solutions
from swapglow.core.design.position import Position
from swapglow.core.engine.monte_carlo import Triangular, Uniform, even_draws
from swapglow.core.engine.netlist import CircuitError, CurrentSource, Dc, Resistor, VoltageSource
from swapglow.core.findings import context_of, judge
from swapglow.core.network.cases import Cases
from swapglow.core.network.solve import point_of, string_amps
from swapglow.core.photometry.flicker import flicker_limit
from swapglow.core.photometry.intensity import led_candela
from swapglow.core.photometry.visibility import Visibility, visibility
from swapglow.core.quantities import InputError

FloatArray = NDArray[np.float64]

SAMPLES = 2048
SEED = 7
# Findings on what was read and typed, which no swap changes.
OF_THE_RAIL = frozenset({"nothing-measured", "rail-swing-unknown", "driver-unknown", "trip-unknown"})
# A resistor's usual body, which anything warmer outgrows (common practice: half of a quarter watt).
WARM_W = 0.125


@dataclass(frozen=True)
class Evaluation:
    """A candidate's figures.

    Attributes:
        current_usual, current_low, current_high: string current typical, and the 5th and 95th percentile by chance;
            for a supply that alternates the ends of its corners.
        string_current_min, string_current_max: the ends of all corners.
        inside: share of the samples between too dim and the drive limit.
        heat_w: in all parts but the LEDs, highest rail.
        ratio: light beside the old lamp, None where it is not known.
        points: LEDs that give light.
        off: where it is seen when off.
        parts: what is soldered in, LEDs included.
        flicker: modulation over the low-risk limit at the worst level; None where nothing flickers.
        stops: the findings that forbid it, by their messages.
        minds: those that count against it.
    """

    current_usual: float
    current_low: float
    current_high: float
    string_current_min: float
    string_current_max: float
    inside: float
    heat_w: float
    ratio: float | None
    points: int
    off: Visibility
    parts: int
    flicker: float | None
    stops: tuple[str, ...]
    minds: tuple[str, ...]


@lru_cache(maxsize=1024)
def evaluate(position: Position) -> Evaluation | None:
    """A candidate's figures; None where it has no answer."""
    p = position
    try:
        s = solve(p, rule=False)
        states = state_solutions(s)
        found = judge(context_of(s, states, bare=True))
        low, high, inside = (
            _chance(s) if s.ac is None else (s.string_current_min, s.string_current_max, _between_ends(s))
        )
    except (CircuitError, InputError):
        return None
    old = lamp_candela(p)
    usual = float(s.usual[1])
    ratio = led_candela(p, usual) / old if old else None
    off = next((t for t in states if t.state == "off"), None)
    shows = visibility(led_candela(p, off.string_current_max)) if off is not None else "dark"
    return Evaluation(
        usual,
        low,
        high,
        s.string_current_min,
        s.string_current_max,
        inside,
        _heat(s, states),
        ratio,
        p.points_of_light,
        shows,
        _parts(p),
        _flicker(s),
        tuple(f.message for f in found if f.grade == "stop"),
        tuple(f.message for f in found if f.grade == "mind" and f.id not in OF_THE_RAIL),
    )


def _chance(s: Solution) -> tuple[float, float, float]:
    """Percentiles of the string's current, and the share inside its limits.

    Rail and forward voltage are most often the usual one and never outside their ends; resistor and
    driver's drop lie anywhere in their tolerance. LEDs of one batch are alike; else each of a string is
    drawn for itself, and the string has their mean.
    """
    p = s.position
    tol, total = p.ohm_spread, s.sizing.total_ohm
    each = 1 if p.one_batch or p.module is not None else p.in_series
    drawn = _draws(3 + each)
    rail = Triangular(*p.rail.volts).at(drawn[0])
    ohms = Uniform(total * (1 - tol), total * (1 + tol)).at(drawn[1])
    drop = Uniform(p.drops[0], p.drops[2]).at(drawn[2])
    vf = Triangular(p.led.vf_low, p.led.vf_typ, p.led.vf_high).at(drawn[3:]).mean(axis=0)
    held = None if not p.held_v[1] else Uniform(p.held_v[0], p.held_v[2]).at(drawn[1])
    amps = string_amps(p, point_of(p, Cases(rail, vf, ohms, drop if p.drops[2] else 0.0, held=held)))
    low, high = np.percentile(amps, [5, 95])
    return float(low), float(high), float(((amps >= _dim(s)) & (amps <= _limit(p))).mean())


@lru_cache(maxsize=16)
def _draws(dimensions: int) -> FloatArray:
    return even_draws(dimensions, SAMPLES, SEED)


def _between_ends(s: Solution) -> float:
    """Share of the solved corners inside the limits, where each is a whole cycle."""
    amps = s.amps[:, :, 1].ravel()
    return float(((amps >= _dim(s)) & (amps <= _limit(s.position))).mean())


def _dim(s: Solution) -> float:
    return min(dim_amps(s.position), DIM_AMPS) if s.position.module is None else 0.0


def _limit(p: Position) -> float:
    most = p.rated_a if p.module is not None else p.ceiling_a
    return min(most, trip_amps(p))


def _heat(s: Solution, states: tuple[StateSolution, ...]) -> float:
    """Watts in all parts but the LEDs at the highest rail, typical LED: I²R and V·I of each part's own.

    Where the supply alternates, of resistor, regulator, shunt and the resistance behind the supply, at their most.
    """
    if s.ac is not None or not states:
        resistors = 0.0 if s.position.set_by_ohms else s.power_w * s.sizing.parts * s.position.branches
        regulator = 0.0 if s.ac is None or s.ac.regulator is None else float(s.ac.regulator.watts.max())
        return resistors + s.shunt_w + s.source_w + regulator
    on = states[0]
    at = int(on.typical[2])
    total = 0.0
    for e in on.point.circuit.elements:
        if e.name.startswith(_COLD):
            continue
        if isinstance(e, Resistor | VoltageSource):
            total += abs(float(on.point.across(e.name)[at]) * float(on.point.current(e.name)[at]))
        elif isinstance(e, CurrentSource):
            total += abs(float(on.point.across(e.name)[at])) * _own_amps(e)
    return total


# What is no part of the swap: the feed itself, filaments and loads beside it.
_COLD = ("Vrail", "Rleft", "Rload")


def _own_amps(source: CurrentSource) -> float:
    """What a regulator takes for itself, A."""
    return float(np.asarray(source.wave.level).flat[0]) if isinstance(source.wave, Dc) else 0.0


def _flicker(s: Solution) -> float | None:
    if s.ac is None:
        return None
    rates = flicker_hertz(s)
    over = [m / flicker_limit(f) for m, f in zip(modulation(s, s.ac), rates, strict=True) if f]
    return max(over) if over else None


def _parts(p: Position) -> int:
    if p.module is not None:
        return 1 + (p.shunt_ohm is not None)
    # Four diodes of a bridge come as one part.
    rectifier = p.rectification.parts if p.rail.supply.alternates else 0
    regulator = 0 if not p.regulator_id else (1 if p.set_by_ohms else 3)
    count = p.in_series * p.strings_by_turns + p.resistor_parts
    return p.branches * count + p.series_diodes + (p.shunt_ohm is not None) + rectifier + regulator
