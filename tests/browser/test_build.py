"""A whole job at phone width, from take-in to the printed card, over a line that is cut and with reloads between; and
the card's code read back by another library (zxing-cpp)."""

import io
import re

import pypdf
import pytest
import zxingcpp
from PIL import Image
from playwright.sync_api import expect

from swapglow.document.compact import compact
from swapglow.records import transfer
from swapglow.records.models import Equipment, Position
from tests.api.page import Bench
from tests.browser.conftest import axe, leave
from tests.browser.door import add_lamp
from tests.browser.hands import PHONE
from tests.browser.line import Line
from tests.browser.test_bench_to_reading import saved, until


@pytest.fixture
def line(demo, server, served):
    """The served app behind a line that can be cut."""
    made = Line(server.effective_port)
    yield made
    made.close()


@pytest.fixture
def phone(rooms, line):
    context = rooms("phone", **PHONE)
    yield context.new_page()
    leave(context)


def write(page, name, text):
    field = page.get_by_role("textbox", name=name, exact=True).last
    field.fill(text)
    page.keyboard.press("Tab")


def test_a_whole_job_on_a_phone_loses_nothing(phone, line):
    page = phone
    page.goto(line.url + "/")
    page.get_by_role("button", name="Add equipment").first.click()
    page.get_by_role("button", name="Rename New equipment").click()
    page.keyboard.type("Barograph")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Barograph", level=1)).to_be_visible()
    # Take-in, over a line that is cut while it is written.
    page.get_by_role("link", name="Take-in sheet").or_(page.get_by_role("button", name="Take-in sheet")).click()
    page.get_by_role("button", name="Add a step").click()
    write(page, "1. What came off, and where it goes", "Bezel: four screws")
    saved(page)
    line.cut()
    page.get_by_role("button", name="Add a step").click()
    write(page, "2. What came off, and where it goes", "Pen arm, upwards")
    page.get_by_role("button", name="Add an original").or_(page.get_by_role("button", name="Add a part")).first.click()
    write(page, "What", "Festoon 12 V 5 W")
    line.mend()
    saved(page)
    page.reload()
    expect(page.get_by_role("textbox", name="2. What came off, and where it goes")).to_have_value("Pen arm, upwards")
    page.get_by_role("link", name="Rails and lamps").click()
    page.get_by_role("button", name="Add rail").click()
    write(page, "Volts, usual", "12V")
    saved(page)
    page.get_by_role("button", name="Close").first.click()
    add_lamp(page, leave=True)
    page.get_by_role("slider", name="Resistor").wait_for()
    page.get_by_role("button", name="Build and card", exact=True).click()
    page.get_by_role("link", name="Build it, step by step").click()

    # The test before, then the steps; a reload and a cut in between.
    page.get_by_role("button", name="Add a check").click()
    write(page, "What is done, and in which state", "Lid shut, lamp on")
    page.get_by_role("radiogroup", name="Before the swap").get_by_text("As it should", exact=True).click()
    saved(page)
    line.cut()
    look = page.get_by_role("button", name=re.compile("^Look: Work every state once"))
    look.click()
    page.get_by_role("button", name="Note on step 1", exact=True).click()
    write(page, "Note on 1", "clips slip off the lower lug")
    line.mend()
    page.reload()
    saved(page)
    expect(page.get_by_role("textbox", name="Note on 1", exact=True)).to_have_value("clips slip off the lower lug")
    expect(page.get_by_role("button", name=re.compile("^Looked: Work every state once"))).to_be_visible()
    page.get_by_role("radiogroup", name="After it").get_by_text("As it should", exact=True).click()
    write(page, "Hours", "40 min")
    page.get_by_role("button", name="Look again in a month").click()
    saved(page)
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert axe(page) == []

    lamp = Position.objects.get(equipment__inputs__name="Barograph")
    until(page, lambda: Position.objects.get(pk=lamp.pk).input.look_again != "")
    kept = Position.objects.get(pk=lamp.pk).input
    assert kept.steps["works"].done and kept.steps["take"].note == "clips slip off the lower lug"
    (check,) = kept.checks.values()
    assert (check.what, check.before, check.after) == ("Lid shut, lamp on", "works", "works")
    assert kept.hours == "40 min"

    page.get_by_role("link", name="Job card to print").click()
    card = page.get_by_role("article", name="Job card")
    expect(card).to_contain_text("All 1 as before, or better. It took 40 min of work.")
    expect(card).to_contain_text("Festoon 12 V 5 W")
    pages = pypdf.PdfReader(io.BytesIO(page.pdf(format="A4"))).pages
    assert len(pages) == 1
    assert "Barograph" in pages[0].extract_text()
    item = Equipment.objects.get(inputs__name="Barograph")
    assert [s.text for s in item.sheet.opening.values()] == ["Bezel: four screws", "Pen arm, upwards"]


