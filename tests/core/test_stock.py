"""The drawer: what is made of what is there, what must be bought and taken out; marks of capacitors; doubtful bands.

Combinations against brute force in fractions; the order list against an example worked by hand beside it.
"""

from fractions import Fraction
from itertools import combinations_with_replacement, product

import pytest

from swapglow.core.analysis.solution import solve
from swapglow.core.parts.doubtful_bands import readings
from swapglow.core.stock.combination import combinations, combine, rank
from swapglow.core.stock.draw import draw
from swapglow.core.stock.need import Need, needs
from swapglow.core.stock.order import Asked, order_list, short_of, spare_of
from swapglow.core.stock.part import Part
from swapglow.core.values.capacitor_marks import read_capacitor, write_capacitor
from swapglow.core.values.resistor_marks import MarkError
from tests.core.supplies import on

E6 = [100, 150, 220, 330, 470, 680]


def every_way(values):
    """All that two and three resistors make, in fractions: Ohm and Kirchhoff, without the code under test."""
    for a in values:
        yield (a,), Fraction(a)
    for a, b in combinations_with_replacement(values, 2):
        yield (a, b), Fraction(a + b)
        yield (a, b), 1 / (Fraction(1, a) + Fraction(1, b))
    for a, b, c in combinations_with_replacement(values, 3):
        yield (a, b, c), Fraction(a + b + c)
        yield (a, b, c), 1 / (Fraction(1, a) + Fraction(1, b) + Fraction(1, c))
    for (a, b), c in product(combinations_with_replacement(values, 2), values):
        yield (a, b, c), 1 / (1 / Fraction(a + b) + Fraction(1, c))
        yield (a, b, c), 1 / (Fraction(1, a) + Fraction(1, b)) + c


@pytest.mark.parametrize("target", [88, 123, 247, 391, 555, 1000, 1290])
@pytest.mark.parametrize("tolerance", [0.01, 0.05])
def test_nothing_better_is_made_by_brute_force(target, tolerance):
    """Steps of tolerance, then parts; of those that come to the same in both none is forgotten."""
    found = combinations(target, dict.fromkeys(E6), tolerance, few=40)
    every = [(ohms, float(total)) for ohms, total in every_way(E6) if abs(float(total) / target - 1) <= 0.2]
    keys = sorted((int(abs(t / target - 1) / tolerance * (1 - 1e-12)), len(o)) for o, t in every)
    assert [rank(c, tolerance)[:2] for c in found] == keys[: len(found)]
    totals = {(tuple(sorted(o)), round(t, 6)) for o, t in every}
    assert {(tuple(sorted(c.ohms)), round(c.ohm, 6)) for c in found} <= totals
    best = found[0]
    nearest = min(abs(t / target - 1) for o, t in every if len(o) == best.parts)
    if best.parts == 1:
        assert abs(best.error) == pytest.approx(nearest)


@pytest.mark.parametrize(
    ("ohms", "way", "ohm", "shares"),
    [
        ((100, 300), "series", 400, (0.25, 0.75)),
        # 100 and 300 side by side: 75 Ω, the smaller carries three quarters.
        ((100, 300), "parallel", 75, (0.75, 0.25)),
        # 300 beside 300: 150; half of the heat in each branch, in the pair by 1 to 2.
        ((100, 200, 300), "series-beside", 150, (1 / 6, 1 / 3, 0.5)),
        # 100 with 300: 75, then 25: three quarters in the pair, of that three quarters in the smaller.
        ((100, 300, 25), "beside-series", 100, (9 / 16, 3 / 16, 0.25)),
    ],
)
def test_each_part_carries_its_own_heat(ohms, way, ohm, shares):
    found = combine(ohms, way, ohm)
    assert found.ohm == pytest.approx(ohm) and found.error == pytest.approx(0, abs=1e-12)
    assert found.shares == pytest.approx(shares)


