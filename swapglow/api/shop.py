"""The shop's habits."""

from django.http import HttpRequest
from ninja import Router
from ninja.decorators import decorate_view

from swapglow.api.equipment import said
from swapglow.api.saving import saving
from swapglow.api.schemas import Problems, ShopAnswer, ShopPatch
from swapglow.core.measurement.clip_first import TRUE_RMS
from swapglow.inputs.patch import sent, touched
from swapglow.inputs.required_units import require_units
from swapglow.inputs.shop import ShopInput
from swapglow.records import edit_conflicts
from swapglow.records.models import Shop
from swapglow.records.steps import keep, recorded

router = Router(tags=["shop"])


@router.get("/shop", response=ShopAnswer)
def read(request: HttpRequest) -> ShopAnswer:
    """The habits as they are kept."""
    return _answer(Shop.own())


def _answer(shop: Shop) -> ShopAnswer:
    typed = shop.input
    return ShopAnswer(**typed.model_dump(), true_rms=typed.meter == TRUE_RMS)


@router.patch("/shop", response={200: ShopAnswer, 409: Problems, 422: Problems})
@decorate_view(saving)
def change(request: HttpRequest, data: ShopPatch) -> ShopAnswer:
    """Change the habits sent; every lamp's steps follow them."""
    shop = Shop.own()
    fields = sent(data)
    edit_conflicts.check(shop.inputs, fields, fields.pop("was", {}))
    require_units(ShopInput, fields)
    shop.join(fields)
    with recorded("", f"edit the shop's habits: {said(fields)}", f"shop:{touched(fields)}"):
        keep(shop)
    return _answer(shop)
