"""LEDs of the bench's own, with their figures."""

from uuid import UUID

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status
from ninja.decorators import decorate_view

from swapglow.api.equipment import said
from swapglow.api.saving import saving
from swapglow.api.schemas import BenchLedAnswer, BenchLedPatch, LedsOut, Problems
from swapglow.api.serializers import bench_led_answer, steps
from swapglow.inputs.kept import check_change, readable
from swapglow.inputs.patch import sent, touched
from swapglow.inputs.position import PositionInput
from swapglow.inputs.required_units import require_units
from swapglow.inputs.stock import BenchLedInput
from swapglow.inputs.stock_to_core import bench_led_of, led_part_of
from swapglow.records import drawer, edit_conflicts, order
from swapglow.records.limits import check_room
from swapglow.records.models import BenchLed, Position
from swapglow.records.steps import keep, recorded

router = Router(tags=["leds"])

# The figures that an LED has of its own, wherever it is.
FIGURES = set(BenchLedInput.model_fields) & set(PositionInput.model_fields) - {"name", "notes"}


def _check(key: UUID, typed: BenchLedInput) -> None:
    """Refuse an LED of which a figure, the curve or the stock cannot be read."""
    bench_led_of(typed)
    led_part_of(str(key), typed)


@router.get("/leds", response=LedsOut)
def read(request: HttpRequest) -> LedsOut:
    """The bench's own LEDs, in their order."""
    return LedsOut(leds=[bench_led_answer(led) for led in BenchLed.objects.all()], steps=steps(drawer.SCOPE))


@router.put("/leds/{key}", response={200: BenchLedAnswer, 422: Problems})
@decorate_view(saving)
def create(request: HttpRequest, key: UUID, data: BenchLedInput) -> BenchLedAnswer:
    """Keep an LED on the bench; sent twice, it is kept once."""
    require_units(BenchLedInput, sent(data))
    return _kept(key, data)


@router.put("/leds/{key}/of/{position}", response={200: BenchLedAnswer, 404: Problems, 422: Problems})
@decorate_view(saving)
def of_lamp(request: HttpRequest, key: UUID, position: UUID) -> BenchLedAnswer:
    """Keep a lamp's LED on the bench with the figures it has by now, whatever the page last saw of them."""
    p = get_object_or_404(Position, pk=position).input
    figures = p.model_dump(include=FIGURES)
    return _kept(key, BenchLedInput(**figures, name=f"LED of {p.name}"))


def _kept(key: UUID, typed: BenchLedInput) -> BenchLedAnswer:
    found = BenchLed.objects.filter(pk=key).first()
    if found is None:
        _check(key, typed)
        found = BenchLed(id=key, order=order.last(BenchLed.objects), inputs=typed.model_dump(mode="json"))
        check_room(found)
        with recorded(drawer.SCOPE, f"keep {typed.name} on the bench", f"led:{key}"):
            keep(found)
    return bench_led_answer(found)


@router.patch("/leds/{key}", response={200: BenchLedAnswer, 404: Problems, 409: Problems, 422: Problems})
@decorate_view(saving)
def change(request: HttpRequest, key: UUID, data: BenchLedPatch) -> BenchLedAnswer:
    """Change the figures sent; lamps that it was put into keep theirs."""
    found = get_object_or_404(BenchLed, pk=key)
    fields = sent(data)
    edit_conflicts.check(found.inputs, fields, fields.pop("was", {}))
    require_units(BenchLedInput, fields)
    was = found.inputs
    found.join(fields)
    check_change(lambda led: _check(key, readable(BenchLedInput, led)[0]), was, found.inputs, fields)
    with recorded(drawer.SCOPE, f"edit {found.input.name}: {said(fields)}", f"led:{key}:{touched(fields)}"):
        keep(found)
    return bench_led_answer(found)


@router.delete("/leds/{key}", response={204: None})
@decorate_view(saving)
def remove(request: HttpRequest, key: UUID) -> Status[None]:
    """Take an LED off the bench; undo brings it back."""
    found = BenchLed.objects.filter(pk=key).first()
    if found is not None:
        with recorded(drawer.SCOPE, f"delete {found.input.name}", f"led:{key}:delete"):
            found.delete()
    return Status(204, None)
