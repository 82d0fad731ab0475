"""Parts of the drawer brought in by the file, whole or not at all."""

from dataclasses import dataclass
from uuid import UUID, uuid4

from swapglow.core.quantities import InputError
from swapglow.document import parts_csv
from swapglow.inputs.stock import PartInput
from swapglow.records import drawer, order
from swapglow.records.limits import check_room
from swapglow.records.models import StockPart
from swapglow.records.steps import keep, recorded


@dataclass(frozen=True)
class Coming:
    """What a file would do.

    Attributes:
        new: parts that would be added.
        changed: parts that are here and would become what the file says, by key.
        same: how many are here as they stand in the file.
    """

    new: tuple[PartInput, ...]
    changed: tuple[tuple[UUID, PartInput], ...]
    same: int


def to_csv() -> str:
    """All parts of the drawer as CSV."""
    return parts_csv.written((r.pk, r.input) for r in StockPart.objects.all())


def from_csv(data: bytes) -> Coming:
    """Read a file of parts.

    Raises:
        InputError: ``file``: it cannot be read; the message names its first lines that are wrong.
    """
    found = parts_csv.read(data)
    wrong = [(line, why) for line, why in found if isinstance(line, str)]
    if wrong:
        said = "; ".join(f"{line}: {why}" for line, why in wrong[:5])
        more = f" and {len(wrong) - 5} more" if len(wrong) > 5 else ""
        raise InputError("file", f"Nothing was taken in. {said}{more}")
    here = {r.pk: r.input for r in StockPart.objects.all()}
    new, changed, same = [], [], 0
    for key, typed in found:
        if not isinstance(key, UUID) or key not in here:
            new.append(typed)
        elif here[key] == typed:
            same += 1
        else:
            changed.append((key, typed))
    return Coming(tuple(new), tuple(changed), same)  # type: ignore[arg-type]  # no refusals are left


def bring_in(coming: Coming) -> None:
    """Do what a file says, as one step.

    Raises:
        InputError: there is no room.
    """
    if coming.new:
        check_room(StockPart(), len(coming.new))
    count = len(coming.new) + len(coming.changed)
    with recorded(drawer.SCOPE, f"bring in {count} part" + ("" if count == 1 else "s"), f"parts:{uuid4()}"):
        place = order.last(StockPart.objects)
        for k, typed in enumerate(coming.new):
            keep(StockPart(order=place + k, inputs=typed.model_dump(mode="json")))
        for key, typed in coming.changed:
            record = StockPart.objects.get(pk=key)
            record.inputs = typed.model_dump(mode="json")
            keep(record)
