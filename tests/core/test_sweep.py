"""Curves fitted to sweeps: synthetic data with known parameters are recovered."""

from dataclasses import replace

import numpy as np
import pytest

from swapglow.core.assess import assess
from swapglow.core.constants import thermal_voltage
from swapglow.core.parts import led
from swapglow.core.parts.fit import FitError, fit_curve
from swapglow.core.parts.sweep import SweepInput, fitted_led, read_sweep, read_table, sweep_report
from swapglow.core.photometry.intensity import led_candela
from swapglow.core.quantities import InputError
from tests.core.supplies import on

VT = thermal_voltage(25.0)


def led_of(name):
    return led.catalogue()[name]


def volts(amps, i_s, n, r_s):
    """Shockley with series resistance."""
    return n * VT * np.log1p(amps / i_s) + amps * r_s


@pytest.mark.parametrize(
    ("i_s", "n", "r_s", "count"),
    [(1e-18, 2.0, 8.0, 1), (3e-22, 2.6, 15.0, 1), (1e-14, 1.6, 2.0, 1), (1e-20, 6.9, 180.0, 3)],
)
def test_known_parameters_are_recovered(i_s, n, r_s, count):
    amps = np.geomspace(2e-4, 25e-3, 12)
    c = fit_curve(volts(amps, i_s, n, r_s), amps, in_series=count)
    assert c.n == pytest.approx(n, rel=1e-3)
    assert c.r_s == pytest.approx(r_s, rel=1e-2)
    assert np.log(c.i_s) == pytest.approx(np.log(i_s), rel=2e-3)
    assert c.error_v < 1e-6


def test_with_a_meters_noise_the_curve_still_passes_within_it():
    rng = np.random.default_rng(7)
    amps = np.geomspace(3e-4, 20e-3, 15)
    read = volts(amps, 1e-19, 2.2, 9.0) + rng.normal(0, 5e-3, 15)
    c = fit_curve(read, amps)
    assert c.error_v < 8e-3
    assert c.volts(10e-3) == pytest.approx(volts(10e-3, 1e-19, 2.2, 9.0), abs=6e-3)


def test_a_resistor_known_inside_is_not_taken_for_less():
    amps = np.geomspace(1e-3, 20e-3, 10)
    c = fit_curve(volts(amps, 1e-18, 2.0, 158.0), amps, known_ohm=150.0)
    assert c.r_s == pytest.approx(158, rel=0.01)


def test_the_cheap_green_of_the_trade():
    """3.1 V at 6 mA, 3.5 at 13, 3.8 at 21 (common practice): within a few hundredths of a volt."""
    c = fit_curve(np.array([3.1, 3.5, 3.8]), np.array([6e-3, 13e-3, 21e-3]))
    assert c.worst_v < 0.05


@pytest.mark.parametrize(
    ("v", "a", "says"),
    [
        ([2.0, 2.1], [1e-3, 2e-3], "3 readings"),
        ([2.0, 2.1, 2.2], [1e-3, 1e-3, 1e-3], "different currents"),
        ([3.0, 2.5, 2.0], [1e-3, 2e-3, 3e-3], "rise"),
    ],
)
def test_tables_without_a_curve(v, a, says):
    with pytest.raises(FitError, match=says):
        fit_curve(np.array(v), np.array(a))


@pytest.mark.parametrize(
    "text",
    [
        "2.61V 1mA\n2.74V 3.1mA\n2.88V 8mA",
        "V,mA\n2.61,1\n2.74,3.1\n2.88,8",
        "volts;amps\n2,61;0,001\n2,74;0,0031\n2,88;0,008",
        "mA\tV\n1\t2.61\n3.1\t2.74\n8\t2.88",
        "# bench supply\n2.61V\t1mA\n\n2.74V\t3.1mA\n2.88V\t8mA\n",
        "2.61, 1mA\n2.74, 3.1mA\n2.88, 8mA",
        "1mA 2.61V\n3.1mA 2.74V\n8mA 2.88V",
        "2.61 1\n2.74 3.1\n2.88 8",
        "1 2.61\n3.1 2.74\n8 2.88",
        "0.001 2.61\n0.0031 2.74\n0.008 2.88",
    ],
)
def test_a_table_as_it_is_typed_pasted_or_saved(text):
    v, a, _ = read_table(text)
    assert v == pytest.approx([2.61, 2.74, 2.88])
    assert a == pytest.approx([1e-3, 3.1e-3, 8e-3])


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("2.6V", "Line 1.*two values"),
        ("2.6V 1mA\n2.7V; much", "Line 2.*current"),
        ("-1V 1mA", "Line 1.*0 V or more"),
        ("1V 1mA\n" * 600, "500 lines"),
    ],
)
def test_a_table_that_cannot_be_read_says_which_line(text, says):
    with pytest.raises(InputError, match=says) as refused:
        read_table(text)
    assert refused.value.field == "sweep"


