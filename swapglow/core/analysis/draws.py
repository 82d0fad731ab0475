"""What one lamp of a rail takes of it, and the light it gives, by the volts behind the rail's source resistance."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from swapglow.core.analysis.original_lamp import original_curve
from swapglow.core.analysis.sizing import size, with_strings
from swapglow.core.design.position import Position
from swapglow.core.network.cases import Cases
from swapglow.core.network.solve import point_of, string_amps, supply_amps
from swapglow.core.parts.lamp import LIGHT_EXPONENT
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.quantities import Figure, Source

FloatArray = NDArray[np.float64]

Lit = Literal["always", "sometimes", "single"]
When = Literal["before", "after"]


@dataclass(frozen=True)
class Member:
    """A lamp on the rail.

    Attributes:
        id, name: the record's own.
        position: the swap meant for it.
        lit: when it is lit among the others.
    """

    id: str
    name: str
    position: Position
    lit: Lit = "always"


@dataclass(frozen=True)
class Draws:
    """One lamp on a steady rail, lit.

    Attributes:
        amps: what its whole circuit takes at volts behind the source resistance, A, (k,) to (k,).
        light: the light it gives there, in a unit of its own, (k,) to (k,).
    """

    amps: Callable[[FloatArray], FloatArray]
    light: Callable[[FloatArray], FloatArray]


@lru_cache(maxsize=512)
def draws(position: Position, when: When) -> Draws:
    """A lamp on its rail: with its typical LED after the swap, or with the old lamp before it.

    Args:
        position: the swap; with the old lamp known where that is asked.
        when: which of the two.

    Returns:
        Its current and its light. Each raises NotConverged where volts have no answer.
    """
    ohms = size(position).total_ohm
    p = _bare(position)

    @lru_cache(maxsize=64)
    def after(volts: tuple[float, ...]) -> tuple[FloatArray, FloatArray]:
        v = np.array(volts)
        point = point_of(p, Cases(v, p.led.vf_typ * np.ones(len(v)), ohms, p.drop_v))
        return supply_amps(point), relative_light(p.led, string_amps(p, point))

    @lru_cache(maxsize=64)
    def before(volts: tuple[float, ...]) -> tuple[FloatArray, FloatArray]:
        lamp = p.lamp
        assert lamp is not None
        if p.driver.plain:
            at_lamp = np.maximum(np.array(volts) - p.drop_v, 0.0)
            amps = np.array([lamp.amps_at(float(v)) for v in at_lamp])
        else:
            at_lamp, amps = original_curve(p, np.array(volts))
        return amps, (at_lamp / lamp.volts) ** LIGHT_EXPONENT

    solved = after if when == "after" else before
    return Draws(lambda volts: solved(tuple(volts.tolist()))[0], lambda volts: solved(tuple(volts.tolist()))[1])


def _bare(position: Position) -> Position:
    """The position on the node behind the rail's source resistance."""
    supply = replace(position.rail.supply, source_ohm=Figure(0.0, Source.COMPUTED))
    return replace(with_strings(position), rail=replace(position.rail, supply=supply))
