"""Runs in time and settled cycles against closed forms."""

import math

import numpy as np
import pytest

from swapglow.core.engine import straight
from swapglow.core.engine.mna import System
from swapglow.core.engine.netlist import (
    Bjt,
    BjtModel,
    Capacitor,
    Circuit,
    CircuitError,
    CurrentSource,
    Dc,
    Diode,
    DiodeModel,
    Inductor,
    Pulse,
    Pwl,
    Resistor,
    Sine,
    VoltageSource,
)
from swapglow.core.engine.newton import critical, limited
from swapglow.core.engine.periodic import period_of, steady_state
from swapglow.core.engine.transient import transient
from tests.core.engine import generate

LED = DiodeModel(i_s=1e-18, n=2.0, r_s=8.0)


def test_a_capacitor_charges_by_the_exponential():
    """V·(1 − e^(−t/RC))."""
    parts = (
        VoltageSource("v1", "a", "0", Pwl(((0.0, 0.0), (1e-9, 9.0)))),
        Resistor("r1", "a", "b", 1e4),
        Capacitor("c1", "b", "0", 1e-7),
    )
    run = transient(Circuit(parts), 5e-3, 2e-5)
    expected = 9 * (1 - np.exp(-run.t / 1e-3))
    assert np.abs(run.voltage("b") - expected).max() < 9e-3
    # Its current is what the resistor gives it.
    assert run.current("c1")[5:] == pytest.approx((run.voltage("a") - run.voltage("b"))[5:] / 1e4, rel=1e-3, abs=1e-9)


def test_a_tuned_circuit_rings_at_its_frequency():
    """f = 1/(2π√(LC)) for a light damping."""
    parts = (
        CurrentSource("i1", "0", "a", Pulse(1e-3, 0.0, 0.0, 1e-9, 1e-9)),
        Resistor("r1", "a", "0", 1e5),
        Inductor("l1", "a", "0", 0.01),
        Capacitor("c1", "a", "0", 1e-7),
    )
    run = transient(Circuit(parts), 2e-3, 2e-6)
    v = run.voltage("a")
    crossings = run.t[1:][(v[1:] > 0) & (v[:-1] <= 0)]
    hertz = (len(crossings) - 1) / (crossings[-1] - crossings[0])
    assert hertz == pytest.approx(1 / (2 * math.pi * math.sqrt(0.01 * 1e-7)), rel=5e-3)


def test_a_pulsed_led_carries_its_share_of_the_time():
    """Average = on-current × duty, for edges that are short beside the period."""
    on = Pulse(0.0, 5.0, 0.0, 1e-6, 1e-6, 2.5e-3, 1e-2)
    parts = (VoltageSource("v1", "a", "0", on), Resistor("r1", "a", "b", 330.0), Diode("d1", "b", "0", LED))
    s = steady_state(Circuit(parts))
    amps = s.current("d1")
    assert s.average(amps) == pytest.approx(amps.max() * 0.25, rel=5e-3)
    assert s.modulation(np.maximum(amps, 0))[0] == pytest.approx(100, abs=0.1)
    assert 360 * s.average((amps > 0.01 * amps.max()).astype(float)) == pytest.approx(90, abs=1.5)


def test_full_wave_light_flickers_at_twice_the_line():
    d = DiodeModel(i_s=1e-9, n=1.8)
    diodes = (("p", "x"), ("m", "x"), ("0", "p"), ("0", "m"))
    bridge = [Diode(f"d{k}", a, c, d) for k, (a, c) in enumerate(diodes, start=1)]
    parts = (
        VoltageSource("v1", "p", "m", Sine(0, 15.0, 50.0)),
        *bridge,
        Resistor("rg", "m", "0", 1e6),
        Resistor("r1", "x", "y", 680.0),
        Diode("d5", "y", "0", LED),
    )
    s = steady_state(Circuit(parts))
    percent, hertz = s.modulation(np.maximum(s.current("d5"), 0))
    assert hertz == pytest.approx(100.0)
    assert percent == pytest.approx(100.0, abs=0.5)
    # In a bridge a diode stands the peak less the drop of its neighbour.
    assert -s.across("d1").min() == pytest.approx(15.0 - 0.75, rel=0.03)


