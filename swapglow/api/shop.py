"""The shop's habits."""

from django.http import HttpRequest
from ninja import Router
from ninja.decorators import decorate_view

from swapglow.api.equipment import said
from swapglow.api.saving import saving
from swapglow.api.schemas import Problems, ShopPatch
from swapglow.inputs.named import check_named
from swapglow.inputs.patch import sent, touched
from swapglow.inputs.shop import ShopInput
from swapglow.records import meanwhile
from swapglow.records.models import Shop
from swapglow.records.steps import keep, recorded

router = Router(tags=["shop"])


@router.get("/shop", response=ShopInput)
def read(request: HttpRequest) -> ShopInput:
    """The habits as they stand."""
    return Shop.own().input


@router.patch("/shop", response={200: ShopInput, 409: Problems, 422: Problems})
@decorate_view(saving)
def change(request: HttpRequest, data: ShopPatch) -> ShopInput:
    """Change the habits sent; every lamp's steps follow them."""
    shop = Shop.own()
    fields = sent(data)
    meanwhile.check(shop.inputs, fields, fields.pop("was", {}))
    check_named(ShopInput, fields)
    shop.join(fields)
    with recorded("", f"edit the shop's habits: {said(fields)}", f"shop:{touched(fields)}"):
        keep(shop)
    return shop.input
