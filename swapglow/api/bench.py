"""The bench: all equipment, undo and redo."""

from collections.abc import Iterable
from dataclasses import asdict

from django.http import HttpRequest
from ninja import Router, Status
from ninja.decorators import decorate_view

from swapglow.api.saving import saving
from swapglow.api.schemas import (
    BenchItem,
    BenchOut,
    Clashes,
    Done,
    DueOut,
    LightOut,
    Move,
    Problems,
    PulseOut,
    StepIn,
    StepKeyIn,
)
from swapglow.api.serializers import steps, summary
from swapglow.records import order, undo
from swapglow.records.due import due
from swapglow.records.items import with_lamps
from swapglow.records.lights import lights_of
from swapglow.records.models import Equipment, Position
from swapglow.records.pulse import pulse

router = Router(tags=["bench"])


@router.get("/bench", response=BenchOut)
def bench(request: HttpRequest) -> BenchOut:
    """All equipment with its positions as they stand."""
    return BenchOut(
        due=[DueOut(id=p.pk, name=p.input.name, item=p.equipment.input.name, on=p.input.look_again) for p in due()],
        equipment=[_item(e, lamps) for e, lamps in with_lamps()],
        steps=steps(""),
    )


def _item(e: Equipment, lamps: Iterable[Position]) -> BenchItem:
    item = e.input
    return BenchItem(
        id=e.pk,
        name=item.name,
        maker_model=item.maker_model,
        promised=item.promised,
        archived=item.archived,
        positions=[summary(p) for p in lamps],
        lights=[LightOut(**asdict(light)) for light in lights_of(item)],
    )


@router.get("/pulse", response=PulseOut)
def changes(request: HttpRequest) -> PulseOut:
    """What the records' changes have come to: another number says that a page is not up to date."""
    return PulseOut(changes=pulse())


@router.post("/equipment/move", response={204: None, 404: Problems, 422: Problems})
@decorate_view(saving)
def move(request: HttpRequest, data: Move) -> Status[None]:
    """Put an item before another on the bench."""
    order.move(Equipment.objects.all(), data.key, data.before, "", "move {} on the bench")
    return Status(204, None)


@router.post("/undo/pass", response={204: None, 404: Problems, 409: Problems, 422: Problems})
@decorate_view(saving)
def pass_over(request: HttpRequest, data: StepKeyIn) -> Status[None]:
    """Leave a step that cannot be undone: undo goes on with the one before it."""
    undo.pass_over(data.step)
    return Status(204, None)


_REFUSED = {404: Problems, 409: Clashes, 422: Problems}


@router.post("/undo", response={200: Done, **_REFUSED})
@decorate_view(saving)
def take_back(request: HttpRequest, data: StepIn) -> Done:
    """Take back a step: what it changed is given back, and nothing else."""
    return _done(undo.undo(data.step, data.choice))


@router.post("/redo", response={200: Done, **_REFUSED})
@decorate_view(saving)
def do_again(request: HttpRequest, data: StepIn) -> Done:
    """Do again what was taken back."""
    return _done(undo.redo(data.step, data.choice))


def _done(done: undo.Done) -> Done:
    return Done(label=done.label, step=done.step, gone=list(done.gone))
