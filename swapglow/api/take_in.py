"""The take-in sheet and its photographs."""

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Field, File, Form, Router, Schema, Status
from ninja.decorators import decorate_view
from ninja.files import UploadedFile

from swapglow.api.equipment import said
from swapglow.api.saving import changed, saving
from swapglow.api.schemas import PhotoOut, Problems, TakeInPatch, TakeInView
from swapglow.api.serializers import take_in_view
from swapglow.core.quantities import InputError
from swapglow.document.in_subprocess import in_subprocess
from swapglow.document.pictures import LARGEST_BYTES, photograph
from swapglow.inputs.equipment import TakeInInput
from swapglow.inputs.kept import check_change, joined_kept, readable
from swapglow.inputs.patch import sent, touched
from swapglow.inputs.quantity import Line
from swapglow.inputs.to_core import feasibility_of
from swapglow.records import edit_conflicts, order, photographs
from swapglow.records.limits import check_room
from swapglow.records.models import Equipment, Photo, empty_sheet
from swapglow.records.steps import keep, recorded

router = Router(tags=["take-in"])


@router.patch("/equipment/{key}/take-in", response={200: TakeInView, 404: Problems, 409: Problems, 422: Problems})
@decorate_view(saving)
def change(request: HttpRequest, key: UUID, data: TakeInPatch) -> TakeInView:
    """Change the parts of the take-in sheet that were sent; the rest stays."""
    e = get_object_or_404(Equipment, pk=key)
    parts = sent(data)
    edit_conflicts.check({**empty_sheet(), **e.take_in}, parts, parts.pop("was", {}))
    before, after = e.take_in, joined_kept(TakeInInput, e.take_in, parts)
    check_change(_check, before, after, parts)
    label = f"edit the take-in of {e.input.name}: {said(parts)}"
    with recorded(str(key), label, f"take-in:{key}:{touched(parts)}"):
        e.take_in = after
        keep(e)
    return take_in_view(e)


def _check(sheet: Mapping[str, Any]) -> None:
    try:
        feasibility_of(readable(TakeInInput, sheet)[0].feasibility)
    except InputError as problem:
        raise InputError(f"feasibility.{problem.field}", problem.message) from None


class Caption(Schema):
    """What a photograph shows."""

    caption: Line = ""
    was: dict[str, str] = Field(default_factory=dict)


@router.post("/equipment/{key}/photos/{photo}", response={200: PhotoOut, 404: Problems, 422: Problems})
def add(request: HttpRequest, key: UUID, photo: UUID, file: File[UploadedFile], caption: Form[str] = "") -> PhotoOut:
    """Add a photograph; sent twice, it is kept once. It is made small and loses all metadata."""
    e = get_object_or_404(Equipment, pk=key)
    shown = Caption(caption=caption).caption
    found = Photo.objects.filter(pk=photo).first()
    if found is not None:
        return _out(found)
    check_room(Photo(equipment=e))
    if (file.size or 0) > LARGEST_BYTES:
        raise InputError("photo", f"The photograph is over {LARGEST_BYTES // 2**20} MB.")
    small = in_subprocess("photo", photograph, file.read())
    if isinstance(small, str):
        raise InputError("photo", small)
    jpeg, width, height = small
    with transaction.atomic():
        found = Photo.objects.filter(pk=photo).first()
        if found is None:
            e = get_object_or_404(Equipment, pk=key)
            found = Photo(
                id=photo,
                equipment=e,
                caption=shown,
                order=order.last(e.photos),
                digest=photographs.keep(jpeg),
                width=width,
                height=height,
            )
            check_room(found)
            with recorded(str(key), "add a photograph", f"photo:{photo}"):
                keep(found)
    changed()
    return _out(found)


def _out(p: Photo) -> PhotoOut:
    return PhotoOut(id=p.pk, caption=p.caption)


@router.patch("/photos/{key}", response={200: PhotoOut, 404: Problems, 409: Problems, 422: Problems})
@decorate_view(saving)
def caption(request: HttpRequest, key: UUID, data: Caption) -> PhotoOut:
    """Say what a photograph shows."""
    p = get_object_or_404(Photo, pk=key)
    edit_conflicts.check({"caption": p.caption}, {"caption": data.caption}, data.was)
    p.caption = data.caption
    with recorded(str(p.equipment_id), "caption a photograph", f"photo:{key}:caption"):
        keep(p)
    return _out(p)


@router.delete("/photos/{key}", response={204: None})
@decorate_view(saving)
def remove(request: HttpRequest, key: UUID) -> Status[None]:
    """Delete a photograph; undo brings it back."""
    p = Photo.objects.filter(pk=key).first()
    if p is not None:
        with recorded(str(p.equipment_id), "delete a photograph", f"photo:{key}:delete"):
            p.delete()
    return Status(204, None)


@router.get("/photos/{key}/picture.jpg", response={404: Problems})
def picture(request: HttpRequest, key: UUID) -> HttpResponse:
    """The picture itself."""
    p = get_object_or_404(Photo, pk=key)
    jpeg = photographs.jpeg_of(p.digest)
    if jpeg is None:
        raise Http404
    return HttpResponse(jpeg, "image/jpeg", headers={"Cache-Control": "private, max-age=31536000, immutable"})
