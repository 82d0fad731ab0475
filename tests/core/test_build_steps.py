"""Hands on: the steps of a build from the lamp's own facts, what is warm, and the test before and after.

Bodies, sleeves and fingers are common practice; the arithmetic beside the checks is written out.
"""

from dataclasses import replace

import numpy as np
import pytest

from scripts.fuzz.documents import document
from swapglow.core.analysis.sizing import size, with_strings
from swapglow.core.analysis.solution import solve
from swapglow.core.analysis.spice_text import fitted_circuit
from swapglow.core.assess import Bench, assess
from swapglow.core.build_steps.before_after import RESULTS, Check, differences, summed_up
from swapglow.core.build_steps.put_in import put_in
from swapglow.core.build_steps.sleeves import BORES_MM, sleeve_over
from swapglow.core.build_steps.steps import Habits, Site
from swapglow.core.build_steps.warmth import TOO_HOT, finger, warmth
from swapglow.core.engine.netlist import CircuitError, Resistor
from swapglow.core.measurement.reading_after import read_after
from swapglow.core.parts.resistor import body_celsius
from swapglow.core.quantities import InputError
from swapglow.inputs.to_core import position_of
from tests.core.supplies import lamp, on
from tests.core.test_whole_loads import driven, through

LAMP = {"lamp": lamp("12V", "0.1A")}
PLAIN = on("regulated", "12V", low="11.8V", high="12.2V", resistor="1k", vf="2V", rating_w=0.25, **LAMP)


def steps(p, site=None):
    return {s.id: s for s in assess(p, Bench(site=site or Site())).build}


def facts(step):
    return {f.label: f.text.replace("\u00a0", " ") for f in step.facts}


def test_each_step_has_its_own_figures():
    """10.1 mA through 1 kΩ; a quarter-watt body is 2.5 mm by 6.5 mm (common bodies)."""
    found = steps(PLAIN)
    assert facts(found["clips"]) == {"LED": "Red 5 mm diffused", "Resistor": "1 kΩ, ¼ W"}
    expect = facts(found["try-on"])["Expect"]
    assert expect.startswith(f"{through(12, 1000) * 1000:.3g} V, ")
    assert found["try-on"].reading == "resistor_volts"
    assert facts(found["try-on"])["Meter"] == "DC volts, 20 V range"
    assert facts(found["resistor"]) == {"Value": "1 kΩ", "Body": "¼ W", "Meter": "950 Ω to 1.05 kΩ"}
    assert facts(found["sleeve"])["Over the resistor"] == "3.2 mm bore, 16 mm long"
    assert facts(found["sleeve"])["Colour"] == "red"
    assert found["lead"].act == "The resistor in the positive lead."


def test_only_a_few_points_are_ticked_and_they_are_those_where_one_must_look():
    found = steps(PLAIN)
    ticked = ["take", "power", "works", "polarity", "power-fitted", "soak", "reverse"]
    assert [k for k, s in found.items() if s.tick] == ticked
    phases = list(dict.fromkeys(s.phase for s in found.values()))
    assert phases == ["try", "prepare", "fit", "prove", "close"]
    order = list(found)
    assert order.index("sleeve") < order.index("solder") < order.index("soak") < order.index("glue")


@pytest.mark.parametrize(
    ("p", "there", "not_there"),
    [
        (
            on("regulated", "12V", led_id="white-5-clear", band="10-15V", module={"amps": "20mA"}),
            set(),
            {"resistor", "lead", "legs", "sleeve"},
        ),
        (on("regulated", "12V", resistor="470R", resistor_parts=2), {"lead"}, {"capacitor", "regulator"}),
        (on("winding", "12Vac", rectification="bridge_cap", resistor="1k"), {"capacitor", "polarity"}, set()),
        (on("winding", "12Vac", rectification="half_wave", resistor="1k"), set(), {"capacitor", "polarity"}),
        (on("regulated", "24V", regulator_id="fixed-8-to220", resistor="1k"), {"regulator"}, {"capacitor"}),
        (on("regulated", "12V", resistor="1k", led_id="red-chip"), set(), {"legs", "height"}),
        (replace(PLAIN, shunt_ohm=100.0, shunt_w=10.0), {"load"}, set()),
        (PLAIN, {"height"}, {"load", "bold", "brittle", "optics"}),
    ],
)
def test_steps_that_do_not_apply_are_not_there(p, there, not_there):
    found = set(steps(p))
    assert there <= found
    assert not (not_there & found)