def test_one_that_is_there_wins_and_of_two_halves_the_even_ones():
    assert combinations(470, dict.fromkeys(E6))[0].ohms == (470,)
    two = [c for c in combinations(440, {220.0: None, 330.0: None, 100.0: None}, 0.01) if c.parts == 2]
    assert two[0].ohms == (220, 220) and two[0].shares == (0.5, 0.5)


def test_what_is_there_once_is_used_once():
    assert (220, 220) not in [c.ohms for c in combinations(440, {220.0: 1, 470.0: None}, 0.01)]
    assert (220, 220) in [c.ohms for c in combinations(440, {220.0: 2, 470.0: None}, 0.01)]
    assert combinations(440, {220.0: 0, 440.0: 0}) == ()
    assert combinations(440, {}) == ()


def resistor(id_, ohm, **more):
    return Part(id_, "resistor", f"{ohm} Ω", ohm=ohm, **more)


def test_a_lamp_takes_what_is_fitted_in_it():
    """Two strings of three, a resistor each; 12 V, 10 mA, 1 kΩ: 0.1 W runs in a quarter watt, of 2.5 mm."""
    p = on("regulated", "12V", resistor="1k", vf="2V", in_series=3, branches=2, rating_w=0.25, series_diodes=1)
    found = {n.kind: (n.label.replace("\u00a0", " "), n.count) for n in needs(solve(p))}
    assert found == {
        "led": ("Red 5 mm diffused", 6),
        "resistor": ("1 kΩ, ¼ W", 2),
        "sundry": ("Sleeve, 3.2 mm bore", 2),
        "diode": ("Silicon diode", 1),
    }
    p = on(
        "winding",
        "12Vac",
        rectification="bridge_cap",
        resistor="1k",
        resistor_parts=2,
        capacitor="100uF",
        capacitor_v="25V",
        regulator_id="fixed-5-to220",
    )
    found = {n.label.replace("\u00a0", " "): n.count for n in needs(solve(p)) if n.kind not in ("sundry", "led")}
    assert found["Bridge of four"] == 1 and found["100 µF, 25 V"] == 1
    assert [n.of for n in needs(solve(p)) if n.kind == "regulator"] == ["fixed-5-to220"]
    assert [n.count for n in needs(solve(p)) if n.kind == "resistor"] == [2]
    lamp = on("regulated", "12V", led_id="white-5-clear", band="10-15V", module={"amps": "20mA"})
    assert [(n.kind, n.label) for n in needs(solve(lamp))] == [("module", "Ready-made LED lamp, 10 to 15 V")]


@pytest.mark.parametrize(
    ("has", "meets"),
    [
        ({}, True),
        ({"rating_w": 0.25}, True),
        ({"rating_w": 0.125}, False),
        ({"tolerance": 0.05}, True),
        ({"tolerance": 0.1}, False),
        ({"tolerance": 0.01}, True),
    ],
)
def test_a_smaller_or_coarser_part_will_not_do(has, meets):
    need = Need("resistor", "1 kΩ, ¼ W", 1, ohm=1000.0, rating_w=0.25, tolerance=0.05)
    assert need.met_by(resistor("a", 1000.0, **has)) is meets
    assert not need.met_by(resistor("a", 1001.0, **has))


