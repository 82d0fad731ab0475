"""Documents and readings, out and in: a round trip loses nothing, and a bad file does nothing."""

import json
import shutil
import uuid

import pytest
from django.conf import settings

from swapglow.records import demo, readings_csv
from swapglow.records.models import Equipment, Photo, Position, ReadingAfter, ReadingBefore, Step
from tests.api.page import Bench
from tests.api.test_take_in import picture

pytestmark = pytest.mark.django_db


@pytest.fixture
def bench():
    return Bench()


@pytest.fixture(scope="module", autouse=True)
def stocked(begun):
    with begun():
        demo.load()


@pytest.fixture
def loaded():
    return Equipment.objects.get(inputs__name="Chart room reading lights")


def document(bench, e, photographs=True):
    status, content, headers = bench.raw(f"equipment/{e.pk}/document.json?photographs={photographs}")
    assert status == 200
    assert "attachment" in headers["Content-Disposition"]
    return content


def empty_bench():
    Equipment.objects.all().delete()
    Step.objects.all().delete()
    Photo.history.all().delete()
    shutil.rmtree(settings.PHOTOGRAPHS, ignore_errors=True)


def test_a_round_trip_loses_nothing_photographs_included(bench, loaded):
    path = f"equipment/{loaded.pk}/photos/{uuid.uuid4()}"
    assert bench.send(path, "a.jpg", picture(), caption="Bracket, shade off")[0] == 200
    bench(
        "POST",
        f"positions/{loaded.positions.first().pk}/reading",
        {"id": str(uuid.uuid4()), "what": "current", "text": "6.4mA", "burden": "5R"},
    )
    before = document(bench, loaded)
    empty_bench()
    status, made = bench.send("import", "a.json", before)
    assert status == 200
    after = document(bench, Equipment.objects.get(pk=made["id"]))
    assert json.loads(after) == json.loads(before)
    assert json.loads(after)["equipment"]["photos"][0]["jpeg"]


@pytest.mark.parametrize("name", ["Dome rotation desk", "Tracked supply sled", "Dome hand paddle", "Red chart torch"])
def test_every_demo_item_comes_back_as_it_went(bench, loaded, name):
    before = document(bench, Equipment.objects.get(inputs__name=name))
    empty_bench()
    _, made = bench.send("import", "a.json", before)
    assert json.loads(document(bench, Equipment.objects.get(pk=made["id"]))) == json.loads(before)


def test_photographs_are_left_out_by_choice_and_that_is_said(bench, loaded):
    bench.send(f"equipment/{loaded.pk}/photos/{uuid.uuid4()}", "a.jpg", picture())
    bare = document(bench, loaded, photographs=False)
    assert b'"jpeg": null' in bare
    lines = bench.send("import/look", "a.json", bare)[1]["lines"]
    assert any("1 photograph left out" in line for line in lines)


def test_an_import_says_what_it_will_do_before_it_does_it(bench, loaded):
    content = document(bench, loaded)
    Position.objects.filter(equipment=loaded, inputs__name="Middle bracket").delete()
    status, look = bench.send("import/look", "a.json", content)
    assert status == 200
    assert look["replaces"] == loaded.input.name
    assert "1 supply rail, 2 lamp positions, 4 readings, 0 photographs." in look["lines"]
    assert any(
        "0 lamps would change, 1 stay as they are, 1 would be added, 0 removed" in line for line in look["lines"]
    )
    assert loaded.positions.count() == 1  # nothing was done
    bench.send("import", "a.json", content)
    assert loaded.positions.count() == 2
    bench.undo()
    assert Equipment.objects.get(pk=loaded.pk).positions.count() == 1


def test_a_copy_touches_nothing_that_is_here(bench, loaded):
    count = Equipment.objects.count()
    content = document(bench, loaded)
    _, made = bench.send("import", "a.json", content, as_copy="true")
    assert made["id"] != str(loaded.pk)
    assert Equipment.objects.count() == count + 1
    names = [p.input.name for p in Equipment.objects.get(pk=made["id"]).positions.all()]
    assert names == [p.input.name for p in loaded.positions.all()]
    bench.undo()
    assert Equipment.objects.count() == count


def test_keys_of_another_item_are_not_taken_over(bench, loaded):
    data = json.loads(document(bench, loaded))
    data["equipment"]["id"] = str(uuid.uuid4())
    status, answer = bench.send("import", "a.json", json.dumps(data).encode())
    assert status == 422
    assert "copy" in answer["errors"][0]["message"]


