"""Starts that cannot be: each gets a sentence and a way out, and nothing of anybody's is touched."""

import os
import re
import shutil
import sqlite3
import stat
import time
import urllib.request
from contextlib import closing

import pytest

from swapglow.records.backups.database import Counts, look_at
from tests.reliability.bench import Client, Server


def said(server):
    output = server.process.communicate(timeout=30)[0]
    assert "Traceback" not in output
    return server.process.returncode, output


def test_all_that_is_kept_is_for_its_owner_only(used):
    found = [used, *used.rglob("*")]
    assert any(p.name == "swapglow.sqlite3" for p in found)
    for path in found:
        assert stat.S_IMODE(path.stat().st_mode) & 0o077 == 0, path


def test_what_was_open_to_others_is_closed_at_the_next_start(room):
    (room / "swapglow.sqlite3").chmod(0o644)
    room.chmod(0o755)
    Server(room).start().stop()
    assert stat.S_IMODE((room / "swapglow.sqlite3").stat().st_mode) == 0o600
    assert stat.S_IMODE(room.stat().st_mode) == 0o700


def test_a_port_that_is_taken_is_said_before_anything_is_touched(room):
    first = Server(room).start()
    second = Server(room, first.port)
    second.begin()
    code, output = said(second)
    first.stop()
    assert code == 1
    assert f"Port {first.port} is taken" in output
    assert "SWAPGLOW_PORT=" in output


@pytest.mark.parametrize("port", ["70000", "0", "-1", "http"])
def test_what_is_no_port_is_said(room, port):
    server = Server(room, port)
    server.begin()
    code, output = said(server)
    assert code == 1
    assert f'"{port}" is no port' in output


def test_a_damaged_database_is_told_with_the_newest_backup(room):
    path = room / "swapglow.sqlite3"
    path.write_bytes(path.read_bytes()[:5000] + os.urandom(20_000) + path.read_bytes()[25_000:])
    damaged = path.read_bytes()
    [backup] = (room / "backups").glob("*.sqlite3")
    code, output = said(Server(room).start(wait=15))
    assert code == 1
    assert "The database swapglow.sqlite3 is damaged" in output
    assert "The newest backup is of " in output
    count = re.search(r"(\d+)items", backup.name)[1]
    assert f": {count} item" in output
    assert path.read_bytes() == damaged


def test_what_is_no_database_is_told(room):
    (room / "swapglow.sqlite3").write_text("a letter to the editor " * 1000)
    (room / "swapglow.sqlite3-wal").unlink(missing_ok=True)
    code, output = said(Server(room).start(wait=15))
    assert (code, "is damaged" in output) == (1, True)


def test_a_first_start_killed_half_way_begins_again(tmp_path):
    for moment in (1.2, 2.0, 2.8):
        server = Server(tmp_path / "var")
        server.begin()
        time.sleep(moment)
        server.kill()
    server = Server(tmp_path / "var").start()
    # Where it ended by itself it said why.
    assert server.process.poll() is None, server.stop()
    try:
        status, bench = Client(server.port).ask("GET", "bench")
        assert status == 200
        assert sum(len(e["positions"]) for e in bench["equipment"]) == 39
        assert _page_is_whole(server.port)
    finally:
        server.stop()


def test_a_first_start_killed_before_a_migration_was_recorded_begins_again(tmp_path):
    """Its tables are there, and Django's list does not have them: only what was never served is made anew."""
    var = tmp_path / "var"
    Server(var).start().stop()
    with closing(sqlite3.connect(var / "swapglow.sqlite3")) as db:
        db.execute("DELETE FROM django_migrations WHERE app = 'records'")
        db.execute("DELETE FROM records_equipment")
        db.commit()
    shutil.rmtree(var / "backups")
    (var / "swapglow.being-made").touch()
    server = Server(var).start()
    assert server.process.poll() is None, server.stop()
    status, bench = Client(server.port).ask("GET", "bench")
    server.stop()
    assert (status, len(bench["equipment"]) > 20) == (200, True)
    assert not (var / "swapglow.being-made").exists()


def test_a_first_start_killed_before_its_first_table_begins_again(tmp_path):
    """Django's list of migrations is there, and SQLite's own table with it: nothing of ours yet, and nobody else's."""
    var = tmp_path / "var"
    var.mkdir()
    with closing(sqlite3.connect(var / "swapglow.sqlite3")) as db:
        db.execute(
            "CREATE TABLE django_migrations (id integer PRIMARY KEY AUTOINCREMENT, app text, name text, applied)"
        )
    assert look_at(var / "swapglow.sqlite3") == Counts()
    server = Server(var).start()
    try:
        assert Client(server.port).ask("GET", "bench")[0] == 200
    finally:
        server.stop()


def test_a_database_of_another_program_is_refused_and_left_as_it_is(tmp_path):
    var = tmp_path / "var"
    var.mkdir()
    with closing(sqlite3.connect(var / "swapglow.sqlite3")) as db:
        db.execute(
            "CREATE TABLE django_migrations (id integer PRIMARY KEY AUTOINCREMENT, app text, name text, applied)"
        )
        db.execute("CREATE TABLE songs (name text)")
    before = (var / "swapglow.sqlite3").read_bytes()
    server = Server(var).start()
    code, output = said(server)
    assert code == 1
    assert "is a database of another program" in output
    assert (var / "swapglow.sqlite3").read_bytes() == before


def _page_is_whole(port):
    """Every file that the page asks for is served."""
    page = urllib.request.urlopen(f"http://127.0.0.1:{port}/").read().decode()
    wanted = re.findall(r'(?:src|href)="(/static/[^"]+)"', page)
    return wanted and all(urllib.request.urlopen(f"http://127.0.0.1:{port}{path}").status == 200 for path in wanted)


def test_files_that_are_missing_from_what_is_served_are_put_back(room):
    script = next((room / "static" / "assets").glob("index-*.js"))
    script.unlink()
    server = Server(room).start()
    try:
        assert _page_is_whole(server.port)
    finally:
        server.stop()


def test_a_disk_that_takes_no_more_is_said_and_what_was_there_stays(room):
    """A limit on the size of files stands in for the disk: writing past it gives an error of the disk."""
    server = Server(room).start(limit=(room / "swapglow.sqlite3").stat().st_size + 200_000)
    client = Client(server.port)
    try:
        item = client.ask("GET", "bench")[1]["equipment"][0]["id"]
        kept = ""
        for n in range(60):
            status, answer = client.ask("PATCH", f"equipment/{item}", {"notes": f"{n}" + "x" * 19_000})
            if status != 200:
                break
            kept = f"{n}"
        assert status == 507
        assert "nothing was saved" in answer["errors"][0]["message"]
        assert client.ask("GET", f"equipment/{item}")[1]["notes"].rstrip("x") == kept
    finally:
        server.stop()


def test_a_database_that_cannot_be_opened_is_said(room):
    for name in ("swapglow.sqlite3", "swapglow.sqlite3-wal", "swapglow.sqlite3-shm"):
        (room / name).unlink(missing_ok=True)
    (room / "swapglow.sqlite3").mkdir()
    code, output = said(Server(room).start(wait=15))
    assert (code, "swapglow.sqlite3 cannot be written to" in output) == (1, True)
