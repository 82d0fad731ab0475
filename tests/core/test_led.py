"""The LED's junction against pvlib's single-diode solution and against its own data sheet."""

import numpy as np
import pvlib
import pytest
from scipy.special import lambertw

from swapglow.core.analysis.solution import current, solve
from swapglow.core.constants import thermal_voltage
from swapglow.core.design.position import Position
from swapglow.core.network.builder import build
from swapglow.core.network.cases import Cases
from swapglow.core.parts import led
from swapglow.core.quantities import Figure
from swapglow.core.supplies.rail import Rail


@pytest.mark.parametrize("kind", led.catalogue().values(), ids=lambda k: k.id)
def test_forward_voltage_holds_at_rated_current(kind):
    for vf in (kind.vf_low, kind.vf_typ, kind.vf_high):
        assert kind.junction(vf).volts(kind.rated_a) == pytest.approx(vf, rel=1e-9)


def test_forward_voltage_falls_two_millivolts_a_kelvin():
    # Common practice: about −2 mV/K at constant current.
    kind = led.catalogue()["red-5-diffused"]
    cold, hot = (kind.junction(kind.vf_typ, c).volts(kind.rated_a) for c in (25, 75))
    assert cold - hot == pytest.approx(0.1, rel=1e-6)


def _string(rng, n):
    kinds = list(led.catalogue().values())
    for _ in range(n):
        kind = kinds[rng.integers(len(kinds))]
        count = int(rng.integers(1, 6))
        # Beyond 600 n·Vt pvlib's exponential overflows.
        most = 600 * count * kind.n * thermal_voltage(25)
        rail = float(rng.uniform(0.5, min(60.0, most)))
        yield kind, count, rail, float(np.exp(rng.uniform(np.log(30), np.log(1e5))))


def test_single_strings_agree_with_pvlib():
    """Source, resistor and n diodes are a solar cell in the dark, driven backwards (pvlib.singlediode)."""
    for kind, count, rail, ohms in _string(np.random.default_rng(1), 60):
        p = Position(Rail(Figure(rail), Figure(rail), Figure(rail)), kind, Figure(1e-3), in_series=count)
        ours = current(p, Cases(np.array([rail]), np.array([kind.vf_typ]), np.array([ohms])))[0]
        j = kind.junction(kind.vf_typ)
        nvt = count * j.n * thermal_voltage(25)
        # At the cell's terminals V = rail and I = −(string current); no photocurrent, no shunt.
        theirs = -pvlib.pvsystem.i_from_v(
            voltage=rail,
            photocurrent=0.0,
            saturation_current=float(j.i_s),
            resistance_series=ohms + count * j.r_s,
            resistance_shunt=np.inf,
            nNsVth=nvt,
            method="lambertw",
        )
        assert ours == pytest.approx(float(theirs), rel=1e-6, abs=1e-10)


def test_lambert_w_by_hand():
    """I = n·Vt/R·W(Is·R/(n·Vt)·exp((V + Is·R)/(n·Vt))) − Is (Banwell and Jayakumar 2000)."""
    kind = led.catalogue()["lime-5-diffused"]
    j, rail, ohms = kind.junction(kind.vf_typ), 5.3, 910.0
    nvt, r = j.n * thermal_voltage(25), ohms + j.r_s
    i_s = float(j.i_s)
    expected = nvt / r * lambertw(i_s * r / nvt * np.exp((rail + i_s * r) / nvt)).real - i_s
    p = Position(Rail(Figure(rail), Figure(rail), Figure(rail)), kind, Figure(1e-3))
    assert current(p, Cases(rail, kind.vf_typ, np.array([ohms])))[0] == pytest.approx(expected, rel=1e-6)


def test_equal_leds_drawn_as_one_junction_are_the_same_circuit():
    from swapglow.core.engine.operating_point import operating_point

    kind = led.catalogue()["green-5-clear"]
    p = Position(Rail(Figure(20), Figure(24), Figure(28)), kind, Figure(5e-3), in_series=4)
    cases = Cases(24.0, 3.2, 1500.0)
    one, four = (
        operating_point(build(p, cases, stacked=s).circuit).require().current("Vrail")[0] for s in (True, False)
    )
    assert one == pytest.approx(four, rel=1e-9)


def test_an_own_range_keeps_a_junction():
    own = led.with_range(led.kind_of(1.2), 1.1, 1.2, 1.3, 0.02)
    assert own.rs_v <= 1.1 / 3 and own.junction(1.2).volts(0.02) == pytest.approx(1.2)
    with pytest.raises(led.LedError):
        led.with_range(led.kind_of(2), 2.2, 2.0, 2.1, 0.02)


def test_corners_bound_every_case():
    kind = led.catalogue()["warm-5-diffused"]
    p = Position(Rail(Figure(11.1), Figure(12.9), Figure(15.2)), kind, Figure(5e-3), in_series=2)
    s = solve(p)
    rng = np.random.default_rng(2)
    inside = current(
        p,
        Cases(
            rng.uniform(11.1, 15.2, 400),
            rng.uniform(kind.vf_low, kind.vf_high, 400),
            s.sizing.total_ohm * rng.uniform(0.95, 1.05, 400),
        ),
    )
    assert s.string_current_min <= inside.min() * (1 + 1e-9) and inside.max() <= s.string_current_max * (1 + 1e-9)
