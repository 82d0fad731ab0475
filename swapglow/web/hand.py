"""Whose hand a request is: the name that somebody chose on their device, and the device it came from."""

from collections.abc import Callable
from urllib.parse import unquote

from django.http import HttpRequest, HttpResponse

from swapglow.devices.visitor import visitor_of
from swapglow.records.authors import LONGEST, Author, author

# The cookie that the page sets.
COOKIE = "hand"


class Hand:
    """Middleware that says for one request who makes it; every step carries that."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Handle one request."""
        device = visitor_of(request).device
        chosen = " ".join(unquote(request.COOKIES.get(COOKIE, "")).split())[:LONGEST]
        unnamed = device.name[:LONGEST] if device else ""
        token = author.set(Author(chosen or unnamed, device.pk if device else None, unnamed))
        try:
            return self._get_response(request)
        finally:
            author.reset(token)