def test_the_order_list_by_hand():
    """Three lamps: 2 + 2 + 1 of 1 kΩ are 5, one in five is 1 spare: 6; two lie there, one is on its way: 3 short, a
    pack of ten at 0.40. Six LEDs of one kind and 2 spare, none there: 8 to buy. Sleeve is full: none. 33 Ω has two left
    where three are the least: two to be over it again."""
    kilo = Need("resistor", "1 kΩ", 2, ohm=1000.0)
    led = Need("led", "Red", 3, of="red-5-diffused")
    sleeve = Need("sundry", "Sleeve", 1)
    asked = [
        Asked("A", "Desk", kilo),
        Asked("A", "Desk", led),
        Asked("A", "Desk", sleeve),
        Asked("B", "Desk", kilo),
        Asked("B", "Desk", led),
        Asked("C", "Mast", Need("resistor", "1 kΩ", 1, ohm=1000.0)),
    ]
    drawer = [
        resistor("r1", 1000.0, count=2, on_order=1, pack=10, price=0.4),
        Part("s", "sundry", "sleeve"),
        resistor("r2", 33.0, count=2, least=3),
        resistor("r3", 47.0, count=0),
        resistor("r4", 56.0, said="low"),
    ]
    lines = {line.label: line for line in order_list(asked, drawer)}
    one = lines["1 kΩ"]
    assert (one.needed, one.spare, one.have, one.on_order, one.buy) == (5, 1, 2, 1, 3)
    assert (one.pack, one.packs, one.price, one.part) == (10, 1, 0.4, "r1")
    assert one.lamps == ("Desk: A", "Desk: B", "Mast: C")
    assert (lines["Red"].needed, lines["Red"].spare, lines["Red"].buy, lines["Red"].packs) == (6, 2, 8, 8)
    assert lines["Red"].price is None and lines["Red"].part == ""
    assert lines["33.0 Ω"].buy == 2 and lines["33.0 Ω"].why == "Runs low: 2 left, 3 is the least"
    assert lines["56.0 Ω"].buy == 1
    assert set(lines) == {"1 kΩ", "Red", "33.0 Ω", "56.0 Ω"}
    assert [line.kind for line in order_list(asked, drawer)] == ["resistor", "resistor", "resistor", "led"]


@pytest.mark.parametrize(
    ("kind", "needed", "rule", "spare"),
    [
        ("resistor", 5, "ours", 1),
        ("resistor", 6, "ours", 2),
        ("led", 1, "ours", 1),
        ("led", 4, "double", 4),
        ("regulator", 5, "ours", 0),
        ("module", 1, "double", 0),
        ("led", 3, "none", 0),
        ("led", 0, "ours", 0),
    ],
)
def test_spares_by_rule(kind, needed, rule, spare):
    assert spare_of(kind, needed, rule) == spare


def test_two_lamps_do_not_count_the_same_part_twice():
    """The one of half a watt serves both: two there, four asked by two ratings."""
    small = Need("resistor", "1 kΩ, ¼ W", 2, ohm=1000.0, rating_w=0.25)
    large = Need("resistor", "1 kΩ, ½ W", 2, ohm=1000.0, rating_w=0.5)
    drawer = [resistor("a", 1000.0, rating_w=0.5, count=2)]
    lines = order_list([Asked("A", "x", small), Asked("B", "x", large)], drawer, "none")
    assert [(line.label, line.buy) for line in lines] == [("1 kΩ, ½ W", 2)]


@pytest.mark.parametrize(
    ("there", "short"),
    [
        ({"said": "full"}, ()),
        ({"said": "low"}, ()),
        ({"said": "empty"}, ("1 kΩ",)),
        ({"count": 2}, ()),
        ({"count": 1}, ("1 kΩ",)),
        ({"count": 1, "on_order": 5}, ("1 kΩ",)),
    ],
)
def test_a_lamp_waits_for_what_is_not_there(there, short):
    assert short_of([Need("resistor", "1 kΩ", 2, ohm=1000.0)], [resistor("a", 1000.0, **there)]) == short


def test_what_is_taken_out_is_counted_down_and_what_is_missing_said():
    drawer = [resistor("a", 1000.0, count=1, kept_in="box 2"), resistor("b", 1000.0, count=5), Part("l", "led", "Red")]
    drawn = draw([Need("resistor", "1 kΩ", 3, ohm=1000.0), Need("led", "red", 4), Need("led", "Green", 2)], drawer)
    assert drawn.counts == {"a": 0, "b": 3}
    assert drawn.lines == ("1 × 1000.0 Ω from box 2, 0 left", "2 × 1000.0 Ω, 3 left", "4 × Red")
    assert drawn.short == ("2 × Green",)


