"""Texts that no longer read: they stay in sight as typed, and nothing else of their record is lost."""

import copy
import json

import pytest

from swapglow.records.models import Equipment, Position, Rail
from tests.api.page import Bench

pytestmark = pytest.mark.django_db


@pytest.fixture
def bench():
    return Bench()


def spoil(model, key, path, text, column="inputs"):
    """Put a text into a kept record, as an earlier version or another program could have."""
    record = model.objects.get(pk=key)
    whole = copy.deepcopy(getattr(record, column))
    place = whole
    for part in path[:-1]:
        place = place[part]
    place[path[-1]] = text
    model.objects.filter(pk=key).update(**{column: whole})


def document_of(bench, keys):
    return json.loads(bench.raw(f"equipment/{keys['equipment']}/document.json")[1])


SPOILT = [
    (Equipment, "equipment", "inputs", ("promised",), "soon"),
    (Equipment, "equipment", "take_in", ("feasibility", "price"), "about 10"),
    (Equipment, "equipment", "take_in", ("feasibility", "hours"), "a week"),
    (Equipment, "equipment", "take_in", ("feasibility", "access"), "crowbar"),
    (Rail, "rail", "inputs", ("kind",), "wind"),
    (Rail, "rail", "inputs", ("usual", "text"), "some volts"),
    (Position, "position", "inputs", ("target", "text"), "20"),
    (Position, "position", "inputs", ("stage",), "halfway"),
    (Position, "position", "inputs", ("look_again",), "in spring"),
    (Position, "position", "inputs", ("sweep",), "3 V"),
]


@pytest.mark.parametrize(("model", "which", "column", "path", "text"), SPOILT)
def test_a_text_that_no_longer_reads_is_shown_with_the_question(bench, model, which, column, path, text):
    keys = bench.made()
    spoil(model, keys[which], path, text, column)
    for view in (f"equipment/{keys['equipment']}", f"positions/{keys['position']}", "bench", "day", "buying"):
        assert bench("GET", view)[0] == 200, view
    item, lamp = (bench("GET", f"equipment/{keys['equipment']}")[1], bench("GET", f"positions/{keys['position']}")[1])
    unread = [*item["unread"], *item["take_in"]["unread"], *item["rails"][0]["unread"], *lamp["position"]["unread"]]
    asked = {u["field"]: u for u in unread}
    named = ".".join(path).removesuffix(".text")
    assert asked[named]["text"] == text
    assert asked[named]["message"]


@pytest.mark.parametrize(("model", "which", "column", "path", "text"), SPOILT)
def test_the_rest_of_its_record_can_be_changed_and_the_text_stays(bench, model, which, column, path, text):
    keys = bench.made()
    spoil(model, keys[which], path, text, column)
    for url, change in (
        (f"equipment/{keys['equipment']}", {"notes": "both dials"}),
        (f"equipment/{keys['equipment']}/take-in", {"dark": "the left one"}),
        (f"rails/{keys['rail']}", {"name": "Heater winding"}),
        (f"positions/{keys['position']}", {"notes": "sleeve first"}),
    ):
        status, answer = bench("PATCH", url, change)
        assert status == 200, (url, answer)
    whole = getattr(model.objects.get(pk=keys[which]), column)
    for part in path:
        whole = whole[part]
    assert whole == text


def test_the_field_itself_is_still_refused_what_does_not_read(bench):
    keys = bench.made()
    spoil(Position, keys["position"], ("target", "text"), "20")
    status, answer = bench("PATCH", f"positions/{keys['position']}", {"target": {"text": "30"}})
    assert (status, answer["errors"][0]["field"]) == (422, "target")
    status, answer = bench("PATCH", f"positions/{keys['position']}", {"rated": "a lot"})
    assert (status, answer["errors"][0]["field"]) == (422, "rated")
    assert bench("PATCH", f"positions/{keys['position']}", {"target": {"text": "3mA"}})[0] == 200
    assert bench("GET", f"positions/{keys['position']}")[1]["position"]["unread"] == []


def _price(e):
    e["take_in"]["feasibility"]["price"] = "about 10"


def _hours(e):
    e["take_in"]["feasibility"]["hours"] = "ages"


def _dim(e):
    e["dims"] = {"a": {"name": "Too bright", "resistor": "a big one"}}


def _circuit(e):
    e["fitted"] = {"a": {"name": "Board", "kind": "sense_board", "details": {"volts": {"text": "plenty"}}}}


def _live_reading(e):
    e["positions"][0]["mains"] = True
    e["positions"][0]["readings_after"] = [
        {"id": "00000000-0000-4000-8000-000000000001", "kind": "current", "text": "8mA"}
    ]


def _live_reading_before(e):
    e["positions"][0]["mains"] = True
    e["positions"][0]["readings_before"] = [
        {"id": "00000000-0000-4000-8000-000000000002", "function": "ac_volts", "text": "6.1V"}
    ]