def test_an_average_on_a_steady_source_with_a_sine_on_top_is_the_steady_part():
    parts = (
        VoltageSource("v1", "a", "0", Sine(5.0, 1.0, 60.0)),
        Resistor("r1", "a", "b", 1e3),
        Capacitor("c1", "b", "0", 1e-4),
        Resistor("r2", "b", "0", 1e3),
        Diode("d1", "0", "b", LED),
    )
    s = steady_state(Circuit(parts))
    assert s.average(s.voltage("b")) == pytest.approx(2.5, rel=1e-3)
    # First-order filter: gain |Z/(R + Z)| with Z = R2 in parallel with C.
    w = 2 * math.pi * 60
    z = 1 / (1 / 1e3 + 1j * w * 1e-4)
    assert s.ripple(s.voltage("b")) == pytest.approx(2 * abs(z / (1e3 + z)), rel=0.02)


@pytest.mark.parametrize(
    ("waves", "period"),
    [
        ((Sine(0, 1, 50.0),), 0.02),
        ((Sine(0, 1, 50.0), Sine(0, 1, 60.0)), 0.1),
        ((Pulse(0, 1, period=0.004, width=0.001), Sine(0, 1, 50.0)), 0.02),
    ],
)
def test_sources_repeat_together_after_the_common_period(waves, period):
    parts = [VoltageSource(f"v{k}", f"n{k}", "0", w) for k, w in enumerate(waves)]
    assert period_of(Circuit(tuple(parts))) == pytest.approx(period)


def test_no_cycle_where_nothing_repeats():
    parts = (VoltageSource("v1", "a", "0", Dc(5.0)), Resistor("r1", "a", "b", 1e3), Diode("d1", "b", "0", LED))
    with pytest.raises(CircuitError, match="no cycle"):
        steady_state(Circuit(parts))


@pytest.mark.parametrize(
    ("stop", "step", "says"),
    [
        (1.0, 0.0, "above 0"),
        (1.0, 2.0, "above 0"),
        (1.0, 1e-9, "1e\\+09 steps; 400000 are the most"),
        (float("inf"), 1.0, "above 0"),
    ],
)
def test_a_run_that_makes_no_sense_is_refused(stop, step, says):
    parts = (VoltageSource("v1", "a", "0", Dc(1.0)), Resistor("r1", "a", "0", 1.0))
    with pytest.raises(CircuitError, match=says):
        transient(Circuit(parts), stop, step)


def _clipper(bv):
    """A sine into a Zener and an LED the other way round, a reservoir behind."""
    zener = DiodeModel(i_s=1e-12, n=1.5, r_s=2.0, bv=bv, ibv=5e-3)
    return Circuit(
        (
            VoltageSource("v1", "a", "0", Sine(0, 15.0, 50.0)),
            Resistor("r1", "a", "b", 470.0),
            Diode("d1", "0", "b", zener),
            Diode("d2", "b", "c", LED),
            Capacitor("c1", "c", "0", 4.7e-5),
            Resistor("r2", "c", "0", 1e3),
        )
    )


def _driven(polarity):
    """A transistor that a square wave switches, an inductor in its LED's string."""
    high = Pulse(0.0, 5.0 * polarity, 1e-3, 1e-6, 1e-6, 4e-3, 1e-2)
    return Circuit(
        (
            VoltageSource("v1", "feed", "0", Dc(12.0 * polarity)),
            VoltageSource("v2", "in", "0", high),
            Resistor("rb", "in", "b", 4.7e3),
            Bjt("q1", "c", "b", "0", BjtModel(polarity, 1e-14, 120.0, 2.0, v_af=90.0)),
            Resistor("r1", "feed", "x", 680.0),
            Inductor("l1", "x", "y", 5e-3),
            Diode("d1", *(("y", "c") if polarity > 0 else ("c", "y")), LED),
        )
    )


