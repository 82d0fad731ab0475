"""Prepare and serve the whole app: ``swapglow serve``. At one loopback address, and by the shared door where asked."""

from __future__ import annotations

import _thread
import argparse
import errno
import gc
import logging
import os
import signal
import socket
import sqlite3
import sys
import threading
from collections.abc import Sequence
from contextlib import closing, suppress
from pathlib import Path
from types import FrameType
from typing import TYPE_CHECKING

from swapglow.web.browser import open_browser
from swapglow.web.room import move_old_records
from swapglow.web.share import share, stop_sharing

if TYPE_CHECKING:
    from waitress.server import BaseWSGIServer

HOST = "127.0.0.1"
USUAL_PORT = 8417
# A whole bench with its photographs; what a route takes of its own is less, and checked there.
LARGEST_BODY = 4 * 1024**3
# How long a stop waits for a thread to end by itself.
PATIENCE_S = 5.0


def options(parser: argparse.ArgumentParser) -> None:
    """Add what says which records a command is about."""
    parser.add_argument("--demo", action="store_true", help="the demo's records instead of your own")
    parser.add_argument("--records", metavar="FOLDER", help="the records in this folder")


def serving(parser: argparse.ArgumentParser) -> None:
    """Add what says how the app is served."""
    options(parser)
    parser.add_argument("--share", action="store_true", help="answer paired phones on this network too")
    parser.add_argument(
        "--plain", action="store_true", help="with --share: without TLS, so that anybody on the network can read along"
    )
    parser.add_argument("--no-browser", action="store_true", help="do not open a browser")


def choose_room(args: argparse.Namespace) -> None:
    """Take the records that a command is about; before Django's settings are read."""
    os.environ["SWAPGLOW_DEMO"] = "1" if args.demo else os.environ.get("SWAPGLOW_DEMO", "0")
    if args.records:
        os.environ["SWAPGLOW_ROOM"] = str(Path(args.records).expanduser().absolute())
    # A shell in which somebody works on another Django project names that one's settings.
    os.environ["DJANGO_SETTINGS_MODULE"] = "swapglow.web.settings.local"


def main(argv: Sequence[str] | None = None) -> int:
    """Serve until interrupted; SWAPGLOW_PORT chooses the port. Returns the exit code."""
    parser = argparse.ArgumentParser(prog="swapglow serve", description="Serve Swap Glow on this machine.")
    serving(parser)
    return run(parser.parse_args(argv))


def run(args: argparse.Namespace) -> int:
    """Serve the records that were chosen.

    The port is taken before anything is prepared: a second start does nothing to the records of the first.
    """
    # A log that cannot be written (a full disk) must not hide the sentence that says so.
    logging.raiseExceptions = False
    try:
        door = _door(os.environ.get("SWAPGLOW_PORT", str(USUAL_PORT)))
    except ValueError as problem:
        print(f"Swap Glow cannot start. {problem}", file=sys.stderr)
        return 1
    with door:
        try:
            word = move_old_records(Path(__file__).resolve().parents[2])
        except OSError as problem:
            print(f"Swap Glow cannot start. The records could not be moved: {problem}.", file=sys.stderr)
            return 1
        if word:
            print(word, flush=True)
        choose_room(args)
        return _serve(door, args)


