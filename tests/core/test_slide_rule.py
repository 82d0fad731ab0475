"""The slide rule and the staircase: what is drawn is what is solved."""

import dataclasses
import itertools
import math

import pytest
from scipy.optimize import brentq

from swapglow.core.analysis.solution import solve
from swapglow.core.assess import Bench, assess
from swapglow.core.design.position import Position
from swapglow.core.parts import lamp, led
from swapglow.core.quantities import Figure, Source
from swapglow.core.supplies.rail import Rail
from swapglow.core.values import preferred
from tests.core.light import green
from tests.core.supplies import on


def position(**rest):
    rail = Rail(*(Figure(v, Source.MEASURED) for v in (20.5, 22.0, 24.5)))
    given = {"in_series": 2, "lamp": lamp.catalogue()["1829"], **rest}
    return Position(rail, led.catalogue()["green-3-diffused"], Figure(3e-3), **given)


@pytest.fixture(scope="module")
def report():
    return assess(position())


def scale(report, key):
    return next(s for s in report.rule.scales if s.id == key)


def test_the_values_are_those_of_the_series(report):
    rule = report.rule
    expected = preferred.values("E24", rule.low_ohm, rule.high_ohm)
    assert [v.ohm for v in rule.values] == pytest.approx(expected.tolist())
    assert rule.low_ohm < rule.cursor_ohm < rule.high_ohm


def amps_of(text):
    number, unit = text.split("\u00a0")
    return float(number) * {"A": 1, "mA": 1e-3, "µA": 1e-6}[unit]


@pytest.mark.parametrize(("key", "rail"), [("low", 20.5), ("usual", 22.0), ("high", 24.5)])
def test_a_current_tick_stands_at_the_resistance_that_gives_it(report, key, rail):
    """R = (rail − n·Vf(I))/I for the typical LED (Ohm, Kirchhoff)."""
    part = led.catalogue()["green-3-diffused"]
    labelled = [t for t in scale(report, key).ticks if t.text]
    assert len(labelled) >= 4
    for tick in labelled:
        amps = amps_of(tick.text)
        vf = float(part.junction(part.vf_typ).volts(amps))
        assert tick.at_ohm == pytest.approx((rail - 2 * vf) / amps, rel=0.01)


def test_ticks_of_power_fall_along_the_rule(report):
    ticks = scale(report, "power").ticks
    by_power = sorted(ticks, key=lambda t: t.at_ohm)
    assert len(by_power) > 6
    # The scale is placed by a falling quantity, so ohms rise as the printed milliwatts fall.
    labelled = [t for t in by_power if t.text]
    watts = [
        float(t.text.split("\u00a0")[0]) * {"W": 1, "mW": 1e-3, "µW": 1e-6}[t.text.split("\u00a0")[1]] for t in labelled
    ]
    assert watts == sorted(watts, reverse=True)


def test_a_glow_tick_stands_where_the_led_shows_that_much_of_the_old_lamp(report):
    part, old = led.catalogue()["green-3-diffused"], lamp.catalogue()["1829"]
    even = next(t for t in scale(report, "glow").ticks if t.weight == 1)
    wanted = old.candela_at(22.0) / (part.candela * 2)
    amps = brentq(lambda a: green(a) - wanted, 1e-6, 0.02)
    vf = float(part.junction(part.vf_typ).volts(amps))
    assert even.text == "1 ×"
    assert even.at_ohm == pytest.approx((22.0 - 2 * vf) / amps, rel=0.01)


def test_zones_meet_end_to_end_in_order(report):
    zones = report.rule.zones
    order = ["over", "drive", "hot", "fits", "dim"]
    assert [z.id for z in zones] == [k for k in order if k in {z.id for z in zones}]
    for one, after in itertools.pairwise(zones):
        assert one.to_ohm == pytest.approx(after.from_ohm)
    assert zones[0].from_ohm == report.rule.low_ohm
    assert zones[-1].to_ohm == report.rule.high_ohm


