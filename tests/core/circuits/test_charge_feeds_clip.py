"""Charge indicators, two feeds and the clip, in every state: against ngspice on netlists of our own text."""

from itertools import product

import numpy as np
import pytest

from scripts import reference
from swapglow.core.circuits.kinds.blind_clip import Clip, led_amps
from swapglow.core.circuits.kinds.blind_clip import solve as solve_clip
from swapglow.core.circuits.kinds.charge_lamp import STATES, ChargeLoop, solve
from swapglow.core.circuits.kinds.two_feeds import CURES, Net
from swapglow.core.circuits.kinds.two_feeds import seen as seen_in
from swapglow.core.parts.lamp import own_lamp
from swapglow.core.parts.led import catalogue
from swapglow.core.parts.rectifier import rectifier
from swapglow.core.quantities import InputError
from tests.core.circuits.decks import TEMPERATURE, diode, filament, led_model
from tests.core.circuits.results import figure, finding, option, worked

CHARGE = {
    "rest_volts": "12.6V",
    "running": "14.2V",
    "lamp_volts": "12V",
    "lamp_amps": "0.18A",
    "field": "8R",
    "ohm": "1k",
    "led": "red-5-diffused",
}
FEEDS = {"volts": "13.8V", "side_volts": "12V", "side_amps": "3.5A", "ohm": "680R", "led": "green-5-clear"}


@pytest.mark.parametrize("beside", [None, 68.0])
@pytest.mark.parametrize("old", [True, False])
@pytest.mark.parametrize("state", ["still", "no_field", "grounded", "lopsided"])
def test_each_state_of_a_charge_lamp_as_the_reference_has_it(state, old, beside):
    led = None if old else catalogue()["red-5-diffused"]
    d = ChargeLoop(12.6, 14.2, 8.0, None, own_lamp(12.0, 0.18, None, ""), led, 1000.0, beside)
    volts = 14.2 if state in ("grounded", "lopsided") else 12.6
    deck = ["* loop", TEMPERATURE, f"vbat bat 0 {volts}", "vlamp bat in 0"]
    deck += (
        [filament("lamp", "in", "gen", 12.0, 0.18)]
        if old
        else ["rled in led 1000", diode("led", "led", "gen", led_model("red-5-diffused"))]
    )
    deck += [f"rb bat gen {beside}"] if beside else []
    deck.append(f"rf gen 0 {1e9 if state == 'no_field' else 8.0}")
    deck += ["vgen gen 0 11.2"] if state == "lopsided" else ["rs gen 0 0.01"] if state == "grounded" else []
    (found,) = reference.operating_points(["\n".join([*deck, ".end"])])
    states, k = solve(d), list(STATES).index(state)
    # The links that make a state are a microohm and a gigaohm where the reference's are nothing.
    lamp_a = float(states.amps("Rlamp" if old else "Rled")[k])
    assert lamp_a == pytest.approx(found["i(vlamp)"], rel=1e-3, abs=2e-8)
    across = float((states.volts("bat") - states.volts("gen"))[k])
    assert across == pytest.approx(found["bat"] - found["gen"], rel=1e-3, abs=1e-5)
    assert float(states.amps("Rfield")[k]) == pytest.approx(
        found["gen"] / (1e9 if state == "no_field" else 8.0), rel=1e-3, abs=2e-8
    )


