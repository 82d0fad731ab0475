"""Light-emitting diodes: a junction with series resistance that meets its data-sheet point."""

from dataclasses import dataclass, replace
from functools import cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from swapglow.core.constants import REFERENCE_C, thermal_voltage
from swapglow.core.parts.assembly import ONE_LED, Assembly
from swapglow.core.parts.catalogue import rows

# No junction of one part, nor a small module of several, is above this.
LARGEST_VF = 25.0
# So many times its rating is past any data sheet's pulse: the die or its wire goes (common practice).
BURNS = 10.0
MOST_IN_SERIES = 200
WIDEST_DEG = 170.0

FloatArray = NDArray[np.float64]


class LedError(ValueError):
    """LED data that cannot be a diode's."""


@dataclass(frozen=True)
class Junction:
    """Shockley parameters of one LED at one temperature; arrays broadcast over a batch.

    Attributes:
        i_s: saturation current, A.
        n: emission coefficient.
        r_s: series resistance, Ω.
        celsius: junction temperature.
    """

    i_s: FloatArray
    n: float
    r_s: float
    celsius: float

    def volts(self, amps: float | FloatArray) -> FloatArray:
        """Forward voltage at a forward current: n·Vt·ln(I/Is + 1) + I·Rs (Shockley 1949)."""
        nvt = self.n * thermal_voltage(self.celsius)
        return np.asarray(nvt * np.log1p(np.asarray(amps) / self.i_s) + np.asarray(amps) * self.r_s)


@dataclass(frozen=True)
class Led:
    """An LED as its data sheet gives it.

    Attributes:
        vf_low, vf_typ, vf_high: forward voltage at ``vf_a``, V, at 25 °C.
        rated_a: rated forward current, A: a limit, which changes neither curve nor light.
        n: emission coefficient.
        rs_v: ohmic share of the forward voltage at ``vf_a``, V.
        reverse_v: reverse rating, V.
        tempco_v_k: change of forward voltage with temperature, V/K.
        candela: axial intensity at ``candela_a``, cd.
        peak_nm, fwhm_nm: the emission band; ``phosphor_k`` the colour temperature of a white part.
        vf_given_a, candela_given_a: current that forward voltage and light are given at, where it is not
            the rated one.
        inside: what stands inside, where a whole part was swept as one.
        dominant_nm: dominant wavelength of a coloured part, as the trade names it.
        angle_deg: viewing angle, between the directions of half the intensity.
        light_doubt: its light may be so many times more or less.
    """

    id: str
    label: str
    colour: str
    material: str
    size: str
    vf_low: float
    vf_typ: float
    vf_high: float
    rated_a: float
    candela: float
    peak_nm: float
    fwhm_nm: float
    phosphor_k: float | None
    n: float
    rs_v: float
    reverse_v: float
    tempco_v_k: float
    vf_given_a: float | None = None
    candela_given_a: float | None = None
    inside: Assembly = ONE_LED
    angle_deg: float = 60.0
    dominant_nm: float | None = None
    light_doubt: float = 2.0

    @property
    def vf_a(self) -> float:
        """Current that the forward voltage is given at, A."""
        return self.vf_given_a or self.rated_a

    @property
    def candela_a(self) -> float:
        """Current that the light is given at, A."""
        return self.candela_given_a or self.rated_a

    def __post_init__(self) -> None:
        if not 0 < self.vf_low <= self.vf_typ <= self.vf_high:
            raise LedError(
                f"Forward voltages must rise from lowest to highest: {self.vf_low:g}, "
                f"{self.vf_typ:g}, {self.vf_high:g} V do not."
            )
        if not self.rated_a > 0:
            raise LedError("The rated current must be more than 0 A.")

    def junction(self, vf: float | FloatArray, celsius: float = REFERENCE_C) -> Junction:
        """The junction whose forward voltage at ``vf_a`` is ``vf`` at 25 °C.

        At another temperature the forward voltage moves by ``tempco_v_k`` a kelvin, and the
        saturation current is fitted to that: Is = If / (exp((Vf − If·Rs)/(n·Vt)) − 1).

        Args:
            vf: forward voltage at ``vf_a`` and 25 °C, V; scalar or batch.
            celsius: junction temperature.

        Returns:
            The junction's law; its parameters have the shape of ``vf``.
        """
        r_s = self.rs_v / self.vf_a
        at_temp = np.asarray(vf, dtype=float) + self.tempco_v_k * (celsius - REFERENCE_C)
        across = np.maximum(at_temp - self.rs_v, 0.05)
        i_s = self.vf_a / np.expm1(across / (self.n * thermal_voltage(celsius)))
        return Junction(i_s, self.n, r_s, celsius)


def power_of(angle_deg: float) -> float:
    """The m of a viewing angle: half the intensity at half the angle, m = ln ½ / ln cos(angle/2) (geometry)."""
    half = np.radians(min(angle_deg, WIDEST_DEG) / 2)
    return float(np.log(0.5) / np.log(np.cos(half)))


@cache
def catalogue() -> dict[str, Led]:
    """The generic LEDs by id."""
    out = {}
    for r in rows("leds"):
        number: dict[str, Any] = {
            k: float(r[k])
            for k in ("vf_low", "vf_typ", "vf_high", "peak_nm", "fwhm_nm", "n", "rs_v", "reverse_v", "angle_deg")
        }
        out[r["id"]] = Led(
            id=r["id"],
            label=r["label"],
            colour=r["colour"],
            material=r["material"],
            size=r["size"],
            rated_a=float(r["rated_ma"]) / 1e3,
            candela=float(r["mcd"]) / 1e3,
            phosphor_k=float(r["phosphor_k"]) if r["phosphor_k"] else None,
            tempco_v_k=float(r["tempco_mv_k"]) / 1e3,
            dominant_nm=float(r["dominant_nm"]) if r["dominant_nm"] else None,
            **number,
        )
    return out


def with_range(base: Led, low: float, typ: float, high: float, rated_a: float) -> Led:
    """An LED of the same kind with the user's own forward voltages and rated current.

    The ohmic share is kept below a third of the lowest forward voltage, so that the junction
    keeps a voltage of its own.

    Args:
        base: the kind.
        low, typ, high: forward voltage at rated current, V.
        rated_a: rated current, A.

    Returns:
        The LED.

    Raises:
        LedError: the range does not rise, or is no LED's.
    """
    if high > LARGEST_VF:
        raise LedError(
            f"{high:g} V is no forward voltage of one LED: it must be under "
            f"{LARGEST_VF:g} V. Count the LEDs in series instead."
        )
    share = min(base.rs_v, low / 3)
    return replace(
        base,
        vf_low=low,
        vf_typ=typ,
        vf_high=high,
        rated_a=rated_a,
        rs_v=share,
        vf_given_a=None,
        candela_given_a=base.candela_a,
    )


def kind_of(vf: float) -> Led:
    """The generic kind whose material fits a forward voltage: 2.6 V parts the two families.

    AlInGaP and GaP run at 1.8 to 2.4 V, InGaN at 2.8 to 3.6 V (common practice).
    """
    return catalogue()["red-5-diffused" if vf < 2.6 else "white-5-clear"]
