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
from tests.core.light import amps_for, candela
from tests.core.supplies import lamp, on

LN = math.log
# A point of light is seen from log E = 0.05·(log B)² + 0.573·log B − 6.667 lx at the eye on, noticed at ten times
# that; from 1 m, before 100 and 0.01 cd/m² (ICAO Annex 3, attachment; from memory).
LIT_CD = 10 * 10 ** (0.05 * 2**2 + 0.573 * 2 - 6.667)
DARK_CD = 10 * 10 ** (0.05 * 2**2 - 0.573 * 2 - 6.667)
# A red LED of 2.0 V at 20 mA: n·Vt 1.9 × 25.693 mV, 0.14 V of it ohmic.
NVT, RS_V = 1.9 * 0.025693, 0.14


def vf(amps, typ=2.0):
    """Forward volts of the table's red diffused LED by its current (Shockley 1949)."""
    return typ + NVT * LN(amps / 0.02) + RS_V * (amps / 0.02 - 1)


def dc(ohm, volts="12V", **more):
    """A steady rail of one value, an LED of one forward voltage, and a resistor."""
    return on("regulated", volts, flat=True, vf="2V", resistor=f"{ohm:.8g}R", **{"target": "5mA", **more})


SAGS = {"open": "13Vac", "load": "0.1A"}


@dataclass
class Row:
    """What makes a finding come and go, the value at which it does, and what it then says."""

    make: object
    edge: float
    grade: str
    remedies: tuple = ()
    above: bool = True
    span: float = 1.12
    # How near the edge is known by hand.
    close: float = 0.006
    # What it is called where several findings of a table are called alike.
    key: str = ""


