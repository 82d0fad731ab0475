"""What is wrong by what was read: each fault in the circuit, several readings together, and what to read next.

Meters are taken as they are commonly made: 10 MΩ on volts, a milliamp and three volts on the diode range (common
practice). Figures beside the checks are Ohm's and Kirchhoff's laws, or the reference simulator's.
"""

import re
from dataclasses import replace

import numpy as np
import pytest

from swapglow.core.analysis.solution import solve
from swapglow.core.assess import Bench, assess
from swapglow.core.evidence.account import Found, Trouble, account, by_cause, chase, known_by
from swapglow.core.evidence.by_eye import PART, chances
from swapglow.core.evidence.expected import diagnose
from swapglow.core.evidence.hypotheses import UNLISTED, hypotheses, netlist
from swapglow.core.evidence.metered import metered
from swapglow.core.evidence.predict import UNKNOWNS, Draws, predict
from swapglow.core.measurement.reading_after import KINDS, POWER_OFF, SEEN, ReadingAfter, read_after
from swapglow.core.network.cases import Cases
from swapglow.core.network.fault import Fault, PartFault
from swapglow.core.quantities import InputError
from tests.core.supplies import lamp, on
from tests.core.test_whole_loads import driven, through

ONE = on("regulated", "12V", low="11.8V", high="12.2V", resistor="1k", vf="2V")


def shows(p, kind, fault=None, *, of="one", **case):
    """What the meter shows at the usual rail, typical LED."""
    s = solve(p)
    given = {"rail": p.rail.volts[1], "vf": p.led.vf_typ, "ohms": s.sizing.total_ohm, **case}
    cases = Cases(np.array([given["rail"]]), given["vf"], given["ohms"], p.drop_v, fault=fault)
    return float(metered(s.position, ReadingAfter("r", kind, 0.0, of=of), cases)[0])


def typed(*texts):
    """Readings typed as "kind text"."""
    return tuple(read_after(f"r{n}", k, t, "", "") for n, (k, t) in enumerate(x.split(" ", 1) for x in texts))


def wrong(p, *taken):
    """What is wrong by readings typed as "kind text"."""
    s = solve(p)
    readings = typed(*taken)
    return account(s, readings, [diagnose(s, r) for r in readings])


def ids(found):
    return [c.id for c in found.trouble.causes]


@pytest.mark.parametrize(
    ("fault", "kind", "volts"),
    [
        # A turned or open LED keeps the whole rail off its resistor; the meter's 10 MΩ draw 1.2 µA through 1 kΩ.
        (Fault(parts=(PartFault("D1", "turned"),)), "led_volts", 12.0 * 10e6 / (10e6 + 1e3)),
        (Fault(parts=(PartFault("D1", "open"),)), "led_volts", 12.0 * 10e6 / (10e6 + 1e3)),
        # Behind a joint of 10 GΩ a meter of 10 MΩ reads a thousandth of what is left.
        (Fault(string=1e10), "led_volts", 12.0 * 10e6 / (1e10 + 10e6)),
        (Fault(parts=(PartFault("D1", "short"),)), "led_volts", 12.0 * 0.1 / 1000.1),
        (Fault(parts=(PartFault("D1", "short"),)), "resistor_volts", 12.0 * 1000 / 1000.1),
        # Contact and ground in series with all: each takes its share of what flows.
        (Fault(plus=470.0), "plus_volts", 12 - 470 * through(12, 1470)),
        (Fault(plus=470.0), "supply_volts", 12.0),
        (Fault(minus=470.0), "minus_volts", 470 * through(12, 1470)),
        (Fault(minus=470.0), "plus_volts", 12.0),
        (Fault(minus=470.0), "lamp_volts", 12 - 470 * through(12, 1470)),
        (Fault(string=470.0), "lamp_volts", 12.0),
        (Fault(string=470.0), "resistor_volts", 1000 * through(12, 1470)),
        # Something beside the lamp on a stiff rail takes nothing from it.
        (Fault(across=240.0), "led_volts", 12 - 1000 * through(12, 1000)),
    ],
)
def test_a_fault_in_the_circuit_reads_as_the_laws_say(fault, kind, volts):
    assert shows(ONE, kind, fault) == pytest.approx(volts, rel=2e-3, abs=2e-3)


