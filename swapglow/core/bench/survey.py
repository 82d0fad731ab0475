"""The readings before the swap, together: corrected, inferred from, contradicted, tabled, planned on."""

from swapglow.core.bench.corrected import corrected
from swapglow.core.bench.infer import Known, Readings, contradictions, infer, truth, wave_of
from swapglow.core.bench.taken import Taken
from swapglow.core.position.model import Position
from swapglow.core.quantities import AMPERE, show
from swapglow.core.report import NextStep, Survey, TakenReport


def known_of(position: Position) -> Known:
    """What the position says beside its readings."""
    return Known(position.lamp, position.rail.usual.value, position.rail.supply.kind)


def survey(position: Position, taken: tuple[Taken, ...], plan: tuple[NextStep, ...]) -> Survey:
    """Work the readings through.

    Args:
        position: the swap; its rail's source resistance and old lamp take the meter's effect out.
        taken: readings, oldest first.
        plan: readings still worth taking.
    """
    known = known_of(position)
    supply = position.rail.supply
    wave = wave_of(Readings(taken)) or ("pulses" if supply.flow == "pulses" else "")
    return Survey(
        tuple(_report(t, position, taken, wave) for t in taken),
        infer(taken, known),
        contradictions(taken, known),
        truth(taken, across_contact=supply.kind == "sense"),
        plan,
    )


def _report(t: Taken, position: Position, taken: tuple[Taken, ...], wave: str) -> TakenReport:
    loop = None
    if t.unit is AMPERE and t.points == "lamp":
        # The loop is the lamp itself at the volts it had, or by its rating.
        r = Readings(taken)
        volts = r.volts_lit()
        if volts is not None and t.value:
            loop = max(abs(volts.value / t.value) - t.meter_ohm, 1e-3)
        elif position.lamp is not None:
            loop = position.lamp.volts / position.lamp.amps
    fair = corrected(t, source_ohm=position.rail.supply.source_ohm.value, loop_ohm=loop, wave=wave)
    return TakenReport(t.id, t.text, show(fair.value, t.unit) if fair.why else "", fair.why)
