"""The drawer over the wire: parts kept as typed, marks, what must be bought, parts taken out and laid back."""

import csv
import io
import uuid

import pytest

from swapglow.inputs.stock import PartInput
from swapglow.records import summaries
from swapglow.records.models import BenchLed, Position, StockPart
from tests.api.page import Bench, hand

pytestmark = pytest.mark.django_db

PART = {
    "kind": "resistor",
    "name": "",
    "resistance": "3k92",
    "capacitance": "",
    "stands": "",
    "tolerance": 0.01,
    "rating_w": 0.25,
    "series": "E96",
    "catalogue_id": "",
    "kept_in": "cabinet B, row 2",
    "level": "low",
    "count": 7,
    "least": 3,
    "pack": 50,
    "price": "2,50",
    "on_order": 50,
    "lot": "June",
}


def put(bench, **typed):
    key = str(uuid.uuid4())
    status, answer = bench("PUT", f"parts/{key}", typed)
    assert status == 200, answer
    return key


def count_of(key):
    return StockPart.objects.get(pk=key).inputs["count"]


def test_a_part_is_kept_as_typed_through_undo_redo_and_deletion():
    bench = Bench()
    assert PART.keys() == PartInput.model_fields.keys()
    key = put(bench, **PART)
    assert StockPart.objects.get().inputs == PART
    (answer,) = bench("GET", "drawer")[1]["parts"]
    assert {k: answer[k] for k in PART} == PART
    assert (answer["label"], answer["now"]) == ("3.92\u00a0kΩ, ¼ W, 1 %", "full")
    assert answer["marks"]["code"] == "58B" and answer["marks"]["chip"] == "3921"
    assert bench("PATCH", f"parts/{key}", {"count": 3, "kept_in": "box"})[1]["now"] == "low"
    assert bench("PATCH", f"parts/{key}", {"count": 0})[1]["now"] == "empty"
    assert hand() == []
    step = bench("GET", "drawer")[1]["steps"]["undo"]
    assert step["label"].startswith("edit 3.92")
    bench("DELETE", f"parts/{key}")
    assert bench("GET", "drawer")[1]["parts"] == []
    bench("POST", "undo", {"step": bench("GET", "drawer")[1]["steps"]["undo"]["id"]})
    assert StockPart.objects.get().inputs == {**PART, "count": 0, "kept_in": "box"}


@pytest.mark.parametrize(
    ("typed", "field", "says"),
    [
        ({"kind": "resistor"}, "resistance", "needs its value"),
        ({"kind": "capacitor"}, "capacitance", "needs its value"),
        ({"kind": "resistor", "resistance": "soon"}, "resistance", "not a resistance"),
        ({"kind": "lamp", "catalogue_id": "no-such"}, "catalogue_id", "no-such"),
        ({"kind": "sundry", "price": "much"}, "price", "is no price"),
        ({"kind": "resistor", "resistance": "1e12"}, "resistance", "between 1 mΩ and 1 GΩ"),
    ],
)
def test_what_is_no_part_is_refused_at_its_field(typed, field, says):
    status, answer = Bench()("PUT", f"parts/{uuid.uuid4()}", typed)
    assert (status, answer["errors"][0]["field"]) == (422, field)
    assert says in answer["errors"][0]["message"]
    assert StockPart.objects.count() == 0


def test_catalogue_parts_are_offered_and_taken_in_one_step():
    bench = Bench()
    offered = bench("GET", "drawer")[1]["offered"]
    assert set(offered) == {"lamp", "module", "regulator"}
    assert {"id": "slide-24", "label": "Telephone slide 24 V, telephone slide"} in offered["lamp"]
    put(bench, kind="lamp", catalogue_id="slide-24")
    assert bench("GET", "drawer")[1]["parts"][0]["label"] == "Telephone slide 24 V, telephone slide"


