"""The slice as a user goes through it: quick sum, keep, slide rule, remedy, reading, reload."""

import re

from playwright.sync_api import Page, expect

from swapglow.records.models import Position


def rail(page: Page):
    return page.get_by_label("Rail", exact=True)


def rule(page: Page):
    return page.get_by_role("slider", name="Resistor")


def open_lamp(page: Page, name: str):
    page.get_by_role("link", name=re.compile(f"^{name}")).click()
    page.get_by_role("heading", name=name, level=1).wait_for()


def saved(page: Page):
    """Wait until no save is on its way."""
    # Polled from here: the page's policy forbids the evaluation that wait_for_function polls with.
    for _ in range(300):
        if not page.evaluate("Object.keys(localStorage).filter((k) => k.startsWith('swapglow.save/'))"):
            return
        page.wait_for_timeout(50)
    raise AssertionError("something is still on its way after 15 s")


def until(page: Page, holds):
    """Wait until something holds on the disk."""
    for _ in range(300):
        if holds():
            return
        page.wait_for_timeout(50)
    raise AssertionError("it does not hold after 15 s")


def test_quick_sum_to_kept_position_by_keyboard(app):
    rail(app).focus()
    app.keyboard.type("21-23V")
    expect(app.get_by_text("4.13 mA").or_(app.get_by_text("Exact"))).to_be_visible()
    # Ohm: 22 V and about 2.85 V of LED at 5 mA leave 3.83 kΩ; E24 next up is 3.9 kΩ.
    expect(app.get_by_role("button", name=re.compile("3.9.*kΩ")).first).to_be_visible()
    app.get_by_role("button", name="Keep as a lamp").focus()
    app.keyboard.press("Enter")
    app.get_by_label("Its name").focus()
    app.keyboard.type("Barograph")
    app.get_by_label("Which lamp").focus()
    app.keyboard.type("Chart lamp")
    app.get_by_role("button", name="Keep", exact=True).focus()
    app.keyboard.press("Enter")
    expect(app.get_by_role("heading", name="Chart lamp")).to_be_visible()
    app.reload()
    app.get_by_role("heading", name="Chart lamp").wait_for()


def test_a_bad_rail_is_refused_at_its_field_and_kept(app):
    rail(app).fill("12 bananas")
    expect(app.get_by_text("is not a voltage")).to_be_visible()
    app.reload()
    expect(rail(app)).to_have_value("12 bananas")


def test_the_slide_rule_moves_all_instruments_by_keyboard(demo, app):
    app.clock.install()
    app.reload()
    open_lamp(app, "Wind hold")
    before = rule(app).get_attribute("aria-valuetext")
    resistor = app.get_by_label("Volt staircase").get_by_role("button", name=re.compile("^Resistor"))
    was = resistor.inner_text()
    app.keyboard.press("s")
    expect(rule(app)).to_be_focused()
    rule(app).evaluate(
        """(el) => {
            window.heard = [];
            new MutationObserver(() => window.heard.push(el.ariaValueText)).observe(el, { attributes: true });
        }"""
    )
    for _ in range(3):
        app.keyboard.press("ArrowRight")
    expect(rule(app)).not_to_have_attribute("aria-valuetext", before)
    expect(resistor).not_to_have_text(was)
    # 3.3 kΩ and three steps of E24: 3.6, 3.9, 4.3.
    expect(rule(app)).to_have_attribute("aria-valuetext", re.compile("^4.3 kΩ"))
    # The hand rests: what it came to is saved.
    app.clock.fast_forward(1000)
    saved(app)
    app.clock.fast_forward(1000)
    expect(rule(app)).to_have_attribute("aria-valuetext", re.compile("^4.3 kΩ, .* mA"))
    # No value was heard again after a later one: not while it moved, not when it was saved.
    ohms = [text.replace("\u00a0", " ").split(",")[0] for text in app.evaluate("window.heard")]
    steps = ["3.3 kΩ", "3.6 kΩ", "3.9 kΩ", "4.3 kΩ"]
    assert set(ohms) <= set(steps) and ohms == sorted(ohms, key=steps.index)
    app.reload()
    expect(rule(app)).to_have_attribute("aria-valuetext", re.compile("^4.3 kΩ"))
    app.keyboard.press("Control+z")
    expect(rule(app)).to_have_attribute("aria-valuetext", re.compile("^3.3 kΩ"))


def test_a_remedy_is_tried_put_back_and_taken(demo, app):
    open_lamp(app, "Arc ready")
    hot = app.locator("[data-finding=over-rated-current]")
    expect(hot).to_be_visible()
    hot.get_by_role("button", name=re.compile("^Preview")).click()
    expect(app.locator("[data-bar]")).to_contain_text("Preview: Fit")
    expect(hot).to_have_count(0)
    app.get_by_role("button", name="Put back").click()
    expect(hot).to_be_visible()
    hot.get_by_role("button", name=re.compile("^Preview")).focus()
    app.keyboard.press("Enter")
    app.get_by_role("button", name="Use it").focus()
    app.keyboard.press("Enter")
    expect(hot).to_have_count(0)
    saved(app)
    app.reload()
    expect(app.get_by_role("slider")).to_be_visible()
    expect(hot).to_have_count(0)


