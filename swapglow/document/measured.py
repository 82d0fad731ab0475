"""Photographs that are measured, at their full size and before anything is made small: for a process of its own."""

from collections.abc import Callable
from typing import TypeVar

from PIL import ImageOps

from swapglow.core.photographs.linear import Picture, picture_of
from swapglow.core.photographs.streak import streak
from swapglow.core.photographs.two_in_one import Spot, two_in_one
from swapglow.core.presentation.photographs import StreakSeen, TwoSeen, streak_seen, two_seen
from swapglow.core.quantities import InputError
from swapglow.document.pictures import opened

T = TypeVar("T")
# A refusal's field and message: what goes from one process to the next.
Refused = tuple[str, str]
# A streak needs no more, and its whole picture is summed.
_STREAK_SIDE = 2400


def two_of(data: bytes, spots: tuple[Spot, Spot] | None) -> TwoSeen | Refused:
    """Two lamps in one frame, or why they cannot be compared.

    Args:
        data: the file.
        spots: circles of the old lamp and the new; None finds them.

    Returns:
        The section, or the refusal.
    """
    return _measured(data, None, lambda picture: two_seen(two_in_one(picture, spots)))


def streak_of(data: bytes, shutter_s: float) -> StreakSeen | Refused:
    """A streak, or why nothing can be counted.

    Args:
        data: the file.
        shutter_s: how long the shutter was open, s.

    Returns:
        The section, or the refusal.
    """
    return _measured(data, _STREAK_SIDE, lambda picture: streak_seen(streak(picture, shutter_s)))


def _measured(data: bytes, side: int | None, work: Callable[[Picture], T]) -> T | Refused:
    try:
        return work(_picture(data, side))
    except InputError as problem:
        return problem.field, problem.message


def _picture(data: bytes, side: int | None) -> Picture:
    """A file's pixels, upright, as they are: nothing is stretched and no profile applied."""
    with opened(data) as found:
        upright = ImageOps.exif_transpose(found).convert("RGB")
        if side is not None and max(upright.size) > side:
            upright = upright.reduce(-(-max(upright.size) // side))
        return picture_of(upright.tobytes(), upright.width, upright.height)
