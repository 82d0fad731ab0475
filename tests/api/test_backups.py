"""Backups in the app: one item brought back, and whole benches of strangers."""

import io
import json
import sqlite3
import uuid
import zipfile

import pytest

from swapglow.records.models import Equipment
from tests.api.page import Bench
from tests.api.test_take_in import picture

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def bench(other_databases):
    return Bench()


def made_backup(bench):
    status, made = bench("POST", "backups")
    assert status == 200, made
    return made["name"]


def test_one_item_comes_back_with_readings_and_photographs_and_can_be_undone(bench):
    keys, other = bench.made(), bench.made()
    item = keys["equipment"]
    assert bench.send(f"equipment/{item}/photos/{uuid.uuid4()}", "a.jpg", picture(), caption="Lens")[0] == 200
    reading = {"position": keys["position"], "kind": "current", "text": "3.9mA"}
    assert bench("PUT", f"readings/after/{uuid.uuid4()}", reading)[0] == 200
    before = bench.raw(f"equipment/{item}/document.json")[1]
    name = made_backup(bench)
    assert bench("DELETE", f"equipment/{item}")[0] == 204
    assert bench("PATCH", f"equipment/{other['equipment']}", {"notes": "later work"})[0] == 200
    then = {i["id"]: i["now"] for i in bench("GET", f"backups/{name}/items")[1]}
    assert then == {item: "gone", other["equipment"]: "changed"}
    assert bench("POST", f"backups/{name}/item", {"item": item})[0] == 200
    assert json.loads(bench.raw(f"equipment/{item}/document.json")[1]) == json.loads(before)
    assert bench("GET", f"equipment/{other['equipment']}")[1]["notes"] == "later work"
    assert bench.undo()[0] == 200
    assert not Equipment.objects.filter(pk=item).exists()


def test_a_photograph_whose_file_is_gone_comes_back_from_the_backup(bench, room):
    keys = bench.made()
    photo = str(uuid.uuid4())
    assert bench.send(f"equipment/{keys['equipment']}/photos/{photo}", "a.jpg", picture())[0] == 200
    name = made_backup(bench)
    [file] = (room / "photographs").rglob("*.jpg")
    jpeg = file.read_bytes()
    file.unlink()
    assert bench.raw(f"photos/{photo}/picture.jpg")[0] == 404
    assert bench("POST", f"backups/{name}/restore")[0] == 200
    assert bench.raw(f"photos/{photo}/picture.jpg")[1] == jpeg


def test_photographs_are_copied_once_however_many_backups_there_are(bench, room):
    keys = bench.made()
    assert bench.send(f"equipment/{keys['equipment']}/photos/{uuid.uuid4()}", "a.jpg", picture())[0] == 200
    for _ in range(3):
        made_backup(bench)
    assert len(list((room / "backups").glob("*.sqlite3"))) == 3
    assert len(list((room / "backups/photographs").rglob("*.jpg"))) == 1


def whole(bench):
    answer = bench.client.get("/api/bench.zip")
    assert answer.status_code == 200
    return b"".join(answer.streaming_content)


def test_a_whole_bench_goes_out_and_in(bench, room):
    keys = bench.made()
    assert bench.send(f"equipment/{keys['equipment']}/photos/{uuid.uuid4()}", "a.jpg", picture())[0] == 200
    before = bench.raw(f"equipment/{keys['equipment']}/document.json")[1]
    archive = whole(bench)
    assert bench("DELETE", f"equipment/{keys['equipment']}")[0] == 204
    for file in (room / "photographs").rglob("*.jpg"):
        file.unlink()
    for file in (room / "backups/photographs").rglob("*.jpg"):
        file.unlink()
    look = bench.send("bench/whole/look", "b.zip", archive)[1]
    assert "1 item, 1 lamp, 0 readings, 1 photograph" in look["lines"][0]
    assert bench.send("bench/whole", "b.zip", archive)[0] == 200
    assert bench.raw(f"equipment/{keys['equipment']}/document.json")[1] == before


def changed(archive, **parts):
    """The archive with some of its files written anew, or left out where None."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(archive)) as source, zipfile.ZipFile(out, "w") as made:
        for part in source.infolist():
            if part.filename not in parts:
                made.writestr(part, source.read(part))
        for name, content in parts.items():
            if content is not None:
                made.writestr(name, content)
    return out.getvalue()


def with_trigger(archive, tmp_path):
    path = tmp_path / "x.sqlite3"
    with zipfile.ZipFile(io.BytesIO(archive)) as source:
        path.write_bytes(source.read("swapglow.sqlite3"))
    database = sqlite3.connect(path)
    database.execute("CREATE TRIGGER t AFTER INSERT ON records_step BEGIN DELETE FROM records_equipment; END")
    database.commit()
    database.close()
    return changed(archive, **{"swapglow.sqlite3": path.read_bytes()})


def test_strangers_archives_are_refused_and_nothing_is_touched(bench, room, tmp_path):
    keys = bench.made()
    archive = whole(bench)
    later = json.dumps({"format": "swapglow-bench", "version": 7})
    for content, says in (
        (b"", "This is no whole bench"),
        (b"PK\x03\x04 and then nothing", "This is no whole bench"),
        (changed(archive, **{"bench.json": None}), "This is no whole bench"),
        (changed(archive, **{"bench.json": "[" * 9000}), "This is no whole bench"),
        (changed(archive, **{"bench.json": later}), "later version"),
        (changed(archive, **{"swapglow.sqlite3": None}), "This is no whole bench"),
        (changed(archive, **{"swapglow.sqlite3": b"x" * 9000}), "damaged"),
        (with_trigger(archive, tmp_path), "not written by Swap Glow"),
    ):
        for path in ("bench/whole/look", "bench/whole"):
            status, answer = bench.send(path, "b.zip", content)
            assert status in (400, 422), (says, answer)
            if content:
                assert says in answer["errors"][0]["message"], (says, answer)
    # What is not what its name says, or would be written elsewhere, is left out.
    odd = changed(
        archive, **{f"photographs/ab/{'ab' * 32}.jpg": b"not that picture", "../escaped.txt": "x", "/absolute.txt": "x"}
    )
    assert bench.send("bench/whole", "b.zip", odd)[0] == 200
    assert not list(room.rglob("escaped.txt")) and not list((room / "photographs").rglob("*.jpg"))
    assert bench("GET", f"equipment/{keys['equipment']}")[0] == 200
    assert not list(room.glob("swapglow-*"))
