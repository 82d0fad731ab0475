"""The bench: all equipment, undo and redo, the drawer."""

from django.http import HttpRequest
from ninja import Router, Status

from swapglow.api.schemas import (
    BenchItem,
    BenchOut,
    Done,
    Drawer,
    DrawerOut,
    Order,
    Problems,
    Scope,
)
from swapglow.api.serializers import steps, summary
from swapglow.core.quantities import OHM, show
from swapglow.core.quantities.inputs import read_single
from swapglow.records import journal, reports
from swapglow.records.models import DrawerValue, Equipment

router = Router(tags=["bench"])


@router.get("/bench", response=BenchOut)
def bench(request: HttpRequest) -> BenchOut:
    """All equipment with its positions as they stand."""
    at_hand = reports.drawer()
    items = Equipment.objects.prefetch_related(
        "positions__rail", "positions__readings_after", "positions__readings_before"
    )
    return BenchOut(
        equipment=[
            BenchItem(
                id=e.id,
                name=e.input.name,
                maker_model=e.input.maker_model,
                positions=[summary(p, at_hand) for p in e.positions.all()],
            )
            for e in items
        ],
        steps=steps(""),
    )


@router.post("/equipment/order", response={204: None, 422: Problems})
def order(request: HttpRequest, data: Order) -> Status[None]:
    """Put the equipment in an order."""
    found = list(Equipment.objects.all())
    with journal.recorded("", "reorder the bench", found, "order") as left:
        for place, key in enumerate(data.ids):
            Equipment.objects.filter(pk=key).update(order=place)
        left += Equipment.objects.filter(pk__in=[e.pk for e in found])
    return Status(204, None)


@router.post("/undo", response={200: Done, 409: Problems, 422: Problems})
def undo(request: HttpRequest, data: Scope) -> Done:
    """Take back the newest step."""
    return Done(label=journal.undo(data.scope))


@router.post("/redo", response={200: Done, 409: Problems, 422: Problems})
def redo(request: HttpRequest, data: Scope) -> Done:
    """Do the step again that was taken back last."""
    return Done(label=journal.redo(data.scope))


def _drawer() -> DrawerOut:
    values = sorted(reports.drawer())
    return DrawerOut(texts=[show(v, OHM, 6) for v in values])


@router.get("/drawer", response=DrawerOut)
def drawer(request: HttpRequest) -> DrawerOut:
    """Resistor values at hand."""
    return _drawer()


@router.put("/drawer", response={200: DrawerOut, 422: Problems})
def fill_drawer(request: HttpRequest, data: Drawer) -> DrawerOut:
    """Replace the values at hand; all or nothing."""
    ohms = {read_single("values", text, OHM, above=0) for text in data.values}
    DrawerValue.objects.exclude(ohm__in=ohms).delete()
    DrawerValue.objects.bulk_create([DrawerValue(ohm=o) for o in ohms], ignore_conflicts=True)
    return _drawer()
