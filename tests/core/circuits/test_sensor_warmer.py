"""A lamp that a detector looks at, and one that warms: against Planck, bands in closed form, and Magnus."""

import math

import numpy as np
import pytest

from swapglow.core.circuits import CIRCUITS
from swapglow.core.circuits.kinds import sensor, warmer
from swapglow.core.parts.lamp import own_lamp
from swapglow.core.parts.led import catalogue
from swapglow.core.photometry.spectrum import filament_power, observer, own_kelvin
from swapglow.core.quantities import Input, InputError, Source
from tests.core.circuits.results import figure, finding, option, worked

LAMP = own_lamp(6.0, 0.3, None, "")
SENSOR = {"lamp_volts": "6V", "lamp_amps": "0.3A", "run": "5.2V", "read": "120uA", "led_amps": "10mA", "feed": "5V"}


def test_a_filaments_infrared_is_plancks():
    """Planck's ratio to 560 nm at the filament's own temperature, times tungsten's (Larrabee 1959, his lines)."""
    kelvin = 2300.0
    own = own_kelvin(kelvin)
    assert 0.96 * kelvin < own < kelvin

    def planck(um):
        return um**-5 / math.expm1(14387.77 / (um * own))

    def tungsten(um):
        if um < 0.68:
            return 0.4655 + 0.01558 * um + 0.2675e-4 * own - 0.7305e-4 * um * own
        return 0.6552 - 0.2633 * um - 0.7333e-4 * own + 0.7417e-4 * um * own

    power = filament_power(kelvin)
    nm = np.arange(350.0, 1801.0, 5.0)
    for wavelength in (600.0, 900.0, 1100.0):
        ratio = float(power[nm == wavelength][0])
        um = wavelength / 1e3
        assert ratio == pytest.approx(planck(um) * tungsten(um) / (planck(0.56) * tungsten(0.56)), rel=1e-6)


def test_a_lamp_as_a_detector_sees_it_is_the_sum_over_its_spectrum():
    """683 lm/W fix the scale by its candela (CIE 018): summed here again, on the detector's own points."""
    d = sensor.detectors()["silicon"]
    kelvin, nm = LAMP.kelvin_at(5.2), np.arange(350.0, 1801.0, 5.0)
    power = filament_power(kelvin)
    eye = np.interp(nm, observer()[0], observer()[1][:, 1], left=0, right=0)
    candela = LAMP.candela_at(5.2)
    watts = candela * np.sum(power * np.interp(nm, d.nm, d.share, left=0, right=0)) / (683 * np.sum(power * eye))
    assert sensor.of_lamp(LAMP, 5.2, d) == pytest.approx(watts, rel=2e-3)
    # Far more of it is infrared than an eye would say: over a hundred times the watts behind its lumens.
    assert sensor.of_lamp(LAMP, 5.2, d) > 20 * candela / 683


def test_an_led_is_its_candela_over_what_the_eye_makes_of_its_band():
    """A band about 628 nm: V of some 0.29 (CIE 1931), so 0.15 cd are 0.15/(683·0.29) W/sr, times 0.6 of silicon."""
    red = catalogue()["red-5-diffused"]
    found = sensor.of_led(red, red.rated_a, sensor.detectors()["silicon"])
    assert found == pytest.approx(0.15 / (683 * 0.29) * 0.6, rel=0.06)
    assert sensor.of_led(red, 0.0, sensor.detectors()["silicon"]) == 0.0


@pytest.mark.parametrize(
    ("led", "detector", "share"),
    [("ir-850", "silicon", 0.925), ("ir-940", "germanium", 0.504), ("ir-940", "cds", 0.0), ("ir-850", "caesium", 0.95)],
)
def test_an_infrared_led_is_its_watts_times_the_response_at_its_band(led, detector, share):
    """A narrow band in a response that is nearly straight there; light goes with the current."""
    part, d = sensor.infrareds()[led], sensor.detectors()[detector]
    assert sensor.of_infrared(part, part.rated_a, d) == pytest.approx(part.w_sr * share, rel=0.03, abs=1e-9)
    assert sensor.of_infrared(part, part.rated_a / 4, d) == pytest.approx(part.w_sr * share / 4, rel=0.03, abs=1e-9)


def test_a_lag_is_of_the_first_order():
    """At 1/(2πτ) 0.7071 is left, at ten times that 0.0995 (textbook); on 50 Hz light swings at 100."""
    assert sensor.follows(1 / (2 * math.pi * 0.03), 0.03) == pytest.approx(1 / math.sqrt(2))
    assert sensor.follows(10 / (2 * math.pi * 0.03), 0.03) == pytest.approx(1 / math.sqrt(101))
    assert sensor.hum_share(50.0, 0.03) == pytest.approx(3.5 / 1.55 / (2 * math.pi * 100 * 0.03), rel=2e-3)


