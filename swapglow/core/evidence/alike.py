"""What lamps of one item teach each other: the forward voltage of their LEDs, and what the circuit that watches wants.

LEDs of one kind on an item are taken for one lot, and lamps on one rail for one watching circuit (ours). What was read
on the lamp itself always counts before that.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from swapglow.core.analysis.load_resistor import Watch, watch
from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.solution import solve
from swapglow.core.analysis.states import state_solutions
from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.evidence.hypotheses import lot_v
from swapglow.core.quantities import Figure, Source

# LEDs of one lot differ by this share of what lots differ by: one sigma (ours; bins are 0.1 V and more wide).
PART_OF_LOT = 1 / 3
# The ends of a range stand so many sigmas from its middle.
_ENDS = 2.0


@dataclass(frozen=True)
class Neighbour:
    """Another lamp of the item.

    Attributes:
        name: as it is called.
        position: with what its own readings say.
        same_rail: whether it is fed by the same rail.
    """

    name: str
    position: Position
    same_rail: bool


def taught(position: Position, others: Sequence[Neighbour]) -> Position:
    """A lamp with what others of its item say of it.

    Args:
        position: the swap, with what its own readings say.
        others: the item's other lamps.

    Returns:
        The same lamp. Its LEDs' range is that of their lot where others of it were read and its own were not; its
        driver knows what was seen to be enough, and too little, with others on its rail. A resistor stays as it is.
    """
    return _of_one_circuit(_of_one_lot(position, others), others)


def _of_one_lot(p: Position, others: Iterable[Neighbour]) -> Position:
    """The LED's range from those of its lot: their mean, and what is left of lot and part (normal, conjugate)."""
    if p.module is not None or p.led_source is not Source.ASSUMED or p.led.vf_low == p.led.vf_high:
        return p
    lot = [o for o in others if o.position.led.id == p.led.id and _was_read(o.position)]
    if not lot:
        return p
    lots = lot_v(p)
    part = PART_OF_LOT * lots
    weighed, weight = p.led.vf_typ / lots**2, 1 / lots**2
    for o in lot:
        led = o.position.led
        known = 1 / (((led.vf_high - led.vf_low) / 2 / _ENDS) ** 2 + part**2)
        weighed, weight = weighed + known * led.vf_typ, weight + known
    middle, reach = weighed / weight, _ENDS * math.sqrt(1 / weight + part**2)
    if 2 * reach >= p.led.vf_high - p.led.vf_low:
        return p
    follows = p.resistor_ohm is None and not p.bare
    return replace(
        p,
        led=replace(p.led, vf_low=middle - reach, vf_typ=middle, vf_high=middle + reach),
        led_source=Source.COMPUTED,
        led_read_on=tuple(o.name for o in lot),
        # Sized for the LED as its data sheet has it, and perhaps fitted: it stays.
        resistor_ohm=size(p).each_ohm if follows else p.resistor_ohm,
        follows=p.follows or follows,
    )


def _was_read(p: Position) -> bool:
    return p.module is None and p.led_source is Source.MEASURED


def _of_one_circuit(p: Position, others: Iterable[Neighbour]) -> Position:
    """The driver with what was seen of it on the other lamps of the rail."""
    own = p.driver.trip
    if not p.driver.watches or (own is not None and not own.source.is_assumed):
        return p
    alike = [o for o in others if o.same_rail and o.position.driver.kind is p.driver.kind]
    seen = [(o.name, w) for o in alike if (w := _watched(o.position)) is not None]
    exact = next(((w.needs, name) for name, w in seen if w.exact), None)
    if exact is not None:
        # Read, it is the current itself and no bound.
        return replace(p, driver=replace(p.driver, trip=_seen(exact)))
    enough = [(w.needs, name) for name, w in seen if not w.needs.source.is_assumed]
    short = [(w.fails, name) for name, w in seen if w.fails is not None]
    if not (enough or short):
        return p
    driver = replace(
        p.driver,
        seen_enough=_seen(min(enough, key=lambda f: f[0].value, default=None)),
        seen_short=_seen(max(short, key=lambda f: f[0].value, default=None)),
    )
    return replace(p, driver=driver)


def _seen(found: tuple[Figure, str] | None) -> Figure | None:
    if found is None:
        return None
    figure, name = found
    return Figure(figure.value, Source.COMPUTED, f"seen on {name}")


@lru_cache(maxsize=256)
def _watched(p: Position) -> Watch | None:
    """What was seen of the circuit that watches a lamp; None where it has no answer, or nothing is known."""
    if not p.driver.watches:
        return None
    try:
        states = state_solutions(solve(p, rule=False))
    except CircuitError:
        return None
    return watch(p, states[0]) if states else None
