"""What stands around the LED on a supply that alternates: built, or refused by name."""

from dataclasses import replace

import numpy as np
import pytest

from scripts import reference
from swapglow.core.analysis.ac_cycle import AcCases, solve_cycles
from swapglow.core.analysis.original_lamp import original_cycle
from swapglow.core.analysis.sizing import size, turned, with_strings
from swapglow.core.analysis.solution import solve
from swapglow.core.analysis.spice_text import fitted_circuit, spice_text
from swapglow.core.assess import assess
from swapglow.core.design.changes import with_changes
from swapglow.core.engine.netlist import Circuit, Dc, Sine, VoltageSource
from swapglow.core.engine.spice import write_deck
from swapglow.core.network.builder import CannotBuild, build
from swapglow.core.network.cases import Cases
from swapglow.core.network.sources import sine
from tests.core.drivers import driven
from tests.core.supplies import lamp, on

BELL = {"open": "14.1V", "load": "0.15A", "hertz": "50Hz"}
AROUND = {
    "plain": {},
    "series diodes": {"series_diodes": 3},
    "branches": {"branches": 4},
    "shunt past the LED": {"shunt": "330R", "shunt_across": "leds"},
    "shunt past LED and resistor": {"shunt": "470R", "shunt_across": "assembly"},
    "another string": {"beside": {"blue": {"led_id": "blue-3-diffused", "resistor": "680R", "in_series": 2}}},
    "all of it": {"series_diodes": 2, "branches": 2, "shunt": "680R", "shunt_across": "assembly"},
}


def lamp_amps(position):
    """One string's average by us, and by ngspice on the same netlist once it repeats."""
    p, s = position, size(position)
    source = p.rail.supply.source_ohm.value
    at = AcCases(*(np.array([v]) for v in (p.rail.peaks[1], p.led.vf_typ, s.total_ohm, source, 1.0)))
    ours = float(solve_cycles(p, at, s.farads).average[0])
    made = build(
        p,
        Cases(p.rail.peaks[1], p.led.vf_typ, s.total_ohm, source=source),
        wave=sine(p.rail.peaks[1], 50.0, folded=False),
        stacked=True,
        farads=s.farads,
    ).circuit
    parts = [replace(e, cathode="meter") if e.name == "D1" else e for e in made.elements]
    metered = Circuit(
        (*parts, VoltageSource("vmeter", "meter", made.element("D1").cathode, Dc(0.0))),
        celsius=made.celsius,
        title="metered",
    )
    # Nothing but the reservoir remembers the cycle before; half a wave fills a large one slowly.
    begin, end = (0.3, 0.4) if s.farads else (0.1, 0.2)
    if p.rectification.id == "half_wave_cap":
        begin, end = 1.1, 1.2
    deck = write_deck(metered, (f".tran 5e-5 {end} 0 5e-5",))
    found = reference.averages(deck.lower(), ["vmeter#branch"], begin, end)
    return ours, found["vmeter#branch"] / p.branches


@pytest.mark.parametrize("rectification", ["bridge_cap", "half_wave", "bridge"])
@pytest.mark.parametrize("around", AROUND)
def test_what_stands_around_agrees_with_the_reference_simulator(around, rectification):
    """Average current of one string against ngspice within 0.5 %."""
    p = on("winding", "12.6Vac", BELL, rectification=rectification, target="6mA", resistor="1k2", **AROUND[around])
    ours, theirs = lamp_amps(p)
    assert ours == pytest.approx(theirs, rel=5e-3)


MADE = {
    "resistor": {"law": "resistor", "polarised": "yes"},
    "resistor, either way": {"law": "resistor", "polarised": "no"},
    "current": {"law": "current", "polarised": "yes"},
    "current, either way": {"law": "current", "polarised": "no"},
}


@pytest.mark.parametrize(("way", "ambient"), [("", ""), ("bridge", ""), ("half_wave_cap", ""), ("bridge", "64°C")])
@pytest.mark.parametrize("kind", MADE)
def test_a_ready_made_lamp_is_solved_with_its_insides(kind, way, ambient):
    """Its resistor or current source, and its bridge, in the waveform: ngspice within 0.5 %."""
    p = on(
        "winding",
        "11.4Vac",
        BELL,
        rectification=way,
        led_id="white-5-clear",
        band="9-15V",
        ambient=ambient,
        module={"amps": "18mA", "at": "12V", **MADE[kind]},
    )
    if not way:
        assert p.rectification.id == ("bridge_cap" if p.module.polarised else "own_bridge")
    ours, theirs = lamp_amps(p)
    assert ours == pytest.approx(theirs, rel=5e-3)
    assert ours < 0.035


