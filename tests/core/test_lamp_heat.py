"""Heat in the lamp's place by Ohm and Joule; light over a cycle by the sine."""

import math

import numpy as np
import pytest

from swapglow.core.analysis.solution import solve
from swapglow.core.assess import assess
from swapglow.core.presentation.flicker import SLOWED_S
from tests.core.supplies import lamp, on, read

DC = {"low": "11V", "high": "13V", "vf": "2V", "resistor": "1k", "tolerance": 0.0}


def test_before_and_after_are_volts_times_amps_at_the_highest_rail():
    """A 12 V 0.1 A lamp at 13 V draws 0.1·(13/12)^0.55 A (the lamp's law, from memory in its module)."""
    p = on("regulated", "12V", **DC, **lamp("12V", "0.1A", "0.02cd"))
    heat, s = assess(p).heat, solve(p)
    assert heat.before.value == pytest.approx(13 * 0.1 * (13 / 12) ** 0.55, rel=0.01)
    assert heat.after.value == pytest.approx(13 * s.string_current_max, rel=1e-6)
    share = heat.after.value / heat.before.value
    assert heat.line == f"{share * 100:.0f} % of the old heat is left: lens and dial warm by as much of what they did."


def test_what_stands_before_the_lamp_is_no_heat_in_its_place():
    """100 Ω behind the rail take I²·100 of 12 V·I, a driver's 0.5 V their share."""
    behind = on("logic", "12V", {"source": "100R"}, flat=True, vf="2V", resistor="1k", tolerance=0.0)
    amps = solve(behind).string_current_max
    assert assess(behind).heat.after.value == pytest.approx(12 * amps - 100 * amps**2, rel=1e-6)
    driven = on(
        "regulated",
        "12V",
        flat=True,
        vf="2V",
        resistor="1k",
        tolerance=0.0,
        driver_kind="low_side",
        driver_drop=read("0.5V"),
    )
    amps = solve(driven).string_current_max
    assert assess(driven).heat.after.value == pytest.approx(11.5 * amps, rel=1e-3)


def test_shunts_and_strings_count():
    p = on("regulated", "12V", flat=True, vf="2V", resistor="1k", tolerance=0.0, branches=3, shunt="470R")
    amps = 3 * solve(p).string_current_max + 12 / 470
    assert assess(p).heat.after.value == pytest.approx(12 * amps, rel=1e-6)


@pytest.mark.parametrize("way", ["half_wave", "bridge", "bridge_cap", "half_wave_cap"])
def test_over_a_cycle_it_is_the_mean_of_volts_times_amps(way):
    """From the crest's own shape: rectifier, resistor and LED take what the winding gives less what is in series."""
    p = on("winding", "9Vac", {"hertz": "50Hz"}, flat=True, rectification=way, resistor="470R", vf="2V", tolerance=0.0)
    s = solve(p)
    drawn = s.ac.drawn
    # Resistor and LED at each instant, and the diodes' some 0.75 V each while it conducts.
    inside = float(((drawn.string[2] + drawn.series[2]) * drawn.amps[2]).mean())
    diodes = (2 if way.startswith("bridge") else 1) * 0.75 * float(drawn.amps[2].mean())
    assert s.lamp_w == pytest.approx(inside + diodes, rel=0.06)
    assert s.lamp_w > inside


def test_no_lamp_known_is_said_and_no_cooler_is_said():
    assert assess(on("regulated", "12V", **DC)).heat.line == "The old lamp's heat is not known: say what lamp it was."
    warm = assess(
        on("regulated", "12V", flat=True, vf="2V", resistor="150R", shunt="100R", **lamp("12V", "0.05A", "0.02cd"))
    )
    assert warm.heat.line.startswith("It is no cooler")


def test_a_flash_is_the_rectified_sine_begun_at_its_darkest():
    p = on("winding", "9Vac", {"hertz": "50Hz"}, rectification="bridge", resistor="470R", vf="2V")
    flicker = assess(p).glow.flicker
    frames = np.array(flicker.frames)
    assert len(frames) == 40
    assert (frames[0], frames.max()) == (0.0, 1.0)
    assert frames.argmax() == pytest.approx(20, abs=1)
    # At an eighth of the flash the source is at sin(π/8) of its crest: by Ohm's law with 3.5 V of LED and diodes.
    crest = 9 * math.sqrt(2)
    amps = (crest * math.sin(math.pi / 8) - 3.5) / (crest - 3.5)
    assert frames[5] ** 3 == pytest.approx(amps, abs=0.07)
    assert flicker.line.startswith("100\u00a0Hz, 100 % modulation (low-risk is up to 8 %, IEEE 1789-2015)")
    assert flicker.line.endswith(f"one flash is shown in {SLOWED_S:g} s.")
    # Never more than three flashes a second (WCAG 2.2, 2.3.1).
    assert 1 / flicker.seconds <= 1


def test_steady_light_and_a_supply_without_a_frequency_have_no_flash():
    assert assess(on("regulated", "12V", **DC)).glow.flicker is None
    assert assess(on("digital", "15.8V", rectification="bridge")).glow.flicker is None
