"""A wiring picture at work: typed into by keyboard on a circuit, and opening the panels of a lamp."""

import re

from playwright.sync_api import expect

from swapglow.records.models import Equipment, Position
from tests.browser.conftest import axe
from tests.browser.test_bench_to_reading import saved


def test_a_circuit_is_typed_into_its_picture_and_focus_comes_back(demo, tab, served):
    """Tab to the picture, arrows along the current, Enter opens the field, Escape gives the focus back."""
    item = Equipment.objects.get(inputs__name="Standby set, lower hut")
    tab.goto(f"{served}/equipment/{item.pk}/fitted/charge")
    first = tab.get_by_role("button", name=re.compile("^the battery"))
    first.focus()
    tab.keyboard.press("ArrowRight")
    resistor = tab.get_by_role("button", name=re.compile(r"^resistor 1\.2.kΩ"))
    for _ in range(6):
        if resistor.evaluate("b => b === document.activeElement"):
            break
        tab.keyboard.press("ArrowRight")
    expect(resistor).to_be_focused()
    tab.keyboard.press("Enter")
    field = tab.get_by_role("textbox", name="Its resistor")
    expect(field).to_be_focused()
    field.fill("680R")
    tab.keyboard.press("Tab")
    saved(tab)
    expect(tab.get_by_role("button", name=re.compile("^resistor 680.Ω"))).to_be_visible()
    field.focus()
    tab.keyboard.press("Escape")
    expect(tab.get_by_role("button", name=re.compile("^resistor 680.Ω"))).to_be_focused()
    expect(field).to_have_count(0)
    # Every field is in a list too, behind one press.
    tab.get_by_role("button", name="All 11 fields").click()
    expect(field).to_have_value("680R")


def test_a_lamps_wiring_opens_the_panel_of_the_part_that_is_pressed(demo, tab, served):
    lamp = Position.objects.get(inputs__name="Wind hold")
    tab.goto(f"{served}/position/{lamp.pk}")
    tab.get_by_text("Wiring", exact=True).click()
    tab.get_by_role("button", name=re.compile("^feed 26.3.V")).click()
    expect(tab.get_by_role("heading", name="Relay rail")).to_be_visible()
    tab.set_viewport_size({"width": 390, "height": 844})
    expect(tab.get_by_role("button", name=re.compile(r"^R1 3\.3.kΩ"))).to_be_visible()
    assert tab.evaluate("document.documentElement.scrollWidth") <= 390
    assert axe(tab) == []
