"""New lamps and circuits of an item: each is made once, however often it is sent."""

from collections.abc import Iterable, Mapping
from typing import Any
from uuid import UUID, uuid5

from swapglow.core.circuits import CIRCUITS
from swapglow.core.intake.front_door import Begun, begun
from swapglow.core.quantities import Input
from swapglow.core.supplies import SUPPLIES
from swapglow.inputs.position import PositionInput
from swapglow.inputs.quantity import Quantity
from swapglow.inputs.rail import RailInput
from swapglow.inputs.to_core import check_dims, check_fitted
from swapglow.records import order, reports
from swapglow.records.first_start import first_start
from swapglow.records.limits import check_room
from swapglow.records.models import Equipment, Position, Rail, Shop
from swapglow.records.steps import keep, recorded

# A lamp of which nothing is known yet: a warm LED at a current that all of them stand (ours).
_FIRST_LED = {"led_id": "warm-5-diffused", "target": {"text": "5mA", "source": "assumed"}}


def begin(e: Equipment, key: UUID, start: str, answers: Iterable[str]) -> Begun:
    """Make what the front door's answers lead to.

    Args:
        e: the item.
        key: of what is made.
        start: what somebody has in hand.
        answers: to its questions, in their order.

    Returns:
        What was begun.

    Raises:
        InputError: there is no such start or answer, it is refused by name, or there is no room.
    """
    found, out = begun(start, answers)
    name = f"{found.name} {_lights(e) + 1}"
    if out.what == "lamp":
        if not Position.objects.filter(pk=key).exists():
            rail = e.rails.first() if not out.supply else _rail_of_kind(e, out.supply)
            typed = PositionInput.model_validate({**_FIRST_LED, **out.fields, "name": name})
            add_lamp(e, key, shop_habits(typed.model_dump(mode="json"), out.fields), rail, out.supply)
    elif out.what == "circuit":
        add_circuit(e, str(key), out.circuit, name)
    elif str(key) not in e.input.dims:
        place = max((d.place for d in e.input.dims.values()), default=-1) + 1
        e.join({"dims": {str(key): {"place": place, "name": name}}})
        check_dims(e.input.dims)
        _keep(e, f"add {name}", f"dim:{key}")
    return out


def _lights(e: Equipment) -> int:
    return e.positions.count() + len(e.input.fitted) + len(e.input.dims)


def _rail_of_kind(e: Equipment, kind: str) -> Rail | None:
    return next((r for r in e.rails.all() if r.input.kind == kind), None)


def add_lamp(e: Equipment, key: UUID, typed: dict[str, Any], rail: Rail | None, supply: str = "") -> Position:
    """Make a lamp; without a rail it gets one of its own, in pencil.

    Args:
        e: the item.
        key: of the lamp.
        typed: its fields, by the shape of a position.
        rail: what feeds it; None makes one.
        supply: the kind of a rail that is made; "" for the usual one.

    Returns:
        The lamp as kept.

    Raises:
        InputError: it does not read, or there is no room.
    """
    first = None if rail else _first_rail(e, key, supply)
    found = Position(id=key, equipment=e, rail=rail or first, order=order.last(e.positions), inputs=typed)
    reports.core_of(found)
    check_room(found)
    with recorded(str(e.pk), f"add {found.input.name}", f"position:{key}"):
        if first is not None:
            keep(first)
        keep(found)
    return found


def _first_rail(e: Equipment, position: UUID, supply: str) -> Rail:
    """A rail for a lamp whose item has none such, in pencil; the same however often it is asked for."""
    kind = SUPPLIES[supply] if supply else SUPPLIES.usual
    guess = Quantity(text=kind.guess or first_start().rail, note="nobody has read it yet")
    name = f"Rail {e.rails.count() + 1}"
    typed = RailInput(name=name, kind=kind.id, usual=guess).model_dump(mode="json")
    rail = Rail(id=uuid5(position, "rail"), equipment=e, order=order.last(e.rails), inputs=typed)
    check_room(rail)
    return rail


def add_circuit(e: Equipment, key: str, kind: str, name: str, known: Mapping[str, Input] | None = None) -> None:
    """Make a circuit of an item.

    Args:
        e: the item.
        key: of the circuit; one that is there already stays as it is.
        kind: id of its kind.
        name: what it is called.
        known: details that are known already.

    Raises:
        InputError: there is no such kind, a detail does not read, or there is no room.
    """
    if key in e.input.fitted:
        return
    CIRCUITS.named(kind, "kind")
    details = {
        id_: {"text": said.text, "source": said.source.value, "note": said.note} for id_, said in (known or {}).items()
    }
    place = max((f.place for f in e.input.fitted.values()), default=-1) + 1
    e.join({"fitted": {key: {"place": place, "kind": kind, "name": name, "details": details}}})
    check_fitted(e.input.fitted)
    _keep(e, f"add {name}", f"circuit:{key}")


def _keep(e: Equipment, label: str, gesture: str) -> None:
    check_room(e)
    with recorded(str(e.pk), label, f"equipment:{e.pk}:{gesture}"):
        keep(e)


def shop_habits(typed: dict[str, Any], given: Iterable[str]) -> dict[str, Any]:
    """A new lamp's fields with the shop's habits in those that nobody gave.

    Args:
        typed: all fields.
        given: names of those that were given.

    Returns:
        The fields.
    """
    habits = Shop.own().input
    return typed | {h: getattr(habits, h) for h in ("lead", "series") if h not in given}
