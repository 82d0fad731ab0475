"""Which backups stay: all of the last hour, one an hour for a day, one a day for a week, one a week for ten weeks."""

from collections.abc import Callable, Iterable
from datetime import datetime, timedelta
from typing import Protocol, TypeVar

# How far back each rule reaches, and what it takes for one period.
_RULES: tuple[tuple[timedelta, Callable[[datetime], tuple[int, ...]]], ...] = (
    (timedelta(days=1), lambda t: (t.toordinal(), t.hour)),
    (timedelta(days=7), lambda t: (t.toordinal(),)),
    (timedelta(weeks=10), lambda t: t.isocalendar()[:2]),
)
# Made before an update or a restore, or asked for: it stays, whatever else was made in that hour.
SPECIAL = timedelta(weeks=10)


class Dated(Protocol):
    """Something made at a time."""

    @property
    def at(self) -> datetime:
        """When."""

    @property
    def special(self) -> bool:
        """Whether it was made before something that cannot be undone otherwise."""


D = TypeVar("D", bound=Dated)


def kept(made: Iterable[D], now: datetime) -> set[D]:
    """The backups that stay.

    Args:
        made: all there are.
        now: the time. Backups of a later time (a clock was wrong) stay.

    Returns:
        All of the last hour, the newest, the newest of each period of each rule, and the special ones of ten weeks.
    """
    newest_first = sorted(made, key=lambda b: b.at, reverse=True)
    stay = set(newest_first[:1]) | {b for b in newest_first if now - b.at < timedelta(hours=1)}
    stay |= {b for b in newest_first if b.special and now - b.at <= SPECIAL}
    for reach, period in _RULES:
        seen: set[tuple[int, ...]] = set()
        for b in newest_first:
            if now - b.at <= reach and period(b.at) not in seen:
                seen.add(period(b.at))
                stay.add(b)
    return stay
