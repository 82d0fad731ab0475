"""The whole bench in one file, out and in: an archive (ZIP) of its database, its photographs and a sentence about it.

bench.json                    format, version, when it was made and how much it holds
swapglow.sqlite3              every record with its history
photographs/ab/abcdef....jpg  each picture once, under the SHA-256 of its bytes
"""

import hashlib
import json
import re
import shutil
import sqlite3
import tempfile
import zipfile
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import asdict
from datetime import UTC, datetime
from pathlib import Path
from typing import BinaryIO, Literal

from django.conf import settings
from pydantic import BaseModel, ConfigDict, ValidationError

from swapglow.core.quantities import InputError
from swapglow.records.backups import shelf
from swapglow.records.backups.database import Counts, Unfit, look_at, opened
from swapglow.records.backups.restoring import restore
from swapglow.records.photographs import place

_DATABASE = "swapglow.sqlite3"
_PICTURE = re.compile(r"photographs/[0-9a-f]{2}/([0-9a-f]{64})\.jpg")
# What one picture may unpack to; ours are under a megabyte.
_LARGEST_PICTURE = 16 * 2**20
_CHUNK = 2**20


class Head(BaseModel):
    """What an archive says of itself."""

    model_config = ConfigDict(extra="ignore")

    format: Literal["swapglow-bench"]
    version: Literal[1]
    made: str = ""
    counts: dict[str, int] = {}


def write(out: BinaryIO) -> Counts:
    """Write the bench into a file.

    Args:
        out: an open file, of which each part is written in turn.

    Returns:
        How much is in it.
    """
    made = shelf.make("export")
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        head = {
            "format": "swapglow-bench",
            "version": 1,
            "made": datetime.now(UTC).isoformat(timespec="seconds"),
            "counts": asdict(made.counts),
        }
        archive.writestr("bench.json", json.dumps(head, indent=1))
        archive.write(made.path, _DATABASE)
        for digest in sorted(shelf.digests_of(made.path)):
            path = place(digest, shelf.pictures())
            if path.exists():
                # A JPEG is small already.
                archive.write(path, f"photographs/{digest[:2]}/{digest}.jpg", zipfile.ZIP_STORED)
    return made.counts


@contextmanager
def unpacked(file: BinaryIO) -> Iterator[tuple[Path, Counts]]:
    """An archive's parts, checked, in a folder for as long as they are needed.

    Args:
        file: the archive; nothing in it is trusted.

    Yields:
        The folder, and how much the database in it holds.

    Raises:
        InputError: ``file``: it is no whole bench, is damaged, or was written by a later version.
    """
    with tempfile.TemporaryDirectory(prefix="swapglow-", dir=settings.VAR) as name:
        folder = Path(name)
        try:
            with zipfile.ZipFile(file) as archive:
                _head(archive)
                _database(archive, folder / _DATABASE)
                for part in archive.infolist():
                    _picture(archive, part, folder)
            counts = look_at(folder / _DATABASE, thorough=True)
            _only_tables(folder / _DATABASE)
        except Unfit as problem:
            raise InputError("file", str(problem)) from None
        except InputError:
            raise
        except OSError as problem:
            if problem.errno is not None:
                raise
            raise InputError("file", _NO_BENCH) from None
        except _BROKEN:
            raise InputError("file", _NO_BENCH) from None
        except sqlite3.DatabaseError:
            raise InputError("file", "The file is damaged: its database cannot be read.") from None
        yield folder, counts


# What the library says of an archive that is none, is cut off, or holds what it does not read.
_BROKEN = (zipfile.BadZipFile, KeyError, ValueError, EOFError, RecursionError, NotImplementedError)
_NO_BENCH = 'This is no whole bench. Choose a file that "Save the whole bench" wrote; its name ends in .bench.zip.'


def _head(archive: zipfile.ZipFile) -> None:
    text = archive.read("bench.json")
    said = json.loads(text)
    if isinstance(said, dict) and said.get("format") == "swapglow-bench" and said.get("version") != 1:
        raise Unfit("later", "The file was written by a later version of Swap Glow. Open it with that version.")
    try:
        Head.model_validate(said)
    except ValidationError:
        raise ValueError("no head of ours") from None


def _database(archive: zipfile.ZipFile, to: Path) -> None:
    part = archive.getinfo(_DATABASE)
    room = shutil.disk_usage(to.parent).free
    if part.file_size > room // 2:
        raise InputError("file", f"It unpacks to {part.file_size // 2**20} MB: there is no room for that here.")
    with archive.open(part) as source, to.open("wb") as out:
        left = part.file_size
        while chunk := source.read(min(_CHUNK, left + 1)):
            left -= len(chunk)
            if left < 0:
                raise zipfile.BadZipFile("longer than it says")
            out.write(chunk)


def _picture(archive: zipfile.ZipFile, part: zipfile.ZipInfo, folder: Path) -> None:
    named = _PICTURE.fullmatch(part.filename)
    if named is None or part.file_size > _LARGEST_PICTURE:
        return
    jpeg = archive.read(part)
    # A file that is not what its name says is left out.
    if hashlib.sha256(jpeg).hexdigest() == named[1]:
        path = place(named[1], folder / "photographs")
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_bytes(jpeg)


def _only_tables(database: Path) -> None:
    """Refuse a database with triggers or views: ours has none, and they would run here."""
    with opened(database) as found:
        odd = found.execute("SELECT count(*) FROM sqlite_master WHERE type IN ('trigger', 'view')").fetchone()
    if odd != (0,):
        raise InputError("file", "The database in this file was not written by Swap Glow. Nothing was brought in.")


def bring_in(file: BinaryIO) -> Counts:
    """Put a whole bench in the place of this one, which is kept as a backup.

    Returns:
        How much came in.

    Raises:
        InputError: ``file``: it is no whole bench.
        CannotRestoreError, OSError, sqlite3.Error: it could not be put in place; what was here is as it was.
    """
    with unpacked(file) as (folder, counts):
        restore(folder / _DATABASE, folder / "photographs")
        return counts
