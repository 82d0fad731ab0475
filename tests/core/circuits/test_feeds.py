"""Matrix, phase dimmer, regulator, converter, a light where none was: against ngspice, Ohm and sums by hand."""

import math
import re
from dataclasses import replace

import numpy as np
import pytest
from scipy.optimize import brentq

from scripts import reference
from swapglow.core.circuits import CIRCUITS
from swapglow.core.circuits.answer import answer
from swapglow.core.circuits.kinds.lamp_matrix import Grid, _bled, _ghost_seen, amps, solve
from swapglow.core.circuits.kinds.phase_dimmer import filament_volts
from swapglow.core.engine.spice import write_deck
from swapglow.core.parts.led import catalogue
from swapglow.core.parts.regulator import regulators
from swapglow.core.quantities import Input, InputError
from tests.core.circuits.results import figure, finding, option, worked

RED = catalogue()["red-5-diffused"]
NVT = 0.025693


def led_volts(led, current, vf=None):
    """Forward volts of an LED by its data-sheet point (Shockley 1949), V."""
    r_s = led.rs_v / led.vf_a
    i_s = led.vf_a / math.expm1(((vf or led.vf_typ) - led.rs_v) / (led.n * NVT))
    return led.n * NVT * math.log1p(current / i_s) + current * r_s


def diode_volts(current):
    """The small silicon diode of the table: 2.52 nA, 1.75, 0.57 Ω."""
    return 1.75 * NVT * math.log1p(current / 2.5e-9) + current * 0.57


def no_break(text):
    return text.replace("\u00a0", " ")


# --- matrix ---------------------------------------------------------------------------------------

SMALL = Grid(15.0, 3, 4, RED, "column", 680.0, True, True, 27e3, False, 2e-3, None)
WHERES = ["column", "lamp", "row"]


@pytest.mark.parametrize("where", WHERES)
@pytest.mark.parametrize(("diode", "held"), [(True, False), (True, True), (False, False)])
def test_a_rows_turn_agrees_with_the_reference_simulator(where, diode, held):
    """Every node of the network within 2 mV, two rows of three at once and two columns of four closed (ngspice)."""
    grid = replace(SMALL, where=where, diode=diode, held=held)
    point = solve(grid, 2, 2).point
    (theirs,) = reference.operating_points([write_deck(point.circuit, ()).lower()])
    for node in point.nodes:
        if node != "0":
            assert float(point.voltage(node)[0]) == pytest.approx(theirs[node.lower()], abs=2e-3), node


def test_one_lamp_alone_carries_what_ohm_says():
    """15 V less diode and LED over 680 Ω and both switches' 0.1 Ω."""
    one = amps(replace(SMALL, leak=None), 1)
    by_hand = brentq(lambda i: i * 680.2 + led_volts(RED, i) + diode_volts(i) - 15, 1e-6, 0.1)
    assert one[0, 0] == pytest.approx(by_hand, rel=5e-3)
    assert np.delete(one.ravel(), 0).max() < 1e-7


def test_a_resistor_for_a_row_is_shared_by_all_that_are_lit_in_it():
    """Five alike behind 680 Ω: each carries a fifth of what they do together (Kirchhoff, by hand)."""
    w = worked("lamp_matrix", volts="15V", rows="4", columns="5", where="row", ohm="680R")
    alone, row, _ = w.tables[0].rows
    by_hand = brentq(lambda i: 5 * i * 680.1 + led_volts(RED, i) + diode_volts(i) - 15, 1e-6, 0.1)
    assert row.cells[0].value == pytest.approx(by_hand, rel=5e-3)
    assert alone.cells[0].value > 4.5 * by_hand
    assert finding(w, "shared-resistor").grade == "mind"
    column = worked("lamp_matrix", volts="15V", rows="4", columns="5", ohm="680R")
    assert finding(column, "shared-resistor") is None
    assert column.tables[0].rows[1].cells[0].value == pytest.approx(alone.cells[0].value, rel=5e-3)