def test_two_resistors_go_one_in_each_lead():
    p = on("regulated", "12V", resistor="470R", resistor_parts=2)
    assert steps(p)["lead"].act == "One resistor in each lead."
    assert facts(steps(p)["clips"])["Resistor"].startswith("2 × 470 Ω")


# What is the equipment's own, by how its elements are called; a winding's insulation nobody fits.
SURROUNDINGS = ("Vrail", "Rsource", "Rdropper", "Rleft", "Rload", "Dload", "Vdload", "Idload", "Ddload", "Vdriver")
NOT_FITTED = (*SURROUNDINGS, "Rpulse", "Dgate", "Rcontact", "Rinsulation")


def test_every_part_of_500_random_circuits_has_one_step_of_its_own():
    """The netlist that the simulator is given, against the parts in the hand."""
    seen: dict[str, int] = {}
    for seed in range(500):
        try:
            p = with_strings(position_of(*reversed(document(seed))))
            sized = size(p)
            circuit = fitted_circuit(p, sized.total_ohm, sized.farads)
        except (InputError, CircuitError):
            continue
        parts = list(put_in(p))
        assert len({x.id for x in parts}) == len(parts)
        for e in circuit.elements:
            # Where no resistor is needed its place in the netlist holds a wire.
            wire = isinstance(e, Resistor) and float(np.max(e.ohms)) < 0.2
            if e.name.startswith(NOT_FITTED) or wire:
                continue
            fits = {x.id: max((len(w) for w in x.places if e.name.startswith(w)), default=0) for x in parts}
            its = [id_ for id_, length in fits.items() if length and length == max(fits.values())]
            assert its, (seed, e.name, [x.id for x in parts])
            assert len(its) == 1 or set(its) == {"regulator", "set"}, (seed, e.name, its)
        for x in parts:
            seen[x.id] = seen.get(x.id, 0) + 1
            # And no step is about a part that is not there; over a check pulse the circuit is another.
            assert x.id == "pulse-capacitor" or any(e.name.startswith(x.places) for e in circuit.elements), (seed, x.id)
    assert {"bridge", "rectifier", "capacitor", "regulator", "lead", "diodes", "polarity", "guard"} <= seen.keys()
    assert {"led", "module", "shunt", "load", "beside-1", "beside-2"} <= seen.keys()


def test_what_bursts_when_it_is_turned_round_is_looked_at_before_the_first_power():
    found = list(steps(on("winding", "12Vac", rectification="bridge_cap", resistor="1k")))
    assert found.index("clips") < found.index("round") < found.index("power")
    assert found.index("bridge") < found.index("capacitor") < found.index("polarity")
    told = facts(steps(on("winding", "12Vac", rectification="bridge_cap", resistor="1k"))["round"])
    assert told["Capacitor"] == "stripe to minus" and told["Bridge"].startswith("~ and ~ to the supply")
    assert "round" not in steps(PLAIN)


def test_each_further_string_is_read_across_its_own_resistor():
    """Blue at some 3 V on 12 V through 2.2 kΩ: 9 V over the resistor (Ohm)."""
    p = on(
        "regulated",
        "12V",
        resistor="1k",
        beside={"a": {"led_id": "blue-3-diffused", "resistor": "2k2", "name": "Dial"}},
    )
    found = steps(p)
    assert facts(found["beside-1"])["Resistor"] == "2.2 kΩ"
    volts = float(facts(found["prove-beside-1"])["Expect"].split()[0])
    assert volts == pytest.approx(12 - 3, abs=0.35)


