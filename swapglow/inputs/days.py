"""Days and times as they are kept, so that they sort as texts."""

from datetime import date, datetime


def a_day(text: str) -> str:
    """A day; empty for none.

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
    """A day, or a day and a time; empty for none.

    Raises:
        ValueError: it is none, with what would be taken.
    """
    if len(text) <= 10:
        try:
            return a_day(text)
        except ValueError:
            pass
    else:
        try:
            at = datetime.strptime(text, "%Y-%m-%d %H:%M")
            if f"{at:%Y-%m-%d %H:%M}" == text:
                return text
        except ValueError:
            pass
    raise ValueError(f'"{text}" is no day and no time: write 2031-05-20 or 2031-05-20 14:30.')


def moment(text: str) -> datetime | None:
    """A kept day or time as a moment; the day's own beginning, None for nothing."""
    if not text:
        return None
    return datetime.strptime(text, "%Y-%m-%d" if len(text) == 10 else "%Y-%m-%d %H:%M")
