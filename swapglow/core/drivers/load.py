"""Something else on a shared feed, and how people write it."""

import re
from dataclasses import dataclass

from swapglow.core.parts.lamp import Lamp
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.quantities import AMPERE, OHM, VOLT, WATT, InputError, Unit
from swapglow.core.quantities.inputs import read_single

MOST_LOADS = 12
EXAMPLES = "meter lamp 6V 0.1A max 6.6V; side lamp 12V 5W; relay 470R; clock 20mA; panel 2 LEDs red 330R; cap max 10V"


@dataclass(frozen=True)
class Load:
    """Something else on a shared feed: a resistance, a filament, a steady current, or LEDs.

    One of ``ohms``, ``lamp`` and ``amps`` is set, or none for a part that only stands there (a
    capacitor). With ``led`` the ohms are the resistor of each of ``strings`` strings of ``in_series``
    LEDs. ``most_v`` is the most volts it may see.
    """

    name: str
    ohms: float | None = None
    lamp: Lamp | None = None
    amps: float | None = None
    most_v: float | None = None
    led: Led | None = None
    in_series: int = 1
    strings: int = 1


# "2 x 3 LEDs red 330R": two strings of three, a resistor each.
_LEDS = re.compile(
    r"(?:(?P<strings>\d{1,2})\s*[x×]\s*)?(?:(?P<count>\d{1,2})\s+)?LEDs?\s+(?P<colour>[a-z][a-z -]*?)\s+(?P<ohm>\S+)$",
    re.IGNORECASE,
)
_MOST = re.compile(r"\bmax\.?\s+(?P<most>\S+)\s*$", re.IGNORECASE)


def read_loads(name: str, text: str) -> tuple[Load, ...]:
    """What else a shared feed feeds, one a line or parted by semicolons.

    Each is a name, then ohms, or a lamp's volts and amps or watts, or a steady current, then perhaps
    "max" and the most volts it may see.

    Args:
        name: the field, for a refusal.
        text: as typed.

    Returns:
        The loads in order.

    Raises:
        InputError: a line says nothing that can be reckoned with.
    """
    lines = [part.strip() for part in re.split(r"[;\n]", text) if part.strip()]
    if len(lines) > MOST_LOADS:
        raise InputError(name, f"{len(lines)} loads are more than the {MOST_LOADS} that one feed may have.")
    return tuple(_load(name, line) for line in lines)


def _load(field: str, line: str) -> Load:
    rest, most = line, None
    found = _MOST.search(line)
    if found:
        most = read_single(field, found["most"], VOLT, above=0)
        rest = line[: found.start()].strip()
    leds = _LEDS.search(rest)
    if leds is not None:
        return _of_leds(field, line, leds, rest[: leds.start()].strip().rstrip(":,"), most)
    words = rest.split()
    lamp = ohms = amps = None
    if len(words) > 2 and (v := _try(field, words[-2], VOLT)) and (a := _try(field, words[-1], AMPERE, v)):
        lamp, words = Lamp("load", "", v, a, None, ""), words[:-2]
    elif len(words) > 1 and (a := _try(field, words[-1], AMPERE)):
        amps, words = a, words[:-1]
    elif len(words) > 1 and (r := _try(field, words[-1], OHM)):
        ohms, words = r, words[:-1]
    elif most is None:
        raise InputError(field, f'"{line}" says nothing to reckon with. Write like {EXAMPLES}.')
    name = " ".join(words).rstrip(":,")
    if lamp is not None:
        lamp = Lamp("load", name, lamp.volts, lamp.amps, None, "")
    return Load(name, ohms, lamp, amps, most)


def _of_leds(field: str, line: str, found: re.Match[str], name: str, most: float | None) -> Load:
    colour = found["colour"].lower()
    kinds = [k for k in catalogue().values() if k.colour == colour]
    if not kinds:
        known = ", ".join(dict.fromkeys(k.colour for k in catalogue().values()))
        raise InputError(field, f'"{line}": there is no LED "{colour}" here; there are {known}.')
    ohm = read_single(field, found["ohm"], OHM, above=0)
    count, strings = int(found["count"] or 1), int(found["strings"] or 1)
    if not (count and strings):
        raise InputError(field, f'"{line}" counts no LED. Write like {EXAMPLES}.')
    return Load(name or "LEDs", ohm, None, None, most, kinds[0], count, strings)


def _try(field: str, word: str, unit: Unit, volts: float | None = None) -> float | None:
    """A word as a quantity that names its unit, or None: bare numbers belong to names; watts need their volts."""
    if not any(c.isalpha() or c == "Ω" for c in word) or (not word[0].isdigit() and word[0] != "."):
        return None
    # "1k" is a resistance and no kiloampere: volts and amps must say so.
    spelt = unit.spellings if volts is None else (*unit.spellings, *WATT.spellings)
    if unit is not OHM and not word.lower().endswith(spelt):
        return None
    try:
        return read_single(field, word, unit, above=0, volts=volts)
    except InputError:
        return None
