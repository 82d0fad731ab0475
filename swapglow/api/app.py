"""The API: typed endpoints, one error shape, CSRF on every change."""

import errno
import logging
from typing import Any

import pydantic
from django.core.exceptions import RequestDataTooBig, SuspiciousOperation
from django.db import DatabaseError
from django.http import Http404, HttpRequest, HttpResponse
from django.http.multipartparser import MultiPartParserError
from ninja import NinjaAPI
from ninja.errors import HttpError, ValidationError
from ninja.openapi.schema import OpenAPISchema
from ninja.security import APIKeyCookie

from swapglow.api import (
    about,
    alike,
    backups,
    bench,
    cards,
    catalogue,
    day,
    devices,
    drawer,
    equipment,
    first_start,
    leds,
    match,
    photographs,
    positions,
    quick,
    readings,
    shop,
    take_in,
    transfer,
)
from swapglow.api.plain import FAILED, NOT_OUR_PAGE
from swapglow.api.route import route_of
from swapglow.api.saving import refused
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.parts.led import LedError
from swapglow.core.quantities import InputError
from swapglow.core.values.preferred import SeriesError
from swapglow.document.read import DocumentError
from swapglow.records.edit_conflicts import EditConflictError
from swapglow.records.readings_csv import CsvError
from swapglow.records.undo import ClashError, Refusal

log = logging.getLogger("swapglow.api")


class SamePage(APIKeyCookie):
    """Nobody logs in at a bench; a change must come from our own page (Django's CSRF check)."""

    param_name = "csrftoken"

    def authenticate(self, request: HttpRequest, key: str | None) -> str:
        """Whoever holds the page may use it."""
        return key or "bench"


class Described(NinjaAPI):
    """An API whose description has the refusals that any request may meet."""

    def get_openapi_schema(self, **options: Any) -> OpenAPISchema:
        """The description, with them."""
        described = super().get_openapi_schema(**options)
        problems = {"application/json": {"schema": {"$ref": "#/components/schemas/Problems"}}}
        for operations in described["paths"].values():
            for method, operation in operations.items():
                refusals = _ANY if method == "get" else {**_ANY, **_WRITING}
                for status, why in refusals.items():
                    operation["responses"].setdefault(status, {"description": why, "content": problems})
        return described


_ANY = {
    400: "The request cannot be read.",
    401: "The phone is not paired.",
    403: "The phone may not do this, or the change does not come from our own page.",
    422: "A part of the request is refused.",
    429: "The phone asks too much at once.",
}
_WRITING = {
    413: "More was sent than is kept in one place.",
    503: "The database was busy for too long.",
    507: "The disk is full or cannot be written to.",
}

api = Described(
    title="Swap Glow",
    version="1",
    description="Records and reports. All physics is the core's; reports are passed on as they are.",
    auth=SamePage(csrf=True),
    docs_url=None,
)
api.add_router("", about.router)
api.add_router("", alike.router)
api.add_router("", cards.router)
api.add_router("", catalogue.router)
api.add_router("", quick.router)
api.add_router("", backups.router)
api.add_router("", bench.router)
api.add_router("", day.router)
api.add_router("", devices.router)
api.add_router("", drawer.router)
api.add_router("", equipment.router)
api.add_router("", first_start.router)
api.add_router("", leds.router)
api.add_router("", shop.router)
api.add_router("", match.router)
api.add_router("", photographs.router)
api.add_router("", positions.router)
api.add_router("", readings.router)
api.add_router("", take_in.router)
api.add_router("", transfer.router)


# ENOSPC, and what a quota and a limit on the size of files say in its place.
DISK_FULL = (errno.ENOSPC, errno.EDQUOT, errno.EFBIG)

# A refusal names so many places, and says so much of each.
MOST_PROBLEMS = 5
_LONGEST = 400


def _refused(request: HttpRequest, status: int, errors: list[dict[str, str]]) -> HttpResponse:
    errors = [{key: _cut(text) for key, text in e.items()} for e in errors]
    return api.create_response(request, {"errors": errors}, status=status)


