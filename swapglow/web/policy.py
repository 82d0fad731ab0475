"""The content security policy: our own files only, a fresh nonce for styles at every request."""

import secrets
from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

_POLICY = "; ".join(
    (
        "default-src 'none'",
        "script-src 'self'",
        "style-src 'self' 'nonce-{nonce}'",
        "style-src-attr 'none'",
        "img-src 'self' data: blob:",
        "font-src 'self'",
        "connect-src 'self'",
        "manifest-src 'self'",
        "base-uri 'none'",
        "form-action 'self'",
        "frame-ancestors 'none'",
        "object-src 'none'",
    )
)


class ContentSecurityPolicy:
    """Middleware that makes the nonce and sets the header."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Handle one request."""
        request.csp_nonce = secrets.token_urlsafe(18)  # type: ignore[attr-defined]  # a request takes more
        response = self._get_response(request)
        response["Content-Security-Policy"] = _POLICY.format(nonce=request.csp_nonce)  # type: ignore[attr-defined]  # set above
        response["Permissions-Policy"] = "camera=(), geolocation=(), microphone=()"
        response["Cross-Origin-Opener-Policy"] = "same-origin"
        return response


def nonce(request: HttpRequest) -> dict[str, str]:
    """Give templates the nonce of this request."""
    return {"csp_nonce": getattr(request, "csp_nonce", "")}