def test_on_average_a_lamp_has_one_turn_of_as_many_as_there_are_rows():
    w = worked("lamp_matrix", volts="15V", rows="6", columns="2", ohm="1k")
    assert figure(w, "mean").now.value == pytest.approx(figure(w, "peak").now.value / 6)


@pytest.mark.parametrize(("rows", "over"), [(4, True), (6, False)])
def test_the_peak_is_held_to_the_root_of_its_turn(rows, over):
    """20 mA rated times √4 is 40 mA, times √6 49 mA (from memory): 15 V behind 270 Ω give some 45 mA."""
    w = worked("lamp_matrix", volts="15V", rows=str(rows), columns="2", ohm="270R")
    assert 0.040 < figure(w, "peak").now.value < 0.049
    assert (finding(w, "over-current-lamp") is not None) is over
    assert finding(w, "scan-stops").grade == "mind"


def test_what_leaks_is_seen_and_the_bleeder_that_is_named_ends_it():
    w = worked("lamp_matrix", volts="15V", rows="3", columns="4", ohm="680R", leak="27k")
    seen = finding(w, "ghost")
    ohm = re.match(r"([\d.]+) (k?)Ω from each row", no_break(seen.why))
    value = float(ohm[1]) * (1000 if ohm[2] else 1)
    assert no_break(_bled(SMALL)) == no_break(seen.why)

    def dark(bleed):
        return _ghost_seen(replace(SMALL, bleed=bleed)) == "dark"

    # The next of E12 leads too little past.
    assert dark(value)
    assert not dark(value * 1.25)
    heat = re.search(r"up to ([\d.]+) mW", no_break(seen.why))
    assert float(heat[1]) == pytest.approx(15**2 / value * 1e3, rel=0.06)
    assert finding(worked("lamp_matrix", volts="15V", rows="3", columns="4", ohm="680R"), "ghost") is None


@pytest.mark.parametrize(("rest", "grade"), [("open", "mind"), ("held", "stop")])
def test_without_diodes_a_row_that_is_held_breaks_leds_in_reverse(rest, grade):
    """15 V less an LED stand over the unlit ones of a held row: over the 5 V they stand (data sheets, from memory)."""
    w = worked("lamp_matrix", volts="15V", rows="3", columns="3", ohm="680R", diode="no", rest=rest)
    assert finding(w, "no-matrix-diode").grade == grade
    with_diodes = worked("lamp_matrix", volts="15V", rows="3", columns="3", ohm="680R", rest=rest)
    assert finding(with_diodes, "no-matrix-diode") is None


def test_a_switch_that_stays_closed_is_solved_and_not_guessed():
    """Two rows on: two lamps share one column's resistor; two columns: each has its own."""
    w = worked("lamp_matrix", volts="15V", rows="3", columns="3", ohm="680R")
    row, column, opened = w.faults
    by_hand = brentq(lambda i: 2 * i * 680.1 + led_volts(RED, i) + diode_volts(i) - 15, 1e-6, 0.1)
    share = by_hand / figure(w, "peak").now.value
    assert f"then carries {share * 100:.0f} %" in row.others
    assert column.others == "A lamp of it lights in every row; the others stay."
    assert opened.id == "led-open"
    shared = worked("lamp_matrix", volts="15V", rows="3", columns="3", ohm="680R", where="row").faults[1]
    assert f"takes its neighbour down to {share * 100:.0f} %" in shared.others


def test_slow_rows_show_the_next_ones_picture():
    """25 µs of a turn of 1/(200·4) s are 2 %; under one per cent it is not seen (ours)."""
    slow = worked("lamp_matrix", volts="15V", rows="4", columns="2", hertz="200Hz", fall="25us")
    assert finding(slow, "slow-off").grade == "mind"
    assert "shows 2 % of" in finding(slow, "slow-off").message
    quick = worked("lamp_matrix", volts="15V", rows="4", columns="2", hertz="200Hz", fall="10us")
    assert finding(quick, "slow-off").grade == "note"


