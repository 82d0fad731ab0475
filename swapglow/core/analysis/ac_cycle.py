"""A position on a supply that alternates or reverses, solved over its cycle.

Without a reservoir every instant stands for itself: the instants of a cycle are solved as one batch
of operating points. With one, the settled cycle is solved whole (``engine.periodic``). A stator's
three frequencies are solved on one clock: with all else resistive only the product of frequency and
capacitance counts, so a case at twice the frequency is one with twice the capacitance.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, fields
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from swapglow.core.design.position import Position
from swapglow.core.engine.netlist import Circuit, Dc, Param, Wave, nodes_of
from swapglow.core.engine.operating_point import OperatingPoint, operating_point
from swapglow.core.engine.periodic import SteadyStates, steady_states
from swapglow.core.network.builder import build, laws_of, steady_parts
from swapglow.core.network.cases import Cases
from swapglow.core.network.fault import Fault
from swapglow.core.network.filaments import Law, Ohms, at_rest, cold_start
from swapglow.core.network.regimes import let_through
from swapglow.core.network.solve import lamp_watts, string_amps
from swapglow.core.network.sources import sine
from swapglow.core.supplies.waveform import Waveform

FloatArray = NDArray[np.float64]

# Instants in a quarter of a sine; the midpoint rule's error goes with their square.
QUARTER = 48
# Instants of a drawn cycle.
DRAWN = 120
CLOCK_HZ = 50.0
# A filament's ohms at rest over a cycle; each step is a whole cycle for every case.
_FILAMENT_REST = 1e-4


@dataclass(frozen=True)
class AcCases:
    """Cases of one length.

    Attributes:
        peak: highest instant of the source, open, V.
        vf, ohms, source: as in :class:`Cases`.
        speed: frequency over the usual one.
        held: what a fixed regulator holds, V; None takes its nominal volts.
        fault: what is wrong in it, its resistances (cases,) each or plain numbers; None where nothing is.
    """

    peak: FloatArray
    vf: FloatArray
    ohms: FloatArray
    source: FloatArray
    speed: FloatArray
    held: FloatArray | None = None
    fault: Fault | None = None

    def pick(self, index: "NDArray[np.intp] | list[int]") -> "AcCases":
        """Some of the cases."""
        held = None if self.held is None else self.held[index]
        return AcCases(
            self.peak[index],
            self.vf[index],
            self.ohms[index],
            self.source[index],
            self.speed[index],
            held,
            None if self.fault is None else self.fault.each(lambda v: np.asarray(v[index])),
        )


@dataclass(frozen=True)
class RegulatorCycle:
    """What a regulator goes through over a cycle, each (cases,).

    Attributes:
        least, most: volts before it, against the string's return, at their lowest and highest instant.
        across: most volts across it.
        watts: mean heat in it, its own working current included; of a source with its set resistor.
    """

    least: FloatArray
    most: FloatArray
    across: FloatArray
    watts: FloatArray

    def pick(self, index: NDArray[np.intp]) -> "RegulatorCycle":
        """Some of the cases."""
        return RegulatorCycle(*(getattr(self, f.name)[index] for f in fields(self)))


@dataclass(frozen=True)
class Cycled:
    """What a cycle comes to, each (cases,).

    Attributes:
        average: forward current of one string over the cycle, A. Where two strings light by turns
            it is that of the first; equal strings carry the same.
        peak: its highest instant.
        rms: of the current through one string's resistor; ``through_peak`` its highest instant.
        reverse: most reverse volts across the string.
        supply_rms: of what the whole circuit takes from the supply.
        shunt_rms: of the volts over a shunt; zeros without one.
        watts: what goes in at the lamp's own contacts, W.
        shared_rms: of the volts behind a dropping resistor; zeros without one.
        loads_rms: of what each load there draws, A, (cases, loads).
        left_rms: of the volts over a lamp left in the loop; zeros without one.
        regulator: what a regulator goes through; None without one.
    """

    average: FloatArray
    peak: FloatArray
    rms: FloatArray
    through_peak: FloatArray
    reverse: FloatArray
    supply_rms: FloatArray
    shunt_rms: FloatArray
    watts: FloatArray
    shared_rms: FloatArray
    loads_rms: FloatArray
    left_rms: FloatArray
    regulator: RegulatorCycle | None = None

    def pick(self, index: NDArray[np.intp]) -> "Cycled":
        """Some of the cases."""
        own = {f.name: getattr(self, f.name)[index] for f in fields(self) if f.name != "regulator"}
        return Cycled(**own, regulator=None if self.regulator is None else self.regulator.pick(index))


@dataclass(frozen=True)
class Drawn:
    """A cycle to draw: DRAWN even instants from the zero crossing, each (cases, DRAWN).

    Attributes:
        source: open volts of the supply.
        contacts: volts at the lamp's own contacts.
        way: volts of the nodes from the supply down to the contacts, by their names, in order.
        amps: forward current of the first string.
        light: of all strings together, as amps.
        string: volts across the first string.
        series: volts across the resistor.
        inside: volts over what a ready-made lamp has before its LEDs; zeros without one.
        kept: volts over a fixed regulator; zeros without one.
        held: volts on the capacitor; zeros without one.
    """

    source: FloatArray
    contacts: FloatArray
    way: Mapping[str, FloatArray]
    amps: FloatArray
    light: FloatArray
    string: FloatArray
    series: FloatArray
    inside: FloatArray
    kept: FloatArray
    held: FloatArray


def _circuit(
    position: Position, wave: Wave, cases: Cases, farads: Param = 0.0, filaments: Ohms | None = None
) -> Circuit:
    """The position on its own waveform; the cases' rail is its crest."""
    fold = folded(position, cases.fault)
    return build(position, cases, wave=wave, stacked=True, folded=fold, farads=farads, filaments=filaments).circuit


