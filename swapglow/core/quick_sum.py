"""The quick sum: what its rail's text says, and a resistor whose own findings are clean at the highest rail."""

import re
from dataclasses import replace

import numpy as np

from swapglow.core.analysis.sizing import each_for_most, size
from swapglow.core.analysis.solution import solve
from swapglow.core.assess import Bench, assess
from swapglow.core.design.position import Position
from swapglow.core.presentation.report import Report
from swapglow.core.quantities import OHM, VOLT, InputError, Source, show, shown
from swapglow.core.quantities.inputs import read_quantity
from swapglow.core.supplies import SUPPLIES
from swapglow.core.supplies.rail import MOST_AC_V, MOST_DC_V
from swapglow.core.supplies.waveform import Waveform

_MAINS = re.compile(r"(?i)\b(mains|line|house ?current|wall)\b")


def quick_rail(text: str) -> str:
    """The kind of supply that a quick sum's text speaks of.

    Args:
        text: as typed: "24V", "12.6Vac", "mains".

    Returns:
        The kind's id: a steady rail, or a winding where the text says AC.

    Raises:
        InputError: ``usual``: it is mains or high tension, or volts that could be either.
    """
    if _MAINS.search(text):
        raise InputError(
            "usual", "Mains is no quick sum: qualified people only. Keep it as equipment, mark it as mains, and no "
            "live reading is asked.",
        )  # fmt: skip
    read = read_quantity("usual", text, VOLT, above=0)
    if read.kind == "ac":
        if read.high > MOST_AC_V:
            raise InputError(
                "usual", f"{show(read.high, VOLT)} AC is mains work: over {MOST_AC_V:g} V AC nothing is summed here. "
                "Qualified people only.",
            )  # fmt: skip
        return next(k.id for k in SUPPLIES.values() if k.waveform is Waveform.SINE and k.sags)
    if read.kind is None and read.high > MOST_AC_V:
        raise InputError("usual", f'"{text}" of what? Write {read.usual:g}Vdc, or {read.usual:g}Vac.')
    if read.high > MOST_DC_V:
        raise InputError(
            "usual", f"{show(read.high, VOLT)} DC is high tension: over {MOST_DC_V:g} V nothing is summed here. "
            "Qualified people only.",
        )  # fmt: skip
    return SUPPLIES.usual.id


def quick_sum(position: Position, bench: Bench) -> Report:
    """The report of a quick sum, its resistor the first that keeps to the drive limit at the highest rail.

    Args:
        position: what was typed.
        bench: what lies around it.

    Returns:
        The report.

    Raises:
        NotConverged: the circuit has no answer.
        CannotBuild: a part of it is not worked out.
    """
    ohm = _within(position)
    if ohm is None:
        return assess(position, bench)
    report = assess(replace(position, resistor_ohm=ohm), bench)
    why = f"the next value in {position.series} that keeps to the drive limit at the highest rail"
    each = shown(ohm, OHM, why, Source.COMPUTED)
    return replace(
        report,
        sizing=replace(
            report.sizing, each=each, preferred=each, rounding=f"for the highest rail, {position.series}"
        ),
    )


def _within(p: Position) -> float | None:
    """The resistor for the highest rail; None where the one for the usual rail keeps to the limit."""
    if p.resistor_ohm is not None or p.module is not None or size(p).exact_ohm is None:
        return None
    s = solve(p)
    if s.string_current_max <= p.ceiling_a:
        return None
    if not p.rail.supply.alternates:
        return each_for_most(p, p.ceiling_a)
    under = np.flatnonzero(s.rule_worst[1] <= p.ceiling_a)
    return float(s.rule_ohm[under[0]]) if len(under) else None
