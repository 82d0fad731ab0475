"""A lamp in as few letters as a printed code holds, and back: the document, what is usual left out, squeezed.

SWAPGLOW2:<version>:<base64url of the document's JSON, deflated (RFC 1951), without what stands at its usual value>

Paper lasts: the version of the document goes with it, so that what is left out and what things are called is read as it
was when the card was printed. The first codes, ``SWAPGLOW1:``, named none: they are of version 3.
"""

import base64
import json
import re
import uuid
import zlib
from dataclasses import dataclass
from typing import Any

from swapglow.document.model import FORMAT, VERSION, Document, Equipment

HEAD = "SWAPGLOW2:"
_FIRST_HEAD, _FIRST_VERSION = "SWAPGLOW1:", 3
_START = re.compile(r"SWAPGLOW(?:1|2:(?P<version>[0-9]{1,6})):")
# What a code may unpack to; a lamp with all its readings is a hundredth of it.
LARGEST_BYTES = 2 * 1024 * 1024
# Keys of what comes off paper are made from the keys it had, so that it stands beside its own item and not over it.
_SPACE = uuid.UUID("9d0c8a2e-55c1-4c0e-8d53-0f4a3e1b6f27")


def compact(document: Document, lamp: uuid.UUID, *, readings: bool = True) -> str:
    """One lamp of an item, with its rail, as a code's text.

    Args:
        document: the item.
        lamp: which of its lamps.
        readings: whether they go with it.

    Returns:
        The text.
    """
    e = document.equipment
    position = next(p for p in e.positions if p.id == lamp)
    rail = next(r for r in e.rails if r.id == position.rail)
    new_rail = _new(rail.id)
    changes: dict[str, Any] = {"id": _new(lamp), "rail": new_rail}
    for kind in ("readings_after", "readings_before"):
        kept = getattr(position, kind) if readings else []
        changes[kind] = [r.model_copy(update={"id": _new(r.id)}) for r in kept]
    one = Equipment(
        id=_new(lamp, "the item of "),
        name=e.name,
        maker_model=e.maker_model,
        board_revision=e.board_revision,
        rails=[rail.model_copy(update={"id": new_rail})],
        positions=[position.model_copy(update=changes)],
    )
    plain = one.model_dump(mode="json", exclude_defaults=True)
    text = json.dumps(plain, ensure_ascii=False, separators=(",", ":")).encode()
    packer = zlib.compressobj(9, zlib.DEFLATED, -15)
    packed = packer.compress(text) + packer.flush()
    return f"{HEAD}{VERSION}:" + base64.urlsafe_b64encode(packed).decode("ascii").rstrip("=")


def _new(key: uuid.UUID, of: str = "") -> uuid.UUID:
    return uuid.uuid5(_SPACE, f"{of}{key}")


def is_compact(text: bytes | str) -> bool:
    """Whether a text is a code's, whatever blanks stand around it."""
    return _plain(text).startswith((HEAD, _FIRST_HEAD))


def _plain(text: bytes | str) -> str:
    """A code's letters: a reader breaks long lines where it likes."""
    return "".join((text.decode("ascii", "replace") if isinstance(text, bytes) else text).split())


@dataclass(frozen=True)
class PaperKey:
    """The key that a lamp has on paper, where it stands in place of the one that it has on its bench."""

    key: str

    def is_of(self, lamp: uuid.UUID) -> bool:
        """Whether it was made from a lamp's own key, or is that key: the lamp came in from such a code."""
        return self.key in (str(_new(lamp)), str(lamp))


def key_on_paper(text: bytes | str) -> PaperKey | None:
    """The key of the lamp that a code carries; None where the code cannot be read."""
    try:
        return PaperKey(str(expanded(text)["equipment"]["positions"][0]["id"]))
    except (ValueError, KeyError, IndexError, TypeError):
        return None


def expanded(text: bytes | str) -> dict[str, Any]:
    """The document that a code carries.

    Args:
        text: what a reader of codes shows.

    Returns:
        The document as it would stand in a file.

    Raises:
        ValueError: letters are missing or wrong.
    """
    plain = _plain(text)
    try:
        start = _START.match(plain)
        if start is None:
            raise ValueError("no version")
        letters = plain[start.end() :]
        packed = base64.b64decode(letters + "=" * (-len(letters) % 4), altchars=b"-_", validate=True)
        unpacker = zlib.decompressobj(-15)
        whole = unpacker.decompress(packed, LARGEST_BYTES)
        if unpacker.unconsumed_tail or not unpacker.eof:
            raise ValueError("cut short, or too long")
        equipment = json.loads(whole)
    except (ValueError, zlib.error, RecursionError):
        raise ValueError(
            "The code cannot be read: letters are missing or wrong. Read it again, or type what the card says."
        ) from None
    return {"format": FORMAT, "version": int(start["version"] or _FIRST_VERSION), "equipment": equipment}
