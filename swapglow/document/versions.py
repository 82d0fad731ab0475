"""Documents of earlier versions, brought to this one."""

from typing import Any

from swapglow.document.model import VERSION

# What version 1 called differently, by the part it stands in.
_POSITION_1 = {"treatment": "rectification", "readings": "readings_after", "taken": "readings_before"}
_TAKE_IN_1 = {"worth": "feasibility"}
# What version 2 kept as bare lists, without a key for each line.
_LISTS_2 = ("opening", "wires", "originals")


def upgraded(data: dict[str, Any]) -> dict[str, Any]:
    """A document of any version known, in the words of this one; what is not of its form is left as it is."""
    version, item = data.get("version"), data.get("equipment")
    if version == VERSION:
        return data
    if not isinstance(item, dict):
        return {**data, "version": VERSION}
    item = dict(item)
    if version == 1:
        if isinstance(item.get("positions"), list):
            item["positions"] = [_renamed(p, _POSITION_1) for p in item["positions"]]
        if "take_in" in item:
            item["take_in"] = _renamed(item["take_in"], _TAKE_IN_1)
    if isinstance(item.get("take_in"), dict):
        item["take_in"] = _keyed(item["take_in"])
    return {**data, "version": VERSION, "equipment": item}


def _renamed(part: Any, names: dict[str, str]) -> Any:
    return {names.get(key, key): value for key, value in part.items()} if isinstance(part, dict) else part


def _keyed(sheet: dict[str, Any]) -> dict[str, Any]:
    out = {name: keyed(part) if name in _LISTS_2 else part for name, part in sheet.items()}
    asked = out.get("feasibility")
    if isinstance(asked, dict) and "others" in asked:
        out["feasibility"] = {**asked, "others": keyed(asked["others"])}
    return out


def keyed(lines: Any) -> Any:
    """Lines of a bare list under keys, in their places; anything else is left as it is."""
    if not isinstance(lines, list) or not all(isinstance(line, dict) for line in lines):
        return lines
    return {str(n): {**line, "place": n} for n, line in enumerate(lines)}
