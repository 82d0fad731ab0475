"""The readings before the swap, together: corrected, inferred from, contradicted, tabled, planned on."""

from dataclasses import dataclass

from swapglow.core.design.position import Position
from swapglow.core.kinds.step import NextStep
from swapglow.core.measurement.inference import (
    Contradiction,
    Inference,
    Known,
    Readings,
    Truth,
    contradictions,
    infer,
    truth,
    wave_of,
)
from swapglow.core.measurement.meter_correction import meter_correction
from swapglow.core.measurement.reading_before import ReadingBefore
from swapglow.core.quantities import AMPERE, show
from swapglow.core.supplies.waveform import Waveform


@dataclass(frozen=True)
class ReadingReport:
    """A reading before the swap, and what it would have been without the meter, where that differs."""

    id: str
    text: str
    corrected: str
    why: str


@dataclass(frozen=True)
class Survey:
    """All that was read before the swap, what follows from it, and what is still worth reading."""

    readings: tuple[ReadingReport, ...]
    inferences: tuple[Inference, ...]
    contradictions: tuple[Contradiction, ...]
    truth: Truth | None
    plan: tuple[NextStep, ...]


def known_of(position: Position) -> Known:
    """What the position says beside its readings."""
    return Known(position.lamp, position.rail.usual.value, position.rail.supply.kind)


def survey(position: Position, readings: tuple[ReadingBefore, ...], plan: tuple[NextStep, ...]) -> Survey:
    """Work the readings through.

    Args:
        position: the swap; its rail's source resistance and old lamp take the meter's effect out.
        readings: oldest first.
        plan: readings still worth taking.

    Returns:
        The survey.
    """
    known = known_of(position)
    supply = position.rail.supply
    square = "square" if supply.waveform is Waveform.SQUARE else ""
    wave = wave_of(Readings(readings)) or square
    return Survey(
        tuple(_report(r, position, readings, wave) for r in readings),
        infer(readings, known),
        contradictions(readings, known),
        truth(readings, across_contact=supply.kind.reads_line),
        plan,
    )


def _report(r: ReadingBefore, position: Position, readings: tuple[ReadingBefore, ...], wave: str) -> ReadingReport:
    loop = None
    if r.unit is AMPERE and r.points == "lamp":
        # The loop is the lamp itself at the volts it had, or by its rating.
        volts = Readings(readings).volts_lit()
        if volts is not None and r.value:
            loop = max(abs(volts.value / r.value) - r.meter_ohm, 1e-3)
        elif position.lamp is not None:
            loop = position.lamp.volts / position.lamp.amps
    fair = meter_correction(r, source_ohm=position.rail.supply.source_ohm.value, loop_ohm=loop, wave=wave)
    return ReadingReport(r.id, r.text, show(fair.value, r.unit) if fair.why else "", fair.why)
