"""Loads counted whole: strings of other LEDs, a rail's budget, a battery's one life, ready-made lamps' insides."""

from dataclasses import replace

import numpy as np
import pytest

from scripts import reference
from swapglow.core.analysis.budget import budget
from swapglow.core.analysis.draws import Member
from swapglow.core.analysis.load_resistor import watch
from swapglow.core.analysis.sizing import size, turned
from swapglow.core.analysis.solution import current, solve
from swapglow.core.analysis.spice_text import spice_text
from swapglow.core.analysis.states import state_solutions
from swapglow.core.analysis.trip_current import with_trip
from swapglow.core.assess import Bench, assess
from swapglow.core.findings import verdict
from swapglow.core.measurement.reading_after import read_after
from swapglow.core.network.cases import Cases
from swapglow.core.parts.ready_made import Module
from swapglow.core.presentation.budget import rail_budget
from swapglow.core.quantities import InputError
from tests.core.drivers import driven
from tests.core.light import candela
from tests.core.supplies import lamp, on

NVT = 1.9 * 0.025693


def red(amps):
    """Forward volts of the table's red diffused LED, 2.0 V at 20 mA (Shockley 1949)."""
    return 2.0 + NVT * np.log(amps / 0.02) + 0.14 * (amps / 0.02 - 1)


def through(volts, ohm):
    """Current of one red LED behind a resistor, by halving (Ohm, Kirchhoff)."""
    low, high = 1e-9, 1.0
    for _ in range(80):
        middle = (low + high) / 2
        low, high = (middle, high) if red(middle) + middle * ohm < volts else (low, middle)
    return low


TWO = on(
    "regulated",
    "12V",
    low="10V",
    high="14V",
    vf="2V",
    resistor="1k",
    branches=2,
    beside={
        "b": {"led_id": "blue-3-diffused", "resistor": "2k2", "name": "Night", "in_series": 2},
        "a": {"led_id": "green-3-diffused", "drive": "2mA", "place": 1},
    },
)


def test_other_strings_are_in_the_circuit_and_the_reference_agrees():
    """Supply current of two red strings, two blue in series and one green: ngspice within 0.1 %."""
    p = solve(TWO).position
    assert [b.name for b in p.beside] == ["Night", "True green 3 mm diffused"]
    deck = spice_text(p, size(p).total_ohm).lower().replace(".op\n", "")
    (found,) = reference.operating_points([deck])
    flat = replace(p, rail=replace(p.rail, low=p.rail.usual, high=p.rail.usual))
    assert float(assess(flat).current.lamp.value) == pytest.approx(-found["i(vrail)"], rel=1e-3)
    assert solve(TWO).usual[1] == pytest.approx(through(12, 1000), rel=1e-3)


def test_each_string_is_judged_by_its_own_parts():
    """Blue at 220 Ω is over its rating though the red one is not; its resistor is judged as well."""
    hot = replace(TWO, beside=(replace(TWO.beside[0], resistor_ohm=220.0, in_series=1),))
    assert "over-rated-current" not in {f.id for f in verdict(hot)}
    own = next(f for f in verdict(hot) if f.id == "over-rated-current-beside-1")
    assert own.grade == "stop"
    assert own.message.startswith("Night: ")
    seen = turned(solve(hot).position, 0)
    assert own.figure.replace("\u00a0", " ").split()[0] == f"{solve(seen).string_current_max * 1e3:.3g}"
    assert seen.beside[0].ohm == size(hot).total_ohm


def test_both_dice_of_a_two_colour_led_have_their_own_current():
    """Red 2.0 V and true green 3.2 V on one resistor: (9 − Vf)/1 kΩ each way (Ohm)."""
    p = on(
        "reversing",
        "9V",
        flat=True,
        vf="2V",
        resistor="1k",
        rectification="two_colour",
        second_led_id="green-3-diffused",
    )
    report = assess(p)
    (other,) = report.current.strings
    assert report.current.usual.value == pytest.approx(through(9, 1000), rel=2e-3)
    assert other.usual.value == pytest.approx((9 - 2.75) / 1000, rel=0.01)
    hot = replace(p, resistor_ohm=250.0)
    assert {"over-rated-current", "over-rated-current-second"} <= {f.id for f in verdict(hot)}


