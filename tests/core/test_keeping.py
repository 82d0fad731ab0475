"""Which backups stay: worked out by the calendar, by hand."""

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from swapglow.records.backups.keeping import kept

NOW = datetime(2031, 5, 21, 15, 30, tzinfo=UTC)  # a Wednesday


@dataclass(frozen=True)
class Made:
    at: datetime
    special: bool = False


def hours_ago(*hours):
    return [Made(NOW - timedelta(hours=h)) for h in hours]


def test_one_an_hour_for_a_day():
    made = [Made(NOW - timedelta(minutes=m)) for m in range(0, 23 * 60, 15)]
    # Four an hour were made. All of the last hour stay: 15:30, 15:15, 15:00, 14:45. Before it the last of each hour by
    # the clock: 13:45, 12:45 ... 16:45 the day before.
    stay = sorted((m.at for m in kept(made, NOW)), reverse=True)
    assert [t.minute for t in stay[:4]] == [30, 15, 0, 45]
    assert [t.minute for t in stay[4:]] == [45] * 22


def test_one_a_day_for_a_week_and_one_a_week_for_ten():
    made = [Made(NOW - timedelta(days=d)) for d in range(120)]
    days = sorted((NOW - m.at).days for m in kept(made, NOW))
    # Daily back to Wednesday a week ago; then the Sundays, which end a week: 17 May is 10 days before 27 May ...
    assert days[:8] == [0, 1, 2, 3, 4, 5, 6, 7]
    sundays = days[8:]
    assert all((NOW - timedelta(days=d)).isoweekday() == 7 for d in sundays)
    assert sundays == [10, 17, 24, 31, 38, 45, 52, 59, 66]
    assert max(days) <= 70


def test_what_was_made_before_an_update_stays_whatever_else_is_made():
    update = Made(NOW - timedelta(days=30, hours=3), special=True)
    later = Made(NOW - timedelta(days=30, hours=2))
    assert update in kept([update, later, *hours_ago(0)], NOW)
    old = Made(NOW - timedelta(weeks=11), special=True)
    assert old not in kept([old, *hours_ago(0)], NOW)


def test_the_newest_stays_however_old_and_so_does_one_of_tomorrow():
    [only] = hours_ago(24 * 400)
    assert kept([only], NOW) == {only}
    [tomorrow] = hours_ago(-20)
    assert kept([only, tomorrow], NOW) == {tomorrow}