def test_a_reading_inks_the_rail_and_a_wrong_one_is_explained(demo, app):
    open_lamp(app, "Pen lamp")
    expect(app.get_by_role("heading", name=re.compile("Read the rail"))).to_be_visible()
    app.keyboard.press("r")
    app.keyboard.type("18.1V")
    app.keyboard.press("Enter")
    expect(app.locator("[data-finding=nothing-measured]")).to_have_count(0)
    app.goto(app.url.split("/position")[0])
    open_lamp(app, "Shutter closed")
    app.keyboard.press("r")
    app.keyboard.type("0")
    app.keyboard.press("Enter")
    off = app.locator("[data-diagnosis=off]")
    expect(off).to_be_visible()
    expect(off.get_by_role("list", name="Likely causes")).to_contain_text("turned round")
    saved(app)
    app.reload()
    expect(off).to_be_visible()


def test_a_lamp_that_draws_nothing_is_looked_at_before_anything_is_opened(demo, app):
    """Nothing flows: look first. Dark, pressed twice in haste, is one look; volts over the LED are next, by keyboard.

    The whole rail over the LED and nothing through it: turned round, or open (Ohm, Kirchhoff).
    """
    open_lamp(app, "Shutter open")
    app.get_by_role("button", name="Readings").click()
    panel = app.locator("[data-panel]")
    panel.get_by_role("textbox", name="Reading").fill("0A")
    panel.get_by_role("button", name="Keep reading").click()
    app.get_by_role("button", name="Close").click()
    following = app.get_by_role("region", name="Next thing on the bench")
    expect(following.get_by_role("heading")).to_contain_text("look: is it lit?")
    following.get_by_role("button", name="Dark", exact=True).dblclick()
    expect(following.get_by_role("heading")).to_contain_text("Read volts across the LEDs")
    following.get_by_role("textbox", name="Reading").fill("26.2V")
    app.keyboard.press("Enter")
    causes = app.get_by_role("list", name="Likely causes")
    expect(causes.get_by_role("listitem").first).to_contain_text("LED")
    saved(app)
    kept = Position.objects.get(inputs__name="Shutter open").readings_after.order_by("order")
    assert [(r.input.kind, r.input.text) for r in kept][-3:] == [
        ("current", "0A"),
        ("look", "dark"),
        ("led_volts", "26.2V"),
    ]


def test_what_is_typed_survives_a_dropped_connection(demo, app):
    open_lamp(app, "Wind hold")
    app.get_by_role("button", name="Rename Wind hold").click()
    app.context.set_offline(True)
    app.get_by_label("Name of this lamp").fill("Wind hold, red deck")
    app.keyboard.press("Enter")
    expect(app.get_by_text("No connection: 1 change is kept here")).to_be_visible()
    app.context.set_offline(False)
    expect(app.get_by_role("heading", name="Wind hold, red deck", level=1, include_hidden=True)).to_be_attached()
    app.reload()
    expect(app.get_by_role("heading", name="Wind hold, red deck")).to_be_visible()


def test_equipment_is_edited_reordered_deleted_and_brought_back(demo, app):
    app.get_by_role("link", name="Plate camera console").click()
    app.get_by_role("button", name="Delete this equipment").click()
    expect(app.get_by_role("heading", name="On the bench")).to_be_visible()
    expect(app.get_by_role("link", name="Plate camera console")).to_have_count(0)
    app.get_by_role("status").get_by_role("button", name="Undo").click()
    app.get_by_role("link", name="Plate camera console").click()
    app.get_by_label("Owner").fill("back with its member")
    app.keyboard.press("Tab")
    app.get_by_role("button", name="Edit Exposure lamp").click()
    app.get_by_text("Each end, fuse").click()
    app.get_by_label("Volts, highest", exact=True).fill("6.2V")
    app.keyboard.press("Tab")
    expect(app.get_by_text("is below the usual")).to_be_visible()
    app.get_by_label("Volts, highest", exact=True).fill("7.1V")
    app.keyboard.press("Tab")
    app.get_by_role("button", name="Close").click()
    expect(app.get_by_text("7.1 V").first).to_be_visible()
    saved(app)
    app.reload()
    expect(app.get_by_label("Owner")).to_have_value("back with its member")
    app.goto(app.url.split("/equipment")[0])
    app.get_by_role("button", name="Arrange").click()
    app.get_by_role("button", name="Move Plate camera console up").click()
    names = app.locator("a[href^='/equipment']")
    expect(names.nth(1)).to_have_text("Plate camera console")


def test_the_drawer_fills_ticks(app):
    app.get_by_role("link", name="Drawer").click()
    app.get_by_label("Add values").fill("4k7 470R blue")
    app.keyboard.press("Enter")
    expect(app.get_by_text('"blue" is not a resistance')).to_be_visible()
    app.get_by_label("Add values").fill("4k7 470R")
    app.keyboard.press("Enter")
    for text in ("4.7", "470"):
        expect(app.get_by_role("button", name=re.compile(rf"^{text}\sk?Ω, full"))).to_be_visible()