def test_a_lamp_with_its_own_bridge_has_the_shunt_before_it():
    """What is across such a lamp draws below the volts of its bridge too: ngspice within 0.5 %.

    Random lamp 5120 of the fuzz run: its circuit text had the bridge before resistor and shunt, 3 % more current.
    """
    p = on(
        "stator",
        "24Vac",
        resistor="263R",
        shunt="813R",
        shunt_across="leds",
        led_id="white-5-clear",
        band="11.4-14.5V",
        module={"amps": "0.267A", "law": "resistor", "polarised": "no"},
    )
    assert p.rectification.id == "own_bridge"
    ours, theirs = lamp_amps(p)
    assert ours == pytest.approx(theirs, rel=5e-3)
    text = fitted_circuit(p, 263.0)
    assert text.element("Rshunt").a == text.element("Dbridge1").anode == text.element("R1").b


def test_laws_of_a_ready_made_lamp_differ_on_ac():
    """15 mA at 12 V: one resistor, one current, one power are three lamps; none takes ten times its current."""
    found = {
        law: assess(
            on(
                "winding",
                "12Vac",
                rectification="bridge_cap",
                capacitor="4700uF",
                led_id="white-5-clear",
                band="10-15V",
                module={"amps": "15mA", "at": "12V", "law": law},
            )
        ).current.usual.value
        for law in ("resistor", "current", "power")
    }
    # The capacitor stands at 17.0 − 1.6 V, the LEDs at 9.45 V there: (15.4 − 9.45)/180 Ω, 15 mA, and 0.18
    # W/15.6 V or so (Ohm, Kirchhoff).
    assert found["resistor"] == pytest.approx((15.4 - 9.45) / 180, rel=0.05)
    assert found["current"] == pytest.approx(15e-3, rel=0.01)
    assert found["power"] == pytest.approx(0.18 / 16.4, rel=0.08)


@pytest.mark.parametrize("rectification", ["bridge", "bridge_cap", "half_wave"])
def test_a_filament_left_in_the_loop_settles_at_its_rms_volts(rectification):
    """R = 60 Ω·(V/6 V)^0.45 at its RMS volts (handbooks), in series with the string: ngspice on that resistance."""
    p = on(
        "winding",
        "12.6Vac",
        BELL,
        rectification=rectification,
        resistor="220R",
        target="8mA",
        driver_kind="series_lamps",
        driver_details={"others": {"text": "1"}, "other_volts": {"text": "6V"}, "other_amps": {"text": "0.1A"}},
    )
    s = solve(p, rule=False)
    rms = float(s.ac.typical.supply_rms[1])
    # R = 60·(I·R/6)^0.45, so R^0.55 = 60·(I/6)^0.45.
    ohm = (60 * (rms / 6) ** 0.45) ** (1 / 0.55)
    assert 8 < ohm < 50
    bare = on("winding", "12.6Vac", BELL, rectification=rectification, resistor="220R", target="8mA")
    more = replace(
        bare.rail.supply, source_ohm=replace(bare.rail.supply.source_ohm, value=bare.rail.supply.source_ohm.value + ohm)
    )
    plain = replace(bare, rail=replace(bare.rail, supply=more))
    assert s.usual[1] == pytest.approx(float(solve(plain, rule=False).usual[1]), rel=2e-3)


ON_THE_FEED = {
    "LEDs, which light one way round": "panel 2 LEDs red 330R; relay 2k2",
    "a steady current, either way round": "clock 9mA",
}


@pytest.mark.parametrize("way", ["bridge_cap", "half_wave", "bridge", "inverse_diode", "half_wave_cap", "back_to_back"])
@pytest.mark.parametrize("loads", ON_THE_FEED.values(), ids=ON_THE_FEED)
def test_what_else_a_shared_feed_feeds_is_in_the_cycle(way, loads):
    """With every diode of the bridge drawn: ngspice within 0.5 % (a panel loads one half-cycle and not the other)."""
    p = driven(
        "shared",
        "12.6Vac",
        supply="winding",
        supplied=BELL,
        dropper="220R",
        loads=loads,
        rectification=way,
        resistor="1k2",
    )
    ours, theirs = lamp_amps(p)
    assert ours == pytest.approx(theirs, rel=5e-3)


def test_a_steady_load_draws_its_current_whichever_way_the_feed_stands():
    """9 mA but for the moments around zero, where 1 V is wanting: 100 Hz of it, RMS by the arc sine (by hand)."""
    p = driven(
        "shared", "12.6Vac", supply="winding", dropper="1R", loads="clock 9mA", rectification="bridge", resistor="100k"
    )
    # Of a sine of 17.8 V crest 1 V is passed after asin(1/17.8) of a quarter turn.
    share = 1 - np.arcsin(1.0 / 17.8) / (np.pi / 2)
    drawn = solve(p, rule=False).ac.typical.loads_rms[1, 0]
    assert drawn == pytest.approx(9e-3 * np.sqrt(share), rel=6e-3)


