"""What views show of lamps they do not open: stored, marked due by what it rests on, worked out by a queue."""

import pytest

from swapglow.document.report import remembered
from swapglow.records import summaries
from swapglow.records.models import Position, Summary
from tests.api.page import Bench

pytestmark = pytest.mark.django_db


@pytest.fixture
def bench():
    return Bench()


def due():
    return {str(p) for p in Position.objects.filter(summary__due=True)}


def test_no_view_works_out_a_lamp(bench, demo, monkeypatch):
    lamps = [p for e in bench("GET", "bench")[1]["equipment"] for p in e["positions"]]
    assert len(lamps) == 39
    assert all(p["fresh"] and p["next_act"] for p in lamps)

    def never(*_):
        raise AssertionError("a view worked out a lamp")

    monkeypatch.setattr("swapglow.document.report.assess", never)
    monkeypatch.setattr("swapglow.records.reports.report", never)
    item = bench("GET", "bench")[1]["equipment"][0]
    assert bench("GET", f"equipment/{item['id']}")[0] == 200
    assert bench("GET", f"positions/{item['positions'][0]['id']}")[0] == 200


def test_a_view_takes_the_sum_that_was_stored(bench):
    """Whatever lies in the drawer: one sum a change, not one for the view and one for what is stored."""
    keys = bench.made()
    bench("PATCH", "drawer", {"add": ["1k", "470"]})
    summaries.refresh()
    before = remembered.cache_info()
    status, said = bench("POST", f"positions/{keys['position']}/assess", {})
    after = remembered.cache_info()
    assert (status, after.misses - before.misses, after.hits - before.hits) == (200, 0, 1)
    assert {v["ohm"] for v in said["report"]["rule"]["values"] if v["in_drawer"]} == {470.0, 1000.0}


def test_a_change_marks_the_lamps_it_touches_and_no_others(bench):
    first, second = bench.made(), bench.made()
    summaries.refresh()
    assert due() == set()
    for path, body in (
        (f"rails/{first['rail']}", {"high": {"text": "25V"}}),
        (f"positions/{first['position']}", {"in_series": 2}),
    ):
        assert bench("PATCH", path, body)[0] == 200
        assert [str(p.pk) for p in Position.objects.filter(summary__due=True)] == [first["position"]]
        assert summaries.refresh()
    bench("PATCH", "drawer", {"add": ["1k"]})
    # Nothing that is stored of a lamp depends on what lies in the drawer.
    assert due() == set()
    bench("PATCH", f"equipment/{second['equipment']}", {"notes": "of no account"})
    assert due() == set()
    bench.undo(first["equipment"])
    assert [str(p.pk) for p in Position.objects.filter(summary__due=True)] == [first["position"]]


def test_a_summary_says_what_stands_there_now_once_it_is_worked_out(bench):
    keys = bench.made()
    summaries.refresh()

    def shown():
        return bench("GET", f"equipment/{keys['equipment']}")[1]["positions"][0]

    before = shown()
    assert before["rail"] == "Main, 22.0\u00a0V"
    assert before["fresh"]
    bench("PATCH", f"rails/{keys['rail']}", {"usual": {"text": "9V"}, "name": "Low"})
    assert (shown()["rail"], shown()["fresh"]) == ("Main, 22.0\u00a0V", False)
    summaries.refresh()
    assert (shown()["rail"], shown()["fresh"]) == ("Low, 9.00\u00a0V", True)
    assert shown()["line"] != ""


def test_what_another_version_of_the_core_worked_out_is_worked_out_again(bench, monkeypatch):
    bench.made()
    summaries.refresh()
    summaries.mark_outdated()
    assert due() == set()
    monkeypatch.setattr(summaries, "core_version", lambda: "newer")
    summaries.mark_outdated()
    assert due() == {"Ready"}
    summaries.refresh()
    assert Summary.objects.get().core == "newer"


def test_what_is_due_stays_due_over_a_restart_and_a_lamp_that_changes_meanwhile_too(bench, monkeypatch):
    keys = bench.made()
    assert due() == {"Ready"}
    worked_out = summaries._summary

    def slowly(p):
        found = worked_out(p)
        monkeypatch.setattr(summaries, "_summary", worked_out)
        bench("PATCH", f"positions/{keys['position']}", {"in_series": 3})
        return found

    monkeypatch.setattr(summaries, "_summary", slowly)
    summaries.refresh()
    # What was worked out was of what stood there before: it does not count.
    assert due() == {"Ready"}
    summaries.refresh()
    assert due() == set()


def test_a_lamp_that_cannot_be_worked_out_says_why_and_stays_in_reach(bench):
    keys = bench.made()
    Position.objects.filter(pk=keys["position"]).update(
        inputs={**Position.objects.get().inputs, "target": {"text": "a lot", "source": "assumed", "note": ""}}
    )
    summaries.refresh()
    [lamp] = bench("GET", f"equipment/{keys['equipment']}")[1]["positions"]
    assert (lamp["grade"], "a lot" in lamp["line"]) == ("stop", True)