def test_what_hangs_beside_a_lamp_is_in_its_feed_and_pulls_down_a_weak_one():
    """600 Ω beside a lamp of 1 kΩ behind (14 V − 12 V)/20 mA: current dividers by halving (Kirchhoff)."""
    assert shows(ONE, "current", Fault(across=600.0), of="all") == pytest.approx(through(12, 1000) + 0.02, rel=1e-3)
    weak = on("unregulated", "12V", {"open": "14V", "load": "20mA"}, flat=True, resistor="1k", vf="2V")
    low, high = 0.0, weak.rail.volts[1]
    for _ in range(60):
        middle = (low + high) / 2
        drawn = through(middle, 1000) + middle / 600
        low, high = (middle, high) if middle + 100 * drawn < weak.rail.volts[1] else (low, middle)
    assert shows(weak, "plus_volts", Fault(across=600.0)) == pytest.approx(low, rel=1e-3)


def test_a_meters_burden_sits_where_the_meter_does():
    p = replace(ONE, branches=4)
    s = solve(p)
    case = Cases(np.array([12.0]), 2.0, s.sizing.total_ohm, 0.0)
    one = metered(p, ReadingAfter("r", "current", 0.0, 100.0), case)
    every = metered(p, ReadingAfter("r", "current", 0.0, 100.0, of="all"), case)
    assert float(one[0]) == pytest.approx(through(12, 1100), rel=2e-3)
    # In all four at once 100 Ω are as 400 Ω in each.
    assert float(every[0]) == pytest.approx(4 * through(12, 1400), rel=2e-3)


def test_a_diode_range_reads_one_led_at_a_milliamp_and_nothing_of_what_is_open():
    red, white = ONE, on("regulated", "12V", resistor="1k", led_id="white-5-clear", vf="3.6V")
    at_one = float(red.led.junction(2.0).volts(1e-3))
    assert shows(red, "led_straight") == pytest.approx(at_one, rel=1e-6)
    assert shows(red, "led_turned") > 3
    assert shows(red, "led_turned", Fault(parts=(PartFault("D1", "turned"),))) == pytest.approx(at_one, rel=1e-6)
    assert shows(red, "led_straight", Fault(parts=(PartFault("D1", "turned"),))) > 3
    assert shows(red, "led_straight", Fault(parts=(PartFault("D1", "short"),))) == 0.0
    # More than three volts are more than the range gives.
    assert shows(white, "led_straight") > 3
    assert shows(replace(ONE, resistor_parts=2), "resistor_ohms") == pytest.approx(1000.0)


def test_over_a_cycle_a_dc_range_averages_and_an_ac_range_takes_the_root_mean_square():
    """A reversing-proof track of 15 V behind a bridge: flat, so that mean and RMS follow from Kirchhoff's sum."""
    p = on("digital", "15V", flat=True, resistor="1k", vf="2V", rectification="bridge")
    assert shows(p, "lamp_volts") == pytest.approx(15.0, rel=1e-3)
    assert shows(p, "led_volts") == pytest.approx(1.95, abs=0.06)
    # A turned LED behind the bridge carries nothing: two dark diodes and it share the track's volts.
    assert shows(p, "led_volts", Fault(parts=(PartFault("D1", "turned"),))) > 13
    assert shows(p, "led_volts", Fault(string=1e10)) < 0.1
    winding = on("winding", "12Vac", low="12V", high="12V", resistor="1k", rectification="half_wave")
    assert shows(winding, "lamp_volts") == pytest.approx(12.0, rel=2e-3)


