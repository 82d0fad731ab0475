"""What must be bought for all open work, from what is stored of every lamp; ordered, and come in."""

import csv
import io
import uuid
from dataclasses import dataclass
from typing import Any

from swapglow.core.intake.stages import DONE
from swapglow.core.parts.led import catalogue as leds
from swapglow.core.planning.build_step_kinds import TAKE_STEP
from swapglow.core.quantities import FARAD, OHM, VOLT, InputError, show
from swapglow.core.stock.need import Need
from swapglow.core.stock.order import Asked, OrderLine, order_list
from swapglow.document.csv_cells import guarded
from swapglow.inputs.stock import BenchLedInput, PartInput
from swapglow.records import drawer, movements, order
from swapglow.records.limits import check_room
from swapglow.records.models import BenchLed, Movement, Position, Shop, StockPart
from swapglow.records.steps import keep, recorded
from swapglow.records.summaries import is_fresh, stored_of

_SPACE = uuid.UUID("b6d1a9d3-2c2e-4c9b-8a43-4a3e1f3b7f02")
# A lamp whose parts were taken out, or that has come so far, asks for none.
_TAKEN = ("fitted", DONE)


@dataclass(frozen=True)
class Buying:
    """The list.

    Attributes:
        lines: what is short or on its way.
        left_out: lamps that could not be worked out, by name.
        fresh: whether every lamp is in it as it stands now.
    """

    lines: tuple[OrderLine, ...]
    left_out: tuple[str, ...]
    fresh: bool

    @property
    def price(self) -> float:
        """Of all lines whose price is known."""
        return sum(line.price for line in self.lines if line.price is not None)

    @property
    def unpriced(self) -> int:
        """Lines to buy of which no price is known."""
        return sum(line.price is None for line in self.lines if line.buy)


def is_taken(inputs: dict[str, Any]) -> bool:
    """Whether a lamp's parts are out of the drawer already.

    Args:
        inputs: the position as it is kept.
    """
    return inputs["stage"] in _TAKEN or bool((inputs.get("steps") or {}).get(TAKE_STEP, {}).get("done"))


def buying() -> Buying:
    """What must be bought for all open work."""
    asked, left_out, fresh = [], [], True
    open_ = Position.objects.exclude(equipment__inputs__archived=True).select_related("equipment", "summary")
    for p in open_.order_by("equipment__order", "order"):
        if is_taken(p.inputs):
            continue
        fresh = fresh and is_fresh(p)
        data = stored_of(p)
        if data is None or data["needs"] is None:
            left_out.append(f"{p.equipment}: {p}")
            continue
        asked += [Asked(str(p), str(p.equipment), Need(**n)) for n in data["needs"]]
    rule = Shop.own().input.spares
    lines = order_list(asked, drawer.parts(), rule)  # type: ignore[arg-type]  # one of its options
    return Buying(lines, tuple(left_out), fresh)


def ordered(key: str) -> None:
    """Write down that a line was ordered: it waits, and is not asked for again.

    Raises:
        InputError: ``key``: nothing of it is short any more.
    """
    line = _line(key)
    if not line.buy:
        raise InputError("key", f"{line.label} is on its way already: there is nothing to order.")
    record = _compartment(line)
    many = line.packs * line.pack
    with recorded(drawer.SCOPE, f"order {many} × {line.label}", f"order:{key}"):
        record.join({"on_order": record.input.on_order + many})
        keep(record)


def came_in(key: str) -> None:
    """Write down that what was ordered has come: it lies in the drawer.

    Raises:
        InputError: ``key``: nothing of it is on its way.
    """
    line = _line(key)
    there = _of(line)
    found = [r for r in drawer.compartments() if r.input.on_order and str(r.pk) in there]
    if not found:
        raise InputError("key", f"Nothing of {line.label} is on its way.")
    with recorded(drawer.SCOPE, f"{line.label} came in", f"came:{key}"):
        for record in found:
            come = record.input.on_order
            if record.input.count is not None:
                movements.book(record.pk, Movement.BOUGHT, come)
                record.refresh_from_db()
            record.join({"on_order": 0, "level": "full"})
            keep(record)


def _of(line: OrderLine) -> set[str]:
    """Compartments that a line is of."""
    need = line.need
    return {line.part} if need is None else {p.id for p in drawer.parts() if need.met_by(p)}


def _line(key: str) -> OrderLine:
    found = next((line for line in buying().lines if line.key == key), None)
    if found is None:
        raise InputError("key", "That is not on the list any more.")
    return found


def _compartment(line: OrderLine) -> "StockPart | BenchLed":
    """The compartment that a line goes into; a new, empty one where there is none."""
    if line.part:
        return next(r for r in drawer.compartments() if str(r.pk) == line.part)
    need = line.need
    assert need is not None
    key = uuid.uuid5(_SPACE, line.key)
    record: StockPart | BenchLed
    if need.kind == "led":
        known = need.of if need.of in leds() else ""
        typed = BenchLedInput(name=need.label, led_id=known, level="empty", count=0)
        record = BenchLed(id=key, order=order.last(BenchLed.objects), inputs=typed.model_dump(mode="json"))
    else:
        made = PartInput(
            kind=need.kind,
            level="empty",
            count=0,
            rating_w=need.rating_w,
            tolerance=need.tolerance,
            resistance="" if need.ohm is None else show(need.ohm, OHM, 6),
            capacitance="" if need.farad is None else show(need.farad, FARAD),
            stands="" if need.volts is None else show(need.volts, VOLT),
            name=need.label if need.ohm is None and need.farad is None and not need.of else "",
            catalogue_id=need.of,
        )
        record = StockPart(id=key, order=order.last(StockPart.objects), inputs=made.model_dump(mode="json"))
    check_room(record)
    return record


def to_csv() -> str:
    """The list as CSV."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(
        ["kind", "part", "needed", "spare", "in the drawer", "on order", "to buy", "packs", "in a pack", "price", "for"]
    )
    for x in buying().lines:
        cells = [
            x.kind_label,
            x.label,
            x.needed,
            x.spare,
            "enough" if x.have is None else x.have,
            x.on_order,
            x.buy,
            x.packs,
            x.pack,
            x.price_text,
            "; ".join(x.lamps),
        ]
        writer.writerow([guarded(str(c)) for c in cells])
    return out.getvalue()
