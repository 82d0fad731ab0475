"""Each finding by its boundary: where it begins, found by halving, against the limit worked out by hand.

Beside each row stands where its limit is from. Just inside the finding is not there; just outside it has the
grade, and offers exactly the remedies named.
"""

import math
from dataclasses import dataclass, replace

import pytest

from swapglow.core.assess import assess
from swapglow.core.design.changes import with_changes
from swapglow.core.findings import verdict
from tests.core.drivers import driven
from tests.core.supplies import lamp, on

LN = math.log
# A red LED of 2.0 V at 20 mA: n·Vt 1.9 × 25.693 mV, 0.14 V of it ohmic.
NVT, RS_V = 1.9 * 0.025693, 0.14


def vf(amps, typ=2.0):
    """Forward volts of the table's red diffused LED by its current (Shockley 1949)."""
    return typ + NVT * LN(amps / 0.02) + RS_V * (amps / 0.02 - 1)


def dc(ohm, volts="12V", **more):
    """A steady rail of one value, an LED of one forward voltage, and a resistor."""
    return on("regulated", volts, low=volts, high=volts, vf="2V", resistor=f"{ohm:.8g}R",
              **{"target": "5mA", **more})  # fmt: skip


@dataclass
class Row:
    """What makes a finding come and go, the value at which it does, and what it then says."""

    make: object
    edge: float
    grade: str
    remedies: tuple = ()
    above: bool = True
    span: float = 1.12


