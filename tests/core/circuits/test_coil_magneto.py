"""A lamp in series with a coil, and lamps that regulate a magneto: against ngspice, phasors, and small steps."""

import math

import numpy as np
import pytest

from scripts import reference
from swapglow.core.circuits.kinds import coil
from swapglow.core.circuits.kinds.magneto import MagnetoLoad, Spot, Winding, lamps_only, winding_of, with_leds
from swapglow.core.parts.lamp import own_lamp
from swapglow.core.parts.led import catalogue
from swapglow.core.quantities import InputError
from tests.core.circuits.decks import deck, diode, filament, led_model, silicon
from tests.core.circuits.results import figure, finding, option, worked

RED = catalogue()["red-5-diffused"]
COIL = {
    "low": "22V",
    "high": "29V",
    "coil": "320R",
    "lamp_volts": "12V",
    "lamp_amps": "80mA",
    "pull": "42mA",
    "hold": "15mA",
    "henries": "600mH",
    "ohm": "1k5",
}


def loop(led, beside=None):
    lamp = own_lamp(12.0, 0.08, None, "")
    return coil.CoilLoop(22.0, 29.0, 320.0, lamp, led, 1500.0, beside, "pulls", 0.042, None)


@pytest.mark.parametrize("volts", [22.0, 29.0])
@pytest.mark.parametrize("beside", [None, 150.0])
@pytest.mark.parametrize("old", [True, False])
def test_the_loop_is_the_references(old, beside, volts):
    p, k = loop(None if old else RED, beside), int(volts == 29.0)
    parts = (
        [filament("l", "rail", "mid", 12.0, 0.08)]
        if old
        else ["vm rail in 0", "rl in d 1500", diode("l", "d", "mid", led_model("red-5-diffused"))]
    )
    beside_it = [f"rb rail mid {beside}"] if beside else []
    (found,) = reference.operating_points([deck(f"vrail rail 0 {volts}", *parts, *beside_it, "rc mid 0 320")])
    assert coil.coil_a(p)[k] == pytest.approx(found["mid"] / 320, rel=1e-3)
    assert volts - coil.solve(p).volts("mid")[k] == pytest.approx(volts - found["mid"], rel=1e-3)
    if not old:
        assert coil.led_a(p)[k] == pytest.approx(found["i(vm)"], rel=1e-3)


def test_cold_a_filament_lets_more_through():
    """12 V of 80 mA are 150 Ω hot and 15 cold (common practice: a tenth): 22 V over 335 Ω are 65.7 mA."""
    assert coil.coil_a(loop(None), cold=True)[0] == pytest.approx(22 / 335, rel=1e-6)


def test_an_led_alone_does_not_pull_in_and_the_largest_resistor_that_does_is_found():
    """A tenth over 42 mA: 46.2, which leave 22 - 14.8 V: 7.2 V; the LED takes 3.5 mA, 42.7 are 169 Ω: 150."""
    w = worked("coil", **COIL)
    assert finding(w, "too-little-coil", "11").grade == "stop" and w.line.endswith("it does not pull in.")
    one = option(w, "beside", "150")
    assert one.advised and one.changes == {"beside": "150\u00a0Ω"}
    assert figure(w, "coil").after.value >= 0.0462
    slack = coil.coil_a(loop(RED, 180.0))[0]
    assert slack < 0.0462
    # At 29 V: (29 - 20.2)² / 150 is 0.51 W, over half of one watt.
    assert "514\u00a0mW" in one.what and "2 W stands it" in one.what
    done = worked("coil", **COIL, beside="150R")
    assert (
        done.line.endswith("it pulls in.") and done.options == () and not any(j.grade == "stop" for j in done.findings)
    )


@pytest.mark.parametrize(
    ("task", "changed", "said", "grade"),
    [
        ("holds", {}, "it lets go.", "stop"),
        ("holds", {"hold": "8mA"}, "it holds.", None),
        ("stays", {"lamp_amps": "15mA", "hold": ""}, "it stays released.", None),
        ("stays", {"lamp_amps": "15mA", "hold": "", "ohm": "470R"}, "it stays released.", None),
        ("stays", {"lamp_amps": "8mA", "pull": "14mA", "hold": ""}, "it may pull in, or not let go.", "stop"),
        # 14.8 mA flow, and it lets go only under 8: once something has pulled it in, it stays so.
        ("stays", {"lamp_amps": "15mA", "hold": "8mA"}, "it may pull in, or not let go.", "stop"),
    ],
)
def test_what_the_coil_must_do_decides(task, changed, said, grade):
    """As typed it has 11.0 mA at 22 V and 14.8 at 29; it holds at a tenth over 8, and not at a tenth over 15."""
    w = worked("coil", **{**COIL, **changed}, task=task)
    assert w.line.endswith(said)
    bad = [j for j in w.findings if j.grade == "stop" and "rated" not in j.message]
    assert [j.grade for j in bad] == ([] if grade is None else [grade])


