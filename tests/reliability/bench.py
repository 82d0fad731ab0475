"""A server of its own, on a database of its own, and clients that save to it over HTTP."""

import contextlib
import http.client
import json
import os
import random
import resource
import socket
import subprocess
import sys
import time
import uuid
from contextlib import closing
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
TOKEN = "a" * 32


def free_port():
    """A port that nobody has, below those that are given to whoever asks for any: it is free again after a kill."""
    while True:
        port = random.randrange(20_000, 32_000)
        with socket.socket() as s, contextlib.suppress(OSError):
            s.bind(("127.0.0.1", port))
            return port


class Server:
    """``swapglow.web.serve`` as users start it."""

    def __init__(self, room, port=None, command=None, env=None):
        self.command = command or [sys.executable, "-m", "swapglow.web.serve", "--demo", "--records", str(room)]
        self.env = {**os.environ, "DJANGO_SETTINGS_MODULE": "swapglow.web.settings.local"} if env is None else env
        self.room = Path(room)
        self.port = port or free_port()
        self.process = None

    def begin(self, limit=None):
        """Start it; ``limit`` is the largest a file may become, bytes."""

        def small():
            resource.setrlimit(resource.RLIMIT_FSIZE, (limit, limit))

        self.process = subprocess.Popen(
            self.command,
            cwd=ROOT if self.command[0] == sys.executable else self.room.parent,
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            text=True,
            preexec_fn=small if limit else None,
            env={**self.env, "SWAPGLOW_PORT": str(self.port)},
        )

    def start(self, wait=90.0, limit=None):
        """Start it and wait until it answers; where it ends by itself or answers nothing, that is left as it is."""
        self.begin(limit)
        until = time.monotonic() + wait
        while time.monotonic() < until and self.process.poll() is None:
            try:
                if Client(self.port).ask("GET", "drawer")[0] == 200:
                    break
            except OSError:
                time.sleep(0.05)
        return self

    def kill(self):
        self.process.kill()
        self.process.communicate()

    def stop(self):
        if self.process.poll() is None:
            self.process.terminate()
        return self.process.communicate(timeout=20)[0]


class Client:
    """A page's saves, without the page."""

    def __init__(self, port):
        self.port = port

    def ask(self, method, path, body=None, save=None):
        """Status and answer; an OSError where no answer came."""
        headers = {"Content-Type": "application/json", "X-CSRFToken": TOKEN, "Cookie": f"csrftoken={TOKEN}"}
        if save:
            headers["X-Save"] = save
        with closing(http.client.HTTPConnection("127.0.0.1", self.port, timeout=30)) as line:
            try:
                line.request(method, f"/api/{path}", None if body is None else json.dumps(body), headers)
                answer = line.getresponse()
                text = answer.read()
            except http.client.HTTPException as problem:
                raise OSError(str(problem)) from None
        return answer.status, json.loads(text) if text else None

    def save(self, method, path, body=None, over=None):
        """As the page does: the same save again until it is answered, or until all is over."""
        key = str(uuid.uuid4())
        while over is None or not over.is_set():
            try:
                return self.ask(method, path, body, key)
            except OSError:
                time.sleep(0.05)
        return None, None

    def made(self):
        """An item with a rail and a lamp; their keys."""
        e, r, p = (str(uuid.uuid4()) for _ in range(3))
        assert self.save("PUT", f"equipment/{e}", {"name": "Tide gauge"})[0] == 200
        rail = {"equipment": e, "name": "Main", "usual": {"text": "22V"}}
        assert self.save("PUT", f"rails/{r}", rail)[0] == 200
        lamp = {"equipment": e, "name": "Ready", "led_id": "red-5-diffused", "target": {"text": "4mA"}}
        assert self.save("PUT", f"positions/{p}", lamp)[0] == 200
        return {"equipment": e, "rail": r, "position": p}
