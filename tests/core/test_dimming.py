"""A fitted LED dimmed: ratios against Lambert's W by hand, over rails and LEDs nobody told the tool."""

import numpy as np
import pytest
from scipy.special import lambertw

from swapglow.core.analysis.dimming import FittedLed, amps_of, dimmed, ratio_of
from swapglow.core.design.trial import Trial
from swapglow.core.parts.led import catalogue
from swapglow.core.photometry.eye import DOUBT, HALF_STEP
from swapglow.core.photometry.light_law import relative_light
from swapglow.core.presentation.dimming import dimming
from swapglow.core.quantities import VOLT, InputError, parse

RED, WHITE = catalogue()["red-5-diffused"], catalogue()["white-5-clear"]
VT = 0.025693


def by_hand(led, volts, ohm, count=1):
    """Current of a string on a rail: diodes of one n and series resistance (Lambert's W)."""
    r_s = count * led.rs_v / led.vf_a
    nvt = led.n * VT
    i_s = led.vf_a / np.expm1((led.vf_typ - led.rs_v) / nvt)
    n, r = count * nvt, ohm + r_s
    # Argument by its logarithm, for it overflows.
    log_z = np.log(i_s * r / n) + (volts + i_s * r) / n
    w = float(lambertw(np.exp(log_z)).real) if log_z < 600 else log_z - np.log(log_z)
    for _ in range(30):
        w -= (w + np.log(w) - log_z) / (1 + 1 / w)
    return n / r * w - i_s


@pytest.mark.parametrize("led", [RED, WHITE], ids=["red", "white"])
@pytest.mark.parametrize(("volts", "ohm", "count"), [(5, 100, 1), (12, 470, 2), (24, 2200, 1), (14.4, 33e3, 3)])
def test_a_known_rail_and_led_give_the_current(led, volts, ohm, count):
    found = amps_of(FittedLed(ohm, parse(f"{volts}V", VOLT), led, count), volts, led.vf_typ, ohm)
    assert found == pytest.approx(by_hand(led, volts, ohm, count), rel=2e-4)


def test_ratios_hold_whatever_rail_and_led_it_is():
    """Three hundred fitted LEDs, red to white, 3.3 to 24 V, 1 to 20 mA: the true ratio lies between the ends."""
    rng = np.random.default_rng(5)
    light_out = 0
    for _ in range(300):
        led = (RED, WHITE)[int(rng.integers(2))]
        amps = 10 ** rng.uniform(-3, np.log10(0.02))
        took = 10 ** rng.uniform(0, np.log10(20))
        volts = float(led.junction(led.vf_typ).volts(amps)) + took
        ohm, other = took / amps, took / amps * 10 ** rng.uniform(0.1, 2)
        r = ratio_of(FittedLed(ohm), other)
        true = by_hand(led, volts, other) / by_hand(led, volts, ohm)
        assert r.current[0] * 0.99 < true < r.current[2] * 1.01
        light = float(relative_light(led, by_hand(led, volts, other)) / relative_light(led, by_hand(led, volts, ohm)))
        light_out += not r.light[0] * 0.99 < light < r.light[2] * 1.01
    assert light_out == 0


def test_a_known_rail_narrows_the_ratio():
    known = ratio_of(FittedLed(470.0, parse("12V", VOLT), RED), 4700.0)
    blind = ratio_of(FittedLed(470.0), 4700.0)
    assert known.current[2] / known.current[0] < blind.current[2] / blind.current[0]
    assert known.current[1] == pytest.approx(by_hand(RED, 12, 4700) / by_hand(RED, 12, 470), rel=0.02)