def test_a_red_led_is_no_infrared_lamp_and_the_one_that_is_gets_its_current():
    w = worked("sensor", **SENSOR)
    stop = finding(w, "too-little-light", "1")
    assert stop.grade == "stop" and "under the 50 %" in stop.message
    d = sensor.detectors()["silicon"]
    one = option(w, "ir-850", "850")
    assert one.advised and one.outcome.value == pytest.approx(
        0.1 * sensor.of_lamp(LAMP, 5.2, d) / sensor.of_infrared(sensor.infrareds()["ir-850"], 0.1, d)
    )
    # (5 - 1.5) V over 46 mA are 76 Ω: 82 of E12; 3.5² / 82 is 149 mW.
    assert one.what.startswith("82\u00a0Ω, ½ W from 5\u00a0V, 149\u00a0mW")
    assert figure(w, "detector-led").after.value == pytest.approx(120e-6)
    assert all("over half its 100" in x.bars for x in w.options if x is not one)
    assert [c.of for c in w.pictures[0].curves] == ["old", "new"]
    assert max(p.y for p in w.pictures[0].curves[0].points) == pytest.approx(100)
    # What will do is the user's: two per thousand of a reading will.
    assert not any(j.grade == "stop" for j in worked("sensor", **SENSOR, least="1uA").findings)
    assert "do not light it" in option(worked("sensor", **{**SENSOR, "feed": "1V"}), "ir-850", "850").what


def test_a_cell_that_sees_green_takes_a_green_led_and_its_current_is_bent():
    """A cadmium sulphide cell sees green and goes as light to 0.7 (data sheets, from memory)."""
    typed = {**SENSOR, "detector": "cds", "led": "green-5-clear"}
    ten, forty = (worked("sensor", **{**typed, "led_amps": a}) for a in ("1mA", "2mA"))
    ratio = figure(forty, "detector-led").now.value / figure(ten, "detector-led").now.value
    d, led = sensor.detectors()["cds"], catalogue()["green-5-clear"]
    assert ratio == pytest.approx((sensor.of_led(led, 2e-3, d) / sensor.of_led(led, 1e-3, d)) ** 0.7)
    assert finding(ten, "gamma", "0.7").grade == "note"
    assert finding(worked("sensor", **{**typed, "led_amps": "20mA"}), "too-much-light").grade == "mind"


def test_hum_and_lag_are_said_where_they_are_typed():
    w = worked("sensor", **SENSOR, fed_hz="50Hz", watched_hz="400Hz")
    assert (
        finding(w, "mains-swing", "50").message.endswith("on the same feed goes out twice a cycle.")
        and "12 %" in finding(w, "mains-swing", "50").message
    )
    assert finding(w, "no-lag", "400").grade == "note"
    assert finding(worked("sensor", **SENSOR), "mains-swing") is None


@pytest.mark.parametrize(
    ("changed", "field"), [({"run": "9.1V"}, "run"), ({"run": "1.7V"}, "run"), ({"led_amps": ""}, "led_amps")]
)
def test_a_sensor_refuses_what_cannot_be(changed, field):
    with pytest.raises(InputError) as refused:
        worked("sensor", **{**SENSOR, **changed})
    assert refused.value.field == field


# --- a lamp that warms ------------------------------------------------------------------------------

WARM = {
    "volts": "12V",
    "lamp_volts": "12V",
    "lamp_amps": "0.4A",
    "room": "4°C",
    "warm": "19°C",
    "damp": "98 %",
    "led_watts": "0.12W",
}


@pytest.mark.parametrize(
    ("celsius", "damp", "dew"), [(20, 0.5, 9.3), (25, 0.6, 16.7), (10, 0.8, 6.7), (0, 1.0, 0.0), (30, 0.9, 28.2)]
)
def test_dew_points_are_those_of_the_tables(celsius, damp, dew):
    """Psychrometric tables (values from memory, to a tenth); Magnus after Sonntag 1990."""
    assert warmer.dew_point(celsius, damp) == pytest.approx(dew, abs=0.06)


def test_an_led_leaves_it_cold_and_a_resistor_warms_it():
    """4.8 W made 15 K; 0.12 W make 0.375. Dew at 4 °C and 98 % is 3.71: 5.71 with two kelvin; 3 K for the lag."""
    w = worked("warmer", **WARM)
    assert (
        w.line
        == "15 K less warm: 4.38\u00a0°C where it was 19\u00a0°C. The dew point and 2 K is 5.71\u00a0°C: too cold."
    )
    assert finding(w, "too-cold", "1.38").grade == "stop" and "Water settles" in finding(w, "too-cold").why
    needed, all_of_it = w.options
    # 5.71 + 3 - 4 is 4.71 K of 15: 1.508 W; less 0.12: 144/1.388 is 103.8 Ω, 100 of E12; all: 144/4.68 is 30.8, 27.
    assert needed.label.startswith("What is needed: 100") and needed.advised
    assert needed.outcome.value == pytest.approx(1.44) and "3 W stands it" in needed.what
    assert all_of_it.label.startswith("All of it: 27") and all_of_it.outcome.value == pytest.approx(144 / 27)
    assert w.tables[0].rows[2].cells[1].value == pytest.approx(4 + 15 * (1.44 + 0.12) / 4.8)


