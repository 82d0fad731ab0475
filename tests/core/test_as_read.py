"""What readings leave of LED, resistor and rail, in every figure that rests on those.

Beside each check: Ohm's and Kirchhoff's laws by halving, or the reference simulator at the lamp's own luck.
"""

from dataclasses import replace

import numpy as np
import pytest

from scripts.fuzz.damaged import NoCase, case_of, read, true_reading
from swapglow.core.analysis.fitted import fitted_in
from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.solution import solve
from swapglow.core.assess import Bench, assess
from swapglow.core.design.changes import with_changes
from swapglow.core.evidence.as_read import as_read
from swapglow.core.evidence.metered import metered
from swapglow.core.measurement.reading_after import ReadingAfter, read_after
from swapglow.core.network.cases import Cases
from swapglow.core.parts.led import catalogue
from swapglow.core.quantities import Source
from swapglow.core.search import search
from tests.core.supplies import on
from tests.core.test_whole_loads import through

ONE = on("regulated", "12V", low="11.8V", high="12.2V", resistor="1k", vf="1.9-2.2V")


def taken(*texts, fitted=""):
    """Readings typed as "kind text"."""
    pairs = (t.split(" ", 1) for t in texts)
    return tuple(read_after(f"r{n}", k, text, "", "", fitted=fitted) for n, (k, text) in enumerate(pairs))


def amps(p, rail=12.0):
    cases = Cases(np.array([rail]), p.led.vf_typ, size(p).total_ohm, p.drop_v)
    return float(metered(p, ReadingAfter("r", "current", 0.0), cases)[0])


def test_a_resistor_that_was_read_is_the_one_reckoned_with_and_its_value_stays():
    p = as_read(ONE, taken("resistor_ohms 1.035k"))
    assert size(p).total_ohm == pytest.approx(1035, rel=5e-3)
    assert size(p).each_ohm == 1000
    assert p.ohm_known_to < 0.02
    assert p.resistor_source is Source.MEASURED
    typical = replace(ONE, led=replace(ONE.led, vf_low=2.0, vf_typ=2.0, vf_high=2.0))
    # Kirchhoff by halving, a red LED of 2 V at its rated current.
    assert amps(replace(typical, ohm_share=1.035)) == pytest.approx(through(12, 1035), rel=2e-3)


def test_what_led_and_current_read_is_what_every_figure_says():
    """12.0 V and 2.05 V over the LED leave 9.95 V for the resistor: 9.7 mA are 1026 Ω of them (Ohm)."""
    p = as_read(ONE, taken("supply_volts 12.0V", "led_volts 2.05V", "current 9.7mA"))
    assert size(p).total_ohm == pytest.approx(1026, rel=6e-3)
    # Within half of what the meter may be off.
    assert amps(p) == pytest.approx(9.7e-3, rel=7.5e-3)
    assert p.led_source is Source.MEASURED
    before, after = solve(ONE), solve(p)
    assert after.string_current_max - after.string_current_min < 0.6 * (
        before.string_current_max - before.string_current_min
    )
    # The swing of the rail is none of what was not known: its ends are as far apart as they were.
    assert p.rail.volts == ONE.rail.volts
    report = assess(ONE, Bench(taken("supply_volts 12.0V", "led_volts 2.05V", "current 9.7mA")))
    assert report.current.usual.value == pytest.approx(amps(p), rel=1e-9)
    assert report.diagnoses[2].agrees and report.diagnoses[2].expected.value == pytest.approx(amps(ONE), rel=1e-3)


def test_another_resistor_keeps_what_is_known_of_the_led_and_nothing_of_the_one_taken_out():
    readings = taken("led_volts 2.05V", "current 9.7mA", fitted=fitted_in(ONE))
    read_with_it = as_read(ONE, readings)
    for other in (with_changes(ONE, {"resistor_ohm": 2200.0}), replace(ONE, resistor_ohm=2200.0)):
        p = as_read(other, readings)
        assert p.led == read_with_it.led
        assert (p.ohm_share, p.ohm_doubt) == (1.0, None)
    # So do more LEDs in the string; another LED takes nothing over but the rail.
    assert as_read(replace(ONE, in_series=2), readings).led == read_with_it.led
    other = replace(ONE, led=catalogue()["green-3-diffused"])
    assert as_read(other, readings).led == other.led
    pencilled = replace(ONE, rail=replace(ONE.rail, usual=replace(ONE.rail.usual, source=Source.ASSUMED)))
    rail = taken("supply_volts 12.15V", fitted=fitted_in(pencilled))
    for changes in ({"resistor_ohm": 2200.0}, {"led_id": "green-3-diffused"}, {"in_series": 2}):
        assert as_read(with_changes(pencilled, changes), rail).rail == as_read(pencilled, rail).rail
    changed = with_changes(read_with_it, {"resistor_ohm": 2200.0})
    assert (changed.led, changed.ohm_share, changed.ohm_doubt) == (read_with_it.led, 1.0, None)
    # Another LED takes nothing over from the one that was read.
    assert with_changes(read_with_it, {"led_id": "red-5-clear"}).led == catalogue()["red-5-clear"]


