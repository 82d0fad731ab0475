"""What must hold of any solved circuit, whatever its values."""

import dataclasses
import warnings

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from swapglow.core.engine.monte_carlo import Triangular, Uniform, even_draws
from swapglow.core.engine.netlist import (
    Bjt,
    Circuit,
    CircuitError,
    CurrentRegulator,
    CurrentSource,
    Dc,
    Diode,
    DiodeModel,
    Inductor,
    Regulator,
    Resistor,
    Sine,
    Switch,
    VoltageSource,
    nodes_of,
)
from swapglow.core.engine.operating_point import operating_point
from swapglow.core.engine.periodic import steady_state
from tests.core.engine import generate

FEED = VoltageSource("v1", "a", "0")
LED = DiodeModel(i_s=1e-18, n=2.0, r_s=8.0)


def string(rail=12.0, ohms=680.0, i_s=1e-18):
    return Circuit(
        (
            VoltageSource("v1", "a", "0", Dc(rail)),
            Resistor("r1", "a", "b", ohms),
            Diode("d1", "b", "c", dataclasses.replace(LED, i_s=i_s)),
            Diode("d2", "c", "0", LED),
        )
    )


def test_no_node_stands_above_what_feeds_it():
    """In a circuit of resistors and diodes no node lies outside its sources' volts (the maximum principle)."""
    solved = 0
    for seed in range(600):
        try:
            point = operating_point(generate.leaky(seed)).require()
        except CircuitError:
            continue
        solved += 1
        feed = point.voltage("s")[0]
        for node in point.nodes:
            volts = point.voltage(node)[0]
            assert min(0, feed) - 1e-8 <= volts <= max(0, feed) + 1e-8, (seed, node)
    assert solved > 300


def test_dark_leds_share_a_rail_by_their_leakage():
    """Where only the picosiemens across each junction conducts, three junctions take a third each (Ohm)."""
    leds = [dataclasses.replace(LED, i_s=i_s) for i_s in (1e-24, 3e-23, 1e-25)]
    nodes = ("b", "c", "d", "0")
    parts = [Diode(f"d{k}", nodes[k], nodes[k + 1], leds[k]) for k in range(3)]
    feed = (VoltageSource("v1", "a", "0", Dc(1.2)), Resistor("r1", "a", "b", 470.0))
    point = operating_point(Circuit((*feed, *parts))).require()
    assert [point.across(d.name)[0] for d in parts] == pytest.approx([0.4] * 3, abs=1e-6)
    assert point.current("d2")[0] == pytest.approx(0.4e-12, rel=1e-5)


@given(st.integers(0, 10_000))
@settings(max_examples=60, deadline=None)
def test_power_given_is_power_taken(seed):
    """Energy balance: what sources give, the other parts take (Tellegen)."""
    point = operating_point(generate.circuit(seed)).require()
    total, size = 0.0, 0.0
    for e in point.circuit.elements:
        if isinstance(e, Bjt):
            continue
        power = float(point.across(e.name)[0] * point.current(e.name)[0])
        total, size = total + power, size + abs(power)
    if any(isinstance(e, Bjt) for e in point.circuit.elements):
        # A transistor takes the rest, and never gives.
        assert total <= 1e-9 * size + 1e-12
    else:
        assert abs(total) <= 1e-7 * size + 1e-11


@given(st.integers(0, 10_000))
@settings(max_examples=60, deadline=None)
def test_currents_balance_at_every_node(seed):
    """Kirchhoff, from the parts' own currents and not from the solver's."""
    circuit = generate.circuit(seed)
    if any(isinstance(e, Bjt) for e in circuit.elements):
        return
    point = operating_point(circuit).require()
    left = dict.fromkeys(point.nodes, 0.0)
    for e in circuit.elements:
        amps = float(point.current(e.name)[0])
        a, b = nodes_of(e)[:2]
        for node, sign in ((a, 1), (b, -1)):
            if node in left:
                left[node] += sign * amps
    largest = max(abs(float(point.current(e.name)[0])) for e in circuit.elements)
    assert max(abs(v) for v in left.values()) <= 1e-6 * largest + 1e-11


@given(st.floats(1, 60), st.floats(10, 1e5))
@settings(max_examples=40, deadline=None)
def test_current_rises_with_the_rail_and_falls_with_resistance(rail, ohms):
    here, higher, more = (
        -operating_point(c).require().current("v1")[0]
        for c in (string(rail, ohms), string(rail * 1.1, ohms), string(rail, ohms * 1.1))
    )
    # A branch's current is known to the last digit of its volts across a small resistance: femtoamperes.
    assert higher >= here - 1e-14
    assert here >= more - 1e-14


