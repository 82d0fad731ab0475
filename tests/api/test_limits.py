"""The same limits and rules on whatever way something comes in, and what is said where the machine refuses."""

import json
import logging
import uuid

import pytest
from django.conf import settings
from django.db import connection
from django.test import Client

from swapglow.inputs import limits
from swapglow.records import readings_csv
from swapglow.records.models import Equipment, Position, ReadingAfter, Sent
from swapglow.web.log import WithoutWords
from tests.api.page import Bench

pytestmark = pytest.mark.django_db


@pytest.fixture
def bench():
    return Bench()


@pytest.fixture
def few(monkeypatch):
    """Limits that can be reached."""
    import swapglow.records.limits as kept

    for name, most in (("RAILS", 2), ("POSITIONS", 2), ("READINGS", 2), ("EQUIPMENT", 2), ("PARTS", 2)):
        monkeypatch.setattr(kept, f"MOST_{name}", most)


TOO_MANY = {f"d{n}": {"text": "1"} for n in range(limits.MOST_DETAILS + 1)}


def says(answer):
    status, body = answer
    return status, body["errors"][0]["message"] if body and "errors" in body else body


def test_no_more_comes_in_by_the_api_than_goes_out(bench, few):
    keys = bench.made()
    e, p = keys["equipment"], keys["position"]
    rail = {"equipment": e, "usual": {"text": "9V"}}
    lamp = {"equipment": e, "name": "Another", "led_id": "red-chip", "target": {"text": "1mA"}}
    assert bench("PUT", f"rails/{uuid.uuid4()}", rail)[0] == 200
    assert says(bench("PUT", f"rails/{uuid.uuid4()}", rail))[1].startswith("An item takes 2 supply rails.")
    assert bench("PUT", f"positions/{uuid.uuid4()}", lamp)[0] == 200
    assert says(bench("PUT", f"positions/{uuid.uuid4()}", lamp))[1].startswith("An item takes 2 lamps.")
    reading = {"position": p, "kind": "current", "text": "4mA"}
    for _ in range(2):
        assert bench("PUT", f"readings/after/{uuid.uuid4()}", reading)[0] == 200
    said = says(bench("PUT", f"readings/after/{uuid.uuid4()}", reading))
    assert said == (422, "A lamp takes 2 readings after the swap. There are 2: delete some first.")
    typed = {"id": str(uuid.uuid4()), "what": "current", "text": "4mA"}
    assert says(bench("POST", f"positions/{p}/reading", typed)) == said
    assert bench("PUT", f"equipment/{uuid.uuid4()}", {})[0] == 200
    assert says(bench("PUT", f"equipment/{uuid.uuid4()}", {}))[1].startswith("The bench takes 2 items.")
    assert says(bench("PATCH", "drawer", {"add": ["1k", "2k", "3k"]}))[1].startswith("The drawer takes 2 parts.")


def test_no_more_comes_in_by_csv_than_by_the_api(bench, few):
    keys = bench.made()
    head = ",".join(readings_csv.files.HEADING)
    lines = [f"Ready,after,current,{n}mA,,,,,,," for n in (4, 5, 6)]
    answer = bench.send(f"equipment/{keys['equipment']}/readings", "a.csv", "\r\n".join([head, *lines]).encode())
    assert says(answer)[1].startswith("A lamp takes 2 readings after the swap.")
    assert not ReadingAfter.objects.exists()


def test_undo_brings_back_no_more_than_there_is_room_for(bench, few):
    keys = bench.made()
    reading = {"position": keys["position"], "kind": "current", "text": "4mA"}
    first = str(uuid.uuid4())
    bench("PUT", f"readings/after/{first}", reading)
    bench("DELETE", f"readings/after/{first}")
    deleted = bench.step(keys["equipment"])["id"]
    for _ in range(2):
        bench("PUT", f"readings/after/{uuid.uuid4()}", reading)
    assert "A lamp takes 2 readings" in says(bench("POST", "undo", {"step": deleted}))[1]
    assert ReadingAfter.objects.count() == 2


@pytest.mark.parametrize(
    ("path", "body", "field"),
    [
        ("position", {"driver_details": TOO_MANY}, "driver_details"),
        ("position", {"rating_w": 1e15}, "rating_w"),
        ("position", {"shunt_w": 1e15}, "shunt_w"),
        ("position", {"in_series": 10**9}, "in_series"),
        ("position", {"name": "  "}, "name"),
        ("position", {"name": "a\u0000b"}, "name"),
        ("position", {"name": "two\nlines"}, "name"),
        ("position", {"notes": "ring\u0007"}, "notes"),
        ("position", {"weigh": {"luck": True}}, "weigh"),
        ("equipment", {"owner": "x" * 201}, "owner"),
        ("equipment", {"name": "\u200b"}, "name"),
        ("rail", {"details": TOO_MANY}, "details"),
    ],
)
def test_what_could_not_go_out_again_does_not_come_in(bench, path, body, field):
    keys = bench.made()
    plural = {"position": "positions", "equipment": "equipment", "rail": "rails"}[path]
    before = bench.raw(f"equipment/{keys['equipment']}/document.json")[1]
    status, answer = bench("PATCH", f"{plural}/{keys[path]}", body)
    assert status == 422
    assert answer["errors"][0]["field"].startswith(field)
    assert bench.raw(f"equipment/{keys['equipment']}/document.json")[1] == before


def test_details_sent_one_by_one_are_counted_together(bench):
    keys = bench.made()
    statuses = [
        bench("PATCH", f"positions/{keys['position']}", {"driver_details": {f"d{n}": {"text": "1"}}})[0]
        for n in range(limits.MOST_DETAILS + 1)
    ]
    assert statuses == [200] * limits.MOST_DETAILS + [422]
    content = bench.raw(f"equipment/{keys['equipment']}/document.json")[1]
    assert bench.send("import/look", "a.json", content)[0] == 200


