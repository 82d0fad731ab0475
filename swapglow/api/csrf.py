"""A change that does not come from our own page, refused in the shape of all refusals."""

from django.http import HttpRequest, JsonResponse

NOT_OUR_PAGE = (
    "This change did not come from a page of Swap Glow that is up to date. Reload the page, then save again."
)


def refused(request: HttpRequest, reason: str = "") -> JsonResponse:
    """Django's view of a request that its check refused."""
    return JsonResponse({"errors": [{"field": "", "message": NOT_OUR_PAGE}]}, status=403)
