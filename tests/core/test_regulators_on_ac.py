"""Regulators behind a rectifier, over the cycle: against ngspice with a regulator of its own, and by hand."""

import math

import pytest

from scripts import reference
from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.solution import solve
from swapglow.core.assess import assess
from swapglow.core.design.changes import with_changes
from swapglow.core.parts.regulator import regulators
from swapglow.core.search import search
from tests.core.supplies import on

HUM = {"open": "10.1V", "load": "0.2A", "hertz": "50Hz"}


def deck(p, ohms, farads):
    """Four diodes or one, a capacitor, a behavioural regulator and the LED, written by hand.

    Nothing of ours but the parts' own figures: the regulator is an arbitrary source that holds, or follows its input.
    """
    r, led = p.regulator, p.led.junction(p.led.vf_typ, p.celsius)
    crest = p.rail.peaks[1]
    lines = [
        "by hand",
        f"vac a {'b' if p.rectification.folds else '0'} sin(0 {crest!r} 50)",
        ".model rect d(is=14.11n n=1.984 rs=33.89m bv=400)",
        f".model led d(is={float(led.i_s)!r} n={float(led.n)!r} rs={float(led.r_s)!r})",
    ]
    if p.rectification.folds:
        lines += ["rs a a2 SRC", "d1 a2 dc rect", "d2 b dc rect", "d3 0 a2 rect", "d4 0 b rect", "rb b 0 100meg"]
    else:
        lines += ["rs a a2 SRC", "d1 a2 dc rect"]
    lines = [line.replace("SRC", repr(max(p.rail.supply.source_ohm.value, 1e-3))) for line in lines]
    if farads:
        lines += [f"c1 dc 0 {float(farads)!r}"]
    # Some stray capacitance, without which a simulator in time loses its way at the corners.
    lines += ["rleak dc 0 100meg", "cdc dc 0 10n", "cx x 0 10n", ".options method=gear"]
    if r.kind == "fixed":
        lines += [
            f"breg held 0 v=min({r.volts!r}, max(v(dc)-{r.dropout!r}, 0))",
            "vm held out 0",
            "fin dc 0 vm 1",
            f"bown dc 0 i={r.quiescent!r}*min(max(v(dc),0)*20,1)",
            f"r1 out x {float(ohms)!r}",
        ]
    else:
        # What it is set to, or what is left over its dropout: within some 30 mV of it the two meet.
        amps = float(r.volts / ohms + r.adjust_a)
        lines += [f"breg dc x i={amps!r}*tanh(max(v(dc)-v(x)-{r.dropout!r},0)/0.03)"]
    lines += ["dl x meter led", "vmeter meter 0 0", f".tran 2e-5 {_repeats(farads)[1]} 0 2e-5", ".end\n"]
    return "\n".join(lines)


def _repeats(farads):
    """From when to when it repeats: nothing but the reservoir remembers the cycle before."""
    return (0.3, 0.4) if farads else (0.1, 0.2)


@pytest.mark.parametrize("way", ["bridge_cap", "half_wave_cap", "bridge", "half_wave"])
@pytest.mark.parametrize("part", ["fixed-5-to92", "adjustable-to92"])
def test_the_average_is_the_reference_simulators(part, way):
    """One per cent: what is left is the rectifier's table against a generic model, on flanks only."""
    p = on("winding", "9.4Vac", HUM, rectification=way, regulator_id=part, vf="2V", target="8mA", ceiling=1.0)
    z = size(p)
    text = deck(p, z.total_ohm, z.farads)
    found = reference.averages(text, ["vmeter#branch"], *_repeats(z.farads))["vmeter#branch"]
    assert float(solve(p).usual[1]) == pytest.approx(found, rel=0.01)


def test_with_room_it_holds_whatever_the_mains_do():
    """5 V less 1.88 V of LED over its resistor, from the lowest to the highest mains (Ohm)."""
    p = on(
        "winding",
        "9.4Vac",
        HUM,
        low="8.6Vac",
        high="10.2Vac",
        rectification="bridge_cap",
        regulator_id="fixed-5-to92",
        vf="2V",
        resistor="330R",
        tolerance=0.0,
    )
    usual = solve(p).usual
    assert usual.max() - usual.min() < 1e-6
    amps = float(usual[1])
    assert amps == pytest.approx((5 - p.led.junction(2.0, 25.0).volts(amps)) / 330, rel=1e-4)
    spread = solve(with_changes(p, {"resistor_ohm": 330.0}))
    # 4 % of 5 V either way is in the corners.
    assert spread.string_current_max == pytest.approx((5.2 - 1.8) / 330, rel=0.06)


