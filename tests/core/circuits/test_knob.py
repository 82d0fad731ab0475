"""Lamps behind a knob, and lamps read by their brightness: against ngspice over the turn, and closed forms."""

import math
from dataclasses import replace

import numpy as np
import pytest

from scripts import reference
from swapglow.core.circuits.kinds import gauge
from swapglow.core.circuits.kinds.rheostat import Knob, miss, nearest_shunt, turned
from swapglow.core.parts.lamp import own_lamp
from swapglow.core.parts.led import catalogue
from swapglow.core.quantities import InputError
from tests.core.circuits.decks import deck, diode, filament, led_model
from tests.core.circuits.results import figure, finding, option, worked

KNOB = {
    "volts": "13.6V",
    "track": "25R",
    "count": "4",
    "lamp_volts": "12V",
    "lamp_amps": "0.12A",
    "led": "green-5-clear",
    "ohm": "680R",
}
DIAL = Knob(13.6, 25.0, 4, own_lamp(12.0, 0.12, None, ""), catalogue()["green-5-clear"], 680.0, "none", 0.0, 1e3)
# Of its 21 turns from bright to dark.
PLACES = [0, 5, 12, 20]
TURNS = np.array([0.0, 0.25, 0.6, 1.0])


def test_old_lamps_over_the_turn_are_the_references():
    decks = [
        deck("vrail rail 0 13.6", f"rk rail bus {25 * t + 1e-3}", filament("l", "bus", "0", 12.0, 0.12, 4))
        for t in TURNS
    ]
    old = turned(DIAL.before)
    for k, turn, found in zip(PLACES, TURNS, reference.operating_points(decks), strict=True):
        assert old.bus[k] == pytest.approx(found["bus"], rel=1e-3)
        assert old.amps[k] == pytest.approx(-found["i(vrail)"] / 4, rel=1e-3)
        assert old.knob_w[k] == pytest.approx(found["i(vrail)"] ** 2 * 25 * turn, rel=2e-3, abs=1e-9)
        # Light goes as V^3.5 (miniature lamp handbooks, from memory).
        assert old.light[k] == pytest.approx((found["bus"] / 13.6) ** 3.5, rel=4e-3)


@pytest.mark.parametrize("cure", ["none", "shunt", "follower"])
def test_each_way_of_dimming_is_the_references(cure):
    d = replace(DIAL, cure=cure, shunt=33.0)
    leds = ["rl bus leds 170", diode("l", "leds", "0", led_model("green-5-clear"), 4)]
    decks = []
    for t in TURNS:
        if cure == "follower":
            feed = [
                f"ru rail wip {1000 * t + 1e-3}",
                f"rd wip 0 {1000 * (1 - t) + 1e-3}",
                "q1 rail wip bus qn",
                ".model qn npn(is=1e-14 bf=200 br=4 tnom=27)",
            ]
        else:
            feed = [f"rk rail bus {25 * t + 1e-3}"]
        decks.append(deck("vrail rail 0 13.6", *feed, *leds, *(["rs bus 0 33"] if cure == "shunt" else [])))
    found = reference.operating_points(decks)
    now = turned(d)
    for k, theirs in zip(PLACES, found, strict=True):
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
    assert finding(w, "knob-law", "47").grade == "mind"
    misses = [float(x.what.split(" steps")[0].rsplit(" ", 1)[1]) for x in w.options]
    assert misses == sorted(misses) and w.options[0].advised and not any(x.advised for x in w.options[1:])
    # Pulses: half the time on is half the light (Talbot-Plateau), with no heat.
    assert "50 % at half, 0 % at its end" in option(w, "pulses").what and "No heat" in option(w, "pulses").what
    assert figure(w, "led-half").after.value == pytest.approx(0.5)
    assert [c.of for c in w.pictures[0].curves] == ["old", "new", "after"]
    ends = [c.points[-1].y for c in w.pictures[0].curves]
    assert ends == pytest.approx([4.7, 89.2, 0.0], abs=0.2)
    # Chosen: the shunt. It is what stands afterwards.
    shunt = option(w, "shunt", "27")
    chosen = worked("rheostat", shunt.id, **KNOB)
    assert figure(chosen, "led-end").after.value == pytest.approx(0.43, abs=0.01)
    done = worked("rheostat", **KNOB, cure="shunt", shunt="27R")
    assert finding(done, "hot-shunt", "6.8").grade == "mind"
    assert shunt.changes == {"cure": "shunt", "shunt": "27\u00a0Ω"}


