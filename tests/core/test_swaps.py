"""The search: what it weighs, how it ranks, and that every swap it shows is what it says."""

from dataclasses import replace

import numpy as np
import pytest

from swapglow.core.analysis.limits import DIM_AMPS, dim_amps
from swapglow.core.analysis.sizing import size
from swapglow.core.analysis.solution import solve
from swapglow.core.assess import assess
from swapglow.core.design.changes import with_changes
from swapglow.core.search import search
from swapglow.core.search.candidates import candidates
from swapglow.core.search.evaluate import evaluate
from swapglow.inputs.patch import texts_of
from tests.core.drivers import driven
from tests.core.supplies import lamp, on

GHOST = driven(
    "low_side", "5V", "0V", in_series=2, resistor="47R", target="20mA", keep_warm="220R", lamp=lamp("5V", "0.06A")
)
SWINGING = on(
    "regulated", "12V", low="9V", high="16V", led_id="warm-5-diffused", target="8mA", lamp=lamp("14V", "0.1A", "0.6cd")
)
TURN = driven(
    "flasher",
    "13.6V",
    "0V",
    in_series=3,
    branches=6,
    place="metal",
    low="12V",
    high="14.4V",
    lamp=lamp("12V", "1.75A", "30cd"),
)
WINDING = on(
    "winding", "9.1Vac", {"hertz": "50Hz"}, led_id="warm-5-diffused", target="4mA", lamp=lamp("9V", "0.1A", "0.3cd")
)


def labels(p):
    return {c.id for c, _ in candidates(p)}


@pytest.mark.parametrize(
    ("p", "wanted"),
    [
        (GHOST, {"as-is", "leave", "remove-bleed", "shunt-assembly", "shunt-leds", "series-1", "halves", "drive-half"}),
        (
            SWINGING,
            {
                "series-2",
                "branches-2",
                "current-source",
                "fixed-regulator",
                "drive-tenth",
                "drive-rated",
                "other-lead",
                "nearest",
                "brighter-led",
            },
        ),
        (TURN, {"cool", "load-resistor", "ready-turn-12", "ready-turn-loaded-12"}),
        (WINDING, {"rectify-inverse-diode", "rectify-bridge", "rectify-half-wave-cap"}),
        (driven("series_lamps", "12V", others="1", lamp=lamp("6V", "0.1A")), {"one-string", "in-branches"}),
        (driven("shared", "18V", dropper="82R", loads="x max 16V", lamp=lamp("6V", "0.1A")), {"bleeder"}),
        (on("sense", "9V", {"source": "2k", "trip": "0.8mA"}, resistor="330R"), {"line-safe", "brighter-led"}),
    ],
)
def test_the_sensible_swaps_are_all_weighed(p, wanted):
    """What the trade knows for each driver (common practice)."""
    assert wanted <= labels(p)


@pytest.mark.parametrize("p", [GHOST, SWINGING, TURN, WINDING])
def test_every_swap_shown_can_be_taken_and_comes_to_what_it_says(p):
    for s in search(p).swaps:
        if s.id == "leave":
            continue
        texts_of(s.changes, p.driver.kind.id)  # a record can keep it
        q = with_changes(p, s.changes)
        assert s.current.replace("\u00a0", " ") == _amps(solve(q).usual[1]), s.id


def _amps(value):
    from swapglow.core.quantities import AMPERE, show

    return show(float(value), AMPERE).replace("\u00a0", " ")


@pytest.mark.parametrize("p", [GHOST, SWINGING, TURN, WINDING])
def test_the_winner_is_forbidden_by_nothing_and_every_swap_says_why(p):
    found = search(p).swaps
    assert found[0].best
    assert found[0].grade == "fits"
    assert found[0].why.startswith("Wins: ")
    for s in found[1:]:
        assert s.why.startswith("Out: ") == (s.grade == "stop"), s.id
        assert s.why.startswith(("Out: ", "Behind: ", "Level with", "Too dim: ")), s.id
    assert {"as-is", "leave"} <= {s.id for s in found}