@pytest.mark.parametrize(
    ("taken", "first"),
    [
        # 12 V − 2 V over a tenth of the resistor, ten times it, or the next value.
        (["current 0A", "led_volts 12V"], "D1-turned"),
        (["current 0A", "led_turned 1.75V"], "D1-turned"),
        (["current 0A", "led_volts 12V", "led_turned OL", "led_straight OL"], "D1-open"),
        (["current 0A", "led_volts 1.9V", "supply_volts 12V"], "meter-fuse"),
        (["current 0A", "supply_volts 0V"], "rail-off"),
        (["current 0A", "supply_volts 12V", "plus_volts 0.01V"], "contact-open"),
        (["current 0A", "supply_volts 12V", "plus_volts 12V", "led_volts 0V"], "joint-open"),
        # 10 MΩ across an open resistor let a microamp through the LED, which then shows some 1.4 V (Ohm, Shockley).
        (["current 0A", "led_volts 0V", "resistor_volts 10.6V", "resistor_ohms OL"], "R1-open"),
        (["current 1.02mA", "resistor_ohms 10k"], "R1-decade-up"),
        (["current 8.4mA", "resistor_ohms 1k2"], "R1-value"),
        (["current 83mA", "led_volts 2.4V", "resistor_ohms 0.2R"], "R1-short"),
        (["current 6.85mA", "plus_volts 8.8V", "minus_volts 0V", "supply_volts 12V"], "contact"),
        (["current 6.85mA", "plus_volts 12V", "minus_volts 3.2V"], "ground"),
        (["current 6.85mA", "resistor_ohms 1k", "plus_volts 12V", "minus_volts 0V", "resistor_volts 6.85V"], "joint"),
        (["current 9.2mA", "resistor_volts 10.1V"], "meter-burden"),
        (["current 5.4mA", "supply_volts 7.4V"], "rail-level"),
        (["current 10.1mA", "resistor_volts 12V"], "slip-place"),
        (["current 10.1mA", "led_volts 10V"], "slip-place"),
        (["current 101mA", "led_volts 1.9V", "resistor_volts 10.1V"], "slip-decade"),
        (["led_volts 0V", "resistor_volts 12V"], "D1-short"),
    ],
)
def test_readings_together_name_the_cause(taken, first):
    found = wrong(ONE, *taken)
    assert ids(found)[0] == first
    assert found.trouble.causes[0].share > 0.4


def test_a_cause_comes_with_its_size():
    """470 Ω more in the string: 12 V − 2 V over 1.47 kΩ; read twice, the size is what makes both (Ohm)."""
    amps = through(12, 1470)
    found = wrong(
        ONE,
        f"current {amps:.6f}A",
        f"resistor_volts {1000 * amps:.5f}V",
        "plus_volts 12V",
        "resistor_ohms 1k",
        "minus_volts 0V",
    )
    cause = found.trouble.causes[0]
    assert cause.id == "joint"
    ohm = float(re.search(r"about (\d+)\s", cause.message).group(1))
    assert ohm == pytest.approx(470, rel=0.05)
    assert cause.reads[0].value == pytest.approx(amps, rel=0.01)


def test_where_the_readings_hold_several_causes_three_are_named_and_none_is_sure():
    found = wrong(ONE, "current 0A")
    assert {"D1-turned", "rail-off", "meter-fuse"} == set(ids(found))
    assert found.trouble.causes[0].share < 0.4
    assert found.trouble.line == "These 3 are the likeliest."
    # Turned or open: both keep the rail, and both stay.
    assert ids(wrong(ONE, "current 0A", "led_volts 12V")) == ["D1-turned", "D1-open"]


def test_one_reading_says_nothing_for_certain():
    """No single reading counts more than 100 to 1: what seems plain is said with 95 % at most."""
    for taken in ("supply_volts 0V", "led_volts 0V", "current 83mA"):
        s = solve(ONE)
        known = known_by(s, (read_after("r", *taken.split(" "), "", ""),))
        assert max(q.share for q in known.posteriors) <= 0.95
        assert known.unlisted >= 0.4 * UNLISTED


def test_a_high_rail_explains_two_readings_only_together():
    """At the rail's own end current and volts are both up; one up and one down is no rail."""
    high = wrong(ONE, f"current {through(13.2, 1000):.5f}A", f"resistor_volts {1000 * through(13.2, 1000):.4f}V")
    assert ids(high)[0] in ("rail-level", "sound")
    apart = wrong(ONE, f"current {through(13.2, 1000):.5f}A", "supply_volts 12V")
    assert "rail-level" not in ids(apart)


def test_leds_of_another_lot_are_no_fault():
    """Thirteen strings of three red LEDs on 12 V: read is what LEDs of 2.4 V each make, (12 V - 7.2 V)/330 Ω a string
    (Ohm), and their own volts. Nothing is broken, and nothing else is named first."""
    p = on("regulated", "12V", flat=True, led_id="red-5-diffused", in_series=3, branches=13, resistor="330")
    s = solve(p)
    taken = (
        read_after("a", "current", f"{13 * (12 - 7.2) / 330:.5f}A", "", "", "all"),
        read_after("v", "led_volts", "7.2V", "", "", "all"),
    )
    found = account(s, taken, [replace(diagnose(s, r), agrees=False) for r in taken])
    assert found.trouble.causes[0].id == "sound"
    assert (
        found.trouble.causes[0].message.replace("\u00a0", " ").startswith("Nothing is wrong: these LEDs have about 2.")
    )