@pytest.mark.parametrize(("stands", "under"), [("lags", 3), ("sky", 6), ("room", 1)])
def test_a_surface_lags_the_air_and_sees_a_cold_sky(stands, under):
    """An LED of 1.6 W leaves 5 of 15 K: dew and 2 K at 4 °C and 98 % is 5.71, so that 9 - 3.29 is the most under."""
    w = worked("warmer", **{**WARM, "led_watts": "1.6W"}, stands=stands)
    assert figure(w, "coldest").now.value == pytest.approx(9 - under)
    assert ("too cold" in w.line) == (9 - under < 5.71)


@pytest.mark.parametrize(("damp", "proof"), [("50 %", False), ("80 %", False), ("98 %", True)])
def test_air_in_which_no_heat_is_needed_proves_nothing(damp, proof):
    """At 18 °C the dew point is 7.4, 14.5 and 17.7 °C (psychrometric tables, from memory): 1 K under air, 2 K over."""
    w = worked("warmer", **{**WARM, "room": "18", "warm": "30", "damp": damp, "led_watts": "1.6W"}, stands="room")
    said = finding(w, "air-proves-nothing")
    assert (said is None) == proof
    assert ("with no heat at all" in w.line) == (not proof)
    assert [x.label.split(":")[0] for x in w.options] == ([] if proof else ["All of it"])


@pytest.mark.parametrize(
    ("job", "changed", "least", "then"),
    [("ice", {"room": "-6°C", "warm": "2°C"}, 3.0, "freezes over"), ("steady", {"least": "17°C"}, 17.0, "drifts")],
)
def test_what_its_warmth_is_for_sets_the_least(job, changed, least, then):
    w = worked("warmer", **{**WARM, "damp": "", **changed}, job=job)
    (stop,) = [j for j in w.findings if j.grade == "stop"]
    assert f"{least:g}\u00a0°C" in stop.message and then in stop.why
    assert w.figures[-1].now.value == least


def test_even_the_old_lamp_may_have_been_too_cold():
    """8 K over -6 °C never reached 3, and less 1 for the lag: what gives all back is too little, and said to be."""
    w = worked("warmer", **{**WARM, "damp": "", "room": "-5°C", "warm": "3.5°C"}, job="ice", stands="room")
    assert finding(w, "old-too-cold", "2.5").grade == "mind"
    # 27 Ω makes 5.33 W, a little more than the lamp: -5 + 8.5 · 5.45/4.8 is 4.66, and 3.66 at its coldest.
    assert w.options[0].bars == "" and w.options[0].advised
    colder = worked("warmer", **{**WARM, "damp": "", "room": "-9°C", "warm": "-1°C"}, job="ice", stands="room")
    assert colder.options[0].bars and not colder.options[0].advised


def test_nobody_said_what_will_do():
    w = worked("warmer", **{**WARM, "damp": ""}, job="steady")
    assert finding(w, "least-unknown", "2").grade == "mind" and w.line.endswith("where it was 19\u00a0°C.")
    assert [x.label.split(":")[0] for x in w.options] == ["All of it"]


@pytest.mark.parametrize(
    ("changed", "field"),
    [
        ({"damp": ""}, "damp"),
        ({"warm": "3°C"}, "warm"),
        ({"room": "-80"}, "room"),
        ({"led_watts": "5W"}, "led_watts"),
        ({"room": ""}, "room"),
        ({"damp": "0 %"}, "damp"),
    ],
)
def test_a_warmer_refuses_what_cannot_be(changed, field):
    with pytest.raises(InputError) as refused:
        worked("warmer", **{**WARM, **changed})
    assert refused.value.field == field


def test_a_figure_says_where_it_is_from():
    """The LED's heat that nobody typed is assumed to be none; a reading keeps the source it was typed with."""
    heat = figure(worked("warmer", **{**WARM, "led_watts": ""}), "led-heat").now
    assert (heat.value, heat.source) == (0.0, Source.ASSUMED)
    kind = CIRCUITS["sensor"]
    typed = {k: Input(v, Source.MARKED if k == "read" else Source.MEASURED) for k, v in SENSOR.items()}
    assert figure(kind.work(kind.read(typed)), "detector-old").now.source is Source.MARKED
