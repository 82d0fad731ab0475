"""A good lamp of the same kind beside this one: what both share cancels, a difference is a fault's.

Readings are made by the circuit itself with the wrong rail, LED or fault put in, which the reports are not told.
"""

from dataclasses import replace

import numpy as np
import pytest

from swapglow.core.analysis.fitted import fitted_in
from swapglow.core.analysis.solution import solve
from swapglow.core.assess import Bench, assess
from swapglow.core.evidence.account import by_cause, known_by
from swapglow.core.evidence.sister import pairs
from swapglow.core.measurement.reading_after import read_after
from swapglow.core.quantities import InputError
from swapglow.inputs.reading_rules import check_after
from swapglow.inputs.readings import ReadingAfterInput
from tests.core.supplies import on

# 12 V read, 1 kΩ, an LED of some 2 V: 10 mA expected (Ohm).
LAMP = on("regulated", "12V", low="11.8V", high="12.2V", vf="2V", resistor="1k", target="10mA")


def read(id_, text, whose="this", kind="current", state="on"):
    return read_after(id_, kind, text, "", "", state=state, whose=whose)


def told(*readings, p=LAMP):
    return assess(p, Bench(readings_after=readings))


def test_what_both_share_is_no_fault():
    """Both at 13 mA: the rail is 15 V and not 12. Alone it is off; beside its sister it agrees."""
    alone = told(read("a", "13mA"))
    assert not alone.diagnoses[0].agrees and alone.trouble is not None
    both = told(read("a", "13mA"), read("s", "13.1mA", "sister"))
    assert both.diagnoses[0].agrees and both.trouble is None
    assert both.diagnoses[0].line.startswith("13\u00a0mA agrees: its sister reads 13.1\u00a0mA, and two of a kind")
    (row,) = both.sister
    assert row.line.startswith("100\u00a0µA under its sister; two of a kind differ by")
    assert (row.sister.value, row.own.value) == pytest.approx((13.1e-3, 13e-3))
    # The next thing goes on from a reading that agrees.
    assert both.next_step.id == "close"


def test_a_difference_is_a_fault_though_both_lie_in_the_band():
    """A joint of 120 Ω leaves 8.9 mA of 10; with a wide rail either is in the band, beside its sister it is not."""
    wide = on("regulated", "12V", low="9V", high="15V", vf="2V", resistor="1k", target="10mA")
    assert told(read("a", "8.9mA"), p=wide).diagnoses[0].agrees
    r = told(read("a", "8.9mA"), read("s", "10mA", "sister"), p=wide)
    assert not r.diagnoses[0].agrees and "is off: its sister reads 10" in r.diagnoses[0].line
    assert r.trouble.causes and not any("rail" in c.message.lower() for c in r.trouble.causes[:1])
    assert r.sister[0].line.startswith("1.1\u00a0mA under its sister")


def test_two_leds_and_resistors_may_differ_by_their_own_luck():
    """√2 · 2σ of a 5 % resistor (2.5 % at one sigma), the LED and two meters: some 0.7 mA of 10, and no rail in it."""
    reading = (read("a", "10mA"),)
    sisters = (read("s", "10mA", "sister"),)
    found = pairs(solve(LAMP), reading, sisters)["a"]
    # Ohm: of 10 mA the resistor moves 2.5 %, the LED (typed as one figure) 0.01 V of 10 V, the burden 2.5 of 1000 Ω,
    # the meter 0.75 %; each at one sigma, two of each in a difference, and two sigma either way.
    expected = 2 * np.sqrt(2 * (0.025**2 + 0.001**2 + 0.0025**2 + 0.0075**2 + 0.003**2)) * 10e-3
    assert found.spread == pytest.approx(expected, rel=0.05)
    # A wider rail changes nothing of it.
    wide = on("regulated", "12V", low="9V", high="15V", vf="2V", resistor="1k", target="10mA")
    assert pairs(solve(wide), reading, sisters)["a"].spread == pytest.approx(found.spread, rel=1e-6)


def test_causes_are_set_by_the_sister_and_the_rail_is_none():
    """Hers at 12 mA: 8 mA here are a third less than both share, whatever the rail; a rail is no cause any more."""
    s = solve(LAMP)
    taken = (read("a", "8mA"),)
    found = pairs(s, taken, (read("s", "12mA", "sister"),))
    known = known_by(s, taken, found)
    assert not {"rail-level", "rail-off"} & set(by_cause(known))
    sound = next(q for q in known.posteriors if q.of.id == "sound")
    assert sound.reads[:, 0].mean() == pytest.approx(12e-3, rel=0.05)
    # A resistor of half as much again, or a joint of as much, makes it 8 of 12 (Ohm).
    most = next(q for q in known.posteriors if q.of.id == "R1-value")
    assert most.of.size.per * np.exp(most.of.size.spread * most.sigmas(5)) == pytest.approx(1500, rel=0.1)


def test_a_sister_that_is_off_herself_is_no_measure():
    """Under half or over twice what is expected: the band counts, and it is said."""
    r = told(read("a", "10mA"), read("s", "4mA", "sister"))
    assert r.diagnoses[0].agrees and "its sister" not in r.diagnoses[0].line
    assert r.sister[0].line == "The sister itself is far from what is expected: it is no measure."
    assert told(read("a", "10mA"), read("s", "5.2mA", "sister")).diagnoses[0].agrees is False


def test_each_place_is_compared_with_its_own():
    r = told(read("a", "10mA"), read("s", "9.9V", "sister", "resistor_volts"))
    assert r.sister[0].own is None and r.sister[0].line == "Read the same here: volts across the resistor."
    assert r.diagnoses[0].line.count("sister") == 0 and len(r.diagnoses) == 1
    older = told(read("a", "10mA"), read("s", "9mA", "sister"), read("t", "10mA", "sister"))
    assert older.diagnoses[0].agrees and older.sister[0].line.startswith("Not weighed")
    # A sister alone is no reading of this lamp.
    only = told(read("s", "10mA", "sister"))
    assert only.diagnoses == () and only.next_step.id != "close"


def test_a_sisters_reading_is_weighed_beside_the_circuit_it_was_taken_for():
    """Hers was taken while 1 kΩ stood here; with 2.2 kΩ it is listed and weighs nothing."""
    then = fitted_in(LAMP)
    hers = replace(read("s", "10mA", "sister"), fitted=then)
    changed = replace(LAMP, resistor_ohm=2200.0)
    found = told(read("a", "4.5mA"), hers, p=changed)
    assert found.sister[0].line.replace("\u00a0", " ") == "Not weighed: 1 kΩ was fitted, now 2.2 kΩ."
    assert found.diagnoses[0].agrees and "sister" not in found.diagnoses[0].line


def test_a_temperature_is_this_lamps_alone():
    with pytest.raises(InputError) as refused:
        check_after(ReadingAfterInput(kind="led_celsius", text="40", whose="sister"), alternates=False)
    assert refused.value.field == "whose"
