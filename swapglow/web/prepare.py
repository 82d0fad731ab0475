"""Bring room, database, static files and demo in order before anything is served, or say what is in the way."""

import errno
import hashlib
import json
import logging
import os
import re
import sqlite3
from contextlib import closing
from pathlib import Path

from django.conf import settings
from django.core.management import call_command
from django.db import DatabaseError, connection, connections
from django.db.migrations.executor import MigrationExecutor
from filelock import FileLock
from filelock import Timeout as LockTimeout

from swapglow import __version__
from swapglow.devices.router import ALIAS as DEVICES
from swapglow.records.backups import shelf
from swapglow.records.backups.database import Unfit, due_migrations, look_at, refuse_later
from swapglow.web.commands import command
from swapglow.web.versions import changes, note_version, version_before

log = logging.getLogger("swapglow.start")

# How long a start waits for another one that is putting the same room in order.
PATIENCE_S = 120.0


class NotReady(Exception):
    """Why nothing can be served, with a way out."""


def prepare() -> None:
    """Make everything ready that is served.

    Raises:
        NotReady: what is in the way, and what to do about it.
    """
    try:
        with FileLock(settings.VAR / "starting.lock", timeout=PATIENCE_S):
            _private(settings.VAR)
            _clear_half_made()
            _sound()
            _migrate()
            _devices()
            serve_files()
            _records()
            _back_up()
            _tell_what_is_new()
    except LockTimeout:
        raise NotReady("Another start is putting these records in order. Wait for it, then start again.") from None
    except Unfit as problem:
        raise NotReady(_unfit(problem)) from problem
    except (sqlite3.Error, DatabaseError) as problem:
        raise _database(problem) from problem
    except OSError as problem:
        raise NotReady(_machine(problem)) from problem


def _private(room: Path) -> None:
    """Records, backups and photographs are for their owner only."""
    for folder, _, names in os.walk(room):
        os.chmod(folder, 0o700)
        for name in names:
            os.chmod(Path(folder, name), 0o600)


def _path() -> Path:
    return Path(settings.DATABASES["default"]["NAME"])


def _being_made() -> Path:
    """The mark of a database that is being made for the first time. Nothing was served from one that carries it."""
    return _path().with_suffix(".being-made")


def _clear_half_made() -> None:
    """Delete a database whose first start was killed half-way: a migration may be done and not recorded."""
    if _being_made().exists() and not shelf.shelf():
        for end in ("", "-wal", "-shm"):
            Path(f"{_path()}{end}").unlink(missing_ok=True)


def _sound() -> None:
    """Refuse a database that is damaged, gone, or not this version's, before anything is done to it."""
    path = _path()
    if (not path.exists() or _is_blank(path)) and any(b.counts.items for b in shelf.shelf()):
        raise Unfit("gone", f"The database {path.name} is {'empty' if path.exists() else 'gone'}.")
    if not path.exists():
        return
    look_at(path)
    with closing(sqlite3.connect(path)) as found:
        # A write that is taken back: whether there is room, and leave, to write at all.
        found.execute("BEGIN IMMEDIATE")
        found.execute("CREATE TABLE can_be_written (x)")
        found.rollback()


def _is_blank(path: Path) -> bool:
    """Whether a file has lost all it held: SQLite takes a file of no bytes for a new database."""
    return path.stat().st_size == 0


def _migrate() -> None:
    before, mark = None, _being_made()
    if not _path().exists():
        mark.touch(mode=0o600)
    if due_migrations(connection.alias) and MigrationExecutor(connection).loader.applied_migrations:
        before = shelf.make("update")
    try:
        call_command("migrate", verbosity=0, interactive=False)
    except Exception as problem:
        if before is None:
            raise
        log.error("the update failed", exc_info=problem)
        raise NotReady(_back_to(before, problem)) from problem
    mark.unlink(missing_ok=True)


def _back_to(before: shelf.Backup, problem: Exception) -> str:
    """Put the database back to what it was before an update that failed; how to go on, in words."""
    connections.close_all()
    with closing(sqlite3.connect(before.path)) as source, closing(sqlite3.connect(_path())) as here:
        source.backup(here)
    was = version_before()
    install = f" Install that version again: pip install swapglow=={was}" if was else " Install that version again."
    return (
        f"Your records could not be brought to this version ({problem}). They are as they were before, with the "
        f"version before.{install}"
    )


def _devices() -> None:
    """Bring the devices' database to this version; a damaged one is put aside, and every device is paired again."""
    path = Path(settings.DATABASES[DEVICES]["NAME"])
    try:
        if path.exists():
            with closing(sqlite3.connect(path)) as found:
                refuse_later(path, found, DEVICES)
        call_command("migrate", DEVICES, database=DEVICES, verbosity=0, interactive=False)
    except (sqlite3.DatabaseError, DatabaseError) as problem:
        said = str(problem).lower()
        if "malformed" not in said and "not a database" not in said:
            raise
        connections[DEVICES].close()
        path.replace(path.with_suffix(".damaged"))
        for beside in ("-wal", "-shm"):
            Path(f"{path}{beside}").unlink(missing_ok=True)
        print("The list of paired phones was damaged. It begins empty: pair your phones again.", flush=True)
        call_command("migrate", DEVICES, database=DEVICES, verbosity=0, interactive=False)


