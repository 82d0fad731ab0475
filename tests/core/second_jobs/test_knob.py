"""Lamps behind a knob, and lamps read by their brightness: against ngspice over the turn, and closed forms."""

import numpy as np
import pytest

from scripts import reference
from swapglow.core.fitted.second_jobs import gauge
from swapglow.core.fitted.second_jobs.rheostat import (
    Dash,
    apart,
    nearest_shunt,
    old_turned,
    turned,
)
from swapglow.core.parts.lamp import own_lamp
from swapglow.core.parts.led import catalogue
from swapglow.core.quantities import InputError
from tests.core.second_jobs.decks import deck, diode, filament, led_model
from tests.core.test_fitted import figure, judged, way, worked

KNOB = {"volts": "13.6V", "track": "25R", "count": "4", "lamp_volts": "12V", "lamp_amps": "0.12A",
        "led": "green-5-clear", "ohm": "680R"}  # fmt: skip
DASH = Dash(13.6, 25.0, 4, own_lamp(12.0, 0.12, None, ""), catalogue()["green-5-clear"], 680.0)
TURNS = np.array([0.0, 0.25, 0.6, 1.0])


def test_old_lamps_over_the_turn_are_the_references():
    decks = [deck("vrail rail 0 13.6", f"rk rail bus {25 * t + 1e-3}", filament("l", "bus", "0", 12.0, 0.12, 4))
             for t in TURNS]  # fmt: skip
    old = old_turned(DASH, TURNS)
    for k, found in enumerate(reference.operating_points(decks)):
        assert old.bus[k] == pytest.approx(found["bus"], rel=1e-3)
        assert old.amps[k] == pytest.approx(-found["i(vrail)"] / 4, rel=1e-3)
        assert old.knob_w[k] == pytest.approx(found["i(vrail)"] ** 2 * 25 * TURNS[k], rel=2e-3, abs=1e-9)
        # Light goes as V^3.5 (miniature lamp handbooks, from memory).
        assert old.light[k] == pytest.approx((found["bus"] / 13.6) ** 3.5, rel=4e-3)


@pytest.mark.parametrize("cure", ["none", "shunt", "follower"])
def test_each_way_of_dimming_is_the_references(cure):
    d = Dash(**{**DASH.__dict__, "cure": cure, "shunt": 33.0 if cure == "shunt" else None})
    leds = ["rl bus leds 170", diode("l", "leds", "0", led_model("green-5-clear"), 4)]
    decks = []
    for t in TURNS:
        if cure == "follower":
            feed = [f"ru rail wip {1000 * t + 1e-3}", f"rd wip 0 {1000 * (1 - t) + 1e-3}", "q1 rail wip bus qn",
                    ".model qn npn(is=1e-14 bf=200 br=4 tnom=27)"]  # fmt: skip
        else:
            feed = [f"rk rail bus {25 * t + 1e-3}"]
        decks.append(deck("vrail rail 0 13.6", *feed, *leds, *(["rs bus 0 33"] if cure == "shunt" else [])))
    found = reference.operating_points(decks)
    now = turned(d, TURNS)
    for k, theirs in enumerate(found):
        amps = (theirs["bus"] - theirs["leds"]) / 170 / 4
        assert now.amps[k] == pytest.approx(amps, rel=2e-3, abs=1e-9)
    if cure == "shunt":
        assert now.part_w[0] == pytest.approx(found[0]["bus"] ** 2 / 33, rel=1e-3)
    if cure == "follower":
        assert now.part_w[0] == pytest.approx((13.6 - found[0]["bus"]) * now.amps[0] * 4, rel=1e-2)


