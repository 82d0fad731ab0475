"""The single page: Vite's index.html, given this request's nonce."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.template import TemplateDoesNotExist
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe


@require_safe
@never_cache
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """Serve the page for every client route."""
    try:
        return render(request, "index.html")
    except TemplateDoesNotExist:
        return HttpResponse("The front end is not built: run make build.", "text/plain", 503)
