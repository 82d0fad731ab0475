"""Lamps of one item that are alike: copies of a lamp, one change for all, and the lot judged by a few readings."""

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from uuid import UUID

from swapglow.core.analysis.fitted import fitted_in, since_changed
from swapglow.core.engine.netlist import CircuitError
from swapglow.core.evidence.lot import COMPARED, Lot, judge
from swapglow.core.measurement.reading_after import ReadingAfter, ReadingKind
from swapglow.core.quantities import InputError
from swapglow.inputs.kin import FieldDifference, differences, of_its_kind
from swapglow.inputs.limits import MOST_COPIES
from swapglow.inputs.position import PositionInput
from swapglow.records import order, reports
from swapglow.records.limits import check_room
from swapglow.records.models import Equipment, Position
from swapglow.records.steps import create_all, keep, recorded

_LAST_NUMBER = re.compile(r"^(.*?)(\d{1,9})(\D*)$", re.DOTALL)


@dataclass(frozen=True)
class Other:
    """Another lamp of the item beside this one.

    Attributes:
        id, name: the record's own.
        same_rail: whether one rail feeds both.
        differs: in what; nothing where they are alike.
    """

    id: UUID
    name: str
    same_rail: bool
    differs: tuple[FieldDifference, ...]

    @property
    def alike(self) -> bool:
        """Whether nothing tells the two apart but what is their own."""
        return self.same_rail and not self.differs


def others_of(p: Position) -> list[Other]:
    """The other lamps of its item, in the item's order.

    Args:
        p: the lamp.

    Returns:
        Each with what differs.
    """
    own = p.input.model_dump(mode="json")
    return [
        Other(o.pk, o.input.name, o.rail_id == p.rail_id, differences(own, o.input.model_dump(mode="json")))
        for o in p.equipment.positions.exclude(pk=p.pk)
    ]


def names_after(e: Equipment, name: str, count: int) -> list[str]:
    """Names that go on from a lamp's: its last number counts on.

    Args:
        e: the item.
        name: the lamp's.
        count: how many are wanted.

    Returns:
        As many, each new in the item.
    """
    taken = {p.input.name for p in e.positions.all()}
    found = _LAST_NUMBER.match(name)
    before, start, after = (found[1], found[2], found[3]) if found else (f"{name} ", "1", "")
    names: list[str] = []
    number = int(start)
    while len(names) < count:
        number += 1
        made = f"{before}{number:0{len(start)}d}{after}"
        if made not in taken:
            names.append(made)
    return names


def copy(p: Position, lamps: Mapping[UUID, str]) -> None:
    """Make lamps like this one, in one step; one that is there already stays as it is.

    Args:
        p: the lamp. What was measured on it is assumed of its copies; its work, trials and notes stay its own.
        lamps: the key and the name of each new one.

    Raises:
        pydantic.ValidationError: a name does not read.
        InputError: there are more than are made at once, or there is no room.
    """
    if len(lamps) > MOST_COPIES:
        raise InputError("lamps", f"{MOST_COPIES} copies can be made at once; here are {len(lamps)} names.")
    there = set(Position.objects.filter(pk__in=lamps).values_list("pk", flat=True))
    new = {key: name for key, name in lamps.items() if key not in there}
    if not new:
        return
    like, at = of_its_kind(p.input.model_dump(mode="json"), p.input.name), order.last(p.equipment.positions)
    made = [
        Position(
            id=key,
            equipment=p.equipment,
            rail_id=p.rail_id,
            order=at + k,
            inputs=PositionInput.model_validate({**like, "name": name}).model_dump(mode="json"),
        )
        for k, (key, name) in enumerate(new.items())
    ]
    check_room(made[0], len(made))
    times = "once" if len(made) == 1 else f"{len(made)} times"
    with recorded(str(p.equipment_id), f"copy {p.input.name} {times}", f"position:{p.pk}:copy:{min(new)}"):
        create_all(Position, made)


def make_like(p: Position, keys: Iterable[UUID]) -> None:
    """Give other lamps of the item what this one has, in one step.

    Args:
        p: the lamp.
        keys: the others. What was measured on one of them stays as it was measured; work, trials and notes stay too.

    Raises:
        InputError: one of them would not read.
    """
    own = p.input.model_dump(mode="json")
    with recorded(str(p.equipment_id), f"make lamps like {p.input.name}", f"position:{p.pk}:like"):
        for other in p.equipment.positions.filter(pk__in=list(keys)).exclude(pk=p.pk):
            other.inputs = {**other.inputs, **of_its_kind(own, p.input.name, other.inputs)}
            other.rail = p.rail
            reports.core_of(other)
            keep(other)


def lots_of(p: Position, others: Sequence[Other]) -> list[Lot]:
    """This lamp and those alike, judged by what was read on them.

    Args:
        p: the lamp.
        others: the item's other lamps, as :func:`others_of`.

    Returns:
        One for each kind of reading that was taken; none where the lamp has no answer, or no lamp is alike.
    """
    keys = [o.id for o in others if o.alike]
    alike = [p, *p.equipment.positions.filter(pk__in=keys).select_related("rail", "equipment")] if keys else []
    read: dict[ReadingKind, list[tuple[str, str, float]]] = {}
    first: dict[ReadingKind, ReadingAfter] = {}
    try:
        core = reports.core_of(p)
        now = fitted_in(core)
        for lamp in alike:
            for kind, reading in _newest(lamp, now).items():
                read.setdefault(kind, []).append((str(lamp.pk), lamp.input.name, reading.value))
                first.setdefault(kind, replace(reading, id=""))
        return [judge(core, first[kind], read[kind], len(alike)) for kind in COMPARED if kind in read]
    except (InputError, CircuitError):
        return []


def _newest(lamp: Position, now: str) -> dict[ReadingKind, ReadingAfter]:
    """The newest reading of each kind on a lit lamp, of what is fitted now."""
    try:
        taken = reports.readings_of(lamp)
    except InputError:
        # One text that no longer reads does not hide the other lamps.
        return {}
    return {r.kind: r for r in taken if r.state == "on" and r.whose == "this" and not since_changed(r.fitted, now)}
