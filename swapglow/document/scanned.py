"""A code in a photograph: its text, for a process of its own."""

import zxingcpp
from PIL import ImageOps

from swapglow.core.quantities import InputError
from swapglow.document.pictures import opened

# A phone's photograph shows a code at more than it takes to read it.
LONGEST_SIDE = 2400


def texts_in(data: bytes) -> tuple[str, ...] | str:
    """The texts of all codes in a photograph; a refusal's message where it is no picture.

    Args:
        data: the file.
    """
    try:
        with opened(data) as found:
            found.draft("L", (LONGEST_SIDE, LONGEST_SIDE))
            shown = ImageOps.exif_transpose(found.convert("L"))
    except InputError as problem:
        return problem.message
    shown.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    return tuple(code.text for code in zxingcpp.read_barcodes(shown) if code.text)