def test_a_source_carries_what_it_is_set_to():
    """I = 1.25 V/R (textbook), its adjust pin's current added."""
    r = regulators()["adjustable-to92"]
    p = on(
        "winding", "9.4Vac", HUM, rectification="bridge_cap", regulator_id=r.id, vf="2V", resistor="150R", tolerance=0.0
    )
    assert float(solve(p).usual[1]) == pytest.approx(1.25 / 150 + r.adjust_a, rel=1e-4)


def test_heat_is_the_mean_of_volts_times_amps():
    """A large capacitor stands at the crest less two diodes: (V - 5 V)·I and V·3 mA (Joule)."""
    p = on(
        "winding",
        "9.4Vac",
        {"hertz": "50Hz"},
        flat=True,
        rectification="bridge_cap",
        capacitor="4700uF",
        regulator_id="fixed-5-to92",
        vf="2V",
        resistor="330R",
        tolerance=0.0,
    )
    s = solve(p)
    held = float(s.ac.drawn.held[1].mean())
    assert held == pytest.approx(9.4 * math.sqrt(2) - 1.5, abs=0.15)
    amps = float(s.usual[1])
    assert s.ac.typical.regulator.watts[1] == pytest.approx((held - 5) * amps + held * 3e-3, rel=0.01)
    assert s.ac.typical.regulator.most[1] == pytest.approx(held, abs=0.1)
    assert s.ac.typical.regulator.across[1] == pytest.approx(held - 5, abs=0.1)


def finding(p, key):
    return next((f for f in assess(p).findings if f.id == key), None)


def hum(**more):
    fields = {"rectification": "bridge_cap", "regulator_id": "fixed-5-to92", "vf": "2V", "target": "8mA", **more}
    return on("winding", fields.pop("usual", "9.4Vac"), HUM, **fields)


def test_its_valley_is_told_and_a_larger_capacitor_holds_it():
    small = hum(capacitor="4.7uF", resistor="330R", low="9.4Vac", high="9.4Vac")
    told = finding(small, "regulator-dropout")
    least = float(solve(small).ac.typical.regulator.least[0])
    assert (told.grade, told.figure) == ("mind", f"{least:.3g}\u00a0V")
    assert told.message.startswith("Between the crests at the lowest rail it has ")
    assert told.limit == "6.7\u00a0V"
    assert finding(with_changes(small, {"capacitor_f": 1e-4}), "regulator-dropout") is None
    # The sum's own capacitor holds it at the lowest mains.
    assert finding(hum(low="8.6Vac", high="10Vac"), "regulator-dropout") is None


def test_without_a_capacitor_it_starves_and_the_remedy_is_one():
    told = finding(hum(rectification="bridge", resistor="330R"), "regulator-pulsating")
    assert told.grade == "mind"
    (remedy,) = told.remedies
    assert remedy.changes == {"rectification_id": "bridge_cap", "resistor_ohm": None}
    assert finding(hum(), "regulator-pulsating") is None
    # No capacitor is offered where its charge could hurt.
    high = on("winding", "60Vac", {"hertz": "50Hz"}, rectification="bridge", regulator_id="fixed-5-to220", vf="2V")
    assert high.live_danger
    assert finding(high, "regulator-pulsating").remedies == ()


def test_the_crest_without_a_load_is_what_it_must_stand():
    """30 V across a fixed one (its table): the crest of 22 V RMS is 31.1 V, of 20 V 28.3 V."""
    most = regulators()["fixed-5-to92"].most_v
    assert most == 30

    def at(volts):
        p = on("winding", volts, {"hertz": "50Hz"}, flat=True, rectification="bridge_cap", regulator_id="fixed-5-to92")
        return finding(p, "regulator-over-volts")

    over = at("22Vac")
    assert (over.grade, over.figure) == ("stop", "31.1\u00a0V")
    assert at("20Vac") is None


def test_the_staircase_has_a_step_for_it_and_adds_up():
    stairs = assess(hum(resistor="330R")).snapshots[0].staircase.stairs
    assert [s.label for s in stairs] == ["Rail", "Rectifier and sag", "Regulator", "Resistor", "LED", "Ground"]
    drops = [s.drop.usual for s in stairs]
    assert sum(drops) == pytest.approx(stairs[0].level.usual, abs=1e-6)
    source = assess(hum(regulator_id="adjustable-to92", resistor="150R")).snapshots[0].staircase.stairs
    assert [s.label for s in source] == ["Rail", "Rectifier and sag", "Current source", "LED", "Ground"]


def test_the_search_counts_its_heat():
    """A swap with a regulator may stand beside those without: its heat is the regulator's."""
    swaps = search(hum(resistor="330R"), (), frozenset())
    assert swaps.swaps
