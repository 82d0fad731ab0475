"""The first start: three questions, each of which may be left, and each of which is used at once."""

import pytest

from swapglow.core.planning.field_of_work import FIELDS_OF_WORK
from swapglow.core.quantities import VOLT, parse
from tests.api.page import Bench, hand


@pytest.fixture
def bench(transactional_db):
    return Bench()


def begin(bench, **said):
    status, now = bench("POST", "first-start", {"work": "", "meter": "yes", "series": "", **said})
    assert status == 200
    return now


def lamp(bench):
    """A lamp in an item that has no rail yet."""
    item, key = "1" * 8 + "-0000-4000-8000-000000000001", "1" * 8 + "-0000-4000-8000-000000000002"
    assert bench("PUT", f"equipment/{item}", {"name": "Heath lamp"})[0] == 200
    answer = bench(
        "PUT",
        f"positions/{key}",
        {"equipment": item, "name": "One", "led_id": "red-5-diffused", "target": {"text": "4mA"}},
    )
    assert answer[0] == 200, answer
    return bench("GET", f"positions/{key}")[1]


def test_a_new_bench_asks_once(bench):
    assert bench("GET", "first-start")[1] == {"new": True, "rail": "12V"}
    assert begin(bench)["new"] is False
    assert bench("GET", "first-start")[1]["new"] is False


def test_what_is_left_out_changes_nothing(bench):
    begin(bench)
    view = lamp(bench)
    assert (view["position"]["series"], view["rail"]["usual"]["text"]) == ("E24", "12V")
    assert hand() == []


def test_a_bench_on_which_something_is_asks_nothing(bench):
    """One that was in use before there were questions."""
    bench.made()
    assert bench("GET", "first-start")[1]["new"] is False


def test_what_one_works_on_is_the_guess_at_the_supply(bench):
    assert begin(bench, work="vehicles")["rail"] == "12.0-14.4V"
    view = lamp(bench)
    assert view["rail"]["usual"]["text"] == "12.0-14.4V"
    # A guess: nothing calls it measured.
    assert view["rail"]["usual"]["source"] == "assumed"


@pytest.mark.parametrize("work", FIELDS_OF_WORK)
def test_every_supply_that_is_guessed_can_be_read(work):
    assert parse(FIELDS_OF_WORK[work].rail, VOLT, above=0).usual > 0


def test_the_resistors_one_keeps_are_in_the_drawer_and_sized_from(bench):
    """E12 from 10 Ω to 1 MΩ: twelve in each of five decades, and the last (IEC 60063)."""
    begin(bench, series="E12")
    there = hand()
    assert len(there) == 5 * 12 + 1 and there[0].split()[0] == "10" and there[-1].replace("\u00a0", " ") == "1 MΩ"
    assert lamp(bench)["position"]["series"] == "E12"
    assert bench("GET", "shop")[1]["series"] == "E12"
    # It can be taken back like anything else.
    assert bench.undo("drawer")[0] == 200
    assert hand() == []


def test_without_a_meter_a_clip_goes_on_first(bench):
    begin(bench, meter="none")
    view = lamp(bench)
    report = bench("POST", f"positions/{view['position']['id']}/assess", {})[1]["report"]
    assert "clip" in str(report["plan"] if "plan" in report else report["survey"]).lower()


@pytest.mark.parametrize(("field", "text"), [("work", "submarines"), ("meter", "rubber"), ("series", "E13")])
def test_what_is_no_answer_is_refused_by_name(bench, field, text):
    status, answer = bench("POST", "first-start", {"work": "", "meter": "yes", "series": "", field: text})
    assert status == 422 and answer["errors"][0]["field"] == field
    assert bench("GET", "first-start")[1]["new"] is True