def test_the_picture_shows_what_is_full_low_empty_and_missing():
    bench = Bench()
    put(bench, resistance="4k7", level="full")
    put(bench, resistance="390R", level="low")
    put(bench, resistance="390R", count=0)
    put(bench, resistance="82R", level="empty")
    put(bench, resistance="3k92", count=4)
    picture = bench("GET", "drawer")[1]["picture"]
    cells = {c["text"].replace("\u00a0", " "): c for d in picture["decades"] for c in d["compartments"]}
    assert [len(d["compartments"]) for d in picture["decades"]] == [12, 12, 12, 12]
    states = {k: cells[k]["state"] for k in ("4.7 kΩ", "390 Ω", "82 Ω", "1 kΩ")}
    assert states == {"4.7 kΩ": "full", "390 Ω": "low", "82 Ω": "empty", "1 kΩ": "missing"}
    assert cells["390 Ω"]["said"] == "low, 0 there"
    assert [(c["text"].replace("\u00a0", " "), c["said"]) for c in picture["others"]] == [("3.92 kΩ", "full, 4 there")]
    assert picture["line"] == "4 values, 1 low, 1 empty."
    assert [len(d["compartments"]) for d in bench("GET", "drawer?series=E24")[1]["picture"]["decades"]] == [24] * 4


def test_marks_are_read_and_written():
    bench = Bench()
    (one,) = bench("GET", "marks/read?kind=bands&text=yellow violet red gold")[1]["read"]
    assert (one["text"], one["said"]) == ("4.7\u00a0kΩ", "±5 %")
    perhaps = bench("GET", "marks/read?kind=bands&text=yellow violet red%3F gold&expected=500R")[1]["read"]
    assert [p["text"].replace("\u00a0", " ") for p in perhaps] == ["470 Ω", "4.7 kΩ", "47 kΩ"]
    (odd,) = bench("GET", "marks/read?kind=bands&text=violet black brown gold")[1]["read"]
    assert odd["said"] == "±5 %, no value that is made: look again, or from the other end"
    (chip,) = bench("GET", "marks/read?kind=chip&text=01C")[1]["read"]
    assert (chip["text"], chip["marks"]["bands"]) == ("10\u00a0kΩ", ["brown", "black", "black", "red", "brown"])
    (farads,) = bench("GET", "marks/read?kind=capacitor&text=104K")[1]["read"]
    assert farads["text"] == "100\u00a0nF"
    assert farads["said"].replace("\u00a0", " ") == "±10 %, 90 nF to 110 nF; also written 104 or 100n"
    assert bench("GET", "marks/write?kind=bands&value=4k7")[1]["marks"]["bands"] == ["yellow", "violet", "red", "gold"]
    assert bench("GET", "marks/write?kind=capacitor&value=4.7nF")[1]["code"] == "472"
    for what, says in (
        ("read?kind=bands&text=gold red red", "is no digit"),
        ("read?kind=chip&text=%3F%3F", "is on no chip"),
        ("read?kind=bands&text=4k7", "Bands are colours"),
        ("write?kind=bands&value=1.23456k", "too many digits"),
        ("read?kind=capacitor&text=107", "no power of ten"),
    ):
        status, answer = bench("GET", f"marks/{what}")
        assert status == 422 and says in answer["errors"][0]["message"]


def test_what_is_not_there_is_made_and_judged_in_its_lamp(demo):
    """3.3 kΩ fits the lamp; one of three times its current, made of what is there, is forbidden and comes last."""
    bench = Bench()
    p = Position.objects.get(inputs__name="Wind hold")
    StockPart.objects.all().delete()
    for value in ("1k5", "1k8", "150R"):
        put(bench, resistance=value)
    made = bench("GET", f"drawer/made?ohm=3k3&position={p.pk}")[1]["made"]
    assert made[0]["parts"] == ["1.5\u00a0kΩ", "1.8\u00a0kΩ"] and made[0]["way"] == "one after the other"
    assert (made[0]["error"], made[0]["grade"]) == ("0 %", "fits")
    assert made[0]["current"].count(",") == 2
    small = bench("GET", f"drawer/made?ohm=75R&position={p.pk}")[1]["made"]
    assert small[0]["parts"] == ["150\u00a0Ω", "150\u00a0Ω"] and small[0]["grade"] == "stop" and small[0]["why"]
    assert bench("GET", "drawer/made?ohm=75R")[1]["made"][0]["grade"] == ""
    assert bench("GET", "drawer/made?ohm=none")[0] == 422


