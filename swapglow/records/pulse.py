"""A number that goes up with every change of the records: a page that asks for it sees that somebody changed them."""

import itertools
import secrets

# Not from nought: after a restart a page must not take an old count for the new one.
_count = itertools.count(secrets.randbelow(10**6) * 1000)
_now = next(_count)


def beat() -> int:
    """Something was changed.

    Returns:
        The number from now on.
    """
    global _now
    _now = next(_count)
    return _now


def pulse() -> int:
    """The number as it is."""
    return _now
