"""Refusals from outside the API's own handling, in the shape of all others: Django calls these."""

from django.http import HttpRequest, HttpResponse, JsonResponse

NOT_OUR_PAGE = "This change did not come from a page of Swap Glow that is up to date. Reload the page, then save again."
FAILED = "Swap Glow failed at this. Nothing was saved; what happened is in its log."


def refusal(status: int, message: str) -> JsonResponse:
    """One refusal that belongs to no field."""
    return JsonResponse({"errors": [{"field": "", "message": message}]}, status=status)


def not_our_page(request: HttpRequest, reason: str = "") -> HttpResponse:
    """A request that the check against other pages refused."""
    return refusal(403, NOT_OUR_PAGE)


def not_found(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """An address that there is not."""
    return refusal(404, "There is nothing at this address.")


def failed(request: HttpRequest) -> HttpResponse:
    """A fault of ours."""
    return refusal(500, FAILED)
