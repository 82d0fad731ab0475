"""Records to the core's values and reports, and nothing more."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from functools import lru_cache
from uuid import UUID

from django.db.models import Q, QuerySet

from swapglow.core.analysis.draws import Member
from swapglow.core.analysis.fitted import fitted_in
from swapglow.core.analysis.match import MatchLamp, match_lamp
from swapglow.core.analysis.trials import Tried
from swapglow.core.assess import Bench
from swapglow.core.circuits import CIRCUITS
from swapglow.core.circuits.answer import CircuitAnswer, answer
from swapglow.core.design.changes import Changes, with_changes
from swapglow.core.design.position import Position as CorePosition
from swapglow.core.drivers import DRIVERS
from swapglow.core.evidence.alike import Neighbour, taught
from swapglow.core.evidence.as_read import as_read
from swapglow.core.findings import solvable
from swapglow.core.intake.hazards import CLOSING
from swapglow.core.intake.stages import DONE
from swapglow.core.measurement.reading_after import ReadingAfter
from swapglow.core.presentation.budget import RailBudget, rail_budget
from swapglow.core.presentation.dimming import Dimming, dimming, not_yet
from swapglow.core.presentation.report import Report
from swapglow.core.presentation.row_of_lamps import RowOfLamps, row_of_lamps
from swapglow.core.quantities import InputError, Source
from swapglow.document.report import remembered
from swapglow.inputs.equipment import DimInput, FittedInput
from swapglow.inputs.to_core import (
    checks_of,
    dim_trials_of,
    fitted_details,
    fitted_of,
    position_of,
    rail_of,
    reading_after_of,
    reading_before_of,
    site_of,
    trials_of,
)
from swapglow.records.drawer import at_hand
from swapglow.records.models import Equipment, Position, Rail, Shop

# The weight with which a lamp's size follows the drawer.
FROM_DRAWER = "stock"

# Asked with its item at every look at that.
_remembered_dimming = lru_cache(maxsize=256)(dimming)


def live_closed(p: Position) -> bool:
    """Whether nothing live is read of a lamp: it is on mains, or mains or high tension is in its item."""
    return p.input.mains or not CLOSING.isdisjoint(p.equipment.sheet.hazards)


def core_of(p: Position) -> CorePosition:
    """A kept position as the core's value.

    Raises:
        InputError: a kept text no longer reads.
    """
    core = position_of(p.input, p.rail.input, p.equipment.sheet.hazards)
    # Where somebody asked for what lies in the drawer, the size is chosen from it too.
    return replace(core, at_hand=at_hand()) if FROM_DRAWER in p.input.weigh else core


def as_read_of(p: Position) -> CorePosition:
    """A kept position as its readings, and those of lamps like it, leave it: what every view takes its figures from.

    Raises:
        InputError: a kept text no longer reads.
    """
    return taught(as_read(core_of(p), readings_of(p)), _neighbours(p, _teachers(p.equipment_id)))


# A lamp that may teach others of its item something, with the key of its own and of its rail.
_Teacher = tuple[UUID, UUID, str, CorePosition]
_WATCHING = [kind.id for kind in DRIVERS.values() if kind.watches]


def teaching(positions: QuerySet[Position]) -> QuerySet[Position]:
    """Those of some lamps that may teach others of their item something: read, or on a circuit that watches."""
    read = Q(readings_after__isnull=False) | Q(inputs__vf__source=Source.MEASURED.value)
    return positions.filter(read | Q(inputs__driver_kind__in=_WATCHING)).distinct()


def _teachers(equipment: UUID) -> tuple[_Teacher, ...]:
    """Lamps of an item that may teach its others, as their own readings leave them; none where the shop wants none."""
    if Shop.own().input.learns == "own":
        return ()
    found = []
    for p in teaching(Position.objects.filter(equipment=equipment)).select_related("rail", "equipment"):
        try:
            found.append((p.pk, p.rail_id, p.input.name, as_read(core_of(p), readings_of(p))))
        except InputError:
            continue
    return tuple(found)


def _neighbours(p: Position, teachers: Iterable[_Teacher]) -> tuple[Neighbour, ...]:
    return tuple(Neighbour(name, core, rail == p.rail_id) for key, rail, name, core in teachers if key != p.pk)


def readings_of(p: Position) -> tuple[ReadingAfter, ...]:
    """The readings that were taken after the swap, the newest last.

    Raises:
        InputError: a kept text no longer reads.
    """
    return tuple(reading_after_of(str(r.pk), r.input, p.input.reads) for r in p.readings_after.all())


def report(p: Position, changes: Changes | None, at_hand: frozenset[float]) -> Report:
    """The report of a kept position.

    Args:
        p: the record, its rail and readings at hand.
        changes: tried on it; none where None or empty.
        at_hand: resistors in the drawer, Ω.

    Returns:
        The report, remembered by all it rests on.

    Raises:
        InputError: a kept text no longer reads, or a change is none.
        CircuitError: the circuit has no answer.
    """
    core, readings = core_of(p), readings_of(p)
    if changes:
        # A reading without a note of its circuit belongs to the saved lamp, not to the change that is tried.
        now = fitted_in(core)
        readings = tuple(r if r.fitted else replace(r, fitted=now) for r in readings)
        core = with_changes(core, changes)
    before = tuple(reading_before_of(str(r.pk), r.input) for r in p.readings_before.all())
    others, _ = members_of(p.rail, without=p)
    bench = Bench(
        readings,
        at_hand,
        p.input.stage == DONE,
        before,
        others,
        p.input.lit,  # type: ignore[arg-type]  # one of its options
        trials_of(p.input),
        _others_tried(p),
        _neighbours(p, _teachers(p.equipment_id)),
        site_of(p.equipment.sheet, Shop.own().input),
        checks_of(p.input),
        tuple(p.input.dead),
    )
    return remembered(core, bench)


def _others_tried(p: Position) -> tuple[Tried, ...]:
    """The item's other lamps that were looked at; one that does not read says nothing."""
    if Shop.own().input.learns == "own":
        return ()
    found = []
    tried = Position.objects.filter(equipment=p.equipment_id).exclude(pk=p.pk).exclude(inputs__trials={})
    for other in tried.select_related("rail"):
        try:
            looks = trials_of(other.input)
            if looks:
                found.append((as_read_of(other), looks))
        except InputError:
            continue
    return tuple(found)


