"""Read a quantity the way people write it on a bench.

"4k7", "470R", "1M", "4,7 k", "20mA", ".02 A", "6.3Vac", "5V±2%", "12.0-14.4V" are all read;
what cannot be read is refused with a message that says what would be accepted.
"""

import math
import re
from dataclasses import dataclass
from typing import Literal, NoReturn

from swapglow.core.quantities.units import AMPERE, FARAD, OHM, PREFIXES, VOLT, Unit
from swapglow.core.values.lamp_marks import lamp_mark, two_filaments
from swapglow.core.values.marked import farads_of, ohms_of
from swapglow.core.values.nothing import says_none
from swapglow.core.values.resistor_marks import MarkError

LONGEST = 60
# Old capacitors write micro as a capital M: 10 MFD is 10 µF, and 47 MMFD 47 pF (common practice).
_OLD_MICRO = ("MFD", "mfd", "Mfd", "MF", "mFd")

_NUMBER = r"(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE][+-]?\d+)?"
_RANGE = re.compile(r"\s*(?:\.\.\.?|…|–|—|-|\bto\b)\s*")
_TOLERANCE = re.compile(r"\s*(?:±|\+/-|\+-|\+/−)\s*")
# "12V 5%": a share after a gap is a tolerance without its sign.
_BARE_SHARE = re.compile(rf"(.*\S)\s+({_NUMBER})\s*%")
# "13.2 (12.1-14.5)", as a rail is read back: the usual value, its ends behind it.
_ENDS_BEHIND = re.compile(r"([^()]*\S)\s*\(([^()]+)\)\s*([^\d()]*)")
_FRACTION = re.compile(r"(\d+)\s*/\s*(\d+)\s*(.*)")
_THOUSANDS = re.compile(r"\d{1,3}(?:,\d{3})+(?:\.\d+)?")


class QuantityError(ValueError):
    """A text that is no quantity of the wanted unit; the message says what would be."""


@dataclass(frozen=True)
class Parsed:
    """What a text was taken for, in SI units.

    Attributes:
        usual: the value, or the middle of a typed range.
        low, high: the ends of a typed range or tolerance; equal to ``usual`` for a bare value.
        unit: the unit it was read in.
        kind: "ac" or "dc" where the text said so.
        spread: how the ends were given.
    """

    usual: float
    low: float
    high: float
    unit: Unit
    kind: Literal["ac", "dc"] | None = None
    spread: Literal["none", "range", "tolerance"] = "none"


def _refuse(text: str, unit: Unit, why: str = "") -> NoReturn:
    shown = text if len(text) <= 30 else text[:29] + "…"
    reason = f": {why}" if why else ""
    raise QuantityError(f'"{shown}" is not {unit.noun}{reason}. Write it like {unit.examples}.')


def _tidy(text: str) -> str:
    tidy = text.replace("\u00a0", " ").replace("\u202f", " ").replace("\u2212", "-")
    tidy = tidy.replace("µ", "u").replace("μ", "u").replace("\u2126", "Ω").replace("Ω", "ω")
    return tidy.strip()


def _marked(text: str, unit: Unit) -> float | None:
    """The value of a part's mark, where one stands in place of a value."""
    try:
        return ohms_of(text) if unit is OHM else farads_of(text) if unit is FARAD else None
    except MarkError as wrong:
        raise QuantityError(str(wrong)) from None


def _by_power(tidy: str, text: str, volts: float | None) -> float | None:
    """The current of a lamp's mark, I = P/V; None where the text is none."""
    two = two_filaments(tidy)
    if two is not None:
        raise QuantityError(
            f'"{text}" has two filaments: write the one on this wire, {two[0]}W or {two[1]}W, with its volts.'
        )
    mark = lamp_mark(tidy)
    if mark is None:
        return None
    if mark.amps is not None:
        if mark.watts is not None:
            _refuse(text, AMPERE, "it gives a power and a current")
        return mark.amps
    at = volts if mark.volts is None else mark.volts
    if not at:
        raise QuantityError(f'"{text}" is a power: write its volts too, like 12V {mark.watts:g}W, or the current.')
    return (mark.watts or 0.0) / at


def _whole(text: str) -> str:
    """A fraction such as "1/4 W" as the number it is."""
    found = _FRACTION.fullmatch(text)
    if not found or int(found.group(2)) == 0:
        return text
    return f"{int(found.group(1)) / int(found.group(2)):.6g} {found.group(3)}"


def _plain_number(digits: str, text: str, unit: Unit) -> float:
    if _THOUSANDS.fullmatch(digits):
        meant = digits.replace(",", "")
        _refuse(
            text,
            unit,
            f'the comma in "{digits}" could be a decimal or a thousands mark; '
            f"write {meant} or {digits.replace(',', '.', 1)}",
        )
    value = float(digits.replace(",", "."))
    if not math.isfinite(value):
        _refuse(text, unit, "the number is too large")
    return value