@pytest.mark.parametrize(
    ("more", "says"),
    [
        ({"module": {"amps": "20mA"}, "band": "10-15V"}, "ready-made"),
        ({"regulator_id": "adjustable-to92"}, "current source"),
        ({"shunt": "1k", "shunt_across": "leds"}, "LED alone"),
    ],
)
def test_what_does_not_go_with_other_strings_is_refused_by_name(more, says):
    with pytest.raises(InputError, match=says) as refusal:
        on("regulated", "12V", beside={"a": {"led_id": "blue-chip"}}, **more)
    assert refusal.value.field == "beside"


def on_one(**more):
    return on("regulated", "12V", {}, flat=True, vf="2V", **more)


def members(*resistors, lit=("always",), **more):
    return tuple(
        Member(str(k), f"Lamp {k}", on_one(resistor=f"{r}R", **lamp("12V", "0.1A"), **more), lit[k % len(lit)])
        for k, r in enumerate(resistors)
    )


def test_a_rail_adds_up_its_lamps_before_and_after():
    rail = replace(on_one().rail, others_a=0.05)
    b = budget(rail, members(1000, 470, 2200))
    amps = [through(12, r) for r in (1000, 470, 2200)]
    assert b.after == pytest.approx((sum(amps) + 0.05,) * 3, rel=1e-3)
    assert b.before == pytest.approx((0.35,) * 3)
    assert [d.after[1] for d in b.draws] == pytest.approx(amps, rel=1e-3)


def test_of_lamps_lit_one_at_a_time_the_thirstiest_counts():
    rail = on_one().rail
    b = budget(rail, members(1000, 470, 2200, lit=("single", "single", "always")))
    assert b.after[1] == pytest.approx(through(12, 470) + through(12, 2200), rel=1e-3)
    assert b.before[1] == pytest.approx(0.2)


def test_lamps_behind_one_source_resistance_dim_each_other():
    """V + 100 Ω·ΣI(V) = 12 V for two strings of 470 Ω (Kirchhoff, by halving)."""
    stiff = members(470, 470)
    supply = replace(
        stiff[0].position.rail.supply, source_ohm=replace(stiff[0].position.rail.supply.source_ohm, value=100.0)
    )
    weak = tuple(replace(m, position=replace(m.position, rail=replace(m.position.rail, supply=supply))) for m in stiff)
    b = budget(weak[0].position.rail, weak)
    low, high = 2.0, 12.0
    for _ in range(60):
        v = (low + high) / 2
        low, high = (v, high) if v + 100 * 2 * through(v, 470) < 12 else (low, v)
    assert b.draws[0].together_v == pytest.approx(low, rel=1e-3)
    assert b.draws[0].after[1] == pytest.approx(through(low, 470), rel=1e-3)
    alone = through(12, 570)
    assert b.draws[0].light == pytest.approx(candela(through(low, 470)) / candela(alone), rel=2e-3)


