"""A year of use: many changes and photographs through the API, then how large the records are and how long things take.

``make year`` runs it; CHANGES and PHOTOGRAPHS of the environment choose others than 25 000 and 500.
"""

import io
import json
import os
import random
import subprocess
import sys
import tempfile
import time
import urllib.request
import uuid
from pathlib import Path
from typing import Any

CHANGES = int(os.environ.get("CHANGES", "25000"))
PHOTOGRAPHS = int(os.environ.get("PHOTOGRAPHS", "500"))
# A busy bench changes some hundred fields between one look after the records and the next.
UPKEEP_EVERY = 100
TOKEN = "a" * 32


def main() -> None:
    """Run the year and print what it came to."""
    room = Path(tempfile.mkdtemp(prefix="swapglow-year-"))
    os.environ |= {"SWAPGLOW_ROOM": str(room), "DJANGO_SETTINGS_MODULE": "swapglow.web.settings.local"}
    import django

    django.setup()
    from django.core.management import call_command

    from swapglow.records import summaries, upkeep
    from swapglow.records.backups import shelf

    call_command("migrate", verbosity=0)
    call_command("load_demo", verbosity=0)
    # What a save would wake stays asleep: nobody looks at the lamps here.
    summaries._working.set()
    page = _Page()
    chance = random.Random(1)
    began = time.monotonic()
    _photographs(page, chance)
    for n in range(CHANGES):
        page.change(chance)
        if n % UPKEEP_EVERY == 0:
            upkeep.let_go()
            upkeep.give_back_space()
    spent = time.monotonic() - began
    started = time.monotonic()
    made = shelf.make("asked")
    first = time.monotonic() - started
    started = time.monotonic()
    shelf.make("asked")
    again = time.monotonic() - started
    print(f"{CHANGES} changes and {PHOTOGRAPHS} photographs in {spent:.0f} s: {made.counts}")
    print(
        f"database {_mb(room / 'swapglow.sqlite3')}, photographs {_mb(room / 'photographs')}, "
        f"one backup {_mb(made.path)}, the backups' photographs {_mb(shelf.pictures())}"
    )
    print(f"first backup {first:.2f} s, the next {again:.2f} s, start {_start(room):.2f} s")


class _Page:
    """A page that changes the demo's lamps, items, rails and drawer."""

    def __init__(self) -> None:
        from django.test import Client

        self._client = Client(SERVER_NAME="127.0.0.1")
        self._client.cookies["csrftoken"] = TOKEN
        bench = self.ask("GET", "bench")["equipment"]
        self.items = [e["id"] for e in bench]
        self.lamps = [p["id"] for e in bench for p in e["positions"]]
        self.parts = [p["id"] for p in self.ask("GET", "drawer")["parts"]]

    def ask(self, method: str, path: str, body: object = None) -> Any:
        answer = self._client.generic(
            method,
            f"/api/{path}",
            json.dumps(body) if body is not None else "",
            content_type="application/json",
            headers={"X-CSRFToken": TOKEN, "X-Save": str(uuid.uuid4())},
        )
        assert answer.status_code < 300, (path, body, answer.content)
        return json.loads(answer.content) if answer.content else None

    def change(self, chance: random.Random) -> None:
        note = f"looked at {chance.random():.6f}"
        match chance.randrange(6):
            case 0:
                self.ask("PATCH", f"equipment/{chance.choice(self.items)}", {"notes": note})
            case 1:
                self.ask("PATCH", f"parts/{chance.choice(self.parts)}", {"lot": note})
            case 2:
                self.ask("PATCH", "drawer", {"add": [f"{chance.randrange(100, 999)}R"]})
            case _:
                self.ask("PATCH", f"positions/{chance.choice(self.lamps)}", {"notes": note})

    def photograph(self, item: str, jpeg: bytes) -> None:
        from django.core.files.uploadedfile import SimpleUploadedFile

        answer = self._client.post(
            f"/api/equipment/{item}/photos/{uuid.uuid4()}",
            {"file": SimpleUploadedFile("a.jpg", jpeg)},
            headers={"X-CSRFToken": TOKEN},
        )
        assert answer.status_code == 200, answer.content


def _photographs(page: _Page, chance: random.Random) -> None:
    from PIL import Image

    for n in range(PHOTOGRAPHS):
        # Noise that is made larger packs like a photograph: some 200 kB.
        grain = Image.frombytes("RGB", (400, 300), chance.randbytes(400 * 300 * 3))
        out = io.BytesIO()
        grain.resize((1600, 1200)).save(out, "JPEG", quality=82)
        page.photograph(page.items[n % len(page.items)], out.getvalue())


def _mb(path: Path) -> str:
    files = [path] if path.is_file() else [p for p in path.rglob("*") if p.is_file()]
    return f"{sum(p.stat().st_size for p in files) / 1e6:.1f} MB"


def _start(room: Path) -> float:
    """Seconds from the command to the first answer."""
    port = "28417"
    started = time.monotonic()
    server = subprocess.Popen(
        [sys.executable, "-m", "swapglow.web.serve", "--records", str(room)],
        env={**os.environ, "SWAPGLOW_PORT": port},
        stdout=subprocess.DEVNULL,
    )
    try:
        while True:
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{port}/api/bench", timeout=30)
                return time.monotonic() - started
            except OSError:
                time.sleep(0.02)
    finally:
        server.terminate()
        server.wait()


if __name__ == "__main__":
    main()
