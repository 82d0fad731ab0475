"""Photographs that measure, kept with a trial; the row of lamps; what a change of looks may name."""

import io
import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from swapglow.inputs.position import LooksInput
from swapglow.records.models import Photo, Position
from tests.api.page import Bench
from tests.core.pictures import swept, two_lamps

pytestmark = pytest.mark.django_db


def png(picture):
    out = io.BytesIO()
    Image.fromarray(picture).save(out, "PNG")
    return out.getvalue()


def send(bench, path, data, **fields):
    file = SimpleUploadedFile("shot.png", data, "image/png")
    answer = bench.client.post(f"/api/{path}", {"file": file, **fields}, headers={"X-CSRFToken": "a" * 32})
    return answer.status_code, answer.json()


def test_two_lamps_are_found_or_measured_where_the_circles_are_and_nothing_is_kept():
    bench = Bench()
    keys = bench.made()
    path = f"positions/{keys['position']}/two-in-one"
    status, found = send(bench, path, png(two_lamps(0.2, 0.5)))
    assert status == 200
    assert found["ratio"] == pytest.approx(2.5, rel=0.03)
    assert found["line"].startswith("2.5 × the old lamp (")
    old, new = found["spots"]
    turned = {"old_x": new["x"], "old_y": new["y"], "new_x": old["x"], "new_y": old["y"], "r": old["r"]}
    assert send(bench, path, png(two_lamps(0.2, 0.5)), **turned)[1]["ratio"] == pytest.approx(0.4, rel=0.03)
    assert Position.objects.get().input.trials == {}
    assert not Photo.objects.exists()


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (png(two_lamps(0.3, 1.5)), "The new lamp is clipped"),
        (b"no picture at all", "This is no picture that can be read"),
    ],
)
def test_a_photograph_that_says_nothing_is_refused_at_the_photograph(data, said):
    bench = Bench()
    keys = bench.made()
    status, answer = send(bench, f"positions/{keys['position']}/two-in-one", data)
    assert status == 422
    assert answer["errors"][0]["field"] == "photo"
    assert answer["errors"][0]["message"].startswith(said)
    assert send(bench, f"positions/{uuid.uuid4()}/two-in-one", data)[0] == 404


def test_a_streak_is_counted_by_its_shutter_as_typed():
    bench = Bench()
    path = f"positions/{bench.made()['position']}/streak"
    picture = png(swept(100, 0.4, 0.125))
    eighth = send(bench, path, picture, shutter="1/8")[1]["line"]
    assert eighth.startswith("13 dashes: 104\u00a0Hz (96 to 112\u00a0Hz)")
    assert send(bench, path, picture, shutter="0.25 s")[1]["line"].startswith("13 dashes: 52\u00a0Hz")
    status, answer = send(bench, path, picture, shutter="soon")
    assert (status, answer["errors"][0]["field"]) == (422, "shutter")


def test_what_a_photograph_said_is_kept_with_its_trial_and_can_be_taken_for_the_leds_light():
    bench = Bench()
    keys = bench.made()
    path = f"positions/{keys['position']}"
    lamp = {"lamp_id": "own", "lamp_volts": "22V", "lamp_amps": "40mA", "lamp_candela": "0.05cd"}
    trial = {"resistor": "1k", "verdict": "bright", "photo_ratio": 9.0, "photo_doubt": 1.3}
    assert bench("PATCH", path, {**lamp, "trials": {"a": trial}})[0] == 200
    report = bench("POST", f"{path}/assess", {"changes": {}})[1]["report"]
    (row,) = report["trials"]["rows"]
    assert row["photographed"] == "9 × the old lamp (6.9 to 12)"
    assert bench("POST", f"{path}/take", {"changes": row["taught"]})[0] == 200
    kept = Position.objects.get().input
    assert kept.looks.trim == row["taught"]["looks.trim"] != 1
    # With that light the photograph says what the figures say.
    again = bench("POST", f"{path}/assess", {"changes": {}})[1]["report"]
    assert again["trials"]["rows"][0]["taught"] == {}
    assert again["trials"]["rows"][0]["lamp"]["ratio_text"] == "9 × the old lamp"


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"looks.glass": "moonstone"}, "looks.glass"),
        ({"looks.optics": "melted"}, "looks.optics"),
        ({"looks.away": 2}, "looks.away"),
        ({"looks.width_m": 0.01}, "looks.width_m"),
    ],
)
def test_a_change_of_looks_that_is_none_is_refused_by_name(change, field):
    bench = Bench()
    path = f"positions/{bench.made()['position']}"
    status, answer = bench("POST", f"{path}/take", {"changes": change})
    assert (status, answer["errors"][0]["field"]) == (422, field)
    assert Position.objects.get().input.looks == LooksInput()


def test_looks_change_by_what_is_tried_and_go_back_as_one_step():
    bench = Bench()
    keys = bench.made()
    changes = {"looks.optics": "frosted", "looks.glass": "warm-tint"}
    assert bench("POST", f"positions/{keys['position']}/take", {"changes": changes})[0] == 200
    looks = Position.objects.get().input.looks
    assert (looks.optics, looks.glass) == ("frosted", "warm-tint")
    assert bench.undo(keys["equipment"])[0] == 200
    looks = Position.objects.get().input.looks
    assert (looks.optics, looks.glass) == ("as-is", "")


def test_the_lamps_of_an_item_stand_in_a_row_on_one_scale_and_one_that_does_not_read_says_why():
    bench = Bench()
    item, (red, blue) = bench.signals()
    row = bench("GET", f"equipment/{item}/row")[1]
    assert [(lamp["id"], lamp["label"]) for lamp in row["lamps"]] == [(red, "Ebb"), (blue, "Flood")]
    brightest = max(row["lamps"], key=lambda lamp: lamp["amount"]["value"])
    assert [lamp["lightness"] == 100 for lamp in row["lamps"]] == [lamp is brightest for lamp in row["lamps"]]
    Position.objects.filter(pk=blue).update(inputs={**Position.objects.get(pk=blue).inputs, "resistor": "many"})
    row = bench("GET", f"equipment/{item}/row")[1]
    assert [lamp["label"] for lamp in row["lamps"]] == ["Ebb"]
    assert row["without"][0].startswith("Flood: ")


def test_another_lamps_trials_are_where_this_one_begins():
    bench = Bench()
    _, (red, blue) = bench.signals()
    for lamp, volts in ((red, "12V"), (blue, "5V")):
        old = {"lamp_id": "own", "lamp_volts": volts, "lamp_amps": "40mA", "lamp_candela": "0.05cd"}
        assert bench("PATCH", f"positions/{lamp}", old)[0] == 200

    def trials():
        return bench("POST", f"positions/{blue}/assess", {"changes": {}})[1]["report"]["trials"]

    assert trials() is None
    assert bench("PATCH", f"positions/{red}", {"trials": {"a": {"resistor": "4k7", "verdict": "right"}}})[0] == 200
    begin = trials()
    assert begin["line"].startswith("By the other lamp tried here")
    assert begin["proposals"][0]["label"].startswith("Begin with ")