@pytest.mark.parametrize(
    ("change", "place", "says"),
    [
        (lambda e: e["positions"][1].update(target={"text": "loads"}), "positions.1", "current"),
        (lambda e: e["photos"].append({"id": str(uuid.uuid4()), "jpeg": "%%%"}), "photos.0.jpeg", "base64"),
        (lambda e: e["photos"].append({"id": str(uuid.uuid4()), "jpeg": "aGVsbG8="}), "photos.0.jpeg", "no picture"),
        (lambda e: e["rails"][0].update(kind="fusion"), "rails.0.kind", "regulated"),
        (lambda e: e.update(owner_password="x"), "owner_password", "not permitted"),
    ],
)
def test_a_bad_document_changes_nothing_at_all(bench, loaded, change, place, says):
    data = json.loads(document(bench, loaded))
    change(data["equipment"])
    before = (Equipment.objects.count(), Position.objects.count(), ReadingAfter.objects.count(), Photo.objects.count())
    status, answer = bench.send("import", "a.json", json.dumps(data).encode())
    assert status == 422
    assert place in answer["errors"][0]["field"]
    assert says in answer["errors"][0]["message"]
    after = (Equipment.objects.count(), Position.objects.count(), ReadingAfter.objects.count(), Photo.objects.count())
    assert after == before


# --- readings as CSV -------------------------------------------------------------------------


def csv_of(bench, e):
    status, content, headers = bench.raw(f"equipment/{e.pk}/readings.csv")
    assert status == 200
    assert headers["Content-Type"].startswith("text/csv")
    return content


def test_readings_go_out_and_come_in_again(bench, loaded):
    position = loaded.positions.first()
    bench(
        "POST",
        f"positions/{position.pk}/reading",
        {"id": str(uuid.uuid4()), "what": "current", "text": "6.4mA", "burden": "5R", "note": "=cmd()"},
    )
    content = csv_of(bench, loaded)
    assert b"'=cmd()" in content  # no spreadsheet takes it for a formula
    path = f"equipment/{loaded.pk}/readings"
    assert "5 readings are here already" in bench.send(f"{path}/look", "a.csv", content)[1]["lines"][1]
    ReadingBefore.objects.all().delete()
    ReadingAfter.objects.filter(position=position).delete()
    assert bench.send(path, "a.csv", content)[0] == 200
    again = csv_of(bench, loaded)

    def without_when(text):
        return [line.split(",")[:10] + line.split(",")[11:] for line in text.decode().splitlines()]

    assert without_when(again) == without_when(content)
    bench.undo(str(loaded.pk))
    assert not ReadingBefore.objects.filter(position=position).exists()


@pytest.mark.parametrize(
    ("line", "place", "says"),
    [
        ("Attic lamp,before,dc_volts,5V,lamp,in,,,no,,", "line 2, lamp", "Left bracket"),
        ("Left bracket,before,dc_volts,5 apples,lamp,in,,,no,,", "line 2, reading", "voltage"),
        ("Left bracket,later,dc_volts,5V,lamp,in,,,no,,", "line 2, when", "before"),
        ("Left bracket,after,guess,5V,,,,,,,", "line 2, function", "current"),
        ("Left bracket,before,dc_volts,5V,shelf,in,,,no,,", "line 2, points", "feed"),
        (f"Left bracket,before,dc_volts,5V,lamp,in,,,no,{'x' * 300},", "line 2, note", "200"),
    ],
)
def test_a_bad_line_is_named_and_nothing_comes_in(bench, loaded, line, place, says):
    head = csv_of(bench, loaded).decode().splitlines()[0]
    good = "Left bracket,before,ac_volts,7.1V,lamp,in,,,no,,"
    count = ReadingBefore.objects.count()
    content = "\r\n".join((head, line, good)).encode()
    status, answer = bench.send(f"equipment/{loaded.pk}/readings", "a.csv", content)
    assert status == 422
    assert answer["errors"][0]["field"] == place
    assert says in answer["errors"][0]["message"]
    assert ReadingBefore.objects.count() == count


def test_a_file_with_other_columns_is_no_readings(bench, loaded):
    for content in (b"", b"volts,amps\n1,2\n", b"\xff\xfe\x00", b'"open'):
        status, answer = bench.send(f"equipment/{loaded.pk}/readings/look", "a.csv", content)
        assert status == 422
        assert answer["errors"]


def with_line(bench, e, *lines):
    """The item's own file with lines added, and what importing it would do."""
    content = csv_of(bench, e).decode() + "".join(f"{line}\r\n" for line in lines)
    return content.encode()


def test_what_went_out_comes_in_as_known_whatever_its_notes_are(bench, loaded):
    for n, note in enumerate(["-12 V on the other", "=1+1", "'quoted", " blanks ", "a, comma", '"', "@x", "+y"]):
        body = {"position": str(loaded.positions.first().pk), "kind": "current", "text": f"{n + 1}mA", "note": note}
        assert bench("PUT", f"readings/after/{uuid.uuid4()}", body)[0] == 200
    content = csv_of(bench, loaded)
    cells = [line.split(",")[9] for line in content.decode().splitlines()]
    assert not any(c.startswith(("=", "+", "-", "@")) for c in cells)
    status, look = bench.send(f"equipment/{loaded.pk}/readings/look", "a.csv", content)
    assert (status, look["lines"][0]) == (200, "0 readings would be added.")
    ReadingAfter.objects.filter(inputs__note="-12 V on the other").delete()
    assert bench.send(f"equipment/{loaded.pk}/readings", "a.csv", content)[0] == 200
    assert ReadingAfter.objects.filter(inputs__note="-12 V on the other").count() == 1


