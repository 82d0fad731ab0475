"""Flashers and lamp watches: the current they miss, and what a load resistor costs in heat."""

from collections.abc import Iterable
from dataclasses import replace

from swapglow.core.analysis.load_resistor import HOT_C, LoadResistor, Watch, load_for, load_of, watch
from swapglow.core.analysis.original_lamp import original_volts
from swapglow.core.design.position import Position
from swapglow.core.findings.finding import Finding, Remedy
from swapglow.core.findings.registry import Context, rule
from swapglow.core.quantities import AMPERE, CELSIUS, OHM, WATT, show, times_text
from swapglow.core.quantities.part_heat import fails, part_celsius

# Flashes a minute that law allows a turn lamp (UN R48, FMVSS 108).
LEGAL_RATE = (60.0, 120.0)
# Over the old lamp's current by more than this is said; over it by the second it is a stop (ours).
MORE_THAN_OLD, MOST_OVER_OLD = 1.05, 1.5
_CARE = (
    "Bare metal, never plastic or trim; screws must not come out through the outer skin. Lamp colour, "
    "brightness, rate and approval are law on roads and differ by country."
)


def cool(p: Position) -> Remedy:
    """The cure that burns nothing."""
    return Remedy("cool", p.driver.kind.cool, {"driver.monitors_current": 0})


def load_remedy(p: Position, w: Watch) -> tuple[Remedy, ...]:
    """A load resistor that burns what is missing.

    Args:
        p: the swap.
        w: what its circuit wants and sees.

    Returns:
        The remedy; none where no part will do.
    """
    load = load_for(p, w)
    if load is None or load.rating_w is None or _wants_too_much(p, w):
        return ()
    changes: dict[str, float | str | None] = {
        "shunt_ohm": load.ohm,
        "shunt_across": "assembly",
        "shunt_w": load.rating_w,
    }
    return (Remedy("load-resistor", f"Put {_load_line(load)}", changes),)


def _wants_too_much(p: Position, w: Watch) -> bool:
    """Whether what it wants is more than the old lamp's wires were made for."""
    return p.lamp is not None and w.needs.value > MOST_OVER_OLD * p.lamp.amps_at(original_volts(p)) > 0


def _was_tried(w: Watch) -> bool:
    """Whether so little was seen to be too little."""
    return w.fails is not None and w.sees >= 0.999 * w.fails.value


def _try_first(w: Watch) -> str:
    """The trial that tells most, where the current at which it turns was not read."""
    return "" if w.exact else f"Try {show(w.try_next, AMPERE)} in all first: that halves what is not known. "


def _where(p: Position, w: Watch) -> str:
    """Why no load resistor is offered, where none is."""
    if load_remedy(p, w):
        return ""
    if _wants_too_much(p, w):
        return "No load is offered: it would draw over one and a half times what the old lamp did. "
    if p.driver.place == "plastic":
        return "On plastic no load resistor may sit. "
    return "Say where a load would sit: off bare metal no part here takes the heat. "


def _load_line(r: LoadResistor) -> str:
    rating = f"{r.rating_w:g} W" if r.rating_w else "more than one part"
    return (
        f"{show(r.ohm, OHM)} {rating} as load: {show(r.lit_w, WATT, 2)} while lit, {show(r.average_w, WATT, 2)} "
        f"on average, surface about {part_celsius(r.surface_c)}"
    )


@rule
def misses_current(c: Context) -> Iterable[Finding]:
    """The circuit takes the LED for a failed lamp."""
    on = c.state("on")
    w = None if on is None else watch(c.position, on)
    if w is None or w.missing <= 0:
        return
    p = c.position
    sees, enough = show(w.sees, AMPERE), show(w.needs.value, AMPERE)
    misses = p.driver.kind.misses
    if w.too_little:
        short = f"{sees} was tried and was too little" if _was_tried(w) else f"{sees} of the {enough} that it wants"
        message = f"It {misses}: {short}."
    else:
        least = show(w.least, AMPERE)
        message = f"It draws {sees}. {least} is too little and {enough} is enough: whether it {misses} is not known."
    yield Finding(
        "misses-current",
        "stop" if w.too_little else "mind",
        message,
        sees,
        enough,
        f"It counts current; {show(w.missing, AMPERE)} more is enough. {_try_first(w)}"
        "Two ways: one that does not count, or a load resistor that burns what is missing. Ours is the cool one first. "
        + _where(p, w)
        + _CARE,
        c.offer(lambda: (cool(p), *load_remedy(p, w))),
    )


