"""Records over HTTP: kept, refused, undone."""

import uuid

import pytest

from tests.api.page import Bench, hand

pytestmark = pytest.mark.django_db


@pytest.fixture
def bench():
    return Bench()


def test_a_quick_sum_keeps_nothing(bench):
    status, answer = bench(
        "POST", "quick", {"rail": "5V±5%", "position": {"led_id": "red-5-diffused", "target": {"text": "2mA"}}}
    )
    assert status == 200
    assert answer["report"]["sizing"]["preferred"]["unit"] == "kΩ"
    assert bench("GET", "bench")[1]["equipment"] == []


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"rail": "x"}, "usual"),
        ({"target": {"text": ""}}, "target"),
        ({"led_id": "none"}, "led_id"),
        ({"vf": {"text": "9k"}}, "vf"),
        ({"in_series": 0}, "position.in_series"),
        ({"series": "E7"}, "position.series"),
    ],
)
def test_a_refused_quick_sum_names_its_field(bench, change, field):
    rail = change.pop("rail", "5V")
    body = {"rail": rail, "position": {"led_id": "red-5-diffused", "target": {"text": "2mA"}, **change}}
    status, answer = bench("POST", "quick", body)
    assert status == 422
    assert [e["field"] for e in answer["errors"]] == [field]
    assert answer["errors"][0]["message"].endswith(".")


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"in_series": "none"}, "A whole number is wanted here, such as 3."),
        ({"in_series": 500}, "200 is the most that is accepted here."),
        ({"branches": 0}, "1 is the least that is accepted here."),
        ({"ceiling": "half"}, "A number is wanted here, such as 0.5."),
        ({"glow_floor": 1}, "It must be less than 1.0."),
        ({"name": "x" * 121}, "120 characters are the most that is kept here."),
        ({"series": "E7"}, '"E7" is none of: E3, E6, E12, E24, E48, E96, E192.'),
    ],
)
def test_a_refusal_says_what_would_be_accepted(bench, change, says):
    body = {"rail": "5V", "position": {"led_id": "red-5-diffused", "target": {"text": "2mA"}, **change}}
    assert bench("POST", "quick", body)[1]["errors"][0]["message"] == says


def test_a_kept_quick_sum_is_a_position_and_sent_twice_is_one(bench):
    body = {
        "quick": {"rail": "18V", "position": {"led_id": "amber-5-diffused", "target": {"text": "3mA"}}},
        "position": str(uuid.uuid4()),
        "rail": str(uuid.uuid4()),
        "new_equipment": str(uuid.uuid4()),
        "equipment_name": "Fog signal",
        "name": "Armed",
    }
    assert bench("POST", "quick/keep", body)[0] == 200
    assert bench("POST", "quick/keep", body)[0] == 200
    [item] = bench("GET", "bench")[1]["equipment"]
    assert (item["name"], [p["name"] for p in item["positions"]]) == ("Fog signal", ["Armed"])
    assert bench.undo()[1]["label"] == "keep Armed"
    assert bench("GET", "bench")[1]["equipment"] == []


def test_edits_are_kept_undone_and_redone(bench):
    keys = bench.made()
    path = f"positions/{keys['position']}"
    bench("PATCH", path, {"resistor": "4k7"})
    bench("PATCH", path, {"in_series": 3})
    assert bench.undo(keys["equipment"])[0] == 200
    assert bench("GET", path)[1]["position"]["in_series"] == 1
    assert bench("GET", path)[1]["position"]["resistor"] == "4k7"
    bench.undo(keys["equipment"], "redo")
    assert bench("GET", path)[1]["position"]["in_series"] == 3


def test_a_deleted_position_comes_back_with_its_readings(bench):
    keys = bench.made()
    reading = {"id": str(uuid.uuid4()), "what": "current", "text": "3.9mA", "burden": "5R"}
    assert bench("POST", f"positions/{keys['position']}/reading", reading)[0] == 204
    assert bench("DELETE", f"positions/{keys['position']}")[0] == 204
    assert bench("GET", f"positions/{keys['position']}")[0] == 404
    bench.undo(keys["equipment"])
    [kept] = bench("POST", f"positions/{keys['position']}/assess", {})[1]["report"]["diagnoses"]
    assert kept["reading"]["number"] == "3.9"


def test_deleted_equipment_comes_back_whole(bench):
    keys = bench.made()
    bench("DELETE", f"equipment/{keys['equipment']}")
    assert bench("GET", "bench")[1]["equipment"] == []
    bench.undo()
    item = bench("GET", f"equipment/{keys['equipment']}")[1]
    assert [r["name"] for r in item["rails"]] == ["Main"]
    assert [p["name"] for p in item["positions"]] == ["Ready"]


