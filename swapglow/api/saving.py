"""A save: read and written in one transaction, taken once however often it is sent."""

import logging
import threading
import zlib
from collections.abc import Callable, Mapping
from typing import Any
from uuid import UUID

from django.db import DatabaseError, transaction
from django.http import HttpRequest, HttpResponse

from swapglow.api.plain import FAILED, refusal
from swapglow.records.models import Sent
from swapglow.records.pulse import beat
from swapglow.records.steps import last_step
from swapglow.records.summaries import after_saving

# The header by which a save is known again when it comes twice.
HEADER = "X-Save"
# The header of the answer that names the step it made, by which it can be taken back.
STEP = "X-Step"
# The header of the answer with the number that the records' changes have come to.
PULSE = "X-Pulse"

log = logging.getLogger("swapglow.api")

# Saves of this process wait for each other here, in turn: SQLite's own waiting looks again now and then.
in_turn = threading.Lock()

Run = Callable[..., HttpResponse]


def changed() -> int:
    """The records were changed, by whatever way: what is due is worked out, and open pages follow.

    Returns:
        The number that the changes have come to.
    """
    after_saving()
    return beat()


def saving(run: Run) -> Run:
    """Run a route that writes in one transaction, which holds the write lock from its first read on.

    A save that was taken before gets the answer that it got then. A refusal leaves nothing behind.

    Args:
        run: the route, which answers errors as responses.

    Returns:
        The route, wrapped.
    """

    def once(request: HttpRequest, **path: Any) -> HttpResponse:
        try:
            answer = taken(request, **path)
        except DatabaseError as problem:
            # What only comes to light as the transaction is closed: a disk that is full, most often.
            answer = refused(problem)
        if answer.status_code < 400:
            answer[PULSE] = str(changed())
        else:
            after_saving()
        return answer

    def taken(request: HttpRequest, **path: Any) -> HttpResponse:
        key = _key(request)
        # The outermost block begins with BEGIN IMMEDIATE: two saves of one record go one after the other.
        with in_turn, transaction.atomic():
            known = Sent.objects.filter(pk=key).first() if key else None
            if known is not None:
                answer = HttpResponse(_unpacked(bytes(known.body)), "application/json", known.status)
                return _with_step(answer, known.step)
            last_step.set(None)
            answer = run(request, **path)
            step = last_step.get()
            if answer.status_code >= 400:
                transaction.set_rollback(True)
            elif key:
                Sent.objects.create(key=key, status=answer.status_code, step=step, body=zlib.compress(answer.content))
        return _with_step(answer, step)

    return once


def _unpacked(body: bytes) -> bytes:
    """An answer as it was given. Versions before this one kept the JSON as it is."""
    return body if body[:1] in (b"", b"{", b"[") else zlib.decompress(body)


def _with_step(answer: HttpResponse, step: int | None) -> HttpResponse:
    if step is not None and answer.status_code < 400:
        answer[STEP] = str(step)
    return answer


def _key(request: HttpRequest) -> UUID | None:
    try:
        return UUID(request.headers.get(HEADER, ""))
    except ValueError:
        return None


# What SQLite says, by a part of its message, and what we say of it.
_SAYS: Mapping[str, tuple[int, str]] = {
    "disk is full": (507, "The disk is full: nothing was saved. Make room, then save it again."),
    "readonly": (507, "The database cannot be written to: nothing was saved. See who may write to its folder."),
    "locked": (503, "The database was busy for too long: nothing was saved. Save it again."),
    "malformed": (500, "The database is damaged: nothing was saved. Stop Swap Glow and bring back a backup."),
    "disk i/o": (507, "The disk gave an error: nothing was saved. See whether it is well and has room."),
}


def refused(problem: DatabaseError) -> HttpResponse:
    """What is answered where the database took nothing."""
    said = str(problem).lower()
    known = next((answer for part, answer in _SAYS.items() if part in said), (500, FAILED))
    log.error("the database refused", exc_info=problem)
    return refusal(*known)
