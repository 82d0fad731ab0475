"""What a position alone comes to is worked out once, whatever lies around it and whoever asks."""

import threading
import time

import pytest

from swapglow.core import assess as assessing
from swapglow.core.analysis.solution import solve
from swapglow.core.assess import Bench, assess
from swapglow.core.measurement.reading_after import ReadingAfter
from tests.core.supplies import on


@pytest.fixture
def solved(monkeypatch):
    """The positions that were solved, in order; nothing is remembered of those before."""
    found = []

    def noted(position, **rest):
        found.append(position)
        return solve(position, **rest)

    monkeypatch.setattr(assessing, "solve", noted)
    assessing._known.cache_clear()
    return found


def test_what_is_read_or_lies_in_the_drawer_solves_nothing_anew(solved):
    p = on("regulated", "12V")
    bare = assess(p)
    read = assess(p, Bench((ReadingAfter("r", "current", 1.0, 5.0),), frozenset({470.0})))
    assert solved == [p]
    # And yet each is judged by what lies around it.
    assert (bare.diagnoses, len(read.diagnoses)) == ((), 1)
    assert not read.diagnoses[0].agrees
    assert [v.in_drawer for v in bare.rule.values].count(True) == 0
    assert [v.ohm for v in read.rule.values if v.in_drawer] == [470.0]


def test_two_that_ask_at_once_wait_for_one_sum(solved, monkeypatch):
    p, noted, reports = on("regulated", "12V"), assessing.solve, []
    second = threading.Thread(target=lambda: reports.append(assess(p)))
    own_sum = threading.Event()

    def slow(position, **rest):
        if threading.current_thread() is second:
            own_sum.set()
        else:
            second.start()
            # Until the other waits for this sum, or has begun one of its own.
            waiting, until = assessing._known.cache_condition._waiters, time.monotonic() + 30
            while not (waiting or own_sum.is_set()) and time.monotonic() < until:
                time.sleep(0.001)
        return noted(position, **rest)

    monkeypatch.setattr(assessing, "solve", slow)
    reports.append(assess(p))
    second.join()
    assert solved == [p]
    assert reports[0] == reports[1]
