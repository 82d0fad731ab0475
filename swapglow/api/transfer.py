"""Documents and readings, out and in: what an import will do is said before it is done."""

from uuid import UUID

import segno
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import File, Form, Router
from ninja.files import UploadedFile

from swapglow.api.attached import attached, bytes_of
from swapglow.api.saving import changed
from swapglow.api.schemas import Intent, ItemAnswer, Problems
from swapglow.api.svg import code_svg
from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.spice_text import spice_text
from swapglow.core.quantities import InputError
from swapglow.document import readings_csv as csv_files
from swapglow.document.compact import compact
from swapglow.document.read import LARGEST_BYTES
from swapglow.records import readings_csv, reports, transfer
from swapglow.records.models import Equipment, Position

router = Router(tags=["transfer"])

# What a code of the largest kind carries at its least correction (ISO/IEC 18004, table 7, from memory).
MOST_LETTERS = 2953


@router.get("/equipment/{key}/document.json", response={404: Problems})
def document(request: HttpRequest, key: UUID, photographs: bool = True) -> HttpResponse:
    """The item as a document."""
    e = get_object_or_404(Equipment, pk=key)
    made = transfer.to_document(e, photographs=photographs)
    return attached(made.model_dump_json(indent=1).encode(), "application/json", f"{e.input.name}.json")


@router.get("/positions/{key}/circuit.cir", include_in_schema=False)
def circuit(request: HttpRequest, key: UUID) -> HttpResponse:
    """A lamp's circuit as a file for a simulator."""
    p = get_object_or_404(Position.objects.select_related("rail"), pk=key)
    core = reports.core_of(p)
    sized = size(core)
    text = spice_text(core, sized.total_ohm, sized.farads)
    return attached(text.encode(), "text/plain; charset=utf-8", f"{p.input.name}.cir")


@router.get("/positions/{key}/code.svg", include_in_schema=False)
def code(request: HttpRequest, key: UUID) -> HttpResponse:
    """A lamp's figures as a printed code; without its readings where they are too many for one."""
    return figures_code(get_object_or_404(Position.objects.select_related("equipment"), pk=key))


def figures_code(p: Position) -> HttpResponse:
    """The code that carries a lamp's figures.

    Raises:
        InputError: ``code``: it holds more than one code carries.
    """
    whole = transfer.to_document(p.equipment, photographs=False)
    for readings in (True, False):
        text = compact(whole, p.pk, readings=readings)
        if len(text) <= MOST_LETTERS:
            return code_svg(segno.make_qr(text, error="l", boost_error=True))
    raise InputError("code", "This lamp holds more than one code carries: take its file instead.")


@router.post("/import/look", response={200: Intent, 422: Problems})
def look(request: HttpRequest, file: File[UploadedFile]) -> Intent:
    """What importing a document would do; nothing is done."""
    found = transfer.intent(transfer.read(bytes_of(file, LARGEST_BYTES)))
    return Intent(name=found.name, replaces=found.replaces, lines=list(found.lines), copy_only=found.copy_only)


@router.post("/import", response={200: ItemAnswer, 422: Problems})
def bring_in(request: HttpRequest, file: File[UploadedFile], as_copy: Form[bool] = False) -> ItemAnswer:
    """Import a document whole, or not at all; undo on the bench takes it back."""
    made = transfer.bring_in(transfer.read(bytes_of(file, LARGEST_BYTES)), as_copy=as_copy)
    changed()
    return ItemAnswer(id=made.pk, name=made.input.name)


@router.get("/equipment/{key}/readings.csv", response={404: Problems})
def readings(request: HttpRequest, key: UUID) -> HttpResponse:
    """All readings of the item."""
    e = get_object_or_404(Equipment, pk=key)
    return attached(readings_csv.to_csv(e).encode(), "text/csv; charset=utf-8", f"{e.input.name}-readings.csv")


def _count(n: int) -> str:
    return f"{n} reading" + ("" if n == 1 else "s")


@router.post("/equipment/{key}/readings/look", response={200: Intent, 404: Problems, 422: Problems})
def look_readings(request: HttpRequest, key: UUID, file: File[UploadedFile]) -> Intent:
    """What importing readings would do; nothing is done."""
    e = get_object_or_404(Equipment, pk=key)
    found = readings_csv.from_csv(e, bytes_of(file, csv_files.LARGEST_BYTES))
    lines = [f"{_count(len(found.made))} would be added."]
    if found.known:
        lines.append(f"{_count(found.known)} are here already and would be left alone.")
    return Intent(name=e.input.name, replaces="", lines=lines)


@router.post("/equipment/{key}/readings", response={200: ItemAnswer, 404: Problems, 422: Problems})
def bring_readings(request: HttpRequest, key: UUID, file: File[UploadedFile]) -> ItemAnswer:
    """Add readings whole, or not at all."""
    e = get_object_or_404(Equipment, pk=key)
    readings_csv.add(e, readings_csv.from_csv(e, bytes_of(file, csv_files.LARGEST_BYTES)))
    changed()
    return ItemAnswer(id=e.pk, name=e.input.name)