@pytest.mark.parametrize(("ohms", "grade"), [(5.0, None), (120.0, "note"), (900.0, "mind")])
def test_a_sag_is_said_from_a_fifth_and_minded_from_half(ohms, grade):
    """Three strings of 470 Ω behind one source: V + R·3·I(V) = 12 V (Kirchhoff, by halving; common practice)."""
    supply = on_one().rail.supply
    supply = replace(supply, source_ohm=replace(supply.source_ohm, value=ohms))
    weak = tuple(
        replace(m, position=replace(m.position, rail=replace(m.position.rail, supply=supply)))
        for m in members(470, 470, 470)
    )
    low, high = 2.0, 12.0
    for _ in range(60):
        v = (low + high) / 2
        low, high = (v, high) if v + ohms * 3 * through(v, 470) < 12 else (low, v)
    left = candela(through(low, 470)) / candela(through(12, 470 + ohms))
    assert (left > 0.8, 0.5 <= left <= 0.8, left < 0.5).index(True) == [None, "note", "mind"].index(grade)
    found = rail_budget(weak[0].position.rail, weak).findings
    assert [(f.id, f.grade) for f in found] == ([] if grade is None else [("rail-sags", grade)])
    if found:
        assert found[0].figure == f"{left * 100:.0f} %"
        assert found[0].limit == "80 %"


def test_a_windings_lamps_on_a_stiff_rail_leave_each_other_alone():
    """Equal lamps on a source of no resistance: twice the current (Kirchhoff), and no sag to tell of."""
    p = on("winding", "12Vac", flat=True, rectification="bridge", vf="2V", resistor="1k", **lamp("12V", "0.1A"))
    two = tuple(Member(str(k), f"Lamp {k}", p) for k in range(2))
    b = budget(p.rail, two)
    assert b.after[1] == pytest.approx(2 * budget(p.rail, two[:1]).after[1])
    assert b.before[1] == pytest.approx(0.2, rel=1e-3)
    assert rail_budget(p.rail, two).findings == ()


@pytest.mark.parametrize(("fuse", "grade"), [("15mA", "stop"), ("25mA", "mind"), ("40mA", None)])
def test_the_fuse_is_judged_by_all_that_hangs_on_it(fuse, grade):
    """Two lamps of some 10 mA: over 15 mA, over three quarters of 25 mA, under those of 40 mA (common practice)."""
    many = members(1000, 1000)
    rail = replace(many[0].position.rail, fuse_a=float(fuse[:-2]) * 1e-3)
    found = rail_budget(rail, many).findings
    assert (found[0].grade if found else None) == grade
    this = replace(many[0].position, rail=rail)
    on_lamp = {f.id: f.grade for f in assess(this, Bench(on_rail=many[1:])).findings}
    assert on_lamp.get("rail-over-fuse") == grade


def flat_battery(**more):
    """Six lead cells held at 12 V, so that hours are charge over current."""
    return on(
        "battery",
        "12V",
        {"chemistry": "lead", "cells": "6", "capacity": "6Ah", "source": "0.001R"},
        low="11.999V",
        high="12.001V",
        vf="2V",
        **more,
    )


def test_a_battery_has_one_life_for_all_that_hangs_on_it():
    """6 Ah over all strings' current, a flasher's by its lit share, and what else hangs on it (h = Ah/A)."""
    strings = flat_battery(resistor="1k", branches=3, **lamp("12V", "0.2A"))
    assert assess(strings).runtime.led.value == pytest.approx(6 / (3 * through(12, 1000)), rel=0.01)
    blink = flat_battery(
        resistor="470R",
        driver_kind="flasher",
        driver_drop={"text": "0V"},
        driver_details={"duty": {"text": "40 %"}, "counts": {"text": "no"}},
        **lamp("12V", "0.1A"),
    )
    rail = replace(strings.rail, others_a=2e-3)
    on_it = (Member("a", "A", strings), Member("b", "B", blink), Member("c", "C", strings, "sometimes"))
    b = rail_budget(rail, on_it)
    assert b.hours_after.value == pytest.approx(6 / (3 * through(12, 1000) + 0.4 * through(12, 470) + 2e-3), rel=0.01)
    assert b.hours_before.value == pytest.approx(6 / (0.2 + 0.4 * 0.1 + 2e-3), rel=0.01)


