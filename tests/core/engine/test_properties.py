"""What must hold of any solved circuit, whatever its values."""

import dataclasses
import warnings

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from swapglow.core.engine.monte_carlo import (
    Normal,
    Triangular,
    Uniform,
    corners,
    monte_carlo,
    sensitivities,
    sweep,
)
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
    return Circuit((
        VoltageSource("v1", "a", "0", Dc(rail)), Resistor("r1", "a", "b", ohms),
        Diode("d1", "b", "c", dataclasses.replace(LED, i_s=i_s)), Diode("d2", "c", "0", LED),
    ))  # fmt: skip


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
    # Below the LEDs' reach the currents are picoamperes, known to rounding only.
    assert higher >= here - 1e-12
    assert here >= more - 1e-12


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
                assert theirs.current(e.name)[0] == pytest.approx(
                    ours.current(e.name)[0], rel=1e-6, abs=1e-10
                )


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
        (
            (VoltageSource("v1", "a", "0"), Resistor("r1", "a", "0", 1.0), Resistor("R1", "a", "0", 1.0)),
            "Two parts",
        ),
        (
            (VoltageSource("v1", "a", "0"), Resistor("r1", "a", "0", 1.0), CurrentSource("i1", "x", "0")),
            "No DC path",
        ),
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
    shorted = Circuit((VoltageSource("v1", "a", "0", Dc(9.0)), Resistor("r1", "a", "b", 1e3),
                       Diode("d1", "b", "b", LED), Resistor("r2", "b", "0", 1e-6)))  # fmt: skip
    with warnings.catch_warnings():
        warnings.simplefilter("error")
        assert operating_point(long).require().current("d1")[0] > 1e-3
        assert operating_point(many).require().current("d499")[0] > 0
        assert operating_point(string(rail=-1000.0)).require().current("d1")[0] == pytest.approx(0, abs=1e-8)
        assert operating_point(shorted).require().current("r2")[0] == pytest.approx(9e-3, rel=1e-6)


def test_a_regulator_holds_drops_out_and_limits():
    """Behavioural, our own: about 2 V of dropout (common practice), a limit, its own current."""

    def out(volts, load):
        point = operating_point(Circuit((
            VoltageSource("v1", "a", "0", Dc(volts)),
            Regulator("u1", "a", "b", "0", 5.0, dropout=2.0, quiescent=4e-3, limit=0.1),
            Resistor("rl", "b", "0", load),
        ))).require()  # fmt: skip
        return float(point.voltage("b")[0]), -float(point.current("v1")[0])

    held, drawn = out(12.0, 100.0)
    assert held == pytest.approx(5.0, abs=0.01)
    assert drawn == pytest.approx(0.05 + 0.004, rel=0.01)
    assert out(6.0, 100.0)[0] == pytest.approx(4.0, abs=0.01)
    assert out(12.0, 10.0)[0] == pytest.approx(1.0, abs=0.02)


def test_a_current_source_holds_above_its_dropout():
    point = operating_point(Circuit((
        VoltageSource("v1", "a", "0", Dc(np.array([8.0, 24.0]))),
        CurrentRegulator("u1", "a", "b", 0.02), Diode("d1", "b", "0", LED),
    ))).require()  # fmt: skip
    assert point.current("d1") == pytest.approx([0.02, 0.02], rel=5e-3)


@pytest.mark.parametrize("on", [True, False])
def test_a_plain_contact_stays_as_it_is_set(on):
    parts = (VoltageSource("v1", "a", "0", Dc(12.0)), Switch("s1", "a", "b", "0", "0", starts_on=on),
             Resistor("r1", "b", "0", 1e3))  # fmt: skip
    amps = operating_point(Circuit(parts)).require().current("r1")[0]
    assert amps == pytest.approx(12e-3 if on else 0, rel=2e-3, abs=1e-8)


def case(values):
    return string(values["rail"], values["ohms"], values["i_s"])


def test_corners_hold_every_sample_of_chance():
    ends = {"rail": (11.0, 15.0), "ohms": (646.0, 714.0), "i_s": (1e-19, 1e-17)}
    found = corners(case, ends)
    amps = found.point.current("d1")
    low, high = found.worst(amps)
    assert (low["rail"], high["rail"], low["ohms"], high["ohms"]) == (11.0, 15.0, 714.0, 646.0)
    spread = {"rail": Uniform(11, 15), "ohms": Normal(680, 11), "i_s": Triangular(1e-19, 1e-18, 1e-17)}
    drawn = monte_carlo(case, spread, lambda p: p.current("d1"), samples=2000, seed=3)
    again = monte_carlo(case, spread, lambda p: p.current("d1"), samples=2000, seed=3)
    assert np.array_equal(drawn.measure, again.measure)
    assert amps.min() <= drawn.percentile(0) <= drawn.percentile(50) <= drawn.percentile(100) <= amps.max()
    assert drawn.share_within(0, 1) == 1.0
    assert drawn.share_within(0, drawn.percentile(25)) == pytest.approx(0.25, abs=0.01)


def test_sensitivities_name_what_moves_the_current_most():
    values = {"rail": 13.0, "ohms": 680.0, "i_s": 1e-18}
    doubt = {"rail": (11.0, 15.0), "ohms": (673.0, 687.0), "i_s": (5e-19, 2e-18)}
    moved = sensitivities(case, values, doubt, lambda p: p.current("d1"))
    assert max(moved, key=moved.get) == "rail"
    points = np.array([11.0, 15.0])
    ends = sweep(case, values, "rail", points).current("d1")
    assert moved["rail"] == pytest.approx(ends[1] - ends[0])


def test_flicker_and_reverse_volts_of_a_half_wave():
    """One LED on a sine: light once a cycle, dark between, the whole peak in reverse."""
    parts = (VoltageSource("v1", "a", "0", Sine(0, 12.0, 60.0)), Resistor("r1", "a", "b", 470.0),
             Diode("d1", "b", "0", LED))  # fmt: skip
    s = steady_state(Circuit(parts))
    percent, hertz = s.modulation(np.maximum(s.current("d1"), 0))
    assert (percent, hertz) == (pytest.approx(100.0, abs=0.1), pytest.approx(60.0))
    assert s.peak_reverse("d1") == pytest.approx(12.0, rel=1e-3)
    assert 120 < s.conduction_deg("d1") < 180
    assert s.rms(s.voltage("a")) == pytest.approx(12 / np.sqrt(2), rel=1e-3)
