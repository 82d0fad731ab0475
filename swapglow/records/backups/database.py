"""A database file looked at from outside: whether it is sound, whether it is ours, and how much is in it."""

import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import astuple, dataclass, fields
from pathlib import Path
from typing import Literal

from django.db import connections
from django.db.migrations.executor import MigrationExecutor
from django.db.migrations.loader import MigrationLoader

# The tables that are counted, under every name that they have had.
_TABLES = {
    "items": ("records_equipment",),
    "lamps": ("records_position",),
    "readings": ("records_readingafter", "records_readingbefore", "records_reading", "records_taken"),
    "photographs": ("records_photo",),
}


class Unfit(Exception):
    """A database that cannot be served, with the reason in words.

    Attributes:
        what: "gone", "foreign" for another program's, "later" for a later version's.
    """

    def __init__(self, what: Literal["gone", "foreign", "later"], message: str) -> None:
        super().__init__(message)
        self.what = what


@dataclass(frozen=True)
class Counts:
    """How much a bench holds."""

    items: int = 0
    lamps: int = 0
    readings: int = 0
    photographs: int = 0

    def __str__(self) -> str:
        pairs = zip(fields(self), astuple(self), strict=True)
        return ", ".join(f"{n} {f.name.removesuffix('s') if n == 1 else f.name}" for f, n in pairs)


@contextmanager
def opened(path: Path) -> Iterator[sqlite3.Connection]:
    """A database file, closed again."""
    with closing(sqlite3.connect(path)) as found:
        yield found


def look_at(path: Path, *, thorough: bool = False) -> Counts:
    """Check a database and count what is in it.

    Args:
        path: the file.
        thorough: compare indexes with their tables too.

    Returns:
        What is in it; nothing of a database without tables.

    Raises:
        sqlite3.DatabaseError: it is damaged, or no database.
        Unfit: it is another program's, or a later version's.
    """
    with opened(path) as found:
        check = "integrity_check(1)" if thorough else "quick_check(1)"
        [(said, *_), *_] = found.execute(f"PRAGMA {check}").fetchall()
        if said != "ok":
            raise sqlite3.DatabaseError(f"malformed: {said}")
        every = found.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
        # SQLite's own tables are nobody's: a first start that was killed leaves the list of migrations and one of them.
        tables = {name for (name,) in every if not name.startswith("sqlite_")}
        if tables <= {"django_migrations"}:
            return Counts()
        if not {"django_migrations", "records_equipment"} <= tables:
            raise Unfit("foreign", f"{path.name} is a database of another program.")
        refuse_later(path, found, "records")
        return Counts(**{name: _rows(found, of, tables) for name, of in _TABLES.items()})


def _rows(found: sqlite3.Connection, names: tuple[str, ...], tables: set[str]) -> int:
    return sum(int(found.execute(f'SELECT count(*) FROM "{name}"').fetchone()[0]) for name in names if name in tables)


def refuse_later(path: Path, found: sqlite3.Connection, app: str) -> None:
    """Refuse a database that a later version has brought to its own tables.

    Args:
        path: its file.
        found: it, opened.
        app: whose tables: "records", "devices".

    Raises:
        Unfit: it is a later version's.
    """
    tables = {n for (n,) in found.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    if "django_migrations" not in tables:
        return
    there = {n for (n,) in found.execute("SELECT name FROM django_migrations WHERE app = ?", (app,))}
    known = {name for of, name in MigrationLoader(None).disk_migrations or () if of == app}
    later = sorted(there - known)
    if later:
        raise Unfit("later", f"{path.name} was written by a later version of Swap Glow (it has {later[-1]}).")


def due_migrations(alias: str) -> bool:
    """Whether a database that Django knows by this name is to be brought to this version first."""
    plan = MigrationExecutor(connections[alias])
    return bool(plan.migration_plan(plan.loader.graph.leaf_nodes()))
