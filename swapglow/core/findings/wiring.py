"""Common wires, polarity of ready-made lamps, and regulators."""

from collections.abc import Iterable

import numpy as np

from swapglow.core.design.position import FREE_LEAD, LEADS, Lead
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, rule
from swapglow.core.quantities import AMPERE, CELSIUS, VOLT, WATT, show

# A regulator's junction, most and with a margin (data sheets, from memory).
MOST_C = 125.0
WARM_C = 85.0


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
    m = c.position.module
    if m is None or not m.polarised:
        return
    if c.position.rail.supply.alternates:
        yield Finding(
            "module-polarised", "mind", "It lights one way round only, and this supply turns round.",
            "polarised", "either way round", "Half the time it is in reverse: a bridge before it, or one sold for AC.",
        )  # fmt: skip
        return
    yield Finding(
        "module-polarised", "note", "It lights one way round only: turn it if it stays dark.",
        "polarised", "either way round", "A bayonet or wedge goes in both ways.",
    )  # fmt: skip


@rule
def regulator_heat(c: Context) -> Iterable[Finding]:
    """(Vin − Vout)·I in a regulator, and whether it has the head it needs."""
    p, on = c.position, c.state("on")
    r = p.regulator
    if r is None or on is None:
        return
    low, high = float(on.lamp_v[0]), float(on.lamp_v[2])
    amps = c.string_current_max * p.branches
    string = float(np.max(on.point.across("D1")[on.typical]))
    out = r.volts if r.kind == "fixed" else string
    need = out + r.dropout
    watts = max(0.0, high - out) * (amps + r.quiescent)
    junction = p.celsius + watts * r.heat_k_w
    if low < need:
        yield Finding(
            "regulator-dropout", "mind",
            f"At the lowest rail it has {show(low, VOLT)} where it needs {show(need, VOLT)} to hold.",
            show(low, VOLT), show(need, VOLT),
            f"{show(out, VOLT)} and a dropout of {show(r.dropout, VOLT)}; below that it follows the rail.",
        )  # fmt: skip
    if junction > WARM_C:
        yield Finding(
            "regulator-hot", "stop" if junction > MOST_C else "mind",
            f"The regulator burns {show(watts, WATT, 2)}: its junction comes to {show(junction, CELSIUS, 2)}.",
            show(junction, CELSIUS, 2), show(WARM_C, CELSIUS),
            f"({show(high, VOLT)} − {show(out, VOLT)}) × {show(amps, AMPERE)}, {r.heat_k_w:g} K/W in free air. "
            "A heat sink, or more LEDs in series.",
        )  # fmt: skip
    yield Finding(
        "regulator-pins", "note", f"{r.package}, {r.view}: {r.pins}.", r.package, "its data sheet",
        f"Pin order differs between families and packages: see the data sheet. {r.capacitors}, close to it.",
    )  # fmt: skip