ROWS = {
    # Rated 20 mA at the low end of a 5 % part: (12 − 2)/(0.95 R) (Ohm; data sheets).
    "over-rated-current": Row(
        lambda x: dc(x, ceiling=1.0), 10 / (0.95 * 0.02), "stop", ("larger-resistor",), above=False
    ),
    # Half of rated at the highest rail is ours (common practice).
    "over-drive-ceiling": Row(
        lambda x: dc(x), (12 - vf(0.01)) / (0.95 * 0.01), "mind", ("larger-resistor", "raise-ceiling"), above=False
    ),
    # Headroom under a fifth of the rail: rail − 3·Vf(5 mA) = rail/5 (common practice).
    "headroom-small": Row(
        lambda x: on("regulated", f"{x:.6g}V", flat=True, vf="2V", in_series=3),
        3 * vf(5e-3) / 0.8,
        "mind",
        ("fewer-in-series",),
        above=False,
    ),
    # Half of a quarter watt: I²R at the low end of 5 % (common practice).
    "resistor-over-half": Row(
        lambda x: dc(1500, f"{x:.6g}V", rating_w=0.25, ceiling=1.0),
        math.sqrt(0.125 * 1425) + vf(math.sqrt(0.125 / 1425)),
        "mind",
        ("larger-part", "two-halves", "two-same"),
    ),
    "resistor-over-rating": Row(
        lambda x: dc(1500, f"{x:.6g}V", rating_w=0.25, ceiling=1.0),
        math.sqrt(0.25 * 1425) + vf(math.sqrt(0.25 / 1425)),
        "stop",
        ("larger-part", "two-halves", "two-same"),
    ),
    # 250 V across one quarter-watt body (data sheets, from memory).
    "resistor-over-volts": Row(
        lambda x: dc(220e3, f"{x:.6g}V", rating_w=0.5, target="1mA"),
        350 + vf(350 / 209e3),
        "stop",
        ("larger-part", "two-halves", "two-same"),
    ),
    # 700 V across the largest body, however little heat (data sheets, from memory).
    "resistor-over-volts-any": Row(
        lambda x: dc(2.2e6, f"{x:.6g}V", target="0.2mA"),
        700 + vf(700 / 2.09e6),
        "stop",
        ("two-halves",),
        key="resistor-over-volts",
    ),
    # A shunt at half its rating: V²/R = 0.25 W (common practice).
    "shunt-over-rating": Row(
        lambda x: dc(2200, f"{x:.6g}V", shunt="1k", shunt_w=0.5), math.sqrt(250), "mind", ("larger-load",)
    ),
    # Three quarters of the fuse (common practice).
    "fuse-over-share": Row(
        lambda x: dc(x, fuse="16mA", ceiling=1.0),
        (12 - vf(0.012)) / (0.95 * 0.012),
        "mind",
        ("larger-resistor",),
        above=False,
    ),
    "fuse-too-small": Row(
        lambda x: dc(x, fuse="16mA", ceiling=1.0),
        (12 - vf(0.016)) / (0.95 * 0.016),
        "stop",
        ("larger-resistor",),
        above=False,
    ),
    # A pin's own limit, 16 mA, and a sane budget of 8 mA (common practice).
    "pin-over-budget": Row(
        lambda x: on("logic", "5V", {"pin": "16mA"}, flat=True, vf="2V", resistor=f"{x:.6g}R", ceiling=1.0),
        (5 - vf(0.008)) / (0.95 * 0.008),
        "mind",
        ("larger-resistor",),
        above=False,
    ),
    # Half of a trip current that is only known by name (ours): 1.2 mA trips, 0.6 mA is kept to.
    "line-reads-closed": Row(
        lambda x: on(
            "sense", "9V", {"source": "1k", "trip": "1.2mA"}, flat=True, vf="2V", resistor=f"{x:.6g}R", target="0.4mA"
        ),
        ((9 - vf(0.6e-3)) / 0.6e-3 - 1000) / 0.95,
        "mind",
        ("larger-resistor", "brighter-led"),
        above=False,
    ),
    # A quarter of the old lamp's light is two halvings (common practice).
    "dimmer-than-old": Row(
        lambda x: dc(1000, lamp_id="own", lamp_volts="12V", lamp_amps="0.05A", lamp_candela=f"{x:.6g}cd"),
        candela((12 - vf(10.1e-3)) / 1000) / 0.25,
        "mind",
        ("brighter-led",),
    ),
    "brighter-than-old": Row(
        lambda x: dc(1000, lamp_id="own", lamp_volts="12V", lamp_amps="0.05A", lamp_candela=f"{x:.6g}cd"),
        candela((12 - vf(10.1e-3)) / 1000) / 4,
        "note",
        ("match-old",),
        above=False,
    ),
    # A tenth of its usual light at the lowest rail (ours).
    "dim-at-lowest": Row(
        lambda x: on("regulated", "12V", low=f"{x:.6g}V", high="12V", vf="2V", in_series=3, resistor="1k"),
        3 * vf((12 - 3 * 1.856) / 1000 / 10) + (12 - 3 * 1.856) / 10,
        "mind",
        ("fewer-in-series",),
        above=False,
    ),
    # A module's band ends at 15 V (its maker's word).
    "module-over-band": Row(
        lambda x: on(
            "regulated",
            f"{x:.6g}V",
            low="12V",
            high=f"{x:.6g}V",
            led_id="white-5-clear",
            band="10-15V",
            module={"amps": "20mA", "polarised": "no"},
        ),
        15.0,
        "stop",
    ),
    "module-under-band": Row(
        lambda x: on(
            "regulated",
            "12V",
            low=f"{x:.6g}V",
            high="12V",
            led_id="white-5-clear",
            band="10-15V",
            module={"amps": "20mA", "polarised": "yes"},
        ),
        10.0,
        "mind",
        (),
        above=False,
    ),
    # A fixed regulator's dropout: 5 V and 2 V (data sheets, from memory).
    "regulator-dropout": Row(
        lambda x: driven("direct", "12V", low=f"{x:.6g}V", high="12V", regulator_id="fixed-5-to220"),
        7.0,
        "mind",
        (),
        above=False,
    ),
    # Its highest input is 35 V (data sheets, from memory).
    "regulator-over-volts": Row(
        lambda x: driven("direct", "24V", low="20V", high=f"{x:.6g}V", regulator_id="fixed-5-to220"), 35.0, "stop"
    ),
    # 85 °C of junction: 25 + 65·((V − 5)·I + 5 mA·V), I I all of (5·1.04 − 2.02)/(0.95·150) (data sheets).
    "regulator-hot": Row(
        lambda x: driven(
            "direct",
            f"{x:.6g}V",
            low="9V",
            high=f"{x:.6g}V",
            vf="2V",
            regulator_id="fixed-5-to220",
            resistor="150R",
            target="20mA",
            ceiling=1.0,
        ),
        (60 / 65 + 5 * 0.02229) / (0.02229 + 0.005),
        "mind",
        ("heat-sink",),
    ),
    # What a TO-92 source must carry to hold: 2.5 mA, of it 50 µA by its adjust pin (data sheets, from memory).
    "regulator-least-load": Row(
        lambda x: driven("direct", "12V", flat=True, vf="2V", regulator_id="adjustable-to92", resistor=f"{x:.6g}R"),
        1.25 / 2.45e-3 / 1.09,
        "mind",
        ("no-regulator",),
    ),
    # A coin cell gives some 3 mA for long (data sheets, from memory).
    "cell-over-limit": Row(
        lambda x: on(
            "battery",
            "3V",
            {"chemistry": "coin-20", "cells": "1", "source": "0.1R"},
            flat=True,
            vf="2V",
            resistor=f"{x:.6g}R",
        ),
        (3 - vf(3e-3)) / (0.95 * 3e-3),
        "mind",
        ("larger-resistor",),
        above=False,
    ),
    # A load dump of 35 V lasts: twice rated, 40 mA, is the limit (ISO 16750-2; ours).
    "vehicle-surge": Row(
        lambda x: on("vehicle", "13.8V", low="11.5V", high="14.7V", vf="2V", resistor=f"{x:.6g}R"),
        (35 - vf(0.04)) / (0.95 * 0.04),
        "mind",
        ("larger-resistor",),
        above=False,
    ),
    # A jump start of 24 V for a minute is judged as steady: rated 20 mA (ISO 16750-2).
    "jump-start": Row(
        lambda x: on("vehicle", "13.8V", low="11.5V", high="14.7V", vf="2V", resistor=f"{x:.6g}R", ceiling=1.0),
        22 / (0.95 * 0.02),
        "mind",
        ("larger-resistor",),
        above=False,
    ),
    # A surface of 60 °C burns: 25 + 4 K/W of a metal's share (common practice; from memory).
    "load-hot": Row(
        lambda x: driven(
            "flasher",
            "13V",
            flat=True,
            drop="0V",
            shunt=f"{x:.6g}R",
            duty="100 %",
            place="metal",
            **lamp("12V", "1.75A", "30cd"),
        ),
        169 / (35 / 4),
        "mind",
        ("cool", "no-load"),
        above=False,
    ),
    # Noticed in a lit room from 47.8 µcd on, by three LEDs (ICAO's point light times ten; from memory).
    "will-not-light": Row(
        lambda x: on("regulated", "12V", low=f"{x:.6g}V", high="12V", vf="2V", in_series=3, resistor="1k"),
        3 * vf(amps_for(LIT_CD / 3)) + 1050 * amps_for(LIT_CD / 3),
        "stop",
        ("fewer-in-series",),
        above=False,
        close=0.001,
    ),
    # More than any part takes at half its rating: 10 W without a sink, in the resistor's low end (data sheets).
    "no-resistor-fits": Row(
        lambda x: dc(100, f"{x:.6g}V"), math.sqrt(5 * 95) + vf(math.sqrt(5 / 95)), "stop", ("two-halves",)
    ),
    "no-shunt-fits": Row(lambda x: dc(2200, f"{x:.6g}V", shunt="100R"), math.sqrt(5 * 100), "stop"),
    # Ten times the new load (ours).
    "fuse-wide": Row(lambda x: dc(2200, fuse=f"{x:.6g}A", ceiling=1.0), 10 * (12 - vf(4.8e-3)) / (0.95 * 2200), "note"),
    # The LED draws under half of what the lamp did (ours).
    "lamp-volts-will-rise": Row(
        lambda x: dc(1000, read_at="lamp", **lamp("12V", f"{x:.6g}A")), 2 * (12 - vf(10.1e-3)) / 1000, "note"
    ),
    # A vehicle that charges at 14.7 V was read to 3 % less (common practice).
    "below-charging": Row(
        lambda x: on("vehicle", "12.6V", low="11.5V", high=f"{x:.6g}V", vf="2V", resistor="1100R"),
        0.97 * 14.7,
        "mind",
        ("larger-resistor",),
        above=False,
    ),
    # 7.4 V charging on a 6 V system, 29 V on a 24 V one (common practice).
    "below-charging-6": Row(
        lambda x: on("vehicle", "6.3V", {"system": "6"}, low="5.5V", high=f"{x:.6g}V", vf="2V", resistor="510R"),
        0.97 * 7.4,
        "mind",
        ("larger-resistor",),
        above=False,
        key="below-charging",
    ),
    "below-charging-24": Row(
        lambda x: on("vehicle", "25V", {"system": "24"}, low="22V", high=f"{x:.6g}V", vf="2V", resistor="2700R"),
        0.97 * 29.0,
        "mind",
        ("larger-resistor",),
        above=False,
        key="below-charging",
    ),
    # Under a tenth of its light while the starter turns: by then the resistor has 10·x as much (Ohm).
    "dark-while-cranking": Row(
        lambda x: on(
            "vehicle", "12.5V", {"crank": f"{x:.6g}V"}, low="11.5V", high="14.7V", vf="2V", in_series=3, resistor="1k"
        ),
        3 * vf((12.5 - 3 * 1.907) / 1000 / 10) + (12.5 - 3 * 1.907) / 10,
        "note",
        (),
        above=False,
    ),
    # Cells of x ohms are 30 % of what limits it (ours); on 0.3 Ω it carries 10 mA.
    "cell-limits-current-within": Row(
        lambda x: on(
            "battery",
            "3V",
            {"chemistry": "alkaline-aa", "cells": "2", "source": f"{x:.6g}R"},
            flat=True,
            vf="2V",
            resistor="100R",
        ),
        0.3 * 100 / 0.7,
        "note",
    ),
    # On 0.3 Ω it carries more than rated: 1 V in 0.95 R and 0.3 Ω (Ohm).
    "cell-limits-current": Row(
        lambda x: on(
            "battery",
            "3V",
            {"chemistry": "alkaline-aa", "cells": "2", "source": "100R"},
            flat=True,
            vf="2V",
            resistor=f"{x:.6g}R",
        ),
        (1 / 0.02 - 0.3) / 0.95,
        "mind",
        ("larger-resistor",),
        above=False,
    ),
    # 1.25 times the crest of a sine (common practice): 50 V are for 28.3 V RMS; the crest itself is a stop.
    "capacitor-over-volts": Row(
        lambda x: on("winding", f"{x:.6g}Vac", flat=True, rectification="bridge_cap", capacitor_v="50V"),
        50 / 1.25 / math.sqrt(2),
        "mind",
        ("capacitor-rating",),
    ),
    "capacitor-over-volts-stop": Row(
        lambda x: on("winding", f"{x:.6g}Vac", flat=True, rectification="bridge_cap", capacitor_v="50V"),
        50 / math.sqrt(2),
        "stop",
        ("capacitor-rating",),
        key="capacitor-over-volts",
    ),
    # An LED takes 5 V in reverse (data sheets); bare on a sine it sees the crest.
    "led-reverse": Row(
        lambda x: on("winding", f"{x:.6g}Vac", flat=True, vf="2V", rectification="bare", resistor="1k"),
        5 / math.sqrt(2),
        "stop",
        ("rectify-inverse-diode", "rectify-bridge-cap"),
    ),
    # Four times that is more than a note behind a series diode that leaks the more (ours).
    "led-reverse-far": Row(
        lambda x: on("winding", f"{x:.6g}Vac", flat=True, vf="2V", rectification="half_wave", resistor="3k3"),
        20 / math.sqrt(2),
        "mind",
        ("rectify-inverse-diode", "rectify-bridge-cap"),
        key="led-reverse",
        close=0.02,
    ),
    # C·V²/2R at the crest of 13 V open, 10 Ω of sag before 0.2 and two diodes of 0.045; half of 0.4 s times the
    # square of a quick fuse, of 4 s of a time-lag one (textbook; data sheets, from memory).
    "inrush-fuse": Row(
        lambda x: on(
            "winding",
            "12Vac",
            SAGS,
            flat=True,
            vf="2V",
            rectification="bridge_cap",
            capacitor="100uF",
            capacitor_v="63V",
            fuse=f"{x:.6g}A",
        ),
        math.sqrt(100e-6 * 2 * 13**2 / 2 / 10.29 / 0.2),
        "mind",
        above=False,
    ),
    "inrush-fuse-stop": Row(
        lambda x: on(
            "winding",
            "12Vac",
            SAGS,
            flat=True,
            vf="2V",
            rectification="bridge_cap",
            capacitor="4700uF",
            capacitor_v="63V",
            fuse=f"{x:.6g}A",
        ),
        math.sqrt(4700e-6 * 2 * 13**2 / 2 / 10.29 / 2.0),
        "stop",
        above=False,
        key="inrush-fuse",
    ),
    # A half-sine of 30 A for 8.3 ms lets through 3.735 A²s (data sheets of 1 A parts, from memory).
    "inrush-rectifier": Row(
        lambda x: on(
            "winding",
            "60Vac",
            {"open": "61Vac", "load": "1A"},
            flat=True,
            vf="2V",
            rectification="bridge_cap",
            capacitor=f"{x * 1e6:.6g}uF",
            capacitor_v="160V",
        ),
        2 * 1.29 * 30**2 * 8.3e-3 / 2 / (2 * 61**2),
        "stop",
    ),
    # Twice rated at the crest (ours): √2·12 V less LED and a diode's 0.73 V at 40 mA (Shockley).
    "crest-current": Row(
        lambda x: on(
            "winding", "12Vac", flat=True, vf="2V", rectification="half_wave", resistor=f"{x:.6g}R", ceiling=1.0
        ),
        (12 * math.sqrt(2) - vf(0.04) - 0.73) / (0.95 * 0.04),
        "mind",
        ("rectify-bridge-cap",),
        above=False,
    ),
    # All of it flickers, at twice the line: low-risk from 1250 Hz of it on (IEEE 1789-2015: 0.08·f).
    "flicker": Row(
        lambda x: on(
            "stator",
            "12Vac",
            {"hertz_low": f"{x:.6g}Hz", "hertz": f"{1.01 * x:.6g}Hz", "hertz_high": f"{1.02 * x:.6g}Hz"},
            low="11Vac",
            high="13Vac",
            vf="2V",
            rectification="bridge",
        ),
        625.0,
        "mind",
        ("rectify-bridge-cap", "rectify-half-wave-cap"),
        above=False,
    ),
    # A ready-made lamp to 15 V on a sine: its crest is 1.414 times the mean.
    "module-crest-over-band": Row(
        lambda x: on(
            "winding",
            f"{x:.6g}Vac",
            flat=True,
            led_id="white-5-clear",
            band="9-15V",
            rectification="bare",
            module={"amps": "20mA", "polarised": "no"},
        ),
        15 / math.sqrt(2),
        "mind",
    ),
    # What law allows a turn lamp, 60 to 120 a minute (UN R48, FMVSS 108).
    "flash-rate": Row(lambda x: driven("flasher", "13V", rate=f"{x:.6g}"), 120.0, "mind"),
    "flash-rate-low": Row(
        lambda x: driven("flasher", "13V", rate=f"{x:.6g}"), 60.0, "mind", above=False, key="flash-rate"
    ),
    # Off, seen in a dark room from 0.244 µcd on, in a lit one from 47.8 µcd on (ICAO times ten; from memory). What
    # leaks was read at 12 V; with the LED's volts off it less does (Ohm).
    "glows-when-off": Row(
        lambda x: driven("low_side", "12V", "0.1V", flat=True, vf="2V", leak=f"{x:.6g}A"),
        amps_for(DARK_CD) * 12 / (12 - vf(amps_for(DARK_CD))),
        "mind",
        ("shunt-assembly", "shunt-leds"),
    ),
    "glows-when-off-stop": Row(
        lambda x: driven("low_side", "12V", "0.1V", flat=True, vf="2V", leak=f"{x:.6g}A"),
        amps_for(LIT_CD) * 12 / (12 - vf(amps_for(LIT_CD))),
        "stop",
        ("shunt-assembly", "shunt-leds"),
        key="glows-when-off",
    ),
}


