"""The drawer: parts, their marks, what is made of them, and what must be bought."""

from typing import Annotated
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import File, Query, Router, Status
from ninja.decorators import decorate_view
from ninja.files import UploadedFile

from swapglow.api.attached import attached, bytes_of
from swapglow.api.equipment import said
from swapglow.api.positions import find
from swapglow.api.saving import changed, saving
from swapglow.api.schemas import (
    BuyingOut,
    CatalogueRow,
    DrawerOut,
    DrawerPatch,
    DrawnOut,
    Intent,
    LineKey,
    MadeOut,
    MarksOut,
    PartAnswer,
    PartPatch,
    Problems,
)
from swapglow.api.serializers import steps
from swapglow.core.presentation.drawer import Columns, drawer_picture
from swapglow.core.quantities import OHM, InputError
from swapglow.core.quantities.everyday import money_text
from swapglow.core.quantities.inputs import read_single
from swapglow.core.stock.judged import made_of, values_at_hand
from swapglow.core.stock.mark import UNSAID_TOLERANCE, MarkKind, MarkWritten, read_mark, write_mark
from swapglow.core.values.resistor_marks import marks_of
from swapglow.inputs.echoes import echoes
from swapglow.inputs.kept import check_change, readable
from swapglow.inputs.patch import sent, touched
from swapglow.inputs.quantity import Short
from swapglow.inputs.required_units import require_units
from swapglow.inputs.stock import PART_KINDS, PartInput
from swapglow.inputs.stock_to_core import label_of, of_catalogue, part_of
from swapglow.records import buying, drawer, edit_conflicts, order, reports, stock, taking_out
from swapglow.records.limits import check_room
from swapglow.records.models import StockPart
from swapglow.records.steps import keep, recorded

router = Router(tags=["drawer"])

LARGEST_BYTES = 2 * 1024 * 1024


def _part(record: StockPart) -> PartAnswer:
    """A part; one that no longer reads says why."""
    typed = record.input
    try:
        part = part_of(str(record.pk), typed)
    except InputError as problem:
        return PartAnswer(
            **record.shown, id=record.pk, echo={}, label=str(record), now="empty", marks=None, wrong=problem.message
        )
    tolerance = UNSAID_TOLERANCE if part.tolerance is None else part.tolerance
    return PartAnswer(
        **record.shown,
        id=record.pk,
        echo=echoes(typed),
        label=label_of(typed),
        now=part.level,
        marks=None if part.ohm is None else marks_of(part.ohm, tolerance),
        wrong="",
    )


def _drawer(series: Columns = "E12") -> DrawerOut:
    offered = {
        str(kind): [CatalogueRow(id=k, label=v) for k, v in rows.items()]
        for kind in PART_KINDS
        if (rows := of_catalogue(kind))
    }
    return DrawerOut(
        parts=[_part(r) for r in StockPart.objects.all()],
        picture=drawer_picture(drawer.parts(), series),
        offered=offered,
        steps=steps(drawer.SCOPE),
    )


@router.get("/drawer", response=DrawerOut)
def read(request: HttpRequest, series: Columns = "E12") -> DrawerOut:
    """Everything in the drawer but its LEDs, the resistors drawn in the columns of a series."""
    return _drawer(series)


@router.patch("/drawer", response={204: None, 422: Problems})
@decorate_view(saving)
def change(request: HttpRequest, data: DrawerPatch) -> Status[None]:
    """Put resistor values in and take values out; all or nothing."""
    drawer.change(data.add, data.remove)
    return Status(204, None)


@router.put("/parts/{key}", response={200: PartAnswer, 422: Problems})
@decorate_view(saving)
def create(request: HttpRequest, key: UUID, data: PartInput) -> PartAnswer:
    """Put a part in; sent twice, it is put in once."""
    found = StockPart.objects.filter(pk=key).first()
    if found is None:
        require_units(PartInput, sent(data))
        part_of(str(key), data)
        found = StockPart(id=key, order=order.last(StockPart.objects), inputs=data.model_dump(mode="json"))
        check_room(found)
        with recorded(drawer.SCOPE, f"put in {label_of(data)}", f"part:{key}"):
            keep(found)
    return _part(found)


@router.patch("/parts/{key}", response={200: PartAnswer, 404: Problems, 409: Problems, 422: Problems})
@decorate_view(saving)
def edit(request: HttpRequest, key: UUID, data: PartPatch) -> PartAnswer:
    """Change the fields sent; refused whole where the part would not read."""
    found = get_object_or_404(StockPart, pk=key)
    fields = sent(data)
    edit_conflicts.check(found.inputs, fields, fields.pop("was", {}))
    require_units(PartInput, fields)
    was = found.inputs
    found.join(fields)
    check_change(lambda part: part_of(str(key), readable(PartInput, part)[0]), was, found.inputs, fields)
    with recorded(drawer.SCOPE, f"edit {label_of(found.input)}: {said(fields)}", f"part:{key}:{touched(fields)}"):
        keep(found)
    return _part(found)


