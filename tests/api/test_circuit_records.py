"""Boards, strings, banks and power LEDs as they are kept: typed, refused, chosen, taken back, written out."""

import uuid

import pytest

from swapglow.core.circuits import CIRCUITS
from swapglow.records.models import Equipment
from tests.api.page import Bench

pytestmark = pytest.mark.django_db


def typed(text):
    return {"text": text, "source": "marked", "note": ""}


@pytest.fixture
def board():
    """A page, an item with a driver board of two sense resistors, and what the item answers."""
    bench, item = Bench(), str(uuid.uuid4())
    assert bench("PUT", f"equipment/{item}", {"name": "Lock keeper's hut"})[0] == 200
    one = {
        "name": "Ceiling",
        "kind": "sense_board",
        "details": {"sense_ohm": typed("75 ‖ 82"), "wanted": typed("50 %")},
    }
    assert bench("PATCH", f"equipment/{item}", {"fitted": {"b": one}})[0] == 200
    return bench, item, bench("GET", f"equipment/{item}")[1]


def test_what_is_typed_is_kept_and_worked_out(board):
    _, item, answer = board
    kept = Equipment.objects.get(pk=item).input.fitted["b"]
    assert (kept.name, kept.kind, kept.details["sense_ohm"].text) == ("Ceiling", "sense_board", "75 ‖ 82")
    assert answer["answers"]["b"]["problem"] == ""
    assert answer["answers"]["b"]["result"]["options"][0]["advised"]
    # 75 ‖ 82 Ω is 39.2 Ω.
    assert "39.2" in answer["answers"]["b"]["result"]["figures"][0]["now"]["origin"]


def test_a_detail_joins_those_there_and_a_line_that_is_struck_comes_back(board):
    bench, item, _ = board
    assert bench("PATCH", f"equipment/{item}", {"fitted": {"b": {"details": {"vref": typed("0.3V")}}}})[0] == 200
    kept = Equipment.objects.get(pk=item).input.fitted["b"]
    assert {k: d.text for k, d in kept.details.items()} == {"sense_ohm": "75 ‖ 82", "wanted": "50 %", "vref": "0.3V"}
    assert bench("PATCH", f"equipment/{item}", {"fitted": {"b": None}})[0] == 200
    assert Equipment.objects.get(pk=item).input.fitted == {}
    assert bench.undo(item)[0] == 200
    assert Equipment.objects.get(pk=item).input.fitted["b"].details["vref"].text == "0.3V"


@pytest.mark.parametrize(
    ("details", "field"),
    [({"vref": typed("high")}, "vref"), ({"read": typed("20")}, "read"), ({"board": typed("warm")}, "board")],
)
def test_a_figure_that_cannot_be_read_is_refused_at_its_field_and_nothing_changes(board, details, field):
    bench, item, _ = board
    status, answer = bench("PATCH", f"equipment/{item}", {"fitted": {"b": {"details": details}}})
    assert (status, answer["errors"][0]["field"]) == (422, f"fitted.b.details.{field}")
    assert field not in Equipment.objects.get(pk=item).input.fitted["b"].details


def test_what_is_missing_is_said_in_the_answer(board):
    bench, item, _ = board
    bench("PATCH", f"equipment/{item}", {"fitted": {"c": {"name": "New", "kind": "chip_bank"}}})
    assert bench("GET", f"equipment/{item}")[1]["answers"]["c"] == {
        "problem": "Type the volts that feed the banks, read with all of them lit.",
        "result": None,
    }
    status, _ = bench("PATCH", f"equipment/{item}", {"fitted": {"c": {"kind": "chandelier"}}})
    assert status == 422


def test_what_was_chosen_is_kept_and_what_comes_after_follows_it(board):
    bench, item, before = board
    ways = before["answers"]["b"]["result"]["options"]
    other = next(w for w in ways if not w["advised"] and not w["bars"])
    bench("PATCH", f"equipment/{item}", {"fitted": {"b": {"chosen": other["id"]}}})
    first = bench("GET", f"equipment/{item}")[1]["answers"]["b"]["result"]["figures"][0]
    assert first["after"]["value"] == pytest.approx(first["now"]["value"] * other["outcome"]["value"])
    assert Equipment.objects.get(pk=item).input.fitted["b"].chosen == other["id"]


