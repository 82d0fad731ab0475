"""What took long is written down."""

import logging
import time
from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

log = logging.getLogger("swapglow.slow")

SLOW_S = 1.0


class Watch:
    """Middleware that logs slow answers by their route, without keys and without what was typed."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Handle one request."""
        started = time.monotonic()
        answer = self._get_response(request)
        took = time.monotonic() - started
        if took > SLOW_S:
            match = request.resolver_match
            log.warning(
                "a slow answer",
                extra={
                    "method": request.method,
                    "route": match.route if match else "",
                    "status": answer.status_code,
                    "seconds": round(took, 2),
                },
            )
        return answer
