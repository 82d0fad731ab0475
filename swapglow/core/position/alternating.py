"""A position on a supply that alternates or reverses, solved over its cycle.

Without a reservoir every instant stands for itself: the instants of a cycle are solved as one batch
of operating points. With one, the settled cycle is solved whole (``circuit.steady``). A stator's
three frequencies are solved on one clock: with all else resistive only the product of frequency and
capacitance counts, so a case at twice the frequency is one with twice the capacitance.
"""

from dataclasses import dataclass, fields

import numpy as np
from numpy.typing import NDArray

from swapglow.core.circuit.netlist import Dc, Param
from swapglow.core.circuit.operating_point import operating_point
from swapglow.core.circuit.steady import SteadyStates, steady_states
from swapglow.core.position.model import Position
from swapglow.core.position.treated import Values, sine, treated_circuit

FloatArray = NDArray[np.float64]

# Instants in a quarter of a sine; the midpoint rule's error goes with their square.
QUARTER = 48
# Instants of a drawn cycle.
DRAWN = 120
CLOCK_HZ = 50.0


@dataclass(frozen=True)
class AcCases:
    """Cases of one length.

    Attributes:
        peak: highest instant of the source, open, V.
        vf, ohms, source: as in :class:`Values`.
        speed: frequency over the usual one.
    """

    peak: FloatArray
    vf: FloatArray
    ohms: FloatArray
    source: FloatArray
    speed: FloatArray


def joined(*several: AcCases) -> AcCases:
    """Cases one after another."""
    return AcCases(
        *(np.concatenate([getattr(c, f) for c in several]) for f in ("peak", "vf", "ohms", "source", "speed"))
    )


@dataclass(frozen=True)
class Cycled:
    """What a cycle comes to, each (cases,).

    Attributes:
        average: forward current of one string over the cycle, A. Where two strings light by turns
            it is that of the first; equal strings carry the same.
        peak: its highest instant.
        rms: of the current through the series resistor.
        reverse: most reverse volts across the string.
    """

    average: FloatArray
    peak: FloatArray
    rms: FloatArray
    reverse: FloatArray


@dataclass(frozen=True)
class Drawn:
    """A cycle to draw: DRAWN even instants from the zero crossing, each (cases, DRAWN).

    Attributes:
        source: open volts of the supply.
        feed: volts at the lamp's side of the source resistance.
        amps: forward current of the first string.
        light: of all strings together, as amps.
        string: volts across the first string.
        series: volts across the resistor.
        held: volts on the capacitor; zeros without one.
    """

    source: FloatArray
    feed: FloatArray
    amps: FloatArray
    light: FloatArray
    string: FloatArray
    series: FloatArray
    held: FloatArray


def _folds(position: Position) -> bool:
    return position.treated.id.startswith("bridge")


def solve_cycles(position: Position, cases: AcCases, farads: float) -> Cycled:
    """Solve every case over its cycle.

    Raises:
        NotConverged: a case has no answer.
    """
    if position.treated.reservoir:
        return _with_reservoir(position, cases, farads)
    return _instant_by_instant(position, cases)


def _levels(position: Position) -> tuple[FloatArray, FloatArray]:
    """Instants as shares of the peak, and the weight of each in an average over the cycle."""
    flow = position.rail.supply.flow
    if flow == "reversing":
        # One way round at a time: the figures are those of the way that lights it.
        return np.array([1.0, -1.0]), np.array([1.0, 0.0])
    if flow == "pulses":
        return np.array([1.0, -1.0]), np.array([0.5, 0.5])
    quarter = np.sin((np.arange(QUARTER) + 0.5) / QUARTER * np.pi / 2)
    if _folds(position):
        share, weight = quarter, np.full(QUARTER, 1.0 / QUARTER)
    else:
        share = np.concatenate([quarter, -quarter])
        weight = np.full(2 * QUARTER, 0.5 / QUARTER)
    # The crests themselves weigh nothing in the average but give the peaks.
    return np.append(share, [1.0, -1.0]), np.append(weight, [0.0, 0.0])


def _instant_by_instant(position: Position, cases: AcCases) -> Cycled:
    share, weight = _levels(position)
    folds = _folds(position)
    if folds:
        share = np.abs(share)
    count, instants = len(cases.peak), len(share)

    def spread(values: FloatArray) -> FloatArray:
        return np.repeat(values, instants)

    values = Values(Dc((cases.peak[:, None] * share).ravel()), spread(cases.vf), spread(cases.ohms),
                    spread(cases.source))  # fmt: skip
    point = operating_point(treated_circuit(position, values, folded=folds)).require()
    shape = (count, instants)
    amps = np.maximum(point.current("D1"), 0.0).reshape(shape)
    through = point.current("R1").reshape(shape)
    across = point.across("D1").reshape(shape)
    # A resistor works whichever way round the track runs; the harder way counts.
    reverses = position.rail.supply.flow == "reversing"
    squares = (through**2).max(axis=1) if reverses else (through**2 * weight).sum(axis=1)
    return Cycled(
        (amps * weight).sum(axis=1), amps.max(axis=1), np.sqrt(squares), np.maximum(-across.min(axis=1), 0.0)
    )


