"""Lamps of a rail that alternates are one circuit: held to the reference simulator, to symmetry and to Ohm."""

from dataclasses import replace

import numpy as np
import pytest

from scripts import reference
from swapglow.core.analysis.budget import budget
from swapglow.core.analysis.draws import Member
from swapglow.core.analysis.rail_on_ac import _bare, _Rail, rail_cycle
from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.solution import solve
from swapglow.core.engine.netlist import Capacitor, Sine
from swapglow.core.engine.spice import write_deck
from swapglow.core.presentation.budget import rail_budget
from tests.core.light import candela
from tests.core.supplies import lamp, on

TOWER = {"open": "17.2V", "load": "0.32A", "hertz": "50Hz"}
OLD = lamp("16V", "0.07A")


def hung(rectification, resistor, old=OLD, supply=TOWER, **more):
    return on(
        "winding",
        "15.1Vac",
        supply,
        rectification=rectification,
        resistor=resistor,
        target="6mA",
        vf="2V",
        **old,
        **more,
    )


HELD, HALF, BRIDGE = hung("bridge_cap", "1k1"), hung("half_wave", "430R"), hung("bridge", "240R")


def test_unlike_lamps_together_agree_with_the_reference_simulator():
    """A held crest, a half-wave and a bare bridge behind 6.6 Ω: each one's average within 0.5 % (ngspice)."""
    r = rail_cycle(HELD.rail, [HELD, HALF, BRIDGE, BRIDGE], "after")
    lamps = ((HELD, 1), (HALF, 1), (BRIDGE, 2))
    made = _Rail(HELD.rail, tuple((_bare(p), n) for p, n in lamps), "after", [size(p) for p, _ in lamps])
    peak = np.array(made.peak[1:2])
    circuit = made._circuit(Sine(0.0, float(peak[0]), 50.0), peak, np.ones(1), {})
    deck = write_deck(_plain(circuit), (".tran 5e-5 0.8 0 5e-5",))
    found = reference.averages(_metered(deck), [f"vled{k}#branch" for k in range(3)], 0.76, 0.8)
    for k, (p, count) in enumerate(lamps):
        assert r.led[p][1] == pytest.approx(found[f"vled{k}#branch"] / count, rel=5e-3)
        assert r.led[p][1] < 0.995 * solve(p, rule=False).usual[1]


def _plain(circuit):
    """The circuit with numbers in place of arrays of one."""
    parts = [replace(e, farads=float(e.farads[0])) if isinstance(e, Capacitor) else e for e in circuit.elements]
    return replace(circuit, elements=tuple(parts))


def _metered(deck):
    """The deck with a meter of 0 V behind each LED."""
    out = []
    for line in deck.lower().splitlines():
        words = line.split()
        if words and words[0].startswith("d1_"):
            k = words[0].removeprefix("d1_")
            out += [f"vled{k} led{k}end {words[2]} 0", " ".join([words[0], words[1], f"led{k}end", *words[3:]])]
        else:
            out.append(line)
    return "\n".join(out) + "\n"


SIZED = hung("bridge_cap", "", supply={**TOWER, "load": "0.05A"})


@pytest.mark.parametrize("p", [HELD, HALF, BRIDGE, SIZED], ids=["held", "half-wave", "bridge", "sized by the sum"])
def test_a_lamp_alone_is_what_it_is_by_itself(p):
    r, s = rail_cycle(p.rail, [p], "after"), solve(p, rule=False)
    assert r.led[p] == pytest.approx(s.usual, rel=2e-4)
    assert r.total_rms == pytest.approx(s.ac.typical.supply_rms, rel=2e-3)


@pytest.mark.parametrize("p", [HELD, HALF], ids=["held", "half-wave"])
def test_five_equal_lamps_are_one_behind_five_times_the_resistance(p):
    """By symmetry each carries what it would behind 5·R (Kirchhoff)."""
    # 5 × (17.2 − 15.1) V at 0.32 A.
    weak = hung(p.rectification.id, "1k1" if p is HELD else "430R", supply={**TOWER, "load": "0.064A"})
    assert weak.rail.supply.source_ohm.value == pytest.approx(5 * p.rail.supply.source_ohm.value)
    five, one = rail_cycle(p.rail, [p] * 5, "after"), rail_cycle(weak.rail, [weak], "after")
    assert five.led[p] == pytest.approx(one.led[weak], rel=2e-4)
    assert five.bus_rms == pytest.approx(one.bus_rms, rel=2e-4)
    assert five.total_rms == pytest.approx(5 * one.total_rms, rel=5e-4)


def test_half_a_cycle_stands_for_the_whole_where_all_take_both_halves():
    """A half-wave lamp of next to no current forces the whole cycle: nothing of the others may move."""
    nothing = hung("half_wave", "100M")
    folded = rail_cycle(HELD.rail, [HELD, BRIDGE], "after")
    whole = rail_cycle(HELD.rail, [HELD, BRIDGE, nothing], "after")
    for p in (HELD, BRIDGE):
        assert whole.led[p] == pytest.approx(folded.led[p], rel=2e-4)