def grade(position, key):
    return next((f.grade for f in verdict(position) if f.id == key), None)


@pytest.mark.parametrize("key", ROWS)
def test_it_begins_at_its_limit_and_says_what_cures_it(key):
    row = ROWS[key]
    key = row.key or key
    inside, outside = row.edge / row.span, row.edge * row.span
    if not row.above:
        inside, outside = outside, inside

    def there(x):
        """Whether the finding has its grade; one grade of a finding begins where another ends."""
        return grade(row.make(x), key) == row.grade

    assert not there(inside), f"{key} is there inside its limit"
    assert there(outside), f"{key} is not there outside its limit, but {grade(row.make(outside), key)}"
    # Just inside and just outside, as near as the sum by hand is good.
    within, beyond = row.edge * (1 - row.close), row.edge * (1 + row.close)
    if not row.above:
        within, beyond = beyond, within
    assert not there(within), f"{key} is there at {within:.6g} already, inside {row.edge:.6g}"
    assert there(beyond), f"{key} is not there yet at {beyond:.6g}, outside {row.edge:.6g}"
    found = next(f for f in assess(row.make(outside)).findings if f.id == key)
    assert found.figure and found.limit and found.why
    assert {r.id for r in found.remedies} == set(row.remedies)
    for remedy in found.remedies:
        assert grade(with_changes(row.make(outside), remedy.changes), key) is None, remedy.label


