"""Who is answered. The bench's own door answers this machine only, the shared door paired devices only.

The bench's own door is the loopback address, where nobody logs in. The shared door (``swapglow.devices.door``) is
marked by its server: what comes in by it is a device's, even where it comes from this machine.
"""

import ipaddress
import math
from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

from swapglow.api.plain import refusal
from swapglow.api.rights import ASKING, AT_THE_BENCH
from swapglow.devices import door, rates
from swapglow.devices.addresses import is_private
from swapglow.devices.models import Device
from swapglow.devices.visitor import COOKIES, Visitor, note_visitor, visitor_of

_HOSTS = ("127.0.0.1", "localhost", "[::1]")
# What proxies and content networks put in: a request with one of these may come from anywhere.
_FORWARDED = ("Forwarded", "Via", "X-Real-Ip", "True-Client-Ip", "X-Client-Ip", "Cdn-Loop", "X-Original-Host")
_FORWARDED_STARTS = ("x-forwarded-", "cf-", "fastly-", "x-envoy-", "x-proxy")
_WORDS = "Swap Glow answers only the machine it runs on.\n"
_SHARED_WORDS = "Swap Glow answers here only by the address that the bench shows.\n"
NOT_PAIRED = (
    "This phone is not paired with the bench, or not any more. What you typed is kept on it. "
    "Press Add a phone at the bench and scan the code."
)
TOO_MUCH = "This phone asks too much at once. Wait a minute, then go on."
ONLY_LOOKS = "This phone only looks: it may change nothing. At the bench, under Phones, it can be let."
ONLY_AT_THE_BENCH = "This is done at the bench itself, not from a phone."
# What a device that is not paired yet may call; the page itself holds no records.
_FOR_STRANGERS = ("/api/pair", "/api/look/", "/api/me")
_SAFE = ("GET", "HEAD")
_MB = 1024**2


def is_loopback(address: str) -> bool:
    """Whether an address is this machine's own."""
    try:
        return ipaddress.ip_address(address).is_loopback
    except ValueError:
        return False


class Doors:
    """Middleware that refuses whoever may not come in by the door they came by, and says who came in."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Handle one request."""
        shared = bool(request.META.get(door.MARK))
        refused = _at_the_shared_door(request) if shared else _at_the_bench(request)
        if refused is not None:
            return refused
        answer = self._get_response(request)
        if request.path.startswith("/api/") and "Cache-Control" not in answer.headers:
            # Somebody's records: nothing between the bench and its page keeps a copy.
            answer.headers["Cache-Control"] = "no-store"
        if request.is_secure():
            for cookie in answer.cookies.values():
                cookie["secure"] = True
        return answer

    def process_view(self, request: HttpRequest, view: object, args: object, kwargs: object) -> HttpResponse | None:
        """Refuse what this visitor may not do, once it is known what is asked."""
        visitor = visitor_of(request)
        if visitor.at_the_bench or request.resolver_match is None:
            return None
        route = request.resolver_match.route
        if any(route.startswith(start) for start in AT_THE_BENCH):
            return refusal(403, ONLY_AT_THE_BENCH)
        if not visitor.may_write and request.method not in _SAFE and route not in ASKING:
            return refusal(403, ONLY_LOOKS)
        return None


def _forwarded(request: HttpRequest) -> bool:
    return any(header in request.headers for header in _FORWARDED) or any(
        header.lower().startswith(_FORWARDED_STARTS) for header in request.headers
    )


def _at_the_bench(request: HttpRequest) -> HttpResponse | None:
    host = request.META.get("HTTP_HOST", request.META.get("SERVER_NAME", ""))
    name = host.rsplit(":", 1)[0] if not host.endswith("]") else host
    if not is_loopback(request.META.get("REMOTE_ADDR", "")) or name not in _HOSTS or _forwarded(request):
        return HttpResponse(_WORDS, "text/plain", 403)
    note_visitor(request, Visitor())
    return None


def _at_the_shared_door(request: HttpRequest) -> HttpResponse | None:
    host = request.META.get("HTTP_HOST", "")
    if host not in door.hosts() or not is_private(request.META.get("REMOTE_ADDR", "")) or _forwarded(request):
        return HttpResponse(_SHARED_WORDS, "text/plain", 403)
    device = Device.known(request.COOKIES.get(COOKIES[request.is_secure()], ""))
    if device is not None and device.expired:
        device = None
    note_visitor(request, Visitor(device=device, at_the_bench=False))
    if device is None:
        if not rates.allowed(rates.STRANGERS, "all"):
            return refusal(429, TOO_MUCH)
        if request.path.startswith("/api/") and not request.path.startswith(_FOR_STRANGERS):
            return refusal(401, NOT_PAIRED)
        return None
    device.see()
    megabytes = math.ceil(_length(request) / _MB) if request.method not in _SAFE else 0
    if not rates.allowed(rates.REQUESTS, str(device.pk)) or (
        megabytes and not rates.allowed(rates.MEGABYTES, str(device.pk), megabytes)
    ):
        return refusal(429, TOO_MUCH)
    return None


def _length(request: HttpRequest) -> int:
    text = request.META.get("CONTENT_LENGTH") or "0"
    return int(text) if text.isdigit() else 0
