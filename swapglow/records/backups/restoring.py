"""A backup brought back: the whole bench, with what was here kept, or a look into it for one item."""

import itertools
import logging
import os
import shutil
import sqlite3
import tempfile
from collections.abc import Iterator
from contextlib import closing, contextmanager
from datetime import UTC, datetime
from pathlib import Path

from django.conf import settings
from django.core.management import call_command
from django.db import connection, connections
from filelock import FileLock
from filelock import Timeout as LockTimeout

from swapglow.records import summaries
from swapglow.records.backups import shelf
from swapglow.records.backups.database import Counts, Unfit, due_migrations, look_at
from swapglow.records.photographs import place

log = logging.getLogger("swapglow.backups")

_numbers = itertools.count(1)


class CannotRestoreError(Exception):
    """Why a backup cannot be brought back, with a way out."""


@contextmanager
def up_to_date(database: Path) -> Iterator[str]:
    """A copy of a database, brought to this version's tables, under a name that Django knows it by.

    Args:
        database: a backup; it stays as it is.

    Yields:
        The name, for ``using``.

    Raises:
        sqlite3.DatabaseError: it is damaged.
        Unfit: it is another program's or a later version's.
    """
    look_at(database, thorough=True)
    alias = f"backup-{next(_numbers)}"
    with tempfile.TemporaryDirectory(prefix="swapglow-", dir=settings.VAR) as folder:
        copy = Path(folder) / "copy.sqlite3"
        shutil.copyfile(database, copy)
        connections.databases[alias] = {**connections["default"].settings_dict, "NAME": str(copy)}
        try:
            if due_migrations(alias):
                call_command("migrate", database=alias, verbosity=0, interactive=False)
            yield alias
        finally:
            connections[alias].close()
            del connections[alias]
            del connections.databases[alias]


def restore(database: Path, pictures: Path) -> Path | None:
    """Put a backup in the place of what is here, which is kept: as a backup where it is sound, else moved aside.

    Args:
        database: the backup.
        pictures: the folder of its photographs.

    Returns:
        Where what was here is now; None where nothing was.

    Raises:
        CannotRestoreError: a server has the damaged database open, or the backup is damaged.
        OSError, sqlite3.Error: the disk is full, or the database is being written to.
    """
    try:
        with up_to_date(database) as alias:
            for digest in shelf.digests_of(database):
                shelf.copy_picture(place(digest, pictures), place(digest))
            connections[alias].close()
            return _into_place(Path(connections.databases[alias]["NAME"]))
    except (sqlite3.DatabaseError, Unfit) as problem:
        raise CannotRestoreError(f"{database.name} cannot be brought back: {problem}") from problem


def _into_place(copy: Path) -> Path | None:
    here = Path(settings.DATABASES["default"]["NAME"])
    was = _keep_what_is_here(here)
    if here.exists():
        # Into the open database, as one write: whoever serves it sees the old records or the new ones.
        connection.ensure_connection()
        with closing(sqlite3.connect(copy)) as source:
            source.backup(connection.connection)
    else:
        here.parent.mkdir(parents=True, exist_ok=True)
        with closing(sqlite3.connect(copy)) as source:
            source.execute("PRAGMA wal_checkpoint(TRUNCATE)")
            source.execute("PRAGMA journal_mode=DELETE")
        os.chmod(copy, 0o600)
        shutil.copyfile(copy, here.with_suffix(".coming"))
        here.with_suffix(".coming").replace(here)
        connection.close()
    summaries.mark_outdated()
    log.info("restored")
    return was


def _keep_what_is_here(here: Path) -> Path | None:
    if not here.exists() or here.stat().st_size == 0:
        here.unlink(missing_ok=True)
        for beside in _beside(here):
            beside.unlink(missing_ok=True)
        return None
    try:
        look_at(here)
        # Pages that a quick look passes over come to light as they are copied.
        return shelf.make("restore").path
    except (sqlite3.Error, Unfit):
        return _move_aside(here)


def _beside(here: Path) -> list[Path]:
    return [here.with_name(here.name + end) for end in ("-wal", "-shm", "-journal")]


def _move_aside(here: Path) -> Path:
    """Move a database that is damaged into a folder of its own, with the logs that belong to it."""
    if serving():
        raise CannotRestoreError("Swap Glow is running with this database. Stop it first, then restore.")
    connection.close()
    aside = Path(settings.VAR) / f"damaged-{datetime.now(UTC):%Y%m%d-%H%M%S}"
    aside.mkdir(exist_ok=True)
    for path in (here, *_beside(here)):
        if path.exists():
            path.replace(aside / path.name)
    return aside


def serving() -> bool:
    """Whether a server, this process among them, has the records open."""
    for path in Path(settings.VAR).glob("serving-*.lock"):
        try:
            with FileLock(path, timeout=0):
                pass
        except LockTimeout:
            return True
    return False


def counts_here() -> Counts:
    """How much is on the bench now."""
    return look_at(Path(settings.DATABASES["default"]["NAME"]))