def test_a_shunt_makes_no_more_heat_than_the_lamps_did():
    """4 lamps of 13.6 V and 129 mA are 26.4 Ω: the next of E12 is 27, though a smaller one would follow better."""
    ohm = nearest_shunt(DIAL)
    assert ohm == 27.0 and 13.6**2 / ohm <= 13.6 * 4 * turned(DIAL.before).amps[0]
    with_27, with_15 = (miss(replace(DIAL, cure="shunt", shunt=o)) for o in (27.0, 15.0))
    assert with_15 < with_27


def test_a_knob_that_is_bright_enough_to_burn_is_a_stop():
    """(13.6 - 3.2) / 470 is 22 mA, over 20."""
    assert finding(worked("rheostat", **{**KNOB, "ohm": "470R"}), "over-current-led").grade == "stop"
    assert not any(j.grade == "stop" for j in worked("rheostat", **KNOB).findings)


@pytest.mark.parametrize("missing", ["volts", "track", "lamp_volts", "lamp_amps", "ohm"])
def test_a_knob_asks_for_what_is_missing(missing):
    with pytest.raises(InputError) as refused:
        worked("rheostat", **{k: v for k, v in KNOB.items() if k != missing})
    assert refused.value.field == missing


def test_a_law_that_is_missed_by_more_than_ten_steps_is_minded():
    """Pulses halve the light at half the knob where the old lamps had a fifth: 18 steps (L* 76 against 52)."""
    pulses = worked("rheostat", **KNOB, cure="pulses")
    assert finding(pulses, "knob-law", "18").grade == "mind"
    # A track of 1 Ω hardly dimmed the old lamps either, and the LEDs lose next to nothing by comparison.
    stiff = worked("rheostat", **{**KNOB, "track": "1R"})
    assert finding(stiff, "knob-law") is None and finding(stiff, "never-dimmed").grade == "note"
    assert finding(worked("rheostat", **KNOB), "never-dimmed") is None


def test_a_transistor_that_follows_is_small_while_its_heat_is():
    """Four LEDs take 58 mA at some 0.8 V and up to 171 mW on the way; twelve take three times that, over 300."""
    follower = "follower"
    assert "a small one takes it" in option(worked("rheostat", **KNOB), follower).what
    many = option(worked("rheostat", **{**KNOB, "count": "12"}), follower).what
    assert "it wants a larger one on metal" in many and "51" in many.split("mW")[0]


# --- read by its brightness -----------------------------------------------------------------------

GAUGE = {"low": "4.2V", "usual": "6V", "high": "6.6V", "lamp_volts": "6V", "lamp_amps": "50mA", "ohm": "680R"}


def tells(ohm, across=None):
    lamp = own_lamp(6.0, 0.05, None, "")
    return gauge.GaugeNet(4.2, 6.0, 6.6, lamp, catalogue()["red-5-diffused"], 1, ohm, across)


@pytest.mark.parametrize("across", [None, 330.0])
def test_a_gauges_led_carries_what_the_reference_says(across):
    net = tells(390.0, across)
    volts = [4.2, 5.4, 6.6]
    decks = [
        deck(
            f"vin in 0 {v}",
            "rs in led 390",
            "vm led d 0",
            diode("l", "d", "0", led_model("red-5-diffused")),
            *([f"ra led 0 {across}"] if across else []),
        )
        for v in volts
    ]
    theirs = [f["i(vm)"] for f in reference.operating_points(decks)]
    assert gauge.led_amps(net)[[0, 12, 24]] == pytest.approx(theirs, rel=1e-3, abs=1e-9)


