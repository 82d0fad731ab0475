"""How long the bench, find and the bench day take with 30, 300 and 3000 lamps: rows for ``make bench``."""

import statistics
import time
import uuid
from collections.abc import Callable

COUNTS = (30, 300, 3000)
# Lamps of one item, as a workshop has them.
_EACH = 10
_TIMES = 7


def rows() -> list[tuple[str, str]]:
    """Milliseconds of each view, and how many times that of 30 lamps; in the database that Django is set up with."""
    from django.test import Client

    client = Client(SERVER_NAME="127.0.0.1")
    ways = {
        "bench": "/api/bench",
        "find a value": "/api/find?asked=3k9 at 24 V",
        "find words": "/api/find?asked=lamp 7",
        "bench day": "/api/day?hours=8&begins=2031-05-20 09:00",
        "to buy": "/api/buying",
    }
    first: dict[str, float] = {}
    out = []
    for count in COUNTS:
        _fill(count)
        for name, way in ways.items():

            def ask(way: str = way) -> None:
                answer = client.get(way)
                assert answer.status_code == 200, answer.content

            taken = _timed(ask)
            first.setdefault(name, taken)
            ratio = "" if count == COUNTS[0] else f", × {taken / first[name]:.1f}"
            out.append((f"{name}, {count} lamps", f"{taken * 1e3:.0f} ms{ratio}"))
    return out


def _timed(work: Callable[[], object]) -> float:
    """Median seconds, after one warm-up."""
    work()
    taken = []
    for _ in range(_TIMES):
        start = time.perf_counter()
        work()
        taken.append(time.perf_counter() - start)
    return statistics.median(taken)


def _fill(count: int) -> None:
    """Lamps up to a number, copies of the demo's, with what is stored of them; nothing is worked out anew."""
    from swapglow.records import demo, summaries
    from swapglow.records.models import Equipment, Position, Rail, Summary

    if not demo.is_loaded():
        demo.load()
    # A demo that somebody else loaded may have nothing stored of its lamps yet.
    summaries.mark_outdated()
    summaries.refresh()
    patterns = list(Position.objects.select_related("rail", "summary").order_by("pk")[:30])
    here = Position.objects.count()
    items: list[Equipment] = []
    rails: list[Rail] = []
    lamps: list[Position] = []
    stored: list[Summary] = []
    for k in range(here, count):
        was = patterns[k % len(patterns)]
        if not items or k % _EACH == 0:
            items.append(Equipment(id=uuid.uuid4(), order=k, inputs={"name": f"Item {k}"}))
        rails.append(Rail(id=uuid.uuid4(), equipment=items[-1], inputs=was.rail.inputs))
        typed = {**was.inputs, "name": f"Lamp {k}"}
        lamps.append(Position(id=uuid.uuid4(), equipment=items[-1], rail=rails[-1], order=k, inputs=typed))
        stored.append(
            Summary(
                position=lamps[-1],
                data=was.summary.data,
                rests_on=was.summary.rests_on,
                core=was.summary.core,
                due=False,
            )
        )
    for e in items:
        e.join({})
    Equipment.objects.bulk_create(items)
    Rail.objects.bulk_create(rails)
    Position.objects.bulk_create(lamps)
    Summary.objects.bulk_create(stored)