def test_where_it_will_not_be_opened_again_the_trial_is_the_one():
    found = steps(PLAIN, Site(once=True, brittle=True))
    assert next(iter(found)) == "bold"
    assert "brittle" in found


def test_it_closes_in_the_reverse_of_its_opening():
    found = steps(PLAIN, Site(opening=("Four screws", "Lens ring", "Reflector")))
    assert [f.text for f in found["reverse"].facts] == ["Reflector", "Lens ring", "Four screws"]


def test_the_shops_habits_are_in_the_steps():
    p = replace(PLAIN, lead="negative")
    found = steps(p, Site(habits=Habits("yellow", "blue", ("Tug every joint",))))
    assert found["lead"].act == "The resistor in the negative lead."
    assert facts(found["sleeve"])["Colour"] == "blue"
    assert facts(found["sleeve"])["Over a leg"].endswith("yellow for plus, blue for minus")
    assert found["house-0"].act == "Tug every joint" and found["house-0"].tick


def test_every_state_is_read():
    p = driven("low_side", "12V", "0.2V", leak="5uA", resistor="1k", vf="2V")
    found = steps(p)
    assert found["try-off"].state == "off"
    assert facts(found["try-off"])["Expect"] != facts(found["try-on"])["Expect"]


def test_nothing_is_built_while_a_stop_stands_or_on_the_mains():
    over = on("regulated", "12V", resistor="100R")
    assert list(steps(over)) == ["stop"]
    assert list(steps(replace(PLAIN, mains=True))) == ["mains"]


@pytest.mark.parametrize(("thick", "bore"), [(2.5, 3.2), (1.9, 2.4), (0.6, 1.2), (4.5, 4.8), (4.6, 6.4), (18.0, 19.1)])
def test_a_sleeve_goes_over_and_shrinks_on(thick, bore):
    """The next bore that is 0.3 mm wider; shrunk to half it is tighter than what it sits on."""
    piece = sleeve_over(thick, 6.5)
    assert piece.bore_mm == bore and piece.bore_mm in BORES_MM
    assert piece.bore_mm / 2 <= max(thick, 0.6)
    assert piece.length_mm == pytest.approx(16.5)
    assert sleeve_over(19.0, 5) is None


def test_a_resistors_body_follows_its_derating_line():
    """Full power in 70 °C stands at 155 °C: half of it in 25 °C at 25 + 85/2 (film resistors' data sheets)."""
    assert body_celsius(0.125, 0.25, 25.0) == pytest.approx(67.5)
    assert body_celsius(0.25, 0.25, 70.0) == pytest.approx(155.0)
    (resistor, led) = warmth(solve(PLAIN))
    amps = through(12, 1000)
    assert resistor.usual.value == pytest.approx(25 + amps**2 * 1000 * 85 / 0.25, rel=1e-3)
    # 300 K/W over the LED's own volts and current.
    volts = 12 - 1000 * amps
    assert led.usual.value == pytest.approx(25 + 300 * volts * amps, rel=1e-3)
    assert resistor.low.value < resistor.usual.value < resistor.high.value


def test_a_regulators_heat_is_what_it_keeps():
    """24 V less 8 V held, times the string's current and its own 5 mA at the input: 16 V·I + 24 V·Iq (Joule)."""
    p = on("regulated", "24V", flat=True, regulator_id="fixed-8-to220", resistor="1k", vf="2V")
    row = next(w for w in warmth(solve(p)) if w.part == "regulator")
    watts = 16 * through(8, 1000) + 24 * p.regulator.quiescent
    assert row.usual.value == pytest.approx(25 + watts * p.regulator.heat_k_w, rel=0.01)
    sunk = next(w for w in warmth(solve(replace(p, sink=True))) if w.part == "regulator")
    assert sunk.usual.value == pytest.approx(25 + watts * p.regulator.sink_k_w, rel=0.01)


