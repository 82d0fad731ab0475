"""Old lamp and LED on the staircase: their steps add up to the feed (Kirchhoff), each by Ohm."""

import pytest

from tests.core.circuits.results import worked
from tests.core.circuits.test_charge_feeds_clip import CHARGE
from tests.core.circuits.test_coil_magneto import COIL
from tests.core.circuits.test_knob import GAUGE, KNOB


@pytest.mark.parametrize(
    ("kind", "typed", "feed", "led_ohm"),
    [
        ("charge_lamp", CHARGE, 12.6, 1000.0),
        ("coil", COIL, 22.0, 1500.0),
        ("gauge", GAUGE, 6.0, 390.0),
        ("rheostat", KNOB, 13.6, 680.0),
        ("rheostat", {**KNOB, "cure": "shunt", "shunt": "47R"}, 13.6, 680.0),
        ("rheostat", {**KNOB, "cure": "follower"}, 13.6, 680.0),
    ],
)
def test_steps_add_up_to_the_feed(kind, typed, feed, led_ohm):
    stairs = worked(kind, **typed).stairs
    assert len(stairs) == 2
    for stair in stairs:
        assert sum(s.volts for s in stair.steps) == pytest.approx(feed, rel=1e-6)
    led = {s.label: s.volts for s in stairs[1].steps}
    if kind != "gauge":
        assert led["resistor"] == pytest.approx(stairs[1].amps.value * led_ohm, rel=1e-6)
    assert 1.5 < led["LED"] < 3.4


def test_pulses_keep_nothing_and_have_no_stair():
    assert worked("rheostat", **KNOB, cure="pulses").stairs == ()


def test_a_follower_keeps_it_in_the_transistor():
    assert [s.label for s in worked("rheostat", **KNOB, cure="follower").stairs[1].steps] == [
        "transistor",
        "resistor",
        "LED",
    ]
