"""Lamps that are part of the circuit, at the screen: asked first, closed by a cue, a sneak path found and cured."""

import re

import pytest
from playwright.sync_api import expect

from swapglow.records.models import Equipment, Position
from tests.browser.conftest import axe
from tests.browser.test_bench_to_reading import saved

pytestmark = pytest.mark.django_db(transaction=True)


def lamp_of(app, served, name, part="Old lamp and looks"):
    lamp = Position.objects.get(inputs__name=name)
    app.goto(f"{served}/position/{lamp.pk}")
    app.get_by_role("button", name=part, exact=True).first.click()
    return lamp


def test_a_cue_closes_the_swap_until_it_is_explained(demo, tab, served):
    lamp = lamp_of(tab, served, "Wind hold")
    tab.get_by_role("slider", name="Resistor").wait_for()
    tab.get_by_text("In series with something", exact=False).first.click()
    saved(tab)
    expect(tab.get_by_text("fit the same type, or find out.").first).to_be_visible()
    expect(tab.get_by_role("slider", name="Resistor")).to_have_count(0)
    assert Position.objects.get(pk=lamp.pk).input.cues == ["series"]
    tab.reload()
    expect(tab.get_by_text("fit the same type, or find out.").first).to_be_visible()
    tab.get_by_role("button", name="Options", exact=True).click()
    expect(tab.get_by_role("article")).to_have_count(0)
    assert axe(tab) == []
    # Somebody looked, and it is only a lamp.
    tab.get_by_role("button", name="Old lamp and looks", exact=True).first.click()
    tab.get_by_role("combobox", name="What else it does").fill("looked into")
    tab.keyboard.press("Enter")
    saved(tab)
    tab.get_by_role("slider", name="Resistor").wait_for()
    assert Position.objects.get(pk=lamp.pk).input.second_job == "none"


def test_a_lamp_that_must_stay_says_so_and_one_with_a_job_asks_for_its_part(demo, tab, served):
    lamp_of(tab, served, "Governor lamp")
    expect(tab.get_by_text("Leave this lamp").first).to_be_visible()
    lamp = lamp_of(tab, served, "Charge lamp")
    expect(tab.get_by_text("It has a second job").first).to_be_visible()
    field = tab.get_by_role("textbox", name="The part that takes that job")
    field.fill("68R 5W on the bracket")
    field.press("Tab")
    saved(tab)
    tab.get_by_role("slider", name="Resistor").wait_for()
    assert Position.objects.get(pk=lamp.pk).input.job_given_to == "68R 5W on the bracket"


def test_a_charge_lamps_resistor_and_a_sneak_path_are_found_and_cured(demo, tab, served):
    item = Equipment.objects.get(inputs__name="Standby set, lower hut")
    tab.goto(f"{served}/equipment/{item.pk}/fitted/charge")
    expect(tab.get_by_role("status").filter(has_text="it may not start")).to_be_visible()
    expect(tab.get_by_role("row", name=re.compile("Running, charging")).first).to_contain_text("LED: dark")
    beside = tab.get_by_role("textbox", name="Resistor beside it")
    beside.fill("47R")
    beside.press("Tab")
    saved(tab)
    expect(tab.get_by_role("status").filter(has_text="enough.")).to_be_visible()
    tab.goto(f"{served}/equipment/{item.pk}/fitted/turns")
    expect(tab.get_by_role("status").filter(has_text="Wrong: Right on: the tell-tale is dark.")).to_be_visible()
    expect(tab.get_by_text("left feed, tell-tale, right lamps, their ground").first).to_be_visible()
    tab.get_by_role("combobox", name="How it is wired").fill("its own ground")
    tab.keyboard.press("Enter")
    saved(tab)
    expect(tab.get_by_role("status").filter(has_text="Right in every combination")).to_be_visible()
    assert axe(tab) == []


