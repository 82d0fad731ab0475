"""A group of lamps over the API: matched, used as one step, and taught by an eye."""

import math
import uuid

import pytest

from swapglow.records.models import Position
from tests.api.page import Bench

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def bench():
    return Bench()


@pytest.fixture
def item(bench):
    """An item with a red lamp on 12 V and a blue one on 5 V."""
    return bench.signals()


def test_resistors_of_a_group_are_used_and_undone_as_one_step(bench, item):
    key, (red, blue) = item
    status, report = bench("GET", f"equipment/{key}/match")
    assert status == 200
    level = report["levels"][report["best"]]
    ohms = {row["id"]: row["values"][k]["ohm"] for row, k in zip(report["rows"], level["picks"], strict=True)}
    assert set(ohms) == {red, blue}
    status, after = bench("POST", f"equipment/{key}/match/use", {"resistors": ohms})
    assert status == 200
    for row in after["rows"]:
        assert row["values"][row["now"]]["ohm"] == pytest.approx(ohms[row["id"]])
    bench.undo(key)
    assert {p.input.resistor for p in Position.objects.all()} == {"680R"}


def test_lamps_said_to_look_equal_stand_on_one_level(bench, item):
    key, (red, blue) = item
    status, after = bench("POST", f"equipment/{key}/match/equal", {"lamps": [red, blue], "reference": red})
    assert status == 200
    now = [row["values"][row["now"]]["octaves"] for row in after["rows"]]
    assert now[0] == pytest.approx(now[1], abs=1e-6)
    assert Position.objects.get(pk=red).input.looks.trim == 1


@pytest.mark.parametrize("brighter", [True, False])
def test_a_lamp_that_still_differs_stands_plainly_away_and_then_says_no_more(bench, item, brighter):
    """As they stand the blue one is plainly over, or under, the red; the same look said twice teaches once."""
    key, (red, blue) = item
    bench("POST", f"equipment/{key}/match/equal", {"lamps": [red, blue], "reference": red})
    seen = Position.objects.get(pk=blue).input.looks.trim
    body = {"lamp": blue, "reference": red, "brighter": brighter}
    status, after = bench("POST", f"equipment/{key}/match/differs", body)
    assert status == 200
    rows = {row["id"]: row["values"][row["now"]]["octaves"] for row in after["rows"]}
    away = rows[blue] - rows[red]
    assert abs(away) == pytest.approx(2 * math.log2(1.2), abs=1e-6) and (away > 0) is brighter
    assert Position.objects.get(pk=blue).input.looks.trim == pytest.approx(seen * 1.44 ** (1 if brighter else -1))
    assert Position.objects.get(pk=red).input.looks.trim == 1
    # Said again it teaches nothing more: then the resistor is to be changed.
    status, answer = bench("POST", f"equipment/{key}/match/differs", body)
    assert status == 422 and ("larger" if brighter else "smaller") in answer["errors"][0]["message"]
    status, answer = bench("POST", f"equipment/{key}/match/differs", {**body, "reference": blue})
    assert status == 422 and answer["errors"][0]["field"] == "lamp"


@pytest.mark.parametrize("ask", ["use", "equal"])
def test_a_lamp_of_another_item_is_refused(bench, item, ask):
    key, (red, _) = item
    strange = str(uuid.uuid4())
    body = {"resistors": {strange: 1000.0}} if ask == "use" else {"lamps": [red, strange], "reference": strange}
    status, answer = bench("POST", f"equipment/{key}/match/{ask}", body)
    assert status == 422
    assert answer["errors"][0]["field"] in ("lamps", "reference")


def test_a_group_of_some_is_matched_without_the_rest(bench, item):
    """A lamp left out says nothing of what the others reach."""
    key, (red, blue) = item
    status, report = bench("GET", f"equipment/{key}/match?lamps={blue}")
    assert status == 200
    assert [row["id"] for row in report["rows"]] == [blue]
    assert all(len(level["picks"]) == 1 for level in report["levels"])
    assert red not in str(report)


def test_a_trial_that_cannot_be_read_is_refused_where_it_is_typed(bench, item):
    """Kept, it would have stopped the lamp's whole report."""
    _, (red, _) = item
    for text in ("much", "0.1mΩ"):
        status, answer = bench("PATCH", f"positions/{red}", {"trials": {"t1": {"resistor": text}}})
        assert (status, answer["errors"][0]["field"]) == (422, "trials.t1.resistor")
    assert Position.objects.get(pk=red).input.trials == {}


def test_a_fitted_led_that_cannot_be_read_is_refused_where_it_is_typed(bench, item):
    key, _ = item
    for sent, field in (
        ({"resistor": "some"}, "dims.d1.resistor"),
        ({"resistor": "470R", "rail": "twelve"}, "dims.d1.rail"),
        ({"resistor": "470R", "trials": {"t1": {"resistor": "big"}}}, "dims.d1.trials.t1.resistor"),
    ):
        status, answer = bench("PATCH", f"equipment/{key}", {"dims": {"d1": sent}})
        assert (status, answer["errors"][0]["field"]) == (422, field)
    assert bench("GET", f"equipment/{key}")[1]["dims"] == {}
