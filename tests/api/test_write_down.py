"""What is written down: the build, the log and its moments, the code on paper, what comes back by itself."""

import datetime
import uuid

import pytest

from swapglow.document.compact import HEAD, compact, expanded
from swapglow.records import transfer
from swapglow.records.models import Equipment, Position, Shop
from tests.api.page import Bench


@pytest.fixture
def bench(transactional_db):
    return Bench()


@pytest.fixture
def lamp(demo):
    return Position.objects.get(inputs__name="Wind hold")


def test_a_lamp_goes_onto_paper_and_comes_back_whole(bench, lamp):
    """All that was typed of it and of its rail; it comes in beside its own item and not over it."""
    text = compact(transfer.to_document(lamp.equipment, photographs=False), lamp.pk)
    assert text.startswith(HEAD)
    before = Equipment.objects.count()
    # A reader of codes breaks lines where it likes.
    torn = "\n".join(text[k : k + 60] for k in range(0, len(text), 60)).encode()
    looked = bench.send("import/look", "code.txt", torn)
    assert (
        looked[0] == 200 and looked[1]["replaces"] == "" and looked[1]["lines"][0].startswith("1 supply rail, 1 lamp")
    )
    assert bench.send("import", "code.txt", torn)[0] == 200
    assert Equipment.objects.count() == before + 1
    made = Position.objects.exclude(pk=lamp.pk).get(inputs__name="Wind hold")
    assert made.inputs == lamp.inputs
    assert made.rail.inputs == lamp.rail.inputs
    # Read again it is known.
    assert bench.send("import/look", "code.txt", torn)[1]["replaces"] == lamp.equipment.input.name


@pytest.mark.parametrize(
    "text",
    [
        b"SWAPGLOW1:",
        b"SWAPGLOW1:????",
        b"SWAPGLOW1:AAAA",
        HEAD.encode() + b"eJwrSS0uAQAEXQHB",
        # Thirty kilobytes that unpack to thirty megabytes.
        HEAD.encode()
        + __import__("base64").urlsafe_b64encode(
            (lambda c: c.compress(b" " * 30_000_000) + c.flush())(__import__("zlib").compressobj(9, 8, -15))
        ),
    ],
    ids=["empty", "no letters", "cut", "another packing", "too much"],
)
def test_a_code_with_letters_missing_is_refused_in_a_sentence(bench, text):
    status, answer = bench.send("import/look", "code.txt", text)
    assert status == 422
    assert "letters are missing or wrong" in answer["errors"][0]["message"]


def test_a_code_leaves_readings_out_where_they_are_too_many(bench, lamp):
    assert "readings_after" not in str(
        expanded(compact(transfer.to_document(lamp.equipment, photographs=False), lamp.pk, readings=False))
    )
    status, drawn, *_ = bench.raw(f"positions/{lamp.pk}/code.svg")
    assert status == 200 and drawn.startswith(b"<svg xmlns")


@pytest.mark.parametrize(
    ("what", "begins"), [("schematic.svg", b"<svg"), ("code.svg", b"<svg"), ("circuit.cir", b"* lamp position")]
)
def test_each_export_of_a_lamp_is_a_file(bench, lamp, what, begins):
    status, content, *_ = bench.raw(f"positions/{lamp.pk}/{what}")
    assert status == 200
    assert content.startswith(begins)


def test_two_moments_of_a_lamp_are_compared_and_one_gone_back_to(bench, lamp):
    """4.7 kΩ for 3.3 kΩ on 26.3 V with two amber LEDs: some 22.2 V over each (Ohm)."""
    assert bench("PATCH", f"positions/{lamp.pk}", {"resistor": "3k3"})[0] == 200
    assert bench("PATCH", f"positions/{lamp.pk}", {"resistor": "4k7", "notes": "softer"})[0] == 200
    assert bench("PATCH", f"rails/{lamp.rail_id}", {"usual": {"text": "26.8V", "source": "measured"}})[0] == 200
    kept = {"position": str(lamp.pk), "kind": "current", "text": "4.7mA"}
    assert bench("PUT", f"readings/after/{uuid.uuid4()}", kept)[0] == 200
    states = bench("GET", f"positions/{lamp.pk}/past")[1]["states"]
    assert [s["kind"] for s in states[:3]] == ["reading", "rail", "change"]
    last, first = states[2]["step"], states[3]["step"]
    answer = bench("GET", f"positions/{lamp.pk}/compare?first={first}&second={last}")[1]
    changes = {c["what"]: (c["was"], c["now"]) for c in answer["changes"]}
    assert changes == {"resistor": ("3k3", "4k7"), "notes": (lamp.input.notes or "nothing", "softer")}
    figures = {c["what"]: (c["was"].replace("\u00a0", " "), c["now"].replace("\u00a0", " ")) for c in answer["figures"]}
    assert figures["Each resistor"] == ("3.3 kΩ", "4.7 kΩ")
    was, now = (float(text.split(" ")[0]) for text in figures["Current, usual"])
    assert was == pytest.approx(22.2 / 3.3, rel=0.01) and now == pytest.approx(was * 3.3 / 4.7, rel=0.02)
    # Against now the rail differs too.
    rail = bench("GET", f"positions/{lamp.pk}/compare?first={last}")[1]["changes"]
    assert {"what": "rail: usual", "was": "26.3V", "now": "26.8V"} in rail
    assert bench("POST", f"positions/{lamp.pk}/back", {"step": first})[0] == 200
    assert Position.objects.get(pk=lamp.pk).input.resistor == "3k3"
    # Of a step nobody knows the lamp stood as it does now.
    assert bench("GET", f"positions/{lamp.pk}/compare?first=999999999")[1]["changes"] == []


