"""Documents of earlier versions, brought to this one."""

from typing import Any

from swapglow.document.model import VERSION

# What version 1 called differently, by the part it stands in.
_POSITION_1 = {"treatment": "rectification", "readings": "readings_after", "taken": "readings_before"}
_TAKE_IN_1 = {"worth": "feasibility"}


def upgraded(data: dict[str, Any]) -> dict[str, Any]:
    """A document of any version known, in the words of this one; what is not of its form is left as it is."""
    if data.get("version") != 1:
        return data
    item = data.get("equipment")
    if not isinstance(item, dict):
        return {**data, "version": VERSION}
    positions = item.get("positions")
    out = dict(item)
    if isinstance(positions, list):
        out["positions"] = [_renamed(p, _POSITION_1) for p in positions]
    if "take_in" in out:
        out["take_in"] = _renamed(out["take_in"], _TAKE_IN_1)
    return {**data, "version": VERSION, "equipment": out}


def _renamed(part: Any, names: dict[str, str]) -> Any:
    return {names.get(key, key): value for key, value in part.items()} if isinstance(part, dict) else part
