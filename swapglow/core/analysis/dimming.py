"""A fitted LED that is too bright: ratios of current and light for other resistors, with or without its rail known.

A resistor R2 in place of R1 carries I2/I1 = x with (Kirchhoff, Shockley)

    x·R2/R1 = 1 + (n·Vt·ln(1/x) + Rs·I1·(1 − x)) / H

where H is what the old resistor took, rail less LED. Where neither rail nor LED is known H lies between one volt
and twenty and n·Vt between the two families' (common practice: 3.3 to 24 V rails, red to white): the ratio is sure
to some tens of per cent, and no current is said.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import product

import numpy as np
import scipy

from swapglow.core.constants import REFERENCE_C, thermal_voltage
from swapglow.core.design.trial import Trial, Verdict
from swapglow.core.parts.led import Led, catalogue
from swapglow.core.parts.resistor import check_resistor
from swapglow.core.photometry.eye import OF_NOTHING, Belief, believe, step_told
from swapglow.core.photometry.light_law import law_of
from swapglow.core.quantities import InputError
from swapglow.core.quantities.parse import Parsed
from swapglow.core.values import preferred

# What the old resistor may take, V, and what it does by the middle of them; the two families by one part each.
_TAKES = (1.0, 4.5, 20.0)
_FAMILIES = ("red-5-diffused", "white-5-clear")
_AMPS = (1e-3, 20e-3)
# How far up is looked: the trade ends at 20 mA by the book to 0.05 mA in the end, and further for dark rooms.
_FURTHEST = 1000.0


@dataclass(frozen=True)
class FittedLed:
    """What is known of an LED that is fitted already.

    Attributes:
        ohm: its resistor, Ω.
        rail: the volts that feed it, with their ends; None where not read.
        led: the LED; None where it is not known.
        in_series: LEDs in the string.
    """

    ohm: float
    rail: Parsed | None = None
    led: Led | None = None
    in_series: int = 1

    def __post_init__(self) -> None:
        check_resistor("resistor", self.ohm)

    @property
    def known(self) -> bool:
        """Whether currents can be said, and not only their ratios."""
        return self.rail is not None and self.led is not None


@dataclass(frozen=True)
class _Case:
    """One way it may be: volts over the resistor, LEDs in series, current, and the LED."""

    takes: float
    count: int
    amps: float
    led: Led


def amps_of(fitted: FittedLed, volts: float, vf: float, ohm: float) -> float:
    """Current of a known LED on a known rail: V = n·Vf(I) + I·R (Kirchhoff, Shockley).

    Args:
        fitted: the LED; its rail and kind are known.
        volts: the rail.
        vf: the LED's forward voltage at its own current.
        ohm: the resistor.

    Returns:
        Amps.

    Raises:
        InputError: ``rail``: it does not light there.
    """
    if fitted.led is None:
        raise InputError("led_id", "Pick the LED.")
    junction = fitted.led.junction(vf)

    def over(log_amps: float) -> float:
        amps = math.exp(log_amps)
        return fitted.in_series * float(junction.volts(amps)) + amps * ohm - volts

    if over(math.log(1e-9)) > 0:
        raise InputError("rail", f"{volts:g} V do not light {fitted.in_series} of these LEDs.")
    return math.exp(scipy.optimize.brentq(over, math.log(1e-9), math.log(max(volts / ohm, 2e-9)) + 1e-6))


def _cases(fitted: FittedLed) -> list[_Case]:
    """How it may be, the likeliest first."""
    if fitted.known and fitted.rail is not None and fitted.led is not None:
        rail, led = fitted.rail, fitted.led
        out = []
        for volts, vf in ((rail.usual, led.vf_typ), (rail.low, led.vf_high), (rail.high, led.vf_low)):
            amps = amps_of(fitted, volts, vf, fitted.ohm)
            out.append(_Case(amps * fitted.ohm, fitted.in_series, amps, led))
        return out
    leds = (fitted.led,) if fitted.led is not None else tuple(catalogue()[k] for k in _FAMILIES)
    count = fitted.in_series
    likeliest = _Case(_TAKES[1], count, math.sqrt(_AMPS[0] * _AMPS[1]), leds[0])
    ends = product((_TAKES[0], _TAKES[2]), leds, _AMPS)
    return [likeliest, *(_Case(takes, count, amps, led) for takes, led, amps in ends)]


def _share(case: _Case, ratio: float) -> float:
    """I2/I1 for R2/R1 = ratio."""
    nvt = case.count * case.led.n * thermal_voltage(REFERENCE_C)
    ohmic = case.count * case.led.rs_v * case.amps / case.led.vf_a

    def over(x: float) -> float:
        return x * ratio - 1 - (nvt * math.log(1 / x) + ohmic * (1 - x)) / case.takes

    # Far below and far above where the resistors alone would put it.
    return float(scipy.optimize.brentq(over, min(1e-9, 0.01 / ratio), max(1e3, 100 / ratio)))


@dataclass(frozen=True)
class Ratio:
    """One resistor beside the one that is fitted.

    Attributes:
        ohm: the resistor.
        current: I/I of the fitted one: least, likeliest, most.
        light: the same of light.
    """

    ohm: float
    current: tuple[float, float, float]
    light: tuple[float, float, float]

    @property
    def octaves(self) -> float:
        """Light beside the fitted one's, octaves."""
        return math.log2(self.light[1])


