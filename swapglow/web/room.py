"""The folder that holds a bench's records: outside the checkout, where tools that clean never go.

``SWAPGLOW_VAR`` names another place, ``SWAPGLOW_ROOM`` the very folder. The demo has a folder of its own.
"""

import os
import shutil
import sqlite3
from contextlib import closing
from pathlib import Path

from platformdirs import user_data_path

DATABASE = "swapglow.sqlite3"


def room(*, demo: bool) -> Path:
    """The folder of the records, or of the demo's."""
    exact = os.environ.get("SWAPGLOW_ROOM")
    if exact:
        return Path(exact)
    named = os.environ.get("SWAPGLOW_VAR")
    place = Path(named) if named else user_data_path("swapglow", appauthor=False)
    return place / "demo" if demo else place


def move_old_records(checkout: Path) -> str:
    """Move the records that earlier versions kept in the checkout to where they are kept now, once.

    A folder in which nobody ever changed anything is the demo's; any other is somebody's bench.

    Args:
        checkout: the folder of the program.

    Returns:
        What was moved, for the person who starts the program; "" where there was nothing.

    Raises:
        OSError: the records cannot be moved. They are still where they were.
    """
    old = checkout / "var"
    if os.environ.get("SWAPGLOW_ROOM") or os.environ.get("SWAPGLOW_VAR") or not (old / DATABASE).is_file():
        return ""
    new = room(demo=_only_demo(old / DATABASE))
    if (new / DATABASE).exists():
        return f"Records of an earlier version are still in {old}: {new} already holds others."
    half = new.with_name(f"{new.name}-coming")
    shutil.rmtree(half, ignore_errors=True)
    half.parent.mkdir(parents=True, exist_ok=True)
    # Copied whole before the old folder goes: the two may be on different disks.
    shutil.copytree(old, half, ignore=shutil.ignore_patterns("static"))
    new.mkdir(exist_ok=True)
    for part in half.iterdir():
        if not (new / part.name).exists():
            part.replace(new / part.name)
    shutil.rmtree(half)
    shutil.rmtree(old)
    how = "make demo" if new == room(demo=True) else "make serve"
    return f"Your records were moved from {old} to {new}. Open them with: {how}"


def _only_demo(database: Path) -> bool:
    try:
        with closing(sqlite3.connect(database)) as found:
            return bool(found.execute("SELECT count(*) FROM records_step").fetchone() == (0,))
    except sqlite3.Error:
        return False