def test_a_resistor_that_is_empty_is_sized_for_the_mean_wanted():
    w = worked("lamp_matrix", volts="15V", rows="5", columns="2", mean="3mA")
    exact = (15 - led_volts(RED, 0.015) - diode_volts(0.015)) / 0.015
    ohm = float(re.search(r"behind ([\d.]+) Ω", no_break(w.line))[1])
    assert exact - 0.3 <= ohm < exact * 1.12
    assert w.options == ()
    fit = option(worked("lamp_matrix", volts="15V", rows="5", columns="2", mean="3mA", ohm="220R"), "fit")
    assert no_break(fit.label) == f"Fit {ohm:g} Ω"


@pytest.mark.parametrize(
    ("typed", "field"),
    [
        ({"rows": "17"}, "rows"),
        ({"columns": ""}, "columns"),
        ({"rows": "16", "columns": "9"}, "rows"),
        ({"volts": ""}, "volts"),
        ({"volts": "1.5V"}, "mean"),
    ],
)
def test_what_no_matrix_is_is_refused_at_its_field(typed, field):
    with pytest.raises(InputError) as refused:
        worked("lamp_matrix", **{"volts": "15V", "rows": "4", "columns": "4", **typed})
    assert refused.value.field == field


# --- phase dimmer ---------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("left", "ratio"), [(1.0, 1.0), (0.5, math.sqrt(0.5)), (0.25, math.sqrt(0.25 - 1 / (2 * math.pi)))]
)
def test_a_filament_behind_a_dimmer_has_the_root_of_what_is_left(left, ratio):
    """Closed form of a cut sine (textbook)."""
    assert filament_volts(left) == pytest.approx(ratio)


CUT = {"100": 0.0, "50": 0.5, "25": 0.75}


@pytest.mark.parametrize("rectifies", ["bridge", "half"])
@pytest.mark.parametrize("row", CUT)
def test_mean_behind_a_cut_sine_agrees_with_the_reference_simulator(row, rectifies):
    """The netlist with its source cut by hand: mean of the last cycle within 0.5 % (ngspice)."""
    w = worked("phase_dimmer", volts="26V", way=rectifies, led="white-5-clear", series="4", ohm="820R")
    said = next(r for r in w.tables[0].rows if r.label.startswith(row)).cells[0].value
    crest = 26 * math.sqrt(2)
    wave = f"abs(sin(314.159265*time))*u(time*100-floor(time*100)-{CUT[row]})"
    if rectifies == "half":
        wave += "*u(sin(314.159265*time))"
    text = re.sub(r"(?m)^b?_?vdimmed .*$", f"bdim feed 0 v={crest}*{wave}\nvmeter string led 0", w.spice.lower())
    text = re.sub(r"(?m)^d1 string", "d1 led", text).replace(".tran 4e-05 0.06", ".tran 5e-6 0.06 0 5e-6")
    found = reference.averages(text, ["vmeter#branch"], 0.04, 0.06)["vmeter#branch"]
    assert said == pytest.approx(found, rel=5e-3)


def test_what_is_said_of_knob_and_least_load_is_of_these_figures():
    """V²/R of what is missing: 25 V² over (10 W less its own); a switch that lets go over the string's crest."""
    w = worked("phase_dimmer", volts="25V", ohm="1k", least="10W", hold="40mA")
    load = finding(w, "least-load")
    missing = 10 - figure(w, "load").now.value
    # The next value of E12 down from V²/R is what surely does.
    fits = float(re.search(r"([\d.]+)", option(w, "load").label)[1])
    assert fits <= 625 / missing < 1.25 * fits
    assert no_break(load.limit) == "10 W"
    assert finding(w, "holding-current").grade == "mind"
    crest = figure(w, "crest").now.value
    by_hand = brentq(lambda i: i * 1000 + led_volts(RED, i) + 1.5 - 25 * math.sqrt(2), 1e-6, 0.1)
    assert crest == pytest.approx(by_hand, rel=0.01)
    calm = worked("phase_dimmer", volts="25V", ohm="1k", least="0.1W", hold="5mA")
    assert finding(calm, "least-load") is None
    assert finding(calm, "holding-current") is None


def test_a_capacitor_behind_a_dimmer_is_refused_with_why():
    with pytest.raises(InputError, match="charged at a blow") as refused:
        worked("phase_dimmer", volts="25V", way="capacitor")
    assert refused.value.field == "way"


