"""The faults a lamp may have, each at the sizes it comes in."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np

from swapglow.core.analysis.solution import Solution
from swapglow.core.design.branch import MOST_BESIDE, Branch
from swapglow.core.design.changes import with_changes
from swapglow.core.design.position import Position
from swapglow.core.measurement.reading_after import ReadingAfter, ReadingKind
from swapglow.core.network.fault import OPEN_OHM, Fault
from swapglow.core.network.filaments import COLD_SHARE
from swapglow.core.parts import led as leds
from swapglow.core.parts.led import MOST_IN_SERIES
from swapglow.core.quantities import OHM, VOLT, Unit, show
from swapglow.core.values import preferred

# Ours: how often each is what was wrong, beside a turned LED's three (common practice says which are frequent and
# which are not; the figures are our own).
PRIOR: Mapping[str, float] = {
    "led-reversed": 3.0,
    "led-open": 1.0,
    "led-short": 1.0,
    "other-vf": 1.5,
    "string-count": 1.0,
    "joint": 3.0,
    "wrong-decade": 1.5,
    "wrong-value": 2.0,
    "contact": 2.0,
    "ground": 1.0,
    "not-enabled": 2.0,
    "other-rail": 2.5,
    "lamp-in": 1.0,
    "neighbour": 0.7,
    "keep-warm": 1.0,
    "meter-burden": 1.5,
    "meter-fuse": 1.5,
    "probe-side": 1.5,
    "spread": 0.5,
}

# Where each would sit on the staircase, by the kind of its step.
AT: Mapping[str, tuple[str, ...]] = {
    "led-reversed": ("led", "inside"),
    "led-open": ("led", "inside"),
    "led-short": ("led", "inside"),
    "other-vf": ("led",),
    "string-count": ("led",),
    "joint": ("resistor", "led"),
    "wrong-decade": ("resistor",),
    "wrong-value": ("resistor",),
    "contact": ("driver", "feed"),
    "ground": ("ground",),
    "not-enabled": ("driver", "feed"),
    "other-rail": ("rail",),
    "keep-warm": ("driver",),
    "probe-side": ("resistor",),
}

# A meter's shunt and fuse in a microamp range reach a few hundred ohms (common practice).
LARGEST_BURDEN_OHM = 500.0
# What a rail that is off still reads.
_OFF = 1e-4
# LEDs that are taken for one another.
_KINDS = ("red-5-diffused", "lime-5-diffused", "white-5-clear")
# Where a grid is laid over a size that may be anything, so many places; where each is a cycle to solve, the few.
_PLACES, _FEW = 12, 6


@dataclass(frozen=True)
class Suspect:
    """One fault at one size.

    Attributes:
        id: which fault.
        message: what it is, with a place for its size where it has one.
        weight: its share of how often that fault comes.
        position: the lamp as it would then be.
        rail, ohms: share of the usual rail, and of the string's resistance, that is there.
        fault: what is wrong in the wires.
        burden: more that the meter adds to a current's loop, Ω.
        size, unit: what is said of its size, None where it has none to say.
        spread: how far its size may be from this place of the grid, one sigma, as a share.
        wide: how many times the typed spread rail, LED and resistor may have.
        reads: what a reading shows in place of its kind, by the reading's key; "nothing" for a meter that is open.
    """

    id: str
    message: str
    weight: float
    position: Position
    rail: float = 1.0
    ohms: float = 1.0
    fault: Fault = field(default_factory=Fault)
    burden: float = 0.0
    size: float = 0.0
    unit: Unit | None = None
    spread: float = 0.0
    wide: float = 1.0
    reads: Mapping[str, str] = field(default_factory=dict)


def one_string(s: Solution) -> Position:
    """The lamp with one of its equal strings on its own, where the others can stand beside it.

    Args:
        s: the solved position.

    Returns:
        The same circuit; the position itself where that cannot be drawn.
    """
    p = s.position
    fixed = p.module is not None or p.set_by_ohms or (p.shunt_ohm is not None and p.shunt_across == "leds")
    if p.branches == 1 or fixed or len(p.beside) >= MOST_BESIDE:
        return p
    others = Branch(
        "the others",
        p.led,
        p.target.value,
        p.in_series,
        p.branches - 1,
        s.sizing.total_ohm,
        diodes=p.series_diodes,
        second=p.second_led,
    )
    return replace(p, branches=1, beside=(*p.beside, others))


def suspects(s: Solution, readings: tuple[ReadingAfter, ...]) -> tuple[Suspect, ...]:
    """All that may be wrong with a fitted lamp.

    Args:
        s: the solved position.
        readings: those taken, which name what a meter may have done wrong.

    Returns:
        Each fault at the sizes it comes in; the first is a lamp with nothing wrong in it.
    """
    p = one_string(s)
    off = any(r.state != "on" for r in readings)
    return (
        Suspect("fine", "Nothing is wrong.", 1.0, p),
        _one("spread", "Nothing broken: rail, LED and resistor lie further apart than is typed.", p, wide=3.0),
        *_of_the_led(p),
        *_of_the_resistor(s, p),
        *_of_the_wires(s, p, off),
        *_of_the_rail(s, p),
        *_of_the_meter(p, readings),
    )


def _one(name: str, message: str, position: Position, share: float = 1.0, **how: Any) -> Suspect:
    """A fault at one of its sizes, ``share`` of how often it comes."""
    return Suspect(name, message, PRIOR[name] * share, position, **how)


def _shared(sizes: Iterable[float]) -> tuple[list[float], float, float]:
    """A grid's places, each one's share, and how far a size may be from its place, as a share."""
    grid = list(sizes)
    step = float(np.log(grid[-1] / grid[0]) / (len(grid) - 1)) if len(grid) > 1 else 0.0
    return grid, 1 / max(len(grid), 1), 0.4 * step


def _places(p: Position) -> int:
    return _FEW if p.rail.supply.alternates else _PLACES


def _of_the_led(p: Position) -> Iterable[Suspect]:
    if p.module is None or p.module.polarised:
        what = "One LED is" if p.in_series > 1 else "The LED is"
        yield _one("led-reversed", f"{what} turned round.", p, fault=Fault(led="turned"))
    yield _one("led-open", "An LED is open: its bond or its lead has gone.", p, fault=Fault(led="open"))
    if p.module is not None:
        return
    if p.in_series == 1:
        yield _one("led-short", "The LED is shorted.", p, fault=Fault(led="short"))
    counts = {
        p.in_series - 1: "One LED of the string is shorted",
        p.in_series + 1: "There is one LED more in the string",
    }
    for count, word in counts.items():
        if 1 <= count <= MOST_IN_SERIES:
            string = with_changes(p, {"in_series": count})
            yield _one("string-count", f"{word}: {count} in series.", string, 0.5)
    known = leds.catalogue()
    others = [known[k] for k in _KINDS if k in known and abs(known[k].vf_typ - p.led.vf_typ) > 0.3]
    for other in others:
        yield _one(
            "other-vf",
            f"The LED is another kind, of about {show(other.vf_typ, VOLT)} and not {show(p.led.vf_typ, VOLT)}.",
            with_changes(p, {"led_id": other.id}),
            1 / len(others),
        )


def _of_the_resistor(s: Solution, p: Position) -> Iterable[Suspect]:
    fitted = s.sizing.total_ohm
    if p.bare and (s.sizing.exact_ohm is None or p.resistor_ohm == 0):
        return
    for factor, word in ((10.0, "ten times"), (0.1, "a tenth of")):
        yield _one(
            "wrong-decade",
            f"A resistor of {word} the value is fitted, {show(s.sizing.each_ohm * factor, OHM)}: one "
            "multiplier band off.",
            p,
            1 / 2,
            ohms=factor,
        )
    near = preferred.values("E12", s.sizing.each_ohm / 5, s.sizing.each_ohm * 5)
    least = p.resistor_tolerance + 0.02
    others = [float(v) for v in near if abs(v / s.sizing.each_ohm - 1) > least]
    # The next value is the likelier slip.
    weight = np.array([1 / (0.3 + abs(np.log(v / s.sizing.each_ohm))) for v in others])
    for value, share in zip(others, weight / weight.sum(), strict=True):
        yield _one(
            "wrong-value",
            f"{show(value, OHM)} is fitted in place of {show(s.sizing.each_ohm, OHM)}.",
            p,
            float(share),
            ohms=value / s.sizing.each_ohm,
        )
    yield _one("joint", "A joint in the string has let go.", p, 0.6, fault=Fault(string=OPEN_OHM))
    sizes, share, spread = _shared(np.geomspace(max(0.1 * fitted, 1.0), 20 * fitted, _places(p)))
    for ohm in sizes:
        yield _one(
            "joint",
            "A joint in the string adds about {}.",
            p,
            0.4 * share,
            fault=Fault(string=ohm),
            spread=spread,
            size=ohm,
            unit=OHM,
        )


def _of_the_wires(s: Solution, p: Position, off: bool) -> Iterable[Suspect]:
    """Contact, ground, and what hangs beside the lamp."""
    low_side, alternates = p.driver.kind.side == "low", p.rail.supply.alternates
    fitted = s.sizing.total_ohm / s.position.branches
    sizes, share, spread = _shared(np.geomspace(max(0.1 * fitted, 1.0), 20 * fitted, _places(p)))

    def in_its_wire(ohm: float) -> Fault:
        # Under the lamp where the driver is; over a cycle either wire is the same.
        return Fault(minus=ohm) if low_side and not alternates else Fault(plus=ohm)

    touches = "A contact that only touches with the covers off."
    yield _one("contact", touches, p, 1 / 2, fault=in_its_wire(OPEN_OHM))
    for ohm in sizes:
        dirty = in_its_wire(ohm)
        yield _one(
            "contact", "A dirty contact: about {}.", p, share / 2, fault=dirty, spread=spread, size=ohm, unit=OHM
        )
    if not low_side and not alternates:
        for ohm in sizes:
            yield _one(
                "ground",
                "The way back is poor, about {}: paint under the frame's screw, a loose ground.",
                p,
                share,
                fault=Fault(minus=ohm),
                spread=spread,
                size=ohm,
                unit=OHM,
            )
    if p.lamp is not None:
        ohm = p.lamp.volts / p.lamp.amps
        for level in (COLD_SHARE, 0.4, 0.8):
            yield _one(
                "lamp-in",
                "The old lamp is still in the loop, beside the LED.",
                p,
                1 / 3,
                fault=Fault(across=ohm * level),
                spread=0.4,
            )
    load = p.rail.volts[1] / max(float(s.usual[1]) * s.position.branches, 1e-5)
    sizes, share, spread = _shared(np.geomspace(load / 100, load * 3, _places(p)))
    for ohm in sizes:
        yield _one(
            "neighbour",
            "Something of about {} hangs beside the lamp.",
            p,
            share,
            fault=Fault(across=ohm),
            spread=spread,
            size=ohm,
            unit=OHM,
        )
    if off:
        for ohm in np.geomspace(50, 20e3, _places(p)):
            yield _one(
                "keep-warm",
                "A keep-warm resistor of about {} is still across the driver.",
                p,
                1 / _places(p),
                fault=Fault(past=float(ohm)),
                spread=0.25,
                size=float(ohm),
                unit=OHM,
            )


def _of_the_rail(s: Solution, p: Position) -> Iterable[Suspect]:
    if p.rail.supply.output_limit is not None:
        yield _one("not-enabled", "The output is not enabled: set it in software, and try again.", p, rail=_OFF)
    else:
        yield _one("other-rail", "The rail is off, or its fuse has gone.", p, 0.4, rail=_OFF)
    low, usual, high = p.rail.volts
    sizes, share, spread = _shared(np.geomspace(0.25, 2.0, 2 * _places(p)))
    beyond = [x for x in sizes if x < low / usual * 0.97 or x > high / usual * 1.03]
    ratio = p.rail.supply.open_to_loaded_ratio
    for x in beyond:
        yield _one(
            "other-rail",
            f"The rail is at about {{}} and not {show(p.rail.usual.value, VOLT)}.",
            p,
            share,
            rail=x,
            spread=spread,
            size=usual * x / ratio,
            unit=VOLT,
        )


def _of_the_meter(p: Position, readings: tuple[ReadingAfter, ...]) -> Iterable[Suspect]:
    currents = [r for r in readings if r.kind == "current"]
    if currents:
        keys = {r.id: "nothing" for r in currents}
        yield _one(
            "meter-fuse", "The meter's own fuse has gone: it reads nothing in its current ranges.", p, reads=keys
        )
        sizes, share, spread = _shared(np.geomspace(10, LARGEST_BURDEN_OHM, _places(p)))
        for ohm in sizes:
            yield _one(
                "meter-burden",
                "The meter itself adds about {} in this range: shunt, fuse and leads.",
                p,
                share,
                burden=ohm,
                spread=spread,
                size=ohm,
                unit=OHM,
            )
    for r in readings:
        if r.kind in ("led_volts", "resistor_volts") and r.state == "on":
            other: ReadingKind = "resistor_volts" if r.kind == "led_volts" else "led_volts"
            what = "resistor" if r.kind == "led_volts" else "LEDs"
            yield _one(
                "probe-side",
                "A probe sits on the wrong side of the resistor: this is LED and resistor together.",
                p,
                1 / 2,
                reads={r.id: "both"},
            )
            yield _one("probe-side", f"The probes sit across the {what}.", p, 1 / 2, reads={r.id: other})