MODULE = {"led_id": "white-5-clear", "module": {"amps": "20mA", "polarised": "yes"}}
VEHICLE = {"low": "11.5V", "high": "14.7V", "vf": "2V", "resistor": "2k2"}
TURN = lamp("12V", "1.75A", "30cd")


def sense(details):
    return on("sense", "9V", details, flat=True, vf="2V", resistor="8k2", target="0.4mA")


def alike(kind, **details):
    return driven(kind, "12Vac", supply="winding", rectification="bridge", **details)


# What a finding says of a fact that is there or not: its grade, figure, limit, remedies, and words it must have.
FACTS = [
    ("nothing-measured", on("regulated", "12V", source="assumed"), "mind", "0 readings", "1 reading", (), "assumed"),
    ("nothing-measured", on("regulated", "12V", source="marked"), "mind", "0 readings", "1 reading", (), "as marked"),
    ("rail-swing-unknown", on("regulated", "12V"), "note", "±0 %", "a lowest and a highest reading", (), "12 V"),
    ("polarity", dc(1000, "4V"), "note", "4 V", "5 V", (), "it may take 5 V"),
    ("polarity", dc(1000), "note", "12 V", "5 V", (), "over its 5 V"),
    # In reverse the one that leaks least takes nearly all of it: three stand no more than one (common practice).
    ("polarity", dc(1000, in_series=3), "note", "12 V", "5 V", (), "any one of the 3 LEDs can see 12 V"),
    # √2·7.5 V: three LEDs at 5 V each would stand it if they shared it, two would not.
    (
        "led-reverse",
        on("winding", "7.5Vac", flat=True, vf="2V", in_series=3, rectification="bare"),
        "mind",
        "10.6 V",
        "5 V",
        ("rectify-inverse-diode", "rectify-bridge-cap"),
        "any one of the 3 LEDs",
    ),
    (
        "led-reverse",
        on("winding", "7.5Vac", flat=True, vf="2V", in_series=2, rectification="bare"),
        "stop",
        "10.6 V",
        "5 V",
        ("rectify-inverse-diode", "rectify-bridge-cap"),
        "any one of the 2 LEDs",
    ),
    # (9 − 2)/(0.95·8.2 k + 1 k) and the LED's lower volts there: 829 µA (Ohm, Shockley).
    ("trip-unknown", sense({"source": "1k"}), "mind", "829 µA", "the trip current", (), "829 µA"),
    # (9 − 0.65)/101 k, beside half of the trip current (common practice).
    ("line-by-transistor", sense({"source": "1k", "trip": "1mA"}), "note", "83 µA", "500 µA", (), "100 kΩ"),
    (
        "resistor-in-common",
        dc(1000, common="negative", lead="negative"),
        "mind",
        "negative lead",
        "positive lead",
        ("other-lead",),
        "The negative wire",
    ),
    (
        "resistor-in-common",
        dc(1000, common="positive", lead="positive"),
        "mind",
        "positive lead",
        "negative lead",
        ("other-lead",),
        "The positive wire",
    ),
    (
        "resistor-in-common",
        dc(1000, details={"frame_pole": "minus"}, common="chassis", lead="negative"),
        "mind",
        "negative lead",
        "positive lead",
        ("other-lead",),
        "The chassis",
    ),
    (
        "resistor-in-common",
        dc(1000, details={"frame_pole": "plus"}, common="chassis"),
        "mind",
        "positive lead",
        "negative lead",
        ("other-lead",),
        "The chassis",
    ),
    # On AC the chassis is a rectifier's negative, whatever stands behind it.
    (
        "resistor-in-common",
        on("winding", "12Vac", {"grounded": "no"}, rectification="half_wave", common="chassis", lead="negative"),
        "mind",
        "negative lead",
        "positive lead",
        ("other-lead",),
        "The chassis",
    ),
    # Nothing assumes a minus frame (common practice: older vehicles and telephone supplies have plus there).
    ("frame-unread", dc(1000, common="chassis"), "mind", "not read", "minus, plus or neither", (), "nobody has read"),
    (
        "plus-on-frame",
        dc(1000, details={"frame_pole": "plus"}, common="chassis", lead="negative"),
        "note",
        "plus",
        "minus is usual",
        (),
        "plus goes to the shell",
    ),
    (
        "plus-on-frame",
        on("vehicle", "6.9V", {"system": "6", "frame_pole": "plus"}, band="5-8V", **MODULE),
        "note",
        "plus",
        "minus is usual",
        (),
        "its minus to the feed",
    ),
    (
        "negative-on-plus",
        dc(1000, details={"frame_pole": "plus"}, chassis_negative=True),
        "stop",
        "minus on plus",
        "its plus on the frame",
        ("off-frame",),
        "touches it",
    ),
    (
        "module-polarised",
        on("regulated", "12V", band="10-15V", **MODULE),
        "note",
        "polarised",
        "either way round",
        (),
        "turn it if it stays dark",
    ),
    (
        "module-in-reverse",
        on("winding", "9Vac", {"grounded": "no"}, band="6-15V", rectification="bare", **MODULE),
        "mind",
        "polarised",
        "either way round",
        ("rectify-bridge-cap", "rectify-half-wave-cap"),
        "this supply turns round",
    ),
    (
        "module-polarised",
        on("winding", "9Vac", band="6-15V", rectification="bridge", **MODULE),
        "note",
        "polarised",
        "either way round",
        (),
        "to the rectifier's",
    ),
    # ISO 7637-2, pulse 1 (from memory).
    ("negative-spikes", on("vehicle", "13.8V", **VEHICLE), "note", "−100 V", "5 V", ("series-diode",), "−100 V"),
    # (35 − Vf)/(0.95·2.2 k): within twice rated (ISO 16750-2).
    ("vehicle-surge-within", on("vehicle", "13.8V", **VEHICLE), "note", "15.8 mA", "40 mA", (), "35 V"),
    # (14.7 − Vf)/(0.95·2.2 k).
    (
        "below-charging-within",
        on("vehicle", "12.6V", **{**VEHICLE, "high": "13V"}),
        "note",
        "6.15 mA",
        "10 mA",
        (),
        "14.7 V",
    ),
    (
        "driver-on-ac",
        alike("low_side", drop="0.2V", leak="1mA"),
        "mind",
        "transistor to ground",
        "a steady supply",
        (),
        "what leads past it when it is off and its off state",
    ),
    (
        "driver-on-ac",
        alike("flasher", lamp=TURN),
        "mind",
        "flasher that counts current",
        "a steady supply",
        (),
        "the current it counts",
    ),
    ("driver-unknown", driven("flasher", "13V"), "mind", "not known", "a figure", (), "under which it flashes fast"),
    ("driver-unknown", driven("lamp_check", "13V"), "mind", "not known", "a figure", (), "how often it comes"),
    # 17.8 mA through 42 Ω cold: 0.19 V (a cold filament is a tenth, common practice); two of them.
    (
        "others-go-dark",
        driven("series_lamps", "24V", "0V", others="2", other_volts="6.3V", other_amps="0.15A", resistor="1k", vf="2V"),
        "stop",
        "186 mV",
        "6.3 V",
        ("one-string", "in-branches"),
        "lamps left",
    ),
    # One of 20 mA is nearly lit by 17 mA: more than a third of its volts.
    (
        "others-go-dark",
        driven("series_lamps", "24V", "0V", others="1", other_volts="6.3V", other_amps="0.02A", resistor="1k", vf="2V"),
        "mind",
        "4.8 V",
        "6.3 V",
        ("one-string", "in-branches"),
        "lamp left",
    ),
    # 24 V less 68 Ω times 23 mA (Ohm).
    (
        "neighbour-over-sensor",
        driven(
            "shared",
            "24V",
            "0V",
            dropper="68R",
            loads="sensor 3mA max 20V",
            resistor="1k",
            vf="2V",
            lamp=lamp("12V", "0.1A"),
        ),
        "stop",
        "22.4 V",
        "20 V",
        ("bleeder",),
        "it may see 20 V",
    ),
    (
        "neighbours-change",
        driven(
            "shared",
            "24V",
            "0V",
            dropper="68R",
            loads="sensor 3mA max 30V",
            resistor="1k",
            vf="2V",
            lamp=lamp("12V", "0.1A"),
        ),
        "note",
        "22.4 V",
        "15.9 V",
        (),
        "15.9 V to 22.4 V",
    ),
    # 5.5 mA show 42.4 mcd (by hand: candela); for 2 ms that is 42.4·2/202 (Blondel and Rey 1911).
    (
        "check-pulse-seen",
        driven("lamp_check", "13V", flat=True, vf="2V", resistor="1k", pulse="2ms", period="250ms", pulse_source="1k"),
        "mind",
        "420 µcd",
        "48 µcd",
        ("coding", "swallow-pulse"),
        "2 ms at 5.47 mA",
    ),
    # 60 % of 500 mA are under the 400 mA that trip it.
    (
        "throttles",
        driven(
            "flasher",
            "12.8V",
            band="10-15V",
            trip="0.4A",
            lamp=TURN,
            module={"amps": "500mA", "law": "current", "polarised": "yes", "throttle": "60 %", "after": "40s"},
        ),
        "mind",
        "300 mA",
        "400 mA",
        ("cool",),
        "about 40 s it turns down to 60 %",
    ),
    # Three LEDs and 175 Ω, two and 325, one and 475 all draw 20 mA at 12.5 V; at 10 to 15 V not (Ohm).
    (
        "inside-estimated",
        on("regulated", "11V", flat=True, band="10-15V", **MODULE),
        "note",
        "3 possible",
        "one",
        (),
        "3 LEDs and 160 Ω",
    ),
    # √2·260 V, over what 450 V parts are for with a quarter to spare (common practice).
    (
        "no-capacitor-fits",
        on("winding", "260Vac", flat=True, rectification="bridge_cap"),
        "stop",
        "368 V",
        "360 V",
        ("rectify-inverse-diode",),
        "368 V",
    ),
    (
        "regulator-pins",
        driven("direct", "12V", regulator_id="fixed-5-to220"),
        "note",
        "TO-220",
        "its data sheet",
        (),
        "in · ground · out",
    ),
    # √2·13.2 V: a tenth over 12 V (common practice), across one diode while the source's leg is on the frame.
    (
        "bridge-on-frame",
        on("winding", "12Vac", {"grounded": "yes"}, rectification="bridge_cap", chassis_negative=True),
        "stop",
        "18.7 V across one diode",
        "0 V: the DC side off the frame",
        ("rectify-half-wave-cap", "off-frame"),
        "is a short circuit",
    ),
    (
        "bridge-on-frame",
        on("winding", "12Vac", rectification="bridge_cap", chassis_negative=True),
        "mind",
        "18.7 V across one diode",
        "0 V: the DC side off the frame",
        ("rectify-half-wave-cap", "off-frame"),
        "if the source has a leg there too",
    ),
    # (9 − 2)/7 mA is 1 kΩ; the capacitor stands at √2·9 V (Ohm).
    (
        "rms-for-peak",
        on("winding", "9Vac", rectification="bridge_cap", target="7mA", resistor="1k"),
        "mind",
        "1 kΩ",
        "1.28 kΩ",
        ("follow-the-sum",),
        "12.7 V",
    ),
    (
        "module-over-band",
        on("regulated", "23V", led_id="white-5-clear", band="9-13V", resistor="1k"),
        "stop",
        "23 V",
        "13 V",
        ("modules-in-series",),
        "9 to 13 V would see 23 V",
    ),
    (
        "pin-over-budget",
        on("logic", "3.3V", {"pin": "6mA"}, target="9mA"),
        "stop",
        "10.5 mA",
        "6 mA",
        ("larger-resistor",),
        "it may give 6 mA",
    ),
    ("digital-track", on("digital", "15V"), "note", "±15 V", "14 to 22 V is usual", (), "±15 V"),
    # Two silicon diodes at 0.6 V and a red LED at a twentieth of rated, 1.74 V (Shockley).
    (
        "least-track-volts",
        on("reversing", "9V", low="2.5V", high="13V", rectification="bridge", vf="2V"),
        "note",
        "2.9 V",
        "2.5 V",
        (),
        "22 % of full",
    ),
]

