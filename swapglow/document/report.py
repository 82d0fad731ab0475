"""Reports of a document's lamps, as the screen has them."""

from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter

from swapglow.core.assess import Bench, assess
from swapglow.core.position.typed import read_position
from swapglow.core.report import Report
from swapglow.document.model import Equipment
from swapglow.document.typed import core_reading, core_taken, typed_position

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
        FieldError: a text in it cannot be read.
    """
    rails = {r.id: r for r in equipment.rails}
    out = []
    for p in equipment.positions:
        core = read_position(typed_position(p, rails[p.rail]))
        bench = Bench(
            tuple(core_reading(r) for r in p.readings),
            closed=p.stage == "done",
            taken=tuple(core_taken(t) for t in p.taken),
        )
        out.append((p.name, remembered(core, bench)))
    return out
