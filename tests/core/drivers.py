"""Positions on each kind of driver, made from texts as a user types them."""

from swapglow.inputs.position import PositionInput
from tests.core.supplies import on, read

_MORE = {"lamp", "low", "high", "flat"}


def driven(kind, usual="9.4V", drop="", supply="regulated", supplied=None, branches=1, **details):
    """A position on a driver; ``details`` are its texts, or fields of the position."""
    fields = (set(PositionInput.model_fields) | _MORE) - {"name", "notes", "stage"}
    more = {k: details.pop(k) for k in list(details) if k in fields}
    return on(
        supply,
        usual,
        supplied,
        driver_kind=kind,
        driver_drop=read(drop),
        branches=branches,
        driver_details={k: read(v).model_dump() for k, v in details.items()},
        **more,
    )