def test_no_place_is_good_where_it_is_too_hot():
    """The good stretch begins where the part's heat ends, and the values under it say so too."""
    rule = assess(position(rating_w=0.125)).rule
    good = next(z for z in rule.zones if z.id == "fits")
    assert rule.hot is not None and good.from_ohm == pytest.approx(rule.hot.to_ohm)
    hot = next(z for z in rule.zones if z.id == "hot")
    assert (hot.label, good.label) == ("too hot", "current fits")
    between = [v.zone for v in rule.values if hot.from_ohm * 1.02 < v.ohm < hot.to_ohm * 0.98]
    assert between and set(between) == {"hot"}


def test_no_place_is_good_where_a_stop_stands_wherever_the_cursor_is():
    """A bridge on the frame of a grounded source is a short at any resistance."""
    p = on("winding", "12Vac", {"grounded": "yes"}, rectification="bridge_cap", chassis_negative=True)
    rule = assess(p).rule
    assert "fits" not in {z.id for z in rule.zones} | {v.zone for v in rule.values}
    assert next(z for z in rule.zones if z.id == "stopped").label == "current fits, but stop"
    # A stop that another place clears leaves the good ones good.
    over = assess(position(resistor_ohm=100.0, rating_w=5.0))
    assert any(f.id == "over-rated-current" and f.grade == "stop" for f in over.findings)
    assert "fits" in {z.id for z in over.rule.zones}


def test_each_value_has_the_verdict_of_the_zone_it_lies_in(report):
    for value in report.rule.values:
        inside = [z.id for z in report.rule.zones if z.from_ohm * 1.02 < value.ohm < z.to_ohm * 0.98]
        assert inside in ([value.zone], [])


def test_the_edge_of_the_drive_zone_is_the_limit_itself(report):
    """At that resistance the luckiest LED at the highest rail takes just the limit."""
    edge = next(z for z in report.rule.zones if z.id == "drive").to_ohm
    at_edge = solve(position(resistor_ohm=edge))
    assert at_edge.string_current_max == pytest.approx(0.010, rel=0.01)


def test_the_hot_stretch_ends_at_half_the_rating():
    p = position(rating_w=0.125)
    hot = assess(p).rule.hot
    assert hot is not None
    at_edge = assess(dataclasses.replace(p, resistor_ohm=hot.to_ohm))
    assert at_edge.power.each.value / 0.125 == pytest.approx(0.5, rel=0.06)


def test_values_in_the_drawer_are_marked():
    p = position()
    rule = assess(p, Bench((), frozenset({4700.0, 5100.0}))).rule
    assert {v.ohm for v in rule.values if v.in_drawer} == {4700.0, 5100.0}


def test_without_an_old_lamp_there_is_no_glow_scale():
    assert "glow" not in {s.id for s in assess(position(lamp=None)).rule.scales}


def test_the_stairs_come_down_to_ground(report):
    stairs = report.snapshots[0].staircase.stairs
    assert [s.kind for s in stairs] == ["rail", "driver", "resistor", "led", "led", "ground"]
    for where in ("low", "usual", "high"):
        rail = getattr(stairs[0].level, where)
        dropped = math.fsum(getattr(s.drop, where) for s in stairs)
        assert dropped == pytest.approx(rail, abs=1e-6)
        assert getattr(stairs[-1].level, where) == pytest.approx(0, abs=1e-6)


def test_each_stair_starts_where_the_one_before_ended(report):
    stairs = report.snapshots[0].staircase.stairs
    for before, after in itertools.pairwise(stairs):
        assert after.level.usual == pytest.approx(before.level.usual - after.drop.usual)


def test_half_in_each_lead_puts_a_step_at_both_ends():
    stairs = assess(position(resistor_parts=2)).snapshots[0].staircase.stairs
    assert [s.kind for s in stairs] == ["rail", "driver", "resistor", "led", "led", "resistor", "ground"]
    first, second = (s.drop.usual for s in stairs if s.kind == "resistor")
    assert first == pytest.approx(second)


