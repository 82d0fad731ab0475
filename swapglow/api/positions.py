"""Lamp positions: records, reports, remedies, readings."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from swapglow.api.given import given
from swapglow.api.outward import (
    position_out,
    rail_out,
    reading_out,
    report_answer,
    steps,
    summary,
    taken_out,
)
from swapglow.api.schemas import (
    AssessIn,
    BenchReading,
    PositionFields,
    PositionOut,
    PositionPatch,
    PositionView,
    Problems,
    ReadingFields,
    ReadingOut,
    ReportAnswer,
    SpiceText,
    TakenFields,
    TakenOut,
)
from swapglow.core.bench.ink import led_vf_text, shorted_ohm_text
from swapglow.core.driver import State
from swapglow.core.position.circuit import spice_text
from swapglow.core.position.sizing import size
from swapglow.core.position.typed import FieldError, read_position, read_rail, typed_changes
from swapglow.core.position.typed_sweep import sweep_report
from swapglow.core.report import SweepReport
from swapglow.core.supply import KINDS
from swapglow.core.swaps import Swaps, search
from swapglow.document.typed import core_reading, core_taken
from swapglow.records import translate
from swapglow.records.journal import recorded, with_dependants
from swapglow.records.models import Equipment, Position, Rail, Reading, Taken

router = Router(tags=["positions"])

# Fields whose null means "none" and not "unchanged".
_NULLABLE = ("rating_w", "tolerance", "shunt_w")


def _find(key: UUID) -> Position:
    return get_object_or_404(Position.objects.select_related("rail", "equipment"), pk=key)


@router.get("/positions/{key}", response={200: PositionView, 404: Problems})
def read(request: HttpRequest, key: UUID) -> PositionView:
    """One position with its rail and neighbours."""
    p = _find(key)
    at_hand = translate.drawer()
    siblings = p.equipment.positions.select_related("rail").prefetch_related("readings", "taken")
    return PositionView(
        position=position_out(p),
        rail=rail_out(p.rail),
        equipment_name=p.equipment.name,
        fit=_fit(p),
        siblings=[summary(s, at_hand) for s in siblings],
        steps=steps(str(p.equipment_id)),
    )


def _fit(p: Position) -> SweepReport | None:
    sweep = translate.typed_position(p).sweep
    return None if sweep.empty else sweep_report(sweep)


@router.put("/positions/{key}", response={200: PositionOut, 404: Problems, 422: Problems})
def create(request: HttpRequest, key: UUID, data: PositionFields) -> PositionOut:
    """Make a position; sent twice, it is made once."""
    found = Position.objects.filter(pk=key).first()
    if found is None:
        e = get_object_or_404(Equipment, pk=data.equipment)
        fields = {k: v for k, v in given(data, _NULLABLE).items() if k != "equipment"}
        rail_key = fields.pop("rail", None)
        rail = e.rails.filter(pk=rail_key).first() if rail_key else e.rails.first()
        if rail is None:
            raise FieldError("rail", "Add a supply rail first: a lamp needs one.")
        fields.setdefault("name", "Lamp")
        found = Position(id=key, equipment=e, rail=rail, order=e.positions.count(), **fields)
        read_position(translate.typed_position(found))
        with recorded(str(e.pk), f"add {found.name}", [], f"position:{key}") as left:
            found.save()
            left.append(found)
    return position_out(found)


def _change(p: Position, fields: dict[str, Any], label: str, touched: str) -> PositionOut:
    """Apply fields to a position and keep it, or refuse the whole."""
    before = Position.objects.get(pk=p.pk)
    if "rail" in fields:
        rail_key = fields.pop("rail")
        rail = Rail.objects.filter(pk=rail_key, equipment_id=p.equipment_id).first()
        if rail is None:
            raise FieldError("rail", "That rail is not in this equipment.")
        p.rail = rail
    for name, value in fields.items():
        setattr(p, name, value)
    read_position(translate.typed_position(p))
    with recorded(str(p.equipment_id), label, [before], touched) as left:
        p.save()
        left.append(p)
    return position_out(p)


@router.patch("/positions/{key}", response={200: PositionOut, 404: Problems, 422: Problems})
def change(request: HttpRequest, key: UUID, data: PositionPatch) -> PositionOut:
    """Change fields; refused whole where the position would not read."""
    p = _find(key)
    fields = given(data, _NULLABLE)
    if "driver_details" in fields:
        # One detail is sent at a time; the others stay.
        fields["driver_details"] = {**p.driver_details, **fields["driver_details"]}
    return _change(p, fields, f"edit {p.name}", f"position:{key}:{sorted(fields)}")


@router.delete("/positions/{key}", response={204: None})
def remove(request: HttpRequest, key: UUID) -> Status[None]:
    """Delete a position; undo brings it back with its readings."""
    p = Position.objects.filter(pk=key).first()
    if p is not None:
        found = with_dependants(p)
        with recorded(str(p.equipment_id), f"delete {p.name}", found, f"position:{key}:delete"):
            p.delete()
    return Status(204, None)


@router.post("/positions/{key}/assess", response={200: ReportAnswer, 404: Problems, 422: Problems})
def assess(request: HttpRequest, key: UUID, data: AssessIn) -> HttpResponse:
    """The report, with changes tried where given; nothing is saved."""
    return report_answer(translate.report(_find(key), data.changes, translate.drawer()))


@router.get("/positions/{key}/swaps", response={200: Swaps, 404: Problems, 422: Problems})
def swaps(request: HttpRequest, key: UUID) -> Swaps:
    """The swaps that matter for a position, ranked by what its user weighs."""
    p = _find(key)
    return search(read_position(translate.typed_position(p)), tuple(p.weigh), translate.drawer())


@router.get("/positions/{key}/spice", response={200: SpiceText, 404: Problems})
def spice(request: HttpRequest, key: UUID, state: State = "on") -> SpiceText:
    """The position as SPICE text in a state: usual rail, typical LEDs, the resistor fitted."""
    core = read_position(translate.typed_position(_find(key)))
    sized = size(core)
    return SpiceText(text=spice_text(core, sized.total_ohm, sized.farads, state))


@router.post("/positions/{key}/take", response={200: PositionOut, 404: Problems, 422: Problems})
def take(request: HttpRequest, key: UUID, data: AssessIn) -> PositionOut:
    """Take a remedy's changes."""
    p = _find(key)
    fields = typed_changes(data.changes)
    if "driver_details" in fields:
        fields["driver_details"] = {**p.driver_details, **fields["driver_details"]}  # type: ignore[dict-item]
    return _change(p, fields, f"change {p.name}", f"position:{key}:take:{sorted(fields)}")


