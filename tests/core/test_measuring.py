"""Readings before the swap: the meter taken out, what they say together, and which to take next."""

import numpy as np
import pytest

from swapglow.core.analysis.sizing import size
from swapglow.core.assess import Bench, assess
from swapglow.core.build_steps.steps import Habits, Site
from swapglow.core.intake.feasibility import Feasibility, advise
from swapglow.core.intake.wires import Wire, tells
from swapglow.core.measurement.apply_reading import apply_reading
from swapglow.core.measurement.inference import Known, Readings, contradictions, infer, truth, wave_of
from swapglow.core.measurement.meter_correction import meter_correction
from swapglow.core.measurement.reading_before import read_before
from swapglow.core.parts.lamp import Lamp
from swapglow.core.quantities import InputError, Source
from swapglow.core.quantities.everyday import read_hours, read_money
from swapglow.core.supplies import SUPPLIES
from tests.core.supplies import lamp, on

OLD = Lamp("own", "Own lamp", 6.0, 0.12, 0.2, "screw")


def taken(function, text, lamp="in", **more):
    return read_before("t", function, text, lamp=lamp, **more)


def by_id(items):
    return {i.id: i for i in items}


# --- the meter's own effect ------------------------------------------------------------------


def test_ten_megohms_across_a_megohm_line_read_a_tenth_low():
    """Divider: V = Vread·(Rs + Rm)/Rm."""
    fair = meter_correction(taken("dc_volts", "9V", "out"), source_ohm=1e6, loop_ohm=None, wave="dc")
    assert fair.value == pytest.approx(9 * 1.1)
    assert "10" in fair.why
    stiff = meter_correction(taken("dc_volts", "9V", "out"), source_ohm=100, loop_ohm=None, wave="dc")
    assert (stiff.value, stiff.why) == (9, "")


def test_the_shunt_and_fuse_of_a_current_range():
    """I = Iread·(R + Rb)/R: 5 Ω in a 50 Ω loop reads a tenth low."""
    fair = meter_correction(taken("dc_amps", "100mA", meter="5R"), source_ohm=0, loop_ohm=50, wave="dc")
    assert fair.value == pytest.approx(0.110)


@pytest.mark.parametrize("wave", ["half", "square"])
def test_an_averaging_meter_on_what_is_no_sine(wave):
    """It shows 1.111 × the rectified mean; the true RMS by integration."""
    t = (np.arange(200_000) + 0.5) / 200_000
    v = np.maximum(np.sin(2 * np.pi * t), 0) if wave == "half" else np.sign(np.sin(2 * np.pi * t))
    shown = np.pi / (2 * np.sqrt(2)) * np.abs(v).mean()
    fair = meter_correction(taken("ac_volts", f"{shown:.6f}V"), source_ohm=0, loop_ohm=None, wave=wave)
    assert fair.value == pytest.approx(np.sqrt((v**2).mean()), rel=2e-3)
    true_rms = taken("ac_volts", "5V", true_rms=True)
    assert meter_correction(true_rms, source_ohm=0, loop_ohm=None, wave=wave).value == 5


# --- inference -------------------------------------------------------------------------------


def test_ac_dc_and_rectified_are_told_apart_by_both_ranges():
    """Half-wave: mean 0.318 and alternating part 0.386 of the crest; full-wave 0.637 and 0.308 (textbook)."""
    for dc, ac, wave in (
        ("12V", "0.03V", "dc"),
        ("0.02V", "12V", "sine"),
        ("3.18V", "3.86V", "half"),
        ("6.37V", "3.08V", "full"),
    ):
        assert wave_of(Readings([taken("dc_volts", dc), taken("ac_volts", ac)])) == wave
    assert wave_of(Readings([taken("dc_volts", "12V")])) == ""


