"""The textbook sum with a constant forward voltage, as the command line's ``size`` gives it.

I = (V − Vdrop − n·Vf) / R (Ohm, Kirchhoff). Where the curve of the LED matters, ``assess`` solves
the circuit instead.
"""

from dataclasses import dataclass

from swapglow.core.analysis.sizing import Sizing
from swapglow.core.design.position import Position
from swapglow.core.drivers import DRIVERS
from swapglow.core.drivers.driver import Driver
from swapglow.core.findings import Context, judge
from swapglow.core.findings.finding import Finding
from swapglow.core.parts.led import kind_of, with_range
from swapglow.core.parts.resistor import rating_to_fit
from swapglow.core.quantities import Figure, Source
from swapglow.core.supplies.rail import Rail
from swapglow.core.values import preferred


@dataclass(frozen=True)
class ConstantVf:
    """What is to be sized. Volts and amps; ``rated_a`` None takes the current wanted as rated."""

    rail: tuple[float, float, float]
    vf: tuple[float, float, float]
    in_series: int
    amps: float
    drop: float = 0.0
    series: str = "E24"
    rounding: preferred.Rounding = "up"
    rated_a: float | None = None
    spread_known: bool = True
    tolerance: float = 0.05


@dataclass(frozen=True)
class ConstantVfResult:
    """Exact and preferred resistance, current at (low, usual, high), heat, rating, findings.

    The low current is that of the lowest rail, the highest Vf and the resistor at the high end of its tolerance, the
    high one that of the highest rail, the lowest Vf and its low end; so is the heat. Resistances are None where the
    rail does not reach the LEDs.
    """

    exact_ohm: float | None
    resistor_ohm: float | None
    current_a: tuple[float, float, float]
    resistor_power_w: float
    resistor_rating_w: float | None
    findings: tuple[Finding, ...]


def size_constant(want: ConstantVf) -> ConstantVfResult:
    """Size a resistor for LEDs of constant forward voltage.

    Raises:
        InputError, LedError, SeriesError: values that no position has.
    """
    low, usual, high = want.rail
    vf_low, vf_typ, vf_high = want.vf
    rated = want.rated_a if want.rated_a is not None else want.amps
    position = Position(
        rail=Rail(
            Figure(low, Source.ASSUMED),
            Figure(usual, Source.ASSUMED),
            Figure(high, Source.ASSUMED),
            spread_known=want.spread_known,
        ),
        led=with_range(kind_of(vf_typ), vf_low, vf_typ, vf_high, rated),
        target=Figure(want.amps, Source.ASSUMED),
        in_series=want.in_series,
        driver=Driver(DRIVERS.usual, Figure(want.drop, Source.ASSUMED), (want.drop,) * 3),
        ceiling=0.5 if want.rated_a is not None else 1.0,
        series=want.series,
        rounding=want.rounding,
        resistor_tolerance=want.tolerance,
    )
    headroom = usual - want.drop - want.in_series * vf_typ
    exact = headroom / want.amps if headroom > 0 else None
    ohm = preferred.prefer(exact, want.series, want.rounding) if exact else None

    def amps(rail: float, vf: float, off: float = 0.0) -> float:
        return max(0.0, rail - want.drop - want.in_series * vf) / (ohm * (1 + off)) if ohm else 0.0

    current = (amps(low, vf_high, want.tolerance), amps(usual, vf_typ), amps(high, vf_low, -want.tolerance))
    least_ohm = (ohm or 0.0) * (1 - want.tolerance)
    power = current[2] ** 2 * least_ohm
    context = Context(
        position,
        Sizing(headroom, exact, ohm, ohm or 0.0, 1, False),
        amps(low, vf_typ),
        current[1],
        amps(high, vf_typ),
        current[0],
        current[2],
        current[2],
        power,
    )
    return ConstantVfResult(
        exact, ohm, current, power, rating_to_fit(power, current[2] * least_ohm) if ohm else None, judge(context)
    )
