"""Reports of a document's lamps, as the screen has them."""

from collections.abc import Collection
from dataclasses import replace
from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter

from swapglow.core.analysis.draws import Member
from swapglow.core.assess import Bench, assess
from swapglow.core.design.position import Position
from swapglow.core.evidence.alike import Neighbour, taught
from swapglow.core.evidence.as_read import as_read
from swapglow.core.findings import solvable
from swapglow.core.intake.stages import DONE
from swapglow.core.presentation.report import Report
from swapglow.document.model import Equipment
from swapglow.document.model import Position as DocumentPosition
from swapglow.inputs.rail import RailInput
from swapglow.inputs.shop import ShopInput
from swapglow.inputs.to_core import checks_of, position_of, reading_after_of, reading_before_of, site_of, trials_of

_REPORT = TypeAdapter(Report)

# The same value gives the same report, so reports are remembered by it.
remembered = lru_cache(maxsize=512)(assess)


def report_json(report: Report) -> bytes:
    """A report as JSON."""
    return _REPORT.dump_json(report)


def report_data(report: Report) -> Any:
    """A report as plain data."""
    return _REPORT.dump_python(report, mode="json")


def _member(p: DocumentPosition, rail: RailInput, hazards: Collection[str]) -> Member:
    return Member(str(p.id), p.name, position_of(p, rail, hazards), p.lit)  # type: ignore[arg-type]  # one of its options


def _stands(position: Position) -> bool:
    """Whether a lamp can be worked out, so that its rail's budget counts it."""
    try:
        solvable(position)
    except ValueError:
        return False
    return True


def reports(equipment: Equipment) -> list[tuple[str, Report]]:
    """Name and report of every lamp position, in order.

    Raises:
        InputError: a text in it cannot be read.
    """
    rails = {r.id: r for r in equipment.rails}
    hazards = equipment.take_in.hazards
    members = [(p, _member(p, rails[p.rail], hazards)) for p in equipment.positions]
    site = site_of(equipment.take_in, ShopInput())
    readings = {m.id: tuple(reading_after_of(str(r.id), r, p.reads) for r in p.readings_after) for p, m in members}
    read = {m.id: replace(m, position=as_read(m.position, readings[m.id])) for _, m in members}
    tried = {m.id: (read[m.id].position, looks) for p, m in members if (looks := trials_of(p))}
    beside = {
        m.id: tuple(Neighbour(o.name, read[o.id].position, q.rail == p.rail) for q, o in members if o is not m)
        for p, m in members
    }
    known = {key: replace(m, position=taught(m.position, beside[key])) for key, m in read.items()}
    out = []
    for p, m in members:
        core = m.position
        others = tuple(known[o.id] for q, o in members if q.rail == p.rail and o is not m and _stands(o.position))
        bench = Bench(
            readings[m.id],
            closed=p.stage == DONE,
            readings_before=tuple(reading_before_of(str(r.id), r) for r in p.readings_before),
            on_rail=others,
            lit=m.lit,
            trials=trials_of(p),
            others_tried=tuple(t for key, t in tried.items() if key != m.id),
            others_read=beside[m.id],
            site=site,
            checks=checks_of(p),
            dead=tuple(p.dead),
        )
        out.append((p.name, remembered(core, bench)))
    return out