def test_open_and_loaded_give_the_source_resistance():
    """(14 − 11)/0.1 is 30 Ω; sagging by a fifth it is unregulated."""
    readings = [taken("dc_volts", "14V", "out"), taken("dc_volts", "11V"), taken("dc_amps", "100mA")]
    found = by_id(infer(readings, Known(None, None)))
    assert "30" in found["source-resistance"].statement
    assert found["sags"].sets["kind"] == "unregulated"
    sets = {"kind": "unregulated", "usual": "11\u00a0V", "open": "14\u00a0V", "load": "100\u00a0mA"}
    assert found["source-resistance"].sets == sets
    # A sense line sags because it is one: that makes it no supply.
    line = by_id(infer(readings, Known(None, None, SUPPLIES["sense"])))
    assert line["source-resistance"].sets == line["sags"].sets == {}


def test_two_lamps_in_series_by_their_share_and_rating():
    found = by_id(infer([taken("dc_volts", "6.1V")], Known(OLD, 12.0)))
    assert found["in-series"].statement.startswith("2 lamps in series")
    assert "2 × 6 V" in found["in-series"].statement
    assert "in-parallel" in by_id(infer([taken("dc_volts", "11.8V")], Known(None, 12.0)))


def test_polarity_by_the_meters_sign_and_a_filament_cold_and_hot():
    """Cold resistance is about a tenth of hot (common practice)."""
    own = taken("ohms", "5R", points="hand")
    found = by_id(infer([taken("dc_volts", "-11.9V"), own], Known(OLD, 12.0)))
    assert "negative" in found["polarity"].statement
    assert "50" in found["filament-cold"].statement
    assert own.text == "5\u00a0Ω of the old lamp itself, in the hand"
    assert "filament-open" in by_id(infer([taken("ohms", "OL", points="hand")], Known(OLD, 12.0)))
    # A winding of three ohms behind the empty holder is no filament.
    holder = by_id(infer([taken("ohms", "3R", "out")], Known(None, 12.0)))
    assert "filament-cold" not in holder and "a winding" in holder["holder-ohms"].statement
    both = by_id(infer([taken("ohms", "3R", "out"), own], Known(OLD, 12.0)))
    assert {"holder-ohms", "filament-cold"} <= set(both)
    assert "holder-open" in by_id(infer([taken("ohms", "OL", "out")], Known(OLD, 12.0)))
    with pytest.raises(InputError, match="in the hand only ohms"):
        taken("dc_volts", "5V", points="hand")
    rated = by_id(infer([], Known(OLD, 12.0)))
    assert "50" in rated["filament-hot"].statement  # 6 V over 0.12 A


def test_inverted_logic_is_said_plainly():
    states = [taken("dc_volts", "9V", state="off"), taken("dc_volts", "0.1V", state="on")]
    table = truth(states, across_contact=True)
    assert "inverted" in table.line
    assert [(r.state, r.lit, r.closed) for r in table.rows] == [
        ("off", True, "open, inferred"),
        ("on", False, "closed, inferred"),
    ]
    plain = truth([taken("dc_volts", "0.1V", state="off"), taken("dc_volts", "9V", state="on")], across_contact=False)
    assert "inverted" not in plain.line
    assert plain.rows[1].closed == "closed, inferred"
    assert truth(states[:1], across_contact=False) is None


def test_a_reading_across_the_contact_is_not_inferred():
    states = [
        taken("dc_volts", "9V", state="off"),
        taken("dc_volts", "0.1V", state="on"),
        taken("dc_volts", "0.05V", state="on", points="driver"),
    ]
    assert truth(states, across_contact=False).rows[1].closed == "closed"


# --- contradictions --------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("readings", "known", "which", "likeliest"),
    [
        ([("dc_volts", "9V", "out"), ("dc_volts", "11V", "in")], Known(None, 12.0), "loaded-over-open", "exchanged"),
        ([("dc_volts", "0.01V", "in")], Known(None, 12.0), "nothing-on-dc", "AC read on a DC range"),
        ([("dc_volts", "12V", "in"), ("dc_amps", "0A", "in")], Known(None, 12.0), "volts-but-no-amps", "out or blown"),
        ([("dc_volts", "12V", "in"), ("dc_volts", "-12V", "in")], Known(None, 12.0), "sign-changes", "turned"),
        ([("dc_volts", "6V", "in"), ("dc_amps", "240mA", "in")], Known(OLD, 6.0), "not-this-lamp", "2 such lamps"),
        ([("dc_volts", "9V", "out"), ("dc_volts", "1V", "in")], Known(None, 9.0), "lamp-starved", "sense line"),
    ],
)
def test_contradictions_and_their_likeliest_explanation(readings, known, which, likeliest):
    found = by_id(contradictions([taken(*r) for r in readings], known))
    assert likeliest in found[which].likeliest


