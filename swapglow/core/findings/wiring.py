"""Common wires, and polarity of ready-made lamps."""

from collections.abc import Iterable

from swapglow.core.design.position import LEADS, Lead, Position
from swapglow.core.design.rectification import usual_rectification, without_bridge
from swapglow.core.findings.alternating import rectify
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, rule


@rule
def resistor_in_the_common_wire(c: Context) -> Iterable[Finding]:
    """One resistor in the wire that other lamps share."""
    p = c.position
    free = p.free_lead
    if free is None or p.module is not None or p.set_by_ohms:
        return
    if p.resistor_parts == 1 and p.lead == free:
        return
    shared = next(lead for lead in LEADS if lead != free)
    wire = "The chassis" if p.common == "chassis" else f"The {shared} wire"
    yield Finding(
        "resistor-in-common",
        "mind",
        f"{wire} is common with other lamps; the resistor sits on that side.",
        f"{shared} lead",
        f"{free} lead",
        "The current is the same in either lead, but there the next lamp's current would run through it "
        "too, and a lead that touches the frame bridges it. Put it in the lead that is not common.",
        (move_to(free),),
    )


@rule
def pole_on_the_frame(c: Context) -> Iterable[Finding]:
    """Which pole of a steady supply is on the frame, where the way round goes by that."""
    p = c.position
    supply = p.rail.supply
    if supply.alternates or not supply.kind.asks_pole:
        return
    if supply.pole == "unknown" and p.common == "chassis":
        yield Finding(
            "frame-unread",
            "mind",
            "The chassis is a wire of this lamp, and nobody has read which pole it is.",
            "not read",
            "minus, plus or neither",
            "Black lead on the frame, red on the feed: a minus sign is plus on the frame. Until then neither lead is "
            "the lamp's own.",
        )
    if supply.pole != "plus":
        return
    if p.chassis_negative:
        yield Finding(
            "negative-on-plus",
            "stop",
            "The frame is plus here, and the LED's negative touches it.",
            "minus on plus",
            "its plus on the frame",
            "It is turned round, or the feed is shorted through its case. Off the frame, or its plus there.",
            (Remedy("off-frame", "Keep the LED's negative off the frame", {"chassis_negative": False}),),
            "Take the LED's negative off the frame first.",
        )
    if p.by_frame:
        yield Finding(
            "plus-on-frame",
            "note",
            "The frame is plus here: the LED's plus goes to the shell, its minus to the feed.",
            "plus",
            "minus is usual",
            "Ready-made lamps for a minus frame stay dark in it or are spoilt: turn the holder's wires, or take one "
            "that lights either way round.",
        )


def move_to(lead: Lead) -> Remedy:
    """The resistor in one lead, worked out anew."""
    changes = {"lead": lead, "resistor_parts": 1, "resistor_ohm": None}
    return Remedy("other-lead", f"Put it in the {lead} lead", changes)


@rule
def turned_module(c: Context) -> Iterable[Finding]:
    """A ready-made lamp that lights one way round only."""
    p, m = c.position, c.position.module
    if m is None or not m.polarised:
        return
    if p.rail.supply.alternates:
        if p.rectification.diodes:
            yield Finding(
                "module-polarised",
                "note",
                "It lights one way round only: its plus to the rectifier's.",
                "polarised",
                "either way round",
                p.rectification.polarity,
            )
            return
        yield Finding(
            "module-in-reverse",
            "mind",
            "It lights one way round only, and this supply turns round.",
            "polarised",
            "either way round",
            "Half the time it is in reverse: a bridge before it, or one sold for AC.",
            _rectified(p),
        )
        return
    yield Finding(
        "module-polarised",
        "note",
        "It lights one way round only: turn it if it stays dark.",
        "polarised",
        "either way round",
        "A bayonet or wedge goes in both ways.",
    )


def _rectified(p: Position) -> tuple[Remedy, ...]:
    """The ways to rectify that suit the supply, ours first."""
    waveform = p.rail.supply.waveform
    ours = usual_rectification(waveform)
    return tuple(rectify(way) for way in dict.fromkeys((ours, without_bridge(waveform))))