@api.exception_handler(ValidationError)
def _invalid(request: HttpRequest, problem: ValidationError) -> HttpResponse:
    return _shape(request, problem.errors)


@api.exception_handler(pydantic.ValidationError)
def _unshaped(request: HttpRequest, problem: pydantic.ValidationError) -> HttpResponse:
    return _shape(request, problem.errors(include_url=False, include_input=False))  # type: ignore[arg-type]  # plain


def _shape(request: HttpRequest, found: list[dict[str, Any]]) -> HttpResponse:
    errors = []
    for e in found[:MOST_PROBLEMS]:
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


def _cut(text: str) -> str:
    return text if len(text) <= _LONGEST else f"{text[: _LONGEST - 3]}..."


def _plain(error: dict[str, Any]) -> str:
    if error.get("type") in _WORDS:
        return _WORDS[error["type"]].format(**error.get("ctx", {}))
    message = str(error.get("msg", "This value is not accepted.")).removeprefix("Value error, ")
    return message if message.endswith(".") else f"{message}."


@api.exception_handler(DocumentError)
@api.exception_handler(CsvError)
def _file(request: HttpRequest, problem: DocumentError | CsvError) -> HttpResponse:
    errors = [{"field": place, "message": f"{place}: {why}"} for place, why in problem.problems[:MOST_PROBLEMS]]
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


@api.exception_handler(EditConflictError)
def _meanwhile(request: HttpRequest, problem: EditConflictError) -> HttpResponse:
    errors = [{"field": c.field, "message": c.message, "now": c.now} for c in problem.changed]
    return _refused(request, 409, errors)


@api.exception_handler(ClashError)
def _clash(request: HttpRequest, problem: ClashError) -> HttpResponse:
    clashes = [{"record": c.record, "field": c.field, "earlier": c.earlier, "later": c.later} for c in problem.clashes]
    answer = {"errors": [{"field": "", "message": str(problem)}], "clashes": clashes}
    return api.create_response(request, answer, status=409)


@api.exception_handler(Refusal)
def _not_undone(request: HttpRequest, problem: Refusal) -> HttpResponse:
    return _refused(request, 409, [{"field": "", "message": str(problem)}])


@api.exception_handler(HttpError)
def _http(request: HttpRequest, problem: HttpError) -> HttpResponse:
    message = NOT_OUR_PAGE if problem.status_code in (401, 403) else f"{problem.message}."
    return _refused(request, problem.status_code, [{"field": "", "message": message}])


@api.exception_handler(RequestDataTooBig)
def _too_big(request: HttpRequest, problem: RequestDataTooBig) -> HttpResponse:
    message = "That is far more text than is kept in one place: 20\u00a0000 characters are the most."
    return _refused(request, 413, [{"field": "", "message": message}])


@api.exception_handler(MultiPartParserError)
@api.exception_handler(SuspiciousOperation)
def _no_form(request: HttpRequest, problem: Exception) -> HttpResponse:
    message = "The file did not arrive whole. Send it again."
    return _refused(request, 400, [{"field": "", "message": message}])


@api.exception_handler(OSError)
def _disk(request: HttpRequest, problem: OSError) -> HttpResponse:
    if problem.errno not in DISK_FULL:
        return _fault(request, problem)
    log.error("the disk is full", exc_info=problem)
    message = "The disk is full: nothing was saved. Make room, then save it again."
    return _refused(request, 507, [{"field": "", "message": message}])


@api.exception_handler(DatabaseError)
def _database(request: HttpRequest, problem: DatabaseError) -> HttpResponse:
    return refused(problem)


@api.exception_handler(Exception)
def _fault(request: HttpRequest, problem: Exception) -> HttpResponse:
    # What was typed is not written down: where it happened is, and what kind of fault it was.
    log.error("a fault", exc_info=problem, extra={"method": request.method, "route": route_of(request)})
    return _refused(request, 500, [{"field": "", "message": FAILED}])
