"""Current that a flasher or lamp watch misses, and the load resistor that gives it back."""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

from swapglow.core.analysis.fitted import as_it_stood, fitted_in, since_changed
from swapglow.core.analysis.original_lamp import original_volts
from swapglow.core.analysis.solution import solve
from swapglow.core.analysis.states import StateSolution, state_solutions
from swapglow.core.design.position import Position
from swapglow.core.drivers.driver import Place
from swapglow.core.quantities import AMPERE, OHM, Figure, Source, show
from swapglow.core.values import preferred

# Clad power resistors by rating, W, and the kelvin a watt by where they sit (from memory of data
# sheets; the figure for free air stands for plastic and for a place not settled), and what one watt
# there adds to the air that its neighbours sit in (ours).
CLAD_W = (5.0, 10.0, 25.0, 50.0, 100.0)
SPACE_K_W = {"metal": 0.5, "closed": 4.0, "plastic": 4.0, "unknown": 2.0}
KELVIN_PER_WATT = {"metal": 4.0, "closed": 8.0, "plastic": 12.0, "unknown": 12.0}
# Kept to half its rating while lit (common practice).
_SHARE = 0.5
# Without metal under it a clad part takes what it does in free air (ours: a fifth of its rating).
_FREE_SHARE = 0.2
# Two currents that are the same (rounding), and where nobody tried it the share of the old lamp's that is surely too
# little (common practice: a counter trips at a half of its lamps or above).
_SAME, _SURELY_SHORT = 1e-6, 0.5
# Where only too little was tried, the next larger step of E12.
_A_STEP = 1.2
# Above this a surface burns skin at a touch (common practice); plastic softens from here too.
HOT_C = 60.0


@dataclass(frozen=True)
class Watch:
    """What a circuit that counts current sees, and between which two currents it begins to take a lamp for failed.

    A trial proves one side: with what it kept time it needs no more, with what it was still fast it needs more.

    Attributes:
        needs: with so much it is content: the least that was seen to do, the current read, or the old lamp's.
        fails: so little was seen to be too little; None where nobody tried.
        exact: whether ``needs`` is the current itself at which it turns, as read.
        sees: what all lamps and loads on it draw, usual rail, A; ``at_least`` at the lowest rail.
    """

    needs: Figure
    fails: Figure | None
    sees: float
    at_least: float
    exact: bool = False

    @property
    def missing(self) -> float:
        """Current still missing until it is content for certain, A."""
        gap = self.needs.value - self.sees
        return gap if gap > _SAME * self.needs.value else 0.0

    @property
    def too_little(self) -> bool:
        """Whether it is known to take the lamp for failed; else it may, or is content."""
        if self.missing <= 0:
            return False
        # Read, it is a figure; a trial or the old lamp's own current only proves that so much is enough.
        return self.exact or self.sees <= self.least * (1 + _SAME)

    @property
    def least(self) -> float:
        """So little is surely too little, A."""
        return self.fails.value if self.fails is not None else _SURELY_SHORT * self.needs.value

    @property
    def try_next(self) -> float:
        """The current to try next, A: it halves, in logarithms, what is not known."""
        return math.sqrt(self.least * self.needs.value)


def watch(position: Position, on: StateSolution, throttled: float = 1.0) -> Watch | None:
    """What the watching circuit sees.

    Args:
        position: the swap.
        on: its lit state, solved.
        throttled: share of its current that a warm ready-made lamp has left.

    Returns:
        What it wants and sees; None where nothing watches, or what it wants is not known.
    """
    p, d = position, position.driver
    if not d.watches:
        return None
    own = on.amps * p.branches
    sees = on.supply_amps - own * (1 - throttled) + d.rest_a
    enough, short = _enough(p, on), _short(p, on)
    if enough is None and short is None:
        return None
    if enough is None and short is not None:
        enough = replace(short, value=short.value * _A_STEP, source=Source.ASSUMED)
    assert enough is not None
    # The unluckiest LEDs at the lowest rail draw least.
    unlucky = max(0.0, float(own[0]) - on.string_current_min * p.branches) * throttled
    exact = d.trip is not None and not d.trip.source.is_assumed and enough is d.trip
    return Watch(enough, short, float(sees[1]), float(sees[0]) - unlucky, exact)


def _enough(p: Position, on: StateSolution) -> Figure | None:
    """The least current that is known to be enough: as it was tried, as read, or the old lamp's."""
    d = p.driver
    known: list[Figure] = []
    kept_rate = _as_it_was(p, on) if d.still_fast == "no" else None
    if kept_rate is not None:
        known.append(Figure(kept_rate, Source.MEASURED, f"it keeps its rate with {show(kept_rate, AMPERE)}"))
    if d.seen_enough is not None:
        known.append(d.seen_enough)
    if d.right_ohm is not None:
        known.append(_tried(p, on, d.right_ohm, "it flashes right with"))
    if d.trip is not None and not d.trip.source.is_assumed:
        known.append(d.trip)
    if not known and d.trip is not None:
        known.append(d.trip)
    if not known and p.lamp is not None:
        amps = p.lamp.amps_at(original_volts(p)) + d.rest_a
        known.append(Figure(amps, Source.ASSUMED, f"the old lamp's own {show(amps, AMPERE)}"))
    short = _short(p, on)
    # What was seen to be too little is not enough, whatever was taken for it.
    kept = [k for k in known if short is None or k.value > short.value or k.source is not Source.ASSUMED]
    return min(kept, key=lambda f: f.value, default=None)


