"""Groups of lamps that are to look equal."""

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router
from ninja.decorators import decorate_view

from swapglow.api.saving import saving
from swapglow.api.schemas import MatchDiffers, MatchEqual, MatchUse, Problems
from swapglow.core.analysis.match import trim_of, trims
from swapglow.core.presentation.match import MatchReport, match_report
from swapglow.core.presentation.row_of_lamps import RowOfLamps
from swapglow.core.quantities import OHM, InputError, show
from swapglow.records import reports
from swapglow.records.drawer import at_hand
from swapglow.records.models import Equipment
from swapglow.records.steps import keep, recorded

router = Router(tags=["match"])


def _report(e: Equipment, keys: list[str]) -> MatchReport:
    return match_report(reports.group_of(e, keys), at_hand())


@router.get("/equipment/{key}/match", response={200: MatchReport, 404: Problems, 422: Problems})
def read(request: HttpRequest, key: UUID, lamps: str = "") -> MatchReport:
    """Lamps of an item on one line of light: their keys with commas between; all of them where none is named."""
    return _report(get_object_or_404(Equipment, pk=key), [k for k in lamps.split(",") if k])


@router.get("/equipment/{key}/row", response={200: RowOfLamps, 404: Problems, 422: Problems})
def row(request: HttpRequest, key: UUID) -> RowOfLamps:
    """All lamps of an item beside each other, each at its usual rail as it is looked at."""
    return reports.row_of(get_object_or_404(Equipment, pk=key))


@router.post("/equipment/{key}/match/use", response={200: MatchReport, 404: Problems, 422: Problems})
@decorate_view(saving)
def use(request: HttpRequest, key: UUID, data: MatchUse) -> MatchReport:
    """Fit resistors in a group of lamps, as one step."""
    e = get_object_or_404(Equipment, pk=key)
    fields = {str(k): {"resistor": show(ohm, OHM, 6)} for k, ohm in data.resistors.items()}
    _write(e, fields, "match lamps")
    return _report(e, list(fields))


@router.post("/equipment/{key}/match/equal", response={200: MatchReport, 404: Problems, 422: Problems})
@decorate_view(saving)
def equal(request: HttpRequest, key: UUID, data: MatchEqual) -> MatchReport:
    """Lamps look equal as they stand: what that says of their LEDs is kept."""
    e = get_object_or_404(Equipment, pk=key)
    keys = [str(k) for k in data.lamps]
    group = reports.group_of(e, keys)
    if not any(lamp.id == str(data.reference) and lamp.choices for lamp in group):
        raise InputError("reference", "Pick one of the group whose light can be worked out.")
    found = trims(group, str(data.reference))
    _write(e, {k: {"looks": {"trim": v}} for k, v in found.items()}, "lamps look equal")
    return _report(e, keys)


@router.post("/equipment/{key}/match/differs", response={200: MatchReport, 404: Problems, 422: Problems})
@decorate_view(saving)
def differs(request: HttpRequest, key: UUID, data: MatchDiffers) -> MatchReport:
    """A lamp still looks brighter or dimmer than another: what that says of its LED is kept."""
    e = get_object_or_404(Equipment, pk=key)
    keys = [str(data.lamp), str(data.reference)]
    group = [lamp for lamp in reports.group_of(e, keys) if lamp.choices]
    if {lamp.id for lamp in group} != set(keys) or len(group) != len(keys):
        raise InputError("lamp", "Pick two lamps of the group whose light can be worked out.")
    found = trim_of(group, *keys, brighter=data.brighter)
    how, resistor = ("brighter", "larger") if data.brighter else ("dimmer", "smaller")
    if found is None:
        message = f"The figures already say that it is {how}. Give it a {resistor} resistor, and look again."
        raise InputError("lamp", message)
    _write(e, {keys[0]: {"looks": {"trim": found}}}, f"looks {how}")
    return _report(e, keys)


def _write(e: Equipment, fields: Mapping[str, Mapping[str, Any]], label: str) -> None:
    """Change several lamps of an item as one step; one that is not its own is refused."""
    found = {str(p.pk): p for p in e.positions.select_related("rail")}
    strange = next((k for k in fields if k not in found), None)
    if strange is not None:
        raise InputError("lamps", f"{e.input.name} has no lamp {strange}.")
    with recorded(str(e.pk), label, f"match:{e.pk}:{sorted(fields)}"):
        for k, changes in fields.items():
            found[k].join(changes)
            reports.core_of(found[k])
            keep(found[k])
