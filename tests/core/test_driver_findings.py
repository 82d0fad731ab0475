"""What the drivers' findings say and whether their remedies cure, by the facts of the trade."""

import re

import numpy as np
import pytest

from swapglow.core.analysis.check_pulse import flash, swallowing
from swapglow.core.analysis.load_resistor import load_of
from swapglow.core.analysis.shunts import knee_ohm
from swapglow.core.analysis.solution import solve
from swapglow.core.analysis.states import state_solutions
from swapglow.core.assess import assess
from swapglow.core.design.changes import with_changes
from swapglow.core.photometry.visibility import DARK_ROOM_CD, flash_candela, threshold_lux, visibility
from swapglow.core.quantities import InputError
from tests.core.drivers import driven
from tests.core.light import candela
from tests.core.supplies import lamp, on


def found(p, key):
    return next((f for f in assess(p).findings if f.id == key), None)


def remedy(finding, key):
    return next(r for r in finding.remedies if r.id == key)


# Common practice: 5 V across the lamp, two red of 2.0 V, 47 Ω, 220 Ω across the driver.
GHOST = driven(
    "low_side",
    "5V",
    "0V",
    in_series=2,
    resistor="47R",
    target="20mA",
    ceiling=1.0,
    keep_warm="220R",
    hangs_on="a delay",
)


def test_the_keep_warm_trickle_of_practice():
    """About 20 mA lit and about 4 mA off (common practice); 3.7 mA were the forward voltage constant.

    At a quarter of the current each LED stands some 0.15 V lower, so that the curve gives more.
    """
    on_, off = state_solutions(solve(GHOST))
    assert on_.amps[1] == pytest.approx(21e-3, rel=0.05)
    assert 3.7e-3 < off.amps[1] < 5.2e-3
    # Ohm and Kirchhoff, with the forward voltage at that current.
    vf = GHOST.led.junction(GHOST.led.vf_typ).volts(off.amps[1])
    assert off.amps[1] == pytest.approx((5 - 2 * vf) / (220 + 47), rel=1e-3)


def test_the_ghost_is_found_and_each_remedy_lays_it():
    ghost = found(GHOST, "glows-when-off")
    assert ghost.grade == "stop"
    assert "a delay" in ghost.why
    for key in ("remove-bleed", "shunt-assembly", "shunt-leds"):
        cured = with_changes(GHOST, remedy(ghost, key).changes)
        assert found(cured, "glows-when-off") is None, key
        assert solve(cured).usual[1] > 4e-3, key


def test_the_shunt_is_dark_though_the_resistor_follows_it():
    p = driven("low_side", "6.2V", "0.2V", in_series=2, target="8mA", keep_warm="390R")
    ghost = found(p, "glows-when-off")
    for key in ("shunt-assembly", "shunt-leds"):
        assert found(with_changes(p, remedy(ghost, key).changes), "glows-when-off") is None, key


def test_the_shunt_by_the_knee():
    """R < Vknee/Ik with Ik = (V − Vknee)/Rpath: 5 V, 220 Ω, knee 3.2 V is under 390 Ω (Ohm)."""
    assert knee_ohm(GHOST) == pytest.approx(390, rel=0.08)
    # By the solved circuit the knee's own shunt leaves tens of microamps: the one offered is lower.
    ghost = found(GHOST, "glows-when-off")
    assert remedy(ghost, "shunt-assembly").changes["shunt_ohm"] < knee_ohm(GHOST)


def test_a_sense_line_from_two_trials():
    """Works at 6.8 kΩ, fails at 5.6 kΩ (common practice): the book's 470 Ω reads as a closed contact."""
    p = on("sense", "10V", {"source": "1k", "works": "6.8k", "fails": "5.6k"}, target="17mA", resistor="470R")
    trip = p.rail.supply
    assert trip.trip.value == pytest.approx((10 - 1.78) / 7.8e3, rel=0.02)
    assert trip.trip_fails.value == pytest.approx((10 - 1.79) / 6.6e3, rel=0.02)
    stop = found(p, "line-reads-closed")
    assert stop.grade == "stop"
    safe = with_changes(p, remedy(stop, "larger-resistor").changes)
    assert found(safe, "line-reads-closed") is None
    assert safe.resistor_ohm >= 6800
    bright = with_changes(p, remedy(stop, "brighter-led").changes)
    assert found(bright, "line-reads-closed") is None
    closed = state_solutions(solve(p))[1]
    assert closed.state == "closed"
    assert closed.amps.max() < 1e-9
    assert closed.supply_amps[1] == pytest.approx(10 / 1000.1, rel=1e-3)