def test_a_refused_edit_saves_nothing(bench):
    keys = bench.made()
    status, answer = bench("PATCH", f"rails/{keys['rail']}", {"low": {"text": "25V"}})
    assert status == 422 and answer["errors"][0]["field"] == "low"
    assert bench("GET", f"equipment/{keys['equipment']}")[1]["rails"][0]["low"]["text"] == ""


def test_a_rail_in_use_is_not_deleted(bench):
    keys = bench.made()
    status, answer = bench("DELETE", f"rails/{keys['rail']}")
    assert status == 409 and "still feeds Ready" in answer["errors"][0]["message"]


def test_a_rail_reading_inks_the_rail(bench):
    keys = bench.made(rail="24V")
    path = f"positions/{keys['position']}"
    reading = {"id": str(uuid.uuid4()), "what": "rail_high", "text": "26.1V", "note": "200 V range"}
    assert bench("POST", f"{path}/reading", reading)[0] == 204
    rail = bench("GET", path)[1]["rail"]
    assert rail["high"] == {"text": "26.1V", "source": "measured", "note": "200 V range"}
    assert rail["echo"]["high"] == "26.1\u00a0V"


def test_a_remedy_is_tried_without_saving_and_taken(bench):
    keys = bench.made()
    path = f"positions/{keys['position']}"
    bench("PATCH", path, {"resistor": "470R"})
    report = bench("POST", f"{path}/assess", {})[1]["report"]
    found = next(f for f in report["findings"] if f["id"] == "over-rated-current")
    changes = found["remedies"][0]["changes"]
    tried = bench("POST", f"{path}/assess", {"changes": changes})[1]["report"]
    assert "over-rated-current" not in {f["id"] for f in tried["findings"]}
    assert bench("GET", path)[1]["position"]["resistor"] == "470R"
    bench("POST", f"{path}/take", {"changes": changes})
    after = bench("POST", f"{path}/assess", {})[1]["report"]
    assert after["sizing"]["each"] == {**tried["sizing"]["each"], "origin": "your own value"}


def test_the_report_has_the_shape_that_is_described(bench):
    from swapglow.api.schemas import ReportAnswer

    keys = bench.made()
    answer = bench("POST", f"positions/{keys['position']}/assess", {})[1]
    assert ReportAnswer.model_validate(answer).report.sizing.rounding == "next up, E24"


def test_a_position_is_written_as_spice_text_that_solves_to_its_report(bench):
    from swapglow.core.engine.run_deck import run_deck
    from swapglow.core.engine.spice import read_deck

    keys = bench.made()
    text = bench("GET", f"positions/{keys['position']}/spice")[1]["text"]
    report = bench("POST", f"positions/{keys['position']}/assess", {})[1]["report"]
    amps = -run_deck(read_deck(text))["op"]["i"]["vrail"]
    assert amps == pytest.approx(report["current"]["usual"]["value"], rel=1e-6)


def test_order_is_kept(bench):
    keys = bench.made()
    second = str(uuid.uuid4())
    bench(
        "PUT",
        f"positions/{second}",
        {"equipment": keys["equipment"], "name": "Second", "led_id": "red-chip", "target": {"text": "1mA"}},
    )
    ids = [second, keys["position"]]
    path = f"equipment/{keys['equipment']}/positions/move"
    assert bench("POST", path, {"key": second, "before": keys["position"]})[0] == 204
    assert [p["id"] for p in bench("GET", f"equipment/{keys['equipment']}")[1]["positions"]] == ids


def test_the_drawer_takes_values_as_people_write_them(bench):
    status, answer = bench("PATCH", "drawer", {"add": ["4k7", "470R", "4.7k"]})
    assert (status, answer, hand()) == (204, None, ["470\u00a0Ω", "4.7\u00a0kΩ"])
    status, answer = bench("PATCH", "drawer", {"add": ["1k", "blue"]})
    assert status == 422 and '"blue" is not a resistance' in answer["errors"][0]["message"]
    assert len(hand()) == 2


def test_an_error_page_for_what_is_gone(bench):
    status, answer = bench("GET", f"positions/{uuid.uuid4()}")
    assert (status, answer["errors"][0]["message"]) == (404, "That record is not here any more.")


@pytest.mark.parametrize("seen", [None, ""])
def test_an_empty_number_is_no_conflict_with_an_empty_field(bench, seen):
    """A lone user types the first count of a ready-made lamp: what the field showed was nothing."""
    path = f"positions/{bench.made()['position']}"
    assert bench("PATCH", path, {"band": "10-15V", "module": {"amps": "45mA"}})[0] == 200
    change = {"module": {"dice": 3}, "was": {"module": {"dice": seen}}}
    assert bench("PATCH", path, change)[0] == 200
    assert bench("GET", path)[1]["position"]["module"]["dice"] == 3
    # Somebody who saw nothing there, when three stood there, is told.
    status, answer = bench("PATCH", path, {"module": {"dice": 2}, "was": {"module": {"dice": seen}}})
    assert status == 409 and answer["errors"][0]["now"] == "3"
