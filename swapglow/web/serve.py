"""Prepare and serve the whole app at one loopback address: ``python -m swapglow.web.serve``."""

import errno
import gc
import logging
import os
import signal
import socket
import sys
import threading
from types import FrameType

HOST = "127.0.0.1"
USUAL_PORT = 8417
# A document with its photographs is 64 MB at most.
LARGEST_BODY = 70 * 1024 * 1024


def main() -> int:
    """Serve until interrupted; SWAPGLOW_PORT chooses the port. Returns the exit code.

    The port is taken before anything is prepared: a second start does nothing to the records of the first.
    """
    try:
        door = _door(os.environ.get("SWAPGLOW_PORT", str(USUAL_PORT)))
    except ValueError as problem:
        print(f"Swap Glow cannot start. {problem}", file=sys.stderr)
        return 1
    with door:
        return _serve(door)


def _serve(door: socket.socket) -> int:
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "swapglow.web.settings.local")
    # What is loaded stays: looking it through for garbage all the while makes a start a fifth longer.
    gc.disable()
    import django

    try:
        django.setup()
    except OSError as problem:
        print(f"Swap Glow cannot start. {problem.strerror}: {problem.filename}.", file=sys.stderr)
        return 1
    from waitress import create_server

    from swapglow.records.summaries import work_for_ever
    from swapglow.web.prepare import NotReady, prepare

    log = logging.getLogger("swapglow.serve")
    try:
        prepare()
    except NotReady as problem:
        log.error("not started: %s", problem)
        print(f"Swap Glow cannot start. {problem}", file=sys.stderr)
        return 1
    from swapglow.web.wsgi import application

    gc.collect()
    gc.freeze()
    gc.enable()
    port = door.getsockname()[1]
    # What a proxy puts in is left in, so that a request that comes through one is known and refused.
    server = create_server(
        application, sockets=[door], threads=8, ident="", max_request_body_size=LARGEST_BODY,
        clear_untrusted_proxy_headers=False,
    )  # fmt: skip
    threading.Thread(target=work_for_ever, name="summaries", daemon=True).start()
    signal.signal(signal.SIGTERM, _stop)
    log.info("started", extra={"port": port})
    print(f"Swap Glow is at http://{HOST}:{port}/  (Ctrl+C stops it)", flush=True)
    try:
        server.run()
    except (KeyboardInterrupt, SystemExit):
        server.close()
    log.info("stopped", extra={"port": port})
    return 0


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
                f"Open that, or choose another port: make demo PORT={int(text) % 65535 + 1}."
            ) from None
        raise ValueError(
            f"Port {text} may not be used here: {problem.strerror}. Choose one over 1023."
        ) from None
    return door


if __name__ == "__main__":
    raise SystemExit(main())
