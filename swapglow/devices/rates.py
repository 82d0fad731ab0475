"""How much one device may ask: requests, tries at pairing, and bytes that it sends. Counted in memory."""

from limits import RateLimitItem, RateLimitItemPerHour, RateLimitItemPerMinute
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter

# A slide rule under a finger asks some ten times a second.
REQUESTS = RateLimitItemPerMinute(1200, namespace="requests")
# Of all devices that are not paired yet together.
STRANGERS = RateLimitItemPerMinute(120, namespace="strangers")
PAIRINGS = RateLimitItemPerMinute(10, namespace="pairings")
# In units of 1 MB: a morning's photographs at full size.
MEGABYTES = RateLimitItemPerHour(1000, namespace="megabytes")

_limiter = MovingWindowRateLimiter(MemoryStorage())


def allowed(limit: RateLimitItem, who: str, cost: int = 1) -> bool:
    """Count something, and say whether it is within the limit.

    Args:
        limit: which.
        who: the device's key, or what stands for many.
        cost: how much is counted.
    """
    return _limiter.hit(limit, who, cost=cost)


def forget() -> None:
    """Set all counts to zero. Called when the door is shut."""
    _limiter.storage.reset()
