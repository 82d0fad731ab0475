"""The first screen of a new bench, the first sum on it, and what is new after an update."""

import re

from playwright.sync_api import Page, expect

from swapglow.records.models import Position, Shop, StockPart
from tests.browser.test_bench_to_reading import saved


def test_three_questions_and_the_first_lamp(new_bench, served, page: Page):
    page.goto(f"{served}/")
    expect(page.get_by_role("heading", name="An empty bench")).to_be_visible()
    page.get_by_role("radiogroup", name="What do you mostly work on?").get_by_text("Vehicles").click()
    page.get_by_role("radiogroup", name="What is your meter?").get_by_text("A true RMS one").click()
    page.get_by_role("radiogroup", name=re.compile("^Which resistors")).get_by_text("E12", exact=True).click()
    page.get_by_role("button", name="Start my bench").dblclick()
    # Each is used at once: the rail, the series, the drawer, and below the meter.
    rail = page.get_by_label("Rail", exact=True)
    expect(rail).to_have_value("12.0-14.4V")
    expect(page.get_by_role("combobox", name="Series")).to_have_value("E12")
    steps = page.get_by_role("list", name="The first sum")
    expect(steps.get_by_role("listitem").nth(1)).to_have_attribute("aria-current", "step")
    saved(page)
    assert StockPart.objects.count() == 61 and Shop.own().input.meter == "rms"

    page.get_by_role("button", name="Keep as a lamp").click()
    page.get_by_label("Its name").fill("Cart lights")
    page.get_by_label("Which lamp").fill("Left")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_role("slider")).to_be_visible()
    lamp = Position.objects.get()
    assert lamp.input.series == "E12"
    page.goto(f"{served}/position/{lamp.pk}/readings")
    page.get_by_role("radiogroup", name="Meter on").get_by_text(re.compile("^AC volts")).click()
    expect(page.get_by_role("radio", name="True RMS")).to_be_checked()


def test_every_question_may_be_left(new_bench, served, page: Page):
    page.goto(f"{served}/")
    page.get_by_role("button", name="Start my bench").click()
    expect(page.get_by_label("Rail", exact=True)).to_have_value("")
    saved(page)
    assert not StockPart.objects.exists()
    # It is asked once.
    page.reload()
    expect(page.get_by_label("Rail", exact=True)).to_be_visible()
    expect(page.get_by_role("heading", name="An empty bench")).to_have_count(0)


def test_what_is_new_is_shown_until_it_is_read(served, page: Page, settings):
    settings.NEWS = ["Lamps may be typed by their watts."]
    page.goto(f"{served}/")
    news = page.get_by_role("region", name="What is new")
    expect(news).to_contain_text("Lamps may be typed by their watts.")
    news.get_by_role("button", name="I have read it").click()
    expect(news).to_have_count(0)
    page.reload()
    page.get_by_label("Rail", exact=True).wait_for()
    expect(news).to_have_count(0)
