"""The browser's time zone for one request: days begin at the bench's own midnight, not at that of Greenwich."""

import zoneinfo
from collections.abc import Callable
from zoneinfo import ZoneInfo

from django.http import HttpRequest, HttpResponse
from django.utils import timezone

# The cookie that the page sets; instants themselves are kept in UTC.
COOKIE = "zone"


class BrowsersZone:
    """Middleware that reckons days and hours in the zone that the page names; without one, as the machine is set."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Handle one request."""
        with timezone.override(_named(request.COOKIES.get(COOKIE, ""))):
            return self._get_response(request)


def _named(name: str) -> ZoneInfo | None:
    return ZoneInfo(name) if name in zoneinfo.available_timezones() else None