@pytest.mark.parametrize("law", ["resistor", "current"])
@pytest.mark.parametrize("polarised", ["yes", "no"])
def test_every_inside_a_lamp_may_have_draws_what_is_known_of_it(law, polarised):
    """18 mA at 13 V, whatever is inside."""
    p = on(
        "regulated",
        "13V",
        led_id="white-5-clear",
        band="10-15V",
        module={"amps": "18mA", "at": "13V", "law": law, "polarised": polarised},
    )
    # Three of 3.1 V under 95 % of 10 V; a bridge's 1.3 V leave room for two.
    most = 3 if polarised == "yes" else 2
    assert [i.dice for i in p.module.insides] == (list(range(most, 0, -1)) if law == "resistor" else [most])
    for inside in p.possible:
        amps = current(inside, Cases(np.array([13.0]), np.array([inside.led.vf_typ]), np.array([0.1])))
        assert float(amps[0]) == pytest.approx(18e-3, rel=5e-3)


def test_a_lamp_whose_band_begins_under_one_led_has_one_all_the_same():
    """3 to 5 V, 20 mA in its middle: one white LED of 3.1 V and 45 Ω (Ohm); dark at the low end."""
    (only,) = Module(3, 5, 20e-3, die_v=3.1).insides
    assert (only.dice, only.volts) == (1, 3.1)
    assert only.ohm == pytest.approx((4 - 3.1) / 20e-3)


def test_two_readings_of_a_lamp_tell_how_many_leds_it_has():
    """Three white LEDs of 3.1 V and 150 Ω: 18 mA at 12 V and 30 mA at 13.8 V (Ohm)."""
    m = Module(10, 15, 18e-3, given_v=12.0, second=(13.8, 30e-3), die_v=3.1)
    assert [i.dice for i in m.insides] == [3]
    assert m.insides[0].ohm == pytest.approx((12 - 9.3) / 18e-3)
    assert len(Module(10, 15, 18e-3, given_v=12.0, die_v=3.1).insides) > 1


@pytest.mark.parametrize(
    ("more", "field", "says"),
    [
        ({"dice": 4}, "module.dice", "4 LEDs of 3.1"),
        ({"second_volts": "13.8V", "second_amps": "15mA"}, "module.second_amps", "exchanged"),
        ({"second_volts": "12V", "second_amps": "20mA"}, "module.second_amps", "more volts give more amps"),
        ({"at": "2V"}, "module.law", "Behind a resistor one LED of 3.1"),
        # Two silicon diodes keep some 1.3 V at 18 mA (Shockley).
        ({"at": "1.2V", "law": "power", "polarised": "no"}, "module.polarised", "keeps 1.3"),
        ({"at": "2V", "law": "power"}, None, ""),
    ],
)
def test_what_no_lamp_can_be_is_refused_by_its_field(more, field, says):
    def made():
        return on(
            "regulated", "12V", led_id="white-5-clear", band="10-15V", module={"amps": "18mA", "at": "12V", **more}
        )

    if field is None:
        assert made().module.insides[0].dice == 0
        return
    with pytest.raises(InputError, match=says) as refused:
        made()
    assert refused.value.field == field


def test_a_battery_under_a_lamps_band_does_not_light_it():
    """Two cells of 1.5 V, one to three LEDs of 3.1 V inside: dark whatever is inside."""
    dark = on(
        "battery",
        "",
        {"chemistry": "alkaline-aa", "cells": "1"},
        led_id="white-5-clear",
        band="10-15V",
        module={"amps": "20mA"},
    )
    assert next(f for f in verdict(dark) if f.id == "will-not-light").grade == "stop"
    some = on(
        "battery",
        "",
        {"chemistry": "alkaline-aa", "cells": "6"},
        led_id="white-5-clear",
        band="10-15V",
        module={"amps": "20mA"},
    )
    s = solve(some)
    assert s.doubt is not None
    assert s.doubt[1] > 10 * s.doubt[0]