@pytest.mark.parametrize(
    ("part", "how", "cause"),
    [("Dbridge2", "open", "Dbridge-open"), ("C1", "share", "C1-share"), ("C1", "leaky", "C1-leaky")],
)
def test_on_a_bridge_with_a_capacitor_no_innocent_part_is_named(part, how, cause):
    """12 V winding, 1k2, one diode open or the capacitor dried out: rail, wires, LED and resistor read, none of them is
    called faulty. The readings are the same circuit's with that one part changed."""
    p = on("winding", "12Vac", flat=True, resistor="1k2", rectification="bridge_cap")
    s = solve(p)
    fault = Fault(parts=(PartFault(part, how, {"share": 0.05, "leaky": 300.0}.get(how, 1.0)),))
    read = {kind: shows(p, kind, fault) for kind in ("current", "supply_volts", "lamp_volts")}
    taken = [f"{kind} {value:.5f}{'A' if kind == 'current' else 'V'}" for kind, value in read.items()]
    shares = by_cause(known_by(s, typed(*taken, "resistor_ohms 1k2")))
    innocent = [c for c, share in shares.items() if share > 0.5 and not c.startswith(("Dbridge", "C1", "sound"))]
    assert innocent == []
    assert shares[cause] > 0.02


def test_faults_are_made_from_the_netlist():
    """Every part that the builder draws has faults; what only models has none."""
    p = on("winding", "12Vac", resistor="1k2", rectification="half_wave_cap")
    names = {e.name for e in netlist(p).elements}
    assert {"Vrail", "Drectifier", "C1", "R1", "D1"} <= names
    of = {h.id.split("-")[0] for h in hypotheses(solve(p), ())}
    assert {"Drectifier", "C1", "R1", "D1"} <= of
    assert "Vrail" not in of


def test_priors_add_up_with_what_is_not_listed():
    for p in (ONE, on("winding", "12Vac", resistor="1k2", rectification="bridge_cap")):
        every = hypotheses(solve(p), (read_after("r", "current", "0A", "", ""),))
        assert sum(h.prior for h in every) + UNLISTED == pytest.approx(1.0)
        assert every[0].id == "sound" and all(h.prior > 0 for h in every)
        assert all(("{}" in h.message) == (h.size is not None and h.size.unit is not None) for h in every)


def test_what_explains_nothing_is_said_to():
    found = wrong(ONE, "resistor_volts 40V")
    assert found.trouble.causes == () and found.trouble.line.startswith("No cause that is known here explains")


def test_two_faults_at_once_are_found_where_no_single_one_explains_the_readings():
    """A tenth of the resistor, and a joint before it that adds 4.7 kΩ with half the rail lost on a contact."""
    amps = through(12, 100 + 4700)
    found = wrong(
        ONE, f"current {amps:.6f}A", f"resistor_volts {amps * 100:.5f}V", "resistor_ohms 100R", "plus_volts 12V"
    )
    assert {"R1-decade-down", "joint"} <= set("+".join(ids(found)).split("+"))


def test_the_newest_reading_of_a_kind_counts():
    assert wrong(ONE, "current 0A", "current 10.1mA") is None
    assert ids(wrong(ONE, "current 10.1mA", "current 1.02mA"))[0] == "R1-decade-up"


def test_a_current_as_it_should_be_clears_what_was_off_before_it():
    """It proves LED, resistor and rail in one; what comes after it counts again."""
    assert wrong(ONE, "led_volts 12V", "resistor_volts 0V", "current 10.1mA") is None
    assert ids(wrong(ONE, "led_volts 0V", "current 10.1mA", "led_volts 12V"))[0] in ("D1-turned", "slip-place")
    # Volts that are right prove only their own place: the walk goes on.
    assert wrong(ONE, "current 0A", "supply_volts 12V") is not None