@pytest.mark.parametrize(
    ("readings", "feed", "which", "there"),
    [
        # More with the lamp in than with it out, by over two per cent (ours).
        ([("dc_volts", "9V", "out"), ("dc_volts", "9.2V", "in")], 9.0, "loaded-over-open", True),
        ([("dc_volts", "9V", "out"), ("dc_volts", "9.17V", "in")], 9.0, "loaded-over-open", False),
        ([("dc_volts", "0.04V", "out"), ("dc_volts", "0.049V", "in")], 9.0, "loaded-over-open", False),
        # Nothing on DC where over a volt is expected (ours).
        ([("dc_volts", "0.049V", "in")], 1.1, "nothing-on-dc", True),
        ([("dc_volts", "-0.049V", "in")], 1.1, "nothing-on-dc", True),
        ([("dc_volts", "0.051V", "in")], 1.1, "nothing-on-dc", False),
        ([("dc_volts", "0.049V", "in")], 0.9, "nothing-on-dc", False),
        ([("dc_volts", "0.01V", "in"), ("ac_volts", "7V", "in")], 9.0, "nothing-on-dc", False),
        # Half a volt across it and under ten microamps through it (ours).
        ([("dc_volts", "0.51V", "in"), ("dc_amps", "9uA", "in")], None, "volts-but-no-amps", True),
        ([("dc_volts", "0.49V", "in"), ("dc_amps", "9uA", "in")], None, "volts-but-no-amps", False),
        ([("dc_volts", "0.51V", "in"), ("dc_amps", "11uA", "in")], None, "volts-but-no-amps", False),
    ],
)
def test_a_contradiction_begins_where_it_is_one(readings, feed, which, there):
    found = by_id(contradictions([taken(*r) for r in readings], Known(None, feed)))
    assert (which in found) == there


def test_readings_that_agree_contradict_nothing():
    good = [taken("dc_volts", "12.4V", "out"), taken("dc_volts", "11.9V"), taken("ac_volts", "0.02V")]
    assert contradictions(good, Known(None, 12.0)) == ()
    # What trickles through on the other range is nobody's contradiction.
    winding = [
        taken("ac_volts", "9V", "out"),
        taken("ac_volts", "8V"),
        taken("dc_volts", "0.02V", "out"),
        taken("dc_volts", "0.003V"),
    ]
    assert contradictions(winding, Known(None, 8.0)) == ()


def test_a_contradiction_comes_before_any_further_reading():
    p = on("regulated", "12V", source=Source.ASSUMED)
    bad = (taken("dc_volts", "9V", "out"), taken("dc_volts", "11V", "in"))
    assert assess(p, Bench(readings_before=bad)).next_step.id == "contradiction"


# --- the plan --------------------------------------------------------------------------------


def test_the_reading_asked_first_is_the_one_that_matters_most():
    """Whatever is pencilled and moves the current most, by the engine."""
    p = on("unregulated", "14V")
    r = assess(p)
    asked = [step.id for step in r.survey.plan]
    assert asked[0] == r.next_step.id == "source_open"  # a fifth more volts beats the LED's ±0.25 V
    read = on("unregulated", "14V", {"open": "14.2V", "load": "120mA"})
    assert "source_open" not in [step.id for step in assess(read).survey.plan]


def test_an_unread_rail_might_be_ac_and_is_read_first():
    r = assess(on("regulated", "24V", source=Source.ASSUMED))
    assert r.next_step.id == "rail_usual"
    answers = {m.answer: m.means for m in r.next_step.meanings}
    assert "AC" in answers["next to nothing"]
    assert any("series" in means for means in answers.values())


