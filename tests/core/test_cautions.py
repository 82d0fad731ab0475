"""Cautions stand where the hand is, and what the figures assume is on the clips.

Limits of volts are common practice: over 30 V AC or 60 V DC insulated probes and one hand, over 50 V AC or 120 V DC
nothing live.
"""

import os
import re

import pytest

from scripts.fuzz.documents import document
from swapglow.core.assess import Bench, assess
from swapglow.core.build_steps.steps import Habits, Site
from swapglow.core.quantities import InputError
from swapglow.inputs.equipment import TakeInInput
from swapglow.inputs.position import PositionInput
from swapglow.inputs.quantity import Quantity
from swapglow.inputs.rail import RailInput
from swapglow.inputs.shop import ShopInput
from swapglow.inputs.to_core import position_of, site_of
from tests.core.supplies import on


def asked(p, hazards=()):
    report = assess(p, Bench(site=Site(hazards=hazards)))
    return [report.next_step, *report.survey.plan]


@pytest.mark.parametrize(
    ("kind", "volts", "careful"),
    [
        ("regulated", "59V", False),
        ("regulated", "61V", True),
        ("regulated", "90V", True),
        ("winding", "24Vac", False),
        ("winding", "31Vac", True),
        ("winding", "38Vac", True),
    ],
)
def test_every_live_reading_past_the_limit_wants_insulated_probes_and_one_hand(kind, volts, careful):
    steps = [s for s in asked(on(kind, volts, source="assumed", target="4mA")) if s.points]
    assert steps
    for step in steps:
        assert ("insulated probes, one hand" in step.caution) is careful, step.id


@pytest.mark.parametrize(("kind", "volts"), [("regulated", "121V"), ("winding", "51Vac"), ("winding", "230Vac")])
def test_past_extra_low_voltage_no_live_reading_is_asked(kind, volts):
    report = assess(on(kind, volts, target="4mA"))
    assert report.next_step.reading is None and report.next_step.stops
    assert report.survey.plan == ()


def test_a_clip_on_a_vehicle_has_a_fuse_in_line_and_one_on_a_bench_supply_none():
    """A lamp of 5 mA: the smallest fuse, 32 mA (IEC 60127, from memory), loaded to three quarters (common practice)."""
    site = Site(habits=Habits(no_meter=True))
    for kind, fused in (("vehicle", True), ("regulated", False)):
        step = assess(on(kind, "12.4V", source="assumed", target="5mA"), Bench(site=site)).next_step
        assert step.id == "clip"
        assert ("Put a fuse in line at the tap: 32" in step.caution) is fused


@pytest.mark.parametrize("hazard", ["mains", "tension"])
def test_what_is_ticked_at_take_in_closes_live_readings_of_every_lamp(hazard):
    sheet = TakeInInput(hazards=[hazard])
    typed, rail = lamp_and_rail()
    assert assess(position_of(typed, rail)).next_step.reading is not None
    closed = assess(position_of(typed, rail, sheet.hazards), Bench(site=site_of(sheet, ShopInput())))
    assert closed.next_step.id == "mains" and closed.survey.plan == ()
    assert [s.id for s in closed.build] == ["mains"]


def test_stored_charge_is_said_at_each_step_and_before_the_build():
    typed, rail = lamp_and_rail()
    sheet = TakeInInput(hazards=["charge"])
    report = assess(position_of(typed, rail, sheet.hazards), Bench(site=site_of(sheet, ShopInput())))
    assert "discharge them first" in report.next_step.caution
    assert report.build[0].id == "dangers" and "discharge" in report.build[0].why


def lamp_and_rail():
    typed = PositionInput(led_id="red-5-diffused", target=Quantity(text="5mA"))
    return typed, RailInput(usual=Quantity(text="12V"))


def test_a_rectifier_and_its_capacitor_are_on_the_clips_before_anything_is_on():
    """6.3 V AC: without its bridge the LED would see 9.8 V in reverse (8.9 V of crest, open), rated 5 V."""
    report = assess(on("winding", "6.3Vac", target="5mA"))
    clips = next(s for s in report.build if s.id == "clips")
    facts = " ".join(f.text for f in clips.facts)
    assert "Bridge of four" in facts and "µF" in facts
    order = [s.id for s in report.build]
    assert order.index("clips") < min(k for k, s in enumerate(report.build) if s.id.startswith("try-"))


LAMPS = 500 if os.environ.get("TORTURE") else 80


