"""Devices beside the bench: sharing it, pairing, taking away, links to a card; and what a device asks of itself."""

from uuid import UUID

import segno
from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from swapglow import __version__
from swapglow.api.plain import refusal
from swapglow.api.schemas import (
    CardLinkOut,
    DeviceIn,
    DeviceOut,
    DevicesOut,
    LinkIn,
    Me,
    NewLinkOut,
    OfferIn,
    OfferOut,
    PairIn,
    Problems,
    ShareIn,
    SharingOut,
)
from swapglow.api.svg import drawn
from swapglow.core.quantities import InputError
from swapglow.devices import door, pairing, rates
from swapglow.devices.door import DoorError
from swapglow.devices.models import CardLink, Device
from swapglow.devices.visitor import COOKIES, Visitor, visitor_of
from swapglow.records.models import Position

router = Router(tags=["devices"])

# The most that browsers keep a cookie; the bench itself forgets a device that it does not see much sooner.
COOKIE_S = 400 * 24 * 3600


@router.get("/devices", response=DevicesOut)
def read(request: HttpRequest) -> DevicesOut:
    """Whether the bench is shared, the pairing that was begun, and every device and link that may come in."""
    return DevicesOut(
        sharing=_sharing(),
        offer=_offer(pairing.offered()),
        devices=[_device(d) for d in Device.objects.filter(taken_away=None)],
        links=[CardLinkOut(id=each.pk, name=each.name) for each in CardLink.objects.filter(taken_away=None)],
    )


def _sharing() -> SharingOut:
    return SharingOut(on=door.is_open(), plain=door.is_plain(), urls=door.urls(), fingerprint=door.fingerprint())


def _device(d: Device) -> DeviceOut:
    return DeviceOut(id=d.pk, name=d.name, may_write=d.may_write, seen=d.seen.isoformat(), expired=d.expired)


def _offer(offer: pairing.Offer | None) -> OfferOut | None:
    if offer is None or not door.urls():
        return None
    url = pair_url(offer)
    return OfferOut(
        url=url,
        code=drawn(segno.make_qr(url), 6),
        digits=offer.digits,
        seconds=round(offer.left_s),
        may_write=offer.may_write,
    )


def pair_url(offer: pairing.Offer) -> str:
    """The address that a phone opens to be paired. The secret is after "#": browsers do not send that part."""
    return f"{door.urls()[0]}/pair#{offer.ticket}"


@router.post("/devices/share", response={200: SharingOut, 422: Problems})
def share(request: HttpRequest, data: ShareIn) -> SharingOut:
    """Answer other devices from now on, or no more. Devices stay paired."""
    if data.on:
        _open(plain=data.plain)
    else:
        pairing.withdraw()
        door.shut_door()
    return _sharing()


def _open(*, plain: bool) -> None:
    try:
        door.open_door(plain=plain)
    except DoorError as problem:
        raise InputError("share", str(problem)) from None


@router.post("/devices/offer", response={200: OfferOut, 422: Problems})
def begin(request: HttpRequest, data: OfferIn) -> OfferOut:
    """Begin a pairing: a code to scan and six digits, for a few minutes. The bench is shared from now on."""
    # As it is shared already, or with TLS; at other addresses where the network has changed.
    _open(plain=door.is_plain())
    made = _offer(pairing.offer(may_write=data.may_write))
    assert made is not None
    return made


@router.delete("/devices/offer", response={204: None})
def withdraw(request: HttpRequest) -> Status[None]:
    """End the pairing that was begun."""
    pairing.withdraw()
    return Status(204, None)


@router.post("/devices/links", response={200: NewLinkOut, 404: Problems, 422: Problems})
def link(request: HttpRequest, data: LinkIn) -> NewLinkOut:
    """Make a link to one lamp's card. Its address is shown only now."""
    lamp = get_object_or_404(Position.objects.select_related("equipment"), pk=data.position)
    _open(plain=door.is_plain())
    name = f"{lamp.input.name}, {lamp.equipment.input.name}"[:60]
    _, token = CardLink.issue(name=name, position=lamp.pk)
    url = f"{door.urls()[0]}/look/{token}"
    return NewLinkOut(url=url, code=drawn(segno.make_qr(url), 6))


@router.delete("/devices/links/{key}", response={204: None, 404: Problems})
def unlink(request: HttpRequest, key: UUID) -> Status[None]:
    """Take a link back."""
    get_object_or_404(CardLink, pk=key).take_away()
    return Status(204, None)


@router.patch("/devices/{key}", response={200: DeviceOut, 404: Problems, 422: Problems})
def change(request: HttpRequest, key: UUID, data: DeviceIn) -> DeviceOut:
    """Change what a device may do."""
    d = get_object_or_404(Device, pk=key, taken_away=None)
    d.may_write = data.may_write
    d.save(update_fields=["may_write"])
    return _device(d)


@router.delete("/devices/{key}", response={204: None, 404: Problems})
def take_away(request: HttpRequest, key: UUID) -> Status[None]:
    """Refuse a device from now on."""
    get_object_or_404(Device, pk=key).take_away()
    return Status(204, None)


@router.get("/me", response=Me)
def me(request: HttpRequest) -> Me:
    """Whom the bench takes this page for."""
    return _me(visitor_of(request))


def _me(visitor: Visitor) -> Me:
    return Me(
        at_the_bench=visitor.at_the_bench,
        paired=visitor.device is not None,
        may_write=visitor.may_write,
        device=visitor.device.name if visitor.device else "",
        demo=settings.DEMO,
        version=__version__,
        news=settings.NEWS if visitor.at_the_bench else [],
    )


@router.post("/pair", response={200: Me, 410: Problems, 422: Problems, 429: Problems})
def pair(request: HttpRequest, data: PairIn) -> HttpResponse | Me:
    """Let this device in, by the code that was scanned and the six digits on the bench's screen."""
    if visitor_of(request).at_the_bench:
        raise InputError("digits", "This is the bench itself: it needs no pairing.")
    if not rates.allowed(rates.PAIRINGS, "all"):
        return refusal(429, "Too many tries at pairing. Wait a minute, then try again.")
    try:
        device, token = pairing.pair(data.ticket, data.digits, data.name)
    except pairing.PairingError as problem:
        if problem.over:
            return refusal(410, str(problem))
        raise InputError("digits", str(problem)) from None
    paired = _me(Visitor(device=device, at_the_bench=False))
    answer = HttpResponse(paired.model_dump_json().encode(), "application/json")
    secure = request.is_secure()
    answer.set_cookie(
        COOKIES[secure], token, max_age=COOKIE_S, secure=secure, httponly=True, samesite="Strict", path="/"
    )
    return answer


def linked(token: str) -> Position:
    """The lamp whose card a link shows.

    Raises:
        Http404: there is no such link, it was taken back, or the lamp is gone.
    """
    known = CardLink.known(token)
    if known is None:
        raise Http404
    return get_object_or_404(Position.objects.select_related("rail", "equipment"), pk=known.position)