def test_an_led_alone_does_not_wake_the_generator_and_a_resistor_does():
    """12.6 V over a filament of 0.18 A and 8 Ω give 173 mA; the LED 10.6. (12.6 V - 1.39 V) / 163 mA are 69 Ω: 68."""
    w = worked("charge_lamp", **CHARGE)
    assert figure(w, "field-before").now.value == pytest.approx(0.173, abs=0.002)
    assert figure(w, "field").now.value == pytest.approx(0.0106, abs=0.0003)
    assert finding(w, "too-little-field").grade == "stop"
    one = option(w, "beside")
    assert one.advised and one.changes == {"beside": "68\u00a0Ω"} and "10 W" in one.what
    after = figure(w, "field").after.value
    assert after == pytest.approx(0.174, abs=0.002) and after >= 0.173
    fixed = worked("charge_lamp", **CHARGE, beside="68R")
    assert finding(fixed, "too-little-field") is None and fixed.options == ()
    # 14.2² / 68 while its wire is on the frame (Joule).
    assert finding(fixed, "hot-on-frame").grade == "mind"
    # A generator that needs less starts on a larger one; one that needs no more than the LED gives asks for none.
    assert option(worked("charge_lamp", **CHARGE, needs="60mA"), "beside").label == "220\u00a0Ω beside it"
    assert worked("charge_lamp", **CHARGE, needs="10mA").options == ()


def test_running_it_is_dark_and_a_lost_diode_shows():
    rows = {r.label.split(",")[0] + r.label.split(",")[1]: r for r in worked("charge_lamp", **CHARGE).tables[0].rows}
    running = next(r for k, r in rows.items() if "charging" in k)
    assert [c.value for c in running.cells[:2]] == pytest.approx([0, 0], abs=1e-12)
    assert running.words == "old lamp dark; LED: dark"
    lopsided = next(r for k, r in rows.items() if "diodes" in k)
    # 3 V over the lamp: (3/12)^3.5 of its light; (3 - 1.7) / 1000 in the LED.
    assert lopsided.words.startswith("old lamp 1 % of its light")
    assert lopsided.cells[1].value == pytest.approx(1.3e-3, abs=1e-4)


@pytest.mark.parametrize("missing", ["rest_volts", "lamp_volts", "lamp_amps", "field", "ohm"])
def test_a_charge_lamp_asks_for_what_is_missing(missing):
    with pytest.raises(InputError) as refused:
        worked("charge_lamp", **{k: v for k, v in CHARGE.items() if k != missing})
    # Of the field one asks for the current through the old lamp, which tells with every regulator.
    assert refused.value.field == {"field": "read_amps"}.get(missing, missing)


def test_an_electronic_regulator_is_not_read_with_an_ohmmeter():
    for ohms in ("470R", "100k"):
        with pytest.raises(InputError, match="not a wound field") as refused:
            worked("charge_lamp", **{**CHARGE, "field": ohms})
        assert refused.value.field == "field"
    # 173 mA through a filament of 12 V and 0.18 A need 11.2 V (handbook: V goes by I to the 1/0.55); 8 ohm behind.
    by_amps = worked("charge_lamp", **{**CHARGE, "field": "", "read_amps": "173mA"})
    assert figure(by_amps, "field-before").now.value == pytest.approx(0.173, abs=0.001)
    assert option(by_amps, "beside").advised


def test_with_the_key_off_and_the_generator_turning_nothing_may_flow_back():
    """14.2 V the other way round across an LED that may take 5; through 68 and 3 ohm 0.2 A into the ignition's wire."""
    bare = worked("charge_lamp", **CHARGE, beside="68R")
    back = finding(bare, "over-reverse-led")
    assert back.grade == "stop" and "in reverse" in back.message
    assert float(back.message.split("sees ")[1].split("\u00a0")[0]) == pytest.approx(14.2 * 68 / 71, abs=0.2)
    strong = worked("charge_lamp", **CHARGE, beside="15R")
    # 14.2 x 3 / 18 = 2.4 V on the ignition's wire.
    assert finding(strong, "feeds-ignition").grade == "stop"
    guarded = worked("charge_lamp", **CHARGE, beside="15R", guard="yes")
    assert finding(guarded, "over-reverse-led") is None and finding(guarded, "feeds-ignition") is None
    # Its drop is counted: less reaches the field than without it.
    assert figure(guarded, "field").now.value < figure(strong, "field").now.value


