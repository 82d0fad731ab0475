"""What is saved is what was typed: every field, through undo and redo, document out and in, and readings by file.

Each field of each shape has a value here that is not its own usual one; a field that is added and not in the
table fails.
"""

import json
import uuid

import pytest

from swapglow.inputs.equipment import EquipmentInput, FeasibilityInput, TakeInInput
from swapglow.inputs.position import PositionInput
from swapglow.inputs.rail import RailInput
from swapglow.inputs.readings import ReadingAfterInput, ReadingBeforeInput
from swapglow.records.models import Equipment, Step
from tests.api.page import Bench
from tests.api.test_steps import later

pytestmark = pytest.mark.django_db


def typed(text, source="measured", note="20 V range"):
    return {"text": text, "source": source, "note": note}


SWEEP = "V,mA\n2.61,1\n2.74,3.1\n2.88,8"
# By field: its value, and what must stand there before it can.
POSITION = {
    "name": ("Tide warning", {}),
    "stage": ("trial", {}),
    "notes": ("Two lines\nof notes", {}),
    "lamp_id": ("slide-24", {}),
    "lamp_volts": ("23V8", {"lamp_id": "own", "lamp_volts": "24V", "lamp_amps": "0.1A"}),
    "lamp_amps": ("62mA", {"lamp_id": "own", "lamp_volts": "24V", "lamp_amps": "0.1A"}),
    "lamp_candela": ("0.3cd", {"lamp_id": "own", "lamp_volts": "24V", "lamp_amps": "0.1A"}),
    "lamp_base": ("BA9s", {}),
    "bulb_across": ("9.8mm", {}),
    "bulb_long": ("31mm", {}),
    "filament_below": ("12mm", {}),
    "purpose": ("do", {}),
    "cues": (["series", "no-ground"], {}),
    "second_job": ("charge", {}),
    "job_given_to": ("56R 5W beside it", {}),
    "dead": (["bead"], {}),
    "board_mark": ("arrow", {}),
    "board_side": ("right", {}),
    "led_id": ("green-chip", {}),
    "vf": (typed("2V05"), {}),
    "rated": ("25mA", {}),
    "in_series": (3, {}),
    "driver_drop": (typed("0.21V"), {}),
    "target": (typed("6.5mA", "assumed", ""), {}),
    "ceiling": (0.8, {}),
    "series": ("E96", {}),
    "rounding": ("nearest", {}),
    "resistor": ("3k92", {}),
    "resistor_parts": (2, {}),
    "resistor_source": ("measured", {"resistor": "3k9"}),
    "tolerance": (0.02, {}),
    "rating_w": (0.5, {}),
    "rectification": ("bridge", {}),
    "capacitor": ("47µF", {}),
    "capacitor_v": ("63V", {}),
    "second_led_id": ("green-chip", {}),
    "band": ("20-25V", {}),
    "chassis_negative": (True, {}),
    "mains": (True, {}),
    "glow_floor": (0.1, {}),
    "driver_kind": ("low_side", {}),
    "driver_details": ({"leak": typed("12µA")}, {"driver_kind": "low_side"}),
    "branches": (2, {}),
    "lead": ("negative", {}),
    "common": ("positive", {}),
    "shunt": ("4k7", {}),
    "shunt_across": ("leds", {}),
    "shunt_w": (1.0, {}),
    "series_diodes": (2, {}),
    "sink": (True, {}),
    "regulator_id": ("fixed-5-to220", {}),
    "module": (
        {
            "amps": "17mA",
            "at": "22V",
            "dice": 3,
            "law": "current",
            "polarised": "no",
            "throttle": "80 %",
            "after": "30s",
            "candela": "2cd",
        },
        {"band": "20-25V", "led_id": "white-5-clear"},
    ),
    "beside": (
        {
            "k1": {
                "name": "Night",
                "led_id": "green-chip",
                "vf": "2V1",
                "drive": "3mA",
                "in_series": 2,
                "count": 3,
                "resistor": "6k8",
                "place": 1,
            }
        },
        {},
    ),
    "one_batch": (False, {}),
    "lamp_kept": (0.8, {}),
    "lamp_count": (3, {}),
    "led_light": ("640mcd", {}),
    "led_light_at": ("9mA", {}),
    "led_angle": ("34°", {}),
    "led_output": ("old", {}),
    "looks": (
        {
            "how": "window",
            "optics": "capped",
            "glass": "own",
            "own_glass": "3, 9, 70 %",
            "shape": "round",
            "width": "14mm",
            "height": "13mm",
            "depth": "21mm",
            "spacing": "6mm",
            "white_box": True,
            "room": "dark",
        },
        {},
    ),
    "trials": (
        {
            "t1": {
                "resistor": "6k8",
                "verdict": "dim",
                "room": "daylight",
                "optics": "frosted",
                "led_id": "green-chip",
                "at": "2026-03-04",
                "note": "From the door",
                "place": 1,
            }
        },
        {},
    ),
    "steps": (
        {
            "solder": {
                "done": True,
                "note": "Cold at first",
                "minutes": "12",
                "photo": "p-1",
                "drawn": {"k2": 3},
                "at": "2026-03-04T10:20:00Z",
                "place": 2,
            }
        },
        {},
    ),
    "checks": ({"k1": {"what": "Brake on", "should": "Dark", "before": "works", "after": "glows", "place": 1}}, {}),
    "look_again": ("2031-05-20", {}),
    "hours": ("1.5 h", {}),
    "cost": ("4.20", {}),
    "ambient": ("41°C", {}),
    "lit": ("single", {}),
    "reads": ("all", {}),
    "weigh": (["heat", "life"], {}),
    "sweep": (SWEEP, {}),
    "sweep_in_series": ("2", {}),
    "sweep_strings": ("3", {}),
    "sweep_resistor": ("150R", {}),
}
RAIL = {
    "name": ("Rear feed", {}),
    "kind": ("unregulated", {}),
    "read_at": ("lamp", {}),
    "usual": (typed("22.4V"), {}),
    "low": (typed("19V", "marked", ""), {}),
    "high": (typed("24.6V"), {}),
    "details": ({"open": typed("29V")}, {"kind": "unregulated"}),
    "fuse": ("630mA", {}),
    "rated": ("1.2A", {}),
    "others": ("85mA", {}),
}
ITEM = {
    "name": ("Tide gauge, east pier", {}),
    "maker_model": ("Model 3", {}),
    "board_revision": ("rev. C", {}),
    "owner": ("Harbour office", {}),
    "notes": ("Two lines\nof notes", {}),
    "promised": ("2031-05-20", {}),
    "archived": (True, {}),
    "waits": ({"w1": {"what": "Paint", "until": "2031-05-20 14:30", "place": 1}}, {}),
    "dims": (
        {
            "d1": {
                "name": "Scale light",
                "resistor": "680R",
                "rail": "9V",
                "led_id": "green-chip",
                "in_series": 2,
                "place": 1,
                "trials": {"t1": {"resistor": "6k8", "verdict": "dim", "at": "2026-03-04", "screen": 0.35, "place": 1}},
            }
        },
        {},
    ),
    "fitted": (
        {
            "f1": {
                "name": "Sill lights",
                "kind": "light_string",
                "details": {"volts": typed("31V"), "count": typed("12", "marked", "")},
                "chosen": "parts-1",
                "notes": "Two circuits\nin one lead",
                "place": 2,
            }
        },
        {},
    ),
}
SHEET = {
    "dark": ("One of four lit", {}),
    "sharing": ("Pier and tower", {}),
    "grounds": ("Negative on the frame", {}),
    "hazards": (["mains"], {}),
    "opening": ({"a": {"text": "Four screws", "closed": True, "place": 1}}, {}),
    "wires": (
        {"b": {"name": "blue", "goes": "lamp", "does": "steady", "when": "always", "found_with": "meter", "place": 1}},
        {},
    ),
    "originals": ({"c": {"what": "Bulb", "where": "Bag 4", "place": 1}}, {}),
    "feasibility": (
        {
            "access": "screws",
            "brittle": "aged",
            "serviceable": "yes",
            "hours": "1.5",
            "price": "12",
            "hour_price": "40",
            "overruled": "Owner asked for it",
            "others": {"d": {"what": "Same bulb", "price": "9", "place": 1}},
        },
        {},
    ),
}


