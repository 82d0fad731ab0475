"""Ten plain tasks of a first hour, by mouse, by keys alone and by thumb, each with the most actions it may take.

In every run each task is done by one hand, the hands in turn; ``make torture`` does each by all three.
"""

import os
import re

import pytest
from playwright.sync_api import Page, expect

from swapglow.records.models import Equipment, Position
from tests.api.page import Bench
from tests.api.test_take_in import with_exif
from tests.browser.conftest import leave
from tests.browser.hands import PHONE, Keys, Mouse, Thumb, drag
from tests.browser.test_bench_to_reading import saved, until

HANDS = {"mouse": Mouse, "keys": Keys, "thumb": Thumb}


# What is about one hand is done by that one.
ONLY = {
    "test_2_a_dial_lamp_from_nothing_and_9_the_same_by_keys": "keys",
    "test_8_a_photograph_and_the_opening": "thumb",
}


def pytest_generate_tests(metafunc):
    if "hand" in metafunc.fixturenames:
        name = metafunc.function.__name__
        turn = list(HANDS)[int(name.split("_")[1]) % len(HANDS)]
        hands = list(HANDS) if os.environ.get("TORTURE") else [ONLY.get(name, turn)]
        metafunc.parametrize("hand", hands, indirect=True)


@pytest.fixture
def hand(request, served, rooms):
    """One of the three, on the bench; a script error fails the test."""
    kind = request.param
    context = rooms("phone", **PHONE) if kind == "thumb" else rooms()
    page = context.new_page()
    faults: list[str] = []
    page.on("pageerror", lambda e: faults.append(str(e)))
    page.goto(served + "/")
    page.get_by_label("Rail", exact=True).wait_for()
    hand = HANDS[kind](page)
    hand.kind = kind
    yield hand
    leave(context)
    assert faults == []


def within(hand, mouse: int, keys: int, thumb: int = 0) -> None:
    """The task took no more than so many actions."""
    most = {"mouse": mouse, "keys": keys, "thumb": thumb or mouse}[hand.kind]
    assert hand.actions <= most, f"{hand.actions} actions by {hand.kind}, {most} are the most"


def rule(page: Page):
    return page.get_by_role("slider", name="Resistor")


def to_lamp(hand, name: str) -> None:
    link = hand.page.get_by_role("link", name=re.compile(f"^{name}")).first
    if hand.kind == "keys":
        # Nobody walks through thirty items by arrows: the bench is asked.
        hand.page.locator("main").focus()
        hand.key("/")
        hand.write(hand.page.get_by_role("searchbox", name="Find"), name, "Enter")
        expect(link).to_be_focused()
    hand.press(link)
    rule(hand.page).wait_for()


def to_item(hand, name: str) -> None:
    link = hand.page.get_by_role("link", name=name)
    if hand.kind == "keys":
        hand.page.locator("main").focus()
        hand.key("/")
        hand.write(hand.page.get_by_role("searchbox", name="Find"), name, "Enter")
        expect(link).to_be_focused()
    hand.press(link)


def part(hand, name: str):
    """Open a part's panel beside the instruments."""
    hand.press(hand.page.get_by_role("toolbar", name="Parts of this lamp").get_by_role("button", name=name, exact=True))
    panel = hand.page.locator("[data-panel]")
    expect(panel).to_be_visible()
    return panel


def button(hand, name, exact: bool = True):
    return hand.page.get_by_role("button", name=name, exact=exact)