def ratio_of(fitted: FittedLed, ohm: float) -> Ratio:
    """What another resistor makes of current and light.

    Args:
        fitted: what is there.
        ohm: the resistor in place of the old one.

    Returns:
        Ratios with their ends.

    Raises:
        InputError: a known rail does not light it.
    """
    currents, lights = [], []
    for case in _cases(fitted):
        share = _share(case, ohm / fitted.ohm)
        law = law_of(case.led)
        currents.append(share)
        lights.append(float(law.light(case.amps * share) / law.light(case.amps)))
    return Ratio(ohm, (min(currents), currents[0], max(currents)), (min(lights), lights[0], max(lights)))


@dataclass(frozen=True)
class Dimmed:
    """What is to be tried next, and what else there is.

    Attributes:
        belief: light wanted beside the fitted one's, octaves.
        step: what this eye tells from memory, octaves.
        ratios: resistors from the fitted one up, with what each makes of it.
        next: the one to try; None where one was right.
        settled: the one that was right.
    """

    belief: Belief
    step: float
    ratios: tuple[Ratio, ...]
    next: Ratio | None
    settled: Ratio | None


def dimmed(fitted: FittedLed, trials: Sequence[Trial], drawer: frozenset[float] = frozenset()) -> Dimmed:
    """What trials on a fitted LED come to. That it is too bright as it stands is the first of them.

    Args:
        fitted: what is there.
        trials: looks at it, in the order they were made; through a screen it shows the share that passes.
        drawer: resistors at hand, Ω.

    Returns:
        The belief, and what to try next: never less than is fitted where the rail is not known, nor
        one that drives a known LED past its rating.

    Raises:
        InputError: a known rail does not light it.
    """
    seen: list[tuple[float, Verdict]] = [(0.0, "bright")]
    seen += [(ratio_of(fitted, t.ohm).octaves + math.log2(t.screen), t.verdict) for t in trials]
    belief = believe(0.0, OF_NOTHING, seen)
    step = step_told(seen)
    least = fitted.ohm / 10 if fitted.known else fitted.ohm
    values = preferred.values("E12", least, fitted.ohm * _FURTHEST).tolist()
    every = [ratio_of(fitted, v) for v in values if v >= least and _stands(fitted, v)]
    bare = [t for t in trials if t.screen == 1]
    right = [t.ohm for t in bare if t.verdict == "right"]
    settled = ratio_of(fitted, right[-1]) if right else None
    tried = [fitted.ohm, *(t.ohm for t in bare)]
    fresh = [r for r in every if not any(math.isclose(r.ohm, t, rel_tol=0.01) for t in tried)]
    mine = [r for r in fresh if r.ohm in drawer]
    pool = mine if mine and min(abs(r.octaves - belief.median) for r in mine) < step else fresh
    best = min(pool, key=lambda r: abs(r.octaves - belief.median), default=None)
    return Dimmed(belief, step, tuple(every), None if settled else best, settled)


def _stands(fitted: FittedLed, ohm: float) -> bool:
    """Whether a known LED stays within its rating at the highest rail; of one that is not known nothing is said."""
    if not fitted.known or fitted.rail is None or fitted.led is None:
        return True
    return amps_of(fitted, fitted.rail.high, fitted.led.vf_low, ohm) <= fitted.led.rated_a


def wanted_ohms(fitted: FittedLed, belief: Belief) -> tuple[float, float]:
    """Between which resistors the light wanted lies.

    Args:
        fitted: what is there.
        belief: the light wanted.

    Returns:
        The lower and the higher, Ω; within what is looked at.
    """
    at = np.geomspace(fitted.ohm / 10, fitted.ohm * _FURTHEST, 60)
    octaves = np.array([ratio_of(fitted, float(v)).octaves for v in at])
    low, high = np.interp([-belief.high, -belief.low], -octaves, np.log(at))
    return float(np.exp(low)), float(np.exp(high))