def test_less_than_is_fitted_is_never_advised_where_the_rail_is_not_known():
    assert min(r.ohm for r in dimmed(FittedLed(470.0), [Trial(1800.0, "dim"), Trial(680.0, "dim")]).ratios) >= 470
    known = FittedLed(4700.0, parse("12V", VOLT), RED)
    least = min(r.ohm for r in dimmed(known, []).ratios)
    # Down to its rating with the luckiest LED: 12 V less 1.8 V at 20 mA (Ohm).
    assert 10.2 / 0.02 <= least < 10.2 / 0.02 * 1.22


def test_a_rail_that_lights_nothing_is_refused_at_its_field():
    with pytest.raises(InputError, match="do not light") as refused:
        dimming(FittedLed(470.0, parse("0.2V", VOLT), RED), ())
    assert refused.value.field == "rail"


def test_it_comes_to_what_the_eye_wants_in_few_trials():
    """Eighty eyes that want a 400th to a half: right within seven trials for nine in ten."""
    rng = np.random.default_rng(3)
    counts = []
    for _ in range(80):
        wants = -rng.uniform(1.0, np.log2(400))
        trials: list[Trial] = []
        while len(trials) < 20:
            ohm = dimmed(FittedLed(470.0), trials).next.ohm
            off = ratio_of(FittedLed(470.0), ohm).octaves - wants + rng.normal(0, DOUBT)
            said = "bright" if off > HALF_STEP else "dim" if off < -HALF_STEP else "right"
            trials.append(Trial(ohm, said))
            if said == "right":
                break
        counts.append(len(trials))
    assert np.percentile(counts, 90) <= 7


def test_what_was_right_is_said_with_its_current_where_rail_and_led_are_known():
    known = FittedLed(470.0, parse("12V", VOLT), RED)
    said = dimming(known, [Trial(4700.0, "right", id="t")])
    assert said.next == "" and said.next_ohm == 0
    assert said.amps.value == pytest.approx(by_hand(RED, 12, 4700), rel=2e-4)
    assert dimming(FittedLed(470.0), [Trial(4700.0, "right", id="t")]).amps is None
    assert [t.verdict for t in said.trials] == ["Too bright", "Right"]


def test_the_drawer_is_used_where_it_has_a_value_as_near():
    free = dimmed(FittedLed(470.0), []).next.ohm
    assert dimmed(FittedLed(470.0), [], frozenset({free})).next.ohm == free
    near = max(r.ohm for r in dimmed(FittedLed(470.0), []).ratios if r.ohm < free)
    assert dimmed(FittedLed(470.0), [], frozenset({near})).next.ohm == near
    assert dimmed(FittedLed(470.0), [], frozenset({220e3})).next.ohm == free


def test_a_screen_of_the_dot_card_stands_for_the_share_it_passes():
    """Right through 25 %: a quarter of the light, which 470 Ω becomes 1.8 kΩ or so for (ratio of currents)."""
    found = dimmed(FittedLed(470.0), [Trial(470.0, "right", screen=0.25)])
    assert found.belief.median == pytest.approx(-2, abs=0.1)
    assert found.settled is None
    assert found.next.ohm in (1800.0, 2200.0)
    said = dimming(FittedLed(470.0), [Trial(470.0, "right", screen=0.25, id="t")])
    assert said.trials[1].light == "0.25 × the light, through the 25 % screen"


@pytest.mark.parametrize(("ohm", "other"), [(1e-3, 1e9), (1e9, 1e-3), (470.0, 1e9), (1e6, 1e-3)])
def test_no_resistor_is_too_odd_for_a_ratio(ohm, other):
    """However far apart: a larger one carries less, a smaller one more, and both ends hold the middle."""
    r = ratio_of(FittedLed(ohm), other)
    assert r.current[0] <= r.current[1] <= r.current[2]
    assert (r.current[1] < 1) == (other > ohm)


def test_what_is_no_resistor_is_refused():
    for made in (lambda: FittedLed(1e-4), lambda: Trial(1e10, "dim")):
        with pytest.raises(InputError, match="1 GΩ") as refused:
            made()
        assert refused.value.field == "resistor"