def folded(position: Position, fault: Fault | None = None) -> bool:
    """Whether a bridge of equal diodes may be folded: all before it must be the same either way round.

    Args:
        position: the swap.
        fault: what is wrong in it.

    Returns:
        Whether half of it stands for the whole.
    """
    if fault is not None and fault.unfolds:
        return False
    one_way = position.driver.dropper_ohm and any(load.led for load in position.driver.loads)
    return position.rectification.folds and not one_way


def rms_over(values: FloatArray, weight: FloatArray, *, either_way: bool) -> FloatArray:
    """Root mean square over the instants, the last axis.

    Args:
        values: (..., instants).
        weight: of each instant.
        either_way: whether it is a track, of which the harder way round counts.

    Returns:
        (...).
    """
    squares = values**2
    return np.asarray(np.sqrt(squares.max(axis=-1) if either_way else (squares * weight).sum(axis=-1)))


S = TypeVar("S", OperatingPoint, SteadyStates)


def settled_cycles(
    laws: Mapping[str, Law], count: int, solved: Callable[[Ohms], S], rms: Callable[[S, str], FloatArray]
) -> S:
    """Cycles with every filament at rest at its volts' root mean square.

    A filament is slow beside a half-cycle, so that its resistance stands still over the cycle (common
    practice from some 20 Hz on).

    Args:
        laws: the filaments by the name of their resistor.
        count: how many cases.
        solved: solves the cycles with each filament's ohms, (cases,).
        rms: of the volts over one of them, (cases,).

    Returns:
        The solved cycles.

    Raises:
        NotConverged: a case has no answer.
    """
    if not laws:
        return solved({})
    names = list(laws)

    def step(logs: FloatArray) -> tuple[FloatArray, S]:
        found = solved({n: np.exp(row) for n, row in zip(names, logs, strict=True)})
        return np.log(np.stack([np.broadcast_to(laws[n](rms(found, n)), (count,)) for n in names])), found

    return at_rest(step, cold_start(laws, count), _FILAMENT_REST)