def test_lamp_volts_have_no_driver_step():
    rail = Rail(Figure(6.2), Figure(6.3), Figure(6.4), read_at="lamp")
    stairs = assess(dataclasses.replace(position(in_series=1), rail=rail)).snapshots[0].staircase.stairs
    assert "driver" not in {s.kind for s in stairs}


def test_a_long_string_is_one_step():
    p = position(in_series=5)
    step = next(s for s in assess(p).snapshots[0].staircase.stairs if s.kind == "led")
    assert step.detail.startswith("5 ×")


def test_every_figure_says_where_it_came_from(report):
    """Ink and pencil: no figure without origin and source."""
    found = []

    def walk(thing):
        if dataclasses.is_dataclass(thing):
            if type(thing).__name__ == "Shown":
                found.append(thing)
            for f in dataclasses.fields(thing):
                walk(getattr(thing, f.name))
        elif isinstance(thing, tuple):
            for item in thing:
                walk(item)

    walk(report)
    assert len(found) > 20
    assert all(s.origin and s.source for s in found)
    assert all(s.number not in ("", "nan", "inf") for s in found)


def test_the_rule_stays_put_while_the_cursor_moves():
    first = assess(position(resistor_ohm=4700.0)).rule
    moved = assess(position(resistor_ohm=6800.0)).rule
    assert (moved.low_ohm, moved.scales) == (first.low_ohm, first.scales)
    # So do the zones of current; what of the good one is too hot follows the part that the place asks for.
    edges = [[(z.id, z.from_ohm) for z in rule.zones if z.id not in ("hot", "fits")] for rule in (first, moved)]
    assert edges[0] == edges[1]
    assert (first.cursor_ohm, moved.cursor_ohm) == (4700.0, 6800.0)
    # Anything but the fitted part redraws it.
    assert assess(position(in_series=1)).rule.scales != first.scales


@pytest.mark.parametrize(
    ("more", "kinds"),
    [
        ({"lead": "positive"}, ["rail", "driver", "resistor", "led", "ground"]),
        ({"lead": "negative"}, ["rail", "driver", "led", "resistor", "ground"]),
        ({"resistor_parts": 2, "lead": "negative"}, ["rail", "driver", "resistor", "led", "resistor", "ground"]),
        ({"lead": "negative", "series_diodes": 2}, ["rail", "driver", "diode", "led", "resistor", "ground"]),
    ],
)
def test_the_stairs_stand_in_the_order_of_the_wires(more, kinds):
    stairs = assess(position(in_series=1, **more)).snapshots[0].staircase.stairs
    assert [s.kind for s in stairs] == kinds
    # Of two halves each says in which lead it stands.
    leads = [s.detail.split(" in the ")[1:] for s in stairs if s.kind == "resistor"]
    both = more.get("resistor_parts") == 2
    assert leads == (
        [["positive lead"], ["negative lead"]] if both else [[]] if more["lead"] == "positive" else [["negative lead"]]
    )


@pytest.mark.parametrize(("trip", "reach"), [("20uA", 9.5), ("100uA", 8.4)])
def test_a_lines_rule_reaches_well_past_what_the_line_allows(trip, reach):
    """Half the trip current, 1 kΩ in the line, the low end of 5 %: ((9 − Vf)/I − 1 kΩ)/0.95 (Ohm, Shockley)."""
    p = on("sense", "9V", {"source": "1k", "trip": trip}, flat=True, vf="2V", target="0.4mA")
    rule = assess(p).rule
    amps = float(trip[:-2]) * 1e-6 / 2
    vf = 2 + 1.9 * 0.025693 * math.log(amps / 0.02) - 0.14
    allowed = ((9 - vf) / amps - 1000) / 0.95
    zones = {z.id: z for z in rule.zones}
    assert zones["trip"].to_ohm == pytest.approx(allowed, rel=2e-3)
    assert rule.high_ohm / allowed == pytest.approx(reach, rel=0.06)