def test_a_track_that_turns_round_under_a_panel_of_leds_is_refused():
    p = driven("shared", "16V", supply="digital", dropper="100R", loads="panel 2 LEDs red 330R", rectification="bridge")
    turns = driven(
        "shared", "12V", supply="reversing", dropper="100R", loads="panel 2 LEDs red 330R", rectification="bridge"
    )
    assert solve(p, rule=False).usual[1] > 1e-3
    with pytest.raises(CannotBuild, match="which way the track runs is not known") as refusal:
        assess(turns)
    assert refusal.value.field == "loads"


@pytest.mark.parametrize("way", ["inverse_diode", "back_to_back", "two_colour", "bare"])
def test_strings_side_by_side_without_a_rectifier_have_each_their_guard(way):
    """Both strings against ngspice, each seen from the other: the same circuit turned round."""
    p = on("winding", "12.6Vac", BELL, rectification=way, resistor="1k2", branches=2, **AROUND["another string"])
    for q in (p, turned(with_strings(p), 0)):
        ours, theirs = lamp_amps(q)
        assert ours == pytest.approx(theirs, rel=5e-3)
    found = {f.id: f.grade for f in assess(p).findings}
    # Nothing guards a bare string: the blue one's two LEDs see the crest, 12.6·√2 V, where they stand 5 V each. By
    # their like turned round they see its 6 V, which they stand only if they share it.
    grades = {"bare": "stop", "inverse_diode": None, "back_to_back": "mind", "two_colour": "mind"}
    assert found.get("led-reverse-beside-1") == grades[way]


def feed(volts, ohms, lamp_ohm=None):
    """A divider of 47 Ω over what hangs behind it, Ω (Ohm)."""
    behind = 1 / sum(1 / r for r in (*ohms, *((lamp_ohm,) if lamp_ohm else ())))
    return volts * behind / (47 + behind)


def test_what_the_neighbours_see_on_ac_is_told_before_and_after():
    """A relay of 470 Ω beside the old lamp (8 V, 80 mA, R = 100·(V/8)^0.45) and beside an LED of next to nothing."""
    p = driven(
        "shared",
        "12Vac",
        supply="winding",
        dropper="47R",
        loads="relay 470R max 10V",
        rectification="half_wave",
        resistor="1M",
        **lamp("8V", "0.08A"),
        flat=True,
    )
    low, high = 0.1, 12.0
    for _ in range(60):
        v = (low + high) / 2
        low, high = (v, high) if feed(12, [470], 100 * (v / 8) ** 0.45) > v else (low, v)
    before, after = low, feed(12, [470])
    found = {f.id: f for f in assess(p).findings}
    over = found["neighbour-over-relay"]
    assert over.grade == "stop"
    assert " ".join(over.figure.split()) == f"{after:.3g} V"
    moved = found["neighbours-change"]
    assert " ".join(moved.limit.split()) == f"{before:.3g} V"
    assert (
        " ".join(moved.message.split())
        == f"The shared feed goes from {before:.3g} V to {after:.3g} V with the LED lit."
    )
    assert "relay 23.2 mA" in " ".join(moved.why.split())
    assert float(original_cycle(p, 12.0).supply_amps) == pytest.approx((12 - before) / 47, rel=1e-3)
    assert "driver-on-ac" not in found


def loop(rectification="bridge"):
    return on(
        "winding",
        "12.6Vac",
        BELL,
        rectification=rectification,
        resistor="220R",
        target="8mA",
        driver_kind="series_lamps",
        driver_details={"others": {"text": "1"}, "other_volts": {"text": "6V"}, "other_amps": {"text": "0.1A"}},
    )


def test_a_lamp_left_in_the_loop_goes_dark_on_ac_too():
    """V = I·R with R = 60·(V/6)^0.45: 6·(I/0.1 A)^(1/0.55), under a third of its volts (handbooks, from memory)."""
    p = loop()
    amps = float(solve(p, rule=False).ac.typical.supply_rms[1])
    volts = 6 * (amps / 0.1) ** (1 / 0.55)
    dark = next(f for f in assess(p).findings if f.id == "others-go-dark")
    assert (dark.grade, " ".join(dark.figure.split())) == ("stop", f"{volts:.3g} V")


@pytest.mark.parametrize("way", ["bridge", "bridge_cap"])
def test_circuit_text_has_a_filament_as_it_is_at_rest(way):
    p = loop(way)
    s = solve(p, rule=False)
    amps = float(s.ac.typical.supply_rms[1])
    (line,) = (x for x in spice_text(p, s.sizing.total_ohm, s.sizing.farads).splitlines() if x.startswith("Rleft1"))
    assert float(line.split()[3]) == pytest.approx(60 * (amps / 0.1) ** (0.45 / 0.55), rel=1e-3)


