"""A document as it is brought in: read, checked, its photographs made small; for a process of its own."""

import base64
import binascii
from dataclasses import dataclass
from uuid import UUID

from swapglow.core.quantities import InputError
from swapglow.document.model import Document, Photo
from swapglow.document.pictures import reencoded, unchanged
from swapglow.document.read import DocumentError, read_document

Problems = list[tuple[str, str]]
Jpeg = tuple[bytes, int, int]


@dataclass(frozen=True)
class Imported:
    """What came in.

    Attributes:
        document: without the photographs' texts.
        pictures: JPEG, width and height in pixels, by the photograph's key; those left out are not in it.
    """

    document: Document
    pictures: dict[UUID, Jpeg]


def bring(data: bytes) -> Imported | Problems:
    """A document with its photographs, or every reason why it is refused, as (place, reason)."""
    try:
        document = read_document(data)
        pictures = _pictures(document.equipment.photos)
    except DocumentError as problem:
        return problem.problems
    bare = [p.model_copy(update={"jpeg": None}) for p in document.equipment.photos]
    equipment = document.equipment.model_copy(update={"photos": bare})
    return Imported(document.model_copy(update={"equipment": equipment}), pictures)


def _pictures(photos: list[Photo]) -> dict[UUID, Jpeg]:
    out: dict[UUID, Jpeg] = {}
    for n, photo in enumerate(photos):
        if photo.jpeg is None:
            continue
        place = f"equipment.photos.{n}.jpeg"
        try:
            data = base64.b64decode(photo.jpeg, validate=True)
        except (binascii.Error, ValueError):
            raise DocumentError([(place, "It is not base64.")]) from None
        try:
            out[photo.id] = unchanged(data) or reencoded(data)
        except InputError as problem:
            raise DocumentError([(place, problem.message)]) from None
    return out
