"""An LED's or module's curve from a table of volts and amps."""

from dataclasses import dataclass

import numpy as np
import scipy
from numpy.typing import NDArray

from swapglow.core.constants import REFERENCE_C, thermal_voltage

FloatArray = NDArray[np.float64]

LEAST_POINTS = 3
# One LED in series of each string at n between 1 and 5; a module of several adds up.
_LEAST_N, _MOST_N = 0.8, 6.0


class FitError(ValueError):
    """A table no curve can be laid through, said with what would do."""


@dataclass(frozen=True)
class Curve:
    """V = n·Vt·ln(I/Is + 1) + I·Rs of a whole module (Shockley 1949, with series resistance).

    Attributes:
        i_s: saturation current, A.
        n: emission coefficient of all LEDs in series together.
        r_s: series resistance, their resistor included, Ω.
        error_v: root of the mean square of the volts left over.
        worst_v: the largest of them.
    """

    i_s: float
    n: float
    r_s: float
    celsius: float
    error_v: float
    worst_v: float

    def volts(self, amps: float | FloatArray) -> FloatArray:
        """Volts across the module at a current."""
        nvt = self.n * thermal_voltage(self.celsius)
        return np.asarray(nvt * np.log1p(np.asarray(amps) / self.i_s) + np.asarray(amps) * self.r_s)


def fit_curve(
    volts: FloatArray, amps: FloatArray, *, in_series: int = 1, known_ohm: float = 0.0, celsius: float = REFERENCE_C
) -> Curve:
    """Least squares in volts, over the logarithm of Is, over n, and over Rs.

    Args:
        celsius: junction temperature of the readings, °C.
        volts, amps: readings, (k,), k ≥ 3.
        in_series: LEDs one after another in each string; bounds n.
        known_ohm: resistance known to stand in series, Ω; Rs is then at least that.

    Returns:
        Is in A, n, Rs in Ω, and the volts left over: root mean square and largest.

    Raises:
        FitError: too few points, none with current, or volts that fall where amps rise.
    """
    lit = amps > 0
    volts, amps = volts[lit], amps[lit]
    if len(volts) < LEAST_POINTS:
        raise FitError(f"A curve needs {LEAST_POINTS} readings with current or more; {len(volts)} are here.")
    order = np.argsort(amps)
    volts, amps = volts[order], amps[order]
    if len(np.unique(amps)) < LEAST_POINTS:
        raise FitError(f"A curve needs {LEAST_POINTS} different currents.")
    if volts[-1] <= volts[0]:
        raise FitError("Volts must rise with amps: the columns are exchanged, or the leads were turned.")
    vt = thermal_voltage(celsius)
    span = max(volts.max(), 0.1)

    def curve(p: FloatArray) -> FloatArray:
        return np.asarray(p[1] * vt * np.log1p(amps / np.exp(p[0])) + amps * p[2])

    def left_over(p: FloatArray) -> FloatArray:
        return curve(p) - volts

    steepest = max(float(np.polyfit(amps, volts, 1)[0]), known_ohm + 1e-3)
    best = None
    for n in (1.2, 2.0, 3.5):
        whole = n * in_series
        for share in (0.1, 0.6, 0.95):
            r_s = max(known_ohm, share * steepest)
            junction = max(float(volts[0] - amps[0] * r_s), 0.05)
            start = [np.log(amps[0]) - min(junction / (whole * vt), 200.0), whole, r_s]
            found = scipy.optimize.least_squares(
                left_over,
                start,
                x_scale=[5.0, 1.0, max(steepest, 1e-2)],
                bounds=(
                    [-400.0, _LEAST_N * in_series, known_ohm],
                    [np.log(amps[0]) + 5, _MOST_N * in_series, known_ohm + 10 * span / amps.max()],
                ),
            )
            if best is None or found.cost < best.cost:
                best = found
    assert best is not None
    left = curve(best.x) - volts
    return Curve(
        float(np.exp(best.x[0])),
        float(best.x[1]),
        float(best.x[2]),
        celsius,
        float(np.sqrt((left**2).mean())),
        float(np.abs(left).max()),
    )