@pytest.mark.parametrize("name", ["Wind hold", "Left bracket", "Shutter open"])
def test_the_printed_code_carries_the_figures(name, demo, tab, served):
    """Read off the card's own picture as a phone would."""
    lamp = Position.objects.get(inputs__name=name)
    tab.goto(f"{served}/position/{lamp.pk}/card")
    code = tab.get_by_role("img", name="Code with this lamp's figures")
    code.wait_for()
    # By a rule for the page, so that a picture that is put in anew has its size too.
    tab.evaluate(
        """() => {
            const large = new CSSStyleSheet();
            large.replaceSync("img[alt^=Code] { width: 600px !important; height: 600px; max-width: none !important }");
            document.adoptedStyleSheets = [large];
        }"""
    )
    # Under load the picture comes after the page, and is drawn at its size after that.
    code.evaluate("async (e) => { await e.decode(); await new Promise((ok) => setTimeout(ok, 100)) }")
    (found,) = zxingcpp.read_barcodes(Image.open(io.BytesIO(code.screenshot())))
    assert found.text == compact(transfer.to_document(lamp.equipment, photographs=False), lamp.pk)


def test_a_cover_prints_every_lamp(demo, tab, served):
    item = Equipment.objects.get(inputs__name="Dome rotation desk")
    tab.goto(f"{served}/equipment/{item.pk}")
    tab.get_by_role("button", name="Files").click()
    tab.get_by_role("link", name="Cover with all lamps, to print or as PDF").click()
    cover = tab.get_by_role("article", name="Cover")
    expect(cover.get_by_role("heading", name="Dome rotation desk")).to_be_visible()
    printed = "".join(p.extract_text() for p in pypdf.PdfReader(io.BytesIO(tab.pdf(format="A4"))).pages)
    for p in item.positions.all():
        assert p.input.name in printed
    assert axe(tab) == []


def test_two_moments_are_compared_on_the_lamp(demo, tab, served):
    lamp = Position.objects.get(inputs__name="Wind hold")
    # Two edits of one field at once are one step: the first has another field with it.
    assert Bench()("PATCH", f"positions/{lamp.pk}", {"resistor": "4k7", "notes": "softer"})[0] == 200
    tab.goto(f"{served}/position/{lamp.pk}")
    tab.get_by_role("button", name="LED and resistor", exact=True).first.click()
    field = tab.get_by_role("textbox", name="Resistor", exact=True)
    field.fill("6k8")
    field.press("Tab")
    saved(tab)
    tab.get_by_role("button", name="History", exact=True).click()
    tab.get_by_role("button", name="Compare moments").click()
    tab.get_by_role("button", name=re.compile("^Compare: ")).nth(1).click()
    compared = tab.get_by_role("region", name="Compared")
    expect(compared.get_by_role("row", name=re.compile("^resistor"))).to_contain_text("4k7")
    expect(compared.get_by_role("row", name=re.compile("^Each resistor"))).to_contain_text("6.8 kΩ")


def test_a_lamp_whose_day_has_come_is_on_the_bench(demo, tab, served):
    lamp = Position.objects.get(inputs__name="Wind hold")
    lamp.inputs = {**lamp.inputs, "look_again": "2026-01-31"}
    lamp.save()
    tab.goto(served + "/")
    due = tab.get_by_role("region", name="To look at again")
    expect(due).to_contain_text("Wind hold")
    due.get_by_role("link", name="Wind hold").click()
    tab.get_by_role("button", name="Change: Look again on").click()
    day = tab.get_by_role("group", name="Look again on")
    expect(day).to_have_text("2026-01-31")
    # The year is stepped with the keys, and the day is kept when the field is left.
    day.get_by_role("spinbutton", name=re.compile("^year")).press("ArrowUp")
    tab.get_by_role("button", name="Clear: Look again on").focus()
    saved(tab)
    lamp.refresh_from_db()
    assert lamp.inputs["look_again"] == "2027-01-31"
    tab.get_by_role("button", name="Clear: Look again on").click()
    saved(tab)
    lamp.refresh_from_db()
    assert lamp.inputs["look_again"] == ""
    assert axe(tab) == []