def test_the_next_reading_tells_what_is_left_apart():
    """The whole rail stands over a turned LED, nothing where the rail is dead; turned, it conducts the other way."""
    step = wrong(ONE, "current 0A", "look dark").next
    assert (step.act, step.reading) == ("Read volts across the LEDs", "led_volts")
    said = {m.means: m.answer.replace("\u00a0", " ") for m in step.meanings}
    assert said["The LED is turned round."] == "12 V" and said["The rail is off, or its fuse has gone."] == "1.2 mV"
    # What leaves rail, wires and string open is walked along.
    step = wrong(ONE, "current 0A", "led_volts 0V").next
    assert step.reading == "supply_volts"
    step = wrong(ONE, "current 0A", "led_volts 12V", "supply_volts 12V", "plus_volts 12V", "minus_volts 0V").next
    assert step.reading in ("led_turned", "led_straight")
    assert step.caution == "Power off, capacitors empty."
    assert {m.answer.replace("\u00a0", " ") for m in step.meanings} >= {"OL"}


def test_on_a_supply_that_alternates_its_volts_are_asked_for_on_an_ac_range():
    p = on("winding", "12Vac", flat=True, resistor="1k2", rectification="bridge_cap")
    step = wrong(p, "current 0A", "led_volts 0V", "look dark").next
    assert step.reading in ("supply_volts", "lamp_volts")
    assert step.meter.startswith("AC volts")


def test_it_is_the_next_thing_on_the_bench():
    taken = (read_after("r", "current", "0A", "", ""),)
    report = assess(ONE, Bench(readings_after=taken))
    assert report.next_step == wrong(ONE, "current 0A").next


def test_nothing_live_is_asked_where_it_could_kill():
    p = on("regulated", "12V", resistor="1k", mains=True)
    step = wrong(p, "current 0A").next
    assert step is not None and step.reading in POWER_OFF


@pytest.mark.parametrize(
    "p",
    [
        on("winding", "12Vac", flat=True, resistor="1k2", rectification="bridge_cap", branches=4),
        on("regulated", "12V", flat=True, resistor="1k", vf="2V", branches=4, shunt="2k2", shunt_across="leds"),
        on("regulated", "12V", flat=True, resistor="1k", vf="2V", branches=4),
    ],
)
def test_of_all_strings_together_one_open_leaves_three_and_a_dead_rail_none(p):
    """What is expected of a sound lamp is its band's middle; the shares are Kirchhoff's sum of equal strings."""
    s = solve(p)
    reading = ReadingAfter("r", "current", 0.0, 0.0, of="all")
    expected = diagnose(s, reading).expected.value
    every = {h.id: h for h in hypotheses(s, (reading,))}
    usual = np.zeros((1, len(UNKNOWNS)))

    def read(name):
        return float(predict(s, [Draws(every[name], usual)], [reading])[0][0, 0])

    assert read("sound") == pytest.approx(expected, rel=0.01)
    assert read("R1-open") == pytest.approx(expected * 3 / 4, rel=0.01)
    assert read("rail-off") == pytest.approx(0.0, abs=1e-5)
    assert read("contact-open") == pytest.approx(0.0, abs=1e-5)


def test_without_a_next_reading_an_alternating_feed_is_looked_at_on_an_ac_range():
    p = on("winding", "12Vac", flat=True, resistor="1k2", rectification="bridge_cap")
    s = solve(p)
    off = diagnose(s, read_after("r", "supply_volts", "3V", "", ""))
    step = chase(s, [off], Found(Trouble((), ""), None))
    assert step.meter.startswith("AC volts")


def test_one_string_of_several_is_told_from_all():
    """One of four strings open: three quarters of the current, and the string itself none."""
    p = on("regulated", "12V", flat=True, resistor="1k", vf="2V", branches=4)
    s = solve(p)
    amps = 3 * through(12, 1000)
    reading = (read_after("r", "current", f"{amps:.6f}A", "", "", "all"),)
    found = account(s, reading, [diagnose(s, reading[0])])
    cause = next(c for c in found.trouble.causes if c.id == "D1-turned")
    assert cause.reads[0].value == pytest.approx(amps, rel=0.01)