def test_leds_on_a_shared_feed_are_part_of_the_circuit():
    """24 V, 470 Ω, a panel of two red LEDs with 330 Ω beside our one with 1 kΩ (Kirchhoff, by halving)."""
    p = driven("shared", "24V", dropper="470R", loads="panel 2 LEDs red 330R", resistor="1k", vf="2V", flat=True)
    nvt = 1.9 * 0.025693

    def led(amps, count=1):
        return count * (2.0 + nvt * np.log(amps / 0.02) + 0.14 * (amps / 0.02 - 1))

    def amps_at(volts, ohm, count):
        low, high = 1e-9, 0.1
        for _ in range(80):
            middle = (low + high) / 2
            low, high = (middle, high) if led(middle, count) + middle * ohm < volts else (low, middle)
        return low

    low, high = 2.0, 24.0
    for _ in range(80):
        v = (low + high) / 2
        drawn = amps_at(v, 1000, 1) + amps_at(v, 330, 2)
        low, high = (v, high) if v + 470 * drawn < 24 else (low, v)
    assert assess(p).current.usual.value == pytest.approx(amps_at(low, 1000, 1), rel=2e-3)


def test_each_of_them_takes_its_share_of_the_current():
    """Series diodes and branches through one source resistance, and a shunt, all leave a string less (Ohm)."""
    amps = {
        name: assess(
            on("winding", "12.6Vac", BELL, rectification="bridge_cap", resistor="1k2", **more)
        ).current.usual.value
        for name, more in AROUND.items()
    }
    for name in AROUND:
        if name != "plain":
            assert amps[name] < 0.99 * amps["plain"], name
    # Three diodes of some 0.65 V at milliamps on 1.2 kΩ.
    assert amps["plain"] - amps["series diodes"] == pytest.approx(3 * 0.65 / 1200, rel=0.15)


REFUSED = {
    "regulator_id": on("winding", "12.6Vac", BELL, regulator_id="fixed-5-to92", rectification="inverse_diode"),
    "module": on(
        "winding", "12.6Vac", BELL, band="9-15V", rectification="bridge", module={"amps": "30mA", "law": "power"}
    ),
}


def wave_circuit(position, state="on"):
    s = size(position)
    cases = Cases(0.0, position.led.vf_typ, s.total_ohm)
    return build(position, cases, wave=Sine(0.0, 17.0, 50.0), stacked=True, farads=s.farads, state=state)


def test_a_transistor_that_is_off_is_refused_on_ac():
    p = driven("low_side", "18Vac", supply="winding")
    with pytest.raises(CannotBuild, match="switched off, is not worked out on a supply that alternates"):
        wave_circuit(p, "off")
    assert wave_circuit(p, "on").circuit.elements


@pytest.mark.parametrize("field", REFUSED)
def test_what_is_not_built_on_ac_is_refused_by_name(field):
    with pytest.raises(CannotBuild) as refusal:
        assess(REFUSED[field])
    assert refusal.value.field == field
    assert "is not worked out" in refusal.value.message or "are not worked out" in refusal.value.message


def four_strings(branches):
    return on(
        "regulated",
        "12V",
        target="21mA",
        ceiling=1.0,
        branches=branches,
        fuse="50mA",
        led_id="white-5-clear",
        vf="3.1-3.3V",
        rated="25mA",
    )


def test_a_fuse_sees_all_strings():
    """Four branches of 21 mA are 84 mA (Kirchhoff): on a 50 mA fuse a stop, one of them none."""
    one, four = assess(four_strings(1)), assess(four_strings(4))
    assert four.current.supply.value == pytest.approx(4 * one.current.supply.value, rel=1e-6)
    assert 0.08 < four.current.supply.value < 0.09
    assert "fuse-too-small" not in {f.id for f in one.findings}
    blows = next(f for f in four.findings if f.id == "fuse-too-small")
    assert (blows.grade, " ".join(blows.limit.split())) == ("stop", "50 mA")
    assert " ".join(blows.figure.split()) == "87.6 mA"
    for remedy in blows.remedies:
        after = assess(with_changes(four_strings(4), remedy.changes))
        assert "fuse-too-small" not in {f.id for f in after.findings}


def on_a_pin(branches):
    return on("logic", "5V", {"pin": "8mA"}, target="4.7mA", rounding="nearest", branches=branches)


def test_a_pin_sees_all_strings():
    """Four strings of 4.7 mA are 18.8 mA: over the 8 mA of the pin; one string is not."""
    assert "pin-over-budget" not in {f.id for f in assess(on_a_pin(1)).findings}
    found = {f.id: f for f in assess(on_a_pin(4)).findings}
    assert found["pin-over-budget"].grade == "stop"
    assert "4 strings" in found["pin-over-budget"].message