@pytest.mark.parametrize(
    ("celsius", "says"),
    [
        (30, "no warmer than the hand"),
        (44, "warm"),
        (51, "hot, and can be held"),
        (59, "held for a few seconds"),
        (60, TOO_HOT),
        (120, TOO_HOT),
    ],
)
def test_a_finger_says_how_hot(celsius, says):
    assert finger(celsius) == says


@pytest.mark.parametrize(
    ("before", "after", "judged"),
    [
        ("", "", "open"),
        ("works", "", "open"),
        ("", "works", "open"),
        ("works", "works", "same"),
        ("dark", "dark", "same"),
        ("works", "glows", "worse"),
        ("works", "dark", "worse"),
        ("dark", "works", "better"),
        ("dark", "glows", "changed"),
    ],
)
def test_what_changed_between_the_two_is_judged(before, after, judged):
    (found,) = differences([Check("k", "Brake on", "Dark", before, after)])
    assert found.judged == judged
    if judged in ("better", "changed"):
        assert found.line.startswith(f"Before: {RESULTS[before].lower()}. Now")


def test_all_checks_in_a_line():
    def line(*pairs):
        return summed_up(differences([Check(str(k), "x", "", a, b) for k, (a, b) in enumerate(pairs)]))

    assert line().startswith("No check is written down")
    assert line(("works", "works"), ("works", "")) == "1 of 2 still to do."
    assert line(("works", "works"), ("dark", "works")) == "All 2 as before, or better."
    assert line(("works", "works"), ("works", "glows")) == "1 of 2 came out otherwise than before. Do not close it."


@pytest.mark.parametrize(
    ("led", "picture", "says"),
    [
        ({"led_id": "red-5-diffused"}, "polarity", "the long leg"),
        ({"led_id": "red-chip"}, "chip", "a cut corner"),
        ({"led_id": "white-5-clear", "band": "10-15V", "module": {"amps": "20mA"}}, "", "own mark"),
    ],
)
def test_polarity_is_that_of_this_package(led, picture, says):
    step = steps(on("regulated", "12V", **led))["polarity"]
    assert step.picture == picture
    assert says in step.act


def test_the_leds_tip_and_bore_stand_beside_the_old_bulbs():
    """By subtraction: a filament 11 mm under its tip, a 5 mm part's chip 5.2 mm under its own (from memory of data
    sheets): the tip goes 5.8 mm lower. 10.4 - 5.8 mm leaves 2.3 mm all round."""
    p = on("regulated", "12V", lamp_id="47", bulb_across="10.4mm", bulb_long="29mm", filament_below="11mm")
    assert facts(steps(p)["height"]) == {
        "Old lamp": "10.4 mm across, 29 mm long",
        "LED": "5.8 mm across, 8.6 mm tall",
        "Its tip": "5.8 mm under where the old lamp's tip stood",
        "In the old bore": "2.3 mm of play all round: a sleeve or collar centres it",
    }


@pytest.mark.parametrize(
    ("across", "below", "bore", "tip"),
    [
        (
            "5.7mm",
            "3.5mm",
            "0.1 mm too thick: file the rim, or take a smaller LED",
            "1.7 mm over where the old lamp's tip stood",
        ),
        ("6.7mm", "5.5mm", "fits as it is", "where the old lamp's tip stood"),
        (
            "6.9mm",
            "5.8mm",
            "0.6 mm of play all round: a sleeve or collar centres it",
            "0.6 mm under where the old lamp's tip stood",
        ),
    ],
)
def test_a_bore_is_too_small_fits_or_leaves_play(across, below, bore, tip):
    p = on(
        "regulated", "12V", lamp_id="own", lamp_volts="12V", lamp_amps="0.1A", bulb_across=across, filament_below=below
    )
    found = facts(steps(p)["height"])
    assert (found["In the old bore"], found["Its tip"]) == (bore, tip)