def test_what_the_sum_chose_stays_the_sums_choice():
    follows = on("regulated", "12V", low="11.8V", high="12.2V", target="10mA", vf="1.9-2.2V")
    p = as_read(follows, taken("led_volts 2.05V"))
    assert size(p).each_ohm == size(follows).each_ohm
    assert not size(p).is_own
    # Two of them, one in each lead, are half of what is needed each; a rating changes nothing of the value.
    halves = size(with_changes(p, {"resistor_parts": 2}))
    assert halves.total_ohm == pytest.approx(halves.exact_ohm, rel=0.1)
    assert size(with_changes(p, {"rating_w": 0.5})).total_ohm == size(p).total_ohm
    less = size(with_changes(p, {"target": 0.005}))
    assert less.each_ohm == pytest.approx(less.exact_ohm, rel=0.1)


@pytest.mark.parametrize("kind", ["regulated", "winding"])
@pytest.mark.parametrize("resistor", ["1k", ""])
def test_a_swap_says_the_current_that_its_preview_shows(kind, resistor):
    """Ranked on the lamp as it was read, tried on the lamp as it was typed: one question, one answer."""
    p = on(kind, "12V" if kind == "regulated" else "12Vac", low="11V", high="13V", target="8mA", resistor=resistor)
    amps_read = f"{0.96 * float(solve(p).usual[1]):.5f}A"
    readings = taken("supply_volts 12.1V", f"current {amps_read}", fitted=fitted_in(p))
    swaps = [s for s in search(as_read(p, readings)).swaps if s.current]
    assert len(swaps) >= 3
    for swap in swaps:
        shown = assess(with_changes(p, swap.changes), Bench(readings))
        assert (swap.id, swap.current) == (swap.id, shown.current.usual.text)


def test_a_pencilled_rail_is_overruled_by_its_reading_and_a_read_one_is_not():
    pencilled = on("regulated", "12V", resistor="1k", source="assumed")
    assert pencilled.rail.usual.source.is_assumed
    found = assess(pencilled, Bench(taken("supply_volts 12.6V")))
    assert "nothing-measured" not in {f.id for f in found.findings}
    assert as_read(pencilled, taken("supply_volts 12.6V")).rail.usual.value == pytest.approx(12.6, rel=3e-3)
    was_read = replace(
        pencilled, rail=replace(pencilled.rail, usual=replace(pencilled.rail.usual, source=Source.MEASURED))
    )
    assert as_read(was_read, taken("supply_volts 12.1V")).rail is was_read.rail


@pytest.mark.parametrize(
    "texts",
    [
        ("supply_volts 12.0V", "current 0A", "led_volts 12.0V"),
        ("supply_volts 12.0V", "current 4.1mA"),
        ("supply_volts 12.0V", "current 96mA"),
    ],
)
def test_a_lamp_with_something_wrong_is_narrowed_by_nothing(texts):
    assert as_read(ONE, taken(*texts)) == ONE


def test_leds_of_another_make_are_taken_for_what_they_read():
    """2.25 V at half of rated where 1.9 to 2.2 V were typed at rated: (12 − 2.25) V ÷ 1 kΩ = 9.75 mA (Ohm)."""
    p = as_read(ONE, taken("supply_volts 12.0V", "led_volts 2.25V", "current 9.75mA", "resistor_ohms 1k"))
    assert amps(p) == pytest.approx(9.75e-3, rel=0.01)
    assert p.led.vf_typ > 2.2


def test_the_led_that_is_there_lies_in_what_readings_leave_by_the_reference():
    """Readings by ngspice through a meter that is off by up to 1.5 %; what is true is what ngspice was given."""
    inside, off, off_as_typed = [], [], []
    for seed in range(7000, 7026):
        try:
            case = case_of(seed)
        except NoCase:
            continue
        readings = [] if case.done else [read(case, kind, kind) for kind in ("supply_volts", "current", "led_volts")]
        typed = case.s.position
        if case.done or case.slipped or typed.module is not None:
            continue
        p = as_read(typed, readings)
        inside.append(p.led.vf_low - 1e-9 <= case.led_v <= p.led.vf_high + 1e-9)
        truth = true_reading(case, "current", "one")
        rail = typed.rail.volts[1] * case.rail
        off.append(abs(amps(p, rail) / truth - 1))
        off_as_typed.append(abs(amps(typed, rail) / truth - 1))
    assert len(inside) >= 8
    assert sum(inside) >= 0.9 * len(inside)
    # The meter's own 1.5 %, where the catalogue's LED and a resistor anywhere in its tolerance were far more.
    assert np.median(off) < 0.015
    assert np.mean(off) < 0.5 * np.mean(off_as_typed)