ROWS = {
    # Rated 20 mA at the low end of a 5 % part: (12 − 2)/(0.95 R) (Ohm; data sheets).
    "over-rated-current": Row(lambda x: dc(x, ceiling=1.0), 10 / (0.95 * 0.02), "stop", ("larger-resistor",),
    above=False),
    # Half of rated at the highest rail is ours (common practice).
    "over-drive-ceiling": Row(
        lambda x: dc(x), (12 - vf(0.01)) / (0.95 * 0.01), "mind", ("larger-resistor", "raise-ceiling"), above=False
    ),
    # Headroom under a fifth of the rail: rail − 3·Vf(5 mA) = rail/5 (common practice).
    "headroom-small": Row(
        lambda x: on("regulated", f"{x:.6g}V", low=f"{x:.6g}V", high=f"{x:.6g}V", vf="2V", in_series=3),
        3 * vf(5e-3) / 0.8, "mind", ("fewer-in-series",), above=False,
    ),
    # Half of a quarter watt: I²R at the low end of 5 % (common practice).
    "resistor-over-half": Row(
        lambda x: dc(1500, f"{x:.6g}V", rating_w=0.25, ceiling=1.0),
            math.sqrt(0.125 * 1425) + vf(math.sqrt(0.125 / 1425)),
        "mind", ("larger-part", "two-halves", "two-same"),
    ),
    "resistor-over-rating": Row(
        lambda x: dc(1500, f"{x:.6g}V", rating_w=0.25, ceiling=1.0),
            math.sqrt(0.25 * 1425) + vf(math.sqrt(0.25 / 1425)),
        "stop", ("larger-part", "two-halves", "two-same"),
    ),
    # 250 V across one quarter-watt body (data sheets, from memory).
    "resistor-over-volts": Row(
        lambda x: dc(220e3, f"{x:.6g}V", rating_w=0.5, target="1mA"), 350 + vf(350 / 209e3), "stop",
            ("larger-part", "two-halves", "two-same"),
    ),
    # A shunt at half its rating: V²/R = 0.25 W (common practice).
    "shunt-over-rating": Row(lambda x: dc(2200, f"{x:.6g}V", shunt="1k", shunt_w=0.5), math.sqrt(250), "mind",
    ("larger-load",)),
    # Three quarters of the fuse (common practice).
    "fuse-over-share": Row(
        lambda x: dc(x, fuse="16mA", ceiling=1.0), (12 - vf(0.012)) / (0.95 * 0.012), "mind",
            ("larger-resistor",), above=False
    ),
    "fuse-too-small": Row(
        lambda x: dc(x, fuse="16mA", ceiling=1.0), (12 - vf(0.016)) / (0.95 * 0.016), "stop",
            ("larger-resistor",), above=False
    ),
    # A pin's own limit, 16 mA, and a sane budget of 8 mA (common practice).
    "pin-over-budget": Row(
        lambda x: on("logic", "5V", {"pin": "16mA"}, low="5V", high="5V", vf="2V", resistor=f"{x:.6g}R", ceiling=1.0),
        (5 - vf(0.008)) / (0.95 * 0.008), "mind", ("larger-resistor",), above=False,
    ),
    # Half of a trip current that is only known by name (ours): 1.2 mA trips, 0.6 mA is kept to.
    "line-reads-closed": Row(
        lambda x: on("sense", "9V", {"source": "1k", "trip": "1.2mA"}, low="9V", high="9V", vf="2V",
                     resistor=f"{x:.6g}R", target="0.4mA"),
        ((9 - vf(0.6e-3)) / 0.6e-3 - 1000) / 0.95, "mind", ("larger-resistor", "brighter-led"), above=False,
    ),
    # A quarter of the old lamp's light is two halvings (common practice).
    "dimmer-than-old": Row(
        lambda x: dc(1000, lamp_id="own", lamp_volts="12V", lamp_amps="0.05A", lamp_candela=f"{x:.6g}cd"),
        0.15 * ((12 - vf(10.1e-3)) / 1000 / 0.02) / 0.25, "mind", ("brighter-led",),
    ),
    "brighter-than-old": Row(
        lambda x: dc(1000, lamp_id="own", lamp_volts="12V", lamp_amps="0.05A", lamp_candela=f"{x:.6g}cd"),
        0.15 * ((12 - vf(10.1e-3)) / 1000 / 0.02) / 4, "note", ("match-old",), above=False,
    ),
    # A tenth of its usual light at the lowest rail (ours).
    "dim-at-lowest": Row(
        lambda x: on("regulated", "12V", low=f"{x:.6g}V", high="12V", vf="2V", in_series=3, resistor="1k"),
        3 * vf((12 - 3 * 1.856) / 1000 / 10) + (12 - 3 * 1.856) / 10, "mind", ("fewer-in-series",), above=False,
    ),
    # A module's band ends at 15 V (its maker's word).
    "module-over-band": Row(
        lambda x: on("regulated", f"{x:.6g}V", low="12V", high=f"{x:.6g}V", led_id="white-5-clear", band="10-15V",
                     module={"amps": "20mA", "polarised": "no"}),
        15.0, "stop",
    ),
    "module-under-band": Row(
        lambda x: on("regulated", "12V", low=f"{x:.6g}V", high="12V", led_id="white-5-clear", band="10-15V",
                     module={"amps": "20mA", "polarised": "yes"}),
        10.0, "mind", (), above=False,
    ),
    # A fixed regulator's dropout: 5 V and 2 V (data sheets, from memory).
    "regulator-dropout": Row(
        lambda x: driven("direct", "12V", low=f"{x:.6g}V", high="12V", regulator_id="fixed-5-to220"), 7.0, "mind", (),
        above=False,
    ),
    # Its highest input is 35 V (data sheets, from memory).
    "regulator-over-volts": Row(
        lambda x: driven("direct", "24V", low="20V", high=f"{x:.6g}V", regulator_id="fixed-5-to220"), 35.0, "stop",
    ),
    # 85 °C of junction: 25 + 65·((V − 5)·I + 5 mA·V), I I all of (5·1.04 − 2.02)/(0.95·150) (data sheets).
    "regulator-hot": Row(
        lambda x: driven("direct", f"{x:.6g}V", low="9V", high=f"{x:.6g}V", vf="2V", regulator_id="fixed-5-to220",
            resistor="150R",
                         target="20mA", ceiling=1.0),
        (60 / 65 + 5 * 0.02229) / (0.02229 + 0.005), "mind", ("heat-sink",),
    ),
    # What a TO-92 source must carry to hold: 2.5 mA, of it 50 µA by its adjust pin (data sheets, from memory).
    "regulator-least-load": Row(
        lambda x: driven("direct", "12V", low="12V", high="12V", vf="2V", regulator_id="adjustable-to92",
            resistor=f"{x:.6g}R"),
        1.25 / 2.45e-3 / 1.09, "mind", ("no-regulator",),
    ),
    # A coin cell gives some 3 mA for long (data sheets, from memory).
    "cell-over-limit": Row(
        lambda x: on("battery", "3V", {"chemistry": "coin-20", "cells": "1", "source": "0.1R"}, low="3V",
            high="3V", vf="2V",
                     resistor=f"{x:.6g}R"),
        (3 - vf(3e-3)) / (0.95 * 3e-3), "mind", ("larger-resistor",), above=False,
    ),
    # A load dump of 35 V lasts: twice rated, 40 mA, is the limit (ISO 16750-2; ours).
    "vehicle-surge": Row(
        lambda x: on("vehicle", "13.8V", low="11.5V", high="14.7V", vf="2V", resistor=f"{x:.6g}R"),
        (35 - vf(0.04)) / (0.95 * 0.04), "mind", ("larger-resistor",), above=False,
    ),
    # A jump start of 24 V for a minute is judged as steady: rated 20 mA (ISO 16750-2).
    "jump-start": Row(
        lambda x: on("vehicle", "13.8V", low="11.5V", high="14.7V", vf="2V", resistor=f"{x:.6g}R", ceiling=1.0),
        22 / (0.95 * 0.02), "mind", ("larger-resistor",), above=False,
    ),
    # A surface of 60 °C burns: 25 + 4 K/W of a metal's share (common practice; from memory).
    "load-hot": Row(
        lambda x: driven("flasher", "13V", low="13V", high="13V", drop="0V", shunt=f"{x:.6g}R", duty="100 %",
            place="metal",
                         **lamp("12V", "1.75A", "30cd")),
        169 / (35 / 4), "mind", ("cool", "no-load"), above=False,
    ),
}  # fmt: skip


