"""What a candidate comes to: currents at corners and by chance, heat, light, off light, parts."""

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.cycle_figures import flicker_hertz, modulation
from swapglow.core.analysis.limits import DIM_AMPS, dim_amps, trip_amps
from swapglow.core.analysis.load_resistor import watch
from swapglow.core.analysis.original_lamp import lamp_candela
from swapglow.core.analysis.shared_feed import neighbours
from swapglow.core.analysis.solution import Solution, solve
from swapglow.core.analysis.states import StateSolution, state_solutions
from swapglow.core.design.position import Position
from swapglow.core.engine.monte_carlo import Triangular, Uniform
from swapglow.core.engine.operating_point import NotConverged
from swapglow.core.network.builder import CannotBuild
from swapglow.core.network.cases import Cases
from swapglow.core.network.solve import point_of, string_amps
from swapglow.core.photometry.flicker import flicker_limit
from swapglow.core.photometry.intensity import led_candela
from swapglow.core.photometry.visibility import Visibility, visibility

FloatArray = NDArray[np.float64]

SAMPLES = 256
SEED = 7
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
        stops: why it will not do, in short.
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


@lru_cache(maxsize=1024)
def evaluate(position: Position) -> Evaluation | None:
    """A candidate's figures; None where it has no answer."""
    p = position
    try:
        s = solve(p, rule=False)
        states = state_solutions(s)
        low, high, inside = (
            _chance(s) if s.ac is None else (s.string_current_min, s.string_current_max, _between_ends(s))
        )
    except (NotConverged, CannotBuild):
        return None
    old = lamp_candela(p)
    usual = float(s.usual[1])
    ratio = led_candela(p, usual) / old if old else None
    off = next((t for t in states if t.state == "off"), None)
    shows = visibility(led_candela(p, off.string_current_max)) if off is not None else "dark"
    return Evaluation(
        usual, low, high, s.string_current_min, s.string_current_max, inside, _heat(s, states), ratio,
        p.points_of_light, shows, _parts(p), _flicker(s), _stops(s, states, shows),
    )  # fmt: skip


def _chance(s: Solution) -> tuple[float, float, float]:
    """Percentiles of the string's current, and the share inside its limits.

    Rail and forward voltage are most often the usual one and never outside their ends; resistor and
    driver's drop lie anywhere in their tolerance.
    """
    p, rng = s.position, np.random.default_rng(SEED)
    tol, total = p.ohm_spread, s.sizing.total_ohm
    rail = Triangular(*p.rail.volts).draw(rng, SAMPLES)
    vf = Triangular(p.led.vf_low, p.led.vf_typ, p.led.vf_high).draw(rng, SAMPLES)
    ohms = Uniform(total * (1 - tol), total * (1 + tol)).draw(rng, SAMPLES)
    drop = Uniform(p.drops[0], p.drops[2]).draw(rng, SAMPLES)
    amps = string_amps(p, point_of(p, Cases(rail, vf, ohms, drop if p.drops[2] else 0.0)))
    low, high = np.percentile(amps, [5, 95])
    return float(low), float(high), float(((amps >= _dim(s)) & (amps <= _limit(p))).mean())


def _between_ends(s: Solution) -> float:
    """Share of the solved corners inside the limits, where each is a whole cycle."""
    amps = s.amps[:, :, 1].ravel()
    return float(((amps >= _dim(s)) & (amps <= _limit(s.position))).mean())


def _dim(s: Solution) -> float:
    return min(dim_amps(s.position), DIM_AMPS) if s.position.module is None else 0.0


def _limit(p: Position) -> float:
    most = p.led.rated_a if p.module is not None else p.ceiling_a
    return min(most, trip_amps(p))


def _heat(s: Solution, states: tuple[StateSolution, ...]) -> float:
    """Watts in all parts but the LEDs at the highest rail, typical LED (P = V·I)."""
    p = s.position
    if s.ac is not None or not states:
        return s.power_w * s.sizing.parts
    on = states[0]
    led = float(on.point.across("D1")[on.typical[2]])
    lamp = float(on.lamp_v[2] * (on.amps[2] * p.branches))
    shunt = 0.0
    if p.shunt_ohm is not None:
        shunt = float(on.point.across("Rshunt")[on.typical[2]] ** 2 / p.shunt_ohm)
        if p.shunt_across == "leds":
            lamp += float(on.lamp_v[2] * on.point.current("Rshunt")[on.typical[2]])
            return max(0.0, lamp - led * float(on.amps[2] * p.branches))
    return max(0.0, lamp - led * float(on.amps[2] * p.branches)) + shunt


def _flicker(s: Solution) -> float | None:
    if s.ac is None:
        return None
    rates = flicker_hertz(s)
    over = [m / flicker_limit(f) for m, f in zip(modulation(s.ac), rates, strict=True) if f]
    return max(over) if over else None


def _parts(p: Position) -> int:
    if p.module is not None:
        return 1 + (p.shunt_ohm is not None)
    # Four diodes of a bridge come as one part.
    rectifier = p.rectification.parts if p.rail.supply.alternates else 0
    regulator = 0 if not p.regulator_id else (1 if p.set_by_ohms else 3)
    count = p.in_series * p.strings_by_turns + p.resistor_parts
    return p.branches * count + p.series_diodes + (p.shunt_ohm is not None) + rectifier + regulator


def _stops(s: Solution, states: tuple[StateSolution, ...], off: Visibility) -> tuple[str, ...]:
    """What would forbid it."""
    p, out = s.position, []
    slack = 1 + 1e-9
    if p.module is None and s.string_current_max > p.led.rated_a * slack:
        out.append("over the LED's rated current")
    if s.string_current_min < min(50e-6, p.target.value / 10):
        out.append("dark at the lowest rail")
    if s.string_current_max > trip_amps(p) * slack:
        out.append("the line may read as closed")
    if off == "lit_room":
        out.append("glows when off")
    if states:
        w = watch(p, states[0])
        if w is not None and w.missing > 0:
            out.append(p.driver.kind.misses)
        out += _circuit_stops(s, states)
    return tuple(out)


def _circuit_stops(s: Solution, states: tuple[StateSolution, ...]) -> list[str]:
    p, out = s.position, []
    if p.driver.remaining_lamps:
        out.append("the other lamps stay dark")
    if any(n.load.most_v and n.highest_v > n.load.most_v and n.moved for n in neighbours(p, states)):
        out.append("a neighbour gets too many volts")
    r = p.regulator
    if r is not None and r.kind == "source":
        burnt = (
            float(states[0].point.across("Vkept")[states[0].typical[2]]) * s.string_current_max * p.branches
        )
        if burnt * r.heat_k_w + p.celsius > 125:
            out.append("the regulator overheats")
    return out


def plainly(position: Position) -> Position:
    """The position by what its figures depend on, so that they are found again."""
    return replace(position, rating_w=None, shunt_w=None, capacitor_v=None)
