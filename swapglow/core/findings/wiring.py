"""Common wires, and polarity of ready-made lamps."""

from collections.abc import Iterable

from swapglow.core.design.position import FREE_LEAD, LEADS, Lead, Position
from swapglow.core.design.rectification import usual_rectification, without_bridge
from swapglow.core.findings.alternating import rectify
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, rule


@rule
def resistor_in_the_common_wire(c: Context) -> Iterable[Finding]:
    """One resistor in the wire that other lamps share."""
    p = c.position
    free = FREE_LEAD.get(p.common)
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
        f"{shared} lead", f"{free} lead",
        "The current is the same in either lead, but there the next lamp's current would run through it "
        "too, and a lead that touches the frame bridges it. Put it in the lead that is not common.",
        (move_to(free),),
    )  # fmt: skip


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
                "module-polarised", "note", "It lights one way round only: its plus to the rectifier's.",
                "polarised", "either way round", p.rectification.polarity,
            )  # fmt: skip
            return
        yield Finding(
            "module-in-reverse", "mind", "It lights one way round only, and this supply turns round.",
            "polarised", "either way round", "Half the time it is in reverse: a bridge before it, or one sold for AC.",
            _rectified(p),
        )  # fmt: skip
        return
    yield Finding(
        "module-polarised", "note", "It lights one way round only: turn it if it stays dark.",
        "polarised", "either way round", "A bayonet or wedge goes in both ways.",
    )  # fmt: skip


def _rectified(p: Position) -> tuple[Remedy, ...]:
    """The ways to rectify that suit the supply, ours first."""
    waveform = p.rail.supply.waveform
    ours = usual_rectification(waveform)
    return tuple(rectify(way) for way in dict.fromkeys((ours, without_bridge(waveform))))