def dimming_of(typed: DimInput, at_hand: frozenset[float]) -> Dimming:
    """What is to be said of a fitted LED that is too bright; what does not read is said in it.

    Args:
        typed: as it is kept.
        at_hand: resistors in the drawer, Ω.

    Returns:
        The section.
    """
    try:
        fitted = fitted_of(typed)
        if fitted is None:
            return not_yet("Type the resistor that is fitted: 470R, its bands or its mark.")
        return _remembered_dimming(fitted, dim_trials_of(typed), at_hand)
    except InputError as problem:
        return not_yet(problem.message)


def circuit_answers(typed: Mapping[str, FittedInput]) -> dict[str, CircuitAnswer]:
    """What is to be said of an item's fitted circuits, remembered by what was typed.

    Args:
        typed: as they are kept, by key.

    Returns:
        The answers by key; what was read of one board counts for others like it, where the shop wants that.
    """
    learns = Shop.own().input.learns == "like"
    return {
        key: circuit_answer(one, [f for k, f in typed.items() if learns and k != key and f.kind == one.kind])
        for key, one in typed.items()
    }


def circuit_answer(typed: FittedInput, others: Iterable[FittedInput] = ()) -> CircuitAnswer:
    """What is to be said of a fitted circuit, remembered by what was typed.

    Args:
        typed: as it is kept.
        others: the item's other circuits of that kind.

    Returns:
        The answer.
    """
    return _remembered_circuit(_as_json(typed), tuple(_as_json(f) for f in others))


def _as_json(typed: FittedInput) -> str:
    return typed.model_dump_json(include={"kind", "name", "details", "chosen"})


@lru_cache(maxsize=256)
def _remembered_circuit(typed: str, like: tuple[str, ...]) -> CircuitAnswer:
    one, *others = (FittedInput.model_validate_json(text) for text in (typed, *like))
    try:
        return answer(CIRCUITS[one.kind], fitted_details(one, others), one.chosen)
    except InputError as problem:
        return CircuitAnswer(problem.message, None)


def group_of(e: Equipment, keys: Sequence[str]) -> tuple[MatchLamp, ...]:
    """Lamps of an item as a group to be matched; one that cannot be worked out stands barred.

    Args:
        e: the item.
        keys: of its lamps, in no order; all of them where there is none.

    Returns:
        The lamps in the item's order.
    """
    return tuple(_in_group(p) for p in e.positions.select_related("rail") if not keys or str(p.pk) in keys)


def row_of(e: Equipment) -> RowOfLamps:
    """The lamps of an item beside each other; one that does not read is left out, and why is said.

    Args:
        e: the item.

    Returns:
        The row.
    """
    lamps, without = [], []
    for p in e.positions.select_related("rail"):
        try:
            lamps.append((str(p.pk), p.input.name, as_read_of(p)))
        except InputError as problem:
            without.append(f"{p.input.name}: {problem}")
    row = row_of_lamps(lamps)
    return replace(row, without=(*without, *row.without))


def _in_group(p: Position) -> MatchLamp:
    try:
        return match_lamp(str(p.pk), p.input.name, as_read_of(p))
    except ValueError as problem:
        return MatchLamp(str(p.pk), p.input.name, None, 0, (), str(problem))


def members_of(rail: Rail, without: Position | None = None) -> tuple[tuple[Member, ...], tuple[str, ...]]:
    """The lamps on a rail as the core's values, and those that do not read, each with why.

    Args:
        rail: the record.
        without: a lamp that is left out.

    Returns:
        Both, in the lamps' order.
    """
    found, left_out = [], []
    teachers = _teachers(rail.equipment_id)
    for p in rail.positions.prefetch_related("readings_after"):
        if without is not None and p.pk == without.pk:
            continue
        try:
            core = position_of(p.input, rail.input, rail.equipment.sheet.hazards)
            core = taught(as_read(core, readings_of(p)), _neighbours(p, teachers))
            made = Member(str(p.pk), p.input.name, core, p.input.lit)  # type: ignore[arg-type]  # one of its options
            solvable(made.position)
            found.append(made)
        except ValueError as problem:
            left_out.append(f"{p.input.name}: {problem}")
    return tuple(found), tuple(left_out)


def budget_of(rail: Rail) -> RailBudget:
    """What a kept rail gives to its lamps.

    Raises:
        InputError: a kept text of the rail does not read.
        CircuitError: its lamps have no answer together.
    """
    members, left_out = members_of(rail)
    return rail_budget(rail_of(rail.input), members, left_out)