def test_its_resistor_is_sized_for_the_mean_and_its_heat_is_by_rms():
    w = worked("phase_dimmer", volts="25V", mean="6mA", series="2")
    mean = figure(w, "mean").now.value
    assert 0.0054 < mean <= 0.006
    ohm = float(re.search(r"behind ([\d.]+) kΩ", no_break(w.line))[1]) * 1e3
    heat = figure(w, "heat").now.value
    # A half-sine over a threshold: RMS over mean between π/√8 and 1.5.
    assert 1.11 < math.sqrt(heat / ohm) / mean < 1.5


# --- regulator ------------------------------------------------------------------------------------

RAIL = {"low": "9.6V", "high": "15.2V", "amps": "12mA", "air": "35°C"}


def test_heat_and_junction_of_every_regulator_are_by_hand():
    """(15.2 V − held)·I and its own current from 15.2 V, the LED of the lowest Vf, which lets most heat arise; 1.25 V
    of a source's head are its resistor's."""
    w = worked("regulator_pick", **RAIL)
    fixed = option(w, "fixed-5-to220")
    part = regulators()["fixed-5-to220"]
    ohm = float(re.match(r"([\d.]+)", fixed.what)[1])
    current = brentq(lambda i: i * ohm + led_volts(RED, i, RED.vf_low) - 5, 1e-6, 0.1)
    watts = (15.2 - 5) * current + 15.2 * part.quiescent
    assert fixed.outcome.value == pytest.approx(35 + watts * part.heat_k_w, abs=0.3)
    source = option(w, "adjustable-to92", "92")
    part = regulators()["adjustable-to92"]
    ohm = float(re.match(r"([\d.]+)", source.what)[1])
    current = 1.25 / ohm + part.adjust_a
    watts = (15.2 - led_volts(RED, current, RED.vf_low) - 1.25) * current
    assert source.outcome.value == pytest.approx(35 + watts * part.heat_k_w, abs=0.3)


@pytest.mark.parametrize("picked", ["fixed-5-to92", "adjustable-to220"])
def test_the_text_of_the_one_picked_says_the_same_in_the_reference(picked):
    w = worked("regulator_pick", picked, **RAIL)
    assert w.line.startswith(regulators()[picked].label)
    (found,) = reference.operating_points([w.spice.lower()])
    current = figure(w, "string-high").now.value
    ohm = re.search(r"(?m)^R1 held leds ([\d.]+)", w.spice)
    through = (found["held"] - found["leds"]) / float(ohm[1]) if ohm else -found["i(vrail)"]
    assert current == pytest.approx(through, rel=1e-3)


@pytest.mark.parametrize(
    ("typed", "begins", "bars"),
    [
        ({"low": "9.9V"}, "8 V", "lacks 100 mV"),
        ({"low": "10.1V"}, "8 V", ""),
        ({"high": "36V"}, "5 V regulator TO-220", "over its 35 V"),
        ({"series": "3"}, "5 V regulator TO-220", "It holds 5 V; the LEDs want"),
        ({"amps": "18mA", "strings": "6"}, "5 V regulator TO-92", "are over its 100 mA"),
        ({"amps": "4mA"}, "Adjustable regulator TO-220", "It wants 5 mA to hold"),
        ({"amps": "6mA"}, "Adjustable regulator TO-220", ""),
        ({"strings": "2"}, "Adjustable regulator TO-220", "share its current unevenly"),
        ({"high": "19V", "amps": "19mA", "strings": "3", "air": "60°C"}, "5 V regulator TO-92", "Its junction would"),
        ({"low": "4.6V"}, "Adjustable regulator TO-220", "At the lowest it lacks"),
    ],
)
def test_why_one_will_not_do_is_said_at_its_limit(typed, begins, bars):
    w = worked("regulator_pick", **{**RAIL, **typed})
    found = next(x for x in w.options if no_break(x.label).startswith(begins))
    assert bars in no_break(found.bars)
    assert (found.bars == "") is (bars == "")
    assert not (found.advised and found.bars)


