"""A room in which Swap Glow has run, made once and copied for whoever needs one of their own."""

import shutil
import sqlite3
import time
from contextlib import closing

import pytest

from tests.reliability.bench import Client, Server


def _waiting(room):
    """How many lamps are still to be worked out."""
    with closing(sqlite3.connect(room / "swapglow.sqlite3")) as found:
        return found.execute("SELECT count(*) FROM records_summary WHERE due").fetchone()[0]


@pytest.fixture(scope="session")
def used(tmp_path_factory):
    """A room in which Swap Glow has run and something was saved; every lamp is worked out.

    The demo is deleted as a user would: nobody here looks at its lamps, and each start would work them out.
    """
    room = tmp_path_factory.mktemp("used") / "var"
    server = Server(room).start()
    client = Client(server.port)
    for item in client.ask("GET", "bench")[1]["equipment"]:
        assert client.save("DELETE", f"equipment/{item['id']}")[0] == 204
    client.made()
    until = time.monotonic() + 120
    while _waiting(room) and time.monotonic() < until:
        time.sleep(0.25)
    assert not _waiting(room)
    server.stop()
    # What a busy machine had not yet carried over from SQLite's side file: the tests harm the main one.
    with closing(sqlite3.connect(room / "swapglow.sqlite3")) as database:
        database.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    return room


@pytest.fixture
def room(used, tmp_path):
    """A copy of it."""
    return shutil.copytree(used, tmp_path / "var")
