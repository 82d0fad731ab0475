"""A start after an update: older records brought along, or put back where that fails; what is new is said."""

import json
import re
import sqlite3
import ssl
import time
import urllib.request
from contextlib import closing
from pathlib import Path

import pytest

from swapglow import __version__
from tests.reliability.bench import Client, Server

FIXTURES = Path(__file__).resolve().parents[1] / "fixtures"


def own(room):
    """A server of one's own records, not the demo's."""
    server = Server(room)
    server.command = [part for part in server.command if part != "--demo"]
    return server


@pytest.fixture
def old(tmp_path):
    """Records as an earlier version left them."""
    room = tmp_path / "var"
    room.mkdir()
    with closing(sqlite3.connect(room / "swapglow.sqlite3")) as made:
        made.executescript((FIXTURES / "database-3.sql").read_text())
        made.commit()
    return room


def dump(room):
    with closing(sqlite3.connect(room / "swapglow.sqlite3")) as found:
        return list(found.iterdump())


def ended(server):
    output = server.process.communicate(timeout=60)[0]
    assert "Traceback" not in output
    return server.process.returncode, output


def test_older_records_are_brought_along_with_a_backup_first(old):
    with closing(sqlite3.connect(old / "swapglow.sqlite3")) as found:
        names = {row[0] for row in found.execute("SELECT name FROM records_equipment")}
    server = own(old).start()
    assert {e["name"] for e in Client(server.port).ask("GET", "bench")[1]["equipment"]} == names
    server.stop()
    assert list((old / "backups").glob("*-update-*.sqlite3"))
    assert (old / "version").read_text() == __version__


def test_an_update_that_fails_puts_the_records_back(old):
    """A table is in the way of one of the later migrations, after some have been made."""
    with closing(sqlite3.connect(old / "swapglow.sqlite3")) as found:
        found.execute("CREATE TABLE records_summary (x)")
        found.commit()
    (old / "version").write_text("0.0.9")
    before = dump(old)
    server = own(old)
    server.begin()
    code, output = ended(server)
    assert code == 1
    assert "They are as they were before" in output and "pip install swapglow==0.0.9" in output
    assert dump(old) == before
    assert (old / "version").read_text() == "0.0.9"


def test_what_is_new_is_said_once(room):
    (room / "version").write_text("0.0.9")
    server = Server(room).start()
    news = Client(server.port).ask("GET", "me")[1]["news"]
    first = server.stop()
    server = Server(room).start()
    assert Client(server.port).ask("GET", "me")[1]["news"] == []
    second = server.stop()
    assert f"was 0.0.9 here and is now {__version__}" in first and "What is new" not in second
    changelog = (Path(__file__).resolve().parents[2] / "CHANGELOG.md").read_text()
    assert news and all(f"- {line}" in changelog and line in first for line in news)


def test_a_first_start_tells_no_news(tmp_path):
    server = own(tmp_path / "var").start()
    assert "What is new" not in server.stop()


def test_devices_of_a_later_version_are_refused_and_damaged_ones_begin_empty(room):
    path = room / "devices.sqlite3"
    with closing(sqlite3.connect(path)) as found:
        found.execute("INSERT INTO django_migrations (app, name, applied) VALUES ('devices', '0044_robots', '2030')")
        found.commit()
    server = Server(room)
    server.begin()
    code, output = ended(server)
    assert code == 1 and "later version" in output and "0044_robots" in output
    path.write_bytes(b"not a database at all " * 400)
    server = Server(room).start()
    assert Client(server.port).ask("GET", "devices")[1]["devices"] == []
    assert "pair your phones again" in server.stop()


def test_a_share_at_the_start_shows_code_digits_and_fingerprint_and_is_kept(room, monkeypatch):
    from tests.devices.conftest import ADDRESS, Phone

    server = Server(room)
    server.command += ["--share"]
    server.env = {**server.env, "SWAPGLOW_SHARE_ADDRESS": ADDRESS}
    server.start()
    sharing = Client(server.port).ask("GET", "devices")[1]["sharing"]
    phone = Phone(int(sharing["urls"][0].rsplit(":", 1)[1]))
    offer = Client(server.port).ask("GET", "devices")[1]["offer"]
    assert phone.pair(offer)[0] == 200 and phone("GET", "bench")[0] == 200
    pem = ssl.get_server_certificate((ADDRESS, phone.port))
    said = server.stop()
    assert offer["url"] in said and offer["digits"] in said and sharing["fingerprint"] in said
    assert "BEGIN CERTIFICATE" in pem
    # The next start shares it as the last one did; the phone is known, and no new code is printed.
    again = Server(room, server.port, env={**server.env})
    again.start()
    assert phone("GET", "bench")[0] == 200
    said = again.stop()
    assert "Paired phones reach it at" in said and "digits" not in said


def test_a_bench_that_cannot_be_shared_is_served_all_the_same(room):
    server = Server(room)
    server.command += ["--share"]
    server.env = {**server.env, "SWAPGLOW_SHARE_ADDRESS": "8.8.8.8"}
    server.start()
    assert Client(server.port).ask("GET", "bench")[0] == 200
    assert "Not shared. 8.8.8.8 is not an address of a private network." in server.stop()


def test_the_demo_runs_in_a_room_of_its_own_and_ends_with_the_bench(tmp_path):
    room = tmp_path / "var"
    server = own(room).start()
    client = Client(server.port)
    assert client.ask("GET", "first-start")[1]["new"] is True
    status, demo = client.ask("POST", "demo", {})
    assert status == 200
    for _ in range(400):
        demo = client.ask("GET", "demo")[1]
        if demo["ready"]:
            break
        time.sleep(0.2)
    port = int(re.search(r":(\d+)/", demo["url"])[1])
    assert sum(len(e["positions"]) for e in Client(port).ask("GET", "bench")[1]["equipment"]) == 39
    assert Client(port).ask("GET", "me")[1]["demo"] is True
    assert json.loads(urllib.request.urlopen(f"http://127.0.0.1:{server.port}/api/bench").read())["equipment"] == []
    assert (room / "demo" / "swapglow.sqlite3").exists()
    # Killed, not stopped: the demo notices it all the same.
    server.kill()
    for _ in range(100):
        try:
            Client(port).ask("GET", "bench")
        except OSError:
            break
        time.sleep(0.1)
    else:
        raise AssertionError("the demo still answers")