def _back_up() -> None:
    """A copy of what is served. A start goes on without one: that the disk is full is for the person to know first."""
    try:
        if not shelf.unchanged_since_newest():
            shelf.make("start")
    except (OSError, sqlite3.Error, Unfit) as problem:
        log.error("no backup was made at the start", exc_info=problem)
        print(f"No backup could be made: {problem}", flush=True)


def _tell_what_is_new() -> None:
    was = version_before()
    if new := changes(was):
        print(f"Swap Glow was {was} here and is now {__version__}. What is new:", flush=True)
        print("\n".join(f"  - {line}" for line in new), flush=True)
    settings.NEWS[:] = new
    note_version()


def serve_files() -> None:
    """Collect the front end where what is collected is not whole or not that which was built.

    The mark that it is whole is taken off first and put on last: a start that was killed half-way begins again.
    """
    built = _built()
    mark = Path(settings.STATIC_ROOT) / ".whole"
    if mark.exists() and mark.read_text(encoding="utf-8") == json.dumps(built) and _all_there(built):
        return
    mark.unlink(missing_ok=True)
    Path(settings.STATIC_ROOT).mkdir(parents=True, exist_ok=True)
    call_command("collectstatic", verbosity=0, interactive=False, clear=True)
    if not _all_there(built):
        raise NotReady(
            f"The front end could not be copied to {settings.STATIC_ROOT}. See whether the disk is full and who may "
            f"write there, then start again."
        )
    mark.write_text(json.dumps(built), encoding="utf-8")


def _built() -> dict[str, str]:
    """Every file of the front end as it was built, with its digest; all that the page asks for is there."""
    page = settings.DIST / "index.html"
    if not page.exists():
        raise NotReady("The front end is not built. Run make build.")
    found = {
        str(path.relative_to(settings.DIST)): hashlib.sha256(path.read_bytes()).hexdigest()
        for path in sorted(settings.DIST.rglob("*"))
        if path.is_file()
    }
    wanted = re.findall(r'(?:src|href)="/static/([^"]+)"', page.read_text(encoding="utf-8"))
    missing = [name for name in wanted if name not in found]
    if missing or not wanted:
        raise NotReady("The front end is built only in part. Run make rebuild. It does not touch your records.")
    return found


def _all_there(built: dict[str, str]) -> bool:
    root = Path(settings.STATIC_ROOT)
    return all(
        (root / name).is_file() and (root / name).stat().st_size == (settings.DIST / name).stat().st_size
        for name in built
    )


def _records() -> None:
    # Models may be imported only once Django is set up.
    from swapglow.records import summaries, upkeep
    from swapglow.records.photographs import sweep_out

    if settings.DEMO:
        call_command("load_demo", verbosity=0)
    upkeep.let_go()
    upkeep.give_back_space()
    sweep_out()
    shelf.sweep_out()
    summaries.mark_outdated()


def _unfit(problem: Unfit) -> str:
    if problem.what == "later":
        return f"{problem} Start the newer version of Swap Glow; this one would lose what it does not know."
    return f"{problem} {_way_back()}"


def _way_back() -> str:
    """How to get the records back, word for word."""
    newest = next((b for b in shelf.shelf() if b.counts.items), None)
    if newest is None:
        return (
            f"There is no backup that holds anything. Move {_path()} to another folder, then start again: "
            f"the bench begins empty."
        )
    return f"{_newest(newest)} Bring it back with this command, then start again:\n    {command('restore')}"


def _newest(b: shelf.Backup) -> str:
    return f"The newest backup is of {b.when}: {b.counts}."


def _database(problem: Exception) -> NotReady:
    said = str(problem).lower()
    path = _path()
    if "malformed" in said or "not a database" in said:
        return NotReady(f"The database {path.name} is damaged. {_way_back()}")
    if "readonly" in said or "unable to open" in said:
        return NotReady(f"The database {path.name} cannot be written to. See who may write to its folder.")
    if "full" in said:
        return NotReady("The disk is full. Make room, then start again.")
    if "locked" in said:
        return NotReady("Another program holds the database. Close it, then start again.")
    return NotReady(f"The database gave an error: {problem}. Look at it with this command:\n    {command('check')}")


def _machine(problem: OSError) -> str:
    where = Path(problem.filename).name if problem.filename else "the folder of records"
    if problem.errno == errno.ENOSPC:
        return "The disk is full. Make room, then start again."
    if problem.errno in (errno.EACCES, errno.EPERM, errno.EROFS):
        return f"{where} cannot be written to. See who may write there, or set SWAPGLOW_VAR to another folder."
    return f"{where}: {problem.strerror or problem}."