@router.delete("/parts/{key}", response={204: None})
@decorate_view(saving)
def remove(request: HttpRequest, key: UUID) -> Status[None]:
    """Take a part out for good; undo brings it back."""
    found = StockPart.objects.filter(pk=key).first()
    if found is not None:
        with recorded(drawer.SCOPE, f"take out {label_of(found.input)}", f"part:{key}:delete"):
            found.delete()
    return Status(204, None)


@router.get("/marks/read", response={200: MarksOut, 422: Problems})
def read_marks(request: HttpRequest, kind: MarkKind, text: Short, expected: Short = "") -> MarksOut:
    """What stands on a part, read."""
    return MarksOut(read=list(read_mark(kind, text, expected)))


@router.get("/marks/write", response={200: MarkWritten, 422: Problems})
def write_marks(
    request: HttpRequest,
    kind: MarkKind,
    value: Short,
    tolerance: Annotated[float, Query(ge=0, lt=0.5)] = UNSAID_TOLERANCE,
) -> MarkWritten:
    """How a part of a value is marked."""
    return write_mark(kind, value, tolerance)


@router.get("/drawer/made", response={200: MadeOut, 404: Problems, 422: Problems})
def made(
    request: HttpRequest,
    ohm: Short,
    position: UUID | None = None,
    tolerance: Annotated[float, Query(gt=0, lt=0.5)] = UNSAID_TOLERANCE,
) -> MadeOut:
    """What a resistance can be made of out of the drawer; judged in a lamp where one is named."""
    target = read_single("ohm", ohm, OHM, above=0)
    here = values_at_hand([(p.ohm, p.count, p.there) for p in drawer.parts() if p.ohm is not None])
    place = None if position is None else reports.as_read_of(find(position))
    return MadeOut(made=list(made_of(target, here, tolerance, place)))


@router.get("/positions/{key}/drawer", response={200: DrawnOut, 404: Problems, 422: Problems})
def for_lamp(request: HttpRequest, key: UUID) -> DrawnOut:
    """What a lamp takes out of the drawer, and from where; nothing is taken."""
    drawn = taking_out.drawn_for(find(key))
    return DrawnOut(lines=list(drawn.lines), short=list(drawn.short))


def _buying() -> BuyingOut:
    found = buying.buying()
    return BuyingOut(
        lines=list(found.lines),
        left_out=list(found.left_out),
        fresh=found.fresh,
        price=money_text(found.price),
        unpriced=found.unpriced,
        steps=steps(drawer.SCOPE),
    )


@router.get("/buying", response=BuyingOut)
def to_buy(request: HttpRequest) -> BuyingOut:
    """What must be bought for all open work."""
    return _buying()


@router.post("/buying/ordered", response={204: None, 422: Problems})
@decorate_view(saving)
def ordered(request: HttpRequest, data: LineKey) -> Status[None]:
    """A line was ordered: it is on its way."""
    buying.ordered(data.key)
    return Status(204, None)


@router.post("/buying/came", response={204: None, 422: Problems})
@decorate_view(saving)
def came(request: HttpRequest, data: LineKey) -> Status[None]:
    """A line came in: it is in the drawer."""
    buying.came_in(data.key)
    return Status(204, None)


@router.get("/buying.csv", include_in_schema=False)
def buying_csv(request: HttpRequest) -> HttpResponse:
    """What must be bought, as CSV."""
    return attached(buying.to_csv().encode(), "text/csv; charset=utf-8", "to-buy.csv")


@router.get("/drawer.csv", include_in_schema=False)
def drawer_csv(request: HttpRequest) -> HttpResponse:
    """All parts, as CSV."""
    return attached(stock.to_csv().encode(), "text/csv; charset=utf-8", "drawer.csv")


@router.post("/drawer/csv/look", response={200: Intent, 422: Problems})
def look(request: HttpRequest, file: File[UploadedFile]) -> Intent:
    """What bringing in a file of parts would do; nothing is done."""
    coming = stock.from_csv(bytes_of(file, LARGEST_BYTES))
    lines = [
        f"{len(coming.new)} would be added." if coming.new else "",
        f"{len(coming.changed)} would be changed." if coming.changed else "",
        f"{coming.same} are here as they stand in the file." if coming.same else "",
    ]
    return Intent(name="the drawer", replaces="", lines=[x for x in lines if x] or ["There is no part in it."])


@router.post("/drawer/csv", response={200: DrawerOut, 422: Problems})
def bring_in(request: HttpRequest, file: File[UploadedFile]) -> DrawerOut:
    """Bring in a file of parts whole, or not at all."""
    stock.bring_in(stock.from_csv(bytes_of(file, LARGEST_BYTES)))
    changed()
    return _drawer()
