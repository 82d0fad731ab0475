"""From texts to positions: every field, its neighbours and its refusals."""

import dataclasses

import pytest

from swapglow.core.position.typed import (
    FieldError,
    Typed,
    TypedDriver,
    TypedLamp,
    TypedPosition,
    TypedRail,
    read_lamp,
    read_led,
    read_position,
    read_rail,
    read_reading,
    took,
    typed_changes,
)
from swapglow.core.quantities import AMPERE, OHM, VOLT, QuantityError, Source

MEASURED = Source.MEASURED


def test_one_value_stands_for_all_and_says_so():
    rail = read_rail(TypedRail(Typed("18.4V", MEASURED)))
    assert (rail.low.value, rail.usual.value, rail.high.value) == (18.4, 18.4, 18.4)
    assert not rail.spread_known
    # Nobody has read the ends: they stay pencil.
    assert (rail.low.source, rail.usual.source, rail.high.source) == (
        Source.ASSUMED, MEASURED, Source.ASSUMED,
    )  # fmt: skip


def test_a_typed_range_gives_the_ends_its_own_source():
    rail = read_rail(TypedRail(Typed("17-19V", MEASURED)))
    assert (rail.low.value, rail.usual.value, rail.high.value) == (17, 18, 19)
    assert rail.spread_known
    assert rail.high.source is MEASURED


def test_own_ends_go_before_the_ranges():
    rail = read_rail(TypedRail(Typed("18V±5%"), high=Typed("20.2V", MEASURED)))
    assert rail.low.value == pytest.approx(17.1)
    assert (rail.high.value, rail.high.source) == (20.2, MEASURED)


@pytest.mark.parametrize(
    ("rail", "field"),
    [
        (TypedRail(Typed("")), "usual"),
        (TypedRail(Typed("-3V")), "usual"),
        (TypedRail(Typed("12V"), low=Typed("11-12V")), "low"),
        (TypedRail(Typed("12V"), low=Typed("12.5V")), "low"),
        (TypedRail(Typed("12V"), high=Typed("11.5V")), "high"),
        (TypedRail(Typed("12V"), high=Typed("15Vac")), "high"),
    ],
)
def test_a_rail_is_refused_at_its_field(rail, field):
    with pytest.raises(FieldError) as refused:
        read_rail(rail)
    assert refused.value.field == field


def test_a_forward_voltage_alone_picks_the_family():
    """2.6 V parts AlInGaP and GaP from InGaN (common practice: 1.8 to 2.4, 2.8 to 3.6 V)."""
    red, source = read_led("", Typed("2.0V", MEASURED), "")
    white, _ = read_led("", Typed("3.0-3.4V"), "30mA")
    assert (red.material, source) == ("AlInGaP", MEASURED)
    assert (white.material, white.rated_a) == ("InGaN", 0.03)
    assert (white.vf_low, white.vf_typ, white.vf_high) == (3.0, 3.2, 3.4)


def test_a_catalogue_kind_takes_an_own_rating():
    part, source = read_led("blue-chip", Typed(""), "5mA")
    assert (part.rated_a, source) == (0.005, Source.ASSUMED)
    # The data-sheet point moves with the rating: the forward voltage holds there.
    assert part.junction(part.vf_typ).volts(0.005) == pytest.approx(part.vf_typ)


@pytest.mark.parametrize(
    ("words", "field"),
    [(("nope", Typed(""), ""), "led_id"), (("", Typed(""), ""), "led_id"), (("", Typed("40V"), ""), "vf"),
     (("red-chip", Typed("x"), ""), "vf"), (("red-chip", Typed(""), "0A"), "rated")],
)  # fmt: skip
def test_an_led_is_refused_at_its_field(words, field):
    with pytest.raises(FieldError) as refused:
        read_led(*words)
    assert refused.value.field == field


