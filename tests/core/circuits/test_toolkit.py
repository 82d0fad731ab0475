"""What the toolkit does for every kind: judges each part in its worst state, bars what overloads, finds values."""

import itertools
from dataclasses import replace

import numpy as np
import pytest

from scripts import reference
from swapglow.core.circuits import CIRCUITS
from swapglow.core.circuits.toolkit import values
from swapglow.core.circuits.toolkit.ratings import pulse_limit
from swapglow.core.circuits.toolkit.solved import solve_cycle, solve_states
from swapglow.core.circuits.toolkit.wiring import Wiring
from swapglow.core.engine.netlist import Sine
from swapglow.core.parts.lamp import own_lamp
from swapglow.core.parts.led import catalogue
from swapglow.core.values import preferred
from tests.core.circuits.results import finding, option, worked

RED = catalogue()["red-5-diffused"]


def string(volts, ohm, **more):
    w = Wiring("a string")
    w.source("V1", "feed", volts)
    w.resistor("R1", "feed", "led", ohm)
    w.led("D1", "led", "0", RED, **more)
    return w


def ids(solved):
    return {o.finding.id: o.finding for o in solved.judged()}


def test_a_part_is_judged_in_the_state_that_is_worst_for_it():
    """An LED of 20 mA behind 470 Ω: at 5, 12 and 9 V some 7, 22 and 15 mA (Ohm)."""
    over = ids(solve_states(string(np.array([5.0, 12.0, 9.0]), 470.0), "Low", "High", "Usual"))
    assert set(over) == {"over-current-led"}
    assert over["over-current-led"].message.startswith("High: ") and over["over-current-led"].grade == "stop"
    assert ids(solve_states(string(np.array([5.0, 9.0]), 470.0), "Low", "Usual")) == {}


@pytest.mark.parametrize(("share", "stands"), [(0.999, True), (1.0, True), (1.001, False)])
def test_equal_to_a_rating_is_not_over_it(share, stands):
    """A source of current through the LED itself; a diode of 1 A; a lamp a quarter over its 12 V."""
    w = Wiring("at the limit")
    w.source("V1", "lamp", 15.0 * share)
    w.filament("Rlamp", "lamp", "0", own_lamp(12.0, 0.1, None, ""))
    assert (ids(solve_states(w, "On")) == {}) is stands
    led = string(1000.0 * 20e-3 * share + float(RED.junction(RED.vf_typ).volts(20e-3 * share)), 1000.0)
    assert (ids(solve_states(led, "On")) == {}) is stands


def test_reverse_volts_are_shared_in_a_string_and_taken_by_a_guard():
    assert set(ids(solve_states(string(-6.0, 1e3), "Turned"))) == {"over-reverse-led"}
    assert ids(solve_states(string(-6.0, 1e3, series=2), "Turned")) == {}
    assert ids(solve_states(string(-60.0, 1e3, guarded=True), "Turned")) == {}


def test_pulses_may_be_higher_by_the_root_of_their_share_and_never_five_times():
    """Rated over √duty, five times at the most (data sheets, from memory): 20 mA is 40 at a quarter, 100 at 1 %."""
    assert [pulse_limit(0.02, d) for d in (1.0, 0.25, 0.01)] == pytest.approx([0.02, 0.04, 0.1])


def test_a_cycle_is_judged_by_its_mean_and_its_crest():
    """Half a sine of 24 V behind 560 Ω: ngspice has its mean; the crest is over twice the mean's limit before that."""
    wired = string(Sine(0.0, 24 * 2**0.5, 50.0), 560.0, guarded=True)
    cycle = solve_cycle(wired, "On")
    text = wired.deck(".tran 20u 0.1 0 20u").lower()
    mean = -reference.averages(text, ["v1#branch"], 0.06, 0.1)["v1#branch"]
    assert cycle.mean("D1") == pytest.approx(mean, rel=5e-3)
    assert set(ids(cycle)) == {"crest-led"} and mean < 0.02 < cycle.amps("D1").max() / 2
    worse = solve_cycle(string(Sine(0.0, 24 * 2**0.5, 50.0), 330.0, guarded=True), "On")
    assert set(ids(worse)) == {"over-current-led"}


