"""Photographs that measure: two lamps in one frame, a streak. Nothing of them is kept here."""

from uuid import UUID

from django.http import HttpRequest
from ninja import File, Form, Router, Schema
from ninja.files import UploadedFile

from swapglow.api.positions import find
from swapglow.api.schemas import Problems
from swapglow.core.photographs.two_in_one import Spot
from swapglow.core.presentation.photographs import StreakSeen, TwoSeen
from swapglow.core.quantities import SECOND, InputError
from swapglow.core.quantities.inputs import read_single
from swapglow.document.in_subprocess import in_subprocess
from swapglow.document.measured import streak_of, two_of
from swapglow.document.pictures import LARGEST_BYTES

router = Router(tags=["photographs"])


class Circles(Schema):
    """Where the two lamps are, in shares of the picture's width, and the radius of both circles; none finds them."""

    old_x: float | None = None
    old_y: float | None = None
    new_x: float | None = None
    new_y: float | None = None
    r: float | None = None

    @property
    def spots(self) -> tuple[Spot, Spot] | None:
        """Both circles, once all is said."""
        if self.old_x is None or self.old_y is None or self.new_x is None or self.new_y is None or self.r is None:
            return None
        return Spot(self.old_x, self.old_y, self.r), Spot(self.new_x, self.new_y, self.r)


def _bytes(file: UploadedFile) -> bytes:
    if (file.size or 0) > LARGEST_BYTES:
        raise InputError("photo", f"The photograph is over {LARGEST_BYTES // 2**20} MB.")
    data: bytes = file.read()
    return data


@router.post("/positions/{key}/two-in-one", response={200: TwoSeen, 404: Problems, 422: Problems})
def two_in_one(request: HttpRequest, key: UUID, file: File[UploadedFile], circles: Form[Circles]) -> TwoSeen:
    """The old lamp and the new one in one photograph: ratio of light, evenness, colours."""
    find(key)
    found = in_subprocess("photo", two_of, _bytes(file), circles.spots)
    if isinstance(found, tuple):
        raise InputError(*found)
    return found


@router.post("/positions/{key}/streak", response={200: StreakSeen, 404: Problems, 422: Problems})
def streak(request: HttpRequest, key: UUID, file: File[UploadedFile], shutter: Form[str]) -> StreakSeen:
    """A photograph swept past the lamp: how often its light pulses, and for how much of the time it is lit."""
    find(key)
    seconds = read_single("shutter", shutter, SECOND, above=0)
    found = in_subprocess("photo", streak_of, _bytes(file), seconds)
    if isinstance(found, tuple):
        raise InputError(*found)
    return found
