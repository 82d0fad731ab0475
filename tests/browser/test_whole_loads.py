"""All that hangs on a rail, and other LEDs in one place, by keyboard."""

import re

from playwright.sync_api import expect

from tests.browser.test_bench_to_reading import open_lamp, saved
from tests.browser.test_taking_in import pick, press, type_into


def edit_battery(page):
    page.get_by_role("button", name="Edit Cart battery", exact=True).focus()
    page.keyboard.press("Enter")
    expect(page.locator("[data-panel]")).to_be_visible()
    page.get_by_text("Each end, fuse").click()


def hours(budget):
    """The battery's hours after the swaps."""
    return float(re.search(r"battery lasts\s*([0-9.]+)", budget.text_content())[1])


def test_a_rails_budget_follows_what_is_typed(demo, app):
    """What else hangs on the battery is added to its lamps, and its hours fall (h = Ah/A)."""
    app.get_by_role("link", name="Meridian cart").click()
    budget = app.get_by_role("figure", name="What hangs on Cart battery")
    expect(budget).to_contain_text("What else hangs on it: 85")
    before = hours(budget)
    edit_battery(app)
    type_into(app, "What else hangs on it", "0.4A")
    app.keyboard.press("Escape")
    expect(app.locator("[data-panel]")).to_have_count(0)
    expect(budget).to_contain_text("What else hangs on it: 400")
    after = hours(budget)
    assert after < before / 2
    # 1.6 A of fuse hold 1.14 A before and half an amp after; a smaller one is minded.
    edit_battery(app)
    type_into(app, "Fuse", "0.5A")
    app.keyboard.press("Escape")
    expect(app.locator("[data-panel]")).to_have_count(0)
    expect(budget).to_contain_text("of its fuse")
    app.keyboard.press("Control+z")
    expect(budget).not_to_contain_text("of its fuse")


def test_a_string_of_other_leds_is_added_shown_and_taken_back(demo, app):
    open_lamp(app, "Left pier lamp")
    expect(app.get_by_text("One string")).to_have_count(0)
    press(app, "LED and resistor")
    press(app, "Add a string of other LEDs")
    pick(app, "LED of string 2", "Blue 3 mm")
    type_into(app, "Drive wanted in it", "1mA")
    saved(app)
    app.keyboard.press("Escape")
    line = app.get_by_text(re.compile("One string .* all of them"))
    expect(line).to_contain_text("Blue 3 mm diffused")
    app.reload()
    expect(line).to_contain_text("Blue 3 mm diffused")
    press(app, "LED and resistor")
    press(app, "Delete string 2")
    saved(app)
    app.keyboard.press("Escape")
    undo = app.get_by_role("button", name=re.compile("^Undo"))
    expect(line).to_have_count(0)
    expect(undo).to_have_accessible_name(re.compile("edit Left pier lamp: beside"))
    app.keyboard.press("Control+z")
    expect(line).to_contain_text("Blue 3 mm diffused")
