"""From nothing to a sized AC position by keyboard, and the files and photographs of an item."""

import json
import re

from playwright.sync_api import Page, expect

from tests.api.test_take_in import with_exif
from tests.browser.door import add_lamp
from tests.browser.test_bench_to_reading import open_lamp, saved


def press(page: Page, name, role="button"):
    """Focus a control and press it, without the mouse."""
    page.get_by_role(role, name=name).first.focus()
    page.keyboard.press("Enter")


def choose(page: Page, group, option):
    """Pick one of a few by keyboard: focus it, then the space bar."""
    radio = page.get_by_role("radiogroup", name=group).get_by_role("radio", name=option, exact=True)
    radio.focus()
    page.keyboard.press("Space")
    expect(radio).to_be_checked()


def type_into(page: Page, label, text):
    page.get_by_label(label, exact=True).focus()
    page.keyboard.press("Control+a")
    page.keyboard.type(text)
    page.keyboard.press("Tab")
    saved(page)


def pick(page: Page, label, text):
    """Pick from a list by typing part of a name."""
    box = page.get_by_role("combobox", name=label)
    # Nobody types before the field stands still; an open list closes when its panel scrolls under it.
    box.scroll_into_view_if_needed()
    box.focus()
    page.keyboard.press("Control+a")
    page.keyboard.type(text)
    page.get_by_role("option", name=re.compile(text)).first.wait_for()
    # The first that matches stands ready.
    page.keyboard.press("Enter")
    saved(page)


def keep_reading(page: Page, function, text, lamp):
    choose(page, "Meter on", function)
    choose(page, "Old lamp", lamp)
    page.get_by_role("form", name="Take a reading").get_by_label("Reading", exact=True).focus()
    page.keyboard.type(text)
    page.keyboard.press("Enter")
    saved(page)


def stairs(page):
    return page.get_by_label("Volt staircase")


def readings(page):
    """Go from a lamp to its readings before the swap."""
    press(page, "Readings")
    press(page, "Readings before the swap", "link")


def test_from_nothing_to_a_sized_ac_position_by_keyboard(app):
    press(app, "Add equipment")
    press(app, "Rename New equipment")
    app.keyboard.type("Pier clock")
    app.keyboard.press("Enter")
    expect(app.get_by_role("heading", name="Pier clock", level=1)).to_be_visible()
    press(app, "Take-in sheet")
    expect(app.get_by_role("heading", name=re.compile("Pier clock: take-in"))).to_be_visible()
    expect(app.get_by_text("Not looked at yet")).to_be_visible()
    choose(app, "The case opens by", "Screws")
    choose(app, "Plastic and glass", "Sound")
    choose(app, "Can it be opened again afterwards?", "Yes")
    type_into(app, "Hours", "1.5")
    expect(app.get_by_text("Worth doing.")).to_be_visible()
    press(app, "Add a step")
    type_into(app, "1. What came off, and where it goes", "Bezel: three screws, felt behind")
    press(app, "Rails and lamps", "link")

    press(app, "Add rail")
    type_into(app, "Volts, usual", "9V")
    pick(app, "Kind of supply", "AC winding")
    press(app, "Close")
    add_lamp(app, "Bulb in a holder", "A transformer's winding, AC", leave=True)
    expect(app.get_by_role("slider")).to_be_visible()

    readings(app)
    expect(app.get_by_role("heading", name=re.compile("readings before the swap"))).to_be_visible()
    keep_reading(app, "AC volts", "8.1V", "In")
    keep_reading(app, "DC volts", "0.01V", "In")
    keep_reading(app, "AC volts", "9.6V", "Out")
    keep_reading(app, "AC amps", "150mA", "In")
    expect(app.get_by_text("AC: next to nothing on the DC range.")).to_be_visible()
    # (9.6 V − 8.1 V) / 150 mA is 10 Ω (Ohm); with the range's own 5 Ω taken out a little less.
    expect(app.get_by_text(re.compile("Source resistance 10"))).to_be_visible()
    press(app, re.compile("Use it: Source resistance"))
    saved(app)
    press(app, "Back to the lamp", "link")

    press(app, "Supply")
    pick(app, "Rectification", "Half-wave and capacitor")
    expect(app.get_by_text("a common negative may stay on the frame")).to_be_visible()
    press(app, "Close")
    expect(app.get_by_role("radio", name="Capacitor at its lowest")).to_be_visible()
    expect(stairs(app).get_by_role("button", name=re.compile("^Rectifier and sag"))).to_be_visible()
    was = stairs(app).get_by_role("button", name=re.compile("^Resistor")).inner_text()
    app.keyboard.press("s")
    app.keyboard.press("ArrowRight")
    expect(stairs(app).get_by_role("button", name=re.compile("^Resistor"))).not_to_have_text(was)
    app.reload()
    expect(stairs(app).get_by_role("button", name=re.compile("^Rectifier and sag"))).to_be_visible()


def test_a_capacitor_taken_at_its_rms_is_cured_by_its_remedy(demo, app):
    open_lamp(app, "Middle bracket")
    finding = app.locator("[data-finding=capacitor-over-volts]")
    expect(finding).to_contain_text("RMS was taken for peak")
    press(app, "Preview: Fit a 25 V part")
    expect(app.get_by_role("group", name="Preview: Fit a 25 V part")).to_be_visible()
    press(app, "Use it")
    expect(finding).to_have_count(0)
    saved(app)
    app.reload()
    expect(app.get_by_role("slider")).to_be_visible()
    expect(finding).to_have_count(0)