@router.post("/positions/{key}/reading", response={204: None, 404: Problems, 422: Problems})
def bench_reading(request: HttpRequest, key: UUID, data: BenchReading) -> Status[None]:
    """A reading at the bench: inks the figure it is of, or is recorded as a trial."""
    p = _find(key)
    if data.what in ("current", "resistor_volts", "led_volts"):
        _record(p, data.id, data.what, data)
        return Status(204, None)
    took_text = data.text
    if data.what == "led_vf":
        core = read_position(translate.typed_position(p))
        took_text = led_vf_text(core, data.text)
    inked = {"text": took_text, "source": "measured", "note": data.note}
    if data.what in _DETAILS:
        _ink_detail(p, data, inked)
    elif data.what in ("rail_usual", "rail_low", "rail_high"):
        _ink_rail(p, data.what.removeprefix("rail_"), inked)
    else:
        field = {"led_vf": "vf", "driver_drop": "driver_drop"}[data.what]
        _change(p, {field: inked}, f"read {p.name}", f"position:{key}:ink:{field}")
    return Status(204, None)


# A reading that inks a further figure of the rail, and which.
_DETAILS = {"source_open": "open", "source_load": "load", "trip": "trip", "hertz": "hertz",
            "grounded": "grounded", "source_short": "source"}  # fmt: skip


def _keep_rail(rail: Rail, before: Rail, verb: str, what: str) -> None:
    """Save a changed rail as one step of its item."""
    with recorded(str(rail.equipment_id), f"{verb} {rail.name}", [before], f"rail:{rail.pk}:{what}") as left:
        rail.save()
        left.append(rail)


def _ink_detail(p: Position, data: BenchReading, inked: dict[str, str]) -> None:
    rail, before = p.rail, Rail.objects.get(pk=p.rail_id)
    name = _DETAILS[data.what]
    if data.what == "source_short":
        inked = {**inked, "text": shorted_ohm_text(read_rail(translate.typed_rail(rail)), data.text)}
    rail.details = {**rail.details, name: inked}
    try:
        read_position(translate.typed_position(p))
    except FieldError as problem:
        raise FieldError("text", problem.message) from None
    _keep_rail(rail, before, "read", f"ink:{name}")


