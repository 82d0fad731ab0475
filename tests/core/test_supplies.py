"""Each kind of supply: arithmetic against worked examples, and refusals in words."""

import itertools

import numpy as np
import pytest

from swapglow.core.analysis.battery_life import battery_life, discharge, hours_until
from swapglow.core.analysis.draws import Member
from swapglow.core.assess import Bench, assess
from swapglow.core.parts.cells import Battery, chemistries
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.presentation.budget import rail_budget
from swapglow.core.quantities import InputError
from swapglow.core.supplies.rail_line import rail_line
from swapglow.core.supplies.supply import source_resistance
from tests.core.supplies import lamp, on


def test_source_resistance_of_a_worked_example():
    """R = (Vopen − Vloaded)/I (Ohm): 24 V open, 19.5 V at 150 mA is 30 Ω."""
    assert source_resistance(24.0, 19.5, 0.150) == pytest.approx(30)
    p = on("unregulated", "19.5V", {"open": "24V", "load": "150mA"})
    assert p.rail.supply.source_ohm.value == pytest.approx(30)
    assert p.rail.volts[1] == pytest.approx(24)
    with pytest.raises(ValueError, match="more than 0 A"):
        source_resistance(12, 11, 0)


def test_a_lighter_load_sees_more_than_the_old_lamp_did():
    """Thévenin: at the LED's current the rail stands at Vopen − I·R."""
    r = assess(on("unregulated", "19.5V", {"open": "24V", "load": "150mA"}))
    stairs = {s.id: s for s in r.snapshots[0].staircase.stairs}
    amps = r.current.usual.value
    assert stairs["source"].drop.usual == pytest.approx(30 * amps, rel=1e-6)
    assert stairs["source"].level.usual > 23.5


def test_the_old_lamp_stands_in_for_a_load_nobody_read():
    p = on("winding", "7Vac", {"open": "8.4V"}, lamp=lamp("7V", "0.2A"))
    assert p.rail.supply.source_ohm.value == pytest.approx(1.4 / 0.2)
    unknown = on("winding", "7Vac", {"open": "8.4V"})
    assert unknown.rail.supply.source_ohm.value == 0
    assert unknown.rail.volts[1] == pytest.approx(8.4)


def test_five_hundred_milliamp_hours_at_ten_milliamps_last_fifty_hours():
    """Q/I, for a load that does not follow the volts."""
    block = chemistries()["block-9"]
    run = discharge(Battery(block, 6, 0.5, 9.48, 6.0), lambda v: np.full_like(v, 0.010))
    assert run.spent_h == pytest.approx(50)
    assert hours_until(run, run.volts, 0.0) == pytest.approx(50)
    assert 0 < hours_until(run, run.volts, 8.0) < 25


def test_a_resistive_load_lasts_by_the_integral():
    """t = ∫ Q·dq·R/V(q), by the trapezoid on a finer grid."""
    cells = Battery(chemistries()["coin-20"], 1, 0.22, 3.2, 2.0)
    run = discharge(cells, lambda v: v / 1000)
    q = np.linspace(0, 1, 20_001)
    assert run.spent_h == pytest.approx(np.trapezoid(0.22 * 1000 / cells.volts(q), q), rel=1e-3)


def test_an_led_outlasts_the_filament_on_the_same_cell():
    r = assess(on("battery", "", {"chemistry": "coin-20"}, target="2mA", lamp=lamp("2.8V", "0.03A")))
    assert r.runtime.led.value > 5 * r.runtime.lamp.value
    light = [point.light for point in r.runtime.led_curve]
    assert light[0] == 1
    assert all(a >= b for a, b in itertools.pairwise(light))


def test_the_old_lamps_light_falls_with_the_3_5th_power_of_its_volts():
    """I ∝ V^0.55 and light ∝ V^3.5 (miniature lamp handbooks, from memory); behind 0.5 Ω by Kirchhoff, by halving."""
    cells = {"chemistry": "alkaline-aa", "cells": "2", "source": "0.5R"}
    p = on("battery", "", cells, target="2mA", lamp=lamp("2.5V", "0.3A"))
    life = battery_life(p.rail, [Member("a", "A", p)], "before")
    at_lamp = []
    for opened in life.run.volts:
        low, high = 0.0, float(opened)
        for _ in range(60):
            v = (low + high) / 2
            low, high = (low, v) if v + 0.5 * 0.3 * (v / 2.5) ** 0.55 > opened else (v, high)
        at_lamp.append(low)
    at_lamp = np.array(at_lamp)
    assert life.run.amps == pytest.approx(0.3 * (at_lamp / 2.5) ** 0.55, rel=1e-3)
    assert life.light["a"] == pytest.approx((at_lamp / at_lamp[0]) ** 3.5, rel=3e-3)
    assert life.light["a"][-1] < life.light["a"][0] == 1
    # Its hours are to where it gives the floor's share of its first light.
    assert life.hours == pytest.approx(np.interp(-p.glow_floor, -life.light["a"], life.run.hours), rel=0.02)


