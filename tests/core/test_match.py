"""Lamps made to look equal: levels against the LEDs' own curves, limits, and what an eye teaches."""

from dataclasses import replace

import numpy as np
import pytest

from swapglow.core.analysis.match import best, levels, match_lamp, trims
from swapglow.core.analysis.original_lamp import lamp_candela
from swapglow.core.design.looks import Looks
from swapglow.core.photometry.intensity import led_candela
from swapglow.core.photometry.light_doubt import doubt
from swapglow.core.photometry.words import called
from swapglow.core.presentation.match import match_report
from tests.core.light import candela
from tests.core.supplies import lamp as old_lamp
from tests.core.supplies import on

RED = on("regulated", "12V", low="11V", high="13V", led_id="red-5-diffused", resistor="1k", target="4mA")
BLUE = on("regulated", "5V", low="4.8V", high="5.2V", led_id="blue-3-diffused", resistor="330R", target="4mA")


@pytest.fixture(scope="module")
def group():
    return [match_lamp("r", "Red", RED), match_lamp("b", "Blue", BLUE)]


def through(volts, ohm, typ=2.0, n=1.9, rs_v=0.14):
    """Current of one LED of the table (Shockley, Kirchhoff), by bisection."""
    low, high = 1e-9, volts / ohm
    for _ in range(80):
        amps = np.sqrt(low * high)
        over = typ + n * 0.025693 * np.log(amps / 0.02) + rs_v * (amps / 0.02 - 1) + amps * ohm - volts
        low, high = (low, amps) if over > 0 else (amps, high)
    return amps


def test_each_resistor_has_the_light_its_current_gives(group):
    for c in group[0].choices[::5]:
        assert 2**c.octaves == pytest.approx(candela(through(12, c.ohm)), rel=4e-3)


def test_matched_they_are_within_a_fifth(group):
    found = levels(group)
    level = found[best(found, group)]
    red, blue = (lamp.choices[k] for lamp, k in zip(group, level.picks, strict=True))
    assert abs(red.octaves - blue.octaves) < np.log2(1.2)
    assert red.fits and blue.fits
    # A blue needs the larger resistor for the light of a red, on a lower rail still (common practice).
    at_twelve = match_lamp(
        "b",
        "Blue",
        on("regulated", "12V", low="11V", high="13V", led_id="blue-3-diffused", resistor="1k", target="4mA"),
    )
    both = [group[0], at_twelve]
    level = levels(both)[best(levels(both), both)]
    red, blue = (lamp.choices[k].ohm for lamp, k in zip(both, level.picks, strict=True))
    assert blue > 1.5 * red


def test_no_choice_is_past_a_lamps_limits(group):
    """Half of rated at the highest rail with the luckiest LED (ours), and never unseen in a lit room."""
    for lamp in group:
        p = lamp.position
        for c in lamp.choices:
            if c.fits:
                assert (p.rail.volts[2] - p.led.vf_high) / c.ohm < p.led.rated_a
                assert 2**c.octaves > 4e-5
    most = min(c.ohm for c in group[0].choices if c.fits)
    assert (13 - 1.7) / (most * 0.95) == pytest.approx(0.01, rel=0.12)


@pytest.mark.parametrize("dimmer", [100, 1000])
def test_what_cannot_be_matched_is_said_with_how_much(dimmer):
    dim = match_lamp("d", "Dim one", replace(RED, led=replace(RED.led, candela=RED.led.candela / dimmer)))
    bright = match_lamp(
        "w",
        "Bright one",
        on("regulated", "12V", low="11V", high="13V", led_id="white-5-clear", resistor="1k", target="4mA"),
    )
    report = match_report([dim, bright])
    top = report.levels[-1]
    assert "Dim one stays" in top.line
    dimmest = 2.0 ** (dim.choices[top.picks[0]].octaves - top.octaves)
    said = top.line.split("stays ")[1].split(" ×")[0]
    # Under a thousandth no digits are claimed.
    assert said == "under 0.001" if dimmest < 0.001 else float(said) == pytest.approx(dimmest, rel=0.06)


