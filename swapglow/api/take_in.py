"""The take-in sheet and its photographs."""

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import File, Form, Router, Schema, Status
from ninja.files import UploadedFile

from swapglow.api.schemas import PhotoOut, Problems, TakeInView
from swapglow.api.serializers import take_in_view
from swapglow.core.quantities import InputError
from swapglow.document.model import MOST_PHOTOS
from swapglow.inputs.equipment import TakeInInput
from swapglow.inputs.patch import joined, sent
from swapglow.inputs.to_core import feasibility_of
from swapglow.records.journal import recorded
from swapglow.records.models import Equipment, Photo, Picture
from swapglow.records.photographs import LARGEST_BYTES, keep, reencoded

router = Router(tags=["take-in"])


@router.patch("/equipment/{key}/take-in", response={200: TakeInView, 404: Problems, 422: Problems})
def change(request: HttpRequest, key: UUID, data: TakeInInput) -> TakeInView:
    """Change the parts of the take-in sheet that were sent; the rest stays."""
    e = get_object_or_404(Equipment, pk=key)
    parts = sent(data)
    sheet = TakeInInput.model_validate(joined(e.sheet.model_dump(mode="json"), parts))
    feasibility_of(sheet.feasibility)
    label, touched = f"edit the take-in of {e.input.name}", f"take-in:{key}:{sorted(parts)}"
    with recorded(str(key), label, [e], touched) as left:
        e.take_in = sheet.model_dump(mode="json")
        e.save()
        left.append(e)
    return take_in_view(e)


class Caption(Schema):
    """What a photograph shows."""

    caption: str = ""


@router.post("/equipment/{key}/photos/{photo}", response={200: PhotoOut, 404: Problems, 422: Problems})
def add(
    request: HttpRequest, key: UUID, photo: UUID, file: File[UploadedFile], caption: Form[str] = ""
) -> PhotoOut:
    """Add a photograph; sent twice, it is kept once. It is made small and loses all metadata."""
    e = get_object_or_404(Equipment, pk=key)
    found = Photo.objects.filter(pk=photo).first()
    if found is None:
        if e.photos.count() >= MOST_PHOTOS:
            raise InputError("photo", f"An item takes {MOST_PHOTOS} photographs.")
        if (file.size or 0) > LARGEST_BYTES:
            raise InputError("photo", f"The photograph is over {LARGEST_BYTES // 2**20} MB.")
        jpeg, width, height = reencoded(file.read())
        with recorded(str(key), "add a photograph", [], f"photo:{photo}") as left:
            found = Photo.objects.create(
                id=photo, equipment=e, caption=caption[:200], order=e.photos.count(), digest=keep(jpeg),
                width=width, height=height,
            )  # fmt: skip
            left.append(found)
    return _out(found)


def _out(p: Photo) -> PhotoOut:
    return PhotoOut(id=p.pk, caption=p.caption)


@router.patch("/photos/{key}", response={200: PhotoOut, 404: Problems, 422: Problems})
def caption(request: HttpRequest, key: UUID, data: Caption) -> PhotoOut:
    """Say what a photograph shows."""
    p = get_object_or_404(Photo, pk=key)
    before = Photo.objects.get(pk=key)
    p.caption = data.caption[:200]
    with recorded(str(p.equipment_id), "caption a photograph", [before], f"photo:{key}:caption") as left:
        p.save()
        left.append(p)
    return _out(p)


@router.delete("/photos/{key}", response={204: None})
def remove(request: HttpRequest, key: UUID) -> Status[None]:
    """Delete a photograph; undo brings it back."""
    p = Photo.objects.filter(pk=key).first()
    if p is not None:
        with recorded(str(p.equipment_id), "delete a photograph", [p], f"photo:{key}:delete"):
            p.delete()
    return Status(204, None)


@router.get("/photos/{key}/picture.jpg", response={404: Problems})
def picture(request: HttpRequest, key: UUID) -> HttpResponse:
    """The picture itself."""
    p = get_object_or_404(Photo, pk=key)
    found = get_object_or_404(Picture, digest=p.digest)
    return HttpResponse(
        bytes(found.jpeg), "image/jpeg", headers={"Cache-Control": "private, max-age=31536000, immutable"}
    )
