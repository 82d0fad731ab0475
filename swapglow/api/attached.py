"""Files, out and in."""

import re

from django.http import HttpResponse
from ninja.files import UploadedFile

from swapglow.core.quantities import InputError


def attached(content: bytes, kind: str, name: str) -> HttpResponse:
    """A file to keep.

    Args:
        content: what is in it.
        kind: its media type.
        name: what it is called; made safe for any disk.
    """
    safe = re.sub(r"[^A-Za-z0-9._-]+", "-", name).strip("-.") or "equipment"
    return HttpResponse(content, kind, headers={"Content-Disposition": f'attachment; filename="{safe}"'})


def bytes_of(file: UploadedFile, largest: int) -> bytes:
    """What is in a file that was sent.

    Args:
        file: as it came.
        largest: bytes that are taken.

    Raises:
        InputError: ``file``: it is larger.
    """
    if (file.size or 0) > largest:
        raise InputError("file", f"The file is over {largest // 2**20} MB.")
    return bytes(file.read())
