"""The demo beside somebody's own bench: another server, with records of its own, which ends with this one."""

import os
import socket
import subprocess
import sys
import threading
from dataclasses import dataclass
from pathlib import Path

from django.conf import settings

_HOST = "127.0.0.1"


@dataclass(frozen=True)
class Beside:
    """The demo's server.

    Attributes:
        url: its address; "" where none runs.
        ready: whether it answers: the first time it loads its records.
    """

    url: str
    ready: bool


_lock = threading.Lock()
_running: tuple[subprocess.Popen[bytes], int] | None = None


def start() -> Beside:
    """Start the demo, once."""
    global _running
    with _lock:
        if _running is None or _running[0].poll() is not None:
            port = _free_port()
            command = [sys.executable, "-m", "swapglow.web.serve", "--demo", "--no-browser"]
            environment = {**os.environ, "SWAPGLOW_PORT": str(port), "SWAPGLOW_BESIDE": "1"}
            environment.pop("SWAPGLOW_SHARE_PORT", None)
            process = subprocess.Popen(
                [*command, "--records", str(Path(settings.VAR) / "demo")],
                env=environment,
                stdin=subprocess.PIPE,
                stdout=subprocess.DEVNULL,
                stderr=subprocess.DEVNULL,
            )
            _running = process, port
    return beside()


def beside() -> Beside:
    """How the demo's server stands."""
    if _running is None or _running[0].poll() is not None:
        return Beside("", ready=False)
    port = _running[1]
    with socket.socket() as look:
        look.settimeout(0.5)
        # The port is taken before anything is prepared, and answers only then: what is asked there waits.
        ready = look.connect_ex((_HOST, port)) == 0 and (Path(settings.VAR) / "demo" / f"serving-{port}.lock").exists()
    return Beside(f"http://{_HOST}:{port}/", ready)


def stop() -> None:
    """End it, where it runs."""
    global _running
    with _lock:
        if _running is not None:
            process = _running[0]
            if process.stdin:
                process.stdin.close()
            try:
                process.wait(10)
            except subprocess.TimeoutExpired:
                process.kill()
            _running = None


def _free_port() -> int:
    with socket.socket() as found:
        found.bind((_HOST, 0))
        return int(found.getsockname()[1])