def filaments_at_rest(position: Position, cases: AcCases, farads: float) -> dict[str, float]:
    """Ohms of every filament in the position's own circuit, of its first case.

    Args:
        position: the swap.
        cases: what to solve, arrays (cases,).
        farads: the reservoir capacitor, F; 0 for none.

    Returns:
        Ω by the name of its resistor.

    Raises:
        NotConverged: a case has no answer.
    """
    laws = laws_of(position)
    if not laws:
        return {}
    if position.rectification.reservoir:
        s = _settled(position, cases, farads)
        return {n: float(np.atleast_1d(law(np.sqrt(s.averages(s.across(n) ** 2))))[0]) for n, law in laws.items()}
    share, weight = levels(position.rail.supply.waveform, folded(position, cases.fault))
    point = _at_instants(position, cases, share, weight)
    shape = (len(cases.peak), len(share))
    either_way = position.rail.supply.waveform is Waveform.EITHER_WAY
    return {
        n: float(law(rms_over(point.across(n).reshape(shape), weight, either_way=either_way))[0])
        for n, law in laws.items()
    }


def _contacts(position: Position, at: "OperatingPoint | SteadyStates") -> FloatArray:
    """Volts at the lamp's own contacts."""
    return _against_back(at, ["feed", *_way(position, at)][-1])


def _against_back(at: "OperatingPoint | SteadyStates", node: str) -> FloatArray:
    """Volts of a node against the supply's other leg."""
    volts = at.voltage(node)
    return np.asarray(volts - at.voltage("legb") if "legb" in at.nodes else volts)


def _way(position: Position, at: "OperatingPoint | SteadyStates") -> list[str]:
    """Nodes from the supply down to the lamp's contacts, in order."""
    left = f"left{len(position.driver.remaining_lamps)}"
    return [n for n in ("loaded", "behind", left) if n in at.nodes]


def _through(at: "OperatingPoint | SteadyStates", position: Position) -> FloatArray:
    """Current of one string's resistor, either way; of a current source what flows through it."""
    name = "Vregulator" if position.set_by_ohms else "R1"
    return np.asarray(at.current(name) / position.branches)


def _across_regulator(at: "OperatingPoint | SteadyStates") -> FloatArray:
    """Volts from a regulator's input to what stands behind it."""
    before, after = (nodes_of(at.circuit.element("Vregulator"))[0], nodes_of(at.circuit.element("Iregulator"))[1])
    return np.asarray(at.voltage(before) - at.voltage(after))


def _kept_volts(at: "OperatingPoint | SteadyStates", position: Position) -> FloatArray:
    """Volts over a fixed regulator, which stands before the resistor."""
    if position.regulator is None or position.set_by_ohms:
        return np.zeros_like(at.across("D1"))
    return _across_regulator(at)


def _resistor_volts(at: "OperatingPoint | SteadyStates", position: Position) -> FloatArray:
    """Volts over the resistor, or over both its halves; over a current source with what sets it."""
    if position.set_by_ohms:
        return _across_regulator(at)
    volts = at.across("R1")
    return np.asarray(volts + at.across("R2") if "return" in at.nodes and "string" in at.nodes else volts)


def _inside_volts(at: "OperatingPoint | SteadyStates") -> FloatArray:
    """Volts over what a ready-made lamp has before its LEDs."""
    if "inside" not in at.nodes:
        return np.zeros_like(at.across("D1"))
    before = next(n for n in ("string", "held", "dc", "behind", "loaded", "feed") if n in at.nodes)
    if "innerback" in at.nodes:
        # Either way round through the lamp's own bridge.
        back = at.voltage("return") if "return" in at.nodes else 0.0
        return np.asarray(np.abs(at.voltage(before) - back) - at.across("D1"))
    return np.asarray(at.voltage(before) - at.voltage("inside"))