def test_a_current_between_the_trials_is_not_known_to_be_safe():
    between = on("sense", "10V", {"source": "1k", "works": "6.8k", "fails": "5.6k"}, target="1mA", resistor="6.2k")
    assert found(between, "line-reads-closed").grade == "mind"


TURN = {"lamp": lamp("12V", "1.75A", "30cd"), "low": "12V", "high": "14.4V"}


def test_the_load_resistor_of_practice():
    """7.5 Ω for a 21 W turn lamp: 22 W at 12.8 V, 28 W at 14.4 V, while lit (common practice)."""
    p = driven("flasher", "12.8V", "0V", place="metal", **TURN)
    assert load_of(p, 7.5).lit_w == pytest.approx(27.6, rel=0.01)
    assert load_of(p, 7.5).average_w == pytest.approx(13.8, rel=0.01)
    fast = found(p, "misses-current")
    assert fast.grade == "stop"
    assert [r.id for r in fast.remedies] == ["cool", "load-resistor"]
    # R ≤ V/(Itrip − ILED) (Ohm), the next value down: 6 to 7.5 Ω by practice.
    assert 6.0 <= remedy(fast, "load-resistor").changes["shunt_ohm"] <= 7.5
    for r in fast.remedies:
        assert found(with_changes(p, r.changes), "misses-current") is None


def test_load_resistors_add_up_in_a_closed_space_and_burn_on_plastic():
    one = driven("flasher", "12.8V", "0V", shunt="8R2", place="closed", **TURN)
    four = driven("flasher", "12.8V", "0V", shunt="8R2", place="closed", there="4", **TURN)
    # Each one's own rise is its own, 8 K/W; the air's is shared, 4 K for each watt of the other three (ours).
    watts = 14.4**2 / 8.2 / 2
    assert load_of(one, 8.2).surface_c == pytest.approx(25 + watts * 8, rel=0.01)
    assert load_of(four, 8.2).surface_c == pytest.approx(25 + watts * (8 + 3 * 4), rel=0.01)
    assert found(one, "load-hot").grade == "mind"
    assert found(four, "load-hot").grade == "stop"
    assert found(driven("flasher", "12.8V", "0V", shunt="8R2", place="plastic", **TURN), "load-hot").grade == "stop"


@pytest.mark.parametrize(
    ("shunt", "grade"), [("8R2", ""), ("6R8", ""), ("6R", "mind"), ("5R6", "mind"), ("3R9", "stop")]
)
def test_a_load_that_draws_more_than_the_old_lamp_says_by_how_much(shunt, grade):
    """A lamp of 1.75 A at 12 V, V^0.55 (lamp handbooks, from memory): 12.8 V over 6 Ω are 2.13 A and the LED's."""
    p = driven("flasher", "12.8V", "0V", shunt=shunt, place="metal", **TURN)
    told = found(p, "load-over-lamp")
    if not grade:
        assert told is None
        return
    old = 1.75 * (12.8 / 12) ** 0.55
    now = 12.8 / float(shunt.replace("R", ".")) + float(assess(p).current.usual.value)
    assert told.grade == grade
    assert float(re.search(r"draws ([\d.]+)", told.message)[1]) == pytest.approx(now, rel=0.02)
    assert float(re.search(r": ([\d.]+) times", told.message)[1]) == pytest.approx(now / old, rel=0.03)
    assert (now / old > 1.5) is (grade == "stop")


def test_no_load_is_offered_that_would_be_a_stop():
    """3 A wanted where a lamp of 1.75 A was."""
    p = driven("flasher", "12.8V", "0V", place="metal", trip="3A", **TURN)
    fast = found(p, "misses-current")
    assert [r.id for r in fast.remedies] == ["cool"]
    assert "over one and a half times" in fast.why


def test_a_lamp_that_throttles_starts_the_fast_flash_again():
    """LEDs that throttle as they warm (common practice)."""
    cold = {"band": "10-15V", "trip": "0.4A", **TURN}
    p = driven(
        "flasher",
        "12.8V",
        module={"amps": "500mA", "law": "current", "polarised": "yes", "throttle": "60 %", "after": "40s"},
        **cold,
    )
    assert found(p, "misses-current") is None
    assert "40 s" in found(p, "throttles").message