def test_a_reading_may_be_of_one_string_or_of_all():
    p = on_one(resistor="1k", branches=4)
    one, four = through(12, 1000), 4 * through(12, 1000)
    for of, amps in (("one", one), ("all", four)):
        reading = read_after("r", "current", f"{amps:.6g}A", "", "", of)
        (found,) = assess(p, Bench(readings_after=(reading,))).diagnoses
        assert found.agrees, of
        assert found.expected.value == pytest.approx(amps, rel=1e-3)


def test_an_own_rating_is_a_limit_and_moves_no_light():
    plain, limited = on_one(resistor="1k"), on_one(resistor="1k", led_id="red-5-diffused")
    tight = on("regulated", "12V", flat=True, resistor="1k", rated="5mA")
    free = on("regulated", "12V", flat=True, resistor="1k")
    lights = [[g.amount.value for g in assess(p).glow.lamps] for p in (tight, free)]
    assert lights[0] == lights[1]
    assert assess(tight).current.usual.value == assess(free).current.usual.value
    assert "over-rated-current" in {f.id for f in verdict(tight)}
    assert plain.led.candela == limited.led.candela


TURN = {"lamp": lamp("12V", "1.75A", "30cd"), "low": "12.8V", "high": "12.8V", "place": "metal"}


def test_a_flasher_that_was_seen_to_flash_right_is_believed():
    """With 10 Ω it kept time: 12.8 V/10 Ω and the LED are enough, whatever the old lamp drew (Ohm)."""
    stop = next(f for f in verdict(driven("flasher", "12.8V", "0V", **TURN)) if f.id == "misses-current")
    assert stop.limit.replace("\u00a0", " ") == "1.81 A"
    tried = driven("flasher", "12.8V", "0V", right_with="10R", **TURN)
    want = next(f for f in verdict(tried) if f.id == "misses-current")
    amps = 12.8 / 10 + solve(tried).usual[1]
    assert want.limit.replace("\u00a0", " ") == f"{amps:.3g} A"
    assert "misses-current" not in {f.id for f in verdict(replace(tried, shunt_ohm=10.0))}
    # A little less than what did is not known to be too little.
    assert _missing(replace(tried, shunt_ohm=10.5)).grade == "mind"
    kept = driven("flasher", "12.8V", "0V", still_fast="no", **TURN)
    assert "misses-current" not in {f.id for f in verdict(kept)}


def _missing(p):
    return next((f for f in verdict(p) if f.id == "misses-current"), None)


def test_a_trial_of_a_flasher_proves_one_side_only():
    """Right with 10 Ω: no more is needed. Still fast with 15 Ω: more is. Between the two nothing is known, and what was
    too little is a stop also where just that is fitted (12.8 V over the load, Ohm)."""
    both = driven("flasher", "12.8V", "0V", right_with="10R", fast_with="15R", **TURN)
    found = {ohm: _missing(replace(both, shunt_ohm=ohm)) for ohm in (9.0, 10.0, 12.0, 15.0, 22.0)}
    grades = {ohm: f and f.grade for ohm, f in found.items()}
    assert grades == {9.0: None, 10.0: None, 12.0: "mind", 15.0: "stop", 22.0: "stop"}
    assert "was tried and was too little" in _missing(replace(both, shunt_ohm=15.0)).message
    fast = driven("flasher", "12.8V", "0V", fast_with="7R5", shunt="7R5", **TURN)
    assert _missing(fast).grade == "stop"
    # What is offered is what was seen to do, and not the next value down.
    stop = next(f for f in assess(both).findings if f.id == "misses-current")
    assert next(r for r in stop.remedies if r.id == "load-resistor").changes["shunt_ohm"] == 10.0
    # Nobody tried: half the old lamp's own is surely too little, its own surely enough.
    plain = driven("flasher", "12.8V", "0V", **TURN)
    assert _missing(plain).grade == "stop"
    assert _missing(replace(plain, shunt_ohm=12.8 / 1.4)).grade == "mind"
    assert _missing(replace(plain, shunt_ohm=12.8 / 2.0)) is None


