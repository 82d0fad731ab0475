"""The backups of a bench: made with SQLite's online backup while others write, checked, counted and named."""

import logging
import os
import re
import shutil
import sqlite3
import time
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Literal

from django.conf import settings
from django.db import connection
from filelock import FileLock

from swapglow.records.backups import second_copy
from swapglow.records.backups.database import Counts, Unfit, look_at, opened
from swapglow.records.backups.keeping import kept
from swapglow.records.photographs import place

log = logging.getLogger("swapglow.backups")

# "start" and "hourly" by themselves, "update", "restore" and "export" before those, "asked" by a person.
Why = Literal["start", "hourly", "update", "restore", "export", "asked"]

_NAME = re.compile(
    r"swapglow-(?P<at>\d{8}-\d{6})"
    r"(?:-(?P<why>[a-z]+)-(?P<items>\d+)items-(?P<lamps>\d+)lamps-(?P<readings>\d+)readings"
    r"-(?P<photographs>\d+)photographs)?\.sqlite3"
)
_WHEN = "%Y%m%d-%H%M%S"
# What is younger may be somebody's work in progress.
_YOUNG_S = 24 * 3600.0


class NoBackupError(Exception):
    """There is no backup of a name."""


@dataclass(frozen=True)
class Backup:
    """A backup on the shelf.

    Attributes:
        path: the file.
        at: when it was made, UTC.
        why: what it was made for; "" of versions that did not say.
        counts: what is in it.
    """

    path: Path
    at: datetime
    why: str
    counts: Counts

    @property
    def special(self) -> bool:
        """Whether it is the way back from an update or a restore, or somebody asked for it."""
        return self.why in ("update", "restore", "asked")

    @property
    def when(self) -> str:
        """When it was made, by this machine's clock."""
        local = self.at.astimezone()
        return f"{local.day} {local:%B %Y}, {local:%H:%M}"


def room() -> Path:
    """The folder of the backups."""
    return Path(settings.VAR) / "backups"


def pictures() -> Path:
    """The folder of the backups' photographs, each once for all of them."""
    return room() / "photographs"


def shelf() -> list[Backup]:
    """All backups, the newest first; what is no backup of ours is left out."""
    found = [backup for path in room().glob("swapglow-*.sqlite3") if (backup := _backup(path)) is not None]
    return sorted(found, key=lambda b: (b.at, b.path.name), reverse=True)


def named(name: str) -> Backup:
    """A backup by its file's name.

    Raises:
        NoBackupError: there is none of that name.
    """
    found = next((b for b in shelf() if b.path.name == name), None)
    if found is None:
        raise NoBackupError(f"There is no backup of the name {name}.")
    return found


def _backup(path: Path) -> Backup | None:
    said = _NAME.fullmatch(path.name)
    if said is None:
        return None
    at = datetime.strptime(said["at"], _WHEN).replace(tzinfo=UTC)
    if said["why"]:
        numbers = (int(said[part]) for part in ("items", "lamps", "readings", "photographs"))
        return Backup(path, at, said["why"], Counts(*numbers))
    try:
        return Backup(path, at, "", look_at(path))
    except (sqlite3.Error, Unfit):
        return Backup(path, at, "", Counts())


def make(why: Why) -> Backup:
    """Make a backup of the database as it stands, with its photographs.

    It is opened, checked and counted before it gets its name, so that half of one is none.

    Args:
        why: what it is for.

    Returns:
        The backup.

    Raises:
        OSError, sqlite3.Error: it could not be made; nothing of it is left.
        Unfit: what was copied is no database of ours.
    """
    room().mkdir(parents=True, exist_ok=True)
    with FileLock(room() / "making.lock", timeout=300):
        half = room() / f"half-{os.getpid()}.sqlite3"
        try:
            _copy_to(half)
            counts = look_at(half, thorough=True)
            _keep_pictures(half)
            made = _put_on_shelf(half, why, counts)
        finally:
            half.unlink(missing_ok=True)
        thin_out()
        second_copy.bring_up_to_date(made.path, pictures())
    log.info("backed up", extra={"why": why, "items": counts.items, "lamps": counts.lamps})
    return made


