"""Trials of a relay, a dimmer and a line that is read: each proves one side, and the advised one halves what is left.

The equipment is played by a hidden threshold that the app is never told; what a trial draws is Ohm's and Kirchhoff's.
"""

import itertools
import re

import numpy as np
import pytest
from scipy.optimize import brentq

from swapglow.core.analysis.trip_current import with_trip
from swapglow.core.assess import assess
from swapglow.core.circuits import CIRCUITS
from swapglow.core.circuits.kinds.coil import coil_a
from swapglow.core.quantities import OHM, Input, InputError
from swapglow.core.quantities.inputs import read_single
from tests.core.circuits.results import finding, option, worked
from tests.core.supplies import on
from tests.core.test_whole_loads import through

RELAY = {
    "low": "22V",
    "high": "29V",
    "coil": "320R",
    "lamp_volts": "12V",
    "lamp_amps": "80mA",
    "ohm": "1k5",
    "tried_v": "25V",
}
DIMMER = {"volts": "24V", "ohm": "1k", "least": "30W"}


def ohms(text):
    """The first resistance that a sentence names, Ω."""
    found = re.search(r"[Tt]ry(?:ing)? ([\d.]+)\s(k?)Ω", text.replace("\u00a0", " "))
    return None if found is None else float(found[1]) * (1e3 if found[2] else 1)


def case(kind, **typed):
    return CIRCUITS[kind].read({name: Input(str(text)) for name, text in typed.items()})


def relay_amps(beside):
    """Coil current at 25 V with a resistor beside a red LED on 1.5 kΩ, A (Kirchhoff, by halving)."""

    def over(volts):
        return volts / beside + through(volts, 1500) - (25 - volts) / 320

    volts = brentq(over, 0.1, 24.9)
    return (25 - volts) / 320


@pytest.mark.parametrize("pulls_in", [0.009, 0.018, 0.027, 0.041, 0.05])
def test_trials_of_a_relay_close_in_on_the_current_at_which_it_pulls_in(pulls_in):
    typed, widths = dict(RELAY), []
    for _ in range(6):
        w = worked("coil", **typed)
        ends = CIRCUITS["coil"].case(case("coil", **typed)).bounds
        assert ends.short <= pulls_in * (1 + 1e-3) and pulls_in <= ends.enough * (1 + 1e-3)
        widths.append(np.log(ends.enough / ends.short))
        asked = finding(w, "try-next")
        if asked is None:
            break
        ohm = ohms(asked.message)
        typed["did" if relay_amps(ohm) >= pulls_in else "did_not"] = f"{ohm:g}R"
    else:
        raise AssertionError("it asks on and on")
    # One value of E24 lies a twentieth from the next: the current it gives, a little beside the middle.
    assert all(b < 0.62 * a for a, b in itertools.pairwise(widths))
    # Or what is left lies under what the LED alone gives.
    assert widths[-1] < np.log(1.5) or ends.try_next < through(25 - 320 * 0.013, 1500)


def test_a_relay_that_did_needs_no_more_and_one_that_did_not_needs_more():
    """With 180 Ω at 25 V it did: a resistor with which the coil has that at 22 V will do (Kirchhoff)."""
    w = worked("coil", **RELAY, did="180R", did_not="330R")
    ohm = float(re.search(r"([\d.]+)", option(w, "beside").label)[1])
    loop = CIRCUITS["coil"].case(case("coil", **RELAY, beside=f"{ohm:g}R"))
    assert coil_a(loop)[0] >= relay_amps(180.0) * (1 - 1e-3)
    # Between the two nothing is known: a caution, no verdict. At or under what did not: a stop.
    between = worked("coil", **RELAY, did="180R", did_not="330R", beside="180R")
    assert finding(between, "too-little-coil").grade == "mind" and between.line.endswith("is not known.")
    known = worked("coil", **RELAY, did="180R", did_not="330R", beside="390R")
    assert finding(known, "too-little-coil").grade == "stop" and known.line.endswith("it does not pull in.")