def test_a_filament_fades_before_an_led_and_two_resistors_follow_it():
    """(4.2/6)^3.5 is 0.287 (handbooks); the LED: (4.2 - 1.8) of (6 - 1.85) V over its resistor, 0.58."""
    w = worked("gauge", **GAUGE)
    assert figure(w, "old-low").now.value == pytest.approx(0.287, abs=1e-3)
    assert figure(w, "led-low").now.value == pytest.approx(0.58, abs=0.01)
    (only,) = w.options
    assert only.advised and only.changes == {"ohm": "390\u00a0Ω", "across": "330\u00a0Ω"}
    done = worked("gauge", **{**GAUGE, "ohm": "390R", "across": "330R"})
    assert done.line.endswith("it tells as it did.") and not any(x.advised for x in done.options)
    # No pair of E12 by hand that keeps its current is nearer: the neighbours of both values.
    at, best = gauge.led_amps(tells(680.0))[-1], gauge.off_by(tells(390.0, 330.0))
    for a in (270.0, 330.0, 390.0, 470.0, 560.0):
        for b in (220.0, 270.0, 330.0, 390.0, 470.0):
            net = tells(a, b)
            if abs(np.log(gauge.led_amps(net)[-1] / at)) < np.log(4 / 3):
                assert gauge.off_by(net) >= best - 1e-12


def test_how_far_its_light_is_off_is_counted_in_octaves():
    """By hand over its 25 points: shares under a fiftieth count as one, root mean square of log2 of both."""
    net = tells(680.0)
    ours, old = np.maximum(gauge.led_share(net), 0.02), np.maximum((np.linspace(4.2, 6.6, 25) / 6) ** 3.5, 0.02)
    by_hand = math.sqrt(sum(math.log2(a / b) ** 2 for a, b in zip(ours, old, strict=True)) / 25)
    assert gauge.off_by(net) == pytest.approx(by_hand)


@pytest.mark.parametrize(
    ("changed", "field"),
    [({"low": "6V"}, "usual"), ({"high": "5V"}, "usual"), ({"count": "5"}, "count"), ({"ohm": ""}, "ohm")],
)
def test_a_gauge_refuses_what_it_cannot_tell(changed, field):
    with pytest.raises(InputError) as refused:
        worked("gauge", **{**GAUGE, **changed})
    assert refused.value.field == field


def test_a_gauges_judgements_stand_at_their_limits():
    """Two LEDs in series, 3.7 V, are dark at 3.6 V where the old lamp has (3.6/6)^3.5 = 17 %."""
    w = worked("gauge", **{**GAUGE, "low": "3V", "count": "2", "ohm": "330R"})
    assert finding(w, "dark-early", "3").grade == "mind"
    # (6.6 - 2.0) / 220 is 20.9 mA, over 20; / 270 is 17.
    assert finding(worked("gauge", **{**GAUGE, "ohm": "220R"}), "over-current-led").grade == "stop"
    assert not any(j.grade == "stop" for j in worked("gauge", **{**GAUGE, "ohm": "270R"}).findings)


def test_what_follows_well_enough_is_offered_and_not_advised():
    """From 5 V up the LED is off by a third of an octave: under half, though two resistors do better."""
    w = worked("gauge", **{**GAUGE, "low": "5V"})
    assert w.line.endswith("it tells as it did.") and w.options and not w.options[0].advised
    assert figure(w, "led-low").after is None


def test_dim_is_not_dark():
    """At 2.3 V (2.3 - 1.75)/(6 - 1.85), an eighth of its light is left: over a fiftieth."""
    assert finding(worked("gauge", **{**GAUGE, "low": "2.3V"}), "dark-early") is None


def test_a_rail_that_lights_no_led_has_no_law():
    """Half a volt through an LED of 3.2 V: a share of nothing is no figure."""
    with pytest.raises(InputError, match="do not light this LED") as refused:
        worked("rheostat", **{**KNOB, "volts": "0.5V"})
    assert refused.value.field == "volts"