@given(st.floats(6, 60), st.floats(100, 1e5))
@settings(max_examples=40, deadline=None)
def test_a_lit_strings_current_moves_in_the_right_measure(rail, ohms):
    """Between dV/R and dV/(R + the junctions' own slope): the string is a resistor and more."""
    here, higher = (-operating_point(string(r, ohms)).require().current("v1")[0] for r in (rail, rail + 0.1))
    slope = (higher - here) / 0.1
    own = 2 * (2.0 * 0.02585 / here + 8.0)
    assert 1 / (ohms + own) * 0.97 <= slope <= 1 / ohms


def test_names_of_nodes_do_not_matter():
    for seed in range(0, 70, 5):
        circuit = generate.circuit(seed)
        names = {n for e in circuit.elements for n in nodes_of(e) if n != "0"}
        other = {n: f"n{k}" for k, n in enumerate(sorted(names, reverse=True))}
        renamed = tuple(
            dataclasses.replace(e, **{t: other.get(getattr(e, t), "0") for t in e.terminals})
            for e in reversed(circuit.elements)
        )
        ours = operating_point(circuit).require()
        theirs = operating_point(dataclasses.replace(circuit, elements=renamed)).require()
        for e in circuit.elements:
            if isinstance(e, VoltageSource):
                assert theirs.current(e.name)[0] == pytest.approx(ours.current(e.name)[0], rel=1e-6, abs=1e-10)


def test_a_batch_is_its_samples_one_by_one():
    rng = np.random.default_rng(4)
    rails, ohms = rng.uniform(-5, 40, 300), np.exp(rng.uniform(3, 11, 300))
    batch = operating_point(string(rails, ohms)).require().current("d1")
    for k in range(0, 300, 37):
        alone = operating_point(string(float(rails[k]), float(ohms[k]))).require().current("d1")[0]
        assert batch[k] == pytest.approx(alone, rel=1e-6, abs=1e-11)


@pytest.mark.parametrize(
    ("parts", "says"),
    [
        ((), "empty"),
        ((Resistor("r1", "a", "b", 1.0),), "tied to ground"),
        ((VoltageSource("v1", "a", "0"), Resistor("r1", "a", "0", 0.0)), "more than 0"),
        ((VoltageSource("v1", "a", "0"), Resistor("r1", "a", "0", -5.0)), "more than 0"),
        ((VoltageSource("v1", "a", "0", Dc(float("nan"))), Resistor("r1", "a", "0", 1.0)), "finite"),
        ((VoltageSource("v1", "a", "0", Dc(float("inf"))), Resistor("r1", "a", "0", 1.0)), "finite"),
        ((VoltageSource("v1", "a", "0", Dc(1e300)), Resistor("r1", "a", "0", 1.0)), "finite"),
        ((VoltageSource("v1", "a", "0"), VoltageSource("v2", "a", "0", Dc(1.0))), "loop of voltage sources"),
        ((VoltageSource("v1", "a", "0"), Inductor("l1", "a", "0", 1.0)), "loop of voltage sources"),
        ((VoltageSource("v1", "a", "0"), Resistor("r1", "a", "0", 1.0), Resistor("R1", "a", "0", 1.0)), "Two parts"),
        ((VoltageSource("v1", "a", "0"), Resistor("r1", "a", "0", 1.0), CurrentSource("i1", "x", "0")), "No DC path"),
    ],
)
def test_what_has_no_answer_is_refused_in_words(parts, says):
    with pytest.raises(CircuitError, match=says):
        operating_point(Circuit(parts))