def test_a_lamp_that_would_pull_the_coil_in_itself_is_no_lamp_beside_which_it_stays_released():
    with pytest.raises(InputError, match="enough to pull the coil in") as refused:
        worked("coil", **COIL, task="stays")
    assert refused.value.field == "lamp_amps"


def test_what_nobody_read_is_the_old_lamps_and_said():
    w = worked("coil", **{**COIL, "pull": "", "hold": ""})
    note = finding(w, "pull-in-unread")
    assert note.grade == "mind" and "65.7" in note.why
    # What the old lamp gave at rest, 51.8 mA, then counts as what it needs: 49.6 mA on 5.4 V, 100 Ω.
    assert option(w, "beside", "100").advised


def test_a_diode_keeps_the_kick_and_lets_it_go_late():
    """L/R·ln((I·R + V)/(Ihold·R + V)): 64 mA down to 15 through 320 Ω and 600 mH; by small steps the same."""
    i, t, dt = 0.064, 0.0, 1e-7
    while i > 0.015:
        i -= dt * (i * 320 + 0.8) / 0.6
        t += dt
    assert coil.release_seconds(0.064, 0.015, 320.0, 0.6, 0.8) == pytest.approx(t, rel=1e-3)
    assert coil.release_seconds(0.015, 0.015, 320.0, 0.6, 0.8) == 0.0
    bare = finding(worked("coil", **COIL, beside="150R"), "kickback")
    # ½ · 0.6 H · (63.7 mA)² is 1.2 mJ; air sparks at 330 V and up (Paschen).
    assert bare.grade == "mind" and "1.2\u00a0mJ" in bare.why and "330" in bare.message
    kept = finding(worked("coil", **COIL, beside="150R", guard="yes"), "kickback-clamped")
    assert kept.grade == "note" and "2.5\u00a0ms later" in kept.why


def test_the_led_is_judged_at_the_highest_rail_and_the_hold_at_the_lowest():
    """1 kΩ: 15.2 mA at 22 V and 20.5 at 29, over 20. Once in, 11 mA hold what lets go at 10, and not at 15."""
    over = finding(worked("coil", **{**COIL, "ohm": "1k"}), "over-current-led", "20.5")
    assert over.grade == "stop"
    assert finding(worked("coil", **{**COIL, "ohm": "1k1"}), "over-current-led") is None
    assert finding(worked("coil", **{**COIL, "hold": "10mA"}), "holds-once-in", "11").grade == "note"
    assert finding(worked("coil", **COIL), "holds-once-in") is None
    assert finding(worked("coil", **{**COIL, "hold": "10mA"}, beside="150R"), "holds-once-in") is None


@pytest.mark.parametrize(
    ("changed", "field"),
    [
        ({"high": "20V"}, "high"),
        ({"hold": "50mA"}, "hold"),
        ({"coil": ""}, "coil"),
        ({"ohm": ""}, "ohm"),
        ({"task": "stays", "pull": ""}, "pull"),
    ],
)
def test_a_coil_refuses_what_cannot_be(changed, field):
    with pytest.raises(InputError) as refused:
        worked("coil", **{**COIL, **changed})
    assert refused.value.field == field


# --- magneto --------------------------------------------------------------------------------------

REAL = Winding(0.15, 0.3, 4.5e-3)
ALL = own_lamp(6.0, 4.5, None, "")
MAGNETO = {
    "slow_hz": "60Hz",
    "slow_open": "9V",
    "slow_lit": "4.778V",
    "fast_hz": "180Hz",
    "fast_open": "27V",
    "fast_lit": "7.306V",
    "coil_ohm": "0.3R",
    "top_hz": "260Hz",
    "lamp_volts": "6V",
    "all_amps": "4.5A",
    "gone_amps": "1A",
    "led_count": "2",
    "ohm": "470R",
}


def spot(hertz):
    volts = lamps_only(REAL, ALL, hertz)
    return Spot(hertz, REAL.emf(hertz), volts, ALL.amps_at(volts))


@pytest.mark.parametrize("hertz", [20.0, 60.0, 260.0])
def test_lamps_stand_where_the_phasors_balance(hertz):
    """E² = (V + I·R)² + (I·ω·L)² with I of the handbook, and |E/(R + jωL)| into a short."""
    volts = lamps_only(REAL, ALL, hertz)
    amps = 4.5 * (volts / 6) ** 0.55
    assert abs(complex(volts + amps * 0.3, 2 * math.pi * hertz * 4.5e-3 * amps)) == pytest.approx(
        0.15 * hertz, rel=1e-6
    )
    assert REAL.shorted(hertz) == pytest.approx(0.15 * hertz / abs(complex(0.3, 2 * math.pi * hertz * 4.5e-3)))
    assert REAL.drives(hertz, 1.01 * REAL.emf(hertz)) == 0.0


