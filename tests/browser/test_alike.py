"""Forty alike: one is typed, the others are copies; they are changed together and judged by three readings."""

import re

import pytest
from playwright.sync_api import expect

from swapglow.records.models import Position
from tests.browser.conftest import axe
from tests.browser.test_bench_to_reading import saved

pytestmark = pytest.mark.django_db(transaction=True)


def lamp(name):
    return Position.objects.get(inputs__name=name)


def test_a_panel_of_lamps_is_typed_once_and_judged_by_three(demo, tab, served):
    first = lamp("Dial, right")
    tab.goto(f"{served}/position/{first.pk}")
    tab.get_by_role("button", name="Build and card", exact=True).click()
    tab.get_by_role("link", name=re.compile("^Lamps like this one")).click()
    tab.get_by_label("How many more").fill("many")
    expect(tab.get_by_text("Enter a whole number from 1 to 200.")).to_be_visible()
    tab.get_by_label("How many more").fill("11")
    names = tab.get_by_label("Their names, one a line")
    expect(names).to_have_value(re.compile("^Dial, right 2\\n(.*\\n){9}Dial, right 12$"))
    # A list typed over it outlives a reload.
    names.fill("North\nEast\nSouth\n\nWest\nZenith")
    tab.reload()
    expect(names).to_have_value(re.compile("Zenith"))
    assert axe(tab) == []
    tab.get_by_role("button", name="Make 5 copies").dblclick()
    expect(tab.get_by_role("heading", name="Alike: 5")).to_be_visible()
    assert lamp("West").input.in_series == first.input.in_series
    # One of them is changed, then the others with it.
    tab.goto(f"{served}/position/{lamp('North').pk}")
    tab.get_by_role("button", name="LED and resistor", exact=True).click()
    field = tab.get_by_role("textbox", name="Resistor", exact=True)
    field.fill("680R")
    field.press("Tab")
    saved(tab)
    tab.goto(f"{served}/position/{lamp('North').pk}/alike")
    for name in ("East", "South", "West", "Zenith"):
        row = tab.get_by_role("listitem").filter(has=tab.get_by_label(name, exact=True))
        expect(row).to_contain_text("→ 680R")
        row.get_by_role("checkbox").check()
    tab.get_by_role("button", name="Change 4 lamps").click()
    expect(tab.get_by_role("heading", name="Alike: 4")).to_be_visible()
    assert lamp("Zenith").input.resistor == "680R"
    assert lamp("Dial, right").input.resistor == first.input.resistor
    # One reading is no comparison; with a third the odd one is named.
    expect(tab.get_by_text("None of these 5 lamps has been read.")).to_be_visible()
    for name, text in (("North", "7.1mA"), ("East", "7.2mA"), ("South", "1.2mA")):
        tab.goto(f"{served}/position/{lamp(name).pk}")
        tab.get_by_role("button", name="Readings", exact=True).click()
        panel = tab.locator("[data-panel]")
        panel.get_by_label("Reading", exact=True).fill(text)
        panel.get_by_role("button", name="Keep reading").click()
        saved(tab)
    tab.goto(f"{served}/position/{lamp('West').pk}/alike")
    expect(tab.get_by_role("heading", name="Current: 3 of 5 lamps read")).to_be_visible()
    expect(tab.get_by_text("South differs from the others")).to_be_visible()
    assert axe(tab) == []
    # One card for all of them, with a box for each place.
    tab.get_by_role("link", name="One card for all 5").click()
    card = tab.get_by_label("Job card", exact=True)
    expect(card.get_by_role("heading", name="The same in 5 places")).to_be_visible()
    expect(card).to_contain_text("Zenith")


def test_lamps_that_show_the_same_are_one_line_of_the_list(demo, tab, served):
    first = lamp("Dial, right")
    tab.goto(f"{served}/position/{first.pk}/alike")
    tab.get_by_label("How many more").fill("8")
    tab.get_by_role("button", name="Make 8 copies").click()
    expect(tab.get_by_role("heading", name="Alike: 8")).to_be_visible()
    tab.goto(f"{served}/equipment/{first.equipment_id}")
    more = tab.get_by_role("button", name=re.compile("more show the same"))
    more.wait_for(timeout=60_000)
    expect(tab.get_by_role("link", name=re.compile("^Dial, right 9"))).to_have_count(0)
    more.click()
    expect(tab.get_by_role("link", name=re.compile("^Dial, right 9"))).to_be_visible()
    tab.keyboard.press("Control+z")
    expect(tab.get_by_role("link", name=re.compile("^Dial, right 9"))).to_have_count(0)
    assert not Position.objects.filter(inputs__name="Dial, right 9").exists()
