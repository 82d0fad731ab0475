"""A lamp's parts taken out of the drawer with a tick of its build.

What was drawn is written at the step; ``records.movements`` books it, and books it back when the tick goes, by
whatever way that happens.
"""

from collections.abc import Mapping
from typing import Any

from swapglow.core.planning.build_step_kinds import TAKE_STEP
from swapglow.core.stock.draw import Drawn, draw
from swapglow.records import drawer, reports
from swapglow.records.drawer import compartments
from swapglow.records.models import Position


def drawn_for(p: Position) -> Drawn:
    """What a lamp takes out, from where, and what is not there.

    Raises:
        ValueError: the lamp cannot be worked out.
    """
    return draw(reports.report(p, None, drawer.at_hand()).needs, drawer.parts())


def note_what_is_drawn(p: Position, was: Mapping[str, Any]) -> None:
    """Write at the step what a new tick takes out of the drawer; nothing where the tick is gone.

    Args:
        p: the record with its change; not saved.
        was: its inputs before.
    """
    before, now = _step(was), _step(p.inputs)
    if bool(before.get("done")) == bool(now.get("done")):
        return
    if now.get("done"):
        here = {str(r.pk): r.input.count or 0 for r in compartments()}
        left = drawn_for(p).counts
        p.join({"steps": {TAKE_STEP: {"drawn": {key: here[key] - count for key, count in left.items()}}}})
    else:
        p.join({"steps": {TAKE_STEP: {"drawn": dict.fromkeys(before.get("drawn") or {})}}})


def _step(inputs: Mapping[str, Any]) -> dict[str, Any]:
    return (inputs.get("steps") or {}).get(TAKE_STEP) or {}