def test_a_knob_that_does_nearly_nothing_is_said_and_what_comes_closest_stands_first():
    w = worked("rheostat", **KNOB)
    said = "Old lamps and LEDs: 20 % and 94 % of their light at half the knob, 5 % and 89 % at its end."
    assert w.line == f"{said} It no longer follows."
    assert judged(w, "The knob is 47 steps").grade == "mind"
    misses = [float(x.what.split(" steps")[0].rsplit(" ", 1)[1]) for x in w.ways]
    assert misses == sorted(misses) and w.ways[0].advised and not any(x.advised for x in w.ways[1:])
    # Pulses: half the time on is half the light (Talbot-Plateau), with no heat.
    assert "50 % at half, 0 % at its end" in way(w, "Pulses").what and "No heat" in way(w, "Pulses").what
    assert figure(w, "LEDs at half the knob").after.value == pytest.approx(0.5)
    assert [c.of for c in w.pictures[0].curves] == ["old", "new", "after"]
    ends = [c.points[-1].y for c in w.pictures[0].curves]
    assert ends == pytest.approx([4.7, 89.2, 0.0], abs=0.2)
    # Chosen: the shunt. It is what stands afterwards.
    shunt = way(w, "27")
    chosen = worked("rheostat", shunt.label, **KNOB)
    assert figure(chosen, "LEDs at its end").after.value == pytest.approx(0.43, abs=0.01)
    done = worked("rheostat", **KNOB, cure="shunt", shunt="27R")
    assert judged(done, "The resistor across the LEDs makes 6.8").grade == "mind"
    assert shunt.changes == {"cure": "shunt", "shunt": "27\u00a0Ω"}


def test_a_shunt_makes_no_more_heat_than_the_lamps_did():
    """4 lamps of 13.6 V and 129 mA are 26.4 Ω: the next of E12 is 27, though a smaller one would follow better."""
    old = old_turned(DASH)
    ohm = nearest_shunt(DASH, old)
    assert ohm == 27.0 and 13.6**2 / ohm <= 13.6 * 4 * old.amps[0]
    with_27, with_15 = (turned(Dash(**{**DASH.__dict__, "cure": "shunt", "shunt": o})) for o in (27.0, 15.0))
    assert apart(old, with_15) < apart(old, with_27)


def test_a_knob_that_is_bright_enough_to_burn_is_a_stop():
    """(13.6 - 3.2) / 470 is 22 mA, over 20."""
    assert judged(worked("rheostat", **{**KNOB, "ohm": "470R"}), "22").grade == "stop"
    assert not any(j.grade == "stop" for j in worked("rheostat", **KNOB).judged)


@pytest.mark.parametrize("missing", ["volts", "track", "lamp_volts", "lamp_amps", "ohm"])
def test_a_knob_asks_for_what_is_missing(missing):
    with pytest.raises(InputError) as refused:
        worked("rheostat", **{k: v for k, v in KNOB.items() if k != missing})
    assert refused.value.field == missing


def test_a_law_that_is_missed_by_more_than_ten_steps_is_minded():
    """Pulses halve the light at half the knob where the old lamps had a fifth: 18 steps (L* 76 against 52)."""
    pulses = worked("rheostat", **KNOB, cure="pulses")
    assert judged(pulses, "The knob is 18 steps").grade == "mind"
    # A track of 1 Ω hardly dimmed the old lamps either, and the LEDs lose next to nothing by comparison.
    stiff = worked("rheostat", **{**KNOB, "track": "1R"})
    assert judged(stiff, "The knob is") is None and judged(stiff, "Even the old lamps").grade == "note"
    assert judged(worked("rheostat", **KNOB), "Even the old lamps") is None


def test_a_transistor_that_follows_is_small_while_its_heat_is():
    """Four LEDs take 58 mA at some 0.8 V and up to 171 mW on the way; twelve take three times that, over 300."""
    follower = "A transistor that follows"
    assert "a small one takes it" in way(worked("rheostat", **KNOB), follower).what
    many = way(worked("rheostat", **{**KNOB, "count": "12"}), follower).what
    assert "it wants a larger one on metal" in many and "51" in many.split("mW")[0]


# --- read by its brightness -----------------------------------------------------------------------

GAUGE = {"low": "4.2V", "usual": "6V", "high": "6.6V", "lamp_volts": "6V", "lamp_amps": "50mA", "ohm": "680R"}


@pytest.mark.parametrize("across", [None, 330.0])
def test_a_gauges_led_carries_what_the_reference_says(across):
    net = gauge.Net(catalogue()["red-5-diffused"], 1, 390.0, across)
    volts = np.array([2.0, 4.2, 6.6])
    decks = [deck(f"vin in 0 {v}", "rs in led 390", "vm led d 0", diode("l", "d", "0", led_model("red-5-diffused")),
                  *([f"ra led 0 {across}"] if across else [])) for v in volts]  # fmt: skip
    theirs = [f["i(vm)"] for f in reference.operating_points(decks)]
    assert gauge.led_amps(net, volts) == pytest.approx(theirs, rel=1e-3, abs=1e-9)


