"""A resistor across the LED that a trickle runs past: how large it may be, what it costs when lit."""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from swapglow.core.analysis.sizing import size
from swapglow.core.design.position import Across, Position
from swapglow.core.network.cases import Cases
from swapglow.core.network.solve import point_of, string_amps
from swapglow.core.parts.resistor import rating_to_fit
from swapglow.core.photometry.intensity import led_candela, led_candelas
from swapglow.core.values import preferred

# Below this an LED is at its knee: what practice reckons a shunt with.
KNEE_A = 50e-6
_LEAST_OHM, _MOST_OHM = 10.0, 1e6
# How many values lower are tried before a shunt is given up.
_STEPS_DOWN = 12


@dataclass(frozen=True)
class Shunt:
    """A shunt that keeps the LED dark.

    Attributes:
        ohm: the largest preferred value that does.
        watts: its heat while lit, highest rail.
        rating_w: the rating to fit.
    """

    across: Across
    ohm: float
    watts: float
    rating_w: float


@lru_cache(maxsize=256)
def dark_shunt(position: Position, across: Across, candela: float) -> Shunt | None:
    """The largest E12 shunt with which the LED shows less than ``candela`` while off.

    Solved at the highest rail for the luckiest LED.

    Args:
        position: the swap on a steady supply.
        across: what the shunt stands across.
        candela: what must not be reached, cd.

    Returns:
        The shunt; None where none will do, or none that a leaded part could stand.

    Raises:
        NotConverged: the circuit has no answer.
    """
    p = replace(position, shunt_ohm=1.0, shunt_across=across)
    trial = preferred.values("E12", _LEAST_OHM, _MOST_OHM)
    ohms = size(position).total_ohm
    many = np.ones(len(trial))
    cases = Cases(
        p.rail.volts[2] * many,
        p.led.vf_low * many,
        ohms * (1 - p.ohm_spread) * many,
        p.drop_v,
        shunt=trial * (1 + 0.05),
    )
    light = led_candelas(p, string_amps(p, point_of(p, cases, "off")))
    dark = np.flatnonzero(light < candela)
    for k in dark[::-1][:_STEPS_DOWN]:
        # Where the resistor follows the sum it follows the shunt too, and the trickle with it.
        made = replace(p, shunt_ohm=float(trial[k]))
        sized = size(made).total_ohm
        if sized != ohms and _shows(made, sized) >= candela:
            continue
        watts = shunt_watts(made, sized)
        rating = rating_to_fit(watts, math.sqrt(watts * float(trial[k])), p.celsius)
        return None if rating is None else Shunt(across, float(trial[k]), watts, rating)
    return None


def _shows(position: Position, ohms: float) -> float:
    """Candela while off, highest rail, luckiest LED, the shunt a twentieth high."""
    p = position
    assert p.shunt_ohm is not None
    case = Cases(
        np.array([p.rail.volts[2]]), p.led.vf_low, ohms * (1 - p.ohm_spread), p.drop_v, shunt=p.shunt_ohm * 1.05
    )
    return led_candela(p, float(string_amps(p, point_of(p, case, "off"))[0]))


def shunt_watts(position: Position, ohms: float) -> float:
    """Heat in the shunt while lit, highest rail, typical LED: V²/R.

    Args:
        position: the swap with its shunt.
        ohms: total series resistance of a string, Ω.

    Returns:
        Watts.
    """
    p = position
    assert p.shunt_ohm is not None
    one = np.ones(1)
    point = point_of(p, Cases(p.rail.volts[2] * one, p.led.vf_typ * one, ohms * one, p.drop_v))
    return float(point.across("Rshunt")[0] ** 2 / p.shunt_ohm)


def knee_ohm(position: Position) -> float | None:
    """What practice reckons: R < Vknee/Itrickle at the knee (Ohm); None without a keep-warm resistor."""
    p, keep = position, position.driver.keep_warm_ohm
    if keep is None:
        return None
    knee = p.in_series * float(p.led.junction(p.led.vf_typ, p.celsius).volts(KNEE_A))
    trickle = (p.rail.volts[1] - knee) / (keep + p.rail.supply.source_ohm.value)
    return knee / trickle if trickle > 0 else None
