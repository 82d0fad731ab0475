"""What stands around the LED on a supply that alternates: built, or refused by name."""

from dataclasses import replace

import numpy as np
import pytest

from scripts import reference
from swapglow.core.analysis.ac_cycle import AcCases, solve_cycles
from swapglow.core.analysis.sizing import size
from swapglow.core.assess import assess
from swapglow.core.design.changes import with_changes
from swapglow.core.engine.netlist import Circuit, Dc, Sine, VoltageSource
from swapglow.core.engine.spice import write_deck
from swapglow.core.network.builder import CannotBuild, build
from swapglow.core.network.cases import Cases
from swapglow.core.network.sources import sine
from tests.core.drivers import driven
from tests.core.supplies import on

BELL = {"open": "14.1V", "load": "0.15A", "hertz": "50Hz"}
AROUND = {
    "plain": {},
    "series diodes": {"series_diodes": 3},
    "branches": {"branches": 4},
    "shunt past the LED": {"shunt": "330R", "shunt_across": "leds"},
    "shunt past LED and resistor": {"shunt": "470R", "shunt_across": "assembly"},
    "all of it": {"series_diodes": 2, "branches": 2, "shunt": "680R", "shunt_across": "assembly"},
}


def lamp_amps(position):
    """One string's average by us, and by ngspice on the same netlist once it repeats."""
    p, s = position, size(position)
    source = p.rail.supply.source_ohm.value
    at = AcCases(*(np.array([v]) for v in (p.rail.peaks[1], p.led.vf_typ, s.total_ohm, source, 1.0)))
    ours = float(solve_cycles(p, at, s.farads).average[0])
    made = build(
        p, Cases(0.0, p.led.vf_typ, s.total_ohm, source=source),
        wave=sine(p.rail.peaks[1], 50.0, folded=False), stacked=True, farads=s.farads,
    ).circuit  # fmt: skip
    parts = [replace(e, cathode="meter") if e.name == "D1" else e for e in made.elements]
    metered = Circuit((*parts, VoltageSource("vmeter", "meter", "0", Dc(0.0))), title="metered")
    deck = write_deck(metered, (".tran 5e-5 1.2 0 5e-5",))
    found = reference.averages(deck.lower(), ["vmeter#branch"], 1.16, 1.2)
    return ours, found["vmeter#branch"] / p.branches


@pytest.mark.parametrize("rectification", ["bridge_cap", "half_wave", "bridge"])
@pytest.mark.parametrize("around", AROUND)
def test_what_stands_around_agrees_with_the_reference_simulator(around, rectification):
    """Average current of one string against ngspice within 0.5 %."""
    p = on(
        "winding",
        "12.6Vac",
        BELL,
        rectification=rectification,
        target="6mA",
        resistor="1k2",
        **AROUND[around],
    )
    ours, theirs = lamp_amps(p)
    assert ours == pytest.approx(theirs, rel=5e-3)


def test_each_of_them_takes_its_share_of_the_current():
    """Series diodes and branches through one source resistance, and a shunt, all leave a string less (Ohm)."""
    amps = {
        name: assess(on("winding", "12.6Vac", BELL, rectification="bridge_cap", resistor="1k2", **more))
        .current.usual.value
        for name, more in AROUND.items()
    }  # fmt: skip
    for name in AROUND:
        if name != "plain":
            assert amps[name] < 0.99 * amps["plain"], name
    # Three diodes of some 0.65 V at milliamps on 1.2 kΩ.
    assert amps["plain"] - amps["series diodes"] == pytest.approx(3 * 0.65 / 1200, rel=0.15)


REFUSED = {
    "regulator_id": on("winding", "12.6Vac", BELL, regulator_id="fixed-5-to92"),
    "module": on(
        "winding",
        "12.6Vac",
        BELL,
        band="9-15V",
        rectification="bridge",
        module={"amps": "30mA", "law": "power"},
    ),
}


def wave_circuit(position, state="on"):
    s = size(position)
    cases = Cases(0.0, position.led.vf_typ, s.total_ohm)
    return build(position, cases, wave=Sine(0.0, 17.0, 50.0), stacked=True, farads=s.farads, state=state)


def test_loads_that_are_no_resistance_are_refused_on_ac():
    p = driven("shared", "18Vac", supply="winding", dropper="82R", loads="buzzer 18mA")
    with pytest.raises(CannotBuild, match="buzzer is no plain resistance") as refusal:
        wave_circuit(p)
    assert refusal.value.field == "loads"
    plain = driven("shared", "18Vac", supply="winding", dropper="82R", loads="bleed 470R")
    assert {"Rdropper", "Rload1"} <= {e.name for e in wave_circuit(plain).circuit.elements}


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
    return on("regulated", "12V", target="21mA", ceiling=1.0, branches=branches, fuse="50mA",
              led_id="white-5-clear", vf="3.1-3.3V", rated="25mA")  # fmt: skip


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