def test_a_board_read_at_the_plug_takes_the_pencil_off_its_like(board):
    """4.8 W, 0.85 of it over 10 × 3.1 V: 132 mA flow in both, as their resistors are the same."""
    bench, item, answer = board
    assert answer["answers"]["b"]["result"]["figures"][0]["now"]["source"] == "assumed"
    read = {"plug": "4.8W", "count": "10", "each": "3.1V", "sense_ohm": "75 ‖ 82"}
    two = {"name": "Porch", "kind": "sense_board", "details": {k: typed(v) for k, v in read.items()}}
    more = {"b": {"details": {"count": typed("10")}}, "c": two}
    assert bench("PATCH", f"equipment/{item}", {"fitted": more})[0] == 200
    now = bench("GET", f"equipment/{item}")[1]["answers"]["b"]["result"]["figures"][0]["now"]
    assert (now["source"], now["value"]) == ("computed", pytest.approx(0.85 * 4.8 / 31, rel=5e-3))
    assert "Porch" in now["origin"]
    # Where the shop wants each by itself, it is in pencil again.
    assert bench("PATCH", "shop", {"learns": "own"})[0] == 200
    now = bench("GET", f"equipment/{item}")[1]["answers"]["b"]["result"]["figures"][0]["now"]
    assert now["source"] == "assumed"


def test_it_goes_out_and_comes_in_with_its_item(board):
    bench, item, _ = board
    out = bench("GET", f"equipment/{item}/document.json")[1]
    assert out["equipment"]["fitted"]["b"]["details"]["sense_ohm"]["text"] == "75 ‖ 82"
    assert bench("DELETE", f"equipment/{item}")[0] == 204
    assert bench.undo("")[0] == 200
    assert Equipment.objects.get(pk=item).input.fitted["b"].name == "Ceiling"


def test_every_kind_of_the_catalogue_says_how_it_is_known_and_what_must_not_be_done():
    kinds = Bench()("GET", "catalogue")[1]["fitted"]
    assert [k["id"] for k in kinds] == list(CIRCUITS)
    assert all(k["looks"] and k["never"] and k["details"] for k in kinds)
    mains = [k for k in kinds if k["id"] in ("sense_board", "dropper", "light_string")]
    assert all("qualified people" in k["never"].lower() for k in mains)


def test_a_lamps_circuit_is_begun_once_with_what_the_lamp_says():
    bench = Bench()
    keys = bench.made()
    lamp = {"lamp_id": "own", "lamp_volts": "12V", "lamp_amps": "0.2A", "second_job": "coil", "name": "Bell lamp"}
    assert bench("PATCH", f"positions/{keys['position']}", lamp)[0] == 200
    made = str(uuid.uuid4())
    for _ in range(2):
        assert bench("POST", f"positions/{keys['position']}/circuit", {"id": made, "kind": "coil"})[0] == 204
    fitted = Equipment.objects.get(pk=keys["equipment"]).input.fitted
    assert list(fitted) == [made]
    one = fitted[made]
    assert (one.kind, one.name) == ("coil", "Bell lamp")
    assert one.details["lamp_amps"].text.replace("\u00a0", " ") == "200 mA"
    status, answer = bench("POST", f"positions/{keys['position']}/circuit", {"id": str(uuid.uuid4()), "kind": "sun"})
    assert status == 422 and answer["errors"][0]["field"] == "kind"
    bench.undo(keys["equipment"])
    assert Equipment.objects.get(pk=keys["equipment"]).input.fitted == {}


@pytest.mark.parametrize("typed", [{"resistor": "222"}, {"trials": {"t": {"resistor": "4702"}}}])
def test_digits_that_may_be_a_chips_mark_are_asked_about_where_an_led_is_dimmed(db, typed):
    """222 off a chip is 2.2 kΩ (IEC 60062); a mark that is said, and bands, are taken."""
    bench = Bench()
    item = bench.made()["equipment"]
    status, answer = bench("PATCH", f"equipment/{item}", {"dims": {"a": {"name": "Clock", **typed}}})
    assert status == 422 and "chip's mark" in answer["errors"][0]["message"]
    assert answer["errors"][0]["field"].startswith("dims.a.")
    for text in ("mark 222", "222R", "red red red gold"):
        assert bench("PATCH", f"equipment/{item}", {"dims": {"a": {"name": "Clock", "resistor": text}}})[0] == 200