def test_each_trial_that_is_advised_halves_what_is_not_known():
    """A flasher that trips anywhere between the two ends, tried as advised: each trial takes half of what is left in
    logarithms, and the truth stays inside (bisection)."""
    for trip in (0.95, 1.1, 1.25, 1.5, 1.7):
        low, high = 15.0, 7.5
        for _ in range(4):
            p = driven("flasher", "12.8V", "0V", right_with=f"{high}R", fast_with=f"{low}R", shunt=f"{low}R", **TURN)
            w = watch(p, state_solutions(solve(p))[0])
            least, most = w.fails.value, w.needs.value
            assert least <= trip <= most
            tried = w.try_next
            assert np.log(tried / least) == pytest.approx(np.log(most / least) / 2, rel=1e-6)
            ohm = 12.8 / (tried - (least - 12.8 / low))
            low, high = (low, ohm) if tried >= trip else (ohm, high)


def test_what_a_line_ignored_is_not_warned_of_beside_itself():
    """470 Ω with this LED was ignored: just that, fitted, is what was tried, though its tolerance reaches higher."""
    p = on("sense", "9V", {"source": "1k", "works": "470R"}, flat=True, vf="2V", resistor="470R", target="0.4mA")
    assert "line-reads-closed" not in {f.id for f in verdict(with_trip(p))}
    # Another part of nearly that value may lie at the end of its tolerance; so may one that was tried without the LED.
    near = on("sense", "9V", {"source": "1k", "works": "470R"}, flat=True, vf="2V", resistor="475R", target="0.4mA")
    assert "line-reads-closed" in {f.id for f in verdict(with_trip(near))}
    tighter = on("sense", "9V", {"source": "1k", "works": "470R"}, flat=True, vf="2V", resistor="430R", target="0.4mA")
    assert "line-reads-closed" in {f.id for f in verdict(with_trip(tighter))}


@pytest.mark.parametrize(
    ("trial", "resistor", "grade", "says"),
    [
        ({"works": "470R"}, "520R", None, ""),
        ({"works": "470R"}, "390R", "mind", "was tried and switched"),
        ({"fails": "3k9"}, "3k3", "stop", "reads as closed"),
        ({"fails": "3k9"}, "5k6", "mind", "close to"),
        ({"fails": "3k9"}, "15k", None, ""),
        ({"works": "6k8", "fails": "3k9"}, "5k1", "mind", "lies between"),
        # What was seen goes before what nobody read.
        ({"works": "470R", "trip": "0.3mA"}, "520R", None, ""),
    ],
)
def test_one_trial_bounds_a_line_from_its_side(trial, resistor, grade, says):
    typed = {k: v for k, v in trial.items() if k != "trip"}
    p = on("sense", "9V", {"source": "1k", **typed}, flat=True, vf="2V", resistor=resistor, target="0.4mA")
    if "trip" in trial:
        from swapglow.core.quantities import Figure, Source
        from swapglow.core.supplies.supply import Trials

        supply = replace(
            p.rail.supply,
            trip=Figure(0.3e-3, Source.ASSUMED),
            trip_ignored=False,
            trials=Trials(470.0, None, False, Source.COMPUTED),
        )
        p = with_trip(replace(p, rail=replace(p.rail, supply=supply)))
    found = next((f for f in verdict(p) if f.id == "line-reads-closed"), None)
    assert (found.grade if found else None) == grade
    assert says in (found.message if found else "")


def test_a_closed_contact_darkens_its_led_though_nobody_read_what_stands_behind():
    from swapglow.core.analysis.states import state_solutions

    p = on("sense", "9V", {}, resistor="1k", target="1mA")
    closed = next(t for t in state_solutions(solve(p)) if t.state == "closed")
    assert closed.amps.max() < 1e-9


