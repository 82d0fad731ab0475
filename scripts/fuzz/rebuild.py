"""A lamp's circuit worked out a second time, by other means: nested roots between brackets instead of Newton's method.

Nothing of the engine or the builder is used. Each part is its own law, written down here; a series path's
volts only rise with its current, and a parallel pair's current with its volts, so that each level is solved by
bracketing (Shockley 1949; Ohm; Kirchhoff). What it does not know it refuses.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace

from scipy.optimize import brentq

from swapglow.core.design.position import Position
from swapglow.core.supplies.waveform import Waveform

Law = Callable[[float], float]

BOLTZMANN, CHARGE, ZERO_C = 1.380649e-23, 1.602176634e-19, 273.15


class NotHere(Exception):
    """A circuit this rebuild does not know."""


@dataclass(frozen=True)
class Case:
    """One corner: volts open, forward voltage of each LED, ohms of a string, the driver's drop."""

    rail: float
    vf: float
    ohms: float
    drop: float
    source: float


def _reached(f: Law, low: float, high: float, goal: float) -> float:
    """Where a rising law reaches a goal, between brackets (Brent 1973); an end where it does not."""
    if f(low) >= goal:
        return low
    if f(high) <= goal:
        return high
    return float(brentq(lambda x: f(x) - goal, low, high, xtol=1e-13, rtol=1e-10))


def _led(p: Position, vf: float, count: int) -> Law:
    """Volts of LEDs in series by their current, from their data-sheet point."""
    led, t = p.led, p.celsius
    vt = BOLTZMANN * (t + ZERO_C) / CHARGE
    r_s = led.rs_v / led.vf_a
    at_t = vf + led.tempco_v_k * (t - 25.0)
    i_s = led.vf_a / math.expm1(max(at_t - led.rs_v, 0.05) / (led.n * vt))
    return lambda amps: count * (led.n * vt * math.log1p(amps / i_s) + amps * r_s)


def _diodes(p: Position) -> Law:
    """Silicon signal diodes: 2.5 nA, 1.75, 0.57 Ω at 27 °C, as the table of rectifiers has them."""
    return _silicon(p, p.series_diodes, 2.5e-9, 1.75, 0.57)


def _rectifier(p: Position) -> Law:
    """Rectifier diodes the lamp's current passes through: 7 nA, 1.8, 0.045 Ω at 27 °C, as the table has them."""
    count = p.rectification.diodes if p.rail.supply.alternates else 0
    return _silicon(p, count, 7e-9, 1.8, 0.045)


def _silicon(p: Position, count: int, i_s: float, n: float, r_s: float) -> Law:
    """Equal diodes in series at the position's temperature (SPICE's law: 1.11 eV, exponent 3, from 27 °C)."""
    t, nominal = p.celsius + ZERO_C, 27.0 + ZERO_C
    vt = BOLTZMANN * t / CHARGE
    warm = i_s * math.exp((t / nominal - 1) * 1.11 / (n * vt) + 3 / n * math.log(t / nominal))
    return lambda amps: count * (n * vt * math.log1p(max(amps, 0.0) / warm) + r_s * amps)


def string_amps(p: Position, case: Case) -> float:
    """Forward current of one string, averaged over the cycle where the supply alternates.

    Args:
        p: the swap.
        case: the corner; where the supply alternates its rail is the crest, the driver's drop taken off.

    Returns:
        Amps.

    Raises:
        NotHere: it has parts that are not known here.
    """
    d = p.driver
    if p.regulator is not None or (p.module is not None and p.module.law != "resistor"):
        raise NotHere("only resistors and LEDs")
    if p.module is not None and p.rail.supply.alternates and not p.rectification.parts:
        raise NotHere("no bridge of its own")
    if d.remaining_lamps or any(load.lamp or load.amps or load.led for load in d.loads if d.dropper_ohm):
        raise NotHere("only plain resistances around it")
    if not p.rail.supply.alternates:
        return _steady(p, case)
    if p.rectification.reservoir:
        raise NotHere("no memory")
    waveform = p.rail.supply.waveform
    if waveform is Waveform.EITHER_WAY:
        return _steady(p, case)
    both = p.rectification.folds
    if waveform is Waveform.SQUARE:
        return _steady(p, case) * (1.0 if both else 0.5)
    instants = 60
    lit = sum(
        _steady(p, replace(case, rail=case.rail * math.sin((k + 0.5) / instants * math.pi / 2)))
        for k in range(instants)
    )
    return lit / instants * (1.0 if both else 0.5)


def _steady(p: Position, case: Case) -> float:
    """Forward current of one string with the supply standing at one level."""
    d = p.driver
    led, diodes, rectifier = _led(p, case.vf, p.in_series), _diodes(p), _rectifier(p)

    inside = p.module.insides[p.inside].ohm * p.in_series if p.module is not None else 0.0
    pairs = 2 * p.in_series if p.module is not None and not p.module.polarised else 0
    bridge = _silicon(p, pairs, 7e-9, 1.8, 0.045)

    def own(string: float) -> float:
        """What a string's resistor carries: its LEDs', and its part of a shunt across all strings' LEDs."""
        if p.shunt_ohm is None or p.shunt_across != "leds":
            return string
        across = led(string) + diodes(string) + string * inside + bridge(string)
        return string + across / p.shunt_ohm / p.branches

    def volts(string: float) -> float:
        through = own(string)
        return led(string) + diodes(string) + through * case.ohms + string * inside + bridge(string)

    def beside(at: float) -> float:
        """What the strings of other LEDs draw at so many volts behind the rectifier."""
        total = 0.0
        for b in p.beside:
            other = replace(p, led=b.led, beside=(), series_diodes=0)
            law = _led(other, b.led.vf_typ, b.in_series)
            total += b.count * _reached(lambda i, law=law, ohm=b.ohm: law(i) + i * ohm, 0.0, 50.0, at)
        return total

    def behind(at: float) -> float:
        """All that is drawn behind the rectifier."""
        return (own(_reached(volts, 0.0, 50.0, at)) * p.branches + beside(at)) if at > 0 else 0.0

    def rectified(across: float) -> float:
        """Volts behind the rectifier with so many before it."""
        if across <= 0 or not (p.rail.supply.alternates and p.rectification.diodes):
            return max(across, 0.0)
        return _reached(lambda at: at + rectifier(behind(at)), 0.0, across, across)

    def assembly(across: float) -> float:
        """Current of one string with so many volts across all of it."""
        at = rectified(across)
        return _reached(volts, 0.0, 50.0, at) if at > 0 else 0.0

    def drawn(across: float) -> float:
        total = behind(rectified(across))
        if p.shunt_ohm is not None and p.shunt_across == "assembly":
            total += across / p.shunt_ohm
        return total

    # From the contacts back to the feed: driver, dropper with its loads, source.
    load_s = sum(1 / load.ohms for load in d.loads if load.ohms is not None) if d.dropper_ohm else 0.0

    def needed(across: float) -> float:
        """Open volts that leave so many at the contacts."""
        at, amps = across + case.drop, drawn(across)
        if d.dropper_ohm:
            amps += at * load_s
            at += amps * d.dropper_ohm
        return at + amps * case.source

    if case.rail <= needed(0.0):
        return 0.0
    return assembly(_reached(needed, 0.0, case.rail, case.rail))