def first_lamp():
    """A lamp of the demo that is on trial, with what it takes."""
    return Position.objects.get(inputs__name="Wind hold")


def test_parts_are_counted_down_by_the_build_and_put_back_by_undo(demo):
    bench = Bench()
    p = first_lamp()
    StockPart.objects.all().delete()
    BenchLed.objects.all().delete()
    ohms = bench("POST", f"positions/{p.pk}/assess", {"changes": {}})[1]["report"]["needs"]
    (resistor,) = [n for n in ohms if n["kind"] == "resistor"]
    (led,) = [n for n in ohms if n["kind"] == "led"]
    key = put(bench, resistance=f"{resistor['ohm']:g}R", count=10, kept_in="box 2")
    bag = str(uuid.uuid4())
    assert bench("PUT", f"leds/{bag}", {"name": "Bag", "led_id": led["of"], "count": 5})[0] == 200
    drawn = bench("GET", f"positions/{p.pk}/drawer")[1]
    assert any(f"{10 - resistor['count']} left" in line for line in drawn["lines"])
    assert drawn["short"] and all("Sleeve" in s for s in drawn["short"])
    assert bench("PATCH", f"positions/{p.pk}", {"steps": {"take": {"done": True}}})[0] == 200
    assert count_of(key) == 10 - resistor["count"]
    assert BenchLed.objects.get(pk=bag).inputs["count"] == 5 - led["count"]
    assert Position.objects.get(pk=p.pk).inputs["steps"]["take"]["drawn"] == {key: resistor["count"], bag: led["count"]}
    # Ticked twice it is taken once.
    bench("PATCH", f"positions/{p.pk}", {"steps": {"take": {"done": True}}})
    assert count_of(key) == 10 - resistor["count"]
    step = bench("GET", f"positions/{p.pk}")[1]["steps"]["undo"]["id"]
    assert bench("POST", "undo", {"step": step})[0] == 200
    assert count_of(key) == 10 and BenchLed.objects.get(pk=bag).inputs["count"] == 5
    # By the tick itself, too; what came in meanwhile stays.
    bench("PATCH", f"positions/{p.pk}", {"steps": {"take": {"done": True}}})
    bench("PATCH", f"parts/{key}", {"count": 30})
    bench("PATCH", f"positions/{p.pk}", {"steps": {"take": {"done": False}}})
    assert count_of(key) == 30 + resistor["count"]
    assert Position.objects.get(pk=p.pk).inputs["steps"]["take"]["drawn"] == {}


def test_what_must_be_bought_is_ordered_and_comes_in(demo):
    bench = Bench()
    StockPart.objects.all().delete()
    lines = {line["label"]: line for line in bench("GET", "buying")[1]["lines"]}
    line = next(x for x in lines.values() if x["kind"] == "resistor")
    assert line["buy"] == line["needed"] + line["spare"] and line["have"] == 0
    assert bench("POST", "buying/ordered", {"key": line["key"]})[0] == 204
    record = StockPart.objects.get()
    assert (record.inputs["count"], record.inputs["on_order"]) == (0, line["buy"])
    now = next(x for x in bench("GET", "buying")[1]["lines"] if x["key"] == line["key"])
    assert (now["buy"], now["on_order"], now["part"]) == (0, line["buy"], str(record.pk))
    status, answer = bench("POST", "buying/ordered", {"key": line["key"]})
    assert status == 422 and "on its way already" in answer["errors"][0]["message"]
    assert bench("POST", "buying/came", {"key": line["key"]})[0] == 204
    record.refresh_from_db()
    assert (record.inputs["count"], record.inputs["on_order"], record.inputs["level"]) == (line["buy"], 0, "full")
    assert line["key"] not in [x["key"] for x in bench("GET", "buying")[1]["lines"]]
    assert bench("POST", "buying/came", {"key": line["key"]})[0] == 422
    bench("POST", "undo", {"step": bench("GET", "drawer")[1]["steps"]["undo"]["id"]})
    record.refresh_from_db()
    assert (record.inputs["count"], record.inputs["on_order"]) == (0, line["buy"])