def test_of_those_that_hold_the_cooler_is_ours_and_on_a_battery_what_takes_nothing():
    w = worked("regulator_pick", **RAIL)
    good = [x for x in w.options if not x.bars]
    assert good[0].advised
    assert good[0].outcome.value == min(x.outcome.value for x in good)
    two = worked("regulator_pick", **{**RAIL, "amps": "20mA", "low": "5.4V", "high": "8V", "cells": "yes"})
    assert two.options[0].id.startswith("adjustable")
    fixed = worked("regulator_pick", **{**RAIL, "strings": "2", "cells": "yes"})
    # 3 mA beside twice 10.4 mA.
    assert "14 % more off the battery" in finding(fixed, "own-current").message


def test_what_holds_with_typical_leds_only_does_not_hold():
    """Six LEDs and a source at its lowest volts: the head is what the highest Vf of the catalogue leaves."""
    for spare, bars in ((0.05, ""), (-0.05, "lacks")):
        most = 6 * led_volts(RED, 0.012, RED.vf_high)
        part = regulators()["adjustable-to220"]
        low = most + part.dropout + spare
        w = worked("regulator_pick", **{**RAIL, "low": f"{low:.3f}V", "high": "20V", "series": "6"})
        found = option(w, "adjustable-to220", "220")
        assert (bars in found.bars) and (found.bars == "") is (bars == "")
        usual = low - 6 * led_volts(RED, 0.012) - part.dropout
        # 3 digits are shown.
        assert bars or f"{usual:.3g}" in found.light


def test_leds_of_the_lowest_vf_stay_within_their_rating():
    """5 V and 19 mA asked of 20 mA rated: (5 V − typical)/19 mA would give an LED of the lowest Vf more than 20 mA."""
    w = worked("regulator_pick", "5 V regulator TO-220", **{**RAIL, "amps": "19.9mA"})
    high = figure(w, "string-high").now.value
    assert 0.015 < high <= RED.rated_a * (1 + 1e-6)
    typical = (5 - led_volts(RED, 0.0199)) / 0.0199
    lowest = (5 - led_volts(RED, RED.rated_a, RED.vf_low)) / RED.rated_a
    assert lowest > typical


def test_pins_are_drawn_both_ways_round():
    for name, names in (("fixed-5-to92", ("out", "ground", "in")), ("fixed-5-to220", ("in", "ground", "out"))):
        front, back = worked("regulator_pick", name, **RAIL).pins
        assert front.pins == names
        assert back.pins == names[::-1]
    assert "insulate it from a sink" in CIRCUITS["regulator_pick"].never


def test_nothing_holds_where_nothing_can():
    w = worked("regulator_pick", **{**RAIL, "high": "48V"})
    assert w.line.startswith("None of them holds")
    assert finding(w, "none-holds").grade == "mind"
    assert (w.pins, w.spice) == ((), "")


# --- converter ------------------------------------------------------------------------------------


def test_a_converter_is_left_alone_and_another_driver_is_named():
    w = worked("converter_board", string="38V", read="200mA", wanted="50 %")
    assert w.findings[0].grade == "stop"
    assert w.options == ()
    less = figure(w, "current").after.value
    # Half the light is more than half the current where an LED droops, and never over seven tenths of it (from memory).
    assert 0.07 < less < 0.1
    assert "from under 32 V to over 44 V" in no_break(w.findings[1].message)
    (found,) = reference.operating_points([w.spice.lower()])
    # Twelve dice of 3.1 V or so.
    assert found["leds"] == pytest.approx(38, rel=0.05)


# --- a light where none was -------------------------------------------------------------------------

PIN = {"feed": "cmos", "high": "4.7V", "most": "5V", "amps": "3mA"}


def test_its_resistor_holds_the_luckiest_led_at_the_most_it_ever_is():
    """(5 V − Vf of the luckiest at 3 mA)/3 mA, the next of E24 (Ohm)."""
    w = worked("new_light", **PIN)
    exact = (5 - led_volts(RED, 0.003, RED.vf_low)) / 0.003
    ohm = float(re.match(r"([\d.]+) k", no_break(option(w, "to-ground").what))[1]) * 1e3
    assert exact <= ohm < exact * 1.11
    flows = brentq(lambda i: i * ohm + led_volts(RED, i) - 4.7, 1e-6, 0.1)
    assert figure(w, "current").now.value == pytest.approx(flows, rel=2e-3)


