"""Saves at once: none is lost, none is made twice, none is answered with a fault."""

import os
import shutil
import sqlite3
import subprocess
import sys
import threading
import uuid
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from functools import partial

import pytest

from tests.reliability.bench import ROOT, Client, Server

FIELDS = {"notes": str, "resistor": lambda n: f"{n}k", "in_series": int, "rated": lambda n: f"{n}mA"}


@pytest.fixture(scope="module")
def servers(used, tmp_path_factory):
    """Two servers on one database."""
    room = shutil.copytree(used, tmp_path_factory.mktemp("races") / "var")
    first = Server(room).start()
    second = Server(room).start()
    yield first, second
    for server in (first, second):
        assert "Traceback" not in server.stop()
        assert server.process.returncode == 0


@pytest.fixture
def ports(servers):
    return [s.port for s in servers]


def at_once(*jobs):
    """Run jobs that all wait for each other before they begin."""
    gate = threading.Barrier(len(jobs))

    def run(job):
        gate.wait()
        return job()

    with ThreadPoolExecutor(len(jobs)) as pool:
        return [f.result() for f in [pool.submit(run, job) for job in jobs]]


def test_changes_of_different_fields_at_once_are_all_kept(ports):
    keys = Client(ports[0]).made()
    path = f"positions/{keys['position']}"
    for n in range(1, 16):
        bodies = [{name: of(n)} for name, of in FIELDS.items()]
        asks = (partial(Client(ports[k % 2]).ask, "PATCH", path, body) for k, body in enumerate(bodies))
        answers = at_once(*asks)
        assert [status for status, _ in answers] == [200] * 4, answers
        kept = Client(ports[0]).ask("GET", path)[1]["position"]
        assert {name: kept[name] for name in FIELDS} == {k: v for b in bodies for k, v in b.items()}


def test_the_same_creation_sent_twice_at_once_makes_one(ports):
    client = Client(ports[0])
    count = len(client.ask("GET", "bench")[1]["equipment"])
    for n in range(10):
        key, save = str(uuid.uuid4()), str(uuid.uuid4())
        made = ("PUT", f"equipment/{key}", {"name": f"Twice {n}"}, save)
        answers = at_once(*(partial(Client(ports[k % 2]).ask, *made) for k in range(4)))
        assert [status for status, _ in answers] == [200] * 4, answers
        assert len({a["id"] for _, a in answers}) == 1
    assert len(client.ask("GET", "bench")[1]["equipment"]) == count + 10


def test_a_save_sent_again_after_another_is_not_done_again(ports):
    client = Client(ports[0])
    keys = client.made()
    path, save = f"positions/{keys['position']}", str(uuid.uuid4())
    first = client.ask("PATCH", path, {"notes": "mine", "was": {"notes": ""}}, save)
    assert client.ask("PATCH", path, {"notes": "theirs", "was": {"notes": "mine"}})[0] == 200
    assert client.ask("PATCH", path, {"notes": "mine", "was": {"notes": ""}}, save) == first
    assert client.ask("GET", path)[1]["position"]["notes"] == "theirs"


def test_of_two_who_change_one_field_at_once_the_second_is_told(ports):
    client = Client(ports[0])
    keys = client.made()
    path = f"positions/{keys['position']}"
    for n in range(10):
        was = client.ask("GET", path)[1]["position"]["notes"]
        texts = [f"left {n}", f"right {n}"]
        bodies = [{"notes": t, "was": {"notes": was}} for t in texts]
        answers = at_once(*(partial(Client(ports[k]).ask, "PATCH", path, bodies[k]) for k in (0, 1)))
        assert sorted(status for status, _ in answers) == [200, 409]
        won = next(k for k, (status, _) in enumerate(answers) if status == 200)
        told = answers[1 - won][1]["errors"][0]
        assert (told["field"], told["now"]) == ("notes", texts[won])
        assert client.ask("GET", path)[1]["position"]["notes"] == texts[won]


def test_readings_undo_and_deletion_at_once_are_each_answered(ports):
    """Every route that writes, against each other: no fault, and a bench that can be read after it."""
    client = Client(ports[0])
    for _ in range(6):
        keys = client.made()
        p, e, r = keys["position"], keys["equipment"], keys["rail"]
        step = client.ask("GET", f"equipment/{e}")[1]["steps"]["undo"]["id"]
        reading = {"position": p, "kind": "current", "text": "4mA"}
        before = {"position": p, "function": "dc_volts", "text": "22V"}
        jobs = [
            ("PUT", f"readings/after/{uuid.uuid4()}", reading),
            ("PUT", f"readings/before/{uuid.uuid4()}", before),
            ("POST", f"positions/{p}/reading", {"id": str(uuid.uuid4()), "what": "rail_usual", "text": "21V"}),
            ("POST", f"positions/{p}/take", {"changes": {"resistor_ohm": 4700}}),
            ("PATCH", f"rails/{r}", {"high": {"text": "24V"}}),
            ("PATCH", f"equipment/{e}/take-in", {"wires": {"a": {"name": "red"}}}),
            ("POST", f"equipment/{e}/positions/move", {"key": p}),
            ("POST", "undo", {"step": step, "choice": "earlier"}),
            ("DELETE", f"positions/{p}", None),
            ("PATCH", "drawer", {"add": ["1k"], "remove": ["2k2"]}),
        ]
        answers = at_once(*(partial(Client(ports[k % 2]).ask, *job) for k, job in enumerate(jobs)))
        assert all(status in (200, 204, 404, 409, 422) for status, _ in answers), answers
        assert client.ask("GET", f"equipment/{e}")[0] == 200


def test_a_second_writer_waits_for_the_first_and_loses_nothing(servers):
    """While somebody else writes, a save waits; it is answered once they are done, and both stand."""
    port = servers[0].port
    keys = Client(port).made()
    database = servers[0].room / "swapglow.sqlite3"
    with closing(sqlite3.connect(database, isolation_level=None)) as other, ThreadPoolExecutor(1) as pool:
        other.execute("BEGIN IMMEDIATE")
        other.execute("UPDATE records_step SET label = label")
        saving = pool.submit(lambda: Client(port).ask("PATCH", f"positions/{keys['position']}", {"notes": "waited"}))
        with pytest.raises(TimeoutError):
            saving.result(timeout=0.5)
        other.execute("COMMIT")
        assert saving.result(timeout=15)[0] == 200
    assert Client(port).ask("GET", f"positions/{keys['position']}")[1]["position"]["notes"] == "waited"


def test_an_acknowledged_save_is_on_the_disk_and_writers_take_turns(tmp_path):
    """SQLite's own words for it: synchronous FULL is 2; a write-ahead log; keys that are held to."""
    ask = (
        "import django; django.setup()\n"
        "from django.db import connection\n"
        "for name in ('synchronous', 'journal_mode', 'foreign_keys', 'busy_timeout'):\n"
        "    with connection.cursor() as c: print(c.execute(f'PRAGMA {name}').fetchone()[0])\n"
        "print(connection.settings_dict['OPTIONS']['transaction_mode'])\n"
    )
    env = {**os.environ, "SWAPGLOW_VAR": str(tmp_path), "DJANGO_SETTINGS_MODULE": "swapglow.web.settings.local"}
    said = subprocess.run(
        [sys.executable, "-c", ask], env=env, cwd=ROOT, capture_output=True, text=True, check=True
    ).stdout.split()
    assert said == ["2", "wal", "1", "20000", "IMMEDIATE"]
