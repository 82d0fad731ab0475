"""A second copy of each backup in a folder of one's own: a stick, a share, another disk."""

import json
import logging
import os
import shutil
from dataclasses import asdict, dataclass
from datetime import UTC, datetime
from pathlib import Path

from django.conf import settings

from swapglow.core.quantities import InputError

log = logging.getLogger("swapglow.backups")


@dataclass(frozen=True)
class SecondCopy:
    """Where the second copies go and how the last one went.

    Attributes:
        folder: "" where there is none.
        at: when the last was written, ISO 8601; "" where none was yet.
        problem: why the last could not be written; "" where it could.
    """

    folder: str = ""
    at: str = ""
    problem: str = ""


def _file() -> Path:
    return Path(settings.VAR) / "second-copy.json"


def second_copy() -> SecondCopy:
    """The second copy, as it is set."""
    try:
        return SecondCopy(**json.loads(_file().read_text(encoding="utf-8")))
    except (OSError, ValueError, TypeError):
        return SecondCopy()


def _write(now: SecondCopy) -> None:
    half = _file().with_suffix(f".{os.getpid()}")
    half.write_text(json.dumps(asdict(now)), encoding="utf-8")
    half.replace(_file())


def choose(folder: str) -> SecondCopy:
    """Name the folder for second copies, or none.

    Args:
        folder: a path on this machine; "" for none.

    Raises:
        InputError: ``folder``: it is not there, is the records' own, or cannot be written to.
    """
    text = folder.strip()
    if text:
        path = Path(text).expanduser()
        if not path.is_absolute():
            raise InputError("folder", f'"{text}" is not a whole path. Enter it from the start, such as /media/stick.')
        if not path.is_dir():
            raise InputError("folder", f"There is no folder {text}. Plug the stick in, or make the folder first.")
        if path.resolve().is_relative_to(Path(settings.VAR).resolve()):
            raise InputError("folder", "That is where the records are. Choose a folder on another disk.")
        _try_to_write(path, text)
        text = str(path)
    _write(SecondCopy(folder=text))
    return second_copy()


def _try_to_write(path: Path, text: str) -> None:
    trial = path / f".swapglow-{os.getpid()}"
    try:
        trial.write_bytes(b"x")
        trial.unlink()
    except OSError as problem:
        raise InputError("folder", f"{text} cannot be written to: {problem.strerror}.") from None


def bring_up_to_date(backup: Path, pictures: Path) -> None:
    """Copy a backup and the photographs that are new to the second folder; a folder that is away is noted.

    Args:
        backup: the backup's file.
        pictures: the folder of the backups' photographs.
    """
    to = second_copy()
    if not to.folder:
        return
    try:
        folder = Path(to.folder)
        if not folder.is_dir():
            raise FileNotFoundError(0, "the folder is not there")
        _copy(backup, folder / backup.name)
        for picture in pictures.glob("*/*.jpg"):
            _copy(picture, folder / "photographs" / picture.parent.name / picture.name)
        _thin_out(folder, backup.parent)
    except OSError as problem:
        log.warning("no second copy was made", exc_info=problem)
        _write(SecondCopy(to.folder, to.at, problem.strerror or str(problem)))
    else:
        _write(SecondCopy(to.folder, datetime.now(UTC).isoformat(timespec="seconds"), ""))


def _copy(source: Path, target: Path) -> None:
    if target.exists() and target.stat().st_size == source.stat().st_size:
        return
    target.parent.mkdir(parents=True, exist_ok=True)
    half = target.with_name(f"{target.name}.half")
    shutil.copyfile(source, half)
    half.replace(target)


def _thin_out(folder: Path, shelf: Path) -> None:
    """The second folder keeps what the first keeps, and never fewer than the ten newest of its own."""
    there = sorted(folder.glob("swapglow-*.sqlite3"), key=lambda p: p.name, reverse=True)
    for old in there[10:]:
        if not (shelf / old.name).exists():
            old.unlink(missing_ok=True)