def test_a_filament_fades_before_an_led_and_two_resistors_follow_it():
    """(4.2/6)^3.5 is 0.287 (handbooks); the LED: (4.2 - 1.8) of (6 - 1.85) V over its resistor, 0.58."""
    w = worked("gauge", **GAUGE)
    assert figure(w, "Old lamp at the lowest").now.value == pytest.approx(0.287, abs=1e-3)
    assert figure(w, "LED at the lowest").now.value == pytest.approx(0.58, abs=0.01)
    (only,) = w.ways
    assert only.advised and only.changes == {"ohm": "390\u00a0Ω", "across": "330\u00a0Ω"}
    done = worked("gauge", **{**GAUGE, "ohm": "390R", "across": "330R"})
    assert done.line.endswith("it tells as it did.") and not any(x.advised for x in done.ways)
    # No pair of E12 by hand that keeps its current is nearer: the neighbours of both values.
    led = catalogue()["red-5-diffused"]
    volts = np.linspace(4.2, 6.6, 25)
    old = (volts / 6.0) ** 3.5
    at = float(gauge.led_amps(gauge.Net(led, 1, 680.0, None), np.array([6.0]))[0])
    best = gauge.off_by(gauge.led_share(gauge.Net(led, 1, 390.0, 330.0), volts, 6.0), old)
    for a in (270.0, 330.0, 390.0, 470.0, 560.0):
        for b in (220.0, 270.0, 330.0, 390.0, 470.0):
            net = gauge.Net(led, 1, a, b)
            if abs(np.log(float(gauge.led_amps(net, np.array([6.0]))[0]) / at)) < np.log(4 / 3):
                assert gauge.off_by(gauge.led_share(net, volts, 6.0), old) >= best - 1e-12


def test_octaves_and_what_is_dark():
    """Half of it everywhere is one octave; dark beside dark is none."""
    one = np.ones(5)
    assert gauge.off_by(one / 2, one) == pytest.approx(1.0)
    assert gauge.off_by(np.full(5, 1e-6), np.full(5, 1e-3)) == 0.0


@pytest.mark.parametrize(("changed", "field"), [
    ({"low": "6V"}, "usual"), ({"high": "5V"}, "usual"), ({"count": "5"}, "count"), ({"ohm": ""}, "ohm"),
])  # fmt: skip
def test_a_gauge_refuses_what_it_cannot_tell(changed, field):
    with pytest.raises(InputError) as refused:
        worked("gauge", **{**GAUGE, **changed})
    assert refused.value.field == field


def test_a_gauges_judgements_stand_at_their_limits():
    """Two LEDs in series, 3.7 V, are dark at 3.6 V where the old lamp has (3.6/6)^3.5 = 17 %."""
    w = worked("gauge", **{**GAUGE, "low": "3V", "count": "2", "ohm": "330R"})
    assert judged(w, "Under 3").grade == "mind"
    # (6.6 - 2.0) / 220 is 20.9 mA, over 20; / 270 is 17.
    assert judged(worked("gauge", **{**GAUGE, "ohm": "220R"}), "20.9").grade == "stop"
    assert not any(j.grade == "stop" for j in worked("gauge", **{**GAUGE, "ohm": "270R"}).judged)


def test_what_follows_well_enough_is_offered_and_not_advised():
    """From 5 V up the LED is off by a third of an octave: under half, though two resistors do better."""
    w = worked("gauge", **{**GAUGE, "low": "5V"})
    assert w.line.endswith("it tells as it did.") and w.ways and not w.ways[0].advised
    assert figure(w, "LED at the lowest").after is None


def test_dim_is_not_dark():
    """At 2.3 V (2.3 - 1.75)/(6 - 1.85), an eighth of its light is left: over a fiftieth."""
    assert judged(worked("gauge", **{**GAUGE, "low": "2.3V"}), "Under") is None


def test_a_rail_that_lights_no_led_has_no_law():
    """Half a volt through an LED of 3.2 V: a share of nothing is no figure."""
    with pytest.raises(InputError, match="do not light this LED") as refused:
        worked("rheostat", **{**KNOB, "volts": "0.5V"})
    assert refused.value.field == "volts"
