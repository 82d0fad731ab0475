"""The program as it is installed: one wheel in a clean environment, with no checkout, no Node and nothing of ours."""

import os
import sqlite3
import subprocess
import sys
import urllib.request
import venv
from contextlib import closing

import pytest

from tests.devices.conftest import ADDRESS, Phone
from tests.reliability.bench import ROOT, Client, Server


@pytest.fixture(scope="module")
def installed(tmp_path_factory):
    """A clean environment with the wheel only; its folder."""
    made = subprocess.run(["make", "wheel"], cwd=ROOT, capture_output=True, text=True, timeout=600)
    assert made.returncode == 0, made.stdout + made.stderr
    (wheel,) = (ROOT / ".venv/wheel").glob("*.whl")
    there = tmp_path_factory.mktemp("installed")
    venv.create(there / "env")
    # By this project's own installer; what is imported is compiled when it is.
    pip = [sys.executable, "-m", "pip", "--python", str(there / "env/bin/python"), "install", "--no-compile"]
    put = subprocess.run(
        [*pip, "--quiet", "--disable-pip-version-check", str(wheel)],
        cwd=there,
        capture_output=True,
        text=True,
        timeout=900,
    )
    assert put.returncode == 0, put.stderr
    return there


def own(installed):
    """An environment in which a person's data lies in a folder of the test's own."""
    kept = {k: v for k, v in os.environ.items() if k in ("PATH", "LANG", "TMPDIR")}
    return {**kept, "HOME": str(installed / "home"), "XDG_DATA_HOME": str(installed / "home/data")}


def run(installed, *words):
    return subprocess.run(
        [str(installed / "env/bin/swapglow"), *words],
        cwd=installed,
        env=own(installed),
        capture_output=True,
        text=True,
        timeout=300,
    )


def test_it_starts_empty_keeps_a_lamp_and_brings_it_back(installed):
    program = str(installed / "env/bin/swapglow")
    room = installed / "home/data/swapglow"
    server = Server(room, command=[program, "serve"], env=own(installed))
    server.room = installed / "x"
    server.start()
    client = Client(server.port)
    assert client.ask("GET", "bench")[1]["equipment"] == []
    # The front end comes with it: the page, and the script that it names.
    page = urllib.request.urlopen(f"http://127.0.0.1:{server.port}/", timeout=10).read().decode()
    script = page.split('src="/static/', 1)[1].split('"', 1)[0]
    assert len(urllib.request.urlopen(f"http://127.0.0.1:{server.port}/static/{script}", timeout=10).read()) > 10_000
    # Its tables and its circuits too.
    catalogue = client.ask("GET", "catalogue")[1]
    assert len(catalogue["lamps"]) > 40 and len(catalogue["fitted"]) > 20
    keys = client.made()
    assert "Traceback" not in server.stop()
    assert (room / "swapglow.sqlite3").exists()

    server = Server(installed / "x", command=[program, "serve"], env=own(installed)).start()
    report = Client(server.port).ask("POST", f"positions/{keys['position']}/assess", {})
    assert report[0] == 200 and report[1]["report"]["sizing"]["each"]["number"]
    server.stop()

    assert run(installed, "backup").returncode == 0
    assert run(installed, "check").returncode == 0
    assert run(installed, "restore").returncode == 0
    server = Server(installed / "x", command=[program, "serve"], env=own(installed)).start()
    assert [e["name"] for e in Client(server.port).ask("GET", "bench")[1]["equipment"]] == ["Tide gauge"]
    server.stop()


def test_a_phone_is_paired_through_tls_and_older_records_are_brought_along(installed):
    """Everything that the shared door needs comes with the wheel, and so do the migrations."""
    program, room = str(installed / "env/bin/swapglow"), installed / "older"
    room.mkdir()
    with closing(sqlite3.connect(room / "swapglow.sqlite3")) as made:
        made.executescript((ROOT / "tests/fixtures/database-3.sql").read_text())
        made.commit()
    command = [program, "serve", "--share", "--no-browser", "--records", str(room)]
    server = Server(installed / "x", command=command, env={**own(installed), "SWAPGLOW_SHARE_ADDRESS": ADDRESS}).start()
    found = Client(server.port).ask("GET", "devices")[1]
    phone = Phone(int(found["sharing"]["urls"][0].rsplit(":", 1)[1]))
    assert phone.pair(found["offer"])[0] == 200
    items = phone("GET", "bench")[1]["equipment"]
    assert items and items == Client(server.port).ask("GET", "bench")[1]["equipment"]
    assert "Traceback" not in server.stop()
    # Brought back from the backup that was made before: the phone stays paired, for it is not among the records.
    [before] = (room / "backups").glob("*-update-*.sqlite3")
    assert run(installed, "restore", before.name, "--records", str(room)).returncode == 0
    server = Server(
        installed / "x",
        server.port,
        command=[*command[:2], "--records", str(room)],
        env={**own(installed), "SWAPGLOW_SHARE_ADDRESS": ADDRESS},
    ).start()
    assert {e["name"] for e in phone("GET", "bench")[1]["equipment"]} == {e["name"] for e in items}
    server.stop()


def test_the_demo_has_a_room_of_its_own(installed):
    """It is never mixed with real records."""
    program = str(installed / "env/bin/swapglow")
    server = Server(installed / "x", command=[program, "serve", "--demo"], env=own(installed)).start(wait=90)
    names = {e["name"] for e in Client(server.port).ask("GET", "bench")[1]["equipment"]}
    server.stop()
    assert "Tide gauge" not in names and len(names) > 10


def test_the_commands_answer_from_the_wheel(installed):
    assert "fit" in run(installed, "size", "--rail", "12V", "--vf", "2V", "--current", "5mA").stdout
    assert run(installed, "catalogue").returncode == 0
