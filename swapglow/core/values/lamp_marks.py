"""What stands on a lamp's base: "12V 10W", "6.3V 0.15A", "21W"; power over volts is current."""

import re
from dataclasses import dataclass

_NUMBER = r"\d+(?:[.,]\d+)?|[.,]\d+"
_UNITS = {
    "v": "volts",
    "volt": "volts",
    "volts": "volts",
    "w": "watts",
    "watt": "watts",
    "watts": "watts",
    "a": "amps",
    "amp": "amps",
    "amps": "amps",
}
_PREFIXES = {"": 1.0, "m": 1e-3, "k": 1e3}
_PART = rf"({_NUMBER})\s*([mk]?)({'|'.join(sorted(_UNITS, key=len, reverse=True))})"
_BETWEEN = r"(?:\s*[/,@x×]\s*|\s+at\s+|\s*)"
_LAMP = r"(?:\s*(?:lamp|bulb))?"
_MARK = re.compile(rf"{_PART}(?:{_BETWEEN}{_PART})?{_LAMP}", re.IGNORECASE)
_TWO = re.compile(rf"(?:{_PART}{_BETWEEN})?({_NUMBER})\s*/\s*({_NUMBER})\s*w(?:atts?)?{_LAMP}", re.IGNORECASE)


@dataclass(frozen=True)
class LampMark:
    """What a lamp's mark says; None for what it does not.

    Attributes:
        volts, amps, watts: SI units.
    """

    volts: float | None = None
    amps: float | None = None
    watts: float | None = None


def lamp_mark(text: str) -> LampMark | None:
    """Read a text as a lamp's mark.

    Args:
        text: as typed.

    Returns:
        What it says; None where it is no mark: neither watts, nor volts together with amps.
    """
    found = _MARK.fullmatch(text.strip())
    if found is None:
        return None
    said: dict[str, float] = {}
    for number, prefix, unit in (found.groups()[:3], found.groups()[3:]):
        if number is None:
            continue
        name = _UNITS[unit.lower()]
        if name in said:
            return None
        # A capital M is no prefix of a lamp's: nothing of a megawatt stands on a base.
        said[name] = float(number.replace(",", ".")) * _PREFIXES[prefix.lower()]
    if "watts" not in said and len(said) < 2:
        return None
    return LampMark(**said)


def two_filaments(text: str) -> tuple[str, str] | None:
    """The watts of a lamp with two filaments, as they are written.

    Args:
        text: as typed: "12V 21/5W".

    Returns:
        Both numbers; None where it is no such mark.
    """
    found = _TWO.fullmatch(text.strip())
    return None if found is None else (found.group(4), found.group(5))


def parts(text: str) -> tuple[str, str] | None:
    """A mark that has volts and more, in two texts.

    Args:
        text: as typed: "12 V 10 W".

    Returns:
        The volts, and the amps or watts, each with its unit; None where it does not give both.
    """
    mark = lamp_mark(text)
    if mark is None or mark.volts is None or (mark.amps is None) == (mark.watts is None):
        return None
    rest = f"{mark.watts:.6g}W" if mark.amps is None else f"{mark.amps:.6g}A"
    return f"{mark.volts:.6g}V", rest
