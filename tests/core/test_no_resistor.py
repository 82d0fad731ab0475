"""No resistor at all: "none", 0 and a link are answers, not values to be sized in their place."""

import pytest

from swapglow.core.analysis.solution import solve
from swapglow.core.assess import assess
from swapglow.core.circuits import CIRCUITS
from swapglow.core.kinds.detail import Details
from swapglow.core.presentation.row_of_lamps import row_of_lamps
from swapglow.core.quantities import Input, InputError
from swapglow.core.values.nothing import says_none
from tests.core.supplies import on

NONE = ["none", "0", "0R", "0 Ω", "0.0k", "Link", "no resistor"]


@pytest.mark.parametrize("text", NONE)
def test_words_for_nothing(text):
    assert says_none(text)


@pytest.mark.parametrize("text", ["", "1", "0.1R", "00 1", "nonesuch", "10"])
def test_words_for_something(text):
    assert not says_none(text)


@pytest.mark.parametrize("text", NONE)
def test_an_led_without_a_resistor_is_solved_by_what_else_limits_it(text):
    """A coin cell of 20 Ω behind 0.1 Ω of leads: V − I·20.1 Ω is the LED's (Kirchhoff, by halving)."""
    p = on("battery", "", {"chemistry": "coin-20"}, vf="2V", resistor=text)
    s, r = solve(p, rule=False), assess(p)
    ohms = p.rail.supply.source_ohm.value + 0.1
    junction, low, high = p.led.junction(2.0, p.celsius), 0.0, 1.0
    for _ in range(60):
        amps = (low + high) / 2
        over = amps * ohms + float(junction.volts(max(amps, 1e-12))) > p.rail.volts[1]
        low, high = (low, amps) if over else (amps, high)
    assert float(s.usual[1]) == pytest.approx(low, rel=1e-4)
    assert (r.sizing.each.text, r.sizing.marks, r.power.to_fit) == ("0\u00a0Ω", None, None)
    assert [n for n in r.needs if n.kind == "resistor"] == []
    assert all(b.picture != "bands" and b.reading != "resistor_ohms" for b in r.build)
    assert "resistor" not in {w.part for w in r.warmth}


def test_an_led_straight_on_a_rail_burns_out():
    """Ten times what it is rated for is past any data sheet's pulse (common practice)."""
    found = {f.id: f for f in assess(on("regulated", "12V", resistor="none")).findings}
    assert found["over-rated-current"].grade == "stop"
    assert "burns out" in found["over-rated-current"].message
    mild = {f.id: f for f in assess(on("regulated", "12V", resistor="470R")).findings}
    assert "burns out" not in mild["over-rated-current"].message


@pytest.mark.parametrize("text", NONE)
def test_a_shunt_that_is_none_is_not_there(text):
    assert on("regulated", "12V", shunt=text).shunt_ohm is None


@pytest.mark.parametrize(
    ("kind", "detail", "value"),
    [
        ("coil", "ohm", 0.1),
        ("coil", "beside", None),
        ("gauge", "across", None),
        ("light_string", "ohm", None),
        ("strobed", "ohm", 0.1),
        ("hum", "ohm", 0.1),
    ],
)
def test_circuits_take_none(kind, detail, value):
    asked = CIRCUITS[kind].details
    for text in NONE:
        typed = Details(asked, {detail: Input(text)})
        typed.check()
        assert typed.value(detail) == value


def test_a_resistance_that_is_always_there_is_not_none():
    """An open switch, a coil and a dropping resistor have some."""
    for kind, detail in (("coil", "coil"), ("lamp_matrix", "leak"), ("strobed", "leak")):
        with pytest.raises(InputError):
            Details(CIRCUITS[kind].details, {detail: Input("0")}).value(detail)


def test_an_led_that_burns_out_gives_no_light_in_any_box():
    p = on("regulated", "12V", resistor="none")
    usual = next(g for g in assess(p).glow.lamps if g.id == "usual")
    assert (usual.amount.value, usual.ratio_text) == (0.0, "it burns out")
    (beside,) = row_of_lamps([("a", "A", p)]).lamps
    assert beside.amount.value == 0.0