def test_steps_on_purpose_count_in_the_level(group):
    half = match_lamp("h", "Half", replace(BLUE, looks=Looks(share=0.5)))
    plain = group[1]
    for a, b in zip(half.choices, plain.choices, strict=True):
        assert a.octaves == pytest.approx(b.octaves + 1)


def test_a_match_by_eye_teaches_the_leds_true_ratio(group):
    """Standing as they do they look equal: after it the same resistors are level, and the doubt is the eye's fifth."""
    taught = trims(group, "r")
    assert set(taught) == {"b"}
    p = replace(BLUE, looks=Looks(trim=taught["b"]))
    amps = through(5, 330, 3.2, 2.5, 0.3)
    assert led_candela(p, amps) == pytest.approx(candela(through(12, 1000)), rel=0.02)
    assert doubt(p) == pytest.approx(1.2)
    assert doubt(BLUE) == pytest.approx(2.0)


def test_a_lamp_without_a_resistor_of_its_own_is_barred():
    barred = match_lamp(
        "m", "Module", on("regulated", "12V", low="11V", high="13V", band="10-15V", module={"amps": "20mA"})
    )
    assert "ready-made" in barred.barred
    report = match_report([barred, match_lamp("r", "Red", RED)])
    assert report.rows[0].values == ()
    assert report.levels[report.best].picks[0] is None
    assert "Module: a ready-made lamp" in report.levels[report.best].line


def test_equal_light_is_painted_with_equal_luminance(group):
    """Rec. 709 luminance of the painted colours (IEC 61966-2-1)."""
    report = match_report(group)
    level = report.levels[report.best]

    def luminance(text):
        c = np.array([int(text[k : k + 2], 16) for k in (1, 3, 5)]) / 255
        linear = np.where(c <= 0.04045, c / 12.92, ((c + 0.055) / 1.055) ** 2.4)
        return float(linear @ [0.2126, 0.7152, 0.0722])

    shown = [luminance(row.values[k].colour) for row, k in zip(report.rows, level.picks, strict=True)]
    true = [2.0 ** row.values[k].octaves for row, k in zip(report.rows, level.picks, strict=True)]
    assert shown[0] / shown[1] == pytest.approx(true[0] / true[1], rel=0.06)


@pytest.mark.parametrize(
    ("ratio", "words"),
    [
        (0.0, "dark"),
        (0.02, "hardly visible"),
        (0.1, "much dimmer"),
        (0.25, "about a quarter as bright"),
        (1 / 3, "about a third as bright"),
        (0.5, "about half as bright"),
        (0.7, "a little dimmer"),
        (1.0, "about as bright"),
        (1.4, "a little brighter"),
        (2.0, "about twice as bright"),
        (3.0, "about three times as bright"),
        (6.0, "several times as bright"),
        (40.0, "many times as bright"),
    ],
)
def test_light_beside_light_in_words(ratio, words):
    assert called(ratio) == words


def test_a_match_says_how_each_stands_beside_its_old_lamp_and_what_loses_much():
    own = {"lamp": old_lamp("12V", "0.1A", "1cd")}
    dim = match_lamp("d", "Dim", replace(RED, led=replace(RED.led, candela=RED.led.candela / 60)))
    bright = match_lamp("b", "Bright", on("regulated", "12V", led_id="red-5-diffused", resistor="1k", **own))
    report = match_report([dim, bright])
    row = next(r for r in report.rows if r.name == "Bright")
    now = row.values[row.now]
    ratio = 2**now.octaves / lamp_candela(bright.position)
    assert now.beside == f"{called(ratio)} ({ratio:.2g} ×)"
    assert [r.values[r.now].beside for r in report.rows if r.name == "Dim"] == [""]
    assert all(r.doubt.startswith("within ") for r in report.rows)
    lowest = report.levels[0]
    k = lowest.picks[1]
    falls = 2 ** (row.values[k].octaves - now.octaves)
    assert falls < 1 / 3 and f"Bright falls to {falls:.2g} of its present light" in lowest.line
