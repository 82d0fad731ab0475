"""Boards, strings, banks and power LEDs at work: from nothing to a way that was chosen."""

import re
import uuid

import pytest
from playwright.sync_api import expect

from swapglow.records.models import Equipment
from tests.api.page import Bench
from tests.browser.conftest import axe
from tests.browser.door import add_lamp


@pytest.fixture
def item(transactional_db):
    key = str(uuid.uuid4())
    assert Bench()("PUT", f"equipment/{key}", {"name": "Lock keeper's hut"})[0] == 200
    return key


def fill(app, label, text):
    field = app.get_by_role("textbox", name=label, exact=True)
    field.fill(text)
    app.keyboard.press("Control+Enter" if "\n" in text else "Enter")


# What somebody has in hand, and what it is, for each kind.
DOORS = {
    "Driver board": ("Ready-made LED lamp or board", "Turn its driver board down"),
    "String of LEDs": ("String or sign", "A light string, to be cut or mended"),
    "Banks of LED chips": ("LED that is there already", "Banks of LED chips on one driver"),
    "Power LED": ("Projector or power LED",),
    "Dropper": ("LED that is there already", "Behind a capacitor on the mains"),
    "Matrix": ("LED that is there already", "Rows and columns"),
    "A regulator": ("Ready-made LED lamp or board", "Pick a regulator for LEDs"),
}


def add(app, served, item, kind):
    app.goto(f"{served}/equipment/{item}")
    add_lamp(app, *DOORS[kind])
    expect(app.get_by_role("combobox", name="What it is")).to_have_value(re.compile(kind))


def kept(item):
    (one,) = Equipment.objects.get(pk=item).input.fitted.values()
    return one


def test_a_driver_board_with_two_sense_resistors_is_brought_to_half(item, tab, served):
    """75 ‖ 82 Ω: the lower one clipped leaves 39.2/82 of the current (trade)."""
    add(tab, served, item, "Driver board")
    # What must not be done stands before anything is typed.
    expect(tab.get_by_text(re.compile("^All of it is connected with the mains. Qualified people only"))).to_be_visible()
    expect(tab.get_by_text(re.compile("^Type what is on the board"))).to_be_visible()
    fill(tab, "Sense resistors", "75 ‖ 82")
    ways = tab.get_by_role("list", name="What may be done").get_by_role("listitem")
    clip = ways.filter(has_text="Clip the 75")
    expect(clip).to_contain_text("48%")
    expect(clip).to_contain_text("hardly seen from memory")
    fill(tab, "Current through the LEDs", "60mA")
    row = tab.get_by_role("row", name=re.compile("^Through the LEDs"))
    expect(row).to_contain_text("60mA")
    clip.get_by_role("button", name="Choose: Clip the 75").click()
    expect(row).to_contain_text("28.7mA")
    # Nothing on it is read live: the current goes with the power at the plug.
    fill(tab, "Power at the plug, before", "6W")
    fill(tab, "Power at the plug, afterwards", "2.9W")
    expect(tab.get_by_text(re.compile("^It agrees: 29.mA by the power at the plug, 28.7.mA expected"))).to_be_visible()
    tab.reload()
    expect(tab.get_by_role("button", name="Chosen: put back")).to_be_visible()
    assert kept(item).chosen == "clip-75"
    assert axe(tab) == []


def test_a_string_is_cut_by_a_third(item, tab, served):
    add(tab, served, item, "String of LEDs")
    expect(tab.get_by_text(re.compile("^A cut string is no longer an approved product"))).to_be_visible()
    fill(tab, "Volts of the feed", "31V")
    fill(tab, "LEDs in series as it was made", "12")
    fill(tab, "LEDs left of them", "8")
    # Until it is known what it hangs on, every answer stands there and none is proposed.
    expect(
        tab.get_by_text(re.compile("^4 fewer: .* on direct current, .* behind a bridge or .* on one half-wave"))
    ).to_be_visible()
    expect(tab.get_by_role("list", name="What may be done")).to_have_count(0)
    tab.get_by_text("AC, one half-wave", exact=True).click()
    expect(tab.get_by_text(re.compile("^4 fewer: .* in series leaves .* of the current"))).to_be_visible()
    ways = tab.get_by_role("list", name="What may be done").get_by_role("listitem")
    expect(ways.first).to_contain_text("(ours)")
    practice = ways.filter(has_text="by practice's sum")
    share = float(practice.get_by_role("button").first.inner_text().split()[0])
    assert share < 80
    expect(tab.get_by_role("row", name=re.compile("^Without a resistor"))).to_be_visible()
    expect(tab.get_by_text("An LED loose in its socket", exact=False)).to_be_visible()
    tab.get_by_role("button", name="Show SPICE text").click()
    expect(tab.get_by_role("region", name="SPICE text")).to_contain_text("Vfeed feed 0 SIN")


def test_a_bank_is_balanced(item, tab, served):
    add(tab, served, item, "Banks of LED chips")
    fill(tab, "Rail of the banks", "5V")
    banks = tab.get_by_role("textbox", name="Banks", exact=True)
    banks.fill("keys: 8 white × 150R\nbar: 5 red × 330R")
    banks.press("Tab")
    stairs = tab.get_by_role("list", name="Branches").get_by_role("listitem")
    expect(stairs).to_have_count(2)
    expect(stairs.first).to_contain_text("the brightest")
    tab.get_by_role("button", name="Choose: Make the banks look equal").click()
    expect(
        tab.get_by_text(re.compile(r"^Make the banks look equal: All within 1(\.\d+)? × of each other"))
    ).to_be_visible()
    expect(stairs.first).to_contain_text("then")
    tab.set_viewport_size({"width": 390, "height": 844})
    assert tab.evaluate("document.documentElement.scrollWidth") <= 390
    assert axe(tab) == []


