"""A second job's circuit begun with what is known of its lamp: rail, rating, LED and resistor."""

from typing import Any

from swapglow.core.analysis.sizing import size
from swapglow.core.circuits.kind import CircuitKind
from swapglow.core.design.position import Position
from swapglow.core.quantities import AMPERE, OHM, VOLT, Figure, Input, Source, Unit, show


def from_lamp(kind: CircuitKind[Any], p: Position) -> dict[str, Input]:
    """The details of a circuit that its lamp already says.

    Args:
        kind: the kind of circuit.
        p: the lamp.

    Returns:
        Texts with their sources, by detail; those it asks for and the lamp knows, and no more.
    """
    known = {
        **_levels(p),
        **_rating(p),
        "led": Input(p.led.id, p.led_source),
        "ohm": Input(show(size(p).each_ohm, OHM), p.resistor_source) if p.module is None else Input(),
    }
    options = {d.id: [value for value, _ in d.options] for d in kind.details}
    return {
        id_: said
        for id_, said in known.items()
        if id_ in options and not said.empty and (not options[id_] or said.text in options[id_])
    }


def _levels(p: Position) -> dict[str, Input]:
    """The rail's levels: "volts" and "usual" its usual one, "low" and "high" its ends."""
    rail = p.rail
    levels = {"volts": rail.usual, "usual": rail.usual, "low": rail.low, "high": rail.high}
    return {id_: _typed(figure, VOLT) for id_, figure in levels.items()}


def _rating(p: Position) -> dict[str, Input]:
    if p.lamp is None:
        return {}
    rated = {"lamp_volts": (p.lamp.volts, VOLT), "lamp_amps": (p.lamp.amps, AMPERE)}
    return {id_: Input(show(value, unit, 4), Source.MARKED) for id_, (value, unit) in rated.items()}


def _typed(figure: Figure, unit: Unit) -> Input:
    return Input(show(figure.value, unit, 4), figure.source, figure.note)
