"""Print a value in engineering form: "4.7 kΩ", "13.8 mA"."""

import math
from functools import lru_cache

from swapglow.core.quantities.units import CELSIUS, Unit

_STEPS = ((1e9, "G"), (1e6, "M"), (1e3, "k"), (1.0, ""), (1e-3, "m"), (1e-6, "µ"), (1e-9, "n"), (1e-12, "p"))
_NBSP = "\u00a0"


@lru_cache(maxsize=8192)
def engineering(value: float, digits: int = 3) -> tuple[str, str]:
    """Number text and SI prefix for ``value``, to ``digits`` significant figures.

    Trailing zeros after the point are dropped; below half a pico the value prints as 0.

    Args:
        value: any number; one that is not finite prints as –.
        digits: significant figures.

    Returns:
        The number's text, and the prefix: "", "k", "m", "µ".
    """
    if value == 0 or not math.isfinite(value) or abs(value) < 0.5e-12:
        return ("0" if math.isfinite(value) else "–"), ""
    # Rounding first, so that 999.96 m becomes 1, not "1000 m".
    exponent = math.floor(math.log10(abs(value)))
    rounded = round(value, digits - 1 - exponent)
    for scale, prefix in _STEPS:
        if abs(rounded) >= scale * (1 - 1e-12) or scale == 1e-12:
            mantissa = rounded / scale
            places = max(0, digits - 1 - math.floor(math.log10(abs(mantissa)) + 1e-12))
            text = f"{mantissa:.{places}f}"
            return (text.rstrip("0").rstrip(".") if "." in text else text), prefix
    raise AssertionError("unreachable: the last step takes everything")


def show(value: float, unit: Unit | str, digits: int = 3) -> str:
    """``value`` in engineering form with its unit, joined by a no-break space.

    Args:
        value: SI unit.
        unit: its unit, or the symbol.
        digits: significant figures.

    Returns:
        "4.7 kΩ".
    """
    symbol = unit if isinstance(unit, str) else unit.symbol
    number, prefix = plain_or_engineering(value, symbol, digits)
    return f"{number}{_NBSP}{prefix}{symbol}"


def plain_or_engineering(value: float, symbol: str, digits: int = 3) -> tuple[str, str]:
    """Number and prefix of a value with its unit: degrees Celsius never take a prefix.

    Args:
        value: in the unit.
        symbol: the unit's.
        digits: significant figures.

    Returns:
        The number's text, and the prefix.
    """
    return (number_text(value, digits), "") if symbol == CELSIUS.symbol else engineering(value, digits)


def number_text(value: float, digits: int = 2) -> str:
    """A number without a unit and never with an exponent: "0.04", "1.3", "130".

    Args:
        value: any number; one that is not finite is a dash.
        digits: significant figures.

    Returns:
        The number; zero is "0".
    """
    if not math.isfinite(value):
        return "–"
    if value == 0:
        return "0"
    places = digits - 1 - math.floor(math.log10(abs(value)))
    rounded = round(value, places)
    text = f"{rounded:.{max(places, 0)}f}"
    text = text.rstrip("0").rstrip(".") if "." in text else text
    return "0" if text in ("-0", "") else text


# A ratio past this, or under its inverse, says no more than that it is.
_MOST_RATIO = 1000.0


def times_text(ratio: float, digits: int = 2) -> str:
    """How many times as much: "0.04", "1.4", "130"; "over 1000" and "under 0.001" where the figure says no more.

    Args:
        ratio: not less than nothing.
        digits: significant figures below ten; whole numbers above.

    Returns:
        The number.
    """
    if ratio > _MOST_RATIO:
        return f"over {_MOST_RATIO:.0f}"
    if 0 < ratio < 1 / _MOST_RATIO:
        return f"under {1 / _MOST_RATIO:g}"
    return number_text(ratio, digits) if ratio < 10 else f"{ratio:.0f}"


# A share past this says no more than that it is.
_MOST_SHARE = 10.0


def percent_number(share: float) -> str:
    """A share in whole per cent without its sign: "40", "0" for what rounds to nothing, "over 1000" past that."""
    if abs(share) > _MOST_SHARE:
        return f"over {_MOST_SHARE * 100:.0f}" if share > 0 else f"under \u2212{_MOST_SHARE * 100:.0f}"
    return f"{round(share * 100) + 0:d}"


def percent(share: float) -> str:
    """A share in whole per cent: "40 %", "over 1000 %"."""
    return f"{percent_number(share)} %"


# A battery that lasts longer dies of its own age (shelf life of primary cells, common practice).
_MOST_YEARS = 10
_HOURS_A_DAY, _DAYS_A_YEAR = 24.0, 365.25


def hours_text(hours: float) -> tuple[str, str]:
    """A long time as people count it: ("2.3", "h"), ("41", "days"), ("3.2", "years").

    Args:
        hours: not less than nothing.

    Returns:
        The number's text, and its unit; "over 10" years at the most.
    """
    if hours < 1000:
        return (number_text(hours) if hours < 10 else f"{hours:.0f}"), "h"
    days = hours / _HOURS_A_DAY
    if days < 2 * _DAYS_A_YEAR:
        return f"{days:.0f}", "days"
    years = days / _DAYS_A_YEAR
    return (f"over {_MOST_YEARS}" if years > _MOST_YEARS else number_text(years)), "years"
