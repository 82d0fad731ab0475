"""Silicon diodes that rectify or guard."""

from dataclasses import dataclass
from functools import cache

import numpy as np

from swapglow.core.constants import thermal_voltage
from swapglow.core.engine.devices import saturation_at
from swapglow.core.engine.netlist import DiodeModel
from swapglow.core.parts.catalogue import rows

# A half-sine of 60 Hz, as surge ratings are given (data sheets).
_SURGE_S = 8.3e-3


@dataclass(frozen=True)
class Rectifier:
    """A generic diode: SPICE model, the amps it may carry, and for one half-sine of 8.3 ms."""

    id: str
    label: str
    model: DiodeModel
    amps: float
    surge_a: float

    @property
    def surge_i2t(self) -> float:
        """I²t of one surge it stands: of a half-sine half the square of its crest times its time, A²s."""
        return self.surge_a**2 * _SURGE_S / 2

    def chain(self, count: int, celsius: float) -> DiodeModel:
        """Equal diodes in series as one junction at a temperature: exact, since they carry one current.

        Each is brought to its temperature first: the law by which a junction warms goes with its own
        emission coefficient, not with that of all together.

        Args:
            count: how many.
            celsius: their temperature.

        Returns:
            The junction, taken at that temperature.
        """
        m = self.model
        i_s = saturation_at(np.asarray(m.i_s), np.asarray(m.n), m.e_g, m.x_ti, celsius, m.nominal_c)
        return DiodeModel(float(i_s), count * float(m.n), count * float(m.r_s), nominal_c=celsius)

    def volts(self, amps: float, count: int, celsius: float) -> float:
        """Volts over so many in series: n·Vt·ln(I/Is + 1) + I·Rs (Shockley 1949).

        Args:
            amps: what they carry, A.
            count: how many.
            celsius: their temperature.

        Returns:
            V; 0 for none.
        """
        m = self.chain(count, celsius)
        junction = float(m.n) * thermal_voltage(celsius) * float(np.log1p(max(amps, 0.0) / float(m.i_s)))
        return junction + amps * float(m.r_s)


@cache
def rectifier(id_: str) -> Rectifier:
    """A diode of the catalogue: "signal" or "power"."""
    row = next(r for r in rows("rectifiers") if r["id"] == id_)
    model = DiodeModel(float(row["i_s"]), float(row["n"]), float(row["r_s"]))
    return Rectifier(id_, row["label"], model, float(row["amps"]), float(row["surge_a"]))
