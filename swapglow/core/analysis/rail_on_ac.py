"""All lamps of a rail that alternates, solved as the one circuit they are.

Behind a source resistance a lamp with a capacitor takes its current at the crest, another all along the
half-cycle: RMS currents do not add there, and no single figure of volts says what each is left. So the circuits
are joined behind the resistance and the cycle is solved whole.
"""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.ac_cycle import CLOCK_HZ, folded, levels, rms_over, settled_cycles
from swapglow.core.analysis.original_lamp import in_its_place
from swapglow.core.analysis.sizing import Sizing, size, with_strings
from swapglow.core.analysis.solution import ac_cases
from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import Circuit, CircuitError, Dc, Element, Param, Resistor, Wave
from swapglow.core.engine.operating_point import NotConverged, OperatingPoint, operating_point
from swapglow.core.engine.periodic import SteadyStates, steady_states
from swapglow.core.network.builder import CannotBuild, build, laws_of
from swapglow.core.network.cases import Cases
from swapglow.core.network.filaments import Law, Ohms, filament
from swapglow.core.network.parallel import parallel
from swapglow.core.network.regimes import let_through
from swapglow.core.network.sources import sine
from swapglow.core.quantities import Figure, Source
from swapglow.core.supplies.rail import Rail
from swapglow.core.supplies.waveform import Waveform

FloatArray = NDArray[np.float64]
When = Literal["before", "after"]

# So many lamps of different kinds are solved as one circuit; more would take too long to wait for.
MOST_KINDS = 8


@dataclass(frozen=True)
class RailCycle:
    """What a rail's cycle comes to with some lamps lit, at the low, usual and high level, (3,) each.

    Attributes:
        bus_rms: behind the source resistance, V.
        total_rms: what the supply gives, A.
        each_rms: what one lamp of each kind takes, A.
        led: forward current of one string in it, the average, A; of an old lamp nothing.
    """

    bus_rms: FloatArray
    total_rms: FloatArray
    each_rms: Mapping[Position, FloatArray]
    led: Mapping[Position, FloatArray]


def rail_cycle(rail: Rail, lit: Sequence[Position], when: When) -> RailCycle:
    """Lamps on one rail that alternates, solved together.

    Args:
        rail: the rail.
        lit: the swaps of the lamps that are lit.
        when: with the old lamps or with the swaps; of a position without an old lamp nothing is known before.

    Returns:
        What the cycle comes to.

    Raises:
        NotConverged: it has no answer.
        CannotBuild: it is not solved as one circuit; why is said.
    """
    counted = Counter(with_strings(p) for p in lit)
    if len(counted) > MOST_KINDS:
        raise CannotBuild("rail", f"{len(counted)} different lamps on it are more than {MOST_KINDS}")
    if len({p.celsius for p in counted}) > 1:
        raise CannotBuild("ambient", "the air around them is not the same for all")
    if any(p.drop_v for p in counted):
        raise CannotBuild("driver_drop", "a driver keeps volts of its own before one of them")
    return _solved(rail, tuple(counted.items()), when)


@lru_cache(maxsize=256)
def _solved(rail: Rail, counted: tuple[tuple[Position, int], ...], when: When) -> RailCycle:
    kinds = [_bare(p) if when == "after" else in_its_place(_bare(p)) for p, _ in counted]
    laws: dict[str, Law] = {}
    for k, (p, count) in enumerate(zip(kinds, (n for _, n in counted), strict=True)):
        own = laws_of(p)
        if when == "before":
            assert p.lamp is not None
            own["Rold"] = filament(p.lamp)
        # So many filaments side by side have so many times less ohms at the same volts.
        laws |= {f"{n}_{k}": _shared_out(law, count) for n, law in own.items()}
    # Each is sized on the rail as it is: its resistor and capacitor are those of the lamp by itself.
    sizes = [size(p) for p, _ in counted] if when == "after" else []
    made = _Rail(rail, tuple(zip(kinds, (n for _, n in counted), strict=True)), when, sizes)
    held = when == "after" and any(p.rectification.reservoir for p in kinds)
    try:
        point: OperatingPoint | SteadyStates
        if held:
            point = settled_cycles(laws, 3, made.cycles, made.rms_of)
        else:
            point = settled_cycles(laws, 3, made.instants, made.rms_of)
    except NotConverged:
        raise
    except CircuitError as too_large:
        raise CannotBuild("rail", "there are more different lamps on it than are solved as one circuit") from too_large
    bus = "bus" if "bus" in point.nodes else "feed"
    each, led = {}, {}
    for k, (p, count) in enumerate(counted):
        each[p] = made.rms(point, point.current(f"Vmeter{k}")) / count
        if when == "after":
            led[p] = made.mean(point, np.maximum(point.current(f"D1_{k}"), 0.0)) / (count * p.branches)
    return RailCycle(made.rms(point, point.voltage(bus)), made.rms(point, point.current("Vrail")), each, led)