def test_a_bulb_of_the_catalogue_has_its_usual_size_and_what_is_typed_goes_over_it():
    """A T number is the bulb's diameter in eighths of an inch: 3¼ eighths are 10.3 mm, 1¾ eighths 5.6 mm."""
    bulb = on("regulated", "12V", lamp_id="47", bulb_long="29mm").lamp.bulb
    assert bulb.across_m == pytest.approx(3.25 / 8 * 25.4e-3, abs=5e-5)
    assert bulb.long_m == 0.029
    small = on("regulated", "12V", lamp_id="74").lamp.bulb
    assert small.across_m == pytest.approx(1.75 / 8 * 25.4e-3, abs=5e-5)
    assert facts(steps(on("regulated", "12V", lamp_id="own", lamp_volts="12V", lamp_amps="0.1A"))["height"]) == {
        "LED": "5.8 mm across, 8.6 mm tall"
    }


@pytest.mark.parametrize(
    ("mark", "side", "minus", "below"),
    [
        ("plus", "left", "right", "left"),
        ("minus", "left", "left", "right"),
        ("square-plus", "right", "left", "right"),
        ("square-minus", "right", "right", "left"),
        ("bar", "left", "left", "right"),
        ("arrow", "right", "right", "left"),
    ],
)
def test_the_boards_own_legend_says_which_pad_is_minus_on_either_face(mark, side, minus, below):
    """Bar and tip of the arrow are the cathode's, as in the diode's symbol (IEC 60617); faces mirror each other."""
    step = steps(on("regulated", "12V", resistor="1k", board_mark=mark, board_side=side))["polarity"]
    assert (step.board.at, step.board.minus, step.board.minus_below) == (side, minus, below)
    assert facts(step)["Minus"] == f"the {minus} pad; the {below} one from the side you solder"
    assert steps(PLAIN)["polarity"].board is None


@pytest.mark.parametrize(
    ("kind", "text", "agrees", "asks"),
    [
        ("resistor_celsius", "58°C", True, ""),
        ("resistor_celsius", "81°C", False, "resistor_volts"),
        ("resistor_celsius", "26°C", False, "current"),
        ("led_celsius", "31°C", True, ""),
        ("led_celsius", "44", False, "resistor_volts"),
    ],
)
def test_a_thermocouple_is_judged_by_its_part(kind, text, agrees, asks):
    """10.1 mA in 1 kΩ of a quarter watt: 25 + 34.6 K within 35 % and 4 K; the LED's 20 mW by 300 K/W are 6 K."""
    report = assess(PLAIN, Bench(readings_after=(read_after("r", kind, text, "", ""),)))
    (row,) = report.diagnoses
    assert row.agrees is agrees and row.reading.unit == "°C"
    assert report.trouble is None
    if agrees:
        assert report.next_step.id == "close"
    else:
        assert (report.next_step.id, report.next_step.reading) == ("chase-heat", asks)
        side, why = ("over", "carries more than it should") if asks == "resistor_volts" else ("under", "carries less")
        assert f" is {side} the expected " in row.line and why in row.line
        again = read_after("s", kind, "31°C" if kind == "led_celsius" else "58°C", "", "")
        report = assess(PLAIN, Bench(readings_after=(read_after("r", kind, text, "", ""), again)))
        assert [d.agrees for d in report.diagnoses] == [False, True] and report.next_step.id == "close"


def test_a_temperature_of_a_part_that_is_not_there_is_not_judged():
    """A frost in the van reads below nought, and is a temperature all the same."""
    assert assess(PLAIN, Bench(readings_after=(read_after("r", "regulator_celsius", "-3°C", "", ""),))).diagnoses == ()