def old_lamps(count, others=0.0):
    """RMS volts behind 2.1 V/0.32 A with so many 16 V 0.07 A filaments, I = 0.07·(V/16)^0.55, by halving."""
    ohm, low, high = 2.1 / 0.32, 0.0, 17.2
    for _ in range(60):
        v = (low + high) / 2
        drawn = count * 0.07 * (v / 16) ** 0.55 + others * v / 17.2
        low, high = (v, high) if v + ohm * drawn < 17.2 else (low, v)
    return low


@pytest.mark.parametrize("others", [0.0, 0.05])
def test_old_lamps_pull_each_other_down_by_their_filaments(others):
    """Volts and amps of two and of one by hand (Ohm, I ∝ V^0.55); 50 mA beside them as a plain resistance."""
    rail = replace(HELD.rail, others_a=others)
    two = (Member("a", "A", HELD), Member("b", "B", HELD, "sometimes"))
    b = budget(rail, two)
    v = old_lamps(2, others)
    assert b.before[1] == pytest.approx(2 * 0.07 * (v / 16) ** 0.55 + others * v / 17.2, rel=2e-3)
    assert b.draws[0].before[1] == pytest.approx(0.07 * (v / 16) ** 0.55, rel=2e-3)
    assert b.unjoined == ""


@pytest.mark.parametrize("others", [0.0, 0.04])
def test_what_a_lamp_has_alone_is_its_own_circuit_with_what_else_hangs_on_it(others):
    """Volts behind the resistance by the lamp's own cycle, or with the others', within 0.3 %."""
    rail = replace(HELD.rail, others_a=others)
    for d in budget(rail, (Member("a", "A", HELD), Member("b", "B", HALF), Member("c", "C", BRIDGE))).draws:
        p = {"a": HELD, "b": HALF, "c": BRIDGE}[d.id]
        alone = rail_cycle(rail, [p], "after")
        assert d.alone_v == pytest.approx(alone.bus_rms[1], rel=3e-3)
        together = rail_cycle(rail, [HELD, HALF, BRIDGE], "after")
        assert d.light == pytest.approx(candela(together.led[p][1]) / candela(alone.led[p][1]), rel=1e-3)


def test_of_lamps_lit_one_at_a_time_the_thirstiest_counts():
    one_by_one = [Member("a", "A", BRIDGE, "single"), Member("b", "B", HALF, "single"), Member("c", "C", HELD)]
    b = budget(HELD.rail, tuple(one_by_one))
    thirsty = rail_cycle(HELD.rail, [BRIDGE, HELD], "after")
    assert b.after == pytest.approx(tuple(thirsty.total_rms))
    other = rail_cycle(HELD.rail, [HALF, HELD], "after")
    assert [d.after for d in b.draws] == [
        pytest.approx(tuple(thirsty.each_rms[BRIDGE])),
        pytest.approx(tuple(other.each_rms[HALF])),
        pytest.approx(tuple(thirsty.each_rms[HELD])),
    ]
    assert b.draws[1].together_v == pytest.approx(other.bus_rms[1])


def test_what_the_others_take_of_its_light_is_said():
    """Twelve bare bridges at 27 mA behind 6.6 Ω: each as if it stood alone behind twelve times as much."""
    many = tuple(Member(str(k), f"L{k}", BRIDGE) for k in range(12))
    b = budget(HELD.rail, many)
    weak = hung("bridge", "240R", supply={**TOWER, "load": f"{0.32 / 12}A"})
    left = candela(solve(weak, rule=False).usual[1]) / candela(solve(BRIDGE, rule=False).usual[1])
    assert b.draws[0].light == pytest.approx(left, rel=1e-3)
    found = rail_budget(HELD.rail, many).findings
    assert [(f.id, f.grade, f.figure) for f in found] == [("rail-sags", "note", f"{left * 100:.0f} %")]


def test_what_is_not_joined_says_why_and_adds_root_mean_squares():
    """Air of two kinds is not one circuit here; added RMS currents are the most they come to (Minkowski)."""
    warm = hung("half_wave", "430R", ambient="51°C")
    b = budget(HELD.rail, (Member("a", "A", HELD), Member("b", "B", warm)))
    alone = [float(solve(p, rule=False).ac.typical.supply_rms[1]) for p in (HELD, warm)]
    assert b.after[1] == pytest.approx(sum(alone))
    (f,) = rail_budget(HELD.rail, (Member("a", "A", HELD), Member("b", "B", warm))).findings
    assert (f.id, f.grade) == ("rail-sag-unknown", "note")
    assert f.message == (
        "How far its lamps pull each other down is not worked out: the air around them is not the same for all."
    )
