"""The first start: the three questions, and the demo to look around in."""

from dataclasses import asdict

from django.conf import settings
from django.http import HttpRequest
from ninja import Router
from ninja.decorators import decorate_view

from swapglow.api.saving import saving
from swapglow.api.schemas import DemoOut, FirstStartIn, FirstStartOut, Problems
from swapglow.core.quantities import InputError
from swapglow.records import first_start
from swapglow.records.demo import beside

router = Router(tags=["first start"])


@router.get("/first-start", response=FirstStartOut)
def read(request: HttpRequest) -> FirstStartOut:
    """Whether this bench is new."""
    return FirstStartOut(**asdict(first_start.first_start()))


@router.post("/first-start", response={200: FirstStartOut, 422: Problems})
@decorate_view(saving)
def begin(request: HttpRequest, data: FirstStartIn) -> FirstStartOut:
    """Take over what was said of the workshop; what was skipped stays as it is."""
    return FirstStartOut(**asdict(first_start.begin(data.work, data.meter, data.series)))


@router.get("/demo", response=DemoOut)
def demo(request: HttpRequest) -> DemoOut:
    """Where the demo can be looked at, once it is ready."""
    return DemoOut(**asdict(beside.beside()))


@router.post("/demo", response={200: DemoOut, 422: Problems})
def look_around(request: HttpRequest) -> DemoOut:
    """Start the demo in a room of its own."""
    if settings.DEMO:
        raise InputError("demo", "This is the demo.")
    return DemoOut(**asdict(beside.start()))