def test_volts_read_at_the_lamp_are_less_than_the_feed_that_leaks():
    """9 V at the lamp and 0.9 V of a Darlington: 9.9 V stand behind the keep-warm resistor (Kirchhoff)."""
    from swapglow.core.analysis.states import state_solutions

    p = driven("darlington", "9V", "0.9V", keep_warm="1k", resistor="1k", vf="2V", flat=True)
    p = replace(p, rail=replace(p.rail, read_at="lamp"))
    off = next(t for t in state_solutions(solve(p)) if t.state == "off")
    assert float(off.amps[1]) == pytest.approx(through(9.9, 2000), rel=0.01)


@pytest.mark.parametrize(
    ("kind", "text", "says", "cause"),
    [("current", "4.6mA", "takes 35.8", ["R1-value"]), ("resistor_volts", "30V", "more than the rail's 12", [])],
)
def test_what_cannot_be_is_said_at_once(kind, text, says, cause):
    """4.6 mA through 8.2 kΩ less 5 % from 12 V would take 35.8 V (Ohm): it is another resistor, or no such reading."""
    report = assess(on_one(resistor="8k2"), Bench(readings_after=(read_after("r", kind, text, "", ""),)))
    (found,) = report.diagnoses
    assert not found.agrees
    assert says in found.cannot
    assert [c.id for c in report.trouble.causes][:1] == cause


@pytest.mark.parametrize(
    ("kind", "text", "cause"),
    [("current", "0A", "D1-turned"), ("led_volts", "12V", "D1-turned"), ("resistor_volts", "1.74V", "slip-place")],
)
def test_the_likeliest_cause_of_a_reading_stands_first(kind, text, cause):
    report = assess(on_one(resistor="8k2"), Bench(readings_after=(read_after("r", kind, text, "", ""),)))
    assert not report.diagnoses[0].agrees and report.diagnoses[0].cannot == ""
    assert report.trouble.causes[0].id == cause


def test_a_pin_that_gives_nothing_may_not_be_enabled():
    p = on("logic", "5V", {"pin": "16mA"}, resistor="1k")
    report = assess(p, Bench(readings_after=(read_after("r", "current", "0A", "", ""),)))
    assert {"output-off", "D1-turned"} <= {c.id for c in report.trouble.causes}


def test_nothing_is_fitted_while_a_stop_stands():
    from swapglow.core.quantities import Source

    p = on_one(resistor="330R", ceiling=1.0)
    ink = replace(
        p, led_source=Source.MEASURED, driver=replace(p.driver, drop=replace(p.driver.drop, source=Source.MEASURED))
    )
    step = assess(ink).next_step
    assert step.id == "mend"
    assert step.act.startswith("Fit nothing yet. Mend first: Fit ")
    assert step.stops and not (step.meter or step.points or step.expect or step.reading)
    agrees = read_after("r", "current", f"{solve(ink).usual[1]:.6g}A", "", "")
    assert assess(ink, Bench(readings_after=(agrees,))).next_step.id == "mend"
    assert assess(replace(ink, resistor_ohm=2000.0), Bench(readings_after=())).next_step.id == "try"


@pytest.mark.parametrize(
    ("p", "act"),
    [
        (
            on("winding", "12Vac", {"grounded": "yes"}, rectification="bridge_cap", chassis_negative=True),
            "Do not power it. Take the LED's negative off the frame first.",
        ),
        (
            on("winding", "42Vac", rectification="bridge_cap", capacitor="220uF", capacitor_v="50V"),
            "Do not power it. Take that capacitor out first.",
        ),
    ],
)
def test_what_endangers_owns_the_next_thing(p, act):
    """No live reading is asked beside a short circuit or a capacitor that may burst (common practice)."""
    step = assess(p).next_step
    assert (step.id, step.act) == ("keep-off", act)
    assert step.stops and not (step.meter or step.points or step.expect or step.reading)