def solve_cycles(position: Position, cases: AcCases, farads: float) -> Cycled:
    """Solve every case over its cycle.

    Args:
        position: the swap.
        cases: what to solve, arrays (cases,).
        farads: the reservoir capacitor, F; 0 for none.

    Returns:
        What each case's cycle comes to, arrays (cases,).

    Raises:
        NotConverged: a case has no answer.
    """
    if position.rectification.reservoir:
        return _summed(position, _settled(position, cases, farads), cases)
    return _instant_by_instant(position, cases)


def levels(waveform: Waveform, folded: bool) -> tuple[FloatArray, FloatArray]:
    """Instants that stand for a cycle.

    Args:
        waveform: the supply's.
        folded: whether both its ways round are the same.

    Returns:
        Shares of the peak, (instants,), and the weight of each in an average over the cycle.
    """
    if waveform is Waveform.EITHER_WAY:
        # One way round at a time: the figures are those of the way that lights it.
        return np.array([1.0, -1.0]), np.array([1.0, 0.0])
    if waveform is Waveform.SQUARE:
        return np.array([1.0, -1.0]), np.array([0.5, 0.5])
    quarter = np.sin((np.arange(QUARTER) + 0.5) / QUARTER * np.pi / 2)
    if folded:
        share, weight = quarter, np.full(QUARTER, 1.0 / QUARTER)
    else:
        share = np.concatenate([quarter, -quarter])
        weight = np.full(2 * QUARTER, 0.5 / QUARTER)
    # The crests themselves weigh nothing in the average but give the peaks.
    return np.append(share, [1.0, -1.0]), np.append(weight, [0.0, 0.0])


def _at_instants(position: Position, cases: AcCases, share: FloatArray, weight: FloatArray) -> OperatingPoint:
    """Every case at every instant as one batch of operating points, case by case."""
    if folded(position, cases.fault):
        share = np.abs(share)
    count, instants = len(cases.peak), len(share)
    shape = (count, instants)
    either_way = position.rail.supply.waveform is Waveform.EITHER_WAY

    def spread(values: FloatArray) -> FloatArray:
        return np.repeat(values, instants)

    wave = Dc((cases.peak[:, None] * share).ravel())
    let = _let(position, cases)
    at = Cases(
        spread(cases.peak),
        spread(cases.vf),
        spread(cases.ohms),
        source=spread(cases.source),
        let=None if let is None else spread(let),
        fault=None if cases.fault is None else cases.fault.each(spread),
    )

    def solved(ohms: Ohms) -> OperatingPoint:
        filaments = {n: spread(np.asarray(v)) for n, v in ohms.items()}
        return operating_point(_circuit(position, wave, at, filaments=filaments)).require()

    def rms(point: OperatingPoint, name: str) -> FloatArray:
        return rms_over(point.across(name).reshape(shape), weight, either_way=either_way)

    return settled_cycles(laws_of(position), count, solved, rms)


def _let(position: Position, cases: AcCases) -> FloatArray | None:
    """What a regulator lets through in each case, A, (cases,); None without one."""
    let = let_through(position, Cases(cases.peak, cases.vf, cases.ohms, source=cases.source, held=cases.held))
    return None if let is None else np.asarray(np.broadcast_to(let, cases.peak.shape))