# The same findings, where they have nothing to say.
SILENT = [
    ("nothing-measured", dc(1000)),
    ("rail-swing-unknown", dc(1000)),
    ("trip-unknown", sense({"source": "1k", "trip": "2mA"})),
    ("line-by-transistor", sense({"source": "1k", "trip": "2mA"})),
    ("resistor-in-common", dc(1000, common="negative", lead="positive")),
    ("resistor-in-common", dc(1000, common="none", lead="negative")),
    (
        "module-polarised",
        on("regulated", "12V", band="10-15V", led_id="white-5-clear", module={"amps": "20mA", "polarised": "no"}),
    ),
    ("negative-spikes", on("vehicle", "13.8V", series_diodes=1, **VEHICLE)),
    ("driver-on-ac", alike("direct")),
    ("driver-unknown", driven("flasher", "13V", lamp=TURN)),
    (
        "others-go-dark",
        driven("series_lamps", "24V", others="2", other_volts="6.3V", other_amps="0.15A", changed="yes"),
    ),
    (
        "neighbour-over-sensor",
        driven(
            "shared",
            "24V",
            "0V",
            dropper="68R",
            loads="sensor 3mA max 23V",
            resistor="1k",
            vf="2V",
            lamp=lamp("12V", "0.1A"),
        ),
    ),
    (
        "check-pulse-seen",
        driven(
            "lamp_check", "13V", flat=True, vf="2V", resistor="1k", pulse="1us", period="250ms", pulse_source="100k"
        ),
    ),
    # 60 % of 700 mA are over 400 mA.
    (
        "throttles",
        driven(
            "flasher",
            "12.8V",
            band="10-15V",
            trip="0.4A",
            lamp=TURN,
            module={"amps": "700mA", "law": "current", "polarised": "yes", "throttle": "60 %", "after": "40s"},
        ),
    ),
    # At the volts it is known at every inside draws the same.
    ("inside-estimated", on("regulated", "12.5V", flat=True, band="10-15V", **MODULE)),
    ("no-capacitor-fits", on("winding", "250Vac", flat=True, rectification="bridge_cap")),
]


