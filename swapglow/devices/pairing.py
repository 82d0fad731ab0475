"""Pairing: the bench shows a code and six digits; who has both within their time is let in, once.

Kept in memory only: a restart ends every pairing that was begun.
"""

import hmac
import secrets
import threading
import time
from dataclasses import dataclass

from swapglow.devices.models import Device

# How long a code may be used, and how often it may be mistyped.
LASTS_S = 180.0
MOST_TRIES = 5


class PairingError(Exception):
    """Why a device was not let in, in words; ``over`` where the code is of no more use."""

    def __init__(self, message: str, *, over: bool) -> None:
        super().__init__(message)
        self.over = over


@dataclass
class Offer:
    """A pairing that was begun at the bench.

    Attributes:
        ticket: the long random part, which the code to scan carries.
        digits: the six digits, which only the bench's screen shows.
        may_write: whether the device may change anything.
        until: when it ends, on the machine's steady clock, s.
    """

    ticket: str
    digits: str
    may_write: bool
    until: float
    tries: int = MOST_TRIES

    @property
    def left_s(self) -> float:
        """How long it still lasts, s."""
        return max(0.0, self.until - time.monotonic())


_lock = threading.Lock()
_offer: Offer | None = None


def offer(*, may_write: bool) -> Offer:
    """Begin a pairing; one that was begun before ends."""
    global _offer
    made = Offer(secrets.token_urlsafe(16), f"{secrets.randbelow(10**6):06d}", may_write, time.monotonic() + LASTS_S)
    with _lock:
        _offer = made
    return made


def withdraw() -> None:
    """End the pairing that was begun."""
    global _offer
    with _lock:
        _offer = None


def offered() -> Offer | None:
    """The pairing that can be used now."""
    with _lock:
        return _offer if _offer is not None and _offer.left_s > 0 else None


def pair(ticket: str, digits: str, name: str) -> tuple[Device, str]:
    """Let a device in.

    Args:
        ticket: from the scanned code.
        digits: as typed on the device.
        name: what the device is to be called; "" for "Phone".

    Returns:
        The device and its token.

    Raises:
        PairingError: the code is not the bench's, was used, is too old, or was mistyped.
    """
    global _offer
    with _lock:
        begun = _offer
        if begun is None or begun.left_s <= 0 or not _same(begun.ticket, ticket):
            raise PairingError(
                "This code is used up or too old. Press Add a phone at the bench and scan the new one.", over=True
            )
        if not _same(begun.digits, "".join(digits.split())):
            begun.tries -= 1
            if begun.tries <= 0:
                _offer = None
                raise PairingError(
                    "The digits were wrong five times: this code is used up. Press Add a phone at the bench again.",
                    over=True,
                )
            left = "1 try is" if begun.tries == 1 else f"{begun.tries} tries are"
            raise PairingError(f"These are not the six digits on the bench's screen. {left} left.", over=False)
        _offer = None
    return Device.issue(name=name.strip()[:60] or "Phone", may_write=begun.may_write)


def _same(kept: str, given: str) -> bool:
    """Whether two secrets are equal. The time it takes does not depend on where they differ."""
    return hmac.compare_digest(kept.encode(), given.encode())