@pytest.mark.parametrize(
    "changes",
    [
        {"resistor_ohm": "lots"},
        {"resistor_ohm": True},
        {"in_series": "two"},
        {"in_series": 1.5},
        {"in_series": None},
        {"led_id": 7},
        {"module_id": None},
        {"target": "5mA"},
        {"shunt_across": 3},
        {"driver.trip": "x"},
        {"rail": 5},
        {"led": "red"},
        {"nonsense": 1},
    ],
)
@pytest.mark.parametrize("way", ["assess", "take"])
def test_a_change_of_the_wrong_kind_is_refused_by_name(bench, changes, way):
    keys = bench.made()
    status, answer = bench("POST", f"positions/{keys['position']}/{way}", {"changes": changes})
    assert status == 422, answer
    assert answer["errors"][0]["message"]


def test_a_caption_that_is_too_long_is_refused_and_not_cut(bench):
    from tests.hostile.make import jpeg

    keys = bench.made()
    photo = str(uuid.uuid4())
    bench.send(f"equipment/{keys['equipment']}/photos/{photo}", "a.jpg", jpeg())
    status, answer = bench("PATCH", f"photos/{photo}", {"caption": "x" * 201})
    assert (status, answer["errors"][0]["message"]) == (422, "200 characters are the most that is kept here.")


# --- what the machine refuses ----------------------------------------------------------------------


@pytest.mark.django_db(transaction=True)
def test_a_full_disk_is_said_and_nothing_is_half_saved(bench):
    keys = bench.made()
    with connection.cursor() as cursor:
        # Pages that tests before this one have left free are given back first.
        cursor.execute("VACUUM")
        [pages] = cursor.execute("PRAGMA page_count").fetchone()
        cursor.execute(f"PRAGMA max_page_count = {pages}")
        try:
            answer = says(bench("PATCH", f"equipment/{keys['equipment']}", {"notes": "𝄞" * 20_000}))
        finally:
            cursor.execute("PRAGMA max_page_count = 1073741823")
    assert answer == (507, "The disk is full: nothing was saved. Make room, then save it again.")
    assert Equipment.objects.get().input.notes == ""


@pytest.mark.django_db(transaction=True)
def test_a_database_that_cannot_be_written_is_said(bench):
    keys = bench.made()
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA query_only = ON")
        try:
            status, said = says(bench("PATCH", f"equipment/{keys['equipment']}", {"notes": "x"}))
        finally:
            cursor.execute("PRAGMA query_only = OFF")
    assert status == 507
    assert said.startswith("The database cannot be written to: nothing was saved.")


def test_a_fault_of_ours_is_logged_with_where_and_without_what_was_typed(bench, monkeypatch, tmp_path):
    handler = logging.FileHandler(tmp_path / "log")
    handler.setFormatter(WithoutWords("%(levelname)s %(name)s %(message)s"))
    log = logging.getLogger("swapglow")
    log.addHandler(handler)
    keys = bench.made()

    def breaks(*_):
        raise RuntimeError("the owner's private note")

    monkeypatch.setattr("swapglow.api.serializers.position_of", breaks)
    try:
        status, answer = bench("PATCH", f"positions/{keys['position']}", {"notes": "another private note"})
    finally:
        log.removeHandler(handler)
        handler.close()
    assert says((status, answer)) == (500, "Swap Glow failed at this. Nothing was saved; what happened is in its log.")
    [line] = (tmp_path / "log").read_text().splitlines()
    written = json.loads(line)
    assert written["route"] == "api/positions/<key>"
    assert "in breaks" in written["exc_info"]
    assert "RuntimeError" in written["exc_info"]
    assert "private" not in line
    assert keys["position"] not in line
    assert Position.objects.get().input.notes == ""


def test_a_slow_answer_is_logged_by_its_route(monkeypatch, caplog):
    monkeypatch.setattr("swapglow.web.watch.SLOW_S", 0.0)
    logging.getLogger("swapglow").propagate = True
    with caplog.at_level(logging.WARNING, "swapglow.slow"):
        Client(SERVER_NAME="127.0.0.1").get("/api/drawer")
    [record] = caplog.records
    assert (record.message, record.route, record.status) == ("a slow answer", "api/drawer", 200)


def test_the_log_is_turned_over_before_it_fills_the_disk():
    handler = settings.LOGGING["handlers"]["file"]
    assert handler["class"] == "logging.handlers.RotatingFileHandler"
    assert handler["maxBytes"] * (handler["backupCount"] + 1) <= 10_000_000


def test_far_too_much_text_is_refused_in_our_words(bench):
    keys = bench.made()
    status, said = says(bench("PATCH", f"equipment/{keys['equipment']}", {"name": "x" * 300_000}))
    assert (status, said[:29]) == (413, "That is far more text than is")


def test_an_address_that_there_is_not_is_answered_in_our_shape(bench):
    assert says(bench("GET", "nothing/here")) == (404, "There is nothing at this address.")


def test_a_refused_save_leaves_no_answer_behind_and_a_taken_one_does(bench):
    keys = bench.made()
    path = f"/api/equipment/{keys['equipment']}"
    for body, status, kept in (({"name": ""}, 422, 0), ({"name": "New"}, 200, 1)):
        key = str(uuid.uuid4())
        answer = bench.client.patch(
            path, json.dumps(body), content_type="application/json", headers={"X-CSRFToken": "a" * 32, "X-Save": key}
        )
        assert answer.status_code == status
        assert Sent.objects.filter(pk=key).count() == kept
