"""Current that a flasher or lamp watch misses, and the load resistor that gives it back."""

from dataclasses import dataclass

from swapglow.core.analysis.original_lamp import original_volts
from swapglow.core.analysis.states import StateSolution
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
# Above this a surface burns skin at a touch (common practice); plastic softens from here too.
HOT_C = 60.0


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
    own = on.amps * p.branches
    sees = on.supply_amps - own * (1 - throttled) + d.rest_a
    needs = _needs(p, on)
    if needs is None:
        return None
    # The unluckiest LEDs at the lowest rail draw least.
    unlucky = max(0.0, float(own[0]) - on.string_current_min * p.branches) * throttled
    return Watch(needs, float(sees[1]), float(sees[0]) - unlucky)


def _needs(p: Position, on: StateSolution) -> Figure | None:
    """The current under which it takes the lamp for failed: as it was tried, as read, or the old lamp's."""
    d = p.driver
    here = f"it keeps its rate with {show(float(on.supply_amps[1]) + d.rest_a, AMPERE)}"
    if d.still_fast == "no":
        return Figure(float(on.supply_amps[1]) + d.rest_a, Source.MEASURED, here)
    right = None if d.right_ohm is None else _tried(p, on, d.right_ohm, "it flashes right with")
    fast = None if d.fast_ohm is None else _tried(p, on, d.fast_ohm, "it is still fast with")
    if right is not None and (d.trip is None or d.trip.source.is_assumed or d.trip.value > right.value):
        return right
    if d.trip is not None:
        return d.trip if fast is None or d.trip.value > fast.value else fast
    if p.lamp is None:
        return fast
    amps = p.lamp.amps_at(original_volts(p)) + d.rest_a
    assumed = Figure(amps, Source.ASSUMED, f"the old lamp's own {show(amps, AMPERE)}")
    return assumed if fast is None or amps > fast.value else fast


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
