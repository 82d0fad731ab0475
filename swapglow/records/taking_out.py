"""A lamp's parts taken out of the drawer with a tick of its build, and laid back without it."""

from collections.abc import Mapping
from typing import Any

from swapglow.core.stock.draw import Drawn, draw
from swapglow.records import drawer, reports
from swapglow.records.drawer import compartments
from swapglow.records.models import Position
from swapglow.records.steps import keep

STEP = "take"


def drawn_for(p: Position) -> Drawn:
    """What a lamp takes out, from where, and what is not there.

    Raises:
        ValueError: the lamp cannot be worked out.
    """
    return draw(reports.report(p, None, drawer.at_hand()).needs, drawer.parts())


def take_or_lay_back(p: Position, was: Mapping[str, Any]) -> None:
    """Count the drawer down or up, where the step's tick was changed; within the step that changes it.

    Args:
        p: the record with its change.
        was: its inputs before.
    """
    before, now = _step(was), _step(p.inputs)
    if bool(before.get("done")) == bool(now.get("done")):
        return
    if now.get("done"):
        here = {str(r.pk): r.input.count or 0 for r in compartments()}
        left = drawn_for(p).counts
        _count({key: count - here[key] for key, count in left.items()})
        p.join({"steps": {STEP: {"drawn": {key: here[key] - count for key, count in left.items()}}}})
    else:
        taken = before.get("drawn") or {}
        _count(taken)
        p.join({"steps": {STEP: {"drawn": dict.fromkeys(taken)}}})


def _step(inputs: Mapping[str, Any]) -> dict[str, Any]:
    return (inputs.get("steps") or {}).get(STEP) or {}


def _count(by: Mapping[str, int]) -> None:
    """Change the counts of compartments; one that is gone, or is not counted any more, stays as it is."""
    for record in (r for r in compartments() if str(r.pk) in by):
        count = record.input.count
        if count is not None:
            record.join({"count": max(0, count + by[str(record.pk)])})
            keep(record)
