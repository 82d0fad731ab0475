"""The records and their backups looked at, piece by piece."""

import hashlib
import sqlite3
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from django.conf import settings

from swapglow.records.backups import second_copy, shelf
from swapglow.records.backups.database import Unfit, look_at, opened
from swapglow.records.photographs import place


@dataclass(frozen=True)
class Line:
    """What was found of one thing.

    Attributes:
        text: in words.
        well: whether it is as it should be.
    """

    text: str
    well: bool


def checked() -> Iterator[Line]:
    """Look at the database, its photographs, each backup and the second copy.

    Yields:
        A line for each, as soon as it is known.
    """
    here = Path(settings.DATABASES["default"]["NAME"])
    if here.exists():
        yield _database(here, "The records")
        yield from _pictures(here)
    else:
        yield Line(f"There are no records in {here.parent}.", not any(b.counts.items for b in shelf.shelf()))
    for b in shelf.shelf():
        yield _database(b.path, f"The backup of {b.when}")
    if (second := second_copy.second_copy()).folder:
        said = f"failed: {second.problem}" if second.problem else f"was written at {second.at or 'no time yet'}"
        yield Line(f"The second copy in {second.folder} {said}.", not second.problem)


def _database(path: Path, name: str) -> Line:
    try:
        counts = look_at(path, thorough=True)
        with opened(path) as found:
            loose = found.execute("PRAGMA foreign_key_check").fetchall()
    except (sqlite3.Error, Unfit) as problem:
        return Line(f"{name}: {problem}.", False)
    if loose:
        return Line(f"{name}: {len(loose)} entries refer to something that is gone.", False)
    return Line(f"{name}: {counts}.", True)


def _pictures(here: Path) -> Iterator[Line]:
    try:
        digests = sorted(shelf.digests_of(here))
    except sqlite3.Error:
        return
    wrong = [d for d in digests if not _is_whole(place(d), d)]
    if wrong:
        backed_up = sum(_is_whole(place(d, shelf.pictures()), d) for d in wrong)
        yield Line(
            f"{len(wrong)} of {len(digests)} photograph files are missing or damaged; {backed_up} of them are in the "
            f"backups.",
            False,
        )
    else:
        yield Line(f"{len(digests)} photograph files: all there, all whole.", True)


def _is_whole(path: Path, digest: str) -> bool:
    return path.exists() and hashlib.sha256(path.read_bytes()).hexdigest() == digest