def test_lamps_that_feed_each_other_are_cured_by_what_is_chosen(demo, tab, served):
    item = Equipment.objects.get(inputs__name="Standby set, lower hut")
    tab.goto(f"{served}/equipment/{item.pk}/fitted/trailer")
    expect(tab.get_by_role("status").filter(has_text="BRAKE on: side and plate glow")).to_be_visible()
    path = tab.get_by_role("list", name="Path: BRAKE on")
    expect(path.get_by_role("listitem")).to_have_text(["BRAKE", "brake", "shell", "side", "SIDE", "plate", "ground"])
    assert axe(tab) == []
    tab.get_by_role("button", name="Choose: A ground at shell").click()
    saved(tab)
    tab.get_by_role("button", name="It is done: it is so now").click()
    saved(tab)
    expect(tab.get_by_role("status").filter(has_text="Right in every combination")).to_be_visible()
    expect(path).to_have_count(0)
    lines = Equipment.objects.get(pk=item.pk).input.fitted["trailer"].details["lamps"].text
    assert lines.splitlines()[0] == "side: SIDE to ground, 12V 0.42A"


def test_a_knobs_light_is_drawn_old_and_new(demo, tab, served):
    item = Equipment.objects.get(inputs__name="Standby set, lower hut")
    tab.goto(f"{served}/equipment/{item.pk}/fitted/dash")
    expect(tab.get_by_role("status").filter(has_text="It no longer follows.")).to_be_visible()
    drawn = tab.get_by_role("img", name="Light over the knob")
    # Old lamps fall far before the LEDs do; the advised way falls to nothing: heights of the last points.
    ends = drawn.evaluate("(e) => [...e.querySelectorAll('path')].map((p) => p.getPointAtLength(p.getTotalLength()).y)")
    old, new, after = ends
    assert new < old < after
    tab.get_by_role("button", name=re.compile("^resistors")).click()
    ohm = tab.get_by_role("textbox", name="The resistor of each")
    ohm.fill("270R")
    ohm.press("Tab")
    saved(tab)
    expect(tab.locator("[data-finding=over-current-led]")).to_be_visible()
    assert axe(tab) == []


def test_a_sister_beside_it_clears_what_both_share(demo, tab, served):
    lamp = lamp_of(tab, served, "Wind hold", "Readings")
    reading = tab.locator("[data-panel]").get_by_role("textbox", name="Reading")
    reading.fill("9.5mA")
    reading.press("Enter")
    taken = tab.get_by_role("list", name="Readings after the swap")
    expect(taken).to_contain_text("off")
    tab.get_by_role("radio", name="Its sister, a good one").check(force=True)
    reading.fill("9.6mA")
    reading.press("Enter")
    expect(tab.get_by_text(re.compile(r"9\.5\s?mA agrees: its sister reads 9\.6\s?mA")).first).to_be_visible()
    expect(tab.get_by_role("table", name="Beside its sister")).to_contain_text(re.compile(r"100\s?µA under its sister"))
    expect(taken).to_contain_text("agrees")
    assert {r.input.whose for r in Position.objects.get(pk=lamp.pk).readings_after.all()} == {"this", "sister"}
    assert axe(tab) == []


def test_a_second_job_is_worked_out_in_a_circuit_begun_from_its_lamp(demo, tab, served):
    lamp = lamp_of(tab, served, "Charge lamp")
    there = tab.get_by_role("list", name="Worked out in")
    expect(there).to_contain_text("reach the field")
    tab.get_by_role("button", name="Work it out: Charge indicator that excites").click()
    expect(tab.get_by_role("status").filter(has_text="Type this too: Battery, key on")).to_be_visible()
    expect(tab.get_by_role("textbox", name="The old lamp's amps")).to_have_value("250\u00a0mA")
    tab.go_back()
    tab.get_by_role("button", name="Old lamp and looks", exact=True).first.click()
    expect(there.get_by_role("listitem")).to_have_count(2)
    assert len(Position.objects.get(pk=lamp.pk).equipment.input.fitted) == 6
