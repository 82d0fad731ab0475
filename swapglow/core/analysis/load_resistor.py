"""Current that a flasher or lamp watch misses, and the load resistor that gives it back."""

from dataclasses import dataclass

from swapglow.core.analysis.original_lamp import original_volts
from swapglow.core.analysis.states import StateSolution
from swapglow.core.design.position import Position
from swapglow.core.parts import preferred
from swapglow.core.quantities import AMPERE, Figure, Source, show

# Clad power resistors by rating, W, and the kelvin a watt by where they sit (from memory of data
# sheets; the figure for free air stands for plastic and for a place not settled).
CLAD_W = (5.0, 10.0, 25.0, 50.0, 100.0)
KELVIN_PER_WATT = {"metal": 4.0, "closed": 8.0, "plastic": 12.0, "unknown": 12.0}
# Kept to half its rating while lit (common practice).
_SHARE = 0.5
# Above this a surface burns skin at a touch (common practice); plastic softens from here too.
HOT_C = 60.0
AIR_C = 25.0


@dataclass(frozen=True)
class Watch:
    """What a circuit that counts current sees.

    Attributes:
        needs: current under which it takes the lamp for failed.
        sees: what all lamps and loads on it draw, usual rail, A; ``at_least`` at the lowest rail.
        missing: what must be drawn besides, A; 0 where it is content.
    """

    needs: Figure
    sees: float
    at_least: float

    @property
    def missing(self) -> float:
        """Current still missing, A."""
        return max(0.0, self.needs.value - self.sees)


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
    needs = d.trip
    if needs is None:
        if p.lamp is None:
            return None
        amps = p.lamp.amps_at(original_volts(p)) + d.rest_a
        needs = Figure(amps, Source.ASSUMED, f"the old lamp's own {show(amps, AMPERE)}")
    own = on.amps * p.branches
    sees = on.supply_amps - own * (1 - throttled) + d.rest_a
    return Watch(needs, float(sees[1]), float(sees[0]))


@dataclass(frozen=True)
class LoadResistor:
    """A load resistor: R ≤ V/(Itrip − ILED), P = V²/R × duty (Ohm).

    Attributes:
        ohm: the next E12 value down.
        lit_w, average_w: its heat while lit and over the flash, highest rail.
        rating_w: the clad part to fit, None where there is none.
        surface_c: its surface where it would sit, on the average heat of all that sit there.
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
    rating = next((w for w in CLAD_W if lit <= w * _SHARE), None)
    surface = AIR_C + average * d.there * KELVIN_PER_WATT[d.place]
    return LoadResistor(ohm, lit, average, rating, surface)


def load_for(position: Position, w: Watch) -> LoadResistor | None:
    """The load resistor that satisfies the watch.

    A trip current that is known must be met at the lowest rail; one taken from the old lamp fell with
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
    known = w.needs.source is not Source.ASSUMED
    volts = p.rail.volts[0 if known else 1] - p.drops[2 if known else 1]
    seen = w.at_least if known else w.sees
    if volts <= 0 or w.needs.value <= seen:
        return None
    exact = volts / (w.needs.value - seen)
    if not 1e-2 <= exact <= 1e6:
        return None
    return load_of(p, preferred.prefer(exact, "E12", "down"))