def test_an_led_over_its_rating_is_a_stop_in_every_kind_of_circuit():
    """Ohm: 12.6 V less some 2 over 47 ohm and 8 is some 190 mA through an LED of 20."""
    over = worked("charge_lamp", **{**CHARGE, "ohm": "47R"})
    assert finding(over, "over-current-led").grade == "stop"
    feeds = worked("two_feeds", **{**FEEDS, "ohm": "47R"}, cure="ground")
    assert "over its rated 20" in feeds.line


def test_an_old_lamp_is_what_was_typed():
    from swapglow.core.circuits import CIRCUITS
    from swapglow.core.quantities import Input

    kind = CIRCUITS["charge_lamp"]
    new = kind.case(kind.read({k: Input(v) for k, v in CHARGE.items() if k != "running"}))
    assert (new.old.volts, new.old.amps, new.running) == (12.0, 0.18, pytest.approx(14.175))
    assert new.led is not None and new.beside is None and new.before.led is None


# --- two feeds ------------------------------------------------------------------------------------


@pytest.mark.parametrize("side_led", [False, True])
@pytest.mark.parametrize("cure", [c for c, _ in CURES])
def test_every_combination_of_the_switches_as_the_reference_has_it(cure, side_led):
    """Brute force: all four in ngspice, each current within a thousandth."""
    side = own_lamp(12.0, 3.5, None, "")
    n = Net(13.8, side, side_led, catalogue()["green-5-clear"], 680.0, cure)
    power = rectifier("power").chain(1, 25.0)
    d = (power.i_s, power.n, power.r_s)
    decks = []
    for feeds in product((False, True), repeat=2):
        deck = ["* net", TEMPERATURE, "vfeed feed 0 13.8"]
        for name, on in zip(("left", "right"), feeds, strict=True):
            deck.append(f"rsw{name} feed {name} {0.05 if on else 1e9}")
            if side_led:
                i_s, en, r_s = led_model("green-5-clear")
                count = max(round(6.0 / catalogue()["green-5-clear"].vf_typ), 1)
                deck += [
                    f"r{name} {name} {name}in {(12 - 6.0) / (3.5 * 0.05)}",
                    diode(name, f"{name}in", "0", (i_s, en * count, r_s * count)),
                ]
            else:
                deck += [f"vm{name} {name} {name}m 0", filament(name, f"{name}m", "0", 12.0, 3.5)]
        top, foot = {"none": ("left", "right"), "bridge": ("plus", "minus"), "ground": ("plus", "0")}[cure]
        deck += [f"vtell {top} tell 0", "rtell tell led 680", diode("tell", "led", foot, led_model("green-5-clear"))]
        if cure != "none":
            deck += [diode("lp", "left", "plus", d), diode("rp", "right", "plus", d)]
        if cure == "bridge":
            deck += [diode("ml", "minus", "left", d), diode("mr", "minus", "right", d)]
        decks.append("\n".join([*deck, ".end"]))
    # Both off, left, right, both.
    ours = dict(zip([(False, False), (True, False), (False, True), (True, True)], seen_in(n), strict=True))
    for feeds, found in zip(product((False, True), repeat=2), reference.operating_points(decks), strict=True):
        seen = ours[feeds]
        assert seen.tell_a == pytest.approx(max(found["i(vtell)"], 0.0), rel=1e-3, abs=5e-8), feeds
        for k, name in enumerate(("left", "right")):
            inner = f"{name}in"
            amps = (found[name] - found[inner]) / (6.0 / (3.5 * 0.05)) if side_led else found[f"i(vm{name})"]
            assert seen.sides_a[k] == pytest.approx(amps, rel=1e-3, abs=5e-8), (feeds, name)


