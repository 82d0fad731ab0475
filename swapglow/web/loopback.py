"""Loopback only: until there are accounts, nothing of ours answers anybody but this machine, whatever is set."""

import ipaddress
from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

_HOSTS = ("127.0.0.1", "localhost", "[::1]")
# What proxies and content networks put in: a request with one of these may come from anywhere.
_FORWARDED = ("Forwarded", "Via", "X-Real-Ip", "True-Client-Ip", "X-Client-Ip", "Cdn-Loop", "X-Original-Host")
_FORWARDED_STARTS = ("x-forwarded-", "cf-", "fastly-", "x-envoy-", "x-proxy")
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
        forwarded = any(header in request.headers for header in _FORWARDED) or any(
            header.lower().startswith(_FORWARDED_STARTS) for header in request.headers
        )
        if not is_loopback(request.META.get("REMOTE_ADDR", "")) or name not in _HOSTS or forwarded:
            return HttpResponse(_WORDS, "text/plain", 403)
        answer = self._get_response(request)
        if request.path.startswith("/api/") and "Cache-Control" not in answer.headers:
            # Somebody's records: nothing between the bench and its page keeps a copy.
            answer.headers["Cache-Control"] = "no-store"
        return answer
