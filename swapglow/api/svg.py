"""Codes to scan, as pictures."""

import io

import segno
from django.http import HttpResponse


def drawn(code: segno.QRCode, scale: int) -> str:
    """A code as SVG, with the quiet border that readers want (ISO/IEC 18004: four modules)."""
    out = io.BytesIO()
    code.save(out, kind="svg", scale=scale, border=4, xmldecl=False, light="#fff")
    return out.getvalue().decode()


def code_svg(code: segno.QRCode) -> HttpResponse:
    """A code as an answer. Nothing caches it, because its text may change."""
    return HttpResponse(drawn(code, 2), "image/svg+xml", headers={"Cache-Control": "no-store"})