def test_a_sneak_path_is_named_and_cured():
    w = worked("two_feeds", **FEEDS, cure="none")
    assert finding(w, "too-dim-right").grade == "stop"
    assert finding(w, "over-reverse-led").grade == "stop"
    assert option(w, "ground").advised and option(w, "bridge").bars == ""
    left = next(r for r in w.tables[0].rows if r.id == "left")
    assert left.words.endswith("by left feed, tell-tale, right lamps, their ground")
    # Where the side lamps are LEDs too, what returns through them is seen: the bridge is no cure then.
    led = worked("two_feeds", **FEEDS, side="led", cure="bridge")
    assert led.line.startswith("Wrong: Left on: the right lamps glow, by the left feed, tell-tale, right lamps")
    cured = worked("two_feeds", **FEEDS, side="led", cure="ground")
    assert cured.line == "Right in every combination of the switches." and cured.options == ()
    assert finding(cured, "lit-with-both").grade == "note"
    assert finding(worked("two_feeds", **FEEDS, cure="bridge"), "lit-with-both") is None
    # What is chosen stands beside what is there, every combination of it.
    assert [t.label for t in w.tables] == [
        "Every combination, as it is wired",
        "The same, two diodes, and its own ground",
    ]
    assert "bridge" in worked("two_feeds", option(w, "bridge").id, **FEEDS, cure="none").tables[1].label


@pytest.mark.parametrize("missing", ["volts", "side_volts", "side_amps", "ohm"])
def test_two_feeds_ask_for_what_is_missing(missing):
    with pytest.raises(InputError) as refused:
        worked("two_feeds", **{k: v for k, v in FEEDS.items() if k != missing})
    assert refused.value.field == missing


# --- a clip for the blind -------------------------------------------------------------------------


def test_a_clip_survives_all_that_may_be_there_and_says_what_it_saw():
    """30 V AC unloaded crest at 51 V; (50.9 - 1.8) / 10 mA: 4.91 kΩ, 5.6 in E12. 36² / 5600 is 0.23 W (Ohm, Joule)."""
    w = worked("blind_clip", led="red-5-diffused")
    assert w.line.replace("\u00a0", " ").startswith("5.6 kΩ, ½ W, Red 5 mm diffused")
    assert figure(w, "most").now.value == pytest.approx((30 * 2**0.5 * 1.2 - 1.95) / 5600, rel=5e-3)
    assert figure(w, "heat").now.value == pytest.approx(36**2 / 5600)
    twelve = next(r for r in w.tables[0].rows if r.label.startswith("12"))
    assert twelve.cells[0].value == pytest.approx((12 - 1.85) / 5600, rel=0.01)
    # Half a sine, less what the knee takes: between a quarter and a third of the crest's current.
    assert 0.24 < twelve.cells[1].value / ((12 * 2**0.5 - 1.9) / 5600) < 0.32
    assert [r.label.replace("\u00a0", " ") for r in w.tables[0].rows][-1] == "30 V"
    assert finding(w, "turned").message.split("stands ")[1].startswith("690")
    with pytest.raises(InputError, match="past extra-low"):
        worked("blind_clip", most="60V")


@pytest.mark.parametrize("volts", [-50.9, -12.0, 1.5, 5.0, 24.0, 50.9])
def test_the_clip_carries_what_the_reference_says_either_way_round(volts):
    signal = rectifier("signal").chain(1, 25.0)
    deck = [
        "* clip",
        TEMPERATURE,
        f"vwire wire 0 {volts}",
        "rclip wire top 5600",
        "vled top led 0",
        diode("led", "led", "0", led_model("red-5-diffused")),
        diode("guard", "0", "top", (signal.i_s, signal.n, signal.r_s)),
        ".end",
    ]
    (found,) = reference.operating_points(["\n".join(deck)])
    clip = Clip(30.0, 5600.0, catalogue()["red-5-diffused"])
    (amps,), (back,) = led_amps(clip, np.array([volts])), solve_clip(clip, np.array([volts])).load("Dled").reverse_v
    assert amps == pytest.approx(max(found["i(vled)"], 0.0), rel=1e-3, abs=1e-9)
    assert back == pytest.approx(max(-found["led"], 0.0), rel=1e-3, abs=1e-6)
