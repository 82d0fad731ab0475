"""Section: the volt staircase, where the rail's volts go at three rail levels."""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.solution import Solution
from swapglow.core.design.position import Position
from swapglow.core.drivers.driver import State
from swapglow.core.engine.operating_point import OperatingPoint
from swapglow.core.quantities import OHM, Source, show

FloatArray = NDArray[np.float64]


# Steps that a staircase has room for beside each other.
MOST_STAIRS = 6


@dataclass(frozen=True)
class AtRails:
    """A figure in SI units at the low, usual and high rail."""

    low: float
    usual: float
    high: float


StairKind = Literal[
    "rail",
    "source",
    "feed",
    "lamps",
    "rectifier",
    "driver",
    "regulator",
    "resistor",
    "inside",
    "diode",
    "led",
    "ground",
]


@dataclass(frozen=True)
class Stair:
    """A step of the volt staircase: the volts it takes, and the level that is left below it."""

    id: str
    kind: StairKind
    label: str
    detail: str
    drop: AtRails
    level: AtRails
    text: str
    source: Source


@dataclass(frozen=True)
class Staircase:
    """The rail as height, coming down part by part."""

    top_v: float
    stairs: tuple[Stair, ...]


NO_DROP = AtRails(0.0, 0.0, 0.0)


def at_rails(values: FloatArray) -> AtRails:
    """Three levels, (3,), by name."""
    low, usual, high = (float(v) for v in values)
    return AtRails(low, usual, high)


def less(level: AtRails, drop: AtRails) -> AtRails:
    """What is left of each level below a step.

    Args:
        level: above the step, V.
        drop: over it, V.

    Returns:
        V below it.
    """
    return AtRails(level.low - drop.low, level.usual - drop.usual, level.high - drop.high)


def volts_text(value: float) -> str:
    """Volts as a step prints them."""
    return f"{value:.2f}\u00a0V" if abs(value) < 10 else f"{value:.1f}\u00a0V"


@dataclass(frozen=True)
class Tread:
    """A part of the way down: what it is called, and the node below it."""

    node: str
    id: str
    kind: StairKind
    label: str
    detail: str
    source: Source = Source.COMPUTED


def staircase(s: Solution) -> Staircase:
    """Steps from the rail to ground for the typical LED and the resistor's nominal value."""
    assert s.point is not None and s.typical is not None
    return of_point(s, s.point, "on", s.typical)


def of_point(s: Solution, point: OperatingPoint, state: State, pick: NDArray[np.intp]) -> Staircase:
    """The same for a solved point in a state.

    Args:
        s: the solved position.
        point: its network solved.
        state: what the driver does there.
        pick: the samples of ``point`` at the three levels, (3,).

    Returns:
        The staircase.
    """
    p = s.position
    top = at_rails(point.voltage("feed")[pick])
    where = "at the lamp, lit" if p.rail.read_at == "lamp" else "feed"
    stairs = [Stair("rail", "rail", "Rail", where, NO_DROP, top, volts_text(top.usual), p.rail.usual.source)]
    level = top
    for t in _way_down(s, state):
        below = level
        if t.node in point.nodes or t.node == "0":
            below = at_rails(point.voltage(t.node)[pick])
        drop = less(level, below)
        if t.kind == "led":
            _lit(s, stairs, level, drop)
        else:
            stairs.append(Stair(t.id, t.kind, t.label, t.detail, drop, below, volts_text(drop.usual), t.source))
        level = below
    stairs.append(_GROUND)
    return Staircase(max(top.high, top.usual), tuple(stairs))


_GROUND = Stair("ground", "ground", "Ground", "", NO_DROP, NO_DROP, volts_text(0.0), Source.COMPUTED)


def before_the_lamp(p: Position) -> list[Tread]:
    """What stands between the supply and what switches the lamp, in order."""
    d, out = p.driver, []
    behind = p.rail.supply.source_ohm
    if behind.value > 0:
        out.append(Tread("loaded", "source", "source", "Source", f"{show(behind.value, OHM)} behind it", behind.source))
    if d.dropper_ohm:
        out.append(
            Tread("behind", "shared-feed", "feed", "Shared feed", f"{show(d.dropper_ohm, OHM)} for all", Source.MARKED)
        )
    if d.remaining_lamps:
        many = f"{len(d.remaining_lamps)} lamps" if len(d.remaining_lamps) > 1 else "1 lamp"
        out.append(Tread(f"left{len(d.remaining_lamps)}", "lamps", "lamps", "Lamps left", many))
    return out


def _way_down(s: Solution, state: State) -> list[Tread]:
    """The parts from feed to ground, in order; those a circuit has no node for take nothing."""
    p, d = s.position, s.position.driver
    low_side = d.kind.side == "low"
    minus = "minus" if low_side and (state == "off" or p.drop_v) else "0"
    out = before_the_lamp(p)
    if state == "pulse" and d.pulse_ohm:
        out.append(Tread("pulsed", "pulse", "source", "Pulse source", show(d.pulse_ohm, OHM)))
    driver = Tread(
        "0" if low_side else "plus",
        "driver",
        "driver",
        "Driver",
        _driver_detail(p, state),
        p.driver.drop.source if state != "off" else Source.COMPUTED,
    )
    shown = p.rail.read_at == "feed" or state == "off"
    if shown and not low_side:
        out.append(driver)
    out += _lamp(s, minus)
    if shown and low_side:
        out.append(driver)
    return out