def test_an_ac_rail_is_read_on_ac_volts_and_a_sense_line_is_tried_for_its_trip():
    winding = assess(on("winding", "12V", source=Source.ASSUMED)).survey.plan
    assert all(s.meter.startswith("AC volts") for s in winding if s.id.startswith(("rail", "source")))
    assert assess(on("sense", "9V", {"source": "2k"})).next_step.id == "trip"


def test_a_ground_that_could_be_a_short_is_asked_before_any_drift():
    p = on("winding", "12V", rectification="bridge_cap", chassis_negative=True)
    assert assess(p).next_step.id == "grounded"


@pytest.mark.parametrize("kind", ["vehicle", "regulated", "unregulated"])
def test_which_pole_is_on_the_frame_is_asked_before_any_drift(kind):
    """Read from the sign of the feed against the frame or the shell (common practice); typed, it is asked no more."""
    p = on(kind, "12V", common="chassis")
    step = assess(p).next_step
    assert step.id == "frame_pole" and step.reading == "frame_pole"
    assert [m.means for m in step.meanings][:2] == ["minus is on the frame", "plus is on the frame: its shell is plus"]
    assert assess(on(kind, "12V", {"frame_pole": "plus"}, common="chassis")).next_step.id != "frame_pole"
    assert assess(on(kind, "12V")).next_step.id != "frame_pole"


@pytest.mark.parametrize(("volts", "pole"), [("-6.9V", "plus"), ("6.9V", "minus"), ("0.05V", None)])
def test_the_sign_against_the_frame_says_which_pole_stands_there(volts, pole):
    """Black lead on the frame: a minus sign is plus there (common practice)."""
    known = Known(None, 6.9, SUPPLIES["vehicle"])
    found = by_id(infer((taken("dc_volts", volts, points="frame"),), known)).get("frame-pole")
    assert (found and found.sets) == (pole and {"frame_pole": pole})
    # A winding has no pole there, and volts across the lamp say nothing of the frame.
    assert "frame-pole" not in by_id(
        infer((taken("dc_volts", volts, points="frame"),), Known(None, 6.9, SUPPLIES["winding"]))
    )
    assert "frame-pole" not in by_id(infer((taken("dc_volts", volts),), known))


@pytest.mark.parametrize(
    ("typed", "pole"),
    [("-13.7V", "plus"), ("13.7V", "minus"), ("Plus", "plus"), (" minus ", "minus"), ("neither", "neither")],
)
def test_what_the_meter_shows_against_the_frame_is_its_pole(typed, pole):
    p = on("vehicle", "13.7V", common="chassis")
    applied = apply_reading(p, "frame_pole", typed)
    assert (applied.of, applied.field, applied.text) == ("detail", "frame_pole", pole)


def test_what_is_no_pole_is_refused():
    with pytest.raises(InputError, match="volts with their sign") as refused:
        apply_reading(on("vehicle", "13.7V"), "frame_pole", "red")
    assert refused.value.field == "text"
    with pytest.raises(InputError, match="decides nothing"):
        apply_reading(on("vehicle", "13.7V"), "frame_pole", "0.02V")
    with pytest.raises(InputError):
        apply_reading(on("winding", "12Vac"), "frame_pole", "plus")


def test_a_rail_with_a_sign_says_where_its_plus_is():
    with pytest.raises(InputError, match=r"typed without its sign, 48V\. Its minus says that plus") as refused:
        on("regulated", "-48V")
    assert refused.value.field == "usual"


def test_an_aircrafts_winding_is_worked_out_at_its_own_frequency():
    """28 V at 400 Hz: a capacitor that holds it there is an eighth of one at 50 (charge per half-cycle, textbook)."""
    small, large = (
        size(on("winding", "28Vac", {"hertz": hz}, rectification="bridge_cap", target="5mA")).needed_f
        for hz in ("400Hz", "50Hz")
    )
    assert large / small == pytest.approx(8, rel=0.3)


# --- a clip before any meter -----------------------------------------------------------------