def test_one_battery_has_one_life_wherever_it_is_shown():
    """Three unlike lamps on one battery: item, document and each lamp's view give one figure."""
    cells = {"chemistry": "alkaline-aa", "cells": "2", "source": "0.5R"}
    made = [on("battery", "", cells, target=t, lamp=lamp("2.5V", "0.3A")) for t in ("2mA", "5mA", "1mA")]
    all_on = tuple(Member(str(k), f"Lamp {k}", p) for k, p in enumerate(made))
    whole = rail_budget(made[0].rail, all_on)
    alone = rail_budget(made[0].rail, all_on[:1])
    for m in all_on:
        seen = assess(m.position, Bench(on_rail=tuple(o for o in all_on if o is not m))).runtime
        assert seen.led == whole.hours_after
        assert seen.lamp.text == whole.hours_before.text
    assert whole.hours_after.value < alone.hours_after.value
    assert whole.hours_before.value < alone.hours_before.value / 2.5
    assert "all 3 lamps" in whole.hours_line


def test_a_battery_lasts_to_a_share_of_the_light_and_not_of_the_current():
    """The law of the LED's material, solved for the current by halving; light ends where that current is reached."""
    p = on("battery", "", {"chemistry": "alkaline-aa", "cells": "2"}, target="2mA", vf="1.9V")
    life = battery_life(p.rail, [Member("a", "A", p)], "after")
    first = float(life.run.amps[0])
    low, high = 0.0, first
    full = float(relative_light(p.led, first))
    for _ in range(60):
        at = (low + high) / 2
        low, high = (low, at) if float(relative_light(p.led, at)) > p.glow_floor * full else (at, high)
    assert low > 1.01 * p.glow_floor * first
    assert life.hours == pytest.approx(np.interp(-low, -life.run.amps, life.run.hours), rel=0.01)


def test_a_battery_without_a_lamp_that_draws_says_no_hours():
    rail = on("battery", "", {"chemistry": "alkaline-aa", "cells": "2"}, target="2mA").rail
    assert battery_life(rail, [], "after") is None
    assert rail_budget(rail, ()).hours_after is None


def test_half_as_much_again_while_it_charges():
    """Three green LEDs and 120 Ω: fine at 12 V, half as much again at 14 V (common practice)."""
    rested = on("vehicle", "12V", led_id="green-chip", in_series=3, resistor="120R", flat=True, target="10mA")
    found = {f.id: f for f in assess(rested).findings}
    assert "below-charging" in found
    at = [
        assess(on("regulated", f"{v}V", led_id="green-chip", in_series=3, resistor="120R", target="10mA"))
        for v in (12, 14)
    ]
    ratio = at[1].current.usual.value / at[0].current.usual.value
    assert 1.4 < ratio < 2.2


def test_vehicle_levels_stand_in_where_nobody_read():
    """12 V: 11.5 to 12.7 V at rest, 13.5 to 14.7 V charging, 6 to 9 V cranking (common practice)."""
    p = on("vehicle", "", {"system": "12"})
    assert (p.rail.low.value, p.rail.high.value, p.rail.supply.dip.value) == (11.5, 14.7, 6.0)
    assert p.rail.low.source.is_assumed
    r = assess(p)
    assert [m.id for m in r.snapshots] == ["now", "crank"]
    crank = r.snapshots[1].staircase
    assert crank.stairs[0].level.usual == pytest.approx(6.0)
    dropped = next(x for x in crank.stairs if x.kind == "resistor").drop.usual
    assert dropped / r.sizing.total.value < r.current.low.value


def test_a_dark_string_while_cranking_says_so():
    found = {f.id for f in assess(on("vehicle", "", {"system": "12"}, in_series=4)).findings}
    assert {"dark-while-cranking", "vehicle-surge-within"} <= found


@pytest.mark.parametrize(
    ("kind", "usual", "details", "field", "says"),
    [
        ("winding", "12Vdc", {}, "usual", "is DC"),
        ("regulated", "12Vac", {}, "usual", "is AC"),
        ("unregulated", "20V", {"open": "18V"}, "open", "exchanged"),
        ("battery", "", {"chemistry": "plutonium"}, "chemistry", "coin-20"),
        ("battery", "", {"cells": "many"}, "cells", "1 to 400"),
        ("vehicle", "", {"system": "48"}, "system", "6, 12 or 24"),
        ("stator", "20V", {"hertz": "0Hz"}, "hertz", "more than 0"),
        ("stator", "20V", {"hertz": "100Hz", "hertz_low": "300Hz"}, "hertz", "rise from idle"),
        ("winding", "12V", {"grounded": "perhaps"}, "grounded", "unknown, yes, no"),
        ("logic", "3.3V", {"trip": "1mA"}, "trip", "asks for no such"),
        ("sense", "9V", {"trip": "soon"}, "trip", "0.02|20mA"),
        ("winding", "90kV", {}, "usual", "no lamp's rail"),
    ],
)
def test_a_refusal_says_what_would_do(kind, usual, details, field, says):
    with pytest.raises(InputError, match=says) as refused:
        on(kind, usual, details)
    assert refused.value.field == field


def test_a_rail_in_a_line():
    p = on("winding", "7.4Vac", {"open": "8.8V", "load": "0.4A", "hertz": "60Hz"})
    line = rail_line(p.rail).replace("\u00a0", " ")
    assert line == "7.4 V (6.66 V to 8.14 V) RMS, 60 Hz, 3.5 Ω behind it"


def test_a_line_that_limits_by_itself_has_no_exact_resistor():
    """7.7 V behind 2.4 kΩ gives 2.4 mA to a red LED shorted across it, whatever is wanted."""
    r = assess(on("sense", "7.7V", {"source": "2.4k", "trip": "5mA"}, target="20mA"))
    assert r.sizing.exact is None
