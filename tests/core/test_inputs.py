"""From texts to positions: every field, its neighbours and its refusals."""

import pytest
from pydantic import ValidationError

from swapglow.core.design.led_choice import choose_led
from swapglow.core.measurement.reading_after import read_after
from swapglow.core.parts import led as leds
from swapglow.core.quantities import AMPERE, OHM, VOLT, Input, InputError, QuantityError, Source, echo
from swapglow.inputs.patch import texts_of
from swapglow.inputs.position import PositionInput
from swapglow.inputs.quantity import Quantity
from swapglow.inputs.rail import RailInput
from swapglow.inputs.to_core import lamp_of, position_of, rail_of

MEASURED = Source.MEASURED


def rail(usual, low="", high="", source="assumed"):
    levels = {name: Quantity(text=text, source=source) for name, text in (("low", low), ("high", high)) if text}
    return RailInput(usual=Quantity(text=usual, source=source), **levels)


def old(id_="", volts="", amps="", candela="", base=""):
    return lamp_of(PositionInput(lamp_id=id_, lamp_volts=volts, lamp_amps=amps, lamp_candela=candela, lamp_base=base))


def test_one_value_stands_for_all_and_says_so():
    found = rail_of(rail("18.4V", source="measured"))
    assert (found.low.value, found.usual.value, found.high.value) == (18.4, 18.4, 18.4)
    assert not found.spread_known
    # Nobody has read the ends: they stay pencil.
    assert (found.low.source, found.usual.source, found.high.source) == (Source.ASSUMED, MEASURED, Source.ASSUMED)


def test_a_typed_range_gives_the_ends_its_own_source():
    found = rail_of(rail("17-19V", source="measured"))
    assert (found.low.value, found.usual.value, found.high.value) == (17, 18, 19)
    assert found.spread_known
    assert found.high.source is MEASURED


def test_own_ends_go_before_the_ranges():
    found = rail_of(RailInput(usual=Quantity(text="18V±5%"), high=Quantity(text="20.2V", source="measured")))
    assert found.low.value == pytest.approx(17.1)
    assert (found.high.value, found.high.source) == (20.2, MEASURED)


@pytest.mark.parametrize(
    ("levels", "field"),
    [
        (("",), "usual"),
        (("-3V",), "usual"),
        (("12V", "11-12V"), "low"),
        (("12V", "12.5V"), "low"),
        (("12V", "", "11.5V"), "high"),
        (("12V", "", "15Vac"), "high"),
    ],
)
def test_a_rail_is_refused_at_its_field(levels, field):
    with pytest.raises(InputError) as refused:
        rail_of(rail(*levels))
    assert refused.value.field == field


def test_a_forward_voltage_alone_picks_the_family():
    """2.6 V parts AlInGaP and GaP from InGaN (common practice: 1.8 to 2.4, 2.8 to 3.6 V)."""
    red, source = choose_led("", Input("2.0V", MEASURED), None)
    white, _ = choose_led("", Input("3.0-3.4V"), 0.03)
    assert (red.material, source) == ("AlInGaP", MEASURED)
    assert (white.material, white.rated_a) == ("InGaN", 0.03)
    assert (white.vf_low, white.vf_typ, white.vf_high) == (3.0, 3.2, 3.4)


def test_a_catalogue_kind_takes_an_own_rating():
    part, source = choose_led("blue-chip", Input(), 0.005)
    assert (part.rated_a, source) == (0.005, Source.ASSUMED)
    # A rating is a limit: the kind's own point, 3.2 V and its light at 20 mA, stays where its data sheet puts it.
    assert part.junction(part.vf_typ).volts(0.020) == pytest.approx(3.2)
    assert part.junction(part.vf_typ).volts(0.005) < 3.0
    assert (part.candela, part.candela_a) == (leds.catalogue()["blue-chip"].candela, 0.020)


@pytest.mark.parametrize(
    ("words", "field"),
    [
        (("nope", "", ""), "led_id"),
        (("", "", ""), "led_id"),
        (("", "40V", ""), "vf"),
        (("red-chip", "x", ""), "vf"),
        (("red-chip", "", "0A"), "rated"),
    ],
)
def test_an_led_is_refused_at_its_field(words, field):
    led_id, vf, rated = words
    typed = PositionInput(led_id=led_id, vf=Quantity(text=vf), rated=rated, target=Quantity(text="2mA"))
    with pytest.raises(InputError) as refused:
        position_of(typed, rail("12V"))
    assert refused.value.field == field


def test_an_own_lamp_guesses_its_light_where_it_is_not_known():
    known = old("own", "24V", "50mA", "0.4cd", "bayonet")
    guessed = old("own", "24V", "50mA")
    assert known is not None
    assert guessed is not None
    assert known.candela == 0.4
    # 6 lm/W over the whole sphere, 1 MSCP = 4π lm (common practice, 4 to 12).
    assert guessed.candela == pytest.approx(24 * 0.05 * 6 / (4 * 3.14159265), rel=1e-6)


def test_a_lamp_may_be_unknown_or_of_the_catalogue():
    assert old() is None
    found = old("47")
    assert found is not None
    assert (found.volts, found.amps) == (6.3, 0.15)


