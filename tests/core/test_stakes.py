"""What a figure in pencil costs if it is wrong, and how the plan is ordered by that: each loss by its boundary."""

from dataclasses import replace

import pytest

from swapglow.core.analysis.solution import solve
from swapglow.core.assess import assess
from swapglow.core.quantities import Source
from swapglow.core.uncertainty.stakes import if_alternating, stake_of
from tests.core.supplies import on


def stakes(p):
    return {i.id: i.stake for i in assess(p).uncertainty.items}


def steady(**more):
    """12 V and 1 kΩ, an LED of 2 V: 10 mA (Ohm)."""
    fields = {"vf": "2V", "resistor": "1k", "target": "10mA", **more}
    return on("regulated", "12V", flat=True, **fields)


@pytest.mark.parametrize(("amps", "loss"), [(0.0199, "nothing"), (0.0201, "LED")])
def test_an_led_is_lost_over_its_rated_current(amps, loss):
    s = solve(replace(steady(), rating_w=2.0))
    assert stake_of(s, amps, 12.0).loss == loss


@pytest.mark.parametrize(("amps", "loss"), [(0.0161, "nothing"), (0.0164, "resistor")])
def test_a_resistor_is_lost_over_its_whole_rating(amps, loss):
    """A quarter watt in 950 Ω, the low end of its tolerance, is 16.2 mA (Joule)."""
    s = solve(replace(steady(), rating_w=0.25))
    found = stake_of(s, amps, 12.0)
    assert found.loss == loss
    assert found.line == ("" if loss == "nothing" else "a resistor: 256\u00a0mW in 250\u00a0mW")


@pytest.mark.parametrize(("amps", "loss"), [(0.0195, "nothing"), (0.0205, "fuse")])
def test_a_fuse_is_lost_at_twice_its_rating_with_all_that_hangs_on_it(amps, loss):
    """Two strings of 20 mA through 20 mA."""
    s = solve(replace(steady(branches=2, fuse="20mA", ceiling=1.0), rating_w=2.0))
    assert stake_of(s, amps, 12.0).loss == loss


@pytest.mark.parametrize(("amps", "loss"), [(0.0039, "nothing"), (0.0041, "unit")])
def test_an_output_of_the_unit_counts_most(amps, loss):
    s = solve(on("logic", "5V", {"pin": "4mA"}, vf="2V", resistor="1k", target="3mA"))
    assert stake_of(s, amps, 5.0).loss == loss


def test_an_output_feeds_all_its_strings():
    """Two strings of 2.1 mA are 4.2 of 4."""
    s = solve(on("logic", "5V", {"pin": "4mA"}, vf="2V", resistor="1k", target="1mA", branches=2))
    assert stake_of(s, 1.9e-3, 5.0).loss == "nothing"
    assert stake_of(s, 2.1e-3, 5.0).line == "the output: 4.2\u00a0mA of 4\u00a0mA"


def test_a_capacitor_that_bursts_is_the_units_loss():
    """7.1 V of a sine crest at 10.04 V, 7.0 at 9.9 (√2), on a part of 10 V."""
    s = solve(on("winding", "6Vac", rectification="bridge_cap", capacitor="100uF", capacitor_v="10V", target="5mA"))
    assert stake_of(s, 5e-3, 7.0).loss == "nothing"
    assert stake_of(s, 5e-3, 7.1).line.startswith("the capacitor and what it spills on: 10")


def test_a_rail_nobody_read_may_be_ac_and_turn_the_led_round():
    """√2 · 4 V is 5.7 V over the LED's 5; √2 · 3.5 is 4.9 and is not."""
    assert if_alternating(on("regulated", "4V", source=Source.ASSUMED)).loss == "LED"
    assert if_alternating(on("regulated", "3.5V", source=Source.ASSUMED)).loss == "nothing"
    guarded = on("regulated", "4V", source=Source.ASSUMED, series_diodes=1)
    assert if_alternating(guarded).loss == "nothing"
    assert if_alternating(on("vehicle", "13V", source=Source.ASSUMED)).loss == "nothing"
    unread = stakes(on("regulated", "4V", source=Source.ASSUMED, resistor="470R"))
    assert unread["rail_usual"].line == "the LED, if it is AC: 5.66\u00a0V in reverse over 5\u00a0V"
    assert stakes(on("regulated", "4V", resistor="470R"))["rail_usual"].loss == "nothing"


def test_only_what_a_figure_itself_does_is_its_cost():
    """The LED's range alone takes 12 V over 505 Ω from 19.2 past 20 mA; read, it costs nothing."""
    p = replace(steady(resistor="505R", vf="", ceiling=1.0), rating_w=2.0)
    found = stakes(p)
    assert found["led_vf"].loss == "LED" and found["led_vf"].line.startswith("the LED: 20.")
    # Already over at both ends: no fault of this figure.
    over = stakes(replace(steady(resistor="400R", vf="", ceiling=1.0), rating_w=2.0))
    assert over["led_vf"].loss == "nothing"


def test_the_plan_asks_for_the_dearest_first_and_says_what_it_costs():
    """The driver's drop moves the current less than the LED's range, but it is the output that it kills."""
    # A low rail nobody read moves the current most, but only downwards; the LED's range can take it past 20 mA.
    near = on(
        "unregulated", "12V", {"open": "12V", "load": "0.1A"}, high="12V", resistor="505R", target="20mA", ceiling=1.0
    )
    found = {i.id: i for i in assess(near).uncertainty.items}
    assert found["rail_low"].swing_a > found["led_vf"].swing_a
    assert (found["rail_low"].stake.loss, found["led_vf"].stake.loss) == ("nothing", "LED")
    plain = [s.id for s in assess(near).survey.plan]
    assert plain.index("led_vf") < plain.index("rail_low")
    dear = on("vehicle", "13V", common="chassis", led_id="white-5-clear", source=Source.ASSUMED)
    first = assess(dear).survey.plan[0]
    assert first.id == "frame_pole" and first.why.endswith("If it is wrong it may cost the LED, turned round.")
    grounded = on("winding", "12V", rectification="bridge_cap", chassis_negative=True, source=Source.ASSUMED)
    step = assess(grounded).survey.plan[0]
    assert step.id == "grounded" and "it may cost the winding, shorted every half-cycle." in step.why


def test_a_reading_that_costs_nothing_says_nothing_of_cost():
    p = on("regulated", "12V", resistor="4k7", target="2mA")
    assert all("may cost" not in s.why for s in assess(p).survey.plan)