@pytest.mark.parametrize(
    ("key", "position", "grade_", "figure", "limit", "remedies", "words"), FACTS, ids=[f[0] for f in FACTS]
)
def test_a_fact_is_said_with_its_figure_and_its_limit(key, position, grade_, figure, limit, remedies, words):
    f = next(f for f in assess(position).findings if f.id == key)
    assert (f.grade, f.figure.replace("\u00a0", " "), f.limit.replace("\u00a0", " ")) == (grade_, figure, limit)
    assert {r.id for r in f.remedies} == set(remedies)
    assert words in f.message.replace("\u00a0", " ")
    for remedy in f.remedies:
        assert grade(with_changes(position, remedy.changes), key) is None, remedy.label


@pytest.mark.parametrize(("key", "position"), SILENT, ids=[f[0] for f in SILENT])
def test_what_is_not_so_is_not_said(key, position):
    assert grade(position, key) is None


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
    assert rating_to_fit(4.9, 0) == 10
    assert rating_to_fit(5.1, 0) is None


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


@pytest.mark.parametrize("pole", ["unknown", "minus", "neither"])
def test_a_frame_that_is_not_plus_is_not_said_to_be(pole):
    p = dc(1000, details={"frame_pole": pole}, common="chassis", lead="negative", chassis_negative=True)
    said = {f.id for f in assess(p).findings} & {"plus-on-frame", "negative-on-plus", "frame-unread"}
    assert said == ({"frame-unread"} if pole == "unknown" else set())


@pytest.mark.parametrize(("farads", "time_lag"), [("10uF", False), ("470uF", True)])
def test_the_fuse_that_is_asked_for_stands_the_first_charge(farads, time_lag):
    """It carries 4/3 of the current, and half of 0.4 s (quick) or 4 s times its square is over C·V²/2R (textbook)."""
    p = on(
        "winding", "12Vac", SAGS, flat=True, vf="2V", rectification="bridge_cap", capacitor=farads, capacitor_v="63V"
    )
    r = assess(p)
    charge = float(farads[:-2]) * 1e-6 * 2 * 13**2 / 2 / 10.29
    rated = r.current.fuse.value
    assert charge <= (2.0 if time_lag else 0.2) * rated**2 and r.current.supply.value <= 0.75 * rated
    assert ("time-lag" in r.current.fuse.origin) is time_lag
    power = next(s for s in r.build if s.id == "power")
    assert ("time-lag" in power.facts[0].text) is time_lag
    judged = {f.id: f.grade for f in assess(replace(p, rail=replace(p.rail, fuse_a=rated))).findings}
    assert judged.get("inrush-fuse") == ("mind" if time_lag else None)
