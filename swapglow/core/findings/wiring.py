"""Common wires, polarity of ready-made lamps, and regulators."""

from collections.abc import Iterable

import numpy as np

from swapglow.core.design.position import FREE_LEAD, LEADS, Lead, Position
from swapglow.core.design.rectification import usual_rectification, without_bridge
from swapglow.core.findings.alternating import rectify
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, rule
from swapglow.core.findings.remedies import fewer_in_series
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


@rule
def regulator_head(c: Context) -> Iterable[Finding]:
    """Whether a regulator has the head it needs, and what it may stand."""
    p, on, r = c.position, c.state("on"), c.position.regulator
    if r is None or on is None or c.solution is None:
        return
    low, out = float(on.lamp_v[0]), _out(c)
    need = out + r.dropout
    if low < need:
        yield Finding(
            "regulator-dropout", "mind",
            f"At the lowest rail it has {show(low, VOLT)} where it needs {show(need, VOLT)} to hold.",
            show(low, VOLT), show(need, VOLT),
            f"{show(out, VOLT)} and a dropout of {show(r.dropout, VOLT)}; below that it follows the rail.",
            fewer_in_series(c, 0.2),
        )  # fmt: skip
    # A source stands what is left over the LEDs; a fixed one all of its input against ground.
    highest = p.rail.volts[2] - p.drops[0]
    beside = 0.0 if r.kind == "fixed" else out
    surge = p.rail.supply.surge_v
    if highest - beside > r.most_v:
        seen = show(highest - beside, VOLT)
        yield Finding(
            "regulator-over-volts", "stop",
            f"The regulator sees {seen} at the highest rail; it may see {show(r.most_v, VOLT)}.",
            seen, show(r.most_v, VOLT), "Past that it breaks through, and the LED has the rail.",
        )  # fmt: skip
    elif surge is not None and surge - beside > r.most_v:
        yield Finding(
            "regulator-over-volts", "mind",
            f"In a surge of {show(surge, VOLT)} the regulator sees {show(surge - beside, VOLT)}; it may see "
            f"{show(r.most_v, VOLT)}.",
            show(surge - beside, VOLT), show(r.most_v, VOLT),
            "A suppressed load dump (ISO 16750-2; figures from memory) lasts some hundred milliseconds: a transient "
            "suppressor at the feed keeps it below.",
        )  # fmt: skip
    if r.kind == "source" and c.string_current_min * p.branches < r.least_a:
        yield Finding(
            "regulator-least-load", "mind",
            f"As a current source it holds from {show(r.least_a, AMPERE)} on; here it carries as little as "
            f"{show(c.string_current_min * p.branches, AMPERE)}.",
            show(c.string_current_min * p.branches, AMPERE), show(r.least_a, AMPERE),
            f"Its own working current runs through the LED too: below that the LED gets what the regulator takes, and "
            f"its adjust pin adds {show(r.adjust_a, AMPERE)}. A resistor, or a transistor source, does better.",
            (Remedy("no-regulator", "Take a resistor instead", {"regulator_id": "", "resistor_ohm": None}),),
        )  # fmt: skip


def _out(c: Context) -> float:
    """Volts that stand behind the regulator: what it holds, or what the LEDs and its set resistor take."""
    r, on = c.position.regulator, c.state("on")
    assert r is not None and on is not None
    return r.volts if r.kind == "fixed" else float(np.max(on.point.across("D1")[on.typical]))


@rule
def regulator_heat(c: Context) -> Iterable[Finding]:
    """(Vin − Vout)·I in a regulator, in free air or on a sink."""
    p, on = c.position, c.state("on")
    r = p.regulator
    if r is None or on is None:
        return
    high, out = float(on.lamp_v[2]), _out(c)
    amps = c.string_current_max * p.branches
    watts = max(0.0, high - out) * amps + (high * r.quiescent if r.kind == "fixed" else 0.0)
    k_w = r.sink_k_w if p.sink else r.heat_k_w
    junction = p.celsius + watts * k_w
    if junction > WARM_C:
        sunk = p.celsius + watts * r.sink_k_w
        helps = r.sink_k_w < r.heat_k_w and not p.sink
        yield Finding(
            "regulator-hot", "stop" if junction > MOST_C else "mind",
            f"The regulator burns {show(watts, WATT, 2)}: its junction comes to {show(junction, CELSIUS)}.",
            show(junction, CELSIUS), show(MOST_C if junction > MOST_C else WARM_C, CELSIUS),
            f"({show(high, VOLT)} − {show(out, VOLT)}) × {show(amps, AMPERE)}, {k_w:g} K/W "
            f"{'on a small heat sink' if p.sink else 'in free air'} at {p.celsius:g} °C"
            + (f"; on a small heat sink {show(sunk, CELSIUS)}" if helps else "")
            + ". More LEDs in series leave it less to burn.",
            (Remedy("heat-sink", "Put it on a heat sink", {"sink": True}),) if helps else (),
        )  # fmt: skip
    yield Finding(
        "regulator-pins", "note", f"{r.package}, {r.view}: {r.pins}.", r.package, "its data sheet",
        f"Pin order differs between families and packages: see the data sheet. {r.capacitors}, close to it.",
    )  # fmt: skip
