"""The API, and the one page for everything else."""

from django.urls import path, re_path

from swapglow.api.app import api
from swapglow.web.page import page

handler404 = "swapglow.api.plain.not_found"
handler500 = "swapglow.api.plain.failed"

urlpatterns = [path("api/", api.urls), re_path(r"^(?!api/|static/).*$", page)]
