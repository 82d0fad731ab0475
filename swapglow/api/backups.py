"""Backups: what each holds beside what is here, a new one, bringing one back, or one item, or a whole bench."""

import contextlib
import sqlite3
import tempfile
from collections.abc import Iterator
from dataclasses import asdict
from typing import BinaryIO, cast

from django.conf import settings
from django.http import FileResponse, Http404, HttpRequest
from django.utils import timezone
from ninja import File, Router
from ninja.files import UploadedFile

from swapglow.api.saving import changed, in_turn
from swapglow.api.schemas import (
    BackupOut,
    BackupsOut,
    BroughtBack,
    FolderIn,
    Holds,
    Intent,
    ItemAnswer,
    ItemKey,
    ItemThenOut,
    Problems,
    SecondCopyOut,
)
from swapglow.core.quantities import InputError
from swapglow.records.backups import one_item, restoring, second_copy, shelf, whole_bench
from swapglow.records.backups.database import Counts, Unfit
from swapglow.records.backups.restoring import CannotRestoreError

router = Router(tags=["backups"])

# What a whole bench may be as a file that is sent; larger ones come in by the command line.
LARGEST_BENCH = 4 * 1024**3


def _holds(c: Counts) -> Holds:
    return Holds(**asdict(c), line=str(c))


def _out(b: shelf.Backup) -> BackupOut:
    return BackupOut(name=b.path.name, at=b.at.isoformat(), why=b.why, holds=_holds(b.counts))


@contextlib.contextmanager
def _readable() -> Iterator[None]:
    """Say what is wrong with a backup that cannot be used."""
    try:
        yield
    except shelf.NoBackupError:
        raise Http404 from None
    except (CannotRestoreError, Unfit) as problem:
        raise InputError("backup", str(problem)) from None
    except sqlite3.Error as problem:
        raise InputError("backup", f"This backup cannot be read: {problem}. Choose the one before it.") from None


@router.get("/backups", response=BackupsOut)
def read(request: HttpRequest) -> BackupsOut:
    """All backups, the newest first, what is on the bench now, and where the second copies go."""
    return BackupsOut(
        folder=str(shelf.room()),
        now=_holds(restoring.counts_here()),
        backups=[_out(b) for b in shelf.shelf()],
        second=SecondCopyOut(**asdict(second_copy.second_copy())),
    )


@router.post("/backups", response={200: BackupOut, 422: Problems})
def make(request: HttpRequest) -> BackupOut:
    """Make a backup now."""
    with _readable():
        return _out(shelf.make("asked"))


@router.put("/backups/second", response={200: SecondCopyOut, 422: Problems})
def choose_second(request: HttpRequest, data: FolderIn) -> SecondCopyOut:
    """Name the folder that second copies go to, or none; the newest backup is copied there at once."""
    second_copy.choose(data.folder)
    if newest := next(iter(shelf.shelf()), None):
        second_copy.bring_up_to_date(newest.path, shelf.pictures())
    return SecondCopyOut(**asdict(second_copy.second_copy()))


@router.post("/backups/{name}/restore", response={200: BroughtBack, 404: Problems, 422: Problems})
def restore(request: HttpRequest, name: str) -> BroughtBack:
    """Put a backup in the place of what is here; that is kept as a backup."""
    with _readable(), in_turn:
        kept = restoring.restore(shelf.named(name).path, shelf.pictures())
    changed()
    return BroughtBack(holds=_holds(restoring.counts_here()), kept="" if kept is None else kept.name)


@router.get("/backups/{name}/items", response={200: list[ItemThenOut], 404: Problems, 422: Problems})
def items(request: HttpRequest, name: str) -> list[ItemThenOut]:
    """The items of a backup, each beside what is on the bench."""
    with _readable():
        return [ItemThenOut(**asdict(i)) for i in one_item.items_in(shelf.named(name))]


@router.post("/backups/{name}/item", response={200: ItemAnswer, 404: Problems, 422: Problems})
def bring_back(request: HttpRequest, name: str, data: ItemKey) -> ItemAnswer:
    """Put one item to what it was in a backup; undo on the bench takes that back."""
    with _readable(), in_turn:
        made = one_item.bring_back(shelf.named(name), data.item)
    changed()
    return ItemAnswer(id=made.pk, name=made.input.name)


@router.get("/bench.zip", include_in_schema=False)
def whole(request: HttpRequest) -> FileResponse:
    """The whole bench as one file."""
    out = tempfile.TemporaryFile(dir=settings.VAR)  # noqa: SIM115  # closed with the answer
    whole_bench.write(out)
    out.seek(0)
    name = f"swapglow-{timezone.localdate():%Y-%m-%d}.bench.zip"
    return FileResponse(out, as_attachment=True, filename=name, content_type="application/zip")


def _checked(file: UploadedFile) -> BinaryIO:
    if (file.size or 0) > LARGEST_BENCH:
        raise InputError("file", f"The file is over {LARGEST_BENCH // 2**30} GB. Use the command swapglow import.")
    return cast("BinaryIO", file)


@router.post("/bench/whole/look", response={200: Intent, 422: Problems})
def look_whole(request: HttpRequest, file: File[UploadedFile]) -> Intent:
    """What bringing in a whole bench would do; nothing is done."""
    with _readable(), whole_bench.unpacked(_checked(file)) as (_, counts):
        now = restoring.counts_here()
        lines = [
            f"The file holds {counts}.",
            f"It would take the place of all that is here: {now}. What is here is kept as a backup first.",
        ]
        return Intent(name="the whole bench", replaces=str(now), lines=lines)


@router.post("/bench/whole", response={200: BroughtBack, 422: Problems})
def bring_in_whole(request: HttpRequest, file: File[UploadedFile]) -> BroughtBack:
    """Put a whole bench in the place of this one, which is kept as a backup."""
    with _readable(), in_turn:
        whole_bench.bring_in(_checked(file))
    changed()
    return BroughtBack(holds=_holds(restoring.counts_here()), kept="")