def test_done_lamps_taken_parts_and_archived_items_ask_for_nothing(demo):
    bench = Bench()
    StockPart.objects.all().delete()
    BenchLed.objects.all().delete()
    p = first_lamp()
    mine = f"{p.equipment}: {p}"

    def asks():
        return any(mine in line["lamps"] for line in bench("GET", "buying")[1]["lines"])

    assert asks()
    bench("PATCH", f"positions/{p.pk}", {"stage": "fitted"})
    assert not asks()
    bench("PATCH", f"positions/{p.pk}", {"stage": "trial", "steps": {"take": {"done": True}}})
    assert not asks()
    bench("PATCH", f"positions/{p.pk}", {"steps": {"take": {"done": False}}})
    assert asks()
    bench("PATCH", f"equipment/{p.equipment_id}", {"archived": True})
    assert not asks()


def test_the_drawer_goes_out_as_csv_and_comes_in_again():
    bench = Bench()
    put(bench, **PART)
    put(bench, kind="sundry", name="=sleeve", kept_in="hook")
    text = bench.raw("drawer.csv")[1].decode()
    rows = list(csv.reader(io.StringIO(text)))
    assert rows[1][:3] == ["resistor", "", "3k92"] and rows[2][1] == "'=sleeve"
    assert bench.send("drawer/csv/look", "d.csv", text.encode())[1]["lines"] == [
        "2 are here as they stand in the file."
    ]
    changed = text.replace("cabinet B, row 2", "cabinet C") + "capacitor,,,100nF,,,,,,,full,,,,,,,\r\n"
    assert bench.send("drawer/csv/look", "d.csv", changed.encode())[1]["lines"] == [
        "1 would be added.",
        "1 would be changed.",
        "1 are here as they stand in the file.",
    ]
    assert StockPart.objects.count() == 2
    assert bench.send("drawer/csv", "d.csv", changed.encode())[0] == 200
    assert [p.inputs["kept_in"] for p in StockPart.objects.all()] == ["cabinet C", "hook", ""]
    assert StockPart.objects.all()[1].inputs["name"] == "=sleeve"
    bench("POST", "undo", {"step": bench("GET", "drawer")[1]["steps"]["undo"]["id"]})
    assert StockPart.objects.all()[0].inputs == PART and StockPart.objects.count() == 2


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("resistance\n1k\n", "kind among them"),
        ("kind,shade\nresistor,red\n", '"shade" is no column'),
        ("kind,resistance\nresistor,\n", "line 2: A resistor needs its value"),
        ("kind,resistance,count\nresistor,1k,many\n", 'line 2: "many" is no number for count'),
        ("kind,resistance\nwizard,1k\n", "line 2: kind"),
        ("", "kind among them"),
    ],
)
def test_a_file_that_is_wrong_changes_nothing_and_says_where(text, says):
    status, answer = Bench().send("drawer/csv", "d.csv", text.encode())
    assert status == 422 and says in answer["errors"][0]["message"]
    assert StockPart.objects.count() == 0


def test_a_size_follows_the_drawer_of_whoever_weighs_it(demo):
    bench = Bench()
    StockPart.objects.all().delete()
    p = first_lamp()

    def each():
        report = bench("POST", f"positions/{p.pk}/assess", {"changes": {}})[1]["report"]
        return report["sizing"]["each"]["value"]

    was = each()
    key = put(bench, resistance=f"{was * 1.5:.4g}R")
    assert each() == was
    assert bench("PATCH", f"positions/{p.pk}", {"weigh": {"stock": True}})[0] == 200
    assert each() == pytest.approx(was * 1.5)
    assert summaries.refresh()
    assert Position.objects.get(pk=p.pk).summary.data["ohm"] == pytest.approx(was * 1.5)
    # Taken out, the lamp that follows is worked out anew, and no other.
    bench("PATCH", f"parts/{key}", {"level": "empty"})
    assert summaries.refresh()
    assert each() == was and Position.objects.get(pk=p.pk).summary.data["ohm"] == was
