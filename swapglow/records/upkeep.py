"""What a bench does for itself while it serves: lets old answers and steps go, gives space back, backs up."""

import logging
import sqlite3
import threading
import time
from datetime import timedelta

from django.db import DatabaseError, close_old_connections, connection, transaction
from django.utils import timezone

from swapglow.records import steps
from swapglow.records.backups import shelf
from swapglow.records.backups.database import Unfit
from swapglow.records.models import Sent

log = logging.getLogger("swapglow.upkeep")

# A save that is sent again after so long is taken for a new one.
ANSWERS_KEPT = timedelta(days=1)
# How often it is asked whether a backup is due, and how often old things are let go.
LOOK_S = 60.0
LET_GO_S = 3600.0
# Free pages are given back past so many, and a database that cannot do that by pieces is rewritten whole.
FREE_PAGES = 256


def let_go() -> None:
    """Let go of answers of saves and of steps that are too old."""
    with transaction.atomic():
        Sent.objects.filter(at__lt=timezone.now() - ANSWERS_KEPT).delete()
        steps.prune()


def give_back_space() -> None:
    """Give the pages of what was deleted back to the disk."""
    with connection.cursor() as db:
        free, by_pieces = (_pragma(db, name) for name in ("freelist_count", "auto_vacuum"))
        if free < FREE_PAGES:
            return
        db.execute("PRAGMA incremental_vacuum" if by_pieces == 2 else "VACUUM")
        # The pragma gives back a page at each step of the answer.
        db.fetchall()
        db.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        log.info("space given back", extra={"pages": free})


def _pragma(db: object, name: str) -> int:
    db.execute(f"PRAGMA {name}")  # type: ignore[attr-defined]  # a cursor
    return int(db.fetchone()[0])  # type: ignore[attr-defined]  # a cursor


def back_up_when_due() -> None:
    """Make the hourly backup where something has changed since the last one."""
    if shelf.hourly_is_due():
        shelf.make("hourly")


def keep_up(stop: threading.Event) -> None:
    """Do all this until told to stop; run it in a thread of its own."""
    last = time.monotonic()
    while not stop.wait(LOOK_S):
        try:
            back_up_when_due()
            if time.monotonic() - last > LET_GO_S:
                last = time.monotonic()
                let_go()
                give_back_space()
        except (OSError, sqlite3.Error, DatabaseError, Unfit) as problem:
            log.error("upkeep failed", exc_info=problem)
        close_old_connections()
    connection.close()
