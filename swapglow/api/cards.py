"""A lamp by its card: the small code that names it, a photograph of one, and a link by which the card is read."""

import re
from uuid import UUID

import segno
from django.http import HttpRequest, HttpResponse
from ninja import File, Router
from ninja.files import UploadedFile

from swapglow.api.attached import bytes_of
from swapglow.api.devices import linked
from swapglow.api.positions import find, view_of
from swapglow.api.schemas import LookOut, OriginalOut, Problems, ScannedOut, Steps
from swapglow.api.svg import code_svg
from swapglow.api.transfer import figures_code
from swapglow.core.design.position import LEADS
from swapglow.core.intake.hazards import cautions
from swapglow.core.parts import lamp as lamps
from swapglow.core.parts import led as leds
from swapglow.core.presentation.schematic import schematic
from swapglow.core.quantities import InputError
from swapglow.devices import door
from swapglow.document.compact import is_compact, key_on_paper
from swapglow.document.in_subprocess import in_subprocess
from swapglow.document.pictures import LARGEST_BYTES
from swapglow.document.scanned import texts_in
from swapglow.records import reports
from swapglow.records.drawer import at_hand
from swapglow.records.models import Position

router = Router(tags=["cards"])

_KEY = re.compile(r"[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}", re.IGNORECASE)


@router.get("/positions/{key}/name.svg", include_in_schema=False)
def named(request: HttpRequest, key: UUID) -> HttpResponse:
    """The small code: a lamp's key, as an address that a phone opens where the bench is shared (RFC 9562 where not)."""
    find(key)
    base = next(iter(door.urls()), None)
    return code_svg(segno.make_qr(f"{base}/position/{key}" if base else f"urn:uuid:{key}", error="m"))


@router.post("/scan", response={200: ScannedOut, 422: Problems})
def scan(request: HttpRequest, file: File[UploadedFile]) -> ScannedOut:
    """The lamp whose card is in a photograph, by either of its codes; nothing of the photograph is kept."""
    found = in_subprocess("photo", texts_in, bytes_of(file, LARGEST_BYTES))
    if isinstance(found, str):
        raise InputError("photo", found)
    if not found:
        raise InputError(
            "photo",
            "No code can be read in this photograph. Hold the card flat, fill the picture with it, and try again.",
        )
    for text in found:
        if (lamp := _lamp(text)) is not None:
            return ScannedOut(lamp=lamp)
    raise InputError(
        "photo", "That card is of no lamp on this bench. The large code on it brings the lamp in as a file."
    )


def _lamp(text: str) -> UUID | None:
    if is_compact(text):
        wanted = key_on_paper(text)
        every = Position.objects.values_list("pk", flat=True)
        return next((key for key in every if wanted is not None and wanted.is_of(key)), None)
    key = _KEY.search(text)
    return Position.objects.filter(pk=key[0]).values_list("pk", flat=True).first() if key else None


@router.get("/look/{token}", response={200: LookOut, 404: Problems, 422: Problems})
def look(request: HttpRequest, token: str) -> LookOut:
    """One lamp's card for whoever has its link; nothing else of the bench."""
    p = linked(token)
    e = p.equipment
    typed = p.input
    led, lamp = leds.catalogue().get(typed.led_id), lamps.catalogue().get(typed.lamp_id)
    return LookOut(
        view=view_of(p).model_copy(update={"siblings": [], "steps": Steps(undo=None, redo=None)}),
        report=reports.report(p, None, at_hand()),
        led=led.label if led else "",
        lamp=lamp.label if lamp else "",
        lead=LEADS.get(typed.lead, ""),
        originals=[OriginalOut(what=o.what, where=o.where) for o in e.sheet.originals.values() if o.what],
        cautions=cautions(list(e.sheet.hazards)),
    )


@router.get("/look/{token}/schematic.svg", include_in_schema=False)
def drawn(request: HttpRequest, token: str) -> HttpResponse:
    """The circuit on such a card."""
    return HttpResponse(schematic(reports.as_read_of(linked(token))), content_type="image/svg+xml")


@router.get("/look/{token}/code.svg", include_in_schema=False)
def coded(request: HttpRequest, token: str) -> HttpResponse:
    """The code on such a card with all its figures."""
    return figures_code(linked(token))
