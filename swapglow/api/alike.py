"""Lamps that are alike: copies of one, one change for all, and the lot judged by a few readings."""

from dataclasses import asdict
from typing import Annotated
from uuid import UUID

from django.http import HttpRequest
from ninja import Query, Router, Status
from ninja.decorators import decorate_view
from pydantic import Field

from swapglow.api.positions import find
from swapglow.api.saving import saving
from swapglow.api.schemas import AlikeIn, AlikeOut, CopiesIn, OtherOut, Problems
from swapglow.inputs.limits import MOST_COPIES
from swapglow.records import alike
from swapglow.records.reports import live_closed

router = Router(tags=["positions"])

Count = Annotated[int, Field(ge=1, le=MOST_COPIES)]


@router.get("/positions/{key}/alike", response={200: AlikeOut, 404: Problems})
def read(request: HttpRequest, key: UUID) -> AlikeOut:
    """The other lamps of its item, what tells each from this one, and those alike judged by their readings."""
    p = find(key)
    others = alike.others_of(p)
    out = [OtherOut(**{**asdict(o), "alike": o.alike}) for o in others]
    return AlikeOut(others=out, lots=alike.lots_of(p, others), live=not live_closed(p))


@router.get("/positions/{key}/copies/names", response={200: list[str], 404: Problems, 422: Problems})
def names(request: HttpRequest, key: UUID, count: Query[Count]) -> list[str]:
    """Names for copies of a lamp, which go on from its own."""
    p = find(key)
    return alike.names_after(p.equipment, p.input.name, count)


@router.post("/positions/{key}/copies", response={204: None, 404: Problems, 422: Problems})
@decorate_view(saving)
def copy(request: HttpRequest, key: UUID, data: CopiesIn) -> Status[None]:
    """Make lamps like this one; sent twice, they are made once."""
    alike.copy(find(key), data.lamps)
    return Status(204, None)


@router.post("/positions/{key}/alike", response={204: None, 404: Problems, 422: Problems})
@decorate_view(saving)
def make_like(request: HttpRequest, key: UUID, data: AlikeIn) -> Status[None]:
    """Give other lamps of the item what this one has."""
    alike.make_like(find(key), data.lamps)
    return Status(204, None)