@router.post("/positions/{key}/infer/{name}", response={200: PositionOut, 404: Problems, 422: Problems})
def infer(request: HttpRequest, key: UUID, name: str) -> PositionOut:
    """Take over what an inference says of the rail; it stays an inference, marked as computed."""
    p = _find(key)
    survey = translate.report(p, None, translate.drawer()).survey
    found = next((i for i in survey.inferences if i.id == name and i.sets), None)
    if found is None:
        raise FieldError("name", f'The readings no longer say "{name}".')
    rail, before = p.rail, Rail.objects.get(pk=p.rail_id)
    plain = {k: {"text": v, "source": "computed", "note": found.basis[:200]} for k, v in found.sets.items()}
    if "kind" in found.sets and rail.kind != found.sets["kind"]:
        rail.kind, rail.details = found.sets["kind"], {}
    if "usual" in plain:
        rail.usual = plain["usual"]
    asked = {d.id for d in KINDS[rail.kind].details}  # type: ignore[index]
    rail.details = {**rail.details, **{k: q for k, q in plain.items() if k in asked}}
    read_position(translate.typed_position(p))
    _keep_rail(rail, before, "infer", "infer")
    return position_out(p)


@router.put("/taken/{key}", response={200: TakenOut, 404: Problems, 422: Problems})
def take_reading(request: HttpRequest, key: UUID, data: TakenFields) -> TakenOut:
    """Record a reading before the swap; sent twice, it is kept once."""
    found = Taken.objects.filter(pk=key).first()
    if found is None:
        p = _find(data.position)
        if p.mains:
            raise FieldError(
                "position", "This lamp is marked as mains-connected: no live readings are kept of it."
            )
        fields = data.dict()
        fields.pop("position")
        found = Taken(id=key, position=p, order=p.taken.count(), **fields)
        core_taken(found)
        with recorded(str(p.equipment_id), f"read {p.name}", [], f"taken:{key}") as left:
            found.save()
            left.append(found)
    return taken_out(found)


@router.delete("/taken/{key}", response={204: None})
def strike_taken(request: HttpRequest, key: UUID) -> Status[None]:
    """Delete a reading before the swap; undo brings it back."""
    t = Taken.objects.select_related("position").filter(pk=key).first()
    if t is not None:
        scope = str(t.position.equipment_id)
        with recorded(scope, f"delete a reading at {t.position.name}", [t], f"taken:{key}:delete"):
            t.delete()
    return Status(204, None)


def _ink_rail(p: Position, end: str, inked: dict[str, str]) -> None:
    rail, before = p.rail, Rail.objects.get(pk=p.rail_id)
    setattr(rail, end, inked)
    try:
        read_rail(translate.typed_rail(rail))
    except FieldError as problem:
        raise FieldError("text", problem.message) from None
    _keep_rail(rail, before, "read", f"ink:{end}")


def _record(p: Position, key: UUID, kind: str, data: BenchReading | ReadingFields) -> Reading:
    found = Reading.objects.filter(pk=key).first()
    if found is not None:
        return found
    made = Reading(
        id=key, position=p, kind=kind, text=data.text, burden=data.burden, note=data.note,
        order=p.readings.count(),
    )  # fmt: skip
    core_reading(made)
    if kind != "current" and KINDS[p.rail.kind].flow != "dc":  # type: ignore[index]
        raise FieldError(
            "kind", "On a supply that alternates the LED's average current is compared, not volts."
        )
    with recorded(str(p.equipment_id), f"record a reading at {p.name}", [], f"reading:{key}") as left:
        made.save()
        left.append(made)
    return made


@router.put("/readings/{key}", response={200: ReadingOut, 404: Problems, 422: Problems})
def record(request: HttpRequest, key: UUID, data: ReadingFields) -> ReadingOut:
    """Record a reading after the swap; sent twice, it is kept once."""
    return reading_out(_record(_find(data.position), key, data.kind, data))


@router.delete("/readings/{key}", response={204: None})
def strike(request: HttpRequest, key: UUID) -> Status[None]:
    """Delete a reading; undo brings it back."""
    r = Reading.objects.select_related("position").filter(pk=key).first()
    if r is not None:
        scope = str(r.position.equipment_id)
        with recorded(scope, f"delete a reading at {r.position.name}", [r], f"reading:{key}:delete"):
            r.delete()
    return Status(204, None)
