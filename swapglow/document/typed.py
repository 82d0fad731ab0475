"""Documents and records to the core's typed values, and nothing more.

A record and a document's part have the same fields; a kept quantity is a mapping or an object with
``text``, ``source`` and ``note``.
"""

from typing import Any

from swapglow.core.bench.meter import Reading
from swapglow.core.bench.taken import Taken, read_taken
from swapglow.core.position.typed import (
    Typed,
    TypedDriver,
    TypedLamp,
    TypedModule,
    TypedPosition,
    TypedRail,
    TypedSweep,
    read_reading,
)
from swapglow.core.quantities import Source


def typed(quantity: Any) -> Typed:
    """A kept quantity."""
    if isinstance(quantity, dict):
        return Typed(quantity["text"], Source(quantity["source"]), quantity.get("note", ""))
    return Typed(quantity.text, Source(quantity.source), quantity.note)


def typed_rail(rail: Any) -> TypedRail:
    """A kept rail."""
    return TypedRail(
        typed(rail.usual),
        typed(rail.low),
        typed(rail.high),
        "lamp" if rail.read_at == "lamp" else "feed",
        rail.kind,
        {name: typed(q) for name, q in rail.details.items()},
        rail.fuse,
    )


def typed_position(p: Any, rail: Any) -> TypedPosition:
    """A kept position with its rail."""
    return TypedPosition(
        rail=typed_rail(rail),
        led_id=p.led_id,
        target=typed(p.target),
        vf=typed(p.vf),
        rated=p.rated,
        in_series=p.in_series,
        driver=TypedDriver(
            p.driver_kind, typed(p.driver_drop), {name: typed(q) for name, q in p.driver_details.items()}
        ),
        ceiling=p.ceiling,
        series=p.series,
        rounding=p.rounding,
        resistor=p.resistor,
        resistor_parts=p.resistor_parts,
        resistor_source=Source(p.resistor_source),
        tolerance=p.tolerance,
        rating_w=p.rating_w,
        lamp=TypedLamp(p.lamp_id, p.lamp_volts, p.lamp_amps, p.lamp_candela, p.lamp_base),
        treatment=p.treatment,
        capacitor=p.capacitor,
        capacitor_v=p.capacitor_v,
        second_led_id=p.second_led_id,
        band=p.band,
        chassis_negative=p.chassis_negative,
        mains=p.mains,
        glow_floor=p.glow_floor,
        sweep=TypedSweep(p.sweep, p.sweep_in_series, p.sweep_resistor),
        branches=p.branches,
        lead=p.lead,
        common=p.common,
        shunt=p.shunt,
        shunt_across=p.shunt_across,
        shunt_w=p.shunt_w,
        series_diodes=p.series_diodes,
        regulator_id=p.regulator_id,
        module=_module(p.module),
    )


def _module(kept: Any) -> TypedModule:
    """A ready-made lamp, kept as a mapping of texts or as a document's part."""
    texts = kept if isinstance(kept, dict) else kept.model_dump()
    return TypedModule(**texts)


def core_reading(r: Any) -> Reading:
    """A kept reading after the swap."""
    return read_reading(str(r.id), r.kind, r.text, r.burden, r.note)


def core_taken(t: Any) -> Taken:
    """A kept reading before the swap."""
    return read_taken(
        str(t.id), t.function, t.text, points=t.points, lamp=t.lamp, state=t.state, meter=t.meter,
        true_rms=t.true_rms, note=t.note,
    )  # fmt: skip