def _instant_by_instant(position: Position, cases: AcCases) -> Cycled:
    share, weight = levels(position.rail.supply.waveform, folded(position, cases.fault))
    point = _at_instants(position, cases, share, weight)
    shape = (len(cases.peak), len(share))
    either_way = position.rail.supply.waveform is Waveform.EITHER_WAY

    def rms(values: FloatArray) -> FloatArray:
        return rms_over(values.reshape(shape), weight, either_way=either_way)

    amps = string_amps(position, point).reshape(shape)
    across = point.across("D1").reshape(shape)
    names = {e.name for e in point.circuit.elements}
    nothing = np.zeros(len(cases.peak))
    return Cycled(
        (amps * weight).sum(axis=1),
        amps.max(axis=1),
        rms(_through(point, position)),
        np.abs(_through(point, position)).reshape(shape).max(axis=1),
        np.maximum(-across.min(axis=1), 0.0),
        rms(point.current("Vrail")),
        rms(point.across("Rshunt")) if "Rshunt" in names else nothing,
        (lamp_watts(point).reshape(shape) * weight).sum(axis=1),
        *_shared(position, point, rms, len(cases.peak)),
        _regulated(position, point, lambda v: v.reshape(shape), lambda v: (v * weight).sum(axis=1)),
    )


def _shared(
    position: Position, at: "OperatingPoint | SteadyStates", rms: Callable[[FloatArray], FloatArray], count: int
) -> tuple[FloatArray, FloatArray, FloatArray]:
    """RMS volts of a shared feed, what each load on it draws, and the volts over a lamp left in the loop."""
    left = rms(at.across("Rleft1")) if position.driver.remaining_lamps else np.zeros(count)
    if not position.driver.dropper_ohm:
        return np.zeros(count), np.zeros((count, 0)), left
    each = [rms(load_amps(at, k)) for k in range(1, len(position.driver.loads) + 1)]
    return rms(_against_back(at, "behind")), np.stack([*each, np.zeros(count)], axis=1)[:, :-1], left


def load_amps(at: "OperatingPoint | SteadyStates", k: int) -> FloatArray:
    """What a load on a shared feed draws, A.

    Args:
        at: the network solved.
        k: which, from 1.

    Returns:
        Amps at every sample or instant; of a part that only stands there nothing.
    """
    names = {e.name for e in at.circuit.elements}
    if f"Rload{k}" in names:
        return np.asarray(at.current(f"Rload{k}"))
    forth, back = steady_parts(k)
    return np.asarray(at.current(forth) - at.current(back) if forth in names else 0 * at.current("Vrail"))


def _regulated(
    position: Position,
    at: "OperatingPoint | SteadyStates",
    shaped: Callable[[FloatArray], FloatArray],
    mean: Callable[[FloatArray], FloatArray],
) -> RegulatorCycle | None:
    """What a regulator goes through; ``shaped`` lays values out by cases and instants, ``mean`` averages those."""
    r = position.regulator
    if r is None:
        return None
    before = shaped(at.voltage(nodes_of(at.circuit.element("Vregulator"))[0]))
    across = shaped(_across_regulator(at))
    watts = across * shaped(at.current("Vregulator"))
    if not position.set_by_ohms:
        watts = watts + before * r.quiescent
    return RegulatorCycle(before.min(axis=1), before.max(axis=1), across.max(axis=1), mean(watts))


def _summed(position: Position, s: SteadyStates, cases: AcCases) -> Cycled:
    amps = np.maximum(s.current("D1"), 0.0) / position.branches
    nothing = np.zeros(len(cases.peak))
    shunted = any(e.name == "Rshunt" for e in s.circuit.elements)
    return Cycled(
        _wide(s.averages(amps), cases),
        _wide(amps.max(axis=-1), cases),
        _wide(np.sqrt(s.averages(_through(s, position) ** 2)), cases),
        _wide(np.abs(_through(s, position)).max(axis=-1), cases),
        nothing,
        _wide(np.sqrt(s.averages(s.current("Vrail") ** 2)), cases),
        _wide(np.sqrt(s.averages(s.across("Rshunt") ** 2)), cases) if shunted else nothing,
        _wide(s.averages(lamp_watts(s)), cases),
        *_shared(position, s, lambda v: _wide(np.sqrt(s.averages(v**2)), cases), len(cases.peak)),
        _regulated(
            position,
            s,
            lambda v: np.broadcast_to(v, (len(cases.peak), v.shape[-1])),
            lambda v: _wide(s.averages(v), cases),
        ),
    )