def test_hard_cases_have_an_answer_and_no_warning():
    """LEDs in reverse, shorted, two hundred in a string, a thousand nodes."""
    led = [Diode(f"d{k}", f"n{k}", f"n{k + 1}" if k < 199 else "0", LED) for k in range(200)]
    long = Circuit((VoltageSource("v1", "a", "0", Dc(500.0)), Resistor("r1", "a", "n0", 1e3), *led))
    ladder = []
    for k in range(500):
        ladder += [Resistor(f"rw{k}", f"n{k}", f"n{k + 1}", 0.05)]
        ladder += [Resistor(f"r{k}", f"n{k + 1}", f"x{k}", 1e3), Diode(f"d{k}", f"x{k}", "0", LED)]
    many = Circuit((VoltageSource("v1", "n0", "0", Dc(12.0)), *ladder))
    shorted = Circuit(
        (
            VoltageSource("v1", "a", "0", Dc(9.0)),
            Resistor("r1", "a", "b", 1e3),
            Diode("d1", "b", "b", LED),
            Resistor("r2", "b", "0", 1e-6),
        )
    )
    with warnings.catch_warnings():
        warnings.simplefilter("error")
        assert operating_point(long).require().current("d1")[0] > 1e-3
        assert operating_point(many).require().current("d499")[0] > 0
        assert operating_point(string(rail=-1000.0)).require().current("d1")[0] == pytest.approx(0, abs=1e-8)
        assert operating_point(shorted).require().current("r2")[0] == pytest.approx(9e-3, rel=1e-6)


def test_a_regulator_holds_drops_out_and_limits():
    """Behavioural, our own: about 2 V of dropout (common practice), a limit, its own current."""

    def out(volts, load):
        point = operating_point(
            Circuit(
                (
                    VoltageSource("v1", "a", "0", Dc(volts)),
                    Regulator("u1", "a", "b", "0", 5.0, dropout=2.0, quiescent=4e-3, limit=0.1),
                    Resistor("rl", "b", "0", load),
                )
            )
        ).require()
        return float(point.voltage("b")[0]), -float(point.current("v1")[0])

    held, drawn = out(12.0, 100.0)
    assert held == pytest.approx(5.0, abs=0.01)
    assert drawn == pytest.approx(0.05 + 0.004, rel=0.01)
    assert out(6.0, 100.0)[0] == pytest.approx(4.0, abs=0.01)
    assert out(12.0, 10.0)[0] == pytest.approx(1.0, abs=0.02)


def test_a_current_source_holds_above_its_dropout():
    point = operating_point(
        Circuit(
            (
                VoltageSource("v1", "a", "0", Dc(np.array([8.0, 24.0]))),
                CurrentRegulator("u1", "a", "b", 0.02),
                Diode("d1", "b", "0", LED),
            )
        )
    ).require()
    assert point.current("d1") == pytest.approx([0.02, 0.02], rel=5e-3)


@pytest.mark.parametrize("on", [True, False])
def test_a_plain_contact_stays_as_it_is_set(on):
    parts = (
        VoltageSource("v1", "a", "0", Dc(12.0)),
        Switch("s1", "a", "b", "0", "0", starts_on=on),
        Resistor("r1", "b", "0", 1e3),
    )
    amps = operating_point(Circuit(parts)).require().current("r1")[0]
    assert amps == pytest.approx(12e-3 if on else 0, rel=2e-3, abs=1e-8)


def test_chance_draws_within_its_ends_and_about_its_middle():
    """Mean and variance of the uniform and the triangular law (textbook: a, b, mode c)."""
    shares = even_draws(1, 4096, 3)[0]
    even = Uniform(11, 15).at(shares)
    assert (even.min() >= 11, even.max() <= 15) == (True, True)
    assert (even.mean(), even.var()) == (pytest.approx(13, rel=2e-3), pytest.approx(16 / 12, rel=0.02))
    a, c, b = 1.8, 2.0, 2.6
    peaked = Triangular(a, c, b).at(shares)
    assert (peaked.min() >= a, peaked.max() <= b) == (True, True)
    assert peaked.mean() == pytest.approx((a + b + c) / 3, rel=2e-3)
    assert peaked.var() == pytest.approx((a * a + b * b + c * c - a * b - a * c - b * c) / 18, rel=0.03)
    assert (Triangular(2.0, 2.0, 2.0).at(shares) == 2.0).all()


def test_flicker_and_reverse_volts_of_a_half_wave():
    """One LED on a sine: light once a cycle, dark between, the whole peak in reverse."""
    parts = (
        VoltageSource("v1", "a", "0", Sine(0, 12.0, 60.0)),
        Resistor("r1", "a", "b", 470.0),
        Diode("d1", "b", "0", LED),
    )
    s = steady_state(Circuit(parts))
    percent, hertz = s.modulation(np.maximum(s.current("d1"), 0))
    assert (percent, hertz) == (pytest.approx(100.0, abs=0.1), pytest.approx(60.0))
    assert -s.across("d1").min() == pytest.approx(12.0, rel=1e-3)
    assert s.rms(s.voltage("a")) == pytest.approx(12 / np.sqrt(2), rel=1e-3)