def test_whatever_is_in_the_solved_circuit_is_on_the_clips_and_in_the_list():
    """Random lamps: what each was solved with, by its own fields, against the parts listed and laid on the clips."""
    answered = tried = 0
    for seed in range(40_000, 60_000):
        if answered == LAMPS:
            break
        try:
            rail, typed = document(seed)
            p = position_of(typed, rail)
            report = assess(p)
        except (InputError, ValueError):
            continue
        answered += 1
        kinds = [n.kind for n in report.needs]
        listed = " ".join(n.label for n in report.needs)
        if p.rail.supply.alternates and p.rectification.reservoir:
            assert "capacitor" in kinds, seed
        if p.rail.supply.alternates and p.rectification.topology == "bridge" and p.rectification.parts:
            assert "Bridge of four" in listed, seed
        if p.shunt_ohm is not None:
            assert any(n.ohm == pytest.approx(p.shunt_ohm) for n in report.needs), seed
        if p.series_diodes:
            assert sum(n.count for n in report.needs if n.kind == "diode") >= p.series_diodes, seed
        assert ("regulator" in kinds) is (p.regulator is not None), seed
        assert ("module" in kinds) is (p.module is not None), seed
        for clips in (step for step in report.build if step.id == "clips"):
            tried += 1
            laid = " ".join(f.text for f in clips.facts)
            assert all(n.label in laid for n in report.needs if n.kind != "sundry"), seed
    assert answered == LAMPS and tried > LAMPS / 20


def step(report, id_):
    return next((s for s in report.build if s.id == id_), None)


def test_the_first_power_has_a_card_of_its_own_on_clips_and_once_fitted():
    """A red LED of 1.6 to 1.9 V at a twentieth of rated, 10 mA through 1 kΩ; the limit is a quarter over the most."""
    report = assess(on("regulated", "12V", low="11V", high="13V", vf="2V", resistor="1k"))
    order = [s.id for s in report.build]
    assert order.index("clips") < order.index("power") < order.index("try-on")
    assert order.index("solder") < order.index("power-fitted") < order.index("prove-on")
    for id_ in ("power", "power-fitted"):
        said = {f.label: f.text for f in step(report, id_).facts}
        assert step(report, id_).tick
        begins = float(re.search(r"at ([\d.]+)\u00a0V", said["Begin"])[1])
        assert 1.6 < begins < 1.9 and "up to 12 V" in said["Begin"].replace("\u00a0", " ")
        limit = float(re.search(r"([\d.]+)\u00a0mA", said["Current limit"])[1])
        assert limit == pytest.approx(1.25 * report.current.supply.value * 1e3, rel=0.05)
        assert report.current.usual.text in said["Should read"]
        assert said["Switch off"].startswith("at once over")


def test_what_turns_or_is_a_cell_gets_a_fuse_in_line_instead_of_a_bench_supply():
    for p in (on("winding", "6.3Vac"), on("battery", "", {"chemistry": "alkaline-aa", "cells": "3"}, target="2mA")):
        said = {f.label: f.text for f in step(assess(p), "power").facts}
        assert "a fuse of" in said["Begin"] and "bench supply" not in said["Begin"]
        assert said["Current limit"].startswith("none but the fuse")


@pytest.mark.parametrize(
    ("chemistry", "says"),
    [("coin-20", "swallows"), ("silver-button", "swallows"), ("lithium-ion", "run flat"), ("alkaline-aa", None)],
)
def test_cells_that_endanger_say_so_before_a_hand_goes_in(chemistry, says):
    """Button cells burn a child's gullet; a lithium cell that was run flat may burn when charged (common practice)."""
    cells = {"chemistry": chemistry, "cells": "1" if "lithium" in chemistry or "coin" in chemistry else "3"}
    first = step(assess(on("battery", "", cells, target="1mA")), "dangers")
    assert (first is None) == (says is None)
    assert says is None or says in first.why


def test_a_dial_that_may_be_radium_is_not_touched():
    report = assess(on("regulated", "12V"), Bench(site=Site(hazards=("radium",))))
    assert "scrape" in step(report, "dangers").why
    assert "radium" in report.next_step.caution


def test_a_live_sink_is_not_touched_while_it_is_on():
    report = assess(on("regulated", "12V", regulator_id="fixed-5-to220", sink=True, target="9mA"))
    bare = assess(on("regulated", "12V", regulator_id="fixed-5-to220", target="9mA"))
    assert "off before it is touched" in step(report, "regulator").why
    assert "touched" not in step(bare, "regulator").why


@pytest.mark.parametrize(
    ("name", "warns"),
    [
        ("Oil", True),
        ("Brake warning", True),
        ("Gas alarm", True),
        ("Overheat", True),
        ("Dial lamp", False),
        ("Boil", False),
        ("Gasket", False),
    ],
)
def test_a_lamp_that_warns_is_made_to_warn(name, warns):
    assert (step(assess(on("regulated", "12V", name=name)), "warns") is not None) is warns
