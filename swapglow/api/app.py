"""The API: typed endpoints, one error shape, CSRF on every change."""

from typing import Any

from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import ValidationError
from ninja.security import APIKeyCookie

from swapglow.api import bench, catalogue, equipment, positions, quick, readings, take_in, transfer
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.parts.led import LedError
from swapglow.core.parts.preferred import SeriesError
from swapglow.core.quantities import InputError
from swapglow.document.read import DocumentError
from swapglow.records.journal import NothingToUndo
from swapglow.records.readings_csv import CsvError


class SamePage(APIKeyCookie):
    """Nobody logs in at a bench; a change must come from our own page (Django's CSRF check)."""

    param_name = "csrftoken"

    def authenticate(self, request: HttpRequest, key: str | None) -> str:
        """Whoever holds the page may use it."""
        return key or "bench"


api = NinjaAPI(
    title="Swap Glow",
    version="1",
    description="Records and reports. All physics is the core's; reports are passed on as they are.",
    auth=SamePage(csrf=True),
    docs_url=None,
)
api.add_router("", catalogue.router)
api.add_router("", quick.router)
api.add_router("", bench.router)
api.add_router("", equipment.router)
api.add_router("", positions.router)
api.add_router("", readings.router)
api.add_router("", take_in.router)
api.add_router("", transfer.router)


def _refused(request: HttpRequest, status: int, errors: list[dict[str, str]]) -> HttpResponse:
    return api.create_response(request, {"errors": errors}, status=status)


@api.exception_handler(ValidationError)
def _invalid(request: HttpRequest, problem: ValidationError) -> HttpResponse:
    errors = []
    for e in problem.errors:
        place = [str(part) for part in e["loc"] if part not in ("body", "data", "path", "query")]
        errors.append({"field": ".".join(place), "message": _plain(e)})
    return _refused(request, 422, errors)


# Refusals of the shapes of input in our own words, by pydantic's name for them.
_WORDS = {
    "int_parsing": "A whole number is wanted here, such as 3.",
    "int_type": "A whole number is wanted here, such as 3.",
    "int_from_float": "A whole number is wanted here, such as 3.",
    "float_parsing": "A number is wanted here, such as 0.5.",
    "greater_than_equal": "{ge} is the least that is accepted here.",
    "less_than_equal": "{le} is the most that is accepted here.",
    "greater_than": "It must be more than {gt}.",
    "less_than": "It must be less than {lt}.",
    "string_too_long": "{max_length} characters are the most that is kept here.",
    "string_too_short": "Something must stand here.",
}


def _plain(error: dict[str, Any]) -> str:
    if error.get("type") in _WORDS:
        return _WORDS[error["type"]].format(**error.get("ctx", {}))
    message = str(error.get("msg", "This value is not accepted.")).removeprefix("Value error, ")
    return message if message.endswith(".") else f"{message}."


@api.exception_handler(DocumentError)
@api.exception_handler(CsvError)
def _file(request: HttpRequest, problem: DocumentError | CsvError) -> HttpResponse:
    errors = [{"field": place, "message": f"{place}: {why}"} for place, why in problem.problems[:5]]
    return _refused(request, 422, errors)


@api.exception_handler(InputError)
def _field(request: HttpRequest, problem: InputError) -> HttpResponse:
    return _refused(request, 422, [{"field": problem.field, "message": problem.message}])


@api.exception_handler(LedError)
@api.exception_handler(SeriesError)
@api.exception_handler(CircuitError)
def _core(request: HttpRequest, problem: Exception) -> HttpResponse:
    return _refused(request, 422, [{"field": "", "message": str(problem)}])


@api.exception_handler(Http404)
def _missing(request: HttpRequest, problem: Http404) -> HttpResponse:
    return _refused(request, 404, [{"field": "", "message": "That record is not here any more."}])


@api.exception_handler(NothingToUndo)
def _nothing(request: HttpRequest, problem: NothingToUndo) -> HttpResponse:
    return _refused(request, 409, [{"field": "", "message": str(problem)}])