def test_a_keep_warm_that_was_left_in_is_found_by_the_off_state():
    """1 kΩ across an open switch, 1 kΩ and a red LED: 12 V over 2 kΩ (Kirchhoff)."""
    p = driven("high_side", "12V", "0V", keep_warm="", resistor="1k", vf="2V", flat=True)
    s = solve(p)
    dark = read_after("r", "current", "0A", "", "", state="off")
    assert diagnose(s, dark).agrees
    glows = read_after("r", "current", f"{through(12, 2000):.6f}A", "", "", state="off")
    verdict = diagnose(s, glows)
    assert not verdict.agrees and verdict.state == "off"
    found = account(s, (glows,), [verdict])
    cause = next(c for c in found.trouble.causes if c.id == "keep-warm")
    assert "about 1 kΩ" in cause.message.replace("\u00a0", " ")


def test_an_old_lamp_beside_the_led_is_told_by_its_own_cold_resistance():
    """12 V 0.1 A is 120 Ω hot; behind (14 V − 12 V)/20 mA it pulls the LED down, and its size is its own (Ohm)."""
    p = on(
        "unregulated",
        "12V",
        {"open": "14V", "load": "20mA"},
        flat=True,
        resistor="1k",
        vf="2V",
        lamp=lamp("12V", "0.1A"),
    )
    s = solve(p)
    read = shows(p, "plus_volts", Fault(across=48.0))
    reading = (read_after("r", "plus_volts", f"{read:.4f}V", "", ""),)
    found = account(s, reading, [diagnose(s, reading[0])])
    assert "lamp-in" in ids(found)


@pytest.mark.parametrize(
    ("kind", "text", "value"),
    [
        ("resistor_ohms", "1k02", 1020.0),
        ("led_straight", "OL", 1e9),
        ("led_turned", "0L", 1e9),
        ("plus_volts", "11.9", 11.9),
        ("current", "9.8mA", 9.8e-3),
    ],
)
def test_each_kind_is_read_in_its_own_unit(kind, text, value):
    assert read_after("r", kind, text, "", "").value == pytest.approx(value)
    assert kind in KINDS


def test_a_meter_shows_no_end_only_where_power_is_off():
    with pytest.raises(InputError) as refused:
        read_after("r", "led_volts", "OL", "", "")
    assert refused.value.field == "text"
    assert read_after("r", "led_turned", "ol", "", "").text == "OL"


def test_a_regulators_own_spread_is_no_fault():
    """8 V held within its spread behind 24 V: what the LED draws at either end agrees, just past it does not (Ohm)."""
    p = on("regulated", "24V", flat=True, regulator_id="fixed-8-to220", resistor="1k", vf="2V")
    s = solve(p)
    low, _, high = p.held_v
    for volts, agrees in ((low, True), (high, True), (high * 1.1, False)):
        amps = through(volts, 1000)
        assert diagnose(s, read_after("r", "current", f"{amps:.6f}A", "", "")).agrees is agrees


def test_of_a_ready_made_lamp_all_insides_count_that_it_may_have():
    """A 10 to 15 V lamp may have two LEDs inside or three: what either draws agrees."""
    p = on("regulated", "12V", flat=True, led_id="white-5-clear", band="10-15V", module={"amps": "20mA"})
    s = solve(p)
    assert len(s.position.possible) > 1
    for amps in s.doubt:
        assert diagnose(s, read_after("r", "current", f"{amps:.6f}A", "", "")).agrees


def test_what_would_take_minutes_is_said_and_not_begun():
    p = on(
        "winding",
        "12Vac",
        resistor="470R",
        rectification="bridge",
        driver_kind="series_lamps",
        driver_details={"others": {"text": "1"}},
        lamp=lamp("12V", "0.1A"),
    )
    found = wrong(p, "current 0A")
    assert found.trouble.causes == () and found.next is None
    assert found.trouble.line.startswith("With lamps left in the loop of a supply that alternates")


def test_a_pin_that_is_low_is_no_open_switch():
    """A low pin still gives its 0.4 V: behind it a red LED draws nothing, and its two wires read those 0.4 V."""
    p = on("logic", "5V", {"pin": "16mA"}, resistor="1k")
    s = solve(p)
    low = read_after("r", "plus_volts", "0.4V", "", "", state="off")
    assert diagnose(s, low).agrees
    assert diagnose(s, low).expected.value == pytest.approx(0.4, rel=1e-3)
    assert not diagnose(s, replace(low, value=5.0)).agrees


