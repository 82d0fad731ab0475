"""A driver's trouble found and cured, each by keyboard: a ghost, a sense line, a flasher, a comparison."""

import re

from playwright.sync_api import expect

from tests.browser.test_bench_to_reading import open_lamp, saved
from tests.browser.test_taking_in import choose, pick, press, type_into


def step(page, name):
    """Open the panel of a step of the staircase."""
    page.get_by_label("Volt staircase").get_by_role("button", name=re.compile(f"^{name}")).first.focus()
    page.keyboard.press("Enter")
    expect(page.locator("[data-panel]")).to_be_visible()


def shut(page):
    page.keyboard.press("Escape")
    expect(page.locator("[data-panel]")).to_have_count(0)


def take(page, finding, label):
    """Preview a remedy and use it."""
    found = page.locator(f"[data-finding={finding}]")
    found.get_by_role("button", name=re.compile(f"^Preview: {label}")).focus()
    page.keyboard.press("Enter")
    expect(page.locator("[data-bar]")).to_be_visible()
    press(page, "Use it")
    expect(page.locator("[data-bar]")).to_have_count(0)
    saved(page)


def test_a_keep_warm_ghost_is_found_and_cured_by_a_remedy(demo, app):
    """A keep-warm resistor lights an LED that should be off (common practice)."""
    open_lamp(app, "Wind hold")
    ghost = app.locator("[data-finding=glows-when-off]")
    expect(app.get_by_label("Volt staircase")).to_be_visible()
    expect(ghost).to_have_count(0)
    step(app, "Driver")
    pick(app, "What drives it", "Transistor to ground")
    type_into(app, "Keep-warm resistor", "4k7")
    shut(app)
    expect(ghost).to_contain_text("seen in a lit room")
    # The state is a control that all three instruments follow.
    off = app.get_by_role("radiogroup", name="When").get_by_role("radio", name="Off")
    off.focus()
    app.keyboard.press("Space")
    expect(app.get_by_label("Volt staircase")).to_contain_text("across it")
    expect(app.get_by_label("Slide rule")).to_contain_text("Off, usual")
    expect(app.get_by_label("Glow box")).to_contain_text("seen in a lit room")
    take(app, "glows-when-off", "Put .* across LED and resistor")
    expect(ghost).to_have_count(0)
    expect(app.get_by_label("Glow box")).not_to_contain_text("seen in a lit room")
    app.reload()
    expect(app.get_by_role("slider")).to_be_visible()
    expect(ghost).to_have_count(0)
    app.keyboard.press("Control+z")
    expect(ghost).to_be_visible()


def test_a_sense_line_is_sized_from_two_trials(demo, app):
    """Works at one resistor, fails at the next lower: the trip current lies between (common practice)."""
    open_lamp(app, "Fast slew")
    step(app, "Rail")
    app.get_by_label("Trips at", exact=True).focus()
    app.keyboard.press("Control+a")
    app.keyboard.press("Backspace")
    app.keyboard.press("Tab")
    saved(app)
    type_into(app, "Trial: still switches with", "8k2")
    type_into(app, "Trial: no longer with", "6k8")
    choose(app, "The trials were with", "The resistor alone")
    saved(app)
    shut(app)
    step(app, "Resistor")
    app.get_by_role("textbox", name="Resistor", exact=True).focus()
    app.keyboard.type("470R")
    app.keyboard.press("Tab")
    saved(app)
    shut(app)
    closed = app.locator("[data-finding=line-reads-closed]")
    # 7.7 V over 2.4 kΩ and 6.8 kΩ is 837 µA (Ohm).
    expect(closed).to_contain_text("837 µA was tried")
    take(app, "line-reads-closed", "Fit")
    expect(closed).to_have_count(0)
    app.get_by_role("radiogroup", name="When").get_by_role("radio", name="Contact closed").focus()
    app.keyboard.press("Space")
    expect(app.get_by_label("Glow box")).to_contain_text("dark")


def test_a_flasher_keeps_its_time(demo, app):
    """What is missing, the cool way first, and the load resistor with its heat (common practice)."""
    open_lamp(app, "Indicator, left front")
    fast = app.locator("[data-finding=misses-current]")
    expect(fast.get_by_role("button").filter(has_text="Preview").first).to_contain_text("electronic flasher")
    take(app, "misses-current", "Put .* as load")
    expect(fast).to_have_count(0)
    step(app, "Driver")
    choose(app, "Where a load would sit", "Plastic or trim")
    choose(app, "Still fast after the swap?", "Yes")
    saved(app)
    shut(app)
    expect(app.locator("[data-finding=load-hot]")).to_contain_text("plastic")
    # What may burn owns the next thing: nothing is to be tried live before it.
    next_thing = app.get_by_label("Next thing on the bench")
    expect(next_thing).to_contain_text("Do not power it. Take the load resistor off the plastic first.")
    expect(next_thing.get_by_role("textbox")).to_have_count(0)
    take(app, "load-hot", "Fit an electronic flasher")
    expect(fast).to_have_count(0)
    expect(next_thing).not_to_contain_text("Do not power it")
    expect(app.get_by_text("Turn the LED lamp round in its holder")).to_have_count(0)


def test_swaps_are_compared_and_one_is_previewed_without_leaving(demo, app):
    open_lamp(app, "Door running")
    press(app, "Options")
    best = app.get_by_role("article").first
    expect(best).to_contain_text("Wins: ")
    app.get_by_role("button", name="Least heat").focus()
    app.keyboard.press("Space")
    saved(app)
    expect(best).to_contain_text(re.compile("Take out|tenth"))
    expect(app.get_by_role("article", name="As it stands")).to_contain_text(
        "still runs through the LED: seen in a lit room"
    )
    best.get_by_role("button", name=re.compile("^Preview")).focus()
    app.keyboard.press("Enter")
    # The panel stays, beside the instruments that show what is previewed.
    expect(app.locator("[data-panel]")).to_be_visible()
    expect(app.locator("[data-bar]")).to_be_visible()
    expect(app.locator("[data-finding=glows-when-off]")).to_have_count(0)
    press(app, "Put back")
    expect(app.locator("[data-finding=glows-when-off]")).to_be_visible()
