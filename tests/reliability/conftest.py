"""A room in which Swap Glow has run, made once and copied for whoever needs one of their own."""

import shutil
import sqlite3
import sys
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

    It begins empty: nobody here looks at the demo's lamps, and each start would work them out.
    """
    room = tmp_path_factory.mktemp("used") / "var"
    server = Server(room, command=[sys.executable, "-m", "swapglow.web.serve", "--records", str(room)]).start()
    client = Client(server.port)
    client.made()
    # Its one backup holds something; that of the first start holds nothing.
    for empty in (room / "backups").glob("*.sqlite3"):
        empty.unlink()
    assert client.ask("POST", "backups")[0] == 200
    client.made()  # a change that no backup holds yet
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