@pytest.fixture(scope="module")
def bench():
    return Bench()


@pytest.fixture(scope="module")
def keys(bench, begun):
    with begun():
        return bench.made()


def seen(bench, keys, what):
    """A record as the API gives it, and the steps that could be taken on its view."""
    of_lamp = what in ("position", "rail")
    path = f"positions/{keys['position']}" if of_lamp else f"equipment/{keys['equipment']}"
    view = bench("GET", path)[1]
    if what == "item":
        return {k: v for k, v in view.items() if k in ITEM}, view["steps"]
    return (view[what] if of_lamp else view["take_in"]["sheet"]), view["steps"]


def kept(bench, keys, what):
    """A record as the API gives it."""
    return seen(bench, keys, what)[0]


# Of a choice of several the ticks are sent, each by itself.
TICKS = {("position", "cues"), ("position", "dead"), ("position", "weigh"), ("sheet", "hazards")}
PATHS = {
    "position": lambda keys: f"positions/{keys['position']}",
    "rail": lambda keys: f"rails/{keys['rail']}",
    "item": lambda keys: f"equipment/{keys['equipment']}",
    "sheet": lambda keys: f"equipment/{keys['equipment']}/take-in",
}
TABLES = {"position": POSITION, "rail": RAIL, "item": ITEM, "sheet": SHEET}
ROWS = [(what, field) for what, table in TABLES.items() for field in table]


# What is said of a record, which follows what is typed.
SAID = {"position": {"echo", "goes_in"}, "rail": {"echo", "reads", "levels"}, "item": set(), "sheet": set()}


def written(content, keys, what):
    """A record as a document has it."""
    e = json.loads(content)["equipment"]
    if what == "item":
        return e
    if what == "sheet":
        return e["take_in"]
    if what == "rail":
        return e["rails"][0]
    return e["positions"][0]