def test_two_lamps_of_one_name_never_get_each_others_readings(bench, loaded):
    first, second = loaded.positions.all()[:2]
    for p in (first, second):
        bench("PATCH", f"positions/{p.pk}", {"name": "Bracket"})
    before = {p.pk: p.readings_before.count() for p in (first, second)}
    line = "Bracket,before,dc_volts,5V,lamp,in,,,no,,"
    path = f"equipment/{loaded.pk}/readings"
    status, answer = bench.send(path, "a.csv", with_line(bench, loaded, line))
    assert status == 422
    assert '2 lamps are called "Bracket": give the lamp key' in answer["errors"][0]["message"]
    assert bench.send(path, "a.csv", with_line(bench, loaded, f"{line},,{second.pk}"))[0] == 200
    assert {p.pk: p.readings_before.count() for p in (first, second)} == {
        first.pk: before[first.pk],
        second.pk: before[second.pk] + 1,
    }


@pytest.mark.parametrize(
    ("line", "kept"),
    [
        ("before,dc_amps,82,lamp,in,,,no,,", "82mA"),
        ("before,ac_amps,9.2-9.8,lamp,in,,,no,,", "9.2-9.8mA"),
        ("before,dc_amps,0.5A,lamp,in,,,no,,", "0.5A"),
        ("before,dc_volts,5,lamp,in,,,no,,", "5"),
        ("after,current,9.2,,,,,,,", "9.2mA"),
    ],
)
def test_a_bare_current_in_a_file_is_milliamps_as_in_the_form(bench, loaded, line, kept):
    p = loaded.positions.first()
    content = f"{','.join(readings_csv.files.HEADING)}\r\n{p.input.name},{line}\r\n".encode()
    here = {r.pk for r in (*ReadingBefore.objects.all(), *ReadingAfter.objects.all())}
    status, answer = bench.send(f"equipment/{loaded.pk}/readings", "a.csv", content)
    assert status == 200, answer
    (new,) = [r for r in (*ReadingBefore.objects.all(), *ReadingAfter.objects.all()) if r.pk not in here]
    assert new.input.text == kept


def test_no_live_reading_of_a_lamp_on_the_mains_comes_in_by_file(bench, loaded):
    p = loaded.positions.first()
    bench("PATCH", f"positions/{p.pk}", {"mains": True})
    head = ",".join(readings_csv.files.HEADING)
    for when, code in (
        ("before,dc_volts,5V,lamp,in,,,no,,", 422),
        ("after,current,4mA,,,,,,,", 422),
        ("after,resistor_ohms,1k,,,,,,,", 200),
    ):
        content = f"{head}\r\n{p.input.name},{when}\r\n".encode()
        assert bench.send(f"equipment/{loaded.pk}/readings", "a.csv", content)[0] == code


def test_what_is_not_compared_on_an_alternating_supply_does_not_come_in_by_file(bench):
    keys = bench.made()
    bench("PATCH", f"rails/{keys['rail']}", {"kind": "winding", "usual": {"text": "8Vac"}})
    head = ",".join(readings_csv.files.HEADING)
    for what, field in (
        ("plus_volts,2V,,,,,,,", "function"),
        ("led_volts,2V,,,off,,,,", "switch"),
        ("led_volts,2V,,,,,,,", ""),
    ):
        content = f"{head}\r\nReady,after,{what}\r\n".encode()
        status, answer = bench.send(f"equipment/{keys['equipment']}/readings", "a.csv", content)
        assert status == (422 if field else 200)
        assert not field or answer["errors"][0]["field"] == f"line 2, {field}"


def test_an_import_that_leaves_photographs_out_leaves_those_that_are_here(bench, loaded):
    path = f"equipment/{loaded.pk}/photos/{uuid.uuid4()}"
    assert bench.send(path, "a.jpg", picture(), caption="Bracket")[0] == 200
    bare = document(bench, loaded, photographs=False)
    assert bench.send("import", "a.json", bare)[0] == 200
    assert [p.caption for p in Photo.objects.all()] == ["Bracket"]


def test_a_document_of_version_2_gets_keys_for_its_lines(bench, loaded):
    data = json.loads(document(bench, loaded))
    data["version"] = 2
    data["equipment"]["take_in"] |= {
        "wires": [{"name": "red"}, {"name": "blue", "goes": "fuse"}],
        "feasibility": {"others": [{"what": "a new lamp", "price": "12"}]},
    }
    assert bench.send("import", "a.json", json.dumps(data).encode())[0] == 200
    sheet = Equipment.objects.get(pk=loaded.pk).sheet
    assert [(w.name, w.goes, w.place) for w in sheet.wires.values()] == [("red", "", 0), ("blue", "fuse", 1)]
    assert [(o.what, o.price) for o in sheet.feasibility.others.values()] == [("a new lamp", "12")]