def _unit_of(tail: str, text: str, unit: Unit) -> tuple[float, bool, Literal["ac", "dc"] | None]:
    """Scale, whether the unit itself was written, and AC or DC, from what follows the number."""
    kind: Literal["ac", "dc"] | None = None
    word = tail.strip()
    if unit in (VOLT, AMPERE):
        marked = re.fullmatch(r"(?i)(.*?)\s*(ac|dc)", word)
        # "ac" needs its V or A in front: a lone "ac" after a number is still clear enough.
        if marked:
            word = marked.group(1).strip()
            kind = "ac" if marked.group(2).lower() == "ac" else "dc"
    if word == "":
        return 1.0, False, kind
    if unit is OHM and word.lower() in ("meg", "megohm", "megohms"):
        return 1e6, True, kind
    if unit is FARAD and word in _OLD_MICRO:
        return 1e-6, True, kind
    if word.lower() in unit.spellings:
        return 1.0, True, kind
    prefix, rest = word[0], word[1:].strip()
    if prefix in PREFIXES and (rest == "" or rest.lower() in unit.spellings):
        if unit is OHM and prefix == "m" and rest == "":
            _refuse(text, unit, "a small m means thousandths; write M for megohms or mΩ")
        return PREFIXES[prefix], rest != "", kind
    _refuse(text, unit, f'"{word}" is not its unit')


def _one(text: str, whole: str, unit: Unit) -> tuple[float, float, bool, Literal["ac", "dc"] | None]:
    """One value: (bare number, scale, unit written, kind)."""
    part = text.strip()
    sign = 1.0
    if part[:1] in "+-" and part:
        sign = -1.0 if part[0] == "-" else 1.0
        part = part[1:].strip()
    letters = "".join(p for p in PREFIXES if p) + "".join(u + u.upper() for u in unit.infix)
    infix = re.fullmatch(rf"(\d*)\s*([{letters}])(\d+)\s*(.*)", part)
    if infix and (infix.group(1) or infix.group(2).lower() in unit.infix):
        before, letter, after, tail = infix.groups()
        rest, _, kind = _unit_of(tail, whole, unit)
        if rest != 1.0:
            _refuse(whole, unit, "it has two multipliers")
        if unit is OHM and letter == "m":
            _refuse(whole, unit, "a small m means thousandths; write M for megohms")
        named = letter.lower() in unit.infix
        scale = 1.0 if named else PREFIXES[letter]
        return sign * float(f"{before or '0'}.{after}"), scale, True, kind
    plain = re.match(_NUMBER, part)
    if not plain:
        _refuse(whole, unit, "it does not begin with a number" if part else "nothing is written")
    # "1,000" must be caught before the pattern stops at its comma.
    digits = re.match(r"[\d.,]+", part)
    run = digits.group(0) if digits else plain.group(0)
    if run.count(",") + run.count(".") > 1 or _THOUSANDS.fullmatch(run):
        if not _THOUSANDS.fullmatch(run):
            _refuse(whole, unit, f'"{run}" has more than one decimal mark')
        _plain_number(run, whole, unit)
    number = _plain_number(plain.group(0), whole, unit)
    scale, named, kind = _unit_of(part[plain.end() :], whole, unit)
    return sign * number, scale, named, kind


def _split_range(text: str) -> tuple[str, str] | None:
    for found in _RANGE.finditer(text):
        left, right = text[: found.start()].strip(), text[found.end() :].strip()
        # A minus after "e" belongs to an exponent, one at the start to the number.
        exponent = re.search(r"\d[eE]$", left) is not None
        if left and right and not exponent and re.search(r"\d", left):
            return left, right
    return None


