"""What a changed lamp does to everything else on its shared feed."""

from dataclasses import dataclass

from swapglow.core.analysis.original_lamp import original_cycle, original_point, original_volts
from swapglow.core.analysis.solution import AcSolution
from swapglow.core.analysis.states import StateSolution
from swapglow.core.design.position import Position
from swapglow.core.drivers.driver import State
from swapglow.core.drivers.load import Load
from swapglow.core.parts.lamp import LIGHT_EXPONENT
from swapglow.core.parts.resistor import rating_to_fit
from swapglow.core.values import preferred

# Less of a change is not worth a line.
CHANGED = 0.02
# A resistor larger than this holds nothing.
LARGEST_OHM = 1e6


@dataclass(frozen=True)
class Neighbour:
    """A part on the shared feed in a state.

    Attributes:
        before_v, after_v: its volts at the usual rail with the old lamp and with the LED; None before
            where the old lamp is not known.
        highest_v: its volts at the highest rail after the swap.
        amps: its current after, A.
        light: its light against before, for a filament.
    """

    load: Load
    state: State
    before_v: float | None
    after_v: float
    highest_v: float
    amps: float
    light: float | None

    @property
    def moved(self) -> bool:
        """Whether the swap changes its volts, or nobody knows what they were."""
        return self.before_v is None or abs(self.after_v / self.before_v - 1) > CHANGED


def neighbours(position: Position, states: tuple[StateSolution, ...]) -> tuple[Neighbour, ...]:
    """Every part behind the dropping resistor, in every state solved.

    Args:
        position: the swap.
        states: its states, solved.

    Returns:
        Each part in each state; none without a shared feed.
    """
    p = position
    if not p.driver.dropper_ohm:
        return ()
    out = []
    for t in states:
        found = original_point(p, t.state, p.rail.volts[1])
        before = None if found is None else float(found[1].voltage("behind")[0])
        shared = t.point.voltage("behind")[t.typical]
        for k, load in enumerate(p.driver.loads, 1):
            light = None
            if load.lamp is not None and before:
                # A filament lights either way round.
                light = abs(float(shared[1]) / before) ** LIGHT_EXPONENT
            out.append(Neighbour(load, t.state, before, float(shared[1]), float(shared[2]), _amps(load, k, t), light))
    return tuple(out)


def neighbours_on_ac(position: Position, ac: AcSolution) -> tuple[Neighbour, ...]:
    """Every part behind the dropping resistor where the supply alternates, with the lamp lit: all root mean squares.

    Args:
        position: the swap.
        ac: its cycles.

    Returns:
        Each part; none without a shared feed.
    """
    p, at = position, ac.typical
    if not p.driver.dropper_ohm:
        return ()
    old = original_cycle(p, p.rail.volts[1])
    before = None if old is None else old.shared_v
    usual, highest = float(at.shared_rms[1]), float(at.shared_rms[2])
    out = []
    for k, load in enumerate(p.driver.loads):
        light = (usual / before) ** LIGHT_EXPONENT if load.lamp is not None and before else None
        out.append(Neighbour(load, "on", before, usual, highest, float(at.loads_rms[1, k]), light))
    return tuple(out)


def bleeder(position: Position, led_a: float) -> tuple[float, float] | None:
    """A resistor across the LED that draws what the old lamp drew: R = V/(Ilamp − ILED) (Ohm).

    Args:
        position: the swap.
        led_a: what the LEDs draw, all branches, A.

    Returns:
        ohms and the rating to fit; None where nothing is missing or no leaded part will do.
    """
    p = position
    volts = original_volts(p)
    if p.lamp is None:
        return None
    missing = p.lamp.amps_at(volts) - led_a
    if missing <= volts / LARGEST_OHM:
        return None
    ohm = preferred.prefer(volts / missing, "E24", "nearest")
    most_v = volts * p.rail.volts[2] / p.rail.volts[1]
    rating = rating_to_fit(most_v**2 / ohm, most_v, p.celsius)
    return None if rating is None else (ohm, rating)


def _amps(load: Load, k: int, state: StateSolution) -> float:
    """What a load draws at the usual rail; a part that only stands there draws nothing."""
    only_stands = load.lamp is None and load.ohms is None and load.amps is None
    return 0.0 if only_stands else float(state.point.current(f"Rload{k}")[state.typical[1]])
