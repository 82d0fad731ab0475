"""For the tests: as ``local``, with a key and a database file of their own."""

from pathlib import Path
from tempfile import mkdtemp

from swapglow.web.settings.base import *  # noqa: F403  # settings are one namespace
from swapglow.web.settings.base import DATABASES, LOGGING

SECRET_KEY = "only-for-tests"
# A file, not memory: parallel requests on a shared memory database lock each other out.
_room = Path(mkdtemp(prefix="swapglow-test-"))
VAR = _room
PHOTOGRAPHS = _room / "photographs"
for _name, _database in DATABASES.items():
    _database["TEST"] = {"NAME": _room / f"{_name}.sqlite3"}
    # No test pulls the plug: without syncs a slow disk does not make the run a long one.
    _database["OPTIONS"]["init_command"] = "PRAGMA journal_mode=WAL;PRAGMA synchronous=OFF;PRAGMA foreign_keys=ON;"
LOG = _room / "swapglow.log"
LOGGING["handlers"]["file"]["filename"] = LOG
STATIC_ROOT = _room / "static"
STATIC_ROOT.mkdir()