def test_a_reading_is_refused_in_a_state_that_the_lamp_has_not(bench, lamp):
    kept = {"position": str(lamp.pk), "kind": "current", "text": "1mA", "state": "closed"}
    status, answer = bench("PUT", f"readings/after/{uuid.uuid4()}", kept)
    assert status == 422 and answer["errors"][0]["field"] == "state"
    assert "This lamp has no such state; it has On" in answer["errors"][0]["message"]


def test_a_lamp_comes_back_on_its_day(bench, lamp):
    today = datetime.datetime.now(datetime.UTC).date()
    for days, due in ((1, []), (0, ["Wind hold"]), (-40, ["Wind hold"])):
        day = (today + datetime.timedelta(days=days)).isoformat()
        assert bench("PATCH", f"positions/{lamp.pk}", {"look_again": day})[0] == 200
        found = bench("GET", "bench")[1]["due"]
        assert [d["name"] for d in found] == due
    assert found[0]["on"] == day and found[0]["item"] == lamp.equipment.input.name
    for typed in ("in a month", "2031-02-30", "2031-5-2"):
        status, answer = bench("PATCH", f"positions/{lamp.pk}", {"look_again": typed})
        assert status == 422 and answer["errors"][0]["field"] == "look_again"
        assert answer["errors"][0]["message"] == f'"{typed}" is no date: write it as 2031-05-20.'


def test_the_shops_habits_are_kept_undone_and_followed(bench, lamp):
    assert bench("GET", "shop")[1] == {
        "lead": "positive",
        "sleeve_plus": "red",
        "sleeve_minus": "black",
        "checks": "",
        "spares": "ours",
        "meter": "yes",
        "work": "",
        "series": "E24",
        "learns": "like",
        "asked": "no",
        "true_rms": False,
    }
    assert bench("PATCH", "shop", {"checks": "Tug every joint\n\nSmell it", "lead": "negative"})[0] == 200
    assert Shop.own().input.checks == "Tug every joint\n\nSmell it"
    report = bench("POST", f"positions/{lamp.pk}/assess", {})[1]["report"]
    # A lamp that is there keeps its lead; the next one takes the shop's.
    assert Position.objects.get(pk=lamp.pk).input.lead == "positive"
    new = uuid.uuid4()
    made = {"equipment": str(lamp.equipment_id), "led_id": "red-5-diffused", "target": {"text": "5mA"}}
    assert bench("PUT", f"positions/{new}", made)[0] == 200
    assert Position.objects.get(pk=new).input.lead == "negative"
    house = [s["act"] for s in report["build"] if s["id"].startswith("house")]
    assert house == ["Tug every joint", "Smell it"]
    step = bench("GET", "bench")[1]["steps"]["undo"]["id"]
    assert bench("POST", "undo", {"step": step})[0] == 200
    assert bench("GET", "shop")[1]["checks"] == ""


def test_a_step_is_ticked_noted_and_struck(bench, lamp):
    path = f"positions/{lamp.pk}"
    assert bench("PATCH", path, {"steps": {"solder": {"done": True}}})[0] == 200
    assert bench("PATCH", path, {"steps": {"solder": {"note": "cold"}}})[0] == 200
    kept = Position.objects.get(pk=lamp.pk).input.steps["solder"]
    assert kept.done and kept.note == "cold"
    assert bench("PATCH", path, {"steps": {"solder": None}})[0] == 200
    assert Position.objects.get(pk=lamp.pk).input.steps == {}


def test_a_reading_is_compared_with_what_was_fitted_when_it_was_taken(bench, lamp):
    """1.2 kΩ read, then 3.3 kΩ fitted: the old reading is no fact about the new circuit, and says so; with the old
    resistor back it counts again."""
    assert bench("PATCH", f"positions/{lamp.pk}", {"resistor": "1k2"})[0] == 200
    kept = {"position": str(lamp.pk), "kind": "current", "text": "1mA", "fitted": "led=none"}
    assert bench("PUT", f"readings/after/{uuid.uuid4()}", kept)[0] == 200

    def said():
        report = bench("POST", f"positions/{lamp.pk}/assess", {})[1]["report"]
        newest = report["diagnoses"][-1]
        return newest["since"].replace("\u00a0", " "), newest["agrees"], report["trouble"] is None

    assert said() == ("", False, False)
    assert bench("PATCH", f"positions/{lamp.pk}", {"resistor": "3k3"})[0] == 200
    assert said() == ("1.2 kΩ was fitted, now 3.3 kΩ", True, True)
    assert bench("PATCH", f"positions/{lamp.pk}", {"resistor": "1k2"})[0] == 200
    assert said()[0] == ""