def _settled(position: Position, cases: AcCases, farads: float) -> SteadyStates:
    """The settled cycles; half a bridge's cycle is the whole of a folded sine's."""
    wave = sine(_same(cases.peak), CLOCK_HZ, folded=folded(position, cases.fault))
    farad = _same(_clocked(position, farads) * cases.speed)
    let = _let(position, cases)
    at = Cases(
        _same(cases.peak),
        _same(cases.vf),
        _same(cases.ohms),
        source=_same(cases.source),
        let=None if let is None else _same(let),
        fault=None if cases.fault is None else cases.fault.each(_same),
    )

    near: SteadyStates | None = None

    def solved(ohms: Ohms) -> SteadyStates:
        nonlocal near
        one = {n: _same(np.asarray(v)) for n, v in ohms.items()}
        near = steady_states(_circuit(position, wave, at, farad, one), near)
        return near

    def rms(s: SteadyStates, name: str) -> FloatArray:
        return np.asarray(np.sqrt(s.averages(s.across(name) ** 2)))

    return settled_cycles(laws_of(position), len(cases.peak), solved, rms)


def _clocked(position: Position, farads: float) -> float:
    """The capacitance that does at CLOCK_HZ what ``farads`` does at the usual frequency."""
    return farads * position.rail.supply.hertz[1] / CLOCK_HZ


def _same(values: FloatArray) -> Param:
    """Several values, or the one number: the engine then shares the work."""
    return float(values[0]) if len(values) == 1 else values


def _wide(values: FloatArray, cases: AcCases) -> FloatArray:
    return np.asarray(np.broadcast_to(values, (len(cases.peak),)))


@dataclass(frozen=True)
class MeterCycle:
    """What meters show over a cycle, (cases,) each.

    Attributes:
        feed, lamp: true RMS of the feed before the lamp's wires, and at its contacts, V.
        over_leds: the mean over the first string, which a DC range shows, V.
        amps: the mean current of one string, no meter in it, A.
    """

    feed: FloatArray
    lamp: FloatArray
    over_leds: FloatArray
    amps: FloatArray


def meter_cycle(position: Position, cases: AcCases, farads: float) -> MeterCycle:
    """What meters show over a cycle.

    Args:
        position: the swap.
        cases: what to solve, arrays (cases,).
        farads: the reservoir capacitor, F; 0 for none.

    Returns:
        All of it, from one solution.

    Raises:
        NotConverged: a case has no answer.
    """
    if position.rectification.reservoir:
        s = _settled(position, cases, farads)
        feed, lamp = (np.sqrt(s.averages(v**2)) for v in (_contacts(position, s), _behind_its_wire(position, s)))
        amps = np.maximum(s.current("D1"), 0.0) / position.branches
        return MeterCycle(*(_wide(v, cases) for v in (feed, lamp, s.averages(_over_leds(s)), s.averages(amps))))
    share, weight = levels(position.rail.supply.waveform, folded(position, cases.fault))
    point = _at_instants(position, cases, share, weight)
    shape = (len(cases.peak), len(share))
    either_way = position.rail.supply.waveform is Waveform.EITHER_WAY
    feed, lamp = (
        rms_over(v.reshape(shape), weight, either_way=either_way)
        for v in (_contacts(position, point), _behind_its_wire(position, point))
    )
    over_leds, amps = (
        np.asarray((v.reshape(shape) * weight).sum(axis=1)) for v in (_over_leds(point), string_amps(position, point))
    )
    return MeterCycle(feed, lamp, over_leds, amps)


def _over_leds(at: "OperatingPoint | SteadyStates") -> FloatArray:
    """Volts over the string, where the meter is; a joint inside it counts."""
    return at.across("Rmleds" if any(e.name == "Rmleds" for e in at.circuit.elements) else "D1")