def test_the_staircase_shows_idle_and_full_speed(demo, app):
    open_lamp(app, "Panel lamp")
    step = stairs(app).get_by_role("button", name=re.compile("^Rail"))
    running = step.inner_text()
    stairs(app).get_by_role("radio", name="Full speed").focus()
    app.keyboard.press("Space")
    expect(step).not_to_have_text(running)
    # The crest of 38 V RMS is 53.7 V.
    expect(step).to_have_text(re.compile("53.7"))
    stairs(app).get_by_role("radio", name="Over the cycle").focus()
    app.keyboard.press("Space")
    expect(app.get_by_role("img", name="LED current over one cycle")).to_be_visible()


def test_an_inverted_line_is_said_on_the_readings(demo, app):
    open_lamp(app, "Fast slew")
    readings(app)
    expect(app.get_by_text("The logic is inverted")).to_be_visible()
    row = app.get_by_role("row", name=re.compile("^off"))
    expect(row.get_by_text("open, inferred")).to_be_visible()


def test_a_sweep_pasted_into_the_led_is_fitted_and_used(demo, app):
    open_lamp(app, "Channel 1")
    press(app, "LED and resistor")
    app.get_by_text("Own figures of this LED").click()
    area = app.get_by_label("Sweep: volts and amps, one reading a line")
    area.fill("1.92V 1mA\n1.99V 3mA\n2.08V 8mA\n2.15V 14mA")
    app.keyboard.press("Tab")
    saved(app)
    expect(app.get_by_role("img", name="Readings of the sweep and the curve fitted through them")).to_be_visible()
    expect(app.get_by_text("4 readings, fitted to")).to_be_visible()
    area.fill("1.92V")
    app.keyboard.press("Tab")
    expect(app.get_by_text("two values are wanted")).to_be_visible()
    expect(area).to_have_value("1.92V")


def test_a_photograph_comes_in_is_captioned_and_undone(demo, app):
    app.get_by_role("link", name="Chart room reading lights").click()
    press(app, "Take-in sheet")
    with app.expect_file_chooser() as chooser:
        press(app, "Add photographs")
    photo = {"name": "shade.jpg", "mimeType": "image/jpeg", "buffer": with_exif()}
    chooser.value.set_files(photo)
    expect(app.get_by_alt_text("Photograph without a caption")).to_be_visible()
    type_into(app, "Shows", "Shade off, felt ring on the nut")
    expect(app.get_by_alt_text("Shade off, felt ring on the nut")).to_be_visible()
    press(app, "Delete Shade off, felt ring on the nut")
    expect(app.get_by_alt_text("Shade off, felt ring on the nut")).to_have_count(0)
    press(app, "Undo")
    expect(app.get_by_alt_text("Shade off, felt ring on the nut")).to_be_visible()


def test_the_opening_record_is_read_backwards_at_closing(demo, app):
    app.get_by_role("link", name="Chart room reading lights").click()
    press(app, "Take-in sheet")
    choose(app, "Read it", "Closing, backwards")
    steps = app.get_by_role("region", name="Opening record").get_by_role("listitem")
    expect(steps.first).to_have_text(re.compile("^3"))
    press(app, re.compile("^Back in place: Two slotted screws"))
    expect(app.get_by_role("button", name=re.compile("^Not back: Two slotted screws"))).to_be_visible()


def test_a_document_is_looked_at_before_it_comes_in(demo, app, tmp_path):
    app.get_by_role("link", name="Dome hand paddle").click()
    press(app, "Files")
    with app.expect_download() as download:
        app.get_by_role("link", name="File without photographs (JSON)").click()
    path = tmp_path / "paddle.json"
    download.value.save_as(path)
    data = json.loads(path.read_text())
    data["equipment"]["positions"][0]["name"] = "Slew, fast"
    path.write_text(json.dumps(data))
    press(app, "Close")
    press(app, "Bench", "link")
    # All of the bench stands before anything on it is pressed.
    expect(app.get_by_role("link", name=re.compile("^Fast slew|^Slew, fast")).first).to_be_visible()
    press(app, "Bring in a file")
    expect(app.get_by_role("dialog")).to_be_visible()
    with app.expect_file_chooser() as chooser:
        press(app, "Choose a file")
    chooser.value.set_files(path)
    expect(app.get_by_text("Dome hand paddle is here already")).to_be_visible()
    press(app, "Replace Dome hand paddle")
    # The item itself is shown then; its lamp's new name stands on the bench behind before that.
    expect(app.get_by_role("heading", name="Dome hand paddle", level=1)).to_be_visible()
    expect(app.get_by_role("link", name=re.compile("^Slew, fast"))).to_be_visible()

    press(app, "Bench", "link")
    # All of the bench stands before anything on it is pressed.
    expect(app.get_by_role("link", name=re.compile("^Fast slew|^Slew, fast")).first).to_be_visible()
    press(app, "Bring in a file")
    expect(app.get_by_role("dialog")).to_be_visible()
    path.write_text(path.read_text()[:300])
    with app.expect_file_chooser() as chooser:
        press(app, "Choose a file")
    chooser.value.set_files(path)
    expect(app.get_by_text("Nothing was brought in.")).to_be_visible()
    expect(app.get_by_text("It is not JSON").first).to_be_visible()


def test_what_is_on_the_mains_gets_no_live_procedure(demo, app):
    open_lamp(app, "Safelight")
    expect(app.get_by_role("heading", name=re.compile("Do not read or work on it live"))).to_be_visible()
    expect(app.get_by_role("button", name="Keep reading")).to_have_count(0)
    readings(app)
    expect(app.get_by_text("No live readings are taken or kept")).to_be_visible()
    expect(app.get_by_role("button", name="Keep the reading")).to_have_count(0)