def _serve(door: socket.socket, args: argparse.Namespace) -> int:
    # What is loaded stays: looking it through for garbage all the while makes a start a fifth longer.
    gc.disable()
    import django

    try:
        django.setup()
    except OSError as problem:
        full = problem.errno == errno.ENOSPC
        said = "The disk is full. Make room, then start again" if full else f"{problem.strerror}: {problem.filename}"
        print(f"Swap Glow cannot start. {said}.", file=sys.stderr)
        return 1
    from django.conf import settings
    from filelock import FileLock
    from waitress import create_server

    from swapglow.web.prepare import NotReady, prepare

    log = logging.getLogger("swapglow.serve")
    port = door.getsockname()[1]
    here = FileLock(settings.VAR / f"serving-{port}.lock")
    try:
        prepare()
        here.acquire(timeout=PATIENCE_S)
    except NotReady as problem:
        log.error("not started: %s", problem)
        print(f"Swap Glow cannot start. {problem}", file=sys.stderr)
        return 1
    from swapglow.records.demo import beside as demo_beside
    from swapglow.web.wsgi import application

    gc.collect()
    gc.freeze()
    gc.enable()
    # What a proxy puts in is left in, so that a request that comes through one is known and refused.
    server = create_server(
        application,
        sockets=[door],
        threads=8,
        ident="",
        max_request_body_size=LARGEST_BODY,
        clear_untrusted_proxy_headers=False,
    )
    signal.signal(signal.SIGTERM, _stop)
    log.info("started", extra={"port": port})
    print(f"Swap Glow is at http://{HOST}:{port}/  (Ctrl+C stops it)", flush=True)
    print(f"Records are in {settings.VAR}", flush=True)
    share(args)
    if not args.no_browser:
        open_browser(f"http://{HOST}:{port}/")
    stop_with_parent()
    _run(server)
    stop_sharing()
    demo_beside.stop()
    close_connections()
    for database in settings.DATABASES.values():
        leave_one_file(Path(database["NAME"]))
    log.info("stopped", extra={"port": port})
    here.release()
    Path(here.lock_file).unlink(missing_ok=True)
    return 0


def _run(server: BaseWSGIServer) -> None:
    """Serve until told to stop; the threads beside it end with it."""
    from swapglow.records import summaries, upkeep

    over = threading.Event()
    beside = [
        threading.Thread(target=summaries.work_until_stopped, name="summaries", daemon=True),
        threading.Thread(target=upkeep.keep_up, args=(over,), name="upkeep", daemon=True),
    ]
    for thread in beside:
        thread.start()
    with suppress(KeyboardInterrupt, SystemExit):
        server.run()
    server.close()
    over.set()
    summaries.stop_working()
    for thread in beside:
        thread.join(PATIENCE_S)


def close_connections() -> None:
    """Close what the server had open."""
    from django.db import connections

    connections.close_all()
    # Connections of threads that have ended are closed as they are collected.
    gc.collect()


def leave_one_file(database: Path) -> None:
    """Write SQLite's log into the database, so that the one file holds everything.

    Where another server still has it open, its log stays with it.
    """
    try:
        with closing(sqlite3.connect(database, timeout=PATIENCE_S)) as last:
            last.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    except sqlite3.Error:
        logging.getLogger("swapglow.serve").warning("the log was not written into the database")


def stop_with_parent() -> None:
    """End with the program that started this one, where it asked for that: its end closes the pipe read here."""
    if os.environ.get("SWAPGLOW_BESIDE"):
        threading.Thread(target=_until_closed, name="parent", daemon=True).start()


def _until_closed() -> None:
    sys.stdin.read()
    # Not as Ctrl+C: a program that was started in the background is told to take no notice of that.
    _thread.interrupt_main(signal.SIGTERM)


def _stop(number: int, frame: FrameType | None) -> None:
    raise SystemExit(0)


def _door(text: str) -> socket.socket:
    """The port, taken but not yet open.

    Raises:
        ValueError: it is no port, or somebody has it.
    """
    if not (text.isascii() and text.isdigit() and 0 < int(text) < 65536):
        raise ValueError(f'"{text}" is no port: 1 to 65535 are, such as PORT=8418.')
    door = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    # On Windows the same option would take a port away from whoever has it.
    if sys.platform != "win32":
        door.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        door.bind((HOST, int(text)))
        # Bound alone, a port can be taken twice by those who reuse addresses; a listener has it to itself.
        door.listen(64)
    except OSError as problem:
        door.close()
        if problem.errno == errno.EADDRINUSE:
            raise ValueError(
                f"Port {text} is taken: Swap Glow may be running already, at http://{HOST}:{text}/. "
                f"Open that, or choose another one with SWAPGLOW_PORT={int(text) % 65535 + 1}."
            ) from None
        raise ValueError(f"Port {text} may not be used here: {problem.strerror}. Choose one over 1023.") from None
    return door


if __name__ == "__main__":
    raise SystemExit(main())
