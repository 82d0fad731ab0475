"""Spectra of LEDs and filaments on one 5 nm grid, 380 to 780 nm."""

import csv
from functools import cache
from importlib.resources import files

import numpy as np
from numpy.typing import NDArray

from swapglow.core.parts.led import Led

FloatArray = NDArray[np.float64]

PLANCK_C2 = 1.438776877e-2  # m·K, second radiation constant, SI 2019


@cache
def observer() -> tuple[FloatArray, FloatArray]:
    """Wavelengths in nm, shape (81,), and x̄ȳz̄ of the CIE 1931 2° observer, shape (81, 3)."""
    path = files("swapglow.core.photometry").joinpath("data", "cie1931_2deg.csv")
    lines = [x for x in path.read_text("utf-8").splitlines() if not x.startswith("#")]
    table = np.array([[float(v) for v in row] for row in list(csv.reader(lines))[1:]])
    return table[:, 0], table[:, 1:]


def _band(centre: float, width: float) -> FloatArray:
    nm, _ = observer()
    sigma = width / 2.354820045  # full width at half maximum of a Gaussian
    return np.asarray(np.exp(-0.5 * ((nm - centre) / sigma) ** 2))


def filament(kelvin: float) -> FloatArray:
    """Relative power of a black body, shape (81,), 1 at 560 nm (Planck's law).

    A tungsten filament is close to one of its colour temperature in the visible.
    """
    nm, _ = observer()
    metres = nm * 1e-9

    def planck(m: FloatArray | float) -> FloatArray:
        return np.asarray(np.asarray(m) ** -5.0 / np.expm1(PLANCK_C2 / (np.asarray(m) * kelvin)))

    return planck(metres) / planck(560e-9)


# Phosphor bands of a white part: share of the blue pump beside a broad Gaussian, set so that the
# chromaticity lies near the stated colour temperature. Shapes from memory of data-sheet curves.
_PHOSPHOR = {2800.0: (0.507, 596.4, 120.0), 6500.0: (1.964, 563.2, 130.0)}


def led(part: Led) -> FloatArray:
    """Relative spectral power of an LED, shape (81,).

    A coloured part is one Gaussian band; a white one its blue pump and a broad phosphor band.
    """
    pump = _band(part.peak_nm, part.fwhm_nm)
    if part.phosphor_k is None:
        return pump
    nearest = min(_PHOSPHOR, key=lambda k: abs(k - (part.phosphor_k or k)))
    share, centre, width = _PHOSPHOR[nearest]
    return np.asarray(share * pump + _band(centre, width))
