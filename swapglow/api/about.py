"""What the program is, and whose work it is made with."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from swapglow.api.program import About, about, notices

router = Router(tags=["about"])


@router.get("/about", response=About)
def read(request: HttpRequest) -> About:
    """Version, records, terms, packages and tables."""
    return about()


@router.get("/notices.txt", include_in_schema=False)
def texts(request: HttpRequest) -> HttpResponse:
    """Every licence, whole, as text."""
    return HttpResponse(notices(), "text/plain; charset=utf-8")