def test_where_the_rail_was_not_noted_a_trial_proves_no_more_than_its_end_does():
    """It may have done with 29 V on the rail: at 22 V so much must flow too."""
    noted, free = (worked("coil", **{**RELAY, "tried_v": volts}, did="150R") for volts in ("22V", ""))
    small, large = (float(re.search(r"([\d.]+)", option(w, "beside").label)[1]) for w in (free, noted))
    assert large == 150
    assert small < 100


@pytest.mark.parametrize(
    ("typed", "field"),
    [
        ({"did": "330R", "did_not": "180R"}, "did"),
        ({"tried_v": "31V", "did": "180R"}, "tried_v"),
        ({"pull": "60mA", "did": "330R"}, "pull"),
        ({"pull": "20mA", "did_not": "150R"}, "pull"),
    ],
)
def test_trials_that_contradict_each_other_or_what_was_read_are_refused(typed, field):
    with pytest.raises(InputError) as refused:
        worked("coil", **{**RELAY, **typed})
    assert refused.value.field == field


@pytest.mark.parametrize("least", [0.6, 2.0, 5.0, 11.0, 24.0])
def test_trials_of_a_dimmer_close_in_on_its_least_load(least):
    """24 V RMS: what a load takes is V²/R (Ohm); the string takes some tenth of a watt beside it."""
    typed, widths = dict(DIMMER), []
    own = CIRCUITS["phase_dimmer"].case(case("phase_dimmer", **DIMMER)).takes_w
    assert 0.05 < own < 0.6
    for _ in range(9):
        w = worked("phase_dimmer", **typed)
        ends = CIRCUITS["phase_dimmer"].case(case("phase_dimmer", **typed)).least
        assert ends.short <= least <= ends.enough
        widths.append(np.log(ends.enough / ends.short))
        ohm = ohms(finding(w, "least-load").why)
        if ohm is None:
            break
        typed["steady" if own + 24**2 / ohm >= least else "unsteady"] = f"{ohm:g}R"
    else:
        raise AssertionError("it asks on and on")
    assert all(b < 0.55 * a for a, b in itertools.pairwise(widths))
    # What is offered is enough for it, and said to be content once it is there.
    done = worked("phase_dimmer", **{**typed, "load": option(w, "load").changes["load"]})
    assert finding(done, "least-load") is None
    assert 24**2 / read_single("load", option(w, "load").changes["load"], OHM) + own >= least


def test_a_load_that_was_tried_and_flickered_is_a_stop_and_overrules_the_mark():
    w = worked("phase_dimmer", **DIMMER, unsteady="47R", load="56R")
    assert finding(w, "least-load").grade == "stop"
    # 10 Ω take 57.6 W, twice what is marked, and it flickered: the mark says nothing here.
    w = worked("phase_dimmer", **DIMMER, unsteady="10R")
    assert float(finding(w, "least-load").limit.split("\u00a0")[0]) > 57.6


def test_the_next_trial_of_a_line_lies_in_the_middle_of_what_is_not_known():
    """Ignored with 22 kΩ, closed with 2.2: the geometric middle of both currents, 9 V behind 1 kΩ (Kirchhoff)."""
    line = {"source": "1k", "works": "22k", "fails": "2k2"}
    p = with_trip(on("sense", "9V", line, flat=True, vf="2V", resistor="4k7", target="1mA"))
    said = next(f for f in assess(p).findings if f.id == "line-reads-closed")
    middle = np.sqrt(through(9, 23e3) * through(9, 3.2e3))
    assert through(9, 1e3 + ohms(said.why)) == pytest.approx(middle, rel=0.06)
    nearly = with_trip(on("sense", "9V", {**line, "works": "2k7"}, flat=True, vf="2V", resistor="2k4", target="1mA"))
    assert ohms(next(f for f in assess(nearly).findings if f.id == "line-reads-closed").why) is None
