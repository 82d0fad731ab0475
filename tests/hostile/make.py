"""Files as a stranger may send them, made on the spot: small to send, dear to read."""

import base64
import io
import json
import time
import uuid
import zlib

from PIL import Image


def chunk(kind, data):
    return len(data).to_bytes(4, "big") + kind + data + zlib.crc32(kind + data).to_bytes(4, "big")


def png(width, height):
    """A PNG of one colour, of which the file is a thousandth of the picture."""
    head = width.to_bytes(4, "big") + height.to_bytes(4, "big") + b"\x08\x06\x00\x00\x00"
    rows = (b"\x00" + b"\x7f" * (4 * width)) * 100
    packer, check = zlib.compressobj(9, zlib.DEFLATED, -15), 1
    # What begins anew after each piece is the same each time, and need not be packed again.
    piece = packer.compress(rows) + packer.flush(zlib.Z_FULL_FLUSH)
    for _ in range(height // 100):
        check = zlib.adler32(rows, check)
    data = b"\x78\xda" + piece * (height // 100) + packer.flush() + check.to_bytes(4, "big")
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", data) + chunk(b"IEND", b"")


def jpeg(size=(40, 30)):
    out = io.BytesIO()
    Image.new("RGB", size, (200, 120, 40)).save(out, "JPEG")
    return out.getvalue()


def document(**item):
    """An item's document with parts of it put in."""
    whole = {"id": str(uuid.uuid4()), "name": "From a stranger", **item}
    return json.dumps({"format": "swapglow-equipment", "version": 3, "equipment": whole}).encode()


def swallow(megabytes):
    return len(bytearray(megabytes * 2**20))


def sleep(seconds):
    time.sleep(seconds)
    return seconds


PICTURES = {
    "a picture of more pixels than are taken": lambda: png(9000, 9000),
    "a picture cut off half-way": lambda: png(2000, 2000)[:-2000],
    "a head without a picture": lambda: b"\x89PNG\r\n\x1a\n" + b"\x00" * 40,
    "a page of HTML": lambda: b"<html><script>alert(1)</script></html>",
    "a vector picture": lambda: b"<svg xmlns='http://www.w3.org/2000/svg'><script/></svg>",
    "nothing": lambda: b"",
}

DOCUMENTS = {
    "nothing": lambda: b"",
    "nested without end": lambda: b'{"format":' + b"[" * 200_000,
    "a number of a million digits": lambda: document(order=1)[:-2] + b',"n":' + b"9" * 1_000_000 + b"}}",
    "a name of forty megabytes": lambda: document(name="x" * 40_000_000),
    "a key of a megabyte": lambda: document(**{"k" * 1_000_000: 1}),
    "a hundred and one rails": lambda: document(
        rails=[{"id": str(uuid.uuid4()), "usual": {"text": "12V"}} for _ in range(101)]
    ),
    "a wire's line break": lambda: document(take_in={"wires": {"a": {"name": "red\nblue"}}}),
    "a name of blanks": lambda: document(name=" \u200b "),
    "a bell in a name": lambda: document(name="ring\x07"),
    "a picture that is none": lambda: document(photos=[{"id": str(uuid.uuid4()), "jpeg": "AAAA"}]),
    "a picture that unpacks to more than is taken": lambda: document(
        photos=[{"id": str(uuid.uuid4()), "jpeg": base64.b64encode(png(9000, 9000)).decode()}]
    ),
    "not UTF-8": lambda: b"\xff\xfe{}",
    "another's file": lambda: b'{"version": 3, "format": "something-else"}',
}
