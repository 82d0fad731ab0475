"""Photographs: checked, turned upright, made small, and stripped of all they say about the camera."""

import io
import warnings
from collections.abc import Iterator
from contextlib import contextmanager

from PIL import Image, ImageOps, UnidentifiedImageError

from swapglow.core.quantities import InputError

LARGEST_BYTES = 25 * 1024 * 1024
# Above this a file that is small unpacks to more than a bench machine's memory.
MOST_PIXELS = 60_000_000
LONGEST_SIDE = 1600
QUALITY = 82
KINDS = ("JPEG", "PNG", "WEBP", "BMP", "TIFF", "GIF")


@contextmanager
def opened(data: bytes) -> Iterator[Image.Image]:
    """A stranger's picture, checked before any of it is unpacked.

    Args:
        data: the file.

    Yields:
        The picture as it opens, nothing of it read yet.

    Raises:
        InputError: ``photo``: too large, or no picture.
    """
    if len(data) > LARGEST_BYTES:
        raise InputError("photo", f"The photograph is over {LARGEST_BYTES // 2**20} MB.")
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error")
            # The limit on pixels below is ours.
            warnings.simplefilter("ignore", Image.DecompressionBombWarning)
            with Image.open(io.BytesIO(data), formats=KINDS) as found:
                if found.width * found.height > MOST_PIXELS:
                    raise InputError("photo", f"The photograph is over {MOST_PIXELS // 10**6} million pixels.")
                yield found
    except InputError:
        raise
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Warning, Image.DecompressionBombError):
        raise InputError("photo", f"This is no picture that can be read. {', '.join(KINDS[:3])} are.") from None


def reencoded(data: bytes) -> tuple[bytes, int, int]:
    """A JPEG of at most LONGEST_SIDE pixels with nothing but the picture in it, and its size.

    Raises:
        InputError: ``photo``: too large, or no picture.
    """
    with opened(data) as found:
        # A JPEG is read at a fraction of its size, any other is made small before it is copied.
        found.draft("RGB", (LONGEST_SIDE, LONGEST_SIDE))
        shown = found.convert("RGB") if found.mode in ("P", "1") else found
        shown.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
        # Pixels only: a new picture takes over no EXIF, no comment, no colour profile.
        upright = ImageOps.exif_transpose(shown).convert("RGB")
    plain = Image.new("RGB", upright.size)
    plain.paste(upright)
    out = io.BytesIO()
    plain.save(out, "JPEG", quality=QUALITY, optimize=True)
    return out.getvalue(), plain.width, plain.height


# Segments of a JPEG that hold the picture: JFIF head, tables, frames, restart interval.
_PLAIN_SEGMENTS = {0xE0, 0xDB, 0xC0, 0xC2, 0xC4, 0xDD}


def unchanged(data: bytes) -> tuple[bytes, int, int] | None:
    """A JPEG that is already as :func:`reencoded` leaves it, with its size; None for any other.

    So a document that comes back brings its photographs back byte for byte.
    """
    if len(data) > LARGEST_BYTES or not _is_plain(data):
        return None
    try:
        with Image.open(io.BytesIO(data), formats=("JPEG",)) as found:
            if max(found.size) > LONGEST_SIDE:
                return None
            found.load()
            return data, found.width, found.height
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError):
        return None


def _is_plain(data: bytes) -> bool:
    if data[:2] != b"\xff\xd8" or data[-2:] != b"\xff\xd9":
        return False
    at = 2
    while at + 4 <= len(data):
        if data[at] != 0xFF:
            return False
        marker = data[at + 1]
        if marker == 0xDA:
            # From here on picture data, up to the one end mark, which must be the file's end.
            return data.find(b"\xff\xd9", at) == len(data) - 2
        if marker not in _PLAIN_SEGMENTS:
            return False
        at += 2 + int.from_bytes(data[at + 2 : at + 4], "big")
    return False


def photograph(data: bytes) -> tuple[bytes, int, int] | str:
    """A photograph as it is kept, or why it is refused; for a process of its own."""
    try:
        return reencoded(data)
    except InputError as problem:
        return problem.message