def grade(position, key):
    return next((f.grade for f in verdict(position) if f.id == key), None)


@pytest.mark.parametrize("key", ROWS)
def test_it_begins_at_its_limit_and_says_what_cures_it(key):
    row = ROWS[key]
    inside, outside = row.edge / row.span, row.edge * row.span
    if not row.above:
        inside, outside = outside, inside

    def there(x):
        """Whether the finding has its grade; one grade of a finding begins where another ends."""
        return grade(row.make(x), key) == row.grade

    assert not there(inside), f"{key} is there inside its limit"
    assert there(outside), f"{key} is not there outside its limit, but {grade(row.make(outside), key)}"
    a, b = inside, outside
    for _ in range(12):
        middle = math.sqrt(a * b)
        a, b = (a, middle) if there(middle) else (middle, b)
    assert math.sqrt(a * b) == pytest.approx(row.edge, rel=0.006)
    found = next(f for f in assess(row.make(outside)).findings if f.id == key)
    assert found.figure and found.limit and found.why
    assert {r.id for r in found.remedies} == set(row.remedies)
    for remedy in found.remedies:
        assert grade(with_changes(row.make(outside), remedy.changes), key) is None, remedy.label


def test_the_gravest_stands_first():
    found = [f.grade for f in assess(dc(300, rating_w=0.125, fuse="50mA")).findings]
    assert found == sorted(found, key=["stop", "mind", "note"].index)
    assert found[0] == "stop"


@pytest.mark.parametrize(("celsius", "rated"), [(25, 20e-3), (50, 20e-3), (75, 10e-3), (90, 4e-3)])
def test_hot_air_takes_of_the_leds_rating(celsius, rated):
    """Full to 50 °C, nothing at 100 °C (data sheets of through-hole parts, from memory)."""
    assert dc(1000, ambient=f"{celsius}°C").rated_a == pytest.approx(rated)


@pytest.mark.parametrize(("celsius", "takes"), [(70, 0.25), (112.5, 0.125), (155, 0.0)])
def test_hot_air_takes_of_a_resistors_rating(celsius, takes):
    """Full to 70 °C, nothing at 155 °C (film resistors' data sheets, from memory)."""
    from swapglow.core.parts.resistor import takes_w

    assert takes_w(0.25, celsius) == pytest.approx(takes, abs=1e-12)


def test_a_part_made_for_a_sink_takes_less_without():
    """A 50 W clad part takes some 14 W in free air (data sheets, from memory)."""
    from swapglow.core.parts.resistor import rating_to_fit, takes_w

    assert takes_w(50, 25) == 14
    assert takes_w(50, 25, on_sink=True) == 50
    assert rating_to_fit(4.9) == 10
    assert rating_to_fit(5.1) is None


def test_a_resistor_carries_what_a_shunt_beyond_it_draws():
    """12 V, 470 Ω, LEDs of some 2 V with 220 Ω across them: 21 mA in the resistor, 0.21 W; the LED has 12 mA (Ohm)."""
    p = dc(470, shunt="220R", shunt_across="leds", ceiling=1.0)
    s = assess(p)
    led = s.current.usual.value
    through = led + vf(led) / 220
    assert through == pytest.approx((12 - vf(led)) / 470, rel=1e-3)
    assert s.power.each.value == pytest.approx((12 - vf(led)) ** 2 / (470 * 0.95), rel=0.01)
    assert s.power.to_fit.value == 0.5
    plain = assess(replace(p, shunt_ohm=None))
    assert s.power.each.value == pytest.approx(plain.power.each.value, rel=0.05)