def test_the_swept_module_becomes_the_model():
    """What the sweep read at a current is what the position then computes there."""
    amps = np.geomspace(5e-4, 20e-3, 9)
    table = "\n".join(f"{v:.4f}V {a * 1e3:.4f}mA" for v, a in zip(volts(amps, 1e-26, 6.0, 90.0), amps, strict=True))
    typed = SweepInput(table, "3", "")
    part = fitted_led(led.catalogue()["white-5-clear"], typed)
    junction = part.junction(part.vf_typ)
    assert junction.volts(7e-3) == pytest.approx(volts(7e-3, 1e-26, 6.0, 90.0), abs=2e-3)
    p = on("regulated", "14V", led_id="white-5-clear", resistor="330R", sweep=table, sweep_in_series="3")
    amp = assess(p).current.usual.value
    assert pytest.approx(330 * amp + volts(amp, 1e-26, 6.0, 90.0), abs=5e-3) == 14
    assert p.led_source == "measured"
    assert read_sweep(typed).curve.error_v < 1e-3
    dull = SweepInput(table, "no", "")
    with pytest.raises(InputError, match="1 to 200"):
        read_sweep(dull)


def test_a_swept_module_is_held_to_its_band_by_its_own_curve():
    """With a resistor that drops the rest it stays in its band; without one it does not."""
    table = "8.6V 1.1mA\n9.1V 2.9mA\n9.8V 6.4mA\n10.6V 10.6mA\n11.9V 17.6mA"
    module = {"led_id": "white-5-clear", "band": "9-13V", "sweep": table, "sweep_in_series": "3"}
    dropped = assess(on("regulated", "23V", resistor="2.2k", **module))
    assert "module-over-band" not in {f.id for f in dropped.findings}
    straight = assess(on("regulated", "23V", resistor="100R", **module))
    assert "module-over-band" in {f.id for f in straight.findings}


def test_what_the_columns_were_taken_for_is_said_where_nothing_says_so():
    """A current spans far more than its volts, and no indicator takes eight amperes (common practice)."""
    line = sweep_report(SweepInput("1 2.61\n3.1 2.74\n8 2.88")).line
    assert "first column spans more and is taken for the current" in line
    assert "8 are taken for milliamps" in line
    assert "taken for" not in sweep_report(SweepInput("2.61V 1mA\n2.74V 3.1mA\n2.88V 8mA")).line


def test_strings_leds_and_resistor_are_taken_out_of_the_curve():
    """12 V, 30 mA in two strings of three with 100 Ω each: 15 mA, and (12 − 1.5)/3 = 3.5 V (Ohm)."""
    table = "9V 3mA\n10.5V 12mA\n12V 30mA"
    report = sweep_report(SweepInput(table, "3", "100R", "2"))
    assert "15\u00a0mA in each string, 3.5\u00a0V over each LED" in report.line
    whole, one = report.curve[-1], report.each[-1]
    assert one.amps == pytest.approx(whole.amps / 2)
    assert one.volts == pytest.approx((whole.volts - 100 * one.amps) / 3)
    assert sweep_report(SweepInput(table)).each == ()


def test_a_swept_board_is_judged_and_shown_by_the_led_inside():
    """Two strings of three white LEDs (Shockley, n 2.3, 8 Ω) and 150 Ω; 14 V behind 100 Ω (Ohm, Kirchhoff)."""
    one = np.geomspace(3e-4, 18e-3, 12)
    board = 3 * volts(one, 4e-22, 2.3, 8.0) + one * 150
    table = "\n".join(f"{v:.5f}V {2e3 * a:.5f}mA" for v, a in zip(board, one, strict=True))
    more = {"led_id": "white-5-clear", "sweep": table, "sweep_in_series": "3", "sweep_strings": "2"}
    p = on("regulated", "14V", flat=True, resistor="100R", sweep_resistor="150R", **more)
    inside = assess(p).current.inside
    each = inside.amps.value
    led = volts(each, 4e-22, 2.3, 8.0)
    assert inside.strings == 2
    assert inside.volts.value == pytest.approx(led, abs=3e-3)
    assert 14 - 100 * 2 * each - 150 * each == pytest.approx(3 * led, abs=0.01)
    assert assess(p).current.usual.value == pytest.approx(2 * each)
    # Each LED keeps its kind's rating and light: two strings may carry twice, and six give six times the light.
    kind = led_of("white-5-clear")
    assert p.led.rated_a == pytest.approx(2 * kind.rated_a)
    one = replace(p, led=kind, in_series=1, branches=1)
    assert led_candela(p, 2 * each) == pytest.approx(6 * led_candela(one, each))
    assert assess(on("winding", "14Vac", rectification="bridge", **more)).current.inside.volts is None
    assert assess(on("regulated", "14V", sweep=table)).current.inside is None


def test_a_series_count_is_never_multiplied_twice():
    table = "9V 3mA\n10.5V 12mA\n12V 30mA"
    with pytest.raises(InputError, match="3 LEDs in series already") as refused:
        on("regulated", "24V", sweep=table, sweep_in_series="3", in_series=3)
    assert refused.value.field == "in_series"
    assert on("regulated", "24V", sweep=table, sweep_in_series="3", in_series=2, band="9-13V").in_series == 2