@pytest.mark.parametrize(("gives", "barred"), [("2mA", True), ("4mA", False)])
def test_a_pin_gives_no_more_than_it_can_spare(gives, barred):
    w = worked("new_light", **PIN, gives=gives)
    assert ("where 2 mA can be spared" in no_break(option(w, "to-ground").bars)) is barred
    ours = next(x for x in w.options if x.advised)
    assert ours.id == ("transistor" if barred else "to-ground")


def test_through_a_transistor_agrees_with_the_reference_simulator():
    w = worked("new_light", "Through a transistor", **{**PIN, "supply": "12V", "amps": "9mA"})
    (found,) = reference.operating_points([w.spice.lower()])
    assert figure(w, "current").now.value == pytest.approx(-found["i(vsupply)"], rel=1e-3)
    assert figure(w, "taken").now.value == pytest.approx(-found["i(vpin)"], rel=1e-3)
    # It is on: a twentieth into the base leaves some tenth of a volt (common practice).
    assert found["collector"] < 0.2


@pytest.mark.parametrize(
    ("feed", "supply", "bars"),
    [("cmos", "4.7V", ""), ("cmos", "12V", "it never goes out"), ("ttl", "5V", ""), ("ttl", "12V", "than such a pin")],
)
def test_a_supply_over_the_pins_own_is_barred(feed, supply, bars):
    w = worked("new_light", **{**PIN, "feed": feed, "supply": supply})
    found = option(w, "into-pin").bars
    assert bars in found
    assert (found == "") is (bars == "")


def test_bipolar_logic_swallows_and_hardly_gives():
    """0.4 mA out, 8 mA in (data sheets, from memory)."""
    w = worked("new_light", **{**PIN, "feed": "ttl", "high": "3.4V", "supply": "5V"})
    assert "where 400 µA can be spared" in no_break(option(w, "to-ground").bars)
    assert next(x for x in w.options if x.advised).id == "into-pin"


def test_volts_that_do_not_light_it_are_said():
    assert worked("new_light", feed="rail", high="2V", led="blue-5-clear").line.startswith("2\u00a0V do not light it")
    weak = worked("new_light", feed="rail", high="2.5V", most="3.6V", led="blue-5-clear")
    assert "flow with a typical LED" in option(weak, "across").bars
    with pytest.raises(InputError) as refused:
        worked("new_light", feed="rail", high="9V", amps="45mA")
    assert refused.value.field == "amps"


@pytest.mark.parametrize(("led", "drill"), [("red-3-diffused", "Drill 3 mm"), ("red-5-diffused", "Drill 5 mm")])
def test_the_hole_goes_with_the_led(led, drill):
    assert finding(worked("new_light", feed="rail", high="9V", led=led), "drill", drill).grade == "note"


# --- which part, and what is done -------------------------------------------------------------------


def test_the_rule_shows_what_every_value_of_a_part_leaves():
    """I ∝ 1/R: 22 ‖ 33 Ω is 13.2 Ω; with 68 for the 22 it is 22.2 Ω, 59 % (Ohm)."""
    w = worked("sense_board", sense_ohm="22 ‖ 33")
    lower, upper = w.rules
    assert no_break(lower.label) == "The 22 Ω"
    at = next(p for p in lower.points if no_break(p.value) == "68 Ω")
    assert at.outcome.value == pytest.approx(13.2 / (68 * 33 / 101), rel=1e-6)
    assert (lower.points[0].outcome.value, lower.points[0].light) == (1.0, "As it is.")
    # 1/2.2 of the current is the most a chip stands (common practice): 33 Ω alone leave 40 %.
    assert upper.points[-1].bars == ""
    assert [p.outcome.value >= 1 / 2.2 for p in lower.points] == [p.bars == "" for p in lower.points]
    assert len(worked("sense_board", sense_ohm="10 ‖ 10").rules) == 1


