"""Reports of a document's lamps, as the screen has them."""

from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter

from swapglow.core.assess import Bench, assess
from swapglow.core.intake.stages import DONE
from swapglow.core.presentation.report import Report
from swapglow.document.model import Equipment
from swapglow.inputs.to_core import position_of, reading_after_of, reading_before_of

_REPORT = TypeAdapter(Report)

# The same value gives the same report, so reports are remembered by it.
remembered = lru_cache(maxsize=512)(assess)


def report_json(report: Report) -> bytes:
    """A report as JSON."""
    return _REPORT.dump_json(report)


def report_data(report: Report) -> Any:
    """A report as plain data."""
    return _REPORT.dump_python(report, mode="json")


def reports(equipment: Equipment) -> list[tuple[str, Report]]:
    """Name and report of every lamp position, in order.

    Raises:
        InputError: a text in it cannot be read.
    """
    rails = {r.id: r for r in equipment.rails}
    out = []
    for p in equipment.positions:
        core = position_of(p, rails[p.rail])
        bench = Bench(
            tuple(reading_after_of(str(r.id), r) for r in p.readings_after),
            closed=p.stage == DONE,
            readings_before=tuple(reading_before_of(str(r.id), r) for r in p.readings_before),
        )
        out.append((p.name, remembered(core, bench)))
    return out
