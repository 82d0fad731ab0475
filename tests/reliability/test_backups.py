"""Backups and the way back: damage done as it happens, restored by the words on the screen only."""

import os
import re
import shlex
import shutil
import sqlite3
import subprocess
import sys
import time
import uuid
from contextlib import closing
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest

from swapglow.web.room import move_old_records
from swapglow.web.room import room as place_of_records
from tests.reliability.bench import ROOT, Client, Server

NAME = "swapglow.sqlite3"


def run(command, **env):
    """A command as a person types it, in the folder of the program."""
    done = subprocess.run(
        shlex.split(command), cwd=ROOT, capture_output=True, text=True, timeout=120, env={**os.environ, **env}
    )
    assert "Traceback" not in done.stdout + done.stderr
    return done


def swapglow(room, *words):
    return run(shlex.join([".venv/bin/swapglow", *words, "--records", str(room)]))


def rows(database, sql):
    with closing(sqlite3.connect(database)) as found:
        return found.execute(sql).fetchall()


def backups(room):
    return sorted((room / "backups").glob("swapglow-*.sqlite3"))


def refused(room):
    """What a start says that does not come to serve."""
    server = Server(room)
    server.begin()
    output = server.process.communicate(timeout=60)[0]
    assert server.process.returncode == 1
    assert "Traceback" not in output
    return output


@pytest.fixture
def filled(room):
    """A room with an item that was saved, backed up, and the server stopped; the item's key and note."""
    server = Server(room).start()
    client = Client(server.port)
    key, note = client.made()["equipment"], f"lens order {uuid.uuid4()}"
    assert client.save("PATCH", f"equipment/{key}", {"notes": note})[0] == 200
    assert client.ask("POST", "backups")[0] == 200
    server.stop()
    return room, key, note


def test_the_first_backup_holds_what_is_served(tmp_path):
    server = Server(tmp_path / "first").start()
    server.stop()
    [backup] = backups(tmp_path / "first")
    assert rows(backup, "SELECT count(*) FROM records_position") == [(39,)]
    assert rows(backup, "PRAGMA integrity_check") == [("ok",)]
    assert "-25items-39lamps-" in backup.name
    # One file: nothing beside it holds a part of it.
    assert not list((tmp_path / "first/backups").glob("*-wal"))


def test_a_clean_stop_leaves_one_file(room):
    server = Server(room).start()
    Client(server.port).made()
    server.stop()
    assert sorted(p.name for p in room.glob(f"{NAME}*")) == [NAME]
    copy = shutil.copy(room / NAME, room / "carried-away.sqlite3")
    assert rows(copy, "SELECT count(*) FROM records_equipment") == rows(
        room / NAME, "SELECT count(*) FROM records_equipment"
    )