def test_an_option_that_overloads_a_part_is_barred_and_the_next_one_is_ours():
    """A gauge's LED of 20 mA at 6.6 V: the pair that follows the lamp best would carry some 30 (solved)."""
    typed = {"low": "4.2V", "usual": "6V", "high": "6.6V", "lamp_volts": "6V", "lamp_amps": "50mA"}
    hot = option(worked("gauge", **typed, ohm="220R"), "follow")
    assert "over its rated 20" in hot.bars and not hot.advised
    cool = option(worked("gauge", **typed, ohm="680R"), "follow")
    assert cool.bars == "" and cool.advised


def test_what_is_over_already_bars_no_option_that_leaves_it_as_it_is():
    """The LED of a charge lamp sees the generator in reverse with and without a resistor beside it."""
    w = worked(
        "charge_lamp", rest_volts="12.6V", running="14.2V", lamp_volts="12V", lamp_amps="0.18A", field="8R", ohm="1k"
    )
    assert finding(w, "over-reverse-led").grade == "stop" and option(w, "beside").bars == ""


def test_what_was_chosen_is_what_the_figures_after_it_are_of():
    """Once its changes are typed, every figure is the one that was said to come after."""
    typed = {"rail": "5V", "banks": "keys: 8 white × 150R\nbar: 5 red × 330R"}
    for id_ in ("raise", "common", "equal"):
        chosen = worked("chip_bank", id_, **typed)
        done = worked("chip_bank", **{**typed, **option(chosen, id_).changes})
        assert done.figures[0].now.value == pytest.approx(chosen.figures[0].after.value, rel=1e-9)


@pytest.mark.parametrize("holds_to", [1.0, 33.0, 5e4])
def test_a_value_is_found_by_trying(holds_to):
    e12 = [float(v) for v in preferred.values("E12", 1.0, 10e3)]
    assert values.largest(lambda v: v <= holds_to, 1.0, 10e3) == max(v for v in e12 if v <= holds_to)
    e24 = [float(v) for v in preferred.values("E24", 1.0, 10e3)]
    above = [v for v in e24 if v > holds_to]
    assert values.smallest(lambda v: v > holds_to, 1.0, 10e3) == (above[0] if above else None)
    assert values.largest(lambda v: False, 1.0, 10e3) is None
    assert values.nearest(e12, lambda v: holds_to * 1.04 - v) == min(e12, key=lambda v: abs(v - holds_to * 1.04))


def test_ids_are_its_own_within_a_kind():
    for kind in CIRCUITS.values():
        assert len({d.id for d in kind.details}) == len(kind.details), kind.id
    w = worked(
        "lamp_net",
        volts="12.8V",
        feeds="TAIL, STOP",
        lamps="tail: TAIL to shell, 12V 0.4A\nstop: STOP to shell, 12V 1.75A",
    )
    assert [o.id for o in w.options] == ["ground-shell"]
    for things, many in ((w.findings, 3), (w.tables[0].rows, 4)):
        assert len({t.id for t in things}) == len(things) == many


def test_cases_are_told_apart_by_all_they_are_made_of():
    """What is remembered of one is never shown of another: each field of a case changes what it is solved to."""
    base = {"rest_volts": "12.6V", "lamp_volts": "12V", "lamp_amps": "0.18A", "field": "8R", "ohm": "1k"}
    changed = [base, *({**base, **c} for c in ({"ohm": "2k2"}, {"beside": "68R"}, {"guard": "yes"}, {"field": "9R"}))]
    lines = [worked("charge_lamp", **typed) for typed in changed]
    for a, b in itertools.combinations(lines, 2):
        assert replace(a, spice="") != replace(b, spice="")