def _copy_to(half: Path) -> None:
    half.unlink(missing_ok=True)
    connection.ensure_connection()
    with closing(sqlite3.connect(half)) as to:
        connection.connection.backup(to)
        # One file: without this a copy would keep a log beside it, as the database does that it comes from.
        to.execute("PRAGMA journal_mode=DELETE")


def _put_on_shelf(half: Path, why: Why, c: Counts) -> Backup:
    os.chmod(half, 0o600)
    with half.open("rb+") as whole:
        os.fsync(whole.fileno())
    at = datetime.now(UTC).replace(microsecond=0)
    while any(b.at == at for b in shelf()):
        at += timedelta(seconds=1)
    name = (
        f"swapglow-{at.strftime(_WHEN)}-{why}-{c.items}items-{c.lamps}lamps-{c.readings}readings"
        f"-{c.photographs}photographs.sqlite3"
    )
    half.replace(room() / name)
    return Backup(room() / name, at, why, c)


def digests_of(database: Path) -> set[str]:
    """Digests of the photographs that a database or its history knows."""
    with opened(database) as found:
        tables = {name for (name,) in found.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        known = tables & {"records_photo", "records_historicalphoto"}
        return {str(d) for name in known for (d,) in found.execute(f"SELECT digest FROM {name}")}


def _keep_pictures(database: Path) -> None:
    """Copy the photographs that no backup before had."""
    for digest in digests_of(database):
        copy_picture(place(digest), place(digest, pictures()))


def copy_picture(source: Path, target: Path) -> bool:
    """Copy a photograph's file where it is not there yet, whole or not at all; says whether one is there now."""
    if target.exists():
        return True
    if not source.exists():
        return False
    target.parent.mkdir(parents=True, exist_ok=True)
    half = target.with_name(f".{target.name}.{os.getpid()}")
    shutil.copyfile(source, half)
    half.replace(target)
    return True


def thin_out() -> None:
    """Delete the backups that are not kept."""
    there = shelf()
    stay = kept(there, datetime.now(UTC))
    for old in there:
        if old not in stay:
            old.path.unlink(missing_ok=True)


def sweep_out() -> None:
    """Delete what a kill left half done a day ago, and photographs that no backup on the shelf knows any more."""
    for half in (*room().glob("half-*"), *Path(settings.VAR).glob("swapglow-????????")):
        if time.time() - half.stat().st_mtime > _YOUNG_S:
            shutil.rmtree(half, ignore_errors=True) if half.is_dir() else half.unlink(missing_ok=True)
    known: set[str] = set()
    for b in shelf():
        try:
            known |= digests_of(b.path)
        except sqlite3.Error:
            # What a backup knows that cannot be read, nobody can say: all stay.
            return
    for path in pictures().glob("*/*.jpg"):
        if path.stem not in known:
            path.unlink(missing_ok=True)


def unchanged_since_newest() -> bool:
    """Whether the newest backup holds what is here now: the last step of both is the same."""
    newest = next(iter(shelf()), None)
    if newest is None:
        return False
    try:
        with opened(newest.path) as found:
            then = found.execute(_LAST).fetchone()
    except sqlite3.Error:
        return False
    with connection.cursor() as now:
        now.execute(_LAST)
        return bool(now.fetchone() == then)


_LAST = (
    "SELECT (SELECT max(id) FROM records_step), (SELECT max(at) FROM records_step),"
    " (SELECT count(*) FROM records_equipment), (SELECT max(id) FROM django_migrations)"
)


def hourly_is_due() -> bool:
    """Whether something was changed that no backup of the last hour holds."""
    newest = next(iter(shelf()), None)
    # A backup of a later time: the clock was set back.
    recent = newest is not None and timedelta() <= datetime.now(UTC) - newest.at < timedelta(hours=1)
    return not recent and not unchanged_since_newest()