def test_a_reading_in_a_state_that_the_lamp_has_no_more_stops_nothing():
    assert (
        assess(ONE, Bench((read_after("r", "current", "0A", "", "", state="closed"),))).diagnoses[0].state == "closed"
    )


# ---- what an eye sees


def test_what_is_seen_is_told_by_its_light():
    """A quarter of the light is taken for faint, a two hundred and fiftieth for dark (ours, from common practice)."""
    lit, faint, dark = (chances(np.array(r)) for r in (1.0, 0.1, 1e-4))
    assert [int(c.argmax()) for c in (dark, faint, lit)] == [0, 1, 3]
    assert chances(np.array(PART)).argmax() == list(SEEN).index("part")
    for each in (lit, faint, dark):
        assert each.sum() == pytest.approx(1.0)
    assert chances(np.array(0.25))[[1, 3]] == pytest.approx([0.5, 0.5], abs=0.03)


def test_a_dark_lamp_is_asked_about_as_a_hand_would():
    """Dark alone blames no part; lit with another LED in its place it was the LED, and still dark it was not."""
    first = wrong(ONE, "look dark")
    assert first.next is not None and first.next.reading == "led_volts"
    assert all(c.share < 0.5 for c in first.trouble.causes)
    of_the_led = by_cause(known_by(solve(ONE), typed("look dark", "look_other lit")))
    assert sum(v for k, v in of_the_led.items() if k.startswith("D1-")) > 0.9
    elsewhere = by_cause(known_by(solve(ONE), typed("look dark", "look_other dark")))
    assert sum(v for k, v in elsewhere.items() if k.startswith("D1-")) < 0.05
    # Nothing flows: before anything is opened, it is looked at.
    assert wrong(ONE, "current 0A").next.reading == "look"


def test_one_dark_string_of_several_and_one_bridged_led_are_told_from_all_dark():
    rows = on("regulated", "12V", low="11.8V", high="12.2V", resistor="330R", in_series=3, branches=4)
    s = solve(rows)
    some = by_cause(known_by(s, typed("look part")))
    every = by_cause(known_by(s, typed("look dark")))
    assert some["D1-count-less"] > 20 * some.get("rail-off", 0.0)
    assert every["rail-off"] > 0.3 > every.get("D1-open", 0.0)


def test_a_look_is_lit_or_off_and_nothing_else_is_taken_for_one():
    s = solve(ONE)
    assert diagnose(s, typed("look lit")[0]).agrees
    dark = diagnose(s, typed("look Dark")[0])
    assert (dark.agrees, dark.reading.text, dark.expected.text) == (False, "dark", "lit as it should be")
    with pytest.raises(InputError, match="dark, faint, part, lit"):
        typed("look blinks")


def test_causes_that_no_reading_parts_are_one_cause():
    """A rectifier that is open and a joint behind it read the same at every place that a probe reaches."""
    p = on("winding", "12Vac", flat=True, resistor="1k", rectification="half_wave")
    taken = ["current 0A", "look dark", "supply_volts 12V", "lamp_volts 12V", "led_volts 0V", "resistor_ohms 1k"]
    found = wrong(p, *taken, "led_straight 1.75V", "led_turned OL", "look_other dark")
    assert found.next is None
    first = found.trouble.causes[0].message
    assert first.startswith("A joint in the string is open. The readings would be the same if ")
    assert "the diode before the string is open" in first


def test_what_a_slip_would_mean_is_said_beside_the_fault():
    """A tenth of the current: ten times the resistor, or a decade misread; the eye tells them apart."""
    found = wrong(ONE, "current 1.02mA")
    assert {"R1-decade-up", "slip-decade"} <= set(ids(found)) and found.next.reading == "look"
    said = {m.means: m.answer for m in found.next.meanings}
    by_id = {c.id: said[c.message] for c in found.trouble.causes}
    assert (by_id["R1-decade-up"], by_id["slip-decade"]) == ("faint", "lit as it should be")


def test_what_a_slip_explains_is_no_cause_that_reads_the_same():
    """A tenth of the current: a rail or a resistor as it should be, and a decade misread, is no fault like another."""
    found = wrong(ONE, "current 1.02mA")
    assert not [c.message for c in found.trouble.causes if "would be the same" in c.message]