@pytest.mark.parametrize(
    ("mark", "farad", "low", "high"),
    [
        ("104", 100e-9, 100e-9, 100e-9),
        ("104K", 100e-9, 90e-9, 110e-9),
        ("473J", 47e-9, 44.65e-9, 49.35e-9),
        ("4n7", 4.7e-9, 4.7e-9, 4.7e-9),
        ("p47", 0.47e-12, 0.47e-12, 0.47e-12),
        ("µ47", 470e-9, 470e-9, 470e-9),
        ("2u2M", 2.2e-6, 1.76e-6, 2.64e-6),
        ("22", 22e-12, 22e-12, 22e-12),
        ("4p7C", 4.7e-12, 4.45e-12, 4.95e-12),
        ("479", 4.7e-12, 4.7e-12, 4.7e-12),
        ("108", 0.1e-12, 0.1e-12, 0.1e-12),
        ("103Z", 10e-9, 8e-9, 18e-9),
        ("10D", 10e-12, 9.5e-12, 10.5e-12),
        ("4m7", 4.7e-3, 4.7e-3, 4.7e-3),
    ],
)
def test_a_capacitors_mark_is_read(mark, farad, low, high):
    """IEC 60062 (from memory); three digits in picofarads are common practice."""
    found = read_capacitor(mark)
    assert (found.farad, found.low, found.high) == pytest.approx((farad, low, high))


@pytest.mark.parametrize(
    ("mark", "says"),
    [
        ("107", "a 7 is no power of ten"),
        ("104X", "X is no tolerance"),
        ("104C", "C stands on 10 pF and less"),
        ("000", "no capacitance"),
        ("12345", "is on no capacitor"),
        ("", "is on no capacitor"),
        ("n", "is on no capacitor"),
    ],
)
def test_a_capacitors_mark_that_cannot_be_is_refused_with_why(mark, says):
    with pytest.raises(MarkError, match=says):
        read_capacitor(mark)


def test_every_capacitor_of_e24_is_written_and_read_again():
    mantissas = [10, 11, 12, 13, 15, 16, 18, 20, 22, 24, 27, 30, 33, 36, 39, 43, 47, 51, 56, 62, 68, 75, 82, 91]
    for m, power in product(mantissas, range(-13, -3)):
        farad = m * 10.0**power
        code, lettered = write_capacitor(farad)
        assert read_capacitor(lettered).farad == pytest.approx(farad), lettered
        if code:
            assert read_capacitor(code).farad == pytest.approx(farad), code
    assert write_capacitor(100e-9) == ("104", "100n") and write_capacitor(4.7e-12) == ("479", "4p7")
    assert write_capacitor(2200e-6) == ("", "2m2")
    with pytest.raises(MarkError, match="two digits"):
        write_capacitor(4.73e-9)


def test_a_doubtful_colour_gives_the_few_it_may_be_the_likeliest_for_the_place_first():
    """Red or orange or brown for the third: 4.7, 47 and 0.47 kΩ; where some 500 Ω are due the last is first."""
    found = readings("yellow violet red? gold", 500)
    assert [p.read.ohm for p in found] == [470, 4700, 47000]
    assert [p.read.ohm for p in readings("yellow violet red? gold")] == [4700, 470, 47000]
    # Brown black is 10 and made; violet black is 70, and red black 20: E24 has the one and not the other.
    found = readings("brown? black brown gold", 100)
    assert [(p.read.ohm, p.preferred) for p in found][:2] == [(100, True), (200, True)]
    assert (700, False) in [(p.read.ohm, p.preferred) for p in found]
    # Not seen at all: what is due there.
    assert readings("brown ? red gold", 1500)[0].bands == ("brown", "green", "red", "gold")
    assert len(readings("? ? ? gold", 330)) == 6 and readings("? ? ? gold", 330)[0].read.ohm == 330


def test_a_colour_that_fits_nowhere_leaves_what_it_is_taken_for():
    """Gold is no first digit; yellow and orange look like it under a warm lamp (common practice)."""
    assert {p.bands[0] for p in readings("gold? black red gold")} == {"yellow", "orange"}


@pytest.mark.parametrize(("bands", "says"), [("teal? red red", "teal"), ("red? red", "2 bands")])
def test_bands_that_can_be_nothing_are_refused(bands, says):
    with pytest.raises(MarkError, match=says):
        readings(bands)