@pytest.mark.parametrize(
    ("purpose", "least", "needs"), [("light", 0.25, "it must light something"), ("see", 0.05, "it must be seen")]
)
def test_a_swap_too_dim_for_what_the_lamp_is_for_never_wins(purpose, least, needs):
    """A lamp of 30 cd lit a drawing; what gives under a quarter of it, or a twentieth to be seen, loses (ours)."""
    p = replace(
        on("regulated", "12V", led_id="red-5-diffused", target="5mA", lamp=lamp("12V", "1.75A", "30cd")),
        purpose=purpose,
    )
    first, *others = search(p).swaps
    assert first.best
    assert first.id == "leave" or evaluate(with_changes(p, first.changes)).ratio >= least
    (as_is,) = [s for s in others if s.id == "as-is"]
    assert as_is.why.startswith("Too dim: ")
    assert needs in as_is.why
    # An old lamp that was as much dimmer leaves enough.
    enough = replace(p, lamp=replace(p.lamp, candela=30 * evaluate(p).ratio / least * 0.99))
    assert evaluate(enough).ratio > least
    assert not next(s for s in search(enough).swaps if s.id == "as-is").why.startswith("Too dim: ")


def test_both_schools_stand_beside_each_other_with_ours_marked():
    """Load resistor or a flasher that does not count; add a part or change the board (common practice)."""
    turn = {s.id: s for s in search(TURN).swaps}
    assert turn["cool"].ours and not turn["load-resistor"].ours
    ghost = {s.id: s for s in search(GHOST).swaps}
    assert ghost["shunt-assembly"].ours and not ghost["remove-bleed"].ours
    assert ghost["remove-bleed"].reversible != ghost["shunt-assembly"].reversible


@pytest.mark.parametrize("weight", ["life", "look", "heat", "parts", "reversible"])
def test_what_the_user_weighs_moves_the_ranking_its_way(weight):
    """The winner by a weight is at least as good in it as the winner without."""
    from swapglow.core.search.candidates import candidates as every
    from swapglow.core.search.rank import _score

    for p in (GHOST, SWINGING):
        marks = {c.id: _score(c, q, (), frozenset()).marks for c, q in every(p)}
        before, after = search(p).swaps[0], search(p, (weight,)).swaps[0]
        assert marks[after.id][weight] >= marks[before.id][weight] - 1e-9


def test_chance_lies_within_the_corners():
    """No sample is outside what all ends together give; the same seed gives the same samples."""
    for p in (GHOST, SWINGING, TURN):
        j = evaluate(p)
        assert j.string_current_min <= j.current_low <= j.current_usual <= j.current_high <= j.string_current_max
    evaluate.cache_clear()
    assert evaluate(SWINGING) == evaluate(SWINGING)


def test_a_cycle_is_not_said_to_be_drawn_by_chance():
    assert not search(WINDING).by_chance
    assert search(SWINGING).by_chance


def test_the_heat_is_what_ohm_says():
    """28 V, a blue LED and 1.8 kΩ: 0.34 W in the resistor (common practice)."""
    p = on("regulated", "28V", led_id="blue-5-clear", target="14mA", resistor="1k8")
    assert evaluate(p).heat_w == pytest.approx(0.34, rel=0.03)


def test_a_current_source_holds_steadier_than_a_resistor():
    """Where the rail swings the regulated one spreads less (common practice: regulate first)."""
    made = {c.id: q for c, q in candidates(SWINGING)}
    source, plain = evaluate(made["current-source"]), evaluate(SWINGING)
    assert (source.current_high - source.current_low) < 0.5 * (plain.current_high - plain.current_low)


THIN = on(
    "regulated", "12V", low="11V", high="13.5V", led_id="blue-3-diffused", in_series=3, target="9mA", rounding="down"
)


@pytest.mark.parametrize("one_batch", [True, False])
def test_the_yield_is_within_a_point_of_two_hundred_thousand_draws(one_batch):
    """Dice of numpy's own on Ohm and Kirchhoff with each LED's logarithm (Shockley 1949), 200 000 times.

    LEDs that each have their own luck even each other out: their band is the narrower.
    """
    p = replace(THIN, one_batch=one_batch)
    f, led = evaluate(p), p.led
    rng, count = np.random.default_rng(11), 200_000
    rail = rng.triangular(11, 12, 13.5, count)
    ohms = size(p).total_ohm * rng.uniform(0.95, 1.05, count)
    vf = rng.triangular(led.vf_low, led.vf_typ, led.vf_high, (1 if one_batch else 3, count)).mean(axis=0)
    amps = np.full(count, 5e-3)
    for _ in range(60):  # V = 3·(Vf + n·Vt·ln(I/If) + (I − If)·Rs) + I·R, by halving the step
        slope = 3 * (led.n * 0.025693 / amps + led.rs_v / 0.02) + ohms
        volts = 3 * (vf + led.n * 0.025693 * np.log(amps / 0.02) + (amps - 0.02) * led.rs_v / 0.02) + amps * ohms
        amps = np.maximum(amps + (rail - volts) / slope, amps / 3)
    inside = ((amps >= min(DIM_AMPS, dim_amps(p))) & (amps <= p.ceiling_a)).mean()
    assert 0.05 < inside < 0.97
    assert f.inside == pytest.approx(inside, abs=0.01)
    assert (f.current_low, f.current_high) == pytest.approx(tuple(np.percentile(amps, [5, 95])), rel=0.01)


