"""Colour and lightness against colour-science (CIE 1931 2° observer, CIE 015)."""

import warnings

import numpy as np
import pytest

from swapglow.core.assess import assess
from swapglow.core.design.position import Position
from swapglow.core.parts import lamp, led
from swapglow.core.photometry import spectrum
from swapglow.core.photometry.colour import lightness, screen_colour, tristimulus
from swapglow.core.quantities import Figure
from swapglow.core.supplies.rail import Rail


def chromaticity(power):
    """x, y of a spectrum (CIE 1931)."""
    return tuple(tristimulus(power)[:2] / tristimulus(power).sum())


@pytest.fixture(scope="module")
def colour_science():
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        import colour
    return colour


def _reference(colour_science, power):
    nm, _ = spectrum.observer()
    sd = colour_science.SpectralDistribution(dict(zip(nm, power, strict=True)))
    cmfs = colour_science.MSDS_CMFS["CIE 1931 2 Degree Standard Observer"]
    shape = colour_science.SpectralShape(380, 780, 5)
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        xyz = colour_science.sd_to_XYZ(sd, cmfs.copy().align(shape), method="Integration")
    return colour_science.XYZ_to_xy(xyz)


@pytest.mark.parametrize("key", ["red-5-diffused", "lime-5-diffused", "green-5-clear", "warm-5-clear"])
def test_chromaticity_of_leds(colour_science, key):
    power = spectrum.led(led.catalogue()[key])
    assert chromaticity(power) == pytest.approx(tuple(_reference(colour_science, power)), abs=1e-3)


@pytest.mark.parametrize("kelvin", [2100, 2450, 2800])
def test_filaments_lie_on_the_planckian_locus(colour_science, kelvin):
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        sd = colour_science.sd_blackbody(kelvin, colour_science.SpectralShape(380, 780, 5))
    expected = _reference(colour_science, sd.values)
    assert chromaticity(spectrum.filament(kelvin)) == pytest.approx(tuple(expected), abs=1e-3)


def test_white_leds_lie_near_their_colour_temperature():
    assert chromaticity(spectrum.led(led.catalogue()["warm-5-clear"])) == pytest.approx(
        chromaticity(spectrum.filament(2800)), abs=2e-3
    )


def test_lightness_is_cie_1976(colour_science):
    y = np.array([0, 1e-4, 0.008, 0.009, 0.18, 0.5, 1.0])
    expected = colour_science.colorimetry.lightness_CIE1976(y * 100)
    assert lightness(y) == pytest.approx(expected, abs=1e-6)


def test_a_red_stays_red_and_an_amber_does_not():
    red, amber = (
        screen_colour(tristimulus(spectrum.led(led.catalogue()[k])), 1.0)
        for k in ("red-5-clear", "amber-5-diffused")
    )
    assert red == "#ff0000" and amber[3:5] > "20" and amber[5:] == "00"


def test_the_glow_follows_current_and_the_old_lamp_its_rail():
    part = led.catalogue()["warm-5-diffused"]
    p = Position(Rail(Figure(10), Figure(12), Figure(14)), part, Figure(2e-3), lamp=lamp.catalogue()["1815"])
    report = assess(p)
    old, *leds = report.glow
    assert old.intensity.value == pytest.approx(1.4 * (12 / 14) ** 3.5)
    for g, amps in zip(leds, (report.current.low, report.current.usual, report.current.high), strict=True):
        assert g.intensity.value == pytest.approx(part.candela * amps.value / part.rated_a)
        assert float(g.ratio_text.split()[0]) == pytest.approx(
            g.intensity.value / old.intensity.value, rel=0.05
        )
