"""Loopback only: until there are accounts, nothing of ours answers anybody but this machine, whatever is set."""

import ipaddress
from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

_HOSTS = ("127.0.0.1", "localhost", "[::1]")
# What a proxy puts in: a request with one of them may come from anywhere.
_FORWARDED = ("Forwarded", "X-Forwarded-For", "X-Forwarded-Host", "X-Real-Ip")
_WORDS = "Swap Glow answers only the machine it runs on.\n"


def is_loopback(address: str) -> bool:
    """Whether an address is this machine's own."""
    try:
        return ipaddress.ip_address(address).is_loopback
    except ValueError:
        return False


class LoopbackOnly:
    """Middleware that refuses whoever is not on this machine."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Handle one request."""
        host = request.META.get("HTTP_HOST", request.META.get("SERVER_NAME", ""))
        name = host.rsplit(":", 1)[0] if not host.endswith("]") else host
        forwarded = any(header in request.headers for header in _FORWARDED)
        if not is_loopback(request.META.get("REMOTE_ADDR", "")) or name not in _HOSTS or forwarded:
            return HttpResponse(_WORDS, "text/plain", 403)
        return self._get_response(request)