def test_every_field_has_a_row():
    shapes = {"position": PositionInput, "rail": RailInput, "item": EquipmentInput, "sheet": TakeInInput}
    for what, shape in shapes.items():
        assert set(TABLES[what]) == set(shape.model_fields), what
        for field, (value, _) in TABLES[what].items():
            assert shape().model_dump(mode="json")[field] != value, (what, field)
    assert set(SHEET["feasibility"][0]) == set(FeasibilityInput.model_fields)


def same(value, stands):
    """What was typed, found again: of a part of a record just the fields that were sent."""
    if isinstance(value, dict):
        return all(key in stands and same(v, stands[key]) for key, v in value.items())
    return value == stands


@pytest.mark.parametrize(("what", "field"), ROWS)
def test_what_is_typed_is_saved_taken_back_done_again_and_written_out(bench, keys, what, field):
    value, first = TABLES[what][field]
    path = PATHS[what](keys)
    if first:
        status, answer = bench("PATCH", path, first)
        assert status == 200, answer
        later()
    before = kept(bench, keys, what)
    sent = dict.fromkeys(value, True) if (what, field) in TICKS else value
    status, answer = bench("PATCH", path, {field: sent})
    assert status == 200, answer
    after, steps = seen(bench, keys, what)
    assert same(value, after[field])
    # Nothing else has moved.
    others = {k for k in before if k != field and before[k] != after[k]}
    assert others <= SAID[what], others
    content = bench.raw(f"equipment/{keys['equipment']}/document.json")[1]
    assert same(value, written(content, keys, what)[field])
    assert bench("POST", "undo", {"step": steps["undo"]["id"]})[0] == 200
    undone, steps = seen(bench, keys, what)
    assert undone[field] == before[field]
    assert bench("POST", "redo", {"step": steps["redo"]["id"]})[0] == 200
    assert kept(bench, keys, what)[field] == after[field]
    # And in again on an empty bench.
    Equipment.objects.all().delete()
    Step.objects.all().delete()
    assert bench.send("import", "a.json", content)[0] == 200
    assert kept(bench, keys, what)[field] == after[field]


BEFORE = {
    "function": "dc_amps",
    "text": "44mA",
    "points": "driver",
    "lamp": "in",
    "state": "Pump running",
    "meter": "0.8R",
    "true_rms": True,
    "note": '200 mA range; second try, "as found"',
}
AFTER = {"kind": "current", "text": "4.1mA", "burden": "5R", "note": "20 mA range", "state": "off", "whose": "sister"}


def test_a_reading_is_saved_whole_and_goes_out_and_in_by_file(bench, keys):
    """Field by field, through the readings' own file and through the document."""
    assert set(BEFORE) == set(ReadingBeforeInput.model_fields)
    assert {*AFTER, "fitted"} == set(ReadingAfterInput.model_fields)
    # A lamp that can be switched off, for the state it is read in.
    assert bench("PATCH", f"positions/{keys['position']}", {"driver_kind": "low_side"})[0] == 200
    of = {"position": keys["position"]}
    for which, reading in (("before", BEFORE), ("after", AFTER)):
        status, answer = bench("PUT", f"readings/{which}/{uuid.uuid4()}", {**of, **reading})
        assert status == 200, answer
        assert same(reading, answer)

    def stands():
        p = Equipment.objects.get(pk=keys["equipment"]).positions.get()
        return p.readings_before.get().input.model_dump(), p.readings_after.get().input.model_dump()

    before, after = stands()
    # What stands in the lamp now is noted with it, and goes out and in too.
    assert after.pop("fitted").startswith("led=red-5-diffused;module=none;in_series=1;branches=1;ohm=")
    assert (before, after) == (BEFORE, AFTER)
    kept_then = stands()
    file = bench.raw(f"equipment/{keys['equipment']}/readings.csv")[1]
    p = Equipment.objects.get(pk=keys["equipment"]).positions.get()
    p.readings_before.all().delete()
    p.readings_after.all().delete()
    assert bench("PATCH", f"positions/{keys['position']}", {"resistor": "8k2"})[0] == 200
    assert bench.send(f"equipment/{keys['equipment']}/readings", "r.csv", file)[0] == 200
    assert stands() == kept_then


def test_what_is_anothers_is_not_reached_by_its_key(bench, keys):
    other = bench.made()
    status, answer = bench("PATCH", f"positions/{keys['position']}", {"rail": other["rail"]})
    assert status == 422
    assert answer["errors"][0]["field"] == "rail"
    assert "not in this equipment" in answer["errors"][0]["message"]
    assert kept(bench, keys, "rail")["id"] == keys["rail"]
    move = {"key": other["position"], "before": keys["position"]}
    assert bench("POST", f"equipment/{keys['equipment']}/positions/move", move)[0] in (404, 422)
    move = {"key": other["rail"], "before": keys["rail"]}
    assert bench("POST", f"equipment/{keys['equipment']}/rails/move", move)[0] in (404, 422)
