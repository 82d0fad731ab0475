"""A lamp as people know it: watts and volts typed where a current is asked (P = V·I, Joule)."""

import pytest

from swapglow.core.circuits import CIRCUITS
from swapglow.core.drivers.load import read_loads
from swapglow.core.kinds.detail import Details
from swapglow.core.parts.lamp import catalogue
from swapglow.core.quantities import AMPERE, Input, InputError, QuantityError, parse
from swapglow.inputs.position import PositionInput
from swapglow.inputs.rail import RailInput
from swapglow.inputs.to_core import lamp_of, position_of, rail_of
from tests.core.supplies import read


@pytest.mark.parametrize(
    ("text", "amps"),
    [
        ("12 V 10 W", 10 / 12),
        ("12V/10W", 10 / 12),
        ("10W at 6V", 10 / 6),
        ("6.3V 0.15A", 0.15),
        ("24V, 500mW", 0.5 / 24),
        ("2,2 W 12 V", 2.2 / 12),
        ("12V 5W lamp", 5 / 12),
        ("6V 150mA", 0.15),
    ],
)
def test_a_lamps_mark_is_read_where_a_current_is_asked(text, amps):
    assert parse(text, AMPERE).usual == pytest.approx(amps)


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("21W", "volts too"),
        ("12V 21/5W", "21W or 5W"),
        ("21/5 W", "21W or 5W"),
        ("5A 10W", "a power and a current"),
        ("12V", "not a current"),
        ("12V 24V", "not a current"),
    ],
)
def test_what_a_mark_leaves_open_is_asked(text, said):
    with pytest.raises(QuantityError, match=said):
        parse(text, AMPERE)


@pytest.mark.parametrize(
    ("typed", "volts", "amps"),
    [
        ({"lamp_volts": "12 V 10 W"}, 12, 10 / 12),
        ({"lamp_volts": "6V", "lamp_amps": "3W"}, 6, 0.5),
        ({"lamp_volts": "12V 10W", "lamp_amps": "0.7A"}, 12, 0.7),
        ({"lamp_volts": "6V", "lamp_amps": "12V 3W"}, 6, 0.25),
    ],
)
def test_an_old_lamp_is_known_by_its_watts(typed, volts, amps):
    found = lamp_of(PositionInput(lamp_id="own", **typed))
    assert (found.volts, found.amps) == pytest.approx((volts, amps))


def test_lamps_that_one_swap_replaces_are_counted_together():
    """Three lamps side by side: three times the current and the light (Kirchhoff; light adds)."""
    of = {
        "lamp_id": "own",
        "lamp_volts": "12V",
        "lamp_amps": "0.1A",
        "lamp_candela": "0.5cd",
        "target": read("5mA"),
        "led_id": "red-5-diffused",
    }
    rail = RailInput(kind="regulated", usual=read("12V"), low=read("12V"), high=read("12V"))
    three = position_of(PositionInput(**of, lamp_count=3), rail).lamp
    assert (three.amps, three.candela, three.volts) == pytest.approx((0.3, 1.5, 12))


def test_watts_beside_the_rail_are_taken_at_its_volts():
    rail = rail_of(RailInput(kind="regulated", usual=read("24V"), low=read("23V"), high=read("25V"), others="6W"))
    assert rail.others_a == pytest.approx(0.25)


def test_a_circuits_lamp_takes_watts_beside_its_volts():
    kind = CIRCUITS["coil"]
    typed = Details(kind.details, {"lamp_volts": Input("12V"), "lamp_amps": Input("1.2W")})
    assert typed.value("lamp_amps") == pytest.approx(0.1)
    typed.check()
    with pytest.raises(InputError, match="volts too"):
        Details(kind.details, {"lamp_amps": Input("1.2W")}).check()


def test_what_else_a_feed_feeds_may_give_watts():
    (load,) = read_loads("loads", "side lamp 12V 5W")
    assert (load.name, load.lamp.volts, load.lamp.amps) == ("side lamp", 12, pytest.approx(5 / 12))


@pytest.mark.parametrize(
    ("bright", "dim", "lumens"),
    [
        ("two-12-bright", "two-12-dim", (440, 35)),
        ("two-6-bright", "two-6-dim", (440, 35)),
        ("two-24-bright", "two-24-dim", (440, 40)),
    ],
)
def test_both_filaments_of_a_vehicle_lamp_are_in_the_catalogue(bright, dim, lumens):
    """21/5 W: 26.5 and 6.6 W at the most at 13.5 V, 440 and 35 lm within 15 and 20 % (UN R37, from memory)."""
    for id_, lm, watts, off in ((bright, lumens[0], 21, 0.15), (dim, lumens[1], 5, 0.2)):
        found = catalogue()[id_]
        assert found.candela * 4 * 3.14159 == pytest.approx(lm, rel=off)
        assert watts <= found.volts * found.amps <= 1.95 * watts
