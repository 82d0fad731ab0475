"""Arrays that are used over and over by one thread, so that large batches need no fresh memory.

A page of fresh memory costs more than the arithmetic done on it: on the two-core machine of the
bench, taking these arrays anew at each piece cost a third of a Monte Carlo run.
"""

import threading

import numpy as np
from numpy.typing import NDArray

_MOST_KEPT = 24


class _Kept(threading.local):
    def __init__(self) -> None:
        self.arrays: dict[tuple[str, tuple[int, ...]], NDArray[np.float64]] = {}


_kept = _Kept()


def scratch(name: str, shape: tuple[int, ...]) -> NDArray[np.float64]:
    """An array of that shape with whatever it last held; the next call by that name takes it over.

    Args:
        name: whose it is.
        shape: of the array.

    Returns:
        The array; its content is whatever was left in it.
    """
    key = (name, shape)
    found = _kept.arrays.get(key)
    if found is None:
        if len(_kept.arrays) >= _MOST_KEPT:
            _kept.arrays.clear()
        found = _kept.arrays[key] = np.empty(shape)
    return found