def test_when_it_still_flashes_fast_the_tests_come_in_their_order():
    """Turned round, re-read, onset, a step lower, unplug one lead (common practice)."""
    p = driven("flasher", "12.8V", shunt="8R2", still_fast="yes", place="metal", **TURN)
    plan = [s.id for s in assess(p).survey.plan]
    assert plan[:5] == ["fast-turned", "fast-reread", "fast-onset", "fast-lower", "fast-unplug"]
    assert all(s.meanings for s in assess(p).survey.plan[:5])


def test_a_flash_rate_outside_the_law():
    """60 to 120 a minute (UN R48, FMVSS 108)."""
    assert found(driven("flasher", "12.8V", rate="140", **TURN), "flash-rate") is not None
    assert found(driven("flasher", "12.8V", rate="120", **TURN), "flash-rate") is None


def test_a_neighbour_loses_its_margin_and_the_bleeder_gives_it_back():
    """Less current through a shared resistor is more volts behind it: a 2.7 V part near 3 V (common practice)."""
    p = driven(
        "shared",
        "6.2V",
        dropper="33R",
        loads="cell max 2.7V; chip 10mA",
        lamp=lamp("2.5V", "0.1A"),
        led_id="red-3-diffused",
        target="4mA",
    )
    over = found(p, "neighbour-over-cell")
    assert over.grade == "stop"
    cured = with_changes(p, remedy(over, "bleeder").changes)
    assert found(cured, "neighbour-over-cell") is None
    before = next(f for f in assess(p).findings if f.id == "neighbours-change")
    assert before.limit != before.figure


def test_lamps_left_in_series_go_dark_and_both_reworks_light():
    """One string, or branches with a resistor each (common practice: both schools)."""
    p = driven("series_lamps", "12.4V", others="1", lamp=lamp("6.2V", "0.12A"), led_id="amber-5-diffused")
    dark = found(p, "others-go-dark")
    assert dark.grade == "stop"
    for key, count, branches in (("one-string", 2, 1), ("in-branches", 1, 2)):
        q = with_changes(p, remedy(dark, key).changes)
        assert (q.in_series, q.branches) == (count, branches)
        assert found(q, "others-go-dark") is None
        assert solve(q).usual[1] == pytest.approx(5e-3, rel=0.12)


PULSED = driven("lamp_check", "13.9V", pulse="2ms", period="200ms", pulse_source="270R", target="8mA")


def test_a_check_pulse_is_seen_and_swallowed():
    """A filament is too slow to show it, an LED flashes; a load clears the warning, not the flash (common practice)."""
    note = found(PULSED, "check-pulse-seen")
    assert note is not None
    loaded = with_changes(PULSED, {"shunt_ohm": 100.0, "shunt_across": "assembly", "shunt_w": 5.0})
    assert flash(loaded).candela > 0.1 * flash(PULSED).candela
    farads, ohm = swallowing(PULSED, DARK_ROOM_CD)
    quiet = with_changes(PULSED, remedy(note, "swallow-pulse").changes)
    assert (quiet.capacitor_f, quiet.shunt_ohm) == (farads, ohm)
    assert flash(quiet).candela < DARK_ROOM_CD
    assert found(with_changes(PULSED, {"driver.monitors_current": 0}), "check-pulse-seen") is None


@pytest.mark.parametrize(("pulse", "seconds"), [("10ns", 1e-8), ("1us", 1e-6), ("2ms", 2e-3)])
def test_a_pulse_is_lit_for_its_length(pulse, seconds):
    """I·t/(0.2 s + t) (Blondel and Rey 1911): 50 mcd for ten nanoseconds are nothing."""
    p = driven("lamp_check", "13.9V", pulse=pulse, period="200ms", pulse_source="270R", target="8mA")
    peak = candela(flash(p).peak_a)
    assert flash(p).candela == pytest.approx(peak * seconds / 0.2, rel=0.03)
    assert (found(p, "check-pulse-seen") is None) == (seconds < 1e-7)


def test_a_flash_looks_like_a_steady_light():
    """I·t/(0.2 s + t) (Blondel and Rey 1911): a fifth of a second shows half of itself."""
    assert flash_candela(1.0, 0.2) == pytest.approx(0.5)
    assert flash_candela(1.0, 2e-3) == pytest.approx(0.0099, rel=1e-2)


def test_the_threshold_of_sight():
    """log E = 0.05·(log B)² + 0.573·log B − 6.667 (ICAO Annex 3, from memory): steps at 50 and 15 000 cd/m²."""
    assert threshold_lux(1.0) == pytest.approx(10**-6.667)
    # ICAO's own rounded steps: about 10^-6.0..-5.5 lx by night lighting, 10^-4 by day.
    assert threshold_lux(50) == pytest.approx(10**-5.55, rel=0.1)
    assert [visibility(c) for c in np.geomspace(1e-9, 1, 4)] == ["dark", "dark_room", "lit_room", "lit_room"]