def _shared_out(law: Law, count: int) -> Law:
    return lambda volts: law(volts) / count


def _bare(position: Position) -> Position:
    """The position on the node behind the rail's source resistance."""
    supply = replace(position.rail.supply, source_ohm=Figure(0.0, Source.COMPUTED))
    return replace(position, rail=replace(position.rail, supply=supply))


class _Rail:
    """A rail's circuit at its three levels."""

    def __init__(self, rail: Rail, kinds: tuple[tuple[Position, int], ...], when: When, sizes: list[Sizing]) -> None:
        self.rail, self.kinds, self.when, self.sizes = rail, kinds, when, sizes
        first = kinds[0][0]
        at = ac_cases(first, Cases(np.array(rail.volts), first.led.vf_typ, 1.0))
        self.peak, self.speed = at.peak, at.speed
        # Half a cycle stands for the whole where every lamp takes both half-cycles alike.
        self.folded = when == "before" or all(folded(p) for p, _ in kinds)
        self.folded = self.folded and not any(load.led for p, _ in kinds for load in p.driver.loads)
        self.share, self.weight = levels(rail.supply.waveform, self.folded)
        # What else hangs on it is known by its current at the usual volts, and taken for a plain resistance.
        self.others = rail.volts[1] / rail.others_a if rail.others_a > 0 else None
        # The cycles at the filaments' last ohms.
        self.near: SteadyStates | None = None

    def cycles(self, ohms: Ohms) -> SteadyStates:
        """The settled cycles of the three levels."""
        made = self._circuit(sine(self.peak, CLOCK_HZ, folded=self.folded), self.peak, self.speed, ohms)
        self.near = steady_states(made, self.near)
        return self.near

    def instants(self, ohms: Ohms) -> OperatingPoint:
        """Every instant of the three levels."""
        count = len(self.share)
        each = {n: np.repeat(np.broadcast_to(v, (3,)), count) for n, v in ohms.items()}
        share = np.abs(self.share) if self.folded else self.share
        wave = Dc((self.peak[:, None] * share).ravel())
        made = self._circuit(wave, np.repeat(self.peak, count), np.ones(3 * count), each)
        return operating_point(made).require()

    def _circuit(self, wave: Wave, peak: FloatArray, speed: FloatArray, ohms: Ohms) -> Circuit:
        circuits = []
        for k, (p, count) in enumerate(self.kinds):
            own = {n.removesuffix(f"_{k}"): v * count for n, v in ohms.items() if n.endswith(f"_{k}")}
            circuits.append((self._lamp(k, p, wave, peak, speed, own), count))
        return parallel(circuits, wave, self.rail.supply.source_ohm.value, self.others, self.kinds[0][0].celsius)

    def _lamp(
        self, k: int, p: Position, wave: Wave, peak: FloatArray, speed: FloatArray, own: dict[str, Param]
    ) -> Circuit:
        if self.when == "before":
            old: Element = Resistor("Rold", "", "", own["Rold"])
            cases = Cases(peak, p.led.vf_typ, 1.0)
            return build(p, cases, wave=wave, folded=True, filaments=own, lamp_in=old).circuit
        sizing = self.sizes[k]
        cases = Cases(peak, p.led.vf_typ, sizing.total_ohm, source=0.0)
        let = let_through(p, replace(cases, rail=self.peak[:1]))
        if let is not None:
            cases = replace(cases, let=float(np.asarray(let).flat[0]))
        farads = sizing.farads * p.rail.supply.hertz[1] / CLOCK_HZ * speed
        return build(p, cases, wave=wave, stacked=True, folded=self.folded, farads=farads, filaments=own).circuit

    def rms_of(self, at: "OperatingPoint | SteadyStates", name: str) -> FloatArray:
        """Root mean square of the volts over a part, (3,)."""
        return self.rms(at, at.across(name))

    def rms(self, at: "OperatingPoint | SteadyStates", values: FloatArray) -> FloatArray:
        """Root mean square over the cycle, (3,)."""
        if isinstance(at, SteadyStates):
            return np.asarray(np.sqrt(at.averages(values**2)))
        either_way = self.rail.supply.waveform is Waveform.EITHER_WAY
        return rms_over(values.reshape(3, -1), self.weight, either_way=either_way)

    def mean(self, at: "OperatingPoint | SteadyStates", values: FloatArray) -> FloatArray:
        """Average over the cycle, (3,)."""
        if isinstance(at, SteadyStates):
            return np.asarray(at.averages(values))
        return np.asarray((values.reshape(3, -1) * self.weight).sum(axis=1))
