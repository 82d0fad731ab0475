"""The commands about records: ``swapglow serve``, ``backup``, ``restore``, ``check``, ``export`` and ``import``."""

import argparse
import os
import shlex
import sqlite3
import subprocess
import sys
from pathlib import Path
from typing import Any

from swapglow.web import serve


class CommandError(ValueError):
    """Why a command did nothing."""


def add_commands(commands: "argparse._SubParsersAction[Any]") -> None:
    """Add them to a command line."""
    for name, run, words, argument in (
        ("serve", serve.run, "serve the app on this machine", None),
        ("backup", _backup, "make a backup now and list all there are", None),
        ("restore", _restore, "bring back a backup: the newest, or the one named", ("name", "?", "its file's name")),
        ("check", _check, "look at the records and at every backup", None),
        ("export", _export, "write the whole bench into one file", ("file", None, "such as bench.zip")),
        ("import", _import, "put a whole bench in the place of this one", ("file", None, "one that export wrote")),
    ):
        parser = commands.add_parser(name, help=words, description=f"{words[0].upper()}{words[1:]}.")
        (serve.serving if name == "serve" else serve.options)(parser)
        if argument:
            parser.add_argument(argument[0], nargs=argument[1], help=argument[2])
        parser.set_defaults(run=run)


def command(what: str) -> str:
    """A command about the records at hand, as it is typed here.

    Args:
        what: "restore", "check".
    """
    from django.conf import settings

    from swapglow.web.room import room

    program = Path(sys.prefix) / "bin" / "swapglow"
    joined = subprocess.list2cmdline if sys.platform == "win32" else shlex.join
    if program.is_relative_to(Path.cwd()):
        program = program.relative_to(Path.cwd())
    shown = str(program) if program.exists() else "swapglow"
    usual = not (os.environ.get("SWAPGLOW_ROOM") or os.environ.get("SWAPGLOW_VAR"))
    if usual and room(demo=False) == settings.VAR:
        which = []
    elif usual and room(demo=True) == settings.VAR:
        which = ["--demo"]
    else:
        which = ["--records", str(settings.VAR)]
    return joined([shown, what, *which])


def _ready(args: argparse.Namespace) -> None:
    serve.choose_room(args)
    import django

    try:
        django.setup()
    except OSError as problem:
        raise CommandError(f"{problem.strerror}: {problem.filename}") from None


def _database() -> Path:
    from django.conf import settings

    return Path(settings.DATABASES["default"]["NAME"])


def _backup(args: argparse.Namespace) -> int:
    _ready(args)
    from swapglow.records.backups import shelf
    from swapglow.records.backups.database import Unfit

    if not _database().exists():
        raise CommandError(f"There are no records in {_database().parent} yet: nothing to back up.")
    try:
        shelf.make("asked")
    except (sqlite3.Error, Unfit) as problem:
        raise CommandError(f"No backup was made: {problem}. Look at the records: {command('check')}") from None
    except OSError as problem:
        raise CommandError(f"No backup was made: {problem.strerror or problem}.") from None
    _list()
    return 0


def _list() -> None:
    from swapglow.records.backups import shelf

    for b in shelf.shelf():
        print(f"{b.when:>24}  {b.counts}\n{'':>24}  {b.path.name}")
    print(f"Backups are in {shelf.room()}")


def _restore(args: argparse.Namespace) -> int:
    _ready(args)
    from swapglow.records.backups import shelf
    from swapglow.records.backups.restoring import CannotRestoreError, counts_here, restore

    try:
        found = shelf.named(args.name) if args.name else next((b for b in shelf.shelf() if b.counts.items), None)
    except shelf.NoBackupError as problem:
        raise CommandError(f"{problem} These are there: {', '.join(b.path.name for b in shelf.shelf())}") from None
    if found is None:
        raise CommandError(f"There is no backup in {shelf.room()} that holds anything.")
    try:
        was = restore(found.path, shelf.pictures())
    except CannotRestoreError as problem:
        others = [b.path.name for b in shelf.shelf() if b != found and b.counts.items]
        way = f" Try the one before it: {command('restore')} {others[0]}" if others else ""
        raise CommandError(f"{problem}{way}") from None
    except OSError as problem:
        raise CommandError(f"Nothing was restored: {problem.strerror or problem}.") from None
    print(f"Restored the backup of {found.when}. The bench now holds {counts_here()}.")
    if was is not None:
        print(f"What was here before is kept: {was}")
    return 0


def _check(args: argparse.Namespace) -> int:
    _ready(args)
    from swapglow.records.backups.checking import checked

    whole = True
    for line in checked():
        whole = whole and line.well
        print(f"{'well ' if line.well else 'WRONG'}  {line.text}")
    if not whole:
        print(f"Bring back the newest backup with: {command('restore')}")
    return 0 if whole else 1


def _export(args: argparse.Namespace) -> int:
    _ready(args)
    from swapglow.records.backups import whole_bench

    path = Path(args.file)
    if path.exists():
        raise CommandError(f"{path} is there already. Choose another name.")
    if not _database().exists():
        raise CommandError(f"There are no records in {_database().parent} yet.")
    half = path.with_name(f"{path.name}.half")
    try:
        with half.open("wb") as out:
            counts = whole_bench.write(out)
        half.replace(path)
    except OSError as problem:
        half.unlink(missing_ok=True)
        raise CommandError(f"{path} was not written: {problem.strerror or problem}.") from None
    print(f"Wrote {path}: {counts}.")
    return 0


def _import(args: argparse.Namespace) -> int:
    _ready(args)
    from swapglow.core.quantities import InputError
    from swapglow.records.backups import whole_bench
    from swapglow.records.backups.restoring import CannotRestoreError

    try:
        with Path(args.file).open("rb") as file:
            counts = whole_bench.bring_in(file)
    except InputError as problem:
        raise CommandError(problem.message) from None
    except CannotRestoreError as problem:
        raise CommandError(str(problem)) from None
    except OSError as problem:
        raise CommandError(f"{args.file}: {problem.strerror or problem}.") from None
    print(f"Brought in a whole bench: {counts}. What was here before is among the backups.")
    return 0
