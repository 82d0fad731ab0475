"""Bring room, database, static files and demo in order before anything is served, or say what is in the way."""

import errno
import hashlib
import json
import os
import re
import sqlite3
from contextlib import closing
from datetime import UTC, datetime, timedelta
from pathlib import Path

from django.conf import settings
from django.core.management import call_command
from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor

KEPT_BACKUPS = 7
BACKUP_AFTER = timedelta(days=1)


class NotReady(Exception):
    """Why nothing can be served, with a way out."""


def prepare() -> None:
    """Make everything ready that is served.

    Raises:
        NotReady: what is in the way, and what to do about it.
    """
    try:
        _private(settings.VAR)
        _sound()
        _migrate()
        serve_files()
        _records()
    except sqlite3.Error as problem:
        raise _database(problem) from problem
    except DatabaseError as problem:
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


def _sound() -> None:
    """Refuse a database that is damaged before anything is done to it."""
    path = _path()
    if not path.exists():
        return
    with closing(sqlite3.connect(path)) as found:
        [(said, *_), *_] = found.execute("PRAGMA quick_check(1)").fetchall()
        if said != "ok":
            raise sqlite3.DatabaseError(f"malformed: {said}")
        # A write that is taken back: whether there is room, and leave, to write at all.
        found.execute("BEGIN IMMEDIATE")
        found.execute("CREATE TABLE can_be_written (x)")
        found.rollback()


def _migrate() -> None:
    plan = MigrationExecutor(connection)
    due = plan.migration_plan(plan.loader.graph.leaf_nodes())
    if _path().exists() and _path().stat().st_size > 0 and (due or _backup_due()):
        _back_up()
    call_command("migrate", verbosity=0, interactive=False)


def _backups() -> list[Path]:
    return sorted((settings.VAR / "backups").glob("swapglow-*.sqlite3"))


def _backup_due() -> bool:
    newest = max((b.stat().st_mtime for b in _backups()), default=0.0)
    return datetime.now(UTC) - datetime.fromtimestamp(newest, UTC) > BACKUP_AFTER


def _back_up() -> None:
    """A copy of the database as it stands, written beside its name first, so that half of one is none."""
    room = settings.VAR / "backups"
    room.mkdir(exist_ok=True)
    name = f"swapglow-{datetime.now(UTC):%Y%m%d-%H%M%S}.sqlite3"
    half = room / f"{name}.half"
    with closing(sqlite3.connect(_path())) as from_, closing(sqlite3.connect(half)) as to:
        from_.backup(to)
    half.rename(room / name)
    for old in _backups()[:-KEPT_BACKUPS]:
        old.unlink()


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
            "The front end could not be put where it is served from. Run make clean, then make demo."
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
        raise NotReady("The front end is built only in part. Run make clean, then make build.")
    return found


def _all_there(built: dict[str, str]) -> bool:
    root = Path(settings.STATIC_ROOT)
    return all(
        (root / name).is_file() and (root / name).stat().st_size == (settings.DIST / name).stat().st_size
        for name in built
    )


def _records() -> None:
    # Models may be imported only once Django is set up.
    from swapglow.api.saving import forget_old_answers
    from swapglow.records import steps, summaries
    from swapglow.records.photographs import sweep_out

    call_command("load_demo")
    steps.prune()
    sweep_out()
    forget_old_answers()
    summaries.mark_outdated()


def _database(problem: Exception) -> NotReady:
    said = str(problem).lower()
    path = _path()
    if "malformed" in said or "not a database" in said:
        newest = _backups()[-1:] or None
        way = (
            f"The newest backup is {newest[0].name} in its folder backups" if newest else "There is no backup"
        )
        return NotReady(
            f"The database {path.name} is damaged. {way}: put it in its place, or move {path.name} away to begin anew."
        )
    if "readonly" in said or "unable to open" in said:
        return NotReady(f"The database {path.name} cannot be written to. See who may write to its folder.")
    if "full" in said:
        return NotReady("The disk is full. Make room, then start again.")
    if "locked" in said:
        return NotReady("Another program holds the database. Close it, then start again.")
    return NotReady(f"The database gave an error: {problem}. Its folder backups holds copies.")


def _machine(problem: OSError) -> str:
    where = Path(problem.filename).name if problem.filename else "the folder of records"
    if problem.errno == errno.ENOSPC:
        return "The disk is full. Make room, then start again."
    if problem.errno in (errno.EACCES, errno.EPERM, errno.EROFS):
        return (
            f"{where} cannot be written to. See who may write there, or set SWAPGLOW_VAR to another folder."
        )
    return f"{where}: {problem.strerror or problem}."