@rule
def throttles(c: Context) -> Iterable[Finding]:
    """A ready-made lamp that turns itself down once warm may start the fast flash again."""
    p, on = c.position, c.state("on")
    m = p.module
    if m is None or on is None or m.throttle >= 1:
        return
    cold, warm = watch(p, on), watch(p, on, m.throttle)
    if cold is None or warm is None or cold.missing > 0 or warm.missing <= 0:
        return
    yield Finding(
        "throttles",
        "mind",
        f"After about {m.throttle_s:g} s it turns down to {m.throttle * 100:g} %: then "
        f"{show(warm.sees, AMPERE)} of {show(warm.needs.value, AMPERE)} is left, and it flashes fast.",
        show(warm.sees, AMPERE),
        show(warm.needs.value, AMPERE),
        "Cold it is content. Try it for a full minute before closing up.",
        (cool(p),),
    )


@rule
def draws_more_than_the_old_lamp(c: Context) -> Iterable[Finding]:
    """A load made lower and lower until it flashes right: what the old lamp drew is what its wires were made for."""
    p, on = c.position, c.state("on")
    if not p.driver.kind.watches or p.shunt_ohm is None or p.shunt_across != "assembly":
        return
    if p.lamp is None or on is None:
        return
    now, old = float(on.supply_amps[1]), p.lamp.amps_at(original_volts(p))
    if old <= 0 or now <= old * MORE_THAN_OLD:
        return
    over, was = now > old * MOST_OVER_OLD, show(old, AMPERE)
    yield Finding(
        "load-over-lamp",
        "stop" if over else "mind",
        f"With its load it draws {show(now, AMPERE)}: {times_text(now / old)} times the old lamp's {was}.",
        show(now, AMPERE),
        show(old * MOST_OVER_OLD, AMPERE) if over else was,
        f"The load burns {show(load_of(p, p.shunt_ohm).lit_w, WATT, 2)} while lit. Flasher, switch, fuse and wire "
        "carry more than they were made for. Go no lower: take a flasher that does not count, or find why it flashes "
        "fast.",
        (cool(p), Remedy("no-load", "Take the load resistor out", {"shunt_ohm": None})),
        "Take a larger load resistor first." if over else "",
    )


@rule
def load_runs_hot(c: Context) -> Iterable[Finding]:
    """A load resistor's heat, where it sits, with all the others there."""
    p, d = c.position, c.position.driver
    if not d.kind.watches or p.shunt_ohm is None or p.shunt_across != "assembly":
        return
    r = load_of(p, p.shunt_ohm)
    if r.surface_c <= HOT_C:
        return
    many = f"{d.there} of them in one space make {show(r.average_w * d.there, WATT, 2)}. " if d.there > 1 else ""
    plastic = d.place == "plastic"
    yield Finding(
        "load-hot",
        "stop" if plastic or fails(r.surface_c) or (d.there > 1 and d.place == "closed") else "mind",
        f"The load resistor's surface comes to about {part_celsius(r.surface_c)}"
        + (" on plastic." if plastic else "."),
        part_celsius(r.surface_c),
        show(HOT_C, CELSIUS),
        f"{show(r.lit_w, WATT, 2)} while lit, {show(r.average_w, WATT, 2)} on average. {many}It burns skin and "
        f"softens plastic. {_CARE}",
        (
            replace(cool(p), changes={**cool(p).changes, "shunt_ohm": None}),
            Remedy("no-load", "Take the load resistor out", {"shunt_ohm": None}),
        ),
        "Take the load resistor off the plastic first." if plastic else "",
    )


@rule
def outside_the_law(c: Context) -> Iterable[Finding]:
    """A flash rate outside what turn lamps may have."""
    rate = c.position.driver.rate
    if rate is None or LEGAL_RATE[0] <= rate <= LEGAL_RATE[1]:
        return
    yield Finding(
        "flash-rate",
        "mind",
        f"{rate:g} flashes a minute is outside what a turn lamp may have.",
        f"{rate:g} a minute",
        "60 to 120 a minute",
        "UN R48 and FMVSS 108; local codes come first.",
    )
