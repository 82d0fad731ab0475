"""Spectra of LEDs and filaments on one 5 nm grid, 380 to 780 nm."""

from functools import cache, lru_cache

import numpy as np
from numpy.typing import NDArray

from swapglow.core.parts.catalogue import rows
from swapglow.core.parts.glass import Glass
from swapglow.core.parts.led import Led

FloatArray = NDArray[np.float64]

PLANCK_C2 = 1.438776877e-2  # m·K, second radiation constant, SI 2019


@cache
def observer() -> tuple[FloatArray, FloatArray]:
    """Wavelengths in nm, shape (81,), and x̄ȳz̄ of the CIE 1931 2° observer, shape (81, 3)."""
    table = np.array([[float(r[k]) for k in ("nm", "x", "y", "z")] for r in rows("cie1931_2deg", "photometry")])
    return table[:, 0], table[:, 1:]


@cache
def scotopic() -> FloatArray:
    """What the dark-adapted eye makes of each wavelength, shape (81,), 1 at its best (CIE 018)."""
    return np.array([float(r["v"]) for r in rows("cie1951_scotopic", "photometry")])


def _band(centre: float, width: float) -> FloatArray:
    nm, _ = observer()
    sigma = width / 2.354820045  # full width at half maximum of a Gaussian
    return np.asarray(np.exp(-0.5 * ((nm - centre) / sigma) ** 2))


def black_body(kelvin: float) -> FloatArray:
    """Relative power of a black body, shape (81,), 1 at 560 nm (Planck's law)."""
    metres = observer()[0] * 1e-9
    whole = metres**-5.0 / np.expm1(PLANCK_C2 / (metres * kelvin))
    return np.asarray(whole / (560e-9**-5.0 / np.expm1(PLANCK_C2 / (560e-9 * kelvin))))


# Tungsten's emissivity in three ranges, each a + b·λ + c·T + d·λ·T, λ in µm (Larrabee, J. Opt. Soc. Am. 49, 619,
# 1959, from memory).
_TUNGSTEN = (
    (0.450, 0.6075, -0.3000, -0.3265e-4, 0.5900e-4),
    (0.680, 0.4655, 0.01558, 0.2675e-4, -0.7305e-4),
    (np.inf, 0.6552, -0.2633, -0.7333e-4, 0.7417e-4),
)
# Blue and red by which a colour temperature is read, nm.
_BLUE_NM, _RED_NM = 465.0, 660.0


# The greatest luminous efficacy of radiation (CIE 018; SI 2019).
EFFICACY_LM_W = 683.0


def _emissivity(kelvin: float, nm: FloatArray) -> FloatArray:
    um = nm / 1e3
    out = np.zeros_like(um)
    below = 0.0
    for most, a, b, c, d in _TUNGSTEN:
        here = (um >= below) & (um < most)
        out[here] = (a + b * um + c * kelvin + d * um * kelvin)[here]
        below = most
    return out


def _blue_to_red(power: FloatArray) -> float:
    nm, _ = observer()
    return float(power[nm == _BLUE_NM][0] / power[nm == _RED_NM][0])


@lru_cache(maxsize=256)
def own_kelvin(kelvin: float) -> float:
    """How hot a tungsten filament of a colour temperature is, K: by the ratio of its blue to its red.

    Args:
        kelvin: colour temperature.

    Returns:
        Its own temperature, some 2 per cent less.
    """
    wanted = _blue_to_red(black_body(kelvin))
    low, high = 0.9 * kelvin, kelvin
    for _ in range(40):
        own = (low + high) / 2
        if _blue_to_red(_emissivity(own, observer()[0]) * black_body(own)) < wanted:
            low = own
        else:
            high = own
    return own


@cache
def wide_grid() -> FloatArray:
    """Wavelengths that detectors see, 350 to 1800 nm every 5 nm, shape (291,)."""
    return np.arange(350.0, 1801.0, 5.0)


def filament_power(kelvin: float) -> FloatArray:
    """Relative power of a filament from violet far into infrared, shape (291,), 1 at 560 nm.

    Past 0.8 µm, where the emissivity's last line ends, it goes on down to a floor of 0.25 (tungsten near 2 µm, from
    memory).

    Args:
        kelvin: colour temperature.

    Returns:
        Emissivity times Planck on :func:`wide_grid`.
    """
    own, nm = own_kelvin(kelvin), wide_grid()
    metres = nm * 1e-9
    power = np.maximum(_emissivity(own, nm), 0.25) * metres**-5.0 / np.expm1(PLANCK_C2 / (metres * own))
    return np.asarray(power / power[nm == 560][0])


@lru_cache(maxsize=256)
def filament(kelvin: float) -> FloatArray:
    """Relative power of a tungsten filament of a colour temperature, shape (81,), 1 at 560 nm.

    Tungsten gives off more blue than red of what a black body would, so that it is cooler than the black body
    whose colour it has; its own temperature is found by the ratio of blue to red.

    Args:
        kelvin: colour temperature.

    Returns:
        Emissivity times Planck.
    """
    own = own_kelvin(kelvin)
    power = _emissivity(own, observer()[0]) * black_body(own)
    return np.asarray(power / power[observer()[0] == 560][0])


def through(power: FloatArray, glass: Glass | None) -> FloatArray:
    """What a glass leaves of a spectrum.

    Args:
        power: the spectrum, (81,).
        glass: what it passes; None is air.

    Returns:
        The spectrum behind it, (81,).
    """
    return power if glass is None else power * np.interp(observer()[0], glass.nm, glass.share)


def luminous(power: FloatArray) -> float:
    """What the eye makes of a spectrum, any scale (CIE 1931)."""
    return float(power @ observer()[1][:, 1])


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
