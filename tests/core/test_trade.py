"""Facts of the trade. Each is common practice unless a source is named."""

import math

import numpy as np
import pytest

from swapglow.core.analysis.solution import current, solve
from swapglow.core.assess import assess
from swapglow.core.constant_vf import ConstantVf, size_constant
from swapglow.core.constants import thermal_voltage
from swapglow.core.design.position import Position
from swapglow.core.drivers import DRIVERS
from swapglow.core.drivers.driver import Driver
from swapglow.core.network.cases import Cases
from swapglow.core.parts import lamp, led
from swapglow.core.quantities import Figure
from swapglow.core.supplies.rail import Rail


def constant(volts, vf, amps, **rest):
    return size_constant(ConstantVf((volts,) * 3, (vf,) * 3, rest.pop("in_series", 1), amps, **rest))


def position(volts, kind, *, vf=None, ohms, **rest):
    base = led.catalogue()[kind]
    part = base if vf is None else led.with_range(base, vf, vf, vf, base.rated_a)
    rail = Rail(Figure(volts), Figure(volts), Figure(volts))
    return Position(rail, part, Figure(0.01), resistor_ohm=ohms, resistor_tolerance=0.0, **rest)


def test_ten_volts_a_red_led_and_e12():
    assert constant(10.2, 2.2, 0.019, series="E12").resistor_ohm == 470


def test_two_red_on_five_volts_nearest_is_over_twenty_milliamps():
    r = constant(5.0, 2.0, 0.02, in_series=2, series="E12", rounding="nearest")
    assert (r.exact_ohm, r.resistor_ohm) == (pytest.approx(50), 47)
    assert r.current_a[1] == pytest.approx(0.0213, abs=1e-4)
    assert "over-rated-current" in {f.id for f in r.findings}


def test_twenty_eight_volts_blue_and_eighteen_hundred_ohm():
    p = position(28, "blue-5-clear", vf=3.2, ohms=1800.0, rating_w=0.25)
    report = assess(p)
    assert report.current.usual.value == pytest.approx(13.8e-3, rel=0.01)
    assert report.power.each.value == pytest.approx(0.34, rel=0.02)
    # 137 % of a quarter-watt part.
    assert report.power.each.value / 0.25 == pytest.approx(1.37, rel=0.02)
    assert {f.id: f.figure for f in report.findings}["resistor-over-rating"] == report.power.each.text
    two = position(28, "blue-5-clear", vf=3.2, ohms=1800.0, resistor_parts=2, rating_w=0.25)
    halves = assess(two)
    assert halves.current.usual.value == pytest.approx(6.9e-3, rel=0.015)
    assert halves.power.each.value < 0.09


@pytest.mark.parametrize(
    ("volts", "ohms", "kind", "vf", "amps", "within"),
    [
        (5.0, 100, "green-chip", 3.2, 18e-3, 0.05),
        (5.0, 100, "lime-5-diffused", 2.1, 29e-3, 0.05),
        (3.3, 330, "red-5-diffused", 2.0, 4e-3, 0.15),
        (9.0, 680, "red-5-diffused", 2.0, 10e-3, 0.05),
        (12.0, 1000, "red-5-diffused", 2.0, 10e-3, 0.05),
    ],
)
def test_what_practice_expects(volts, ohms, kind, vf, amps, within):
    assert solve(position(volts, kind, vf=vf, ohms=ohms)).usual[1] == pytest.approx(amps, rel=within)


def test_blue_and_white_on_a_logic_rail_take_about_a_milliamp_or_less():
    for kind in ("blue-5-clear", "white-5-clear"):
        s = solve(position(3.3, kind, ohms=330))
        # "About 1 mA or less": the unlucky LED stays under it, the typical one under two.
        assert s.string_current_min < 1e-3
        assert s.usual[1] < 2.2e-3


def test_an_led_with_three_ohm_on_twelve_volts_is_destroyed():
    report = assess(position(12, "red-5-diffused", vf=2.0, ohms=3.0))
    assert report.findings[0].id == "over-rated-current" and report.findings[0].grade == "stop"


def test_the_measured_curve_of_three_green_on_a_vehicle():
    """3.47 V at 13.3 mA and 3.81 V at 21.4 mA, measured; a constant 3.47 V would say 30 mA at 14 V."""
    slope = (3.81 - 3.47) / (21.4e-3 - 13.3e-3)
    base = led.catalogue()["green-5-clear"]
    # The two measured points fix the ohmic share once the junction's own slope is taken off.
    nvt = base.n * thermal_voltage(25)
    r_s = slope - nvt * math.log(21.4 / 13.3) / (21.4e-3 - 13.3e-3)
    rated = 0.0214
    from dataclasses import replace

    part = replace(base, vf_low=3.81, vf_typ=3.81, vf_high=3.81, rated_a=rated, rs_v=r_s * rated)
    p = Position(Rail(Figure(12), Figure(12), Figure(14)), part, Figure(0.013), in_series=3)
    low, high = current(p, Cases(np.array([12.0, 14.0]), 3.81, 120.0))
    assert low * 13 == pytest.approx(173e-3, rel=0.05)
    assert high * 13 == pytest.approx(278e-3, rel=0.05)


def test_dc_string_is_ohm_and_kirchhoff():
    """I = (V − Vdrop − n·Vf)/R (Ohm, Kirchhoff)."""
    r = size_constant(ConstantVf((20, 24, 27), (2.8, 3.0, 3.3), 2, 0.01, drop=0.9))
    assert r.exact_ohm == pytest.approx((24 - 0.9 - 6) / 0.01)
    # The resistor is 5 % high at the least current, and 5 % low at the most.
    assert r.current_a[0] == pytest.approx((20 - 0.9 - 6.6) / (r.resistor_ohm * 1.05))
    assert r.current_a[1] == pytest.approx((24 - 0.9 - 6) / r.resistor_ohm)
    assert r.current_a[2] == pytest.approx((27 - 0.9 - 5.6) / (r.resistor_ohm * 0.95))
    assert r.resistor_power_w == pytest.approx(r.current_a[2] ** 2 * r.resistor_ohm * 0.95)


def test_a_drivers_drop_comes_off_the_feed_and_never_off_lamp_volts():
    part = led.catalogue()["red-5-diffused"]
    for read_at, expected in (("feed", 11.0), ("lamp", 12.0)):
        rail = Rail(Figure(12), Figure(12), Figure(12), read_at=read_at)
        p = Position(rail, part, Figure(0.005), driver=Driver(DRIVERS.usual, Figure(1.0)))
        vf = float(part.junction(part.vf_typ).volts(0.005))
        assert solve(p).sizing.headroom_v == pytest.approx(expected - vf)


def test_filament_off_its_rating_follows_the_handbook():
    """Exponents 0.55, 3.5 and 0.42 (miniature lamp handbooks, from memory)."""
    bulb = lamp.catalogue()["47"]
    assert bulb.amps_at(5.0) / bulb.amps == pytest.approx((5 / 6.3) ** 0.55)
    assert bulb.candela_at(5.0) / bulb.candela == pytest.approx((5 / 6.3) ** 3.5)
    assert bulb.kelvin_at(5.0) / bulb.colour_k == pytest.approx((5 / 6.3) ** 0.42)
