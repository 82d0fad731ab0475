"""Photographs as they are kept: each picture one file, under its digest, so that a backup copies it once."""

import contextlib
import hashlib
import os
import re
import time
from pathlib import Path

from django.conf import settings

from swapglow.records.models import Photo

_DIGEST = re.compile(r"[0-9a-f]{64}")
# A picture whose record is not saved yet is not swept out.
_YOUNG_S = 24 * 3600.0


def place(digest: str, room: Path | None = None) -> Path:
    """The file of a picture.

    Args:
        digest: SHA-256 of the JPEG.
        room: the folder of pictures; the bench's own where None.
    """
    return (room or Path(settings.PHOTOGRAPHS)) / digest[:2] / f"{digest}.jpg"


def keep(jpeg: bytes) -> str:
    """Keep a re-encoded picture once, on the disk before this returns; returns its digest."""
    digest = hashlib.sha256(jpeg).hexdigest()
    put(jpeg, place(digest))
    return digest


def put(jpeg: bytes, path: Path) -> None:
    """Write a file whole or not at all; one of this size that is there already stays."""
    with contextlib.suppress(FileNotFoundError):
        if path.stat().st_size == len(jpeg):
            return
    path.parent.mkdir(parents=True, exist_ok=True)
    half = path.with_name(f".{path.name}.{os.getpid()}-{time.monotonic_ns()}")
    try:
        with half.open("wb") as out:
            out.write(jpeg)
            out.flush()
            os.fsync(out.fileno())
        half.replace(path)
    except OSError:
        half.unlink(missing_ok=True)
        raise
    with contextlib.suppress(OSError):
        folder = os.open(path.parent, os.O_RDONLY)
        try:
            os.fsync(folder)
        finally:
            os.close(folder)


def jpeg_of(digest: str) -> bytes | None:
    """A picture; None where its file is gone."""
    try:
        return place(digest).read_bytes() if _DIGEST.fullmatch(digest) else None
    except FileNotFoundError:
        return None


def wanted() -> set[str]:
    """Digests of all pictures that a photograph, or the history of one, knows."""
    return {
        *Photo.objects.order_by().values_list("digest", flat=True),
        *Photo.history.order_by().values_list("digest", flat=True),
    }


def sweep_out() -> int:
    """Delete pictures that no photograph and no history of one knows; returns how many."""
    known, gone = wanted(), 0
    for path in Path(settings.PHOTOGRAPHS).glob("*/*"):
        if path.stem not in known and time.time() - path.stat().st_mtime > _YOUNG_S:
            path.unlink(missing_ok=True)
            gone += 1
    return gone