def truncate(path):
    os.truncate(path, path.stat().st_size // 2)


def zero_pages(path):
    whole = bytearray(path.read_bytes())
    whole[4096 : 4096 * 40] = bytes(4096 * 39)
    path.write_bytes(whole)


def empty(path):
    path.write_bytes(b"")


def wrong_file(path):
    path.write_text("screws: four long, two short\n" * 400)


def other_program(path):
    path.unlink()
    with closing(sqlite3.connect(path)) as made:
        made.execute("CREATE TABLE songs (title)")
        made.commit()


def stale_log(path):
    """A log of another database lies beside the file that somebody copied into its place."""
    other = path.with_name("other.sqlite3")
    with closing(sqlite3.connect(other)) as made:
        made.execute("PRAGMA journal_mode=WAL")
        made.execute("PRAGMA wal_autocheckpoint=0")
        made.executescript("CREATE TABLE x (y); " + "INSERT INTO x VALUES (randomblob(3000));" * 300)
        made.commit()
        log = other.with_name("other.sqlite3-wal").read_bytes()
    path.with_name(f"{NAME}-wal").write_bytes(log)


DAMAGE = [truncate, zero_pages, Path.unlink, empty, wrong_file, other_program, stale_log]


@pytest.mark.parametrize("damage", DAMAGE, ids=lambda d: d.__name__)
def test_what_is_damaged_comes_back_by_the_words_on_the_screen(filled, damage):
    room, key, note = filled
    damage(room / NAME)
    output = refused(room)
    command = re.search(r"^ {4}(\S.*restore.*)$", output, re.MULTILINE)
    assert command, output
    done = run(command[1])
    assert done.returncode == 0, done.stderr
    server = Server(room).start()
    try:
        assert Client(server.port).ask("GET", f"equipment/{key}")[1]["notes"] == note
    finally:
        server.stop()
    if damage not in (Path.unlink, empty):
        # What was damaged is kept for whoever can read more out of it.
        [aside] = room.glob("damaged-*")
        assert (aside / NAME).exists()


def test_a_restore_keeps_what_was_there_and_can_be_restored_from(filled):
    room, key, note = filled
    server = Server(room).start()
    client = Client(server.port)
    before = client.ask("GET", "backups")[1]["backups"][0]["name"]
    assert client.save("DELETE", f"equipment/{key}")[0] == 204
    status, back = client.ask("POST", f"backups/{before}/restore")
    assert (status, client.ask("GET", f"equipment/{key}")[1]["notes"]) == (200, note)
    # What was here then had the item deleted: it is the way back from the restore.
    assert client.ask("POST", f"backups/{back['kept']}/restore")[0] == 200
    assert client.ask("GET", f"equipment/{key}")[0] == 404
    # From the command line too, while the server runs: it answers the restored records at once.
    assert swapglow(room, "restore", before).returncode == 0
    assert client.ask("GET", f"equipment/{key}")[1]["notes"] == note
    assert client.save("PATCH", f"equipment/{key}", {"owner": "us"})[0] == 200
    server.stop()
    assert rows(room / NAME, "PRAGMA integrity_check") == [("ok",)]


def test_a_damaged_database_is_not_moved_under_a_running_server(filled):
    room, _, _ = filled
    server = Server(room).start()
    (room / f"{NAME}-wal").unlink(missing_ok=True)
    wrong_file(room / NAME)
    done = swapglow(room, "restore")
    server.kill()
    assert done.returncode == 2
    assert "Stop it first" in done.stderr


def test_a_damaged_backup_is_passed_over_for_the_one_before_it(filled):
    room, _, _ = filled
    assert swapglow(room, "backup").returncode == 0
    zero_pages(backups(room)[-1])
    done = swapglow(room, "restore")
    assert done.returncode == 2
    second = re.search(r"Try the one before it: (\S.*)$", done.stderr.strip())
    assert run(second[1]).returncode == 0
    assert swapglow(room, "check").returncode == 1


def test_a_database_of_a_later_version_is_refused(room):
    with closing(sqlite3.connect(room / NAME)) as found:
        found.execute(
            "INSERT INTO django_migrations (app, name, applied) VALUES ('records', '0077_beacons', '2033-01-01')"
        )
        found.commit()
    output = refused(room)
    assert "later version" in output and "0077_beacons" in output
    assert "restore" not in output


def test_two_first_starts_at_once_both_serve(tmp_path):
    one, two = Server(tmp_path / "both"), Server(tmp_path / "both")
    one.begin()
    two.begin()
    try:
        for server in (one, two):
            for _ in range(400):
                try:
                    if Client(server.port).ask("GET", "drawer")[0] == 200:
                        break
                except OSError:
                    assert server.process.poll() is None, server.process.communicate()[0]
                    time.sleep(0.1)
        lamps = [
            sum(len(e["positions"]) for e in Client(s.port).ask("GET", "bench")[1]["equipment"]) for s in (one, two)
        ]
        assert lamps == [39, 39]
    finally:
        one.stop()
        two.stop()


def test_a_start_on_a_full_disk_says_so_and_nothing_else(tmp_path):
    """A limit on the size of files stands in for the disk; the log itself cannot be written either."""
    server = Server(tmp_path / "full")
    server.begin(limit=20_000)
    output = server.process.communicate(timeout=60)[0]
    assert server.process.returncode == 1
    assert "Traceback" not in output and "Logging error" not in output
    assert "Swap Glow cannot start." in output


def test_make_clean_touches_no_record(tmp_path):
    checkout, home = tmp_path / "checkout", tmp_path / "home"
    checkout.mkdir()
    shutil.copy(ROOT / "Makefile", checkout)
    for folder in (checkout / "var", home / "swapglow", home / "swapglow/demo/backups"):
        folder.mkdir(parents=True)
        (folder / NAME).write_text("records")
    (checkout / ".venv").mkdir()
    done = subprocess.run(
        ["make", "clean"],
        cwd=checkout,
        env={**os.environ, "XDG_DATA_HOME": str(home)},
        capture_output=True,
        text=True,
        check=True,
    )
    assert not (checkout / ".venv").exists(), done.stdout
    assert len(list(tmp_path.rglob(NAME))) == 3


@pytest.mark.parametrize(("changed", "demo"), [(True, False), (False, True)])
def test_records_of_the_checkout_are_moved_once(tmp_path, used, monkeypatch, changed, demo):
    checkout = tmp_path / "checkout"
    shutil.copytree(used, checkout / "var")
    if not changed:
        with closing(sqlite3.connect(checkout / "var" / NAME)) as found:
            found.execute("DELETE FROM records_step")
            found.commit()
    monkeypatch.delenv("SWAPGLOW_VAR", raising=False)
    monkeypatch.delenv("SWAPGLOW_ROOM", raising=False)
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "home"))
    lamps = rows(checkout / "var" / NAME, "SELECT id FROM records_position")
    word = move_old_records(checkout)
    new = place_of_records(demo=demo)
    assert str(new) in word and new.is_relative_to(tmp_path / "home")
    assert rows(new / NAME, "SELECT id FROM records_position") == lamps
    assert backups(new) and not (checkout / "var").exists()
    assert move_old_records(checkout) == ""


