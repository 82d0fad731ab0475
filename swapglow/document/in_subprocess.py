"""Strangers' files are read in a process of its own: bounded in memory and time, one at a time.

The threads that answer everybody else only wait for it.
"""

import multiprocessing
import sys
import threading
from collections.abc import Callable, Iterator
from concurrent.futures import BrokenExecutor
from concurrent.futures import TimeoutError as Late
from contextlib import contextmanager
from typing import Any, TypeVar

from pebble import ProcessExpired, ProcessPool

from swapglow.core.quantities import InputError

T = TypeVar("T")

# What one file may take, over what the process needs by itself.
MEGABYTES = 900
SECONDS = 30.0
# How long a file waits for the one before it.
PATIENCE = 60.0

_one_at_a_time = threading.Lock()
_pool: ProcessPool | None = None


def in_subprocess(field: str, work: Callable[..., T], *args: Any, seconds: float = SECONDS) -> T:
    """Do a piece of work on a file away from this process.

    Args:
        field: names the file in a refusal.
        work: a function of a module; it must answer what can be sent between processes.
        args: for it.
        seconds: how long it may take.

    Returns:
        What it answers.

    Raises:
        InputError: it took too long or too much memory, ended the process that read it, or had to wait too
            long for another file.
    """
    if not _one_at_a_time.acquire(timeout=PATIENCE):
        raise InputError(field, "Another file is still being read. Bring this one in after it.")
    try:
        answer: T = _running().schedule(_bounded, args=[work, *args], timeout=seconds).result()
        return answer
    except Late:
        raise InputError(
            field, f"It takes longer than {seconds:g} s to read, which is what one file is given."
        ) from None
    except MemoryError:
        raise InputError(
            field, f"It needs more than {MEGABYTES} MB of memory to read, which is what one file is given."
        ) from None
    except (ProcessExpired, BrokenExecutor):
        _forget()
        raise InputError(
            field, "It could not be read: the process that read it ended. Try it again, or another file."
        ) from None
    finally:
        _one_at_a_time.release()


def _forget() -> None:
    """Let a pool go that has lost its process; the next file gets a new one."""
    global _pool
    if _pool is not None:
        _pool.stop()  # type: ignore[no-untyped-call]  # it is not annotated
        _pool = None


def _running() -> ProcessPool:
    global _pool
    if _pool is None or not _pool.active:
        _pool = ProcessPool(max_workers=1, context=multiprocessing.get_context("spawn"))
    return _pool


def _bounded(work: Callable[..., T], *args: Any) -> T:
    with _little_memory():
        return work(*args)


@contextmanager
def _little_memory() -> Iterator[None]:
    """Bound what this process may take, where the system can: Windows has no such limit."""
    if sys.platform == "win32":
        yield
        return
    import resource

    _, most = resource.getrlimit(resource.RLIMIT_AS)
    try:
        with open("/proc/self/statm", encoding="ascii") as handle:
            used = int(handle.read().split()[0]) * resource.getpagesize()
    except OSError:
        # Where the system does not tell, its largest so far.
        used = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss * (1 if sys.platform == "darwin" else 1024)
    resource.setrlimit(resource.RLIMIT_AS, (used + MEGABYTES * 2**20, most))
    try:
        yield
    finally:
        resource.setrlimit(resource.RLIMIT_AS, (most, most))