@pytest.mark.parametrize(
    ("spoilt", "place"),
    [
        (_price, "take_in.feasibility.price"),
        (_hours, "take_in.feasibility.hours"),
        (_dim, "dims.a.resistor"),
        (_live_reading, "readings_after.0.position"),
        (_live_reading_before, "readings_before.0.position"),
    ],
)
def test_what_the_form_refuses_a_document_refuses(bench, spoilt, place):
    keys = bench.made()
    whole = document_of(bench, keys)
    spoilt(whole["equipment"])
    status, answer = bench.send("import/look", "a.json", json.dumps(whole).encode())
    assert status == 422
    assert place in answer["errors"][0]["field"]


def test_a_preview_says_what_would_really_change(bench):
    keys = bench.made()
    whole = document_of(bench, keys)
    content = json.dumps(whole).encode()
    look = bench.send("import/look", "a.json", content)[1]
    assert "exactly as in the file: nothing would change" in " ".join(look["lines"])
    whole["equipment"]["positions"][0]["notes"] = "another"
    look = bench.send("import/look", "a.json", json.dumps(whole).encode())[1]
    assert "1 lamp would change, 0 stay as they are" in " ".join(look["lines"])


def test_a_preview_says_when_only_a_copy_can_come_in(bench):
    keys = bench.made()
    whole = document_of(bench, keys)
    whole["equipment"]["id"] = "00000000-0000-4000-8000-00000000000a"
    content = json.dumps(whole).encode()
    look = bench.send("import/look", "a.json", content)[1]
    assert look["copy_only"]
    assert "Bring it in as a copy." in " ".join(look["lines"])
    assert bench.send("import", "a.json", content)[0] == 422
    assert bench.send("import", "a.json", content, as_copy="true")[0] == 200


def test_a_document_of_a_later_version_is_refused_with_a_sentence(bench):
    keys = bench.made()
    whole = document_of(bench, keys) | {"version": 9}
    status, answer = bench.send("import/look", "a.json", json.dumps(whole).encode())
    assert status == 422
    assert "later version of Swap Glow" in answer["errors"][0]["message"]


@pytest.mark.parametrize("path", ["day", "day.ics"])
@pytest.mark.parametrize("begins", ["9999-12-31 23:59", "0001-01-01 00:00"])
def test_a_day_at_the_end_of_time_is_refused(bench, path, begins):
    status, content, _ = bench.raw(f"{path}?begins={begins}")
    assert status == 422
    assert "out of range" in json.loads(content)["errors"][0]["message"]


def test_a_file_without_its_boundary_is_asked_for_again(bench):
    keys = bench.made()
    for path in ("import", "import/look", "drawer/csv", "bench/whole", f"equipment/{keys['equipment']}/readings"):
        answer = bench.client.generic(
            "POST", f"/api/{path}", b"x", content_type="multipart/form-data", headers={"X-CSRFToken": "a" * 32}
        )
        assert (answer.status_code, b"did not arrive whole" in answer.content) == (400, True), path


@pytest.mark.parametrize("kind", ["winding", "stator", "reversing", "digital"])
def test_the_budget_of_a_rail_without_lamps_is_nothing(bench, kind):
    keys = bench.made()
    body = {"equipment": keys["equipment"], "name": "Spare", "kind": kind, "usual": {"text": "12V"}}
    key = "00000000-0000-4000-8000-00000000000b"
    assert bench("PUT", f"rails/{key}", body)[0] == 200
    status, budget = bench("GET", f"rails/{key}/budget")
    assert (status, budget["taken"], budget["after"]["value"]) == (200, [], 0.0)


def test_answers_of_saves_are_short_and_kept_for_a_day(demo):
    import uuid
    from datetime import timedelta

    from django.utils import timezone

    from swapglow.records import upkeep
    from swapglow.records.models import Sent

    bench = Bench()
    item = str(Equipment.objects.exclude(inputs__fitted={}).first().pk)
    for method, path, body in (("PATCH", "drawer", {"add": ["1k21"]}), ("PATCH", f"equipment/{item}", {"notes": "x"})):
        key = str(uuid.uuid4())
        first = bench.client.generic(
            method,
            f"/api/{path}",
            json.dumps(body),
            content_type="application/json",
            headers={"X-CSRFToken": "a" * 32, "X-Save": key},
        )
        again = bench.client.generic(
            method,
            f"/api/{path}",
            json.dumps(body),
            content_type="application/json",
            headers={"X-CSRFToken": "a" * 32, "X-Save": key},
        )
        assert (first.status_code, first.content) == (again.status_code, again.content)
        assert len(Sent.objects.get(pk=key).body) < 9_000, path
    Sent.objects.update(at=timezone.now() - timedelta(hours=25))
    upkeep.let_go()
    assert not Sent.objects.exists()


def test_nothing_between_keeps_an_answer(bench):
    _, _, headers = bench.raw("bench")
    assert headers["Cache-Control"] == "no-store"