def first_clip(p, *, no_meter=True, readings=()):
    bench = Bench(site=Site(habits=Habits(no_meter=no_meter)), readings_before=readings)
    return next((s for s in assess(p, bench).survey.plan if s.id == "clip"), None)


def test_without_a_meter_the_clip_comes_first_and_survives_what_may_be_there():
    """30 V AC unloaded crest at 50.9 V; (50.9 - 1.8) / 10 mA is 4.91 kΩ: 5.6 of E12 (Ohm)."""
    p = on("regulated", "12V", source=Source.ASSUMED)
    bench = Bench(site=Site(habits=Habits(no_meter=True)))
    step = assess(p, bench).next_step
    assert step.id == "clip" and step.reading is None and "5.6\u00a0kΩ" in step.act and "30\u00a0V" in step.why
    assert step.why.startswith("There is no meter here.") and len(step.meanings) == 4
    # Marked 12 V on a vehicle: a jump start's 24 V are 40.7 at the crest: 3.89 kΩ, 3.9.
    vehicle = first_clip(on("vehicle", "13.8V", {"system": "12"}, source=Source.MARKED))
    assert "3.9\u00a0kΩ" in vehicle.act
    # With a meter, once anything was read, past extra-low voltage or on the mains there is none.
    assert first_clip(p, no_meter=False) is None
    assert first_clip(p, readings=(taken("dc_volts", "12V"),)) is None
    assert first_clip(on("regulated", "12V")) is None
    assert first_clip(on("regulated", "49V", high="50V", source=Source.MARKED)) is not None
    assert first_clip(on("regulated", "49V", high="51V", source=Source.MARKED)) is None
    assert first_clip(on("winding", "24Vac", source=Source.ASSUMED, mains=True)) is None


def test_no_clip_goes_on_what_cannot_light_it():
    """The red LED takes up to 2.3 V: marked no higher, it would be dark whatever is there; 0.9 V ended in an error."""
    assert first_clip(on("regulated", "0.9V", source=Source.MARKED)) is None
    assert first_clip(on("regulated", "2.3V", source=Source.MARKED)) is None
    # 2.5 V crest at 4.24: (4.24 - 1.8) / 10 mA is 244 ohms: 270 of E12 (Ohm).
    assert "270" in first_clip(on("regulated", "2.5V", source=Source.MARKED)).act


def test_a_wire_that_pulses_is_clipped_before_a_slow_meter():
    p = on("vehicle", "13.8V", {"system": "12"}, source=Source.ASSUMED, driver_kind="flasher")
    step = first_clip(p, no_meter=False)
    assert step.why.startswith("This wire pulses") and assess(p).survey.plan[0].id == "clip"


def test_nothing_live_is_asked_of_what_is_on_the_mains():
    r = assess(on("winding", "230Vac", source=Source.ASSUMED, mains=True))
    assert r.survey.plan == ()
    assert r.next_step.reading is None
    assert "qualified" in r.next_step.act
    assert "Mains kills" in r.next_step.caution


@pytest.mark.parametrize("kind", ["vehicle", "stator", "logic", "unregulated"])
def test_the_caution_of_a_supply_stands_at_its_reading(kind):
    details = {"system": "12"} if kind == "vehicle" else {}
    step = assess(on(kind, "12V" if kind != "logic" else "3.3V", details, source=Source.ASSUMED)).survey.plan[0]
    assert len(step.caution) > 20


# --- texts -----------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("function", "text", "more", "field", "says"),
    [
        ("dc_volts", "12Vac", {}, "text", "DC volts"),
        ("ac_volts", "-3V", {}, "text", "never negative"),
        ("dc_volts", "lots", {}, "text", "voltage"),
        ("dc_volts", "5V", {"meter": "0R"}, "meter", "10M"),
        ("dc_volts", "5V", {"points": "moon"}, "points", "lamp"),
        ("dc_volts", "5V", {"lamp": "half"}, "lamp", "in"),
        ("watts", "5W", {}, "function", "dc_volts"),
    ],
)
def test_a_reading_that_cannot_be_one(function, text, more, field, says):
    with pytest.raises(InputError, match=says) as refused:
        taken(function, text, **more)
    assert refused.value.field == field


