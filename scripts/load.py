"""Load: people at work at once on one server, a minute for each count; printed, never asserted.

Each looks at a lamp, the bench and the item, types a note, moves the slide rule, takes a reading and undoes it, as
fast as answers come. `make load` prints errors, lost updates, and how long a view and a save take.
"""

import os
import statistics
import sys
import tempfile
import threading
import time
import uuid
from pathlib import Path

from tests.reliability.bench import Client, Server

COUNTS = (1, 8, 24)
SECONDS = float(os.environ.get("LOAD_SECONDS", "60"))
# How long a person looks before the next press, at the least.
PAUSE_S = 0.2


class Person:
    """One at work on an item of their own; notes what took how long and what was lost."""

    def __init__(self, port: int) -> None:
        self.client = Client(port)
        self.keys = self.client.made()
        self.views: list[float] = []
        self.saves: list[float] = []
        self.errors: list[str] = []
        self.lost = 0

    def _timed(self, into: list[float], method: str, path: str, body: object = None) -> tuple[int, dict]:
        began = time.monotonic()
        try:
            status, answer = self.client.ask(method, path, body, None if method == "GET" else str(uuid.uuid4()))
        except OSError as problem:
            self.errors.append(str(problem))
            return 0, {}
        into.append(time.monotonic() - began)
        if status >= 400:
            self.errors.append(f"{method} {path.split('/')[0]}: {status} {answer}")
        return status, answer or {}

    def work(self, until: float) -> None:
        """Go through the round until the time is over."""
        p, e = f"positions/{self.keys['position']}", f"equipment/{self.keys['equipment']}"
        n = 0
        while time.monotonic() < until:
            n += 1
            note = f"note {n}"
            self._timed(self.views, "GET", "bench")
            self._timed(self.views, "GET", e)
            self._timed(self.saves, "PATCH", p, {"notes": note})
            self._timed(self.saves, "POST", f"{p}/take", {"changes": {"resistor_ohm": 4700 + n % 7 * 100}})
            reading = {"position": self.keys["position"], "kind": "current", "text": f"{3 + n % 4}mA"}
            self._timed(self.saves, "PUT", f"readings/after/{uuid.uuid4()}", reading)
            _, view = self._timed(self.views, "GET", p)
            if view and view["position"]["notes"] != note:
                self.lost += 1
            step = (view.get("steps") or {}).get("undo")
            if step:
                self._timed(self.saves, "POST", "undo", {"step": step["id"]})
            time.sleep(PAUSE_S)


def percentile(found: list[float], share: float) -> float:
    """The value below which a share of them lies, ms."""
    return 1000 * sorted(found)[min(len(found) - 1, int(share * len(found)))] if found else 0.0


def main() -> int:
    """Run all counts; returns 1 where there was an error or something was lost."""
    bad = 0
    print(
        f"{'people':>6} {'views':>7} {'p50':>7} {'p95':>7} {'saves':>7} {'p50':>7} {'p95':>7} {'errors':>7} {'lost':>5}"
    )
    for count in COUNTS:
        with tempfile.TemporaryDirectory() as room:
            server = Server(Path(room) / "var").start()
            people = [Person(server.port) for _ in range(count)]
            until = time.monotonic() + SECONDS
            threads = [threading.Thread(target=p.work, args=(until,)) for p in people]
            for t in threads:
                t.start()
            for t in threads:
                t.join()
            server.stop()
        views = [v for p in people for v in p.views]
        saves = [s for p in people for s in p.saves]
        errors = [e for p in people for e in p.errors]
        lost = sum(p.lost for p in people)
        bad += len(errors) + lost
        times = [statistics.median(x) * 1000 if x else 0 for x in (views, saves)]
        print(
            f"{count:>6} {len(views):>7} {times[0]:>5.0f}ms {percentile(views, 0.95):>5.0f}ms {len(saves):>7} "
            f"{times[1]:>5.0f}ms {percentile(saves, 0.95):>5.0f}ms {len(errors):>7} {lost:>5}"
        )
        for e in sorted(set(errors))[:3]:
            print(f"       {e}")
    return 1 if bad else 0


if __name__ == "__main__":
    sys.exit(main())