@pytest.mark.parametrize(
    ("common", "lead", "free"),
    [
        ("positive", "positive", "negative"),
        ("negative", "negative", "positive"),
        ("chassis, minus", "negative", "positive"),
        ("chassis, plus", "positive", "negative"),
    ],
)
def test_in_a_common_wire_the_resistor_goes_in_the_other_lead(common, lead, free):
    """In a common-wire circuit the lead that is not common (common practice, ours); a chassis is what stands on it."""
    wire, _, pole = common.partition(", ")
    p = driven("low_side", "9V", "0.2V", supplied={"frame_pole": pole}, common=wire, lead=lead)
    mind = found(p, "resistor-in-common")
    cured = with_changes(p, mind.remedies[0].changes)
    assert cured.lead == free
    assert found(cured, "resistor-in-common") is None
    assert solve(cured).usual == pytest.approx(solve(p).usual, rel=1e-9)


def test_regulators_say_their_head_their_heat_and_their_pins():
    """(Vin − Vout)·I; pins differ between packages (textbook and data sheets): TO-92 flat face out, ground, in."""
    p = driven("direct", "6-30V", regulator_id="fixed-5-to92", target="20mA", ceiling=1.0)
    assert found(p, "regulator-dropout") is not None
    hot = found(p, "regulator-hot")
    watts = 25 * solve(p).string_current_max + 30 * 3e-3
    assert hot.grade == "stop"
    assert float(hot.figure.split()[0].split("\u00a0")[0]) == pytest.approx(25 + watts * 180, rel=0.02)
    assert "out · ground · in" in found(p, "regulator-pins").message
    assert "in · ground · out" in found(with_changes(p, {"regulator_id": "fixed-5-to220"}), "regulator-pins").message


@pytest.mark.parametrize(
    ("kind", "details"), [("series_lamps", {}), ("shared", {}), ("flasher", {}), ("lamp_check", {"pulse": "2ms"})]
)
def test_what_is_not_known_of_a_driver_is_asked_for(kind, details):
    assert found(driven(kind, **details), "driver-unknown") is not None


def test_an_led_that_should_be_dark_is_drawn_dark_beside_the_lit_one():
    """The off box keeps the lit box's white, and the filament stays dark on the same trickle (common practice)."""
    p = driven("low_side", "5V", "0V", in_series=2, keep_warm="220R", lamp=lamp("5V", "0.06A"))
    off = next(m for m in assess(p).snapshots if m.id == "off")
    old, led = off.glow.lamps[0], off.glow.lamps[2]
    assert old.lightness < 1 < led.lightness < 100
    assert off.rule is not None
    assert {z.id for z in off.rule.zones} == {"lit_room"}
    assert off.reads["usual"] == next(x for x in off.line.split(" in ")[:1])[5:]


def test_trials_that_are_exchanged_are_refused_and_one_alone_is_not():
    """What was enough draws more than what was not (Ohm)."""
    for right in ("22R", "10R"):
        with pytest.raises(InputError, match="exchanged") as refused:
            driven("flasher", "13V", right_with=right, fast_with="10R")
        assert refused.value.field == "right_with"
    assert driven("flasher", "13V", fast_with="10R").driver.fast_ohm == 10
    assert driven("flasher", "13V", right_with="10R").driver.right_ohm == 10
    both = driven("flasher", "13V", right_with="9R", fast_with="10R").driver
    assert (both.right_ohm, both.fast_ohm) == (9, 10)


def test_a_pulse_is_swallowed_though_its_rail_is_little_over_the_knee():
    """8 V on three LEDs of 2 V: a knee of some 4.2 V."""
    p = driven(
        "lamp_check",
        "8V",
        flat=True,
        vf="2V",
        in_series=3,
        resistor="470R",
        pulse="1ms",
        period="250ms",
        pulse_source="1k",
    )
    farads, ohm = swallowing(p, DARK_ROOM_CD)
    hidden = flash(with_changes(p, {"capacitor_f": farads, "shunt_ohm": ohm, "shunt_across": "leds"}))
    assert hidden.candela < DARK_ROOM_CD
    assert flash(p).candela > DARK_ROOM_CD
    assert ohm == pytest.approx(3 * 2 / (0.1 * p.target.value), rel=0.05)