def inside_words(p: Position) -> str:
    """What a ready-made lamp has before its LEDs, said to be estimated where it was not counted or swept."""
    m = p.module
    assert m is not None
    likely = m.insides[p.inside]
    if not m.law_known:
        return f"not known; drawn as {'a resistor' if m.law == 'resistor' else f'constant {m.law}'} inside"
    if m.law != "resistor":
        return f"constant {m.law}"
    if m.swept is not None:
        return "in the swept curve"
    dice = f"{likely.dice} LED{'s' if likely.dice > 1 else ''}" if likely.dice else "LEDs"
    known = "" if m.dice is not None else ", estimated"
    return f"{dice} and {show(likely.ohm, OHM, 2)}{known}"


def _driver_detail(p: Position, state: State) -> str:
    d = p.driver
    if state != "off":
        return d.kind.detail
    return f"off, {show(d.keep_warm_ohm, OHM)} across it" if d.keep_warm_ohm else "off"


def _lamp(s: Solution, minus: str) -> list[Tread]:
    """Regulator, resistor, diodes and LEDs between the lamp's contacts."""
    p, out = s.position, []
    each = show(s.sizing.each_ohm, OHM)
    resistor = Tread("string", "resistor", "resistor", "Resistor", each)
    last = "return" if p.resistor_parts == 2 or p.lead == "negative" else minus
    if p.regulator is not None and not p.set_by_ohms:
        out.append(Tread("held", "regulator", "regulator", "Regulator", p.regulator.label))
    if p.regulator is not None and p.set_by_ohms:
        last = minus
        resistor = Tread("string", "resistor", "resistor", "Current source", f"set by {each}")
    elif p.bare:
        resistor = Tread("string", "resistor", "resistor", "Lead", "no resistor of its own")
    elif p.resistor_parts == 2 and p.module is None:
        resistor = Tread("string", "resistor", "resistor", "Resistor", f"{each} in the positive lead")
    if p.resistor_parts == 2 or p.set_by_ohms or p.lead == "positive":
        out.append(resistor)
    if p.module is not None:
        out.append(Tread("inside", "inside", "inside", "Inside", inside_words(p)))
    if p.series_diodes:
        out.append(
            Tread(
                "blocked",
                "diodes",
                "diode",
                "Diodes" if p.series_diodes > 1 else "Diode",
                f"{p.series_diodes} in series",
            )
        )
    out.append(Tread(last, "led", "led", "LED", ""))
    if last == "return":
        out.append(
            Tread(
                minus,
                "resistor2" if p.resistor_parts == 2 else "resistor",
                "resistor",
                "Resistor",
                f"{each} in the negative lead",
            )
        )
    return out


def _lit(s: Solution, stairs: list[Stair], level: AtRails, drop: AtRails) -> None:
    """The LEDs as steps of their own; a long string is one step, for narrow treads are no picture."""
    p = s.position
    # Past six steps the treads are too narrow to read.
    count = p.in_series if p.in_series <= 3 and len(stairs) + p.in_series <= MOST_STAIRS else 1
    one = AtRails(drop.low / count, drop.usual / count, drop.high / count)
    beside = f", {p.branches} side by side" if p.branches > 1 else ""
    for k in range(count):
        level = less(level, one)
        label = f"LED {k + 1}" if count > 1 else ("LED" if p.in_series == 1 else "LEDs")
        detail = (p.led.label if count == p.in_series else f"{p.in_series} × {p.led.label}") + p.read_on_text
        stairs.append(
            Stair(f"led{k + 1}", "led", label, detail + beside, one, level, volts_text(one.usual), p.led_source)
        )


def lit(
    s: Solution,
    stairs: list[Stair],
    level: AtRails,
    across: FloatArray,
    string_v: FloatArray,
    led_label: str = "",
    inside: FloatArray | None = None,
    kept: FloatArray | None = None,
) -> None:
    """The last steps of an instant of a cycle: resistor, LEDs, ground.

    Args:
        s: the solved position.
        stairs: the steps so far; the last are added.
        level: what is left above them.
        across: volts over all resistor parts at three levels, (3,).
        string_v: volts over the string, (3,).
        led_label: what stands in the LED's place, where it is not the LED that conducts.
        inside: volts over what a ready-made lamp has before its LEDs, (3,).
        kept: volts over a fixed regulator, (3,).
    """
    p = s.position
    each = show(s.sizing.each_ohm, OHM)
    if p.regulator is not None and not p.set_by_ohms and kept is not None:
        drop = at_rails(kept)
        level = less(level, drop)
        stairs.append(
            Stair(
                "regulator",
                "regulator",
                "Regulator",
                p.regulator.label,
                drop,
                level,
                volts_text(drop.usual),
                Source.COMPUTED,
            )
        )
    half = at_rails(across / p.resistor_parts)
    where = f"{each} in the positive lead" if p.resistor_parts == 2 else each
    label = "Resistor"
    if p.set_by_ohms:
        label, where = "Current source", f"set by {each}"
    level = less(level, half)
    stairs.append(Stair("resistor", "resistor", label, where, half, level, volts_text(half.usual), Source.COMPUTED))
    if p.module is not None and inside is not None:
        own = at_rails(inside)
        level = less(level, own)
        stairs.append(
            Stair("inside", "inside", "Inside", inside_words(p), own, level, volts_text(own.usual), Source.COMPUTED)
        )
    string = at_rails(string_v)
    if led_label:
        level = less(level, string)
        stairs.append(Stair("led1", "led", led_label, "", string, level, volts_text(string.usual), p.led_source))
    else:
        _lit(s, stairs, level, string)
        level = less(level, string)
    if p.resistor_parts == 2:
        level = less(level, half)
        stairs.append(
            Stair(
                "resistor2",
                "resistor",
                "Resistor",
                f"{each} in the negative lead",
                half,
                level,
                volts_text(half.usual),
                Source.COMPUTED,
            )
        )
    stairs.append(_GROUND)