@pytest.mark.parametrize(
    "circuit",
    [*(generate.rectifier(seed) for seed in range(4)), _clipper(6.2), _driven(1), _driven(-1)],
    ids=lambda c: c.title or c.elements[-1].name,
)
def test_a_run_written_out_is_the_run_by_arrays(circuit, monkeypatch):
    """The same steps by two programs: written-out elimination, and Newton's method on arrays."""
    fast = transient(circuit, 0.03, 1e-4)
    assert straight.suits(System(circuit))
    monkeypatch.setattr("swapglow.core.engine.transient.suits", lambda system: False)
    slow = transient(circuit, 0.03, 1e-4)
    for node in slow.nodes:
        by_slow = np.interp(fast.t, slow.t, slow.voltage(node))
        # Instants differ by what steps were taken; a steep edge between two of them is not compared.
        apart = np.abs(fast.voltage(node) - by_slow)
        assert np.percentile(apart, 99) < 2e-3, node
        assert fast.voltage(node)[-1] == pytest.approx(slow.voltage(node)[-1], abs=2e-4), node


def test_every_step_of_a_lamp_run_is_written_out(monkeypatch):
    """None is left to the arrays, which take some twenty times as long."""
    general = []
    monkeypatch.setattr("swapglow.core.engine.transient._Run._in_general", lambda *a: general.append(a))
    transient(_clipper(6.2), 0.03, 1e-4)
    assert general == []


@pytest.mark.parametrize(("new", "old"), [(0.9, 0.6), (5.0, -2.0), (0.66, 0.65), (-40.0, 0.7), (30.0, 1e-3)])
def test_one_junctions_limiter_is_that_of_many(new, old):
    nvt, crit = 0.0388, float(critical(np.array([1e-12]), np.array([0.0388]))[0])
    many = limited(np.array([new]), np.array([old]), np.array([nvt]), np.array([crit]))
    assert straight.limit(new, old, nvt, crit) == pytest.approx(float(many[0]), rel=1e-14)


def test_a_settled_cycle_through_a_coil_by_its_impedance():
    """20 V and 10 V of 50 Hz on 100 Ω and 0.5 H: 0.2 A, and 10/|R + jωL| of it moving; a dark diode stands by."""
    parts = (
        VoltageSource("v1", "a", "0", Sine(20.0, 10.0, 50.0)),
        Resistor("r1", "a", "b", 100.0),
        Inductor("l1", "b", "0", 0.5),
        Diode("d1", "0", "a", LED),
    )
    s = steady_state(Circuit(parts))
    amps = s.current("l1")
    assert s.average(amps) == pytest.approx(0.2, rel=1e-3)
    assert s.ripple(amps) == pytest.approx(2 * 10 / abs(100 + 2j * math.pi * 50 * 0.5), rel=0.02)


def test_two_capacitors_settle_as_each_alone():
    """Two RC filters on one source do not know of each other: gain 1/√(1 + (ωRC)²) of each (Ohm)."""
    parts = (
        VoltageSource("v1", "a", "0", Sine(5.0, 2.0, 50.0)),
        Diode("d1", "0", "a", LED),
        Resistor("r1", "a", "b", 1e3),
        Capacitor("c1", "b", "0", 4.7e-6),
        Resistor("r2", "a", "c", 2.2e3),
        Capacitor("c2", "c", "0", 1e-6),
    )
    s = steady_state(Circuit(parts))
    for node, tau in (("b", 1e3 * 4.7e-6), ("c", 2.2e3 * 1e-6)):
        gain = 1 / math.hypot(1, 2 * math.pi * 50 * tau)
        assert s.ripple(s.voltage(node)) == pytest.approx(4 * gain, rel=0.02), node
        assert s.average(s.voltage(node)) == pytest.approx(5.0, rel=1e-3), node