def test_an_own_lamp_guesses_its_light_where_it_is_not_known():
    known = read_lamp(TypedLamp("own", "24V", "50mA", "0.4cd", "bayonet"))
    guessed = read_lamp(TypedLamp("own", "24V", "50mA"))
    assert known is not None
    assert guessed is not None
    assert known.candela == 0.4
    # 6 lm/W over the whole sphere, 1 MSCP = 4π lm (common practice, 4 to 12).
    assert guessed.candela == pytest.approx(24 * 0.05 * 6 / (4 * 3.14159265), rel=1e-6)


def test_a_lamp_may_be_unknown_or_of_the_catalogue():
    assert read_lamp(TypedLamp()) is None
    found = read_lamp(TypedLamp("47"))
    assert found is not None
    assert (found.volts, found.amps) == (6.3, 0.15)


@pytest.mark.parametrize(
    ("lamp", "field"),
    [(TypedLamp("none such"), "lamp_id"), (TypedLamp("own", "", "1A"), "lamp_volts"),
     (TypedLamp("own", "6V", "x"), "lamp_amps"), (TypedLamp("own", "6V", "1A", "9V"), "lamp_candela")],
)  # fmt: skip
def test_a_lamp_is_refused_at_its_field(lamp, field):
    with pytest.raises(FieldError) as refused:
        read_lamp(lamp)
    assert refused.value.field == field


GOOD = TypedPosition(TypedRail(Typed("14V±10%")), "red-5-clear", Typed("2mA"))


def test_what_is_not_typed_takes_its_usual_value():
    p = read_position(GOOD)
    assert (p.drop_v, p.resistor_ohm, p.rating_w, p.lamp, p.ceiling) == (0.0, None, None, None, 0.5)
    assert p.resistor_tolerance == 0.05
    assert read_position(dataclasses.replace(GOOD, series="E96")).resistor_tolerance == 0.01


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"series": "E7"}, "series"),
        ({"driver": TypedDriver(drop=Typed("-1V"))}, "driver_drop"),
        ({"resistor": "1-2k"}, "resistor"),
        ({"ceiling": 1.5}, "ceiling"),
        ({"tolerance": 0.7}, "tolerance"),
        ({"rating_w": -1.0}, "rating_w"),
        ({"in_series": 201}, "in_series"),
        ({"target": Typed("20mV")}, "target"),
    ],
)
def test_a_position_is_refused_at_its_field(change, field):
    with pytest.raises(FieldError) as refused:
        read_position(dataclasses.replace(GOOD, **change))
    assert refused.value.field == field
    assert refused.value.message


def test_a_reading_keeps_its_burden_only_for_a_current():
    assert read_reading("1", "current", "3mA", "5R", "").burden_ohm == 5
    assert read_reading("1", "led_volts", "3V", "5R", "").burden_ohm == 0
    for text, burden, field in (("3V", "", "text"), ("3mA", "x", "burden"), ("-3mA", "", "text")):
        with pytest.raises(FieldError) as refused:
            read_reading("1", "current", text, burden, "")
        assert refused.value.field == field


@pytest.mark.parametrize(
    ("text", "unit", "says"),
    [("12-14V", VOLT, "13\u00a0V (12\u00a0V to 14\u00a0V)"),
     ("4k7", OHM, "4.7\u00a0kΩ"), (".02A", AMPERE, "20\u00a0mA"),
     ("  ", OHM, "")],
)  # fmt: skip
def test_a_field_says_what_it_took(text, unit, says):
    assert took(text, unit) == says


def test_a_field_that_cannot_be_read_takes_nothing():
    with pytest.raises(QuantityError):
        took("a few volts", VOLT)


def test_a_remedys_changes_become_texts_a_record_keeps():
    kept = typed_changes({"resistor_ohm": 4700.0, "resistor_parts": 2, "rating_w": 0.5})
    assert kept == {"resistor": "4.7\u00a0kΩ", "resistor_parts": 2, "rating_w": 0.5}
    assert typed_changes({"resistor_ohm": None}) == {"resistor": ""}
    assert typed_changes({"led_id": "red-chip"})["vf"] == {"text": "", "source": "assumed", "note": ""}
    assert typed_changes({"target_a": 0.004})["target"]["text"] == "4\u00a0mA"
    with pytest.raises(FieldError, match='no "colour"'):
        typed_changes({"colour": "red"})