def test_lowest_and_highest_over_a_minute():
    t = taken("dc_volts", "11.8-12.6V")
    assert (t.low, t.value, t.high) == pytest.approx((11.8, 12.2, 12.6))
    assert "lamp in" in t.text


# --- worth, wires ----------------------------------------------------------------------------


def test_a_hand_built_cluster_of_eighty_hours_is_left():
    """Eighty hours, failed within weeks, could not be opened again (common practice)."""
    a = advise(Feasibility("sealed", "brittle", "no", 80.0, 60.0))
    assert a.verdict == "leave"
    assert any("80 hours" in r for r in a.reasons)
    assert advise(Feasibility("welded")).verdict == "leave"


def test_an_hour_or_two_behind_screws_is_worth_doing_until_a_part_is_cheaper():
    small = Feasibility("screws", "sound", "yes", 1.5, 8.0, 10.0)
    assert advise(small).verdict == "go"
    dearer = Feasibility("screws", "sound", "yes", 1.5, 8.0, 10.0, (("same-base LED lamp", 6.0),))
    assert any("6" in r and "23" in r for r in advise(dearer).reasons)
    assert advise(Feasibility()).verdict == "unknown"
    assert "the hours" in advise(Feasibility("clips", "sound", "yes")).open


def test_money_and_hours_as_people_write_them():
    assert (read_money("price", "12,50"), read_money("price", "€ 9"), read_money("price", " ")) == (12.5, 9.0, None)
    assert (read_hours("hours", "1.5 h"), read_hours("hours", "2 hours"), read_hours("hours", "")) == (1.5, 2.0, None)
    assert [read_hours("hours", t) for t in ("2", "90 min", "1h 30min", "1,5")] == [2.0, 1.5, 1.5, 1.5]
    for text in ("cheap", "-3", "1e12"):
        with pytest.raises(InputError, match="no price"):
            read_money("price", text)
    with pytest.raises(InputError, match="hours"):
        read_hours("hours", "a day")


def test_steady_with_the_brake_pulsing_with_the_signal():
    """That tells wires apart where colours do not (common practice)."""
    brake, signal, slow, dead = tells(
        (
            Wire("brown", "steady", "brake", "test lamp"),
            Wire("green", "pulsing", "left signal", "test lamp"),
            Wire("green", "steady", "left signal", "meter"),
            Wire("black", "dead", "", "continuity"),
        )
    )
    assert "fed by that switch" in brake
    assert "flasher" in signal
    assert "test lamp" in slow
    assert "ground" in dead


def test_the_lamp_in_a_demo_like_position_is_worked_through():
    p = on("winding", "7.4Vac", lamp=lamp("7V", "0.14A"))
    bench = Bench(readings_before=(taken("ac_volts", "7.4V"), taken("dc_volts", "0.02V"), taken("ac_amps", "0.13A")))
    s = assess(p, bench).survey
    amps = s.readings[2]
    assert amps.why.startswith("the range adds 5")
    assert float(amps.corrected.split("\u00a0")[0]) == pytest.approx(130 * (1 + 5 / (7.4 / 0.13 - 5)), abs=1.5)
    assert by_id(s.inferences)["wave"].sets == {}  # it is taken for a winding already
    thought_dc = assess(on("regulated", "7.4V", lamp=lamp("7V", "0.14A")), bench).survey
    assert by_id(thought_dc.inferences)["wave"].sets == {"kind": "winding"}


def test_a_cell_is_never_asked_whether_it_is_ac():
    step = assess(on("battery", "", {"chemistry": "coin-20"}, source=Source.ASSUMED)).survey.plan[0]
    assert step.id == "rail_usual"
    assert not any("AC" in m.means or "series" in m.means for m in step.meanings)
    assert "Mains" not in step.caution
    line = assess(on("vehicle", "", {"system": "12"}, source=Source.ASSUMED)).survey.plan
    assert "rail_usual" in [s.id for s in line]