def test_what_was_picked_on_the_rule_stands_among_the_ways():
    w = worked("sense_board", "exchange-22-68", sense_ohm="22 ‖ 33", read="20mA")
    assert figure(w, "current").after.value == pytest.approx(0.02 * 13.2 / (68 * 33 / 101), rel=1e-4)
    assert option(w, "exchange-22-68", "68").changes == {"sense_ohm": "68\u00a0Ω ‖ 33\u00a0Ω"}
    bank = worked("chip_bank", "bank-keys-680", rail="5V", banks="keys: 8 white × 150R\nbar: 5 red × 330R")
    assert "keys: 8 white × 680\u00a0Ω" in option(bank, "bank-keys-680", "680").changes["banks"]
    rule = next(r for r in bank.rules if r.id == "keys")
    at = next(p for p in rule.points if p.option == "bank-keys-680")
    assert option(bank, "bank-keys-680", "680").outcome.value == pytest.approx(at.outcome.value)


def done(kind, chosen, **typed):
    k = CIRCUITS[kind]
    details = k.read({name: Input(text) for name, text in typed.items()})
    return option(answer(k, details, chosen).result, chosen).changes


def test_once_it_is_done_what_was_read_afterwards_is_what_is_read_now():
    typed = {"sense_ohm": "22 ‖ 33", "read": "20mA", "plug": "4W", "plug_after": "2.34W", "count": "10", "each": "17V"}
    changes = done("sense_board", "exchange-22-68", **typed)
    assert changes == {"sense_ohm": "68\u00a0Ω ‖ 33\u00a0Ω", "read": "", "plug": "2.34W", "plug_after": ""}
    again = worked("sense_board", **{**typed, **changes})
    # 85 % of 2.34 W over ten packages of 17 V (P = V·I; the share from memory).
    assert figure(again, "current").now.value == pytest.approx(0.85 * 2.34 / 170)
    # What was marked, and a reading of before, say nothing any more.
    gone = done("sense_board", "clip-22", sense_ohm="22 ‖ 33", read="20mA", plug="4W")
    assert (gone["read"], gone["plug"]) == ("", "")


def test_faults_of_a_board_are_ratios_too():
    w = worked("sense_board", sense_ohm="22 ‖ 33", count="10")
    by_label = {no_break(f.label): f.others for f in w.faults}
    assert by_label["The 22 Ω open, or its joint"] == "40 % of the current."
    assert by_label["The 33 Ω open, or its joint"] == "60 % of the current."
    assert "90 % of the power" in by_label["An LED is a short"]
    assert "dark" in worked("sense_board", sense_ohm="22").faults[0].others


def test_a_stopped_fan_and_dry_paste_are_reckoned_by_the_chain():
    """Three times the sink in still air, five times the paste where it is dry (from memory)."""
    typed = {"led_v": "30V", "led_a": "500mA", "sink": "2K/W", "case": "1K/W", "paste": "0.2K/W", "room": "40°C"}
    heat = 30 * 0.5 * 0.7
    w = worked("power_led", **typed, fan="fan")
    dry, still = (int(re.search(r"some (\d+)\s°C", f.others)[1]) for f in w.faults[:2])
    assert dry == pytest.approx(40 + heat * (1 + 1 + 2), abs=0.6)
    assert still == pytest.approx(40 + heat * (1 + 0.2 + 6), abs=0.6)
    assert all("fan" not in f.label for f in worked("power_led", **typed).faults)


def test_an_open_led_behind_a_dropper_fills_its_smoothing_capacitor():
    """The crest of 230 V is 325 V (√2)."""
    typed = {"volts": "230V", "drop": "470nF", "string": "72V"}
    w = worked("dropper", **typed, smooth="10uF")
    assert "climbs to 325 V" in no_break(next(f for f in w.faults if f.id == "led-open").others)
    assert "stays charged" in next(f for f in worked("dropper", **typed).faults if f.id == "led-open").others
    # One of 23 LEDs less: (325 − 68.9)/(325 − 72) (charge).
    shorted = next(f for f in w.faults if f.id == "led-shorted").others
    assert shorted.startswith("101 %")