def _behind_its_wire(position: Position, at: "OperatingPoint | SteadyStates") -> FloatArray:
    """Volts at the lamp's contacts, behind whatever is wrong in its wire."""
    return _against_back(at, "atplus") if "atplus" in at.nodes else _contacts(position, at)


def solve_and_draw(position: Position, cases: AcCases, farads: float, pick: tuple[int, ...]) -> tuple[Cycled, Drawn]:
    """Solve every case, and draw the cycles of those picked; one solution serves both.

    Args:
        position: the swap.
        cases: what to solve, arrays (cases,).
        farads: the reservoir capacitor, F; 0 for none.
        pick: places of the cases to draw.

    Returns:
        What each cycle comes to, and the picked ones instant by instant.

    Raises:
        NotConverged: a case has no answer.
    """
    if not position.rectification.reservoir:
        return _instant_by_instant(position, cases), draw_cycles(position, cases.pick(list(pick)), farads)
    s = _settled(position, cases, farads)
    return _summed(position, s, cases), _drawn(position, s, cases.peak, pick)


def draw_cycles(position: Position, cases: AcCases, farads: float) -> Drawn:
    """Every case over one cycle of the supply, instant by instant.

    Args:
        position: the swap.
        cases: what to draw, arrays (cases,).
        farads: the reservoir capacitor, F; 0 for none.

    Returns:
        Volts and amps over one cycle, (cases, instants).

    Raises:
        NotConverged: a case has no answer.
    """
    if position.rectification.reservoir:
        every = tuple(range(len(cases.peak)))
        return _drawn(position, _settled(position, cases, farads), cases.peak, every)
    count = len(cases.peak)
    shares = _shape(position)
    source = cases.peak[:, None] * shares
    point = _at_instants(position, cases, shares, np.full(DRAWN, 1 / DRAWN))

    def shaped(values: FloatArray) -> FloatArray:
        return values.reshape(count, DRAWN)

    amps = shaped(string_amps(position, point))
    light = amps
    if position.rectification.guard == "led":
        light = amps + shaped(np.maximum(point.current("D2"), 0.0) / position.branches)
    return Drawn(
        source,
        shaped(_contacts(position, point)),
        {n: shaped(_against_back(point, n)) for n in _way(position, point)},
        amps,
        light,
        shaped(point.across("D1")),
        shaped(_resistor_volts(point, position)),
        shaped(_inside_volts(point)),
        shaped(_kept_volts(point, position)),
        np.zeros((count, DRAWN)),
    )


def _shape(position: Position) -> FloatArray:
    """The supply over a drawn cycle, as shares of its peak."""
    phase = np.arange(DRAWN) / DRAWN * 2 * np.pi
    return np.sin(phase) if position.rail.supply.waveform is Waveform.SINE else np.where(phase < np.pi, 1.0, -1.0)


def _drawn(position: Position, s: SteadyStates, peak: FloatArray, pick: tuple[int, ...]) -> Drawn:
    seconds = np.arange(DRAWN) / DRAWN / CLOCK_HZ % s.period
    grid = np.append(s.t, s.period)
    rows = list(pick)

    def on_grid(values: FloatArray) -> FloatArray:
        every = np.broadcast_to(values, (len(peak), values.shape[1]))[rows]
        closed = np.concatenate([every, every[:, :1]], axis=1)
        return np.stack([np.interp(seconds, grid, row) for row in closed])

    amps = on_grid(np.maximum(s.current("D1"), 0.0) / position.branches)
    return Drawn(
        peak[rows, None] * _shape(position),
        on_grid(_contacts(position, s)),
        {n: on_grid(_against_back(s, n)) for n in _way(position, s)},
        amps,
        amps,
        on_grid(s.across("D1")),
        on_grid(_resistor_volts(s, position)),
        on_grid(_inside_volts(s)),
        on_grid(_kept_volts(s, position)),
        on_grid(s.voltage("dc")),
    )