def parse(
    text: str, unit: Unit, *, minimum: float | None = None, above: float | None = None, volts: float | None = None
) -> Parsed:
    """Read ``text`` as a quantity of ``unit``.

    Args:
        text: what was typed.
        unit: the unit wanted; a bare number is taken in it.
        minimum: least value allowed, in SI units, inclusive.
        above: value that must be exceeded, in SI units.
        volts: at which a power typed for a current is taken, where its text gives none, V.

    Returns:
        The value and its ends in SI units.

    Raises:
        QuantityError: the text cannot be read, or the value is out of bounds.
    """
    if not isinstance(text, str) or len(text) > LONGEST:
        _refuse(str(text), unit, f"it is longer than {LONGEST} characters")
    tidy = _tidy(text)
    if not tidy:
        raise QuantityError(f"Nothing is written. Write {unit.noun} like {unit.examples}.")
    if unit is OHM and says_none(tidy):
        tidy = "0"
    marked = _by_power(tidy, text, volts) if unit is AMPERE else _marked(tidy, unit)
    if marked is not None:
        parsed = Parsed(marked, marked, marked, unit)
        _check_bounds(parsed, text, minimum, above)
        return parsed
    tidy = _whole(tidy)
    share = _BARE_SHARE.fullmatch(tidy)
    ends = _ENDS_BEHIND.fullmatch(tidy)
    toleranced = _TOLERANCE.split(tidy)
    if share and len(toleranced) == 1:
        toleranced = [share.group(1), f"{share.group(2)}%"]
    if ends:
        parsed = _with_ends_behind(ends, text, unit)
        _check_bounds(parsed, text, minimum, above)
        return parsed
    if len(toleranced) > 2:
        _refuse(text, unit, "it has more than one tolerance")
    if len(toleranced) == 2:
        parsed = _with_tolerance(toleranced[0], toleranced[1], text, unit)
    elif (split := _split_range(tidy)) is not None:
        parsed = _with_range(split, text, unit)
    else:
        number, scale, _, kind = _one(tidy, text, unit)
        parsed = Parsed(number * scale, number * scale, number * scale, unit, kind)
    _check_bounds(parsed, text, minimum, above)
    return parsed


def _with_tolerance(value: str, spread: str, text: str, unit: Unit) -> Parsed:
    number, scale, _, kind = _one(value, text, unit)
    usual = number * scale
    percent = re.fullmatch(rf"({_NUMBER})\s*%", spread.strip())
    if percent:
        part = _plain_number(percent.group(1), text, unit)
        if part >= 100:
            _refuse(text, unit, "a tolerance of 100 % or more leaves nothing")
        delta = abs(usual) * part / 100
    else:
        amount, own, named, other = _one(spread, text, unit)
        delta = amount * (own if named or own != 1.0 else scale)
        kind = kind or other
        if delta < 0:
            _refuse(text, unit, "a tolerance cannot be negative")
    return Parsed(usual, usual - delta, usual + delta, unit, kind, "tolerance")


def _with_ends_behind(found: re.Match[str], text: str, unit: Unit) -> Parsed:
    value, ends, tail = found.groups()
    split = _split_range(ends)
    if split is None:
        _refuse(text, unit, "lowest and highest stand in the brackets, as 13.2 (12.1-14.5)")
    # Whichever side bears the unit or a prefix bears it for both: "7 (5-9 mA)", "13.2mA (12-14)".
    number, scale, named, kind = _one(value, text, unit)
    last = _one(split[1] + tail, text, unit)
    if (named or scale != 1.0) and not last[2] and last[1] == 1.0:
        tail = re.sub(r"^.*\d", "", value)
    about = _with_range((split[0], split[1] + tail), text, unit)
    usual = number * (scale if named or scale != 1.0 else last[1])
    if not about.low <= usual <= about.high:
        _refuse(text, unit, "the first value lies outside its brackets")
    return Parsed(usual, about.low, about.high, unit, kind or about.kind, "range")


def _with_range(ends: tuple[str, str], text: str, unit: Unit) -> Parsed:
    first, first_scale, first_named, first_kind = _one(ends[0], text, unit)
    last, last_scale, _, last_kind = _one(ends[1], text, unit)
    # A bare first end takes the last one's prefix, "12-14mA", unless only without it the range rises: "470-1k".
    if not first_named and first_scale == 1.0 and not first * last_scale > last * last_scale > first:
        first_scale = last_scale
    low, high = first * first_scale, last * last_scale
    # People write "10-5mA" too: the ends are the ends, whichever comes first.
    low, high = min(low, high), max(low, high)
    return Parsed((low + high) / 2, low, high, unit, first_kind or last_kind, "range")


def _check_bounds(parsed: Parsed, text: str, minimum: float | None, above: float | None) -> None:
    unit = parsed.unit
    if max(abs(parsed.low), abs(parsed.high)) > unit.largest:
        _refuse(text, unit, f"nothing on a bench is beyond {unit.largest:g} {unit.symbol}")
    if minimum is not None and parsed.low < minimum:
        _refuse(text, unit, f"it must be {minimum:g} {unit.symbol} or more")
    if above is not None and parsed.low <= above:
        _refuse(text, unit, f"it must be more than {above:g} {unit.symbol}")


def parse_single(text: str, unit: Unit, *, minimum: float | None = None, above: float | None = None) -> float:
    """Read one value, refusing a range or tolerance.

    Args:
        text: as typed.
        unit: what it is read in.
        minimum: the least it may be.
        above: what it must be over.

    Returns:
        The value, SI unit.

    Raises:
        QuantityError: as :func:`parse`, or where the text gives a spread.
    """
    parsed = parse(text, unit, minimum=minimum, above=above)
    if parsed.spread != "none":
        _refuse(text, unit, "one value is wanted here, not a range")
    return parsed.usual
