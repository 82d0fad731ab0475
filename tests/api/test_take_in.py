"""The take-in sheet, photographs, readings before the swap and what is inferred from them."""

import io
import os
import uuid

import pytest
from PIL import Image

from swapglow.document.pictures import LONGEST_SIDE
from swapglow.records import summaries
from swapglow.records.models import Photo, Step
from swapglow.records.photographs import sweep_out
from swapglow.records.steps import prune
from tests.api.page import Bench

pytestmark = pytest.mark.django_db


@pytest.fixture
def bench():
    return Bench()


def key():
    return str(uuid.uuid4())


def picture(size=(640, 480), kind="JPEG", **more):
    out = io.BytesIO()
    image = Image.new("RGB", size, (90, 120, 60))
    image.paste((250, 240, 30), (0, 0, size[0] // 2, size[1] // 3))
    image.save(out, kind, **more)
    return out.getvalue()


def with_exif(orientation=6):
    """A photograph that says where and with what it was taken, and lies on its side."""
    exif = Image.Exif()
    exif[0x010F] = "Invented Camera Works"
    exif[0x0112] = orientation
    exif.get_ifd(0x8825)[1] = "N"
    return picture(exif=exif)


def taken(bench, keys, function, text, lamp="in", **more):
    body = {"position": keys["position"], "function": function, "text": text, "lamp": lamp, **more}
    return bench("PUT", f"readings/before/{key()}", body)


def survey(bench, keys):
    return bench("POST", f"positions/{keys['position']}/assess", {})[1]["report"]["survey"]


# --- the sheet -------------------------------------------------------------------------------


def test_the_sheet_is_kept_part_by_part_and_undone(bench):
    keys = bench.made()
    path = f"equipment/{keys['equipment']}/take-in"
    bench("PATCH", path, {"dark": "Both dials.", "hazards": {"charge": True}})
    steps = {
        "b": {"text": "Spring behind the lens", "place": 1},
        "a": {"text": "Lid: four screws, one under the label", "place": 0},
    }
    status, sheet = bench("PATCH", path, {"opening": steps})
    assert status == 200
    assert sheet["sheet"]["dark"] == "Both dials."
    assert {k: s["text"] for k, s in sheet["sheet"]["opening"].items()} == {k: s["text"] for k, s in steps.items()}
    assert "discharge" in sheet["cautions"][0]
    bench.undo(keys["equipment"])
    kept = bench("GET", f"equipment/{keys['equipment']}")[1]["take_in"]["sheet"]
    assert kept["opening"] == {}
    assert kept["dark"] == "Both dials."


def test_the_advice_follows_what_is_known_and_can_be_overruled(bench):
    keys = bench.made()
    path = f"equipment/{keys['equipment']}/take-in"
    feasible = {"access": "welded", "brittle": "brittle", "hours": "30", "overruled": "It is the last one."}
    advice = bench("PATCH", path, {"feasibility": feasible})[1]
    assert advice["advice"]["verdict"] == "leave"
    assert advice["sheet"]["feasibility"]["overruled"] == "It is the last one."
    status, answer = bench("PATCH", path, {"feasibility": {"hours": "a week"}})
    assert status == 422
    assert answer["errors"][0]["field"] == "feasibility.hours"
    assert bench("GET", f"equipment/{keys['equipment']}")[1]["take_in"]["sheet"]["feasibility"]["hours"] == "30"


def test_wires_say_what_they_are_by_what_they_do(bench):
    keys = bench.made()
    wires = {
        "g": {"name": "grey", "does": "pulsing", "when": "left", "found_with": "test lamp"},
        "b": {"name": "black"},
    }
    lines = bench("PATCH", f"equipment/{keys['equipment']}/take-in", {"wires": wires})[1]["wires"]
    assert "flasher" in lines["g"]
    assert "Not tried" in lines["b"]


# --- photographs -----------------------------------------------------------------------------


def test_a_photograph_is_made_upright_small_and_silent_about_its_camera(bench):
    keys = bench.made()
    status, made = bench.send(f"equipment/{keys['equipment']}/photos/{key()}", "in.jpg", with_exif())
    assert status == 200
    status, jpeg, headers = bench.raw(f"photos/{made['id']}/picture.jpg")
    assert status == 200
    assert headers["Content-Type"] == "image/jpeg"
    assert b"Invented" not in jpeg
    with Image.open(io.BytesIO(jpeg)) as kept:
        assert not kept.getexif()
        assert kept.size == (480, 640)  # turned by its orientation
    _, wide = bench.send(f"equipment/{keys['equipment']}/photos/{key()}", "w.png", picture((4000, 1000), "PNG"))
    with Image.open(io.BytesIO(bench.raw(f"photos/{wide['id']}/picture.jpg")[1])) as kept:
        assert max(kept.size) == LONGEST_SIDE


@pytest.mark.parametrize(
    "content",
    [b"", b"not a picture", b"\xff\xd8\xff\xe0 cut off", b"<svg onload='alert(1)'/>", picture()[:400]],
    ids=["empty", "text", "cut head", "svg", "cut body"],
)
def test_what_is_no_picture_is_refused_and_nothing_kept(bench, content):
    keys = bench.made()
    status, answer = bench.send(f"equipment/{keys['equipment']}/photos/{key()}", "x.jpg", content)
    assert status == 422
    assert answer["errors"][0]["field"] in ("photo", "file")
    assert not Photo.objects.exists()


def test_a_picture_that_unpacks_to_too_much_is_refused(bench):
    keys = bench.made()
    out = io.BytesIO()
    Image.new("1", (20_000, 20_000)).save(out, "PNG")
    status, answer = bench.send(f"equipment/{keys['equipment']}/photos/{key()}", "bomb.png", out.getvalue())
    assert status == 422
    assert answer["errors"][0]["field"] == "photo"


def test_a_deleted_photograph_comes_back_and_a_forgotten_one_is_swept_out(bench, room):
    keys = bench.made()
    _, made = bench.send(f"equipment/{keys['equipment']}/photos/{key()}", "in.jpg", picture())
    bench("PATCH", f"photos/{made['id']}", {"caption": "Lens, springs at the left"})
    bench("DELETE", f"photos/{made['id']}")
    assert bench.raw(f"photos/{made['id']}/picture.jpg")[0] == 404
    assert sweep_out() == 0  # undo still knows it
    bench.undo(keys["equipment"])
    [back] = bench("GET", f"equipment/{keys['equipment']}")[1]["take_in"]["photos"]
    assert back["caption"] == "Lens, springs at the left"
    assert bench.raw(f"photos/{made['id']}/picture.jpg")[0] == 200
    Photo.objects.all().delete()
    Step.objects.all().delete()
    prune()
    [kept] = room.rglob("*.jpg")
    assert sweep_out() == 0  # its record may be about to be saved
    os.utime(kept, (0, 0))
    assert sweep_out() == 1
    assert not kept.exists()


def test_sent_twice_it_is_kept_once(bench):
    keys = bench.made()
    path = f"equipment/{keys['equipment']}/photos/{key()}"
    assert bench.send(path, "a.jpg", picture())[1] == bench.send(path, "a.jpg", picture())[1]
    assert Photo.objects.count() == 1


# --- readings before the swap ----------------------------------------------------------------


def test_readings_are_kept_inferred_from_and_taken_over(bench):
    keys = bench.made(rail="12V")
    taken(bench, keys, "dc_volts", "15.2V", "out")
    taken(bench, keys, "dc_volts", "11.9V")
    assert taken(bench, keys, "dc_amps", "0.11A")[0] == 200
    found = {i["id"]: i for i in survey(bench, keys)["inferences"]}
    assert found["source-resistance"]["sets"]["open"] == "15.2\u00a0V"
    # Alone it is enough: what it says of open and loaded needs a rail that asks for them.
    bench("POST", f"positions/{keys['position']}/infer/source-resistance")
    rail = bench("GET", f"positions/{keys['position']}")[1]["rail"]
    assert rail["kind"] == "unregulated"
    assert rail["usual"]["source"] == "computed"
    assert "30" in rail["reads"]
    report = bench("POST", f"positions/{keys['position']}/assess", {})[1]["report"]
    step = next(s for s in report["snapshots"][0]["staircase"]["stairs"] if s["id"] == "source")
    assert step["drop"]["usual"] == pytest.approx(30 * report["current"]["usual"]["value"], rel=1e-3)
    bench.undo(keys["equipment"])
    assert bench("POST", f"positions/{keys['position']}/infer/nonsense")[0] == 422


def test_a_reading_is_refused_with_its_field_and_struck_with_undo(bench):
    keys = bench.made()
    status, answer = taken(bench, keys, "dc_volts", "12Vac")
    assert (status, answer["errors"][0]["field"]) == (422, "text")
    _, kept = taken(bench, keys, "dc_volts", "12V", state="on")
    bench("DELETE", f"readings/before/{kept['id']}")
    assert survey(bench, keys)["readings"] == []
    bench.undo(keys["equipment"])
    assert survey(bench, keys)["readings"][0]["text"].endswith("lamp in, on")


def test_no_live_reading_is_kept_of_what_is_on_the_mains(bench):
    keys = bench.made()
    bench("PATCH", f"positions/{keys['position']}", {"mains": True})
    status, answer = taken(bench, keys, "ac_volts", "230V")
    assert status == 422
    assert "Mains" in answer["errors"][0]["message"]
    report = bench("POST", f"positions/{keys['position']}/assess", {})[1]["report"]
    assert report["next_step"]["reading"] is None


@pytest.mark.parametrize(
    ("kind", "what", "text", "detail", "kept"),
    [
        ("winding", "open", "14.1V", "open", "14.1V"),
        ("winding", "hertz", "60Hz", "hertz", "60Hz"),
        ("winding", "grounded", "yes", "grounded", "yes"),
        ("sense", "trip", "0.8mA", "trip", "0.8mA"),
        ("sense", "source_short", "4mA", "source", "3\u00a0kΩ"),
    ],
)
def test_a_reading_typed_into_the_next_thing_inks_what_it_is_of(bench, kind, what, text, detail, kept):
    """12 V open and 4 mA shorted are 3 kΩ (Ohm)."""
    keys = bench.made(rail="12V")
    bench("PATCH", f"rails/{keys['rail']}", {"kind": kind})
    body = {"id": key(), "what": what, "text": text, "note": "meter"}
    assert bench("POST", f"positions/{keys['position']}/reading", body)[0] == 204
    found = bench("GET", f"positions/{keys['position']}")[1]["rail"]["details"][detail]
    assert (found["text"], found["source"]) == (kept, "measured")
    status, answer = bench("POST", f"positions/{keys['position']}/reading", {**body, "text": "purple"})
    assert (status, answer["errors"][0]["field"]) == (422, "text")


def test_another_kind_keeps_only_what_it_too_asks_for(bench):
    keys = bench.made(rail="9V")
    q = {"text": "50Hz", "source": "marked"}
    bench("PATCH", f"rails/{keys['rail']}", {"kind": "winding", "details": {"hertz": q, "open": {"text": "10V"}}})
    rail = bench("PATCH", f"rails/{keys['rail']}", {"kind": "stator"})[1]
    assert set(rail["details"]) == {"hertz"}
    assert rail["levels"] == ["idle", "running", "full speed"]
    status, answer = bench("PATCH", f"rails/{keys['rail']}", {"details": {"trip": {"text": "1mA"}}})
    assert (status, answer["errors"][0]["field"]) == (422, "trip")


def test_a_treatment_is_tried_and_taken_as_a_remedy(bench):
    keys = bench.made(rail="12V")
    bench("PATCH", f"rails/{keys['rail']}", {"kind": "winding"})
    path = f"positions/{keys['position']}"
    bench("PATCH", path, {"rectification": "bare"})
    report = bench("POST", f"{path}/assess", {})[1]["report"]
    reverse = next(f for f in report["findings"] if f["id"] == "led-reverse")
    bench("POST", f"{path}/take", {"changes": reverse["remedies"][0]["changes"]})
    assert bench("GET", path)[1]["position"]["rectification"] == "inverse_diode"
    after = bench("POST", f"{path}/assess", {})[1]["report"]
    assert "led-reverse" not in {f["id"] for f in after["findings"]}


def test_a_sweep_is_fitted_used_and_forgotten(bench):
    keys = bench.made(rail="14V")
    path = f"positions/{keys['position']}"
    table = "2.61V 1mA\n2.74V 3.1mA\n2.88V 8mA\n2.95V 11mA"
    assert bench("PATCH", path, {"sweep": table})[0] == 200
    view = bench("GET", path)[1]
    assert len(view["fit"]["points"]) == 4
    assert view["fit"]["worst"]["value"] < 0.02
    report = bench("POST", f"{path}/assess", {})[1]["report"]
    assert "Swept" in next(s for s in report["snapshots"][0]["staircase"]["stairs"] if s["kind"] == "led")["detail"]
    status, answer = bench("PATCH", path, {"sweep": "2.6V 1mA"})
    assert (status, answer["errors"][0]["field"]) == (422, "sweep")
    bench("PATCH", path, {"sweep": ""})
    assert bench("GET", path)[1]["fit"] is None


def test_what_cannot_be_worked_out_says_so_and_stays_in_reach(bench):
    """A nanoampere through a reservoir at 900 V settles in no cycle: the bench still stands."""
    keys = bench.made(rail="12V")
    rail = {"kind": "stator", "usual": {"text": "900Vac"}, "details": {"hertz": {"text": "5Hz"}}}
    bench("PATCH", f"rails/{keys['rail']}", rail)
    path = f"positions/{keys['position']}"
    bench("PATCH", path, {"rectification": "half_wave_cap", "target": {"text": "1nA"}})
    status, answer = bench("POST", f"{path}/assess", {})
    assert status == 422
    assert "No settled cycle" in answer["errors"][0]["message"]
    assert summaries.refresh()
    [item] = bench("GET", "bench")[1]["equipment"]
    assert item["positions"][0]["grade"] == "stop"
    assert "No settled cycle" in item["positions"][0]["line"]
    assert bench("GET", path)[0] == 200
    bench("PATCH", path, {"target": {"text": "5mA"}})
    assert bench("POST", f"{path}/assess", {})[0] == 200
