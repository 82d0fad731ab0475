"""Traps of the supplies: each is found with its figure, and what it offers clears it."""

import pytest

from swapglow.core.assess import assess
from tests.core.supplies import lamp, on

CASES = {
    "capacitor-over-volts": on("winding", "42Vac", rectification="bridge_cap", capacitor_v="50V"),
    "flicker": on(
        "stator", "21Vac", {"hertz_low": "40Hz", "hertz": "90Hz"}, low="11V", high="40V", rectification="bridge"
    ),
    "led-reverse": on("winding", "12Vac", rectification="bare"),
    "bridge-on-frame": on("winding", "12Vac", {"grounded": "yes"}, rectification="bridge_cap", chassis_negative=True),
    "crest-current": on("winding", "12Vac", rectification="half_wave", target="19mA", ceiling=1.0),
    "cell-limits-current": on("battery", "", {"chemistry": "coin-20"}, resistor="10R", target="8mA"),
    "pin-over-budget": on("logic", "3.3V", {"pin": "6mA"}, target="9mA"),
    "line-reads-closed": on("sense", "9V", {"source": "1k", "trip": "2mA"}, target="3mA"),
    "module-over-band": on("regulated", "23V", led_id="white-5-clear", band="9-13V", resistor="1k"),
    "rms-for-peak": on("winding", "9Vac", rectification="bridge_cap", target="7mA", resistor="1k"),
}
# 42 V AC has a 59 V peak: over 50 V (common practice, a mistake seen).


def found(position):
    return {f.id: f for f in assess(position).findings}


def test_sound_swaps_raise_none_of_these():
    sound = [
        on("winding", "12Vac", {"grounded": "no"}, rectification="bridge_cap", capacitor_v="35V"),
        on("logic", "3.3V", {"pin": "8mA"}, target="1.5mA"),
        on("sense", "9V", {"source": "1k", "trip": "4mA"}, target="0.5mA"),
        on("battery", "", {"chemistry": "coin-20"}, target="1mA"),
    ]
    for position in sound:
        assert not set(found(position)) & set(CASES)


def test_rms_taken_for_peak_is_named_as_such():
    """A 50 V part on 42 V RMS covers the reading and not the 59 V crest."""
    f = found(CASES["capacitor-over-volts"])["capacitor-over-volts"]
    assert f.grade == "stop"
    assert "RMS was taken for peak" in f.message
    within = found(on("winding", "42Vac", rectification="bridge_cap", capacitor_v="70V"))
    assert within["capacitor-over-volts"].grade == "mind"  # over the crest, under 1.25 times it


def test_a_bridge_of_unknown_ground_is_minded_and_a_floating_one_is_not():
    unknown = on("winding", "12Vac", rectification="bridge_cap", chassis_negative=True)
    assert found(unknown)["bridge-on-frame"].grade == "mind"
    floating = on("winding", "12Vac", {"grounded": "no"}, rectification="bridge_cap", chassis_negative=True)
    assert "bridge-on-frame" not in found(floating)


def test_modules_in_series_need_not_share_equally():
    two = found(on("regulated", "23V", led_id="white-5-clear", band="9-13V", in_series=2, resistor="1k"))
    assert two["modules-share-unevenly"].grade == "mind"
    assert "curve is not known" in two["modules-share-unevenly"].message


# 20 mA at 11 V with two white LEDs of 3.1 V inside: (11 − 6.2) V/20 mA is 240 Ω (Ohm).
def pair(usual, law="resistor", **more):
    return on(
        "regulated",
        usual,
        led_id="white-5-clear",
        band="9-13V",
        in_series=2,
        module={"amps": "20mA", "law": law, "dice": 2, **more},
    )


@pytest.mark.parametrize(("usual", "grade"), [("22V", "note"), ("24V", "mind"), ("25.8V", "stop")])
def test_two_lamps_share_by_their_own_curves(usual, grade):
    """2 × 6.2 V and 240 Ω/0.9 and 240 Ω/1.1 in series (Kirchhoff; a tenth of mismatch, common practice)."""
    note = found(pair(usual))["modules-share-unevenly"]
    total = float(usual[:-1])
    amps = (total - 12.4) / (240 / 0.9 + 240 / 1.1)
    worst = 6.2 + amps * 240 / 0.9
    assert float(note.figure.split("\u00a0")[0]) == pytest.approx(worst, rel=0.01)
    assert note.grade == grade


def test_a_throttled_lamp_takes_more_and_fixed_currents_cannot_share():
    warm = found(pair("22V", throttle="70 %"))["modules-share-unevenly"]
    cold = found(pair("22V"))["modules-share-unevenly"]
    assert float(warm.figure.split("\u00a0")[0]) > float(cold.figure.split("\u00a0")[0]) + 0.5
    assert found(pair("22V", "current"))["modules-share-unevenly"].grade == "stop"
    # P/V falls as V rises: at equal volts the balance tips at the least difference (Ohm; stability of constant power).
    power = found(pair("22V", "power"))["modules-share-unevenly"]
    assert (power.grade, "the less current it takes" in power.why) == ("stop", True)
    unknown = found(pair("22V", "unknown"))["modules-share-unevenly"]
    assert (unknown.grade, unknown.figure) == ("mind", "law not known")


def test_a_lamp_of_unknown_law_counts_all_of_them():
    """From 8 to 16 V: 20 mA held, 20 mA · 12 V/V of constant power, or a resistor's slope; the ends hold them all."""

    def one(law):
        return assess(
            on(
                "regulated",
                "12V",
                low="8V",
                high="16V",
                led_id="white-5-clear",
                band="8-16V",
                module={"amps": "20mA", "at": "12V", "law": law, "dice": 2},
            )
        )

    most = max(one(law).current.supply.value for law in ("resistor", "current", "power"))
    found = one("unknown")
    assert found.current.supply.value == pytest.approx(most)
    # Two LEDs of 3.1 V and a resistor are 290 Ω behind 6.2 V (Ohm).
    assert most == pytest.approx((16 - 6.2) / 290, rel=0.02)
    (said,) = [f for f in found.findings if f.id == "inside-estimated"]
    assert (said.grade, said.figure) == ("mind", "3 possible")


def test_a_fuse_that_blows_and_one_that_never_will():
    assert found(on("regulated", "12V", resistor="100R", target="9mA", fuse="50mA"))["fuse-too-small"].grade == "stop"
    assert "fuse-wide" in found(on("regulated", "12V", fuse="2A"))


def test_digital_and_reversing_track_say_what_they_are():
    assert "±15" in found(on("digital", "15V"))["digital-track"].message
    least = found(on("reversing", "9V", low="2.5V", high="13V", rectification="bridge"))["least-track-volts"]
    assert 2.5 < float(least.figure.split("\u00a0")[0]) < 3.6  # a red LED and two diodes


def test_a_sag_nobody_read_is_said():
    assert "sag-unknown" in found(on("unregulated", "14V"))
    assert "load-unknown" in found(on("unregulated", "14V", {"open": "18V"}))
    assert not {"sag-unknown", "load-unknown"} & set(
        found(on("unregulated", "14V", {"open": "18V"}, lamp=lamp("14V", "0.1A")))
    )