@pytest.mark.parametrize(
    ("lamp", "field"),
    [
        (("none such",), "lamp_id"),
        (("own", "", "1A"), "lamp_volts"),
        (("own", "6V", "x"), "lamp_amps"),
        (("own", "6V", "1A", "9V"), "lamp_candela"),
    ],
)
def test_a_lamp_is_refused_at_its_field(lamp, field):
    with pytest.raises(InputError) as refused:
        old(*lamp)
    assert refused.value.field == field


def good(**change):
    typed = {"led_id": "red-5-clear", "target": {"text": "2mA"}, **change}
    return position_of(PositionInput.model_validate(typed), rail("14V±10%"))


def test_what_is_not_typed_takes_its_usual_value():
    p = good()
    assert (p.drop_v, p.resistor_ohm, p.rating_w, p.lamp, p.ceiling) == (0.0, None, None, None, 0.5)
    assert p.resistor_tolerance == 0.05
    assert good(series="E96").resistor_tolerance == 0.01


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"driver_drop": {"text": "-1V"}}, "driver_drop"),
        ({"resistor": "1-2k"}, "resistor"),
        ({"resistor": "2G"}, "resistor"),
        ({"shunt": "2G"}, "shunt"),
        ({"capacitor": "0.5nF"}, "capacitor"),
        ({"capacitor_v": "0V"}, "capacitor_v"),
        ({"regulator_id": "none such"}, "regulator_id"),
        ({"second_led_id": "none such"}, "second_led_id"),
        ({"band": "wide"}, "band"),
        ({"module": {"amps": "50mA"}}, "band"),
        ({"module": {"amps": "much"}, "band": "10-15V"}, "module.amps"),
        ({"module": {"amps": "50mA", "throttle": "half"}, "band": "10-15V"}, "module.throttle"),
        ({"module": {"amps": "50mA", "after": "soon"}, "band": "10-15V"}, "module.after"),
        ({"module": {"amps": "50mA"}, "band": "10-15V", "regulator_id": "fixed-5-to92"}, "regulator_id"),
        ({"target": {"text": "20mV"}}, "target"),
    ],
)
def test_a_position_is_refused_at_its_field(change, field):
    with pytest.raises(InputError) as refused:
        good(**change)
    assert refused.value.field == field
    assert refused.value.message


@pytest.mark.parametrize(
    "change",
    [
        {"series": "E7"},
        {"ceiling": 1.5},
        {"tolerance": 0.7},
        {"rating_w": -1.0},
        {"in_series": 201},
        {"branches": 0},
        {"series_diodes": 5},
        {"rounding": "sideways"},
        {"lead": "both"},
        {"common": "earth"},
        {"driver_kind": "goblin"},
        {"glow_floor": 1.0},
        {"colour": "red"},
    ],
)
def test_what_no_field_takes_is_refused_by_its_shape(change):
    with pytest.raises(ValidationError) as refused:
        good(**change)
    assert refused.value.errors()[0]["loc"] == (next(iter(change)),)


def test_a_reading_keeps_its_burden_only_for_a_current():
    assert read_after("1", "current", "3mA", "5R", "").burden_ohm == 5
    assert read_after("1", "led_volts", "3V", "5R", "").burden_ohm == 0
    for text, burden, field in (("3V", "", "text"), ("3mA", "x", "burden"), ("-3mA", "", "text")):
        with pytest.raises(InputError) as refused:
            read_after("1", "current", text, burden, "")
        assert refused.value.field == field


@pytest.mark.parametrize(
    ("text", "unit", "says"),
    [
        ("12-14V", VOLT, "13\u00a0V (12\u00a0V to 14\u00a0V)"),
        ("4k7", OHM, "4.7\u00a0kΩ"),
        (".02A", AMPERE, "20\u00a0mA"),
        ("  ", OHM, ""),
    ],
)
def test_a_field_says_what_it_was_taken_for(text, unit, says):
    assert echo(text, unit) == says


def test_a_field_that_cannot_be_read_takes_nothing():
    with pytest.raises(QuantityError):
        echo("a few volts", VOLT)


def test_a_remedys_changes_become_texts_a_record_keeps():
    kept = texts_of({"resistor_ohm": 4700.0, "resistor_parts": 2, "rating_w": 0.5}, "direct")
    assert kept == {"resistor": "4.7\u00a0kΩ", "resistor_parts": 2, "rating_w": 0.5}
    assert texts_of({"resistor_ohm": None}, "direct") == {"resistor": ""}
    assert texts_of({"led_id": "red-chip"}, "direct")["vf"] == {"text": "", "source": "assumed", "note": ""}
    assert texts_of({"target": 0.004}, "direct")["target"]["text"] == "4\u00a0mA"
    with pytest.raises(InputError, match='no "colour"'):
        texts_of({"colour": "red"}, "direct")
    kept = texts_of({"driver.keep_warm_ohm": None}, "low_side")
    assert kept == {"driver_details": {"keep_warm": {"text": "", "source": "computed", "note": ""}}}
    assert texts_of({"driver.others_changed": 1}, "series_lamps")["driver_details"]["changed"]["text"] == "yes"
    assert texts_of({"driver.monitors_current": 0}, "flasher")["driver_details"]["counts"]["text"] == "no"
    with pytest.raises(InputError, match="has no"):
        texts_of({"driver.keep_warm_ohm": None}, "flasher")
