"""Regulators: the head they need, what they may stand, their heat, their pins; on a steady rail and over a cycle."""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from swapglow.core.design.changes import exposes_crest
from swapglow.core.design.rectification import RECTIFICATIONS
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, rule
from swapglow.core.findings.remedies import fewer_in_series
from swapglow.core.quantities import AMPERE, CELSIUS, VOLT, WATT, show
from swapglow.core.quantities.part_heat import part_celsius

# A regulator's junction, most and with a margin (data sheets, from memory).
MOST_C = 125.0
WARM_C = 85.0


@dataclass(frozen=True)
class _Head:
    """What a regulator has.

    Attributes:
        low: least volts before it at the lowest rail; in the valley of the ripple where there is one.
        out: volts that stand behind it: what it holds, or what the LEDs take.
        sees: most volts it must stand: a fixed one against ground, a source across itself.
        watts: its heat, at most.
        how: where the heat comes from.
    """

    low: float
    out: float
    sees: float
    watts: float
    how: str


def _head(c: Context) -> _Head | None:
    p, on, r, s = c.position, c.state("on"), c.position.regulator, c.solution
    if r is None or s is None:
        return None
    fixed = r.kind == "fixed"
    if s.ac is not None and s.ac.regulator is not None and s.ac.typical.regulator is not None:
        found = s.ac.regulator
        out = r.volts if fixed else float(s.ac.drawn.string.max())
        # Without a load the crest stands there whole.
        sees = p.rail.peaks[2] - (0.0 if fixed else out)
        low = float(s.ac.typical.regulator.least[0])
        return _Head(low, out, sees, float(found.watts.max()), "mean over the cycle of volts times amps")
    if on is None:
        return None
    out = r.volts if fixed else float(np.max(on.point.across("D1")[on.typical]))
    high, amps = float(on.lamp_v[2]), c.string_current_max * p.branches
    watts = max(0.0, high - out) * amps + (high * r.quiescent if fixed else 0.0)
    highest = p.rail.volts[2] - p.drops[0]
    how = f"({show(high, VOLT)} − {show(out, VOLT)}) × {show(amps, AMPERE)}"
    return _Head(float(on.lamp_v[0]), out, highest - (0.0 if fixed else out), watts, how)


@rule
def regulator_head(c: Context) -> Iterable[Finding]:
    """Whether a regulator has the head it needs, and what it may stand."""
    p, r, head = c.position, c.position.regulator, _head(c)
    if r is None or head is None:
        return
    need = head.out + r.dropout
    pulsating = p.rail.supply.alternates and not p.rectification.reservoir
    if pulsating:
        yield Finding(
            "regulator-pulsating",
            "mind",
            "Without a capacitor before it the regulator starves between the crests: it holds for part of the cycle.",
            "no capacitor",
            "a reservoir",
            f"{show(need, VOLT)} are needed all the time. A rectifier with a capacitor gives them, or a resistor alone "
            "does as well.",
            c.offer(lambda: _with_capacitor(c)),
        )
    elif head.low < need:
        begin = "Between the crests at the lowest rail" if p.rail.supply.alternates else "At the lowest rail"
        yield Finding(
            "regulator-dropout",
            "mind",
            f"{begin} it has {show(head.low, VOLT)} where it needs {show(need, VOLT)} to hold.",
            show(head.low, VOLT),
            show(need, VOLT),
            f"{show(head.out, VOLT)} and a dropout of {show(r.dropout, VOLT)}; below that it follows the rail.",
            fewer_in_series(c, 0.2),
        )
    surge = p.rail.supply.surge_v
    beside = 0.0 if r.kind == "fixed" else head.out
    if head.sees > r.most_v:
        seen = show(head.sees, VOLT)
        yield Finding(
            "regulator-over-volts",
            "stop",
            f"The regulator sees {seen} at the highest rail; it may see {show(r.most_v, VOLT)}.",
            seen,
            show(r.most_v, VOLT),
            "Past that it breaks through, and the LED has the rail.",
        )
    elif surge is not None and surge - beside > r.most_v:
        yield Finding(
            "regulator-over-volts",
            "mind",
            f"In a surge of {show(surge, VOLT)} the regulator sees {show(surge - beside, VOLT)}; it may see "
            f"{show(r.most_v, VOLT)}.",
            show(surge - beside, VOLT),
            show(r.most_v, VOLT),
            "A suppressed load dump (ISO 16750-2; figures from memory) lasts some hundred milliseconds: a transient "
            "suppressor at the feed keeps it below.",
        )
    yield from _least_load(c)


def _with_capacitor(c: Context) -> tuple[Remedy, ...]:
    """The same rectifier with a capacitor after it, where there is one and its volts are none to fear."""
    p = c.position
    own, waveform = p.rectification, p.rail.supply.waveform
    ways = (w for w in RECTIFICATIONS.values() if w.reservoir and w.topology == own.topology and waveform in w.suits)
    way = next(ways, None)
    if way is None or exposes_crest(p, {"rectification_id": way.id}):
        return ()
    return (Remedy("capacitor", f"Fit {way.label.lower()}", {"rectification_id": way.id, "resistor_ohm": None}),)


def _least_load(c: Context) -> Iterable[Finding]:
    p, r = c.position, c.position.regulator
    if r is not None and r.kind == "source" and c.string_current_min * p.branches < r.least_a:
        yield Finding(
            "regulator-least-load",
            "mind",
            f"As a current source it holds from {show(r.least_a, AMPERE)} on; here it carries as little as "
            f"{show(c.string_current_min * p.branches, AMPERE)}.",
            show(c.string_current_min * p.branches, AMPERE),
            show(r.least_a, AMPERE),
            f"Its own working current runs through the LED too: below that the LED gets what the regulator takes, and "
            f"its adjust pin adds {show(r.adjust_a, AMPERE)}. A resistor, or a transistor source, does better.",
            (Remedy("no-regulator", "Take a resistor instead", {"regulator_id": "", "resistor_ohm": None}),),
        )


@rule
def regulator_heat(c: Context) -> Iterable[Finding]:
    """(Vin − Vout)·I in a regulator, in free air or on a sink."""
    p, r, head = c.position, c.position.regulator, _head(c)
    if r is None or head is None:
        return
    watts = head.watts
    k_w = r.sink_k_w if p.sink else r.heat_k_w
    junction = p.celsius + watts * k_w
    if junction > WARM_C:
        sunk = p.celsius + watts * r.sink_k_w
        helps = r.sink_k_w < r.heat_k_w and not p.sink
        yield Finding(
            "regulator-hot",
            "stop" if junction > MOST_C else "mind",
            f"The regulator burns {show(watts, WATT, 2)}: its junction comes to {part_celsius(junction)}.",
            part_celsius(junction),
            show(MOST_C if junction > MOST_C else WARM_C, CELSIUS),
            f"{head.how}, {k_w:g} K/W "
            f"{'on a small heat sink' if p.sink else 'in free air'} at {p.celsius:g} °C"
            + (f"; on a small heat sink {part_celsius(sunk)}" if helps else "")
            + ". More LEDs in series leave it less to burn.",
            (Remedy("heat-sink", "Put it on a heat sink", {"sink": True}),) if helps else (),
        )
    yield Finding(
        "regulator-pins",
        "note",
        f"{r.package}, {r.view}: {r.pins}.",
        r.package,
        "its data sheet",
        f"Pin order differs between families and packages: see the data sheet. {r.capacitors}, close to it.",
    )
