"""What lamps of one item teach each other: LEDs of a lot, and the flasher that several of them are on."""

from dataclasses import replace

import numpy as np
import pytest

from swapglow.core.analysis.fitted import fitted_in
from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.solution import solve
from swapglow.core.assess import Bench, assess
from swapglow.core.design.changes import with_changes
from swapglow.core.evidence.alike import Neighbour, taught
from swapglow.core.evidence.as_read import as_read
from swapglow.core.quantities import Source
from tests.core.drivers import driven
from tests.core.supplies import lamp, on
from tests.core.test_as_read import taken
from tests.core.test_whole_loads import through

HERE = on("regulated", "12V", flat=True, resistor="1k")


def read_at(volts, name="Lamp 1", led="red-5-diffused"):
    """Another lamp whose LED was typed as measured at its rated current."""
    return Neighbour(name, on("regulated", "9V", flat=True, vf=volts, led_id=led), True)


def test_a_lot_that_was_read_narrows_an_led_that_was_not():
    """Prior of the lot 0.06 V around 2.0, part 0.02: one reading of 1.90 gives 1/0.02² against 1/0.06² (conjugate
    normal, by hand): 1.91 V, and a part of it lies within twice √(0.019² + 0.02²) of that."""
    p = taught(HERE, [read_at("1.90V")])
    weights = np.array([1 / 0.06**2, 1 / 0.02**2])
    middle = float(weights @ [2.0, 1.9] / weights.sum())
    reach = 2 * np.sqrt(1 / weights.sum() + 0.02**2)
    assert (p.led.vf_low, p.led.vf_typ, p.led.vf_high) == pytest.approx(
        (middle - reach, middle, middle + reach), abs=1e-3
    )
    assert p.led_source is Source.COMPUTED
    assert "as read on Lamp 1" in next(s.detail for s in assess(p).snapshots[0].staircase.stairs if s.kind == "led")
    # Three that read alike leave less doubt than one; the part's own stays.
    three = taught(HERE, [read_at("1.90V", f"Lamp {k}") for k in range(3)])
    assert 0.04 < three.led.vf_high - three.led.vf_typ < reach
    assert three.led.vf_typ == pytest.approx(1.9, abs=0.006)


def test_lamps_drawn_from_a_lot_lie_in_the_range_that_another_of_it_gives():
    """Lots 0.06 V apart and parts 0.02 V apart, drawn: 95 of 100 LEDs lie in what is said of them."""
    rng = np.random.default_rng(5)
    inside = []
    for lot in rng.normal(2.0, 0.06, 400):
        one, other = lot + rng.normal(0, 0.02, 2)
        led = taught(HERE, [read_at(f"{one:.4f}V")]).led
        inside.append(led.vf_low <= other <= led.vf_high)
    assert np.mean(inside) > 0.92


def test_what_was_read_on_the_lamp_itself_counts_and_another_kind_says_nothing():
    own = as_read(replace(HERE, led=replace(HERE.led)), taken("led_volts 2.02V", "current 9.9mA"))
    assert own.led_source is Source.MEASURED
    assert taught(own, [read_at("1.85V")]) == own
    assert taught(HERE, [read_at("2.1V", led="lime-5-diffused")]) == HERE
    assert taught(HERE, [Neighbour("Lamp 1", on("regulated", "9V", flat=True), True)]) == HERE
    # Another LED chosen: what was read was of the old one.
    changed = with_changes(taught(HERE, [read_at("1.90V")]), {"led_id": "lime-5-diffused"})
    assert changed.led_read_on == () and changed.led_source is Source.ASSUMED


def test_a_resistor_that_was_sized_stays_as_it_is():
    sized = on("regulated", "12V", flat=True, target="8mA")
    assert size(taught(sized, [read_at("2.19V")])).each_ohm == size(sized).each_ohm
    moved = taught(sized, [read_at("2.19V")])
    assert moved.led.vf_typ > sized.led.vf_typ + 0.1
    assert solve(moved).usual[1] < solve(sized).usual[1]


TURN = {"lamp": lamp("12V", "1.75A", "30cd"), "low": "12.8V", "high": "12.8V", "place": "metal"}


def missing(p, *others):
    found = assess(p, Bench(others_read=others)).findings
    return next((f for f in found if f.id == "misses-current"), None)


def test_what_a_flasher_was_seen_to_be_content_with_holds_for_all_on_its_rail():
    """Right with 10 Ω on the left: 12.8 V/10 Ω and the LED are enough on the right too (Ohm)."""
    left = driven("flasher", "12.8V", "0V", right_with="10R", fast_with="15R", **TURN)
    right = driven("flasher", "12.8V", "0V", shunt="12R", **TURN)
    enough, short = (12.8 / ohm + solve(left).usual[1] for ohm in (10, 15))
    told = missing(right, Neighbour("Left", left, True))
    assert told.grade == "mind"
    assert told.limit.replace("\u00a0", " ") == f"{enough:.3g} A"
    assert f"{short * 1e3:.3g} mA" in told.message.replace("\u00a0", " ")
    # As little as was too little there is a stop here; on another rail it says nothing.
    little = driven("flasher", "12.8V", "0V", shunt="15R", **TURN)
    assert missing(little, Neighbour("Left", left, True)).grade == "stop"
    assert "1.81" in missing(right, Neighbour("Left", left, False)).limit
    # What was tried on this one goes before.
    own = driven("flasher", "12.8V", "0V", shunt="12R", right_with="12R", **TURN)
    assert missing(own, Neighbour("Left", left, True)) is None


def test_that_it_keeps_its_rate_is_a_fact_about_what_was_fitted_then():
    """With 10 Ω it did. 33 Ω fitted since prove nothing: 12.8 V/10 Ω and the LED are still what is enough (Ohm)."""
    then = driven("flasher", "12.8V", "0V", shunt="10R", still_fast="no", **TURN)
    assert missing(then) is None
    noted = replace(then, driver=replace(then.driver, tried_with=fitted_in(then)))
    assert missing(noted) is None
    now = replace(noted, shunt_ohm=33.0)
    enough = 12.8 / 10 + through(12.8, size(then).total_ohm)
    assert missing(now).limit.replace("\u00a0", " ") == f"{enough:.3g} A"
    assert missing(replace(noted, shunt_ohm=9.0)) is None