def test_a_power_led_that_would_cook_is_saved_by_its_sink(item, tab, served):
    add(tab, served, item, "Power LED")
    fill(tab, "Volts of the LED at its current", "30-36V")
    fill(tab, "Most it is rated for", "900mA")
    fill(tab, "Driver's current", "700mA")
    fill(tab, "Driver's window", "24-42V")
    fill(tab, "Heat sink to air", "4.7K/W")
    expect(tab.get_by_text(re.compile("^It cooks: its junction comes to"))).to_be_visible()
    sink = tab.get_by_role("list", name="What may be done").get_by_role("listitem").first
    value = re.search(r"A sink of ([\d.]+) K/W", sink.inner_text())[1]
    fill(tab, "Heat sink to air", f"{value}K/W")
    expect(tab.get_by_text(re.compile("^It cooks"))).to_have_count(0)
    tab.get_by_role("button", name="Undo", exact=False).first.click()
    # Both values of the sink were typed in one go: without any it is never lit.
    expect(tab.get_by_text(re.compile("Without one it is never lit"))).to_be_visible()


def test_what_cannot_be_read_stands_at_its_field(item, tab, served):
    add(tab, served, item, "Dropper")
    expect(tab.get_by_text(re.compile("^Shown for understanding only"))).to_be_visible()
    fill(tab, "Capacitor in the feed", "four")
    expect(tab.get_by_text(re.compile('^"four" is not a capacitance'))).to_be_visible()
    fill(tab, "Capacitor in the feed", "470nF")
    fill(tab, "Volts of the feed", "230V")
    fill(tab, "Volts of the LED string", "72V")
    expect(tab.get_by_text(re.compile(r"^About 2\d.mA flow; the rule of 2πfCV says 34.mA"))).to_be_visible()
    expect(tab.get_by_text("Nothing is to be done to it here.")).to_be_visible()
    expect(tab.get_by_role("list", name="What may be done")).to_have_count(0)


def test_which_resistor_is_found_on_the_rule_by_keyboard_and_done(item, tab, served):
    """22 ‖ 33 Ω: 68 for the 22 leaves 13.2/22.2 of the current (Ohm); done, that is what stands there."""
    add(tab, served, item, "Driver board")
    fill(tab, "Sense resistors", "22 ‖ 33")
    rule = tab.get_by_role("slider", name="Value of the 22 Ω")
    rule.focus()
    for _ in range(40):
        if (rule.get_attribute("aria-valuetext") or "").startswith("68"):
            break
        tab.keyboard.press("ArrowRight")
    assert re.match(r"68.Ω: 59 %\. 0\.\d+ × the light", rule.get_attribute("aria-valuetext"))
    tab.get_by_role("button", name=re.compile("^Choose this: 68.Ω for the 22")).click()
    expect(tab.get_by_text(re.compile("^68.Ω for the 22.Ω: 59 % of the current"))).to_be_visible()
    tab.reload()
    expect(tab.get_by_role("slider", name="Value of the 22 Ω")).to_have_attribute("aria-valuetext", re.compile("^68"))
    tab.get_by_role("button", name="It is done: it is so now").click()
    # Drawn as it now is; a part of the picture opens its field.
    tab.get_by_role("button", name=re.compile("^sense resistor 68.Ω")).click()
    expect(tab.get_by_role("textbox", name="Sense resistors", exact=True)).to_have_value("68\u00a0Ω ‖ 33\u00a0Ω")
    expect(tab.get_by_role("button", name="Chosen: put back")).to_have_count(0)
    tab.get_by_role("button", name=re.compile("^Undo edit")).click()
    expect(tab.get_by_role("textbox", name="Sense resistors", exact=True)).to_have_value("22 ‖ 33")
    expect(tab.get_by_role("button", name="Chosen: put back")).to_be_visible()
    assert axe(tab) == []


def test_a_matrix_and_a_regulator_are_found_by_looking(item, tab, served):
    add(tab, served, item, "Matrix")
    fill(tab, "Volts of a row while it is on", "15V")
    fill(tab, "Rows, switched one after another", "3")
    fill(tab, "Columns", "4")
    fill(tab, "Each of them", "680R")
    fill(tab, "Resistance past an open switch", "27k")
    table = tab.get_by_role("table").filter(has_text="Brightest that should be dark")
    expect(table.get_by_role("row")).to_have_count(4)
    expect(tab.get_by_text(re.compile("^A lamp in the same .* glows on what leaks"))).to_be_visible()
    expect(tab.get_by_text(re.compile("from each row to ground and from each column to the feed"))).to_be_visible()
    tab.set_viewport_size({"width": 390, "height": 844})
    assert tab.evaluate("document.documentElement.scrollWidth") <= 390
    assert axe(tab) == []
    tab.set_viewport_size({"width": 1280, "height": 800})
    add(tab, served, item, "A regulator")
    fill(tab, "Lowest volts before it", "9.6V")
    fill(tab, "Highest volts before it", "15.2V")
    front = tab.get_by_role("img", name="From left to right: adjust, out, in")
    expect(front).to_be_visible()
    expect(tab.get_by_role("img", name="From left to right: in, out, adjust")).to_be_visible()
    tab.get_by_role("button", name=re.compile("^Choose: 5.V regulator TO-92")).click()
    expect(tab.get_by_role("img", name="From left to right: out, ground, in")).to_be_visible()
    assert axe(tab) == []