@pytest.mark.parametrize(
    ("kind", "ours"),
    [("winding", "rectify-bridge-cap"), ("digital", "rectify-bridge"), ("reversing", "rectify-bridge")],
)
def test_of_the_ways_to_rectify_one_is_called_ours(kind, ours):
    """A bridge and capacitor on a sine, a bridge on what reverses (ours)."""
    p = on(kind, "12Vac" if kind == "winding" else "12V", rectification="bare")
    said = {c.id: (c.school, c.ours) for c, _ in candidates(p) if c.id.startswith("rectify-")}
    assert [key for key, (school, _) in said.items() if school == "ours for this supply"] == [ours]
    assert [key for key, (_, is_ours) in said.items() if is_ours] == [ours]
    assert len(said) > 1


def test_what_lies_in_the_drawer_is_a_swap_of_its_own_and_wins_where_it_is_asked_for():
    """10 V over 10 mA: 1 kΩ; the drawer has 1.2 kΩ, and 2.2 kΩ which is past twice the value."""
    p = on("regulated", "12V", vf="2V", target="10mA", series="E96", lamp_id="own", lamp_volts="12V", lamp_amps="0.1A")
    here = frozenset({220.0, 1200.0, 2200.0})
    plain = {c.id for c, _ in candidates(p)}
    assert "at-hand" not in plain
    (found,) = [(c, q) for c, q in candidates(p, here) if c.id == "at-hand"]
    assert found[0].changes == {"resistor_ohm": 1200.0} and found[1].resistor_ohm == 1200.0
    assert "at-hand" not in {c.id for c, _ in candidates(p, frozenset({220.0, 2200.0}))}
    each = size(p).each_ohm
    assert "at-hand" not in {c.id for c, _ in candidates(p, frozenset({each, 1200.0}))}
    unasked, asked = search(p, (), here), search(p, ("stock",), here)
    (swap,) = [s for s in asked.swaps if s.id == "at-hand"]
    assert swap.stock == "1.2\u00a0kΩ in the drawer" and swap.label == "1.2\u00a0kΩ, out of the drawer"
    assert asked.swaps[0].stock.endswith("in the drawer") or asked.swaps[0].id == "leave"
    ranks = [[s.id for s in found.swaps] for found in (unasked, asked)]
    assert "at-hand" not in ranks[0] or ranks[1].index("at-hand") <= ranks[0].index("at-hand")
    # Without a drawer the weight does nothing.
    assert [s.id for s in search(p, ("stock",)).swaps] == [s.id for s in search(p).swaps]


@pytest.mark.parametrize(
    ("here", "each", "says"),
    [
        ((), 1000.0, "next up in E12"),
        ((1200.0, 220.0), 1200.0, "the next up that lies in the drawer"),
        ((1000.0, 1200.0), 1000.0, "the next up that lies in the drawer"),
        ((2000.0,), 2000.0, "the next up that lies"),
        ((2001.0, 999.0), 1000.0, "next up in E12"),
    ],
)
def test_a_size_is_chosen_from_the_drawer_where_that_is_asked_for(here, each, says):
    """12 V less 1.9 V over 10.5 mA: 962 Ω, 1 kΩ in E12; up to twice that is taken from the drawer."""
    p = replace(on("regulated", "12V", vf="2V", target="10.5mA", series="E12"), at_hand=frozenset(here))
    assert size(p).each_ohm == each and size(p).exact_ohm == pytest.approx(962, abs=3)
    assert assess(p).sizing.each.origin.startswith(says)
    # Somebody's own value stays, and so does what a ready-made lamp has inside.
    assert size(replace(p, resistor_ohm=470.0)).each_ohm == 470.0