def test_a_winding_is_found_again_from_two_speeds():
    for ohm in (None, 0.3):
        w = winding_of(spot(60.0), spot(180.0), ohm)
        assert (w.volts_s, w.ohm, w.henry) == pytest.approx((0.15, 0.3, 4.5e-3), rel=1e-5)


@pytest.mark.parametrize("hertz", [60.0, 260.0])
def test_lamps_and_leds_together_are_the_references(hertz):
    m = MagnetoLoad(REAL, None, spot(60.0), 180.0, 260.0, ALL, own_lamp(6.0, 3.5, None, ""), RED, 2, 470.0)
    volts, cycle = with_leds(m, hertz)
    ohm = 6 / 3.5 * (volts / 6) ** 0.45
    bridge = [
        diode(n, a, b, silicon("power"))
        for n, a, b in (("a", "bus", "plus"), ("b", "0", "plus"), ("c", "minus", "bus"), ("d", "minus", "0"))
    ]
    text = deck(
        f"vemf emf 0 sin(0 {0.15 * hertz * math.sqrt(2)} {hertz})",
        "rw emf c 0.3",
        "lw c bus 4.5m",
        f"rl bus 0 {ohm}",
        *bridge,
        "vm plus p 0",
        "rs p d 235",
        diode("l", "d", "minus", led_model("red-5-diffused"), 2),
        "bsq sq 0 v=v(bus)*v(bus)",
        f".tran {1 / hertz / 400} {20 / hertz} 0 {1 / hertz / 400}",
    )
    found = reference.averages(text, ["sq", "vm#branch"], 19 / hertz, 20 / hertz)
    assert volts == pytest.approx(math.sqrt(found["sq"]), rel=2e-3)
    assert cycle.mean("Rleds") == pytest.approx(found["vm#branch"], rel=5e-3)


def test_fewer_lamps_get_more_and_a_regulator_is_sized():
    w = worked("magneto", **MAGNETO)
    before, after = (lamps_only(REAL, ALL, 260.0), lamps_only(REAL, own_lamp(6.0, 3.5, None, ""), 260.0))
    assert (before, after) == pytest.approx((7.68, 11.5), rel=0.02)
    stop = finding(w, "over-volts", "11.4")
    # Life goes as V^-12 (handbooks): (11.4/6)^-12 is 0.0005.
    assert stop.grade == "stop" and "life × 0.0004" in stop.message and "5.3\u00a0A" in stop.why
    assert figure(w, "series-crest").now.value == pytest.approx(0.15 * 260 * math.sqrt(2), rel=1e-3)
    assert finding(w, "over-volts-before").grade == "mind"
    # 26.6 mA at the crest are under twice its rated 20, and 15 on average under it.
    assert not any(f.id.endswith("-led") for f in w.findings)
    assert finding(w, "slow-check").grade == "note"
    old, new = w.pictures[0].curves[:2]
    assert all(b.y > a.y for a, b in zip(old.points, new.points, strict=True))
    assert new.points[-1].y == pytest.approx(11.4, abs=0.05)
    # (15.4 mA RMS of the two halves, some 17.8)² · 470 Ω in each resistor.
    assert finding(w, "resistor-heat", "148").message.startswith("148\u00a0mW in each LED's resistor")
    assert "two speeds" not in figure(w, "winding-ohm").now.origin
    unread = worked("magneto", **{**MAGNETO, "coil_ohm": ""})
    assert finding(unread, "winding-unread").grade == "mind"
    assert "two speeds" in figure(unread, "winding-ohm").now.origin


@pytest.mark.parametrize(
    ("changed", "field"),
    [
        ({"slow_lit": "9V"}, "slow_lit"),
        ({"fast_lit": "30V"}, "fast_lit"),
        ({"fast_open": "33V"}, "fast_open"),
        ({"fast_hz": "70Hz"}, "fast_hz"),
        ({"gone_amps": "5A"}, "gone_amps"),
        ({"coil_ohm": "6R"}, "coil_ohm"),
        ({"coil_ohm": "", "fast_lit": "4V"}, "fast_lit"),
        ({"all_amps": ""}, "all_amps"),
    ],
)
def test_a_magneto_refuses_what_no_winding_gives(changed, field):
    with pytest.raises(InputError) as refused:
        worked("magneto", **{**MAGNETO, **changed})
    assert refused.value.field == field


def test_nothing_but_leds_is_worked_out_too():
    w = worked("magneto", **{**MAGNETO, "gone_amps": "4.5A", "ohm": "3k3"})
    assert w.line.startswith("At the fastest what hangs on it gets")
    assert finding(w, "over-volts") is None
    assert np.isfinite([f.now.value for f in w.figures]).all()
