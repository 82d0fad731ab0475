"""Everyday texts as people write them: hours and minutes, money, days. The shop's own money has no currency here."""

import re
from datetime import date, datetime

from swapglow.core.quantities.inputs import InputError

_NUMBER = r"(\d+(?:\.\d*)?|\.\d+)"
_TIME = re.compile(rf"(?:{_NUMBER} ?(?:h|hours?|hrs?))? ?(?:{_NUMBER} ?(?:min|minutes?|m|')?)?")
_MOST_MONEY, _MOST_HOURS, _MOST_DAYS = 1e9, 10_000.0, 30.0


def _minutes(text: str) -> float | None:
    """Minutes of "12", "40 min", "1.5 h" or "1h 20min"; None for what is no time."""
    read = _TIME.fullmatch(" ".join(text.lower().replace(",", ".").split()))
    if read is None or not any(read.groups()):
        return None
    hours, minutes = (float(part or 0) for part in read.groups())
    return hours * 60 + minutes


def read_minutes(field: str, text: str) -> float | None:
    """A time at the bench: a bare number is minutes.

    Args:
        field: for a refusal.
        text: "12", "12 min", "0.5 h", "1h 20min".

    Returns:
        Minutes; None for nothing.

    Raises:
        InputError: it is no time, or more than 30 days.
    """
    if not text.strip():
        return None
    found = _minutes(text)
    if found is None:
        raise InputError(field, f'"{text}" is no time. Write it like 12, 40 min or 1.5 h.')
    if found >= 60 * 24 * _MOST_DAYS:
        raise InputError(field, f'"{text}" is not a usable time. Write it like 12, 40 min or 1.5 h.')
    return found


def read_hours(field: str, text: str) -> float | None:
    """A time of work: a bare number is hours.

    Args:
        field: for a refusal.
        text: "1.5", "1.5 h", "90 min", "1h 30min".

    Returns:
        Hours, more than 0; None for nothing.

    Raises:
        InputError: it is no number of hours.
    """
    tidy = text.strip().replace(",", ".")
    if not tidy:
        return None
    found = _minutes(f"{tidy} h" if re.fullmatch(_NUMBER, tidy) else tidy)
    if found is None or not 0 < found / 60 < _MOST_HOURS:
        raise InputError(field, f'"{text}" is no number of hours. Write it like 1.5.')
    return found / 60


def hours_worked_text(hours: float) -> str:
    """A time of work: "40 min", "1.5 h"."""
    return f"{hours * 60:.0f} min" if hours < 1 else f"{hours:.3g} h"


def read_money(field: str, text: str) -> float | None:
    """A price, without its currency.

    Args:
        field: for a refusal.
        text: "12", "12.50", "€ 9".

    Returns:
        The price; None for nothing.

    Raises:
        InputError: it is no price.
    """
    tidy = text.strip().replace(",", ".").strip("€$£ ")
    if not tidy:
        return None
    found = float(tidy) if re.fullmatch(_NUMBER, tidy) else _MOST_MONEY
    if found >= _MOST_MONEY:
        raise InputError(field, f'"{text}" is no price. Write it like 12 or 12.50.')
    return found


def money_text(price: float) -> str:
    """A price, to the cent."""
    return f"{price:.2f}"


def a_day(text: str) -> str:
    """A day as it is kept, so that days sort as texts; empty for none.

    Raises:
        ValueError: it is none, with what would be taken.
    """
    try:
        if not text or date.fromisoformat(text).isoformat() == text:
            return text
    except ValueError:
        pass
    raise ValueError(f'"{text}" is no date: write it as 2031-05-20.')


def a_time(text: str) -> str:
    """A day, or a day and a time, as it is kept; empty for none.

    Raises:
        ValueError: it is none, with what would be taken.
    """
    try:
        if len(text) <= 10:
            return a_day(text)
        if f"{datetime.strptime(text, '%Y-%m-%d %H:%M'):%Y-%m-%d %H:%M}" == text:
            return text
    except ValueError:
        pass
    raise ValueError(f'"{text}" is no day and no time: write 2031-05-20 or 2031-05-20 14:30.')


def moment(text: str) -> datetime | None:
    """A kept day or time as a moment; the day's own beginning, None for nothing."""
    if not text:
        return None
    return datetime.strptime(text, "%Y-%m-%d" if len(text) == 10 else "%Y-%m-%d %H:%M")
