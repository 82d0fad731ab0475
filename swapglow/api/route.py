"""The route of a request, for the log: as it is described, without keys."""

from django.http import HttpRequest


def route_of(request: HttpRequest) -> str:
    """The pattern that a request matched, such as "api/positions/<key>"; empty where none did."""
    match = request.resolver_match
    return match.route if match is not None else ""