def _with_reservoir(position: Position, cases: AcCases, farads: float) -> Cycled:
    return _summed(_settled(position, cases, farads), cases)


def _summed(s: SteadyStates, cases: AcCases) -> Cycled:
    amps = np.maximum(s.current("D1"), 0.0)
    return Cycled(
        _wide(s.averages(amps), cases), _wide(amps.max(axis=-1), cases),
        _wide(np.sqrt(s.averages(s.current("R1") ** 2)), cases), np.zeros(len(cases.peak)),
    )  # fmt: skip


def _settled(position: Position, cases: AcCases, farads: float) -> SteadyStates:
    """The settled cycles; half a bridge's cycle is the whole of a folded sine's."""
    folds = _folds(position)
    values = Values(
        sine(_same(cases.peak), CLOCK_HZ, folds), _same(cases.vf), _same(cases.ohms), _same(cases.source),
        _same(_clocked(position, farads) * cases.speed),
    )  # fmt: skip
    return steady_states(treated_circuit(position, values, folded=folds))


def _clocked(position: Position, farads: float) -> float:
    """The capacitance that does at CLOCK_HZ what ``farads`` does at the usual frequency."""
    return farads * position.rail.supply.hertz[1] / CLOCK_HZ


def _same(values: FloatArray) -> Param:
    """Several values, or the one number: the engine then shares the work."""
    return float(values[0]) if len(values) == 1 else values


def _wide(values: FloatArray, cases: AcCases) -> FloatArray:
    return np.asarray(np.broadcast_to(values, (len(cases.peak),)))


def solve_and_draw(position: Position, cases: AcCases, farads: float,
                   pick: tuple[int, ...]) -> tuple[Cycled, Drawn]:  # fmt: skip
    """Solve every case, and draw the cycles of those picked; one solution serves both.

    Raises:
        NotConverged: a case has no answer.
    """
    if not position.treated.reservoir:
        some = AcCases(*(getattr(cases, f.name)[list(pick)] for f in fields(cases)))
        return _instant_by_instant(position, cases), draw_cycles(position, some, farads)
    s = _settled(position, cases, farads)
    return _summed(s, cases), _drawn(position, s, cases.peak, pick)


def draw_cycles(position: Position, cases: AcCases, farads: float) -> Drawn:
    """Every case over one cycle of the supply, instant by instant.

    Raises:
        NotConverged: a case has no answer.
    """
    if position.treated.reservoir:
        every = tuple(range(len(cases.peak)))
        return _drawn(position, _settled(position, cases, farads), cases.peak, every)
    count = len(cases.peak)
    folds = _folds(position)
    source = cases.peak[:, None] * _shape(position)
    drive = np.abs(source) if folds else source
    point = operating_point(
        treated_circuit(
            position,
            Values(Dc(drive.ravel()), np.repeat(cases.vf, DRAWN), np.repeat(cases.ohms, DRAWN),
                   np.repeat(cases.source, DRAWN)),
            folded=folds,
        )
    ).require()  # fmt: skip

    def shaped(values: FloatArray) -> FloatArray:
        return values.reshape(count, DRAWN)

    amps = shaped(np.maximum(point.current("D1"), 0.0))
    light = amps
    if position.treated.id in ("back_to_back", "two_colour"):
        light = amps + shaped(np.maximum(point.current("D2"), 0.0))
    return Drawn(
        source, shaped(point.voltage("lega")), amps, light, shaped(point.across("D1")),
        shaped(point.across("R1")), np.zeros((count, DRAWN)),
    )  # fmt: skip


def _shape(position: Position) -> FloatArray:
    """The supply over a drawn cycle, as shares of its peak."""
    phase = np.arange(DRAWN) / DRAWN * 2 * np.pi
    return np.sin(phase) if position.rail.supply.flow == "sine" else np.where(phase < np.pi, 1.0, -1.0)


def _drawn(position: Position, s: SteadyStates, peak: FloatArray, pick: tuple[int, ...]) -> Drawn:
    seconds = np.arange(DRAWN) / DRAWN / CLOCK_HZ % s.period
    grid = np.append(s.t, s.period)
    rows = list(pick)

    def on_grid(values: FloatArray) -> FloatArray:
        every = np.broadcast_to(values, (len(peak), values.shape[1]))[rows]
        closed = np.concatenate([every, every[:, :1]], axis=1)
        return np.stack([np.interp(seconds, grid, row) for row in closed])

    amps = on_grid(np.maximum(s.current("D1"), 0.0))
    return Drawn(
        peak[rows, None] * _shape(position), on_grid(s.voltage("lega")), amps, amps, on_grid(s.across("D1")),
        on_grid(s.across("R1")), on_grid(s.voltage("dc")),
    )  # fmt: skip