def _short(p: Position, on: StateSolution) -> Figure | None:
    """The most current that was seen to be too little."""
    d = p.driver
    known = [] if d.seen_short is None else [d.seen_short]
    if d.fast_ohm is not None:
        known.append(_tried(p, on, d.fast_ohm, "it is still fast with"))
    return max(known, key=lambda f: f.value, default=None)


def _as_it_was(p: Position, on: StateSolution) -> float | None:
    """What all drew when it was seen to keep its rate, usual rail, A; None where that is not known.

    That it is still fast proves nothing of the current: it may stand the wrong way round, or the controller remembers.
    """
    then = p.driver.tried_with
    if not since_changed(then, fitted_in(p)):
        return float(on.supply_amps[1]) + p.driver.rest_a
    stood = as_it_stood(p, then)
    drew = None if stood is None else _drew(stood)
    return None if drew is None else drew + p.driver.rest_a


@lru_cache(maxsize=128)
def _drew(position: Position) -> float | None:
    """What a lamp's circuit takes while it is lit, usual rail, A."""
    states = state_solutions(solve(position, rule=False))
    return float(states[0].supply_amps[1]) if states else None


def _tried(p: Position, on: StateSolution, ohm: float, what: str) -> Figure:
    """What the circuit saw with the LEDs and a load of so many ohms, usual rail (Ohm)."""
    volts = float(on.lamp_v[1])
    led = float(on.supply_amps[1])
    if p.shunt_ohm is not None and p.shunt_across == "assembly":
        led -= volts / p.shunt_ohm
    amps = led + volts / ohm + p.driver.rest_a
    return Figure(amps, Source.MEASURED, f"{what} {show(ohm, OHM)}: {show(amps, AMPERE)}")


@dataclass(frozen=True)
class LoadResistor:
    """A load resistor: R ≤ V/(Itrip − ILED), P = V²/R × duty (Ohm).

    Attributes:
        ohm: the next E12 value down.
        lit_w, average_w: its heat while lit and over the flash, highest rail.
        rating_w: the clad part to fit, None where there is none.
        surface_c: its surface where it would sit: its own rise, and the air's by all that sit there.
    """

    ohm: float
    lit_w: float
    average_w: float
    rating_w: float | None
    surface_c: float


def load_of(position: Position, ohm: float) -> LoadResistor:
    """What a load resistor comes to on this position.

    Args:
        position: the swap.
        ohm: its resistance, Ω.

    Returns:
        Its heat, rating and surface.
    """
    p, d = position, position.driver
    volts = p.rail.volts[2] - p.drops[0]
    lit = volts**2 / ohm
    average = lit * d.duty
    # The space's air is warmed by all that sit there, a part's own surface above it by its own heat alone.
    surface = p.celsius + average * (KELVIN_PER_WATT[d.place] + (d.there - 1) * SPACE_K_W[d.place])
    return LoadResistor(ohm, lit, average, load_rating(lit, d.place), surface)


def load_rating(watts: float, place: Place) -> float | None:
    """The clad part that takes a load's heat where it sits, at half of what it may.

    Args:
        watts: while lit, W.
        place: what it is fixed to.

    Returns:
        Its rating, W; None where there is none, as on plastic.
    """
    if place == "plastic":
        return None
    share = _SHARE * (1.0 if place in ("metal", "closed") else _FREE_SHARE)
    return next((w for w in CLAD_W if watts <= w * share), None)


def load_for(position: Position, w: Watch) -> LoadResistor | None:
    """The load resistor that satisfies the watch.

    A trip current that was read must be met at the lowest rail; one taken from the old lamp or from a trial fell with
    the rail as the resistor's does, and is met at the usual one.

    Args:
        position: the swap.
        w: what is missing.

    Returns:
        The next E12 value down; None where nothing is missing or no resistor will do.
    """
    p = position
    if w.missing <= 0:
        return None
    known = w.exact
    volts = p.rail.volts[0 if known else 1] - p.drops[2 if known else 1]
    seen = w.at_least if known else w.sees
    if volts <= 0 or w.needs.value <= seen:
        return None
    exact = volts / (w.needs.value - seen)
    if not 1e-2 <= exact <= 1e6:
        return None
    return load_of(p, preferred.prefer(exact, "E12", "down"))