def test_a_whole_bench_moves_to_another_computer(filled, tmp_path):
    room, key, note = filled
    file = tmp_path / "moving.bench.zip"
    assert swapglow(room, "export", str(file)).returncode == 0
    assert swapglow(room, "export", str(file)).returncode == 2  # nothing is written over
    done = swapglow(tmp_path / "other", "import", str(file))
    assert done.returncode == 0, done.stderr
    server = Server(tmp_path / "other").start()
    client = Client(server.port)
    try:
        view = client.ask("GET", f"equipment/{key}")[1]
        assert view["notes"] == note
        # Its history came along: what was done there can be undone here.
        assert client.save("POST", "undo", {"step": view["steps"]["undo"]["id"]})[0] == 200
        assert client.ask("GET", f"equipment/{key}")[1]["notes"] == ""
    finally:
        server.stop()


def test_an_older_backup_is_brought_to_this_versions_tables(room):
    """A backup as the third migration left one, put on the shelf under a name of that time."""
    old = room / "backups" / "swapglow-20260101-120000.sqlite3"
    with closing(sqlite3.connect(old)) as made:
        made.executescript((ROOT / "tests/fixtures/database-3.sql").read_text())
    lamps = rows(old, "SELECT count(*) FROM records_position")
    done = swapglow(room, "restore", old.name)
    assert done.returncode == 0, done.stderr
    server = Server(room).start()
    try:
        found = Client(server.port).ask("GET", "bench")[1]["equipment"]
        assert [(sum(len(e["positions"]) for e in found),)] == lamps
    finally:
        server.stop()


def test_a_stick_gets_a_second_copy_and_its_absence_is_said(room, tmp_path):
    stick = tmp_path / "stick"
    stick.mkdir()
    server = Server(room).start()
    client = Client(server.port)
    try:
        status, refusal = client.ask("PUT", "backups/second", {"folder": str(tmp_path / "nowhere")})
        assert (status, "There is no folder" in refusal["errors"][0]["message"]) == (422, True)
        assert client.ask("PUT", "backups/second", {"folder": str(room)})[0] == 422
        assert client.ask("PUT", "backups/second", {"folder": str(stick)})[0] == 200
        name = client.ask("POST", "backups")[1]["name"]
        assert rows(stick / name, "PRAGMA integrity_check") == [("ok",)]
        stick.rename(tmp_path / "pulled out")
        assert client.ask("POST", "backups")[0] == 200
        assert client.ask("GET", "backups")[1]["second"]["problem"] == "the folder is not there"
    finally:
        server.stop()


def test_a_server_that_stays_up_backs_up_what_changed(room, monkeypatch):
    """The hourly look, asked for by hand: the newest backup is made two hours old by its name."""
    ask = "import django; django.setup()\nfrom swapglow.records import upkeep\nupkeep.back_up_when_due()\n"

    def look():
        env = {**os.environ, "SWAPGLOW_ROOM": str(room), "DJANGO_SETTINGS_MODULE": "swapglow.web.settings.local"}
        subprocess.run([sys.executable, "-c", ask], env=env, cwd=ROOT, check=True)
        return len(backups(room))

    before = look()
    for path in backups(room):
        ago = (datetime.now(UTC) - timedelta(hours=2)).strftime("%Y%m%d-%H%M%S")
        path.rename(path.with_name(re.sub(r"\d{8}-\d{6}", ago, path.name)))
    # The fixture's last change came after its first backup.
    first = look()
    assert first == before + 1
    assert look() == first  # an hour has not gone by, and nothing has changed