def test_1_quick_sum(hand):
    """22 V, a green LED of about 2.2 V at 5 mA: 3.96 kΩ, next up 4.3 kΩ in E24 (Ohm)."""
    page = hand.page
    if hand.kind == "keys":
        hand.key("r")
    hand.write(page.get_by_label("Rail", exact=True), "21-23V")
    hand.pick("LED", "green 3")
    expect(page.get_by_text("Rating to fit")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^4.*kΩ")).first).to_be_visible()
    within(hand, 4, 6)


def dial_lamp(hand) -> None:
    """From nothing to a resistor out of a drawer of four, on a rail that was read at its ends."""
    page = hand.page
    keys = hand.kind == "keys"

    def by(key: str, pressed) -> None:
        """A key of the bench, where one works by keys."""
        if keys:
            hand.key(key)
        else:
            hand.press(pressed)

    by("d", page.get_by_role("link", name="Drawer"))
    expect(page.get_by_role("heading", name="Drawer")).to_be_visible()
    hand.write(page.get_by_label("Add values"), "1k 1k5 2k2 3k3", "Enter")
    expect(page.locator("button[data-state=full]")).to_have_count(4)
    if keys:
        hand.key("Tab")
    by("b", page.get_by_role("link", name="Bench"))
    expect(page.get_by_role("heading", name="On the bench")).to_be_visible()
    by("n", button(hand, "Add equipment"))
    expect(page.get_by_role("heading", name="New equipment", level=1)).to_be_visible()
    by("n", button(hand, "Add a lamp"))
    expect(page.get_by_role("heading", name="What do you have?")).to_be_visible()
    by("n", page.get_by_role("link", name="Bulb in a holder"))
    expect(page.get_by_role("heading", name="What feeds it?")).to_be_visible()
    by("n", button(hand, "Add it now, and leave this open"))
    expect(rule(page)).to_be_visible()
    if keys:
        hand.key("p")
    panel = part(hand, "Supply")
    hand.write(panel.get_by_label("Volts, usual", exact=True), "13.2 (12.1-14.5)", "Tab")
    hand.press(panel.get_by_role("group", name="Where Volts, usual is from").get_by_role("button", name="Measured"))
    saved(page)
    if keys:
        hand.key("Escape")
    part(hand, "Old lamp and looks")
    hand.pick("Old lamp", "14 V 0.1")
    saved(page)
    hand.slide(rule(page), 3300, "3.3 kΩ")
    saved(page)
    lamp = Position.objects.get()
    until(page, lambda: Position.objects.get().input.resistor)
    kept = Position.objects.get().input
    assert (kept.resistor.replace("\u00a0", " "), kept.lamp_id) == ("3.3 kΩ", "74")
    levels = lamp.rail.input
    assert (levels.usual.text, levels.usual.source, levels.low.text) == ("13.2 (12.1-14.5)", "measured", "")


def test_2_a_dial_lamp_from_nothing_and_9_the_same_by_keys(hand, transactional_db):
    dial_lamp(hand)
    within(hand, 16, 45)


def test_3_a_winding_without_flicker(demo, hand):
    page = hand.page
    lamp = Position.objects.get(inputs__name="Left bracket")
    Bench()("PATCH", f"positions/{lamp.pk}", {"rectification": "bridge"})
    page.reload()
    hand.actions = 0
    to_lamp(hand, "Left bracket")
    flicker = page.locator("[data-finding=flicker]")
    expect(flicker).to_be_visible()
    hand.press(flicker.get_by_role("button", name=re.compile("^Preview")).first)
    expect(flicker).to_have_count(0)
    hand.press(button(hand, "Use it"))
    until(page, lambda: Position.objects.get(pk=lamp.pk).input.rectification == "bridge_cap")
    within(hand, 3, 22)


def test_4_a_keep_warm_ghost_is_cured(demo, hand):
    page = hand.page
    to_lamp(hand, "Door running")
    ghost = page.locator("[data-finding=glows-when-off]")
    expect(ghost).to_be_visible()
    hand.press(ghost.get_by_role("button", name=re.compile("^Preview")).first)
    expect(ghost).to_have_count(0)
    hand.press(button(hand, "Use it"))
    expect(page.locator("[data-bar]")).to_have_count(0)
    expect(ghost).to_have_count(0)
    # The focus is on the rule that the change has moved, not lost on the page.
    assert page.evaluate("document.activeElement !== document.body")
    within(hand, 3, 22)


def test_5_a_reading_that_is_off(demo, hand):
    """A tenth of the current: the engine names the decade, and the staircase where it would sit."""
    page = hand.page
    to_lamp(hand, "Shutter closed")
    field = page.get_by_label("Reading", exact=True)
    if hand.kind == "keys":
        hand.key("r")
    hand.write(field, "0.9")
    expect(page.get_by_text("Taken as 900 µA")).to_be_visible()
    hand.key("Enter")
    off = page.locator("[data-diagnosis=off]")
    expect(off).to_contain_text("ten times the value")
    step = page.get_by_label("Volt staircase").get_by_role("button", name=re.compile("^Resistor"))
    expect(step).to_contain_text("cause 1")
    # Another reading than the one that was asked for.
    hand.press(button(hand, "I read something else"))
    panel = page.locator("[data-panel]")
    hand.pick("What did you read?", "across the LEDs")
    expect(panel.get_by_role("img", name=re.compile("^Red lead between resistor and LED"))).to_be_visible()
    hand.write(panel.get_by_label("Reading", exact=True), "26.2V", "Enter")
    expect(off).to_contain_text("turned round")
    within(hand, 8, 20)


def test_6_find_export_delete_and_undo(demo, hand):
    page = hand.page
    find = page.get_by_role("searchbox", name="Find")
    if hand.kind == "keys":
        page.locator("main").focus()
        hand.key("/")
    hand.write(find, "exposure run")
    item = page.get_by_role("link", name="Plate camera console")
    expect(page.get_by_role("list", name="Equipment in work").locator("> li")).to_have_count(1)
    hand.press(item)
    hand.press(button(hand, "Files"))
    with page.expect_download() as download:
        hand.press(page.get_by_role("link", name="File without photographs (JSON)"))
    assert download.value.suggested_filename.endswith(".json")
    hand.press(button(hand, "Close"))
    hand.press(button(hand, "Delete this equipment"))
    expect(page.get_by_role("heading", name="On the bench")).to_be_visible()
    until(page, lambda: not Equipment.objects.filter(inputs__name="Plate camera console").exists())
    hand.press(page.get_by_role("status").get_by_role("button", name="Undo"))
    expect(item).to_be_visible()
    # The notice went with its step.
    expect(page.get_by_text("Deleted Plate camera console.")).to_have_count(0)
    within(hand, 7, 30)


def test_7_print_what_there_is(demo, hand):
    page = hand.page
    to_lamp(hand, "Wind hold")
    page.emulate_media(media="print")
    expect(page.get_by_label("Volt staircase")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^Preview|^Use it|^Keep reading"))).to_have_count(0)
    expect(page.locator("header")).to_be_hidden()
    within(hand, 1, 5)


def test_8_a_photograph_and_the_opening(demo, hand):
    page = hand.page
    to_item(hand, "Chart room reading lights")
    hand.press(button(hand, "Take-in sheet"))
    with page.expect_file_chooser() as chooser:
        hand.press(button(hand, "Add photographs"))
    chooser.value.set_files({"name": "a.jpg", "mimeType": "image/jpeg", "buffer": with_exif()})
    expect(page.get_by_alt_text("Photograph without a caption")).to_be_visible()
    opening = page.get_by_role("region", name="Opening record")
    before = opening.get_by_role("listitem").count()
    hand.press(opening.get_by_role("button", name="Add a step"))
    field = opening.get_by_role("listitem").nth(before).get_by_role("textbox").first
    # What was made has the focus: one types on.
    expect(field).to_be_focused()
    hand.write(field, "Back plate, four slotted screws", "Tab")
    saved(page)
    sheet = Equipment.objects.get(inputs__name="Chart room reading lights").sheet
    assert "Back plate, four slotted screws" in {step.text for step in sheet.opening.values()}
    within(hand, 6, 40)


def test_10_yesterdays_values(demo, hand):
    page = hand.page
    lamp = Position.objects.get(inputs__name="Wind hold")
    for text in ("4k7", "10k"):
        Bench()("POST", f"positions/{lamp.pk}/take", {"changes": {"resistor_ohm": {"4k7": 4700.0, "10k": 1e4}[text]}})
        Bench()("PATCH", f"positions/{lamp.pk}", {"notes": f"with {text}"})
    page.reload()
    to_lamp(hand, "Wind hold")
    expect(rule(page)).to_have_attribute("aria-valuetext", re.compile("^10 kΩ"))
    panel = part(hand, "History")
    states = panel.get_by_role("listitem")
    expect(states.first).to_contain_text("as it is now")
    hand.press(states.nth(2).get_by_role("button", name=re.compile("^Go back")))
    until(page, lambda: Position.objects.get(pk=lamp.pk).input.notes == "with 4k7")
    expect(rule(page)).to_have_attribute("aria-valuetext", re.compile(r"^4\.7 kΩ"))
    within(hand, 3, 24)


def test_a_swipe_past_the_slide_rule_scrolls_and_moves_nothing(demo, served, rooms):
    page = rooms("phone", **PHONE).new_page()
    page.goto(served + "/")
    hand = Thumb(page)
    hand.kind = "thumb"
    to_lamp(hand, "Wind hold")
    rule(page).scroll_into_view_if_needed()
    box = rule(page).bounding_box()
    was = rule(page).get_attribute("aria-valuetext")
    top = page.evaluate("scrollY")
    grip = rule(page).locator("[data-grip] rect").bounding_box()
    across = grip["x"] + grip["width"] / 2
    # Up the page over the scales, over the very cursor, and across the scales beside it.
    for start, end in (
        ((box["x"] + 60, box["y"] + 200), (box["x"] + 70, box["y"] + 60)),
        ((across, box["y"] + 220), (across + 6, box["y"] + 60)),
        ((box["x"] + 40, box["y"] + 120), (box["x"] + 90, box["y"] + 124)),
    ):
        drag(page, start, end)
        page.wait_for_timeout(100)
    page.wait_for_timeout(700)
    assert page.evaluate("scrollY") != top
    assert rule(page).get_attribute("aria-valuetext") == was
    assert not page.evaluate("Object.keys(localStorage).some((k) => k.startsWith('swapglow.save/'))")
    # A drag of the grip moves it.
    rule(page).scroll_into_view_if_needed()
    grip = rule(page).locator("[data-grip] rect").bounding_box()
    at = (grip["x"] + grip["width"] / 2, grip["y"] + 10)
    drag(page, at, (at[0] + 60, at[1]))
    expect(rule(page)).not_to_have_attribute("aria-valuetext", was)
    leave(page.context)
